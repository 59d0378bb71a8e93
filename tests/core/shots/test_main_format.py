"""What the show is shot on: shots stay on it, say what forces them off, and never go below the least that is recorded."""

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.documents import body_of, parse_body
from hextan.core.equipment import MainFormat, main_format, nearness, parse_settings
from hextan.core.equipment.house import house_reference
from hextan.core.packing import KitPlan, packed
from hextan.core.shots import answer_of_shot, shots_view
from hextan.core.shots.changes import changes_of
from hextan.core.shots.document import Shot
from hextan.core.shots.edits import applied
from hextan.core.shots.judge import judge
from hextan.core.shots.needs import needs_of
from tests.core.bodies import a_body, a_mode
from tests.core.sheets.material import demo

M = demo()
FULL = MainFormat(body="Ebb 64", mode="Full 6.4K", format="Full → 4096 17:9")
BARE = M.settings.model_copy(update={"mains": []})


def house(*mains, **more):
    return M.settings.model_copy(update={"mains": list(mains), **more})


def answer(shot, settings):
    return answer_of_shot(M.package, settings, Shot(key="s", name="1", **shot))


def test_every_shot_that_can_be_made_on_the_main_format_is():
    """Checked against the judgement without one: whatever does a shot there is found by looking at all cells by hand."""
    settings = house(FULL)
    for shot, found in zip(M.shots.shots, shots_view(M.package, settings, M.shots)["answers"], strict=True):
        if needs_of(shot, M.package, settings).main is None:
            assert shot.body and found["off_main"] == ""
            continue
        judged = judge(M.package, BARE, needs_of(shot, M.package, BARE))
        there = [j for j, here in enumerate(judged.cells.layout.places) if nearness(here, FULL) == 3]
        possible = bool((judged.missed[:, there] == 0).any())
        assert (found["off_main"] == "") == (possible or found["best"]["format"] == FULL.format), shot.name
        assert possible == (found["best"]["format"] == FULL.format and found["verdict"] == "does")


def test_what_forces_a_shot_off_is_named_and_nothing_else_is():
    found = answer({"framing": "chest", "distance": "3 m", "speed": "200", "unit": "B"}, house(FULL))
    assert found["off_main"].startswith("Off the main format, Full → 4096 17:9 of Full 6.4K, Ebb 64: 200 fps")
    assert "at most" in found["off_main"] and found["verdict"] == "does"
    assert answer({"framing": "chest", "distance": "3 m"}, house(FULL))["off_main"] == ""
    gone = answer({"framing": "chest", "distance": "3 m"}, house(MainFormat(body="Ebb 65")))
    assert gone["off_main"] == "Off the main format, Ebb 65: it is not in the package." and gone["best"]


def test_a_day_of_many_formats_needs_few():
    """Twelve shots that ask for nothing in particular, on cameras that have forty formats."""
    plain = [Shot(key=f"s{n}", name=str(n), framing=framing, distance=far, unit="A")
             for n, (framing, far) in enumerate([("chest", "2 m"), ("face", "2-4 m"), ("wide 4 m", "3-9 m"), ("waist", "3 m"),
                ("1.2 m wide", "2-3 m"), ("full figure", "4-7 m"), ("0.4 m wide", "1-2 m"), ("like 50", "3 m"), ("chest", "5 m"),
                ("like 28", "2-3 m"), ("face", "3 m")])]  # fmt: skip
    shots = M.shots.model_copy(
        update={"shots": [*plain, Shot(key="f", name="fast", framing="chest", distance="3 m", speed="100")]}
    )
    view = shots_view(M.package, house(FULL), shots)
    assert len(view["formats"]) == 2 and view["on_main"] == {"stay": 11, "of": 12}
    assert len(shots_view(M.package, BARE, shots)["formats"]) > 2


def test_each_unit_has_its_own_and_all_others_share_one():
    small = MainFormat(unit="B", body="Tern G")
    settings = house(FULL, small)
    assert [main_format(settings, unit).body for unit in ("A", " b ", "", "drone")] == [
        "Ebb 64",
        "Tern G",
        "Ebb 64",
        "Ebb 64",
    ]
    asked = {"framing": "chest", "distance": "3 m"}
    assert answer({**asked, "unit": "B"}, settings)["best"]["body"] == "Tern G"
    assert answer({**asked, "unit": "A"}, settings)["best"]["format"] == FULL.format
    assert (
        main_format(house(small), "A") is None
        and shots_view(M.package, house(small), M.shots)["on_main"]["of"] < 20
    )


