"""Mounts and adapters: what goes on what. The rules are those of FORMULAS and common practice, no source."""

import math

import pytest

from hextan.core.base import InconsistentError, InvalidInputError
from hextan.core.documents import parse_body, parse_rig, with_rigs
from hextan.core.documents.rig import rig_notes
from hextan.core.equipment.mounting import combinations, mounting_of, simplest, ways, why_not
from hextan.core.equipment.package import Mount, MountAdapter
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import EXTENDER, K50, PLAIN, REDUCER, RELAY, W54, demo_package, kit_package, lens

# Sensor 36 x 24; recordings: 36 x 20.25 (41.3 mm) and 18 x 10.1 (20.7 mm).
MODES = [a_mode(formats=[a_format("UHD")]), a_mode("Small", window=[3000, 1688], formats=[a_format("HD")])]
WIDE = parse_body(a_body(MODES))
LONG = parse_body(a_body(MODES, key="b2", name="Skiff", mount="K50"))


def package(*lenses, adapters=(PLAIN, REDUCER, EXTENDER, RELAY), mounts=(W54, K50)):
    return kit_package([WIDE, LONG], lenses, adapters, mounts)


def judged(given, adapters, body=0, **more):
    kit = package(given, **more)
    return mounting_of(kit.rig, given, tuple(adapters), kit.bodies[body])


def test_a_lens_goes_directly_on_its_own_mount():
    found = judged(lens(image_circle_mm=46.0), [])
    assert (found.verdict, found.name, found.magnification, found.stops_lost) == (
        "possible",
        "directly",
        1,
        0,
    )


def test_another_mount_needs_an_adapter():
    found = judged(lens(mount="K50"), [])
    assert found.verdict == "impossible"
    assert found.reasons == ("the lens has the K50 mount and Skerry 60 takes W54: an adapter is needed",)
    assert judged(lens(mount="K50"), [PLAIN]).verdict == "possible"


def test_a_narrow_throat_is_told():
    narrow = (K50, Mount("W54", 38.2, 30.0))
    told = judged(lens(mount="K50"), [PLAIN], mounts=narrow).consequences
    assert told == ("the W54 throat of 30 mm is narrower than the largest recording's diagonal of 41.3 mm",)


def test_a_chain_has_to_meet_at_every_mount():
    assert judged(lens(), [PLAIN]).reasons == ("plain takes K50, not W54",)
    assert judged(lens(mount="K50"), [PLAIN], body=1).reasons == ("plain ends in W54 and Skiff takes K50",)


@pytest.mark.parametrize(
    ("lens_flange", "body_flange", "possible"),
    [(50.4, 38.2, True), (38.2, 38.2, False), (38.19, 38.2, False), (38.21, 38.2, True)],
)
def test_without_glass_the_lens_must_sit_farther_from_the_sensor(lens_flange, body_flange, possible):
    mounts = (Mount("K50", lens_flange), Mount("W54", body_flange))
    found = judged(lens(mount="K50", image_circle_mm=46.0), [PLAIN], mounts=mounts)
    assert (found.verdict != "impossible") is possible
    if not possible:
        assert "infinity is out of reach" in found.reasons[0]


def test_glass_bridges_any_distance_and_an_unknown_one_is_told():
    assert judged(lens(image_circle_mm=46.0), [RELAY], body=1).verdict == "consequences"
    untold = judged(lens(mount="K50", image_circle_mm=46.0), [PLAIN], mounts=(K50,))
    assert any("flange distance of W54 not stated" in text for text in untold.consequences)


def test_a_reducer_is_refused_to_a_lens_of_a_smaller_format_unless_it_covers():
    small = lens(designed_for="Super 35", image_circle_mm=31.5)
    found = judged(small, [REDUCER], body=1)
    assert found.reasons == (
        "reducer is made for full frame or 65 mm lenses, and this one was made for Super 35",)  # fmt: skip
    large_circle = lens(designed_for="Super 35", image_circle_mm=60.0)
    assert judged(large_circle, [REDUCER], body=1).verdict == "consequences"
    same_class = lens(designed_for="full frame", image_circle_mm=46.3)
    told = judged(same_class, [REDUCER], body=1)
    assert told.verdict == "consequences"
    assert "the circle covers 1 of 2 recording formats" in told.consequences


def test_a_reducer_needs_a_circle_that_covers_something():
    assert "its circle is not stated" in judged(lens(image_circle_mm=None), [REDUCER], body=1).reasons[0]
    tiny = judged(lens(image_circle_mm=20.0), [REDUCER], body=1)
    assert tiny.reasons == (
        "behind a reducer its circle shrinks to 14.2 mm and covers no recording of Skiff",
    )


def test_consequences_of_glass_iris_and_data():
    given = lens(mount="K50", iris="body", data_link="contacts", image_circle_mm=46.0)
    told = " | ".join(judged(given, [EXTENDER]).consequences)
    assert "focal length, f and T × 1.40, 1.08 stop darker, image circle × 1.40" in told
    plain = judged(given, [PLAIN]).consequences
    assert "the iris cannot be set: it stays where it was when the lens was taken off" in plain
    assert "no lens data reach the camera: log the lens by hand" in plain
    ring = judged(lens(mount="K50", image_circle_mm=46.0), [PLAIN]).consequences
    assert not any("iris" in text or "data" in text for text in ring)


