"""The keeper of everything that is written: read, written from a known version, taken out and brought back, never lost.

One set of rules serves every kind of document (`hextan.store.kinds`): `Many` where a production has a list of them, `One` where it has one.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from typing import Any, Generic, TypeVar

from pydantic import BaseModel
from sqlalchemy import ColumnElement, delete, func, insert, or_, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, aliased

from hextan.core.base import NotFoundError, Plain, Row, Schema, StaleWriteError, new_key
from hextan.core.documents import catalogue
from hextan.store.models import Document, Production, Revision
from hextan.store.trees import Shape
from hextan.store.writes import stale

D = TypeVar("D", bound=BaseModel)
R = TypeVar("R", bound=Row)

_Source = aliased(Document)
#: Documents with the number of the catalogue's that each was copied from, in their order.
_ROOTS = (
    select(
        Document.id, Document.number, Document.production_id, Document.key, Document.position, Document.version,
        Document.removed_at, Document.changed_at, Document.body, Document.taken, _Source.number.label("source"),
    )
    .outerjoin(_Source, _Source.id == Document.source_id)
    .order_by(Document.position, Document.id)
)  # fmt: skip
#: Rows of their lists.
_ROWS = (
    select(Document.id, Document.number, Document.kind, Document.key, Document.parent_id, Document.root_id, Document.body)
    .where(Document.removed_at.is_(None))
    .order_by(Document.position, Document.id)
)  # fmt: skip
_shape_of = cache(Shape.of)

#: So many removed rows of a list are kept, or twice as many as it has; the oldest beyond them go for good.
MOST_REMOVED = 50


def find_production(session: Session, production_id: int) -> Production:
    """Find a production.

    Raises
    ------
    NotFoundError
        When there is none of this id.
    """
    production = session.get(Production, production_id)
    if production is None:
        raise NotFoundError(
            f"There is no production {production_id}. Choose one from the list of productions."
        )
    return production


@dataclass(frozen=True)
class Kept(Generic[D]):
    """A document as it is kept."""

    id: int
    #: Of the table's row; `id` is the number by which everybody else names the document.
    row_id: int
    production_id: int
    version: int
    position: int
    removed: bool
    changed_at: datetime
    document: D
    #: Numbers of the rows of its lists, by list and key: `numbers["modes"]`.
    numbers: dict[str, dict[str, int]]
    #: The catalogue's document that it was copied from, and what that one said then.
    source_id: int | None
    taken: Plain | None

    @property
    def number_of(self) -> dict[str, int]:
        """Numbers of all rows of all lists by their keys."""
        return {key: number for rows in self.numbers.values() for key, number in rows.items()}


def _as_json(document: BaseModel) -> Plain:
    return document.model_dump(mode="json")


@dataclass(frozen=True)
class Kind(Generic[D]):
    """One kind of document: its model, its schema, and how it is called."""

    name: str
    model: type[D]
    schema: Schema
    parse: Callable[[Any], D]
    #: How a refusal begins when somebody else wrote in between.
    changed: Callable[[D], str]
    #: Under which name a refusal gives it.
    under: str = "document"
    dump: Callable[[D], Plain] = _as_json
    #: What is parsed, of what stands in the database.
    load: Callable[[Schema, Plain], Plain] = Schema.stored

    @property
    def shape(self) -> Shape:
        """How it stands in rows."""
        return _shape_of(self.name, self.model)

    def read_plain(self, plain: Plain) -> D:
        """Read what stands in the database, brought up from the version in which it was stored."""
        return self.parse(self.load(self.schema, plain))

    def kept(self, session: Session, *where: ColumnElement[bool]) -> list[Kept[D]]:
        """Read documents that meet conditions on their rows, in their order: two queries however many there are."""
        query = _ROOTS.where(Document.kind == self.name, *where)
        roots = session.execute(query).all()
        shape = self.shape
        below: dict[int, list[Any]] = defaultdict(list)
        numbers: dict[int, dict[str, dict[str, int]]] = {
            root.id: {name: {} for name in _lists(shape)} for root in roots
        }
        if shape.lists and roots:
            for row in session.execute(_ROWS.where(Document.root_id.in_([root.id for root in roots]))):
                below[row.parent_id].append(row)
                numbers[row.root_id][row.kind.rpartition(".")[2]][row.key] = row.number
        return [
            Kept(
                root.number, root.id, root.production_id, root.version, root.position, root.removed_at is not None, root.changed_at,
                self.read_plain(shape.whole(root, below)), numbers[root.id], root.source, root.taken,
            )
            for root in roots
        ]  # fmt: skip

    def rewrite(self, session: Session, kept: Kept[D], document: D) -> None:
        """Let a document say something else, whatever its version; the caller commits."""
        row = session.get_one(Document, kept.row_id, with_for_update=True, populate_existing=True)
        _write(session, self.shape, row, self.dump(document))

    @contextmanager
    def _from_version(self, session: Session, kept: Kept[D], version: int, given: D) -> Iterator[Document]:
        """Hold the row of a document that is changed from a known version, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else wrote in between.
        """
        query = select(Document).where(Document.id == kept.row_id).with_for_update()
        row = session.scalars(query.execution_options(populate_existing=True)).one()
        if row.version != version:
            session.rollback()
            raise self._stale(session, kept.row_id, version, given)
        yield row
        session.commit()

    def _stale(self, session: Session, row_id: int, version: int, given: D) -> StaleWriteError:
        (now,) = self.kept(session, Document.id == row_id)
        return stale(self.changed(now.document), version, given, now.version, now.document, self.under)

    def _add(
        self, session: Session, production_id: int, document: D, position: int, **besides: Any
    ) -> Document:
        plain = self.dump(document)
        shape = self.shape
        key, own, _ = shape.parts(plain)
        (number,) = next_ids(session, 1)
        row = Document(
            id=number, number=number, production_id=production_id, kind=self.name, key=key, position=position, version=1,
            body=own, **besides,
        )  # fmt: skip
        session.add(row)
        session.flush()
        _write_below(session, shape, row, plain, row.changed_at)
        return row

    def revisions(self, session: Session, kept: Kept[D]) -> list[tuple[int, datetime]]:
        """List versions of a document that are still there, and when each began; the newest first."""
        query = select(Revision.version, Revision.changed_at).where(Revision.document_id == kept.row_id)
        before = [(version, at) for version, at in session.execute(query.order_by(Revision.version.desc()))]
        return [(kept.version, kept.changed_at), *before]

    def at_version(self, session: Session, kept: Kept[D], version: int) -> D:
        """A document as it was in one of its versions.

        Raises
        ------
        NotFoundError
            When that version is not there (any more).
        """
        began = dict(self.revisions(session, kept)).get(version)
        if began is None:
            raise NotFoundError(f"There is no version {version} of this document any more.")
        states = [row for row in _states(session, kept.row_id) if row.changed_at <= began]
        newest = {row.id: row for row in sorted(states, key=lambda row: (row.changed_at, row.version))}
        root = newest.pop(kept.row_id)
        below: dict[int, list[Any]] = defaultdict(list)
        for row in sorted(newest.values(), key=lambda row: (row.position, row.id)):
            if row.removed_at is None:
                below[row.parent_id].append(row)
        return self.read_plain(self.shape.whole(root, below))


class Many(Kind[D]):
    """A kind of which a production has a list."""

    @property
    def called(self) -> str:
        """What it is called, as in "there is no body 7"."""
        return self.name.replace("_", " ")

    def every(self, session: Session, production_id: int, removed: bool = False) -> list[Kept[D]]:
        """List those of a production, or those that were taken out of it."""
        gone = Document.removed_at.is_not(None) if removed else Document.removed_at.is_(None)
        return self.kept(session, Document.production_id == production_id, gone)

    def find(self, session: Session, production_id: int, number: int) -> Kept[D]:
        """Find one of a production, also one that was taken out.

        Raises
        ------
        NotFoundError
            When the production has none of this number.
        """
        found = self.kept(session, Document.number == number, Document.production_id == production_id)
        if not found:
            raise NotFoundError(
                f"There is no {self.called} {number} in this production. Choose one from its list."
            )
        return found[0]

    def add(
        self,
        session: Session,
        production_id: int,
        document: D,
        *,
        source_id: int | None = None,
        taken: D | None = None,
        removed: bool = False,
    ) -> Kept[D]:
        """Add one at the end of a production's list; the caller commits.

        Parameters
        ----------
        source_id : number of the catalogue's that it was copied from
        taken : what that one said then
        """
        # After those that were taken out, too: their places stay theirs.
        last = select(func.max(Document.position)).where(
            Document.production_id == production_id, Document.kind == self.name
        )
        source = select(Document.id).where(Document.kind == self.name, Document.number == source_id)
        row = self._add(
            session,
            production_id,
            document,
            position=(-1 if (top := session.scalar(last)) is None else top) + 1,
            source_id=None if source_id is None else session.scalar(source),
            taken=None if taken is None else self.dump(taken),
            removed_at=func.now() if removed else None,
        )
        if not row.key:
            row.key = new_key()
            session.flush()
        (kept,) = self.kept(session, Document.id == row.id)
        return kept

    def save(self, session: Session, production_id: int, number: int, version: int, document: D) -> Kept[D]:
        """Keep one that was changed from a known version, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else kept one in between; carries both documents.
        NotFoundError
            When the production has none of this number.
        """
        kept = self.find(session, production_id, number)
        with self._from_version(session, kept, version, document) as row:
            _write(session, self.shape, row, self.dump(document))
        return self.find(session, production_id, number)

    def set_removed(
        self, session: Session, production_id: int, number: int, version: int, removed: bool
    ) -> Kept[D]:
        """Take one out of a production, or bring it back, and commit; nothing is lost. Refuses what `save` refuses."""
        kept = self.find(session, production_id, number)
        with self._from_version(session, kept, version, kept.document) as row:
            moment = _moved_on(session, row)
            row.removed_at = moment if removed else None
        return self.find(session, production_id, number)


class Equipment(Many[R]):
    """A kind that is copied from the catalogue, and told what changed there since."""

    def copy_from_catalogue(self, session: Session, production_id: int, source: Kept[R]) -> Kept[R]:
        """Take a copy of the catalogue's into a production, and commit. Keys stay, so that it can be compared."""
        kept = self.add(session, production_id, source.document, source_id=source.id, taken=source.document)
        session.commit()
        return kept

    def duplicate(self, session: Session, production_id: int, source: Kept[R]) -> Kept[R]:
        """Add a second one that begins as a copy of one of the same production, and commit."""
        document: Any = source.document
        every = select(Document.body["name"].as_string()).where(
            Document.production_id == production_id, Document.kind == self.name
        )
        names = set(session.scalars(every))
        name = next(n for i in range(2, 10_000) if (n := f"{document.name[:70]} ({i})") not in names)
        kept = self.add(session, production_id, document.model_copy(update={"name": name, "key": new_key()}))
        session.commit()
        return kept

    def catalogue_changes(self, session: Session, kept: Kept[R]) -> list[catalogue.Change]:
        """List what the catalogue says differently since it was taken from there."""
        if kept.source_id is None or kept.taken is None:
            return []
        source = self.kept(session, Document.number == kept.source_id, Document.removed_at.is_(None))
        if not source:
            return []
        return catalogue.changes(self.read_plain(kept.taken), source[0].document, kept.document)

    def settle_changes(
        self, session: Session, kept: Kept[R], version: int, take: list[str], leave: list[str]
    ) -> Kept[R]:
        """Take some changes of the catalogue, leave others for good, and commit.

        Raises
        ------
        StaleWriteError
            Somebody else changed it in between.
        NotFoundError
            When a change is no longer there.
        """
        with self._from_version(session, kept, version, kept.document) as row:
            (now,) = self.kept(session, Document.id == kept.row_id)
            offered = {change.path: change for change in self.catalogue_changes(session, now)}
            missing = [path for path in (*take, *leave) if path not in offered]
            if missing:
                raise NotFoundError(
                    f"The catalogue no longer differs at {missing[0]}. Look at the changes again."
                )
            base, plain = now.taken or {}, _as_json(now.document)
            for path in (*take, *leave):
                base = catalogue.apply(base, offered[path])
            for path in take:
                plain = catalogue.apply(plain, offered[path])
            row.taken = base
            _write(session, self.shape, row, self.dump(self.read_plain(plain)))
        return self.find(session, kept.production_id, kept.id)


