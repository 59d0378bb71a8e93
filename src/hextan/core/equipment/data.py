"""Pixels and data of every recording format: what is sampled, recorded, delivered, and what it weighs."""

from __future__ import annotations

import math
from collections.abc import Collection
from typing import Annotated

import numpy as np
from pydantic import Field

from hextan.core.base import Pair, Part, RateText, parse_rate
from hextan.core.equipment.answers import CropChoice, DataRow, DataTable, Weights, WindowChoice
from hextan.core.equipment.needs import needs_words
from hextan.core.equipment.package import Body, FormatInPackage, LensOnBody, Package
from hextan.core.equipment.settings import PackageSettings
from hextan.core.equipment.speed import highest_of
from hextan.core.evaluation import Delivery, FormatColumns, columns_of
from hextan.core.optics import media, oversampled, upscaled


class DataAsk(Part):
    """At which rate the data are counted, and what is delivered."""

    #: Without it each format counts at the production's base rate.
    fps: RateText | None = None
    delivery: Pair = [3840, 2160]
    squeeze: Annotated[float, Field(ge=0.5, le=4)] = 1.0


def data_table(package: Package, settings: PackageSettings, ask: DataAsk) -> DataTable:
    """Lay out pixels and data of every recording format of a package.

    Returns
    -------
    ``fps`` and ``rows``. What can't be told for want of compression or bit rate is None.
    """
    fps = float(parse_rate(ask.fps or settings.base_fps))
    places = list(package.formats.values())
    if not places:
        return {"fps": fps, "rows": []}
    w, h = ask.delivery
    delivery: Delivery = {"aspect": w / h, "raster": [w, h]}
    c = columns_of([here.as_request(fps, delivery) for here in places], ask.squeeze)
    head = np.minimum(
        c.given.raster_w * c.picture_w / c.recorded_w / w, c.given.raster_h * c.picture_h / c.recorded_h / h
    )
    level = media.levelling_degrees(c.given.raster_w * ask.squeeze, c.given.raster_h, float(w), float(h))
    recorded = dict(zip((p.recording.id for p in places), c.recorded_w.tolist(), strict=True))
    return {
        "fps": fps,
        "rows": [
            _row(here, c, i, recorded, float(head[i]), float(level[i]), settings, fps, ask, package.carried)
            for i, here in enumerate(places)
        ],
    }


def _row(
    here: FormatInPackage,
    c: FormatColumns,
    i: int,
    recorded: dict[int, float],
    headroom: float,
    level: float,
    settings: PackageSettings,
    fps: float,
    ask: DataAsk,
    carried: Collection[str],
) -> DataRow:
    share_w, share_h = float(c.recorded_w[i] / c.read_w[i]), float(c.recorded_h[i] / c.read_h[i])
    samples = float(c.samples_across[i]) * share_w, float(c.samples_down[i]) * share_h
    raster = here.recording.raster
    picture = float(c.picture_w[i] * c.picture_h[i] / (c.recorded_w[i] * c.recorded_h[i]))
    rate = here.recording.bytes_per_second(fps)
    # Half a pixel of the delivery is not missing: rasters are whole pixels.
    fits = headroom >= 1 - 0.5 / min(ask.delivery)
    return {
        "format_id": here.recording.id,
        "format": here.recording.name,
        "mode": here.mode.name,
        "body": here.body.name,
        "needs": needs_words(here, carried),
        "sampled": [int(samples[0] + 1e-6), int(samples[1] + 1e-6)],
        "recorded": list(raster),
        "delivered": list(ask.delivery),
        "sampled_mp": samples[0] * samples[1] / 1e6,
        "recorded_mp": raster[0] * raster[1] / 1e6,
        "picture_mp": raster[0] * raster[1] * picture / 1e6,
        "oversampling": [samples[0] / raster[0], samples[1] / raster[1]],
        "headroom_percent": 100 * (headroom - 1),
        "levelling_deg": level if np.isfinite(level) else 0.0 if fits else None,
        "fits_rate": highest_of(here).allows(fps),
        **_weights(here, settings, rate, fps),
        "crops": _crops(here, settings, samples, rate, ask),
        "windows": _windows(here, recorded, fps, rate, ask),
    }


def _windows(
    here: FormatInPackage, recorded_mm: dict[int, float], fps: float, rate: float | None, ask: DataAsk
) -> list[WindowChoice]:
    """Each tighter window of the body against cropping this recording to the same width afterwards.

    A tighter window reads and records less: it saves card and buffer, and cannot be re-framed. What is recorded of
    each counts, and not the window: rasters trim it, or take photosites for pixels.

    Parameters
    ----------
    recorded_mm : width on the sensor that each format records, by its id
    """
    found: list[WindowChoice] = []
    for mode in here.body.modes:
        alike = [
            f
            for f in mode.formats
            if f.raw == here.recording.raw and f.interlaced == here.recording.interlaced
        ]
        if not alike or mode.id == here.mode.id:
            continue
        other = next((f for f in alike if f.codec == here.recording.codec), alike[0])
        factor = recorded_mm[here.recording.id] / recorded_mm[other.id]
        if not oversampled(factor):
            continue
        tight = FormatInPackage(here.body, mode, other)
        there = other.bytes_per_second(fps)
        left = [round(n / factor) for n in here.recording.raster]
        buffered = [_buffer_seconds(here.body, r) for r in (there, rate)]
        found.append(
            {
                "name": f"{other.name}, {mode.name}",
                "factor": factor,
                "words": _window_words(tight, factor, left, (there, rate), buffered, ask),
            }
        )
    return found


