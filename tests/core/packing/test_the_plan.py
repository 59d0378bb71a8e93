"""The plan: Shots, the kit, the Set and the sheets name the same for every shot, or say why not."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import RateSet
from hextan.core.equipment import Pin, ThePlan, ThingName
from hextan.core.finder import FinderAsk, find_formats
from hextan.core.kit import LadderAsk, MatchAsk, MatrixAsk, kit_ladder, kit_match, kit_matrix
from hextan.core.packing import KitPlan, Packing, Watch, packed, plan_of, plan_seen
from hextan.core.packing.answers import DONE
from hextan.core.production import plan_view
from hextan.core.record import planned_of
from hextan.core.sheets import Material, SheetPlan, sheet_of
from hextan.core.sheets.document import Made
from hextan.core.shots import Shot, ShotList, answer_of_shot, shots_view
from hextan.core.shots.edits import applied
from hextan.core.shots.view import answer_with_changes
from tests.budget import DATABASE, examples
from tests.core.packing.test_against_all_kits import NAMES, PACKAGE, PLAIN, SHOTS
from tests.core.sheets.material import SHEETS, demo

BY_KIND = [(kind, name) for (kind, _), name in NAMES.items()]
MADE = "2026-05-01T08:00:00Z"
KIT = KitPlan(name="a")
PACKED = {}


def planned(package, shots, kit=KIT, packing=None, house=PLAIN):
    """A package with the plan by a kit, and the kit's answer."""
    answer = packed(package, house, shots, packing or Packing(), kit, Watch(), around=False).answer
    return replace(package, plan=plan_of(kit, answer, shots, MADE)), answer


def same(choice):
    return (choice["lens"], choice["lens_set"], choice["body"], choice["mode"], choice["format"], choice["adapters"])  # fmt: skip


def in_order(shots, days=("1",)):
    return ShotList(shots=[shot.model_copy(update={"key": f"s{n}", "name": f"{n}", "day": days[n % len(days)],
                                                   "unit": "AB"[n % 3 == 0]}) for n, shot in enumerate(shots)])  # fmt: skip


@settings(max_examples=examples(80), deadline=None, database=DATABASE)
@given(st.lists(SHOTS, min_size=2, max_size=6), st.data())
def test_all_pages_name_the_same_for_every_shot_of_a_random_production(drawn, data):
    shots = in_order(drawn, ("1", "2"))
    if data.draw(st.booleans()):
        best = answer_of_shot(PACKAGE, PLAIN, shots.shots[0])["runner_up"]
        pin = Pin(**{name: best[name] for name in ("body", "mode", "format", "lens", "lens_set", "adapters")})
        shots = ShotList(shots=[shots.shots[0].model_copy(update={"pin": pin}), *shots.shots[1:]])
    package, kit = planned(PACKAGE, shots)
    view = shots_view(package, PLAIN, shots)
    m = Material(name="a", package=package, settings=PLAIN, bench=None, shots=shots)
    lines = [
        row["cells"] for row in sheet_of(m, SheetPlan(kind="shots", pictures=False))["blocks"][0]["rows"]
    ]
    told = {cells[0]["text"]: cells for cells in lines}
    for shot, of_kit, answer in zip(shots.shots, kit["shots"], view["answers"], strict=True):
        if of_kit["choice"] is None:
            # What the kit gives up is told, with what would do it.
            assert answer["plan"]["state"] == "otherwise" and "nothing for it" in answer["plan"]["told"]
            continue
        assert same(answer["best"]) == same(of_kit["choice"])
        assert answer["verdict"] == of_kit["verdict"] and answer["plan"]["state"] == "as_planned"
        on = planned_of(package, PLAIN, shot)["on"]
        assert (on.body, on.mode, on.format, on.lens, on.lens_set) == tuple(
            of_kit["choice"][name] for name in ("body", "mode", "format", "lens", "lens_set")
        )
        assert of_kit["choice"]["lens"] in told[shot.name][4]["text"]
        assert of_kit["choice"]["format"] in told[shot.name][3]["text"]
    lost = {row["key"] for row in kit["shots"] if row["choice"] is None}
    assert {row["key"] for row in plan_seen(package, PLAIN, shots, Packing())["pinned"]} <= lost


@settings(max_examples=examples(60), deadline=None, database=DATABASE)
@given(st.lists(SHOTS, min_size=2, max_size=5), st.lists(SHOTS, min_size=2, max_size=5))
def test_what_is_asked_otherwise_stays_with_what_is_carried_and_its_cures_cure(before, after):
    shots = in_order(before)
    package, _ = planned(PACKAGE, shots)
    has = {(thing.kind, thing.name) for thing in package.plan.things}
    for shot in in_order(after).shots:
        answer = answer_with_changes(package, PLAIN, shot)
        best = answer["best"]
        things = {("lens", best["lens"]), ("body", best["body"]), *(("adapter", a) for a in best["adapters"])}
        outside = sorted(name for kind, name in things if (kind, name) not in has)
        assert sorted(answer["plan"]["not_carried"]) == outside
        if has:
            # Only where nothing of the plan goes together at all there is something else.
            assert not outside
        bare = answer_of_shot(PACKAGE, PLAIN, shot)
        if bare["verdict"] == "does" and answer["verdict"] != "does":
            assert any(change["edits"][0]["kind"] == "bring" for change in answer["changes"])
        for change in answer["changes"]:
            other, changed = applied(package, shot, change["edits"], None)
            again = answer_of_shot(other, PLAIN, changed)
            assert again["verdict"] == "does", (shot, change["text"], again["plan"])


