"""Kits: what the trade does with them, and what is told of one."""

import json
import math
import re
from importlib.resources import files
from pathlib import Path

import pytest

from hextan.cli import main
from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings, parse_settings
from hextan.core.packing import KitPlan, Packing, Watch, packed, packing_view, parse_packing, side_by_side
from hextan.core.packing.what_if import WIDER_PERCENT
from hextan.core.shots import Shot, ShotList, parse_shots
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, kit_package, lens

PLAIN = PackageSettings()
DEMO = json.loads(files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8"))
DOCS = Path(__file__).parents[3] / "docs"
#: A body with its whole window and one that is 1.5 times smaller.
BODY = parse_body(a_body([a_mode("Whole", window=[4500, 2532], formats=[a_format("UHD", raster=[3840, 2160], rates=["25"])]),
                          a_mode("Small", window=[3000, 1688], formats=[a_format("3K", raster=[2880, 1620], rates=["25"])])],
                         weight_kg=2.0))  # fmt: skip


def shots_of(*cells, **more):
    return ShotList(
        shots=[Shot(key=f"s{n}", name=str(n), **(more | each)) for n, each in enumerate(cells, 1)]
    )


def kit_of(package, shots, packing=None, plan=None, settings=PLAIN, watch=None, **more):
    plan = plan or KitPlan.model_validate({"name": "a"} | more)
    return packed(package, settings, shots, packing or Packing(), plan, watch or Watch()).answer


def names(answer, kind="lens"):
    return sorted(thing["name"] for thing in answer["things"] if thing["kind"] == kind)


def test_two_lenses_and_a_smaller_window_do_the_work_of_four():
    """Common practice, no source: a 28 and a 55 with a 1.5x window do the work of 28, 42, 55 and 82.5."""
    glass = [lens(i, name=f"Prime {f:g}", focal=f) for i, f in enumerate((28.0, 42.0, 55.0, 82.5), 1)]
    whole = 4500 * BODY.pitch_um / 1000
    wanted = [{"framing": f"like {f * 24.89 / whole:.4f}"} for f in (28.0, 42.0, 55.0, 82.5)]
    answer = kit_of(kit_package([BODY], glass), shots_of(*wanted))
    assert names(answer) == ["Prime 28", "Prime 55"]
    assert (answer["shots_done"], answer["proved"], answer["disagree"]) == (4, True, [])
    made = {shot["name"]: (shot["choice"]["lens"], shot["choice"]["mode"]) for shot in answer["shots"]}
    assert made == {"1": ("Prime 28", "Whole"), "2": ("Prime 28", "Small"), "3": ("Prime 55", "Whole"), "4": ("Prime 55", "Small")}  # fmt: skip


GLASS = [lens(i, name=f"Prime {f}", focal=float(f), weight_kg=1.0) for i, f in enumerate((25, 35, 50), 1)]
PACKAGE = kit_package([BODY], GLASS)
FULL = 4500 * BODY.pitch_um / 1000


def like(focal, **more):
    """What a focal length frames on the whole window."""
    return {"framing": f"like {focal * 24.89 / FULL:.4f}"} | more


def test_what_each_is_there_for_and_what_it_costs_to_leave_it():
    answer = kit_of(PACKAGE, shots_of(like(25), like(50), like(75)))
    told = {thing["name"]: thing for thing in answer["things"]}
    assert names(answer) == ["Prime 25", "Prime 50"]
    assert told["Prime 25"]["alone"] == ["s1"]
    assert told["Prime 50"]["used"] == ["s2", "s3"]
    assert (
        told["Prime 25"]["without"][0]["told"].endswith("like 46.0976: 25 % tighter")
        or "tighter" in told["Prime 25"]["without"][0]["told"]
    )
    assert "nothing else at all does 1" in told["Prime 25"]["told"]
    assert [point["shots"] for point in answer["curve"]] == [2, 3]


def test_a_shot_that_makes_it_big_and_what_it_would_have_to_let_go():
    # 35.9 mm is a 35 to 3 %; to 5 % it is what the small window makes of a 25, which all else is made with.
    answer = kit_of(PACKAGE, shots_of(like(25), like(35.9), like(37.5)))
    whats = {(row["name"], row["change"]): row["lenses"] for row in answer["what_if"]}
    assert answer["lenses"] == 2
    assert whats == {("2", "dropped"): 1, ("2", f"framed up to {WIDER_PERCENT:g} % wider or tighter"): 1}


def test_changes_are_fewest_and_a_better_order_is_found():
    cells = [like(25), like(50), like(25), like(50)]
    answer = kit_of(PACKAGE, shots_of(*cells, day="1", scene="Quay"))
    day = answer["days"][0]
    assert (answer["changes"], day["better_changes"]) == (3, 1)
    assert [setup["minutes"] for setup in day["setups"]] == [0, 4, 4, 4]
    by_name = {f"s{n}": lens["framing"] for n, lens in enumerate(cells, 1)}
    assert len({by_name[key] for key in day["better_order"][:2]}) == 1
    # In scenes of their own they stay where they are.
    apart = kit_of(PACKAGE, ShotList(shots=[Shot(key=f"s{n}", name=str(n), day="1", scene=str(n), **each) for n, each in enumerate(cells)]))  # fmt: skip
    assert apart["days"][0]["better_changes"] is None


def test_a_gimbal_is_balanced_again():
    cells = [
        like(25, rig="gimbal"),
        like(25, rig="gimbal"),
        like(50, rig="gimbal"),
        like(50),
        like(50, rig="gimbal"),
    ]
    answer = kit_of(PACKAGE, shots_of(*cells, day="1"))
    assert [(s["changed"], s["minutes"]) for s in answer["days"][0]["setups"]] == [
        ([], 0), ([], 0), (["lens", "gimbal"], 10), ([], 0), (["gimbal"], 6)]  # fmt: skip


def test_two_units_at_the_same_time_each_need_their_own():
    cells = [like(25, day="1", unit="A"), like(25, day="1", unit="B")]
    alone = kit_of(PACKAGE, shots_of(*cells))
    assert (alone["shots_done"], alone["days"][0]["apart"]) == (1, True)
    lost = next(shot for shot in alone["shots"] if shot["verdict"] == "given_up")
    assert lost["told"].startswith("another unit has it at the same time: ")
    rows = [
        {"thing": {"kind": "body", "name": BODY.name}, "count": 2},
        {"thing": {"kind": "lens", "of": "Heron"}, "count": 2},
    ]
    both = kit_of(PACKAGE, shots_of(*cells), Packing.model_validate({"stock": rows}))
    assert both["shots_done"] == 2
    assert {thing["name"]: thing["count"] for thing in both["things"]} == {BODY.name: 2, "Prime 25": 2}
    # One after the other they share.
    shared = kit_of(PACKAGE, shots_of(*cells), Packing.model_validate({"together_on": []}))
    assert (shared["shots_done"], shared["lenses"]) == (2, 1)


def test_what_comes_later_does_nothing_before():
    rows = [{"thing": {"kind": "lens", "name": "Prime 25", "of": "Heron"}, "from_day": "2"}]
    packing = Packing.model_validate({"stock": rows})
    answer = kit_of(PACKAGE, shots_of(like(25, day="1"), like(25, day="2")), packing)
    assert [shot["verdict"] for shot in answer["shots"]] == ["cannot", "does"]


def test_must_never_only_and_kept():
    shots = shots_of(like(25))
    must = kit_of(PACKAGE, shots, must=[{"kind": "lens", "name": "Prime 50", "of": "Heron"}])
    assert names(must) == ["Prime 25", "Prime 50"]
    assert "must be" in next(thing["told"] for thing in must["things"] if thing["name"] == "Prime 50")
    never = kit_of(PACKAGE, shots, never=[{"kind": "lens", "name": "Prime 25"}])
    assert (never["shots_done"], never["shots"][0]["verdict"]) == (0, "cannot")
    kept = kit_of(PACKAGE, shots, kept=[{"kind": "lens", "name": "Prime 35"}, {"kind": "body", "name": BODY.name}, {"kind": "lens", "name": "Sold 85"}])  # fmt: skip
    assert (names(kept), kept["shots_done"], kept["gone"]) == (["Prime 35"], 0, ["Sold 85"])
    assert "tighter" in kept["shots"][0]["told"]


def test_what_must_be_carried_is_whatever_the_rest_is_chosen_out_of():
    only = [{"kind": "body", "name": BODY.name}, {"kind": "lens", "name": "Prime 25"}]
    answer = kit_of(PACKAGE, shots_of(like(25)), only=only, must=[{"kind": "lens", "name": "Prime 50"}])
    assert names(answer) == ["Prime 25", "Prime 50"]


def test_what_is_given_up_of_a_figure_stands_beside_the_least():
    # The 35 does the first two without a change; the 25 and the 50 do all of them without it.
    shots = shots_of(like(36.3), like(51.2), like(25), like(75), day="1")
    order = [{"by": "lenses", "slack": 1.0}, {"by": "changes"}]
    loose = kit_of(PACKAGE, shots, order=order, framing_percent=5.0)
    assert (loose["lenses"], loose["changes"]) == (3, 2)
    assert [step["told"] for step in loose["steps"][1:]] == ["3 lenses, 2 lenses at least", "2 changes"]
    order = [{"by": "lenses"}, {"by": "changes"}]
    strict = kit_of(PACKAGE, shots, order=order, framing_percent=5.0)
    assert [step["told"] for step in strict["steps"][1:]] == ["2 lenses", "3 changes"]


def test_a_shot_pinned_to_what_does_not_do_it_is_not_done():
    pin = {"body": BODY.name, "mode": "Whole", "format": "UHD", "lens": "Prime 50"}
    answer = kit_of(PACKAGE, shots_of(like(25) | {"pin": pin}, like(50)))
    first = answer["shots"][0]
    assert (first["verdict"], first["choice"]["lens"], answer["shots_done"]) == ("cannot", "Prime 50", 1)
    assert "tighter" in first["told"]


def test_a_weight_that_nothing_keeps_says_so():
    plan = KitPlan.model_validate(
        {"name": "a", "weight_limit_kg": 2.5, "must": [{"kind": "lens", "of": "Heron"}]}
    )
    answer = kit_of(PACKAGE, shots_of(like(25)), plan=plan)
    assert answer["why"].startswith("What must be carried weighs 3.0 kg, and 2.5 kg are allowed")


def test_a_framing_may_be_off_by_more():
    shots = shots_of(like(26.5))
    assert kit_of(PACKAGE, shots)["shots_done"] == 0
    loose = kit_of(PACKAGE, shots, framing_percent=7.0)
    assert (loose["shots_done"], loose["shots"][0]["verdict"], loose["disagree"]) == (1, "nearly", [])


def test_stopped_it_says_what_is_not_proved():
    seen = []
    watch = Watch(stopped=lambda: "fewest lenses" in seen, tell=seen.append)
    answer = kit_of(PACKAGE, shots_of(like(25), like(50)), watch=watch)
    assert (answer["stopped"], answer["proved"], answer["shots_done"]) == (True, False, 2)
    nothing = kit_of(PACKAGE, shots_of(like(25)), watch=Watch(left_s=lambda: 0.0))
    assert nothing["why"] == "" or nothing["stopped"]


def test_rent_what_one_shot_needs_and_what_could_stand_in():
    rows = [
        {"thing": {"kind": "lens", "name": f"Prime {f}"}, "per_day": p, "to_buy": 900.0}
        for f, p in ((25, 10.0), (35, 60.0), (50, 20.0))
    ]
    packing = Packing.model_validate({"stock": rows, "currency": "EUR", "hire_days": 4})
    answer = kit_of(PACKAGE, shots_of(like(36), like(36)), packing)
    rent = {row["name"]: row for row in answer["rent"]}
    assert rent["Prime 35"] | {"instead": ""} == {
        "name": "Prime 35", "kind": "lens", "count": 1, "owned": False, "per_day": 60.0, "cost": 240.0, "to_buy": 900.0,
        "pays_after": 16, "only_for": "", "instead": ""}  # fmt: skip
    assert rent["Prime 35"]["instead"].startswith("Prime 25 saves 200 EUR: 1 nearly: Prime 25 on ")
    assert answer["cost_unknown"] == [BODY.name]


def test_side_by_side_says_whether_the_body_is_the_reason():
    fast = parse_body(a_body([a_mode("Fast", window=[4500, 2532], row_time_us=1.0, formats=[a_format("UHD", raster=[3840, 2160], rates=["25-200"])])],
                             key="fast", name="Otter 20"))  # fmt: skip
    package = kit_package([BODY, fast], GLASS)
    shots = shots_of(like(25), like(25, speed="200"), like(35))

    def of(body, *lenses):
        only = [{"kind": "body", "name": body}, *({"kind": "lens", "name": name} for name in lenses)]
        plan = KitPlan.model_validate({"name": body, "only": only})
        return packed(package, PLAIN, shots, Packing(), plan, around=False)

    sides = side_by_side(of(BODY.name, "Prime 25"), of("Otter 20", "Prime 25", "Prime 35"))
    reasons = {shot["name"]: shot["reason"] for shot in sides["shots"]}
    assert reasons["1"] == ""
    assert reasons["2"] == f"the body: no lens on {BODY.name} does it"
    assert reasons["3"].startswith(f"the lens: Prime 35 on {BODY.name}")
    assert "does 2, 3, which" in sides["told"][0]
    both = next(shot for shot in sides["shots"] if shot["name"] == "1")
    assert (both["stops"], both["pixels"]) == (pytest.approx(0.0), pytest.approx(1.0))


def test_blur_gained_is_that_of_the_wider_stop():
    """A far light is blurred f m / N over the picture's width: thin lens, FORMULAS of docs/conventions.md."""
    fast = [
        lens(1, name="Fast", focal=50.0, f_number=1.4, t_stop=1.4),
        lens(2, name="Slow", focal=50.0, f_number=2.8, t_stop=2.8),
    ]
    package = kit_package([BODY], fast)
    shots = shots_of({"framing": "waist"})

    def of(name):
        plan = KitPlan.model_validate(
            {"name": name, "only": [{"kind": "body", "name": BODY.name}, {"kind": "lens", "name": name}]}
        )
        return packed(package, PLAIN, shots, Packing(), plan, around=False)

    row = side_by_side(of("Slow"), of("Fast"))["shots"][0]
    choice = of("Slow").answer["shots"][0]["choice"]
    mode = next(mode for mode in BODY.modes if mode.name == choice["mode"])
    m = mode.window[0] * BODY.pitch_um / 1000 / (1000 * choice["field_width_m"])
    width = mode.window[0] * BODY.pitch_um / 1000
    blur = [100 * 50.0 * m / n / width for n in (2.8, 1.4)]
    assert row["stops"] == pytest.approx(2.0)
    assert row["blur_percent"] == pytest.approx(blur[1] - blur[0], rel=0.02)


def test_the_demo_has_a_kit_that_is_proved():
    package, settings = demo_package(), parse_settings(DEMO["settings"])
    shots, packing = (
        parse_shots({"schema": "hextan.shots", "shots": DEMO["shots"]}),
        parse_packing(DEMO["packing"]),
    )
    answer = packed(package, settings, shots, packing, packing.kits[0], around=False).answer
    assert (answer["proved"], answer["disagree"], answer["gone"]) == (True, [], [])
    assert answer["shots_asked"] == 40
    apart = {day["day"] for day in answer["days"] if day["apart"]}
    assert apart == {"3"}


def test_what_there_is_to_pack():
    rows = [
        {"key": "a", "thing": {"kind": "lens", "of": "Heron"}, "per_day": 5.0},
        {"key": "b", "thing": {"kind": "body", "name": "Sold"}},
    ]
    seen = packing_view(
        PACKAGE,
        Packing.model_validate({"stock": rows}),
        shots_of(like(25, day="2", unit="A"), like(25, day="10")),
    )
    assert [(thing["name"], thing["cost"], thing["stated"]) for thing in seen["things"]][:2] == [
        (BODY.name, None, False),
        ("Prime 25", 10.0, True),
    ]
    assert (seen["days"], seen["units_on"], seen["hire_days"], seen["gone"]) == (
        ["2", "10"],
        {"2": ["A"], "10": [""]},
        2,
        ["b"],
    )


@pytest.mark.parametrize(
    ("change", "field"),
    [({"kits": [{"name": "a", "order": [{"by": "lenses"}, {"by": "lenses"}]}]}, "kits[0]"),
     ({"kits": [{"name": "a", "framing_percent": 40.0}]}, "kits[0].framing_percent"),
     ({"stock": [{"thing": {"kind": "body"}}]}, "stock[0].thing"),
     ({"stock": [{"thing": {"kind": "body", "name": "a"}}, {"thing": {"kind": "body", "name": "a"}}]}, "request"),
     ({"stock": [{"thing": {"kind": "lens", "of": "a"}, "per_day": -1.0}]}, "stock[0].per_day")],
)  # fmt: skip
def test_what_cannot_be_packed_is_told_with_its_place(change, field):
    with pytest.raises(InvalidInputError) as error:
        parse_packing(change)
    assert error.value.faults[0].field == field


def test_the_documented_objectives_are_those_of_the_document():
    text = (DOCS / "packing.md").read_text()
    assert re.findall(r"^\| (\w[\w ]+) \| ", text, re.MULTILINE)[1:] == [
        "fewest lenses", "fewest changes", "least weight", "least cost", "nearest to the wishes"]  # fmt: skip


def test_a_kit_without_a_server(capfd):
    file = str(DOCS / "examples" / "plan.hextan.json")
    assert main(["plan", file, "--kit"]) == 0
    kit = json.loads(capfd.readouterr().out)["kit"]
    assert (kit["name"], kit["proved"], kit["lenses"]) == ("Smallest kit", True, 1)
    assert main(["plan", file, "--packages", "Own camera + 25,Own camera + Primes"]) == 0
    sides = json.loads(capfd.readouterr().out)["packages"]
    assert (sides["first"], sides["second"]) == ("Own camera + 25", "Own camera + Primes")
    for wrong in (["--kit", "Other"], ["--packages", "Own camera"], ["--packages", "Own camera,Nothing"]):
        assert main(["plan", file, *wrong]) == 2
        assert "hextan: " in capfd.readouterr().err
    assert math.isfinite(kit["weight_kg"])
