"""The Bench: one lens at one place, in every recording format of the production.

Takes the package and the Bench's state, asks the public evaluation once for all formats, and gives
the six links, the rows of the ladder, the drawings and the derivations that the screen shows.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from hextan.core.base import both_units, m_from_mm
from hextan.core.bench.answers import (
    BenchMove,
    BenchView,
    CropSwitch,
    Following,
    LadderRow,
    LensChoice,
    LensOnBench,
    Links,
    MovedRow,
    SubjectLink,
    SuitedFormat,
    Unmounted,
)
from hextan.core.bench.finder_picture import viewfinder
from hextan.core.bench.plan import plan_view
from hextan.core.bench.result import BenchResult, compute_bench
from hextan.core.bench.state import BenchState
from hextan.core.equipment import (
    FormatInPackage,
    Highest,
    InCameraCrop,
    LensOnBody,
    LensSetting,
    Mounting,
    Package,
    highest_of,
    lacking,
    window_map,
)
from hextan.core.evaluation import (
    Evaluation,
    EvaluationAnswer,
    FormatAnswer,
    LensAnswer,
    Note,
    answer_of,
    derivation_of,
)
from hextan.core.kit import VERDICTS, KitAsk, kit_of
from hextan.core.optics import coverage_verdict, format_class, sharpness


def bench_view(
    package: Package, state: BenchState, open_rows: list[int], plan_extent_m: float | None = None
) -> BenchView:
    """Compute all that the Bench shows.

    Parameters
    ----------
    package : the production's equipment
    state : what the Bench is set to
    open_rows : ids of formats whose derivation is wanted
    plan_extent_m : reach of the plan view to keep, in metres

    Raises
    ------
    InvalidInputError
        A state that names equipment which the production does not have, or sets what cannot be.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    found = compute_bench(package, state)
    chosen, setting, order, result = found.chosen, found.setting, found.order, found.evaluation
    index = found.index
    answer = answer_of(result)
    rows = _rows(package, state, found, answer)
    reasons = setting.mounting(chosen.body).reasons
    kit = _lens_choices(package, state)
    mapped = window_map(result, index, chosen.body, chosen.mode)
    if reasons:
        # Nothing of a picture that cannot be had is said to be in order.
        mapped["words"] = [each for each in mapped["words"] if each["verdict"] not in ("covers", "marginal")]
    return {
        **_following(package, state, found, answer, plan_extent_m),
        "rows": rows,
        "reference": answer["reference"],
        "unmounted": _unmounted(package, setting, chosen, kit, reasons) if reasons else None,
        "crops": _crop_switches(chosen, state, setting.on_body(chosen)),
        "kit": kit,
        "suited": _suited(rows, setting),
        "window_map": mapped,
        "derivations": {str(key): derivation_of(result, order[key]) for key in open_rows if key in order},
    }


def bench_move(
    package: Package, state: BenchState, format_ids: list[int], plan_extent_m: float | None = None
) -> BenchMove:
    """Compute what follows the hand while subject, focus or something of the scene is moved.

    Parameters
    ----------
    format_ids : the rows of the ladder that are in sight; what the package does not have is left out
    plan_extent_m : reach of the plan view to keep, in metres

    Raises
    ------
    InvalidInputError, CannotFocusError
        As `bench_view`.
    """
    found = compute_bench(package, state, format_ids=[*format_ids, *state.pinned])
    answer, asked = answer_of(found.evaluation), set(format_ids)
    rows = _rows(package, state, found, answer)
    return {
        **_following(package, state, found, answer, plan_extent_m),
        "rows": [_moved_row(row) for row in rows if row["format_id"] in asked],
    }


def _moved_row(row: LadderRow) -> MovedRow:
    answer = row["answer"]
    return {
        "format_id": row["format_id"],
        "verdict": row["verdict"],
        "shown": row["shown"],
        "answer": {
            "field_m": answer["field_m"],
            "magnification": answer["magnification"],
            "subject_distance_m": answer["subject_distance_m"],
            "depth": answer["depth"],
            "background": answer["background"],
            "coverage": answer["coverage"],
            "notes": answer["notes"],
        },
    }


