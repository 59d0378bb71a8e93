"""Do the claims hold? Crop factors, tape measurements, stated rates and pixel counts against the figures.

A claimed factor may be by width, by height or by diagonal, against Super 35, full frame or the body's own full
window: every reading is tried before a claim is called wrong. It holds only by the basis that it states, or else by the
production's own: of many readings one or another fits nearly anything.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from hextan.core.base import mm_from_m, mm_from_um
from hextan.core.documents.answers import (
    ClaimsChecked,
    ClaimVerdict,
    CropChecked,
    PixelCount,
    PixelsChecked,
    ReadingFigures,
    SpeedChecked,
    SpeedOnLine,
    TapeChecked,
)
from hextan.core.documents.body import (
    BodyDocument,
    CropClaim,
    ModeDocument,
    PixelClaim,
    SpeedClaim,
    TapeClaim,
)
from hextan.core.evaluation import BenchReference
from hextan.core.optics import (
    DIMENSIONS,
    LABELS,
    NAMED,
    By,
    crop_factors,
    magnification_from_sensor,
    trim_to_aspect,
)

#: A reading within half a per cent reproduces a claim that was rounded on the way.
NEAR = 0.005
#: Aspects nearer than this are one: 17:9 is a nickname, and rasters are whole pixels.
SAME_ASPECT = 0.005
#: A measurement that leaves more than this of the width open tells little.
COARSE = 0.03
#: A stated limit that is off the fitted line by more than this is flagged.
OFF_THE_LINE = 0.01


@dataclass(frozen=True)
class Reading:
    """One way to read a crop factor: a window, a basis, a dimension, and what comes out."""

    window: str
    basis: str
    by: By
    factor: float

    def words(self) -> str:
        """Say it in words."""
        return f"{self.window}, by {self.by} against {self.basis}: {self.factor:.3f}"


def _windows(
    document: BodyDocument, mode: ModeDocument, aspect: float | None, switches: bool
) -> Iterator[tuple[str, float, float]]:
    """The mode's window whole, and trimmed to the aspect that is claimed, or to those of its formats."""
    mm = mm_from_um(document.pitch_um)
    w, h = (n * mm for n in mode.photosites(document.pitch_um))
    if aspect is None or abs(w / h / aspect - 1) <= SAME_ASPECT:
        yield f"{mode.name} whole", w, h
    wanted = (
        [f.raster[0] / f.raster[1] for f in mode.formats if f.map == "scale"] if aspect is None else [aspect]
    )
    done = [w / h]
    for a in wanted:
        if all(abs(a / known - 1) > SAME_ASPECT for known in done):
            done.append(a)
            tw, th = trim_to_aspect(w, h, a)
            yield f"{mode.name} trimmed to {aspect_words(a)}", float(tw), float(th)
    for crop in document.crops if switches else ():
        for rule in crop.rules:
            # A crop that was left on is a common reason for a strange factor; and with it nearly anything fits.
            if rule.mode == mode.key and rule.aspect is None:
                yield f"{mode.name} with {crop.name} on", w / rule.factor, h / rule.factor


def aspect_words(aspect: float) -> str:
    """Name an aspect as the trade does: 16:9 (ITU-R BT.709), 17:9 for 4096:2160 (SMPTE ST 2048-1).

    >>> aspect_words(4096 / 2160), aspect_words(2.39)
    ('17:9', '2.39:1')
    """
    names = {"16:9": 16 / 9, "17:9": 4096 / 2160, "4:3": 4 / 3, "3:2": 1.5, "6:5": 1.2, "1:1": 1.0}
    return next((n for n, a in names.items() if abs(a / aspect - 1) <= SAME_ASPECT), f"{aspect:.2f}:1")


@dataclass(frozen=True)
class Home:
    """What crops are told against where a claim says nothing: the production's reference and its dimension."""

    name: str
    width_mm: float
    height_mm: float
    by: By = "width"

    @classmethod
    def named(cls, key: str, by: By = "width") -> Home:
        """Of one of the named references."""
        return cls(LABELS[key], *NAMED[key], by)

    @classmethod
    def of(cls, reference: BenchReference) -> Home:
        """Of a production's reference, which is no scan mode's window."""
        own = reference.own
        if own is None:
            return cls.named(reference.name, reference.by)
        return cls(own.name, own.width_mm, own.height_mm, reference.by)


