"""The focus wheel's curves: near and far of the shot in hand, never deeper than they are, by the plan's rule."""

import math
from dataclasses import replace

import numpy as np
import pytest

from hextan.core.base import InvalidInputError
from hextan.core.bench import BenchState, limits_along
from hextan.core.bench.result import compute_bench
from hextan.core.evaluation import BenchDelivery
from hextan.core.evaluation.contract import CocEye, CocFixed, CocPixel
from hextan.core.record.curves import depth_curves, format_curves
from hextan.core.record.day import set_day
from hextan.core.record.differences import held_against
from hextan.core.record.document import Log
from hextan.core.record.figures import found_of
from hextan.core.record.planned import on_by_plan, picture_of, planned_of
from hextan.core.shots import Shot
from tests.core.kits import lens_named
from tests.core.sheets.material import demo

M = demo()
PICTURE = picture_of(M.settings)
#: What people ask for, each against each other: the delivery of a shot is often not the production's.
DELIVERIES = ("", "1080x1920", "3840x2160", "1080x1080", "4096x1716 protect 5%", "1998x1080")
FRAMINGS = ("waist", "1.9 m wide", "face", "6' wide", "as 35 on Super 35 at 3 m", "full figure")
HOLDS = ("", "", "±30 cm", "2.5-4 m", "2 m to infinity")


def read(curves, focus_m, stop):
    """Near and far as the page reads them (web/src/lib/depthCurves.ts): straight lines, and nothing else; 1/m."""
    at, stops = np.array(curves["at"]), curves["stops"]
    x = max(1 / focus_m, at[-1])
    found = []
    for table in (curves["near"], curves["far"]):
        column = [np.interp(-x, -at, row) for row in table]
        found.append(float(np.interp(stop, stops, column)))
    return found


def wheel_of(package, settings, shot):
    """What the page asks for a shot as it is planned, by the names of what is on the camera."""
    on = on_by_plan(package, settings, shot)
    if on is None or on.stop is None or on.focus_m is None:
        return None
    found = found_of(package, on)
    ids = [*(a.id for a in found.adapters), None, None]
    state = BenchState(format_id=found.here.recording.id, lens_id=found.lens.id, adapter_id=ids[0], second_adapter_id=ids[1],
                       focal_mm=on.focal_mm, crop_ids=list(found.crop_ids))  # fmt: skip
    picture = planned_of(package, settings, shot)["picture"]
    return on, depth_curves(package, BenchDelivery(**picture), state)


@pytest.mark.parametrize(
    "coc", [None, CocFixed(rule="fixed", mm=0.019), CocPixel(rule="pixel"), CocEye(rule="eye")]
)
def test_the_wheel_tells_what_the_plan_tells_of_the_shot_in_hand(coc):
    """Random shots, with deliveries, holds and stabilisers of their own: the wheel against the plan's answer, focus pulled too."""
    package = M.package if coc is None else replace(M.package, coc=coc)
    rng, seen = np.random.default_rng(24), 0

    def pick(*of):
        return str(rng.choice(of))

    for number in range(60):
        shot = Shot(key=f"k{number}", name=str(number), framing=pick(*FRAMINGS), distance=pick("", "2-4 m", "2.99 m", "5 m"), deliveries=pick(*DELIVERIES),
                    hold=pick(*HOLDS), stop=pick("", "T4", "T2.8", "T5.6"), picture=pick("", "stabiliser", "not raw"), look=pick("", "2x"))  # fmt: skip
        found = wheel_of(package, M.settings, shot)
        if found is None:
            continue
        on, curves = found
        closest = 1 / curves["at"][0]
        for focus_m in (on.focus_m, on.focus_m * 1.3, max(on.focus_m * 0.8, closest)):
            for stop in {on.stop, min(on.stop * 2**0.25, curves["stops"][-1])}:
                if not (curves["stops"][0] <= stop <= curves["stops"][-1] and closest <= focus_m):
                    continue
                held = held_against(
                    package, M.settings, shot, on.model_copy(update={"focus_m": focus_m, "stop": stop})
                )
                near, far = read(curves, focus_m, stop)
                # A larger reciprocal is nearer: what is read must not lie outside what is exact.
                near_off = 1 / held["near_m"] - near
                exact_far = 0.0 if held["far_m"] is None else 1 / held["far_m"]
                assert -1e-9 <= near_off <= curves["slack"], (shot, focus_m, stop)
                assert (
                    (-1e-9 <= far - exact_far <= curves["slack"]) if exact_far else far <= curves["slack"]
                ), (shot, focus_m)
                seen += 1
    assert seen > 100


