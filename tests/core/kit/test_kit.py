"""The whole kit: matrix, ladder, nearest match and slow motion, each against a plain way of doing the same."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from hextan.core import evaluate
from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_body
from hextan.core.evaluation import BenchDelivery, BenchReference, OwnWindow
from hextan.core.kit.arrays import VERDICTS, kit_of, pictures
from hextan.core.kit.ask import KitAsk, LadderAsk, MatchAsk, MatrixAsk, SlowAsk
from hextan.core.kit.high_speed import slow_motion
from hextan.core.kit.ladder import kit_ladder
from hextan.core.kit.match import Candidate, kit_match
from hextan.core.kit.matrix import kit_matrix
from hextan.core.optics import LEAST_ANGLE_DEG, view_class
from hextan.formats.matrix_csv import write_matrix
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, format_named, kit_package, lens, lens_named

DEMO = demo_package()
SCOPE = BenchDelivery(aspect=2.39)
BODY = parse_body(
    a_body(
        [
            a_mode(formats=[a_format("UHD", rates=["24", "25"]), a_format("twin", rates=["24"])]),
            a_mode("Fast", window=[3000, 1688], row_time_us=4.0, formats=[a_format("HD", raster=[1920, 1080], rates=["120"])]),
        ],
        crops=[
            {"key": "s", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.25}]},
            {"key": "c", "name": "Small circle", "lens": "short_circle", "rules": [{"mode": "Full", "factor": 1.5}]},
            {"key": "l", "name": "Straight", "lens": "spherical", "rules": [{"mode": "Full", "factor": 1.1}]},
        ],
    )
)  # fmt: skip
PLAIN = BenchDelivery(aspect=16 / 9)


def small(*lenses):
    return kit_package([BODY], [lens(i, **changes) for i, changes in enumerate(lenses, 1)])


PRIMES = small({"name": "25", "focal": 25.0}, {"name": "50", "focal": 50.0})


def crop_ids(package):
    return {crop.name: crop.id for body in package.bodies for crop in body.crops}


def test_every_cell_says_what_the_public_evaluation_says():
    """Effective focal length, angle, coverage and dark share of 41 x 46 cells, asked one lens at a time."""
    ask = MatrixAsk(delivery=SCOPE, across="formats", crop_ids=[crop_ids(DEMO)["Lens correction"]])
    got = kit_matrix(DEMO, ask)
    places = list(DEMO.formats.values())
    checked = 0
    for row in got["rows"]:
        _, given = DEMO.lenses[row["lens_id"]]
        for figures, focal in ((row, given.focal_min_mm), (row["long"], given.focal_max_mm)):
            for j, place in enumerate(places):
                if figures is None or row["via"][j] is None:
                    continue
                way = row["ways"][row["via"][j]]
                if checked % 7 == 0:
                    one = _evaluated(given, focal, way["magnification"], place, ask)
                    angle = one["angle_deg"]["horizontal"]
                    assert figures["angle_deg"][j] == (
                        angle if angle is None else pytest.approx(angle, abs=1e-6)
                    )
                    assert figures["needed_mm"][j] == pytest.approx(one["coverage"]["needed_mm"], abs=1e-6)
                    assert figures["dark_share"][j] == pytest.approx(one["coverage"]["dark_share"], abs=1e-6)
                    if given.projection == "rectilinear":
                        assert figures["effective_mm"][j] == pytest.approx(
                            one["effective_focal_mm"], abs=1e-6
                        )
                checked += 1
    assert checked > 1500


def _evaluated(given, focal, magnification, place, ask):
    circle = given.circle_at_mm(focal)
    from hextan.core.equipment import LensOnBody

    covers = circle * magnification >= place.needed_circle_mm
    request = place.as_request(
        delivery=ask.delivery.for_recording(place.recording.raster, given.squeeze),
        switched_on=frozenset(ask.crop_ids), lens=LensOnBody(given.squeeze, covers))  # fmt: skip
    answer = evaluate({
        "lens": {"focal_mm": focal, "squeeze": given.squeeze, "image_circle_mm": circle, "projection": given.projection},
        "adapter": {"magnification": magnification}, "formats": [request],
    })  # fmt: skip
    return answer["formats"][0]


def test_formats_with_the_same_picture_stand_together():
    kit = kit_of(PRIMES, KitAsk(delivery=PLAIN))
    assert [[kit.places[j].recording.name for j in group] for group in pictures(kit)] == [
        ["UHD", "twin"],
        ["HD"],
    ]
    columns = kit_matrix(PRIMES, MatrixAsk(delivery=PLAIN))["columns"]
    assert [(c["name"], c["also"]) for c in columns] == [("UHD", ["twin"]), ("HD", [])]
    by_class = kit_matrix(PRIMES, MatrixAsk(delivery=PLAIN, across="classes"))["columns"]
    assert [c["format_class"] for c in by_class] == ["full frame", "four thirds"]


def test_in_camera_crops_act_by_their_conditions():
    """Any lens; not with a squeeze; only where the circle is short (36 x 20.25 needs 41.3 mm)."""
    kit = small({"name": "short", "image_circle_mm": 30.0}, {"name": "wide", "image_circle_mm": 46.0},
                {"name": "scope", "squeeze": 2.0, "image_circle_mm": 46.0})  # fmt: skip
    ids = crop_ids(kit)
    whole = kit_of(kit, KitAsk(delivery=PLAIN)).recorded_w[:, 0]

    def factors(*names):
        cropped = kit_of(kit, KitAsk(delivery=PLAIN, crop_ids=[ids[name] for name in names])).recorded_w[:, 0]
        return (whole / cropped).round(6).tolist()

    assert factors("Steady") == [1.25, 1.25, 1.25]
    assert factors("Straight") == [1.1, 1.1, 1.0]
    assert factors("Small circle") == [1.5, 1.0, 1.0]
    assert factors("Steady", "Straight") == [1.375, 1.375, 1.25]


def test_a_fisheye_has_an_angle_and_no_effective_focal_length():
    row = next(r for r in kit_matrix(DEMO, MatrixAsk())["rows"] if r["name"] == "Bowl 8 fisheye")
    assert set(row["effective_mm"]) == {None}
    assert any(angle is not None and angle > 100 for angle in row["angle_deg"])


def test_zero_margin_covers_and_so_does_less_that_nobody_sees():
    needed = math.hypot(36.0, 20.25)
    verdicts = [
        kit_matrix(small({"image_circle_mm": needed + extra}), MatrixAsk(delivery=PLAIN))["rows"][0][
            "verdict"
        ][0]
        for extra in (1e-9, -1e-9, needed * 0.0199, needed * 0.0201, needed * -0.018, needed * -0.02)
    ]
    # 16:9 leaves a thousandth of the picture dark where the circle is 1.91 % short: ½ (d (1 + a²) / a)², a = 16/9.
    assert verdicts == ["marginal", "marginal", "marginal", "covers", "marginal", "short"]


def test_nothing_in_the_kit_gives_an_empty_matrix():
    empty = kit_package([BODY], [])
    assert kit_matrix(empty, MatrixAsk())["rows"] == []
    assert kit_ladder(empty, LadderAsk())["rungs"] == []
    bare = kit_package([], [lens()])
    assert kit_matrix(bare, MatrixAsk())["columns"] == []
    assert kit_match(bare, MatchAsk())["rows"] == []
    none = kit_ladder(PRIMES, LadderAsk(least_fps=5000.0))
    assert none["words"] == ["No lens of the kit can be mounted and covers any of these formats at 5000 fps."]


def test_the_table_for_spreadsheets_has_a_row_for_every_cell():
    matrix = kit_matrix(PRIMES, MatrixAsk(delivery=PLAIN))
    lines = write_matrix(matrix).decode().splitlines()
    assert len(lines) == 1 + 2 * 2
    assert lines[1].startswith("Heron,25,directly,Skerry 60,Full,UHD,25,,17.285,")


def test_a_name_that_looks_like_a_formula_stays_text():
    matrix = kit_matrix(small({"name": "=1+1"}), MatrixAsk(delivery=PLAIN))
    assert ",'=1+1," in write_matrix(matrix).decode()


# The ladder


def test_two_primes_give_four_fields_and_the_gap_between_them():
    """25 and 50 on 36 mm (x0.691) and on 18 mm (x1.383): 17.3, 34.6, 34.6, 69.1."""
    got = kit_ladder(PRIMES, LadderAsk(delivery=PLAIN))
    assert [round(r["effective_mm"], 1) for r in got["rungs"]] == [17.3, 34.6, 34.6, 69.1]
    assert got["words"][0] == "Two lenses give three fields here."
    assert [(round(g["from_mm"], 1), round(g["to_mm"], 1)) for g in got["gaps"]] == [
        (17.3, 34.6),
        (34.6, 69.1),
    ]
    assert got["gaps"][0]["ratio"] == pytest.approx(2.0)
    assert "Nothing between 17.3 and 35 mm: a step of 2.00." in got["words"]
    assert "Nothing wider than 17.3 mm (25, UHD)." in got["words"]
    assert got["doubles"] == [
        {"effective_mm": pytest.approx(34.57, abs=0.01), "lenses": ["50", "25"], "fields": 2}
    ]


def test_a_gap_is_closed_by_steps_that_are_no_gaps():
    got = kit_ladder(PRIMES, LadderAsk(delivery=PLAIN, gap_ratio=1.3))
    gap = got["gaps"][0]
    chain = [gap["from_mm"], *(b["effective_mm"] for b in gap["buys"]), gap["to_mm"]]
    steps = [b / a for a, b in pairwise(chain)]
    assert max(steps) <= 1.3 + 1e-9
    assert len(steps) == math.ceil(math.log(2) / math.log(1.3))
    crop = 24.89 / 36.0
    assert gap["buys"][0]["focal_mm"] == pytest.approx(gap["buys"][0]["effective_mm"] / crop)


def test_a_gap_names_a_format_that_is_not_shown():
    uhd = format_named(PRIMES, "UHD")
    got = kit_ladder(PRIMES, LadderAsk(delivery=PLAIN, format_ids=[uhd], gap_ratio=1.2))
    assert [(e["lens"], e["format"]) for e in got["gaps"][0]["elsewhere"]] == []
    three = small({"name": "20", "focal": 20.0}, {"name": "80", "focal": 80.0})
    uhd = format_named(three, "UHD")
    gap = kit_ladder(three, LadderAsk(delivery=PLAIN, format_ids=[uhd]))["gaps"][0]
    assert [(e["lens"], e["format"]) for e in gap["elsewhere"]] == [("20", "HD")]


def test_a_zoom_fills_its_span():
    got = kit_ladder(small({"name": "Zoom", "focal": 20.0, "focal_long_mm": 80.0}), LadderAsk(delivery=PLAIN))
    assert got["gaps"] == []
    assert {round(r["effective_long_mm"] / r["effective_mm"], 6) for r in got["rungs"]} == {4.0}


def test_a_zoom_is_shown_along_the_part_of_its_range_that_covers():
    table = {
        "image_circle_mm": None,
        "circle_by": "focal",
        "circles": [{"at": 20.0, "circle_mm": 38.0}, {"at": 80.0, "circle_mm": 46.0}],
    }
    kit = small({"name": "Zoom", "focal": 20.0, "focal_long_mm": 80.0} | table)
    uhd = next(
        r
        for r in kit_ladder(kit, LadderAsk(delivery=PLAIN))["rungs"]
        if r["format_id"] == format_named(kit, "UHD")
    )
    # The whole of 36 x 20.25 mm needs 41.3 mm, which this circle reaches from 35.5 mm on: linear along log f.
    reaches = 20 * 4 ** ((math.hypot(36, 20.25) - 38) / 8)
    assert uhd["focal_mm"] == pytest.approx(reaches, rel=1e-6)
    assert uhd["effective_mm"] == pytest.approx(reaches * 24.89 / 36, rel=1e-6)
    assert uhd["effective_long_mm"] == pytest.approx(80 * 24.89 / 36)


def test_nothing_wider_at_a_high_rate():
    words = kit_ladder(PRIMES, LadderAsk(delivery=PLAIN, least_fps=100.0))["words"]
    assert "Nothing wider than 35 mm at 100 fps (25, HD)." in words
    assert any(text.startswith("No very wide and no wide") for text in words)


@pytest.mark.parametrize(
    ("width", "focal", "name"),
    [(24.89, 18, "wide"), (24.89, 24, "wide"), (24.89, 35, "normal"), (24.89, 50, "normal"), (24.89, 85, "long"),
     (36.0, 32, "wide"), (36.0, 65, "normal"), (36.0, 110, "long"), (54.0, 45, "wide"), (54.0, 90, "normal"),
     (54.0, 150, "long"), (12.5, 6, "very wide"), (12.5, 12, "wide"), (12.5, 16, "normal"), (12.5, 25, "normal"),
     (12.5, 50, "long"), (24.89, 14, "very wide"), (24.89, 300, "very long")],
)  # fmt: skip
def test_classes_by_angle_agree_with_usage(width, focal, name):
    """Wide / normal / long on Super 35, full frame, large 65 mm and Super 16 (common practice, no source)."""
    assert view_class(math.degrees(2 * math.atan(width / 2 / focal))) == name


def test_class_bounds_fall_and_stand_on_the_ladder():
    assert list(LEAST_ANGLE_DEG) == sorted(LEAST_ANGLE_DEG, reverse=True)
    classes = kit_ladder(PRIMES, LadderAsk(delivery=PLAIN))["classes"]
    assert classes[0]["to_mm"] == pytest.approx(18.0)
    assert classes[-1]["from_mm"] == pytest.approx(170.0)


# The nearest match


def brute_force(package, ask):
    """For every picture the lens whose field at infinity is nearest, by trying all of them at every setting."""
    kit = kit_of(package, ask)
    best = {}
    for j, place in enumerate(kit.places):
        for i, entry in enumerate(kit.entries):
            if not kit.mounts[i, j] or entry.lens.projection != "rectilinear":
                continue
            wide = float(kit.picture_w[i, j]) * entry.lens.squeeze
            needed = ask.focal_mm * wide / 36.0
            m = float(kit.magnification[i, j])
            tried = [entry.focal_mm]
            if entry.end == "wide":
                tried = np.geomspace(entry.lens.focal_min_mm, entry.lens.focal_max_mm, 4001).tolist()
            circles = [(f, entry.lens.circle_at_mm(f)) for f in tried]
            covering = [f for f, c in circles if c is None or c * m >= kit.needed_mm[i, j]]
            if not covering:
                continue
            off = min(abs(math.log(f * m / needed)) for f in covering)
            best[place.recording.id] = min(best.get(place.recording.id, math.inf), off)
    return best


@pytest.mark.parametrize("focal", [14.0, 27.0, 50.0, 85.0, 400.0])
@pytest.mark.parametrize("mounted", ["simplest", "every"])
def test_nearest_match_against_brute_force(focal, mounted):
    ask = MatchAsk(focal_mm=focal, delivery=SCOPE, mounted=mounted)
    expected = brute_force(DEMO, ask)
    for row in kit_match(DEMO, ask)["rows"]:
        near = row["nearest"]
        if row["format_id"] not in expected:
            assert near is None or not near["covers"]
            continue
        off = abs(math.log(near["focal_mm"] / near["needed_mm"]))
        # A zoom is tried in 4000 steps there, and set exactly here.
        assert off <= expected[row["format_id"]] + 1e-12
        assert off >= expected[row["format_id"]] - 1e-3


def test_errors_of_a_match_by_hand():
    """Like a 50 on full frame, on 36 mm: 50 itself; on 18 mm: 25 itself."""
    rows = {r["names"][0]: r for r in kit_match(PRIMES, MatchAsk(delivery=PLAIN))["rows"]}
    assert rows["UHD"]["nearest"]["lens"] == "50"
    assert rows["HD"]["nearest"]["lens"] == "25"
    for row in rows.values():
        assert row["nearest"]["error_mm"] == pytest.approx(0, abs=1e-9)
    off = {r["names"][0]: r for r in kit_match(PRIMES, MatchAsk(delivery=PLAIN, focal_mm=40.0))["rows"]}[
        "UHD"
    ]
    near = off["nearest"]
    assert (near["lens"], near["error_mm"]) == ("50", pytest.approx(10.0))
    assert near["width_percent"] == pytest.approx(-20.0)
    assert near["error_deg"] == pytest.approx(math.degrees(2 * math.atan(18 / 50) - 2 * math.atan(18 / 40)))
    assert [n["lens"] for n in off["neighbours"]] == ["25"]


def test_moving_makes_the_field_exact_and_changes_perspective():
    """Field = size / m at both places (thin lens), and size ratio of the background s / (s + b)."""
    ask = MatchAsk(delivery=PLAIN, focal_mm=40.0, subject_m=4.0, background_m=2.0)
    got = kit_match(PRIMES, ask)
    row = next(r for r in got["rows"] if r["names"][0] == "UHD")
    distance = row["move"]["distance_m"] * 1000
    s = (distance + math.sqrt(distance**2 - 4 * 50 * distance)) / 2
    assert 36.0 * (s - 50) / 50 / 1000 == pytest.approx(got["wanted"]["field_m"], rel=1e-9)
    before = (4000 + math.sqrt(4000**2 - 4 * 40 * 4000)) / 2
    assert row["move"]["background_ratio"] == pytest.approx(
        (s / (s + 2000)) / (before / (before + 2000)), rel=1e-9
    )
    assert row["move"]["by_m"] > 0
    assert "back makes the field exact" in row["move"]["text"]
    assert "larger against the subject" in row["move"]["text"]


def test_close_focus_forbids_a_move():
    kit = small({"name": "25", "focal": 25.0, "close_focus_m": 2.0})
    text = kit_match(kit, MatchAsk(delivery=PLAIN, subject_m=1.0, focal_mm=30.0))["rows"][0]["move"]["text"]
    assert "does not focus nearer than 2.00 m" in text


def test_a_nearer_lens_that_does_not_cover_is_named():
    kit = small(
        {"name": "50", "focal": 50.0, "image_circle_mm": 30.0},
        {"name": "65", "focal": 65.0, "image_circle_mm": 46.0},
    )
    row = next(r for r in kit_match(kit, MatchAsk(delivery=PLAIN))["rows"] if r["names"][0] == "UHD")
    assert row["nearest"]["lens"] == "65"
    assert row["not_covering"]["lens"] == "50"


@settings(max_examples=examples(25), deadline=None)
@given(k=st.floats(0.5, 2.0))
def test_scaling_the_wanted_lens_and_the_kit_scales_the_answer(k):
    primes = [{"name": str(f), "focal": f * k} for f in (20.0, 35.0, 60.0)]
    a = kit_match(
        small(*[p | {"focal": p["focal"] / k} for p in primes]), MatchAsk(delivery=PLAIN, focal_mm=40.0)
    )
    b = kit_match(small(*primes), MatchAsk(delivery=PLAIN, focal_mm=40.0 * k))
    for one, other in zip(a["rows"], b["rows"], strict=True):
        assert one["nearest"]["lens"] == other["nearest"]["lens"]
        assert other["nearest"]["error_mm"] == pytest.approx(one["nearest"]["error_mm"] * k, abs=1e-9)


# Slow motion


def test_slow_motion_finds_the_field_of_the_base_again():
    """A 50 on 36 mm is a 25 on 18 mm: the kit has it; a 25 would need 12.5, which it has not."""
    got = slow_motion(PRIMES, SlowAsk(delivery=PLAIN, base_format_id=format_named(PRIMES, "UHD")))
    assert [r["names"] for r in got["rows"]] == [["HD"]]
    lines = {line["lens"]: line for line in got["rows"][0]["lines"]}
    assert lines["50"]["nearest"]["lens"] == "25"
    assert lines["50"]["nearest"]["same"] is True
    assert lines["25"]["needed_mm"] == pytest.approx(12.5)
    assert lines["25"]["nearest"]["same"] is False
    assert got["rows"][0]["text"] == "25 would need 12.5 mm; the widest is 25.0 mm."
    assert got["words"][0].startswith("At 100 fps HD of Skerry 60 keeps the most: 1 of 2 lenses")


def test_slow_motion_without_a_fast_format_says_so():
    base = format_named(PRIMES, "UHD")
    assert slow_motion(PRIMES, SlowAsk(base_format_id=base, fps=9000.0))["words"] == [
        "No format of this package reaches 9000 fps."
    ]
    with pytest.raises(InvalidInputError, match="The base format is no longer in this production"):
        slow_motion(PRIMES, SlowAsk(base_format_id=10**9))


def test_asks_are_checked():
    with pytest.raises(ValidationError, match=r"greater than or equal to 1\.05"):
        LadderAsk.model_validate({"gap_ratio": 1.0})
    with pytest.raises(ValidationError, match="not permitted"):
        MatrixAsk.model_validate({"nonsense": 1})
    with pytest.raises(InvalidInputError, match="The window of reference is no longer in this production"):
        kit_of(DEMO, KitAsk(reference=BenchReference(name="scan_mode", scan_mode_id=10**9)))


def test_a_reference_of_ones_own_is_what_everything_is_told_against():
    """By hand: a 40 on a picture w wide is like 40 * 23.5 / w on a width of 23.5 mm."""
    own = BenchReference(name="own", own=OwnWindow(name="half", width_mm=23.5, height_mm=18.0))
    picture = kit_matrix(DEMO, MatrixAsk(reference=own))
    plain = kit_matrix(DEMO, MatrixAsk())
    row, column = next(
        (r, c) for r in range(len(plain["rows"])) for c in range(len(plain["columns"])) if plain["rows"][r]["effective_mm"][c]
    )  # fmt: skip
    told, super35 = (m["rows"][row]["effective_mm"][column] for m in (picture, plain))
    assert told == pytest.approx(super35 * 23.5 / 24.89)
    with pytest.raises(ValidationError, match="window in own"):
        BenchReference(name="own")
    with pytest.raises(ValidationError, match="window in own"):
        BenchReference(name="super35", own=own.own)


def test_part_of_the_kit():
    wren = next(s.id for s in DEMO.lens_sets if s.name == "Wren")
    ebb = next(b.id for b in DEMO.bodies if b.name == "Ebb 64")
    kit = kit_of(DEMO, KitAsk(lens_set_ids=[wren], body_ids=[ebb]))
    assert {e.lens_set.name for e in kit.entries} == {"Wren"}
    assert {p.body.name for p in kit.places} == {"Ebb 64"}
    assert kit.verdict.shape == (10, 19)
    assert set(np.unique(kit.verdict).tolist()) <= set(range(len(VERDICTS)))
    assert lens_named(DEMO, "Wren 40") in {e.lens.id for e in kit.entries}


@pytest.mark.parametrize(
    ("low", "high", "off"), [(50.0, 50.0, -20.0), (32.0, 32.0, 25.0), (20.0, 60.0, 0.0), (50.0, 90.0, -20.0)]
)
def test_a_longer_lens_shows_less_and_a_shorter_one_more(low, high, off):
    """40 mm are wanted: 50 show 40/50 of the field, 32 show 40/32; a zoom goes as near as it can."""
    assert Candidate(0, low, high, 40.0, covers=True).size_percent == pytest.approx(off)


def test_a_column_carries_the_rate_of_the_format_that_it_is_named_by():
    """Two formats of one picture, the first to 30 and the second to 120: no title may say that the first goes to 120."""
    formats = [
        a_format("6K raw", raster=[6000, 3375], rates=["24-30"]),
        a_format("HD", raster=[1920, 1080], rates=["24-120"]),
    ]
    body = parse_body(a_body([a_mode("Full", window=[6000, 3375], formats=formats, row_time_us=2.0)]))
    kit = kit_package([body], [lens(1)])
    (column,) = kit_matrix(kit, MatrixAsk(delivery=PLAIN))["columns"]
    assert (column["name"], column["also"], column["highest_fps"], column["faster"]) == (
        "6K raw",
        ["HD"],
        30,
        "HD 120 (readout 139.86) fps",
    )
    one = kit_matrix(kit, MatrixAsk(delivery=PLAIN, across="formats"))["columns"]
    assert [(c["highest_fps"], c["faster"]) for c in one] == [(30, ""), (120, "")]
    (picture,) = kit_ladder(kit, LadderAsk(delivery=PLAIN))["pictures"]
    assert (picture["highest_fps"], picture["faster"]) == (30, "HD 120 (readout 139.86) fps")
