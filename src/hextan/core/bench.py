"""The Bench: one lens at one place, in every recording format of the production.

Takes the package and the Bench's state, asks the public evaluation once for all formats, and gives
the six links, the rows of the ladder, the drawings and the derivations that the screen shows.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from hextan.core.answer import answer_of
from hextan.core.bench_state import BenchState
from hextan.core.classes import format_class
from hextan.core.computation import Evaluation, compute
from hextan.core.contract import parse_request
from hextan.core.derivation import derivation_of
from hextan.core.distances import both_units
from hextan.core.drawings import coverage_verdict, plan_view, window_map
from hextan.core.errors import Fault, InvalidInputError
from hextan.core.optics import stops_of_adapter
from hextan.core.package import FormatInPackage, Lens, LensOnBody, MountAdapter, Package
from hextan.core.readout import rate_fits
from hextan.core.stops import stops_of_lens


def bench_view(
    package: Package, state: BenchState, open_rows: list[int], plan_extent_m: float | None = None
) -> dict[str, Any]:
    """Compute all that the Bench shows.

    Parameters
    ----------
    package : the production's equipment
    state : what the Bench is set to
    open_rows : ids of formats whose derivation is wanted
    plan_extent_m : reach of the plan view to keep, in metres

    Raises
    ------
    InvalidInputError
        A state that names equipment which the production does not have, or sets what cannot be.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    chosen, kit_lens, adapter = _resolve(package, state)
    setting = LensSetting(kit_lens, state, adapter)
    formats = package.formats
    order = {key: i for i, key in enumerate(formats)}
    result = compute(parse_request(_request(package, state, setting)))
    answer = answer_of(result)
    index = order[state.format_id]
    rows = [
        _row(state, setting, here, answer["formats"][i], chosen) for i, here in enumerate(formats.values())
    ]
    pinned = [key for key in state.pinned if key in order]
    shown = {key: order[key] for key in [*pinned, state.format_id]}
    return {
        "reference": answer["reference"],
        "lens": setting.as_dict(answer["lens"]),
        "links": _links(state, result, index, setting.lens.squeeze),
        "rows": rows,
        "crops": _crop_switches(chosen, state, setting.on_body(package, chosen)),
        "plan": plan_view(result, shown, index, state.subject_m, state.unit, plan_extent_m),
        "window_map": window_map(result, index, chosen.body, chosen.mode),
        "derivations": {str(key): derivation_of(result, order[key]) for key in open_rows if key in order},
    }


def _resolve(package: Package, state: BenchState) -> tuple[FormatInPackage, Lens, MountAdapter | None]:
    faults = []
    gone = "is not in this production's package (any more)"
    if state.format_id not in package.formats:
        faults.append(Fault("state.format_id", state.format_id, gone))
    if state.lens_id not in package.lenses:
        faults.append(Fault("state.lens_id", state.lens_id, gone))
    adapters = {a.id: a for a in package.adapters}
    if state.adapter_id is not None and state.adapter_id not in adapters:
        faults.append(Fault("state.adapter_id", state.adapter_id, gone))
    if state.reference.name == "scan_mode" and state.reference.scan_mode_id not in package.modes:
        faults.append(Fault("state.reference.scan_mode_id", state.reference.scan_mode_id, gone))
    if faults:
        raise InvalidInputError.of(*faults)
    return (
        package.formats[state.format_id],
        package.lenses[state.lens_id][1],
        None if state.adapter_id is None else adapters[state.adapter_id],
    )


