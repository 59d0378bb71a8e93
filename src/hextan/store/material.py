"""What sheets are made from, out of the database."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.equipment import Package
from hextan.core.sheets import Material
from hextan.store import log
from hextan.store.keeper import find_production
from hextan.store.kinds import BODIES, COMPARISONS, PACKING, SHOTS
from hextan.store.models import EquipmentStamp
from hextan.store.repositories import mended_bench, settings_of


def material_of(session: Session, production_id: int, package: Package) -> Material:
    """Gather what a production's sheets are made from.

    Parameters
    ----------
    package : the production's equipment, as it is in the database now

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    row = find_production(session, production_id)
    bench = mended_bench(session, production_id, package)
    documents = [kept.document for kept in BODIES.every(session, production_id)]
    return Material(
        name=row.name,
        package=package,
        settings=settings_of(session, production_id),
        bench=bench,
        shots=SHOTS.read(session, production_id),
        packing=PACKING.read(session, production_id),
        log=log.read(session, production_id),
        comparisons=tuple(kept.document for kept in COMPARISONS.every(session, production_id)),
        bodies={document.name: document for document in documents},
    )


def changed_at(session: Session, production_id: int) -> datetime | None:
    """When the production was last changed."""
    return session.scalar(
        select(EquipmentStamp.changed_at).where(EquipmentStamp.production_id == production_id)
    )
