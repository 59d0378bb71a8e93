"""Processes that read or write a file for the server: a few at a time, a bounded number waiting, each with bounded output.

A child limits its own memory and time before it looks at anything; here the wait for a turn, the time and the size of the answer are
limited, so that neither one file nor many at once stop everybody else.
"""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
import threading
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import IO

from hextan.core.base import BusyError

#: So many work at the same time, and so many wait for their turn: with those that are served meanwhile fewer than the server has threads.
AT_ONCE, MOST_WAITING = max(2, os.cpu_count() or 2), 16
#: A turn that does not come within so long is given up, seconds.
PATIENCE_S = 60.0
#: Largest answer, and so much of what a child complains of is read, bytes.
MOST_ANSWER, MOST_COMPLAINT = 32_000_000, 64_000


@dataclass(frozen=True)
class Done:
    """What a child left behind."""

    code: int
    answer: bytes
    complaint: str

    def said(self) -> str | None:
        """What it says of the file: one line that begins with ``file:``; None where the trouble is its own."""
        lines = self.complaint.strip().splitlines()
        return next((line.removeprefix("file: ") for line in lines if line.startswith("file: ")), None)


class TooSlowError(Exception):
    """It took longer than it may, and was ended."""


class TooMuchError(Exception):
    """It answered more than it may, and was ended."""


class Crew:
    """Gives turns to children."""

    def __init__(self, at_once: int = AT_ONCE, most_waiting: int = MOST_WAITING) -> None:
        self.at_once, self.most_waiting = at_once, most_waiting
        self._turns = threading.Semaphore(at_once)
        self._lock = threading.Lock()
        self._waiting = 0

    @property
    def waiting(self) -> int:
        """How many wait for their turn."""
        return self._waiting

    @contextlib.contextmanager
    def turn(self) -> Iterator[None]:
        """Wait for a turn, and hold it.

        Raises
        ------
        BusyError
            Too many wait already, or the turn did not come in time.
        """
        with self._lock:
            before = self._waiting
            if before >= self.most_waiting:
                raise BusyError(f"{before} files wait to be read or written before this one.", before)
            self._waiting += 1
        try:
            got = self._turns.acquire(timeout=PATIENCE_S)
        finally:
            with self._lock:
                self._waiting -= 1
        if not got:
            raise BusyError(
                f"The files before this one took longer than {PATIENCE_S:.0f} s.", self.most_waiting
            )
        try:
            yield
        finally:
            self._turns.release()


#: The one of this server.
CREW = Crew()


def run(
    module: str,
    arguments: Sequence[str],
    data: bytes,
    seconds: float,
    most: int = MOST_ANSWER,
    crew: Crew = CREW,
) -> Done:
    """Let a module work as a process of its own, in its turn.

    Parameters
    ----------
    data : what it reads from standard input
    seconds : it is ended after
    most : bytes of its answer

    Raises
    ------
    BusyError
        Too many wait already.
    TooSlowError, TooMuchError
        It was ended.
    """
    with crew.turn():
        until = time.monotonic() + seconds
        process = subprocess.Popen(
            [sys.executable, "-m", module, *arguments],
            stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE,
        )  # fmt: skip
        assert process.stdin is not None and process.stdout is not None and process.stderr is not None
        complaint = bytearray()
        timer = threading.Timer(seconds, process.kill)
        helpers = (
            threading.Thread(target=_feed, args=(process.stdin, data), daemon=True),
            threading.Thread(target=_listen, args=(process.stderr, complaint), daemon=True),
        )
        with process:
            try:
                for each in (timer, *helpers):
                    each.start()
                answer = process.stdout.read(most + 1)
                if len(answer) > most:
                    process.kill()
                process.wait()
            finally:
                timer.cancel()
                process.kill()
                for thread in helpers:
                    thread.join()
    if len(answer) > most:
        raise TooMuchError
    if process.returncode < 0 and time.monotonic() >= until:
        raise TooSlowError
    return Done(process.returncode, answer, complaint.decode("utf-8", "replace"))


def _feed(pipe: IO[bytes], data: bytes) -> None:
    # One that looks at no more of it has said all that it will say.
    with contextlib.suppress(OSError):
        pipe.write(data)
    with contextlib.suppress(OSError):
        pipe.close()


def _listen(pipe: IO[bytes], complaint: bytearray) -> None:
    while part := pipe.read(4096):
        if len(complaint) < MOST_COMPLAINT:
            complaint += part
