"""The log in the database: an entry a row, each kept once however often it is sent, with all that stood there before."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from sqlalchemy import func, insert, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from hextan.core.base import Fault, InvalidInputError, NotFoundError, Plain
from hextan.core.record import MOST_ENTRIES, Log, LogEntry, LogItem, parse_item, written
from hextan.store.keeper import find_production, next_ids
from hextan.store.models import Document, Revision

KIND = "log_entry"
#: Entries of a log by their rows, each with when it was changed last, as they were read before.
Read = dict[int, tuple[datetime, LogItem]]


def _of(production_id: int) -> tuple[Any, Any]:
    return Document.production_id == production_id, Document.kind == KIND


def read(session: Session, production_id: int, before: Read | None = None) -> Log:
    """A production's log in the order in which it was received.

    Parameters
    ----------
    before : what was read of it before, brought up to date: only entries that are new or changed are read again

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    find_production(session, production_id)
    known: Read = {} if before is None else before
    query = select(Document.id, Document.changed_at).where(*_of(production_id)).order_by(Document.id)
    now: dict[int, datetime] = {row.id: row.changed_at for row in session.execute(query)}
    other = [number for number, at in now.items() if number not in known or known[number][0] != at]
    known.update(_items(session, production_id, None if len(other) == len(now) else other))
    return Log(items=[known[number][1] for number in now])


def _items(session: Session, production_id: int, numbers: list[int] | None) -> Read:
    """Read entries: those of some numbers, or all of a production."""
    if numbers == []:
        return {}
    where = [*_of(production_id)] + ([] if numbers is None else [Document.id.in_(numbers)])
    earlier: dict[int, list[Plain]] = defaultdict(list)
    revisions = select(Revision.document_id, Revision.body, Document.key).join(
        Document, Document.id == Revision.document_id
    )
    for number, body, key in session.execute(revisions.where(*where).order_by(Revision.version)):
        earlier[number].append({**body, "key": key})
    rows = session.execute(
        select(Document.id, Document.changed_at, Document.key, Document.body).where(*where)
    )
    return {
        row.id: (
            row.changed_at,
            parse_item({"entry": {**row.body, "key": row.key}, "before": earlier[row.id]}),
        )
        for row in rows
    }


def find(session: Session, production_id: int, key: str) -> LogItem:
    """One entry.

    Raises
    ------
    NotFoundError
        When there is none under this key.
    """
    row = _row(session, production_id, key)
    if row is None:
        raise NotFoundError("There is no such entry in the log.")
    return _items(session, production_id, [row.id])[row.id][1]


def _row(session: Session, production_id: int, key: str) -> Document | None:
    """An entry's row, held until the transaction ends."""
    query = select(Document).where(*_of(production_id), Document.key == key).with_for_update()
    return session.scalars(query.execution_options(populate_existing=True)).one_or_none()


def put(session: Session, production_id: int, entry: LogEntry, based_on: int) -> LogItem:
    """Write an entry, or another version of one, and commit. What is sent again changes nothing.

    Raises
    ------
    StaleWriteError
        Somebody else changed it in between; carries both.
    InvalidInputError
        An entry of another kind, one that was changed too often, or a log that is full.
    NotFoundError
        When there is no such production.
    """
    find_production(session, production_id)
    for attempt in range(3):
        row = _row(session, production_id, entry.key)
        there = None if row is None else _items(session, production_id, [row.id])[row.id][1]
        item = written(there, entry, based_on)
        if there is not None and item.revision == there.revision:
            return item
        try:
            if row is None:
                _refuse_a_full_log(session, production_id, 1)
                add_log(session, production_id, Log(items=[item]))
            else:
                row.body = _body(item.entry)
                row.version += 1
                row.changed_at = func.now()
            session.commit()
            return item
        except IntegrityError:
            # The same entry arrived twice at once: it is looked at again.
            session.rollback()
            if attempt == 2:
                raise
    raise AssertionError("unreachable")


def put_new(session: Session, production_id: int, entries: Iterable[LogEntry]) -> int:
    """Write entries that are not there yet, and commit all or none; those that are there stay as they are.

    Returns
    -------
    How many are new.
    """
    find_production(session, production_id)
    asked = {entry.key: entry for entry in entries}
    there = set(session.scalars(select(Document.key).where(*_of(production_id), Document.key.in_(asked))))
    new = [LogItem(entry=entry) for key, entry in asked.items() if key not in there]
    _refuse_a_full_log(session, production_id, len(new))
    add_log(session, production_id, Log(items=new))
    session.commit()
    return len(new)


def add_log(session: Session, production_id: int, log: Log) -> None:
    """Add entries with what stood there before; the caller commits."""
    numbers = next_ids(session, len(log.items))
    rows, before = [], []
    now = session.scalar(select(func.now()))
    for number, item in zip(numbers, log.items, strict=True):
        row = {
            "id": number,
            "number": number,
            "production_id": production_id,
            "kind": KIND,
            "key": item.entry.key,
        }
        rows.append({**row, "position": 0, "version": item.revision, "body": _body(item.entry)})
        before += [
            {
                "document_id": number,
                "version": i,
                "position": 0,
                "changed_at": now,
                "body": _body(each),
            }
            for i, each in enumerate(item.before, 1)
        ]
    if rows:
        session.execute(insert(Document), rows)
    if before:
        session.execute(insert(Revision), before)


def _body(entry: LogEntry) -> Plain:
    return entry.model_dump(mode="json", exclude={"key"})


def _refuse_a_full_log(session: Session, production_id: int, more: int) -> None:
    count = session.scalar(select(func.count()).select_from(Document).where(*_of(production_id))) or 0
    if count + more > MOST_ENTRIES:
        rule = f"the log holds {MOST_ENTRIES} entries at most: begin a new production for the rest"
        raise InvalidInputError.of(Fault("entry", count + more, rule))