@dataclass(frozen=True)
class One(Kind[D]):
    """A kind of which a production has one, or none yet."""

    empty: Callable[[], D] = field(kw_only=True)

    def find(self, session: Session, production_id: int) -> Kept[D] | None:
        """Find a production's; None where nothing was kept yet.

        Raises
        ------
        NotFoundError
            When there is no such production.
        """
        find_production(session, production_id)
        found = self.kept(session, Document.production_id == production_id)
        return found[0] if found else None

    def read(self, session: Session, production_id: int) -> D:
        """A production's document; an empty one where nothing was kept yet. Refuses what `find` refuses."""
        return self.versioned(session, production_id)[1]

    def versioned(self, session: Session, production_id: int) -> tuple[int, D]:
        """A production's document with its version; 0 and an empty one where nothing was kept yet. Refuses what `find` refuses."""
        kept = self.find(session, production_id)
        return (0, self.empty()) if kept is None else (kept.version, kept.document)

    def save(self, session: Session, production_id: int, version: int, document: D) -> int:
        """Keep a document that was changed from a known version (0: none yet), commit, and give the new version.

        Raises
        ------
        StaleWriteError
            Somebody else kept one in between; carries both documents.
        NotFoundError
            When there is no such production.
        """
        kept = self.find(session, production_id)
        if kept is None:
            return self._first(session, production_id, version, document)
        with self._from_version(session, kept, version, document) as row:
            _write(session, self.shape, row, self.dump(document))
            saved = row.version
        return saved

    def _first(self, session: Session, production_id: int, version: int, document: D) -> int:
        if version != 0:
            raise stale(self.changed(document), version, document, 0, None, self.under)
        try:
            self.put(session, production_id, document)
            session.commit()
        except IntegrityError:
            # Somebody else kept the first one at the same moment.
            session.rollback()
            now = self.find(session, production_id)
            assert now is not None
            raise self._stale(session, now.row_id, version, document) from None
        return 1

    def put(self, session: Session, production_id: int, document: D) -> None:
        """Add a production's first; the caller commits."""
        self._add(session, production_id, document, position=0)


