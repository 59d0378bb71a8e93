"""Productions in the database: made, renamed, copied, archived; written out whole, and read in whole."""

from __future__ import annotations

from datetime import datetime
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
from hextan.store import comparisons, log, rigs
from hextan.store.bodies import BODIES
from hextan.store.documents import Documents
from hextan.store.lens_sets import LENS_SETS
from hextan.store.models import (
    Body,
    EquipmentStamp,
    LensSet,
    PackingRow,
    Production,
    Rig,
    SetRow,
    SheetsRow,
    ShotsRow,
)
from hextan.store.repositories import (
    bench_row,
    catalogue_of,
    find_production,
    save_bench,
    settings_of,
    state_of,
)
from hextan.store.single import PACKING, SET, SHEETS, SHOTS
from hextan.store.writes import from_version, stale

_FACTS = tuple(ProductionFacts.model_fields)


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
    return ProductionFacts.model_validate({name: getattr(row, name) for name in _FACTS})


def asked_before(session: Session, key: str | None) -> Production | None:
    """The production that was made under a key; None where there is none, or no key."""
    return None if key is None else session.scalar(select(Production).where(Production.asked_key == key))


def make(session: Session, facts: ProductionFacts, key: str | None = None) -> Production:
    """Make an empty production, and commit.

    Parameters
    ----------
    key : of the request; refused by the database when another was made under it at the same moment
    """
    row = Production(**facts.model_dump(), asked_key=key)
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
        for name in _FACTS:
            setattr(row, name, getattr(facts, name))
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
    rig = rigs.find_rig(session, row.id)
    rows = _rows(bodies, sets, rig)
    numbers = Numbers(**{kind: {n: i for i, n in enumerate(here, 1)} for kind, here in rows.items()})
    bench = bench_row(session, row.id)
    told = [
        *comparisons.every(session, row.id),
        *(comparisons.every(session, row.id, True) if removed else []),
    ]
    return ProductionDocument.model_validate(
        facts_of(row).model_dump()
        | {
            "settings": settings_of(row),
            "bodies": [_item(BODIES, BodyItem, body) for body in bodies],
            "lens_sets": [_item(LENS_SETS, LensSetItem, kit) for kit in sets],
            "rig": rigs.document_of(rig),
            "bench": None if bench is None else {"state": renumbered_bench(state_of(bench), numbers)},
            "comparisons": [
                {"document": renumbered_comparison(comparisons.document_of(c), numbers), "removed": c.removed}
                for c in told
            ],
            "shots": SHOTS.read(session, row.id),
            "packing": PACKING.read(session, row.id),
            "sheets": renumbered_sheets(SHEETS.read(session, row.id), numbers),
            "log": log.read(session, row.id),
            "set_settings": SET.read(session, row.id),
        }
    )


def _in_order(session: Session, kind: Documents[Any, Any], production_id: int, removed: bool) -> list[Any]:
    gone = kind.every(session, production_id, removed=True) if removed else []
    return [*kind.every(session, production_id), *gone]


def _item(kind: Documents[Any, Any], item: type[Any], row: Any) -> Any:
    taken = None if row.taken is None else kind.parse(row.taken)
    return item(document=kind.document_of(row), taken=taken, removed=row.removed)


def _rows(bodies: list[Body], sets: list[LensSet], rig: Rig | None) -> dict[str, list[int]]:
    """For each kind the numbers of a production's rows here, in the order of a file."""
    ids: dict[str, list[dict[str, int]]] = {
        "modes": [{m.key: m.id for m in body.modes} for body in bodies],
        "formats": [{f.key: f.id for m in body.modes for f in m.formats if not f.removed} for body in bodies],
        "crops": [{c.key: c.id for c in body.crops} for body in bodies],
        "lenses": [{lens.key: lens.id for lens in kit.lenses} for kit in sets],
        "adapters": [{} if rig is None else {a.key: a.id for a in rig.adapters}],
    }
    order = counted(map(BODIES.document_of, bodies), map(LENS_SETS.document_of, sets), rigs.document_of(rig))
    return {kind: [ids[kind][i][key] for i, key in places] for kind, places in order.items()}


def add_document(session: Session, document: ProductionDocument, key: str | None = None) -> Production:
    """Add a production as a document describes it, all of it or nothing, and commit.

    Bodies and lens sets go with those of the shelf that have the same key, so that what changed there is seen.

    Parameters
    ----------
    key : as in `make`
    """
    shelf = catalogue_of(session)
    facts = {name: getattr(document, name) for name in _FACTS}
    row = Production(**facts, asked_key=key, settings=document.settings.model_dump(mode="json"))
    session.add(row)
    session.flush()
    bodies = [_add(session, BODIES, row, shelf, item) for item in document.bodies]
    sets = [_add(session, LENS_SETS, row, shelf, item) for item in document.lens_sets]
    rig = None
    if document.rig != RigDocument():
        rig = Rig(production_id=row.id, edits=0)
        session.add(rig)
        rigs.apply_document(rig, document.rig)
    session.flush()
    rows = _rows(bodies, sets, rig)
    numbers = Numbers(**{kind: dict(enumerate(there, 1)) for kind, there in rows.items()})
    for position, item in enumerate(document.comparisons):
        comparisons.put(
            session, row.id, position, renumbered_comparison(item.document, numbers), item.removed
        )
    if document.bench is not None:
        save_bench(session, row.id, 0, renumbered_bench(document.bench.state, numbers))
    if document.shots.shots:
        session.add(ShotsRow(production_id=row.id, document=document.shots.model_dump(mode="json")))
    if document.packing != Packing():
        session.add(PackingRow(production_id=row.id, document=document.packing.model_dump(mode="json")))
    if document.sheets.bundles:
        sheets = renumbered_sheets(document.sheets, numbers)
        session.add(SheetsRow(production_id=row.id, document=sheets.model_dump(mode="json")))
    log.add_log(session, row.id, document.log)
    if document.set_settings != SetSettings():
        # What listens is chosen where it listens: a file brings the addresses, and nothing is on.
        silent = [source.model_copy(update={"on": False}) for source in document.set_settings.sources]
        kept = document.set_settings.model_copy(update={"sources": silent})
        session.add(SetRow(production_id=row.id, document=kept.model_dump(mode="json")))
    session.commit()
    return row


def _add(
    session: Session, kind: Documents[Any, Any], production: Production, shelf: Production, item: Any
) -> Any:
    row = kind.add(session, production, item.document)
    row.removed = item.removed
    if item.taken is not None:
        row.taken = item.taken.model_dump(mode="json")
        same = [other for other in kind.every(session, shelf.id) if other.key == item.taken.key]
        if same:
            setattr(row, kind.link, same[0].id)
    return row


def copy(session: Session, production_id: int, facts: ProductionFacts, key: str | None = None) -> Production:
    """Add a production that begins as a copy of another, what was taken out of that one left behind; commit."""
    refuse_removed(session, production_id)
    # A copy begins a plan anew: what was shot of the other is not its own.
    document = document_of(session, production_id)
    return add_document(session, document.model_copy(update=facts.model_dump() | {"log": Log()}), key)
