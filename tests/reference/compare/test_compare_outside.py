"""The three cases against the handbook's table, and the matching solver against exhaustive search."""

import itertools
import math
import random
from dataclasses import replace
from types import SimpleNamespace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq

from hextan.core.base import HextanError, InvalidInputError
from hextan.core.compare.camera_match import (
    COSTS,
    _nearest,
    candidates,
    exact_f_number,
    exact_focal_mm,
    match_camera,
    match_light,
)
from hextan.core.compare.cases import BLUR_PARTS, DEPTH_PARTS, Optics, in_case, shares
from hextan.core.compare.comparison import Column, Comparison, parse_comparison
from hextan.core.compare.setups import in_its_case, setup_of, size_of
from hextan.core.compare.view import compare_view
from hextan.core.equipment import LensSet, PairNote, ways
from hextan.core.evaluation import BenchDelivery, BenchReference
from hextan.core.light import Means, NdChoice, Settings
from tests.budget import examples
from tests.core.kits import demo_package

PACKAGE = demo_package()
FORMATS = {(h.body.name, h.recording.name): key for key, h in PACKAGE.formats.items()}
LENSES = {lens.name: key for key, (_, lens) in PACKAGE.lenses.items()}
ADAPTERS = {a.name: a.id for a in PACKAGE.adapters}
#: FORMULAS: 36x24 against 24x16, 50 mm, N 2.8, 3000 from the lens; the sensor stands an image distance behind it.
M = 50 / 2950
D = 50 * (1 + M) ** 2 / M
CASE_NAMES = ("same_place", "moved", "other_lens")


def pair(coc_big, coc_small):
    big = Optics(50.0, D, 2.8, coc_big, 36.0, 36.0)
    return big, Optics(50.0, D, 2.8, coc_small, 24.0, 24.0)


@pytest.mark.parametrize(
    ("cocs", "depths"),
    [
        ((math.hypot(36, 24) / 1500, math.hypot(24, 16) / 1500), (577.1, 382.8, 860.8, 870.5)),
        ((0.025, 0.025), (499.0, 499.0, 1126.2, 1148.1)),
    ],
)
def test_the_published_table(cocs, depths):
    """The other lens there keeps 3000 from the lens; here it keeps the sensor's place, which differs by 0.1 %."""
    big, small = pair(*cocs)
    assert big.total_depth_mm == pytest.approx(depths[0], abs=0.06)
    for case, expected, near in zip(CASE_NAMES, depths[1:], (2e-4, 2e-4, 2e-2), strict=True):
        assert in_case(case, big, small).total_depth_mm == pytest.approx(expected, rel=near)
    assert in_case("other_lens", big, small).focal_mm == pytest.approx(33.52, rel=0.01)
    s = in_case("moved", big, small)
    assert s.focal_mm * (1 + 1 / s.magnification) == pytest.approx(4475, abs=1)
    # From the lens, exactly as in the table: f' = s*m'/(1+m'), m' = m/C.
    m = M * 24 / 36
    focal = 3000 * m / (1 + m)
    assert focal == pytest.approx(33.52, abs=0.005)
    exact = replace(small, focal_mm=focal, distance_mm=focal * (1 + m) ** 2 / m)
    assert exact.total_depth_mm == pytest.approx(depths[3], abs=0.06)


def test_perspective_in_the_three_cases():
    """0.500, 0.500, 0.599, 0.500 for a background 3 m behind: s/(s+d) from the camera's place alone."""
    big, small = pair(0.025, 0.025)
    for case, expected in zip(CASE_NAMES, (0.5, 0.599, 0.5), strict=True):
        there = in_case(case, big, small)
        s = there.focal_mm * (1 + 1 / there.magnification)
        assert s / (s + 3000) == pytest.approx(expected, abs=3e-3)


optics = st.builds(
    Optics, st.floats(14, 150), st.floats(800, 20_000), st.floats(1, 16), st.floats(0.005, 0.04), st.floats(8, 54),
    st.floats(8, 54), st.floats(0.6, 1.6),
)  # fmt: skip


@settings(max_examples=examples(150), deadline=None)
@given(optics, optics)
def test_parts_multiply_to_the_whole(one, two):
    for measure, parts in ((lambda o: o.depth_dioptres, DEPTH_PARTS), (lambda o: o.blur_share, BLUR_PARTS)):
        found = shares(one, two, measure, parts)
        assert [s.part for s in found] == list(parts)
        assert math.prod(s.factor for s in found) == pytest.approx(measure(two) / measure(one), rel=1e-9)


