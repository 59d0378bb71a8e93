"""What a look is worth: the blur by another principle, prices by hand, and steps against every choice there is."""

import math
from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.bench import Scene
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings, ThePlan, ThingName
from hextan.core.packing import Packing
from hextan.core.shots import Shot, ShotList
from hextan.core.worth import WorthAsk, worth_of
from tests.budget import DATABASE, examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import K50, REDUCER, RELAY, W54, kit_package, lens
from tests.core.sheets.material import demo, made

PLAIN = PackageSettings()
CHEST = {"framing": "chest", "distance": "up to 3.2 m", "stop": "T2.8"}


def body(name, kg=2.0, window=(4500, 2532), **more):
    modes = [
        a_mode("Whole", window=list(window), formats=[a_format("UHD", raster=[3840, 2160], rates=["25"])])
    ]
    return parse_body(a_body(modes, name=name, key=name.lower(), weight_kg=kg, **more))


#: Two bodies, of which the second has the larger window, and three lenses.
PACKAGE = kit_package(
    [body("Small"), body("Large", 3.0, (6000, 3376))],
    [lens(i, name=f"Prime {f}", focal_mm=float(f), weight_kg=1.0) for i, f in enumerate((35, 50, 75), 1)],
)


def stock(kind, name, **more):
    return {"key": name.replace(" ", ""), "thing": {"kind": kind, "name": name}} | more


HIRE = [
    stock("body", "Small", owned=True),
    stock("body", "Large", per_day=200, to_buy=9000),
    stock("lens", "Prime 35", owned=True),
    stock("lens", "Prime 50", per_day=30, per_week=90, to_buy=800),
    stock("lens", "Prime 75", to_buy=1200),
]


def worth(rows=HIRE, package=PACKAGE, shot=CHEST, days=4, house=PLAIN, **ask):
    packing = Packing.model_validate({"currency": "EUR", "hire_days": days, "stock": rows})
    asked = WorthAsk.model_validate({"shot": {"name": "1"} | shot} | ask)
    return worth_of(package, kit_package([], []), house, ShotList(), packing, Scene(), asked)


def named(answer):
    """Rows by lens and body."""
    return {(row["choice"]["lens"], row["choice"]["body"]): row for row in answer["rows"]}


@pytest.mark.parametrize("behind", [None, 0.4, 12.0])
def test_a_light_is_as_large_in_the_plane_of_the_subject_as_the_cone_that_the_pupil_sees(behind):
    """Held against the object-field method: a far point covers the entrance pupil's own width in the plane in focus (from memory)."""
    m = demo()
    shot = Shot(name="1", framing="chest", distance="2-4 m", stop="T2.8", look="")
    for look in ("", "2x"):
        asked = WorthAsk(shot=shot.model_copy(update={"look": look}), behind_m=behind, most=400)
        answer = worth_of(m.package, m.package, m.settings, m.shots, m.packing, Scene(), asked)
        plain = [row for row in answer["rows"] if not row["choice"]["adapters"]]
        assert len(plain) > 4
        for row in plain:
            choice = row["choice"]
            glass = m.package.lens_named(choice["lens"], choice["lens_set"])
            t, f = (glass.widest_at(choice["focal_mm"])[k] for k in (1, 0))
            pupil_mm = choice["focal_mm"] / (choice["stop"] * f / t)
            # From the pupil: of a lens as thin as it is long, the pupil stands in its principal plane.
            s = 1000 * choice["distance_m"]
            q = s / choice["focal_mm"]
            magnified = 2 / (q - 2 + math.sqrt(q * (q - 4)))
            z = choice["focal_mm"] * (1 / magnified + 1 / glass.pupil_magnification)
            share = 1.0 if behind is None else 1000 * behind / (z + 1000 * behind)
            assert row["blur_percent"] == pytest.approx(100 * share * pupil_mm / (1000 * choice["field_width_m"]), rel=1e-9)  # fmt: skip


