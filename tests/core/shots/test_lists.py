"""Shot lists as people have them: what is readable is judged, what is not is marked in its cell and kept as text."""

import csv
import json
from pathlib import Path

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.equipment import Package, PackageSettings, parse_settings
from hextan.core.evaluation import BenchReference, OwnWindow
from hextan.core.shots import ShotList, needs_of, shots_of_table, shots_view
from hextan.core.shots.document import Shot
from hextan.core.shots.view import answer_with_changes
from hextan.core.shots.words import NotReadError, distances, glass, movement
from tests.core.bodies import a_body, a_format, a_mode, parse_body
from tests.core.kits import kit_package, lens

LISTS = Path(__file__).parents[2] / "fixtures" / "written" / "shot_lists"
MEANS = json.loads((LISTS / "means.json").read_text())
BODY = parse_body(a_body([a_mode(formats=[a_format(rates=["1-120"])])], eis=[800, 1600], base_eis=[800]))
KIT = kit_package(
    [BODY], [lens(i, name=f"Prime {f}", focal=float(f)) for i, f in enumerate((21, 35, 50, 85, 100), 1)]
)
METRES, FEET = PackageSettings(), PackageSettings(unit="ft")


def rows_of(name):
    text = (LISTS / name).read_text(encoding="utf-8")
    return list(csv.reader(text.splitlines(), delimiter=";" if ";" in text else ","))


def shots_of(name):
    return {shot.name: shot for shot in shots_of_table(rows_of(name), ShotList())["document"].shots}


def needs(name, shot, settings=METRES):
    return needs_of(shots_of(name)[shot], KIT, settings)


@pytest.mark.parametrize(
    "name",
    [name for name in MEANS if name.endswith(".csv")],
)
def test_the_shots_of_a_list_are_found_below_its_header_and_sums_are_none(name):
    assert list(shots_of(name)) == MEANS[name]["shots"]


@pytest.mark.parametrize("name", ["ferry_title.csv", "german.csv", "sticks_aside.csv"])
def test_sizes_are_read_in_the_shorthand_of_their_lists(name):
    for shot, framing in MEANS[name]["framing"].items():
        read = needs(name, shot)
        if framing in ("wide", "insert"):
            assert [f.rule for f in read.faults if f.field == "framing" and "no field follows" in f.rule], (
                shot
            )
        else:
            assert read.wanted is not None and read.wanted.words.startswith(framing), shot


def test_a_unit_in_a_title_is_that_of_its_bare_figures():
    shots = shots_of("ferry_title.csv")
    assert (shots["12A"].distance, shots["12B"].distance) == ("8 ft", "6'6\"")
    assert needs("ferry_title.csv", "12A").distance.low == pytest.approx(2.4384)
    for shot, metres in MEANS["feet.csv"]["distance"].items():
        assert needs("feet.csv", shot).distance.low == pytest.approx(float(metres.split()[0]), abs=0.001)


def test_a_movement_is_framed_at_its_nearer_end():
    assert movement("dolly 60ft-20ft", "m") == pytest.approx((18.288, 6.096))
    assert movement("from 10m to 3m", "m") == (10.0, 3.0) and movement("slow push 3m - 2.2m", "m") == (
        3.0,
        2.2,
    )
    assert movement("2-4 m", "m") is None and movement("3 m", "m") is None
    assert distances("from 60 to 20 ft", "m").low == pytest.approx(6.096)
    assert needs("units.csv", "4A").distance.low == pytest.approx(6.096, abs=0.01)


def test_supports_places_and_times_are_read():
    assert [needs("units.csv", shot).rig.kind for shot in ("3A", "4A")] == ["tripod", "dolly"]
    # Inside, day says nothing of the light; outside, night does.
    assert needs("units.csv", "3A").lit.lux is None and needs("units.csv", "4A").lit.lux == 10.0
    assert needs("german.csv", "7/1").lit.lux == 10.0 and needs("times.csv", "21").lit.lux == 10_000.0
    # Remarks are remarks, whatever they speak of.
    assert shots_of("german.csv")["7/1"].notes == "Schwebestativ"


def test_a_lens_is_a_need_by_its_focal_length_or_its_name():
    assert glass("24-70 at 35").zoom_mm == (24.0, 70.0) and needs("zooms.csv", "31").glass.zoom_mm == (
        24.0,
        70.0,
    )
    with pytest.raises(NotReadError, match="may be a focal length"):
        glass("the long zoom")
    shots = shots_of_table(
        [["Shot", "Lens", "Distance"], ["1", "50", "3 m"], ["2", "Prime 85", "3 m"], ["3", "300", "3 m"]],
        ShotList(),
    )
    answers = shots_view(KIT, METRES, shots["document"])["answers"]
    assert [(a["verdict"], a["best"]["lens"]) for a in answers[:2]] == [
        ("does", "Prime 50"),
        ("does", "Prime 85"),
    ]
    assert answers[2]["verdict"] == "cannot"


