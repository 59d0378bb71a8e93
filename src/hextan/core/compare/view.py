"""Set-ups side by side: finder pictures, numbers with their differences, why they differ, and what rules make of it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Literal

from hextan.core.base import (
    HextanError,
    InvalidInputError,
    distance_words,
    limits,
    m_from_mm,
    total_words,
    um_from_mm,
)
from hextan.core.base import Unit as LengthUnit
from hextan.core.bench import EARS_M, NOSE_M, viewfinder
from hextan.core.compare.answers import (
    ComparedColumn,
    ComparedRow,
    CompareView,
    LensWay,
    MatchSummary,
    MoreOrLess,
    PartShare,
    RuleCell,
    RuleRow,
    Rules,
    Unit,
    Why,
)
from hextan.core.compare.cases import (
    BLUR_PARTS,
    DEPTH_PARTS,
    Optics,
    Share,
    in_case,
    shares,
)
from hextan.core.compare.comparison import CASES, Case, Comparison, letter_of
from hextan.core.compare.setups import Setup, behind_lens_of, in_its_case, scene_before, setup_of
from hextan.core.equipment import Body, Lens, Package, Rig, highest_of, needs_words, ways
from hextan.core.evaluation import (
    SHARP_RULES,
)
from hextan.core.optics import coverage_verdict

#: Within this share depths count as the same.
SAME_SHARE = 0.01


@dataclass(frozen=True)
class Row:
    """A row of numbers. Within `same` (a share, or stops) two values match."""

    key: str
    label: str
    unit: Unit
    same: float
    get: Callable[[Setup, Setup], float | None]
    #: How the core writes it, where a limit is shown to the safe side.
    text: Callable[[Setup, LengthUnit], str] | None = None


def _or_none(value: float) -> float | None:
    return None if math.isnan(value) else value


def _traced(name: str, out: Callable[[float], float] = float) -> Callable[[Setup, Setup], float | None]:
    return lambda s, first: _or_none(out(s.one(getattr(s.found.evaluation.traced, name))))


def _stretch(s: Setup, first: Setup) -> float | None:
    """How much wider than high a ball at the picture's edge is drawn: 1/cos of the half angle, rectilinear."""
    if s.found.evaluation.request.lens.projection != "rectilinear":
        return None
    half = math.radians(s.one(s.found.evaluation.traced.focus_angle_w_deg) / 2)
    return 1 / math.cos(half)


def _face(s: Setup, first: Setup) -> float | None:
    z = s.state.subject_m - s.origin_m
    return (z + EARS_M) / (z - NOSE_M) if z > NOSE_M * 1.01 else None


def _behind(s: Setup, first: Setup) -> float | None:
    """Size of a thing as far behind the subject as the master camera stands before it."""
    z = s.state.subject_m - s.origin_m
    return 100 * z / (z + first.state.subject_m) if z > 0 else None


def _blur(s: Setup, first: Setup) -> float | None:
    return None if s.optics is None else 100 * s.optics.blur_share


def _limit(s: Setup, unit: LengthUnit, which: Literal["near", "far"]) -> str:
    """A depth limit as it is shown: near rounded up and far down."""
    near, far = (m_from_mm(s.one(getattr(s.found.evaluation.traced, f"{n}_mm"))) for n in ("near", "far"))
    mark = s.state.focus_m or s.state.subject_m
    told = limits(near, None if math.isinf(far) else far, mark, unit)
    text = told.near if which == "near" else told.far
    return text if text == "∞" or not told.unit else f"{text} {told.unit}"


def _total(s: Setup, unit: LengthUnit) -> str:
    total = 0.0 if s.optics is None else m_from_mm(s.optics.total_depth_mm)
    return total_words(None if math.isinf(total) else total, unit)


def _like(s: Setup, first: Setup) -> float | None:
    """The stop on the reference that gives the same depth at the same field: the same entrance pupil."""
    n = s.found.evaluation.f_number
    return None if n is None else n * float(s.found.evaluation.crop[0])


def _megapixels(s: Setup, first: Setup) -> float | None:
    c = s.found.evaluation.columns
    shown = c.picture_w[0] * c.picture_h[0] / (c.recorded_w[0] * c.recorded_h[0])
    return float(c.given.raster_w[0] * c.given.raster_h[0] * shown / 1e6)


def _highest(s: Setup, first: Setup) -> float | None:
    return highest_of(s.found.chosen).usable_fps


def _depth(s: Setup, first: Setup) -> float | None:
    return None if s.optics is None else m_from_mm(s.optics.total_depth_mm)


