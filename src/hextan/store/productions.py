"""Productions in the database: made, renamed, copied, archived; written out whole, and read in whole."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.base import NotFoundError, RemovedError, StaleWriteError
from hextan.core.documents import RigDocument
from hextan.core.packing import Packing
from hextan.core.production import (
    BodyItem,
    LensSetItem,
    Numbers,
    ProductionDocument,
    ProductionFacts,
    counted,
    renumbered_bench,
    renumbered_comparison,
    renumbered_sheets,
)
from hextan.core.record import Log, SetSettings
from hextan.store import log
from hextan.store.keeper import Equipment, Kept, find_production
from hextan.store.kinds import (
    BENCH,
    BODIES,
    COMPARISONS,
    LENS_SETS,
    PACKING,
    PLAN,
    RIG,
    SET,
    SETTINGS,
    SHEETS,
    SHOTS,
)
from hextan.store.models import EquipmentStamp, Production
from hextan.store.repositories import catalogue_of, kept_bench
from hextan.store.writes import from_version, stale


def every(session: Session) -> list[tuple[Production, datetime]]:
    """List all productions and when each was last changed, the last one first; without the shelves."""
    query = (
        select(Production, EquipmentStamp.changed_at)
        .join(EquipmentStamp, EquipmentStamp.production_id == Production.id)
        .where(Production.kind == "production")
        .order_by(EquipmentStamp.changed_at.desc(), Production.id)
    )
    return [(row, changed) for row, changed in session.execute(query)]


def own(session: Session, production_id: int) -> Production:
    """Find a production that is no shelf.

    Raises
    ------
    NotFoundError
        When there is none of this id.
    """
    row = find_production(session, production_id)
    if row.kind != "production":
        raise NotFoundError("The catalogue is no production: it has no name to change, and stays.")
    return row


def refuse_removed(session: Session, production_id: int) -> None:
    """Refuse a production that was put away; holds no connection afterwards.

    Raises
    ------
    RemovedError
        It was put away, and nobody brought it back.
    """
    archived = session.scalar(select(Production.archived).where(Production.id == production_id))
    session.close()
    if archived:
        raise RemovedError


def facts_of(row: Production) -> ProductionFacts:
    """What is said of a production itself."""
    days = {"starts_on": row.starts_on, "ends_on": row.ends_on}
    told = {name: "" if day is None else day.isoformat() for name, day in days.items()}
    return ProductionFacts(name=row.name, synopsis=row.synopsis, **told)


def _columns(facts: ProductionFacts) -> dict[str, Any]:
    days = {"starts_on": facts.starts_on, "ends_on": facts.ends_on}
    dates = {name: date.fromisoformat(day) if day else None for name, day in days.items()}
    return {"name": facts.name, "synopsis": facts.synopsis, **dates}


def asked_before(session: Session, key: str | None) -> Production | None:
    """The production that was made under a key; None where there is none, or no key."""
    return None if key is None else session.scalar(select(Production).where(Production.asked_key == key))


def make(session: Session, facts: ProductionFacts, key: str | None = None) -> Production:
    """Make an empty production, and commit.

    Parameters
    ----------
    key : of the request; refused by the database when another was made under it at the same moment
    """
    row = Production(**_columns(facts), asked_key=key)
    session.add(row)
    session.commit()
    return row


def save_facts(session: Session, production_id: int, version: int, facts: ProductionFacts) -> Production:
    """Keep what is said of a production, changed from a known version, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else changed it in between.
    NotFoundError
        When there is no such production.
    """
    row = own(session, production_id)
    with from_version(session, version, row.version, _refusal(session, row, version, facts)):
        for name, value in _columns(facts).items():
            setattr(row, name, value)
    return row


def set_archived(session: Session, production_id: int, version: int, archived: bool) -> Production:
    """Put a production away, or bring it back; nothing is lost. Refuses what `save_facts` refuses."""
    row = own(session, production_id)
    with from_version(session, version, row.version, _refusal(session, row, version, facts_of(row))):
        row.archived = archived
    return row


def _refusal(session: Session, row: Production, version: int, facts: ProductionFacts) -> Any:
    production_id = row.id

    def refusal() -> StaleWriteError:
        now = find_production(session, production_id)
        return stale(f"{now.name} was", version, facts, now.version, facts_of(now), "facts")

    return refusal


def document_of(session: Session, production_id: int, removed: bool = False) -> ProductionDocument:
    """Write a whole production as one document.

    Parameters
    ----------
    removed : whether bodies, lens sets and comparisons that were taken out go with it

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    row = find_production(session, production_id)
    bodies = _in_order(session, BODIES, row.id, removed)
    sets = _in_order(session, LENS_SETS, row.id, removed)
    rig = RIG.find(session, row.id)
    rows = _rows(bodies, sets, rig)
    numbers = Numbers(**{kind: {n: i for i, n in enumerate(here, 1)} for kind, here in rows.items()})
    bench = kept_bench(session, row.id)
    told = [
        *COMPARISONS.every(session, row.id),
        *(COMPARISONS.every(session, row.id, True) if removed else []),
    ]
    return ProductionDocument.model_validate(
        facts_of(row).model_dump()
        | {
            "settings": SETTINGS.read(session, row.id),
            "bodies": [_item(BODIES, BodyItem, body) for body in bodies],
            "lens_sets": [_item(LENS_SETS, LensSetItem, kit) for kit in sets],
            "rig": RIG.empty() if rig is None else rig.document,
            "bench": None if bench is None else {"state": renumbered_bench(bench, numbers)},
            "comparisons": [
                {"document": renumbered_comparison(c.document, numbers), "removed": c.removed} for c in told
            ],
            "shots": SHOTS.read(session, row.id),
            "packing": PACKING.read(session, row.id),
            "plan": PLAN.read(session, row.id),
            "sheets": renumbered_sheets(SHEETS.read(session, row.id), numbers),
            "log": log.read(session, row.id),
            "set_settings": SET.read(session, row.id),
        }
    )


