"""Shapes of what the Bench says about depth and light."""

from __future__ import annotations

from hextan.api.shape import Shape
from hextan.core.bench import BenchState


class LookAsk(Shape):
    """A Bench to look at."""

    state: BenchState