class LensSetting:
    """A lens as it is set: focal length within its range, stop no wider than it opens."""

    def __init__(self, lens: Lens, state: BenchState, adapter: MountAdapter | None) -> None:
        self.lens, self.adapter = lens, adapter
        self.notes: list[dict[str, str]] = []
        wanted = lens.focal_min_mm if state.focal_mm is None else state.focal_mm
        self.focal_mm = (
            min(max(wanted, lens.focal_min_mm), lens.focal_max_mm) if lens.is_zoom else lens.focal_min_mm
        )
        if lens.is_zoom and self.focal_mm != wanted:
            self._note(
                "focal_clamped", f"{lens.name} does not reach {wanted:g} mm: set to {self.focal_mm:g} mm."
            )
        self.marks = "T" if lens.t_stop is not None else "f/"
        self.widest_f = self._along(lens.f_number, lens.f_number_long)
        self.widest_t = self._along(lens.t_stop, lens.t_stop_long)
        widest = self.widest_t if self.widest_t is not None else self.widest_f
        self.widest = widest
        self.stop = widest if state.stop is None or widest is None else max(state.stop, widest)
        if state.stop is not None and widest is not None and state.stop < widest * (1 - 1e-6):
            self._note("stop_clamped", f"{self.marks}{state.stop:g} is wider than this lens opens: "
                       f"set to {self.marks}{widest:.3g}.")  # fmt: skip

    def _note(self, code: str, text: str) -> None:
        self.notes.append({"level": "warn", "code": code, "text": text})

    def _along(self, short: float | None, long: float | None) -> float | None:
        """Aperture at the focal length set: geometric between the ends, as apertures go."""
        if short is None or long is None or not self.lens.is_zoom:
            return short
        span = math.log(self.lens.focal_max_mm / self.lens.focal_min_mm)
        share = math.log(self.focal_mm / self.lens.focal_min_mm) / span
        return float(short * (long / short) ** share)

    @property
    def f_number(self) -> float | None:
        """The f-number that goes with the stop set."""
        if self.stop is None or self.widest_f is None or self.widest_t is None:
            return self.stop if self.widest_t is None else None
        return self.stop * self.widest_f / self.widest_t

    @property
    def t_stop(self) -> float | None:
        """The T-stop set, where the lens has T marks."""
        return self.stop if self.widest_t is not None else None

    @property
    def magnification(self) -> float:
        """Of the adapter, 1 without."""
        return 1.0 if self.adapter is None else self.adapter.magnification

    def on_body(self, package: Package, here: FormatInPackage) -> LensOnBody:
        """Tell what in-camera crops have to know of the lens as it is mounted."""
        circle, covers = self.lens.image_circle_mm, None
        if circle is not None:
            covers = circle * self.magnification >= package.needed_circle_mm[here.recording.id]
        return LensOnBody(self.lens.squeeze, covers)

    def mounts_on(self, body_mount: str) -> bool:
        """Whether lens, adapter and body fit together."""
        if self.adapter is None:
            return self.lens.mount == body_mount
        return self.adapter.lens_mount == self.lens.mount and self.adapter.body_mount == body_mount

    def as_dict(self, mounted: dict[str, Any]) -> dict[str, Any]:
        """Describe the setting, with what the adapter made of it."""
        return {
            "focal_mm": self.focal_mm,
            "marks": self.marks,
            "stop": self.stop,
            "stops": [] if self.widest is None else stops_of_lens(self.widest),
            "mounted": mounted,
            "adapter_stops": float(stops_of_adapter(self.magnification)),
            "notes": self.notes,
        }


def _request(package: Package, state: BenchState, setting: LensSetting) -> dict[str, Any]:
    lens, reference = setting.lens, state.reference
    switched_on = frozenset(state.crop_ids)
    formats = []
    for here in package.formats.values():
        delivery = state.delivery.for_recording(here.recording.raster, lens.squeeze)
        formats.append(here.as_request(state.fps, delivery, switched_on, setting.on_body(package, here)))
    focus = state.focus_m or state.subject_m
    return {
        "reference": _reference(package, reference.name, reference.scan_mode_id) | {"by": reference.by},
        "subject": {"distance_m": focus},
        "background_m": [state.subject_m, None],
        "lens": {
            "focal_mm": setting.focal_mm,
            "f_number": setting.f_number,
            "t_stop": setting.t_stop,
            "squeeze": lens.squeeze,
            "image_circle_mm": lens.image_circle_mm,
            "close_focus_m": lens.close_focus_m,
            "pupil_magnification": lens.pupil_magnification,
            "projection": lens.projection,
        },
        "adapter": {"magnification": setting.magnification},
        "coc": state.coc.model_dump(),
        "formats": formats,
    }


def _reference(package: Package, name: str, scan_mode_id: int | None) -> dict[str, Any]:
    if name != "scan_mode" or scan_mode_id is None:
        return {"name": name}
    body, mode = package.modes[scan_mode_id]
    w, h = (n * body.pitch_um / 1000 for n in mode.window)
    return {"width_mm": w, "height_mm": h}


