"""What a camera says of itself while it runs, and what is on it then in the words of the production."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from itertools import chain

import numpy as np

from hextan.core.equipment import FormatInPackage, LensOnBody, LensSetting, Package, adapters_by_id, simplest
from hextan.core.evaluation import columns_of
from hextan.core.record.document import OnCamera

#: Millimetres that differ by less than this share are the same: cameras tell them with two or three decimals.
SAME_SIZE = 0.004
#: A focal length by which a lens is known, share.
_SAME_FOCAL = 0.015
_KEPT = "windows as cameras say them"


@dataclass(frozen=True)
class Heard:
    """One sample, checked. What it does not say is None."""

    source: str = ""
    sequence: int | None = None
    body: str | None = None
    #: Scan mode as the camera calls it.
    mode: str | None = None
    #: What is read and recorded of the sensor, squeezed as it lies there, and the raster that is written.
    read_mm: tuple[float, float] | None = None
    raster: tuple[int, int] | None = None
    squeeze: float | None = None
    fps: float | None = None
    ei: int | None = None
    shutter_deg: float | None = None
    lens: str | None = None
    focal_mm: float | None = None
    t_stop: float | None = None
    f_number: float | None = None
    focus_m: float | None = None
    #: Whether it records, and the clip or slate that it names.
    recording: bool | None = None
    slate: str | None = None
    #: Its clock, seconds since 1970.
    clock_s: float | None = None

    @property
    def facts(self) -> Heard:
        """Without what goes on all the time: the focus, the clock, and the number of the sample."""
        return replace(self, sequence=None, focus_m=None, clock_s=None)


@dataclass(frozen=True)
class Window:
    """A recording format with the in-camera crops that are on."""

    here: FormatInPackage
    crops: tuple[str, ...]
    wide_mm: float
    high_mm: float


def windows_of(package: Package, body: str) -> list[Window]:
    """Every recording format of a body without crops, and with each one that can act; kept with the package."""
    kept: dict[str, list[Window]] = package.worked_out.setdefault(_KEPT, {})
    if body not in kept:
        places = [place for place in package.formats.values() if place.body.name == body]
        pairs = list(chain.from_iterable(_with_crops(place) for place in places))
        kept[body] = []
        if pairs:
            requests = [
                here.as_request(switched_on=frozenset(ids), lens=LensOnBody(covers=False))
                for here, _, ids in pairs
            ]
            c = columns_of(requests, 1.0)
            kept[body] = [
                Window(here, names, float(c.recorded_w[i]), float(c.recorded_h[i]))
                for i, (here, names, _) in enumerate(pairs)
            ]
    return kept[body]


def _with_crops(here: FormatInPackage) -> list[tuple[FormatInPackage, tuple[str, ...], tuple[int, ...]]]:
    lens = LensOnBody(covers=False)
    acting = [crop for crop in here.body.crops if here.crop_reason(crop, lens) is None]
    return [(here, (), ()), *((here, (crop.name,), (crop.id,)) for crop in acting)]


def on_camera(
    package: Package, body: str, heard: Heard, planned: OnCamera | None, last: OnCamera | None
) -> tuple[OnCamera, list[str]]:
    """Say what is on a camera by what it says.

    Parameters
    ----------
    body : which body speaks
    planned : of several formats that look alike from outside the planned one is meant
    last : what was last booked; what the camera does not say is taken from there

    Returns
    -------
    What is on it, and what cannot be told, in words.
    """
    notes: list[str] = []
    window = _window(package, body, heard, planned, notes)
    before = last if last is not None and last.body == body else OnCamera(body=body)
    lens = _lens(package, heard, before, notes)
    adapters = before.adapters if lens == before.lens else _adapters(package, lens, body)
    focal = heard.focal_mm if _is_zoom(package, lens) else None
    stop = _stop(package, lens, adapters, focal, heard)
    return before.model_copy(
        update={
            "mode": "" if window is None else window.here.mode.name,
            "format": "" if window is None else window.here.recording.name,
            "crops": list(window.crops) if window is not None and heard.read_mm is not None else None,
            "lens": lens,
            "lens_set": before.lens_set if lens == before.lens else "",
            "adapters": adapters,
            "focal_mm": before.focal_mm if focal is None and lens == before.lens else focal,
            "stop": stop if stop is not None else before.stop,
            "squeeze": heard.squeeze if heard.squeeze is None or 0.5 <= heard.squeeze <= 4 else None,
            "ei": heard.ei if heard.ei is not None else before.ei,
            "fps": heard.fps if heard.fps is not None else before.fps,
            "shutter_deg": heard.shutter_deg if heard.shutter_deg else before.shutter_deg,
            "focus_m": heard.focus_m if heard.focus_m is not None else before.focus_m,
        }
    ), notes  # fmt: skip


def _window(
    package: Package, body: str, heard: Heard, planned: OnCamera | None, notes: list[str]
) -> Window | None:
    every = windows_of(package, body)
    fit = every
    if heard.mode:
        named = [
            w for w in fit if heard.mode.lower() in (w.here.mode.name.lower(), w.here.mode.menu.name.lower())
        ]
        fit = named or fit
    if heard.read_mm is not None:
        wide, high = heard.read_mm
        fit = [
            w
            for w in fit
            if abs(w.wide_mm / wide - 1) <= SAME_SIZE and abs(w.high_mm / high - 1) <= SAME_SIZE
        ]
    if heard.raster is not None:
        fit = [w for w in fit if tuple(w.here.recording.raster) == heard.raster]
    if heard.read_mm is None and heard.raster is None and not heard.mode:
        return None
    if not fit:
        size = "" if heard.read_mm is None else f"{heard.read_mm[0]:.2f} × {heard.read_mm[1]:.2f} mm"
        pixels = "" if heard.raster is None else f"{heard.raster[0]} × {heard.raster[1]} pixels"
        notes.append(
            f"No recording format of {body} is {' at '.join(part for part in (size, pixels) if part)}."
        )
        return None
    # The planned one first, then its scan mode, then what offers the rate; no crop before one that looks like it.
    return min(fit, key=lambda w: (
        planned is None or w.here.recording.name != planned.format or w.here.mode.name != planned.mode,
        planned is None or w.here.mode.name != planned.mode,
        heard.fps is not None and not w.here.recording.rates.offers(heard.fps),
        len(w.crops),
    ))  # fmt: skip


def _lens(package: Package, heard: Heard, before: OnCamera, notes: list[str]) -> str:
    lenses = [lens for _, lens in package.lenses.values()]
    if heard.lens:
        named = next((lens.name for lens in lenses if lens.name.lower() == heard.lens.strip().lower()), None)
        if named is not None:
            return named
        notes.append(f"The lens {heard.lens} is not in the package.")
    if heard.focal_mm is None or heard.lens is None:
        return before.lens
    alike = [lens for lens in lenses
             if lens.focal_min_mm * (1 - _SAME_FOCAL) <= heard.focal_mm <= lens.focal_max_mm * (1 + _SAME_FOCAL)]  # fmt: skip
    return before.lens if before.lens in [lens.name for lens in alike] else ""


def _is_zoom(package: Package, name: str) -> bool:
    return any(lens.is_zoom for _, lens in package.lenses.values() if lens.name == name)


def _adapters(package: Package, name: str, body: str) -> list[str]:
    lens = next((lens for _, lens in package.lenses.values() if lens.name == name), None)
    there = next((b for b in package.bodies if b.name == body), None)
    way = None if lens is None or there is None else simplest(package.rig, lens, there)
    return [] if way is None else [adapter.name for adapter in way.adapters]


def _stop(
    package: Package, name: str, adapters: list[str], focal: float | None, heard: Heard
) -> float | None:
    """As the lens is marked: a camera may tell the f-number of a lens with T marks, behind its adapters."""
    if heard.t_stop is not None:
        return _settable(heard.t_stop)
    lens = next((lens for _, lens in package.lenses.values() if lens.name == name), None)
    if heard.f_number is None or lens is None:
        return None if heard.f_number is None else _settable(heard.f_number)
    by_name = {adapter.name: adapter.id for adapter in package.adapters}
    chain_ = adapters_by_id(package.adapters, [by_name[a] for a in adapters if a in by_name], "adapters")
    setting = LensSetting(package.rig, lens, chain_, focal)
    bare = heard.f_number / setting.magnification
    if setting.widest_t and setting.widest_f:
        bare *= setting.widest_t / setting.widest_f
    return _settable(bare)


def _settable(stop: float) -> float | None:
    return float(np.round(stop, 4)) if math.isfinite(stop) and 0.3 <= stop <= 256 else None
