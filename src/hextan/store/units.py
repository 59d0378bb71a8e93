"""Another unit for a production: what follows it changes with it, and bare figures stay what they were meant as."""

from __future__ import annotations

from sqlalchemy.orm import Session

from hextan.core.base import Unit
from hextan.core.shots import with_units
from hextan.store import comparisons
from hextan.store.repositories import bench_row, state_of
from hextan.store.single import SHOTS


def change_unit(session: Session, production_id: int, before: Unit, after: Unit) -> None:
    """Let the Bench and the comparisons follow that were in the unit before; commits nothing.

    Bare distances in the list of shots get the unit in which they were entered.
    """
    shots = SHOTS.find(session, production_id)
    if shots is not None:
        document = SHOTS.document_of(shots)
        written = with_units(document, before)
        if written is not document:
            shots.document = written.model_dump(mode="json")
    bench = bench_row(session, production_id)
    if bench is not None and state_of(bench).unit == before:
        bench.state = state_of(bench).model_copy(update={"unit": after}).model_dump(mode="json")
    for row in (*comparisons.every(session, production_id), *comparisons.every(session, production_id, True)):
        kept = comparisons.document_of(row)
        if kept.unit == before:
            row.document = kept.model_copy(update={"unit": after}).model_dump(mode="json")
