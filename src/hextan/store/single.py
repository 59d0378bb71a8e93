"""Documents of which a production has one: the list of shots, its packing, its sheets, its page of the set. Each is kept whole in one row."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Generic, TypeVar

from pydantic import BaseModel
from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.base import Schema, StaleWriteError
from hextan.core.packing import PACKING_SCHEMA, Packing, parse_packing
from hextan.core.record import SET_SCHEMA, SetSettings, parse_set
from hextan.core.sheets import SHEETS_SCHEMA, Sheets, parse_sheets
from hextan.core.shots import SHOTS_SCHEMA, ShotList, parse_shots
from hextan.store.models import PackingRow, SetRow, SheetsRow, ShotsRow
from hextan.store.repositories import find_production
from hextan.store.writes import from_version, stale

R = TypeVar("R", ShotsRow, PackingRow, SheetsRow, SetRow)
D = TypeVar("D", bound=BaseModel)


class Single(Generic[R, D]):
    """One kind of document: its table, its schema, and how it is called when somebody else kept one in between."""

    def __init__(
        self, row: type[R], empty: Callable[[], D], schema: Schema, parse: Callable[[Any], D], told: str
    ) -> None:
        self._row: type[R] = row
        self._empty, self._schema, self._parse, self._told = empty, schema, parse, told

    def find(self, session: Session, production_id: int) -> R | None:
        """Find a production's document; None where nothing was kept yet.

        Raises
        ------
        NotFoundError
            When there is no such production.
        """
        find_production(session, production_id)
        return session.scalars(
            select(self._row).where(self._row.production_id == production_id)
        ).one_or_none()

    def document_of(self, row: R | None) -> D:
        """Read the row's document; an empty one where nothing was kept yet."""
        return self._empty() if row is None else self._parse(self._schema.stored(row.document))

    def read(self, session: Session, production_id: int) -> D:
        """A production's document; an empty one where nothing was kept yet. Refuses what `find` refuses."""
        return self.document_of(self.find(session, production_id))

    def save(self, session: Session, production_id: int, version: int, document: D) -> R:
        """Keep a document that was changed from a known version (0: none yet), and commit.

        Raises
        ------
        StaleWriteError
            Somebody else kept one in between; carries both documents.
        NotFoundError
            When there is no such production.
        """
        row = self.find(session, production_id)

        def refusal() -> StaleWriteError:
            now = self.find(session, production_id)
            stored = 0 if now is None else now.version
            return stale(self._told, version, document, stored, self.document_of(now))

        with from_version(session, version, 0 if row is None else row.version, refusal):
            if row is None:
                row = self._row(production_id=production_id)
                session.add(row)
            row.document = document.model_dump(mode="json")
        return row


SHOTS = Single(ShotsRow, ShotList, SHOTS_SCHEMA, parse_shots, "The list of shots was")
PACKING = Single(PackingRow, Packing, PACKING_SCHEMA, parse_packing, "The packing was")
SHEETS = Single(SheetsRow, Sheets, SHEETS_SCHEMA, parse_sheets, "The sheets were")
SET = Single(SetRow, SetSettings, SET_SCHEMA, parse_set, "What the set listens to was")
