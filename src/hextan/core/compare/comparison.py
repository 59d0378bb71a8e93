"""A comparison as a document: two to four set-ups, each a full chain, that share scene, delivery and light."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import (
    Key,
    Name,
    Note,
    Part,
    Schema,
    new_key,
    parser_of,
)
from hextan.core.bench import BenchState, LensUp, Scene
from hextan.core.evaluation import BenchDelivery, BenchReference, Coc
from hextan.core.light import ExposureIndex, Light, Lux, Nd

#: As set; or the three ways in which formats are compared, each by itself.
Case: TypeAlias = Literal["as_set", "same_place", "moved", "other_lens"]
CASES: dict[Case, str] = {
    "as_set": "as set",
    "same_place": "same lens, same place",
    "moved": "same framing, by moving",
    "other_lens": "same framing, by another lens",
}
MOST_COLUMNS = 4


class Column(LensUp):
    """A set-up. Distances in metres from its own sensor plane."""

    key: Key = Field(default_factory=new_key)
    #: How it is called; the body's name without.
    label: Note = ""
    shutter_deg: Annotated[float, Field(gt=0, le=360)] = 180.0
    ei: ExposureIndex | None = None
    nd_stops: Nd = 0.0
    #: What was trimmed by eye, and why.
    trim_stops: Annotated[float, Field(ge=-20, le=20)] = 0.0
    trim_width_percent: Annotated[float, Field(ge=-90, le=900)] = 0.0
    trim_note: Note = ""


COMPARISON_SCHEMA = Schema("hextan.comparison", 1)


class Comparison(Part):
    """Set-ups side by side. One of them, the master, is what the others are held against and matched to."""

    schema_name: Literal["hextan.comparison"] = Field("hextan.comparison", alias="schema")
    schema_version: Literal[1] = 1
    name: Name = "Comparison"
    case: Case = "as_set"
    columns: Annotated[list[Column], Field(min_length=1, max_length=MOST_COLUMNS)]
    #: The master's key; the first set-up without.
    master: Key | None = None
    #: How far the field of a lens may be off to be offered as a match, per cent of the width.
    within_percent: Annotated[float, Field(gt=0, le=100)] = 10.0
    delivery: BenchDelivery = BenchDelivery()
    #: The production's where none is named.
    reference: BenchReference | None = None
    coc: Coc | None = None
    #: Where things stand as the first set-up's camera sees them.
    scene: Scene = Scene()
    lux: Lux = 100.0
    unit: Literal["m", "ft"] = "m"

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> Comparison:
        keys = [column.key for column in self.columns]
        if len(set(keys)) != len(keys):
            raise ValueError("two columns have the same key")
        if self.master is not None and self.master not in keys:
            raise ValueError("the master is none of the set-ups")
        return self

    @property
    def master_index(self) -> int:
        """Where the master stands among the set-ups."""
        return next((i for i, column in enumerate(self.columns) if column.key == self.master), 0)

    def state_of(self, column: Column) -> BenchState:
        """The Bench that a column stands for."""
        light = Light(ei=column.ei, nd_stops=column.nd_stops, shutter_deg=column.shutter_deg, lux=self.lux)
        return BenchState(
            format_id=column.format_id,
            lens_id=column.lens_id,
            adapter_id=column.adapter_id,
            second_adapter_id=column.second_adapter_id,
            focal_mm=column.focal_mm,
            stop=column.stop,
            subject_m=column.subject_m,
            focus_m=column.focus_m,
            fps=column.fps,
            crop_ids=column.crop_ids,
            delivery=self.delivery,
            reference=self.reference,
            coc=self.coc,
            scene=self.scene,
            light=light,
            unit=self.unit,
        )


def letter_of(index: int) -> str:
    """What a set-up is called by its place."""
    return "ABCD"[index]


#: Checks a comparison given as plain data.
parse_comparison = parser_of(Comparison, "document")
