"""What to watch out for in a recording format: a stable code, a level and a sentence.

`info` explains, `warn` costs quality, `stop` means that it cannot be shot like this. Each sentence
says what is the matter, by how much, and what to do.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from hextan.core.base import both_units, highest_rate, just_covers_words, m_from_mm, margin_words, share_words
from hextan.core.evaluation.answers import Level, Note
from hextan.core.evaluation.columns import METHODS
from hextan.core.evaluation.computation import Evaluation
from hextan.core.optics import (
    BY_A_HAIR,
    VERDICTS,
    angles,
    close_up_stops,
    coverage_numbers,
    dark_corners,
    rate_fits,
    upscaled,
)

#: Close up, this loss of light (a third of a stop) is worth a note.
CLOSE_UP_STOPS = 1 / 3

#: Every code with its meaning; documented in docs/evaluation.md and held to it by a test.
CODES: dict[str, str] = {
    "close_focus": "The subject is nearer than the lens can focus.",
    "coverage_short": "The image circle does not reach every corner of the recording.",
    "coverage_marginal": "The image circle covers with less than 2 % to spare.",
    "rate_too_high": "The wanted frame rate is above what this format reaches.",
    "rate_just": "The wanted frame rate is above the limit by less than 0.1 %, which is how limits are printed: try it.",
    "binned": "Photosites are averaged before recording, which costs sharpness.",
    "skipped": "Photosites are left out, which costs sharpness and brings moire.",
    "upscaled": "The raster has more pixels than were sampled.",
    "delivery_upscaled": "The delivery raster has more pixels than the recording gives.",
    "diffraction": "The Airy disc is larger than the circle of confusion.",
    "close_up_light": "At this magnification the lens loses light.",
    "t_stop_used": "No f-number is known; the T-stop was used in its place.",
    "fisheye_axis": "A fisheye: figures hold for its own law, depth on the axis only.",
    "beyond_projection": "The window reaches beyond what the fisheye's law can show.",
}


def _note(level: Level, code: str, text: str) -> Note:
    return {"level": level, "code": code, "text": text}


class Noted:
    """The notes of an evaluation, one list a format."""

    def __init__(self, result: Evaluation) -> None:
        self.result = result
        self.rows: list[list[Note]] = [[] for _ in result.request.formats]

    def add(self, where: Any, level: Level, code: str, text: str) -> None:
        """Add the same note to every format of a mask."""
        for i in np.flatnonzero(np.broadcast_to(where, len(self.rows))).tolist():
            self.rows[i].append(_note(level, code, text))


def notes_of(result: Evaluation, oversampling: Any, headroom: Any) -> list[list[Note]]:
    """Judge every format of an evaluation.

    Parameters
    ----------
    oversampling, headroom : shape (F,), NaN where unknown
    """
    noted = Noted(result)
    _focus_notes(noted)
    _coverage_notes(noted)
    _speed_notes(noted)
    _pixel_notes(noted, oversampling, headroom)
    _lens_notes(noted)
    return noted.rows


def _focus_notes(noted: Noted) -> None:
    result, terms = noted.result, noted.result.terms
    near_m, traced = result.request.lens.close_focus_m, result.traced
    m = traced.magnification
    if np.isnan(m).all():
        return
    focal = result.lens.focal_mm
    from_sensor = m_from_mm(focal * (1 + m) ** 2 / m)
    if near_m:
        noted.add(
            from_sensor < near_m * (1 - 1e-9),
            "stop",
            "close_focus",
            f"This lens focuses no nearer than {both_units(near_m, terms.unit, terms.brackets)} from the sensor plane: move back, use a close-up "
            "lens or take a lens that focuses nearer.",
        )
    lost = close_up_stops(m, result.request.lens.pupil_magnification)
    for i in np.flatnonzero(np.broadcast_to(lost >= CLOSE_UP_STOPS, len(noted.rows))).tolist():
        stops = float(np.broadcast_to(lost, len(noted.rows))[i])
        text = f"Close up the lens passes {stops:.1f} stops less light: open up or add light."
        noted.rows[i].append(_note("info", "close_up_light", text))


def _coverage_notes(noted: Noted) -> None:
    result = noted.result
    circle = result.lens.image_circle_mm
    if circle is None:
        return
    c, margin = result.columns, circle - result.needed_mm
    verdict = coverage_numbers(circle, result.needed_mm, result.dark, result.seen_dark)
    for i in np.flatnonzero(verdict > 0).tolist():
        if VERDICTS[verdict[i]] == "marginal":
            text = (
                f"The image circle {just_covers_words(float(margin[i]))}, and makers measure circles differently: test it "
                "before the shoot."
            )
            noted.rows[i].append(_note("warn", "coverage_marginal", text))
            continue
        dark = dark_corners(
            circle, float(c.recorded_w[i]), float(c.recorded_h[i]), float(c.offset_x[i]), float(c.offset_y[i])
        )
        which = "all four corners" if len(dark) == 4 else ", ".join(dark)
        share = float(result.dark[i])
        text = (
            f"The {circle:.1f} mm circle is {margin_words(float(margin[i]))}: {which} dark, {share_words(share)} of the "
            "recording. "
            "Take a smaller window or a lens with a larger circle."
        )
        noted.rows[i].append(_note("stop", "coverage_short", text))


def _speed_notes(noted: Noted) -> None:
    result, c = noted.result, noted.result.columns
    for i in np.flatnonzero(
        ~rate_fits(c.given.fps, result.highest_fps) & ~np.isnan(c.given.fps + result.highest_fps)
    ).tolist():
        limit = "the readout" if result.by_readout[i] else "the stated limit"
        fields = " The sensor must be scanned at the field rate." if c.given.interlaced[i] else ""
        text = (
            f"{c.given.fps[i]:g} frames a second are wanted, and {limit} allows "
            f"{highest_rate(float(result.highest_fps[i]))}.{fields} "
            "Take a lower rate or a window with fewer rows."
        )
        noted.rows[i].append(_note("stop", "rate_too_high", text))
    with np.errstate(invalid="ignore"):
        just = (c.given.fps > result.highest_fps * (1 + BY_A_HAIR)) & rate_fits(
            c.given.fps, result.highest_fps
        )
    for i in np.flatnonzero(just).tolist():
        what = "the readout takes" if result.by_readout[i] else "the stated limit leaves"
        text = (
            f"{c.given.fps[i]:.5g} frames a second need {1000 / c.given.fps[i]:.3f} ms a frame, and {what} "
            f"{1000 / result.highest_fps[i]:.3f}: possible by a hair; try it."
        )
        noted.rows[i].append(_note("warn", "rate_just", text))


def _pixel_notes(noted: Noted, oversampling: Any, headroom: Any) -> None:
    given = noted.result.columns.given
    for i in np.flatnonzero(given.method).tolist():
        across, down = int(given.sampling_h[i]), int(given.sampling_v[i])
        if given.method[i] == METHODS["binned"]:
            text = f"Softened: photosites are averaged {across} x {down} before recording."
            noted.rows[i].append(_note("warn", "binned", text))
        else:
            text = f"Softened, and open to moire: one photosite in {across} across and {down} down is read."
            noted.rows[i].append(_note("warn", "skipped", text))
    for i in np.flatnonzero(upscaled(oversampling)).tolist():
        cure = (
            "Switch the crop off or record smaller"
            if given.crop[i] > 1
            else "Record smaller, or take a larger window"
        )
        text = f"Upscaled: {oversampling[i]:.2f} samples for each recorded pixel. {cure}."
        noted.rows[i].append(_note("warn", "upscaled", text))
    for i in np.flatnonzero(upscaled(headroom)).tolist():
        text = f"The delivery asks for more pixels than are recorded: {headroom[i]:.2f} recorded for each delivered."
        noted.rows[i].append(_note("warn", "delivery_upscaled", text))


def _lens_notes(noted: Noted) -> None:
    result, lens = noted.result, noted.result.request.lens
    focused = not np.isnan(result.traced.magnification).all()
    if lens.f_number is None and lens.t_stop is not None and focused:
        text = (
            "Only the T-stop is known: the depth shown is a little too deep. Enter the f-number if you can."
        )
        noted.add(True, "info", "t_stop_used", text)
    if result.f_number is not None and focused:
        text = (
            "Diffraction is larger than the circle of confusion: open up, or filter instead of stopping down."
        )
        noted.add(result.traced.airy_mm > result.coc_mm, "warn", "diffraction", text)
    if lens.projection != "rectilinear":
        law = angles.LAWS[lens.projection].words
        text = (
            f"Fisheye ({lens.projection}, {law}): angles follow that law; the effective focal length compares with "
            "fisheyes of the same law only; there is no flat field; depth holds in the middle."
        )
        noted.add(True, "info", "fisheye_axis", text)
        text = f"The window's edge lies beyond what {law} can show: the image circle ends inside it."
        noted.add(
            np.isnan(result.traced.angle_w_deg) | np.isnan(result.traced.angle_d_deg),
            "stop",
            "beyond_projection",
            text,
        )
