"""Numbers of rows: a database gives its own, a file counts, and what names rows is told in the other's numbers.

A Bench and a comparison name formats, lenses, adapters, scan modes and crops by number. In a file the number is
the row's place among all rows of its kind, in the order of the file, from 1.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from hextan.core.bench import BenchState, LensUp
from hextan.core.compare import Comparison
from hextan.core.documents import BodyDocument, LensSetDocument, RigDocument
from hextan.core.evaluation import BenchReference
from hextan.core.sheets import SheetPlan, Sheets

#: Stands for a row that is not there any more: no database ever numbers so far.
GONE = 2**53


@dataclass(frozen=True)
class Numbers:
    """From the numbers of one place to those of another, for each kind of row."""

    modes: dict[int, int] = field(default_factory=dict)
    formats: dict[int, int] = field(default_factory=dict)
    crops: dict[int, int] = field(default_factory=dict)
    lenses: dict[int, int] = field(default_factory=dict)
    adapters: dict[int, int] = field(default_factory=dict)

    def lens_up(self, lens_up: LensUp) -> dict[str, object]:
        """What changes in a lens on a recording format."""
        return {
            "format_id": _of(self.formats, lens_up.format_id),
            "lens_id": _of(self.lenses, lens_up.lens_id),
            "adapter_id": _maybe(self.adapters, lens_up.adapter_id),
            "second_adapter_id": _maybe(self.adapters, lens_up.second_adapter_id),
            "crop_ids": [_of(self.crops, crop) for crop in lens_up.crop_ids],
        }

    def reference(self, reference: BenchReference) -> BenchReference:
        """A reference, which may be a scan mode's window."""
        mode = _maybe(self.modes, reference.scan_mode_id)
        return reference.model_copy(update={"scan_mode_id": mode})


def _of(numbers: dict[int, int], number: int) -> int:
    return numbers.get(number, GONE)


def _maybe(numbers: dict[int, int], number: int | None) -> int | None:
    return None if number is None else _of(numbers, number)


def renumbered_bench(state: BenchState, numbers: Numbers) -> BenchState:
    """The same Bench in other numbers; what they do not know is `GONE`."""
    pinned = [_of(numbers.formats, key) for key in state.pinned]
    change = numbers.lens_up(state) | {
        "pinned": pinned,
        "reference": state.reference and numbers.reference(state.reference),
    }
    return state.model_copy(update=change)


def renumbered_comparison(comparison: Comparison, numbers: Numbers) -> Comparison:
    """The same comparison in other numbers; what they do not know is `GONE`."""
    columns = [column.model_copy(update=numbers.lens_up(column)) for column in comparison.columns]
    return comparison.model_copy(
        update={
            "columns": columns,
            "reference": comparison.reference and numbers.reference(comparison.reference),
        }
    )


def renumbered_sheets(sheets: Sheets, numbers: Numbers) -> Sheets:
    """The same sheets in other numbers; what they do not know is `GONE`."""
    return sheets.model_copy(
        update={
            "bundles": [
                bundle.model_copy(
                    update={"sheets": [_renumbered_sheet(plan, numbers) for plan in bundle.sheets]}
                )
                for bundle in sheets.bundles
            ]
        }
    )


def _renumbered_sheet(plan: SheetPlan, numbers: Numbers) -> SheetPlan:
    return plan.model_copy(
        update={
            "lens_ids": [_of(numbers.lenses, key) for key in plan.lens_ids],
            "format_ids": [_of(numbers.formats, key) for key in plan.format_ids],
        }
    )


def counted(
    bodies: Iterable[BodyDocument], lens_sets: Iterable[LensSetDocument], rig: RigDocument
) -> dict[str, list[tuple[int, str]]]:
    """List the rows of each kind in the order of a file.

    Returns
    -------
    For each field of `Numbers`: which document (its place in its list) and which row of it (its key), one for
    each number from 1 on.

    >>> counted([], [], RigDocument())["formats"]
    []
    """
    bodies, lens_sets = list(bodies), list(lens_sets)

    def rows(kind: str) -> Iterator[tuple[int, str]]:
        for i, body in enumerate(bodies):
            for mode in body.modes:
                if kind == "modes":
                    yield i, mode.key
                else:
                    yield from ((i, f.key) for f in mode.formats)

    return {
        "modes": list(rows("modes")),
        "formats": list(rows("formats")),
        "crops": [(i, crop.key) for i, body in enumerate(bodies) for crop in body.crops],
        "lenses": [(i, lens.key) for i, kit in enumerate(lens_sets) for lens in kit.lenses],
        "adapters": [(0, adapter.key) for adapter in rig.adapters],
    }
