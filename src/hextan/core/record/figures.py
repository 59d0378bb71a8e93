"""What is on a camera, found in the package and computed: what it frames like, how many photosites, depth, light."""

from __future__ import annotations

import math
from dataclasses import dataclass

from hextan.core.base import HextanError
from hextan.core.bench import BenchResult, BenchState, compute_bench
from hextan.core.equipment import FormatInPackage, Lens, MountAdapter, Package
from hextan.core.evaluation import BenchDelivery, BenchReference, answer_of
from hextan.core.record.document import OnCamera

#: With no focus said, depth is told for this distance (common practice, no source).
USUAL_FOCUS_M = 3.0


@dataclass(frozen=True)
class Found:
    """The equipment that is named, as far as the package has it."""

    here: FormatInPackage | None
    lens: Lens | None
    adapters: tuple[MountAdapter, ...]
    crop_ids: tuple[int, ...]
    #: What is named and not there.
    gone: tuple[str, ...]


def found_of(package: Package, on: OnCamera) -> Found:
    """Find by name what is on a camera; names of what is not in the package are among ``gone``."""
    here = next(
        (p for p in package.formats.values()
         if (p.body.name, p.recording.name) == (on.body, on.format) and on.mode in ("", p.mode.name)),
        None,
    )  # fmt: skip
    lens = package.lens_named(on.lens, on.lens_set) if on.lens else None
    by_name = {adapter.name: adapter for adapter in package.adapters}
    crops = {} if here is None else {crop.name: crop.id for crop in here.body.crops}
    asked = [*on.adapters, *(on.crops or [])]
    gone = [name for name in asked if name not in by_name and name not in crops]
    if on.format and here is None:
        gone.append(f"{on.format} of {on.body}" if on.body else on.format)
    if on.lens and lens is None:
        gone.append(on.lens)
    return Found(
        here,
        lens,
        tuple(by_name[name] for name in on.adapters if name in by_name),
        tuple(crops[name] for name in on.crops or [] if name in crops),
        tuple(gone),
    )


@dataclass(frozen=True)
class Figures:
    """What a set-up comes to. None where something of it is not said, or cannot be computed."""

    found: Found
    result: BenchResult
    #: Sampled photosites of the recording, millions: without what crops and the raster's aspect leave out.
    megapixels: float | None
    #: What it frames like on the window of reference; millimetres across the picture, de-squeezed.
    effective_mm: float | None
    wide_mm: float
    #: Recorded pixels across for each that is delivered; photosites across for each that is recorded.
    headroom: float | None
    oversampling: float | None
    near_m: float | None
    #: None where it is infinite.
    far_m: float | None
    #: Whether near and far are known.
    depth: bool
    #: Light on the way, by T (or f) behind the adapters.
    t_stop: float | None
    mounts: bool

    @property
    def total_m(self) -> float | None:
        """How deep; None where it is infinite or not known."""
        return None if self.near_m is None or self.far_m is None else self.far_m - self.near_m


def state_of(
    package: Package,
    on: OnCamera,
    delivery: BenchDelivery,
    reference: BenchReference,
    found: Found | None = None,
) -> BenchState | None:
    """Set a Bench as a camera is set; None without a recording format and a lens of the package."""
    found = found_of(package, on) if found is None else found
    if found.here is None or found.lens is None:
        return None
    ids = [adapter.id for adapter in found.adapters]
    stop = on.stop if on.stop is not None else found.lens.widest_at(found.lens.focal_min_mm)[1]
    state = BenchState(
        format_id=found.here.recording.id,
        lens_id=found.lens.id,
        adapter_id=ids[0] if ids else None,
        second_adapter_id=ids[1] if len(ids) > 1 else None,
        focal_mm=on.focal_mm if found.lens.is_zoom else None,
        stop=stop,
        subject_m=min(max(on.focus_m or USUAL_FOCUS_M, 0.01), 100_000.0),
        fps=on.fps or 25.0,
        crop_ids=list(found.crop_ids),
        delivery=delivery,
        reference=reference,
    )
    light = {
        k: v
        for k, v in (("ei", on.ei), ("nd_stops", on.nd_stops), ("shutter_deg", on.shutter_deg))
        if v is not None
    }
    return state.model_copy(update={"light": state.light.model_copy(update=light)})


def figures_of(
    package: Package, on: OnCamera, delivery: BenchDelivery, reference: BenchReference
) -> Figures | None:
    """Compute what is on a camera; None where it cannot be: nothing on it, or gone from the package, or no image."""
    found = found_of(package, on)
    state = state_of(package, on, delivery, reference, found)
    if state is None or found.here is None:
        return None
    try:
        result = compute_bench(package, state, format_ids=())
    except HextanError:
        return None
    answer = answer_of(result.evaluation)
    here, pixels, depth = answer["formats"][0], answer["formats"][0]["pixels"], answer["formats"][0]["depth"]
    c, setting = result.evaluation.columns, result.setting
    told = depth["near_m"] is not None and setting.stop is not None
    mounting = setting.mounting(found.here.body)
    t = setting.t_stop if setting.t_stop is not None else setting.f_number
    return Figures(
        found=found,
        result=result,
        megapixels=_recorded_megapixels(result, pixels["megapixels"]),
        effective_mm=here["effective_focal_mm"] if setting.lens.projection == "rectilinear" else None,
        wide_mm=float(c.picture_w[0]) * setting.lens.squeeze,
        headroom=pixels["delivery_headroom"],
        oversampling=pixels["oversampling"],
        near_m=depth["near_m"] if told else None,
        far_m=depth["far_m"] if told else None,
        depth=told,
        t_stop=None if t is None else t * setting.magnification / math.sqrt(mounting.transmission),
        mounts=not mounting.reasons,
    )


def _recorded_megapixels(result: BenchResult, sampled: float | None) -> float | None:
    c = result.evaluation.columns
    share = float(c.recorded_w[0] * c.recorded_h[0] / (c.read_w[0] * c.read_h[0]))
    return None if sampled is None else sampled * share
