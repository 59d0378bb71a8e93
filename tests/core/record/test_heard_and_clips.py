"""What is on a camera by what it says, and what a clip is of: held against figures and cases made here."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.compare import match_stop
from hextan.core.record.belongs import shot_of, take_of
from hextan.core.record.cameras import kept_match, live_held
from hextan.core.record.clips import clips_held, fitting
from hextan.core.record.document import Clip, ClipFacts
from hextan.core.record.figures import found_of, state_of
from hextan.core.record.heard import Heard, on_camera, windows_of
from hextan.core.record.planned import on_by_plan, picture_of
from tests.budget import examples
from tests.core.record.days import SHOTS, on, planned_on, take
from tests.core.sheets.material import demo
from tests.core.sheets.test_sheets import thin_lens_limits

M = demo()
PITCH = 5.82e-3


def says(**more):
    plain = {"body": "Ebb 64", "lens": "Merrow 65", "read_mm": (6432 * PITCH, 6432 * 1714 / 4096 * PITCH), "raster": (4096, 1714),
             "fps": 25.0, "ei": 800, "shutter_deg": 180.0, "t_stop": 2.0, "focus_m": 3.3}  # fmt: skip
    return Heard(**plain | more)


def live(heard, shot="12B", last=None):
    return live_held(M.package, M.settings, SHOTS[shot], "Ebb 64", heard, last)


def test_a_camera_that_does_as_planned_is_silent():
    found = live(says())
    assert (found["on"].format, found["on"].mode, found["notes"]) == ("Scope → 4096", "Full scope 6.4K", [])
    assert found["held"]["differences"] == []


def test_every_window_of_every_body_is_known_by_its_millimetres():
    for body in M.package.bodies:
        for window in windows_of(M.package, body.name):
            heard = Heard(
                read_mm=(round(window.wide_mm, 3), round(window.high_mm, 3)),
                raster=tuple(window.here.recording.raster),
            )
            on_it, notes = on_camera(M.package, body.name, heard, None, None)
            assert notes == []
            twins = [w for w in windows_of(M.package, body.name) if w.here.recording.raster == window.here.recording.raster
                     and math.isclose(w.wide_mm, window.wide_mm, rel_tol=4e-3) and math.isclose(w.high_mm, window.high_mm, rel_tol=4e-3)]  # fmt: skip
            assert (on_it.format, on_it.crops) in [(w.here.recording.name, list(w.crops)) for w in twins]


def test_a_stabiliser_is_known_by_what_it_takes():
    factor = 1.06
    found = live(says(read_mm=(6432 * PITCH / factor, 6432 * 1714 / 4096 * PITCH / factor)))
    assert found["on"].crops == ["Stabiliser, standard"]
    assert [d["headline"] for d in found["held"]["differences"]] == [
        "STABILISER, STANDARD IS ON, planned off"
    ]


def test_what_it_cannot_say_is_taken_from_what_was_booked_and_then_from_the_plan():
    bare = says(lens=None, t_stop=None, focus_m=None)
    booked = on("12B", lens="Merrow 40", stop=4.0, nd_stops=1.0, card="A7")
    assert live(bare, last=booked)["on"].lens == "Merrow 40"
    assert (live(bare, last=booked)["on"].nd_stops, live(bare, last=booked)["on"].card) == (1.0, "A7")
    assert live(bare)["on"].lens == planned_on("12B").lens
    # What was booked on another body says nothing of this one.
    assert live(bare, last=booked.model_copy(update={"body": "Skiff 46"}))["on"].lens == ""


def test_a_de_squeeze_that_is_not_the_lenses_is_told():
    scope = next(lens.name for _, lens in M.package.lenses.values() if lens.squeeze == 2.0)
    (found,) = list(live(says(squeeze=2.0))["held"]["differences"])
    assert (found["headline"], found["effects"]) == (
        "DE-SQUEEZED 2x, the lens has 1x",
        ["the finder shows everything too wide"],
    )
    codes = [d["code"] for d in live(says(lens=scope, squeeze=2.0))["held"]["differences"]]
    assert "squeeze" not in codes
    assert "squeeze" in [d["code"] for d in live(says(lens=scope, squeeze=1.0))["held"]["differences"]]


def test_a_window_that_is_in_no_plan_is_told_and_guessed_at_by_nobody():
    found = live(says(read_mm=(20.0, 11.25)))
    assert found["on"].format == ""
    assert found["notes"] == ["No recording format of Ebb 64 is 20.00 × 11.25 mm at 4096 × 1714 pixels."]
    assert live(says(lens="Heron 35"))["notes"] == ["The lens Heron 35 is not in the package."]


def test_an_f_number_is_told_as_the_ring_is_marked():
    glass = next(lens for _, lens in M.package.lenses.values() if lens.name == "Merrow 65")
    found = live(says(t_stop=None, f_number=2.0))
    assert found["on"].stop == pytest.approx(2.0 * glass.t_stop / glass.f_number, abs=1e-3)


def test_the_stop_that_keeps_a_match_has_the_depth_of_the_other():
    """Depth as a share of the picture: 1/near - 1/far of both, worked out with the textbook's formulas."""
    a = on("12B", stop=4.0, focus_m=3.0)
    cut = {"mode": "S35 4.3K", "format": "S35 → 4096 17:9"}
    b = on("13B", lens="Merrow 50", stop=2.0, focus_m=3.0, adapters=[], focal_mm=None, **cut)
    states = [state_of(M.package, each, picture_of(M.settings), M.package.reference) for each in (a, b)]
    found = match_stop(M.package, *states)
    depths = []
    for each, t, wide_px in ((a, 4.0, 6432), (b, found["exact_stop"], 4352)):
        glass = next(lens for _, lens in M.package.lenses.values() if lens.name == each.lens)
        wide = wide_px * PITCH
        coc = math.hypot(wide, wide / 2.39) / 1500
        f = glass.focal_min_mm
        near, far = thin_lens_limits(f, t * glass.f_number / glass.t_stop, coc, 3000.0)
        # From the lens, not from the sensor: what lies behind the lens is what its image distance is.
        behind = 3000.0 - (3000.0 + math.sqrt(3000.0**2 - 4 * 3000.0 * f)) / 2
        depths.append(1 / (near - behind) - 1 / (far - behind))
    assert depths[1] == pytest.approx(depths[0], rel=2e-3)
    told = kept_match(M.package, M.settings, ("A", a, SHOTS["12B"]), ("B", b, SHOTS["13B"]))
    assert told["told"].startswith(f"T{found['stop']:.3g} keeps the depth of camera A")
    same = kept_match(
        M.package,
        M.settings,
        ("A", a, SHOTS["12B"]),
        ("B", b.model_copy(update={"stop": found["stop"]}), SHOTS["13B"]),
    )
    assert same["told"].startswith("As deep as camera A")
    deep, shallow = (
        on("12B", lens="Merrow 18", stop=11.0, focus_m=3.0),
        on("12B", lens="Merrow 135", stop=2.5, focus_m=3.0),
    )
    none = kept_match(M.package, M.settings, ("A", deep, None), ("B", shallow, None))
    assert none["told"].startswith("No stop of Merrow 135 keeps the depth of camera A: ")
    assert kept_match(M.package, M.settings, ("A", a, None), ("B", on("12B", lens="gone"), None)) is None


