"""Coverage with what to do about it, and fields with distances: the answers tried out afterwards."""

import math

import pytest

from hextan.core import evaluate
from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_body
from hextan.core.equipment import LensSetting
from hextan.core.evaluation import BenchDelivery
from hextan.core.kit.ask import CoverageAsk, FieldAsk, FramingWish, KitAsk, Room, SlowAsk
from hextan.core.kit.coverage import coverage_view
from hextan.core.kit.dark_corners import HANDLING_STOPS, _field_cost, advice
from hextan.core.kit.framing import FRAMINGS, field_of_person_m, find_field
from hextan.core.kit.high_speed import slow_motion
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import (
    EXTENDER,
    K50,
    PLAIN,
    W54,
    demo_package,
    format_named,
    kit_package,
    lens,
    lens_named,
)

DEMO = demo_package()
WHOLE = BenchDelivery(aspect=16 / 9)
SCOPE = BenchDelivery(aspect=2.39)
#: 36 x 20.25 needs 41.31 mm; 24 x 13.5 needs 27.54; moved right by 3 mm, 24 x 13.5 needs more.
BODY = parse_body(
    a_body(
        [
            a_mode(formats=[a_format("UHD"), a_format("raw", raster=[6000, 3375], raw=True, samples="raw")]),
            a_mode("Small", window=[4000, 2250], formats=[a_format("S UHD")]),
            a_mode("Aside", window=[4000, 2250], offset=[500, 0], formats=[a_format("A UHD")]),
        ],
        crops=[{"key": "c", "name": "Small circle", "lens": "short_circle", "rules": [{"mode": "Full", "factor": 1.5}]}],
        free_windows=True,
    )
)  # fmt: skip
STOPS = [{"at": 2.0, "circle_mm": 40.0}, {"at": 4.0, "circle_mm": 42.0}]
LENSES = (
    {"name": "Short", "image_circle_mm": 36.0, "mount": "K50"},
    {"name": "By stop", "image_circle_mm": None, "circle_by": "stop", "circles": STOPS},
    {"name": "Zoom", "focal": 20.0, "focal_long_mm": 80.0, "image_circle_mm": None, "circle_by": "focal",
     "circles": [{"at": 20.0, "circle_mm": 38.0}, {"at": 80.0, "circle_mm": 44.0}]},
    {"name": "Other 45", "focal": 45.0},
    {"name": "Tiny", "focal": 12.0, "image_circle_mm": 5.0},
    {"name": "Unknown", "image_circle_mm": None},
    {"name": "Just", "image_circle_mm": 41.5},
)  # fmt: skip
KIT = kit_package(
    [BODY], [lens(i, **given) for i, given in enumerate(LENSES, 1)], (PLAIN, EXTENDER), (W54, K50)
)


def view(name, form="UHD", kit=KIT, delivery=WHOLE, **more):
    ask = CoverageAsk(
        lens_id=lens_named(kit, name), format_id=format_named(kit, form), delivery=delivery, **more
    )
    return coverage_view(kit, ask)


def kinds(got):
    return [option["kind"] for option in got["advice"]]


def test_the_view_says_what_the_evaluation_says():
    got = view("Short")
    one = evaluate({"lens": {"focal_mm": 40, "image_circle_mm": 36.0},
                    "formats": [{"window": {"width_mm": 36.0, "height_mm": 20.25}}]})["formats"][0]["coverage"]  # fmt: skip
    assert got["map"]["needed_mm"] == pytest.approx(one["needed_mm"])
    assert got["margin_mm"] == pytest.approx(one["margin_mm"])
    assert got["map"]["dark_share"] == pytest.approx(one["dark_share"])
    assert got["map"]["dark_corners"] == ["top left", "top right", "bottom left", "bottom right"]
    assert got["lens"]["mounting"]["verdict"] == "consequences"


def test_an_off_centre_window_darkens_one_side():
    """24 x 13.5, 3 mm to the right: the far corners are at hypot(15, 6.75)."""
    got = view("Short", "A UHD", kit=kit_package([BODY], [lens(name="Short", image_circle_mm=30.0)]))
    assert got["map"]["needed_mm"] == pytest.approx(2 * math.hypot(15, 6.75))
    assert got["map"]["dark_corners"] == ["top right", "bottom right"]


