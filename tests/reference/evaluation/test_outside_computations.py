"""The core against general libraries that know nothing of it: OpenCV, USD, SymPy, SciPy, shapely, mpmath."""

import cv2
import mpmath
import numpy as np
import pytest
from pxr import Gf
from scipy.optimize import brentq
from shapely.geometry import Point, box
from sympy import Rational
from sympy.physics.optics.gaussopt import FreeSpace, GeometricRay, ThinLens

from hextan.core.optics import angles, conjugates, coverage, depth, trace

SIZES = [(36.0, 24.0), (25.488, 14.337), (12.52, 7.41), (54.1, 25.6)]
FOCALS = [8.0, 24.0, 50.0, 300.0]


@pytest.mark.parametrize(("width", "height"), SIZES)
@pytest.mark.parametrize("focal", FOCALS)
def test_angles_agree_with_opencv(width, height, focal):
    """OpenCV calibrationMatrixValues, camera matrix in pixels of 1/1000 mm."""
    camera = np.array([[focal * 1000, 0, width * 500], [0, focal * 1000, height * 500], [0, 0, 1]])
    fov_x, fov_y, *_ = cv2.calibrationMatrixValues(
        camera, (round(width * 1000), round(height * 1000)), width, height
    )
    t = trace(wide_mm=width, high_mm=height, focal_mm=focal)
    assert float(t.angle_w_deg) == pytest.approx(fov_x, rel=1e-9)
    assert float(t.angle_h_deg) == pytest.approx(fov_y, rel=1e-9)


@pytest.mark.parametrize(("width", "height"), SIZES)
@pytest.mark.parametrize("focal", FOCALS)
def test_angles_agree_with_a_usd_camera(width, height, focal):
    """USD Gf.Camera (float32 apertures); off-centre windows through its frustum."""
    camera = Gf.Camera()
    camera.horizontalAperture, camera.verticalAperture, camera.focalLength = width, height, focal
    t = trace(wide_mm=width, high_mm=height, focal_mm=focal)
    assert float(t.angle_w_deg) == pytest.approx(camera.GetFieldOfView(Gf.Camera.FOVHorizontal), rel=1e-5)
    assert float(t.angle_h_deg) == pytest.approx(camera.GetFieldOfView(Gf.Camera.FOVVertical), rel=1e-5)
    camera.horizontalApertureOffset = 3.0
    window = camera.frustum.window
    sides = np.degrees(np.arctan(window.max[0]) - np.arctan(window.min[0]))
    assert float(angles.angle_of_view_deg(width, focal, 3.0)) == pytest.approx(sides, rel=1e-5)


def test_off_centre_diagonal_agrees_with_ray_directions():
    """OpenCV undistortPoints gives the ray of each corner; the angle between opposite rays is the answer."""
    w, h, dx, dy, f = 24.0, 13.5, 2.0, -1.5, 28.0
    corners = np.array(
        [[[dx + sx * w / 2, dy + sy * h / 2]] for sx, sy in ((-1, -1), (1, 1), (1, -1), (-1, 1))]
    )
    rays = cv2.undistortPoints(corners, np.diag([f, f, 1.0]), None).reshape(-1, 2)
    rays = np.column_stack((rays, np.ones(4)))
    rays /= np.linalg.norm(rays, axis=1)[:, None]
    expected = max(np.degrees(np.arccos(rays[0] @ rays[1])), np.degrees(np.arccos(rays[2] @ rays[3])))
    assert float(angles.view_angles_deg(w, h, f, dx, dy)[2]) == pytest.approx(expected, rel=1e-9)


@pytest.mark.parametrize("radius", [2.0, 8.0, 13.0])
def test_equidistant_fisheye_agrees_with_opencv(radius):
    """OpenCV's fisheye model without distortion is the equidistant projection."""
    focal = 8.0
    camera = np.diag([focal, focal, 1.0])
    point = cv2.fisheye.undistortPoints(np.array([[[radius, 0.0]]]), camera, np.zeros(4))
    if radius / focal < np.pi / 2:
        assert float(angles.field_angle_rad(radius, focal, "equidistant")) == pytest.approx(
            np.arctan(point[0, 0, 0]), rel=1e-6
        )
    else:
        assert float(angles.field_angle_rad(radius, focal, "equidistant")) == radius / focal


@pytest.mark.parametrize("projection", ["equisolid", "stereographic", "orthographic", "equidistant"])
def test_fisheye_laws_invert(projection):
    """The forward laws r(theta), as in the literature, evaluated with mpmath."""
    forward = {
        "equidistant": lambda a: a,
        "equisolid": lambda a: 2 * mpmath.sin(a / 2),
        "stereographic": lambda a: 2 * mpmath.tan(a / 2),
        "orthographic": mpmath.sin,
    }[projection]
    for theta in (0.01, 0.7, 1.5):
        r = float(10 * forward(mpmath.mpf(theta)))
        assert float(angles.field_angle_rad(r, 10.0, projection)) == pytest.approx(theta, rel=1e-12)


