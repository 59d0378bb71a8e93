"""What the Bench is set to, resolved against the package and computed for every recording format."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from hextan.core.base import InvalidInputError, no_longer_here
from hextan.core.bench.state import BenchState
from hextan.core.equipment import (
    FormatInPackage,
    LensSetting,
    Package,
    adapters_by_id,
    evaluation_request,
    format_requests,
    reference_request,
)
from hextan.core.evaluation import Coc, Evaluation, EvaluationRequest, compute


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


def coc_of(usual: Coc, state: BenchState) -> Coc:
    """The rule for the circle of confusion: the look's own, or the production's."""
    return state.coc if state.coc is not None else usual


def compute_bench(
    package: Package, state: BenchState, format_ids: Collection[int] | None = None
) -> BenchResult:
    """Compute a Bench.

    Parameters
    ----------
    format_ids : the recording formats that are wanted besides the chosen one, such as none; every one where None

    Raises
    ------
    InvalidInputError
        A state that names equipment which the production does not have, or sets what cannot be.
    CannotFocusError
        A distance at which the lens forms no image.
    """
    chosen, setting = _resolve(package, state)
    wanted = None if format_ids is None else {state.format_id, *format_ids}
    shown = [here for key, here in package.formats.items() if wanted is None or key in wanted]
    order = {here.recording.id: i for i, here in enumerate(shown)}
    asked = bench_request(package, state, setting, shown)
    return BenchResult(chosen, setting, order, compute(asked, package.terms(state.unit)))


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
    asked = state.reference
    if asked is not None and asked.name == "scan_mode" and asked.scan_mode_id not in package.modes:
        faults.append(
            no_longer_here("window of reference", "state.reference.scan_mode_id", asked.scan_mode_id)
        )
    if faults:
        raise InvalidInputError.plainly(*faults)
    adapters = adapters_by_id(
        package.adapters, [state.adapter_id, state.second_adapter_id], "state.adapter_id"
    )
    focus = state.focus_m or state.subject_m
    lens = package.lenses[state.lens_id][1]
    setting = LensSetting(package.rig, lens, adapters, state.focal_mm, state.stop, focus)
    return package.formats[state.format_id], setting


def bench_request(
    package: Package,
    state: BenchState,
    setting: LensSetting,
    shown: list[FormatInPackage],
    longer: float = 1.0,
) -> EvaluationRequest:
    """Ask about a Bench in some recording formats; `longer` makes its lens so many times as long."""
    return evaluation_request(
        setting,
        format_requests(shown, state.delivery, setting, state.crop_ids, state.fps),
        coc_of(package.coc, state),
        longer,
        reference=reference_request(state.reference or package.reference, package.modes),
        subject={"distance_m": state.focus_m or state.subject_m},
        background_m=[state.subject_m, None],
    )
