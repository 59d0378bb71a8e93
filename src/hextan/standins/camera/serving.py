"""How simulated cameras are heard: samples as datagrams, samples as lines over HTTP, a page of their own, and scripts."""

from __future__ import annotations

import contextlib
import json
import socket
import threading
import time
from dataclasses import dataclass
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib.resources import files
from typing import Any

from hextan.core.base import HextanError
from hextan.formats.tracked import datagram_of
from hextan.standins.camera.simulated import SimulatedCamera

#: A flood is so many samples a second.
FLOOD_A_SECOND = 20_000.0
_MOST_COMMAND = 64_000
HOST = "127.0.0.1"


class Sender(threading.Thread):
    """Sends a camera's samples to a port."""

    def __init__(self, camera: SimulatedCamera, port: int, host: str = HOST) -> None:
        super().__init__(name=f"sender {camera.unit}", daemon=True)
        self.camera, self.port, self.host = camera, port, host
        self._over = threading.Event()

    def close(self) -> None:
        """Send no more."""
        self._over.set()
        self.join(timeout=2)

    def run(self) -> None:
        """Send until closed."""
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out:
            out.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_IF, socket.inet_aton(HOST))
            out.setsockopt(socket.IPPROTO_IP, socket.IP_MULTICAST_TTL, 0)
            sequence = 0
            due = time.monotonic()
            while not self._over.is_set():
                data = self.camera.data()
                if data is not None:
                    sequence += 1
                    with contextlib.suppress(OSError):
                        out.sendto(datagram_of(data, sequence), (self.host, self.port))
                due += 1 / (FLOOD_A_SECOND if self.camera.misbehaves == "flood" else self.camera.rate)
                wait = due - time.monotonic()
                if wait > 0:
                    self._over.wait(wait)
                elif wait < -1:
                    due = time.monotonic()


@dataclass
class Cameras:
    """Several cameras, each with a sender or without, behind one small page."""

    cameras: dict[str, SimulatedCamera]
    #: The word that whoever asks for lines has to say.
    secret: str = ""

    def serve(self, port: int) -> ThreadingHTTPServer:
        """Serve page, commands and lines; port 0 is any that is free. The caller shuts it down."""
        server = ThreadingHTTPServer((HOST, port), _handler(self))
        server.daemon_threads = True
        threading.Thread(target=server.serve_forever, name="cameras", daemon=True).start()
        return server

    def follow(self, script: list[dict[str, Any]], speed: float = 1.0) -> None:
        """Do what a script says, at its seconds: ``{"at": 3.0, "camera": "A", "crop": "Stabiliser"}``; returns when it is done."""
        begun = time.monotonic()
        for step in sorted(script, key=lambda each: float(each.get("at", 0))):
            wait = begun + float(step.get("at", 0)) / speed - time.monotonic()
            if wait > 0:
                time.sleep(wait)
            asked = {name: value for name, value in step.items() if name not in ("at", "camera")}
            self.cameras[str(step["camera"])].command(asked)


def _handler(of: Cameras) -> type[BaseHTTPRequestHandler]:
    class Handler(BaseHTTPRequestHandler):
        """One request."""

        protocol_version = "HTTP/1.1"

        def do_GET(self) -> None:
            """The page, what cameras are set to, or a camera's samples as lines."""
            if self.path == "/":
                self._answer(
                    200,
                    files("hextan.standins.camera").joinpath("page.html").read_bytes(),
                    "text/html; charset=utf-8",
                )
            elif self.path == "/state":
                states = {unit: camera.state for unit, camera in of.cameras.items()}
                self._answer(200, json.dumps(states).encode(), "application/json")
            elif self.path.startswith("/samples"):
                self._lines(self.path.removeprefix("/samples").strip("/") or next(iter(of.cameras)))
            else:
                self._answer(404, b"{}", "application/json")

        def do_POST(self) -> None:
            """A command: ``/command/A`` with what is to be changed."""
            unit = self.path.removeprefix("/command/")
            size = int(self.headers.get("Content-Length") or 0)
            if unit not in of.cameras or not 0 < size <= _MOST_COMMAND:
                self._answer(404, b"{}", "application/json")
                return
            try:
                of.cameras[unit].command(json.loads(self.rfile.read(size)))
            except HextanError as error:
                self._answer(422, json.dumps({"message": error.message}).encode(), "application/json")
            except (ValueError, TypeError, KeyError, AttributeError):
                self._answer(422, b'{"message": "is no command"}', "application/json")
            else:
                self._answer(200, json.dumps(of.cameras[unit].state).encode(), "application/json")

        def _answer(self, status: int, body: bytes, media: str) -> None:
            self.send_response(status)
            self.send_header("Content-Type", media)
            self.send_header("Content-Length", str(len(body)))
            self.end_headers()
            self.wfile.write(body)

        def _lines(self, unit: str) -> None:
            if of.secret and self.headers.get("Authorization") != f"Bearer {of.secret}":
                self._answer(401, b"{}", "application/json")
                return
            if unit not in of.cameras:
                self._answer(404, b"{}", "application/json")
                return
            camera = of.cameras[unit]
            self.send_response(200)
            self.send_header("Content-Type", "application/x-ndjson")
            self.send_header("Connection", "close")
            self.end_headers()
            with contextlib.suppress(OSError):
                while True:
                    data = camera.data()
                    if data is not None:
                        self.wfile.write(
                            data.replace(b"\n", b" ") + (b"" if camera.misbehaves == "endless" else b"\n")
                        )
                    time.sleep(1 / (FLOOD_A_SECOND if camera.misbehaves == "flood" else camera.rate))

        def log_message(self, format: str, *args: Any) -> None:
            """Be quiet."""

    return Handler
