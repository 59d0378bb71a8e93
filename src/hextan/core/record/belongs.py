"""To which take, or at least to which shot, a clip belongs: by its name, its reel and number, its time code, or the time."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence

import numpy as np

from hextan.core.record.day import moment
from hextan.core.record.document import Booking, Clip, Take
from hextan.core.shots import Shot

#: A take is logged so long before its clip begins, or after it ends, at most; seconds (common practice, no source).
BEFORE_S, AFTER_S = 60.0, 600.0
#: Names that cameras give: their letter and the reel, then the clip on it (common practice, no source).
_REEL = re.compile(r"(?<![0-9A-Za-z])([A-Z]\d{3})[_ -]?C(\d{3,4})(?![0-9])", re.IGNORECASE)


def take_of(clip: Clip, takes: Iterable[Take]) -> tuple[Take | None, str]:
    """Find the take that a clip belongs to, and how it was found."""
    there = [t for t in takes if not t.removed and (not clip.unit or not t.unit or t.unit == clip.unit)]
    by_name = [t for t in there if _named(clip.facts.name, t)]
    if len(by_name) == 1:
        return by_name[0], "by its name"
    on_reel, number = _on_reel(clip, there)
    there = by_name or on_reel or there
    for at, how in ((_timecode(clip, there), "by its time code"), (clip.facts.at, "by the time")):
        if at is None:
            continue
        start = np.datetime64(at.rstrip("Z"), "ms")
        end = start + np.timedelta64(int(1000 * (clip.facts.seconds or 0)), "ms")
        near = [
            (abs(float((moment(t) - end) / np.timedelta64(1, "s"))), i)
            for i, t in enumerate(there)
            if start - np.timedelta64(int(BEFORE_S), "s")
            <= moment(t)
            <= end + np.timedelta64(int(AFTER_S), "s")
        ]
        if near:
            found = there[min(near)[1]]
            return found, f"by its reel and {how.removeprefix('by ')}" if there is on_reel else how
    if number is not None and clip.facts.at is None and not clip.facts.timecode and number <= len(on_reel):
        return sorted(on_reel, key=moment)[number - 1], "by its reel and number"
    return None, ""


def reel_of(clip: Clip) -> tuple[str, int | None]:
    """The reel of a clip, and which one on it a clip is; empty and None where nothing says so.

    >>> from hextan.core.record.document import ClipFacts
    >>> at = {"at": "2026-05-18T12:00:00Z", "written_at": "2026-05-18T12:00:00Z"}
    >>> reel_of(Clip(key="clip-1", facts=ClipFacts(name="A003C012_260518.mov"), **at))
    ('A003', 12)
    """
    found = _REEL.search(clip.facts.name)
    if found is not None:
        return found[1].upper(), int(found[2])
    return clip.facts.reel.upper(), None


def _on_reel(clip: Clip, takes: list[Take]) -> tuple[list[Take], int | None]:
    """Takes that were logged on the clip's reel, and its number on it."""
    reel, number = reel_of(clip)
    return [t for t in takes if reel and t.on.card.upper() == reel], number


def shot_of(clip: Clip, shots: Sequence[Shot], entries: Iterable[Take | Booking]) -> tuple[Shot | None, str]:
    """Find the shot that a clip is of, though no take of it was logged, and how it was found.

    Parameters
    ----------
    shots : of the clip's day
    entries : what was logged on that day
    """
    mine = [shot for shot in shots if not clip.unit or shot.unit.strip() in ("", clip.unit)]
    named = [shot for shot in mine if _numbered(clip.facts.name, shot.name)]
    # What finds two finds none.
    if len(named) == 1:
        return named[0], "by its name"
    if clip.facts.at is None:
        return None, ""
    start = np.datetime64(clip.facts.at.rstrip("Z"), "ms")
    limit = start + np.timedelta64(int(BEFORE_S), "s")
    there = sorted((e for e in entries if e.shot and not e.removed and e.unit in ("", clip.unit)), key=moment)
    before, after = [e for e in there if moment(e) <= limit], [e for e in there if moment(e) > limit]
    if not before:
        return None, ""
    last = before[-1]
    between = bool(after) and after[0].shot == last.shot
    if not between and start - moment(last) > np.timedelta64(int(AFTER_S), "s"):
        return None, ""
    found = next((shot for shot in shots if shot.key == last.shot), None)
    return found, "" if found is None else "by the time"


def _numbered(name: str, number: str) -> bool:
    """Whether a file's name holds a shot's number, with no more letters or figures around it.

    >>> [_numbered(name, "12B") for name in ("12B_x.mov", "112B.mov", "A12Bx.mov", "sc 12b-3.mov")]
    [True, False, False, True]
    """
    if not re.search(r"\d", number):
        return False
    around = rf"(?<![0-9a-z]){re.escape(number)}(?![0-9a-z])"
    return bool(re.search(around, name, re.IGNORECASE))


def _named(name: str, take: Take) -> bool:
    """Whether a file's name holds a shot's number and its take: 12B_T3, 12b-3, 12B take 03."""
    if not take.shot_name:
        return False
    number = re.escape(take.shot_name)
    return bool(
        re.search(
            rf"(?<![0-9a-z]){number}[ _.-]*(?:take|tk|t)?[ _.-]*0*{take.take}(?![0-9])", name, re.IGNORECASE
        )
    )


def _timecode(clip: Clip, takes: list[Take]) -> str | None:
    """A time code that runs with the time of day, as a moment of the day on which takes were shot."""
    if not clip.facts.timecode or not takes:
        return None
    first = takes[0]
    local = np.datetime64(first.at.rstrip("Z"), "ms") + np.timedelta64(first.offset_min, "m")
    day = str(local)[:10]
    at = np.datetime64(f"{day}T{clip.facts.timecode[:8]}", "ms") - np.timedelta64(first.offset_min, "m")
    return str(at)