def clip(name, at=None, **facts):
    plain = {"name": name, "raster": [4096, 1714], "fps": 25.0} | facts
    return Clip(key=f"c-{abs(hash(name))}", at=at or "2026-05-18T22:00:00Z", offset_min=60, written_at="2026-05-18T23:00:00Z", unit="A", day="1",
                facts=ClipFacts.model_validate(plain | ({"at": at} if at else {})))  # fmt: skip


TAKES = [take("t1", "12B", 1, at="20:10:00"), take("t2", "12B", 2, at="20:20:00"), take("t3", "12C", 1, at="20:30:00"),
         take("t12", "12B", 12, at="21:00:00")]  # fmt: skip


@pytest.mark.parametrize(
    ("given", "key", "how"),
    [
        (clip("12B_T2.mov"), "t2", "by its name"),
        (clip("12b-02 ines.mov"), "t2", "by its name"),
        (clip("quay 12B take 12.mov"), "t12", "by its name"),
        (clip("12B_T1.mov"), "t1", "by its name"),
        (clip("112B_T1.mov"), None, ""),
        (clip("A001C004.mov", timecode="21:19:20:00", seconds=35.0), "t2", "by its time code"),
        (clip("A001C005.mov", at="2026-05-18T20:29:10Z", seconds=40.0), "t3", "by the time"),
        (clip("A001C006.mov", at="2026-05-18T03:00:00Z", seconds=40.0), None, ""),
        (clip("A001C007.mov"), None, ""),
    ],
)
def test_a_take_is_found_by_name_by_time_code_or_by_time(given, key, how):
    found, told = take_of(given, TAKES)
    assert (None if found is None else found.key, told) == (key, how)
    elsewhere = given.model_copy(update={"unit": "B"})
    assert take_of(elsewhere, TAKES) == (None, "")


