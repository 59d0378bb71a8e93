"""docs/extending.md, done: a rule of sharpness that nobody has, as a row of the table."""

from dataclasses import replace
from typing import Literal

import numpy as np
import pytest

from hextan.core.base import Strict
from hextan.core.evaluation.computation import compute
from hextan.core.evaluation.contract import parse_request
from hextan.core.evaluation.derivation import derivation_of
from hextan.core.evaluation.sharp import (
    SHARP_RULES,
    SharpRule,
    assumption,
    circle_of_confusion_mm,
    rule_label,
)
from tests.core.evaluation.test_evaluate import asking


class CocByHeight(Strict):
    """Picture height on the sensor / divisor."""

    rule: Literal["picture_height"] = "picture_height"
    divisor: float = 1000.0


ROW = SharpRule[CocByHeight](
    circle_mm=lambda rule, c: c.picture_h / rule.divisor,
    formula="picture height / divisor",
    numbers=lambda rule, c, i, _: f"{c.picture_h[i]:.2f} mm / {rule.divisor:g}",
    assumes=lambda rule: f"a {rule.divisor:g}th of the height",
    label=lambda rule: f"picture height / {rule.divisor:g}",
    choices={"height / 1000": CocByHeight()},
    compared=("height / 1000", CocByHeight()),
)


def test_a_rule_is_a_row(monkeypatch):
    monkeypatch.setitem(SHARP_RULES, CocByHeight, ROW)
    whole = parse_request(asking(subject={"distance_m": 3.0}))
    asked = whole.model_copy(update={"coc": CocByHeight(divisor=500.0)})
    result = compute(asked)
    assert result.coc_mm == pytest.approx(result.columns.picture_h / 500.0)
    assert np.all(result.traced.near_mm < 3000.0)
    step = next(s for s in derivation_of(result, 0) if s["what"] == "Circle of confusion")
    assert step["formula"] == "picture height / divisor"
    assert step["numbers"] == f"{result.columns.picture_h[0]:.2f} mm / 500"
    assert rule_label(CocByHeight()) == "picture height / 1000"
    assert assumption(CocByHeight()) == "a 1000th of the height"


def test_there_is_no_silent_rule():
    with pytest.raises(KeyError):
        circle_of_confusion_mm(CocByHeight(), compute(parse_request(asking())).columns)


def test_every_rule_offers_what_it_computes():
    """What the screen offers is a setting of its own rule, and its circle is a number in every format that is known."""
    columns = compute(parse_request(asking())).columns
    for model, row in SHARP_RULES.items():
        assert row.choices
        for asked in (*row.choices.values(), row.compared[1]):
            assert type(asked) is model
            assert np.all(row.circle_mm(asked, columns) > 0), asked
    assert len({label for row in SHARP_RULES.values() for label in row.choices}) == 9
    assert replace(ROW, formula="x").formula == "x"