def _rows(
    package: Package, state: BenchState, found: BenchResult, answer: EvaluationAnswer
) -> list[LadderRow]:
    return [
        _row(package, state, found.setting, package.formats[key], answer["formats"][i], found.chosen)
        for key, i in found.order.items()
    ]


def _following(
    package: Package,
    state: BenchState,
    found: BenchResult,
    answer: EvaluationAnswer,
    plan_extent_m: float | None,
) -> Following:
    chosen, setting, order, result = found.chosen, found.setting, found.order, found.evaluation
    index = found.index
    pinned = [key for key in state.pinned if key in order]
    shown = {key: order[key] for key in [*pinned, state.format_id]}
    return {
        "lens": _lens(setting, answer["lens"], chosen, float(result.needed_mm[index])),
        "links": _links(package, state, result, index, setting, chosen),
        "plan": plan_view(
            result,
            shown,
            index,
            state.subject_m,
            state.unit,
            plan_extent_m,
            state.movement_m,
            package.brackets,
        ),
        "viewfinder": viewfinder(
            result,
            index,
            state.scene,
            state.subject_m,
            float(result.coc_mm[index]),
            state.unit,
            package.brackets,
        ),
    }


def _lens(
    setting: LensSetting, mounted: LensAnswer, chosen: FormatInPackage, needed_mm: float
) -> LensOnBench:
    """Describe the lens as it is set, with what the adapters made of it."""
    together, t = Mounting(setting.adapters), mounted["t_stop"]
    return {
        "focal_mm": setting.focal_mm,
        "marks": setting.marks,
        "stop": setting.stop,
        "stops": setting.stops,
        "circle_mm": setting.bare_circle_mm,
        "zoom_marks_mm": setting.zoom_marks_mm(),
        "covers_from_mm": setting.covers_from_mm(needed_mm),
        # Light lost in glass counts for exposure, and never for depth.
        "mounted": {**mounted, "t_stop": None if t is None else t / math.sqrt(together.transmission)},
        "adapter_stops": together.stops_lost,
        "mounting": setting.mounting(chosen.body).told,
        "assumed": sorted(setting.lens.assumed),
        "notes": setting.notes,
    }


def _row(
    package: Package,
    state: BenchState,
    setting: LensSetting,
    here: FormatInPackage,
    answer: FormatAnswer,
    chosen: FormatInPackage,
) -> LadderRow:
    reasons = setting.mounting(here.body).reasons
    if reasons:
        text = "; ".join(reasons)
        answer["notes"].insert(0, {"level": "stop", "code": "mount", "text": f"{text[0].upper()}{text[1:]}."})
    for text in lacking(here, package.carried):
        answer["notes"].insert(
            0, {"level": "stop", "code": "lacking", "text": f"{text[0].upper()}{text[1:]}."}
        )
    answer["notes"] += _unknown_correction(state, setting, here)
    speed, pixels, covered = answer["speed"], answer["pixels"], answer["coverage"]
    highest = highest_of(here)
    row: LadderRow = {
        "format_id": here.recording.id,
        "format_class": format_class(answer["recorded_mm"]["width"], answer["recorded_mm"]["height"]),
        "mounts": not reasons,
        "verdict": coverage_verdict(
            covered["circle_mm"], covered["needed_mm"], covered["dark_share"], package.seen_dark
        ),
        "sharpness": sharpness(here.mode.method == "full", pixels["oversampling"]),
        "limited_by": here.limited_by(speed["limited_by"]),
        "rate": {"usable_fps": highest.usable_fps, "text": highest.text},
        "shown": True,
        "answer": answer,
    }
    row["shown"] = _shown(state, row, here, chosen, highest)
    return row


