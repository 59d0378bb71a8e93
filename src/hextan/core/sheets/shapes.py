"""Drawings as lists of shapes: the finder's picture, and windows on a sensor. Paper and screen draw the same list."""

from __future__ import annotations

from hextan.core.bench import FinderRect, Viewfinder
from hextan.core.sheets.sheet import Shape, ShapeStyle, SheetPicture

#: Nearer to one another than this share of the picture, points of an outline are not told apart.
_FINE = 1 / 900


def rect(style: ShapeStyle, x: float, y: float, width: float, height: float) -> Shape:
    """A rectangle: an area where it is filled, else a closed line."""
    points = [[x, y], [x + width, y], [x + width, y + height], [x, y + height]]
    if style in ("fill", "soft", "dark", "hatch"):
        return {"kind": "area", "style": style, "points": points, "text": ""}
    return {"kind": "line", "style": style, "points": [*points, points[0]], "text": ""}


def oval(style: ShapeStyle, x: float, y: float, rx: float, ry: float) -> Shape:
    """An oval about a point."""
    return {"kind": "oval", "style": style, "points": [[x, y], [rx, ry]], "text": ""}


def label(text: str, x: float, y: float) -> Shape:
    """A text that begins at a point."""
    return {"kind": "text", "style": "text", "points": [[x, y]], "text": text}


def finder_picture(seen: Viewfinder, lines: list[str], told: str) -> SheetPicture:
    """What the finder shows, the delivered picture alone: shore, people, lamps with their blur; dark corners hatched.

    The picture is in millimetres as it lies on the sensor, de-squeezed; every outline is cut at its edges by whoever
    draws it.
    """
    frame = seen["picture"]
    x, y, w, h = frame["x"], frame["y"], frame["width"], frame["height"]
    shapes: list[Shape] = []
    for thing in seen["objects"]:
        for part in thing["parts"]:
            style: ShapeStyle = {"shore": "soft", "lamp": "focus", "head": "fill"}.get(part["part"], "dark")  # type: ignore[assignment]
            if thing["key"] != "subject" and style == "dark":
                style = "fill"
            points = _thinned(part["points"], max(w, h) * _FINE)
            if not _within(points, frame):
                continue
            shapes.append({"kind": "area", "style": style, "points": points, "text": ""})
        blur, at = thing["blur"], thing["at"]
        if thing["kind"] == "lamp" and blur is not None and at is not None:
            shapes.append(
                oval("thin", at[0], at[1], max(blur["width"] / 2, w / 300), max(blur["height"] / 2, w / 300))
            )
    if seen["framed"]["width"] < w * 0.999:
        shapes.append(_framed(seen["framed"]))
    for other in seen["others"]:
        shapes.append(_framed(other))
    if seen["circle"] is not None:
        shapes += _outside(frame, seen["circle"]["rx"], seen["circle"]["ry"])
    shapes.append(rect("frame", x, y, w, h))
    return {"x": x, "y": y, "width": w, "height": h, "shapes": shapes, "lines": lines, "told": told}


def _framed(box: FinderRect) -> Shape:
    return rect("dashed", box["x"], box["y"], box["width"], box["height"])


def _within(points: list[list[float]], box: FinderRect) -> bool:
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return (
        max(xs) >= box["x"]
        and min(xs) <= box["x"] + box["width"]
        and max(ys) >= box["y"]
        and min(ys) <= box["y"] + box["height"]
    )


def _thinned(points: list[list[float]], least: float) -> list[list[float]]:
    """Leave out points that nobody could see apart: a far shore has hundreds."""
    kept = points[:1]
    for point in points[1:-1]:
        if abs(point[0] - kept[-1][0]) >= least or abs(point[1] - kept[-1][1]) >= least:
            kept.append(point)
    kept += points[-1:]
    return [[round(x, 4), round(y, 4)] for x, y in kept]


def _outside(box: FinderRect, rx: float, ry: float) -> list[Shape]:
    """What lies in the picture and outside the image circle, as hatched areas at the corners; none where it covers."""
    left, top = box["x"], box["y"]
    right, bottom = left + box["width"], top + box["height"]
    found: list[Shape] = []
    for cx, cy in ((left, top), (right, top), (right, bottom), (left, bottom)):
        if (cx / rx) ** 2 + (cy / ry) ** 2 <= 1:
            continue
        # Where the circle cuts the two edges that meet in this corner; along an edge it never meets, all is dark.
        along_x = rx * max(0.0, 1 - (cy / ry) ** 2) ** 0.5 * (1 if cx > 0 else -1)
        along_y = ry * max(0.0, 1 - (cx / rx) ** 2) ** 0.5 * (1 if cy > 0 else -1)
        steps = 12
        arc = []
        for i in range(steps + 1):
            x = along_x + (cx - along_x) * i / steps
            x = max(-rx, min(rx, x))
            inside = max(0.0, 1 - (x / rx) ** 2) ** 0.5 * ry * (1 if cy > 0 else -1)
            arc.append([x, max(top, min(bottom, inside))])
        found.append(
            {
                "kind": "area",
                "style": "hatch",
                "points": [[along_x, cy], *arc, [cx, along_y], [cx, cy]],
                "text": "",
            }
        )
    return found


def circle_shape(rx: float, ry: float) -> Shape:
    """An image circle about the axis."""
    return oval("circle", 0.0, 0.0, rx, ry)
