"""What is answered about shots."""

from __future__ import annotations

from typing import Literal, TypeAlias

from typing_extensions import TypedDict

#: Everything is met; nothing is missed but by figures that nobody stated; only the framing is off, by little; something is
#: missing; nothing is asked.
ShotVerdict: TypeAlias = Literal["does", "depends", "nearly", "cannot", "open"]


class CellFault(TypedDict):
    """A cell that cannot be read, and what could stand there."""

    field: str
    rule: str


class ShotChoice(TypedDict):
    """How a shot would be made."""

    format_id: int
    format: str
    mode: str
    body: str
    lens_id: int
    lens: str
    lens_set: str
    #: With its set where several have a lens of that name.
    lens_told: str
    adapter_ids: list[int]
    adapters: list[str]
    #: As it is set on the lens; what it frames like on the production's window of reference.
    focal_mm: float
    is_zoom: bool
    effective_mm: float | None
    distance_m: float | None
    #: Where to focus, when it is not the subject.
    focus_m: float | None
    #: As the ring is marked.
    stop: float | None
    marks: str
    fps: float
    shutter_deg: float
    #: None where the light is not stated.
    ei: int | None
    nd_stops: float | None
    nd_parts: list[str]
    #: How much brighter (positive) or darker than right that is, stops; None where the light is not stated.
    over_stops: float | None
    crop_ids: list[int]
    field_width_m: float | None
    field_height_m: float | None
    #: How much wider (positive) or tighter than wanted, per cent; None where no framing is wanted.
    percent: float | None


class ShotReason(TypedDict):
    """One need, and what the choice has of it."""

    name: str
    wanted: str
    has: str
    met: bool
    must: bool


class ShotWarning(TypedDict):
    """What to watch out for."""

    code: str
    text: str


#: What can be changed: a cell of the shot, a need that becomes a wish, what is carried, rented or let go of.
ChangeKind: TypeAlias = Literal[
    "unpin", "filter", "carry", "distance", "crop", "usable_ei", "ei", "stop", "light", "framing", "hold", "background", "speed",
    "nearest", "rig", "room", "picture", "deliveries", "lens", "wish", "body", "outside", "bring",
]  # fmt: skip

#: One thing that is changed. `field`: the shot's cell or need, empty where equipment is changed; `from` and `to`: its text
#: before and after, or what is added; `body`, `lens`, `lens_set`: the equipment by its names.
ShotEdit = TypedDict(
    "ShotEdit",
    {"kind": ChangeKind, "field": str, "from": str, "to": str, "body": str, "lens": str, "lens_set": str},
)


class ShotChange(TypedDict):
    """A change with which the shot can be made: judged again as a whole before it is told."""

    #: One, or two together where one is not enough.
    edits: list[ShotEdit]
    text: str
    #: The trouble that it is, by docs/shots.md.
    cost: float
    #: What makes the shot then.
    body: str
    format: str
    lens: str


class ShotInPlan(TypedDict):
    """How what a shot is made with stands to the plan."""

    state: Literal["as_planned", "otherwise"]
    #: Why it is otherwise; of one that is as planned, what it would be without the plan.
    told: str
    #: What the plan has for it.
    planned: str
    #: Things that it needs and the plan does not carry.
    not_carried: list[str]


class NotedNow(TypedDict):
    """An answer as it can be taken note of."""

    verdict: ShotVerdict
    told: str
    asked: str


class ShotAnswer(TypedDict):
    """What a shot can be made with."""

    key: str
    verdict: ShotVerdict
    faults: list[CellFault]
    best: ShotChoice | None
    #: The need with the least to spare, or all that fails.
    binds: str
    reasons: list[ShotReason]
    runner_up: ShotChoice | None
    #: What puts the runner-up behind.
    runner_up_lacks: str
    #: With what it could be made, the least trouble first.
    changes: list[ShotChange]
    warnings: list[ShotWarning]
    #: What has to be so that nobody stated, for the verdict to hold.
    provided: list[str]
    #: Where it is not on its unit's main format: what forces it off, in words; empty on it.
    off_main: str
    #: Of a choice that is pinned: how far from best it is.
    pinned: str | None
    #: None where there is no plan.
    plan: ShotInPlan | None
    noted: NotedNow


class Use(TypedDict):
    """How many shots use a thing."""

    name: str
    shots: int


class DayOfShots(TypedDict):
    """The shots of one day and unit in their order, and what has to be changed between them."""

    day: str
    unit: str
    shots: int
    lens_changes: int
    format_changes: int
    body_changes: int
    #: Lens after lens, each with how many shots in a row.
    runs: list[Use]


class InPlan(TypedDict):
    """How many shots are made as the plan has them."""

    kit: str
    kit_key: str
    made_at: str
    as_planned: int
    of: int


class OnMain(TypedDict):
    """How many shots stay on the main format of their unit, of those whose unit has one."""

    stay: int
    of: int


class ChangedAnswer(TypedDict):
    """A shot whose needs are what they were, and whose answer is another."""

    key: str
    before: str
    after: str
    #: Whether it could be shot before, and cannot now.
    lost: bool


class ShotsInAll(TypedDict):
    """What the answers of all shots come to."""

    does: int
    depends: int
    nearly: int
    cannot: int
    open: int
    bodies: list[Use]
    formats: list[Use]
    lenses: list[Use]
    days: list[DayOfShots]
    #: What lenses are told to frame like: the production's reference.
    against: str
    #: How many shots stay on the main format of their unit, of how many that have one; None where no unit has one.
    on_main: OnMain | None
    #: None where there is no plan.
    in_plan: InPlan | None
    #: Against the answers that were taken note of.
    changed: list[ChangedAnswer]


class ShotsView(ShotsInAll):
    """Every shot's answer, and what all of them come to."""

    answers: list[ShotAnswer]


class ListedAnswer(TypedDict):
    """What a list shows of a shot's answer."""

    key: str
    verdict: ShotVerdict
    faults: list[CellFault]
    best: ShotChoice | None
    binds: str
    off_main: str
    noted: NotedNow
    #: Another one as soon as anything of it is.
    tag: str


class ListedShots(ShotsInAll):
    """What a list of shots shows: the answers that whoever asks does not have yet, and what all of them come to."""

    answers: list[ListedAnswer]