def test_options_come_with_the_cheapest_first_and_each_of_them_helps():
    """Whatever is advised is tried: with what it sets, the lens covers."""
    for name in ("Short", "By stop", "Zoom"):
        got = view(name)
        costs = [option["cost_stops"] for option in got["advice"]]
        assert costs == sorted(costs)
        for option in got["advice"]:
            if option["set"]:
                ask = {
                    "lens_id": lens_named(KIT, name),
                    "format_id": format_named(KIT, "UHD"),
                    "delivery": WHOLE,
                }
                after = coverage_view(KIT, CoverageAsk(**(ask | option["set"])))
                assert after["map"]["verdict"] in ("covers", "marginal"), (name, option)


def test_stopping_down_where_the_table_says_so():
    option = next(o for o in view("By stop")["advice"] if o["kind"] == "stop")
    # 41.31 of 40..42 between T2 and T4: 2 * 2^0.656 = T3.15, marked T3.2, 1.36 stops.
    assert option["set"] == {"stop": 3.2}
    assert option["text"] == "Stop down to T3.2: from T3.1 on the circle covers. It costs 1.4 stops of light."
    assert option["cost_stops"] == pytest.approx(2 * math.log2(1.6))


def test_zooming_in_where_the_table_says_so():
    option = next(o for o in view("Zoom")["advice"] if o["kind"] == "focal")
    assert 20 < option["set"]["focal_mm"] < 80
    assert "from there the circle covers" in option["text"]


def test_a_crop_an_extender_another_window_another_lens():
    got = view("Short")
    texts = {option["kind"]: option["text"] for option in got["advice"]}
    assert texts["crop"] == "Switch Small circle on: ×1.5 tighter, and it covers, 8.4 mm spare."
    assert texts["adapter"].startswith("Mount extender: ×1.40 tighter, 1.1 stops darker")
    assert texts["lens"] == "Take Other 45: 11 % tighter, and it covers."
    assert texts["correct"].startswith("Accept it: crop ×1.15 afterwards")
    formats = [o["text"] for o in got["advice"] if o["kind"] == "format"]
    assert any(
        text.startswith(
            "Record S UHD (Small): the largest picture of Skerry 60 that is covered, ×1.50 tighter"
        )
        for text in formats
    )
    assert any(text.startswith("Set a window of ") for text in formats)


def test_no_crop_is_advised_on_raw():
    assert "crop" not in kinds(view("Short", "raw", delivery=BenchDelivery(aspect=None)))


def test_dark_outside_the_picture_is_left_alone():
    """2.39 out of 36 x 20.25 is 36 x 15.06: it needs 39.03 mm."""
    by_stop = view("By stop", delivery=SCOPE)
    assert by_stop["advice"][0]["kind"] == "nothing"
    assert "only what lies outside it is dark" in by_stop["advice"][0]["text"]
    assert by_stop["advice"][0]["cost_stops"] == HANDLING_STOPS["nothing"]


def test_marginal_unknown_and_hopeless():
    just = view("Just")
    assert just["map"]["verdict"] == "marginal"
    assert just["marginal"] == "Makers measure circles differently: test it before the shoot."
    assert kinds(just) == ["nothing"]
    assert kinds(view("Unknown")) == ["nothing"]
    assert "not stated" in view("Unknown")["advice"][0]["text"]
    assert view("Other 45")["advice"] == []
    aside = view("Tiny", "A UHD")
    assert (
        aside["advice"][-1]["text"]
        == "Nothing can be done afterwards: not even the middle of this window is lit."
    )


def test_the_crop_afterwards_reaches_the_circle():
    """An off-centre picture shrunk by the factor has its farthest corner on the circle."""
    kit = kit_package([BODY], [lens(name="S", image_circle_mm=30.0)])
    text = next(o["text"] for o in view("S", "A UHD", kit=kit)["advice"] if o["kind"] == "correct")
    factor = float(text.split("×")[1].split(" ")[0])
    assert math.hypot(3 + 12 / factor, 6.75 / factor) == pytest.approx(15.0, abs=0.1)


