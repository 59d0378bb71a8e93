"""The smallest kit for 60 shots out of 60 lenses on four bodies with 60 formats, proved; in seconds, as the issue has it."""

from __future__ import annotations

import random
import time
from dataclasses import replace

from bench.kit import FORMATS, LENSES, _package
from bench.result import Result
from bench.shots import _FRAMINGS
from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing import KitPlan, Packing, packed
from hextan.core.shots import Shot, ShotList

SHOTS, BODIES = 60, 4


def proved() -> list[Result]:
    """Time from the question to a kit that is proved, with its reasons and days, by all five objectives."""
    answer = None
    began = time.perf_counter()
    answer = packed(
        _heavy(), PackageSettings(), _shots(), Packing(), KitPlan(name="bench"), around=False
    ).answer
    seconds = time.perf_counter() - began
    assert answer["proved"] and answer["shots_done"] > SHOTS / 2 and not answer["disagree"]
    name = f"kit of {answer['lenses']} lenses for {answer['shots_done']} shots out of {LENSES} lenses x {FORMATS} formats, proved"
    return [Result(name, seconds, 5.0, "s")]


def _heavy() -> Package:
    """The package of the other measurements on four bodies, everything with a weight."""
    package = _package()
    body = package.bodies[0]
    share = len(body.modes) // BODIES
    bodies = tuple(
        replace(
            body,
            id=1000 + i,
            name=f"Body {i}",
            modes=body.modes[i * share : (i + 1) * share],
            weight_kg=1.5 + i,
        )
        for i in range(BODIES)
    )
    sets = tuple(
        replace(
            each, lenses=tuple(replace(lens, weight_kg=0.5 + lens.id * 7 % 13 / 10) for lens in each.lenses)
        )
        for each in package.lens_sets
    )
    return replace(package, bodies=bodies, lens_sets=sets)


def _shots() -> ShotList:
    drawn = random.Random(3)
    shots = []
    for n in range(SHOTS):
        near = drawn.uniform(1.5, 5)
        shots.append(
            Shot(
                name=str(n),
                day=str(n // 12 + 1),
                scene=str(n // 4),
                framing=drawn.choice(_FRAMINGS),
                distance=f"{near:.2f}-{near * (1.5 + drawn.random()):.2f} m",
                stop=drawn.choice(["", "T4", "T2.8-T8"]),
                wishes=drawn.choice([{}, {"stop": 1.0}, {"distance": 2.0}]),
            )
        )
    return ShotList(shots=shots)