def _lists(shape: Shape) -> Iterator[str]:
    for name, inner in shape.lists.items():
        yield name
        yield from _lists(inner)


def _states(session: Session, row_id: int) -> list[Any]:
    """Every state of a document's rows that is there: those of now, and those of before."""
    mine = or_(Document.id == row_id, Document.root_id == row_id)
    d, r = Document, Revision
    now = select(
        d.id, d.kind, d.key, d.version, d.parent_id, d.position, d.removed_at, d.changed_at, d.body
    ).where(mine)
    before = (
        select(d.id, d.kind, d.key, r.version, r.parent_id, r.position, r.removed_at, r.changed_at, r.body)
        .join(Revision, r.document_id == d.id)
        .where(mine)
    )
    return [*session.execute(now), *session.execute(before)]


def next_ids(session: Session, count: int) -> list[int]:
    """Numbers for rows that are to be made."""
    if count == 0:
        return []
    sequence = func.pg_get_serial_sequence("document", "id")
    series = func.generate_series(1, count).table_valued("n")
    return list(session.scalars(select(func.nextval(sequence)).select_from(series)))


def _moved_on(session: Session, row: Document) -> datetime:
    """Give a row that is held its next version, and when it begins: after that of whoever held it before, however early this
    transaction began."""
    moment: datetime = session.scalars(select(func.clock_timestamp())).one()
    row.version += 1
    row.changed_at = moment
    return moment


