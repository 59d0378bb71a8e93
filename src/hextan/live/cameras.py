"""All cameras that a server listens to, by production; and who waits for what they say."""

from __future__ import annotations

import asyncio
import contextlib
import threading
from typing import Any

from hextan.core.record import Source
from hextan.live.camera import Camera
from hextan.live.listening import Listener, listeners_of

#: Set when the server is told to end: streams that are open end then, so that nobody waits for them.
ENDING = threading.Event()


class Cameras:
    """What is listened to. Off until a production's settings say otherwise."""

    def __init__(self) -> None:
        self._lock = threading.RLock()
        self._cameras: dict[int, dict[str, Camera]] = {}
        self._listeners: dict[int, list[Listener]] = {}
        #: Who waits: a loop and an event each, by production.
        self._waiting: dict[int, set[tuple[asyncio.AbstractEventLoop, asyncio.Event]]] = {}

    def listen(self, production_id: int, sources: list[Source]) -> None:
        """Listen to the sources of a production that are on, and to no others. What goes on unchanged is not interrupted."""
        wanted = [source for source in sources if source.on]
        with self._lock:
            if [camera.source for camera in self._cameras.get(production_id, {}).values()] == wanted:
                return
            for listener in self._listeners.pop(production_id, []):
                listener.close()
            before = self._cameras.pop(production_id, {})
            if wanted:
                cameras = [_same(before.get(source.unit), source) for source in wanted]
                self._cameras[production_id] = {camera.source.unit: camera for camera in cameras}
                listeners = listeners_of(cameras, lambda: self._wake(production_id))
                self._listeners[production_id] = listeners
                for listener in listeners:
                    listener.start()
        self._wake(production_id)

    def of(self, production_id: int) -> dict[str, Camera]:
        """A production's cameras that are listened to, by their letters."""
        with self._lock:
            return dict(self._cameras.get(production_id, {}))

    def close(self) -> None:
        """Listen to nobody any more."""
        with self._lock:
            for listeners in self._listeners.values():
                for listener in listeners:
                    listener.close()
            self._listeners.clear()

    @contextlib.contextmanager
    def watch(self, production_id: int) -> Any:
        """Within this, the event that is given is set whenever a camera of the production says anything."""
        waiting = (asyncio.get_running_loop(), asyncio.Event())
        with self._lock:
            self._waiting.setdefault(production_id, set()).add(waiting)
        try:
            yield waiting[1]
        finally:
            with self._lock:
                self._waiting[production_id].discard(waiting)

    def _wake(self, production_id: int) -> None:
        with self._lock:
            waiting = list(self._waiting.get(production_id, ()))
        for loop, event in waiting:
            # A loop that ended in between has nobody to wake.
            with contextlib.suppress(RuntimeError):
                loop.call_soon_threadsafe(event.set)


def _same(before: Camera | None, source: Source) -> Camera:
    """A camera that is listened to otherwise begins anew; one that stays goes on."""
    return before if before is not None and before.source == source else Camera(source)
