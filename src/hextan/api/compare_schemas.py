"""Shapes of comparisons."""

from __future__ import annotations

from pydantic import Field

from hextan.api.shape import Listed, Shape, Version
from hextan.core.compare import Comparison


class ComparisonKept(Shape):
    """A comparison as it is kept."""

    id: int
    version: Version
    removed: bool
    document: Comparison


class ComparisonList(Listed[ComparisonKept]):
    """A production's comparisons."""


class ComparisonNew(Shape):
    """A comparison to keep."""

    document: Comparison


class ComparisonWrite(Shape):
    """A comparison to keep, changed from a known version."""

    version: Version
    document: Comparison


class CompareAsk(Shape):
    """A comparison to compute, without keeping it."""

    document: Comparison


class MatchCameraAsk(Shape):
    """Which column is to match the first."""

    document: Comparison
    index: int = Field(ge=0, le=3)