def test_along_a_zoom_a_stop_and_focus():
    zoom = view("Zoom", focal_mm=40.0)["along"]
    assert (zoom["by"], zoom["now"]) == ("focal", 40.0)
    assert (zoom["points"][0]["at"], zoom["points"][0]["circle_mm"]) == (20.0, 38.0)
    assert zoom["points"][-1]["at"] == pytest.approx(80.0)
    assert zoom["points"][-1]["circle_mm"] == pytest.approx(44.0)
    assert {p["verdict"] for p in zoom["points"]} == {"short", "marginal", "covers"}
    by_stop = view("By stop", stop=2.8)["along"]
    assert (by_stop["by"], by_stop["now"]) == ("stop", 2.8)
    long = view("Longshore 2x 32", "6:5 3.7K raw", kit=DEMO, delivery=SCOPE)["along"]
    assert (long["by"], long["now"], long["points"][-1]["at"]) == ("focus", None, None)
    assert view("Short")["along"] is None


def test_every_lens_of_the_kit_stands_beside():
    rows = {r["name"]: r for r in view("Short")["lenses"]}
    assert set(rows) == {
        "Short",
        "By stop",
        "Zoom at 20",
        "Zoom at 80",
        "Other 45",
        "Tiny",
        "Unknown",
        "Just",
    }
    assert rows["Unknown"]["verdict"] == "unknown"
    assert rows["Short"]["via"] == "plain"
    demo = {r["name"]: r for r in view("Wren 40", "Full → UHD", kit=DEMO)["lenses"]}
    assert demo["Dunlin 6"]["verdict"] == "impossible"
    assert "N30" in demo["Dunlin 6"]["why_not"]


def test_a_lens_that_cannot_be_put_on_gets_no_advice():
    got = view("Dunlin 12", "Full → UHD", kit=DEMO)
    assert got["lens"]["mounting"]["verdict"] == "impossible"
    assert got["advice"] == []


def test_gone_equipment_is_named():
    with pytest.raises(InvalidInputError) as refused:
        coverage_view(KIT, CoverageAsk(lens_id=99, format_id=999))
    assert [f.field for f in refused.value.faults] == ["format_id", "lens_id"]


def test_advice_for_a_setting_that_covers_is_empty():
    here = KIT.formats[format_named(KIT, "S UHD")]
    assert advice(KIT, here, LensSetting(KIT.rig, lens()), KitAsk(delivery=WHOLE)) == []


# Field and distance


@pytest.mark.parametrize(
    ("framing", "height", "headroom", "expected"),
    [("chest", 1.7, 0.0, 0.476), ("waist", 2.0, 0.2, 1.05), ("full figure", 1.8, 0.1, 1.8 / 0.85), ("eyes", 1.7, 0.3, 0.1105)],
)  # fmt: skip
def test_heights_of_framings(framing, height, headroom, expected):
    """Shares of a standing person's height, headroom above; a full figure has half of it below the feet."""
    wish = FramingWish(framing=framing, height_m=height, headroom=headroom)
    assert field_of_person_m(wish) == pytest.approx(expected)


def field(kit=DEMO, lens_name="Merrow 40", form="Full → UHD", **more):
    given = {"delivery": WHOLE, "lens_id": lens_named(kit, lens_name), "format_id": format_named(kit, form)}
    return find_field(kit, FieldAsk(**(given | more)))


@pytest.mark.parametrize("lens_name", ["Merrow 18", "Merrow 75", "Wren 40", "Longshore 2x 50"])
@pytest.mark.parametrize("size", [0.4, 1.3, 6.0])
def test_the_distance_for_a_field_agrees_with_the_public_evaluation(lens_name, size):
    got = field(lens_name=lens_name, width_m=size)["answers"][0]
    here = DEMO.formats[format_named(DEMO, "Full → UHD")]
    given = DEMO.lenses[lens_named(DEMO, lens_name)][1]
    one = evaluate({
        "subject": {"width_m": size}, "lens": {"focal_mm": given.focal_min_mm, "squeeze": given.squeeze},
        "adapter": {"magnification": got["focal_mm"] / given.focal_min_mm},
        "formats": [here.as_request(delivery=WHOLE.for_recording(here.recording.raster, given.squeeze))],
    })["formats"][0]  # fmt: skip
    assert got["distance_m"] == pytest.approx(one["subject_distance_m"], rel=1e-9)
    assert got["width_m"] == pytest.approx(size, rel=1e-9)
    assert got["height_m"] == pytest.approx(one["field_m"]["height"], rel=1e-9)


