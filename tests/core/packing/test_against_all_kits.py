"""The smallest kit against every kit there is: all sets of things of a small package, each with its figures worked out anew.

What a combination does is read from the shots' judgement cell by cell; changes are counted by dynamic programming over the
day, where the program covers it by runs.
"""

import math
from itertools import combinations, pairwise, permutations, product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents import parse_body
from hextan.core.equipment import LensSet, Mount, MountAdapter, PackageSettings
from hextan.core.packing import KitPlan, Packing, Watch
from hextan.core.packing.choices import choices_of
from hextan.core.packing.document import OBJECTIVES
from hextan.core.packing.smallest import smallest
from hextan.core.packing.things import cost_of
from hextan.core.packing.view import packed
from hextan.core.shots import Shot, ShotList, judge, needs_of
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode, package_of
from tests.core.kits import lens

BODIES = [
    parse_body(a_body([a_mode("Full", formats=[a_format("UHD", rates=["24", "25"])]),
                       a_mode("Small", window=[3000, 1688], formats=[a_format("HD", raster=[1920, 1080], rates=["25-100"])])],
                      eis=[800], base_eis=[800], weight_kg=3.0)),
    parse_body(a_body([a_mode("Half", window=[2400, 1350], row_time_us=4.0, formats=[a_format("2K", raster=[2400, 1350], rates=["25-200"])])],
                      key="other", name="Otter 20", mount="K50", photosites=[2400, 1350], pitch_um=5.0, weight_kg=1.0)),
]  # fmt: skip
GLASS = (
    lens(1, name="Prime 25", focal=25.0, weight_kg=1.1),
    lens(2, name="Prime 35", focal=35.0, weight_kg=0.7, mount="K50"),
    lens(3, name="Prime 50", focal=50.0, weight_kg=0.9),
    lens(4, name="Zoom", focal=24.0, focal_long_mm=70.0, t_stop=4.0, f_number=3.6, weight_kg=3.5, mount="K50"),
    lens(5, name="Scope 40", focal=40.0, squeeze=2.0, weight_kg=2.0, mount="K50"),
)  # fmt: skip
PACKAGE = package_of(
    BODIES,
    lens_sets=(LensSet(1, "Lantern Works", "Heron", GLASS),),
    adapters=(MountAdapter(1, "plain", 1.0, "K50", "W54"), MountAdapter(2, "extender", 1.4, "K50", "W54", 0.9, True)),
    mounts=(Mount("W54", 38.2, 54.0), Mount("K50", 50.4, 46.5)),
)  # fmt: skip
PLAIN = PackageSettings()
NAMES = {
    **{("body", body.id): body.name for body in PACKAGE.bodies},
    **{("lens", each.id): each.name for each in GLASS},
    **{("adapter", each.id): each.name for each in PACKAGE.adapters},
}


BY_NAME = {name: thing for thing, name in NAMES.items()}


def _kg(thing):
    kind, number = thing
    if kind == "body":
        return next(body.weight_kg for body in PACKAGE.bodies if body.id == number)
    return next(each.weight_kg for each in GLASS if each.id == number) if kind == "lens" else 0.0


def ways_of(shot):
    """What does a shot, cell by cell: {things: thousandths missed of the wishes}."""
    judged = judge(PACKAGE, PLAIN, needs_of(shot, PACKAGE, PLAIN))
    found, squeezed = {}, {}
    for k in judged.order:
        i, j = judged.at(k)
        if judged.missed[i, j] > 0:
            continue
        row, here = judged.cells.layout.rows[i], judged.cells.layout.places[j]
        things = {("lens", row.lens.id), ("body", here.body.id)}
        things |= {("adapter", each.id) for each in row.by_body[here.body.id].adapters}
        table = squeezed if row.lens.squeeze != 1 and not shot.look else found
        table.setdefault(frozenset(things), round(1000 * (1 - float(judged.score[i, j]))))
    return found or squeezed


def figures(kit, days, stock):
    """Everything that can be made least, of a kit given as one set of things for each day; None where a shot is lost."""
    whole = frozenset().union(*kit)
    runs = missed = 0
    for has, line in zip(kit, days, strict=True):
        # The fewest changes up to each way of the shot that was looked at last.
        least = None
        for ways in line:
            open_ = [way for way in ways if way <= has]
            if not open_:
                return None
            missed += min(ways[way] for way in open_)
            before = least or {None: 0}
            least = {way: min(n + (was != way) for was, n in before.items()) for way in open_}
        runs += min(least.values()) - 1
    return {
        "lenses": sum(kind == "lens" for kind, _ in whole),
        "weight": sum(map(_kg, whole)),
        "cost": sum(stock[thing] for thing in whole),
        "changes": runs,
        "wishes": missed,
    }


