"""An evaluation written out in the public format: plain data, None for infinity and unknown."""

from __future__ import annotations

from typing import Any, Literal, NamedTuple

import numpy as np

from hextan.core.base import m_from_mm
from hextan.core.evaluation.answers import BackgroundAnswer, EvaluationAnswer, FormatAnswer
from hextan.core.evaluation.computation import Evaluation
from hextan.core.evaluation.links import crop_links
from hextan.core.evaluation.notes import notes_of
from hextan.core.optics import depth, rate_fits


class _Figures(NamedTuple):
    """Every figure of an answer: as columns over all formats, and as one format's plain numbers."""

    window_w: Any
    window_h: Any
    window_d: Any
    recorded_w: Any
    recorded_h: Any
    recorded_d: Any
    picture_w: Any
    picture_h: Any
    picture_d: Any
    framed_w: Any
    framed_h: Any
    framed_d: Any
    crop: Any
    crop_by_width: Any
    crop_by_height: Any
    crop_by_diagonal: Any
    effective_focal: Any
    angle_w: Any
    angle_h: Any
    angle_d: Any
    focus_angle_w: Any
    focus_angle_h: Any
    focus_angle_d: Any
    field_w: Any
    field_h: Any
    magnification: Any
    subject: Any
    coc: Any
    near: Any
    far: Any
    depth: Any
    hyperfocal: Any
    airy: Any
    needed_circle: Any
    margin: Any
    dark: Any
    highest_fps: Any
    readout_ms: Any
    slow_motion: Any
    samples_w: Any
    samples_h: Any
    recorded_mp: Any
    picture_mp: Any
    oversampling: Any
    headroom: Any
    like_f: Any
    like_t: Any


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
    recorded_d, picture_d = np.hypot(c.recorded_w, c.recorded_h), np.hypot(c.picture_w, c.picture_h)
    framed = 1 - given.protect
    by_width, by_height, by_diagonal = result.crops
    columns = _Figures(
        window_w=c.read_w, window_h=c.read_h, window_d=np.hypot(c.read_w, c.read_h),
        recorded_w=c.recorded_w, recorded_h=c.recorded_h, recorded_d=recorded_d,
        picture_w=c.picture_w, picture_h=c.picture_h, picture_d=picture_d,
        framed_w=c.picture_w * framed, framed_h=c.picture_h * framed, framed_d=picture_d * framed,
        crop=result.crop, crop_by_width=by_width, crop_by_height=by_height, crop_by_diagonal=by_diagonal,
        effective_focal=lens.focal_mm * result.crop,
        angle_w=t.angle_w_deg, angle_h=t.angle_h_deg, angle_d=t.angle_d_deg,
        focus_angle_w=t.focus_angle_w_deg, focus_angle_h=t.focus_angle_h_deg, focus_angle_d=t.focus_angle_d_deg,
        field_w=m_from_mm(t.field_w_mm), field_h=m_from_mm(t.field_h_mm),
        magnification=t.magnification, subject=m_from_mm(t.distance_mm),
        coc=result.coc_mm, near=m_from_mm(t.near_mm), far=m_from_mm(t.far_mm), depth=m_from_mm(t.far_mm - t.near_mm),
        hyperfocal=m_from_mm(t.hyperfocal_mm), airy=t.airy_mm,
        needed_circle=result.needed_mm, margin=np.nan if circle is None else circle - result.needed_mm, dark=result.dark,
        highest_fps=result.highest_fps, readout_ms=down * given.row_time_us / 1000, slow_motion=result.highest_fps / 24,
        samples_w=np.floor(across + 1e-9), samples_h=np.floor(down + 1e-9),
        recorded_mp=recorded_mp, picture_mp=recorded_mp * shown, oversampling=oversampling, headroom=headroom,
        like_f=result.crop * (np.nan if lens.f_number is None else lens.f_number),
        like_t=result.crop * (np.nan if lens.t_stop is None else lens.t_stop),
    )  # fmt: skip
    table = map(_Figures._make, plain_rows(len(formats), *columns))
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
            "window_mm": {"width": f.window_w, "height": f.window_h, "diagonal": f.window_d},
            "recorded_mm": {"width": f.recorded_w, "height": f.recorded_h, "diagonal": f.recorded_d},
            "picture_mm": {"width": f.picture_w, "height": f.picture_h, "diagonal": f.picture_d},
            "framed_mm": {"width": f.framed_w, "height": f.framed_h, "diagonal": f.framed_d},
            "crop": {
                "links": links, "total": f.crop, "by_width": f.crop_by_width, "by_height": f.crop_by_height,
                "by_diagonal": f.crop_by_diagonal,
            },
            "effective_focal_mm": f.effective_focal,
            "angle_deg": {"horizontal": f.angle_w, "vertical": f.angle_h, "diagonal": f.angle_d},
            "angle_at_focus_deg": {"horizontal": f.focus_angle_w, "vertical": f.focus_angle_h, "diagonal": f.focus_angle_d},
            "field_m": {"width": f.field_w, "height": f.field_h},
            "magnification": f.magnification,
            "subject_distance_m": f.subject,
            "depth": {
                "coc_mm": f.coc, "near_m": f.near, "far_m": f.far, "total_m": f.depth, "hyperfocal_m": f.hyperfocal,
                "airy_mm": f.airy, "diffraction_limited": diffracted,
            },
            "background": background,
            "equivalent": {"focal_mm": f.effective_focal, "f_number": f.like_f, "t_stop": f.like_t},
            "coverage": {
                "needed_mm": f.needed_circle, "circle_mm": circle, "margin_mm": f.margin,
                "covers": None if f.margin is None else f.margin >= 0, "dark_share": f.dark,
            },
            "speed": {
                "max_fps": f.highest_fps, "limited_by": limited_by, "requested_ok": fits, "readout_ms": f.readout_ms,
                "slow_motion_at_24": f.slow_motion,
            },
            "pixels": {
                "sampled": None if f.samples_w is None else [int(f.samples_w), int(f.samples_h)],
                "megapixels": None if f.samples_w is None else f.samples_w * f.samples_h / 1e6,
                "recorded_megapixels": f.recorded_mp, "picture_megapixels": f.picture_mp,
                "oversampling": f.oversampling, "delivery_headroom": f.headroom,
            },
            "notes": noted,
        }
        for (asked, noted, links, background, (diffracted, limited_by, fits)), f in zip(words, table, strict=True)
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
