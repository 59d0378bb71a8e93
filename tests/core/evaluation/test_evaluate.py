"""The public evaluation format: its answers, its refusals, and what must hold for any input."""

import copy
import json
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core import evaluate
from hextan.core.base import CannotFocusError, InvalidInputError
from hextan.core.evaluation.notes import CODES
from tests.budget import examples

FORMAT = {
    "id": "s35-uhd",
    "sensor": {"photosites": [6240, 3510], "pitch_um": 5.9},
    "window": {"photosites": [4320, 2430], "offset": [0, 0]},
    "sampling": {"horizontal": 1, "vertical": 1, "method": "full"},
    "timing": {"row_time_us": 6.6, "overhead_us": 400, "max_fps": None},
    "recording": {"raster": [3840, 2160], "map": "scale", "raw": False, "interlaced": False, "fps": 25,
                  "shutter_deg": 180},
    "crops": [{"name": "stabiliser", "factor": 1.1}],
    "delivery": {"aspect": 2.39, "raster": [3840, 1607], "protect": 0.05},
}  # fmt: skip
REQUEST = {
    "reference": {"name": "super35", "by": "width"},
    "subject": {"distance_m": 3.2, "measured_from": "sensor_plane", "width_m": None, "height_m": None},
    "background_m": [5.1, None],
    "lens": {"focal_mm": 40, "f_number": 2.0, "t_stop": 2.1, "squeeze": 1.0, "image_circle_mm": 31.5,
             "close_focus_m": 0.6, "pupil_magnification": 1.0, "projection": "rectilinear"},
    "adapter": {"magnification": 1.0},
    "coc": {"rule": "picture_diagonal", "divisor": 1500},
    "formats": [FORMAT],
}  # fmt: skip


def asking(**changes):
    """The example request with dotted paths changed: asking(lens__focal_mm=50)."""
    request = copy.deepcopy(REQUEST)
    for path, value in changes.items():
        *steps, last = path.split("__")
        target = request
        for step in steps:
            target = target["formats"][0] if step == "format" else target[step]
        target[last] = value
    return request


def row(**changes):
    return evaluate(asking(**changes))["formats"][0]


def codes(**changes):
    return [note["code"] for note in row(**changes)["notes"]]


def test_the_example_by_hand():
    """Each figure redone with a pocket calculator's steps."""
    got = row()
    width, height = 4320 * 0.0059 / 1.1, 2430 * 0.0059 / 1.1
    assert got["window_mm"]["width"] == pytest.approx(25.488)
    assert got["recorded_mm"] == pytest.approx(
        {"width": width, "height": height, "diagonal": math.hypot(width, height)}
    )
    assert got["picture_mm"]["height"] == pytest.approx(width / 2.39)
    assert got["framed_mm"]["width"] == pytest.approx(width * 0.95)
    assert got["crop"]["total"] == got["crop"]["by_width"] == pytest.approx(24.89 / width)
    assert [link["name"] for link in got["crop"]["links"]] == ["readout", "stabiliser"]
    assert got["crop"]["links"][0]["factor"] == pytest.approx(24.89 / 25.488)
    assert got["effective_focal_mm"] == pytest.approx(40 * 24.89 / width)
    assert got["angle_deg"]["horizontal"] == pytest.approx(2 * math.degrees(math.atan(width / 80)))
    s_minus_f = 40 / got["magnification"]
    assert s_minus_f + 40 + 40 * (1 + got["magnification"]) == pytest.approx(3200)
    assert got["field_m"]["width"] == pytest.approx(width / got["magnification"] / 1000)
    assert got["depth"]["coc_mm"] == pytest.approx(math.hypot(width, width / 2.39) / 1500)
    assert got["coverage"]["margin_mm"] == pytest.approx(31.5 - math.hypot(width, height))
    assert got["speed"]["max_fps"] == pytest.approx(1e6 / (2430 * 6.6 + 400))
    assert got["speed"]["readout_ms"] == pytest.approx(2430 * 6.6 / 1000)
    assert got["pixels"].pop("sampled") == [4320, 2430]
    assert got["pixels"] == pytest.approx(
        {
            "megapixels": 10.4976,
            "recorded_megapixels": 8.2944,
            "picture_megapixels": 8.2944 * 16 / 9 / 2.39,
            "oversampling": 4320 / 1.1 / 3840,
            "delivery_headroom": 1.0,
        }
    )
    assert got["notes"] == []