def _at_sensor(s: Setup, first: Setup) -> float:
    """Light on each square millimetre of the sensor against the master: stop, time, ND and losses; not EI."""
    one, other = first.settings, s.settings
    return (
        2 * math.log2(one.t_stop / other.t_stop)
        + math.log2(other.time_s / one.time_s)
        + one.nd_stops
        + one.lost_stops
        - other.nd_stops
        - other.lost_stops
    )


def _gathered(s: Setup, first: Setup) -> float:
    """All light of the picture against the master: by its area as well."""

    def area(x: Setup) -> float:
        c = x.found.evaluation.columns
        return float(c.picture_w[0] * c.picture_h[0])

    return _at_sensor(s, first) + math.log2(area(s) / area(first))


def _pixels(s: Setup, first: Setup) -> float:
    c = s.found.evaluation.columns
    return float(c.given.raster_w[0] * c.picture_w[0] / c.recorded_w[0])


def _oversampling(s: Setup, first: Setup) -> float:
    c = s.found.evaluation.columns
    per = c.recorded_w[0] / (c.read_w[0] / c.samples_across[0])
    return float(per / c.given.raster_w[0])


ROWS: tuple[Row, ...] = (
    Row("field_w", "Field at the subject, width", "m", 0.005, _traced("field_w_mm", m_from_mm)),
    Row("field_h", "Field at the subject, height", "m", 0.005, _traced("field_h_mm", m_from_mm)),
    Row("angle", "Angle of view", "deg", 0.005, _traced("angle_w_deg")),
    Row("effective", "Effective focal length", "mm", 0.005,
        lambda s, first: s.found.evaluation.lens.focal_mm * float(s.found.evaluation.crop[0])),
    Row("optical", "Optical focal length", "mm", 0.005, lambda s, first: s.found.evaluation.lens.focal_mm),
    Row("distance", "Subject from the sensor", "m", 0.005, lambda s, first: s.state.subject_m),
    Row("behind", "Size of a thing that far again behind", "percent", 0.01, _behind),
    Row("face", "A face's nose over its ears", "ratio", 0.01, _face),
    Row("stretch", "Stretch at the picture's edge", "ratio", 0.01, _stretch),
    Row("near", "Near limit", "m", 0.005, _traced("near_mm", m_from_mm), lambda s, u: _limit(s, u, "near")),
    Row("far", "Far limit", "m", 0.005, _traced("far_mm", m_from_mm), lambda s, u: _limit(s, u, "far")),
    Row("depth", "In focus, total", "m", SAME_SHARE, _depth, _total),
    Row("like", "Depth like, on the reference", "stop", SAME_SHARE, _like),
    Row("coc", "Circle of confusion", "um", 0.005, lambda s, first: _or_none(um_from_mm(s.coc_mm))),
    Row("blur", "Blur at infinity, of the width", "percent", SAME_SHARE, _blur),
    Row("pupil", "Entrance pupil, f/N", "mm", SAME_SHARE,
        lambda s, first: None if s.optics is None else s.optics.focal_mm / s.optics.f_number),
    Row("exposure", "Exposure, off by", "stops", 0.1, lambda s, first: s.settings.off_stops),
    Row("at_sensor", "Light on the sensor, against {master}", "stops", 0.1, _at_sensor),
    Row("gathered", "Light gathered, against {master}", "stops", 0.1, _gathered),
    Row("pixels", "Recorded pixels across the picture", "px", 0.005, _pixels),
    Row("oversampling", "Oversampled", "ratio", 0.005, _oversampling),
    Row("megapixels", "Recorded megapixels of the picture", "mp", 0.005, _megapixels),
    Row("fps", "Highest rate", "fps", 0.005, _highest, lambda s, u: highest_of(s.found.chosen).text),
)  # fmt: skip
#: What each row belongs to, for the summary of what matches.
_SUBJECTS = {
    "field": ("field_w",),
    "depth": ("depth",),
    "blur": ("blur",),
    "perspective": ("behind",),
    "distortion at the edges": ("stretch",),
    "exposure": ("exposure",),
    "light gathered": ("gathered",),
    "pixels": ("pixels",),
}


