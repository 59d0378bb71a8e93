"""Pages as they fill: a title and a QR code at the top of each, the stamp at its foot, and between them what flows."""

from __future__ import annotations

from dataclasses import dataclass

import segno

from hextan.core.sheets import CAUTION, Sheet
from hextan.paper.fonts import MM_OF_PT, line_mm, wrapped
from hextan.paper.marks import Mark, Page, boxes, line, text
from hextan.paper.papers import Paper

#: Between blocks, and between lines of type and rules, in lines.
_GAP = 0.9
#: A module of a QR code is no smaller, millimetres.
_LEAST_MODULE_MM = 0.33


@dataclass(frozen=True)
class Printed:
    """What is printed besides the sheet: when it was made, which state of the plan, and the address that opens it."""

    day: str
    code: str
    address: str


class Flow:
    """Pages being filled from the top."""

    def __init__(self, sheet: Sheet, paper: Paper, printed: Printed) -> None:
        self.sheet, self.paper, self.printed = sheet, paper, printed
        self.size = paper.size_pt
        self.small = max(paper.size_pt * 0.8, 5.0)
        self.left, self.right = paper.margin_mm, paper.width_mm - paper.margin_mm
        self.pages: list[list[Mark]] = []
        self._foot = self._foot_lines()
        self.y = 0.0
        self.top = 0.0
        self.new_page()

    @property
    def marks(self) -> list[Mark]:
        """Of the page that is being filled."""
        return self.pages[-1]

    @property
    def bottom(self) -> float:
        """Where the stamp begins."""
        lines = len(self._stamp_lines(len(self.pages)))
        return self.paper.height_mm - self.paper.margin_mm - line_mm(self.small) * lines - 1.2

    def _stamp_lines(self, page: int) -> list[str]:
        """What is stamped on a page; on the further panels of a card only its state."""
        last = (
            f"{self.printed.day} · state {self.printed.code}"
            if self.printed.day
            else f"state {self.printed.code}"
        )
        if self.paper.brief and page > 1:
            return [f"state {self.printed.code}"]
        return [*self._foot, *wrapped(last, self.small, self.width - 12)]

    @property
    def width(self) -> float:
        """Between the margins."""
        return self.right - self.left

    @property
    def room(self) -> float:
        """What is left of the page, millimetres."""
        return self.bottom - self.y

    @property
    def page_room(self) -> float:
        """What a page has that is begun anew."""
        return self.bottom - self.top

    @property
    def fresh(self) -> bool:
        """Whether nothing stands on the page yet."""
        return self.y <= self.top + 1e-6

    def line(self, size: float | None = None) -> float:
        """Height of a line of type."""
        return line_mm(size or self.size)

    def gap(self, lines: float = _GAP) -> None:
        """Leave some room, unless the page begins here."""
        if not self.fresh:
            self.y += self.line() * lines

    def need(self, height: float) -> bool:
        """Go to a new page where so much does not fit on this one; whether it went."""
        if height <= self.room + 1e-6 or self.fresh:
            return False
        self.new_page()
        return True

    def text(
        self, words: str, x: float, size: float | None = None, *, y: float | None = None, strong: bool = False, style: str = "",
        anchor: str = "start",
    ) -> None:  # fmt: skip
        """A text whose line begins at a height; on its baseline it stands lower."""
        size = size or self.size
        base = (self.y if y is None else y) + size * MM_OF_PT * 0.95
        self.marks.append(text(words, x, base, size, style, anchor, strong))  # type: ignore[arg-type]

    def paragraph(
        self,
        words: str,
        size: float | None = None,
        *,
        strong: bool = False,
        style: str = "",
        indent: float = 0.0,
    ) -> None:
        """Lines of text between the margins; they may go on to the next page."""
        size = size or self.size
        for each in wrapped(words, size, self.width - indent, strong):
            self.need(self.line(size))
            self.text(each, self.left + indent, size, strong=strong, style=style)
            self.y += self.line(size)

    def new_page(self) -> None:
        """Begin a page: its title, the QR code, and a rule."""
        first = not self.pages
        self.pages.append([])
        self.y = self.paper.margin_mm
        qr = self._qr()
        free = self.width - (qr + 3 if qr else 0)
        title = self.paper.title_pt if first else self.paper.title_pt * 0.72
        words = self.sheet["title"] if first else f"{self.sheet['title']}, continued"
        for each in wrapped(words, title, free, True):
            self.text(each, self.left, title, strong=True)
            self.y += line_mm(title)
        if first and self.sheet["lead"]:
            self.y += 0.6
            for each in wrapped(self.sheet["lead"], self.size, free):
                self.text(each, self.left, style="quiet")
                self.y += self.line()
        if first:
            for note in self.sheet["notes"]:
                for each in wrapped(note, self.small, free):
                    self.text(each, self.left, self.small, style="quiet")
                    self.y += line_mm(self.small)
        self.y = max(self.y + 1.4, self.paper.margin_mm + (qr + 1.4 if qr else 0))
        self.marks.append(line([[self.left, self.y], [self.right, self.y]], "rule"))
        self.y += 2.0
        self.top = self.y

    def _qr(self) -> float:
        """Draw the QR code at the upper right; give its width, nothing where there is none."""
        if not self.paper.qr_mm or not self.printed.address or (self.paper.brief and len(self.pages) > 1):
            return 0.0
        code = segno.make(self.printed.address, error="m", micro=False)
        rows = list(code.matrix_iter(border=0))
        module = max(self.paper.qr_mm / len(rows), _LEAST_MODULE_MM)
        side = module * len(rows)
        x0, y0 = self.right - side, self.paper.margin_mm
        places: list[list[float]] = []
        for r, modules in enumerate(rows):
            start = None
            for c, dark in enumerate([*modules, 0]):
                if dark and start is None:
                    start = c
                elif not dark and start is not None:
                    places.append([x0 + start * module, y0 + r * module, (c - start) * module, module])
                    start = None
        self.marks.append(boxes(places, "qr"))
        return side

    def _foot_lines(self) -> list[str]:
        facts = " · ".join(f"{fact['name']}: {fact['text']}" for fact in self.sheet["stamp"])
        return [
            *wrapped(facts, self.small, self.width),
            *wrapped(CAUTION, self.small, self.width),
        ]

    def finished(self) -> list[Page]:
        """All pages, each with its stamp at the foot."""
        pages: list[Page] = []
        baseline = self.small * MM_OF_PT * 0.95
        for number, marks in enumerate(self.pages, 1):
            lines = self._stamp_lines(number)
            y = self.paper.height_mm - self.paper.margin_mm - line_mm(self.small) * len(lines)
            foot = [line([[self.left, y], [self.right, y]], "hairline")]
            y += 0.6
            for each in lines:
                foot.append(text(each, self.left, y + baseline, self.small, "quiet"))
                y += line_mm(self.small)
            of = f"{number} / {len(self.pages)}"
            foot.append(text(of, self.right, y - line_mm(self.small) + baseline, self.small, "quiet", "end"))
            pages.append({"width_mm": self.paper.width_mm, "height_mm": self.paper.height_mm, "dark": self.paper.dark,
                          "marks": [*marks, *foot]})  # fmt: skip
        return pages