def _row(
    state: BenchState,
    setting: LensSetting,
    here: FormatInPackage,
    answer: dict[str, Any],
    chosen: FormatInPackage,
) -> dict[str, Any]:
    mounts = setting.mounts_on(here.body.mount)
    if not mounts:
        answer["notes"].insert(0, {"level": "stop", "code": "mount", "text": _mount_text(setting, here)})
    speed, pixels, covered = answer["speed"], answer["pixels"], answer["coverage"]
    row = {
        "format_id": here.recording.id,
        "format_class": format_class(answer["recorded_mm"]["diagonal"]),
        "mounts": mounts,
        "verdict": coverage_verdict(covered["circle_mm"], covered["needed_mm"]),
        "sharpness": _sharpness(here, pixels["oversampling"]),
        "limited_by": here.limited_by(speed["limited_by"]),
        "answer": answer,
    }
    row["shown"] = _shown(state, row, here, chosen)
    return row


def _mount_text(setting: LensSetting, here: FormatInPackage) -> str:
    if setting.adapter is None:
        return f"The lens has the {setting.lens.mount} mount and {here.body.name} takes {here.body.mount}: an adapter is needed."
    a = setting.adapter
    return f"{a.name} goes from {a.lens_mount} to {a.body_mount}; here {setting.lens.mount} has to go to {here.body.mount}."


def _sharpness(here: FormatInPackage, oversampling: float | None) -> str:
    """Rank a read: oversampled, 1:1, or softened (upscaled, binned, skipped)."""
    if here.mode.method != "full" or oversampling is None or oversampling < 0.999:
        return "softened"
    return "oversampled" if oversampling > 1.001 else "1:1"


def _shown(state: BenchState, row: dict[str, Any], here: FormatInPackage, chosen: FormatInPackage) -> bool:
    wanted, speed = state.ladder, row["answer"]["speed"]["max_fps"]
    return not (
        (wanted.scope == "body" and here.body.id != chosen.body.id)
        or (wanted.classes and row["format_class"] not in wanted.classes)
        or (wanted.covers and row["verdict"] not in ("covers", "marginal"))
        or (wanted.oversampled and row["sharpness"] != "oversampled")
        or (wanted.least_fps is not None and (speed is None or not rate_fits(wanted.least_fps, speed)))
    )


def _crop_switches(chosen: FormatInPackage, state: BenchState, lens: LensOnBody) -> list[dict[str, Any]]:
    return [
        {
            "id": crop.id,
            "name": crop.name,
            "factor": crop.factor(chosen.mode.id, chosen.recording.raster),
            "on": crop.id in state.crop_ids,
            "reason": chosen.crop_reason(crop, lens),
        }
        for crop in chosen.body.crops
    ]


def _links(state: BenchState, result: Evaluation, index: int, squeeze: float) -> dict[str, Any]:
    """Tell what each link does to the picture's size, by the reference's dimension: the factors multiply to the sum."""
    c, by = result.columns, result.reference.by

    def size(w: Any, h: Any, stretch: float = squeeze) -> float:
        wide, high = float(w[index]) * stretch, float(h[index])
        return wide if by == "width" else high if by == "height" else math.hypot(wide, high)

    as_read, read = size(c.read_w, c.read_h, 1.0), size(c.read_w, c.read_h)
    recorded, picture = size(c.recorded_w, c.recorded_h), size(c.picture_w, c.picture_h)
    whole = float(result.crop[index]) * picture
    across = float(c.given.raster_w[index] * c.picture_w[index] / c.recorded_w[index])
    return {
        "subject": _subject_link(state, result, index),
        "lens": {"factor": as_read / read},
        "readout": {
            "factor": whole / as_read,
            "width_mm": float(c.read_w[index]),
            "height_mm": float(c.read_h[index]),
        },
        "recording": {"factor": read / recorded},
        "delivery": {"factor": recorded / picture, "pixels_across": across},
        "sum": {"factor": float(result.crop[index])},
    }


def _subject_link(state: BenchState, result: Evaluation, index: int) -> dict[str, Any]:
    """Tell whether the subject is sharp when the focus is set elsewhere."""
    disc = np.broadcast_to(result.background_mm[0], result.columns.picture_w.shape)[index]
    coc = result.coc_mm[index]
    sharp = bool(disc <= coc * (1 + 1e-9)) if np.isfinite(disc) and np.isfinite(coc) else None
    text = None
    if state.focus_m is not None and state.focus_m != state.subject_m:
        off = state.focus_m - state.subject_m
        side = "behind" if off > 0 else "in front of"
        told = f"Focus {both_units(abs(off))} {side} the subject"
        if sharp is not None:
            blur = f"its blur is {disc / coc:.1f} circles of confusion"
            text = (
                f"{told}: still inside the depth, {blur}."
                if sharp
                else f"{told}: the subject is soft, {blur}."
            )
    return {"sharp": sharp, "blur_mm": float(disc) if np.isfinite(disc) else None, "text": text}
