"""What differs from the plan, and what that does: held against figures worked out here."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.record.differences import held_against
from hextan.core.record.document import OnCamera
from hextan.core.record.planned import planned_of
from tests.core.record.days import SHOTS, on, planned_on
from tests.core.sheets.material import demo
from tests.core.sheets.test_sheets import thin_lens_limits

M = demo()
FULL_SCOPE, S35 = (6432, 2692), (4352, 2448)
PITCH = 5.82e-3


def held(shot, **change):
    return held_against(M.package, M.settings, SHOTS[shot], on(shot, **change))


def only(shot, **change):
    found = held(shot, **change)["differences"]
    assert len(found) == 1, [d["code"] for d in found]
    return found[0]


def test_what_is_shot_as_planned_differs_in_nothing():
    for name in SHOTS:
        if planned_on(name) is None:
            continue
        found = held(name)
        # A plan may itself stand where its shot does not allow it: then it says so, and nothing else.
        assert {d["code"] for d in found["differences"]} <= {"distance", "keep_out"}, name
        if planned_of(M.package, M.settings, SHOTS[name])["verdict"] == "does":
            assert found["differences"] == [], name
            assert found["told"] == "As planned."


def test_a_stop_is_told_with_its_light_and_its_depth():
    found = only("12B", stop=4.0)
    assert (found["code"], found["planned"], found["used"], found["headline"]) == ("stop", "T2", "T4", "")
    assert found["effects"][0] == "2 stops darker"
    # 65 mm, T to f as the lens states them, sharp to the delivered picture's diagonal over 1500.
    lens = next(lens for _, lens in M.package.lenses.values() if lens.name == "Merrow 65")
    wide = FULL_SCOPE[0] * PITCH
    coc = math.hypot(wide, wide / 2.39) / 1500
    total = []
    for t in (2.0, 4.0):
        near, far = thin_lens_limits(
            65.0, t * lens.f_number / lens.t_stop, coc, 1000 * planned_on("12B").focus_m
        )
        total.append(far - near)
    deeper = float(found["effects"][1].removesuffix(" m deeper"))
    assert deeper == pytest.approx((total[1] - total[0]) / 1000, abs=0.006)


def test_the_crop_that_is_left_on_is_the_loudest():
    found = only("12B", mode="S35 4.3K", format="S35 → 4096 17:9")
    assert found["headline"] == "CROP IS ON, planned off"
    assert found["menu"] == (
        "Menu: Record > Sensor area > Scope Gate. May have come by itself: an adapter that reports a small circle; "
        "user key 2, beside the handle."
    )
    # 17:9 of the S35 window: as wide, 4352 / (4096/2160) high.
    used = 4352 * 4352 * 2160 / 4096 / 1e6
    planned = 6432 * 6432 * 1714 / 4096 / 1e6
    # What is recorded comes first, in pixels; the window after it.
    assert found["effects"][0] == "4096 × 2160, 8.8 MP, instead of 4096 × 1714, 7.0 MP"
    assert found["effects"][1] == f"read from {used:.1f} MP of the sensor instead of {planned:.1f}"
    assert found["effects"][2] == f"still enough for scope: {100 * (4096 / 3840 - 1):.0f} % to spare"
    # Frames like: by width against Super 35, 24.89 mm.
    like = [65 * 24.89 / (photosites * PITCH) for photosites in (4352, 6432)]
    assert found["effects"][3] == f"frames like {like[0]:.3g}, not {like[1]:.3g}"
    back = held_against(
        M.package, M.settings, SHOTS["13C"], on("13C", mode="Full 6.4K", format="Full → 4096 17:9")
    )
    assert back["differences"][0]["headline"] == "CROP IS OFF, planned on"


def test_a_switch_that_does_nothing_here_is_not_shouted():
    loud = only("12B", crops=["Stabiliser, standard"])
    assert loud["headline"] == "STABILISER, STANDARD IS ON, planned off"
    assert (
        loud["effects"][0]
        == f"frames like {65 * 24.89 / (6432 * PITCH) * 1.06:.3g}, not {65 * 24.89 / (6432 * PITCH):.3g}"
    )
    quiet = only("12B", crops=["Stabiliser, strong"])
    assert (quiet["headline"], quiet["effects"]) == ("", ["it does nothing here"])
    off = held("31B", crops=[])["differences"][0]
    assert off["headline"] == "STABILISER, STANDARD IS OFF, planned on"


@pytest.mark.parametrize(
    ("change", "code", "effect"),
    [
        ({"fps": 50.0}, "rate", "played at 25 it runs slower, ×2"),
        ({"fps": 24000 / 1001}, "rate", "0.1 stops brighter at the same angle"),
        ({"ei": 1600}, "ei", "1 stop brighter"),
        ({"ei": 12800}, "ei", "above 6400, which is stated as usable"),
        ({"nd_stops": 2.0}, "nd", "2 stops darker"),
        ({"shutter_deg": 90.0}, "shutter", "1 stop darker"),
        ({"lens": "Merrow 40"}, "lens", "frames like 26.6, not 43.2"),
        ({"focus_m": 2.0}, "distance", "0.50 m nearer than the shot allows"),
    ],
)
def test_each_thing_is_told_by_itself(change, code, effect):
    found = only("12B", **change)
    assert found["code"] == code
    assert effect in found["effects"]


def test_24_is_not_23976_and_a_sixth_of_a_stop_is_the_same():
    assert only("12B", fps=25 * (1 + 3e-4))["code"] == "rate"
    assert held("12B", fps=25 * (1 + 1e-4))["differences"] == []
    assert held("12B", stop=2.0 * 2 ** (0.16 / 2))["differences"] == []
    assert only("12B", stop=2.0 * 2 ** (0.18 / 2))["code"] == "stop"


def test_lamps_on_the_mains_are_told_where_a_shutter_does_not_hold_them():
    assert any("lamps that pulse at 100 Hz" in effect for effect in only("12B", shutter_deg=172.8)["effects"])
    assert not any("pulse" in effect for effect in only("12B", shutter_deg=360.0)["effects"])


def test_what_is_not_said_differs_from_nothing():
    nothing = OnCamera()
    assert held_against(M.package, M.settings, SHOTS["12B"], nothing)["differences"] == []
    assert held_against(M.package, M.settings, None, on("12B", stop=8.0))["told"] == ""


def test_what_is_gone_from_the_package_is_named():
    found = held("12B", lens="Merrow 41", format="Full 9K")
    assert found["gone"] == ["Full 9K of Ebb 64", "Merrow 41"]
    assert [d["code"] for d in found["differences"]] == ["format", "lens"]
    assert found["near_m"] is None


def test_the_keep_out_distance_is_shouted_and_nothing_is_called_safe():
    found = held("15C", focus_m=2.0)["differences"]
    assert found[0]["headline"] == "NEARER THAN THE KEEP-OUT DISTANCE"
    assert "set by safety supervisor" in found[0]["effects"][0]
    assert "no distance is called safe here" in found[0]["effects"][0]


@given(
    stop=st.sampled_from([1.9, 2.0, 2.8, 4.0, 5.6, 11.0]),
    ei=st.sampled_from([200, 800, 1600, 5000]),
    nd=st.sampled_from([0.0, 1.0, 3.0, 6.0]),
    angle=st.sampled_from([45.0, 90.0, 180.0, 360.0]),
    fps=st.sampled_from([12.5, 24.0, 25.0, 50.0]),
)
def test_light_adds_up_however_it_is_changed(stop, ei, nd, angle, fps):
    plan = planned_on("12B")
    total = 2 * math.log2(plan.stop / stop) + math.log2(ei / plan.ei) - (nd - plan.nd_stops)
    total += math.log2(angle / 180.0) - math.log2(fps / 25.0)
    brighter = held("12B", stop=stop, ei=ei, nd_stops=nd, shutter_deg=angle, fps=fps)["brighter_stops"]
    if abs(total) <= 1 / 6:
        assert brighter is None
    else:
        assert brighter == pytest.approx(total, abs=1e-9)
