"""A camera as another program tells it, and which set-up of the production it means."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

from hextan.core.base import NothingYetError
from hextan.core.bench import BenchState
from hextan.core.equipment import FormatInPackage, Lens, Package, simplest
from hextan.core.evaluation import columns_of

#: Widths and focal lengths that differ by less than this share are the same.
SAME = 0.015


@dataclass(frozen=True)
class SeenCamera:
    """What a file or a camera says. What it does not say is None; names count before figures."""

    name: str = ""
    body: str | None = None
    mode: str | None = None
    format: str | None = None
    lens: str | None = None
    adapters: tuple[str, ...] | None = None
    #: Behind the adapters, and as it is set on the lens.
    focal_mm: float | None = None
    set_mm: float | None = None
    #: Width of the picture, de-squeezed, or of the recording as it lies on the sensor.
    wide_mm: float | None = None
    recorded_mm: float | None = None
    #: As marked; or geometric, behind the adapters.
    stop: float | None = None
    f_number: float | None = None
    #: From the sensor plane.
    focus_m: float | None = None
    subject_m: float | None = None
    fps: float | None = None
    shutter_deg: float | None = None
    ei: int | None = None
    camera_height_m: float | None = None
    notes: tuple[str, ...] = field(default=())


def state_of(package: Package, bench: BenchState | None, seen: SeenCamera) -> tuple[BenchState, list[str]]:
    """Set a Bench as a camera says it is set.

    Parameters
    ----------
    bench : what everything is taken from that the camera does not say

    Returns
    -------
    The Bench, and what had to be guessed or left, in words.

    Raises
    ------
    NothingYetError
        When the package has no recording format or no lens at all.
    """
    if not package.formats or not package.lenses:
        raise NothingYetError
    notes = list(seen.notes)
    here = _format(package, bench, seen, notes)
    lens = _lens(package, bench, here, seen, notes)
    named = seen.adapters
    if named is not None:
        chain = [a.id for name in named for a in package.adapters if a.name == name]
        if len(chain) != len(named):
            notes.append("One of its adapters is not in the package: the lens is mounted the simplest way.")
            named = None
    if named is None:
        way = simplest(package.rig, lens, here.body)
        chain = list(way.key) if way is not None else []
    by_id = {a.id: a.magnification for a in package.adapters}
    magnification = math.prod(by_id[key] for key in chain)
    set_mm = seen.set_mm if seen.set_mm is not None else seen.focal_mm and seen.focal_mm / magnification
    update: dict[str, Any] = {
        "format_id": here.recording.id,
        "lens_id": lens.id,
        "adapter_id": chain[0] if chain else None,
        "second_adapter_id": chain[1] if len(chain) > 1 else None,
        "focal_mm": set_mm if lens.is_zoom else None,
        "crop_ids": [],
    }
    stop = seen.stop
    if stop is None and seen.f_number is not None:
        f, t = lens.widest_at(set_mm or lens.focal_min_mm)
        stop = seen.f_number / magnification * (t / f if f and t else 1.0)
        stop = float(f"{stop:.6g}")
    for name, value, least, most in (
        ("stop", stop, 0.31, 255.0),
        ("subject_m", seen.subject_m or seen.focus_m, 0.01, 100_000.0),
        ("fps", seen.fps, 0.02, 20_000.0),
    ):
        if value is not None and math.isfinite(value):
            update[name] = min(max(value, least), most)
    update["focus_m"] = (
        seen.focus_m if seen.subject_m is not None and seen.focus_m != seen.subject_m else None
    )
    state = (bench or BenchState(format_id=here.recording.id, lens_id=lens.id)).model_copy(update=update)
    light: dict[str, Any] = {}
    if seen.shutter_deg is not None and 0 < seen.shutter_deg <= 360:
        light |= {"shutter": "angle", "shutter_deg": seen.shutter_deg}
    if seen.ei is not None:
        light["ei"] = seen.ei
    scene = (
        {}
        if seen.camera_height_m is None or not 0.01 <= seen.camera_height_m <= 1000
        else {"camera_height_m": seen.camera_height_m}
    )
    state = state.model_copy(
        update={"light": state.light.model_copy(update=light), "scene": state.scene.model_copy(update=scene)}
    )
    return BenchState.model_validate(state.model_dump()), notes


def _format(
    package: Package, bench: BenchState | None, seen: SeenCamera, notes: list[str]
) -> FormatInPackage:
    places = list(package.formats.values())
    named = [
        p
        for p in places
        if (seen.body is None or p.body.name == seen.body)
        and (seen.mode is None or p.mode.name == seen.mode)
        and seen.format is not None
        and p.recording.name == seen.format
    ]
    if named:
        return named[0]
    if seen.format is not None:
        notes.append(
            f"The recording format {seen.format} is not in the package: the nearest by its width is taken."
        )
    of_body = [p for p in places if p.body.name == seen.body] or places
    wanted = seen.recorded_mm if seen.recorded_mm is not None else seen.wide_mm
    if wanted is None:
        here = package.formats.get(bench.format_id) if bench is not None else None
        notes.append("It does not say how large its picture is: the recording format stays.")
        return here or of_body[0]
    widths = columns_of([p.as_request() for p in of_body], 1.0).recorded_w
    best = min(range(len(of_body)), key=lambda i: abs(math.log(float(widths[i]) / wanted)))
    off = abs(float(widths[best]) / wanted - 1)
    if off > SAME:
        notes.append(
            f"No recording format is {wanted:.2f} mm wide: {of_body[best].recording.name} of {of_body[best].body.name} comes "
            f"nearest with {float(widths[best]):.2f} mm."
        )
    return of_body[best]


def _lens(
    package: Package, bench: BenchState | None, here: FormatInPackage, seen: SeenCamera, notes: list[str]
) -> Lens:
    lenses = [lens for _, lens in package.lenses.values()]
    named = [lens for lens in lenses if lens.name == seen.lens]
    if named:
        return named[0]
    if seen.lens is not None:
        notes.append(f"The lens {seen.lens} is not in the package: the nearest by its focal length is taken.")
    wanted = seen.focal_mm if seen.focal_mm is not None else seen.set_mm
    fit = [(lens, way) for lens in lenses if (way := simplest(package.rig, lens, here.body)) is not None]
    if wanted is None or not fit:
        notes.append(
            "It does not say its focal length: the lens stays."
            if fit
            else f"No lens of the package fits {here.body.name}."
        )
        return (
            package.lenses[bench.lens_id][1]
            if bench is not None and bench.lens_id in package.lenses
            else lenses[0]
        )

    def off(lens: Lens, magnification: float) -> float:
        low, high = lens.focal_min_mm * magnification, lens.focal_max_mm * magnification
        apart = abs(math.log(min(max(wanted, low), high) / wanted))
        # A prime that is the same counts before a zoom that could be set to it.
        return SAME if lens.is_zoom and apart <= SAME else apart if apart > SAME else apart / 2

    best, way = min(fit, key=lambda pair: off(pair[0], pair[1].magnification))
    if off(best, way.magnification) > SAME:
        notes.append(f"No lens has {wanted:.4g} mm: {best.name} comes nearest.")
    return best
