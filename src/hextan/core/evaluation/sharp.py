"""What counts as sharp: one row for each rule of the circle of confusion.

Computation, derivation, words and the choices on the screen read the table. A new rule is its formula
(`optics/coc.py`), what may be asked of it (`contract.py`) and a row here.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

import numpy as np

from hextan.core.base import Floats, mm_from_um
from hextan.core.evaluation.columns import FormatColumns
from hextan.core.evaluation.contract import Coc, CocByDiagonal, CocEye, CocFixed, CocPhotosite, CocPixel
from hextan.core.optics import coc

R = TypeVar("R")


@dataclass(frozen=True)
class SharpRule(Generic[R]):
    """One rule: how it is computed, how that is written down, what it assumes, and what is offered of it."""

    #: The circle on the sensor by format, mm, shape (F,); NaN where it cannot be told.
    circle_mm: Callable[[R, FormatColumns], Floats]
    formula: str
    #: The formula with the numbers of one format: takes its index and its circle.
    numbers: Callable[[R, FormatColumns, int, float], str]
    assumes: Callable[[R], str]
    #: The rule in a few words.
    label: Callable[[R], str]
    #: What the screen offers, by its label.
    choices: dict[str, R]
    #: Under which name a comparison holds it against the other rules, and with which figures.
    compared: tuple[str, R]


def _diagonal_mm(c: FormatColumns) -> Floats:
    return np.asarray(np.hypot(c.picture_w, c.picture_h))


def _coarser(c: FormatColumns) -> Floats:
    return np.maximum(c.given.sampling_h, c.given.sampling_v)


def _delivered_px(c: FormatColumns) -> Floats:
    recorded = c.given.raster_w * c.picture_w / c.recorded_w
    return np.where(np.isnan(c.given.delivered_w), recorded, c.given.delivered_w)


SHARP_RULES: dict[type[Any], SharpRule[Any]] = {
    CocByDiagonal: SharpRule[CocByDiagonal](
        circle_mm=lambda rule, c: coc.coc_from_diagonal_mm(_diagonal_mm(c), rule.divisor),
        formula="picture diagonal / divisor",
        numbers=lambda rule, c, i, _: (
            f"{math.hypot(c.picture_w[i], c.picture_h[i]):.3f} mm / {rule.divisor:g}"
        ),
        assumes=lambda rule: (
            f"the delivered picture's diagonal over {rule.divisor:g}: every format is looked at in one "
            "size, on one screen, so that formats can be compared"
        ),
        label=lambda rule: f"picture diagonal / {rule.divisor:g}",
        choices={
            "diagonal / 1500": CocByDiagonal(divisor=1500),
            "diagonal / 1730": CocByDiagonal(divisor=1730),
        },
        compared=("picture diagonal / 1500", CocByDiagonal()),
    ),
    CocFixed: SharpRule[CocFixed](
        circle_mm=lambda rule, c: np.full(c.picture_w.shape, rule.mm),
        formula="fixed",
        numbers=lambda rule, *_: f"{rule.mm:g} mm",
        assumes=lambda rule: (
            f"{rule.mm:g} mm on any sensor: a gauge's value, which takes no account of how far it is enlarged"
        ),
        label=lambda rule: f"{rule.mm:g} mm on any sensor",
        choices={
            "0.025 mm": CocFixed(rule="fixed", mm=0.025),
            "0.0254 mm (0.001 in)": CocFixed(rule="fixed", mm=0.0254),
            "0.013 mm": CocFixed(rule="fixed", mm=0.013),
            "0.0127 mm (0.0005 in)": CocFixed(rule="fixed", mm=0.0127),
        },
        compared=("fixed 0.025 mm", CocFixed(rule="fixed", mm=0.025)),
    ),
    CocPhotosite: SharpRule[CocPhotosite](
        circle_mm=lambda rule, c: coc.coc_from_photosites_mm(c.given.pitch_um, _coarser(c), rule.factor),
        formula="factor × sampled pitch",
        numbers=lambda rule, c, i, _: (
            f"{rule.factor:g} × {mm_from_um(c.given.pitch_um[i] * _coarser(c)[i]):.5f} mm"
        ),
        assumes=lambda rule: (
            f"{rule.factor:g} sampled photosites: what the sensor resolves, whatever is delivered"
        ),
        label=lambda rule: f"{rule.factor:g} sampled photosites",
        choices={"2 photosites": CocPhotosite(rule="photosite", factor=2)},
        compared=("2 photosites", CocPhotosite(rule="photosite")),
    ),
    CocPixel: SharpRule[CocPixel](
        circle_mm=lambda rule, c: coc.coc_from_pixel_mm(c.picture_w, _delivered_px(c), rule.factor),
        formula="factor × delivered pixel on the sensor",
        numbers=lambda rule, c, i, circle: f"{rule.factor:g} × {circle / rule.factor:.5f} mm",
        assumes=lambda rule: (
            f"{rule.factor:g} delivered pixel: looked at pixel by pixel, the strictest for small pictures"
        ),
        label=lambda rule: f"{rule.factor:g} delivered pixel{'' if rule.factor == 1 else 's'}",
        choices={"1 delivered pixel": CocPixel(rule="pixel", factor=1)},
        compared=("1 delivered pixel", CocPixel(rule="pixel")),
    ),
    CocEye: SharpRule[CocEye](
        circle_mm=lambda rule, c: coc.coc_from_eye_mm(c.picture_h, rule.picture_heights, rule.arcmin),
        formula="picture height × picture heights × tan(arc minutes)",
        numbers=lambda rule, c, i, _: (
            f"{c.picture_h[i]:.3f} mm × {rule.picture_heights:g} × tan({rule.arcmin:g}′)"
        ),
        assumes=lambda rule: (
            f"what an eye resolves ({rule.arcmin:g} arc minute) from {rule.picture_heights:g} picture "
            "heights away"
        ),
        label=lambda rule: f"the eye, {rule.arcmin:g}′ from {rule.picture_heights:g} picture heights",
        choices={"the eye, 3 picture heights": CocEye(rule="eye", arcmin=1, picture_heights=3)},
        compared=("the eye, 3 picture heights", CocEye(rule="eye")),
    ),
}


def rule_of(asked: Coc) -> SharpRule[Any]:
    """Find the row of a rule."""
    return SHARP_RULES[type(asked)]


def circle_of_confusion_mm(asked: Coc, c: FormatColumns) -> Floats:
    """What counts as sharp in each format by a rule, mm on the sensor, shape (F,); NaN where it cannot be told."""
    return rule_of(asked).circle_mm(asked, c)


def rule_label(asked: Coc) -> str:
    """Name a rule in a few words."""
    return rule_of(asked).label(asked)


def assumption(asked: Coc) -> str:
    """Say what a rule assumes."""
    return rule_of(asked).assumes(asked)
