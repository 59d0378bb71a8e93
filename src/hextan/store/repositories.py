"""Reading and writing productions: rows on one side, the core's plain records on the other."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload
from sqlalchemy.orm.exc import StaleDataError

from hextan.core import bench_state as states
from hextan.core import package as core
from hextan.core.bench_state import BenchState, parse_state
from hextan.core.errors import NotFoundError, StaleWriteError
from hextan.store.models import Adapter, BenchRow, Body, InCameraCrop, Lens, LensSet, Production, ScanMode


def list_productions(session: Session) -> list[Production]:
    """List all productions by name."""
    return list(session.scalars(select(Production).order_by(Production.name, Production.id)))


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
            selectinload(Production.bodies).selectinload(Body.modes).selectinload(ScanMode.formats),
            selectinload(Production.bodies).selectinload(Body.crops).selectinload(InCameraCrop.in_modes),
            selectinload(Production.lens_sets).selectinload(LensSet.lenses),
            selectinload(Production.adapters),
        )
    )
    production = session.scalars(query).one_or_none() or find_production(session, production_id)
    return core.Package(
        bodies=tuple(_body(row) for row in production.bodies),
        lens_sets=tuple(
            core.LensSet(row.id, row.maker, row.name, tuple(_lens(lens) for lens in row.lenses))
            for row in production.lens_sets
        ),
        adapters=tuple(_adapter(row) for row in production.adapters),
    )


def _body(row: Body) -> core.Body:
    return core.Body(
        id=row.id,
        maker=row.maker,
        name=row.name,
        mount=row.mount,
        photosites=(row.photosites_w, row.photosites_h),
        pitch_um=row.pitch_um,
        modes=tuple(_mode(mode) for mode in row.modes),
        crops=tuple(
            core.InCameraCrop(crop.id, crop.name, {rule.scan_mode_id: rule.factor for rule in crop.in_modes})
            for crop in row.crops
        ),
    )


def _mode(row: ScanMode) -> core.ScanMode:
    return core.ScanMode(
        id=row.id,
        name=row.name,
        window=(row.window_w, row.window_h),
        offset=(row.offset_x, row.offset_y),
        sampling=(row.sampling_h, row.sampling_v),
        method=row.method,
        row_time_us=row.row_time_us,
        overhead_us=row.overhead_us,
        max_fps=row.max_fps,
        formats=tuple(
            core.RecordingFormat(
                id=f.id,
                name=f.name,
                raster=(f.raster_w, f.raster_h),
                map=f.mapping,
                codec=f.codec,
                bits=f.bits,
                raw=f.raw,
                interlaced=f.interlaced,
                rates=tuple(Fraction(rate) for rate in f.rates),
                highest_fps=f.highest_fps,
            )
            for f in row.formats
        ),
    )


#: Columns of the table that the core's record takes over under the same name.
_LENS_FIELDS = (
    "id", "name", "focal_min_mm", "focal_max_mm", "f_number", "t_stop", "f_number_long", "t_stop_long",
    "image_circle_mm", "squeeze", "close_focus_m", "mount", "projection", "pupil_magnification",
)  # fmt: skip


def _lens(row: Lens) -> core.Lens:
    return core.Lens(**{name: getattr(row, name) for name in _LENS_FIELDS})


def _adapter(row: Adapter) -> core.MountAdapter:
    return core.MountAdapter(row.id, row.name, row.magnification, row.lens_mount, row.body_mount)


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


def _stale(version: int, state: BenchState, stored_version: int, row: BenchRow | None) -> StaleWriteError:
    stored: Any = None if row is None else row.state
    return StaleWriteError(
        f"The Bench was changed elsewhere: this change is based on version {version}, and version "
        f"{stored_version} is kept. Take the kept one or write yours over it.",
        given={"version": version, "state": state.model_dump(mode="json")},
        stored={"version": stored_version, "state": stored},
    )
