"""Questions about lenses: what one is like, sees, holds sharp, and which one frames a person."""

from __future__ import annotations

import math
from typing import Any

from hextan.core.ask.said import Figure, Reply, Said, focal_words, picture_of, unit_said, windows_known
from hextan.core.ask.words import Window
from hextan.core.base import (
    Fault,
    InvalidInputError,
    distance_words,
    limits,
)
from hextan.core.equipment import Package
from hextan.core.evaluation import evaluate
from hextan.core.kit import FramingWish, field_of_person_m
from hextan.core.optics import (
    LABELS,
    angle_of_view_deg,
    magnification_from_sensor,
)


def like(said: Said, package: Package | None) -> Reply:
    """Say what a lens is like on other formats, or on the one that is asked for."""
    window, wanted = said.window_of_lens, said.other_window
    if wanted is None and any(word.text.startswith("35") for word in said.words if word.kind == "intent"):
        # A 35 mm equivalent is one on full frame.
        wanted = next(other for other in windows_known(None) if other.name == LABELS["full_frame"])
    ends = said.one("zoom") or (said.focal_mm,)
    gives = wanted is None and "like" in {word.kind for word in said.words}
    angle = float(angle_of_view_deg(window.width_mm * said.squeeze, ends[0]))
    others = [wanted] if wanted else [other for other in windows_known(package) if other.name != window.name]

    def on(other: Window) -> str:
        return (
            "-".join(f"{focal / said.squeeze * other.width_mm / window.width_mm:.1f}" for focal in ends)
            + " mm"
        )

    figures: list[Figure] = [{"name": other.name, "value": on(other)} for other in others]
    # Whoever names no reference gets it on both that the trade measures by.
    named = [each for each in figures if each["name"] in LABELS.values()] or figures[:1]
    on_those = " and ".join(f"{each['value']} on {each['name']}" for each in named)
    told = f"Like {focal_words(said)} on {window.name} is {on_those}." if gives else (
        f"{focal_words(said)} on {window.name} is like {on_those}."
    )  # fmt: skip
    other = others[0]
    per_squeeze = f" / {said.squeeze:g}" if said.squeeze != 1.0 else ""
    steps = [
        f"{window.name} is {window.width_mm:.2f} mm wide, {other.name} {other.width_mm:.2f} mm",
        f"{ends[0]:g}{per_squeeze} × {other.width_mm:.2f} / {window.width_mm:.2f} = {on(other).partition('-')[0].removesuffix(' mm')} mm, by the width",
        f"both see {angle:.1f}° across, focused at infinity",
    ]
    return told, figures, steps


def _evaluated(
    focal_mm: float, picture: tuple[float, float], subject: dict[str, float], **lens: float | None
) -> Any:
    answer = evaluate(
        {
            "lens": {"focal_mm": focal_mm, **lens},
            "subject": subject,
            "formats": [{"id": "it", "window": {"width_mm": picture[0], "height_mm": picture[1]}}],
        }
    )
    return answer["formats"][0]


def field_seen(said: Said, package: Package | None) -> Reply:
    """Field, angle and, where a stop is said, depth: on the window that is said, else on both that the trade measures by."""
    rows = [_field_on(said, window) for window in said.windows]
    told, figures, steps = rows[0]
    if len(rows) == 1:
        return told, figures, steps
    names = [window.name for window in said.windows]
    told = " ".join(f"{name}: {row[0]}" for name, row in zip(names, rows, strict=True))
    figures = [
        {"name": f"{f['name']}, {name}", "value": f["value"]}
        for name, row in zip(names, rows, strict=True)
        for f in row[1][:3]
    ]
    return told, figures, [*steps, "no format was said: it is told for both that the trade measures by"]


