"""An instance of its own, below a folder that goes when it is over, and what is seen of it from outside."""

from __future__ import annotations

import contextlib
import json
import os
import random
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from pathlib import Path

from launcher.paths import HOME, ROOT

#: What the launcher says when it replaces a web server: because it ended, or because it found that it hangs.
ENDED, HANGS = "The web server ended by itself", "The web server hangs"


class Instance:
    """`./hextan demo` with data of its own."""

    def __init__(self) -> None:
        self.folder = Path(tempfile.mkdtemp(prefix="hextan-soak-", dir="/var/tmp"))
        self.folder.chmod(0o755)
        (self.folder / "venv").symlink_to(HOME / "venv")
        self.port = _own_port()
        self.camera_port = _own_port(socket.SOCK_DGRAM)
        environment = {**os.environ, "HEXTAN_HOME": str(self.folder), "HEXTAN_PORT": str(self.port)}
        environment.pop("HEXTAN_DATABASE_URL", None)
        self.process = subprocess.Popen(
            [ROOT / "hextan", "demo"], env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True,
            start_new_session=True,
        )  # fmt: skip
        self.said: list[str] = []
        self._ready = threading.Event()
        threading.Thread(target=self._listen, daemon=True).start()
        #: When the web server was killed, monotonic seconds.
        self.killed: list[float] = []

    def _listen(self) -> None:
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said.append(line.rstrip())
            if line.startswith("Hextan is at "):
                self._ready.set()
        self._ready.set()

    def wait(self, seconds: float = 300) -> None:
        """Wait until it answers."""
        self._ready.wait(seconds)
        if self.process.poll() is not None or self.web() is None:
            raise SystemExit("It does not start:\n" + "\n".join(self.said[-20:]))

    def web(self, seconds: float = 60) -> int | None:
        """The web server's process, as soon as one answers."""
        until = time.monotonic() + seconds
        while time.monotonic() < until:
            with (
                contextlib.suppress(OSError, ValueError),
                urllib.request.urlopen(f"http://127.0.0.1:{self.port}/api/v1/health", timeout=20) as told,
            ):
                return int(json.load(told)["process"])
            time.sleep(0.2)
        return None

    def kill(self) -> None:
        """Kill the web server, as a machine that runs out of memory would."""
        pid = self.web()
        if pid is not None:
            self.killed.append(time.monotonic())
            os.kill(pid, signal.SIGKILL)

    def memory_mb(self) -> float:
        """What the web server takes of memory now; not a number where none answers."""
        pid = self.web()
        with contextlib.suppress(OSError):
            for line in Path(f"/proc/{pid}/status").read_text().splitlines():
                if line.startswith("VmRSS"):
                    return int(line.split()[1]) / 1024
        return float("nan")

    def handles(self) -> int:
        """How many files and connections it holds open."""
        with contextlib.suppress(OSError):
            return len(list(Path(f"/proc/{self.web()}/fd").iterdir()))
        return 0

    def replaced(self, why: str) -> int:
        """How often the launcher replaced it, by what it said."""
        return sum(line.startswith(why) for line in self.said)

    def end(self) -> None:
        """Stop it, and take its folder away."""
        self.process.terminate()
        with contextlib.suppress(subprocess.TimeoutExpired):
            self.process.wait(60)
        self.process.kill()
        shutil.rmtree(self.folder, ignore_errors=True)


class Neighbour:
    """Programs that take every processor."""

    def __init__(self) -> None:
        self._busy = [
            subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(os.cpu_count() or 2)
        ]

    def end(self) -> None:
        """Leave the processors to others."""
        for each in self._busy:
            each.kill()
            each.wait()


def _own_port(kind: socket.SocketKind = socket.SOCK_STREAM) -> int:
    """A port that no passing program takes while a server is begun again."""
    while True:
        port = random.SystemRandom().randrange(20_000, 30_000)
        with socket.socket(socket.AF_INET, kind) as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
