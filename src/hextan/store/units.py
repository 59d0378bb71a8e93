"""Another unit for a production: what follows it changes with it, and bare figures stay what they were meant as."""

from __future__ import annotations

from sqlalchemy.orm import Session

from hextan.core.base import Unit
from hextan.core.shots import with_units
from hextan.store.kinds import BENCH, COMPARISONS, SHOTS


def change_unit(session: Session, production_id: int, before: Unit, after: Unit) -> None:
    """Let the Bench and the comparisons follow that were in the unit before; commits nothing.

    Bare distances in the list of shots get the unit in which they were entered.
    """
    shots = SHOTS.find(session, production_id)
    if shots is not None:
        written = with_units(shots.document, before)
        if written is not shots.document:
            SHOTS.rewrite(session, shots, written)
    bench = BENCH.find(session, production_id)
    if bench is not None and bench.document.unit == before:
        BENCH.rewrite(session, bench, bench.document.model_copy(update={"unit": after}))
    for kept in (
        *COMPARISONS.every(session, production_id),
        *COMPARISONS.every(session, production_id, True),
    ):
        if kept.document.unit == before:
            COMPARISONS.rewrite(session, kept, kept.document.model_copy(update={"unit": after}))
