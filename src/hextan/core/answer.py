"""An evaluation written out in the public format: plain data, None for infinity and unknown."""

from __future__ import annotations

from typing import Any

import numpy as np

from hextan.core.computation import Evaluation
from hextan.core.links import crop_links
from hextan.core.notes import notes_of
from hextan.core.numbers import Floats
from hextan.core.readout import rate_fits


def answer_of(result: Evaluation) -> dict[str, Any]:
    """Write an evaluation out in the public format."""
    reference, lens = result.reference, result.lens
    return {
        "reference": {
            "name": reference.name,
            "width_mm": reference.width_mm,
            "height_mm": reference.height_mm,
            "by": reference.by,
        },
        "lens": {
            "optical_focal_mm": lens.focal_mm,
            "f_number": lens.f_number,
            "t_stop": lens.t_stop,
            "image_circle_mm": lens.image_circle_mm,
        },
        "formats": _rows(result),
    }


def listed(column: Any, count: int) -> list[float | None]:
    """Turn a column (or one number for all) into a list with None for what is not finite.

    >>> listed(np.array([1.0, np.inf]), 2)
    [1.0, None]
    """
    array = np.broadcast_to(np.asarray(column, dtype=float), (count,))
    good = np.isfinite(array)
    values: list[float | None] = array.tolist()
    if good.all():
        return values
    return [value if ok else None for value, ok in zip(values, good.tolist(), strict=True)]


def _sizes(width: Floats, height: Floats, count: int) -> list[dict[str, float | None]]:
    columns = (listed(x, count) for x in (width, height, np.hypot(width, height)))
    return [{"width": w, "height": h, "diagonal": d} for w, h, d in zip(*columns, strict=True)]


def _triples(names: tuple[str, str, str], columns: tuple[Any, Any, Any], count: int) -> list[dict[str, Any]]:
    a, b, c = names
    rows = zip(*(listed(x, count) for x in columns), strict=True)
    return [{a: x, b: y, c: z} for x, y, z in rows]


_AXES = ("horizontal", "vertical", "diagonal")


def _rows(result: Evaluation) -> list[dict[str, Any]]:
    formats, c, t = result.request.formats, result.columns, result.traced
    n = len(formats)
    with np.errstate(invalid="ignore"):
        oversampling = c.sites_w / c.sampling_h * (c.recorded_w / c.read_w) / c.raster_w
        recorded_across = c.raster_w * (c.picture_w / c.recorded_w)
        headroom = recorded_across / c.delivered_w
    notes = notes_of(result, oversampling, headroom)
    subject_m = listed(t.distance_mm / 1000.0, n)
    columns = zip(
        _sizes(c.read_w, c.read_h, n),
        _sizes(c.recorded_w, c.recorded_h, n),
        _sizes(c.picture_w, c.picture_h, n),
        _sizes(c.picture_w * (1 - c.protect), c.picture_h * (1 - c.protect), n),
        _crops(result),
        listed(result.lens.focal_mm * result.crop, n),
        _triples(_AXES, (t.angle_w_deg, t.angle_h_deg, t.angle_d_deg), n),
        _triples(_AXES, (t.focus_angle_w_deg, t.focus_angle_h_deg, t.focus_angle_d_deg), n),
        listed(t.field_w_mm / 1000.0, n),
        listed(t.field_h_mm / 1000.0, n),
        listed(t.magnification, n),
        subject_m,
        _depths(result),
        _backgrounds(result),
        _coverages(result),
        _speeds(result),
        _pixels(result, oversampling, headroom),
        strict=True,
    )
    return [
        {
            "id": asked.id,
            "window_mm": window,
            "recorded_mm": recorded,
            "picture_mm": picture,
            "framed_mm": framed,
            "crop": crop,
            "effective_focal_mm": effective,
            "angle_deg": angle,
            "angle_at_focus_deg": angle_at_focus,
            "field_m": {"width": field_w, "height": field_h},
            "magnification": magnification,
            "subject_distance_m": subject,
            "depth": depth,
            "background": background,
            "coverage": covered,
            "speed": speed,
            "pixels": pixels,
            "notes": noted,
        }
        for asked, noted, (
            window, recorded, picture, framed, crop, effective, angle, angle_at_focus, field_w, field_h,
            magnification, subject, depth, background, covered, speed, pixels,
        ) in zip(formats, notes, columns, strict=True)
    ]  # fmt: skip


