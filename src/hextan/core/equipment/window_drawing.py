"""The windows of a body to scale: what is read, recorded and delivered, and what the image circle reaches.

x right and y down from the optical axis, millimetres, seen as the picture is seen.
"""

from __future__ import annotations

from hextan.core.base import just_covers_words, margin_words, mm_from_um
from hextan.core.equipment.answers import MapRect, MapWindow, WindowMap, Words
from hextan.core.equipment.package import Body, ScanMode
from hextan.core.evaluation import Evaluation
from hextan.core.optics import Verdict, coverage, coverage_verdict


def window_map(result: Evaluation, index: int, body: Body, mode: ScanMode) -> WindowMap:
    """Lay out the sensor with all windows of the body, the chosen one and the image circle."""
    c, pitch = result.columns, mm_from_um(body.pitch_um)
    dx, dy = float(c.offset_x[index]), float(c.offset_y[index])
    circle = result.lens.image_circle_mm
    windows: list[MapWindow] = []
    for other in body.modes:
        w, h = (n * pitch for n in other.window)
        x, y = (n * pitch for n in other.offset)
        needed = float(coverage.needed_circle_mm(w, h, x, y))
        windows.append(
            {
                **_rect(other.name, w, h, x, y),
                "mode_id": other.id,
                "chosen": other.id == mode.id,
                "needed_mm": needed,
                "verdict": coverage_verdict(
                    circle, needed, dark_of_rect(circle, _rect("", w, h, x, y)), result.seen_dark
                ),
            }
        )
    recorded = _rect("recording", float(c.recorded_w[index]), float(c.recorded_h[index]), dx, dy)
    needed = float(result.needed_mm[index])
    dark = (
        [] if circle is None else coverage.dark_corners(circle, recorded["width"], recorded["height"], dx, dy)
    )
    protect = 1 - float(c.given.protect[index])
    picture_w, picture_h = float(c.picture_w[index]), float(c.picture_h[index])
    return {
        "sensor": _rect("sensor", body.photosites[0] * pitch, body.photosites[1] * pitch, 0, 0),
        "windows": windows,
        "recorded": recorded,
        "picture": _rect("picture", picture_w, picture_h, dx, dy),
        "framed": _rect("framed", picture_w * protect, picture_h * protect, dx, dy),
        "squeeze": result.request.lens.squeeze,
        "circle_mm": circle,
        "needed_mm": needed,
        "verdict": coverage_verdict(circle, needed, float(result.dark[index]), result.seen_dark),
        "dark_corners": dark,
        "dark_share": None if circle is None else float(result.dark[index]),
        "words": _coverage_words(
            circle, needed, (float(result.dark[index]), result.seen_dark), windows, dark
        ),
    }


def dark_of_rect(circle: float | None, lies: MapRect) -> float | None:
    """Share of a rectangle that a circle leaves dark; None where the circle is not stated."""
    if circle is None:
        return None
    w, h = lies["width"], lies["height"]
    return float(coverage.dark_where_short(circle, w, h, lies["x"] + w / 2, lies["y"] + h / 2))


def _rect(name: str, width: float, height: float, x: float, y: float) -> MapRect:
    return {"name": name, "x": x - width / 2, "y": y - height / 2, "width": width, "height": height}


def _coverage_words(
    circle: float | None,
    needed: float,
    dark_part: tuple[float, float],
    windows: list[MapWindow],
    dark: list[coverage.Corner],
) -> list[Words]:
    if circle is None:
        text = f"This recording needs a circle of {needed:.1f} mm; the lens's circle is not stated."
        return [{"verdict": "unknown", "text": text}]
    verdict, margin = coverage_verdict(circle, needed, *dark_part), circle - needed
    head = f"The {circle:.1f} mm circle "
    told: dict[Verdict, str] = {
        "covers": f"{margin_words(margin)}.",
        "marginal": f"{just_covers_words(margin)}: test it.",
        "short": f"is {margin_words(margin)} here: {'all four corners' if len(dark) == 4 else ', '.join(dark)} dark.",
    }
    words: list[Words] = [{"verdict": verdict, "text": head + told[verdict]}]
    covered = [w for w in windows if w["verdict"] in ("covers", "marginal")]
    short = [w for w in windows if w["verdict"] == "short"]
    if short and covered:
        largest = max(covered, key=lambda w: float(w["width"] * w["height"]))
        words.append({"verdict": "covers", "text": f"Largest whole window covered: {largest['name']}."})
    elif short:
        smallest = min(short, key=lambda w: float(w["needed_mm"]))
        text = f"No whole window of this body is covered; {smallest['name']} needs {smallest['needed_mm']:.1f} mm."
        words.append({"verdict": "short", "text": text})
    else:
        words.append({"verdict": "covers", "text": "Every window of this body is covered."})
    return words