def test_the_width_in_pixels_proves_the_mode_where_one_mode_writes_it():
    raw, told = fitting(M.package, ClipFacts(name="x", body="Ebb 64", raster=[4352, 2448]))
    assert ([p.recording.name for p in raw], told) == (["S35 4.3K raw"], "")
    both, told = fitting(M.package, ClipFacts(name="x", body="Ebb 64", raster=[3840, 2160]))
    assert {p.mode.name for p in both} == {"Full 6.4K", "S35 4.3K"}
    assert "the file alone does not tell" in told.lower()
    # What it says of the sensor tells them apart.
    one, told = fitting(
        M.package,
        ClipFacts(
            name="x", body="Ebb 64", raster=[3840, 2160], read_mm=[4352 * PITCH, 4352 * 9 / 16 * PITCH]
        ),
    )
    assert ({p.mode.name for p in one}, told) == ({"S35 4.3K"}, "")
    none, told = fitting(M.package, ClipFacts(name="x", raster=[4000, 2000]))
    assert none == []
    assert "No recording format writes 4000 × 2000; nearest is" in told
    assert fitting(M.package, ClipFacts(name="x"))[1] == "The file does not say its raster."


def held(*clips, takes=TAKES):
    return clips_held(M.package, M.settings, M.shots, list(takes), list(clips))


def test_a_run_of_clips_with_the_crop_on_is_told_from_when_to_when():
    at = [f"2026-05-18T{clock}:00Z" for clock in ("20:09", "20:19", "20:29")]
    crop = {"raster": [4096, 2160], "body": "Ebb 64", "read_mm": [4352 * PITCH, 4352 * 2160 / 4096 * PITCH]}
    found = held(
        clip("12B_T1.mov", at[0]), clip("12B_T2.mov", at[1], **crop), clip("12C_T1.mov", at[2], **crop)
    )
    assert [c["differences"][0]["headline"] if c["differences"] else "" for c in found["clips"]] == [
        "",
        "CROP IS ON, planned off",
        "CROP IS ON, planned off",
    ]
    # Both frame like another length than planned by as much; so it is one run.
    assert (
        next((r["told"].split(":")[0] + r["told"].split(": ")[0][-3:], r["clips"]) for r in found["runs"])[1]
        == 2
    )
    assert found["runs"][0]["told"].startswith(
        "from 21:19 to 21:29, 2 files: CROP IS ON, planned off; 4096 × 2160, 8.8 MP, instead of 4096 × 1714, 7.0 MP; "
        "read from 10.0 MP of the sensor instead of 17.3"
    )


def test_a_raster_that_several_modes_write_proves_none_of_them():
    (found,) = held(clip("12B_T1.mov", raster=[1920, 1080], body="Ebb 64"))["clips"]
    (difference,) = found["differences"]
    assert difference["headline"] == "1920 × 1080, planned Scope → 4096"
    assert difference["effects"][0] == "1920 × 1080, 2.1 MP, instead of 4096 × 1714, 7.0 MP"
    assert "the file does not tell" in difference["effects"][1]


def test_what_the_file_says_counts_before_the_log_and_both_are_told():
    (found,) = held(clip("12B_T1.mov", body="Ebb 64", lens="Merrow 40", t_stop=4.0))["clips"]
    assert {d["code"] for d in found["differences"]} == {"lens", "stop"}
    assert found["against_log"] == [
        "lens: the file says Merrow 40, the log Merrow 65",
        "stop: the file says T4, the log 2",
    ]


def verdict(found):
    return found["verdict"], found["take_told"], found["found_by"]


def test_a_file_of_which_no_take_was_logged_is_compared_with_its_shot():
    by_name, by_time, between, other = held(
        clip("13A_pickup.mov", raster=[1920, 1080], body="Ebb 64"),
        clip("A001C090.mov", at="2026-05-18T21:05:00Z", raster=[4096, 1714]),
        clip("A001C091.mov", at="2026-05-18T20:27:00Z", raster=[3936, 2624]),
        clip("12_x.mov"),
        takes=[t for t in TAKES if t.key != "t3"],
    )["clips"]  # fmt: skip
    assert verdict(by_name) == ("not_planned", "13A", "by its name")
    # A take of it was logged within the ten minutes before, and none of another shot since.
    assert verdict(by_time) == ("as_planned", "12B", "by the time")
    # 12 is no shot, and 12A is another one: it is held against what the day has.
    assert other["take_told"].startswith("as for 12A") and other["verdict"] == "as_planned"
    assert between["differences"][0]["headline"].startswith("NO RECORDING FORMAT WRITES 3936 × 2624")
    found, how = shot_of(clip("x.mov", at="2026-05-18T20:15:00Z"), M.shots.shots, TAKES[:2])
    assert (found.name, how) == ("12B", "by the time")
    assert shot_of(clip("x.mov", at="2026-05-18T20:45:00Z"), M.shots.shots, TAKES[:2]) == (None, "")


