"""A wanted field, and two of distance, lens and format: the third is found; room and close focus are respected."""

from __future__ import annotations

import math
from typing import Any

from hextan.core.base import (
    Fault,
    InvalidInputError,
    both_units,
    distance_words,
    m_from_mm,
    mm_from_m,
    no_longer_here,
    share_words,
)
from hextan.core.equipment import Package, why_not
from hextan.core.kit.answers import FieldAnswer, FieldFound, FramingAt, Side
from hextan.core.kit.arrays import VERDICTS, Kit, kit_of, pictures
from hextan.core.kit.ask import FieldAsk, FramingWish, Room
from hextan.core.kit.match import SAME_FIELD_PERCENT, Candidate, candidates, neighbours, size_of, told
from hextan.core.kit.reach import dark_at, picture_scale, verdict_at
from hextan.core.optics import distance_for_magnification, magnification_from_sensor

#: Where the frame ends below, and where it begins above, as shares of a standing person's height. Knee, shoulder,
#: chin and eyes: segment lengths of the body as shares of stature, as biomechanics uses them since 1966 (from
#: memory; see [stature] in docs/bibliography.md); the rest common practice, no source.
FRAMINGS: dict[str, tuple[float, float]] = {
    "full figure": (0.0, 1.0),
    "knees": (0.27, 1.0),
    "waist": (0.58, 1.0),
    "chest": (0.72, 1.0),
    "face": (0.83, 1.0),
    "eyes": (0.90, 0.965),
}
#: Below the feet of a full figure as much stays free as this share of the headroom.
FOOTROOM = 0.5


def field_of_person_m(wish: FramingWish) -> float:
    """Height of the picture that frames a person.

    >>> round(field_of_person_m(FramingWish(framing="chest", height_m=1.7, headroom=0.08)), 3)
    0.517
    """
    bottom, top = FRAMINGS[wish.framing]
    free = wish.headroom if top == 1.0 else 0.0
    free += wish.headroom * FOOTROOM if bottom == 0.0 else 0.0
    return (top - bottom) * wish.height_m / (1 - free)


def find_field(package: Package, ask: FieldAsk) -> FieldAnswer:
    """Find distance, lens or format for a wanted field.

    Returns
    -------
    ``wanted`` (which side, how much), ``answers`` (the best first), ``binds`` (what limits the first, in words).

    Raises
    ------
    InvalidInputError
        No field or more than one, or one of the two known things missing or not in the package.
    """
    by, wanted_m = _wanted(ask)
    _refuse_unknown(package, ask)
    makers = {"distance": _distance, "lens": _lens, "format": _format}
    answers = makers[ask.find](package, ask, by, wanted_m)
    return {
        "wanted": {"by": by, "field_m": wanted_m},
        "longest_m": _longest_m(ask.room),
        "answers": answers,
        "framings": _framings(ask, answers),
        "binds": answers[0]["binds"] if answers else ["Nothing in the package can do it."],
    }


def _wanted(ask: FieldAsk) -> tuple[Side, float]:
    given = [name for name in ("width_m", "height_m", "person") if getattr(ask, name) is not None]
    if len(given) != 1:
        rule = "give one of width_m, height_m and person"
        raise InvalidInputError.of(Fault(given[1] if given else "width_m", None, rule))
    if ask.person is not None:
        return "height", field_of_person_m(ask.person)
    return ("width", ask.width_m) if ask.width_m is not None else ("height", ask.height_m or 0.0)


def _refuse_unknown(package: Package, ask: FieldAsk) -> None:
    needed = {
        "distance": ("lens_id", "format_id"),
        "lens": ("distance_m", "format_id"),
        "format": ("lens_id", "distance_m"),
    }
    faults = [
        Fault(name, None, f"is needed to find the {ask.find}")
        for name in needed[ask.find]
        if getattr(ask, name) is None
    ]
    if ask.lens_id is not None and ask.lens_id not in package.lenses:
        faults.append(no_longer_here("lens", "lens_id", ask.lens_id))
    if ask.format_id is not None and ask.format_id not in package.formats:
        faults.append(no_longer_here("recording format", "format_id", ask.format_id))
    if ask.find in ("distance", "format") and ask.lens_id in package.lenses:
        lens = package.lenses[ask.lens_id][1]
        if lens.projection != "rectilinear":
            faults.append(Fault("lens_id", ask.lens_id, "is a fisheye, which has no flat field"))
        if ask.focal_mm is not None and not lens.focal_min_mm <= ask.focal_mm <= lens.focal_max_mm:
            faults.append(
                Fault(
                    "focal_mm",
                    ask.focal_mm,
                    f"{lens.name} reaches {lens.focal_min_mm:g} to {lens.focal_max_mm:g} mm",
                )
            )
    longest = _longest_m(ask.room)
    if longest is not None and longest <= 0:
        faults.append(
            Fault("room.length_m", ask.room.length_m, "leaves nothing between the subject and the camera")
        )
    if faults:
        raise InvalidInputError.of(*faults)


