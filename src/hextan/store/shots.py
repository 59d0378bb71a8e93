"""The list of shots of a production in the database: one document."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.base import StaleWriteError
from hextan.core.shots import SHOTS_SCHEMA, ShotList, parse_shots
from hextan.store.models import ShotsRow
from hextan.store.repositories import find_production
from hextan.store.writes import from_version, stale


def find(session: Session, production_id: int) -> ShotsRow | None:
    """Find a production's list; None where nothing was kept yet.

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    find_production(session, production_id)
    return session.scalars(select(ShotsRow).where(ShotsRow.production_id == production_id)).one_or_none()


def document_of(row: ShotsRow | None) -> ShotList:
    """Read the row's document; an empty list where nothing was kept yet."""
    return ShotList() if row is None else parse_shots(SHOTS_SCHEMA.stored(row.document))


def save(session: Session, production_id: int, version: int, document: ShotList) -> ShotsRow:
    """Keep a list that was changed from a known version (0: none yet), and commit.

    Raises
    ------
    StaleWriteError
        Somebody else kept one in between; carries both documents.
    NotFoundError
        When there is no such production.
    """
    row = find(session, production_id)

    def refusal() -> StaleWriteError:
        now = find(session, production_id)
        stored = 0 if now is None else now.version
        return stale("The list of shots was", version, document, stored, document_of(now))

    with from_version(session, version, 0 if row is None else row.version, refusal):
        if row is None:
            row = ShotsRow(production_id=production_id)
            session.add(row)
        row.document = document.model_dump(mode="json")
    return row
