"""Reading and writing productions: rows on one side, the core's plain records on the other."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload
from sqlalchemy.orm.exc import StaleDataError

from hextan.core import bench_state as states
from hextan.core import package as core
from hextan.core.bench_state import BenchReference, BenchState, parse_state
from hextan.core.body_document import body_of
from hextan.core.errors import NotFoundError, StaleWriteError
from hextan.core.lens_document import lens_set_of
from hextan.core.package_settings import PackageSettings, parse_settings
from hextan.core.rig_document import adapter_of, filter_of, mount_of
from hextan.store import bodies, lens_sets, rigs
from hextan.store.models import BenchRow, Body, LensSet, Production, Rig


def list_productions(session: Session) -> list[Production]:
    """List all productions by name, without the catalogue."""
    query = select(Production).where(Production.kind == "production")
    return list(session.scalars(query.order_by(Production.name, Production.id)))


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


def catalogue_of(session: Session) -> Production:
    """Give the catalogue, made when there is none yet; commits only what it makes."""
    query = select(Production).where(Production.kind == "catalogue").order_by(Production.id)
    found = session.scalars(query).first()
    if found is None:
        found = Production(kind="catalogue", name="Catalogue", demo_key="catalogue")
        session.add(found)
        try:
            session.commit()
        except IntegrityError:
            # Somebody else made it at the same moment.
            session.rollback()
            found = session.scalars(query).one()
    return found


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
    return core.Package(
        bodies=tuple(_body(row) for row in production.bodies if not row.removed),
        lens_sets=tuple(_lens_set(row) for row in production.lens_sets if not row.removed),
        **_rig(production.rig),
        coc=parse_settings(production.settings).coc,
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
    }


def _bench_row(session: Session, production_id: int) -> BenchRow | None:
    return session.scalars(select(BenchRow).where(BenchRow.production_id == production_id)).one_or_none()


def read_bench(session: Session, production_id: int) -> tuple[int, BenchState]:
    """Read the Bench of a production; version 0 and a first setting when none was kept yet.

    Raises
    ------
    NotFoundError
        When there is no such production, or it has no equipment to put on a bench.
    """
    row = _bench_row(session, production_id)
    if row is not None:
        return row.version, parse_state(row.state)
    package = load_package(session, production_id)
    if not package.formats or not package.lenses:
        raise NotFoundError(
            "This production has no recording format or no lens yet: enter a body and a lens first."
        )
    return 0, BenchState(format_id=next(iter(package.formats)), lens_id=next(iter(package.lenses)))


def reference_of(session: Session, production_id: int) -> BenchReference:
    """What crops are told against in a production: as its kept Bench has it."""
    row = _bench_row(session, production_id)
    return BenchReference() if row is None else parse_state(row.state).reference


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
    row = _bench_row(session, production_id)
    stored_version = 0 if row is None else row.version
    if stored_version != version:
        raise _stale(version, state, stored_version, row)
    if row is None:
        row = BenchRow(production_id=production_id)
        session.add(row)
    row.schema_name, row.schema_version = states.SCHEMA, states.SCHEMA_VERSION
    row.state = state.model_dump(mode="json")
    try:
        session.commit()
    except (StaleDataError, IntegrityError):
        session.rollback()
        row = _bench_row(session, production_id)
        raise _stale(version, state, 0 if row is None else row.version, row) from None
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
    plain = settings.model_dump(mode="json")
    try:
        if production.version != version:
            raise StaleDataError
        production.settings = plain
        session.commit()
    except StaleDataError:
        session.rollback()
        production = find_production(session, production_id)
        raise StaleWriteError(
            f"The settings were changed elsewhere: this change is based on version {version}, and version "
            f"{production.version} is saved. Take the saved ones or write yours over them.",
            given={"version": version, "settings": plain},
            stored={"version": production.version, "settings": production.settings},
        ) from None
    return production.version


def _stale(version: int, state: BenchState, stored_version: int, row: BenchRow | None) -> StaleWriteError:
    stored: Any = None if row is None else row.state
    return StaleWriteError(
        f"The Bench was changed elsewhere: this change is based on version {version}, and version "
        f"{stored_version} is saved. Take the saved one or write yours over it.",
        given={"version": version, "state": state.model_dump(mode="json")},
        stored={"version": stored_version, "state": stored},
    )