FULL = {"framing": "waist", "distance": "3-5 m"}
ASKED = [FULL, {"framing": "like 50"}, {"speed": "100", "framing": "waist"}]
LIST = ShotList(shots=[Shot(key=f"s{n}", name=f"{n}", **asked) for n, asked in enumerate(ASKED, 1)])


def otherwise(package, *changed):
    return {row["name"]: row["told"] for row in plan_seen(package, PLAIN, ShotList(shots=list(changed)), Packing())["otherwise"]}  # fmt: skip


def test_what_changed_since_is_told_shot_by_shot():
    package, _ = planned(PACKAGE, LIST)
    first, second, third = LIST.shots
    assert otherwise(package, first, second, third) == {}
    # Notes and the order of the day change nothing.
    assert otherwise(package, third, first.model_copy(update={"notes": "early", "day": "9"}), second) == {}
    fresh = Shot(key="new", name="4", **FULL)
    told = otherwise(package, first, second, fresh)
    assert told == {"4": "Not in the plan: it came after it.", "3": "Not in the list of shots any more."}
    gone = replace(package, bodies=package.bodies[:1])
    assert all("is not in the package any more" in words for words in otherwise(gone, *LIST.shots).values())
    assert plan_seen(gone, PLAIN, LIST, Packing())["gone"] == [package.bodies[1].name]


def test_what_the_plan_does_no_more_is_not_called_asked_otherwise():
    fast = LIST.shots[2]
    package, _ = planned(PACKAGE, LIST)
    made = package.plan.shots["s3"].made_with
    # Everything is carried, and the body of the plan records no faster than 60 any more.
    every = [ThingName(kind=kind, name=name) for kind, name in BY_KIND]
    slow = tuple(
        replace(body, modes=tuple(replace(mode, formats=tuple(replace(f, rates=RateSet.parse(["25-60"])) for f in mode.formats)) for mode in body.modes))
        if body.name == made.body else body
        for body in PACKAGE.bodies
    )  # fmt: skip
    less = replace(PACKAGE, bodies=slow, plan=package.plan.model_copy(update={"things": every}))
    told = answer_of_shot(less, PLAIN, fast)["plan"]["told"]
    assert told.startswith(f"The plan does not do it any more: it has {made.lens}") and "100 fps" in told
    other = fast.model_copy(update={"distance": "3-5 m"})
    assert answer_of_shot(less, PLAIN, other)["plan"]["told"].startswith("Asked otherwise since the plan")


def test_what_the_kit_gives_up_is_told_apart_from_what_changed():
    kit = KitPlan(name="small", weight_limit_kg=1.9)
    package, answer = planned(PACKAGE, LIST, kit)
    lost = {row["name"] for row in answer["shots"] if row["verdict"] == "given_up"}
    seen = plan_seen(package, PLAIN, LIST, Packing())
    assert lost and {row["name"] for row in seen["without"]} == lost and seen["otherwise"] == []
    assert all("would do it, and is not carried" in row["told"] for row in seen["without"])


def test_a_pin_that_is_not_the_plans_tells_what_each_costs():
    kit = KitPlan(
        name="Otter", only=[ThingName(kind="body", name="Otter 20"), ThingName(kind="lens", of="Heron")]
    )
    package, _ = planned(PACKAGE, LIST, kit)
    heron = PACKAGE.bodies[0].name
    pin = Pin(body=heron, mode="Full", format="UHD", lens="Prime 50")
    stock = [{"thing": {"kind": "body", "name": heron}, "per_day": 90.0}]
    packing = Packing.model_validate({"currency": "EUR", "stock": stock})
    shots = ShotList(shots=[LIST.shots[0].model_copy(update={"pin": pin}), *LIST.shots[1:]])
    (row,) = plan_seen(package, PLAIN, shots, packing)["pinned"]
    assert row["told"].startswith(f"Pinned to Prime 50 on {heron}, UHD. The plan has ")
    assert f"Not carried: {heron}" in row["told"] and "It adds 3.0 kg, 90 EUR" in row["told"]
    # On the page of shots the same is told.
    assert answer_of_shot(package, PLAIN, shots.shots[0])["plan"]["told"] in row["told"]
    # As long as it is let go of, the shot is as planned again.
    assert answer_of_shot(package, PLAIN, LIST.shots[0])["plan"]["state"] == "as_planned"


def test_a_kit_that_keeps_other_things_now_says_so():
    package, answer = planned(PACKAGE, LIST)
    things = [ThingName(kind=t["kind"], name=t["name"], of=t["of"]) for t in answer["things"]]
    packing = Packing(
        kits=[KIT.model_copy(update={"kept": [*things, ThingName(kind="lens", name="Scope 40", of="Heron")]})]
    )
    assert plan_seen(package, PLAIN, LIST, packing)["kit_now"] == "adds Scope 40"
    assert plan_seen(package, PLAIN, LIST, Packing())["kit_now"] == ""