@settings(max_examples=examples(100), deadline=None)
@given(optics, optics)
def test_each_case_keeps_what_it_promises(one, two):
    for case in CASE_NAMES:
        if case != "same_place" and one.magnification * two.size_mm / one.size_mm >= 0.99:
            continue
        there = in_case(case, one, two)
        assert there.f_number == one.f_number
        assert (there.coc_mm, there.size_mm) == (two.coc_mm, two.size_mm)
        if case == "same_place":
            assert (there.focal_mm, there.distance_mm) == (one.focal_mm, one.distance_mm)
        else:
            assert there.field_mm == pytest.approx(one.field_mm, rel=1e-9)
        if case == "moved":
            assert there.focal_mm == one.focal_mm
            # The background's disc keeps its share of the picture: m, N and the width go together.
            size = (
                replace(there, width_mm=two.size_mm).blur_share
                / replace(one, width_mm=one.size_mm).blur_share
            )
            assert size == pytest.approx(1.0, rel=1e-9)


@settings(max_examples=examples(100), deadline=None)
@given(optics)
def test_exact_stop_by_root_finding(o):
    """The f-number whose depth is the wanted one, found by SciPy's root-finding."""
    wanted = o.depth_dioptres
    found = exact_f_number(wanted, o.focal_mm, o.distance_mm, o.coc_mm, o.pupil_magnification)
    root = brentq(lambda n: replace(o, f_number=n).depth_dioptres - wanted, 0.1, 100)
    assert found == pytest.approx(root, rel=1e-9)
    again = exact_focal_mm(o.field_mm, o.size_mm, o.distance_mm)
    assert again == pytest.approx(o.focal_mm, rel=1e-9)


def column(key, body, recording, lens, **more):
    return Column(key=key, format_id=FORMATS[body, recording], lens_id=LENSES[lens], **more)


def comparison(*columns, **more):
    return Comparison(columns=list(columns), **more)


A = column("a", "Ebb 64", "Full → UHD", "Merrow 50", stop=4.0, subject_m=3.2, ei=800)
B = column("b", "Ebb 64", "S35 → UHD", "Merrow 35", stop=2.8, subject_m=2.0, ei=800)
SKIFF = column("c", "Skiff 46", next(r for b, r in FORMATS if b == "Skiff 46"), "Wren 32", subject_m=3.2)


def light_cost(first, tried):
    """The documented cost of the best EI and ND, by trying every pair of them."""
    body, target = tried.found.chosen.body, first.settings.off_stops
    now = tried.settings
    rows = []
    for ei in tried.exposing.means.eis:
        for nd in tried.exposing.means.nds:
            off = round(replace(now, ei=ei, nd_stops=nd.stops).off_stops - target, 2)
            cost = 3 * abs(off) + 0.05 * len(nd.parts)
            cost += 0.3 * min(abs(math.log2(ei / n)) for n in body.base_eis)
            together = ei > now.ei and nd.stops > now.nd_stops
            cost += 1.5 * together + 2 * (body.highest_ei is not None and ei > body.highest_ei)
            rows.append((cost, off, together, len(nd.parts)))
    if any(abs(off) <= 1 / 3 + 0.005 and not together and not parts for _, off, together, parts in rows):
        rows = [row for row in rows if not row[2]]
    return min(rows)[0]


@pytest.mark.parametrize("other", [B, SKIFF, SKIFF.model_copy(update={"stop": 16.0, "fps": 100.0})])
@pytest.mark.parametrize("one", [A, A.model_copy(update={"stop": 11.0, "subject_m": 8.0})])
def test_the_nearest_match_against_exhaustive_search(one, other):
    """Every lens, way, marked stop, EI and ND of the kit by brute force: none costs less than what was found."""
    asked = comparison(one, other)
    first = setup_of(PACKAGE, asked, one)
    there = other.model_copy(update={"subject_m": one.subject_m})
    body = PACKAGE.formats[other.format_id].body
    best = min(candidates(PACKAGE, asked, first, there), key=lambda c: c.cost)
    least = math.inf
    for _, lens in PACKAGE.lenses.values():
        if lens.projection != "rectilinear":
            continue
        for way in ways(PACKAGE.rig, lens, body):
            if way.reasons:
                continue
            try:
                each = _nearest(PACKAGE, asked, first, there, lens, way)
            except HextanError:
                continue
            tried = each.setup
            cost = (
                abs(each.width_percent)
                + COSTS["depth_stop"] * abs(each.depth_stops)
                + light_cost(first, tried)
                + COSTS["short_circle"] * (each.covers == "short")
                + COSTS["adapter"] * len(way.adapters)
                + COSTS["other_squeeze"] * (lens.squeeze != first.found.setting.lens.squeeze)
            )
            assert each.cost == pytest.approx(cost)
            for stop in tried.exposing.means.stops:
                assert abs(each.depth_stops) <= abs(2 * math.log2(stop / each.exact_stop)) + 1e-9
            least = min(least, cost)
    assert best.cost == pytest.approx(least)