def test_what_is_readable_is_judged_and_what_is_not_is_told_and_kept():
    table = [
        ["Shot", "Size", "Distance", "fps"],
        ["1", "insert", "3 m", "50i"],
        ["2", "waist", "somewhere", "25"],
        ["3", "wide", "", ""],
    ]
    read = shots_of_table(table, ShotList())["document"]
    one, two, three = shots_view(KIT, METRES, read)["answers"]
    assert (one["verdict"], {f["field"] for f in one["faults"]}) == ("does", {"framing", "speed"})
    assert "not judged: " in one["binds"] and "interlaced" in one["binds"]
    assert two["verdict"] != "open" and [f["field"] for f in two["faults"]] == ["distance"]
    # Where nothing is left to judge by, it is open.
    assert three["verdict"] == "open" and read.shots[2].framing == "wide"


def test_a_column_that_was_pointed_at_is_known_in_the_next_version_of_the_list():
    first = shots_of_table(
        [["Shot", "How far", "Who"], ["1", "3 m", "Ines"]], ShotList(), columns={"How far": "distance"}
    )
    assert first["document"].shots[0].distance == "3 m" and first["kept"] == ["Who"]
    again = shots_of_table([["Shot", "How far", "Who"], ["1", "4 m", "Ines"]], first["document"])
    assert again["document"].shots[0].distance == "4 m"
    assert again["cells"] == [{"shot": "1", "column": "Distance", "before": "3 m", "after": "4 m"}]
    # One that is wanted as it is, is kept, whatever it is called.
    kept = shots_of_table([["Shot", "Lens"], ["1", "the old one"]], ShotList(), columns={"Lens": ""})
    assert kept["document"].shots[0].extra == {"Lens": "the old one"}


def test_a_movement_says_where_it_is_framed_and_an_unread_cell_leaves_cures_and_kits_what_they_are():
    """A cure is judged by the cells that can be read, as the shot is; and so is what is packed."""
    read = shots_of_table(
        [["Shot", "Size", "Distance"], ["1", "waist", "dolly 6m-3m"], ["2", "waist", "30 m"]], ShotList()
    )["document"]
    one, _ = shots_view(KIT, METRES, read)["answers"]
    assert any("it is framed at 3.00 m" in warning["text"] for warning in one["warnings"])
    plain = read.shots[1]
    marked = plain.model_copy(update={"speed": "50i"})
    curing, cured = (answer_with_changes(KIT, METRES, shot)["changes"] for shot in (plain, marked))
    assert [change["text"] for change in curing] == [change["text"] for change in cured] and curing


def test_shorthand_means_what_the_production_says_before_what_most_people_say():
    settings = parse_settings({"sizes": {"MS": "knees", "HS": "face", "L": "full figure"}})

    def size(text):
        needs = needs_of(Shot(key="s", name="1", framing=text), Package(), settings)
        return needs.faults[0].rule if needs.faults else needs.wanted.words.split(" 1.70")[0]

    assert [size(text) for text in ("MS", "ms", "MS Ada", "HS", "MCU", "L")] == [
        "knees",
        "knees",
        "knees",
        "face",
        "chest",
        "full figure",
    ]
    assert size("WS").startswith("a size of which no field follows") and size("XYZ").startswith(
        "may be full figure"
    )
    for wrong in ({"": "face"}, {"MS": "elbow"}, {"MS": "face", "ms": "knees"}, {"2S": "face"}):
        with pytest.raises(InvalidInputError):
            parse_settings({"sizes": wrong})


def test_a_focal_length_without_a_window_means_the_production_s_reference():
    """36.0 mm and 24.89 mm wide: ISO 1007 and SMPTE ST 59, from memory."""
    own = BenchReference(name="own", own=OwnWindow(name="My camera", width_mm=17.3, height_mm=13.0))
    for reference, wide, name in (
        (BenchReference(), 24.89, "Super 35"), (BenchReference(name="full_frame"), 36.0, "full frame"), (own, 17.3, "My camera"),
    ):  # fmt: skip
        wanted = needs_of(
            Shot(key="s", name="1", framing="like 50"), Package(reference=reference), PackageSettings()
        ).wanted
        assert (wanted.on_mm[0], wanted.on) == (wide, name)
        said = needs_of(
            Shot(key="s", name="1", framing="like 50 on Super 35"),
            Package(reference=reference),
            PackageSettings(),
        ).wanted
        assert said.on_mm[0] == 24.89
