"""The endpoints of the page of the set and of the log: parse, call, answer."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path, Query, Request, Response

from hextan.api.errors import stale
from hextan.api.plumbing import Db, Id, ProductionId, answers, json_answer
from hextan.api.route import Route
from hextan.api.set_schemas import (
    HeldAsk,
    LogKept,
    LogWrite,
    SetSeen,
    SetSettingsKept,
    SetSettingsWrite,
)
from hextan.core.base import Fault, FocalMm, InvalidInputError, Key
from hextan.core.bench import BenchState
from hextan.core.record import checks_of, day_report, depth_curves, held_against, set_day
from hextan.store import log
from hextan.store.record import OfTheSet, of_the_set
from hextan.store.single import SET

router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
Day = Annotated[str | None, Query(max_length=120)]


def known(request: Request, db: Db, production_id: int) -> OfTheSet:
    """A production as the page of the set reads it."""
    return of_the_set(db, production_id, request.app.state.packages.package(db, production_id))


@router.get("/set", name="set_read", tags=["Set"], responses={200: {"model": SetSeen}})
def read_set(production_id: ProductionId, db: Db, request: Request, day: Day = None) -> Response:
    """Give a day: its shots by the plan, its takes, what is on each camera, its checklist. Without a day the first."""
    m = known(request, db, production_id)
    shown = set_day(m.package, m.settings, m.bench, m.shots, m.log, day)
    checks = checks_of(m.package, m.settings, shown["shots"], m.log, shown["day"], {})
    return json_answer({"day": shown, "checks": checks})


@router.get("/set/report", name="set_report", tags=["Set"], responses=answers(day_report))
def report(production_id: ProductionId, db: Db, request: Request, day: Day = None) -> Response:
    """Report on a day: what was shot, what differed, lens changes, cards and minutes."""
    m = known(request, db, production_id)
    return json_answer(day_report(m.package, m.settings, m.bench, m.shots, m.log, day))


@router.get("/set/depth", name="set_depth", tags=["Set"], responses=answers(depth_curves))
def depth(
    production_id: ProductionId,
    db: Db,
    request: Request,
    format_id: Annotated[Id, Query()],
    lens_id: Annotated[Id, Query()],
    adapter_id: Annotated[list[Id], Query(max_length=2)] = [],  # noqa: B006
    crop_id: Annotated[list[Id], Query(max_length=20)] = [],  # noqa: B006
    focal_mm: Annotated[FocalMm | None, Query()] = None,
) -> Response:
    """Give near and far of a lens on a format along the distance, for reading without a server."""
    m = known(request, db, production_id)
    lens_up = BenchState(
        format_id=format_id,
        lens_id=lens_id,
        adapter_id=adapter_id[0] if adapter_id else None,
        second_adapter_id=adapter_id[1] if len(adapter_id) > 1 else None,
        focal_mm=focal_mm,
        crop_ids=crop_id,
    )
    return json_answer(depth_curves(m.package, m.settings, m.bench, lens_up))


@router.post("/set/held", name="set_held", tags=["Set"], responses=answers(held_against))
def hold(production_id: ProductionId, asked: HeldAsk, db: Db, request: Request) -> Response:
    """Hold what is on a camera against the plan of a shot, without keeping it."""
    m = known(request, db, production_id)
    return json_answer(held_against(m.package, m.settings, m.bench, m.shot(asked.shot), asked.on))


@router.get("/set/settings", name="set_settings_read", tags=["Set"])
def read_settings(production_id: ProductionId, db: Db) -> SetSettingsKept:
    """Give the cameras that are listened to; version 0 and none when none were kept yet."""
    row = SET.find(db, production_id)
    return SetSettingsKept(version=0 if row is None else row.version, document=SET.document_of(row))


@router.put("/set/settings", name="set_settings_write", tags=["Set"], responses=stale(SetSettingsWrite))
def write_settings(production_id: ProductionId, asked: SetSettingsWrite, db: Db) -> SetSettingsKept:
    """Keep the cameras that are listened to; 409 with both when somebody else kept some in between."""
    row = SET.save(db, production_id, asked.version, asked.document)
    return SetSettingsKept(version=row.version, document=asked.document)


@router.put("/log/{key}", name="log_write", tags=["Set"], responses=stale(LogKept))
def write_entry(production_id: ProductionId, key: Annotated[Key, Path()], asked: LogWrite, db: Db) -> LogKept:
    """Write an entry under the key that was made for it: kept once however often it is sent.

    409 with both when somebody else changed it in between.
    """
    if asked.entry.key != key:
        raise InvalidInputError.of(Fault("entry.key", asked.entry.key, "must be the key of the address"))
    item = log.put(db, production_id, asked.entry, asked.based_on)
    return LogKept(revision=item.revision, entry=item.entry)


@router.get("/log/{key}", name="log_read", tags=["Set"])
def read_entry(production_id: ProductionId, key: Annotated[Key, Path()], db: Db) -> LogKept:
    """Give one entry of the log as it stands."""
    item = log.find(db, production_id, key)
    return LogKept(revision=item.revision, entry=item.entry)
