"""One camera that is listened to: the newest that it said, since when, what changed, and what of it was no word.

A million samples cost no more room than one: of all that a camera says only what changed is noted (`MOST_CHANGES`), the
focus `FOCUS_A_SECOND` times a second for `FOCUS_SECONDS`, and how many samples there were in each second of
`COUNTED_SECONDS`. More than `MOST_A_SECOND` a second are counted and not looked at.
"""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, fields
from datetime import UTC, datetime, timedelta
from typing import Any

from hextan.core.base import HextanError
from hextan.core.record import MOST_CHANGES as MOST_OF_A_TAKE
from hextan.core.record import Heard, Said, SaidChange, Source
from hextan.formats.tracked import heard_of

MOST_A_SECOND = 120.0
MOST_CHANGES = 2000
FOCUS_A_SECOND, FOCUS_SECONDS = 4.0, 600
COUNTED_SECONDS = 4 * 3600
#: Silent for so long, it is told; seconds.
SILENT_S = 5.0
#: So many names of other cameras are remembered.
MOST_NAMES = 4
#: A clock that is off by more makes clips hard to find, seconds.
CLOCK_OFF_S = 2.0

#: A moment so far ahead of the clock was told before the clock was set.
JUMPED = timedelta(hours=1)
#: What is noted when it changes, and how it is called.
FACTS = {
    "mode": "mode", "read_mm": "sensor area", "raster": "raster", "squeeze": "squeeze", "fps": "rate", "ei": "EI",
    "shutter_deg": "shutter", "lens": "lens", "focal_mm": "focal length", "t_stop": "T-stop", "f_number": "f-number",
    "recording": "recording",
}  # fmt: skip


def now_utc() -> datetime:
    """The time of this machine."""
    return datetime.now(UTC)


def moment(at: datetime) -> str:
    """As it stands in the log, to the millisecond."""
    return f"{at:%Y-%m-%dT%H:%M:%S}.{at.microsecond // 1000:03d}Z"


@dataclass(frozen=True)
class Standing:
    """How a camera stands at this moment."""

    heard: Heard | None
    #: Seconds since it last said anything; None where it never did.
    silent_s: float | None
    samples: int
    #: What was no word, what came faster than it is looked at, and what came from somebody else.
    refused: int
    dropped: int
    foreign: int
    #: What those go by.
    names: tuple[str, ...]
    problem: str
    #: How much its clock is ahead, seconds; None where it does not tell, or is right.
    clock_off_s: float | None
    #: Since when each fact is what it is.
    since: dict[str, str]

    @property
    def speaks(self) -> bool:
        """Whether it says anything at all, now."""
        return self.silent_s is not None and self.silent_s <= SILENT_S


