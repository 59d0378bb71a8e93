"""What a body's page shows beside what is typed: sizes, rates, warnings, claims, and the drawing.

What the document must not say is refused by `check_body`; the rest is only judged.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from hextan.core.base import highest_rate, mm_from_um, rate_words
from hextan.core.documents.answers import BodySheet, FormatFigures, ModeFigures
from hextan.core.documents.body import BodyDocument, check_body
from hextan.core.documents.claims import Home, check_claims
from hextan.core.equipment import Body, FormatInPackage, Highest, Package, ScanMode, highest_of, readout_fps
from hextan.core.optics import LABELS, NAMED, format_class, needed_circle_mm, oversampled, rate_fits, upscaled

#: The mount of a body of which nobody says one.
UNKNOWN_MOUNT = "unknown"
#: Facts that a body may lack, a row each: what cannot be asked of it then, and whether it lacks them.
LACKING: dict[str, Callable[[BodyDocument], bool]] = {
    "No row time: no skew, no bands under lamps, no rates of windows of your own.": lambda body: all(
        mode.row_time_us is None for mode in body.modes
    ),
    "No bit rates or compression: no card minutes, no storage.": lambda body: all(
        f.megabits is None and f.compression is None for mode in body.modes for f in mode.formats
    ),
    "No mount: lenses of no mount are taken to fit.": lambda body: body.mount == UNKNOWN_MOUNT,
    "No weight: a rig's limit cannot be held against it.": lambda body: body.weight_kg is None,
    "No sensitivities: the exposure is told without limits.": lambda body: not body.eis,
}


def body_sheet(document: BodyDocument, others: list[BodyDocument], home: Home | None = None) -> BodySheet:
    """Check a body and work out everything about it.

    Parameters
    ----------
    others : bodies that a copied page may belong to
    home : the production's reference, by which a claimed crop has to hold

    Returns
    -------
    ``sensor`` and ``modes`` with sizes in mm and rectangles about the optical axis, a row for each
    recording format, ``notes`` on what looks wrong, and the checked ``claims``.

    Raises
    ------
    InconsistentError
        What `check_body` refuses.
    """
    package = check_body(document)
    body = package.bodies[0]
    mm = mm_from_um(body.pitch_um)
    w, h = (n * mm for n in body.photosites)
    return {
        "sensor": {
            "width_mm": w,
            "height_mm": h,
            "diagonal_mm": float(np.hypot(w, h)),
            "megapixels": body.photosites[0] * body.photosites[1] / 1e6,
            "format_class": format_class(w, h),
        },
        "modes": [_mode(body, mode, m.key) for mode, m in zip(body.modes, document.modes, strict=True)],
        "formats": _formats(document, package),
        "claims": check_claims(document, others, home),
        "missing": [told for told, lacks in LACKING.items() if lacks(document)],
    }


def _mode(body: Body, mode: ScanMode, key: str) -> ModeFigures:
    mm = mm_from_um(body.pitch_um)
    w, h = (n * mm for n in mode.window)
    x, y = (n * mm for n in mode.offset)
    return {
        "key": key,
        "name": mode.name,
        "photosites": list(mode.window),
        "rect": {"x": x - w / 2, "y": y - h / 2, "width": w, "height": h},
        "diagonal_mm": float(np.hypot(w, h)),
        "needed_circle_mm": float(needed_circle_mm(w, h, x, y)),
        "aspect": w / h,
        "samples": [n // s for n, s in zip(mode.window, mode.sampling, strict=True)],
        "crop_by_width": {LABELS[name]: size[0] / w for name, size in NAMED.items()},
        "scan_fps": readout_fps(mode),
        "readout_ms": None if mode.row_time_us is None else mode.rows_read * mode.row_time_us / 1000,
    }


def _formats(document: BodyDocument, package: Package) -> list[FormatFigures]:
    places = list(package.formats.values())
    if not places:
        return []
    c = package.columns
    # Plain numbers at once: taken one by one out of arrays they cost more than all else of a row.
    across = (c.samples_across * c.recorded_w / c.read_w / c.given.raster_w).tolist()
    down = (c.samples_down * c.recorded_h / c.read_h / c.given.raster_h).tolist()
    wide, high, x, y, crop = (
        np.broadcast_to(column, len(places)).tolist()
        for column in (c.recorded_w, c.recorded_h, c.offset_x, c.offset_y, c.read_w / c.recorded_w)
    )
    keys = [f.key for mode in document.modes for f in mode.formats]
    rows: list[FormatFigures] = []
    for i, here in enumerate(places):
        highest = highest_of(here)
        usable = highest.usable_fps
        rate = None if usable is None else here.recording.bytes_per_second(usable)
        w, h = wide[i], high[i]
        rows.append(
            {
                "key": keys[i],
                "width_mm": w,
                "height_mm": h,
                "rect": {
                    "x": x[i] - w / 2,
                    "y": y[i] - h / 2,
                    "width": w,
                    "height": h,
                },
                "format_class": format_class(w, h),
                "crop_of_window": crop[i],
                "oversampling": [across[i], down[i]],
                "possible_fps": highest.possible_fps,
                "limited_by": highest.limited_by,
                "rate_text": highest.text,
                "mb_s": None if rate is None else rate / 1e6,
                "rates_text": here.recording.rates.words,
                "notes": _notes(here, highest, across[i], down[i]),
            }
        )
    return rows


def _notes(here: FormatInPackage, highest: Highest, across: float, down: float) -> list[str]:
    """What looks wrong in a format, in words that say what to do."""
    notes = []
    recording = here.recording
    if highest.possible_fps is not None and not rate_fits(highest.offered_fps, highest.possible_fps):
        notes.append(
            f"{rate_words(recording.rates.highest)} fps is listed, but {highest.limited_by} allows "
            f"{highest_rate(highest.possible_fps)}: check rows, times and limits."
        )
    if recording.map == "scale" and here.mode.method == "full" and upscaled(min(across, down)):
        notes.append(f"Upscaled: {min(across, down):.2f} samples for each pixel.")
    if recording.raw and recording.map == "scale" and (upscaled(across) or oversampled(across)):
        notes.append("Raw, but not photosite for pixel: raw data are not scaled. Check raster and window.")
    if not recording.data_known:
        notes.append("No data rate: enter compression or bit rate.")
    return notes
