"""How figures are shown: the fixture that the screen's code is held to as well, and what rounding must never do."""

import json
import math
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import figures
from hextan.core.base.distances import parse_distance_m
from hextan.core.base.figures import limits
from tests.budget import examples

CASES = json.loads((Path(__file__).parents[2] / "fixtures" / "figures.json").read_text(encoding="utf-8"))


def test_every_case_of_the_fixture():
    for case in CASES["limits"]:
        shown = limits(case["near_m"], case["far_m"], case["mark_m"], case["unit"])
        assert vars(shown) == case["shown"], case
    for case in CASES["total"]:
        assert figures.total_words(case["total_m"], case["unit"]) == case["shown"], case
    for case in CASES["distance"]:
        assert figures.distance_words(case["metres"], case["unit"]) == case["shown"], case
    for case in CASES["highest_rate"]:
        assert figures.highest_rate(case["fps"]) == case["shown"], case
    for case in CASES["signed"]:
        assert figures.signed(case["value"], case["digits"], case["nothing"]) == case["shown"], case
    for case in CASES["crop"]:
        assert figures.crop_words(case["factor"]) == case["shown"], case
    for case in CASES["needed_light"]:
        assert figures.needed_light(case["amount"]) == case["shown"], case
    for case in CASES["margin"]:
        assert figures.margin_words(case["margin_mm"]) == case["shown"], case


def read_back(text, unit, mark_m, before):
    """Metres that a shown limit says."""
    if text[0] in "−+":
        side = float(text[1:]) / 1000 if unit == "mm" else parse_distance_m(f"{text[1:]}in")
        return mark_m - side if before else mark_m + side
    return float(text) if unit == "m" else parse_distance_m(text, "ft")


depths = st.tuples(st.floats(0.2, 100), st.floats(1e-5, 0.9), st.floats(1e-5, 2.0))


@settings(max_examples=examples(600), deadline=None)
@given(depths, st.sampled_from(["m", "ft"]))
def test_limits_are_never_shown_outwards(depth, unit):
    """Near no nearer, far no farther, near and far never alike, and two digits of the total at least."""
    mark, before, behind = depth
    near, far = mark * (1 - before * min(1, 0.5 / mark)), mark * (1 + behind * min(1, 1 / mark))
    shown = limits(near, far, mark, unit)
    told_near = read_back(shown.near, shown.unit, mark, True)
    told_far = read_back(shown.far, shown.unit, mark, False)
    grain = 2e-6 * max(far - near, 0.001)
    assert told_near >= near - grain
    assert told_far <= far + grain
    assert told_near < told_far
    assert shown.near != shown.far
    if min(mark - near, far - mark) > 0.2 * (far - near):
        # Each end loses less than a tenth of the total, or a sixteenth of an inch.
        assert (told_far - told_near) > (far - near) - 2 * max(
            0.1 * (far - near), 0 if unit == "m" else 0.0016
        )
    assert "0.00" not in (shown.near, shown.far)


def test_what_used_to_print_as_nothing():
    """85 mm f/1.2 at 0.85 m had "0.00 m in focus"; a 100 mm at 1 m "1.00 - 1.00"."""
    assert limits(0.8493, 0.8507, 0.85, "m").words() == "−0.7 / +0.7 mm"
    assert figures.total_words(0.0014, "ft") == "1.4 mm"
    assert limits(0.9934, 1.0067, 1.0, "m").words() == "−6 / +6 mm"


@settings(max_examples=examples(300), deadline=None)
@given(st.floats(0.05, 2000))
def test_a_highest_rate_is_never_rounded_up(fps):
    told = float(figures.highest_rate(fps))
    # 59.94 stands for 60000/1001, whichever of the two was stated.
    assert told <= fps + 6e-4
    assert told > 0
    assert fps - told <= max(0.11, 0.01 * fps)


@settings(max_examples=examples(200), deadline=None)
@given(st.floats(-50, 50).filter(lambda v: abs(v) > 1e-7))
def test_no_sign_without_a_figure(value):
    told = figures.signed(value, 1)
    assert float(told.replace("−", "-")) != 0
    assert (told[0] == "−") == (value < 0)
    words = figures.margin_words(value)
    assert not any(zero in words for zero in (" 0.0 ", " 0 ", "-0", "−0.0 "))
    assert math.copysign(1, value) == (-1 if "short" in words else 1)


@pytest.mark.parametrize("unit", ["m", "ft"])
def test_the_chosen_unit_comes_first(unit):
    text = figures.both_units(2.97, unit)
    assert text == ("2.97 m (9' 9\")" if unit == "m" else "9' 9\" (2.97 m)")
    span = figures.span_words(2.412, 3.967, 3.0, unit)
    assert span.startswith("from 2.42 m to 3.96 m (" if unit == "m" else "from 7' 11\" to 13' 0\" (")
