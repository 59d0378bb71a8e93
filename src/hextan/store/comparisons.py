"""Comparisons of a production in the database: each a document."""

from __future__ import annotations

from collections.abc import Callable

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from hextan.core.base import NotFoundError, StaleWriteError
from hextan.core.compare import COMPARISON_SCHEMA, Comparison, parse_comparison
from hextan.store import models
from hextan.store.repositories import find_production
from hextan.store.writes import from_version, stale


def document_of(row: models.Comparison) -> Comparison:
    """Read the row's document."""
    return parse_comparison(COMPARISON_SCHEMA.stored(row.document))


def every(session: Session, production_id: int, removed: bool = False) -> list[models.Comparison]:
    """List a production's comparisons in their order, or those that were taken out."""
    find_production(session, production_id)
    kept = models.Comparison
    query = select(kept).where(kept.production_id == production_id, kept.removed.is_(removed))
    return list(session.scalars(query.order_by(kept.position, kept.id)))


def find(session: Session, production_id: int, comparison_id: int) -> models.Comparison:
    """Find a comparison, also one that was taken out.

    Raises
    ------
    NotFoundError
        When the production has none of this id.
    """
    row = session.get(models.Comparison, comparison_id)
    if row is None or row.production_id != production_id:
        raise NotFoundError(f"There is no comparison {comparison_id} in this production.")
    return row


def add(session: Session, production_id: int, document: Comparison) -> models.Comparison:
    """Keep a new comparison after those that are there, and commit."""
    find_production(session, production_id)
    kept = models.Comparison
    last = session.scalar(select(func.max(kept.position)).where(kept.production_id == production_id))
    row = put(session, production_id, 0 if last is None else last + 1, document)
    session.commit()
    return row


def put(
    session: Session, production_id: int, position: int, document: Comparison, removed: bool = False
) -> models.Comparison:
    """Add a comparison at a place of a production's list."""
    row = models.Comparison(
        production_id=production_id,
        position=position,
        removed=removed,
        document=document.model_dump(mode="json"),
    )
    session.add(row)
    return row


def save(
    session: Session, production_id: int, comparison_id: int, version: int, document: Comparison
) -> models.Comparison:
    """Keep a comparison that was changed from a known version, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else kept it in between; carries both documents.
    NotFoundError
        When the production has none of this id.
    """
    row = find(session, production_id, comparison_id)
    with from_version(session, version, row.version, _refusal(session, row, version, document)):
        row.document = document.model_dump(mode="json")
    return row


def set_removed(
    session: Session, production_id: int, comparison_id: int, version: int, removed: bool
) -> models.Comparison:
    """Take a comparison out, or bring it back; nothing is lost. Refuses what `save` refuses."""
    row = find(session, production_id, comparison_id)
    with from_version(session, version, row.version, _refusal(session, row, version, document_of(row))):
        row.removed = removed
    return row


def _refusal(
    session: Session, row: models.Comparison, version: int, document: Comparison
) -> Callable[[], StaleWriteError]:
    production_id, comparison_id = row.production_id, row.id

    def refusal() -> StaleWriteError:
        now = find(session, production_id, comparison_id)
        return stale(f"Comparison {document.name} was", version, document, now.version, document_of(now))

    return refusal