def least_of_all(kits, days, stock, order, slack):
    """The figures of the best kit by an order, with what may be given up of each."""
    left = [told for kit in kits if (told := figures(kit, days, stock)) is not None]
    found = {}
    for by in order:
        found[by] = min(told[by] for told in left)
        more = math.floor(slack) if by in ("lenses", "changes") else found[by] * slack / 100
        left = [told for told in left if told[by] <= found[by] + more + 1e-6]
    return found


def every_kit(shares):
    """All kits: each thing at home, or with some of the units (of those that work at the same time, with one)."""
    things = list(NAMES)
    for owners in product(range(shares + 1), repeat=len(things)):
        yield [
            frozenset(t for t, owner in zip(things, owners, strict=True) if owner == n + 1)
            for n in range(shares)
        ]


SHOTS = st.builds(
    Shot,
    name=st.just("1"),
    framing=st.sampled_from(["waist", "chest", "1.9 m wide", "like 50", "like 35"]),
    distance=st.sampled_from(["", "2-4 m", "3-5 m", "1.5-2.2 m"]),
    speed=st.sampled_from(["", "", "50", "100"]),
    stop=st.sampled_from(["", "", "T4", "T2-T2.8"]),
    look=st.sampled_from(["", "", "2x"]),
    wishes=st.sampled_from([{}, {"stop": 1.0}, {"distance": 2.0}, {"look": 1.0, "framing": 1.0}]),
)


def packing_of(stock, **more):
    rows = [
        {"thing": {"kind": kind, "name": NAMES[kind, number]}, "per_day": price}
        for (kind, number), price in stock.items()
    ]
    return Packing.model_validate({"stock": rows, "hire_days": 3} | more)


def prices(data):
    return {thing: data.draw(st.sampled_from([0.0, 20.0, 35.0, 80.0])) for thing in NAMES}


def in_days(data, shots, days):
    return [shot.model_copy(update={"key": f"s{n}", "name": f"{n}", "day": data.draw(st.sampled_from(days))}) for n, shot in enumerate(shots)]  # fmt: skip


@settings(max_examples=examples(15), deadline=None)
@given(st.data(), st.permutations(OBJECTIVES), st.sampled_from([0.0, 0.0, 1.0, 12.0]))
def test_it_is_the_least_of_all_kits_by_every_order(data, order, slack):
    shots = [shot for shot in data.draw(st.lists(SHOTS, min_size=2, max_size=5)) if ways_of(shot)]
    shots = in_days(data, shots, ["1", "2"])
    if not shots:
        return
    daily = prices(data)
    plan = KitPlan.model_validate({"name": "a", "order": [{"by": by, "slack": slack} for by in order]})
    found = smallest(choices_of(PACKAGE, PLAIN, ShotList(shots=shots), packing_of(daily), plan), Watch())
    days = [[ways_of(shot) for shot in shots if shot.day == day] for day in ("1", "2")]
    days = [line for line in days if line]
    subsets = [frozenset(kit) for n in range(len(NAMES) + 1) for kit in combinations(NAMES, n)]
    kits = [[kit] * len(days) for kit in subsets]
    stock = {thing: 3 * price for thing, price in daily.items()}
    expected = least_of_all(kits, days, stock, order, slack)
    got = {
        by: each.value - (len(days) if by == "changes" else 0)
        for by, each in found.found.items()
        if by != "shots"
    }
    assert got == pytest.approx(expected)
    assert found.proved and not found.given_up


