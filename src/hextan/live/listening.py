"""Listening: datagrams that come to a port, and lines that are fetched from an address. A thread each, ended by `close`."""

from __future__ import annotations

import contextlib
import http.client
import ipaddress
import socket
import struct
import threading
import time
from collections.abc import Callable, Iterator

from hextan.core.base import HextanError
from hextan.core.record import Source
from hextan.formats.tracked import lines_of, payload_of, source_of
from hextan.live.camera import Camera

#: A stream that says nothing for so long is begun anew, seconds; between two tries at least and at most so many.
PATIENCE_S = 10.0
LEAST_WAIT_S, MOST_WAIT_S = 0.5, 10.0
#: How long a thread may go on after it was told to end.
_TICK_S = 0.25
#: After a line that came too fast nothing is read for so long: a flood costs no more than this allows.
_FLOODED_S = 0.004
_BYTES = 65_536
#: So many datagrams a second are looked at, whoever sends them; the system keeps so many bytes of those that wait.
MOST_DATAGRAMS, _BUFFER = 4000.0, 1 << 20


def is_loopback(host: str) -> bool:
    """Whether an address is this machine, or the standard's multicast group, which is joined on this machine alone.

    >>> is_loopback("127.0.0.1"), is_loopback("localhost"), is_loopback("239.135.1.4"), is_loopback("10.0.0.7")
    (True, True, True, False)
    """
    if host == "localhost":
        return True
    try:
        address = ipaddress.ip_address(host.strip("[]"))
    except ValueError:
        return False
    return address.is_loopback or (address.version == 4 and address in ipaddress.ip_network("239.135.1.0/24"))


class Listener(threading.Thread):
    """Brings what it hears to its cameras until it is closed."""

    def __init__(self, name: str, heard: Callable[[], None]) -> None:
        super().__init__(name=name, daemon=True)
        self._over = threading.Event()
        self._heard = heard

    def close(self) -> None:
        """End; the thread is gone a moment later."""
        self._over.set()


class Datagrams(Listener):
    """All cameras whose samples come to one port."""

    def __init__(self, host: str, port: int, cameras: list[Camera], heard: Callable[[], None]) -> None:
        super().__init__(f"udp {port}", heard)
        self.host, self.port, self.cameras = host, port, cameras
        self.problem = ""

    def _socket(self) -> socket.socket:
        opened = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        opened.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        opened.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, _BUFFER)
        host = "127.0.0.1" if self.host == "localhost" else self.host
        try:
            opened.bind((host, self.port))
            if ipaddress.ip_address(host).is_multicast:
                group = struct.pack("4s4s", socket.inet_aton(host), socket.inet_aton("127.0.0.1"))
                opened.setsockopt(socket.IPPROTO_IP, socket.IP_ADD_MEMBERSHIP, group)
        except OSError:
            opened.close()
            raise
        opened.settimeout(_TICK_S)
        return opened

    def run(self) -> None:
        """Receive until closed; what goes wrong is told at the cameras, and tried again."""
        for camera in self._unknown()[1:]:
            camera.complain(f"Another camera on port {self.port} has no key either: give each its own.")
        while not self._over.is_set():
            try:
                with self._socket() as opened:
                    self._receive(opened)
            except Exception as error:
                self._tell(f"Port {self.port} cannot be listened to: {_words(error)}.")
                self._over.wait(LEAST_WAIT_S * 4)

    def _unknown(self) -> list[Camera]:
        """Cameras without a key: theirs is what has none of the others' keys."""
        return [camera for camera in self.cameras if not camera.source.secret]

    def _tell(self, problem: str) -> None:
        for camera in self.cameras:
            camera.complain(problem)
        self._heard()

    def _receive(self, opened: socket.socket) -> None:
        allowed, filled = MOST_DATAGRAMS, time.monotonic()
        while not self._over.is_set():
            try:
                datagram = opened.recv(_BYTES)
            except TimeoutError:
                continue
            now = time.monotonic()
            allowed = min(allowed + (now - filled) * MOST_DATAGRAMS, MOST_DATAGRAMS) - 1
            filled = now
            if allowed < 0:
                time.sleep(_FLOODED_S)
            if self._bring(datagram):
                self._heard()

    def _bring(self, datagram: bytes) -> bool:
        """Bring a datagram to the camera whose key it has; what it costs is that one's alone."""
        try:
            data = payload_of(datagram)
        except HextanError as error:
            self._tell(error.message)
            return False
        source = source_of(data)
        keyless = self._unknown()[:1]
        if source is None:
            # No sample at all: whoever is listened to without a key says why.
            meant = keyless or self.cameras[:1]
        else:
            named = [c for c in self.cameras if c.source.secret and c.source.secret == source]
            meant = named or keyless
            for camera in self.cameras:
                if camera not in meant:
                    # A name that is nobody's may be this one's.
                    camera.pass_by("" if named else source)
        counted = [camera.accept(data) for camera in meant]
        return any(counted)


def _words(error: Exception) -> str:
    return getattr(error, "strerror", None) or str(error) or type(error).__name__


class Lines(Listener):
    """One camera that serves its samples as lines."""

    def __init__(self, camera: Camera, heard: Callable[[], None]) -> None:
        super().__init__(f"http {camera.source.host}:{camera.source.port}", heard)
        self.camera = camera

    def run(self) -> None:
        """Fetch until closed; where the line breaks, it is begun anew, more and more slowly."""
        wait = LEAST_WAIT_S
        while not self._over.is_set():
            source = self.camera.source
            connection = http.client.HTTPConnection(source.host.strip("[]"), source.port, timeout=PATIENCE_S)
            try:
                before = self.camera.standing().samples
                self._fetch(connection)
                if self.camera.standing().samples > before:
                    wait = LEAST_WAIT_S
            except (OSError, http.client.HTTPException) as error:
                self.camera.complain(f"{source.host}:{source.port} does not answer: {_words(error)}.")
            except Exception as error:
                self.camera.complain(f"{source.host}:{source.port} cannot be asked: {_words(error)}.")
            finally:
                connection.close()
            self._heard()
            self._over.wait(wait)
            wait = min(wait * 2, MOST_WAIT_S)

    def _fetch(self, connection: http.client.HTTPConnection) -> None:
        secret = self.camera.source.secret
        connection.request(
            "GET", self.camera.source.path, headers={"Authorization": f"Bearer {secret}"} if secret else {}
        )
        answer = connection.getresponse()
        if answer.status != 200:
            why = "its word is another" if answer.status in (401, 403) else f"it answers {answer.status}"
            self.camera.complain(f"The camera gives no samples: {why}.")
            return
        for line in lines_of(self._chunks(answer)):
            if self.camera.accept(line):
                self._heard()
            elif not self._over.is_set():
                time.sleep(_FLOODED_S)
            if self._over.is_set():
                return

    def _chunks(self, answer: http.client.HTTPResponse) -> Iterator[bytes]:
        with contextlib.suppress(TimeoutError):
            while not self._over.is_set():
                chunk = answer.read1(_BYTES)
                if not chunk:
                    return
                yield chunk


def listeners_of(cameras: list[Camera], heard: Callable[[], None]) -> list[Listener]:
    """What has to listen for some cameras: one for each port, one for each address."""
    ports: dict[tuple[str, int], list[Camera]] = {}
    found: list[Listener] = []
    for camera in cameras:
        source: Source = camera.source
        if source.way == "udp":
            ports.setdefault((source.host, source.port), []).append(camera)
        else:
            found.append(Lines(camera, heard))
    return [*found, *(Datagrams(host, port, those, heard) for (host, port), those in ports.items())]
