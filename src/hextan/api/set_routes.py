"""The endpoints of the page of the set and of the log: parse, call, answer."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Body, Path, Query, Request, Response

from hextan.api.errors import stale
from hextan.api.live_routes import said_of_bodies
from hextan.api.plumbing import Db, Id, ProductionId, answers, json_answer, no_longer_needed
from hextan.api.route import Route
from hextan.api.set_schemas import (
    ClipsAsk,
    ClipsListed,
    ClipsRead,
    HeldAsk,
    LogKept,
    LogWrite,
    SetSeen,
    SetSettingsKept,
    SetSettingsWrite,
)
from hextan.core.base import Fault, FocalMm, InvalidInputError, Key
from hextan.core.bench import BenchState
from hextan.core.evaluation import BenchDelivery
from hextan.core.record import (
    Clip,
    cameras_now,
    checks_of,
    clip_key,
    day_report,
    depth_curves,
    format_curves,
    held_against,
    set_day,
)
from hextan.core.shots import Shot
from hextan.live.camera import Camera
from hextan.live.listening import is_loopback
from hextan.media.heads import HEAD, merged, of_bytes
from hextan.store import log
from hextan.store.keeper import find_production
from hextan.store.kinds import SET
from hextan.store.record import OfTheSet

Aspect = Annotated[float | None, Query(ge=0.1, le=10)]
LongEdge = Annotated[int | None, Query(ge=16, le=100_000)]
router = APIRouter(route_class=Route, prefix="/productions/{production_id}")
FileBytes = Annotated[bytes, Body(media_type="application/octet-stream")]
Day = Annotated[str | None, Query(max_length=120)]


def known(request: Request, db: Db, production_id: int) -> OfTheSet:
    """A production as the page of the set reads it."""
    found: OfTheSet = request.app.state.known.of(db, production_id, request.app.state.packages)
    return found


@router.get("/set", name="set_read", tags=["Set"], responses={200: {"model": SetSeen}})
def read_set(production_id: ProductionId, db: Db, request: Request, day: Day = None) -> Response:
    """Give a day: its shots by the plan, its takes, what is on each camera, its checklist. Without a day the first."""
    m = known(request, db, production_id)
    shown = set_day(m.package, m.settings, m.shots, m.log, day, m.serials)
    said = _said(m, request.app.state.cameras.of(production_id), shown["day"])
    checks = checks_of(m.package, m.settings, shown["shots"], m.log, shown["day"], said)
    return json_answer({"day": shown, "checks": checks})


def _said(m: OfTheSet, cameras: dict[str, Camera], day: str) -> dict[str, list[str]]:
    """What cameras say against the plan of the shot that each was on last, or else of its first of the day."""
    shots: dict[str, Shot] = {}
    for shot in m.shots.shots:
        if shot.day.strip() == day:
            shots.setdefault(shot.unit.strip(), shot)
    for each in cameras_now(m.log):
        last = m.shot(each["shot"])
        if last is not None and last.day.strip() == day:
            shots[each["unit"]] = last
    return said_of_bodies(m, cameras, shots)


@router.get("/set/report", name="set_report", tags=["Set"], responses=answers(day_report))
def report(production_id: ProductionId, db: Db, request: Request, day: Day = None) -> Response:
    """Report on a day: what was shot, what differed, lens changes, cards and minutes."""
    m = known(request, db, production_id)
    return json_answer(day_report(m.package, m.settings, m.shots, m.log, day))


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
    aspect: Aspect = None,
    long_edge_px: LongEdge = None,
) -> Response:
    """Give near and far of a lens on a format along the distance, for reading without a server.

    What counts as sharp is the production's rule on the picture that the shot delivers: `aspect` and `long_edge_px` as its
    plan has them in `picture`.
    """
    m = known(request, db, production_id)
    lens_up = BenchState(
        format_id=format_id,
        lens_id=lens_id,
        adapter_id=adapter_id[0] if adapter_id else None,
        second_adapter_id=adapter_id[1] if len(adapter_id) > 1 else None,
        focal_mm=focal_mm,
        crop_ids=crop_id,
    )
    picture = BenchDelivery(aspect=aspect, long_edge_px=long_edge_px)
    return json_answer(depth_curves(m.package, picture, lens_up))


@router.get("/set/depths", name="set_depths", tags=["Set"], responses=answers(format_curves))
def depths(
    production_id: ProductionId,
    db: Db,
    request: Request,
    format_id: Annotated[Id, Query()],
    crop_id: Annotated[list[Id], Query(max_length=20)] = [],  # noqa: B006
    aspect: Aspect = None,
    long_edge_px: LongEdge = None,
) -> Response:
    """Give near and far of every lens that goes on a format's body, as `set_depth` gives those of one."""
    m = known(request, db, production_id)
    picture = BenchDelivery(aspect=aspect, long_edge_px=long_edge_px)
    return json_answer(format_curves(m.package, picture, format_id, crop_id))


