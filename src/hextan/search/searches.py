"""All searches of a server: begun, looked at, stopped, and kept for whoever asks again."""

from __future__ import annotations

import subprocess
import sys
import threading
import time
from collections import OrderedDict
from typing import Any, Literal, TypeAlias

import orjson

from hextan.core.base import BusyError
from hextan.search.work import Job

#: So many run at the same time; others wait for their turn.
AT_ONCE = 2
#: So many are kept; the one that was asked for longest ago goes first.
MOST_KEPT = 60
#: So long a stop waits for a process that is just begun, seconds.
_PATIENCE_S = 10.0
SearchState: TypeAlias = Literal["waiting", "running", "done", "failed"]


class Search:
    """One search. All of it may be read at any time."""

    def __init__(self, asked: str) -> None:
        #: What it is about: another question has another one.
        self.asked = asked
        self.state: SearchState = "waiting"
        self.told = "waiting for its turn"
        #: The answer, or the kit as far as it is known.
        self.answer: Any = None
        self.problem = ""
        self.began = time.monotonic()
        self.ended: float | None = None
        self._process: subprocess.Popen[bytes] | None = None
        self._stopped = False
        self._lock = threading.Lock()
        #: Whether the process has been sent its work: a stop that came before it would be read as work.
        self._sent = threading.Event()

    @property
    def seconds(self) -> float:
        """How long it has taken."""
        return (self.ended or time.monotonic()) - self.began

    @property
    def at_work(self) -> bool:
        """Whether more is to come."""
        return self.state in ("waiting", "running")

    def stop(self) -> None:
        """Stop it: what was found so far is its answer."""
        with self._lock:
            self._stopped = True
            process = self._process
        if process is not None and process.stdin is not None and self._sent.wait(_PATIENCE_S):
            try:
                process.stdin.write(b"\n")
                process.stdin.flush()
            except (OSError, ValueError):
                # It ended by itself in between, or its input is closed.
                return

    def drop(self) -> None:
        """End it at once: nobody wants it any more."""
        with self._lock:
            self._stopped = True
            process = self._process
        if process is not None:
            process.kill()

    def run(self, written: bytes) -> None:
        """Run the process and read what it says, to its end."""
        try:
            self._run(written)
        except OSError as error:
            self._end("failed", f"The process that looks could not be run: {error}.")

    def _run(self, written: bytes) -> None:
        with self._lock:
            if self._stopped:
                return self._end("failed", "Stopped before its turn came.")
            self.state = "running"
            self._process = process = subprocess.Popen(
                [sys.executable, "-m", "hextan.search.child"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
            )
        assert process.stdin is not None and process.stdout is not None
        with process:
            try:
                process.stdin.write(len(written).to_bytes(8, "big") + written)
                process.stdin.flush()
            except BrokenPipeError:
                # It ended before it had read everything: told below.
                pass
            finally:
                self._sent.set()
            for line in process.stdout:
                self._take(orjson.loads(line))
            process.stdin.close()
        if self.at_work:
            self._end(
                "failed",
                "The process that looks ended without an answer. Try again, with less at once.",
            )
        return None

    def _take(self, said: dict[str, Any]) -> None:
        if "told" in said:
            self.told = said["told"]
        elif "kit" in said:
            self.answer = said["kit"]
        elif "answer" in said:
            self.answer = said["answer"]
            self._end("done", "")
        elif "problem" in said:
            self._end("failed", said["problem"])

    def _end(self, state: SearchState, problem: str) -> None:
        self.ended = time.monotonic()
        self.problem = problem
        self.told = ""
        self.state = state


class Searches:
    """The searches of a server, by production and by what they are about."""

    def __init__(self) -> None:
        self._kept: OrderedDict[tuple[int, str], Search] = OrderedDict()
        self._lock = threading.Lock()
        self._turns = threading.Semaphore(AT_ONCE)

    def begin(self, production_id: int, name: str, work: Job) -> Search:
        """Begin a search, or go on with one for the same question; another question under this name ends the one before.

        Raises
        ------
        BusyError
            As many as are kept are all still at work.
        """
        asked = work.asked
        with self._lock:
            before = self._kept.get((production_id, name))
            if before is not None and before.asked == asked and before.state != "failed":
                self._kept.move_to_end((production_id, name))
                return before
            if before is None and len(self._kept) >= MOST_KEPT:
                self._forget_one()
            search = self._kept[production_id, name] = Search(asked)
            self._kept.move_to_end((production_id, name))
            gone = [before] if before is not None else []
        for old in gone:
            old.drop()
        threading.Thread(target=self._in_turn, args=(search, work.written), daemon=True).start()
        return search

    def _forget_one(self) -> None:
        """Make room: of those that are done the one that was asked for longest ago goes; nobody's work is given up for another's."""
        done = next((key for key, search in self._kept.items() if not search.at_work), None)
        if done is None:
            raise BusyError(f"{len(self._kept)} searches and prints are under way.", len(self._kept))
        del self._kept[done]

    def find(self, production_id: int, name: str) -> Search | None:
        """Find a search; None where there is none, or none any more."""
        with self._lock:
            return self._kept.get((production_id, name))

    def close(self) -> None:
        """End all of them."""
        with self._lock:
            searches = list(self._kept.values())
            self._kept.clear()
        for search in searches:
            search.drop()

    def _in_turn(self, search: Search, written: bytes) -> None:
        with self._turns:
            search.run(written)
