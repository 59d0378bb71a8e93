"""The set-ups of a production that can be handed over: the Bench's, those of a comparison, and every shot's choice."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, TypeAlias

from hextan.core.base import HextanError
from hextan.core.bench import BenchState, Scene
from hextan.core.compare import Comparison
from hextan.core.equipment import Package, PackageSettings
from hextan.core.handover.facts import CameraFacts, facts_of
from hextan.core.shots import ShotList, bench_of_shot

#: Of what a file is made.
Source: TypeAlias = Literal["bench", "comparisons", "shots"]


def setups_of(
    source: Source,
    package: Package,
    settings: PackageSettings,
    bench: BenchState | None,
    comparisons: Sequence[Comparison] = (),
    shots: ShotList | None = None,
) -> tuple[list[CameraFacts], list[str]]:
    """Everything of one source, computed.

    Returns
    -------
    The set-ups in their order, and what has none, with the reason.
    """
    asked: list[tuple[str, BenchState | None]] = []
    if source == "bench":
        asked = [("Bench", bench)]
    elif source == "comparisons":
        asked = [
            (f"{each.name}, {column.label or chr(ord('A') + i)}", each.state_of(column))
            for each in comparisons
            for i, column in enumerate(each.columns)
        ]
    else:
        scene = bench.scene if bench is not None else Scene()
        asked = [
            (f"Shot {shot.name}", bench_of_shot(package, settings, shot, scene))
            for shot in (shots.shots if shots is not None else [])
        ]
    found: list[CameraFacts] = []
    without: list[str] = []
    for name, state in asked:
        if state is None:
            without.append(f"{name}: nothing is chosen.")
            continue
        try:
            found.append(facts_of(package, state, name))
        except HextanError as error:
            without.append(f"{name}: {error.message}")
    return found, without