def test_what_is_owned_hired_and_bought_by_hand():
    """Four days: 30 a day are 120, and a week's price of 90 is less; what cannot be hired is bought."""
    rows = named(worth())
    told = {key: (row["have"], row["cost"]) for key, row in rows.items()}
    assert told == {
        ("Prime 35", "Small"): ("own", 0),
        ("Prime 50", "Small"): ("hire", 90),
        ("Prime 75", "Small"): ("buy", 1200),
        ("Prime 35", "Large"): ("hire", 800),
        ("Prime 50", "Large"): ("hire", 890),
        ("Prime 75", "Large"): ("buy", 2000),
    }
    buying = {key: (row["have"], row["cost"]) for key, row in named(worth(pay="buy")).items()}
    assert buying["Prime 50", "Large"] == ("buy", 9800)
    assert buying["Prime 35", "Small"] == ("own", 0)
    silent = worth([row for row in HIRE if row["thing"]["name"] != "Large"])
    assert silent["unpriced"] == ["Large"] and silent["counts"] == {
        "own": 1,
        "hire": 1,
        "buy": 1,
        "unknown": 3,
    }
    assert named(silent)["Prime 75", "Large"]["cost"] is None
    assert all("Large" not in step["told"] for step in silent["steps"])
    assert any("No price is stated of Large" in line for line in silent["told"])


def test_what_the_plan_carries_costs_nothing_more():
    names = [ThingName(kind="body", name="Large"), ThingName(kind="lens", name="Prime 50", of="Heron")]
    planned = replace(PACKAGE, plan=ThePlan(name="a", kit="k", made_at="2026-05-01T08:00:00Z", things=names))
    answer = worth(package=planned)
    rows = named(answer)
    # What is owned and what the plan carries cost the same: the softer of them comes first.
    assert answer["steps"][0]["told"] == "Prime 50 on Large: costs nothing more, the plan carries it."
    assert (rows["Prime 50", "Large"]["have"], rows["Prime 50", "Large"]["cost"]) == ("planned", 0)
    assert (rows["Prime 75", "Large"]["have"], rows["Prime 75", "Large"]["cost"]) == ("buy", 1200)
    assert named(worth(package=planned, planned=False))["Prime 50", "Large"]["cost"] == 890


@pytest.mark.parametrize("behind", [None, 2.0])
def test_steps_tell_what_is_gained_and_why(behind):
    """Of lenses alike the longer focal length alone makes it softer at one stop; of a near light less of it is left from farther away."""
    answer = worth(shot={"framing": "1.2 m wide", "distance": "up to 3.2 m", "stop": "T2.8"}, behind_m=behind)
    first, *more = answer["steps"]
    assert "costs nothing" in first["told"] and (first["more"], first["why"]) == (0, [])
    rows = {row["key"]: row for row in answer["rows"]}
    for before, step in zip(answer["steps"], more, strict=False):
        a, b = rows[before["key"]], rows[step["key"]]
        assert step["more"] == pytest.approx(b["cost"] - a["cost"]) and step["more"] > 0
        assert step["softer_percent"] == pytest.approx(100 * (b["blur_percent"] / a["blur_percent"] - 1))
        product = math.prod(1 + part["percent"] / 100 for part in step["why"])
        # Parts below half a per cent are not told.
        assert product == pytest.approx(1 + step["softer_percent"] / 100, rel=0.015)
        assert step["heavier_percent"] == pytest.approx(100 * (b["weight_kg"] / a["weight_kg"] - 1))
        assert step["each_percent"] == pytest.approx(step["more"] / step["softer_percent"])
    parts = {part["name"]: part["percent"] for part in more[0]["why"]}
    assert parts.keys() == ({"focal length"} if behind is None else {"focal length", "distance"})
    assert parts["focal length"] > 0 > parts.get("distance", -1)
    assert more[0]["viewfinder"]["picture"]["width"] > 0


#: Few amounts, so that many choices cost the same; 0 is owned.
PRICES = st.sampled_from([0, 0, 20, 50, 50, 80, 130, 200, 310, None])
THINGS = 47