def _window_words(
    tight: FormatInPackage,
    factor: float,
    left: list[int],
    rates: tuple[float | None, float | None],
    buffered: list[float | None],
    ask: DataAsk,
) -> str:
    def weight(rate: float | None, seconds: float | None) -> str:
        told = "" if rate is None else f" at {rate / 1e6:.0f} MB/s"
        return told + ("" if seconds is None else f", {seconds:.0f} s of buffer")

    w, h = tight.recording.raster
    enough = left[0] >= ask.delivery[0] and left[1] >= ask.delivery[1]
    return (
        f"×{factor:.3f}: in camera {w} × {h} pixels{weight(rates[0], buffered[0])}; cropped afterwards {left[0]} × {left[1]} "
        f"are left{weight(rates[1], buffered[1])}, {'enough for the delivery' if enough else 'fewer than the delivery needs'}."
    )


def cards_filled(body: Body) -> int:
    """How many cards of the body are filled one after the other; a second one that writes the same adds no minutes."""
    return body.slots if body.slot_use == "after" else 1


def copies_written(body: Body) -> int:
    """How many times everything is written."""
    return body.slots if body.slot_use == "both" else 1


def _buffer_seconds(body: Body, rate: float | None) -> float | None:
    """How long a burst lasts; None where nothing is buffered, or the card keeps up."""
    if rate is None or body.buffer_bytes is None or body.write_bytes_s is None:
        return None
    seconds = float(media.buffer_seconds(body.buffer_bytes, rate, body.write_bytes_s))
    return seconds if np.isfinite(seconds) else None


def _weights(here: FormatInPackage, settings: PackageSettings, rate: float | None, fps: float) -> Weights:
    """Data rate, minutes on each card, a day's storage, and how long the buffer lasts, in seconds and in frames."""
    if rate is None:
        return {"mb_s": None, "card_minutes": {card.key: None for card in settings.cards}, "day_gb": None,
                "day_gib": None, "buffer_s": None, "buffer_frames": None}  # fmt: skip
    buffer_s = _buffer_seconds(here.body, rate)
    day = float(media.storage_bytes(settings.minutes_a_day, rate)) * copies_written(here.body)
    return {
        "mb_s": rate / 1e6,
        "card_minutes": {
            card.key: float(media.card_minutes(card.capacity, card.unit, rate)) * cards_filled(here.body)
            for card in settings.cards
        },
        "day_gb": day / media.BYTES["GB"],
        "day_gib": day / media.BYTES["GiB"],
        "buffer_s": buffer_s,
        "buffer_frames": None if buffer_s is None else math.floor(buffer_s * fps + 1e-9),
    }


def _crops(
    here: FormatInPackage,
    settings: PackageSettings,
    samples: tuple[float, float],
    rate: float | None,
    ask: DataAsk,
) -> list[CropChoice]:
    """Each in-camera crop against cropping the recording by the same factor afterwards.

    In camera the raster and the data stay and fewer samples fill it; afterwards the samples stay and
    1/C^2 of the pixels are left.
    """
    found: list[CropChoice] = []
    # An unknown circle: a small-circle mode may be needed, so it is offered.
    for crop, factor in here.crops_that_apply(
        frozenset(c.id for c in here.body.crops), LensOnBody(ask.squeeze)
    ):
        left = [round(n / factor) for n in here.recording.raster]
        found.append(
            {
                "name": crop.name,
                "factor": factor,
                "words": _crop_words(factor, samples[0] / factor / here.recording.raster[0], left, ask),
            }
        )
    return found


def _crop_words(factor: float, oversampling: float, left: list[int], ask: DataAsk) -> str:
    sharp = (
        f"in camera it is still oversampled ({oversampling:.2f})"
        if oversampled(oversampling)
        else f"in camera it is upscaled ({oversampling:.2f} samples for each pixel)"
        if upscaled(oversampling)
        else "in camera it is photosite for pixel"
    )
    enough = left[0] >= ask.delivery[0] and left[1] >= ask.delivery[1]
    after = (
        "enough for the delivery, and the frame can still be moved"
        if enough
        else "fewer than the delivery needs"
    )
    return (
        f"×{factor:g}: {sharp}, and the frame is fixed; afterwards {left[0]} × {left[1]} pixels "
        f"({left[0] * left[1] / 1e6:.1f} MP) are left, {after}. "
        "Card and buffer are the same."
    )