def compare_view(package: Package, comparison: Comparison) -> CompareView:
    """Compute a comparison.

    Returns
    -------
    ``columns`` (chain, finder picture, notes), ``rows`` of numbers with what differs from the master, ``summary`` of
    what matches, ``why`` (depth and blur split into parts), ``rules`` (the bigger sensor under every rule).

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench; names the column.
    """
    as_set = [_named_setup(package, comparison, i) for i in range(len(comparison.columns))]
    at = comparison.master_index
    told = [(s, "") if s is as_set[at] else _in_its_case(package, comparison, as_set[at], s) for s in as_set]
    shown = [s for s, _ in told]
    # The scene is as the camera of the first column sees it, whichever is the master.
    seen_m = as_set[0].state.subject_m
    rows = [_row(row, shown, at, comparison.unit) for row in ROWS]
    return {
        "case": comparison.case,
        "cases": [{"case": case, "name": name} for case, name in CASES.items()],
        "master": at,
        "columns": [_column(package, comparison, seen_m, s, problem) for s, problem in told],
        "rows": rows,
        "summary": [None if i == at else _summary(rows, at, i) for i in range(len(shown))],
        "why": [None if i == at else _why(shown[at], s) for i, s in enumerate(shown)],
        "rules": _rules(package, comparison, as_set, at) if len(as_set) > 1 else None,
    }


def _in_its_case(package: Package, comparison: Comparison, first: Setup, other: Setup) -> tuple[Setup, str]:
    """Put a set-up as the case has it; as it is set, with the reason, where that cannot be had."""
    try:
        return in_its_case(package, comparison, comparison.case, first, other), ""
    except HextanError as error:
        return other, error.message


def _named_setup(package: Package, comparison: Comparison, index: int) -> Setup:
    """Compute a column; a fault is told with the column that it lies in."""
    try:
        return setup_of(package, comparison, comparison.columns[index])
    except HextanError as error:
        faults = tuple(
            type(f)(f.field.replace("state.", f"document.columns[{index}]."), f.value, f.rule)
            for f in error.faults
        )
        raise InvalidInputError(f"Set-up {letter_of(index)}: {error.message}", faults, error.more) from None


def _column(
    package: Package, comparison: Comparison, seen_m: float, s: Setup, problem: str
) -> ComparedColumn:
    evaluation, chosen, setting = s.found.evaluation, s.found.chosen, s.found.setting
    scene = scene_before(comparison.scene, seen_m, s.state.subject_m)
    circle, needed = evaluation.lens.image_circle_mm, float(evaluation.needed_mm[0])
    on_body = setting.mounting(chosen.body)
    notes = [problem] if problem else []
    if on_body.reasons and s.virtual:
        notes.append(
            f"As it is, this lens cannot be mounted on {chosen.body.name}: {'; '.join(on_body.reasons)}."
        )
    elif on_body.reasons:
        notes.append(f"It cannot be put together: {'; '.join(on_body.reasons)}.")
    notes += [note["text"] for note in setting.notes] if not s.virtual else []
    close = setting.lens.close_focus_m
    if close is not None and s.state.subject_m < close * (1 - 1e-9):
        notes.append(f"{setting.lens.name} focuses no closer than {distance_words(close, comparison.unit)}.")
    notes += [f"{chosen.recording.name} {text}." for text in needs_words(chosen, package.carried)]
    if not s.virtual:
        notes += [f"{setting.lens.name}: {told}." for told in setting.lens.stands_in.values()]
        notes += [f"{note}." for note in package.rig.notes_on(setting.lens.name, chosen.body.name)]
        notes += s.exposing.notes
    return {
        "key": s.column.key,
        "virtual": s.virtual,
        "body": chosen.body.name,
        "format": chosen.recording.name,
        "lens": setting.lens.name,
        "focal_mm": evaluation.lens.focal_mm,
        "f_number": evaluation.f_number,
        "marks": setting.marks,
        "stop": setting.stop,
        "stops": setting.stops,
        "subject_m": s.state.subject_m,
        "ei": s.settings.ei,
        "eis": list(s.exposing.means.eis),
        "nds": [c.stops for c in s.exposing.means.nds],
        "ways": _ways(package.rig, (lens for _, lens in package.lenses.values()), chosen.body),
        "coverage": coverage_verdict(circle, needed, float(evaluation.dark[0]), package.seen_dark),
        "dark_share": None if circle is None else float(evaluation.dark[0]),
        "viewfinder": viewfinder(
            evaluation, 0, scene, s.state.subject_m, s.coc_mm, comparison.unit, package.brackets
        ),
        "notes": list(dict.fromkeys(notes)),
    }


def _ways(rig: Rig, lenses: Iterable[Lens], body: Body) -> list[LensWay]:
    """With what each lens of the kit goes on a body."""
    told: list[LensWay] = []
    for lens in lenses:
        way = next((w for w in ways(rig, lens, body) if not w.reasons), None)
        told.append({"lens_id": lens.id, "adapter_ids": [] if way is None else list(way.key)})
    return told