def readings(
    document: BodyDocument,
    mode: ModeDocument,
    aspect: float | None = None,
    home: Home | None = None,
    switches: bool = False,
) -> list[Reading]:
    """Compute every reading of a crop factor for one scan mode, the plainest first.

    Parameters
    ----------
    aspect : width / height for which the factor is claimed; without it the whole window and what the
        mode's formats leave of it
    home : the production's reference, tried beside the named ones
    switches : try in-camera crops as well
    """
    bases = _bases(document) | ({} if home is None else {home.name: (home.width_mm, home.height_mm)})
    found = []
    for window, w, h in _windows(document, mode, aspect, switches):
        for basis, (ref_w, ref_h) in bases.items():
            factors = crop_factors(w, h, 1.0, ref_w, ref_h)
            found += [Reading(window, basis, by, float(k)) for by, k in zip(DIMENSIONS, factors, strict=True)]
    return found


def _bases(document: BodyDocument) -> dict[str, tuple[float, float]]:
    mm = mm_from_um(document.pitch_um)
    full = document.photosites[0] * mm, document.photosites[1] * mm
    return {LABELS[name]: size for name, size in NAMED.items()} | {_sensor_label(document): full}


def _sensor_label(document: BodyDocument) -> str:
    return f"{document.name}'s full sensor"


def check_crop(
    document: BodyDocument, claim: CropClaim, others: list[BodyDocument], home: Home | None = None
) -> CropChecked:
    """Hold a claimed crop factor against every reading, here and in other bodies.

    Parameters
    ----------
    home : the production's reference and dimension; Super 35 by width without

    Returns
    -------
    ``verdict`` holds (to the printed digit, by the basis that the claim states or else by the production's), near
    (within 0.5 % by it), basis (by another basis only), elsewhere (only another body's window gives it: perhaps a
    copied page) or fails; ``text``; ``readings`` that reproduce it, or else the nearest; how many were ``tried``.
    """
    home = home or Home.named("super35")
    mode = next(m for m in document.modes if m.key == claim.mode)
    told = f"{claim.factor:.{claim.decimals}f}"
    aspect = claim.aspect[0] / claim.aspect[1] if claim.aspect else None
    own = readings(document, mode, aspect, home, claim.switches)
    basis, by = _basis_of(document, claim, home)
    at_home = [r for r in own if (r.basis, r.by) == (basis, by)]
    whose = "as is claimed" if claim.basis or claim.by else "the production's reference"
    answer = _Answer(claim, own)
    rounded = [r for r in at_home if _rounds_to(r.factor, claim)]
    if rounded:
        return answer("holds", f"{told} is {rounded[0].words()}, {whose}.", rounded)
    close = [r for r in at_home if abs(r.factor / claim.factor - 1) <= NEAR]
    if close:
        off = signed(close[0].factor / claim.factor - 1)
        return answer("near", f"{told} is {close[0].words()} ({off}), {whose}.", close)
    elsewhere = [r for r in own if _rounds_to(r.factor, claim)]
    nearest = min(own, key=lambda r: abs(math.log(r.factor / claim.factor)))
    if not elsewhere:
        copied = _copied_from(claim, others, basis, by)
        if copied is not None:
            off = signed(claim.factor / nearest.factor - 1)
            miss = f"No reading of {mode.name} gives {told}; the nearest is {nearest.words()}, and the claim is {off} from it."
            return answer("elsewhere", f"{miss} It fits {copied}. Copied from there?", [nearest])
        elsewhere = [r for r in own if abs(r.factor / claim.factor - 1) <= NEAR]
    if elsewhere:
        plain = at_home[0]
        text = (
            f"{told} is {elsewhere[0].words()}, and not by {by} against {basis}, {whose}: multiply focal lengths by "
            f"{plain.factor:.3f}, not by {told}."
        )
        return answer("basis", text, elsewhere)
    off = signed(claim.factor / nearest.factor - 1)
    miss = f"No reading of {mode.name} gives {told}; the nearest is {nearest.words()}, and the claim is {off} from it."
    switch = "" if claim.switches or not document.crops else " Was an in-camera crop on? Try those as well."
    return answer("fails", f"{miss} Measure it with a tape.{switch}", [nearest])


def _basis_of(document: BodyDocument, claim: CropClaim, home: Home) -> tuple[str, By]:
    """By which reading a claim has to hold: as it states it, or else the production's."""
    if claim.basis == "sensor":
        return _sensor_label(document), claim.by or home.by
    return LABELS[claim.basis] if claim.basis else home.name, claim.by or home.by


