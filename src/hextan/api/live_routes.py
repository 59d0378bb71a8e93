"""The endpoints of cameras that are listened to: how each stands against the plan, and whatever it says as it says it."""

from __future__ import annotations

import asyncio
import contextlib
import time
from collections.abc import AsyncIterable
from datetime import datetime
from typing import Annotated, Any

import orjson
from fastapi import APIRouter, Path, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.sse import EventSourceResponse, ServerSentEvent
from sqlalchemy.orm import Session

from hextan.api.plumbing import Db, ProductionId, json_answer
from hextan.api.route import Route
from hextan.api.set_schemas import LiveSeen
from hextan.core.base import Key, NotFoundError
from hextan.core.record import (
    OnCamera,
    cameras_now,
    kept_match,
    live_held,
    on_camera,
    planned_of,
    said_against,
)
from hextan.core.shots import Shot
from hextan.live.camera import Camera, Standing
from hextan.live.cameras import ENDING, Cameras
from hextan.store import log
from hextan.store.material import changed_at
from hextan.store.record import OfTheSet, of_the_set

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/live")
Unit = Annotated[str, Path(min_length=1, max_length=20)]
ShotKey = Annotated[Key | None, Query()]
#: Between two events at least so many seconds pass; without any news the page is told that it goes on after so many.
LEAST_S, MOST_S = 0.12, 1.5
SEEN: dict[int | str, dict[str, Any]] = {200: {"model": LiveSeen}}
EVENTS: dict[int | str, dict[str, Any]] = {
    200: {
        "content": {"text/event-stream": {}},
        "description": "Events `state` (as of the address without `events`) and `focus`.",
    }
}


class Known:
    """What cameras are held against, read anew when the production changed."""

    def __init__(self) -> None:
        self._kept: dict[int, tuple[datetime | None, OfTheSet]] = {}
        #: Entries of the log that were read: of a long one only those are read again that changed.
        self._logs: dict[int, log.Read] = {}

    def of(self, session: Session, production_id: int, packages: Any) -> OfTheSet:
        """A production as the page of the set reads it."""
        changed = changed_at(session, production_id)
        kept = self._kept.get(production_id)
        if kept is None or kept[0] != changed or changed is None:
            package = packages.package(session, production_id)
            read = dict(self._logs.get(production_id, {}))
            kept = (changed, of_the_set(session, production_id, package, read))
            self._kept[production_id], self._logs[production_id] = kept, read
            if len(self._kept) > 32:
                oldest = next(iter(self._kept))
                self._kept.pop(oldest)
                self._logs.pop(oldest, None)
        return kept[1]


@router.get("/{unit}", name="live_read", tags=["Set"], responses=SEEN)
def read(production_id: ProductionId, unit: Unit, db: Db, request: Request, shot: ShotKey = None) -> Response:
    """Tell how a camera stands against the plan of a shot; `speaks` is false where nobody listens, or it is silent."""
    app = request.app
    m = app.state.known.of(db, production_id, app.state.packages)
    return json_answer(seen_of(m, app.state.cameras.of(production_id), unit, shot))


@router.get(
    "/{unit}/events", name="live_events", tags=["Set"], response_class=EventSourceResponse, responses=EVENTS
)
async def events(
    production_id: ProductionId, unit: Unit, request: Request, shot: ShotKey = None
) -> AsyncIterable[ServerSentEvent]:
    """Tell whatever a camera says as it says it, held against the plan of a shot. Without news it says every second or two that it goes on."""
    state = request.app.state
    cameras: Cameras = state.cameras

    def look() -> bytes:
        with Session(state.engine) as session:
            m = state.known.of(session, production_id, state.packages)
        # A shot that was removed while somebody looks at it has no plan any more; the camera speaks on.
        there = shot if m.shot(shot) is not None else None
        return orjson.dumps(seen_of(m, cameras.of(production_id), unit, there), default=_plain)

    with cameras.watch(production_id) as woken:
        told: tuple[Any, ...] | None = None
        looked = 0.0
        while not ENDING.is_set():
            woken.clear()
            here = cameras.of(production_id)
            mine = here.get(unit)
            now = _news(here)
            at = time.monotonic()
            if now != told or at - looked >= MOST_S:
                told, looked = now, at
                yield ServerSentEvent(event="state", raw_data=(await run_in_threadpool(look)).decode())
            elif mine is not None:
                heard = mine.standing().heard
                if heard is not None and heard.focus_m is not None:
                    yield ServerSentEvent(event="focus", raw_data=f"{heard.focus_m:.5g}")
            await asyncio.sleep(LEAST_S)
            with contextlib.suppress(TimeoutError):
                await asyncio.wait_for(woken.wait(), MOST_S)


def _news(here: dict[str, Camera]) -> tuple[Any, ...]:
    """What is another one when a page has to be told more than where the focus is."""
    standings = [(unit, camera, camera.standing()) for unit, camera in here.items()]
    return tuple(
        (
            unit,
            id(camera),
            camera.facts_version,
            s.speaks,
            s.refused > 0,
            s.dropped > 0,
            s.problem,
            s.clock_off_s is None,
        )
        for unit, camera, s in standings
    )