def test_three_doors_agree_to_the_last_digit():
    assert evaluate(REQUEST) == evaluate(json.dumps(REQUEST)) == evaluate(json.dumps(REQUEST).encode())


@pytest.mark.parametrize("by", ["width", "height", "diagonal"])
@pytest.mark.parametrize("squeeze", [1.0, 2.0])
def test_links_multiply_to_the_total(by, squeeze):
    got = row(reference__by=by, lens__squeeze=squeeze, format__delivery={"aspect": 2.0})["crop"]
    assert math.prod(link["factor"] for link in got["links"]) == pytest.approx(got["total"], rel=1e-12)
    assert got["total"] == got[f"by_{by}"]


def test_squeeze_widens_the_angle_and_keeps_the_sensor():
    flat, scope = row(format__delivery=None), row(lens__squeeze=2.0, format__delivery=None)
    assert flat["recorded_mm"] == scope["recorded_mm"]
    half = math.tan(math.radians(flat["angle_deg"]["horizontal"] / 2))
    assert math.tan(math.radians(scope["angle_deg"]["horizontal"] / 2)) == pytest.approx(2 * half)
    assert scope["angle_deg"]["vertical"] == flat["angle_deg"]["vertical"]
    assert scope["coverage"] == flat["coverage"]


def test_raster_trims_the_longer_side_only():
    """Some bodies cut 17:9 down to 16:9: narrower by 4096/3840 = 1.067."""
    whole = row(format__window={"photosites": [4096, 2160]}, format__crops=[], format__delivery=None)
    assert whole["window_mm"]["width"] / whole["recorded_mm"]["width"] == pytest.approx(4096 / 3840)
    assert whole["window_mm"]["height"] == whole["recorded_mm"]["height"]
    assert [link["name"] for link in whole["crop"]["links"]] == ["readout", "recording"]


def test_photosite_for_pixel_takes_the_centre():
    got = row(format__recording={"raster": [1920, 1080], "map": "crop"}, format__crops=[])
    assert got["recorded_mm"]["width"] == pytest.approx(1920 * 0.0059)
    assert got["pixels"]["oversampling"] == pytest.approx(1.0)


def test_binned_samples_count_as_pixels():
    got = row(
        format__sampling={"horizontal": 2, "vertical": 2, "method": "binned"},
        format__recording={"raster": [1920, 1080], "map": "crop"},
        format__crops=[],
    )
    assert got["recorded_mm"]["width"] == pytest.approx(2 * 1920 * 0.0059)
    assert got["pixels"]["sampled"] == [2160, 1215]
    assert got["speed"]["max_fps"] == pytest.approx(1e6 / (1215 * 6.6 + 400))


@pytest.mark.parametrize(
    ("rule", "expected"),
    [
        ({"rule": "picture_diagonal", "divisor": 1730}, math.hypot(25.488, 14.337) / 1730),
        ({"rule": "fixed", "mm": 0.0254}, 0.0254),
        ({"rule": "photosite"}, 2 * 0.0059),
        ({"rule": "pixel"}, 25.488 / 3840),
        ({"rule": "eye", "picture_heights": 2.0}, 14.337 * 2 * math.tan(math.radians(1 / 60))),
    ],
)
def test_every_rule_for_the_circle_of_confusion(rule, expected):
    got = row(coc=rule, format__crops=[], format__delivery=None)
    assert got["depth"]["coc_mm"] == pytest.approx(expected)


def test_field_sets_the_distance():
    got = row(subject={"width_m": 2.0})
    assert got["field_m"]["width"] == pytest.approx(2.0)
    back = row(subject={"distance_m": got["subject_distance_m"]})
    assert back["field_m"]["width"] == pytest.approx(2.0)
    from_lens = row(subject={"height_m": 0.8, "measured_from": "lens"})
    assert from_lens["field_m"]["height"] == pytest.approx(0.8)


