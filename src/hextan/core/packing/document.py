"""What is said of packing: what each thing weighs on the purse, what moves cost, and kits that are asked for, by name."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import Key, Note, Part, Row, Schema, new_key, parser_of
from hextan.core.equipment import ThingName

PACKING_SCHEMA = Schema("hextan.packing", 1)
MOST_KITS = 60
MOST_STOCK = 2000

#: What a kit is made small by; each is a figure of the kit that is to be least.
Objective: TypeAlias = Literal["lenses", "weight", "cost", "changes", "wishes"]
OBJECTIVES: tuple[Objective, ...] = ("lenses", "weight", "cost", "changes", "wishes")
Price: TypeAlias = Annotated[float, Field(ge=0, le=1e7)]
Minutes: TypeAlias = Annotated[float, Field(ge=0, le=600)]


class Stock(Part):
    """What the production knows of a thing besides its optics."""

    key: Key = Field(default_factory=new_key)
    thing: ThingName
    owned: bool = False
    #: How many there can be; two units of one day need two.
    count: Annotated[int, Field(ge=1, le=20)] = 1
    #: The shooting day from which it is there, as shots name their days; empty from the first.
    from_day: Annotated[str, Field(max_length=120)] = ""
    per_day: Price | None = None
    per_week: Price | None = None
    to_buy: Price | None = None
    #: For adapters, and where the equipment states none.
    weight_kg: Annotated[float, Field(gt=0, le=200)] | None = None
    #: Whose it is, and the numbers on it; for the list that goes with the cases.
    owner: Annotated[str, Field(max_length=80)] = ""
    serial: Annotated[str, Field(max_length=200)] = ""
    #: What it is packed in.
    case: Annotated[str, Field(max_length=80)] = ""
    note: Note = ""


class Moves(Part):
    """What changes between two shots cost, minutes; usual ones, no source."""

    lens: Minutes = 4.0
    body: Minutes = 8.0
    #: A gimbal is balanced again after another lens or body, and when the camera comes onto it.
    gimbal: Minutes = 6.0
    #: Another scan mode of the same body.
    mode: Minutes = 1.0


class Aim(Part):
    """One objective, and how much of it may be given up for the next ones."""

    by: Objective
    #: Lenses and changes in whole ones, all else in per cent.
    slack: Annotated[float, Field(ge=0, le=100)] = 0.0


def _every_aim() -> list[Aim]:
    return [Aim(by=by) for by in ("lenses", "changes", "weight", "cost", "wishes")]


class KitPlan(Row):
    """A kit that is asked for: out of what, by what, within what; and the things of one that is kept."""

    note: Note = ""
    order: Annotated[list[Aim], Field(min_length=1, max_length=len(OBJECTIVES))] = Field(
        default_factory=_every_aim
    )
    #: Out of these alone; all that the package has where none is named.
    only: Annotated[list[ThingName], Field(max_length=MOST_STOCK)] = []
    must: Annotated[list[ThingName], Field(max_length=MOST_STOCK)] = []
    never: Annotated[list[ThingName], Field(max_length=MOST_STOCK)] = []
    weight_limit_kg: Annotated[float, Field(gt=0, le=10_000)] | None = None
    #: How far a framing may be off, per cent: what does the shot, or nearly does.
    framing_percent: Annotated[float, Field(ge=3, le=10)] = 3.0
    #: The things of a kit that was kept: nothing is chosen any more, and what it does is told.
    kept: Annotated[list[ThingName], Field(max_length=MOST_STOCK)] | None = None

    @model_validator(mode="after")
    def _once(self) -> KitPlan:
        named = [step.by for step in self.order]
        if len(set(named)) != len(named):
            raise ValueError("names an objective twice")
        return self


class Packing(Part):
    """All of a production's packing. Kits are told apart by name when they are asked for from outside."""

    schema_name: Literal["hextan.packing"] = Field("hextan.packing", alias="schema")
    schema_version: Literal[1] = 1
    #: One for the production, as it is written behind prices.
    currency: Annotated[str, Field(max_length=8)] = ""
    #: For how many days things are rented; as many as shots name where it is not said.
    hire_days: Annotated[int, Field(ge=1, le=1000)] | None = None
    #: Days on which units work at the same time, so that each needs its own; every day of two units where None.
    together_on: Annotated[list[Annotated[str, Field(max_length=120)]], Field(max_length=400)] | None = None
    moves: Moves = Moves()
    stock: Annotated[list[Stock], Field(max_length=MOST_STOCK)] = []
    kits: Annotated[list[KitPlan], Field(max_length=MOST_KITS)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> Packing:
        for what, rows in (("things of the stock", self.stock), ("kits", self.kits)):
            keys = [row.key for row in rows]
            if len(set(keys)) != len(keys):
                raise ValueError(f"two {what} have the same key")
        things = [(each.thing.kind, each.thing.of, each.thing.name) for each in self.stock]
        if len(set(things)) != len(things):
            raise ValueError("two rows of the stock speak of the same thing")
        return self


#: Checks packing given as plain data.
parse_packing = parser_of(Packing)
