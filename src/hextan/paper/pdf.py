"""Pages as a PDF: vectors, embedded fonts, text that can be searched, title and language; the same bytes for the same pages."""

from __future__ import annotations

import io
from collections.abc import Callable, Sequence

from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from hextan.paper.fonts import runs, width_mm
from hextan.paper.marks import Mark, Page

_PT = 72 / 25.4
#: Line widths, millimetres, dashes, and greys from black to white; on a dark page the lightness is turned.
_LINES: dict[str, tuple[float, tuple[float, ...], float]] = {
    "rule": (0.35, (), 0.0),
    "hairline": (0.12, (), 0.45),
    "frame": (0.3, (), 0.0),
    "thin": (0.14, (), 0.0),
    "dashed": (0.2, (1.4, 1.0), 0.25),
    "circle": (0.25, (0.4, 0.8), 0.1),
    "lamp": (0.5, (), 0.0),
    "hatch": (0.16, (), 0.2),
}
_AREAS: dict[str, float] = {
    "shade": 0.945, "soft": 0.87, "fill": 0.66, "dark": 0.3, "lamp": 0.99, "qr": 0.0, "bar": 0.0,
}  # fmt: skip
#: On a dark page: ground, and what each style is drawn with.
DARK_GROUND = (0.075, 0.115, 0.165)
_DARK: dict[str, tuple[float, float, float]] = {
    "shade": (0.115, 0.16, 0.215), "soft": (0.17, 0.235, 0.3), "fill": (0.37, 0.45, 0.53), "dark": (0.62, 0.69, 0.75),
    "lamp": (0.95, 0.72, 0.36), "focus": (0.96, 0.78, 0.47), "covers": (0.62, 0.86, 0.7), "marginal": (0.95, 0.75, 0.4),
    "short": (0.97, 0.56, 0.46), "quiet": (0.64, 0.71, 0.78), "hairline": (0.33, 0.41, 0.49),
}  # fmt: skip
_CHALK = (0.93, 0.95, 0.97)
_HATCH_MM = 1.1


def pdf_of(
    sheets: Sequence[tuple[str, Sequence[Page]]], title: str, told: Callable[[int], None] = lambda page: None
) -> bytes:
    """Write pages as one PDF, with an outline entry for each sheet.

    Parameters
    ----------
    sheets : each with its title and its pages
    told : is given the number of each page as it is written
    """
    out = io.BytesIO()
    canvas = Canvas(out, invariant=1, pageCompression=1, lang="en")
    canvas.setTitle(title)
    canvas.setCreator("Hextan")
    count = 0
    for i, (name, pages) in enumerate(sheets):
        for n, page in enumerate(pages):
            count += 1
            canvas.setPageSize((page["width_mm"] * _PT, page["height_mm"] * _PT))
            if n == 0:
                canvas.bookmarkPage(f"sheet{i}")
                canvas.addOutlineEntry(name, f"sheet{i}", 0)
            _draw(canvas, page)
            canvas.showPage()
            told(count)
    if not count:
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _draw(canvas: Canvas, page: Page) -> None:
    high = page["height_mm"]
    if page["dark"]:
        canvas.setFillColorRGB(*DARK_GROUND)
        canvas.rect(0, 0, page["width_mm"] * _PT, high * _PT, stroke=0, fill=1)
    for mark in page["marks"]:
        if mark["kind"] == "text":
            _text(canvas, mark, high, page["dark"])
        else:
            _shape(canvas, mark, high, page["dark"])


def _colour(style: str, dark: bool, grey: float) -> tuple[float, float, float]:
    if not dark:
        return grey, grey, grey
    return _DARK.get(style, _CHALK)


def _text(canvas: Canvas, mark: Mark, high: float, dark: bool) -> None:
    canvas.setFillColorRGB(*_colour(mark["style"], dark, 0.36 if mark["style"] == "quiet" else 0.0))
    (x, y), size = mark["points"][0], mark["size_pt"]
    wide = width_mm(mark["text"], size, mark["strong"]) * _PT
    start = {"start": 0.0, "middle": -wide / 2, "end": -wide}[mark["anchor"]]
    canvas.saveState()
    canvas.translate(x * _PT, (high - y) * _PT)
    if mark["turned"]:
        canvas.rotate(180)
    for run in runs(mark["text"], mark["strong"]):
        canvas.setFont(f"hextan-{run.face}", size)
        canvas.drawString(start, 0, run.text)
        start += canvas.stringWidth(run.text, f"hextan-{run.face}", size)
    canvas.restoreState()


def _path(canvas: Canvas, mark: Mark, high: float, close: bool) -> PDFPathObject:
    path = canvas.beginPath()
    (x0, y0), *rest = mark["points"]
    path.moveTo(x0 * _PT, (high - y0) * _PT)
    for x, y in rest:
        path.lineTo(x * _PT, (high - y) * _PT)
    if close:
        path.close()
    return path


def _shape(canvas: Canvas, mark: Mark, high: float, dark: bool) -> None:
    style = mark["style"]
    if mark["kind"] == "boxes":
        whole = canvas.beginPath()
        for x, y, wide, tall in mark["points"]:
            whole.rect(x * _PT, (high - y - tall) * _PT, wide * _PT, tall * _PT)
        canvas.setFillColorRGB(*_colour(style, dark, 0.0))
        canvas.drawPath(whole, stroke=0, fill=1)
        return
    if mark["kind"] == "area":
        path = _path(canvas, mark, high, close=True)
        if style == "hatch":
            _hatch(canvas, mark, path, high, dark)
            return
        canvas.setFillColorRGB(*_colour(style, dark, _AREAS.get(style, 0.0)))
        if style == "lamp":
            canvas.setStrokeColorRGB(*_colour(style, dark, 0.0))
            canvas.setLineWidth(0.14 * _PT)
            canvas.setDash()
        canvas.drawPath(path, stroke=1 if style == "lamp" else 0, fill=1)
        return
    width, dashes, grey = _LINES.get(style, (0.2, (), 0.0))
    canvas.setStrokeColorRGB(*_colour(style, dark, grey))
    canvas.setLineWidth(width * _PT)
    canvas.setDash([d * _PT for d in dashes])
    canvas.drawPath(_path(canvas, mark, high, close=False), stroke=1, fill=0)


def _hatch(canvas: Canvas, mark: Mark, path: PDFPathObject, high: float, dark: bool) -> None:
    """Slanting lines within an area."""
    xs, ys = [p[0] for p in mark["points"]], [p[1] for p in mark["points"]]
    canvas.saveState()
    canvas.clipPath(path, stroke=0, fill=0)
    canvas.setStrokeColorRGB(*_colour("quiet", dark, 0.15))
    canvas.setLineWidth(0.16 * _PT)
    canvas.setDash()
    tall = max(ys) - min(ys)
    x = min(xs) - tall
    while x < max(xs):
        canvas.line(x * _PT, (high - max(ys)) * _PT, (x + tall) * _PT, (high - min(ys)) * _PT)
        x += _HATCH_MM
    canvas.restoreState()