def test_unknowns_are_null_and_never_zero():
    got = evaluate({"lens": {"focal_mm": 40}, "formats": [{"window": {"width_mm": 24.9, "height_mm": 18.7}}]})
    one = got["formats"][0]
    assert got["lens"] == {"optical_focal_mm": 40, "f_number": None, "t_stop": None, "image_circle_mm": None}
    assert one["field_m"] == {"width": None, "height": None}
    assert {k: v for k, v in one["depth"].items() if k != "coc_mm"} == dict.fromkeys(
        ("near_m", "far_m", "total_m", "hyperfocal_m", "airy_mm", "diffraction_limited")
    )
    assert one["coverage"]["covers"] is None
    assert set(one["speed"].values()) == {None}
    assert set(one["pixels"].values()) == {None}
    json.dumps(got, allow_nan=False)


def test_far_limit_at_infinity_is_null():
    got = row(subject={"distance_m": 200.0})["depth"]
    assert got["far_m"] is None
    assert got["total_m"] is None
    assert got["near_m"] < got["hyperfocal_m"] < 200


def test_adapter_changes_the_lens_not_the_crop():
    plain, reduced = evaluate(REQUEST), evaluate(asking(adapter={"magnification": 0.71}))
    assert reduced["lens"] == pytest.approx(
        {"optical_focal_mm": 28.4, "f_number": 1.42, "t_stop": 1.491, "image_circle_mm": 22.365}
    )
    assert reduced["formats"][0]["crop"] == plain["formats"][0]["crop"]
    assert reduced["formats"][0]["coverage"]["covers"] is False


def test_fisheye_follows_its_own_law():
    got = row(lens__projection="equidistant", lens__focal_mm=10, format__crops=[], format__delivery=None)
    assert got["angle_deg"]["horizontal"] == pytest.approx(math.degrees(25.488 / 10))
    assert got["field_m"] == {"width": None, "height": None}
    assert got["angle_at_focus_deg"]["horizontal"] is None
    assert "fisheye_axis" in [n["code"] for n in got["notes"]]
    beyond = row(lens__projection="orthographic", lens__focal_mm=8, format__crops=[])
    assert beyond["angle_deg"]["horizontal"] is None
    assert "beyond_projection" in [n["code"] for n in beyond["notes"]]


@pytest.mark.parametrize(
    ("code", "changes"),
    [
        ("close_focus", {"subject": {"distance_m": 0.5}}),
        ("close_focus", {"subject": {"width_m": 0.1}}),
        ("coverage_short", {"lens__image_circle_mm": 20.0}),
        ("coverage_marginal", {"lens__image_circle_mm": 26.7}),
        ("rate_too_high", {"format__recording": {"raster": [3840, 2160], "fps": 100}}),
        ("rate_too_high", {"format__recording": {"raster": [3840, 2160], "fps": 50, "interlaced": True}}),
        ("binned", {"format__sampling": {"horizontal": 2, "vertical": 2, "method": "binned"}}),
        ("skipped", {"format__sampling": {"vertical": 3, "method": "skipped"}}),
        ("upscaled", {"format__recording": {"raster": [4096, 2304]}}),
        ("delivery_upscaled", {"format__recording": {"raster": [1920, 1080]}}),
        ("diffraction", {"lens__f_number": 22.0}),
        ("close_up_light", {"subject": {"distance_m": 0.2}}),
        ("t_stop_used", {"lens__f_number": None}),
        ("fisheye_axis", {"lens__projection": "equisolid"}),
        ("beyond_projection", {"lens__projection": "orthographic", "lens__focal_mm": 8}),
    ],
)
def test_notes(code, changes):
    assert code not in codes()
    assert code in codes(**changes)
    assert code in CODES


def test_coverage_note_names_what_is_dark():
    got = row(lens__image_circle_mm=26.0, format__window={"photosites": [4320, 2430], "offset": [100, 0]})
    text = next(n["text"] for n in got["notes"] if n["code"] == "coverage_short")
    assert text.startswith("The 26.0 mm circle is 1.7 mm short: top right, bottom right dark, ")


