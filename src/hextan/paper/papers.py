"""Papers: their sizes, margins and sizes of type. A pocket card is laid out on its panels and put together for one sheet."""

from __future__ import annotations

from dataclasses import dataclass, replace

from hextan.core.sheets import SheetPlan
from hextan.paper.marks import Mark, Page, line, moved


@dataclass(frozen=True)
class Paper:
    """A page to lay out on, millimetres and points."""

    width_mm: float
    height_mm: float
    margin_mm: float
    #: Of tables and sentences.
    size_pt: float
    title_pt: float
    qr_mm: float
    dark: bool = False
    #: The narrowest that a picture is drawn.
    picture_mm: float = 34.0
    #: Whether only the first page has the whole stamp and the QR code: all panels are of one card.
    brief: bool = False

    @property
    def inner_mm(self) -> float:
        """Width between the margins."""
        return self.width_mm - 2 * self.margin_mm

    def larger(self, factor: float) -> Paper:
        """The same with larger type."""
        return replace(self, size_pt=self.size_pt * factor, title_pt=self.title_pt * factor)

    def turned(self) -> Paper:
        """The same the other way."""
        return replace(self, width_mm=self.height_mm, height_mm=self.width_mm)


#: ISO 216 A4 and A6, ANSI Letter; a panel is an eighth of A4; a telephone's page is as large as its screen.
PAPERS: dict[str, Paper] = {
    "a4": Paper(210.0, 297.0, 11.0, 8.6, 16.0, 20.0),
    "letter": Paper(215.9, 279.4, 11.0, 8.6, 16.0, 20.0),
    "a6": Paper(105.0, 148.0, 6.0, 7.4, 11.5, 15.0, picture_mm=26.0),
    "pocket": Paper(74.25, 105.0, 4.5, 6.4, 9.0, 13.0, picture_mm=20.0, brief=True),
    "telephone": Paper(72.0, 156.0, 4.0, 7.6, 11.0, 0.0, dark=True, picture_mm=28.0, brief=True),
}
LARGE = 1.3
#: Panels of a pocket card: columns and rows of an A4 across, and which page stands where; the upper row upside down.
#: Folded in half lengthwise, cut along the middle between the two inner folds, and pushed into a cross.
_PANELS = ((5, 4, 3, 2), (6, 7, 8, 1))
PANELS = 8
_SHEET = (297.0, 210.0)


def paper_of(plan: SheetPlan) -> Paper:
    """The page on which a sheet is laid out."""
    paper = PAPERS[plan.paper]
    if plan.wide and plan.paper in ("a4", "letter", "a6"):
        paper = paper.turned()
    return paper.larger(LARGE) if plan.large else paper


def put_together(pages: list[Page]) -> list[Page]:
    """Put the pages of a pocket card on sheets, eight on each, with the fold lines and the cut."""
    sheets: list[Page] = []
    for start in range(0, len(pages), PANELS):
        marks: list[Mark] = []
        group = pages[start : start + PANELS]
        w, h = _SHEET[0] / 4, _SHEET[1] / 2
        for r, numbers in enumerate(_PANELS):
            for c, number in enumerate(numbers):
                if number <= len(group):
                    turn = (w, h) if r == 0 else None
                    marks += [moved(mark, c * w, r * h, turn) for mark in group[number - 1]["marks"]]
        marks += [line([[c * w, 0], [c * w, 2 * h]], "dashed") for c in (1, 2, 3)]
        marks += [
            line([[0, h], [w, h]], "dashed"),
            line([[3 * w, h], [4 * w, h]], "dashed"),
            line([[w, h], [3 * w, h]], "rule"),
        ]
        sheets.append({"width_mm": _SHEET[0], "height_mm": _SHEET[1], "dark": False, "marks": marks})
    return sheets
