"""One measured figure with its aim."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Result:
    """A figure that should stay at or below its aim."""

    name: str
    value: float
    most: float
    unit: str

    @property
    def met(self) -> bool:
        return self.value <= self.most

    @property
    def shown(self) -> str:
        return f"{self.value:.2f} {self.unit}"

    @property
    def aim(self) -> str:
        return f"<= {self.most:g} {self.unit}"