@settings(max_examples=examples(100), deadline=None, database=DATABASE)
@given(
    st.lists(PRICES, min_size=THINGS, max_size=THINGS),
    st.sampled_from(["blur", "field", "weight", "price"]),
    st.sampled_from(["soft", "deep"]),
    st.sampled_from(["chest", "full figure", "like 40"]),
)
def test_steps_and_what_beats_what_against_every_choice_there_is(prices, by, look, framing):
    """The definitions, written out once more over all rows that are answered."""
    m = demo()
    things = [(kind, name) for kind, names in (("body", [b.name for b in m.package.bodies]), ("adapter", [a.name for a in m.package.adapters]),
              ("lens", [lens.name for _, lens in m.package.lenses.values()])) for name in dict.fromkeys(names)]  # fmt: skip
    assert len(things) == THINGS
    rows = [stock(kind, name, key=f"t{n}", **({"owned": True} if price == 0 else {"per_day": price}))
            for n, ((kind, name), price) in enumerate(zip(things, prices, strict=True))]  # fmt: skip
    shot = {"framing": framing, "distance": "1-5 m", "stop": "up to T4"}
    answer = worth(rows, m.package, shot, house=m.settings, ranked_by=by, look=look, most=400)
    assert answer["found"] == len(answer["rows"])
    every = answer["rows"]

    def off(row):
        return abs(row["choice"]["percent"])

    def gain(a, b):
        if by == "field":
            return off(a) - off(b)
        if by == "weight":
            return (
                -math.inf
                if None in (a["weight_kg"], b["weight_kg"])
                else 100 * (1 - b["weight_kg"] / a["weight_kg"])
            )
        ratio = b["blur_percent"] / a["blur_percent"]
        return 100 * ((1 / ratio if look == "deep" else ratio) - 1)

    least = {"field": 1.0, "weight": 5.0}.get(by, 10.0)
    byname = {row["key"]: row for row in every}
    steps = [byname[step["key"]] for step in answer["steps"]]
    known = [row for row in every if row["cost"] is not None]
    known = [row for row in known if row["verdict"] != "nearly"] or known
    assert bool(steps) == bool(known)
    if steps:
        assert steps[0]["cost"] == min(row["cost"] for row in known)
        assert all(gain(steps[0], row) <= 1e-6 for row in known if row["cost"] == steps[0]["cost"])
    for a, b in zip(steps, [*steps[1:], None], strict=False):
        between = [row for row in known if a["cost"] < row["cost"] < (math.inf if b is None else b["cost"])]
        assert not [row for row in between if gain(a, row) >= least]
        assert b is None or gain(a, b) >= least
    in_steps = [
        (
            math.log(row["blur_percent"] / 100) / math.log(1.02) * (1 if look == "deep" else -1),
            off(row) / 0.5,
            math.log(row["weight_kg"]) / math.log(1.01),
            row["cost"],
        )
        for row in every
        if None not in (row["cost"], row["weight_kg"])
    ]
    beaten = [row["beaten_by"] != "" for row in every if None not in (row["cost"], row["weight_kg"])]
    rounded = [tuple(round(figure) for figure in figures) for figures in in_steps]
    assert beaten == [
        any(other != mine and all(o <= i for o, i in zip(other, mine, strict=True)) for other in rounded)
        for mine in rounded
    ]
    assert not any(row["beaten_by"] for row in every if None in (row["cost"], row["weight_kg"]))
    order = [{"blur": row["blur_percent"] * (1 if look == "deep" else -1), "field": round(off(row), 1),
              "weight": math.inf if row["weight_kg"] is None else row["weight_kg"],
              "price": math.inf if row["cost"] is None else row["cost"]}[by] for row in every]  # fmt: skip
    assert all(a <= b + 1e-3 * abs(b) for a, b in pairwise(order) if math.isfinite(b))


def test_of_the_formats_of_a_zoom_the_one_with_the_look_that_records_enough_is_taken():
    """From one place the larger window takes the longer setting, and draws softer."""

    def zoomed(small_raster):
        modes = [
            a_mode(
                "Whole", window=[6000, 3376], formats=[a_format("UHD", raster=[3840, 2160], rates=["25"])]
            ),
            a_mode(
                "Small", window=[3000, 1688], formats=[a_format("Cut", raster=small_raster, rates=["25"])]
            ),
        ]
        glass = [lens(1, name="Zoom", focal_mm=20.0, focal_long_mm=120.0)]
        return kit_package([parse_body(a_body(modes, weight_kg=2.0))], glass)

    house = PackageSettings.model_validate(
        {"deliveries": [{"name": "UHD", "aspect": 16 / 9, "long_edge_px": 3840}]}
    )
    cells = CHEST | {"distance": "3 m"}

    def taken(look, raster):
        return worth([], zoomed(raster), cells, house=house, look=look)["rows"][0]["choice"]["format"]

    assert taken("soft", [3840, 2160]) == taken("soft", [2880, 1620]) == "UHD"
    assert taken("deep", [3840, 2160]) == "Cut"
    # Softer or not, fewer pixels than are delivered come last.
    assert taken("deep", [2880, 1620]) == "UHD"


