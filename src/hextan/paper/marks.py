"""What stands on a page: texts, lines and areas, in millimetres from its upper left corner. Nothing reaches over its edge."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

#: How a mark is drawn. Of texts: how it is meant; of lines and areas: how they are drawn.
MarkStyle: TypeAlias = Literal[
    "", "quiet", "focus", "covers", "marginal", "short",
    "rule", "hairline", "frame", "thin", "dashed", "circle", "shade", "soft", "fill", "dark", "hatch", "lamp", "qr", "bar",
]  # fmt: skip


class Mark(TypedDict):
    """One text, line, area, or many filled boxes of x, y, width and height. A text stands on its baseline, at its beginning, middle or end; turned, upside down."""

    kind: Literal["text", "line", "area", "boxes"]
    style: MarkStyle
    points: list[list[float]]
    text: str
    size_pt: float
    anchor: Literal["start", "middle", "end"]
    strong: bool
    turned: bool


class Page(TypedDict):
    """A page as it is printed."""

    width_mm: float
    height_mm: float
    dark: bool
    marks: list[Mark]


def text(
    words: str,
    x: float,
    y: float,
    size_pt: float,
    style: MarkStyle = "",
    anchor: Literal["start", "middle", "end"] = "start",
    strong: bool = False,
) -> Mark:
    """A text on its baseline."""
    return {"kind": "text", "style": style, "points": [[round(x, 3), round(y, 3)]], "text": words, "size_pt": size_pt,
            "anchor": anchor, "strong": strong, "turned": False}  # fmt: skip


def _drawn(kind: Literal["line", "area"], points: list[list[float]], style: MarkStyle) -> Mark:
    return _empty(kind, [[round(x, 3), round(y, 3)] for x, y in points], style)


def _empty(kind: Literal["line", "area", "boxes"], points: list[list[float]], style: MarkStyle) -> Mark:
    return {"kind": kind, "style": style, "points": points, "text": "", "size_pt": 0.0, "anchor": "start",
            "strong": False, "turned": False}  # fmt: skip


def line(points: list[list[float]], style: MarkStyle) -> Mark:
    """A line from point to point."""
    return _drawn("line", points, style)


def area(points: list[list[float]], style: MarkStyle) -> Mark:
    """A filled area."""
    return _drawn("area", points, style)


def box(x: float, y: float, width: float, height: float, style: MarkStyle) -> Mark:
    """A filled rectangle."""
    return area([[x, y], [x + width, y], [x + width, y + height], [x, y + height]], style)


def boxes(places: list[list[float]], style: MarkStyle) -> Mark:
    """Many filled rectangles: x, y, width and height of each."""
    return _empty("boxes", [[round(value, 3) for value in place] for place in places], style)


def moved(mark: Mark, dx: float, dy: float, turned_in: tuple[float, float] | None = None) -> Mark:
    """The same mark elsewhere; upside down within a panel of a size first, where one is given."""
    turned = mark["turned"]
    points = [list(point) for point in mark["points"]]
    if turned_in is not None:
        turned = not turned
        for point in points:
            # A box is told by its upper left corner, which is its lower right one upside down.
            wide, high = point[2:] or (0.0, 0.0)
            point[0], point[1] = turned_in[0] - point[0] - wide, turned_in[1] - point[1] - high
    for point in points:
        point[0], point[1] = round(point[0] + dx, 3), round(point[1] + dy, 3)
    return mark | {"points": points, "turned": turned}
