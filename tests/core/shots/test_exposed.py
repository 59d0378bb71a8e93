"""A shot in a known light is exposed right to a sixth of a stop, or the rest is told: by brute force over every stop."""

import math

import numpy as np
import pytest

from hextan.core.base import MARKED
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings
from hextan.core.light import NdFilter
from hextan.core.shots import Shot
from hextan.core.shots.view import answer_of_shot
from tests.core.bodies import a_body, a_format, a_mode, package_of
from tests.core.kits import LensSet, lens

PLAIN = PackageSettings()


def package(eis, nds, filters=()):
    body = parse_body(
        a_body(
            [a_mode(formats=[a_format(rates=["24", "25", "50"])])], eis=eis, base_eis=eis[:1], nd_stops=nds
        )
    )
    glass = lens(1, name="Prime 40", focal=40.0, t_stop=2.0, f_number=1.8, pupil_magnification=1.0)
    return package_of(
        [body], lens_sets=(LensSet(1, "Lantern Works", "Heron", (glass,)),), filters=tuple(filters)
    )


def over(best, lux):
    """How much brighter than right, by ISO 2720 (C = 250): E = C T^2 / (t ISO), at 3 m with the extension of a thin lens."""
    grown = 1 + 0.04 / (3.0 - 0.04)
    open_s = best["shutter_deg"] / 360 / best["fps"]
    needed = 250 * (best["stop"] * grown) ** 2 / (open_s * lux)
    return math.log2(best["ei"] / needed) - (best["nd_stops"] or 0.0)


@pytest.mark.parametrize("eis", [[800, 1600, 3200], [400, 800], [200, 250, 320, 400, 500, 640, 800]])
@pytest.mark.parametrize("nds", [[], [2.0, 4.0, 6.0]])
def test_every_lit_shot_is_right_or_says_by_how_much_it_is_not(eis, nds):
    found = package(eis, nds)
    rng, right, told = np.random.default_rng(5), 0, 0
    for _ in range(60):
        lux = float(np.round(2 ** rng.uniform(3, 13), 1))
        stop, wishes = [("", {}), ("T2-T5.6", {}), ("T4", {}), ("up to T4", {"stop": 1.0})][rng.integers(4)]
        answer = answer_of_shot(
            found, PLAIN, Shot(name="1", distance="3 m", light=f"{lux} lux", stop=stop, wishes=wishes)
        )
        best = answer["best"]
        assert over(best, lux) == pytest.approx(best["over_stops"], abs=0.02)
        if answer["verdict"] != "does":
            continue
        words = [w["text"] for w in answer["warnings"] if w["code"] == "exposure"]
        if abs(best["over_stops"]) <= 1 / 6 + 1e-9:
            right += 1
            assert words == []
            continue
        told += 1
        assert len(words) == 1
        assert ("over" if best["over_stops"] > 0 else "under") in words[0]
        # No mark that the shot allows, with any EI and ND of the body, is right either.
        low, high = {"": (2.0, 22.0), "T2-T5.6": (2.0, 5.6), "T4": (4.0, 4.0), "up to T4": (2.0, 4.0)}[stop]
        for mark in (x for x in MARKED if low <= x <= high):
            for ei in eis:
                for nd in (0.0, *nds):
                    assert abs(over(best | {"stop": mark, "ei": ei, "nd_stops": nd}, lux)) > 1 / 6
    assert right > 15
    # Whole stops of EI and one stop that has to be T4: there the rest is told.
    assert told > 0 or len(eis) != 3


def test_a_third_of_nd_is_named_when_it_would_be_right_and_taken_when_it_is_there():
    shot = Shot(name="1", distance="3 m", light="190 lux", stop="T4")
    (warning,) = [
        w
        for w in answer_of_shot(package([800, 1600], []), PLAIN, shot)["warnings"]
        if w["code"] == "exposure"
    ]
    assert warning["text"] == "0.4 stops under at EI 800: EI 1600 with ND 0.2 would be right."
    density = 0.2
    filters = [NdFilter(f"ND {density:.1f}", density / 0.3)]
    best = answer_of_shot(package([800, 1600], [], filters), PLAIN, shot)["best"]
    assert abs(best["over_stops"]) <= 1 / 6
    assert best["nd_parts"] == [f"ND {density:.1f}"]
