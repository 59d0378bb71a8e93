"""Judging 300 shots over 60 lenses and 60 formats, anew and after one of them was changed; in seconds, as the issue has it."""

from __future__ import annotations

import random
import time
from dataclasses import replace

from bench.kit import FORMATS, LENSES, _package
from bench.result import Result
from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot, ShotList, shots_view

SHOTS = 300
_FRAMINGS = (
    "full figure",
    "knees",
    "waist",
    "chest",
    "face",
    "eyes",
    "1.9 m wide",
    "2.4 m high",
    "as 35 on Super 35 at 3 m",
    "like 50",
)


def judged() -> list[Result]:
    """Time to judge a whole list, and to judge it again with one shot changed."""
    package, settings = _package(), PackageSettings()
    drawn = random.Random(1)
    shots = [
        Shot(
            name=str(n),
            framing=drawn.choice(_FRAMINGS),
            distance=f"{drawn.uniform(1, 12):.2f} m",
            stop=drawn.choice(["", "T2-T4", "T4"]),
            light=drawn.choice(["", "60 lux", "300 lux", "day"]),
            hold=drawn.choice(["", "±20 cm", "deep"]),
            picture=drawn.choice(["", "not raw", "no binning"]),
        )
        for n in range(SHOTS)
    ]
    # Equipment laid out anew, as after a change of it.
    cold = _seconds(lambda: shots_view(replace(package), settings, ShotList(shots=shots), changes_for=()))
    warm = replace(package)
    shots_view(warm, settings, ShotList(shots=shots), changes_for=())
    shots[7] = shots[7].model_copy(update={"framing": "like 41"})
    once = _seconds(lambda: shots_view(warm, settings, ShotList(shots=shots), changes_for=()))
    cells = f"{SHOTS} shots x {LENSES} lenses x {FORMATS} formats"
    return [
        Result(f"{cells}, judged anew", cold, 3.0, "s"),
        Result(f"{cells}, one changed", once, 0.3, "s"),
    ]


def _seconds(act) -> float:  # type: ignore[no-untyped-def]
    began = time.perf_counter()
    act()
    return time.perf_counter() - began