def _copied_from(claim: CropClaim, others: list[BodyDocument], basis: str, by: By) -> str | None:
    """Another body that the figure fits to the digit, with the plain figures that stand on a page."""
    for other in others:
        for there in other.modes:
            for r in readings(other, there):
                plain = r.window.endswith("whole") and r.by != "height" and r.basis in LABELS.values()
                if plain and _rounds_to(r.factor, claim):
                    return f"{other.maker} {other.name}: {r.words()}"
    return None


@dataclass(frozen=True)
class _Answer:
    """Writes what a claim comes to, with how much its fitting says."""

    claim: CropClaim
    tried: list[Reading]

    def __call__(self, verdict: ClaimVerdict, text: str, found: list[Reading]) -> CropChecked:
        rows: list[ReadingFigures] = [
            {"window": r.window, "basis": r.basis, "by": r.by, "factor": r.factor} for r in found[:12]
        ]
        chance = chance_of(self.tried, self.claim.decimals)
        also = f" {len(self.tried)} readings were tried; some factor or other fits one of them in {100 * chance:.0f} of 100 cases."
        return {
            "key": self.claim.key,
            "verdict": verdict,
            "text": text + also,
            "readings": rows,
            "tried": len(self.tried),
        }


def chance_of(tried: list[Reading], decimals: int) -> float:
    """How probable it is that a factor between the least and the largest reading fits one of them.

    Of all factors that can be printed there with so many decimals, those to which a reading rounds.
    """
    step = 10.0**-decimals
    printed = {round(r.factor / step) for r in tried}
    return len(printed) / (max(printed) - min(printed) + 1)


def signed(share: float) -> str:
    """Write a share as per cent with its sign.

    >>> signed(0.108), signed(-0.003)
    ('+10.8 %', '-0.3 %')
    """
    return f"{100 * share:+.1f} %"


def _rounds_to(factor: float, claim: CropClaim) -> bool:
    return abs(factor - claim.factor) <= 0.5 * 10.0**-claim.decimals * (1 + 1e-9)


def implied_width_mm(focal_mm: float, distance_mm: float, field_mm: float) -> float:
    """Window width that makes a field so wide: W = F * m, with m at the distance from the sensor plane.

    >>> round(implied_width_mm(50.0, 3000.0, 2087.4), 2)
    36.0
    """
    return field_mm * float(magnification_from_sensor(focal_mm, distance_mm))


def check_tape(document: BodyDocument, claim: TapeClaim) -> TapeChecked:
    """Hold a field measured with a tape against the window's computed and claimed widths.

    Returns
    -------
    ``implied_mm`` and its ``error_mm`` (the three uncertainties, each alone, added as squares),
    ``computed_mm``, ``claimed`` widths that were stated for this mode, ``verdict``, ``text``, and
    ``measure_better``: what the largest part of the error comes from.
    """
    mode = next(m for m in document.modes if m.key == claim.mode)
    computed, what = _computed_width(document, mode, claim)
    given = claim.focal_mm, mm_from_m(claim.distance_m), mm_from_m(claim.field_m)
    errors = claim.focal_error_mm, mm_from_m(claim.distance_error_m), mm_from_m(claim.field_error_m)
    implied = implied_width_mm(*given)
    if math.isnan(implied):
        text = f"A {claim.focal_mm:g} mm lens cannot focus at {claim.distance_m:g} m: check focal length and distance."
        return {"key": claim.key, "verdict": "unknown", "text": text, "implied_mm": None, "error_mm": None,
                "computed_mm": computed, "claimed": []}  # fmt: skip
    parts = {
        name: _half_span(given, i, error)
        for i, (name, error) in enumerate(
            zip(("focal length", "distance", "field width"), errors, strict=True)
        )
    }
    error = math.sqrt(sum(part**2 for part in parts.values()))
    worst = max(parts, key=lambda name: parts[name])
    claimed = _claimed_widths(document, mode, claim)
    verdict, text = _tape_words(implied, error, computed, what, claimed, worst)
    return {
        "key": claim.key,
        "verdict": verdict,
        "text": text,
        "implied_mm": implied,
        "error_mm": error,
        "computed_mm": computed,
        "claimed": [{"name": name, "width_mm": width} for name, width in claimed.items()],
    }


def _computed_width(document: BodyDocument, mode: ModeDocument, claim: TapeClaim) -> tuple[float, str]:
    mm = mm_from_um(document.pitch_um)
    w, h = (n * mm for n in mode.photosites(document.pitch_um))
    f = next((f for f in mode.formats if f.key == claim.format), None)
    if f is None:
        return w, f"the whole window of {mode.name}"
    if f.map == "crop":
        return f.raster[0] * mode.sampling[0] * mm, f"{f.name}, photosite for pixel"
    trimmed, _ = trim_to_aspect(w, h, f.raster[0] / f.raster[1])
    return float(trimmed), f"what {f.name} records"


