"""The plan: what is carried, and what every shot is made with, from the moment at which it was decided; everything by its name."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import Key, Name, Part, Schema, parser_of

PLAN_SCHEMA = Schema("hextan.plan", 1)
MOST_THINGS = 2000

#: What a kit is made of. Filters follow from it: they are not chosen.
ThingKind: TypeAlias = Literal["body", "lens", "adapter"]
Moment: TypeAlias = Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$")]


class ThingName(Part):
    """A thing by its name; a lens by its set's as well. A whole set is the lens without a name of its own."""

    kind: ThingKind
    name: Annotated[str, Field(max_length=80)] = ""
    #: The lens set; empty for others, and where the lens's name is enough.
    of: Annotated[str, Field(max_length=80)] = ""

    @model_validator(mode="after")
    def _named(self) -> ThingName:
        if not self.name and not (self.kind == "lens" and self.of):
            raise ValueError("needs a name; only a whole lens set is named by its set alone")
        return self


class Pin(Part):
    """What a shot is made with: everything by its name, so that it goes with the production anywhere."""

    body: Name
    mode: Name
    format: Name
    lens: Name
    #: The lens's set; empty where the lens's name is enough.
    lens_set: Annotated[str, Field(max_length=80)] = ""
    focal_mm: Annotated[float, Field(gt=0.5, le=5000)] | None = None
    adapters: Annotated[list[Name], Field(max_length=2)] = []


class PlannedShot(Part):
    """What one shot was made with when the plan was made."""

    name: Annotated[str, Field(max_length=80)]
    #: A fingerprint of the cells that were asked.
    asked: Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
    #: None where the kit has nothing for it.
    made_with: Pin | None = None


class ThePlan(Part):
    """The one plan of a production, by a kit; there is none as long as it has no moment."""

    schema_name: Literal["hextan.plan"] = Field("hextan.plan", alias="schema")
    schema_version: Literal[1] = 1
    #: The kit that it was made by: its key, and its name then.
    kit: Annotated[str, Field(max_length=40)] = ""
    name: Annotated[str, Field(max_length=80)] = ""
    made_at: Moment | None = None
    things: Annotated[list[ThingName], Field(max_length=MOST_THINGS)] = []
    #: By the key of a shot.
    shots: dict[Key, PlannedShot] = {}

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @property
    def stands(self) -> bool:
        """Whether there is a plan."""
        return self.made_at is not None

    def has(self, kind: ThingKind, name: str, of: str = "") -> bool:
        """Whether a body, a lens of a set or an adapter is carried."""
        return any(
            thing.kind == kind
            and thing.name in (name, "")
            and (kind != "lens" or not thing.of or thing.of == of)
            for thing in self.things
        )


#: Checks a plan given as plain data.
parse_plan = parser_of(ThePlan)