def test_the_wheel_of_an_upright_delivery_is_not_that_of_the_productions():
    """1080x1920 out of a wide frame: a picture a third as wide, and so a third of the circle of confusion."""
    upright = Shot(
        key="u", name="u", framing="1.9 m high", distance="2.99 m", stop="T4", deliveries="1080x1920"
    )
    on, curves = wheel_of(M.package, M.settings, upright)
    state = BenchState(
        format_id=found_of(M.package, on).here.recording.id, lens_id=found_of(M.package, on).lens.id
    )
    usual = depth_curves(M.package, PICTURE, state)
    assert curves["coc_mm"] < 0.75 * usual["coc_mm"]
    assert curves["rule"] == usual["rule"] == "picture diagonal / 1500"
    near, far = read(curves, on.focus_m, on.stop)
    wide_near, wide_far = read(usual, on.focus_m, on.stop)
    assert near < wide_near
    assert math.isclose(
        near, 1 / held_against(M.package, M.settings, upright, on)["near_m"], abs_tol=curves["slack"]
    )
    assert far > wide_far


@pytest.mark.parametrize(
    "name",
    ["Merrow 18", "Merrow 65", "Merrow 180", "Reach 19–92", "Dunlin 6", "Bowl 8 fisheye", "Longshore 2x 75"],
)
def test_depth_read_off_the_curves_is_never_deeper_than_it_is_and_hardly_shallower(name):
    """Straight lines between the points, as the page reads them, against the limits computed at each place."""
    state = BenchState(format_id=next(iter(M.package.formats)), lens_id=lens_named(M.package, name))
    curves = depth_curves(M.package, PICTURE, state)
    at = np.array(curves["at"])[::-1]
    rng = np.random.default_rng(7)
    asked = 1 / rng.uniform(at[0], at[-1], 300)
    found = compute_bench(
        M.package, state.model_copy(update={"delivery": PICTURE, "subject_m": 50.0}), format_ids=()
    )
    near, far, _ = limits_along(found, asked, curves["stops"])
    # The slack of the whole is that of the nearest distance at the narrowest stop.
    assert curves["slack"] < 4e-3
    metre = asked > 1.05
    for s in range(len(curves["stops"])):
        read_near = np.interp(1 / asked, at, np.array(curves["near"][s])[::-1])
        read_far = np.interp(1 / asked, at, np.array(curves["far"][s])[::-1])
        off_near, off_far = (
            1000 / near[:, s] - read_near,
            read_far - np.where(np.isinf(far[:, s]), 0.0, 1000 / far[:, s]),
        )
        assert off_near.min() >= -1e-9
        assert off_near.max() <= curves["slack"]
        assert off_near[metre].max() <= 2e-5
        finite = ~np.isinf(far[:, s])
        assert (off_far[finite] >= -1e-9).all()
        assert (off_far[finite] <= curves["slack"]).all()
        assert (read_far[~finite] <= curves["slack"]).all()


def test_between_two_stops_of_the_curves_depth_lies_between_theirs():
    state = BenchState(format_id=next(iter(M.package.formats)), lens_id=lens_named(M.package, "Merrow 65"))
    curves = depth_curves(M.package, PICTURE, state)
    assert len(curves["near"]) == len(curves["far"]) == len(curves["stops"])
    assert all(np.all(np.diff(column) > 0) for column in np.array(curves["near"]).T)
    assert all(np.all(np.diff(column) < 0) for column in np.array(curves["far"]).T)


def test_curves_of_a_format_are_those_of_each_lens_that_goes_on_its_body():
    format_id = next(iter(M.package.formats))
    bodies = set_day(M.package, M.settings, M.shots, Log(items=[]), "1")["bodies"]
    (ebb,) = [b for b in bodies if b["name"] == M.package.formats[format_id].body.name]
    crops = ebb["crop_ids"][:1]
    told = format_curves(M.package, PICTURE, format_id, crops)["lenses"]
    assert [(row["lens_id"], row["adapter_ids"]) for row in told] == [
        (lens["id"], lens["adapter_ids"]) for lens in ebb["lenses"] if lens["stops"]
    ]
    scope = next(lens for lens in ebb["lenses"] if lens["name"] == "Longshore 2x 75")
    (row,) = [row for row in told if row["lens_id"] == scope["id"]]
    first, second = [*scope["adapter_ids"], None, None][:2]
    alone = BenchState(format_id=format_id, lens_id=scope["id"], adapter_id=first, second_adapter_id=second, crop_ids=crops)  # fmt: skip
    assert row["curves"] == depth_curves(M.package, PICTURE, alone)
    with pytest.raises(InvalidInputError, match="is no format of this production"):
        format_curves(M.package, PICTURE, 999_999, [])
