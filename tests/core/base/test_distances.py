"""Distances as people write them."""

import pytest

from hextan.core.base.distances import parse_distance_m
from hextan.core.base.errors import InvalidInputError
from hextan.core.base.figures import both_units


@pytest.mark.parametrize(
    ("text", "unit", "metres"),
    # A foot is 0.3048 m exactly (international yard and pound agreement of 1959, from memory).
    [
        ("2.9", "m", 2.9),
        ("2,9m", "ft", 2.9),
        ("9'6\"", "m", 9.5 * 0.3048),
        ("115in", "m", 115 * 0.0254),
        ("10", "ft", 3.048),
    ],
)
def test_what_is_written_is_read(text, unit, metres):
    assert parse_distance_m(text, unit, "d") == pytest.approx(metres, abs=1e-12)


@pytest.mark.parametrize("text", ["0", "0 m", "0'0\"", "-1", "1000001", "", "3 x", "1/0"])
def test_what_is_no_distance_is_refused(text):
    with pytest.raises(InvalidInputError) as refused:
        parse_distance_m(text, "m", "distance")
    assert refused.value.faults[0].field == "distance"


def test_both_units_are_told_once_where_they_are_one():
    assert both_units(3.0) == "3.00 m (9' 10\")"
    # Very near both are told in millimetres.
    assert both_units(0.008) == "8.0 mm"
