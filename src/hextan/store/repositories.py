"""Reading productions as the core's plain records: their equipment, settings and Bench."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from hextan.core.base import NotFoundError, NothingYetError, parse_rate
from hextan.core.bench import BenchState, mended
from hextan.core.documents import (
    RigDocument,
    adapter_of,
    body_of,
    filter_of,
    lens_set_of,
    mount_of,
    pair_notes_of,
)
from hextan.core.entry import plain_bodies, plain_lens_sets, plain_rig
from hextan.core.equipment import PackageSettings, f_of_t, house_facts
from hextan.core.equipment import package as core
from hextan.core.evaluation import BenchDelivery
from hextan.core.light import Light
from hextan.store.keeper import Kept
from hextan.store.kinds import BENCH, BODIES, LENS_SETS, PLAN, RIG, SETTINGS
from hextan.store.models import Production

#: What marks the demo, its shelf, and the shelf of everybody else.
DEMO_KEY, DEMO_SHELF, SHELF = "low-water", "low-water-catalogue", "catalogue"


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
        BODIES.add(session, shelf.id, body)
    for kit in plain_lens_sets():
        LENS_SETS.add(session, shelf.id, kit)
    RIG.put(session, shelf.id, plain_rig())


def load_package(session: Session, production_id: int) -> core.Package:
    """Load all equipment of a production as the core's records.

    Raises
    ------
    NotFoundError
        When there is no such production.
    """
    settings = SETTINGS.read(session, production_id)
    plan = PLAN.read(session, production_id)
    bodies = tuple(
        body_of(kept.document, kept.number_of, kept.id) for kept in BODIES.every(session, production_id)
    )
    return core.Package(
        bodies=bodies,
        lens_sets=tuple(
            lens_set_of(kept.document, kept.number_of, kept.id, f_of_t(settings))
            for kept in LENS_SETS.every(session, production_id)
        ),
        **_rig(RIG.find(session, production_id)),
        **house_facts(settings, bodies),
        plan=plan if plan.stands else None,
    )


def _rig(kept: Kept[RigDocument] | None) -> dict[str, Any]:
    document = RIG.empty() if kept is None else kept.document
    numbers = {} if kept is None else kept.numbers["adapters"]
    return {
        "mounts": tuple(mount_of(mount) for mount in document.mounts),
        "adapters": tuple(adapter_of(adapter, numbers[adapter.key]) for adapter in document.adapters),
        "filters": tuple(filter_of(each) for each in document.filters),
        "pair_notes": pair_notes_of(document),
    }


def settings_of(session: Session, production_id: int) -> PackageSettings:
    """A production's settings; as they begin where none were kept yet. Refuses what `find_production` refuses."""
    return SETTINGS.read(session, production_id)


def kept_bench(session: Session, production_id: int) -> BenchState | None:
    """What the Bench of a production is set to; None where nothing was kept yet."""
    kept = BENCH.find(session, production_id)
    return None if kept is None else kept.document


def read_bench(session: Session, production_id: int) -> tuple[int, BenchState]:
    """Read the Bench of a production; version 0 and a first setting when none was kept yet.

    Raises
    ------
    NotFoundError
        When there is no such production, or it has no equipment to put on a bench.
    """
    kept = BENCH.find(session, production_id)
    if kept is not None:
        return kept.version, kept.document
    package = load_package(session, production_id)
    if not package.formats or not package.lenses:
        raise NothingYetError
    settings = settings_of(session, production_id)
    state = BenchState(
        format_id=next(iter(package.formats)),
        lens_id=next(iter(package.lenses)),
        unit=settings.unit,
        light=_first_light(settings),
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