def test_a_file_of_which_nothing_is_known_is_compared_with_what_the_day_has():
    odd, slow, empty = held(
        clip("C0001.mov", raster=[1920, 1080]), clip("C0002.mov", fps=48.0), clip("C0003.mov", raster=None, fps=None), takes=[]
    )["clips"]  # fmt: skip
    assert odd["differences"][0]["headline"] == "1920 × 1080 IS PLANNED FOR NO SHOT of the day"
    assert slow["differences"][0]["headline"].startswith("48 fps IS PLANNED FOR NO SHOT of the day")
    assert (empty["verdict"], empty["why"]) == ("unknown", "the file does not say its raster")
    nowhere = clip("C0004.mov").model_copy(update={"day": "99"})
    (found,) = held(nowhere, takes=[])["clips"]
    assert found["why"] == "no shot is known of it, and nothing is planned for camera A on day 99"


def test_a_file_that_cannot_be_read_is_in_the_number_of_those_that_cannot_be_compared():
    broken = clip("12B_T9.mov", raster=None, fps=None, unread="12B_T9.mov is cut off: its index is missing.")
    found = held(clip("12B_T1.mov"), broken)
    assert found["told"].startswith(
        "2 files: 1 as planned, 0 not, 1 cannot be compared: the file cannot be read"
    )
    (_, told) = found["clips"]
    assert told["fit_told"] == "12B_T9.mov is cut off: its index is missing."
    # Listed again once it can be, it counts once.
    assert held(broken, clip("12B_T9.mov"))["told"] == "1 file: 1 as planned, 0 not."


def test_bits_fields_and_codec_are_compared_and_not_only_looked_for():
    (on,) = [shot for shot in M.shots.shots if shot.name == "12B"]
    planned = on_by_plan(M.package, M.settings, on)
    of = found_of(M.package, planned).here.recording
    assert (of.bits, of.interlaced) == (12, False)
    assert held(clip("12B_T1.mov", bits=12, interlaced=False))["as_planned"] == 1
    (coarse,) = held(clip("12B_T1.mov", bits=8))["clips"]
    assert [d["headline"] for d in coarse["differences"]] == ["8 BIT, planned 12 bit"]
    (fields,) = held(clip("12B_T1.mov", interlaced=True))["clips"]
    assert fields["differences"][0]["headline"] == "INTERLACED, planned progressive"


def test_a_camera_that_numbers_its_clips_is_followed_by_reel_and_time():
    on_reel = [
        t.model_copy(update={"on": t.on.model_copy(update={"card": card})})
        for t, card in zip(TAKES, ("A002", "A003", "A003", "A002"), strict=True)
    ]
    timed, counted, none = held(
        clip("A003C002_0518.mov", at="2026-05-18T20:24:50Z", seconds=5.0), clip("A003C002.mov"), clip("A003C009.mov"), takes=on_reel
    )["clips"]  # fmt: skip
    # Nearer in time is the take of another reel.
    assert (timed["take"], timed["found_by"]) == ("t3", "by its reel and the time")
    assert (counted["take"], counted["found_by"]) == ("t3", "by its reel and number")
    assert none["take"] is None


@settings(max_examples=examples(120), deadline=None)
@given(
    st.lists(
        st.builds(
            lambda name, raster, fps, at, reel: clip(
                name, **({"at": f"2026-05-18T{at}:00Z"} if at else {}), raster=raster, fps=fps, reel=reel
            ),
            st.sampled_from(
                [
                    "12B_T1.mov",
                    "12B_T9.mov",
                    "12C.mov",
                    "A001C001.mov",
                    "x.jpg",
                    "13A 2.mov",
                    "99Z_T1.mov",
                    "112B.mov",
                ]
            ),
            st.sampled_from([[4096, 1714], [1920, 1080], [3936, 2624], [3840, 2160], None]),
            st.sampled_from([25.0, 48.0, 23.976, None]),
            st.sampled_from(["", "20:11", "20:31", "03:00"]),
            st.sampled_from(["", "A003"]),
        ),
        max_size=7,
    ),
    st.sets(st.integers(0, 3)),
)
def test_every_file_of_a_random_folder_is_in_one_of_three_numbers(clips, logged):
    found = held(*clips, takes=[TAKES[i] for i in sorted(logged)])
    counted = [found["as_planned"], found["not_planned"], found["unknown"]]
    assert sum(counted) == len(found["clips"]) == len(clips)
    for each in found["clips"]:
        # What differs is not as planned; what cannot be compared says why; what is as planned was held against something.
        assert (each["verdict"] == "not_planned") == bool(each["differences"])
        assert (each["verdict"] == "unknown") == (bool(each["why"]) and not each["differences"])
        assert each["verdict"] != "as_planned" or each["take_told"]
        raster = each["facts"].raster
        if raster is not None and not each["fits"]:
            assert "NO RECORDING FORMAT WRITES" in each["differences"][0]["headline"]
    if clips:
        assert found["told"].startswith(f"{len(clips)} file")
        assert f"{counted[0]} as planned, {counted[1]} not" in found["told"]
        assert ("cannot be compared" in found["told"]) == (counted[2] > 0)