def a_random_set_up(rng, key):
    """A lens that goes on a body of the demo, in a way that it goes; close focus and coverage are left to chance."""
    while True:
        place = rng.choice(list(PACKAGE.formats))
        _, lens = rng.choice(list(PACKAGE.lenses.values()))
        found = [w for w in ways(PACKAGE.rig, lens, PACKAGE.formats[place].body) if not w.reasons]
        if lens.projection == "rectilinear" and found:
            ids = [*rng.choice(found).key, None, None]
            return A.model_copy(update={
                "key": key, "format_id": place, "lens_id": lens.id, "adapter_id": ids[0], "second_adapter_id": ids[1],
                "focal_mm": None, "stop": rng.choice([2.8, 4.0, 5.6, 8.0]), "subject_m": rng.uniform(1.5, 9), "fps": 24.0,
            })  # fmt: skip


@pytest.mark.parametrize("seed", range(12))
def test_random_set_ups_against_exhaustive_search(seed):
    rng = random.Random(seed)
    test_the_nearest_match_against_exhaustive_search(
        a_random_set_up(rng, "one"), a_random_set_up(rng, "other")
    )


def test_a_bare_ei_beats_an_ei_that_nd_takes_back():
    """EI 20000 with four stops of ND shaves a sixth of a stop off, and is a bad answer."""
    asked = comparison(A, B)
    first = setup_of(PACKAGE, asked, A)
    for candidate in candidates(PACKAGE, asked, first, B.model_copy(update={"subject_m": A.subject_m})):
        light, means = candidate.light, candidate.setup.exposing.means
        bare = min(
            abs(replace(candidate.setup.settings, ei=ei, nd_stops=0.0).off_stops - first.settings.off_stops)
            for ei in means.eis
        )
        if bare <= 1 / 3:
            assert not (light.settings.ei > candidate.setup.settings.ei and light.settings.nd_stops > 0)


def test_what_ei_and_nd_cannot_bring_together_is_not_cured_by_light():
    """A far darker than B can be: B's stop, shutter, a finer ND or A's stop are offered, and no change of the light."""
    dark = A.model_copy(update={"ei": 200, "shutter_deg": 11.25, "stop": 16.0, "nd_stops": 6.0})
    told = match_camera(PACKAGE, comparison(dark, SKIFF.model_copy(update={"fps": 1.0})), 1)
    text = " ".join(told["advice"])
    assert "change the light" not in text
    assert "EI and ND leave it" in text
    assert any(cure in text for cure in ("stop at", "its shutter at", "an ND of"))


def test_a_match_says_what_is_left_over():
    asked = comparison(A, B)
    told = match_camera(PACKAGE, asked, 1)
    first = setup_of(PACKAGE, asked, A)
    for option in told["options"]:
        set_so = setup_of(PACKAGE, asked, Column.model_validate(option["column"]))
        field = set_so.optics.field_mm / first.optics.field_mm
        assert 100 * (field - 1) == pytest.approx(option["width_percent"], abs=1e-6)
        off = set_so.settings.off_stops - first.settings.off_stops
        assert off == pytest.approx(option["exposure_stops"], abs=1e-6)
        # Depth goes with the f-number, near enough for a third of a stop.
        ratio = set_so.optics.depth_dioptres / first.optics.depth_dioptres
        assert 2 * math.log2(ratio) == pytest.approx(option["depth_stops"], abs=0.01)
    exact = told["exact"]
    big, small = first.optics, setup_of(PACKAGE, asked, B).optics
    assert exact["focal_mm"] == pytest.approx(in_case("other_lens", big, small).focal_mm)
    # FORMULAS: the same entrance pupil gives the same limits, N' = f'*N/f, when c scales with the picture.
    assert exact["f_number"] == pytest.approx(exact["focal_mm"] * big.f_number / big.focal_mm, rel=0.02)


def test_an_aperture_that_does_not_exist_is_told():
    wide_open = A.model_copy(update={"stop": 1.9})
    skiff = match_camera(PACKAGE, comparison(wide_open, SKIFF), 1)
    assert any("There is no such aperture" in text for text in skiff["advice"])
    assert all(option["depth_stops"] > -0.4 for option in skiff["options"])


