"""What is answered: choices with what they give and cost, and the steps from one to the next."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.bench import Viewfinder
from hextan.core.equipment import ThingKind
from hextan.core.shots import CellFault, ShotChoice, ShotVerdict

#: What has to be paid for a thing, or at most for the things of a choice: nothing, nothing more than the plan does, hire, its
#: price; or nobody stated one.
Having: TypeAlias = Literal["own", "planned", "hire", "buy", "unknown"]

#: What a difference of blur comes from.
WorthPart: TypeAlias = Literal["focal length", "stop", "field", "distance"]


class WorthThing(TypedDict):
    """A body, lens or adapter of a choice."""

    kind: ThingKind
    name: str
    of: str
    weight_kg: float | None
    have: Having
    #: For the days of hire, or to buy; None where nobody stated it.
    cost: float | None
    #: The day of hire on which buying becomes cheaper; None where it never does, or is not known.
    pays_after: int | None


class WorthRow(TypedDict):
    """One lens on one body through one chain of adapters, on the format that suits best."""

    key: str
    verdict: ShotVerdict
    choice: ShotChoice
    things: list[WorthThing]
    have: Having
    cost: float | None
    #: Of all things; None where one of them states none.
    weight_kg: float | None
    #: How large the disc of the light is drawn, per cent of the picture's width.
    blur_percent: float
    #: How much narrower than high that disc is.
    squeeze: float
    #: How much larger (positive) that is than with the best that costs nothing, or least; None for that one itself.
    softer_percent: float | None
    #: Another choice that is at least as good in blur, field, weight and price, and better in one; empty where there is none.
    beaten_by: str
    #: What has to be so that nobody stated, what is noted of the pair, and what the format needs.
    notes: list[str]


class WorthReason(TypedDict):
    """One part of why the blur of one choice differs from another's; all parts multiply to the whole."""

    name: WorthPart
    told: str
    percent: float


class WorthStep(TypedDict):
    """From a choice to the next dearer one that gains something that can be seen."""

    key: str
    told: str
    #: What it costs in all, and more than the step before.
    cost: float
    more: float
    #: Gains over the step before, per cent (positive: softer, heavier, nearer to the wanted field).
    softer_percent: float | None
    heavier_percent: float | None
    nearer_percent: float | None
    #: Money for each per cent gained in what choices are ranked by; None for the first.
    each_percent: float | None
    why: list[WorthReason]
    #: What the finder shows, in the scene of the Bench; None where that cannot be drawn.
    viewfinder: Viewfinder | None


class Worth(TypedDict):
    """The answer."""

    faults: list[CellFault]
    #: What was found, in sentences; or why there is nothing.
    told: list[str]
    rows: list[WorthRow]
    #: How many choices do it in all, and how many of each having.
    found: int
    counts: dict[Having, int]
    #: From the best that costs least upwards.
    steps: list[WorthStep]
    hire_days: int
    currency: str
    #: Things without a price that the choices need.
    unpriced: list[str]
