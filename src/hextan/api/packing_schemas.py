"""Shapes of packing."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from hextan.api.shape import Shape, Version
from hextan.core.base import Key
from hextan.core.packing import KitAnswer, Packing, SideBySide
from hextan.core.production import PlanState
from hextan.search.searches import SearchState


class PackingKept(Shape):
    """A production's packing with its version, for the next write."""

    version: Version
    document: Packing


class PackingWrite(Shape):
    """A packing to keep, changed from a known version (0: none was kept yet)."""

    version: Version
    document: Packing


class PackingAsk(Shape):
    """A packing to look at, without keeping it."""

    document: Packing


class SearchAsk(Shape):
    """A packing, and which of its kits is looked for; two of them are held against one another."""

    document: Packing
    kits: Annotated[list[Key], Field(min_length=1, max_length=2)]


class PlanBefore(Shape):
    """The plan that there was before this one; no name and no moment where there was none."""

    version: Version
    name: str
    made_at: str | None


class PlanKept(Shape):
    """The plan with its version, for the next write."""

    version: Version
    plan: PlanState
    #: What can be gone back to; None where nothing was kept of it.
    before: PlanBefore | None


class PlanWrite(Shape):
    """Which kit of a packing is the plan from now on, or which version of the plan is it again; none where both are null."""

    version: Version
    document: Packing
    kit: Key | None
    back_to: Version | None = None


class SearchSeen(Shape):
    """How far a search is, and what it found."""

    #: Under which it is asked for again.
    name: str
    state: SearchState
    #: What is being looked at.
    told: str
    seconds: float
    #: The kit; while more is to come, without what stands around it.
    kit: KitAnswer | None
    sides: SideBySide | None
    #: Why there is no answer.
    problem: str