def _field_on(said: Said, window: Window) -> Reply:
    focal, distance = said.focal_mm, said.one("distance")
    f_number, t_stop = said.one("f_number"), said.one("t_stop")
    picture = picture_of(window, said.aspect)
    row = _evaluated(
        focal, picture, {"distance_m": distance}, f_number=f_number, t_stop=t_stop, squeeze=said.squeeze
    )
    field, depth = row["field_m"], row["depth"]
    unit = unit_said(said)
    figures: list[Figure] = [
        {
            "name": "field",
            "value": f"{distance_words(field['width'], unit)} × {distance_words(field['height'], unit)}",
        },
        {"name": "angle, focused there", "value": _angles(row["angle_at_focus_deg"])},
        {"name": "angle, at infinity", "value": _angles(row["angle_deg"])},
        {"name": "like, on Super 35", "value": f"{row['effective_focal_mm']:.1f} mm"},
    ]
    told = f"{focal_words(said)} at {distance_words(distance, unit)} sees {figures[0]['value']}."
    steps = [
        f"{window.name}: a picture of {picture[0]:.1f} × {picture[1]:.1f} mm",
        f"magnification {row['magnification']:.4f}: the picture's size over the field's",
    ]
    if depth["near_m"] is None:
        steps.append("no stop was said: how deep it is sharp, is not told")
        return told, figures, steps
    shown = limits(depth["near_m"], depth["far_m"], distance, unit)
    figures[1:1] = [{"name": "in focus", "value": shown.words()}]
    told = f"{told[:-1]}, in focus {shown.words()}."
    steps.append(f"sharp to {depth['coc_mm']:.4f} mm: the picture's diagonal over 1500")
    if f_number is None:
        steps.append("no f-number: the depth is computed with the T-stop, and told a little too deep")
    return told, figures, steps


def angle_seen(said: Said, package: Package | None) -> Reply:
    """Say which angle a lens sees on a format, focused at infinity."""
    window = said.one("window")
    w, h = picture_of(window, said.aspect)
    across, down, over = (
        float(angle_of_view_deg(size, said.focal_mm))
        for size in (w * said.squeeze, h, math.hypot(w * said.squeeze, h))
    )
    figures: list[Figure] = [
        {"name": "across", "value": f"{across:.1f}°"}, {"name": "up and down", "value": f"{down:.1f}°"},
        {"name": "over the diagonal", "value": f"{over:.1f}°"},
    ]  # fmt: skip
    told = f"{focal_words(said)} on {window.name} sees {across:.1f}° across."
    return (
        told,
        figures,
        [f"2 atan({w * said.squeeze:.2f} / (2 × {said.focal_mm:g})) = {across:.1f}°, focused at infinity"],
    )


def hyperfocal(said: Said, package: Package | None) -> Reply:
    """Say where a lens is focused so that all is sharp to infinity."""
    focal, window = said.focal_mm, said.one("window")
    stop = said.one("f_number") or said.one("t_stop")
    w, h = picture_of(window, said.aspect)
    coc = math.hypot(w, h) / 1500
    distance = (focal * focal / (stop * coc) + focal) / 1000
    unit = unit_said(said)
    figures: list[Figure] = [
        {"name": "hyperfocal distance", "value": distance_words(distance, unit)},
        {"name": "sharp from", "value": distance_words(distance / 2, unit)},
    ]
    steps = [
        f"sharp to {coc:.4f} mm: the picture's diagonal over 1500",
        f"{focal:g}² / ({stop:g} × {coc:.4f}) + {focal:g} = {distance * 1000:.0f} mm",
    ]
    if said.one("f_number") is None:
        steps.append("no f-number: it is computed with the T-stop, and told a little too near")
    return (
        f"Focused at {figures[0]['value']}, all from {figures[1]['value']} to infinity is sharp.",
        figures,
        steps,
    )


def same_depth(said: Said, package: Package | None) -> Reply:
    """The stop on another format that gives the same depth at the same field: apertures of one diameter."""
    window, other = said.window_of_lens, said.other_window
    if other is None:
        other = next(w for w in windows_known(None) if w.name != window.name)
    stop = said.one("t_stop") or said.one("f_number")
    mark = "T" if said.one("t_stop") else "f/"
    k = other.width_mm / window.width_mm
    figures: list[Figure] = [
        {"name": f"stop on {other.name}", "value": f"{mark}{stop * k:.2g}"},
        {"name": "apart", "value": f"{2 * math.log2(k):+.2f} stops"},
    ]
    if said.one("number") is not None or said.one("lens") is not None:
        figures.append({"name": f"focal length on {other.name}", "value": f"{said.focal_mm * k:.1f} mm"})
    told = f"{mark}{stop * k:.2g} on {other.name} is as deep as {mark}{stop:g} on {window.name}, at the same field from the same place."
    return told, figures, [
        f"{other.name} is {other.width_mm:.2f} mm wide, {window.name} {window.width_mm:.2f} mm: {k:.3f} times",
        f"the same diameter of the aperture at {k:.3f} times the focal length: {stop:g} × {k:.3f} = {stop * k:.2f}",
        "the circle of confusion goes with the format; EI or light have to follow",
    ]  # fmt: skip


