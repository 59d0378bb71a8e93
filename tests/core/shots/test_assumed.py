"""Figures that nobody stated stand in, and no verdict is red for one: it says what it depends on."""

from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents import parse_body
from hextan.core.equipment import F_OF_T, PackageSettings
from hextan.core.light import NdFilter
from hextan.core.packing import KitPlan, Packing, packed
from hextan.core.shots import ShotList, answer_of_shot, shots_view
from hextan.core.shots.document import Shot
from hextan.core.shots.judge import judge
from hextan.core.shots.needs import needs_of
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import kit_package, lens
from tests.core.shots.test_against_one_by_one import PACKAGE, SETTINGS, asked

ASSUMED = {"origins": {"image_circle_mm": {"kind": "assumed"}}}
FEW_FACTS = parse_body(a_body([a_mode(formats=[a_format(rates=["1-120"])])]))
STATED = parse_body(
    a_body(
        [a_mode(formats=[a_format(rates=["1-120"])])], eis=[100, 800, 6400], base_eis=[800], nd_stops=[2.0]
    )
)


def answer(body, glass, filters=(), **shot):
    package = replace(kit_package([body], [glass]), filters=filters)
    return answer_of_shot(package, PackageSettings(), Shot(key="s", name="1", **shot))


def test_daylight_on_a_body_of_few_facts_asks_for_nd_and_is_not_red():
    asked_ = {"framing": "chest", "distance": "1-4 m", "light": "day", "stop": "T2-T2.8"}
    found = answer(FEW_FACTS, lens(1, focal=50.0), **asked_)
    assert found["verdict"] == "depends" and found["best"] is not None
    (told,) = [each for each in found["provided"] if "ND" in each]
    assert told.startswith("with ND ") and "states no EI and no ND" in told
    # What it asks for is enough, and a third of a stop less would not be: checked by judging again with it.
    density = float(told.split("ND ")[1].split(",")[0])
    enough = answer(FEW_FACTS, lens(1, focal=50.0), (NdFilter("ND", density / 0.3),), **asked_)
    assert enough["verdict"] == "does"
    short = answer(STATED, lens(1, focal=50.0), **asked_)
    assert short["verdict"] == "cannot" and "too much light" in short["binds"]


def test_too_little_light_on_a_body_that_states_no_ei_depends_on_it():
    asked_ = {"framing": "chest", "distance": "1-4 m", "light": "2 lux", "stop": "T4"}
    found = answer(FEW_FACTS, lens(1, focal=50.0), **asked_)
    assert found["verdict"] == "depends"
    ei = int(found["provided"][0].split("EI ")[1].split(":")[0])
    body = parse_body(a_body([a_mode(formats=[a_format(rates=["1-120"])])], eis=[800, ei], base_eis=[800]))
    assert answer(body, lens(1, focal=50.0), **asked_)["verdict"] == "does"
    assert answer(STATED, lens(1, focal=50.0), **asked_)["verdict"] == "cannot"


def test_a_circle_that_is_assumed_is_never_red_and_says_what_it_rests_on():
    asked_ = {"framing": "chest", "distance": "1-4 m"}
    small = answer(STATED, lens(1, focal=50.0, image_circle_mm=20.0, **ASSUMED), **asked_)
    assert (
        small["verdict"] == "depends" and "reaches the corners: its circle is assumed" in small["provided"][0]
    )
    assert answer(STATED, lens(1, focal=50.0, image_circle_mm=20.0), **asked_)["verdict"] == "cannot"
    large = answer(STATED, lens(1, focal=50.0, image_circle_mm=50.0, **ASSUMED), **asked_)
    assert large["verdict"] == "does" and "covers as others of its class do" in large["provided"][0]
    assert answer(STATED, lens(1, focal=50.0, image_circle_mm=50.0), **asked_)["provided"] == []
    unknown = answer(STATED, lens(1, focal=50.0, image_circle_mm=None), **asked_)
    assert unknown["verdict"] == "does" and "no image circle is stated" in unknown["provided"][0]


def test_a_close_focus_that_nobody_states_is_told_where_it_may_bind():
    near = answer(STATED, lens(1, focal=50.0, close_focus_m=None), framing="eyes", distance="0.5-0.8 m")
    assert any("no close focus is stated" in told for told in near["provided"])
    far = answer(STATED, lens(1, focal=50.0, close_focus_m=None), framing="full figure", distance="3-9 m")
    assert far["provided"] == []


