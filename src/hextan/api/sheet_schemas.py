"""Shapes of sheets."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from hextan.api.shape import Shape, Version
from hextan.core.base import Name
from hextan.core.sheets import Sheet, SheetPlan, Sheets
from hextan.paper.marks import Page
from hextan.search.searches import SearchState


class SheetsKept(Shape):
    """A production's sheets with their version, for the next write."""

    version: Version
    document: Sheets


class SheetsWrite(Shape):
    """Sheets to keep, changed from a known version (0: none were kept yet)."""

    version: Version
    document: Sheets


class SheetAsk(Shape):
    """A sheet to make, without keeping it."""

    plan: SheetPlan
    #: How many of its pages are wanted, from which on.
    first: Annotated[int, Field(ge=0, le=10_000)] = 0
    most: Annotated[int, Field(ge=0, le=20)] = 4


class SheetSeen(Shape):
    """A sheet as it would be printed now."""

    sheet: Sheet
    #: Another one as soon as anything on the sheet is.
    fingerprint: str
    #: Whether something of it is still being looked for: ask again.
    working: bool
    page_count: int
    first: int
    pages: list[Page]
    #: Signs that no font here has: they are printed as empty boxes.
    unknown_signs: str


class PrintAsk(Shape):
    """Sheets to print as one file."""

    title: Name
    plans: Annotated[list[SheetPlan], Field(min_length=1, max_length=200)]


class PrintSeen(Shape):
    """How far printing is."""

    #: Under which it is asked for again, and its file fetched.
    name: str
    state: SearchState
    told: str
    seconds: float
    pages: int
    #: By the keys of the sheets, when it is done.
    fingerprints: dict[str, str]
    #: Sheets that had nothing to print, with why.
    empty: dict[str, str]
    at: str
    problem: str


TableFile = Literal["pdf", "csv", "xlsx", "ods"]