def _traced_height(point_mm, lens_mm, sensor_mm, focal, slope):
    """Height on the sensor of a ray from an axial point, through a thin lens (SymPy ray matrices)."""
    path = FreeSpace(sensor_mm) * ThinLens(focal) * FreeSpace(lens_mm - point_mm)
    return (path * GeometricRay(0, slope)).height


@pytest.mark.parametrize(("focal", "distance"), [(50, 3000), (24, 600), (100, 400), (200, 25000)])
def test_conjugates_agree_with_ray_matrices(focal, distance):
    """A marginal ray from the subject must meet the axis at the sensor, whatever its slope."""
    m = float(conjugates.magnification_from_sensor(float(focal), float(distance)))
    image = focal * (1 + m)
    height = _traced_height(0, distance - image, image, focal, Rational(1, 50))
    assert float(height) == pytest.approx(0, abs=1e-9)
    path = FreeSpace(image) * ThinLens(focal) * FreeSpace(distance - image)
    assert float(path.A) == pytest.approx(-m, rel=1e-9)  # lateral magnification


@pytest.mark.parametrize("point", [800.0, 2500.0, 4000.0, 50000.0])
def test_blur_agrees_with_traced_marginal_rays(point):
    """SymPy: rays from an axial point to both edges of the aperture, measured at the sensor."""
    focal, number, distance = 50.0, 2.0, 3000.0
    t = trace(wide_mm=36.0, high_mm=24.0, focal_mm=focal, distance_mm=distance)
    m = float(t.magnification)
    image = focal * (1 + m)
    to_lens = point - image
    edge = focal / number / 2
    height = float(_traced_height(0, to_lens, image, focal, edge / to_lens))
    disc = float(depth.blur_disc_mm(t.pupil_z_mm, point - t.origin_mm, focal, m, number))
    assert disc == pytest.approx(2 * abs(height), rel=1e-9)


@pytest.mark.parametrize("p", [0.5, 1.0, 2.0])
@pytest.mark.parametrize(("focal", "number", "distance"), [(50, 2.8, 3000), (24, 8, 1000), (100, 4, 600)])
def test_depth_limits_by_root_finding(focal, number, distance, p):
    """SciPy brentq on blur(z) = c, with the blur from similar triangles at the entrance pupil."""
    c = 0.025
    t = trace(wide_mm=36.0, high_mm=24.0, focal_mm=focal, distance_mm=distance, f_number=number, coc_mm=c,
              pupil_magnification=p)  # fmt: skip
    z, m, pupil = float(t.pupil_z_mm), float(t.magnification), focal / number

    def excess(x):  # pupil seen from the point, cut by the plane of focus, imaged with m
        return m * pupil * abs(x - z) / x - c

    near = brentq(excess, z * 1e-3, z, xtol=1e-9, rtol=1e-13)
    assert float(t.near_mm - t.origin_mm) == pytest.approx(near, rel=1e-9)
    if np.isfinite(t.far_mm):
        far = brentq(excess, z, z * 1e6, xtol=1e-9, rtol=1e-13)
        assert float(t.far_mm - t.origin_mm) == pytest.approx(far, rel=1e-9)
    else:
        assert excess(1e12) <= 0


@pytest.mark.parametrize("circle", [5.0, 18.0, 24.0, 28.0, 30.5, 60.0])
@pytest.mark.parametrize("offset", [(0.0, 0.0), (3.0, -2.0), (20.0, 0.0), (-15.0, 12.0)])
def test_dark_share_agrees_with_shapely(circle, offset):
    """Area of circle and window with shapely (a polygon of 4096 segments a quarter)."""
    w, h = 24.0, 18.0
    window = box(offset[0] - w / 2, offset[1] - h / 2, offset[0] + w / 2, offset[1] + h / 2)
    lit = Point(0, 0).buffer(circle / 2, quad_segs=4096).intersection(window).area
    assert float(coverage.dark_share(circle, w, h, *offset)) == pytest.approx(1 - lit / (w * h), abs=2e-7)
    corners_lit = 4 - len(coverage.dark_corners(circle, w, h, *offset))
    disc = Point(0, 0).buffer(circle / 2, quad_segs=4096)
    assert corners_lit == sum(disc.covers(Point(p)) for p in list(window.exterior.coords)[:4])


def test_no_digits_are_lost_far_away():
    """mpmath with 50 digits: m at 10 km, where D - 2f would cancel."""
    mpmath.mp.dps = 50
    f, d = mpmath.mpf(18), mpmath.mpf(10_000_000)
    q = d / f
    exact = 2 / ((q - 2) + mpmath.sqrt(q * (q - 4)))
    assert float(conjugates.magnification_from_sensor(18.0, 1e7)) == pytest.approx(float(exact), rel=1e-15)
