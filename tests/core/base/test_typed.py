"""One reading of figures for every field: a comma before decimals is read, and what it may mean besides is asked."""

import pytest

from hextan.core.base import InvalidInputError, parse_distance_m
from hextan.core.base.rates import RateSet
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot
from hextan.core.shots.needs import needs_of
from tests.core.bodies import a_body, a_format, a_mode, package_of

PACKAGE = package_of([parse_body(a_body([a_mode()]))])


def needs(**cells):
    return needs_of(Shot(name="1", keep_out_by="somebody", **cells), PACKAGE, PackageSettings())


@pytest.mark.parametrize(("cells", "points"), [
    ({"stop": "T2,8"}, {"stop": "T2.8"}), ({"stop": "T2,8-T5,6"}, {"stop": "T2.8-T5.6"}), ({"background": "0,5 % at 8,5 m"}, {"background": "0.5 % at 8.5 m"}),
    ({"light": "0,5 fc, EI 400"}, {"light": "0.5 fc, EI 400"}), ({"speed": "23,976"}, {"speed": "23.976"}), ({"speed": "2,5x slow"}, {"speed": "2.5x slow"}),
    ({"framing": "1,9 m wide"}, {"framing": "1.9 m wide"}), ({"hold": "±0,3 m"}, {"hold": "±0.3 m"}), ({"look": "1,8x"}, {"look": "1.8x"}),
    ({"rig": "gimbal 4,5 kg"}, {"rig": "gimbal 4.5 kg"}), ({"picture": "raw,1,3 samples"}, {"picture": "raw, 1.3 samples"}), ({"distance": "2,5-4,5 m"}, {"distance": "2.5-4.5 m"}),
    ({"lamps": "pulsed 400,5 Hz"}, {"lamps": "pulsed 400.5 Hz"}),
])  # fmt: skip
def test_a_decimal_comma_reads_as_a_point_in_every_cell(cells, points):
    comma, point = needs(**cells), needs(**points)
    assert comma.faults == point.faults == ()
    for name in (
        "wanted",
        "distance",
        "fps",
        "hold",
        "soft",
        "stops",
        "lit",
        "flicker_hz",
        "picture",
        "rig",
        "squeeze",
    ):
        a, b = getattr(comma, name), getattr(point, name)
        assert a == b or (name == "wanted" and a.field_m == b.field_m), name


@pytest.mark.parametrize(("cells", "rule"), [
    ({"light": "1,200 lux"}, "1,200 may mean 1200 or 1.200: write it without the comma, or with a point"),
    ({"distance": "1,500 m"}, "1,500 may mean 1500 or 1.500: write it without the comma, or with a point"),
])  # fmt: skip
def test_what_may_be_thousands_is_asked_about(cells, rule):
    assert [fault.rule for fault in needs(**cells).faults] == [rule]


def test_lists_ask_about_one_or_two():
    assert RateSet.parse(["23,976", "25"]).texts() == ["24000/1001", "25"]
    with pytest.raises(
        InvalidInputError, match=r"may mean 24.25, or 24 and 25: write 24.25, or 24 25 with a space"
    ):
        RateSet.parse(["24,25"])
    with pytest.raises(InvalidInputError, match=r"may mean 1.5, or 1 and 5"):
        parse_body(a_body([a_mode(formats=[a_format()])], nd_stops=["1,5"]))
    assert parse_distance_m("2,9") == 2.9