def _half_span(given: tuple[float, float, float], index: int, error: float) -> float:
    """Half the change of the implied width while one figure runs through its uncertainty."""
    ends = []
    for sign in (-1, 1):
        moved = list(given)
        moved[index] = max(moved[index] + sign * error, 1e-9)
        ends.append(implied_width_mm(moved[0], moved[1], moved[2]))
    span = abs(ends[1] - ends[0]) / 2
    return math.inf if math.isnan(span) else span


def _claimed_widths(document: BodyDocument, mode: ModeDocument, claim: TapeClaim) -> dict[str, float]:
    """Widths that the claimed crop factors of a mode mean, read by width against Super 35 and full frame."""
    return {
        f"{c.factor:.{c.decimals}f} by width against {LABELS[name]}": width / c.factor
        for c in document.claims.crops
        if c.mode == mode.key
        for name, (width, _) in NAMED.items()
    }


def _tape_words(
    implied: float, error: float, computed: float, what: str, claimed: dict[str, float], worst: str
) -> tuple[ClaimVerdict, str]:
    head = f"The tape says {implied:.2f} ± {error:.2f} mm; {what} is {computed:.2f} mm"
    better = f"Measure the {worst} better: most of the error comes from it."
    inside = [f"{name} ({width:.2f} mm)" for name, width in claimed.items() if abs(width - implied) <= error]
    if abs(implied - computed) <= error:
        if error > COARSE * computed:
            also = f" So would {' and '.join(inside)}." if inside else ""
            return "coarse", f"{head}: inside the error, but that is too coarse to tell.{also} {better}"
        return "holds", f"{head}: they agree."
    if abs(implied - computed) <= 2 * error:
        return "coarse", f"{head}: just outside the error, too coarse to tell. {better}"
    off = implied / computed - 1
    fits = f" It fits the claim {inside[0]}." if inside else " Is a crop on, or is the mode another one?"
    return "fails", f"{head}: they disagree by {signed(off)}.{fits}"


def fit_speed(claims: list[SpeedClaim]) -> SpeedChecked:
    """Fit row time and overhead to stated limits: 1/fps = rows x row time + overhead.

    Returns
    -------
    ``row_time_us`` and ``overhead_us`` (None where they cannot be told), ``rows`` with the rate that
    the line gives for each claim, its residual and whether it is ``off`` the line; ``verdict``, ``text``.

    Notes
    -----
    Least squares on frame times, weighted by 1/time, since limits are printed to so many digits of
    the rate. A single claim that spoils the fit is found by leaving each out in turn.
    """
    rows = np.array([c.rows for c in claims], dtype=float)
    fps = np.array([c.fps for c in claims], dtype=float)
    if len(set(rows.tolist())) < 2:
        text = "Two limits with different rows are needed for a row time and an overhead."
        return {"verdict": "unknown", "text": text, "row_time_us": None, "overhead_us": None, "rows": []}
    fitted = _fit(rows, fps)
    off: int | None = None
    if len(set(rows.tolist())) > 2 and len(claims) > 3 and np.abs(_residuals(rows, fps, fitted)).max() > NEAR:
        off = _spoiler(rows, fps, fitted)
        if off is not None:
            keep = np.arange(len(claims)) != off
            fitted = _fit(rows[keep], fps[keep])
    residual = _residuals(rows, fps, fitted)
    flagged = np.abs(residual) > OFF_THE_LINE
    table: list[SpeedOnLine] = [
        {"key": c.key, "fitted_fps": float(c.fps / (1 + r)), "residual": float(r), "off": bool(bad)}
        for c, r, bad in zip(claims, residual, flagged, strict=True)
    ]
    row_time, overhead = (float(x) for x in fitted)
    verdict, text = _speed_words(claims, table, row_time, overhead)
    return {"verdict": verdict, "text": text, "row_time_us": row_time, "overhead_us": overhead, "rows": table}


def _fit(rows: Any, fps: Any) -> Any:
    weight = fps / 1e6
    matrix = np.column_stack((rows, np.ones_like(rows))) * weight[:, None]
    return np.linalg.lstsq(matrix, 1e6 / fps * weight, rcond=None)[0]


def _residuals(rows: Any, fps: Any, fitted: Any) -> Any:
    """Stated over fitted rate, less one: above zero the claim is faster than the line."""
    return fps * (rows * fitted[0] + fitted[1]) / 1e6 - 1.0