def test_light_of_a_chain_adds_up():
    chain = judged(lens(image_circle_mm=60.0), [REDUCER, EXTENDER])
    assert chain.magnification == pytest.approx(0.71 * 1.4)
    assert chain.stops_lost == pytest.approx(2 * math.log2(0.71 * 1.4) - math.log2(0.95 * 0.93))
    assert "two adapters in a row: check flange depth and support" in chain.consequences


def test_ways_come_with_the_least_trouble_first_and_are_kept():
    given = lens(mount="K50", image_circle_mm=46.0)
    kit = package(given)
    found = ways(kit.rig, given, kit.bodies[0])
    assert [way.name for way in found][:2] == ["plain", "extender"]
    assert found is ways(kit.rig, given, kit.bodies[0])
    assert simplest(kit.rig, given, kit.bodies[0]) is found[0]


def test_there_and_back_again_is_no_way():
    given = lens(image_circle_mm=46.0)
    kit = package(given)
    found = {way.name for way in ways(kit.rig, given, kit.bodies[0])}
    assert found == {"directly", "relay + extender", "reducer + extender", "reducer + plain"}


def test_why_not_says_what_would_have_to_be_had():
    far, near = Mount("K50", 50.4), Mount("N30", 19.3)
    kit = kit_package([WIDE], [lens(mount="N30")], (), (near, W54))
    assert why_not(kit.rig, kit.lens_sets[0].lenses[0], kit.bodies[0]) == (
        "no adapter of this package leads from N30 to W54; only one with glass could: N30 sits nearer to the sensor than W54"
    )
    kit = kit_package([WIDE], [lens(mount="K50")], (), (far, W54))
    assert "a plain one 12.2 mm long would do" in why_not(kit.rig, kit.lens_sets[0].lenses[0], kit.bodies[0])
    kit = kit_package([WIDE], [lens(mount="X")])
    assert why_not(kit.rig, kit.lens_sets[0].lenses[0], kit.bodies[0]).endswith("leads from X to W54")


def test_every_combination_of_the_demo_is_judged():
    kit = demo_package()
    found = combinations(kit.rig, (lens for _, lens in kit.lenses.values()), kit.bodies)
    assert len(found) == len(kit.lenses) * len(kit.bodies)
    assert {c["verdict"] for c in found} == {"possible", "consequences", "impossible"}
    for c in found:
        assert (c["verdict"] == "impossible") == (c["why_not"] is not None)


RIG = {"mounts": [{"key": "a", "name": "W54", "flange_mm": 38.2}, {"key": "b", "name": "K50", "flange_mm": 50.4}],
       "adapters": [{"key": "c", "name": "there", "lens_mount": "K50", "body_mount": "W54"},
                    {"key": "d", "name": "back", "lens_mount": "W54", "body_mount": "K50"},
                    {"key": "e", "name": "odd", "lens_mount": "W54", "body_mount": "Z"}]}  # fmt: skip


def test_notes_on_adapters():
    notes = rig_notes(parse_rig(RIG))
    assert notes["c"] == ["12.20 mm long."]
    assert notes["d"] == ["Impossible without glass: W54 sits 12.20 mm too near, infinity is out of reach."]
    assert notes["e"] == ["The mount Z is not described: its flange distance is not known."]


def test_mounts_of_a_file_are_changed_by_name_and_keep_their_keys():
    here = parse_rig(RIG)
    file = parse_rig(
        {"mounts": [{"key": "zz", "name": "K50", "flange_mm": 51.0}, {"key": "a", "name": "N30"}]}
    )
    now = with_rigs(here, [file])
    assert [(m.name, m.flange_mm) for m in now.mounts] == [("W54", 38.2), ("K50", 51.0), ("N30", None)]
    assert now.mounts[1].key == "b"
    assert len({m.key for m in now.mounts}) == 3
    assert now.adapters == here.adapters


@pytest.mark.parametrize(
    ("changes", "rule"),
    [
        ({"magnification": 0.71}, "needs glass"),
        ({"transmission": 0.9}, "without glass all light comes through"),
        ({"magnification": 0.1, "glass": True}, "must be at least 0.2"),
        ({"transmission": 1.2}, "must be at most 1"),
        ({"classes": ["APS"]}, "must be one of"),
    ],
)
def test_adapters_that_cannot_be(changes, rule):
    with pytest.raises(InvalidInputError, match=rule):
        parse_rig({"adapters": [RIG["adapters"][0] | changes]})


def test_names_of_mounts_and_adapters_are_unique():
    with pytest.raises(InconsistentError) as refused:
        parse_rig({"mounts": [RIG["mounts"][0], RIG["mounts"][0] | {"key": "z"}]})
    assert refused.value.faults[0].field == "mounts[1].name"


def test_an_adapter_behind_the_lens_of_a_body_without_formats():
    """A body without recordings has nothing to cover: mounting is judged all the same."""
    bare = parse_body(a_body([]))
    kit = kit_package([bare], [lens()], (MountAdapter(9, "x", 0.8, "W54", "W54", 1.0, True),))
    assert (
        mounting_of(kit.rig, kit.lens_sets[0].lenses[0], kit.adapters, kit.bodies[0]).verdict
        == "consequences"
    )
