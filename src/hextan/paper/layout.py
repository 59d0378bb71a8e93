"""A sheet laid out: from its data to pages, each mark in its place."""

from __future__ import annotations

from hextan.core.sheets import Sheet, SheetPlan, SheetWords
from hextan.paper.flow import Flow, Printed
from hextan.paper.fonts import wrapped
from hextan.paper.marks import Page, box
from hextan.paper.papers import Paper, paper_of, put_together
from hextan.paper.pictures import put_pictures
from hextan.paper.tables import put_table

#: A last page that is filled no further than this share holds lines that stand alone; type is made so much smaller for them.
_ALONE = 0.15
_TIGHTER = (0.97, 0.94, 0.91)
#: And never smaller than this, points: small papers have small type already.
_LEAST_PT = 7.5


def laid_out(sheet: Sheet, plan: SheetPlan, printed: Printed) -> list[Page]:
    """Lay a sheet out on the paper of its plan.

    Returns
    -------
    Its pages; of a pocket card the sheets of eight panels. None where the sheet has nothing to print.
    """
    pages = filled(sheet, plan, printed)
    return put_together(pages) if plan.paper == "pocket" else pages


def filled(sheet: Sheet, plan: SheetPlan, printed: Printed) -> list[Page]:
    """The pages of a sheet one after the other; of a pocket card its panels."""
    if sheet["why_empty"]:
        return []
    paper = paper_of(plan)
    flow = _flown(sheet, paper, printed)
    # A few lines alone on a last page are taken back by slightly smaller type.
    alone = len(flow.pages) > 1 and _filled_share(flow) < _ALONE
    for factor in (f for f in _TIGHTER if alone and paper.size_pt * f >= _LEAST_PT):
        tighter = _flown(sheet, paper.larger(factor), printed)
        if len(tighter.pages) < len(flow.pages):
            return tighter.finished()
    return flow.finished()


def _filled_share(flow: Flow) -> float:
    """How much of the page that was begun last is filled."""
    return (flow.y - flow.top) / flow.page_room


def _flown(sheet: Sheet, paper: Paper, printed: Printed) -> Flow:
    flow = Flow(sheet, paper, printed)
    for block in sheet["blocks"]:
        if block["kind"] == "table":
            put_table(flow, block)
        elif block["kind"] == "pictures":
            put_pictures(flow, block)
        else:
            _put_words(flow, block)
    return flow


def _put_words(flow: Flow, block: SheetWords) -> None:
    flow.gap()
    if block["heading"]:
        flow.need(flow.line() * 3)
        flow.paragraph(block["heading"], flow.size * 1.1, strong=True)
        flow.y += 0.4
    indent = 2.4
    for sentence in block["lines"]:
        lines = wrapped(sentence, flow.size, flow.width - indent)
        flow.need(flow.line() * min(len(lines), 4))
        start, page = flow.y, len(flow.pages)
        flow.paragraph(sentence, indent=indent)
        if block["caution"] and len(flow.pages) == page:
            flow.marks.append(box(flow.left, start + 0.3, 0.8, flow.y - start - 0.6, "bar"))
        flow.y += 0.7
