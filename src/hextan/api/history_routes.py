"""The endpoints of what documents were before: every kind has them, by its name."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from fastapi import APIRouter, Path, Query

from hextan.api.plumbing import Db, Id, ProductionId
from hextan.api.route import Route
from hextan.api.shape import Listed, Shape, Version
from hextan.core.base import NotFoundError
from hextan.store.keeper import Kept, Kind, Many, One
from hextan.store.kinds import KINDS, kind_named

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/history", tags=["Productions"])
KindName = Annotated[str, Path(max_length=40)]
#: Of which one, where a production has several of the kind.
Number = Annotated[Id | None, Query(alias="id")]


class RevisionRead(Shape):
    """A version of a document, and when it began."""

    version: Version
    changed_at: datetime


class RevisionList(Listed[RevisionRead]):
    """The versions of a document that are there, the newest first."""


class DocumentThen(Shape):
    """A document as it was in one of its versions."""

    version: Version
    document: dict[str, Any]


def _kept(db: Db, production_id: int, name: str, number: int | None) -> tuple[Kind[Any], Kept[Any]]:
    kind = kind_named(name)
    if isinstance(kind, Many) and number is not None:
        return kind, kind.find(db, production_id, number)
    if isinstance(kind, One) and number is None:
        found = kind.find(db, production_id)
        if found is not None:
            return kind, found
        raise NotFoundError(f"Nothing was kept of {name} yet.")
    if kind is None:
        names = ", ".join(each.name for each in KINDS)
        raise NotFoundError(f"There is no kind {name}. There are: {names}.")
    raise NotFoundError(
        f"Of {name} a production has {'several: give an id' if number is None else 'one: give no id'}."
    )


@router.get("/{kind}", name="history_list")
def list_revisions(
    production_id: ProductionId, kind: KindName, db: Db, number: Number = None
) -> RevisionList:
    """List the versions of a document that are still there (two hundred of each row), and when each began."""
    of, kept = _kept(db, production_id, kind, number)
    return RevisionList(here=[RevisionRead(version=v, changed_at=at) for v, at in of.revisions(db, kept)])


@router.get("/{kind}/{version}", name="history_read")
def read_revision(
    production_id: ProductionId,
    kind: KindName,
    version: Annotated[Version, Path()],
    db: Db,
    number: Number = None,
) -> DocumentThen:
    """Give a document as it was in one of its versions. To go back to it, write it over the one of now."""
    of, kept = _kept(db, production_id, kind, number)
    return DocumentThen(version=version, document=of.at_version(db, kept, version).model_dump(mode="json"))
