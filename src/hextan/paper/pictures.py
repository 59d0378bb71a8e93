"""Pictures on paper: a grid of drawings to scale, each cut at its frame, with its figures beneath."""

from __future__ import annotations

import math
from itertools import pairwise

from hextan.core.sheets import PictureRow, Shape, SheetPicture, SheetPictures
from hextan.paper.flow import Flow
from hextan.paper.fonts import line_mm, longest_word_mm, wrapped
from hextan.paper.marks import Mark, MarkStyle, area, line, text

_BETWEEN_MM = 3.0
_ROUND = 40
_STYLES: dict[str, MarkStyle] = {
    "frame": "frame", "thin": "thin", "dashed": "dashed", "fill": "fill", "soft": "soft", "dark": "dark", "hatch": "hatch",
    "focus": "lamp", "circle": "circle", "text": "quiet",
}  # fmt: skip
#: Of a picture that is much higher than wide, no more than so many times its width is shown on paper.
_TALLEST = 1.7


def put_pictures(flow: Flow, block: SheetPictures) -> None:
    """Put a grid of pictures on the pages; columns that do not fit beside one another go below."""
    if block["own_page"] and not flow.fresh:
        flow.new_page()
    flow.gap()
    titles = [*(row["title"] for row in block["rows"]), *(row["more"] for row in block["rows"])]
    head = max((longest_word_mm(t, flow.size, True) for t in titles if t), default=0.0)
    head = min(max(head + 2, 16.0 if head else 0.0), flow.width * 0.3) if head else 0.0
    free = flow.width - head
    across = max(
        1, min(len(block["columns"]), int((free + _BETWEEN_MM) / (flow.paper.picture_mm + _BETWEEN_MM)))
    )
    slices = -(-len(block["columns"]) // across)
    across = -(-len(block["columns"]) // slices)
    most = flow.page_room * 0.45
    for start in range(0, len(block["columns"]), across):
        columns = range(start, min(start + across, len(block["columns"])))
        # One that stands alone is not drawn over the whole page.
        wide = min((free - _BETWEEN_MM * (across - 1)) / across, 2.6 * flow.paper.picture_mm)
        _Grid(flow, block, list(columns), head, wide, most, start > 0).run()


class _Grid:
    """Columns of pictures that stand beside one another."""

    def __init__(
        self,
        flow: Flow,
        block: SheetPictures,
        columns: list[int],
        head: float,
        wide: float,
        most: float,
        further: bool,
    ) -> None:
        self.flow, self.block, self.columns, self.head, self.wide, self.most = (
            flow,
            block,
            columns,
            head,
            wide,
            most,
        )
        self.further = further
        self.small = flow.small
        self.step = line_mm(flow.small)
        self.scale = None
        if block["to_scale"]:
            every = [p for row in block["rows"] for p in row["pictures"] if p is not None]
            self.scale = min((min(wide / p["width"], most / p["height"]) for p in every), default=1.0)

    def run(self) -> None:
        """Put them, row after row."""
        flow, block = self.flow, self.block
        rows = block["rows"]
        flow.need(self._heading_height() + (self._row_height(rows[0]) if rows else 0))
        if block["heading"]:
            words = f"{block['heading']}, further columns" if self.further else block["heading"]
            flow.paragraph(words, flow.size * 1.15, strong=True)
        if block["told"] and not self.further:
            flow.paragraph(block["told"], flow.small, style="quiet")
        flow.y += 0.6
        self._titles()
        for row in rows:
            if flow.need(self._row_height(row)):
                self._titles()
            self._row(row)

    def _x(self, k: int) -> float:
        return self.flow.left + self.head + k * (self.wide + _BETWEEN_MM)

    def _title_lines(self, j: int) -> list[tuple[str, bool]]:
        title, more = self.block["columns"][j], self.block["columns_more"][j]
        lines = [(t, True) for t in wrapped(title, self.small, self.wide, True) if t]
        return lines + [(t, False) for t in wrapped(more, self.small, self.wide) if t]

    def _heading_height(self) -> float:
        most = max((len(self._title_lines(j)) for j in self.columns), default=0)
        return self.flow.line() * 2.4 + self.step * most

    def _titles(self) -> None:
        heads = [self._title_lines(j) for j in self.columns]
        most = max((len(lines) for lines in heads), default=0)
        for k, lines in enumerate(heads):
            for n, (each, strong) in enumerate(lines):
                y = self.flow.y + self.step * (most - len(lines) + n)
                self.flow.text(each, self._x(k), self.small, y=y, strong=strong)
        self.flow.y += self.step * most + (0.6 if most else 0)

    def _size(self, picture: SheetPicture) -> tuple[float, float, float]:
        """Scale, width and height of a picture on paper."""
        scale = self.scale
        if scale is None:
            tallest = min(self.most, self.wide * _TALLEST)
            scale = min(self.wide / picture["width"], tallest / picture["height"])
        return scale, picture["width"] * scale, picture["height"] * scale

    def _beneath(self, picture: SheetPicture) -> list[str]:
        return [each for words in picture["lines"] if words for each in wrapped(words, self.small, self.wide)]

    def _cell_height(self, row: PictureRow, j: int) -> float:
        picture = row["pictures"][j] if j < len(row["pictures"]) else None
        if picture is None:
            why = row["why_not"][j] if j < len(row["why_not"]) else ""
            return self.step * len(wrapped(why, self.small, self.wide - 1)) + 1 if why else 0.0
        return self._size(picture)[2] + self.step * len(self._beneath(picture)) + 0.8

    def _row_height(self, row: PictureRow) -> float:
        return max((self._cell_height(row, j) for j in self.columns), default=0.0) + 2.2

    def _row(self, row: PictureRow) -> None:
        flow = self.flow
        if row["title"]:
            y = flow.y
            for n, each in enumerate(wrapped(row["title"], flow.size, self.head - 2, True)):
                flow.text(each, flow.left, flow.size, y=y + flow.line() * n, strong=True)
            y += flow.line() * len(wrapped(row["title"], flow.size, self.head - 2, True))
            for n, each in enumerate(wrapped(row["more"], self.small, self.head - 2)):
                flow.text(each, flow.left, self.small, y=y + self.step * n, style="quiet")
        for k, j in enumerate(self.columns):
            if j >= len(row["pictures"]):
                continue
            picture = row["pictures"][j]
            if picture is None:
                for n, each in enumerate(
                    wrapped(row["why_not"][j], self.small, self.wide - 1) if row["why_not"][j] else ()
                ):
                    flow.text(each, self._x(k), self.small, y=flow.y + self.step * n, style="quiet")
                continue
            scale, _, high = self._size(picture)
            flow.marks.extend(drawn(picture, self._x(k), flow.y, scale, self.small))
            for n, each in enumerate(self._beneath(picture)):
                flow.text(
                    each,
                    self._x(k),
                    self.small,
                    y=flow.y + high + 0.6 + self.step * n,
                    style="" if n else "focus",
                )
        flow.y += self._row_height(row)


def drawn(picture: SheetPicture, x: float, y: float, scale: float, size_pt: float) -> list[Mark]:
    """The marks of a picture at a place and a scale, cut at its frame.

    Parameters
    ----------
    x, y : where its upper left corner stands, millimetres
    scale : millimetres on paper for each unit of the picture
    size_pt : of the texts in it
    """
    marks: list[Mark] = []
    w, h = picture["width"] * scale, picture["height"] * scale

    def place(points: list[list[float]]) -> list[list[float]]:
        return [[(px - picture["x"]) * scale, (py - picture["y"]) * scale] for px, py in points]

    for shape in picture["shapes"]:
        style = _STYLES[shape["style"]]
        for points in _outlines(shape, place):
            if shape["kind"] == "area" or (shape["kind"] == "oval" and style in ("lamp", "fill", "soft")):
                cut = cut_area(points, w, h)
                if len(cut) > 2:
                    marks.append(area(_at(cut, x, y), style))
            else:
                marks += [line(_at(part, x, y), style) for part in cut_line(points, w, h)]
        if shape["kind"] == "text":
            px, py = place(shape["points"])[0]
            if 0 <= px <= w and 0 <= py <= h:
                marks.append(text(shape["text"], x + px, y + py, size_pt * 0.9, style))
    return marks


def _outlines(shape: Shape, place: object) -> list[list[list[float]]]:
    assert callable(place)
    if shape["kind"] == "text":
        return []
    if shape["kind"] == "oval":
        (cx, cy), (rx, ry) = shape["points"]
        turn = [2 * math.pi * i / _ROUND for i in range(_ROUND + 1)]
        return [place([[cx + rx * math.cos(a), cy + ry * math.sin(a)] for a in turn])]
    return [place(shape["points"])]


def _at(points: list[list[float]], x: float, y: float) -> list[list[float]]:
    return [[x + px, y + py] for px, py in points]


def cut_area(points: list[list[float]], width: float, height: float) -> list[list[float]]:
    """Cut a polygon at a frame from 0 to width and height (Sutherland and Hodgman, 1974, from memory).

    >>> cut_area([[-1, -1], [3, -1], [3, 1], [-1, 1]], 2, 2)
    [[0.0, 1.0], [0.0, 0.0], [2.0, 0.0], [2.0, 1.0]]
    """
    for axis, bound, sign in ((0, 0.0, 1), (0, width, -1), (1, 0.0, 1), (1, height, -1)):
        kept: list[list[float]] = []
        for i, point in enumerate(points):
            before = points[i - 1]
            inside, was = (sign * (p[axis] - bound) >= 0 for p in (point, before))
            if inside != was:
                kept.append(_crossing(before, point, axis, bound))
            if inside:
                kept.append([float(point[0]), float(point[1])])
        points = kept
        if not points:
            return []
    return points


def cut_line(points: list[list[float]], width: float, height: float) -> list[list[list[float]]]:
    """Cut a line at a frame: the parts of it that lie within.

    >>> cut_line([[-1, 1], [3, 1]], 2, 2)
    [[[0.0, 1.0], [2.0, 1.0]]]
    """
    parts: list[list[list[float]]] = []
    for a, b in pairwise(points):
        t0, t1 = 0.0, 1.0
        for axis, bound in ((0, width), (1, height)):
            d = b[axis] - a[axis]
            for edge, sign in ((0.0, -1), (bound, 1)):
                p, q = sign * d, sign * (edge - a[axis])
                if p == 0:
                    if q < -1e-9:
                        t0, t1 = 1.0, 0.0
                elif p < 0:
                    t0 = max(t0, q / p)
                else:
                    t1 = min(t1, q / p)
        if t0 >= t1:
            continue
        start = [a[0] + t0 * (b[0] - a[0]), a[1] + t0 * (b[1] - a[1])]
        end = [a[0] + t1 * (b[0] - a[0]), a[1] + t1 * (b[1] - a[1])]
        if parts and t0 == 0.0 and parts[-1][-1] == [float(start[0]), float(start[1])]:
            parts[-1].append([float(end[0]), float(end[1])])
        else:
            parts.append([[float(start[0]), float(start[1])], [float(end[0]), float(end[1])]])
    return parts


def _crossing(a: list[float], b: list[float], axis: int, bound: float) -> list[float]:
    t = (bound - a[axis]) / (b[axis] - a[axis])
    point = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]
    point[axis] = float(bound)
    return point