def test_any_set_up_can_be_the_master():
    """With B as the master everything is as in a comparison where B stands first."""
    turned = compare_view(PACKAGE, comparison(B, A))
    view = compare_view(PACKAGE, comparison(A, B).model_copy(update={"master": B.key}))
    assert view["master"] == 1 and view["summary"][1] is None and view["why"][1] is None
    assert view["summary"][0] == turned["summary"][1]
    assert view["why"][0] == turned["why"][1]
    for mine, theirs in zip(view["rows"], turned["rows"], strict=True):
        assert mine["values"] == theirs["values"][::-1], mine["key"]
        assert mine["differs"] == theirs["differs"][::-1], mine["key"]
    assert any(row["label"] == "Light gathered, against B" for row in view["rows"])
    for case in ("same_place", "moved", "other_lens"):
        cased = comparison(A, B, case=case).model_copy(update={"master": B.key})
        assert [column["virtual"] for column in compare_view(PACKAGE, cased)["columns"]] == [True, False]
    held = match_camera(PACKAGE, comparison(A, B).model_copy(update={"master": B.key}), 0)
    assert held["exact"] == match_camera(PACKAGE, comparison(B, A), 1)["exact"]
    with pytest.raises(InvalidInputError, match="other than B"):
        match_camera(PACKAGE, comparison(A, B).model_copy(update={"master": B.key}), 1)
    with pytest.raises(InvalidInputError, match="none of the set-ups"):
        parse_comparison(comparison(A, B).model_dump(mode="json", by_alias=True) | {"master": "gone"})


@pytest.mark.parametrize("within", [0.5, 3.0, 10.0, 60.0])
def test_no_match_is_offered_outside_the_tolerance(within):
    """Nothing that is off by more is offered; where nothing is within, the nearest is named and how far it is off."""
    for one, other in ((A, B), (A, SKIFF), (SKIFF, A)):
        told = match_camera(PACKAGE, comparison(one, other).model_copy(update={"within_percent": within}), 1)
        assert all(abs(option["width_percent"]) <= within + 1e-6 for option in told["options"])
        none = [text for text in told["advice"] if text.startswith("No lens of the kit comes within")]
        assert bool(none) == (not told["options"]), (within, told["advice"])


def test_what_is_known_of_a_pair_and_needed_by_a_format_stands_beside_it():
    lens = PACKAGE.lenses[B.lens_id][1].name
    here = PACKAGE.formats[B.format_id]
    noted = replace(PACKAGE, pair_notes=(PairNote(lens, here.body.name, "support it"),))
    view = compare_view(noted, comparison(A, B))
    assert "support it." in view["columns"][1]["notes"]
    assert all(
        "support it." not in column["notes"] for column in view["columns"][:1] if A.lens_id != B.lens_id
    )


def test_a_comparison_of_the_demo():
    view = compare_view(PACKAGE, comparison(A, B, case="same_place"))
    assert view["summary"][1]["matches"][0] == "perspective"
    rows = {row["key"]: row for row in view["rows"]}
    assert rows["distance"]["values"] == [3.2, 3.2]
    crop = rows["field_w"]["values"][0] / rows["field_w"]["values"][1]
    # FORMULAS: cropping changes the light gathered by 2*log2(C), and the exposure by nothing.
    assert rows["gathered"]["values"][1] == pytest.approx(-2 * math.log2(crop), abs=1e-6)
    assert rows["at_sensor"]["values"][1] == pytest.approx(0, abs=1e-9)
    moved = compare_view(PACKAGE, comparison(A, B, case="moved"))
    assert {"field", "blur"} <= set(moved["summary"][1]["matches"])
    assert "perspective" in moved["summary"][1]["differs"]
    lens = compare_view(PACKAGE, comparison(A, B, case="other_lens"))
    assert {"field", "perspective"} <= set(lens["summary"][1]["matches"])
    assert lens["columns"][1]["virtual"] is True


def test_the_bigger_sensor_under_every_rule():
    """The table's answers: same lens and place gives the bigger more under the diagonal, the same under a fixed value;
    with the same framing it gives less in both."""
    rules = compare_view(PACKAGE, comparison(A, B))["rules"]
    answers = {row["rule"]: [cell["answer"] for cell in row["cells"]] for row in rules["rows"]}
    assert answers["picture diagonal / 1500"] == ["more", "less", "less"]
    assert answers["fixed 0.025 mm"] == ["same", "less", "less"]
    assert rules["bigger"] == "Full → UHD, Ebb 64"