def test_the_plan_of_the_demo_holds_on_every_page():
    m = demo()
    kit = next(kit for kit in m.packing.kits if kit.name == "River days")
    package, answer = planned(m.package, m.shots, kit, m.packing, m.settings)
    view = shots_view(package, m.settings, m.shots)
    for of_kit, found in zip(answer["shots"], view["answers"], strict=True):
        if of_kit["verdict"] in DONE:
            assert same(found["best"]) == same(of_kit["choice"]), of_kit["name"]
    assert view["in_plan"]["kit"] == "River days"
    used = {
        best["lens"] for found in view["answers"] if (best := found["best"]) and found["verdict"] != "cannot"
    }
    cart = next(bundle for bundle in SHEETS.bundles if bundle.name == "For the cart")
    for kind in ("depth", "lens_by_format", "field"):
        plan = SheetPlan(kind=kind)
        sheet = sheet_of(replace(m, package=package), plan)
        assert {"name": "Of", "text": "what the plan uses: River days, 2026-05-01"} in sheet["stamp"]
        whole = sheet_of(replace(m, package=package), plan.model_copy(update={"everything": True}))
        assert not any(fact["name"] == "Of" for fact in whole["stamp"])
        words = str(sheet["blocks"])
        assert all(name in words for name in used)
        others = {lens.name for _, lens in package.lenses.values()} - used
        assert not any(f"'{name}'" in words for name in others)
    assert cart.sheets


def test_papers_that_are_older_than_the_plan_are_named_with_who_has_them():
    package, _ = planned(PACKAGE, LIST)
    sheets = SHEETS.model_copy(deep=True)
    first, second = sheets.bundles[0].sheets[:2]
    first.made, first.given_to = Made(at="2026-04-30T20:00:00Z", fingerprint="0" * 12), "the loader"
    second.made = Made(at="2026-05-02T20:00:00Z", fingerprint="0" * 12)
    (paper,) = plan_view(package, PLAIN, LIST, Packing(), sheets)["papers"]
    assert (paper["name"], paper["given_to"]) == ("Lens by format", "the loader")


def test_without_a_plan_nothing_is_said_of_one():
    answer = answer_of_shot(PACKAGE, PLAIN, LIST.shots[0])
    assert answer["plan"] is None and shots_view(PACKAGE, PLAIN, LIST)["in_plan"] is None
    seen = plan_seen(PACKAGE, PLAIN, LIST, Packing())
    assert (seen["made_at"], seen["otherwise"], seen["things"]) == (None, [], [])
    with pytest.raises(ValueError, match="needs a name"):
        ThingName(kind="body")


def test_whole_kit_ladder_match_and_finder_begin_with_what_the_plan_carries():
    """Bodies, lenses and adapters of the plan alone; everything where it is widened, or there is no plan."""
    demo_package = demo().package
    kept = [("body", "Skiff 46", ""), ("lens", "", "Wren"), ("lens", "Merrow 50", "Merrow")]
    things = [ThingName(kind=kind, name=name, of=of) for kind, name, of in kept]
    package = replace(demo_package, plan=ThePlan(kit="k", name="Small", made_at=MADE, things=things))
    for ask, view in ((MatrixAsk, kit_matrix), (LadderAsk, kit_ladder), (MatchAsk, kit_match)):
        assert view(package, ask()) == view(demo_package, ask(planned=True)), (
            "without a plan, or widened, it is everything"
        )
    matrix_of_all, matrix = kit_matrix(package, MatrixAsk()), kit_matrix(package, MatrixAsk(planned=True))
    assert {column["body"] for column in matrix["columns"]} == {"Skiff 46"}
    assert {row["set"] for row in matrix["rows"]} == {"Wren", "Merrow"}
    assert [row["name"] for row in matrix["rows"] if row["set"] == "Merrow"] == ["Merrow 50"]
    # No adapter is carried: a lens of another mount does not go on.
    assert all(not way["adapter_ids"] for row in matrix["rows"] for way in row["ways"])
    ladder = kit_ladder(package, LadderAsk(planned=True))
    assert {picture["body"] for picture in ladder["pictures"]} == {"Skiff 46"}
    found = find_formats(package, PLAIN, FinderAsk(planned=True))
    assert {row["body"] for row in found["ranked"]} == {"Skiff 46"}
    assert {row["body"] for row in find_formats(package, PLAIN, FinderAsk())["ranked"]} > {"Skiff 46"}
    # A plan of which no body is here any more, by its name, narrows nothing.
    gone = ThePlan(kit="k", name="Small", made_at=MADE, things=[ThingName(kind="body", name="Renamed since")])
    renamed = replace(demo_package, plan=gone)
    assert find_formats(renamed, PLAIN, FinderAsk(planned=True)) == find_formats(renamed, PLAIN, FinderAsk())
    assert len(kit_matrix(renamed, MatrixAsk(planned=True))["columns"]) == len(matrix_of_all["columns"])
