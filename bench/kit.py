"""The matrix of a whole kit, 60 lenses by 60 formats, against the bare formulas."""

from __future__ import annotations

import math

import numpy as np

from bench.bulk import paired_ratio
from bench.result import Result
from hextan.core.documents import body_of, parse_body
from hextan.core.equipment import Body, Lens, LensSet, Package
from hextan.core.evaluation import BenchDelivery
from hextan.core.kit import Kit, KitAsk, kit_of

LENSES, FORMATS = 60, 60
PITCH_MM = 0.006


def against_bare_formulas() -> Result:
    """Time of the kit's arrays (focal length, angle, verdict, dark share) over that of the formulas written down."""
    package = _package()
    ask = KitAsk(delivery=BenchDelivery(aspect=2.39))

    def ours() -> Kit:
        kit = kit_of(package, ask)
        _ = kit.effective_mm, kit.angle_deg, kit.verdict, kit.dark
        return kit

    given = _given(package)
    kit, bare = ours(), _bare(*given)
    for mine, expected in zip((kit.effective_mm, kit.angle_deg, kit.needed_mm, kit.dark), bare, strict=True):
        np.testing.assert_allclose(mine, np.broadcast_to(expected, mine.shape), rtol=1e-9, atol=1e-12)
    assert 0 < (kit.dark > 0).mean() < 1
    ratio = paired_ratio(ours, lambda: _bare(*given), 31)
    return Result(
        f"matrix of {LENSES} x {FORMATS} with coverage, equipment laid out / bare formulas", ratio, 3.0, "x"
    )


def _given(package: Package) -> tuple[np.ndarray, ...]:
    """What the formulas work on: photosites and rasters of every format, focal length and circle of every lens."""
    places = list(package.formats.values())
    sites = np.array([place.mode.window for place in places], dtype=float)
    raster = np.array([place.recording.raster for place in places], dtype=float)
    lenses = [lens for _, lens in package.lenses.values()]
    focal = np.array([[lens.focal_min_mm] for lens in lenses])
    circle = np.array([[lens.image_circle_mm or math.nan] for lens in lenses])
    return sites, raster, focal, circle


def _bare(sites, raster, focal, circle):  # type: ignore[no-untyped-def]
    w, h = (sites * PITCH_MM).T
    aspect = raster[:, 0] / raster[:, 1]
    rec_w, rec_h = np.minimum(w, h * aspect), np.minimum(h, w / aspect)
    pic_w = np.minimum(rec_w, rec_h * 2.39)
    effective = focal * (24.89 / pic_w)
    angle = np.degrees(2 * np.arctan(pic_w / (2 * focal)))
    needed = np.hypot(rec_w, rec_h)
    # The exact area of circle and rectangle, a quarter of it, everywhere.
    r, a, b = np.broadcast_arrays(circle / 2, rec_w / 2, rec_h / 2)
    a, b = np.minimum(a, r), np.minimum(b, r)
    x0 = np.sqrt(np.maximum(r**2 - b**2, 0))

    def below(x):  # type: ignore[no-untyped-def]
        return 0.5 * (x * np.sqrt(np.maximum(r**2 - x**2, 0)) + r**2 * np.arcsin(x / r))

    lit = np.where(np.hypot(a, b) <= r, a * b, b * x0 + below(a) - below(np.minimum(x0, a)))
    return effective, angle, needed, np.clip(1 - 4 * lit / (rec_w * rec_h), 0, 1)


def _package() -> Package:
    lenses = [
        Lens(i, f"Lens {i}", 10.0 + 3 * i, 10.0 + 3 * i, 2.0, 2.1, None, None, 20.0 + 0.45 * i, 1.0, 0.5, "W54", "rectilinear")
        for i in range(LENSES)
    ]  # fmt: skip
    modes = [
        {"key": f"m{i}", "name": f"Mode {i}", "window": [6000 - 200 * i, 3375 - 110 * i],
         "formats": [{"key": f"m{i}f{j}", "name": f"Format {j}", "raster": [3840 - 128 * j, 2160 - 60 * j],
                      "rates": ["25"], "compression": 5.0} for j in range(5)]}
        for i in range(FORMATS // 5)
    ]  # fmt: skip
    document = parse_body({"key": "b", "name": "Body", "maker": "Halewick", "mount": "W54", "photosites": [6000, 4000],
                           "pitch_um": 1000 * PITCH_MM, "modes": modes})  # fmt: skip
    body: Body = body_of(document)
    return Package((body,), (LensSet(1, "Lantern Works", "all", tuple(lenses)),))
