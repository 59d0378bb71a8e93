"""Documents in the database: kept, copied from the catalogue, taken out and brought back, never lost.

A document is a row of a production with rows below it. One set of rules serves bodies and lens sets.
"""

from __future__ import annotations

from collections.abc import Callable, Collection
from contextlib import AbstractContextManager
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session
from sqlalchemy.orm.attributes import flag_modified

from hextan.core.base import NotFoundError, StaleWriteError, new_key
from hextan.core.documents import catalogue
from hextan.store.models import Production
from hextan.store.writes import from_version, stale

R = TypeVar("R", bound=Any)
D = TypeVar("D", bound=Any)


#: So many removed rows of a list are kept, or twice as many as it has; the oldest beyond them go for good.
MOST_REMOVED = 50


def matched(rows: list[Any], documents: list[Any], kind: type[Any]) -> list[Any]:
    """Find or make the row of each document, in order; mark the rest as removed."""
    kept = {row.key: row for row in rows}
    found = []
    for position, document in enumerate(documents):
        row = kept.pop(document.key, None)
        if row is None:
            row = kind(key=document.key)
            rows.append(row)
        row.position, row.removed, row.name = position, False, document.name
        found.append(row)
    for row in kept.values():
        row.removed = True
    return found


def prune(rows: list[Any], spared: Collection[Any] = ()) -> None:
    """Let the oldest removed rows go for good: undo goes back to the last ones, and a list that is written anew again
    and again must not grow for ever.

    Parameters
    ----------
    spared : rows that stay whatever their age
    """
    removed = sorted((row for row in rows if row.removed), key=lambda row: row.id or 0)
    most = max(MOST_REMOVED, 2 * (len(rows) - len(removed)))
    for row in removed[: max(0, len(removed) - most)]:
        if row not in spared:
            rows.remove(row)


@dataclass(frozen=True)
class Documents(Generic[R, D]):
    """One kind of document of a production."""

    model: type[R]
    #: What it is called, as in "there is no body 7".
    what: str
    whole: tuple[Any, ...]
    #: The production's list of them, and the column that names the catalogue's row.
    parent: str
    link: str
    document_of: Callable[[R], D]
    apply: Callable[[R, D], None]
    parse: Callable[[Any], D]

    def every(self, session: Session, production_id: int, removed: bool = False) -> list[R]:
        """List those of a production, or those that were taken out of it."""
        query = (
            select(self.model)
            .where(self.model.production_id == production_id, self.model.removed == removed)
            .order_by(self.model.position, self.model.id)
            .options(*self.whole)
        )
        return list(session.scalars(query))

    def find(self, session: Session, production_id: int, row_id: int) -> R:
        """Find one of a production, also one that was taken out.

        Raises
        ------
        NotFoundError
            When the production has none of this id.
        """
        query = (
            select(self.model)
            .where(self.model.id == row_id, self.model.production_id == production_id)
            .options(*self.whole)
        )
        row: R | None = session.scalars(query).one_or_none()
        if row is None:
            raise NotFoundError(
                f"There is no {self.what} {row_id} in this production. Choose one from its list."
            )
        return row

    def add(self, session: Session, production: Production, document: D, source: R | None = None) -> R:
        """Add one at the end of a production's list; `source` is the catalogue's that it was copied from."""
        rows = getattr(production, self.parent)
        # Loaded ones only would miss those taken out, whose places stay theirs.
        position = max((row.position for row in rows), default=-1) + 1
        row: R = self.model(production_id=production.id, position=position, removed=False)
        if source is not None:
            setattr(row, self.link, source.id)
            row.taken = document.model_dump(mode="json")
        self.apply(row, document)
        rows.append(row)
        session.flush()
        return row

    def save(self, session: Session, production_id: int, row_id: int, version: int, document: D) -> R:
        """Keep one that was changed from a known version, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else kept one in between; carries both documents.
        NotFoundError
            When the production has no such row.
        """
        row = self.find(session, production_id, row_id)
        with self._from_version(session, row, version, document):
            self._apply(row, document)
        return row

    def set_removed(
        self, session: Session, production_id: int, row_id: int, version: int, removed: bool
    ) -> R:
        """Take one out of a production, or bring it back, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else changed it in between.
        NotFoundError
            When the production has no such row.
        """
        row = self.find(session, production_id, row_id)
        with self._from_version(session, row, version, self.document_of(row)):
            row.removed = removed
        return row

    def _apply(self, row: R, document: D) -> None:
        self.apply(row, document)
        # Also when only rows below it changed, its version has to move.
        flag_modified(row, "origin")

    def _from_version(
        self, session: Session, row: R, version: int, document: D
    ) -> AbstractContextManager[None]:
        production_id, row_id = row.production_id, row.id

        def refusal() -> StaleWriteError:
            now = self.find(session, production_id, row_id)
            return stale(f"{now.name} was", version, document, now.version, self.document_of(now))

        return from_version(session, version, row.version, refusal)

    def copy_from_catalogue(self, session: Session, production: Production, source: R) -> R:
        """Take a copy of the catalogue's into a production, and commit. Keys stay, so that it can be compared."""
        row = self.add(session, production, self.document_of(source), source)
        session.commit()
        return row

    def duplicate(self, session: Session, production: Production, source: R) -> R:
        """Add a second one that begins as a copy of one of the same production, and commit."""
        document = self.document_of(source)
        names = {row.name for row in getattr(production, self.parent)}
        name = next(n for i in range(2, 10_000) if (n := f"{document.name[:70]} ({i})") not in names)
        row = self.add(session, production, document.model_copy(update={"name": name, "key": new_key()}))
        session.commit()
        return row

    def catalogue_changes(self, session: Session, row: R) -> list[catalogue.Change]:
        """List what the catalogue says differently since it was taken from there."""
        source_id = getattr(row, self.link)
        if source_id is None or row.taken is None:
            return []
        source = session.get(self.model, source_id, options=self.whole)
        if source is None or source.removed:
            return []
        return catalogue.changes(self.parse(row.taken), self.document_of(source), self.document_of(row))

    def settle_changes(self, session: Session, row: R, version: int, take: list[str], leave: list[str]) -> R:
        """Take some changes of the catalogue, leave others for good, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else changed it in between.
        NotFoundError
            When a change is no longer there.
        """
        document = self.document_of(row)
        with self._from_version(session, row, version, document):
            offered = {change.path: change for change in self.catalogue_changes(session, row)}
            missing = [path for path in (*take, *leave) if path not in offered]
            if missing:
                raise NotFoundError(
                    f"The catalogue no longer differs at {missing[0]}. Look at the changes again."
                )
            base = row.taken
            for path in (*take, *leave):
                base = catalogue.apply(base, offered[path])
            row.taken = base
            plain = document.model_dump(mode="json")
            for path in take:
                plain = catalogue.apply(plain, offered[path])
            self._apply(row, self.parse(plain))
        return row
