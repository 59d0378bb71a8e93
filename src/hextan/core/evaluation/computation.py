"""The chain computed for a request: every question of the other modules, in the order of the links."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from hextan.core.base import (
    CannotFocusError,
    Fault,
    Flags,
    Floats,
    InvalidInputError,
    Unit,
    both_units,
    m_from_mm,
    mm_from_m,
)
from hextan.core.evaluation.columns import FormatColumns, columns_of
from hextan.core.evaluation.contract import EvaluationRequest
from hextan.core.evaluation.sharp import circle_of_confusion_mm
from hextan.core.optics import (
    DIMENSIONS,
    ReferenceWindow,
    Traced,
    conjugates,
    coverage,
    crop_factors,
    depth,
    named_reference,
    readout,
    trace,
)


@dataclass(frozen=True)
class HouseTerms:
    """What a production decides about an evaluation, and no request says."""

    #: From which share of the recording on what a circle leaves dark is called dark corners.
    seen_dark: float = coverage.DARK_SHARE
    #: In which unit sentences tell distances, and whether the other one stands behind it in brackets.
    unit: Unit = "m"
    brackets: bool = True


@dataclass(frozen=True)
class Evaluation:
    """All that was computed for a request, as columns of shape (F,), before it is written out."""

    request: EvaluationRequest
    reference: ReferenceWindow
    lens: conjugates.LensAsMounted
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
    terms: HouseTerms = HouseTerms()

    @property
    def seen_dark(self) -> float:
        """From which share of the recording on what a circle leaves dark is called dark corners."""
        return self.terms.seen_dark

    @property
    def short(self) -> Flags:
        """Where the circle is known not to cover, and leaves more dark than nobody sees."""
        return np.asarray(self.dark > self.seen_dark)

    @property
    def crop(self) -> Floats:
        """Crop by the dimension of the reference."""
        return self.crops[DIMENSIONS.index(self.reference.by)]


def compute(request: EvaluationRequest, terms: HouseTerms | None = None) -> Evaluation:
    """Compute a checked request, by the terms of a production where there is one.

    Raises
    ------
    InvalidInputError
        Formats that contradict themselves, a background behind the lens, a field for a fisheye.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    given, asked = request.lens, request.subject
    lens = conjugates.behind_adapter(
        given.focal_mm, given.f_number, given.t_stop, given.image_circle_mm, request.adapter.magnification
    )
    f_number = lens.f_number if lens.f_number is not None else lens.t_stop
    columns = columns_of(request.formats, given.squeeze)
    wide, high = columns.picture_w * given.squeeze, columns.picture_h
    circle = circle_of_confusion_mm(request.coc, columns)
    from_lens = asked.measured_from == "lens"
    traced = trace(
        wide_mm=wide,
        high_mm=high,
        focal_mm=lens.focal_mm,
        distance_mm=None if asked.distance_m is None else mm_from_m(asked.distance_m),
        magnification=_wanted_magnification(request, wide, high),
        from_lens=from_lens,
        f_number=f_number,
        coc_mm=circle,
        offset_x_mm=columns.offset_x * given.squeeze,
        offset_y_mm=columns.offset_y,
        pupil_magnification=given.pupil_magnification,
        projection=given.projection,
    )
    terms = terms or HouseTerms()
    _refuse_what_cannot_focus(request, lens.focal_mm, traced, terms)
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
        dark=coverage.dark_where_short(
            np.nan if lens.image_circle_mm is None else lens.image_circle_mm, *lies
        ),
        highest_fps=highest,
        by_readout=by_readout,
        terms=terms,
    )


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
        return wide / (mm_from_m(subject.width_m))
    assert subject.height_m is not None
    return high / (mm_from_m(subject.height_m))


def _refuse_what_cannot_focus(
    request: EvaluationRequest, focal_mm: float, traced: Traced, terms: HouseTerms
) -> None:
    distance_m = request.subject.distance_m
    if distance_m is None or not np.isnan(traced.magnification).any():
        return
    if request.subject.measured_from == "lens":
        least, why = focal_mm, "one focal length in front of it"
    else:
        least, why = 4 * focal_mm, "four focal lengths from the sensor plane"
    rule = f"a {focal_mm:g} mm lens forms no image of anything nearer than {why}, {both_units(m_from_mm(least), terms.unit, terms.brackets)}"
    fault = Fault("subject.distance_m", distance_m, rule)
    raise CannotFocusError(f"Cannot focus. {fault.sentence()} Move the subject away or take a shorter lens.",
                           (fault,))  # fmt: skip


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
        z = np.asarray(np.inf) if point_m is None else np.asarray(mm_from_m(point_m) - traced.origin_mm)
        if np.any(z <= 0):
            rule = "lies behind the lens's entrance pupil, where nothing can be seen"
            raise InvalidInputError.of(Fault(f"background_m[{i}]", point_m, rule))
        disc = depth.blur_disc_mm(traced.pupil_z_mm, z, focal_mm, traced.magnification, f_number)
        discs.append(np.broadcast_to(disc, unknown.shape))
    return discs
