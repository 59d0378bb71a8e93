"""Packages that were loaded, kept until any equipment changes."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.base import RemovedError
from hextan.core.equipment import Package
from hextan.core.production import ProductionGlance, glance
from hextan.store.models import EquipmentStamp, Production
from hextan.store.repositories import load_package

#: So many productions are kept; the one that was loaded first goes first.
MOST = 32


class PackageCache:
    """A package is loaded with seven queries; asking whether it is still the same costs one."""

    def __init__(self) -> None:
        self._kept: dict[int, tuple[UUID | None, Package]] = {}
        #: Of every production: a page lists all of them, also more than are kept.
        self._glances: dict[int, tuple[UUID | None, ProductionGlance]] = {}

    def glance(self, session: Session, production_id: int) -> ProductionGlance:
        """Say what a production carries as it is in the database now. Refuses what `package` refuses."""
        stamp = _stamp(session, production_id)
        kept = self._glances.get(production_id)
        if kept is None or kept[0] != stamp:
            kept = (stamp, glance(self.package(session, production_id)))
            self._glances[production_id] = kept
        return kept[1]

    def package(self, session: Session, production_id: int) -> Package:
        """Give a production's equipment as it is in the database now.

        Raises
        ------
        NotFoundError
            When there is no such production.
        """
        # Read before the package: a change in between makes the next call load again, never keep the old.
        return self._loaded(session, production_id, _stamp(session, production_id))

    def package_here(self, session: Session, production_id: int) -> Package:
        """Give the same of a production that is not put away.

        Raises
        ------
        NotFoundError
            When there is no such production.
        RemovedError
            It was put away, and nobody brought it back.
        """
        query = (
            select(Production.archived, EquipmentStamp.stamp)
            .outerjoin(EquipmentStamp, EquipmentStamp.production_id == Production.id)
            .where(Production.id == production_id)
        )
        archived, stamp = session.execute(query).one_or_none() or (False, None)
        if archived:
            raise RemovedError
        return self._loaded(session, production_id, stamp)

    def _loaded(self, session: Session, production_id: int, stamp: UUID | None) -> Package:
        kept = self._kept.get(production_id)
        if kept is not None and kept[0] == stamp:
            return kept[1]
        package = load_package(session, production_id)
        if len(self._kept) >= MOST:
            self._kept.pop(next(iter(self._kept)), None)
        self._kept[production_id] = (stamp, package)
        return package


def _stamp(session: Session, production_id: int) -> UUID | None:
    """What is another one after every change of a production's equipment."""
    query = select(EquipmentStamp.stamp).where(EquipmentStamp.production_id == production_id)
    return session.scalar(query)