def _row(row: Row, shown: list[Setup], at: int, unit: LengthUnit) -> ComparedRow:
    first = shown[at]
    values = [row.get(s, first) for s in shown]
    return {
        "key": row.key,
        "label": row.label.format(master=letter_of(at)),
        "unit": row.unit,
        "values": [None if v is None or math.isinf(v) else v for v in values],
        "infinite": [v is not None and math.isinf(v) for v in values],
        "texts": [
            None if row.text is None or v is None else row.text(s, unit)
            for s, v in zip(shown, values, strict=True)
        ],
        "differs": [_differs(row, values[at], v) for v in values],
    }


def _differs(row: Row, first: float | None, value: float | None) -> bool:
    if first is None or value is None:
        return first is not value
    if math.isinf(first) or math.isinf(value):
        return first != value
    if row.unit == "stops":
        return abs(value - first) > row.same
    return abs(value - first) > row.same * max(abs(first), 1e-12)


def _summary(rows: list[ComparedRow], at: int, index: int) -> MatchSummary:
    by_key = {row["key"]: row for row in rows}
    matches: list[str] = []
    differs: list[str] = []
    for name, keys in _SUBJECTS.items():
        known = [k for k in keys if by_key[k]["values"][at] is not None or by_key[k]["infinite"][at]]
        if known:
            (differs if any(by_key[k]["differs"][index] for k in known) else matches).append(name)
    return {"matches": matches, "differs": differs}


def _why(first: Setup, other: Setup) -> Why | None:
    """Split what changed of depth and blur into focal length, distance, aperture and circle of confusion (or width)."""
    one, two = first.optics, other.optics
    if one is None or two is None:
        return None
    finite = math.isfinite(one.total_depth_mm) and math.isfinite(two.total_depth_mm)
    measure: Callable[[Optics], float] = (
        (lambda o: o.total_depth_mm) if finite else (lambda o: o.depth_dioptres)
    )
    depth = shares(one, two, measure, DEPTH_PARTS)
    if any(math.isnan(s.factor) for s in depth):
        measure, finite = (lambda o: o.depth_dioptres), False
        depth = shares(one, two, measure, DEPTH_PARTS)
    return {
        "in_dioptres": not finite,
        "depth_factor": measure(two) / measure(one),
        "depth": [_share(s) for s in depth],
        "blur_factor": two.blur_share / one.blur_share,
        "blur": [_share(s) for s in shares(one, two, lambda o: o.blur_share, BLUR_PARTS)],
    }


def _share(s: Share) -> PartShare:
    return {"part": s.part, "before": s.before, "after": s.after, "factor": s.factor}


def _rules(package: Package, comparison: Comparison, setups: list[Setup], at: int) -> Rules:
    """The master against the one whose picture differs most from it, in every case under every rule.

    Every other format is laid out behind the master's lens, as the cases have it.
    """
    first = setups[at]

    def size(s: Setup) -> float:
        c = s.found.evaluation.columns
        return float(c.picture_w[0])

    laid_out = [behind_lens_of(package, comparison, first, s) for s in setups if s is not first]
    other = max(laid_out, key=lambda s: abs(math.log(size(s) / size(first))))
    big, small = (first, other) if size(first) >= size(other) else (other, first)
    same = abs(math.log(size(big) / size(small))) < 0.005
    rows: list[RuleRow] = []
    for name, coc in (rule.compared for rule in SHARP_RULES.values()):
        under = comparison.model_copy(update={"coc": coc})
        one = setup_of(package, under, first.column)
        ruled = replace(other, state=other.state.model_copy(update={"coc": coc}))
        two = behind_lens_of(package, under, one, ruled)
        cells = [_rule_cell(case, one.optics, two.optics, first is big) for case in CASES if case != "as_set"]
        rows.append({"rule": name, "cells": cells})
    return {
        "bigger": f"{big.found.chosen.recording.name}, {big.found.chosen.body.name}",
        "smaller": f"{small.found.chosen.recording.name}, {small.found.chosen.body.name}",
        "same_size": same,
        "cases": [name for case, name in CASES.items() if case != "as_set"],
        "rows": rows,
    }


def _rule_cell(case: Case, first: Optics | None, other: Optics | None, first_is_big: bool) -> RuleCell | None:
    """Depth of the bigger picture over that of the smaller."""
    if first is None or other is None:
        return None
    try:
        there = in_case(case, first, other)
        one, two = first.depth_dioptres, there.depth_dioptres
    except InvalidInputError:
        return None
    finite = math.isfinite(first.total_depth_mm) and math.isfinite(there.total_depth_mm)
    if finite:
        one, two = first.total_depth_mm, there.total_depth_mm
    ratio = one / two if first_is_big else two / one
    answer: MoreOrLess = "same" if abs(ratio - 1) <= SAME_SHARE else "less" if ratio < 1 else "more"
    return {"ratio": ratio, "answer": answer}