def _write(session: Session, shape: Shape, row: Document, plain: Plain) -> None:
    """Let a document's rows say what it says; its version moves also when only a row below it changed."""
    # Before anything of the row is other: to ask for the moment flushes what is, and a revision keeps the row as it was.
    moment = _moved_on(session, row)
    key, own, _ = shape.parts(plain)
    if shape.keyed:
        row.key = key
    row.body = own
    session.flush()
    _write_below(session, shape, row, plain, moment)


def _write_below(session: Session, shape: Shape, root: Document, plain: Plain, moment: datetime) -> None:
    """Write the rows that differ, make those that are new, keep those that are left out as removed; all of them at one moment."""
    if not shape.lists:
        return
    query = select(
        Document.id, Document.kind, Document.key, Document.parent_id, Document.position, Document.version, Document.removed_at,
        Document.body,
    ).where(Document.root_id == root.id).order_by(Document.removed_at.is_(None), Document.id)  # fmt: skip
    every = session.execute(query).all()
    # A row may have moved to another list of its kind: it is found by its key wherever it was.
    there = {(row.kind, row.key): row for row in every}
    fresh = iter(next_ids(session, sum(place not in there for place in shape.keys(plain))))
    made: list[Plain] = []
    changed: list[Plain] = []

    def place(kind: Shape, items: list[Plain], parent_id: int) -> None:
        for position, item in enumerate(items):
            key, own, lists = kind.parts(item)
            row = there.pop((kind.kind, key), None)
            stands = {"parent_id": parent_id, "position": position, "removed_at": None, "body": own}
            if row is None:
                row_id = next(fresh)
                besides = {
                    "number": row_id,
                    "production_id": root.production_id,
                    "kind": kind.kind,
                    "key": key,
                }
                place_of = {"id": row_id, "root_id": root.id, "version": 1, "changed_at": moment}
                made.append({**place_of, **besides, **stands})
            else:
                row_id = row.id
                if any(getattr(row, name) != value for name, value in stands.items()):
                    changed.append({"id": row_id, "version": row.version + 1, "changed_at": moment, **stands})
            for name, inner in kind.lists.items():
                place(inner, lists[name], row_id)

    _, _, lists = shape.parts(plain)
    for name, inner in shape.lists.items():
        place(inner, lists[name], root.id)
    gone = [row for row in there.values() if row.removed_at is None]
    changed += [
        {"id": row.id, "version": row.version + 1, "changed_at": moment, "removed_at": moment,
         "parent_id": row.parent_id, "position": row.position, "body": row.body}
        for row in gone
    ]  # fmt: skip
    if made:
        session.execute(insert(Document), made)
    if changed:
        session.execute(update(Document), changed)
    live = {(row["kind"], row["key"]) for row in made} | {(r.kind, r.key) for r in every} - set(there)
    _prune(session, list(there.values()), live)


def _prune(session: Session, left_out: list[Any], live: set[tuple[str, str]]) -> None:
    """Let the oldest removed rows go for good: undo goes back to the last ones, and a list that is written anew again
    and again must not grow for ever."""
    for kind in {row.kind for row in left_out}:
        removed = sorted((row for row in left_out if row.kind == kind), key=lambda row: row.id)
        most = max(MOST_REMOVED, 2 * sum(each == kind for each, _ in live))
        oldest = [row.id for row in removed[: max(0, len(removed) - most)]]
        if oldest:
            session.execute(delete(Document).where(Document.id.in_(oldest)))
