"""What the page of the set is made from, out of the database."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.bench import BenchState
from hextan.core.equipment import Package, PackageSettings
from hextan.core.record import Log, Source
from hextan.core.shots import Shot, ShotList
from hextan.store import log
from hextan.store.models import Production, SetRow
from hextan.store.repositories import find_production, mended_bench, settings_of
from hextan.store.single import SET, SHOTS


@dataclass(frozen=True)
class OfTheSet:
    """A production as the page of the set reads it."""

    package: Package
    settings: PackageSettings
    #: For the rule of sharpness and the window of reference; None where there is nothing yet to set it to.
    bench: BenchState | None
    shots: ShotList
    log: Log

    def shot(self, key: str | None) -> Shot | None:
        """A shot by its key; None where there is none of it (any more)."""
        return next((shot for shot in self.shots.shots if shot.key == key), None)


def listened(session: Session) -> list[tuple[int, list[Source]]]:
    """The cameras of every production that is not archived."""
    query = (
        select(SetRow)
        .join(Production, Production.id == SetRow.production_id)
        .where(Production.archived.is_(False))
    )
    return [(row.production_id, SET.document_of(row).sources) for row in session.scalars(query)]


def of_the_set(session: Session, production_id: int, package: Package) -> OfTheSet:
    """Gather what the page of the set is made from.

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    row = find_production(session, production_id)
    bench = mended_bench(session, production_id, package)
    return OfTheSet(
        package, settings_of(row), bench, SHOTS.read(session, production_id), log.read(session, production_id)
    )