def _longest_m(room: Room) -> float | None:
    """Farthest that the sensor plane can be from the subject."""
    if room.length_m is None:
        return None
    return room.length_m - room.behind_subject_m - room.behind_camera_m


def _distance(package: Package, ask: FieldAsk, by: Side, wanted_m: float) -> list[FieldFound]:
    kit = kit_of(package, ask.model_copy(update={"format_ids": [ask.format_id], "mounted": "every"}))
    rows = [i for i, e in enumerate(kit.entries) if e.lens.id == ask.lens_id and e.end != "long"]
    rows = [i for i in rows if kit.mounts[i, 0]]
    if not rows:
        assert ask.lens_id is not None
        assert ask.format_id is not None
        lens, here = package.lenses[ask.lens_id][1], package.formats[ask.format_id]
        rule = f"cannot be mounted on {here.body.name}: {why_not(package.rig, lens, here.body)}"
        raise InvalidInputError.of(Fault("lens_id", ask.lens_id, rule))
    body = kit.places[0].body.id
    wanted_way = None if ask.adapter_ids is None else tuple(ask.adapter_ids)
    i = next((r for r in rows if kit.entries[r].by_body[body].key == wanted_way), rows[0])
    entry = kit.entries[i]
    focal = (ask.focal_mm or entry.focal_mm) * float(kit.magnification[i, 0])
    return [_answer(kit, i, 0, focal, by, wanted_m, None, ask)]


def _lens(package: Package, ask: FieldAsk, by: Side, wanted_m: float) -> list[FieldFound]:
    assert ask.distance_m is not None
    kit = kit_of(package, ask.model_copy(update={"format_ids": [ask.format_id]}))
    if not kit.entries:
        return []
    distance_mm = mm_from_m(ask.distance_m)

    def needed_mm(size_mm: Any) -> Any:
        m = size_mm / (mm_from_m(wanted_m))
        return distance_mm * m / (1 + m) ** 2

    found = [c for c in candidates(kit, 0, by, needed_mm) if _focuses(kit, c.entry, ask.distance_m)]
    if not found:
        return []
    near = [found[0], *neighbours(found, found[0])]
    return [_answer(kit, c.entry, 0, c.focal_mm, by, wanted_m, ask.distance_m, ask, c) for c in near]


def _focuses(kit: Kit, i: int, distance_m: float) -> bool:
    close = kit.entries[i].lens.close_focus_m
    return close is None or close <= distance_m


def _format(package: Package, ask: FieldAsk, by: Side, wanted_m: float) -> list[FieldFound]:
    kit = kit_of(package, ask)
    rows = [i for i, e in enumerate(kit.entries) if e.lens.id == ask.lens_id and e.end != "long"]
    wanted_way = None if ask.adapter_ids is None else tuple(ask.adapter_ids)
    answers = []
    for group in pictures(kit):
        j = group[0]
        for i in rows:
            way = kit.entries[i].by_body.get(kit.places[j].body.id)
            if way is None or (wanted_way is not None and way.key != wanted_way):
                continue
            focal = (ask.focal_mm or kit.entries[i].focal_mm) * way.magnification
            answers.append(_answer(kit, i, j, focal, by, wanted_m, ask.distance_m, ask))
    return sorted(
        answers,
        key=lambda a: (
            a["verdict"] == "short",
            abs(math.log(a["field_m"] / wanted_m)) if a["field_m"] else math.inf,
        ),
    )


def _framings(ask: FieldAsk, answers: list[FieldFound]) -> list[FramingAt]:
    """With the lens and format of the best answer: from how far each framing of the person is had."""
    if ask.person is None or not answers or answers[0]["high_mm"] is None:
        return []
    first = answers[0]
    rows: list[FramingAt] = []
    for name in FRAMINGS:
        field = field_of_person_m(ask.person.model_copy(update={"framing": name}))
        m = first["high_mm"] / (mm_from_m(field))
        distance = m_from_mm(float(distance_for_magnification(first["focal_mm"], m)[1]))
        longest = _longest_m(ask.room)
        near = first["close_focus_m"] or 0.0
        rows.append(
            {
                "framing": name,
                "field_m": field,
                "distance_m": distance,
                "binds": "close focus"
                if distance < near
                else "the room"
                if longest and distance > longest
                else None,
            }
        )
    return rows


