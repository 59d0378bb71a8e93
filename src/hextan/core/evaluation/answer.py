"""An evaluation written out in the public format: plain data, None for infinity and unknown."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from hextan.core.base import m_from_mm
from hextan.core.evaluation.answers import BackgroundAnswer, EvaluationAnswer, FormatAnswer
from hextan.core.evaluation.computation import Evaluation
from hextan.core.evaluation.links import crop_links
from hextan.core.evaluation.notes import notes_of
from hextan.core.optics import depth, rate_fits


def answer_of(result: Evaluation) -> EvaluationAnswer:
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


def _rows(result: Evaluation) -> list[FormatAnswer]:
    """Write all formats: every figure is a column of one table, turned into plain numbers at once."""
    formats, c, t = result.request.formats, result.columns, result.traced
    given, circle = c.given, result.lens.image_circle_mm
    across, down = c.samples_across, c.samples_down
    share = c.recorded_w / c.read_w
    with np.errstate(invalid="ignore"):
        oversampling = across * share / given.raster_w
        headroom = given.raster_w * (c.picture_w / c.recorded_w) / given.delivered_w
    recorded_mp = given.raster_w * given.raster_h / 1e6
    shown = c.picture_w * c.picture_h / (c.recorded_w * c.recorded_h)
    lens = result.lens
    table = plain_rows(
        len(formats),
        c.read_w, c.read_h, np.hypot(c.read_w, c.read_h),
        c.recorded_w, c.recorded_h, np.hypot(c.recorded_w, c.recorded_h),
        c.picture_w, c.picture_h, picture_d := np.hypot(c.picture_w, c.picture_h),
        c.picture_w * (framed := 1 - given.protect), c.picture_h * framed, picture_d * framed,
        result.crop, *result.crops, result.lens.focal_mm * result.crop,
        t.angle_w_deg, t.angle_h_deg, t.angle_d_deg,
        t.focus_angle_w_deg, t.focus_angle_h_deg, t.focus_angle_d_deg,
        m_from_mm(t.field_w_mm), m_from_mm(t.field_h_mm), t.magnification, m_from_mm(t.distance_mm),
        result.coc_mm, m_from_mm(t.near_mm), m_from_mm(t.far_mm), m_from_mm(t.far_mm - t.near_mm), m_from_mm(t.hyperfocal_mm),
        t.airy_mm,
        result.needed_mm, np.nan if circle is None else circle - result.needed_mm, result.dark,
        result.highest_fps, down * given.row_time_us / 1000, result.highest_fps / 24,
        np.floor(across + 1e-9), np.floor(down + 1e-9), recorded_mp, recorded_mp * shown, oversampling, headroom,
        result.crop * (np.nan if lens.f_number is None else lens.f_number),
        result.crop * (np.nan if lens.t_stop is None else lens.t_stop),
    )  # fmt: skip
    words = zip(
        formats,
        notes_of(result, oversampling, headroom),
        crop_links(result),
        _backgrounds(result),
        _flags(result),
        strict=True,
    )
    return [
        {
            "id": asked.get("id"),
            "window_mm": {"width": read_w, "height": read_h, "diagonal": read_d},
            "recorded_mm": {"width": rec_w, "height": rec_h, "diagonal": rec_d},
            "picture_mm": {"width": pic_w, "height": pic_h, "diagonal": pic_d},
            "framed_mm": {"width": framed_w, "height": framed_h, "diagonal": framed_d},
            "crop": {"links": links, "total": total, "by_width": by_w, "by_height": by_h, "by_diagonal": by_d},
            "effective_focal_mm": effective,
            "angle_deg": {"horizontal": angle_w, "vertical": angle_h, "diagonal": angle_d},
            "angle_at_focus_deg": {"horizontal": near_w, "vertical": near_h, "diagonal": near_d},
            "field_m": {"width": field_w, "height": field_h},
            "magnification": magnification,
            "subject_distance_m": subject,
            "depth": {
                "coc_mm": coc, "near_m": near, "far_m": far, "total_m": total_m, "hyperfocal_m": hyperfocal,
                "airy_mm": airy, "diffraction_limited": diffracted,
            },
            "background": background,
            "equivalent": {"focal_mm": effective, "f_number": like_f, "t_stop": like_t},
            "coverage": {
                "needed_mm": needed, "circle_mm": circle, "margin_mm": margin,
                "covers": None if margin is None else margin >= 0, "dark_share": dark,
            },
            "speed": {
                "max_fps": fps, "limited_by": limited_by, "requested_ok": fits, "readout_ms": scan_ms,
                "slow_motion_at_24": slow,
            },
            "pixels": {
                "sampled": None if samples_w is None else [int(samples_w), int(samples_h)],
                "megapixels": None if samples_w is None else samples_w * samples_h / 1e6,
                "recorded_megapixels": recorded_mp, "picture_megapixels": picture_mp,
                "oversampling": over, "delivery_headroom": head,
            },
            "notes": noted,
        }
        for (asked, noted, links, background, (diffracted, limited_by, fits)), (
            read_w, read_h, read_d, rec_w, rec_h, rec_d, pic_w, pic_h, pic_d, framed_w, framed_h, framed_d,
            total, by_w, by_h, by_d, effective, angle_w, angle_h, angle_d, near_w, near_h, near_d,
            field_w, field_h, magnification, subject, coc, near, far, total_m, hyperfocal, airy,
            needed, margin, dark, fps, scan_ms, slow, samples_w, samples_h, recorded_mp, picture_mp, over, head,
            like_f, like_t,
        ) in zip(words, table, strict=True)
    ]  # fmt: skip


def plain_rows(count: int, *columns: Any) -> list[list[Any]]:
    """Turn columns (or one number for all) into rows of plain numbers, None for what is not finite.

    >>> plain_rows(2, np.array([1.0, np.inf]), 3.0)
    [[1.0, 3.0], [None, 3.0]]
    """
    table = np.empty((count, len(columns)))
    for i, column in enumerate(columns):
        table[:, i] = column
    good = np.isfinite(table)
    if good.all():
        return list(table.tolist())
    boxed = table.astype(object)
    boxed[~good] = None
    return list(boxed.tolist())


def _flags(result: Evaluation) -> list[tuple[bool | None, Literal["readout", "stated"] | None, bool | None]]:
    """For each format: whether diffraction limits, what binds the rate, whether the wanted rate fits."""
    n, fps, highest = len(result.request.formats), result.columns.given.fps, result.highest_fps
    airy = np.broadcast_to(result.traced.airy_mm, (n,))
    with np.errstate(invalid="ignore"):
        limited, fits = airy > result.coc_mm, rate_fits(fps, highest)
    has_airy, has_rate = ~np.isnan(airy + result.coc_mm), ~np.isnan(highest)
    columns = zip(
        limited.tolist(),
        has_airy.tolist(),
        result.by_readout.tolist(),
        has_rate.tolist(),
        fits.tolist(),
        (has_rate & ~np.isnan(fps)).tolist(),
        strict=True,
    )
    return [
        (
            diffracted if known else None,
            ("readout" if by_readout else "stated") if rated else None,
            fit if asked else None,
        )
        for diffracted, known, by_readout, rated, fit, asked in columns
    ]


def _backgrounds(result: Evaluation) -> list[list[BackgroundAnswer]]:
    n = len(result.request.formats)
    if not result.background_mm:
        return [[] for _ in range(n)]
    points = result.request.background_m
    squeeze = result.request.lens.squeeze
    # On the screen the disc is an oval: as high as on the sensor, narrower by the squeeze.
    columns = [
        column
        for disc in result.background_mm
        for share in (depth.blur_of_width(disc, result.columns.picture_w, squeeze),)
        for column in (disc, share, share / squeeze)
    ]
    return [
        [
            {
                "distance_m": point,
                "blur_mm": row[3 * k],
                "blur_fraction_of_width": row[3 * k + 1],
                "blur_across_fraction_of_width": row[3 * k + 2],
            }
            for k, point in enumerate(points)
        ]
        for row in plain_rows(n, *columns)
    ]