@settings(max_examples=examples(5), deadline=None)
@given(st.data(), st.sampled_from(list(permutations(("lenses", "weight", "changes")))))
def test_two_units_of_one_day_each_have_their_own(data, order):
    shots = [shot for shot in data.draw(st.lists(SHOTS, min_size=2, max_size=4)) if ways_of(shot)]
    shots = [shot.model_copy(update={"key": f"s{n}", "name": f"{n}", "day": "1", "unit": "AB"[n % 2]}) for n, shot in enumerate(shots)]  # fmt: skip
    if len(shots) < 2:
        return
    plan = KitPlan.model_validate({"name": "a", "order": [{"by": by} for by in order]})
    found = smallest(choices_of(PACKAGE, PLAIN, ShotList(shots=shots), Packing(), plan), Watch())
    days = [[ways_of(shot) for shot in shots if shot.unit == unit] for unit in "AB"]
    kits = [kit for kit in every_kit(2) if all(kit)]
    stock = dict.fromkeys(NAMES, 0.0)
    if found.given_up:
        # There is one of each thing: then no two sets of things do all of it.
        assert all(figures(kit, days, stock) is None for kit in kits)
        return
    expected = least_of_all(kits, days, stock, order, 0.0)
    got = {
        by: each.value - (2 if by == "changes" else 0) for by, each in found.found.items() if by != "shots"
    }
    assert got == pytest.approx(expected)
    assert found.shares[1].isdisjoint(found.shares[2])


@settings(max_examples=examples(8), deadline=None)
@given(st.data(), st.floats(2.0, 9.0))
def test_within_a_weight_as_many_shots_as_can_be_are_done(data, limit):
    shots = [shot for shot in data.draw(st.lists(SHOTS, min_size=3, max_size=5)) if ways_of(shot)]
    shots = in_days(data, shots, ["1"])
    plan = KitPlan(name="a", weight_limit_kg=limit)
    whole = choices_of(PACKAGE, PLAIN, ShotList(shots=shots), Packing(), plan)
    found = smallest(whole, Watch())
    subsets = [frozenset(kit) for n in range(len(NAMES) + 1) for kit in combinations(NAMES, n)]
    light = [kit for kit in subsets if sum(map(_kg, kit)) <= limit + 1e-9]
    most = max(sum(any(way <= kit for way in ways_of(shot)) for shot in shots) for kit in light)
    assert len(shots) - len(found.given_up) == most
    assert sum(_kg(BY_NAME[whole.things.every[t].name]) for t in found.kit) <= limit + 1e-9


@settings(max_examples=examples(8), deadline=None)
@given(st.data())
def test_every_shot_is_judged_again_with_nothing_but_the_kit(data):
    shots = in_days(data, data.draw(st.lists(SHOTS, min_size=2, max_size=6)), ["1", "2"])
    answer = packed(PACKAGE, PLAIN, ShotList(shots=shots), Packing(), KitPlan(name="a"), Watch()).answer
    assert answer["disagree"] == []
    done = {shot["key"] for shot in answer["shots"] if shot["verdict"] == "does"}
    assert done == {shot.key for shot in shots if ways_of(shot)}
    # The day changes no more than the kit was found to need.
    changes = next(step["value"] for step in answer["steps"] if step["by"] == "changes")
    assert answer["changes"] == changes


def test_costs_are_the_least_of_all_ways_to_pay():
    """Common practice, no source: by the day, by the week, by weeks and days."""
    stock = Packing.model_validate(
        {"stock": [{"thing": {"kind": "lens", "name": "a"}, "per_day": 50.0, "per_week": 120.0}]}
    ).stock[0]
    assert [cost_of(stock, days) for days in (1, 2, 3, 7, 8, 10)] == [50.0, 100.0, 120.0, 120.0, 170.0, 240.0]


def test_another_adapter_behind_a_lens_is_a_lens_change():
    """The lens comes off its body for it: the days count it as the search does."""
    asked = [
        {},
        {},
        {"stop": "T2-T2.8"},
        {"distance": "1.5-2.2 m"},
        {"framing": "chest", "distance": "1.5-2.2 m"},
    ]
    shots = [
        Shot(key=f"s{n}", name=f"{n}", day="1", **({"framing": "waist"} | more))
        for n, more in enumerate(asked)
    ]
    answer = packed(PACKAGE, PLAIN, ShotList(shots=shots), Packing(), KitPlan(name="a"), Watch()).answer
    made = [shot["choice"]["adapters"] for shot in answer["shots"]]
    apart = sum(a != b for a, b in pairwise(made))
    assert (
        apart == answer["changes"] == next(s["value"] for s in answer["steps"] if s["by"] == "changes") == 2
    )
    assert [("lens" in setup["changed"]) for setup in answer["days"][0]["setups"]].count(True) == 2
