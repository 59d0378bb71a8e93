"""The ladder: every effective focal length that the kit can make, its gaps and its doubles, in words."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

from hextan.core.equipment import Package
from hextan.core.kit.answers import (
    Double,
    Elsewhere,
    Gap,
    KitLadder,
    LadderRung,
    Purchase,
    ViewClassRead,
)
from hextan.core.kit.arrays import (
    MARGINAL,
    UNKNOWN,
    VERDICTS,
    Kit,
    kit_of,
    pictures,
    told_picture,
)
from hextan.core.kit.ask import LadderAsk
from hextan.core.kit.matrix import reference_dict
from hextan.core.kit.reach import Reach, angle_at, reaches, verdict_at
from hextan.core.optics import LEAST_ANGLE_DEG, VIEW_CLASSES, view_class


@dataclass(frozen=True)
class Rung:
    """One lens in one picture: a point, or a span of a zoom that is covered; effective focal lengths."""

    reach: Reach
    column: int
    short_mm: float
    long_mm: float

    @property
    def entry(self) -> int:
        """Index of the lens in the kit."""
        return self.reach.entry

    def name(self, kit: Kit, focal_mm: float) -> str:
        """The lens at a focal length with adapter."""
        return kit.entries[self.entry].name_at(focal_mm / float(kit.magnification[self.entry, self.column]))


def kit_ladder(package: Package, ask: LadderAsk) -> KitLadder:
    """Lay out the ladder.

    Returns
    -------
    ``rungs`` (by picture and lens), ``pictures`` (the rows), ``gaps`` with their ratio and what would close
    them, ``doubles``, ``classes`` (bounds as effective focal lengths by width) and ``words``.

    Raises
    ------
    InvalidInputError
        A window of reference that the production does not have.
    """
    kit = kit_of(package, ask)
    groups = pictures(kit)
    rungs = [rung for group in groups for rung in _rungs(kit, group[0])]
    spans = _joined([(r.short_mm, r.long_mm) for r in rungs])
    gaps = [(a[1], b[0]) for a, b in pairwise(spans) if b[0] / a[1] > ask.gap_ratio * (1 + 1e-9)]
    everything = kit_of(package, ask.model_copy(update={"format_ids": None, "body_ids": None, "least_fps": None,
                                                        "planned": False, "mounted": "every"}))  # fmt: skip
    doubles = _doubles(kit, rungs, ask.double_percent)
    return {
        "reference": reference_dict(kit),
        "pictures": [told_picture(kit, group) for group in groups],
        "rungs": [_rung(kit, r) for r in rungs],
        "gaps": [_gap(kit, everything, a, b, ask) for a, b in gaps],
        "doubles": doubles,
        "classes": _class_bounds(kit),
        "words": _words(kit, rungs, gaps, doubles, ask),
    }


def _rungs(kit: Kit, column: int) -> list[Rung]:
    rungs = []
    for i, entry in enumerate(kit.entries):
        if entry.end == "long" or not kit.rectilinear[i, 0]:
            continue
        # Of a zoom the parts of its range that cover.
        for reach in reaches(kit, i, column):
            if reach.covers:
                crop = float(kit.crop[i, column]) / reach.smaller
                rungs.append(Rung(reach, column, reach.low_mm * crop, reach.high_mm * crop))
    return rungs


def _joined(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    """Join spans that overlap: what is left between them is not to be had."""
    joined: list[tuple[float, float]] = []
    for a, b in sorted(spans):
        if joined and a <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(joined[-1][1], b))
        else:
            joined.append((a, b))
    return joined


def _rung(kit: Kit, r: Rung) -> LadderRung:
    entry, place = kit.entries[r.entry], kit.places[r.column]
    reach = r.reach
    angle = angle_at(kit, r.entry, r.column, reach.low_mm, reach.smaller)
    way = entry.by_body[place.body.id]
    return {
        "format_id": place.recording.id,
        "lens_id": entry.lens.id,
        "lens": entry.lens.name,
        "adapter_ids": list(way.key),
        "via": way.name if way.adapters else None,
        "magnification": way.magnification,
        "effective_mm": r.short_mm,
        "effective_long_mm": None if reach.prime else r.long_mm,
        "focal_mm": reach.low_mm,
        "angle_deg": angle,
        "view_class": view_class(angle),
        "verdict": VERDICTS[verdict_at(kit, r.entry, r.column, reach.low_mm)],
    }


def _gap(kit: Kit, everything: Kit, a: float, b: float, ask: LadderAsk) -> Gap:
    """Name a gap and what would close it: so few lenses that no step is wider than allowed, or other formats."""
    steps = math.ceil(math.log(b / a) / math.log(ask.gap_ratio) - 1e-9)
    wanted = [a * (b / a) ** (k / steps) for k in range(1, steps)]
    crop, base = _base_crop(kit, ask)
    buys: list[Purchase] = [
        {"effective_mm": e, "focal_mm": None if crop is None else e / crop} for e in wanted
    ]
    return {
        "from_mm": a,
        "to_mm": b,
        "ratio": b / a,
        "buys": buys,
        "buy_for": base,
        "elsewhere": _elsewhere(kit, everything, a, b),
    }


def _base_crop(kit: Kit, ask: LadderAsk) -> tuple[float | None, str | None]:
    """Crop of a spherical lens in the format for which focal lengths to buy are told: the base, or the first shown."""
    ids = [p.recording.id for p in kit.places]
    if not ids or not kit.entries:
        return None, None
    j = ids.index(ask.base_format_id) if ask.base_format_id in ids else 0
    spherical = [i for i, e in enumerate(kit.entries) if e.lens.squeeze == 1.0]
    i = spherical[0] if spherical else 0
    place = kit.places[j]
    return float(kit.crop[i, j]), f"{place.recording.name} of {place.body.name}"


def _elsewhere(shown: Kit, kit: Kit, a: float, b: float) -> list[Elsewhere]:
    """What the package makes inside a gap by formats that are not shown: the three nearest to its middle."""
    here = {p.recording.id for p in shown.places}
    bodies = {p.body.id for p in shown.places}
    middle = math.sqrt(a * b)
    inside: list[tuple[bool, float, Rung, float]] = []
    for j, place in enumerate(kit.places):
        if place.recording.id in here:
            continue
        for r in _rungs(kit, j):
            effective = min(max(middle, r.short_mm), r.long_mm)
            if a * 1.02 < effective < b / 1.02:
                # Another format of the same body is nearer at hand than another camera.
                off = round(abs(math.log(effective / middle)), 9)
                inside.append((place.body.id not in bodies, off, r, effective))
    found: list[Elsewhere] = []
    seen = set()
    for _, _, r, effective in sorted(inside, key=lambda each: each[:2]):
        entry, place = kit.entries[r.entry], kit.places[r.column]
        picture = (entry.lens.id, round(effective, 3))
        if picture in seen:
            continue
        seen.add(picture)
        via = entry.by_body[place.body.id]
        found.append(
            {
                "lens": r.name(kit, r.reach.low_mm * effective / r.short_mm),
                "lens_id": entry.lens.id,
                "format_id": place.recording.id,
                "format": place.recording.name,
                "body": place.body.name,
                "via": via.name if via.adapters else None,
                "effective_mm": effective,
            }
        )
        if len(found) == 3:
            break
    return found


def _doubles(kit: Kit, rungs: list[Rung], per_cent: float) -> list[Double]:
    """Primes of other names that make the same field within so many per cent: one of them could stay home."""
    primes = sorted((r for r in rungs if r.reach.prime), key=lambda r: r.short_mm)
    groups: list[list[Rung]] = []
    for r in primes:
        # Each is held against the first of its group, so that a chain of near ones does not run away.
        if groups and r.short_mm <= groups[-1][0].short_mm * (1 + per_cent / 100):
            groups[-1].append(r)
        else:
            groups.append([r])
    told: list[Double] = []
    for group in groups:
        lenses = list(dict.fromkeys(kit.entries[r.entry].lens.name for r in group))
        if len(lenses) > 1:
            told.append(
                {
                    "effective_mm": math.exp(sum(math.log(r.short_mm) for r in group) / len(group)),
                    "lenses": lenses,
                    "fields": len(group),
                }
            )
    return told


def _class_bounds(kit: Kit) -> list[ViewClassRead]:
    """Bounds of the classes as effective focal lengths on the reference, by its width."""
    half = kit.reference.width_mm / 2
    bounds = [half / math.tan(math.radians(angle) / 2) for angle in LEAST_ANGLE_DEG]
    return [
        {"name": name, "from_mm": low, "to_mm": high, "least_angle_deg": angle}
        for name, low, high, angle in zip(
            VIEW_CLASSES, [None, *bounds], [*bounds, None], [*LEAST_ANGLE_DEG, None], strict=True
        )
    ]


def _words(
    kit: Kit, rungs: list[Rung], gaps: list[tuple[float, float]], doubles: list[Double], ask: LadderAsk
) -> list[str]:
    at = f" at {ask.least_fps:g} fps" if ask.least_fps else ""
    if not rungs:
        return [f"No lens of the kit can be mounted and covers any of these formats{at}."]
    lenses = {kit.entries[r.entry].lens.id for r in rungs}
    fields = _count_fields(rungs, ask.double_percent)
    widest, longest = min(rungs, key=lambda r: r.short_mm), max(rungs, key=lambda r: r.long_mm)
    give = _number(len(lenses), "lens gives", "lenses give")
    words = [_sentence(f"{give} {_number(fields, 'field', 'fields')} here{at}.")]
    words += [f"Nothing between {_mm(a)} and {_mm(b)} mm{at}: a step of {b / a:.2f}." for a, b in gaps]
    ends = (
        (widest, widest.short_mm, widest.reach.low_mm, "wider"),
        (longest, longest.long_mm, longest.reach.high_mm, "longer"),
    )
    for rung, mm, focal, word in ends:
        place = kit.places[rung.column]
        words.append(
            f"Nothing {word} than {_mm(mm)} mm{at} ({rung.name(kit, focal)}, {place.recording.name})."
        )
    missing = [name for name in VIEW_CLASSES if name not in _classes_there(kit, rungs)]
    if missing:
        words.append(f"No {' and no '.join(missing)} view{at}.")
    if doubles:
        places = _number(len(doubles), "place", "places")
        words.append(f"In {places} two or more lenses give the same field (within {ask.double_percent:g} %).")
    verdicts = [verdict_at(kit, r.entry, r.column, r.reach.low_mm) for r in rungs]
    for verdict, told in ((MARGINAL, "just covers"), (UNKNOWN, "has a circle that is not stated")):
        count = verdicts.count(verdict)
        if count:
            words.append(f"{count} of {len(rungs)} marks: the lens {told}. Test before the shoot.")
    return words


def _count_fields(rungs: list[Rung], per_cent: float) -> int:
    """Count the fields that can be told apart; a zoom counts as its two ends."""
    count, last = 0, 0.0
    for mm in sorted({mm for r in rungs for mm in (r.short_mm, r.long_mm)}):
        if mm > last * (1 + per_cent / 100):
            count, last = count + 1, mm
    return count


def _classes_there(kit: Kit, rungs: list[Rung]) -> set[str]:
    there: set[str] = set()
    for r in rungs:
        a, b = (
            view_class(angle_at(kit, r.entry, r.column, f, r.reach.smaller))
            for f in (r.reach.low_mm, r.reach.high_mm)
        )
        there |= set(VIEW_CLASSES[VIEW_CLASSES.index(a) : VIEW_CLASSES.index(b) + 1])
    return there


def _sentence(text: str) -> str:
    return text[0].upper() + text[1:]


def _mm(value: float) -> str:
    return f"{value:.1f}" if value < 20 else f"{value:.0f}"


def _number(count: int, one: str, many: str) -> str:
    words = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
    return f"{words[count] if count < len(words) else count} {one if count == 1 else many}"