def _in_order(session: Session, kind: Equipment[Any], production_id: int, removed: bool) -> list[Kept[Any]]:
    gone = kind.every(session, production_id, removed=True) if removed else []
    return [*kind.every(session, production_id), *gone]


def _item(kind: Equipment[Any], item: type[Any], kept: Kept[Any]) -> Any:
    taken = None if kept.taken is None else kind.read_plain(kept.taken)
    return item(document=kept.document, taken=taken, removed=kept.removed)


def _rows(
    bodies: list[Kept[Any]], sets: list[Kept[Any]], rig: Kept[RigDocument] | None
) -> dict[str, list[int]]:
    """For each kind the numbers of a production's rows here, in the order of a file."""
    documents = {"lenses": sets, "adapters": [] if rig is None else [rig]}
    order = counted(
        (kept.document for kept in bodies),
        (kept.document for kept in sets),
        RIG.empty() if rig is None else rig.document,
    )
    return {
        kind: [documents.get(kind, bodies)[i].numbers[kind][key] for i, key in places]
        for kind, places in order.items()
    }


def add_document(session: Session, document: ProductionDocument, key: str | None = None) -> Production:
    """Add a production as a document describes it, all of it or nothing, and commit.

    Bodies and lens sets go with those of the shelf that have the same key, so that what changed there is seen.

    Parameters
    ----------
    key : as in `make`
    """
    shelf = catalogue_of(session)
    facts = ProductionFacts(**{name: getattr(document, name) for name in ProductionFacts.model_fields})
    row = Production(**_columns(facts), asked_key=key)
    session.add(row)
    session.flush()
    SETTINGS.put(session, row.id, document.settings)
    bodies = [_add(session, BODIES, row, shelf, item) for item in document.bodies]
    sets = [_add(session, LENS_SETS, row, shelf, item) for item in document.lens_sets]
    if document.rig != RigDocument():
        RIG.put(session, row.id, document.rig)
    rows = _rows(bodies, sets, RIG.find(session, row.id))
    numbers = Numbers(**{kind: dict(enumerate(there, 1)) for kind, there in rows.items()})
    for item in document.comparisons:
        COMPARISONS.add(session, row.id, renumbered_comparison(item.document, numbers), removed=item.removed)
    if document.bench is not None:
        BENCH.put(session, row.id, renumbered_bench(document.bench.state, numbers))
    if document.shots.shots:
        SHOTS.put(session, row.id, document.shots)
    if document.packing != Packing():
        PACKING.put(session, row.id, document.packing)
    if document.plan.stands:
        PLAN.put(session, row.id, document.plan)
    if document.sheets.bundles:
        SHEETS.put(session, row.id, renumbered_sheets(document.sheets, numbers))
    log.add_log(session, row.id, document.log)
    if document.set_settings != SetSettings():
        # What listens is chosen where it listens: a file brings the addresses, and nothing is on.
        silent = [source.model_copy(update={"on": False}) for source in document.set_settings.sources]
        SET.put(session, row.id, document.set_settings.model_copy(update={"sources": silent}))
    session.commit()
    return row


def _add(
    session: Session, kind: Equipment[Any], production: Production, shelf: Production, item: Any
) -> Kept[Any]:
    same = None
    if item.taken is not None:
        same = next(
            (other.id for other in kind.every(session, shelf.id) if other.document.key == item.taken.key),
            None,
        )
    return kind.add(
        session, production.id, item.document, source_id=same, taken=item.taken, removed=item.removed
    )


def copy(session: Session, production_id: int, facts: ProductionFacts, key: str | None = None) -> Production:
    """Add a production that begins as a copy of another, what was taken out of that one left behind; commit."""
    refuse_removed(session, production_id)
    # A copy begins a plan anew: what was shot of the other is not its own.
    document = document_of(session, production_id)
    return add_document(session, document.model_copy(update=facts.model_dump() | {"log": Log()}), key)