def _crops(result: Evaluation) -> list[dict[str, Any]]:
    n = len(result.request.formats)
    columns = zip(listed(result.crop, n), *(listed(k, n) for k in result.crops), strict=True)
    return [
        {"links": links, "total": total, "by_width": w, "by_height": h, "by_diagonal": d}
        for links, (total, w, h, d) in zip(crop_links(result), columns, strict=True)
    ]


def _depths(result: Evaluation) -> list[dict[str, Any]]:
    n, t = len(result.request.formats), result.traced
    with np.errstate(invalid="ignore"):
        limited = np.broadcast_to(t.airy_mm > result.coc_mm, (n,)).tolist()
    known = not np.isnan(t.airy_mm).all()
    columns = zip(
        listed(result.coc_mm, n),
        listed(t.near_mm / 1000.0, n),
        listed(t.far_mm / 1000.0, n),
        listed((t.far_mm - t.near_mm) / 1000.0, n),
        listed(t.hyperfocal_mm / 1000.0, n),
        listed(t.airy_mm, n),
        limited,
        strict=True,
    )
    return [
        {
            "coc_mm": c,
            "near_m": near,
            "far_m": far,
            "total_m": total,
            "hyperfocal_m": hyperfocal,
            "airy_mm": airy,
            "diffraction_limited": diffracted if known else None,
        }
        for c, near, far, total, hyperfocal, airy, diffracted in columns
    ]


def _backgrounds(result: Evaluation) -> list[list[dict[str, Any]]]:
    n = len(result.request.formats)
    if not result.background_mm:
        return [[] for _ in range(n)]
    points = result.request.background_m
    discs = [listed(b, n) for b in result.background_mm]
    shares = [listed(b / result.columns.picture_w, n) for b in result.background_mm]
    return [
        [
            {"distance_m": point, "blur_mm": disc[i], "blur_fraction_of_width": share[i]}
            for point, disc, share in zip(points, discs, shares, strict=True)
        ]
        for i in range(n)
    ]


def _coverages(result: Evaluation) -> list[dict[str, Any]]:
    n, circle = len(result.request.formats), result.lens.image_circle_mm
    needed = listed(result.needed_mm, n)
    if circle is None:
        return [
            {"needed_mm": x, "circle_mm": None, "margin_mm": None, "covers": None, "dark_share": None}
            for x in needed
        ]
    margins, dark = listed(circle - result.needed_mm, n), listed(result.dark, n)
    return [
        {
            "needed_mm": x,
            "circle_mm": circle,
            "margin_mm": m,
            "covers": m is not None and m >= 0,
            "dark_share": d,
        }
        for x, m, d in zip(needed, margins, dark, strict=True)
    ]


def _speeds(result: Evaluation) -> list[dict[str, Any]]:
    n, c, highest = len(result.request.formats), result.columns, result.highest_fps
    known = (~np.isnan(highest)).tolist()
    asked = (~np.isnan(c.fps)).tolist()
    with np.errstate(invalid="ignore"):
        fits = rate_fits(c.fps, highest).tolist()
    scan_ms = listed(c.sites_h / c.sampling_v * c.row_time_us / 1000.0, n)
    columns = zip(
        listed(highest, n), result.by_readout.tolist(), fits, scan_ms, listed(highest / 24.0, n), known, asked,
        strict=True,
    )  # fmt: skip
    return [
        {
            "max_fps": fps,
            "limited_by": ("readout" if by_readout else "stated") if is_known else None,
            "requested_ok": fit if is_known and is_asked else None,
            "readout_ms": scan,
            "slow_motion_at_24": slow,
        }
        for fps, by_readout, fit, scan, slow, is_known, is_asked in columns
    ]


def _pixels(result: Evaluation, oversampling: Floats, headroom: Floats) -> list[dict[str, Any]]:
    n, c = len(result.request.formats), result.columns
    across, down = c.sites_w / c.sampling_h, c.sites_h / c.sampling_v
    columns = zip(
        listed(np.floor(across + 1e-9), n),
        listed(np.floor(down + 1e-9), n),
        listed(oversampling, n),
        listed(headroom, n),
        strict=True,
    )
    return [
        {
            "sampled": None if w is None or h is None else [int(w), int(h)],
            "megapixels": None if w is None or h is None else w * h / 1e6,
            "oversampling": over,
            "delivery_headroom": head,
        }
        for w, h, over, head in columns
    ]
