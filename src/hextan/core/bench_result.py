"""What the Bench is set to, resolved against the package and computed for every recording format."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from hextan.core.bench_state import BenchState
from hextan.core.computation import Evaluation, compute
from hextan.core.contract import Coc, parse_request
from hextan.core.errors import InvalidInputError, no_longer_here
from hextan.core.lens_setting import LensSetting, adapters_by_id
from hextan.core.package import FormatInPackage, Package


@dataclass(frozen=True)
class BenchResult:
    """The chosen format and lens as set, and the evaluation of all formats of the package."""

    chosen: FormatInPackage
    setting: LensSetting
    #: Where each format stands in the evaluation, by its id.
    order: dict[int, int]
    evaluation: Evaluation

    @property
    def index(self) -> int:
        """Where the chosen format stands in the evaluation."""
        return self.order[self.chosen.recording.id]


def coc_of(package: Package, state: BenchState) -> Coc:
    """The rule for the circle of confusion: the look's own, or the production's."""
    return state.coc if state.coc is not None else package.coc


def compute_bench(package: Package, state: BenchState, only_chosen: bool = False) -> BenchResult:
    """Compute a Bench, in every recording format or in the chosen one alone.

    Raises
    ------
    InvalidInputError
        A state that names equipment which the production does not have, or sets what cannot be.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    chosen, setting = _resolve(package, state)
    shown = [chosen] if only_chosen else list(package.formats.values())
    order = {here.recording.id: i for i, here in enumerate(shown)}
    asked = bench_request(package, state, setting, shown)
    return BenchResult(chosen, setting, order, compute(parse_request(asked)))


def _resolve(package: Package, state: BenchState) -> tuple[FormatInPackage, LensSetting]:
    faults = []
    if state.format_id not in package.formats:
        faults.append(no_longer_here("recording format", "state.format_id", state.format_id))
    if state.lens_id not in package.lenses:
        faults.append(no_longer_here("lens", "state.lens_id", state.lens_id))
    known = {a.id for a in package.adapters}
    for name in ("adapter_id", "second_adapter_id"):
        if getattr(state, name) is not None and getattr(state, name) not in known:
            faults.append(no_longer_here("adapter", f"state.{name}", getattr(state, name)))
    if state.reference.name == "scan_mode" and state.reference.scan_mode_id not in package.modes:
        scan_mode_id = state.reference.scan_mode_id
        faults.append(no_longer_here("window of reference", "state.reference.scan_mode_id", scan_mode_id))
    if faults:
        raise InvalidInputError.plainly(*faults)
    adapters = adapters_by_id(package, [state.adapter_id, state.second_adapter_id], "state.adapter_id")
    focus = state.focus_m or state.subject_m
    lens = package.lenses[state.lens_id][1]
    setting = LensSetting(package, lens, adapters, state.focal_mm, state.stop, focus)
    return package.formats[state.format_id], setting


def bench_request(
    package: Package, state: BenchState, setting: LensSetting, shown: list[FormatInPackage]
) -> dict[str, Any]:
    """Write a Bench in the public evaluation format, for some recording formats."""
    lens, reference = setting.lens, state.reference
    switched_on = frozenset(state.crop_ids)
    formats = []
    for here in shown:
        delivery = state.delivery.for_recording(here.recording.raster, lens.squeeze)
        formats.append(here.as_request(state.fps, delivery, switched_on, setting.on_body(here)))
    focus = state.focus_m or state.subject_m
    return {
        "reference": _reference(package, reference.name, reference.scan_mode_id) | {"by": reference.by},
        "subject": {"distance_m": focus},
        "background_m": [state.subject_m, None],
        **setting.as_request(),
        "coc": coc_of(package, state).model_dump(),
        "formats": formats,
    }


def _reference(package: Package, name: str, scan_mode_id: int | None) -> dict[str, Any]:
    if name != "scan_mode" or scan_mode_id is None:
        return {"name": name}
    body, mode = package.modes[scan_mode_id]
    w, h = (n * body.pitch_um / 1000 for n in mode.window)
    return {"width_mm": w, "height_mm": h}
