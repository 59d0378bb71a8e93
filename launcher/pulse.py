"""Is the web server well, busy, or hung? Decided by the beat of its loop and by what the kernel tells of its main thread.

An answer's time says nothing: on a machine whose processors are taken by others a healthy server answers late. What runs, or waits for
a processor, is at work and is left alone. What does neither, and whose loop does not beat, waits for something that does not come.
"""

from __future__ import annotations

import contextlib
import struct
import time
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

Verdict = Literal["starting", "well", "busy", "asleep", "stopped", "hung"]

#: A loop that beat so long ago is well; a main thread that ran or waited for so large a part of the time is busy.
FRESH_S, BUSY_SHARE = 1.5, 0.5
#: Two looks are held together over about so long; farther apart the launcher itself was held up, and what lies between says nothing.
LOOK_S, OWN_PAUSE_S = 1.0, 4.0
#: So long without a beat, asleep or stopped all the while: hung. A request may wait for so long in the loop.
HUNG_S = 8.0
#: A server that begins may wait for a migration; one that is at work without a beat is left alone for so long.
START_S, AT_WORK_S = 600.0, 900.0
_BEAT = struct.Struct("<d")


@dataclass(frozen=True)
class Look:
    """What is seen of the process at one moment; seconds of the monotonic clock."""

    at: float
    #: When the loop beat last; 0 as long as it never did.
    beat: float
    #: Of the main thread: nanoseconds that it ran and that it waited for a processor, and its state (R, S, D, T ...).
    worked_ns: int
    state: str


class Pulse:
    """Judges one process from look to look."""

    def __init__(self, began: float) -> None:
        self.began = began
        self._last: Look | None = None
        #: Since when it neither ran nor waited for a processor, or was stopped.
        self._idle_since: float | None = None
        self._verdict: Verdict = "starting"

    def judge(self, look: Look) -> Verdict:
        """Judge by this look and those before it."""
        last = self._last
        if last is not None and look.at - last.at < LOOK_S:
            return "well" if look.beat and look.at - look.beat < FRESH_S else self._verdict
        self._last = look
        self._verdict = self._judged(look, last)
        return self._verdict

    def _judged(self, look: Look, last: Look | None) -> Verdict:
        silent = look.at - (look.beat or self.began)
        if look.beat and silent < FRESH_S:
            self._idle_since = None
            return "well"
        at_work: Verdict = "busy" if look.beat else "starting"
        if last is None or look.at - last.at > OWN_PAUSE_S:
            # The launcher's own pause: from here on it is looked at anew.
            self._idle_since = None
            return at_work
        share = (look.worked_ns - last.worked_ns) / 1e9 / (look.at - last.at)
        stopped = look.state in "Tt"
        # Waiting for a disk (D) is no fault of the process: another one would wait as well.
        if not stopped and (share > BUSY_SHARE or look.state == "D"):
            self._idle_since = None
            return "hung" if silent > AT_WORK_S else at_work
        if self._idle_since is None:
            self._idle_since = last.at
        # Before the first beat it may wait for the database, which migrates.
        patience = HUNG_S if look.beat or stopped else START_S
        if silent >= patience and look.at - self._idle_since >= HUNG_S - 2 * LOOK_S:
            return "hung"
        return "stopped" if stopped else "asleep" if look.beat else "starting"


def new_beat(file: Path) -> None:
    """Make the file of the beat anew, for a process that begins."""
    file.parent.mkdir(parents=True, exist_ok=True)
    file.write_bytes(_BEAT.pack(0.0))


def look(pid: int, beat: Path) -> Look | None:
    """Look at a process; None when it is gone."""
    with contextlib.suppress(OSError, ValueError, IndexError, struct.error):
        task = Path(f"/proc/{pid}/task/{pid}")
        ran, waited, _ = task.joinpath("schedstat").read_text().split()
        # The name stands in brackets and may hold anything.
        state = task.joinpath("stat").read_text().rpartition(")")[2].split()[0]
        (beaten,) = _BEAT.unpack(beat.read_bytes())
        return Look(time.monotonic(), beaten, int(ran) + int(waited), state)
    return None
