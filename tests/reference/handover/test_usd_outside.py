"""USD layers held against the standard's own library (usd-core): they open, and its camera projects as the finder does."""

import math
from dataclasses import replace

import pytest

from hextan.core.bench import compute_bench, viewfinder
from hextan.core.handover import setups_of
from hextan.formats import usd
from tests.core.kits import format_named, lens_named
from tests.core.sheets.material import demo

pxr = pytest.importorskip("pxr")


def opened(data):
    from pxr import Sdf, Usd

    layer = Sdf.Layer.CreateAnonymous(".usda")
    assert layer.ImportFromString(data.decode())
    return Usd.Stage.Open(layer)


def state(**changes):
    m = demo()
    return m.bench.model_copy(update=changes)


@pytest.mark.parametrize(
    ("lens", "at", "changes"),
    [
        ("Merrow 40", "S35 → UHD", {"subject_m": 3.2}),
        ("Merrow 25", "Full → UHD", {"subject_m": 1.1, "focus_m": 2.0}),
        ("Longshore 2x 50", "6:5 → 2592", {"subject_m": 4.0}),
        ("Reach 19–92", "S35 → UHD", {"subject_m": 6.0, "focal_mm": 80.0}),
    ],
)
def test_the_camera_of_the_layer_projects_as_the_finder_does(lens, at, changes):
    """Heads, lamps and posts, projected by the library's frustum, lie where the finder draws them, to a hundredth of the picture's width."""
    from pxr import Gf, Usd, UsdGeom

    m = demo()
    body = "Ebb 64"
    bench = state(format_id=format_named(m.package, at, body), lens_id=lens_named(m.package, lens), **changes)
    (facts,), without = setups_of("bench", m.package, m.settings, bench)
    assert without == []
    stage = opened(usd.write([facts], "Low Water"))
    assert UsdGeom.GetStageMetersPerUnit(stage) == 0.01
    assert UsdGeom.GetStageUpAxis(stage) == "Y"
    camera = UsdGeom.Camera(stage.GetPrimAtPath("/Setups/Bench/Camera"))
    shot = camera.GetCamera(Usd.TimeCode.Default())
    assert shot.focalLength == pytest.approx(facts["focal_mm"], rel=1e-6)
    assert shot.fStop == pytest.approx(facts["f_number"], rel=1e-6)
    # The aperture is the picture, less what focusing extends the lens.
    assert shot.horizontalAperture * facts["image_mm"] / facts["focal_mm"] == pytest.approx(
        facts["wide_mm"], rel=1e-5
    )
    assert shot.focusDistance / 100 + facts["pupil_m"] == pytest.approx(facts["focus_m"], rel=1e-5)
    found = compute_bench(m.package, bench, format_ids=())
    seen = viewfinder(found.evaluation, 0, bench.scene, bench.subject_m, float(found.evaluation.coc_mm[0]))
    frame = seen["picture"]
    project = shot.frustum.ComputeViewMatrix() * shot.frustum.ComputeProjectionMatrix()
    checked = 0
    for thing in seen["objects"]:
        if thing["at"] is None or thing["kind"] not in ("lamp", "post"):
            continue
        source = next(t for t in facts["things"] if t["key"] == thing["key"])
        up = source["ground_m"] + (source["height_m"] if thing["kind"] == "lamp" else source["height_m"] / 2)
        point = project.Transform(Gf.Vec3d(source["aside_m"] * 100, up * 100, -source["distance_m"] * 100))
        x = frame["x"] + (point[0] + 1) / 2 * frame["width"]
        y = frame["y"] + (1 - point[1]) / 2 * frame["height"]
        assert (x, y) == pytest.approx(thing["at"], abs=frame["width"] / 100 * 0.01)
        prim = stage.GetPrimAtPath(
            f"/Setups/Bench/{usd._names([t['name'] for t in facts['things']])[facts['things'].index(source)]}"
        )
        place = (
            UsdGeom.Xformable(prim).ComputeLocalToWorldTransform(Usd.TimeCode.Default()).ExtractTranslation()
        )
        assert tuple(place) == pytest.approx((source["aside_m"] * 100, up * 100, -source["distance_m"] * 100))
        checked += 1
    assert checked >= 3


def test_discs_are_those_of_the_finder():
    """A renderer's disc from the layer's figures alone: aperture f/N, focus and apertures; against the finder's, as shares of the width."""
    m = demo()
    (facts,), _ = setups_of("bench", m.package, m.settings, state(subject_m=2.0, stop=2.8))
    found = compute_bench(m.package, state(subject_m=2.0, stop=2.8), format_ids=())
    seen = viewfinder(found.evaluation, 0, m.bench.scene, 2.0, 0.02)
    lamp = next(t for t in seen["objects"] if t["kind"] == "lamp")
    z = (lamp["distance_m"] - facts["pupil_m"]) * 1000
    s = facts["focus_from_pupil_m"] * 1000
    pupil = facts["focal_mm"] / facts["f_number"]
    aperture = facts["wide_mm"] * facts["focal_mm"] / facts["image_mm"]
    disc = pupil * abs(1 / s - 1 / z) * facts["focal_mm"]
    assert disc / aperture == pytest.approx(lamp["blur"]["height"] / seen["picture"]["width"], rel=1e-3)


def test_all_shots_open_with_one_shown():
    from pxr import UsdGeom

    m = demo()
    setups, without = setups_of("shots", m.package, m.settings, m.bench, m.comparisons, m.shots)
    assert len(setups) + len(without) == 40
    stage = opened(usd.write(setups, 'Low "Water"\n'))
    shown = [UsdGeom.Imageable(p).ComputeVisibility() for p in stage.GetPrimAtPath("/Setups").GetChildren()]
    assert shown == ["inherited", *["invisible"] * (len(setups) - 1)]
    assert sum(p.GetTypeName() == "Camera" for p in stage.Traverse()) == len(setups)


def test_layers_that_the_library_writes_are_read():
    """Apertures, focal length and place of cameras that the library wrote itself, in its own layout, in metres."""
    from pxr import Gf, Usd, UsdGeom

    stage = Usd.Stage.CreateInMemory()
    UsdGeom.SetStageMetersPerUnit(stage, 1.0)
    UsdGeom.Xform.Define(stage, "/Set")
    camera = UsdGeom.Camera.Define(stage, "/Set/A_cam")
    # Tenths of a unit: with metres a 40 mm lens is 0.4.
    camera.GetFocalLengthAttr().Set(0.4)
    camera.GetHorizontalApertureAttr().Set(0.2533)
    camera.GetFStopAttr().Set(2.8)
    camera.GetFocusDistanceAttr().Set(3.0)
    UsdGeom.Xformable(camera).AddTranslateOp().Set(Gf.Vec3d(0, 1.55, 0))
    moving = UsdGeom.Camera.Define(stage, "/Set/B_cam")
    moving.GetFocalLengthAttr().Set(0.25, Usd.TimeCode(1001))
    moving.GetFocalLengthAttr().Set(0.5, Usd.TimeCode(1024))
    text = stage.GetRootLayer().ExportToString()
    a, b = usd.read(text.encode())
    assert (a.name, b.name) == ("A_cam", "B_cam")
    assert (a.focal_mm, a.wide_mm, a.f_number, a.focus_m) == pytest.approx((40, 25.33, 2.8, 3.0), rel=1e-6)
    assert a.camera_height_m == pytest.approx(1.55)
    assert b.focal_mm == pytest.approx(25.0)
    assert math.isclose(replace(a, name="x").focal_mm, 40, rel_tol=1e-6)
