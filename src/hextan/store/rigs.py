"""Mounts, adapters and filters of a production in the database."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from hextan.core.base import StaleWriteError
from hextan.core.documents import AdapterDocument, FilterDocument, MountDocument, PairDocument, RigDocument
from hextan.store.documents import matched, prune
from hextan.store.models import Adapter, Mount, NdFilter, PairNote, Rig
from hextan.store.writes import from_version, stale

_MOUNT = tuple(MountDocument.model_fields)
_ADAPTER = tuple(AdapterDocument.model_fields)
_FILTER = tuple(FilterDocument.model_fields)
_PAIR = tuple(PairDocument.model_fields)
WHOLE = (
    selectinload(Rig.mounts),
    selectinload(Rig.adapters),
    selectinload(Rig.filters),
    selectinload(Rig.pairs),
)


def document_of(row: Rig | None) -> RigDocument:
    """Write the rows as a document; an empty one where nothing was kept yet."""
    if row is None:
        return RigDocument.model_validate({})

    def plain(rows: list[Any], names: tuple[str, ...]) -> list[dict[str, Any]]:
        return [{name: getattr(r, name) for name in names} for r in rows if not r.removed]

    return RigDocument.model_validate(
        {
            "mounts": plain(row.mounts, _MOUNT),
            "adapters": plain(row.adapters, _ADAPTER),
            "filters": plain(row.filters, _FILTER),
            "pairs": plain(row.pairs, _PAIR),
        }
    )


def find_rig(session: Session, production_id: int) -> Rig | None:
    """Find a production's mounts and adapters; None where nothing was kept yet."""
    query = select(Rig).where(Rig.production_id == production_id).options(*WHOLE)
    return session.scalars(query).one_or_none()


def save_rig(
    session: Session, production_id: int, version: int, document: RigDocument
) -> tuple[int, RigDocument]:
    """Keep mounts and adapters that were changed from a known version (0: none yet), and commit.

    Raises
    ------
    StaleWriteError
        Somebody else kept some in between; carries both documents.
    """
    row = find_rig(session, production_id)

    def refusal() -> StaleWriteError:
        now = find_rig(session, production_id)
        stored = 0 if now is None else now.version
        return stale("Mounts and adapters were", version, document, stored, document_of(now))

    with from_version(session, version, 0 if row is None else row.version, refusal):
        if row is None:
            row = Rig(production_id=production_id, edits=0)
            session.add(row)
        apply_document(row, document)
    return row.version, document


def apply_document(row: Rig, document: RigDocument) -> None:
    """Make the rows say what the document says; what it leaves out is kept as removed."""
    row.edits += 1
    kinds: tuple[tuple[list[Any], list[Any], type[Any]], ...] = (
        (row.mounts, list(document.mounts), Mount),
        (row.adapters, list(document.adapters), Adapter),
        (row.filters, list(document.filters), NdFilter),
        (row.pairs, list(document.pairs), PairNote),
    )
    for rows, documents, kind in kinds:
        for found, said in zip(matched(rows, documents, kind), documents, strict=True):
            for name, value in said.model_dump(mode="json").items():
                setattr(found, name, value)
        prune(rows)
