"""How entries get into the log: each once, in any order, and none over another."""

from __future__ import annotations

from hextan.core.base import Fault, InvalidInputError, StaleWriteError
from hextan.core.record.document import MOST_BEFORE, LogEntry, LogItem


def written(item: LogItem | None, entry: LogEntry, based_on: int) -> LogItem:
    """Put an entry, or another version of it, into the log.

    Parameters
    ----------
    item : what stands under the entry's key; None where nothing does
    based_on : the revision that was changed, 0 for a new entry

    Returns
    -------
    The item as it stands then. What was sent before, and arrives again, changes nothing.

    Raises
    ------
    StaleWriteError
        Somebody else changed the entry in between; carries both.
    InvalidInputError
        An entry of another kind under this key, or one that was changed too often.
    """
    if item is None:
        if based_on != 0:
            raise _stale(entry, based_on, None)
        return LogItem(entry=entry)
    if item.has(entry):
        return item
    if item.entry.kind != entry.kind:
        rule = f"is the key of a {item.entry.kind}, and stays one"
        raise InvalidInputError.of(Fault("entry.kind", entry.kind, rule))
    if based_on != item.revision:
        raise _stale(entry, based_on, item)
    if len(item.before) >= MOST_BEFORE:
        rule = f"was changed {MOST_BEFORE} times, and no more can be: log it anew"
        raise InvalidInputError.of(Fault("entry.key", entry.key, rule))
    return LogItem(entry=entry, before=[*item.before, item.entry])


def _stale(entry: LogEntry, based_on: int, item: LogItem | None) -> StaleWriteError:
    given = {"revision": based_on, "entry": entry.model_dump(mode="json")}
    stored = (
        None if item is None else {"revision": item.revision, "entry": item.entry.model_dump(mode="json")}
    )
    who = (
        "nobody wrote it yet"
        if item is None
        else f"{item.entry.by or 'somebody'} wrote revision {item.revision}"
    )
    message = f"This entry changed elsewhere: this change is based on revision {based_on}, and {who}. Both are kept: choose which one stands."
    return StaleWriteError(message, given=given, stored=stored)
