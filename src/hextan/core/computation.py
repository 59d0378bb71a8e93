"""The chain computed for a request: every question of the other modules, in the order of the links."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from hextan.core import coc, coverage, depth, optics, readout
from hextan.core.chain import Traced, trace
from hextan.core.columns import FormatColumns, columns_of
from hextan.core.contract import EvaluationRequest
from hextan.core.errors import CannotFocusError, Fault, InvalidInputError
from hextan.core.figures import both_units
from hextan.core.numbers import Flags, Floats
from hextan.core.references import DIMENSIONS, ReferenceWindow, named_reference
from hextan.core.windows import crop_factors


@dataclass(frozen=True)
class Evaluation:
    """All that was computed for a request, as columns of shape (F,), before it is written out."""

    request: EvaluationRequest
    reference: ReferenceWindow
    lens: optics.LensAsMounted
    columns: FormatColumns
    traced: Traced
    f_number: float | None
    crops: tuple[Floats, Floats, Floats]
    coc_mm: Floats
    background_mm: list[Floats]
    needed_mm: Floats
    dark: Floats
    highest_fps: Floats
    by_readout: Flags

    @property
    def crop(self) -> Floats:
        """Crop by the dimension of the reference."""
        return self.crops[DIMENSIONS.index(self.reference.by)]


def compute(request: EvaluationRequest) -> Evaluation:
    """Compute a checked request.

    Raises
    ------
    InvalidInputError
        Formats that contradict themselves, a background behind the lens, a field for a fisheye.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    given, asked = request.lens, request.subject
    lens = optics.behind_adapter(
        given.focal_mm, given.f_number, given.t_stop, given.image_circle_mm, request.adapter.magnification
    )
    f_number = lens.f_number if lens.f_number is not None else lens.t_stop
    columns = columns_of(request.formats, given.squeeze)
    wide, high = columns.picture_w * given.squeeze, columns.picture_h
    circle = _coc(request, columns)
    from_lens = asked.measured_from == "lens"
    traced = trace(
        wide_mm=wide,
        high_mm=high,
        focal_mm=lens.focal_mm,
        distance_mm=None if asked.distance_m is None else asked.distance_m * 1000.0,
        magnification=_wanted_magnification(request, wide, high),
        from_lens=from_lens,
        f_number=f_number,
        coc_mm=circle,
        offset_x_mm=columns.offset_x * given.squeeze,
        offset_y_mm=columns.offset_y,
        pupil_magnification=given.pupil_magnification,
        projection=given.projection,
    )
    _refuse_what_cannot_focus(request, lens.focal_mm, traced, from_lens)
    reference = _reference(request)
    frame_us = readout.frame_time_us(
        columns.sites_h / columns.given.sampling_v, columns.given.row_time_us, columns.given.overhead_us
    )
    highest, by_readout = readout.highest_rate(
        frame_us, columns.given.stated_fps, columns.given.interlaced > 0
    )
    lies = columns.recorded_w, columns.recorded_h, columns.offset_x, columns.offset_y
    needed = coverage.needed_circle_mm(*lies)
    return Evaluation(
        request=request,
        reference=reference,
        lens=lens,
        columns=columns,
        traced=traced,
        f_number=f_number,
        crops=crop_factors(
            columns.picture_w, columns.picture_h, given.squeeze, reference.width_mm, reference.height_mm
        ),
        coc_mm=circle,
        background_mm=_backgrounds(request, traced, lens.focal_mm, f_number),
        needed_mm=needed,
        dark=_dark_share(lens.image_circle_mm, needed, lies),
        highest_fps=highest,
        by_readout=by_readout,
    )


def _dark_share(circle_mm: float | None, needed_mm: Floats, lies: tuple[Floats, ...]) -> Floats:
    """Share that stays dark; only what is not covered has to be computed."""
    if circle_mm is None:
        return np.full(needed_mm.shape, np.nan)
    dark = np.zeros(needed_mm.shape)
    short = needed_mm > circle_mm
    if short.any():
        dark[short] = coverage.dark_share(circle_mm, *(x[short] for x in lies))
    return dark


