"""What is looked for: one kit, or two held against one another. Written out for the process that looks."""

from __future__ import annotations

import pickle
from collections.abc import Callable
from dataclasses import dataclass, replace
from hashlib import sha256
from typing import Any, Protocol

from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing import KitPlan, Packing, Watch, packed, side_by_side
from hextan.core.shots import ShotList

#: Of one kit nobody waits longer, seconds.
MOST_SECONDS = 60.0


def bare(package: Package) -> Package:
    """A package without what was worked out with it, which stays here, and without the plan, which a kit does not hang on."""
    return replace(package, bodies=tuple(replace(body) for body in package.bodies), plan=None)


class Job(Protocol):
    """What a process of its own can be given to do."""

    @property
    def asked(self) -> str:
        """What tells this question from another."""
        ...

    @property
    def written(self) -> bytes:
        """As bytes for another process of this program: itself, pickled."""
        ...

    def done(self, watch: Watch, show: Callable[[Any], None]) -> Any:
        """Do it, and give the answer; ``show`` is given what is known of it before all of it is."""
        ...


@dataclass(frozen=True)
class Work:
    """Everything that one search is about; one kit, or two."""

    package: Package
    settings: PackageSettings
    shots: ShotList
    packing: Packing
    plans: tuple[KitPlan, ...]

    @property
    def asked(self) -> str:
        """What tells this question from another."""
        parts = [
            repr(replace(self.package, plan=None)),
            *(part.model_dump_json() for part in (self.settings, *self._documents, *self.plans)),
        ]
        return sha256("\n".join(parts).encode()).hexdigest()[:16]

    @property
    def _documents(self) -> tuple[ShotList, Packing]:
        """Without what does not matter: answers that were noted, other kits."""
        return ShotList(shots=self.shots.shots), self.packing.model_copy(update={"kits": []})

    @property
    def written(self) -> bytes:
        """As bytes for another process of this program."""
        shots, packing = self._documents
        return pickle.dumps(replace(self, package=bare(self.package), shots=shots, packing=packing))

    def done(self, watch: Watch, show: Callable[[Any], None]) -> Any:
        """Do it: a kit's answer, or two side by side. ``show`` is given the kit before everything around it is known."""

        asked = (self.package, self.settings, self.shots, self.packing)
        if len(self.plans) == 1:
            return packed(*asked, self.plans[0], watch, show).answer
        first, second = (packed(*asked, plan, watch, around=False) for plan in self.plans)
        return side_by_side(first, second)