def test_without_an_f_number_depth_goes_by_one_a_third_of_a_stop_wider():
    """N = T / 2^(1/6): docs/conventions.md; common practice, no source."""
    asked_ = {"framing": "chest", "distance": "1-4 m", "hold": "±20 cm"}
    silent = answer(STATED, lens(1, focal=50.0, f_number=None, t_stop=2.0), **asked_)
    stated = answer(STATED, lens(1, focal=50.0, f_number=2.0 / F_OF_T, t_stop=2.0), **asked_)
    assert silent["best"]["stop"] == stated["best"]["stop"] > 2.0
    assert "no f-number is stated" in silent["provided"][0] and stated["provided"] == []


def test_weights_and_pupils_that_nobody_states_are_told_where_they_count():
    on_gimbal = {"framing": "chest", "distance": "1-4 m", "rig": "gimbal 4.5 kg"}
    silent = answer(STATED, lens(1, name="Prime 50", focal=50.0), **on_gimbal)
    (told,) = silent["provided"]
    assert silent["verdict"] == "does"
    assert told == "body and lens weigh 4.5 kg at most: Prime 50 and Skerry 60 state no weight"
    near = {"framing": "0.06 m wide", "distance": "0.1-1 m", "light": "20000 lux"}
    glass = {"focal": 50.0, "close_focus_m": 0.2, "f_number": 2.0, "t_stop": 2.0}
    close = answer(STATED, lens(1, **glass), **near)
    assert any("no pupil magnification is stated" in each for each in close["provided"])
    stated = answer(STATED, lens(1, **glass, origins={"pupil_magnification": {"kind": "measured"}}), **near)
    assert close["best"]["stop"] == stated["best"]["stop"] and stated["provided"] == []
    assert answer(STATED, lens(1, **glass), framing="chest", light="20000 lux")["provided"] == []


def test_what_is_known_to_do_a_shot_stands_before_what_depends():
    unknown, known = (
        lens(1, name="Unknown", focal=50.0, image_circle_mm=20.0, **ASSUMED),
        lens(2, name="Known", focal=50.0),
    )
    package = kit_package([STATED], [unknown, known])
    shots = ShotList(shots=[Shot(key="s", name="1", framing="chest", distance="1-4 m")])
    view = shots_view(package, PackageSettings(), shots)
    assert view["answers"][0]["best"]["lens"] == "Known" and view["does"] == 1
    alone = kit_package([STATED], [unknown])
    view = shots_view(alone, PackageSettings(), shots)
    assert (view["does"], view["depends"], view["cannot"]) == (0, 1, 0)
    kit = packed(alone, PackageSettings(), shots, Packing(), KitPlan(name="k"), around=False).answer
    assert kit["shots"][0]["verdict"] == "depends" and kit["shots_done"] == 1 and kit["disagree"] == []


@settings(max_examples=examples(100), deadline=None)
@given(st.data())
def test_taking_away_what_is_assumed_never_turns_a_verdict_red(data):
    """Random shots on a package whose circles are assumed: without them nothing is worse, and nothing was red for them."""
    shot, _ = asked(data)
    marked = replace(PACKAGE, lens_sets=tuple(
        replace(each, lenses=tuple(replace(x, assumed=frozenset({"image_circle_mm"}), circle_by=None, circle_rows=(),
                                           image_circle_mm=data.draw(st.sampled_from([5.0, 20.0, 30.0, 60.0])))
                                   for x in each.lenses)) for each in PACKAGE.lens_sets))  # fmt: skip
    bare = replace(
        marked,
        lens_sets=tuple(
            replace(each, lenses=tuple(replace(x, image_circle_mm=None) for x in each.lenses))
            for each in marked.lens_sets
        ),
    )
    before, after = (answer_of_shot(package, SETTINGS, shot)["verdict"] for package in (marked, bare))
    assert (before == "cannot") == (after == "cannot"), (before, after)
    judged = judge(marked, SETTINGS, needs_of(shot, marked, SETTINGS))
    covers = next(check for check in judged.checks if check.name == "covers")
    only = (judged.missed == 1) & ~covers.met & judged.cells.layout.mounts
    assert not only.any() or before != "cannot"


def test_an_ei_that_is_asked_for_and_that_nobody_states_is_told_and_breaks_nothing():
    """Beyond what stands in (100 to 6400) no EI is left: it depends on the body, and is no fault."""
    for light, told in (
        ("200 lux, EI 12800-25600", "at EI 12800 to 25600"),
        ("day, EI 10-50", "at EI 10 to 50"),
    ):
        found = answer(FEW_FACTS, lens(1, focal=50.0), framing="chest", distance="1-4 m", light=light)
        assert found["verdict"] == "depends" and found["provided"][0].startswith(told)
        assert (
            answer(STATED, lens(1, focal=50.0), framing="chest", distance="1-4 m", light=light)["verdict"]
            == "cannot"
        )