def _reference(request: EvaluationRequest) -> ReferenceWindow:
    asked = request.reference
    if asked.width_mm is not None and asked.height_mm is not None:
        return ReferenceWindow(None, asked.width_mm, asked.height_mm, asked.by)
    return named_reference(asked.name or "super35", asked.by)


def _wanted_magnification(request: EvaluationRequest, wide: Floats, high: Floats) -> Floats | None:
    subject = request.subject
    if subject.width_m is None and subject.height_m is None:
        return None
    if request.lens.projection != "rectilinear":
        name, value = ("width_m", subject.width_m) if subject.width_m else ("height_m", subject.height_m)
        rule = "a fisheye has no flat field whose size could set the distance; give distance_m"
        raise InvalidInputError.of(Fault(f"subject.{name}", value, rule))
    if subject.width_m is not None:
        return wide / (subject.width_m * 1000.0)
    assert subject.height_m is not None
    return high / (subject.height_m * 1000.0)


def _refuse_what_cannot_focus(
    request: EvaluationRequest, focal_mm: float, traced: Traced, from_lens: bool
) -> None:
    distance_m = request.subject.distance_m
    if distance_m is None or not np.isnan(traced.magnification).any():
        return
    if from_lens:
        least, why = focal_mm, "one focal length in front of it"
    else:
        least, why = 4 * focal_mm, "four focal lengths from the sensor plane"
    rule = f"a {focal_mm:g} mm lens forms no image of anything nearer than {why}, {both_units(least / 1000)}"
    fault = Fault("subject.distance_m", distance_m, rule)
    raise CannotFocusError(f"Cannot focus. {fault.sentence()} Move the subject away or take a shorter lens.",
                           (fault,))  # fmt: skip


def _coc(request: EvaluationRequest, columns: FormatColumns) -> Floats:
    rule = request.coc
    if rule.rule == "picture_diagonal":
        return coc.coc_from_diagonal_mm(np.hypot(columns.picture_w, columns.picture_h), rule.divisor)
    if rule.rule == "fixed":
        return np.full(columns.picture_w.shape, rule.mm)
    if rule.rule == "photosite":
        coarser = np.maximum(columns.given.sampling_h, columns.given.sampling_v)
        return coc.coc_from_photosites_mm(columns.given.pitch_um, coarser, rule.factor)
    if rule.rule == "eye":
        return coc.coc_from_eye_mm(columns.picture_h, rule.picture_heights, rule.arcmin)
    recorded_across = columns.given.raster_w * columns.picture_w / columns.recorded_w
    delivered = np.where(np.isnan(columns.given.delivered_w), recorded_across, columns.given.delivered_w)
    return coc.coc_from_pixel_mm(columns.picture_w, delivered, rule.factor)


def _backgrounds(
    request: EvaluationRequest, traced: Traced, focal_mm: float, f_number: float | None
) -> list[Floats]:
    if not request.background_m:
        return []
    unknown = np.full(len(request.formats), np.nan)
    if f_number is None or np.isnan(traced.magnification).all():
        return [unknown] * len(request.background_m)
    discs = []
    for i, point_m in enumerate(request.background_m):
        z = np.asarray(np.inf) if point_m is None else np.asarray(point_m * 1000.0 - traced.origin_mm)
        if np.any(z <= 0):
            rule = "lies behind the lens's entrance pupil, where nothing can be seen"
            raise InvalidInputError.of(Fault(f"background_m[{i}]", point_m, rule))
        disc = depth.blur_disc_mm(traced.pupil_z_mm, z, focal_mm, traced.magnification, f_number)
        discs.append(np.broadcast_to(disc, unknown.shape))
    return discs
