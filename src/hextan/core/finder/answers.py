"""What the format finder answers."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.equipment import Limit


class Reason(TypedDict):
    """How a format does in one requirement."""

    name: str
    wanted: str
    has: str
    met: bool
    must: bool
    share: float
    weight: float


class FinderRow(TypedDict):
    """A recording format in the finder's answer."""

    format_id: int
    format: str
    mode: str
    body: str
    #: Whether the production does not have it: it is the catalogue's.
    from_catalogue: bool
    possible_fps: float | None
    limited_by: Limit | None
    rate_text: str
    oversampling: float
    picture_width_mm: float
    mb_s: float | None
    reasons: list[Reason]


class RankedRow(FinderRow):
    """One that can be used; `tie` says what put it behind one of equal score."""

    rank: int
    score: float
    tie: str | None


class RejectedRow(FinderRow):
    """One that can't, why not, and what would admit it."""

    fails: list[str]
    changes: list[str]


class FinderAnswer(TypedDict):
    """What can be used, and why the rest can't."""

    ranked: list[RankedRow]
    rejected: list[RejectedRow]
    empty: str | None