def seen_of(m: OfTheSet, here: dict[str, Camera], unit: str, shot_key: str | None) -> dict[str, Any]:
    """How a camera stands: what it says against the plan, since when, and the stop that keeps it matched to another.

    Raises
    ------
    NotFoundError
        For a shot that is not there any more.
    """
    shot = m.shot(shot_key)
    if shot_key is not None and shot is None:
        raise NotFoundError("This shot is not in the list any more.")
    camera = here.get(unit)
    standing = None if camera is None else camera.standing()
    found: dict[str, Any] = {
        "unit": unit,
        "listened": camera is not None,
        "body": "" if camera is None else camera.source.body,
        "speaks": standing is not None and standing.speaks,
        "silent_s": None if standing is None or standing.silent_s is None else round(standing.silent_s, 1),
        "samples": 0 if standing is None else standing.samples,
        "told": "" if standing is None else trouble_of(standing),
        "names": [] if standing is None or standing.samples else list(standing.names),
        "on": None,
        "notes": [],
        "held": None,
        "since": {},
        "recording": None,
        "focus_m": None,
        "said": None,
        "match": None,
        "others": [],
    }
    last = {each["unit"]: each["on"] for each in cameras_now(m.log)}
    if camera is not None and standing is not None and standing.heard is not None and standing.speaks:
        heard = standing.heard
        live = live_held(m.package, m.settings, shot, camera.source.body, heard, last.get(unit))
        found |= live | {"since": _since(standing), "recording": heard.recording, "focus_m": heard.focus_m}
        found["said"] = camera.said(_last_take(m, unit))
    for other, its in here.items():
        if other == unit:
            continue
        stands = its.standing()
        found["others"].append({"unit": other, "body": its.source.body, "speaks": stands.speaks})
        mine: OnCamera | None = found["on"] or last.get(unit)
        # Of several that speak the first is the one to match.
        if mine is None or not stands.speaks or found["match"] is not None:
            continue
        on = _on_of(m, its, stands, last.get(other))
        if on is not None:
            found["match"] = kept_match(m.package, m.settings, (other, on, None), (unit, mine, shot))
    return found


def _last_take(m: OfTheSet, unit: str) -> datetime | None:
    """When the last take of a camera was logged: what it said since belongs to the next."""
    takes = [
        item.entry.at
        for item in m.log.items
        if item.entry.kind == "take" and item.entry.unit == unit and not item.entry.removed
    ]
    return datetime.fromisoformat(max(takes).replace("Z", "+00:00")) if takes else None


def _on_of(m: OfTheSet, camera: Camera, standing: Standing, last: OnCamera | None) -> OnCamera | None:
    """What is on another camera, without holding it against anything."""
    if standing.heard is None:
        return None
    return on_camera(m.package, camera.source.body, standing.heard, None, last)[0]


def said_of_bodies(m: OfTheSet, here: dict[str, Camera], shot_of: dict[str, Shot]) -> dict[str, list[str]]:
    """By body: what its cameras say otherwise than planned, each line with the code of the difference first.

    Parameters
    ----------
    shot_of : the shot that each camera is on, by its letter
    """
    last = {each["unit"]: each["on"] for each in cameras_now(m.log)}
    found: dict[str, list[str]] = {}
    for unit, camera in here.items():
        standing = camera.standing()
        if standing.heard is None or not standing.speaks or unit not in shot_of:
            continue
        live = live_held(
            m.package, m.settings, shot_of[unit], camera.source.body, standing.heard, last.get(unit)
        )
        lines = said_against(live, planned_of(m.package, m.settings, shot_of[unit])["on"])
        if standing.clock_off_s is not None:
            lines.append(f"clock: {_clock_words(standing.clock_off_s)}")
        found.setdefault(camera.source.body, []).extend(lines)
    return found


#: Which fact a difference is of, for since when it stands.
_OF = {"mode": ("read_mm", "mode", "raster"), "format": ("raster", "read_mm", "mode"), "crop": ("read_mm",), "rate": ("fps",), "ei": ("ei",),
       "shutter": ("shutter_deg",), "stop": ("t_stop", "f_number"), "lens": ("lens", "focal_mm"), "focal": ("focal_mm",)}  # fmt: skip


def _since(standing: Standing) -> dict[str, str]:
    """Since when each kind of difference stands: the last that changed of the facts it is made of."""
    return {code: max(standing.since.get(fact, "") for fact in facts) for code, facts in _OF.items()}


def trouble_of(standing: Standing) -> str:
    """What is wrong with what a camera says, in words; empty where nothing is."""
    told = []
    if standing.silent_s is None:
        told.append("It has not said a word yet.")
    elif not standing.speaks:
        told.append(f"No word for {standing.silent_s:.0f} s.")
    if standing.clock_off_s is not None:
        told.append(f"Its clock is {_clock_words(standing.clock_off_s)}: set it, or clips are hard to find.")
    if standing.dropped:
        told.append(f"{standing.dropped} samples came too fast and were passed over.")
    if standing.refused:
        told.append(f"{standing.refused} samples could not be read: {standing.problem}")
    elif standing.problem:
        told.append(standing.problem)
    if standing.foreign and not standing.samples:
        names = ", ".join(standing.names) or "no name"
        told.append(f"{standing.foreign} samples came from a camera that goes by {names}: is it this one?")
    return " ".join(told)


def _clock_words(off_s: float) -> str:
    """How far off a clock is."""
    off = abs(off_s)
    size = f"{off:.0f} s" if off < 120 else f"{off / 60:.0f} min" if off < 7200 else f"{off / 3600:.1f} h"
    return f"{size} {'ahead' if off_s > 0 else 'behind'}"


def _plain(value: object) -> object:
    dump = getattr(value, "model_dump", None)
    if dump is None:
        raise TypeError(f"{type(value).__name__} cannot be sent")
    return dump(mode="json")
