"""Shapes of productions: the list of them, and what is said of one."""

from __future__ import annotations

from datetime import datetime

from hextan.api.shape import Listed, Shape, Version
from hextan.core.base import Unit
from hextan.core.equipment import TradeWords
from hextan.core.production import ProductionFacts, ProductionGlance


class ProductionRead(Shape):
    """A production in the list, with what it carries at a glance."""

    id: int
    version: Version
    name: str
    synopsis: str
    starts_on: str
    ends_on: str
    changed_at: datetime
    #: Whether it is the one that ships with Hextan.
    demo: bool
    glance: ProductionGlance


class ProductionList(Listed[ProductionRead]):
    """The productions, the last changed first, and those that were put away."""


class ProductionKept(Shape):
    """What is said of a production, and its version, for the next write."""

    id: int
    version: Version
    facts: ProductionFacts
    archived: bool
    demo: bool
    #: The words of the trade that it speaks in.
    words: TradeWords
    #: In which distances and weights are told.
    unit: Unit


class ProductionNew(Shape):
    """A production to make: empty, or as a copy of another."""

    facts: ProductionFacts
    production_id: int | None = None


class ProductionWrite(Shape):
    """What is said of a production, changed from a known version."""

    version: Version
    facts: ProductionFacts


class ShelfRead(Shape):
    """The catalogue."""

    id: int
    name: str
