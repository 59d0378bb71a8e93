"""What is answered about a kit."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.equipment import ThingKind
from hextan.core.shots import ShotChoice

#: As of shots; and those that the kit has to give up, though something does them.
KitVerdict: TypeAlias = Literal["does", "depends", "nearly", "cannot", "open", "given_up"]
#: Verdicts of shots that a kit is packed for.
DONE: tuple[KitVerdict, ...] = ("does", "depends", "nearly")


class KitStep(TypedDict):
    """One figure that was made least."""

    by: str
    value: float
    told: str
    proved: bool
    #: What is proved: that it is the least, or how much less there could be.
    proof: str


class OfShot(TypedDict):
    """What is told about one shot."""

    key: str
    name: str
    told: str


class KitThing(TypedDict):
    """One thing of a kit, and what it is there for."""

    kind: ThingKind
    name: str
    of: str
    count: int
    owned: bool
    weight_kg: float | None
    cost: float | None
    case: str
    note: str
    #: Keys of the shots that are made with it; of those that nothing else in the kit does; that nothing else at all does.
    used: list[str]
    needed: list[str]
    alone: list[str]
    #: What leaving it at home costs, shot by shot.
    without: list[OfShot]
    told: str


class LeftOut(TypedDict):
    """A thing that stays at home, and what it would add."""

    kind: ThingKind
    name: str
    of: str
    adds: str


class KitShot(TypedDict):
    """One shot with the kit."""

    key: str
    name: str
    day: str
    unit: str
    verdict: KitVerdict
    choice: ShotChoice | None
    #: Places among the things of the kit: what it is made with, and lenses that could do it as well.
    things: list[int]
    could: list[int]
    told: str


class KitSetup(TypedDict):
    """How a shot is made on its day, and what is changed before it."""

    key: str
    name: str
    scene: str
    lens: str
    body: str
    mode: str
    format: str
    changed: list[str]
    minutes: float


class KitDay(TypedDict):
    """A day and unit in the order of the list."""

    day: str
    unit: str
    #: Whether its unit needs its own things, because another works at the same time.
    apart: bool
    setups: list[KitSetup]
    changes: int
    minutes: float
    #: Keys in an order that has fewer changes; scenes stay where they are. Empty where none was found.
    better_order: list[str]
    better_changes: int | None


class OtherKit(TypedDict):
    """Another kit that is nearly as good, or as good."""

    tie: bool
    told: str
    adds: list[str]
    lacks: list[str]


class CurvePoint(TypedDict):
    """How many shots so many lenses do at most."""

    lenses: int
    shots: int
    proved: bool


class WhatIf(TypedDict):
    """What the kit would be if one shot asked for less."""

    key: str
    name: str
    change: str
    lenses: int
    told: str


class RentRow(TypedDict):
    """What one thing of the kit costs."""

    name: str
    kind: ThingKind
    count: int
    owned: bool
    per_day: float | None
    cost: float | None
    to_buy: float | None
    #: The day of hire on which buying becomes cheaper.
    pays_after: int | None
    #: The shot that alone needs it.
    only_for: str
    #: Something cheaper that could stand in, with what is lost.
    instead: str


class KitFilter(TypedDict):
    """A filter that the shots need."""

    name: str
    shots: list[str]


class KitAnswer(TypedDict):
    """A kit with its proof, its reasons, its days and its costs."""

    name: str
    #: None where there is no kit at all; then `why` says what stands in the way.
    why: str
    proved: bool
    stopped: bool
    kept: bool
    shots_done: int
    shots_asked: int
    lenses: int
    weight_kg: float
    weight_unknown: list[str]
    cost: float
    cost_unknown: list[str]
    currency: str
    hire_days: int
    changes: int
    minutes: float
    steps: list[KitStep]
    things: list[KitThing]
    left_out: list[LeftOut]
    #: How many things are left out that would add nothing.
    adds_nothing: int
    filters: list[KitFilter]
    shots: list[KitShot]
    days: list[KitDay]
    others: list[OtherKit]
    curve: list[CurvePoint]
    what_if: list[WhatIf]
    rent: list[RentRow]
    #: What was not looked at to the end, because it was stopped or took too long.
    unfinished: list[str]
    #: Names in the kit's plan that the package does not have.
    gone: list[str]
    #: Shots whose own judgement with these things alone does not agree; none, as long as all is right.
    disagree: list[str]


class SideShot(TypedDict):
    """One shot with each of two kits."""

    key: str
    name: str
    first: str
    second: str
    does_first: bool
    does_second: bool
    #: How much wider the second can open, stops; how much more of the width it blurs a far light, per cent; pixels of
    #: the delivered picture that it records for each of the first's.
    stops: float | None
    blur_percent: float | None
    pixels: float | None
    #: Where only one does it: whether its body is the reason.
    reason: str


class SideFigure(TypedDict):
    """One figure of two kits."""

    name: str
    first: str
    second: str


class SideBySide(TypedDict):
    """Two kits for the same shots."""

    first: str
    second: str
    figures: list[SideFigure]
    shots: list[SideShot]
    #: What it comes to, in sentences.
    told: list[str]