def test_what_only_nearly_frames_is_a_row_and_no_step():
    answer = worth(shot=CHEST | {"distance": "up to 2.6 m"})
    rows = named(answer)
    assert rows["Prime 75", "Small"]["verdict"] == "nearly"
    steps = {step["key"] for step in answer["steps"]}
    assert {row["verdict"] for row in answer["rows"] if row["key"] in steps} == {"does"}


@pytest.mark.parametrize(("f_number", "steps"), [(2.45, 1), (2.3, 2)])
def test_a_gain_that_nobody_would_see_is_no_step(f_number, steps):
    """At one T-stop a lens that loses more light has the wider f-number: 6 % softer is no step, 13 % is one."""
    glass = [
        lens(i, name=name, focal=50.0, t_stop=2.8, f_number=f)
        for i, (name, f) in enumerate((("A", 2.6), ("B", f_number)), 1)
    ]
    rows = [
        stock("body", "Small", owned=True),
        stock("lens", "A", owned=True),
        stock("lens", "B", per_day=10),
    ]
    found = worth(rows, kit_package([body("Small")], glass))["steps"]
    assert len(found) == steps
    told = [(part["name"], round(part["percent"], 1)) for step in found[1:] for part in step["why"]]
    assert told == [("stop", round(100 * (2.6 / f_number - 1), 1))][: steps - 1]


@pytest.mark.parametrize(("distance", "kept"), [("1-2.6 m", ["relay", "reducer"]), ("1-4 m", ["relay"])])
def test_another_adapter_is_told_where_it_frames_nearer_and_not_where_it_gains_nothing(distance, kept):
    glass = [lens(1, name="Prime 75", focal=75.0, image_circle_mm=60.0, weight_kg=1.0)]
    package = kit_package([body("Small", mount="K50")], glass, [RELAY, REDUCER], [W54, K50])
    rows = [stock("adapter", "relay", per_day=10), stock("adapter", "reducer", per_day=45), *HIRE]
    answer = worth(rows, package, CHEST | {"distance": distance})
    assert [row["choice"]["adapters"][0] for row in answer["rows"]] == kept


def test_what_is_not_for_sale_has_no_price_to_buy():
    rows = [row | {"to_buy": None} if row["thing"]["name"] == "Prime 50" else row for row in HIRE]
    assert named(worth(rows, pay="buy"))["Prime 50", "Small"]["have"] == "unknown"


@pytest.mark.parametrize(
    ("shot", "words"),
    [
        ({"stop": "T2"}, "Say what is framed"),
        ({"framing": "chest", "room": "0.3 m"}, "comes nearest"),
        ({"framing": "chst"}, "Not judged: framing"),
        ({"framing": "chest"}, "Nothing says where the camera stands"),
        ({"framing": "chest", "body": "Nobody"}, "Not judged"),
    ],
)
def test_why_there_is_nothing_or_what_is_missing_in_the_question(shot, words):
    assert any(words in line for line in worth(shot=shot)["told"])


def test_a_cell_that_cannot_be_read_is_named():
    answer = worth(shot=CHEST | {"stop": "quick"})
    assert [fault["field"] for fault in answer["faults"]] == ["stop"]


def test_squeezed_lenses_are_another_look():
    squeezed = lens(9, name="Wide 50", focal_mm=50.0, squeeze=2.0, weight_kg=2.0)
    package = kit_package([body("Small")], [*PACKAGE.lens_sets[0].lenses, squeezed])
    answer = worth(package=package)
    assert "Wide 50" not in {row["choice"]["lens"] for row in answer["rows"]}
    assert any("1 choice with squeezed lenses left out" in line for line in answer["told"])
    asked = worth(package=package, shot=CHEST | {"look": "2x"})
    assert {row["choice"]["lens"] for row in asked["rows"]} == {"Wide 50"}


def test_the_sheet_tells_steps_choices_and_how_they_are_ranked():
    sheet = made("worth", which="12B", pay="buy", ranked_by="weight")
    assert sheet["lead"].startswith("Shot 12B: ")
    facts = {fact["name"]: fact["text"] for fact in sheet["stamp"]}
    assert (facts["Ranked by"], facts["Paid for"]) == ("weight", "bought")
    kinds = [block["kind"] for block in sheet["blocks"]]
    assert "table" in kinds
    assert made("worth", which="99")["why_empty"] == "There is no shot 99 any more: choose another."
