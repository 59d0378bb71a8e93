"""Accessories, licences, firmware, slots, gain and notes on pairs: what bodies could not say before."""

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.documents import BodyDocument, pair_notes_of, parse_body, parse_rig
from hextan.core.documents.rig import rig_sheet
from hextan.core.equipment import (
    Card,
    DataAsk,
    LensSet,
    Menu,
    PackageSettings,
    PairNote,
    data_table,
    lacking,
    mounting_of,
)
from hextan.core.equipment.needs import version_of
from hextan.core.finder.ask import CardWish, FinderAsk
from hextan.core.finder.formats import find_formats
from hextan.core.light import gain_db
from tests.core.bodies import a_body, a_format, a_mode, package_of
from tests.core.kits import lens

RAW = a_format("raw", raw=True, samples="raw", needs=["outboard recorder", "raw key"], from_firmware="4.10")


def package(firmware="4.9", carried=(), **body):
    document = parse_body(a_body([a_mode(formats=[a_format("UHD"), RAW])], firmware=firmware, **body))
    return package_of([document], carried=frozenset(carried))


def place(equipment, name="raw"):
    return next(here for here in equipment.formats.values() if here.recording.name == name)


@pytest.mark.parametrize(
    ("text", "version"),
    [
        ("4.9", (4, 9)),
        ("V 4.10.0", (4, 10)),
        ("SUP 7", (7,)),
        ("1.0", (1,)),
        ("", None),
        ("as delivered", None),
    ],
)
def test_versions_count_by_their_parts(text, version):
    assert version_of(text) == version


def test_what_a_format_lacks_is_told():
    have = package()
    assert lacking(place(have), ["raw key"]) == [
        "needs outboard recorder, which is not carried",
        "needs firmware 4.10, and the body has 4.9",
    ]
    both = ["raw key", "outboard recorder"]
    assert lacking(place(package("")), both) == ["needs firmware 4.10, and the body does not state its own"]
    assert lacking(place(package("4.11")), both) == []
    assert lacking(place(have, "UHD"), []) == []


def test_the_finder_leaves_out_what_cannot_be_recorded():
    found = find_formats(package("5.0", ["raw key"]), PackageSettings(), FinderAsk())
    assert [row["format"] for row in found["ranked"]] == ["UHD"]
    (out,) = found["rejected"]
    assert out["fails"] == ["all that it needs is there: needs outboard recorder, which is not carried"]
    assert out["changes"][0] == "carry outboard recorder"
    with_it = find_formats(package("5.0", ["raw key", "outboard recorder"]), PackageSettings(), FinderAsk())
    assert {row["format"] for row in with_it["ranked"]} == {"UHD", "raw"}
    # Where nothing is lacking, nobody is told about it.
    assert all(not row["reasons"] for row in with_it["ranked"])


@pytest.mark.parametrize(
    ("slots", "use", "minutes", "storage"), [(1, "after", 1, 1), (2, "after", 2, 1), (3, "both", 1, 3), (2, "proxy", 1, 1)]
)  # fmt: skip
def test_what_slots_do_to_minutes_and_storage(slots, use, minutes, storage):
    settings = PackageSettings(cards=[Card(key="c", name="Slab", capacity=512)])

    def told(**body):
        equipment = package("5.0", ["raw key", "outboard recorder"], **body)
        row = next(r for r in data_table(equipment, settings, DataAsk())["rows"] if r["format"] == "UHD")
        asked = FinderAsk(card_minutes=CardWish(least=1000, card="c", must=False))
        found = find_formats(equipment, settings, asked)["ranked"]
        share = next(r for r in found if r["format"] == "UHD")["reasons"][0]["share"]
        return row["card_minutes"]["c"], row["day_gb"], share * 1000

    one, day, wish = told()
    got = told(slots=slots, slot_use=use)
    assert got == pytest.approx((minutes * one, storage * day, minutes * wish))


def test_a_gain_is_a_ratio_in_decibels():
    # 20 log10(2) = 6.02 dB a stop, as gain switches are marked 0, 6, 12 (common practice, no source).
    assert [round(gain_db(ei, 800), 2) for ei in (400, 800, 1600, 3200)] == [-6.02, 0.0, 6.02, 12.04]
    assert gain_db(800, None) is None


@pytest.mark.parametrize(
    ("change", "field"),
    [({"slots": 0}, "slots"), ({"slot_use": "never"}, "slot_use"), ({"weight_kg": 0}, "weight_kg"),
     ({"size_mm": [1, 2]}, "size_mm"), ({"zero_db_ei": 0}, "zero_db_ei")],
)  # fmt: skip
def test_what_a_body_may_say(change, field):
    with pytest.raises(InvalidInputError) as error:
        parse_body(a_body(**change))
    assert error.value.faults[0].field == field


def test_a_firmware_is_a_version():
    with pytest.raises(InvalidInputError) as error:
        parse_body(a_body([a_mode(formats=[a_format(from_firmware="newest")])]))
    assert error.value.faults[0].field == "modes[0].formats[0].from_firmware"


def test_menu_words_in_a_sentence():
    assert Menu().told is None
    whole = Menu("Inner Frame", "Record > Area", "an automatic setting", "IF")
    told = "In the menu: “Inner Frame” under Record > Area; an automatic setting wins over it; the finder shows IF."
    assert whole.told == told
    assert Menu(finder="IF").told == "The finder shows IF."
    document = BodyDocument.model_validate(
        a_body([a_mode(menu={"name": "Inner Frame"})], crops=[{"key": "s", "name": "Steady", "menu": {"where": "Picture"}}])
    )  # fmt: skip
    body = package_of([document]).bodies[0]
    assert (body.modes[0].menu.told, body.crops[0].menu.told) == (
        "In the menu: “Inner Frame”.",
        "In the menu: it stands under Picture.",
    )


def test_notes_on_a_pair_are_told_with_its_mounting():
    glass = LensSet(1, "Lantern Works", "Heron", (lens(1), lens(2, name="Prime 50", focal=50.0)))
    body = parse_body(a_body())
    notes = (PairNote("Heron", "Skerry 60", "corners soft"), PairNote("Prime 50", "Skerry 60", "scale 10 cm off"),
             PairNote("Prime 50", "another", "never told"))  # fmt: skip
    equipment = package_of([body], lens_sets=(glass,), pair_notes=notes)
    told = [mounting_of(equipment.rig, each, (), equipment.bodies[0]).consequences for each in glass.lenses]
    # No recordings: what the circle covers is not told.
    assert told == [("corners soft",), ("corners soft", "scale 10 cm off")]


def test_a_note_on_a_pair_says_what_it_does_not_find():
    glass = LensSet(1, "Lantern Works", "Heron", (lens(1),))
    equipment = package_of([parse_body(a_body())], lens_sets=(glass,))
    document = parse_rig({"pairs": [
        {"key": "a", "name": "Prime 40", "body": "Skerry 60", "note": "corners soft"},
        {"key": "b", "name": "Prime 41", "body": "Skerry 6", "note": "corners soft"}]})  # fmt: skip
    sheet = rig_sheet(document, equipment)
    assert sheet["notes"] == {
        "a": [],
        "b": ["No lens and no lens set is called Prime 41.", "No body is called Skerry 6."],
    }
    assert sheet["combinations"][0]["ways"][0]["consequences"] == ["corners soft"]
    assert pair_notes_of(document)[0] == PairNote("Prime 40", "Skerry 60", "corners soft")
