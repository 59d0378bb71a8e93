"""Start everything, keep it up, stop it; and know whether it already runs."""

from __future__ import annotations

import contextlib
import ctypes
import fcntl
import http.client
import json
import os
import signal
import subprocess
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from types import FrameType

from launcher import pulse
from launcher.cluster import Cluster, free_port
from launcher.paths import HOME, PYTHON, LauncherError, application_environment, say, trim_log

LOCK = HOME / "running.lock"
LOG = HOME / "server.log"
BEAT = HOME / "server.beat"
#: The log is looked after so often; a start that takes longer than this is told. Seconds.
LOG_EVERY, SLOW_START = 2.0, 15.0
#: Pause before a dead web server is started again: it doubles from time to time, and begins anew after a calm while.
FIRST_PAUSE, LONGEST_PAUSE, CALM = 0.5, 30.0, 60.0
#: First choice of the web address, so that links stay the same from day to day.
PORT = 8734


@contextlib.contextmanager
def only_one() -> Iterator[Path | None]:
    """Hold the launcher's lock; gives None when another launcher holds it."""
    HOME.mkdir(parents=True, exist_ok=True)
    with open(LOCK, "a+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            yield None
            return
        file.truncate(0)
        yield LOCK
        file.truncate(0)


def running() -> dict[str, object] | None:
    """Tell process and address of the launcher that runs, or None."""
    with only_one() as mine:
        if mine is not None:
            return None
    with contextlib.suppress(OSError, ValueError):
        return dict(json.loads(LOCK.read_text()))
    return {}


def _choose_port() -> int:
    wanted = int(os.environ.get("HEXTAN_PORT", PORT))
    import socket  # noqa: PLC0415

    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", wanted))
        except OSError:
            if "HEXTAN_PORT" in os.environ:
                raise LauncherError(f"Port {wanted} (HEXTAN_PORT) is taken.") from None
            return free_port()
    return wanted


def _end_with_launcher() -> None:
    """In the web server's process: ask Linux to end it when the launcher is gone, even by kill -9."""
    set_death_signal = 1
    ctypes.CDLL(None).prctl(set_death_signal, signal.SIGTERM)


class Service:
    """The database and the web server, together."""

    def __init__(self, demo: bool) -> None:
        self.demo = demo
        self.given_url = os.environ.get("HEXTAN_DATABASE_URL")
        self.cluster = None if self.given_url else Cluster(HOME / "postgres")
        self.web: subprocess.Popen[bytes] | None = None
        self.ending = False
        self.url = self.address = ""
        self.port = 0
        self.started = 0.0
        self.pulse = pulse.Pulse(0.0)

    def run(self) -> int:
        """Start, print the address, and stay until told to stop."""
        for kind in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
            signal.signal(kind, self._end)
        try:
            url = self.given_url or (self.cluster.start() if self.cluster else "")
            self._start_web(url)
            with contextlib.suppress(OSError):
                LOCK.write_text(json.dumps({"process": os.getpid(), "address": self.address}))
            say(f"\nHextan is at {self.address}\nStop it with Ctrl-C here, or with ./hextan stop.")
            return self._watch()
        finally:
            self._stop()

    def begin(self) -> str:
        """Start database and web server, and give the address; says nothing."""
        self._start_web(self.given_url or (self.cluster.start() if self.cluster else ""))
        return self.address

    def end(self) -> None:
        """Stop both; says nothing."""
        if self.web is not None and self.web.poll() is None:
            self.web.terminate()
            try:
                self.web.wait(10)
            except subprocess.TimeoutExpired:
                self.web.kill()
        if self.cluster is not None:
            self.cluster.stop()

    def _end(self, kind: int, frame: FrameType | None) -> None:
        self.ending = True

    def _start_web(self, url: str) -> None:
        """Start the web server; when another program takes the port at the same moment, on another port."""
        if not self._launch_web(url, _choose_port()) and not self.ending:
            started = "HEXTAN_PORT" not in os.environ and self._launch_web(url, free_port())
            if not started and not self.ending:
                raise LauncherError(
                    f"The server does not start. The end of {LOG}:\n{LOG.read_text()[-2000:]}"
                )

    def _launch_web(self, url: str, port: int) -> bool:
        self.url, self.port, self.address = url, port, f"http://127.0.0.1:{port}/"
        self._spawn()
        told = False
        while self.web is not None and self.web.poll() is None and not self.ending:
            # On a port that was just taken, another Hextan may answer.
            if self._answers() == self.web.pid:
                return True
            seen = pulse.look(self.web.pid, BEAT)
            if seen is not None and self.pulse.judge(seen) == "hung":
                self.web.kill()
                self.web.wait(10)
            if not told and time.monotonic() - self.started > SLOW_START:
                told = True
                say(f"The web server takes long to start, and is still at it ({LOG}).")
            time.sleep(0.05)
        return False

    def _spawn(self) -> None:
        """Start the web server's process; its log goes on where the last one's ended."""
        environment = application_environment() | {
            "HEXTAN_DATABASE_URL": self.url,
            "HEXTAN_ADDRESS": self.address,
            "HEXTAN_BEAT": str(BEAT),
        }
        pulse.new_beat(BEAT)
        if self.demo:
            environment["HEXTAN_DEMO"] = "1"
        with open(LOG, "ab") as file:
            self.web = subprocess.Popen(
                [PYTHON, "-m", "hextan.api.serve", "--port", str(self.port)],
                env=environment, stdout=file, stderr=file, start_new_session=True, preexec_fn=_end_with_launcher,  # noqa: PLW1509  (no threads here)
            )  # fmt: skip
        self.started = time.monotonic()
        self.pulse = pulse.Pulse(self.started)

    def _answers(self) -> object:
        """Ask which process answers at the address; None when nobody does."""
        with (
            contextlib.suppress(OSError, ValueError, http.client.HTTPException),
            urllib.request.urlopen(f"{self.address}api/health", timeout=2) as told,
        ):
            return dict(json.load(told)).get("process")
        return None

    def _watch(self) -> int:
        pause, trimmed = FIRST_PAUSE, time.monotonic()
        while not self.ending:
            time.sleep(0.2)
            if self.cluster is not None and self.cluster.died():
                say("The database server ended by itself: starting it again.")
                url = self.cluster.start(self.cluster.port)
                if url != self.url and self.web is not None:
                    # Its port was taken meanwhile: the web server has to be told another one.
                    self.url = url
                    self.web.terminate()
            now = time.monotonic()
            if now - trimmed >= LOG_EVERY:
                trimmed = now
                trim_log(LOG)
            how = self._state()
            if how == "well" and now - self.started > CALM:
                pause = FIRST_PAUSE
            if how in ("ended", "hung"):
                self._replace(how == "ended", pause)
                pause = min(2 * pause, LONGEST_PAUSE)
        return 0

    def _state(self) -> str:
        """Whether the web server ended, hangs, or is left alone: it is never asked, since an answer's time says nothing."""
        assert self.web is not None
        if self.web.poll() is not None:
            return "ended"
        seen = pulse.look(self.web.pid, BEAT)
        if seen is None:
            return "ended" if self.web.poll() is not None else "busy"
        return self.pulse.judge(seen)

    def _replace(self, ended: bool, pause: float) -> None:
        """End what is left of the web server, wait, and start another at the same address."""
        assert self.web is not None
        if ended:
            say(f"The web server ended by itself (code {self.web.returncode}; {LOG}): starting it again.")
        else:
            say(f"The web server hangs ({LOG} says where): another takes its place.")
            self.web.kill()
            self.web.wait(10)
        until = time.monotonic() + pause
        while time.monotonic() < until and not self.ending:
            time.sleep(0.05)
        if not self.ending:
            self._spawn()

    def _stop(self) -> None:
        self.end()
        say("Stopped.")


@contextlib.contextmanager
def address() -> Iterator[str]:
    """Give the address of the server that runs, or start one for the time."""
    found = running()
    if found is not None:
        if "address" not in found:
            raise LauncherError("Hextan is just starting. Try again in a few seconds.")
        yield str(found["address"])
        return
    with only_one() as mine:
        if mine is None:
            raise LauncherError("Hextan is just starting. Try again in a few seconds.")
        service = Service(demo=False)
        try:
            yield service.begin()
        finally:
            service.end()


def stop() -> int:
    """Stop the launcher that runs."""
    found = running()
    if found is None:
        say("Hextan does not run.")
        return 0
    process = found.get("process")
    if not isinstance(process, int):
        raise LauncherError("Hextan is just starting. Try again in a few seconds.")
    with contextlib.suppress(ProcessLookupError):
        os.kill(process, signal.SIGTERM)
    until = time.monotonic() + 30
    while time.monotonic() < until:
        if running() is None:
            say("Stopped.")
            return 0
        time.sleep(0.1)
    raise LauncherError(f"Process {process} does not end. End it with: kill -9 {process}")
