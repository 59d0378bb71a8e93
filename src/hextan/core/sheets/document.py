"""The sheets of a production as a document: bundles, what each sheet is of, on which paper, and when it was made."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import FocalMm, Id, Metres, Name, Part, Row, Schema, Stop, Unit, parser_of
from hextan.core.worth import PaidBy, RankedBy

SHEETS_SCHEMA = Schema("hextan.sheets", 1)
MOST_SHEETS = 200
MOST_BUNDLES = 40

SheetKind: TypeAlias = Literal[
    "lens_by_format", "look", "depth", "field", "formats", "cards", "exposure", "flicker", "coverage", "chain",
    "claims", "shots", "kit", "monitor", "adapters", "bench", "compare", "day", "checks", "worth",
]  # fmt: skip
#: A folded pocket card is an A4 with eight panels; a telephone's page is dark.
PaperName: TypeAlias = Literal["a4", "letter", "a6", "pocket", "telephone"]
Instant: TypeAlias = Annotated[str, Field(pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$")]


class Made(Part):
    """When a sheet was made, and a fingerprint of what stood on it."""

    at: Instant
    fingerprint: Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")]


class SheetPlan(Row):
    """One sheet. Its name is its title where it has one; what its kind does not ask for is passed over."""

    name: Annotated[str, Field(max_length=120)] = ""
    kind: SheetKind = "lens_by_format"
    paper: PaperName = "a4"
    wide: bool = False
    large: bool = False
    #: The production's where None.
    unit: Unit | Literal["both"] | None = None
    #: Where distances count from: the sensor plane, or the front of the lens.
    from_front: bool = False
    #: All of the production's where nothing is named; by the numbers of the production.
    lens_ids: Annotated[list[Id], Field(max_length=400)] = []
    #: By name: they are few, and go with the production anywhere.
    lens_sets: Annotated[list[Name], Field(max_length=200)] = []
    bodies: Annotated[list[Name], Field(max_length=200)] = []
    format_ids: Annotated[list[Id], Field(max_length=2000)] = []
    #: Distances in metres from where they count; the usual ones of the trade where none is named.
    distances_m: Annotated[list[Metres], Field(max_length=60)] = []
    stops: Annotated[list[Stop], Field(max_length=20)] = []
    focal_mm: FocalMm | None = None
    #: A page for each lens, or for each distance.
    each: Literal["lens", "distance"] = "lens"
    #: Days of the list of shots; all where none is named.
    days: Annotated[list[Annotated[str, Field(max_length=120)]], Field(max_length=100)] = []
    #: A kit, a comparison or a shot by its name; the first where none is named.
    which: Annotated[str, Field(max_length=80)] = ""
    #: Width of the monitor's picture, millimetres.
    monitor_mm: Annotated[float, Field(gt=10, le=10_000)] = 375.0
    #: What choices for a shot are ranked by, and how they are paid for.
    ranked_by: RankedBy = "blur"
    pay: PaidBy = "hire"
    pictures: bool = True
    #: All that the production has; otherwise, where nothing is named, what the plan uses.
    everything: bool = False
    #: Who has it on paper.
    given_to: Annotated[str, Field(max_length=200)] = ""
    made: Made | None = None


class Bundle(Row):
    """Sheets that are printed together."""

    name: Name = "For the cart"
    sheets: Annotated[list[SheetPlan], Field(max_length=MOST_SHEETS)] = []


class Sheets(Part):
    """All bundles of a production."""

    schema_name: Literal["hextan.sheets"] = Field("hextan.sheets", alias="schema")
    schema_version: Literal[1] = 1
    bundles: Annotated[list[Bundle], Field(max_length=MOST_BUNDLES)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> Sheets:
        keys = [bundle.key for bundle in self.bundles]
        keys += [sheet.key for bundle in self.bundles for sheet in bundle.sheets]
        if len(set(keys)) != len(keys):
            raise ValueError("two sheets or bundles have the same key")
        return self


#: Checks sheets given as plain data.
parse_sheets = parser_of(Sheets)