def test_a_shot_that_names_a_body_or_any_format_is_not_held_to_it():
    must = house(FULL.model_copy(update={"must": True}))
    asked = {"framing": "chest", "distance": "3 m", "speed": "200"}
    assert answer(asked, must)["verdict"] == "cannot"
    assert answer({**asked, "picture": "any format"}, must)["verdict"] == "does"
    assert answer({**asked, "body": "Tern G"}, must)["verdict"] == "does"


def test_advice_for_a_must_and_for_the_least_cures():
    for settings, asked in (
        (house(FULL.model_copy(update={"must": True})), {"speed": "200"}),
        (house(least_px=3840, least_bits=10), {"speed": "200"}),
        (house(least_bits=16), {"picture": "not raw"}),
    ):
        shot = Shot(key="s", name="1", framing="chest", distance="3 m", **asked)
        judged = judge(M.package, settings, needs_of(shot, M.package, settings))
        assert not (judged.missed == 0).any()
        found = changes_of(M.package, settings, shot, judged)
        mine = [c for c in found if c["edits"][0]["field"] == "picture"]
        assert mine, asked
        for change in mine:
            package, changed = applied(M.package, shot, change["edits"])
            assert answer_of_shot(package, settings, changed)["verdict"] == "does", change["text"]


def test_nothing_is_recorded_below_the_least_unless_a_shot_asks():
    settings = house(least_px=3840, least_bits=10)
    asked = {"framing": "chest", "distance": "3 m", "speed": "100"}
    low = answer(asked, BARE)["best"]
    assert max(M.package.formats[low["format_id"]].recording.raster) < 3840
    best = answer(asked, settings)
    assert (
        best["verdict"] == "cannot"
        or max(M.package.formats[best["best"]["format_id"]].recording.raster) >= 3840
    )
    assert answer({**asked, "picture": "from 1920 px"}, settings)["verdict"] == "does"


def test_a_kit_stays_on_the_main_format_as_the_shots_do():
    settings = house(FULL)
    day = M.shots.model_copy(update={"shots": [s for s in M.shots.shots if s.day == "1"]})
    kit = packed(M.package, settings, day, M.packing, KitPlan(name="k"), around=False).answer
    view = shots_view(M.package, settings, day)
    for shot, found in zip(kit["shots"], view["answers"], strict=True):
        if not found["off_main"]:
            assert shot["choice"]["format"] == FULL.format, shot["name"]
        assert shot["choice"]["body"] == FULL.body


@pytest.mark.parametrize(
    "mains, rule",
    [
        ([{"body": "Ebb 64"}, {"body": "Tern G"}], "one unit has two main formats"),
        (
            [{"unit": "A", "body": "Ebb 64"}, {"unit": " a", "body": "Tern G"}],
            "one unit has two main formats",
        ),
        ([{"body": "Ebb 64", "format": "UHD"}], "named with its scan mode"),
    ],
)
def test_what_cannot_be_meant_is_refused(mains, rule):
    with pytest.raises(InvalidInputError, match=rule):
        parse_settings({"mains": mains})


def test_the_reference_of_a_production_goes_by_its_first_body_until_settings_name_one():
    """Sizes: ISO 1007 and SMPTE ST 59 from memory; in which class people think is common practice, no source."""

    def reference(settings=None, **body):
        bodies = (
            [body_of(parse_body(a_body([a_mode("Full", window=body["photosites"])], **body)), None, 1)]
            if body
            else []
        )
        found = house_reference(parse_settings(settings or {}), bodies)
        return found.name if found.own is None else (found.own.name, found.own.width_mm)

    full, super35, thirds = (
        {"photosites": [6000, n], "pitch_um": um} for n, um in ((4000, 6.0), (3376, 4.15), (4508, 2.884))
    )
    assert [reference(), reference(**full), reference(**super35), reference(**thirds)] == [
        "super35",
        "full_frame",
        "super35",
        "full_frame",
    ]
    assert reference({"words": "stills"}, **super35) == "full_frame"
    assert reference({"reference": {"name": "super35"}, "words": "stills"}, **full) == "super35"
    # A window of its own is as large as it is in the list now; one that was taken off the list stays as it was.
    chosen = {"name": "own", "own": {"name": "Ours", "width_mm": 20.0, "height_mm": 10.0}}
    wider = {"reference": chosen, "references": [{"name": "Ours", "width_mm": 23.5, "height_mm": 15.0}]}
    assert (reference(wider), reference({"reference": chosen})) == (("Ours", 23.5), ("Ours", 20.0))
    with pytest.raises(InvalidInputError, match="take the window's size"):
        parse_settings({"reference": {"name": "scan_mode", "scan_mode_id": 1}})
