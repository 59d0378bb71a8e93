"""How near a match comes: each difference counts by its own cost."""

from types import SimpleNamespace

import pytest

from hextan.core.compare.camera_match import COSTS, Candidate


def candidate(**changes):
    plain = {
        "setup": None, "way": SimpleNamespace(adapters=()), "width_percent": 0.0, "exact_stop": 4.0, "depth_stops": 0.0,
        "light": SimpleNamespace(cost=0.0), "exposure_stops": 0.0, "covers": "covers", "other_squeeze": False,
    }  # fmt: skip
    return Candidate(**plain | changes)


@pytest.mark.parametrize(
    ("change", "cost"),
    [
        ({}, 0.0),
        ({"width_percent": -2.0}, 2 * COSTS["width_percent"]),
        ({"depth_stops": -0.5}, 0.5 * COSTS["depth_stop"]),
        ({"covers": "short"}, COSTS["short_circle"]),
        ({"covers": "marginal"}, 0.0),
        ({"way": SimpleNamespace(adapters=("a", "b"))}, 2 * COSTS["adapter"]),
        ({"other_squeeze": True}, COSTS["other_squeeze"]),
        ({"light": SimpleNamespace(cost=0.7)}, 0.7),
    ],
)
def test_each_difference_costs_its_own(change, cost):
    assert candidate(**change).cost == pytest.approx(cost)