def _unknown_correction(state: BenchState, setting: LensSetting, here: FormatInPackage) -> list[Note]:
    """What a correction takes is the lens's; where it is not stated, the most that it may take is what is shown."""
    lens = setting.on_body(here)
    acting = here.crops_that_apply(frozenset(state.crop_ids), lens) if lens.correction is None else []
    return [
        {
            "level": "warn",
            "code": "correction_unknown",
            "text": f"{crop.name} is counted with ×{factor:g}, the most that it may take: {setting.lens.name} does not "
            f"state its own. The picture may be up to {100 * (factor - 1):.1f} % wider.",
        }
        for crop, factor in acting
        if crop.lens == "corrected"
    ]


def _shown(
    state: BenchState, row: LadderRow, here: FormatInPackage, chosen: FormatInPackage, highest: Highest
) -> bool:
    wanted = state.ladder
    return not (
        (wanted.mounts and not row["mounts"] and row["format_id"] != state.format_id)
        or (wanted.scope == "body" and here.body.id != chosen.body.id)
        or (wanted.classes and row["format_class"] not in wanted.classes)
        or (wanted.covers and row["verdict"] not in ("covers", "marginal"))
        or (wanted.oversampled and row["sharpness"] != "oversampled")
        or (wanted.least_fps is not None and not highest.reaches(wanted.least_fps))
    )


def _lens_choices(package: Package, state: BenchState) -> list[LensChoice]:
    """Every lens of the kit as it would be put on for the chosen format, with its coverage, in the order of the sets."""
    ask = KitAsk(reference=state.reference, delivery=state.delivery, crop_ids=state.crop_ids,
                 format_ids=[state.format_id])  # fmt: skip
    kit = kit_of(package, ask)
    body = package.formats[state.format_id].body.id
    choices: list[LensChoice] = []
    for i, entry in enumerate(kit.entries):
        effective = float(kit.effective_mm[i, 0]) if kit.mounts[i, 0] and kit.rectilinear[i, 0] else None
        if entry.end == "long":
            choices[-1]["effective_long_mm"] = effective
            continue
        way = entry.by_body.get(body)
        choices.append(
            {
                "lens_id": entry.lens.id,
                "adapter_ids": [] if way is None else list(way.key),
                "verdict": VERDICTS[int(kit.verdict[i, 0])],
                "effective_mm": effective,
                "effective_long_mm": None,
            }
        )
    return choices


def _unmounted(
    package: Package,
    setting: LensSetting,
    chosen: FormatInPackage,
    kit: list[LensChoice],
    reasons: Sequence[str],
) -> Unmounted:
    """Say that a lens does not go on, and find the nearest in focal length that does: first of those that cover."""
    there = [choice for choice in kit if choice["verdict"] != "impossible"]

    def far(choice: LensChoice) -> tuple[bool, float, bool, int]:
        lens = package.lenses[choice["lens_id"]][1]
        focal = min(max(setting.focal_mm, lens.focal_min_mm), lens.focal_max_mm)
        off = round(abs(math.log(focal / setting.focal_mm)), 6)
        # Of those that are as near the lens itself comes first, then what needs the least glass and metal.
        return choice["verdict"] == "short", off, lens is not setting.lens, len(choice["adapter_ids"])

    nearest = min(there, key=far, default=None)
    told = f"{setting.lens.name} does not mount on {chosen.body.name}: {'; '.join(reasons)}."
    if nearest is None:
        return {"told": told, "nearest_id": None, "nearest_told": ""}
    lens_set, lens = package.lenses[nearest["lens_id"]]
    names = [adapter.name for adapter in package.adapters if adapter.id in nearest["adapter_ids"]]
    through = f" through {' and '.join(names)}" if names else ""
    words = package.lens_words(lens.name, lens_set.name)
    return {"told": told, "nearest_id": lens.id, "nearest_told": f"{words}{through}"}