@router.post("/set/held", name="set_held", tags=["Set"], responses=answers(held_against))
def hold(production_id: ProductionId, asked: HeldAsk, db: Db, request: Request) -> Response:
    """Hold what is on a camera against the plan of a shot, without keeping it."""
    m = known(request, db, production_id)
    return json_answer(held_against(m.package, m.settings, m.shot(asked.shot), asked.on))


@router.get("/set/settings", name="set_settings_read", tags=["Set"])
def read_settings(production_id: ProductionId, db: Db) -> SetSettingsKept:
    """Give the cameras that are listened to; version 0 and none when none were kept yet."""
    version, document = SET.versioned(db, production_id)
    return SetSettingsKept(version=version, document=document)


@router.put("/set/settings", name="set_settings_write", tags=["Set"], responses=stale(SetSettingsWrite))
def write_settings(
    production_id: ProductionId, asked: SetSettingsWrite, db: Db, request: Request
) -> SetSettingsKept:
    """Keep the cameras that are listened to; 409 with both when somebody else kept some in between."""
    allowed = request.app.state.camera_hosts
    faults = [
        Fault(f"document.sources[{i}].host", source.host, "is another machine: Hextan listens on this one (127.0.0.1, or 239.135.1.x), "
              "and to what HEXTAN_CAMERA_HOSTS names")
        for i, source in enumerate(asked.document.sources)
        if not is_loopback(source.host) and source.host not in allowed
    ]  # fmt: skip
    faults += [
        Fault(f"document.sources[{i}].secret", source.secret, "may have letters from A to Z, figures and signs of ASCII in one line: no "
              "camera's address carries others")
        for i, source in enumerate(asked.document.sources)
        if not (source.secret.isascii() and source.secret.isprintable())
    ]  # fmt: skip
    if faults:
        raise InvalidInputError.of(*faults)
    version = SET.save(db, production_id, asked.version, asked.document)
    request.app.state.cameras.listen(production_id, asked.document.sources)
    return SetSettingsKept(version=version, document=asked.document)


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


@router.post("/clips/head", name="clip_read", tags=["Set"])
def read_head(
    production_id: ProductionId,
    db: Db,
    data: FileBytes,
    name: Annotated[str, Query(min_length=1, max_length=255)],
    size: Annotated[int, Query(ge=0, le=2**53)],
    head: Annotated[int, Query(ge=0, le=HEAD)],
    offset_min: Annotated[int, Query(ge=-840, le=840)] = 0,
) -> ClipsRead:
    """Read the head of a clip or a still, or a table of them: what is sent are the file's first bytes and its last.

    Nothing of it is kept. `head` says how many of the bytes are from the beginning; the others are the file's last.
    """
    find_production(db, production_id)
    no_longer_needed(db)
    if head > len(data):
        raise InvalidInputError.of(Fault("head", head, f"is more than the {len(data)} bytes that were sent"))
    return ClipsRead(facts=of_bytes(name, data[:head], data[head:], size, offset_min))


@router.post("/log/clips", name="clips_list", tags=["Set"])
def list_clips(production_id: ProductionId, asked: ClipsAsk, db: Db) -> ClipsListed:
    """List clips with a day of the log, by their facts; what is listed already stays as it is."""
    now = f"{datetime.now(UTC):%Y-%m-%dT%H:%M:%SZ}"
    entries = [
        Clip(key=clip_key(facts, asked.unit), at=facts.at or now, offset_min=asked.offset_min, by=asked.by, written_at=now,
             unit=asked.unit, day=asked.day, facts=facts)
        for facts in merged(asked.facts)
    ]  # fmt: skip
    added = log.put_new(db, production_id, entries)
    return ClipsListed(added=added, there=len(entries) - added)
