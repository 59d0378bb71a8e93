"""The finder picture against OpenCV (positions) and traced rays (discs)."""

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from hextan.core.bench.finder_picture import viewfinder
from hextan.core.bench.scene import Scene, SceneObject, head_height_m, middle_m, outlines_m
from hextan.core.evaluation import compute, parse_request
from tests.budget import examples

SUBJECT_M = 3.2


def evaluated(focal=40.0, n=2.0, focus=SUBJECT_M, squeeze=1.0, circle=31.5, offset=(0, 0), projection="rectilinear",
              p=1.0, delivery=None):  # fmt: skip
    return compute(parse_request({
        "subject": {"distance_m": focus},
        "lens": {"focal_mm": focal, "f_number": n, "squeeze": squeeze, "image_circle_mm": circle,
                 "projection": projection, "pupil_magnification": p},
        "formats": [{"sensor": {"photosites": [6240, 3510], "pitch_um": 5.9},
                     "window": {"photosites": [4320, 2430], "offset": list(offset)},
                     "recording": {"raster": [3840, 2160]},
                     "delivery": delivery or {"aspect": 2.39, "protect": 0.05}}]}))  # fmt: skip


def lamp(distance=9.0, aside=1.2, height=2.4, size=0.2, ground=0.0, kind="lamp"):
    return SceneObject(key="x", kind=kind, name="lamp", distance_m=distance, aside_m=aside, height_m=height,
                       size_m=size, ground_m=ground)  # fmt: skip


def picture(result, *objects, **scene):
    coc = float(result.coc_mm[0])
    return viewfinder(result, 0, Scene(objects=list(objects), **scene), SUBJECT_M, coc)


def found(view, key="x"):
    return next(o for o in view["objects"] if o["key"] == key)


def outlines_drawn(thing, drawn):
    """The outlines as finely as they were drawn."""
    points = [len(part["points"]) for part in drawn["parts"]]
    return next(o for o in (outlines_m(thing, n) for n in (1, 2, 3)) if [len(p) for _, p in o] == points)


@pytest.mark.parametrize("share, head", [(0.1, 16), (0.6, 32), (4.0, 64)])
def test_what_is_larger_in_the_picture_is_drawn_more_finely(share, head):
    """And never farther from the finest outline than a five-hundredth of the picture's height."""
    result = evaluated()
    tall = 1.8 * 1000 * 40 / (share * 13.5) / 1000
    person = lamp(kind="standing", height=1.8, distance=tall)
    drawn = found(picture(result, person))["parts"]
    assert len(drawn[1]["points"]) == head
    finest = outlines_m(person, 3)[0][1]
    per_m = share / 1.8
    shown = next(
        o for o in (outlines_m(person, n)[0][1] for n in (1, 2, 3)) if len(o) == len(drawn[0]["points"])
    )
    far = Polygon(finest).exterior.hausdorff_distance(Polygon(shown).exterior)
    assert far * per_m < 1 / 500


@pytest.mark.parametrize("kind", ["standing", "seated", "lamp", "post"])
@pytest.mark.parametrize("squeeze", [1.0, 2.0])
@pytest.mark.parametrize("focal", [12.0, 40.0, 135.0])
def test_positions_against_opencv(kind, squeeze, focal):
    """cv2.projectPoints with the pupil as its centre and the image distance as its focal length."""
    result = evaluated(focal=focal, squeeze=squeeze, p=1.3)
    thing = lamp(kind=kind, ground=-0.4)
    drawn = found(picture(result, thing, camera_height_m=1.2))
    t = result.traced
    m, origin = float(t.magnification), float(t.origin_mm)
    image = focal * (1 + m / 1.3)
    for (name, outline), part in zip(outlines_drawn(thing, drawn), drawn["parts"], strict=True):
        assert part["part"] == name
        # OpenCV counts x right, y down, z forward.
        world = np.column_stack((thing.aside_m + outline[:, 0], 1.2 - thing.ground_m - outline[:, 1],
                                 np.full(len(outline), thing.distance_m - origin / 1000)))  # fmt: skip
        camera = np.diag([image, image, 1.0])
        expected, _ = cv2.projectPoints(world.astype(float), np.zeros(3), np.zeros(3), camera, None)
        assert np.allclose(np.array(part["points"]), expected[:, 0], atol=1e-3)


def test_equidistant_positions_against_opencv():
    result = evaluated(focal=8.0, projection="equidistant", focus=5.0)
    thing = lamp(distance=2.0, aside=1.5, height=2.2)
    drawn = found(picture(result, thing))
    origin = float(np.broadcast_to(result.traced.origin_mm, 1)[0])
    outline = outlines_drawn(thing, drawn)[0][1]
    world = np.column_stack(
        (1.5 + outline[:, 0], 1.55 - outline[:, 1], np.full(len(outline), 2.0 - origin / 1000))
    )
    expected, _ = cv2.fisheye.projectPoints(world[None].astype(float), np.zeros(3), np.zeros(3),
                                            np.diag([8.0, 8.0, 1.0]), np.zeros(4))  # fmt: skip
    assert np.allclose(np.array(drawn["parts"][0]["points"]), expected[0], atol=1e-3)


