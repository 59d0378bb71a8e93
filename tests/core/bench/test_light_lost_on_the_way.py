"""What adapters and nearness cost on the Bench, against the relations by hand and the public evaluation."""

import math

import pytest

from hextan.core.bench.depth import DepthAsk, depth_view
from hextan.core.bench.light import exposure_view
from hextan.core.bench.view import bench_view
from hextan.core.evaluation import evaluate
from tests.core.bench.test_looks_of_small_kits import package, state
from tests.core.kits import EXTENDER, demo_package

DEMO = demo_package()


def test_glass_costs_light_and_no_depth():
    """1.4x, and 93 % of the light comes through: T 2.0 becomes 2.0 x 1.4 / sqrt(0.93)."""
    equipment = package(mount="K50")
    mounted = bench_view(equipment, state(equipment, adapter_id=EXTENDER.id), [])["lens"]["mounted"]
    assert mounted["t_stop"] == pytest.approx(2.0 * 1.4 / math.sqrt(0.93))
    assert mounted["f_number"] == pytest.approx(1.8 * 1.4)


@pytest.mark.parametrize("near_m", [0.16, 0.25, 3.0])
def test_close_up_the_lens_draws_out(near_m):
    """m solves D = f (1 + m)^2 / m; the light falls with the square of 1 + m."""
    equipment = package(close_focus_m=None)
    rows = {
        r["key"]: r["stops"]
        for r in exposure_view(equipment, state(equipment, subject_m=near_m), 25.0)["ledger"]
    }
    q = near_m / 0.040
    m = 2 / (q - 2 + math.sqrt(q * (q - 4)))
    assert rows["close_up"] == pytest.approx(-2 * math.log2(1 + m), rel=1e-9)


def test_a_stop_behind_an_extender_is_told_as_the_ring_is_marked():
    """The exact stop that holds 1.9 to 2.2 m, set on the ring, gives just these limits in the public evaluation."""
    equipment = package(mount="K50")
    looked = state(equipment, adapter_id=EXTENDER.id)
    held = depth_view(equipment, DepthAsk(state=looked, hold_near_m=1.9, hold_far_m=2.2))["hold"]
    here = next(iter(equipment.formats.values()))
    asked = here.as_request(25.0, looked.delivery.for_recording(here.recording.raster, 1.0))
    # The ring is marked in T; its f-number is 1.8 where it opens to T 2.
    answer = evaluate({
        "lens": {"focal_mm": 40.0, "f_number": held["exact"] * 1.8 / 2.0}, "adapter": {"magnification": 1.4},
        "subject": {"distance_m": held["focus_m"]}, "formats": [asked]})  # fmt: skip
    depth = answer["formats"][0]["depth"]
    assert (depth["near_m"], depth["far_m"]) == (pytest.approx(1.9, rel=1e-6), pytest.approx(2.2, rel=1e-6))


def test_a_scope_lens_is_offered_first_what_wastes_least():
    scope = next(lens.id for _, lens in DEMO.lenses.values() if lens.name == "Longshore 2x 50")
    told = bench_view(DEMO, state(DEMO, lens_id=scope, delivery={"aspect": 2.39}), [])
    used = [round(f["used"], 2) for f in told["suited"]]
    assert used == sorted(used, reverse=True)
    covered = {r["format_id"] for r in told["rows"] if r["mounts"] and r["verdict"] != "short"}
    shares = []
    for row in told["rows"]:
        if row["format_id"] in covered:
            recorded, picture = row["answer"]["recorded_mm"], row["answer"]["picture_mm"]
            shares.append(picture["width"] * picture["height"] / (recorded["width"] * recorded["height"]))
    assert told["suited"][0]["used"] == pytest.approx(max(shares), abs=0.005)
    assert min(shares) < max(shares) - 0.1
