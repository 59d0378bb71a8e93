"""The kit's arrays against general libraries: areas by shapely, angles by OpenCV."""

import cv2
import numpy as np
import pytest
from shapely.geometry import Point, box

from hextan.core.documents import parse_body
from hextan.core.evaluation import BenchDelivery
from hextan.core.kit.arrays import kit_of
from hextan.core.kit.ask import KitAsk
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, kit_package, lens

BODY = parse_body(
    a_body([
        a_mode(formats=[a_format("UHD")]),
        a_mode("Right", window=[4000, 2250], offset=[700, 0], formats=[a_format("R")]),
        a_mode("Corner", window=[3000, 1688], offset=[-900, 400], formats=[a_format("C")]),
    ])
)  # fmt: skip


@pytest.mark.parametrize(
    "kit",
    [
        kit_of(demo_package(), KitAsk(delivery=BenchDelivery(aspect=2.39))),
        kit_of(
            kit_package(
                [BODY],
                [lens(i, name=str(i), image_circle_mm=c) for i, c in enumerate((12.0, 20.0, 30.0, 44.0))],
            ),
            KitAsk(),
        ),
    ],
    ids=["demo", "off-centre windows"],
)
def test_dark_share_of_every_cell_agrees_with_shapely(kit):
    checked = 0
    for i, j in np.argwhere(np.nan_to_num(kit.dark) > 0).tolist():
        w, h = kit.recorded_w[i, j], kit.recorded_h[i, j]
        dx, dy = kit.columns.offset_x[j], kit.columns.offset_y[j]
        window = box(dx - w / 2, dy - h / 2, dx + w / 2, dy + h / 2)
        circle = Point(0, 0).buffer(kit.circle_mm[i, j] / 2, quad_segs=2048)
        dark = 1 - window.intersection(circle).area / window.area
        assert kit.dark[i, j] == pytest.approx(dark, abs=2e-6)
        checked += 1
    assert checked >= 8


def test_angles_of_every_cell_agree_with_opencv():
    """undistortPoints gives the ray of the left and of the right edge; a squeeze widens what each photosite sees."""
    kit = kit_of(demo_package(), KitAsk(delivery=BenchDelivery(aspect=2.39), mounted="every"))
    rows = [i for i in range(len(kit.entries)) if kit.rectilinear[i, 0]]
    for i in rows[::3]:
        for j in np.flatnonzero(kit.mounts[i])[::5].tolist():
            focal, squeeze = kit.focal_mm[i, j], kit.squeeze[i, 0]
            camera = np.diag([focal / squeeze, focal, 1.0])
            edges = np.array([[[side * kit.picture_w[i, j] / 2, 0.0]] for side in (-1, 1)])
            rays = cv2.undistortPoints(edges, camera, None).reshape(-1, 2)[:, 0]
            assert kit.angle_deg[i, j] == pytest.approx(
                np.degrees(np.arctan(rays[1]) - np.arctan(rays[0])), rel=1e-9
            )
