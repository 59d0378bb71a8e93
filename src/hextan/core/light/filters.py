"""Filters that a production carries."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class NdFilter:
    """A neutral density filter that goes in front of any lens; how many of it there are."""

    name: str
    stops: float
    count: int = 1