def _suited(rows: list[LadderRow], setting: LensSetting) -> list[SuitedFormat]:
    """For a squeezed lens the formats that it suits: put on, covered, and least of the recording thrown away."""
    if setting.lens.squeeze == 1.0:
        return []
    found: list[SuitedFormat] = []
    for row in rows:
        recorded, picture = row["answer"]["recorded_mm"], row["answer"]["picture_mm"]
        if not row["mounts"] or row["verdict"] == "short":
            continue
        used = picture["width"] * picture["height"] / (recorded["width"] * recorded["height"])
        found.append({"format_id": row["format_id"], "used": used, "picture_width_mm": picture["width"]})
    found.sort(key=lambda f: (-round(f["used"], 2), -f["picture_width_mm"]))
    # Of formats with the same picture the first stands for all.
    same = {(round(f["used"], 3), round(f["picture_width_mm"], 2)): f for f in reversed(found)}
    return list(reversed(same.values()))[:5]


def _factor(chosen: FormatInPackage, crop: InCameraCrop, lens: LensOnBody) -> float | None:
    acting = chosen.crops_that_apply(frozenset([crop.id]), lens)
    return acting[0][1] if acting else crop.factor(chosen.mode.id, chosen.recording.raster)


def _crop_switches(chosen: FormatInPackage, state: BenchState, lens: LensOnBody) -> list[CropSwitch]:
    return [
        {
            "id": crop.id,
            "name": crop.name,
            "factor": _factor(chosen, crop, lens),
            "on": crop.always or crop.id in state.crop_ids,
            "always": crop.always,
            "reason": chosen.crop_reason(crop, lens),
            "menu": crop.menu.told,
        }
        for crop in chosen.body.crops
    ]


def _links(
    package: Package,
    state: BenchState,
    result: Evaluation,
    index: int,
    setting: LensSetting,
    chosen: FormatInPackage,
) -> Links:
    """Tell what each link does to the picture's size, by the reference's dimension: the factors multiply to the sum."""
    c, by, squeeze = result.columns, result.reference.by, setting.lens.squeeze

    def size(w: Any, h: Any, stretch: float = squeeze) -> float:
        wide, high = float(w[index]) * stretch, float(h[index])
        return wide if by == "width" else high if by == "height" else math.hypot(wide, high)

    as_read, read = size(c.read_w, c.read_h, 1.0), size(c.read_w, c.read_h)
    recorded, picture = size(c.recorded_w, c.recorded_h), size(c.picture_w, c.picture_h)
    whole = float(result.crop[index]) * picture
    return {
        "subject": _subject_link(state, result, index, setting, package.brackets),
        "lens": {"factor": as_read / read},
        "readout": {
            "factor": whole / as_read,
            "width_mm": float(c.read_w[index]),
            "height_mm": float(c.read_h[index]),
            "menu": chosen.mode.menu.told,
        },
        "recording": {"factor": read / recorded},
        "delivery": {"factor": recorded / picture},
        "sum": {"factor": float(result.crop[index])},
    }


def _subject_link(
    state: BenchState, result: Evaluation, index: int, setting: LensSetting, brackets: bool
) -> SubjectLink:
    """Tell whether the subject is sharp when the focus is set elsewhere."""
    disc = np.broadcast_to(result.background_mm[0], result.columns.picture_w.shape)[index]
    coc = result.coc_mm[index]
    sharp = bool(disc <= coc * (1 + 1e-9)) if np.isfinite(disc) and np.isfinite(coc) else None
    text = None
    if state.focus_m is not None and state.focus_m != state.subject_m:
        off = state.focus_m - state.subject_m
        side = "behind" if off > 0 else "in front of"
        told = f"Focus {both_units(abs(off), state.unit, brackets)} {side} the subject"
        if sharp is not None:
            blur = f"its blur is {disc / coc:.1f} circles of confusion"
            text = (
                f"{told}: still inside the depth, {blur}."
                if sharp
                else f"{told}: the subject is soft, {blur}."
            )
    front = setting.front_mm
    return {
        "sharp": sharp,
        "text": text,
        # From the lens's front rim, where the lens's length is known.
        "from_front_m": None if front is None else state.subject_m - m_from_mm(front),
    }