REFUSALS = {
    "window outside its sensor": (
        {"format__window": {"photosites": [6400, 3600]}},
        "formats[0].window: the window is 37.76 x 21.24 mm but the sensor is 36.82 x 20.71 mm: it reaches 0.47 mm too "
        "far across and 0.27 mm too far up and down (given: [6400, 3600]).",
    ),
    "window moved outside": (
        {"format__window": {"photosites": [6000, 3510], "offset": [200, 0]}},
        "formats[0].window: the window is 35.40 x 20.71 mm, moved by 200, 0, but the sensor is 36.82 x 20.71 mm: it "
        "reaches 0.47 mm too far across (given: [6000, 3510]).",
    ),
    "crop on raw": (
        {"format__recording": {"raster": [4320, 2430], "raw": True}},
        "formats[0].crops: a raw recording is unaltered sensor data, so in-camera crops cannot act on it "
        "(given: ['stabiliser']).",
    ),
    "zero": ({"lens__focal_mm": 0}, "lens.focal_mm: must be greater than 0.5 (given: 0)."),
    "negative": ({"lens__f_number": -2.8}, "lens.f_number: must be at least 0.3 (given: -2.8)."),
    "NaN": ({"lens__focal_mm": math.nan}, "lens.focal_mm: must be a finite number (given: nan)."),
    "absurd": ({"lens__focal_mm": 1e9}, "lens.focal_mm: must be at most 5000 (given: 1000000000.0)."),
    "text": ({"lens__focal_mm": "40"}, "lens.focal_mm: must be a number (given: '40')."),
    "truth value": ({"lens__focal_mm": True}, "lens.focal_mm: must be a number (given: True)."),
    "unknown key": ({"format__windw": 1}, "formats[0].windw: is not a key of this format (given: 1)."),
    "unknown projection": (
        {"lens__projection": "fish"},
        "lens.projection: must be one of 'rectilinear', 'equidistant', 'equisolid', 'stereographic' or "
        "'orthographic' (given: 'fish').",
    ),
    "parameter of another rule": (
        {"coc": {"rule": "fixed", "mm": 0.025, "divisor": 1500}},
        "coc.divisor: is not a key of this format (given: 1500).",
    ),
    "two wishes": (
        {"subject": {"distance_m": 2, "width_m": 1}},
        "subject: give one of distance_m, width_m and height_m (given: {'distance_m': 2, 'width_m': 1}).",
    ),
    "raster too large to crop": (
        {"format__recording": {"raster": [4400, 2160], "map": "crop"}},
        "formats[0].recording.raster: map crop takes photosites for pixels, and this window has 4320 x 2430 samples "
        "(given: [4400, 2160]).",
    ),
    "field of a fisheye": (
        {"lens__projection": "equisolid", "subject": {"width_m": 1.0}},
        "subject.width_m: a fisheye has no flat field whose size could set the distance; give distance_m (given: 1.0).",
    ),
    "background behind": (
        {"background_m": [0.01]},
        "background_m[0]: lies behind the lens's entrance pupil, where nothing can be seen (given: 0.01).",
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSALS)
def test_refusals_name_field_value_and_rule(name):
    changes, message = REFUSALS[name]
    with pytest.raises(InvalidInputError) as refused:
        evaluate(asking(**changes))
    assert refused.value.message == message
    assert refused.value.faults[0].field == message.split(": ")[0]


def test_cannot_focus_is_never_a_number():
    with pytest.raises(CannotFocusError) as refused:
        evaluate(asking(lens__focal_mm=100, subject={"distance_m": 0.39999}))
    assert refused.value.message == (
        "Cannot focus. subject.distance_m: a 100 mm lens forms no image of anything nearer than four focal lengths "
        "from the sensor plane, 0.40 m (1' 3½\") (given: 0.39999). Move the subject away or take a shorter lens."
    )
    with pytest.raises(CannotFocusError, match="one focal length in front of it"):
        evaluate(asking(lens__focal_mm=100, subject={"distance_m": 0.1, "measured_from": "lens"}))


@pytest.mark.parametrize("text", [b"", b"{", b"[1,", b"nonsense", b"\xff\xfe"])
def test_text_that_is_no_json(text):
    with pytest.raises(InvalidInputError, match="request: is not valid JSON"):
        evaluate(text)


def test_a_bad_request_does_not_spoil_the_others():
    good = evaluate(REQUEST)
    got = evaluate(json.dumps([REQUEST, {"lens": {}}, 7, REQUEST]))
    assert got[0] == got[3] == good
    assert got[1]["error"]["code"] == "invalid_input"
    assert [f["field"] for f in got[1]["error"]["faults"]] == ["lens.focal_mm", "formats"]
    assert got[2]["error"]["message"] == "request: must be an object with named fields (given: 7)."


SIZE = st.floats(4, 60)
SETUP = {
    "focal": st.floats(6, 400), "number": st.floats(1, 22), "metres": st.floats(2, 500), "width": SIZE, "height": SIZE
}  # fmt: skip


def _plain(focal, number, metres, width, height, coc_mm):
    return {
        "subject": {"distance_m": metres},
        "lens": {"focal_mm": focal, "f_number": number, "t_stop": number},
        "coc": {"rule": "fixed", "mm": coc_mm},
        "formats": [{"window": {"width_mm": width, "height_mm": height}}],
    }


@given(**SETUP, k=st.floats(0.3, 3))
@settings(max_examples=examples(80), deadline=None)
def test_scaling_everything_scales_the_results(focal, number, metres, width, height, k):
    one = evaluate(_plain(focal, number, metres, width, height, 0.025))["formats"][0]
    other = evaluate(_plain(focal * k, number, metres * k, width * k, height * k, 0.025 * k))["formats"][0]
    assert other["magnification"] == pytest.approx(one["magnification"], rel=1e-9)
    assert other["angle_at_focus_deg"] == pytest.approx(one["angle_at_focus_deg"], rel=1e-9)
    assert other["depth"]["near_m"] == pytest.approx(one["depth"]["near_m"] * k, rel=1e-9)
    assert (other["depth"]["far_m"] is None) == (one["depth"]["far_m"] is None)
    if one["depth"]["far_m"] is not None:
        assert other["depth"]["far_m"] == pytest.approx(one["depth"]["far_m"] * k, rel=1e-6)


@given(**SETUP)
@settings(max_examples=examples(80), deadline=None)
def test_near_subject_far(focal, number, metres, width, height):
    got = evaluate(_plain(focal, number, metres, width, height, 0.025))["formats"][0]["depth"]
    assert got["near_m"] < metres
    assert got["far_m"] is None or got["far_m"] > metres


@given(**SETUP, factor=st.floats(1, 4))
@settings(max_examples=examples(80), deadline=None)
def test_cropping_keeps_exposure_and_never_widens(focal, number, metres, width, height, factor):
    request = _plain(focal, number, metres, width, height, 0.025)
    whole = evaluate(request)
    request["formats"][0]["crops"] = [{"name": "crop", "factor": factor}]
    cropped = evaluate(request)
    assert cropped["lens"] == whole["lens"]  # f-number, T-stop and focal length: what exposure hangs on
    for axis in ("horizontal", "vertical", "diagonal"):
        assert cropped["formats"][0]["angle_deg"][axis] <= whole["formats"][0]["angle_deg"][axis] * (
            1 + 1e-12
        )


@given(width=SIZE, height=SIZE, offset=st.integers(-400, 400), squeeze=st.sampled_from([1.0, 1.33, 2.0]),
       wider=st.integers(0, 300))  # fmt: skip
@settings(max_examples=examples(80), deadline=None)
def test_a_wider_window_never_narrows_the_angle(width, height, offset, squeeze, wider):
    def angle(photosites):
        return evaluate({
            "lens": {"focal_mm": 35, "squeeze": squeeze},
            "formats": [{
                "sensor": {"photosites": [20000, 20000], "pitch_um": 5.0},
                "window": {"photosites": [photosites, round(height * 200)], "offset": [offset, -offset]},
            }],
        })["formats"][0]["angle_deg"]  # fmt: skip

    narrow, wide = angle(round(width * 200)), angle(round(width * 200) + wider)
    assert wide["horizontal"] >= narrow["horizontal"]
    assert wide["diagonal"] >= narrow["diagonal"]
    assert wide["vertical"] == pytest.approx(narrow["vertical"], rel=1e-12)