def _angles(angle: dict[str, float]) -> str:
    return f"{angle['horizontal']:.1f}° × {angle['vertical']:.1f}°"


def which_lens(said: Said, package: Package | None) -> Reply:
    """Say which focal length frames a person so, and the lenses of the production that come near."""
    framing, distance, window = said.one("framing"), said.one("distance"), said.one("window")
    picture = picture_of(window, said.aspect)
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    # Thin lens: the picture's height over the field's is the magnification, and f = m D / (1 + m)^2 from the sensor.
    m = picture[1] / 1000 / high
    focal = 1000 * distance * m / (1 + m) ** 2
    figures: list[Figure] = [{"name": "focal length", "value": f"{focal:.0f} mm"}]
    for kit, lens in [] if package is None else package.lenses.values():
        if lens.focal_min_mm <= focal <= lens.focal_max_mm or abs(lens.focal_min_mm / focal - 1) < 0.12:
            figures.append({"name": f"{lens.name}, {kit.name}", "value": f"{lens.focal_min_mm:g} mm"})
    told = f"{framing} at {distance_words(distance, unit_said(said))} on {window.name} wants {focal:.0f} mm."
    steps = [
        _framed(wish, high),
        f"the picture is {picture[0]:.1f} × {picture[1]:.1f} mm on {window.name}",
        f"magnification {m:.4f}; focal length = m D / (1 + m)² = {focal:.1f} mm",
    ]
    return told[0].upper() + told[1:], figures, steps


def _framed(wish: FramingWish, high: float) -> str:
    return f"{wish.framing} of a person of {wish.height_m:g} m is {high:.2f} m high in the picture, with headroom"


def distance_for(said: Said, package: Package | None) -> Reply:
    """Say from how far a lens frames a person so."""
    framing, window, focal = said.one("framing"), said.one("window"), said.focal_mm
    picture = picture_of(window, said.aspect)
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    m = picture[1] / 1000 / high
    metres = focal * (1 + m) ** 2 / m / 1000
    told = (
        f"{framing} with {focal_words(said)} on {window.name} is framed from {distance_words(metres, 'm')}."
    )
    figures: list[Figure] = [
        {"name": "distance", "value": distance_words(metres, "m")},
        {"name": "or", "value": distance_words(metres, "ft")},
    ]
    steps = [
        _framed(wish, high),
        f"the picture is {picture[0]:.1f} × {picture[1]:.1f} mm on {window.name}",
        f"magnification {m:.4f}; distance = f (1 + m)² / m = {metres:.2f} m, from the sensor",
    ]
    return told, figures, steps


def which_format(said: Said, package: Package | None) -> Reply:
    """How large a picture frames a person so with this lens from there."""
    framing, distance, focal = said.one("framing"), said.one("distance"), said.focal_mm
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    m = float(magnification_from_sensor(focal, distance * 1000))
    if not m > 0:
        raise InvalidInputError.plainly(
            Fault("line", f"{distance:g} m", f"a {focal:g} mm lens forms no image so near")
        )
    h = high * m * 1000
    shape = said.aspect or 16 / 9
    figures: list[Figure] = [{"name": "picture", "value": f"{h * shape:.1f} × {h:.1f} mm"}]
    near = sorted(windows_known(package), key=lambda w: abs(math.log(picture_of(w, shape)[1] / h)))[:4]
    figures += [
        {"name": window.name, "value": f"{100 * (picture_of(window, shape)[1] / h - 1):+.0f} % of the height"}
        for window in near
    ]
    told = f"{focal_words(said)} at {distance_words(distance, unit_said(said))} frames {framing} on a picture {h:.1f} mm high; nearest is {near[0].name}."
    return told, figures, [_framed(wish, high), f"magnification {m:.4f} at that distance: {high:.2f} m × {m:.4f} = {h:.1f} mm",
                           f"in {shape:.2f}:1 that is {h * shape:.1f} mm wide"]  # fmt: skip
