"""Reading and writing productions: rows on one side, the core's plain records on the other."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload

from hextan.core.base import NotFoundError, NothingYetError, StaleWriteError, parse_rate
from hextan.core.bench import BENCH_SCHEMA, BenchState, mended, parse_state
from hextan.core.documents import adapter_of, body_of, filter_of, lens_set_of, mount_of, pair_notes_of
from hextan.core.entry import plain_bodies, plain_lens_sets, plain_rig
from hextan.core.equipment import SETTINGS_SCHEMA, PackageSettings, parse_settings
from hextan.core.equipment import package as core
from hextan.core.evaluation import BenchDelivery, BenchReference
from hextan.core.light import Light
from hextan.store import bodies, lens_sets, rigs
from hextan.store.models import BenchRow, Body, LensSet, Production, Rig
from hextan.store.writes import from_version, stale

#: What marks the demo, its shelf, and the shelf of everybody else.
DEMO_KEY, DEMO_SHELF, SHELF = "low-water", "low-water-catalogue", "catalogue"


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


def catalogue_of(session: Session, production_id: int | None = None) -> Production:
    """Give the shelf from which a production takes copies, made when there is none yet; commits only what it makes.

    The demo has a shelf of its own, so that its invented equipment never mixes with anybody's; a shelf is its own.
    """
    asked = None if production_id is None else session.get(Production, production_id)
    if asked is not None and asked.kind == "catalogue":
        return asked
    return shelf_of(session, DEMO_SHELF if asked is not None and asked.demo_key == DEMO_KEY else SHELF)


def shelf_of(session: Session, key: str) -> Production:
    """Give one of the shelves, made when there is none yet; commits only what it makes."""
    query = select(Production).where(Production.demo_key == key)
    found = session.scalars(query).one_or_none()
    if found is None:
        found = Production(kind="catalogue", name="Catalogue", demo_key=key)
        session.add(found)
        try:
            session.flush()
            if key == SHELF:
                _fill(session, found)
            session.commit()
        except IntegrityError:
            # Somebody else made it at the same moment.
            session.rollback()
            found = session.scalars(query).one()
    return found


def _fill(session: Session, shelf: Production) -> None:
    """A shelf begins with plain windows and plain glass."""
    for body in plain_bodies():
        bodies.BODIES.add(session, shelf, body)
    for kit in plain_lens_sets():
        lens_sets.LENS_SETS.add(session, shelf, kit)
    rig = Rig(production_id=shelf.id, edits=0)
    session.add(rig)
    rigs.apply_document(rig, plain_rig())


def load_package(session: Session, production_id: int) -> core.Package:
    """Load all equipment of a production as the core's records.

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    query = (
        select(Production)
        .where(Production.id == production_id)
        .options(
            *(selectinload(Production.bodies).options(load) for load in bodies.WHOLE),
            *(selectinload(Production.lens_sets).options(load) for load in lens_sets.WHOLE),
            *(selectinload(Production.rig).options(load) for load in rigs.WHOLE),
        )
    )
    production = session.scalars(query).one_or_none() or find_production(session, production_id)
    settings = settings_of(production)
    return core.Package(
        bodies=tuple(_body(row) for row in production.bodies if not row.removed),
        lens_sets=tuple(_lens_set(row) for row in production.lens_sets if not row.removed),
        **_rig(production.rig),
        coc=settings.coc,
        references=tuple(settings.references),
        deliveries=tuple(settings.deliveries),
        carried=frozenset(settings.carried),
    )


def _body(row: Body) -> core.Body:
    rows: list[Any] = [*row.modes, *row.crops, *(f for mode in row.modes for f in mode.formats)]
    return body_of(bodies.document_of(row), {r.key: r.id for r in rows}, row.id)


def _lens_set(row: LensSet) -> core.LensSet:
    return lens_set_of(lens_sets.document_of(row), {lens.key: lens.id for lens in row.lenses}, row.id)


def _rig(row: Rig | None) -> dict[str, Any]:
    document = rigs.document_of(row)
    ids = {} if row is None else {adapter.key: adapter.id for adapter in row.adapters}
    return {
        "mounts": tuple(mount_of(mount) for mount in document.mounts),
        "adapters": tuple(adapter_of(adapter, ids[adapter.key]) for adapter in document.adapters),
        "filters": tuple(filter_of(each) for each in document.filters),
        "pair_notes": pair_notes_of(document),
    }