def test_the_lens_for_a_field_and_a_distance_shows_it_best():
    """Every lens of the kit is tried from there; none is nearer to the wanted field."""
    primes = [s.id for s in DEMO.lens_sets if s.name in ("Merrow", "Wren")]
    got = field(find="lens", height_m=1.2, distance_m=3.0, lens_set_ids=primes, mounted="simplest")["answers"]
    offs = []
    for name in [x.name for _, x in DEMO.lenses.values() if x.name.startswith("Merrow")]:
        shown = field(lens_name=name, find="format", height_m=1.2, distance_m=3.0, mounted="simplest",
                      format_ids=[format_named(DEMO, "Full → UHD")])["answers"][0]  # fmt: skip
        offs.append(abs(math.log(shown["field_m"] / 1.2)))
    assert abs(math.log(got[0]["field_m"] / 1.2)) == pytest.approx(min(offs), rel=1e-9)


def test_the_format_for_a_field_with_this_lens_from_here():
    answers = field(find="format", width_m=1.5, distance_m=3.0)["answers"]
    offs = [abs(math.log(a["field_m"] / 1.5)) for a in answers if a["verdict"] != "short"]
    assert offs == sorted(offs)
    assert len({a["body"] for a in answers}) > 1


def test_the_room_binds():
    got = field(
        person=FramingWish(framing="full figure"),
        room=Room(length_m=3.0, behind_subject_m=0.5, behind_camera_m=0.6),
    )
    assert got["longest_m"] == pytest.approx(1.9)
    assert got["answers"][0]["distance_m"] > 1.9
    assert got["binds"][0].startswith("The room binds: ")
    # The lens that it names does it from there.
    needed = float(got["binds"][0].split("A lens of ")[1].split(" ")[0])
    from_there = field(find="lens", person=FramingWish(framing="full figure"), distance_m=1.9)["answers"][0]
    assert from_there["candidate"]["needed_mm"] == pytest.approx(needed, abs=0.05)
    rows = {f["framing"]: f for f in got["framings"]}
    assert set(rows) == set(FRAMINGS)
    assert rows["full figure"]["binds"] == "the room"
    assert rows["eyes"]["binds"] == "close focus"
    assert rows["chest"]["binds"] is None


def test_close_focus_binds():
    got = field(person=FramingWish(framing="eyes"))
    assert "close focus binds at 0.40 m" in got["binds"][0]
    assert field(find="lens", person=FramingWish(framing="eyes"), distance_m=0.1)["answers"] == []


@pytest.mark.parametrize(
    ("ask", "fault"),
    [
        ({}, "width_m"),
        ({"width_m": 1.0, "height_m": 1.0}, "height_m"),
        ({"width_m": 1.0, "find": "lens"}, "distance_m"),
        ({"width_m": 1.0, "format_id": None}, "format_id"),
        ({"width_m": 1.0, "lens_id": 10**6}, "lens_id"),
        ({"width_m": 1.0, "focal_mm": 45.0}, "focal_mm"),
        ({"width_m": 1.0, "room": Room(length_m=1.0)}, "room.length_m"),
    ],
)
def test_fields_that_cannot_be_asked(ask, fault):
    with pytest.raises(InvalidInputError) as refused:
        field(**ask)
    assert refused.value.faults[0].field == fault


def test_a_fisheye_and_a_lens_that_does_not_go_on_are_refused():
    with pytest.raises(InvalidInputError, match="is a fisheye, which has no flat field"):
        field(lens_name="Bowl 8 fisheye", width_m=1.0)
    with pytest.raises(InvalidInputError, match="cannot be mounted on Ebb 64"):
        field(lens_name="Dunlin 12", width_m=1.0)


@pytest.mark.parametrize(("factor", "stops"), [(2.0, 2.0), (math.sqrt(2), 1.0), (1.0, 0.0), (0.5, 0.0)])
def test_lost_field_counts_as_the_light_that_fell_on_it(factor, stops):
    """Half the width and height is a quarter of the area: two stops. A wider one is no loss."""
    assert _field_cost(factor) == pytest.approx(stops)


def test_at_high_speed_the_picture_that_keeps_most_comes_first():
    base = format_named(DEMO, "Full → UHD")
    kept = [row["kept"] for row in slow_motion(DEMO, SlowAsk(base_format_id=base, fps=100.0))["rows"]]
    assert kept == sorted(kept, reverse=True)
    assert kept[0] > kept[-1]
