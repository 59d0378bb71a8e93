"""The log in the database: an entry a row, each kept once however often it is sent, with all that stood there before."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session
from sqlalchemy.orm.exc import StaleDataError

from hextan.core.base import Fault, InvalidInputError, NotFoundError
from hextan.core.record import MOST_ENTRIES, Log, LogEntry, LogItem, parse_item, written
from hextan.store.models import LogRow
from hextan.store.repositories import find_production


def _item(row: LogRow) -> LogItem:
    return parse_item({"entry": row.entry, "before": row.before})


def read(session: Session, production_id: int) -> Log:
    """A production's log in the order in which it was received.

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    find_production(session, production_id)
    query = select(LogRow).where(LogRow.production_id == production_id).order_by(LogRow.id)
    return Log(items=[_item(row) for row in session.scalars(query)])


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
    return _item(row)


def _row(session: Session, production_id: int, key: str) -> LogRow | None:
    query = select(LogRow).where(LogRow.production_id == production_id, LogRow.key == key)
    return session.scalars(query).one_or_none()


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
        item = written(None if row is None else _item(row), entry, based_on)
        if row is not None and item.revision == len(row.before) + 1:
            return item
        try:
            if row is None:
                _refuse_a_full_log(session, production_id, 1)
                session.add(_made(production_id, item))
            else:
                row.entry, row.before = _plain(item)
            session.commit()
            return item
        except (IntegrityError, StaleDataError):
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
    query = select(LogRow.key).where(LogRow.production_id == production_id, LogRow.key.in_(asked))
    there = set(session.scalars(query))
    new = [LogItem(entry=entry) for key, entry in asked.items() if key not in there]
    _refuse_a_full_log(session, production_id, len(new))
    session.add_all(_made(production_id, item) for item in new)
    session.commit()
    return len(new)


def add_log(session: Session, production_id: int, log: Log) -> None:
    """Add a whole log to a production that has none; the caller commits."""
    session.add_all(_made(production_id, item) for item in log.items)


def _made(production_id: int, item: LogItem) -> LogRow:
    entry, before = _plain(item)
    return LogRow(production_id=production_id, key=item.entry.key, entry=entry, before=before)


def _plain(item: LogItem) -> tuple[dict[str, object], list[dict[str, object]]]:
    return item.entry.model_dump(mode="json"), [each.model_dump(mode="json") for each in item.before]


def _refuse_a_full_log(session: Session, production_id: int, more: int) -> None:
    count = (
        session.scalar(select(func.count()).select_from(LogRow).where(LogRow.production_id == production_id))
        or 0
    )
    if count + more > MOST_ENTRIES:
        rule = f"the log holds {MOST_ENTRIES} entries at most: begin a new production for the rest"
        raise InvalidInputError.of(Fault("entry", count + more, rule))