def bench_row(session: Session, production_id: int) -> BenchRow | None:
    """Find what the Bench of a production is set to; None where nothing was kept yet."""
    return session.scalars(select(BenchRow).where(BenchRow.production_id == production_id)).one_or_none()


def state_of(row: BenchRow) -> BenchState:
    """A kept Bench, brought up from the version in which it was stored."""
    return parse_state(BENCH_SCHEMA.newest(row.state, row.schema_version))


def settings_of(production: Production) -> PackageSettings:
    """A production's settings, brought up from the version in which they were stored."""
    return parse_settings(SETTINGS_SCHEMA.stored(production.settings))


def read_bench(session: Session, production_id: int) -> tuple[int, BenchState]:
    """Read the Bench of a production; version 0 and a first setting when none was kept yet.

    Raises
    ------
    NotFoundError
        When there is no such production, or it has no equipment to put on a bench.
    """
    row = bench_row(session, production_id)
    if row is not None:
        return row.version, state_of(row)
    package = load_package(session, production_id)
    if not package.formats or not package.lenses:
        raise NothingYetError
    settings = settings_of(find_production(session, production_id))
    state = BenchState(
        format_id=next(iter(package.formats)),
        lens_id=next(iter(package.lenses)),
        unit=settings.unit,
        light=_first_light(settings),
        reference=BenchReference(name="full_frame") if settings.words == "stills" else BenchReference(),
    )
    if settings.deliveries:
        main = settings.deliveries[0].model_dump(exclude={"name"})
        state = state.model_copy(update={"delivery": BenchDelivery(**main)})
    return 0, state


def mended_bench(session: Session, production_id: int, package: core.Package) -> BenchState | None:
    """The Bench with what is there in the place of equipment that is gone; None where there is nothing yet to set it to."""
    try:
        return mended(read_bench(session, production_id)[1], package)[0]
    except (NotFoundError, NothingYetError):
        return None


def _first_light(settings: PackageSettings) -> Light:
    """The shutter of a new Bench: by its angle, or by its time in the words of video and stills."""
    time_s = settings.shutter_deg / 360 / float(parse_rate(settings.base_fps))
    return Light(
        mains_hz=settings.mains_hz,
        shutter_deg=settings.shutter_deg,
        shutter="angle" if settings.words == "cine" else "time",
        shutter_s=float(f"{time_s:.6g}"),
    )


def reference_of(session: Session, production_id: int) -> BenchReference:
    """What crops are told against in a production: as its kept Bench has it."""
    row = bench_row(session, production_id)
    return BenchReference() if row is None else state_of(row).reference


def save_bench(
    session: Session, production_id: int, version: int, state: BenchState
) -> tuple[int, BenchState]:
    """Keep a Bench that was changed from a known version, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else kept one in between; carries both states.
    NotFoundError
        When there is no such production.
    """
    find_production(session, production_id)
    row = bench_row(session, production_id)
    stored = 0 if row is None else row.version

    def refusal() -> StaleWriteError:
        now = bench_row(session, production_id)
        stored, there = (0, None) if now is None else (now.version, state_of(now))
        return stale("The Bench was", version, state, stored, there, "state")

    with from_version(session, version, stored, refusal):
        if row is None:
            row = BenchRow(production_id=production_id)
            session.add(row)
        row.schema_name, row.schema_version = BENCH_SCHEMA.name, BENCH_SCHEMA.version
        row.state = state.model_dump(mode="json")
    return row.version, state


def save_settings(session: Session, production_id: int, version: int, settings: PackageSettings) -> int:
    """Keep a package's settings that were changed from a known version, commit, and give the new version.

    Raises
    ------
    StaleWriteError
        Somebody else changed the production in between; carries both.
    NotFoundError
        When there is no such production.
    """
    production = find_production(session, production_id)

    def refusal() -> StaleWriteError:
        now = find_production(session, production_id)
        return stale("The settings were", version, settings, now.version, settings_of(now), key="settings")

    with from_version(session, version, production.version, refusal):
        production.settings = settings.model_dump(mode="json")
    return production.version