def test_things_stay_where_they_are_when_the_camera_moves():
    view = compare_view(PACKAGE, comparison(A, B, case="moved"))
    one, two = ({o["key"]: o["distance_m"] for o in c["viewfinder"]["objects"]} for c in view["columns"])
    moved = two["subject"] - one["subject"]
    assert moved > 1
    for key, at in one.items():
        assert two[key] - at == pytest.approx(moved)


SQUEEZES = (1.0, 1.33, 1.5, 1.8, 2.0)


def squeezed_kit():
    """The demo's bodies with a lens of every squeeze that goes on them."""
    from dataclasses import replace as changed

    wren = PACKAGE.lenses[LENSES["Wren 40"]][1]
    lenses = tuple(changed(wren, id=900 + i, name=f"{s:g}x", squeeze=s) for i, s in enumerate(SQUEEZES))
    return changed(PACKAGE, lens_sets=(LensSet(90, "Lantern Works", "Squeezed", lenses),))


@pytest.mark.parametrize("delivery", [None, 2.39, 1.85])
@pytest.mark.parametrize("by", ["width", "height", "diagonal"])
def test_fields_agree_for_every_pair_of_squeezes(by, delivery):
    """In a case the other format is laid out behind the first lens, whatever lens its own column has."""
    kit = squeezed_kit()
    ids = [(b, f) for b, f in FORMATS if b == "Skiff 46"]
    here, there = FORMATS[ids[0]], FORMATS[ids[-1]]
    for one, two in itertools.product(range(len(SQUEEZES)), repeat=2):
        a = Column(key="a", format_id=here, lens_id=900 + one, subject_m=3.0, stop=4.0)
        b = Column(key="b", format_id=there, lens_id=900 + two, subject_m=3.0, stop=4.0)
        asked = comparison(a, b, reference=BenchReference(by=by), delivery=BenchDelivery(aspect=delivery))
        first, other = setup_of(kit, asked, a), setup_of(kit, asked, b)
        for case in ("moved", "other_lens"):
            there_so = in_its_case(kit, asked, case, first, other)
            assert there_so.optics.field_mm == pytest.approx(first.optics.field_mm, rel=1e-9)
            assert there_so.found.setting.lens.squeeze == SQUEEZES[one]
            traced = there_so.found.evaluation.traced
            field = size_of(float(traced.field_w_mm[0]), float(traced.field_h_mm[0]), by)
            assert field == pytest.approx(first.optics.field_mm, rel=1e-9)


def test_the_rule_table_does_not_go_by_the_other_columns_lens():
    """A squeezed lens in B's column changes nothing: in the cases A's lens stands before B's format."""
    kit = squeezed_kit()
    names = {r: FORMATS[b, r] for b, r in FORMATS if b == "Skiff 46"}
    first, *_, last = names.values()
    a = Column(key="a", format_id=first, lens_id=900, subject_m=3.0, stop=4.0)
    plain, squeezed = (
        Column(key="b", format_id=last, lens_id=lens, subject_m=3.0, stop=4.0) for lens in (900, 904)
    )
    one, two = (compare_view(kit, comparison(a, b))["rules"]["rows"] for b in (plain, squeezed))
    assert [[c and c["ratio"] for c in row["cells"]] for row in one] == [
        [c and pytest.approx(c["ratio"]) for c in row["cells"]] for row in two
    ]


def test_an_ei_that_nd_takes_back_is_left_out_where_a_bare_one_is_near():
    """Native 800, set to 100: EI 800 with an ND would be exact and cost less; EI 100 alone is off by a third, and stays."""
    settings_now = Settings(t_stop=2.8, time_s=0.02, ei=100, nd_stops=0.0, lux=100.0)
    nds = [NdChoice(0.0, ()), NdChoice(3 - 0.33, ("ND",))]
    means = Means(stops=[2.8], eis=[100, 800], base_eis=[800], nds=nds, times_s=[0.02])
    chosen = SimpleNamespace(body=SimpleNamespace(highest_ei=None))
    other = SimpleNamespace(
        settings=settings_now, exposing=SimpleNamespace(means=means), found=SimpleNamespace(chosen=chosen)
    )
    first = SimpleNamespace(settings=replace(settings_now, lux=100.0 * 2**0.33))
    found = match_light(first, other)
    assert (found.settings.ei, found.nd_parts) == (100, ())
    assert found.off_stops == pytest.approx(-0.33)
    # Farther than a third off, the other one is the better answer.
    first.settings = replace(settings_now, lux=100.0 * 2**0.5)
    assert match_light(first, other).settings.ei == 800
    # Beyond what the body calls usable it costs more, and is told elsewhere.
    chosen.body.highest_ei = 400
    assert match_light(first, other).settings.ei == 100