def _answer(
    kit: Kit,
    i: int,
    j: int,
    focal_mm: float,
    by: Side,
    wanted_m: float,
    distance_m: float | None,
    ask: FieldAsk,
    candidate: Candidate | None = None,
) -> FieldFound:
    """One chain of lens, format and distance, with the field that it makes and what limits it."""
    entry, place = kit.entries[i], kit.places[j]
    way = entry.by_body[place.body.id]
    smaller = picture_scale(kit, i, j, focal_mm) if candidate is None else candidate.smaller
    size = float(size_of(kit, j, by)[i]) * smaller
    if distance_m is None:
        distance_m = m_from_mm(float(distance_for_magnification(focal_mm, size / (wanted_m * 1000))[1]))
    m = float(magnification_from_sensor(focal_mm, mm_from_m(distance_m)))
    field = m_from_mm(size / m) if math.isfinite(m) else None
    wide, high = (
        x * smaller for x in (float(kit.picture_w[i, j]) * entry.lens.squeeze, float(kit.picture_h[i, j]))
    )
    return {
        "format_id": place.recording.id,
        "format": place.recording.name,
        "body": place.body.name,
        "lens_id": entry.lens.id,
        "lens": entry.lens.name,
        "adapter_ids": list(way.key),
        "via": way.name if way.adapters else None,
        "focal_mm": focal_mm,
        "set_mm": focal_mm / way.magnification,
        "distance_m": distance_m,
        "field_m": field,
        "width_m": None if field is None else field * wide / size,
        "height_m": None if field is None else field * high / size,
        "percent": None if field is None else 100 * (field / wanted_m - 1),
        "same": field is not None and abs(field / wanted_m - 1) <= SAME_FIELD_PERCENT / 100,
        "high_mm": high,
        "close_focus_m": entry.lens.close_focus_m,
        "verdict": VERDICTS[verdict_at(kit, i, j, focal_mm)],
        "candidate": None if candidate is None else told(kit, j, candidate),
        "binds": _binds(kit, i, j, focal_mm, size, by, wanted_m, distance_m, ask),
    }


def _binds(
    kit: Kit,
    i: int,
    j: int,
    focal_mm: float,
    size: float,
    by: Side,
    wanted_m: float,
    distance_m: float,
    ask: FieldAsk,
) -> list[str]:
    """Say what limits a chain: close focus, the room, the image circle."""
    lens, unit = kit.entries[i].lens, ask.unit
    binds = []

    def field_at(metres: float) -> str:
        m = float(magnification_from_sensor(focal_mm, mm_from_m(metres)))
        return distance_words(m_from_mm(size / m), unit) if math.isfinite(m) else "no picture"

    nearest = max(lens.close_focus_m or 0.0, m_from_mm(4 * focal_mm))
    if distance_m < nearest * (1 - 1e-9):
        what = (
            "close focus"
            if lens.close_focus_m and nearest == lens.close_focus_m
            else "optics (four focal lengths)"
        )
        binds.append(
            f"{lens.name}: {what} binds at {both_units(nearest, unit, kit.brackets)}; the {by} there is {field_at(nearest)}, not "
            f"{distance_words(wanted_m, unit)}. "
            "Take a longer lens or a tighter format."
        )
    longest = _longest_m(ask.room)
    if longest is not None and distance_m > longest * (1 + 1e-9):
        m = size / (mm_from_m(wanted_m))
        needed = mm_from_m(longest) * m / (1 + m) ** 2
        binds.append(
            f"The room binds: {both_units(distance_m, unit, kit.brackets)} is needed and {both_units(longest, unit, kit.brackets)} is left before the wall behind the "
            f"camera; the {by} there is {field_at(longest)}. A lens of {needed:.1f} mm would do it from there."
        )
    if VERDICTS[verdict_at(kit, i, j, focal_mm)] == "short":
        binds.append(
            f"{lens.name} does not cover {kit.places[j].recording.name}: {share_words(dark_at(kit, i, j, focal_mm))} "
            "stays dark."
        )
    return binds