class Camera:
    """What one camera says. Any thread may bring samples; any may look."""

    def __init__(
        self,
        source: Source,
        monotonic: Callable[[], float] = time.monotonic,
        now: Callable[[], datetime] = now_utc,
    ) -> None:
        self.source = source
        self._monotonic, self._now = monotonic, now
        self._lock = threading.Lock()
        self._heard: Heard | None = None
        self._at: float | None = None
        #: When it spoke first, by the clock that never jumps.
        self._first: float | None = None
        self._samples = self._refused = self._dropped = self._foreign = 0
        self._names: list[str] = []
        self._problem = ""
        self._clock_off: float | None = None
        self._since: dict[str, str] = {}
        self._changes: deque[tuple[float, SaidChange]] = deque(maxlen=MOST_CHANGES)
        self._counts: deque[list[Any]] = deque(maxlen=COUNTED_SECONDS)
        self._focus: deque[tuple[float, float]] = deque(maxlen=int(FOCUS_A_SECOND * FOCUS_SECONDS))
        self._allowed, self._filled = MOST_A_SECOND, monotonic()
        self._sequence: int | None = None
        #: Grows with whatever is heard; and with what changes but the focus.
        self.version = self.facts_version = 0

    def accept(self, data: bytes) -> bool:
        """Hear one sample.

        Returns
        -------
        Whether anything of it counts: not what is no word, comes too fast, from somebody else, or late.
        """
        with self._lock:
            if not self._may():
                self._dropped += 1
                return False
        try:
            heard = heard_of(data)
        except HextanError as error:
            with self._lock:
                self._refused += 1
                self._problem = error.message[:300]
                self.version += 1
            return False
        with self._lock:
            return self._take(heard)

    def _may(self) -> bool:
        at = self._monotonic()
        self._allowed = min(self._allowed + (at - self._filled) * MOST_A_SECOND, MOST_A_SECOND)
        self._filled = at
        if self._allowed < 1:
            return False
        self._allowed -= 1
        return True

    def _take(self, heard: Heard) -> bool:
        if self.source.way == "udp" and self.source.secret and heard.source != self.source.secret:
            self._foreign += 1
            self._remember(heard.source or "")
            return False
        # A datagram that was overtaken says what is no longer so; a camera that began anew counts from the start.
        late = (
            self._sequence is not None
            and heard.sequence is not None
            and 0 <= self._sequence - heard.sequence < 1000
        )
        if late and self._samples:
            return False
        self._sequence = heard.sequence
        now, at = self._now(), self._monotonic()
        if self._heard is None:
            self._first = at
            self._since = dict.fromkeys(FACTS, moment(now))
        else:
            self._note(self._heard, heard, now, at)
        if heard.focus_m is not None and (not self._focus or at - self._focus[-1][0] >= 1 / FOCUS_A_SECOND):
            self._focus.append((at, heard.focus_m))
        if heard.clock_s is not None:
            off = heard.clock_s - now.timestamp()
            self._clock_off = off if abs(off) > CLOCK_OFF_S else None
        changed = self._heard is None or self._heard.facts != heard.facts
        self._heard, self._at = heard, at
        self._samples += 1
        self._count(at)
        self.version += 1
        self.facts_version += changed
        return True

    def _note(self, before: Heard, after: Heard, now: datetime, at: float) -> None:
        for name, told in FACTS.items():
            was, is_now = getattr(before, name), getattr(after, name)
            if was == is_now:
                continue
            self._since[name] = moment(now)
            change = SaidChange(at=moment(now), what=told, was=_words(was), now=_words(is_now))
            self._changes.append((at, change))

    def _count(self, at: float) -> None:
        second = int(at)
        if self._counts and self._counts[-1][0] == second:
            self._counts[-1][1] += 1
        else:
            self._counts.append([second, 1])

    def standing(self) -> Standing:
        """How it stands now."""
        with self._lock:
            return Standing(
                heard=self._heard,
                silent_s=None if self._at is None else max(self._monotonic() - self._at, 0.0),
                samples=self._samples,
                refused=self._refused,
                dropped=self._dropped,
                foreign=self._foreign,
                names=tuple(self._names),
                problem=self._problem,
                clock_off_s=self._clock_off,
                since=dict(self._since),
            )

    def said(self, since: datetime | None) -> Said | None:
        """What it said from a moment until now, for a take; None where it said nothing.

        A machine's clock may be set meanwhile: a moment that lies far ahead of it was told by the clock before, and counts as the beginning.
        """
        with self._lock:
            if self._first is None:
                return None
            now, at_now = self._now(), self._monotonic()
            start = self._first
            if since is not None and since < now + JUMPED:
                start = max(start, at_now - (now - since).total_seconds())
            changes = [change for at, change in self._changes if at >= start]
            samples = sum(count for second, count in self._counts if second >= int(start))
            if not samples:
                return None
            return Said(
                start=moment(now - timedelta(seconds=at_now - start)),
                end=moment(now),
                samples=samples,
                changes=changes[-MOST_OF_A_TAKE:],
                left_out=max(0, len(changes) - MOST_OF_A_TAKE),
            )

    def pass_by(self, name: str = "") -> None:
        """Note a sample that is somebody else's: nothing more of it is looked at, and it costs this camera nothing.

        Parameters
        ----------
        name : what its camera goes by, where nobody that is listened to goes by it
        """
        with self._lock:
            self._foreign += 1
            self._remember(name)

    def _remember(self, name: str) -> None:
        if name and name not in self._names and len(self._names) < MOST_NAMES:
            self._names.append(name[:200])
            self.version += 1

    def complain(self, problem: str) -> None:
        """Note why nothing is heard."""
        with self._lock:
            if problem != self._problem:
                self._problem = problem[:300]
                self.version += 1

    @property
    def room(self) -> int:
        """How much is kept: entries of all its lists."""
        return len(self._changes) + len(self._counts) + len(self._focus)


def _words(value: Any) -> str:
    """A fact as it is noted."""
    if value is None:
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return " × ".join(f"{each:g}" for each in value)
    return f"{value:.6g}" if isinstance(value, float) else str(value)[:120]


# Every fact is one of what a sample says.
assert set(FACTS) <= {field.name for field in fields(Heard)}
