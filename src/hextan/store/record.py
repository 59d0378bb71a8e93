"""What the page of the set is made from, out of the database."""

from __future__ import annotations

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.bench import BenchState
from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing import serials_of
from hextan.core.record import Log, Source
from hextan.core.shots import Shot, ShotList
from hextan.store import log
from hextan.store.kinds import PACKING, SET, SHOTS
from hextan.store.models import Document, Production
from hextan.store.repositories import mended_bench, settings_of


@dataclass(frozen=True)
class OfTheSet:
    """A production as the page of the set reads it."""

    package: Package
    settings: PackageSettings
    #: For the rule of sharpness and the window of reference; None where there is nothing yet to set it to.
    bench: BenchState | None
    shots: ShotList
    log: Log
    #: Numbers on lenses of which there are several, by set and name.
    serials: dict[tuple[str, str], list[str]]

    def shot(self, key: str | None) -> Shot | None:
        """A shot by its key; None where there is none of it (any more)."""
        return next((shot for shot in self.shots.shots if shot.key == key), None)


def listened(session: Session) -> list[tuple[int, list[Source]]]:
    """The cameras of every production that is not archived."""
    here = select(Production.id).where(Production.archived.is_(False))
    every = SET.kept(session, Document.production_id.in_(here))
    return [(kept.production_id, kept.document.sources) for kept in every]


def of_the_set(
    session: Session, production_id: int, package: Package, before: log.Read | None = None
) -> OfTheSet:
    """Gather what the page of the set is made from.

    Parameters
    ----------
    before : what was read of the log before; see `log.read`

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    return OfTheSet(
        package,
        settings_of(session, production_id),
        mended_bench(session, production_id, package),
        SHOTS.read(session, production_id),
        log.read(session, production_id, before),
        serials_of(package, PACKING.read(session, production_id)),
    )