def _spoiler(rows: Any, fps: Any, fitted: Any) -> int | None:
    """The one claim without which the rest lie on a line far better."""
    every = np.arange(len(rows))
    rest = []
    for i in every:
        keep = every != i
        if len(set(rows[keep].tolist())) < 2:
            rest.append(math.inf)
            continue
        alone = _fit(rows[keep], fps[keep])
        rest.append(float(np.abs(_residuals(rows[keep], fps[keep], alone)).max()))
    best = int(np.argmin(rest))
    return best if rest[best] < 0.5 * np.abs(_residuals(rows, fps, fitted)).max() else None


def _speed_words(
    claims: list[SpeedClaim], table: list[SpeedOnLine], row_time: float, overhead: float
) -> tuple[ClaimVerdict, str]:
    line = f"{row_time:.3f} µs a row and {overhead:.0f} µs overhead"
    if row_time <= 0 or overhead < -50:
        return (
            "fails",
            f"The limits give {line}, which cannot be: more rows cannot take less time. Check rows and rates.",
        )
    if len(claims) == 2:
        return (
            "coarse",
            f"Two limits always lie on a line: {line}. A third would show whether they belong together.",
        )
    bad = [(c, r) for c, r in zip(claims, table, strict=True) if r["off"]]
    if not bad:
        worst = max(abs(r["residual"]) for r in table)
        return "holds", f"All limits lie on one line within {100 * worst:.1f} %: {line}."
    told = []
    for claim, row in bad:
        side = (
            "faster than the readout can be: another mode, or a slip"
            if row["residual"] > 0
            else "slower than the readout: something else binds it"
        )
        told.append(
            f"{claim.fps:g} fps at {claim.rows} rows is {signed(row['residual'])} off the line ({row['fitted_fps']:.1f}), {side}"
        )
    return "fails", f"{'; '.join(told)}. The others give {line}."


def check_pixels(document: BodyDocument, claim: PixelClaim) -> PixelsChecked:
    """Hold a claimed pixel count against active and total photosites, and the square of the crop.

    People divide by a crop once where its square is due; that reading is named when it fits.
    """
    w, h = document.photosites
    counts = {"the active photosites": w * h / 1e6}
    if document.total_photosites:
        counts["all photosites of the chip"] = math.prod(document.total_photosites) / 1e6
    mode = next((m for m in document.modes if m.key == claim.mode), None)
    slip = None
    if mode is not None:
        sw, sh = mode.photosites(document.pitch_um)
        crop = w / sw
        counts = {f"{mode.name}'s window ({w * h / 1e6:.1f} MP / {w * h / (sw * sh):.3f})": sw * sh / 1e6}
        read = (sw // mode.sampling[0]) * (sh // mode.sampling[1]) / 1e6
        if mode.sampling != [1, 1]:
            counts[f"{mode.name}'s samples"] = read
        slip = ("the crop's factor once instead of its square", w * h / 1e6 / crop)
    half = 0.5 * 10.0**-claim.decimals * (1 + 1e-9)
    told = f"{claim.megapixels:.{claim.decimals}f} MP"
    rows: list[PixelCount] = [{"name": name, "megapixels": count} for name, count in counts.items()]
    for name, count in counts.items():
        if abs(count - claim.megapixels) <= half:
            return {"key": claim.key, "verdict": "holds", "text": f"{told} is {name}.", "counts": rows}
    name, count = min(counts.items(), key=lambda item: abs(item[1] - claim.megapixels))
    if slip and abs(slip[1] - claim.megapixels) <= max(half, 0.01 * claim.megapixels):
        text = f"{told} divides by {slip[0]}; {name} is {count:.1f} MP."
        return {"key": claim.key, "verdict": "fails", "text": text, "counts": rows}
    off = claim.megapixels / count - 1
    verdict: ClaimVerdict = "near" if abs(off) <= NEAR else "fails"
    text = f"{told} is {signed(off)} from {name} ({count:.2f} MP)."
    return {"key": claim.key, "verdict": verdict, "text": text, "counts": rows}


def check_claims(
    document: BodyDocument, others: list[BodyDocument], home: Home | None = None
) -> ClaimsChecked:
    """Check all claims of a body; `others` are the bodies that a page may be copied from, `home` the reference."""
    claims = document.claims
    return {
        "crops": [check_crop(document, claim, others, home) for claim in claims.crops],
        "tapes": [check_tape(document, claim) for claim in claims.tapes],
        "speed": fit_speed(claims.speeds) if claims.speeds else None,
        "pixels": [check_pixels(document, claim) for claim in claims.pixels],
    }
