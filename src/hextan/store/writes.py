"""Writes that are based on a known version: kept, or refused with both versions, so that nothing is lost."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from pydantic import BaseModel
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session
from sqlalchemy.orm.exc import StaleDataError

from hextan.core.base import StaleWriteError


@contextmanager
def from_version(
    session: Session, version: int, stored: int, refusal: Callable[[], StaleWriteError]
) -> Iterator[None]:
    """Write what was changed from a known version, and commit.

    Parameters
    ----------
    version : on which the write is based
    stored : the newest, 0 where nothing is stored yet
    refusal : told when somebody else was quicker; it reads anew what is stored

    Raises
    ------
    StaleWriteError
        Somebody else wrote in between.
    """
    try:
        if version != stored:
            raise StaleDataError
        yield
        session.commit()
    except (StaleDataError, IntegrityError):
        session.rollback()
        raise refusal() from None


def stale(
    what: str,
    version: int,
    given: BaseModel,
    stored_version: int,
    stored: BaseModel | None,
    key: str = "document",
) -> StaleWriteError:
    """Refuse a write with what was given and what is stored.

    Parameters
    ----------
    key : under which both are told, beside their versions
    """
    there = None if stored is None else {"version": stored_version, key: stored.model_dump(mode="json")}
    return StaleWriteError(
        f"{what} changed elsewhere: this change is based on version {version}, and version {stored_version} "
        "is saved. Take what is saved or write yours over it.",
        given={"version": version, key: given.model_dump(mode="json")},
        stored=there,
    )