@pytest.mark.parametrize("squeeze", [1.0, 1.33, 1.8, 2.0])
@pytest.mark.parametrize("distance", [1.1, 2.4, 9.0, 400.0])
def test_discs_against_traced_rays(squeeze, distance):
    """Rays from the point through both edges of the pupil, met with the sensor: vertically by the lens, horizontally
    by a lens whose focal length and pupil are shorter by the squeeze; the de-squeezed width is what is drawn."""
    focal, n = 50.0, 2.0
    result = evaluated(focal=focal, n=n, squeeze=squeeze)
    drawn = found(picture(result, lamp(distance=distance, aside=0.0)))
    t = result.traced
    z, origin, m = float(t.pupil_z_mm), float(t.origin_mm), float(t.magnification)
    z_b = distance * 1000 - origin

    def spread(pupil, magnification):
        """Where rays through the pupil's edges pass the plane of focus, imaged onto the sensor."""
        edge = np.array([-pupil / 2, pupil / 2])
        at_focus = edge * (1 - z / z_b)
        return float(abs(at_focus[1] - at_focus[0]) * magnification)

    assert drawn["blur"]["height"] == pytest.approx(spread(focal / n, m), rel=1e-9)
    across = spread(focal / n / squeeze, m / squeeze) * squeeze
    assert drawn["blur"]["width"] == pytest.approx(across, rel=1e-9)
    assert drawn["sharp"] is (drawn["blur"]["height"] <= float(result.coc_mm[0]))


def test_a_lamp_gets_no_disc_where_it_is_in_focus():
    drawn = found(picture(evaluated(), lamp(distance=SUBJECT_M)))
    assert drawn["blur"]["height"] == pytest.approx(0.0, abs=1e-12)
    assert drawn["sharp"] is True


@settings(max_examples=examples(60))
@given(st.floats(0.9, 40), st.floats(0.9, 400))
def test_size_goes_with_the_distance_from_the_pupil(near, far):
    result = evaluated()
    origin = float(result.traced.origin_mm) / 1000
    one, other = (found(picture(result, lamp(distance=d, kind="post"))) for d in (near, far))
    # Points are written to 0.1 micrometres.
    expected = (far - origin) / (near - origin)
    assert one["height_share"] / other["height_share"] == pytest.approx(expected, rel=2e-3)
    ratio = (SUBJECT_M - origin) / (far - origin)
    assert other["size_ratio"] == pytest.approx(ratio, rel=1e-9)


def test_frames_lie_about_the_window_and_the_circle_about_the_axis():
    view = picture(evaluated(offset=(600, -400), squeeze=1.5), frames=[4 / 3, 9 / 16, 2.39], title_safe=True)
    x, y = 600 * 0.0059 * 1.5, -400 * 0.0059
    frames = [view["recorded"], view["picture"], view["framed"], view["title_safe"], *view["others"]]
    for frame in frames:
        assert frame["x"] + frame["width"] / 2 == pytest.approx(x)
        assert frame["y"] + frame["height"] / 2 == pytest.approx(y)
    assert view["framed"]["width"] == pytest.approx(0.95 * view["picture"]["width"])
    # 90 % of width and height: SMPTE ST 2046-1, from memory.
    assert view["title_safe"]["height"] == pytest.approx(0.9 * view["picture"]["height"])
    assert [f["width"] / f["height"] for f in view["others"]] == pytest.approx([4 / 3, 9 / 16, 2.39])
    assert all(f["height"] <= view["recorded"]["height"] * (1 + 1e-9) for f in view["others"])
    assert view["circle"] == pytest.approx({"rx": 31.5 * 1.5 / 2, "ry": 31.5 / 2})
    assert picture(evaluated(circle=None))["circle"] is None


def test_what_lies_behind_the_camera_is_not_drawn_and_far_comes_first():
    view = picture(evaluated(), lamp(distance=0.03), SceneObject(key="b", kind="shore", name="far shore",
                                                                   distance_m=300.0, height_m=8.0))  # fmt: skip
    assert found(view)["parts"] == []
    assert [o["key"] for o in view["objects"]] == ["b", "subject", "x"]
    # A level camera: a shore's foot on the camera's ground lies below the horizon, by height over distance.
    foot = max(y for _, y in found(view, "b")["parts"][0]["points"])
    z = 300_000 - float(evaluated().traced.origin_mm)
    assert foot == pytest.approx(1550 * view["image_mm"] / z, abs=1e-3)


def test_perspective_in_numbers():
    """FORMULAS: size of the background over that of the subject = s/(s+d), from the camera's place alone."""
    view = picture(evaluated(), lamp(distance=2 * SUBJECT_M, kind="post"))
    z = view["perspective"]["pupil_to_subject_m"]
    assert found(view)["size_ratio"] == pytest.approx(z / (z + SUBJECT_M))
    assert view["perspective"]["face_ratio"] == pytest.approx((z + 0.095) / (z - 0.025))
    assert view["perspective"]["caution"] is None
    close = picture(evaluated(), face_caution_m=3.5)["perspective"]
    assert "faces look stretched nearer than 3.50 m" in close["caution"]
    other = picture(evaluated(focal=85.0), lamp(distance=2 * SUBJECT_M, kind="post"))
    assert found(other)["size_ratio"] == pytest.approx(found(view)["size_ratio"], rel=0.02)


@pytest.mark.parametrize("posture", ["standing", "seated"])
def test_people_have_their_height(posture):
    person = lamp(kind=posture, height=1.80)
    top = max(float(points[:, 1].max()) for _, points in outlines_m(person))
    assert top == pytest.approx(1.80 if posture == "standing" else 1.80 * 0.771, rel=0.003)
    assert middle_m(person) == head_height_m(posture, 1.80)
    body = outlines_m(person)[0][1]
    # Breadth with the arms hanging a little over a quarter of the height: common practice, no source.
    assert float(np.ptp(body[:, 0])) == pytest.approx(0.27 * 1.80, rel=0.05)
