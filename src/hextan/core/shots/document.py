"""The list of shots as a document: each shot's cells as they were typed, so that nothing of them is lost."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias, get_args
from unicodedata import category

from pydantic import AfterValidator, ConfigDict, Field, model_validator

from hextan.core.base import Key, Part, Row, Schema, parser_of
from hextan.core.equipment import Pin

SHOTS_SCHEMA = Schema("hextan.shots", 1)
MOST_SHOTS = 2000


def _printable(text: str) -> str:
    if any(category(c) in ("Cc", "Cs") and c not in "\n\t" for c in text):
        raise ValueError("must be text, without control characters")
    return text


Cell: TypeAlias = Annotated[str, Field(max_length=120), AfterValidator(_printable)]
#: What a shot can need (`rows.py`): each is a must, or a wish with a weight.
NeedName = Literal["framing", "distance", "room", "speed", "deliveries", "hold", "background", "stop", "light",
                   "picture", "nearest", "rig", "look", "body", "glass"]  # fmt: skip
NEEDS: tuple[NeedName, ...] = get_args(NeedName)


class Noted(Part):
    """An answer that was taken note of, and of what it was one: later on, what changed is told."""

    verdict: Literal["does", "depends", "nearly", "cannot", "open"]
    told: Annotated[str, Field(max_length=400)]
    #: A fingerprint of the cells that were asked.
    asked: Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]


class Shot(Row):
    """A shot: its number is its name. Cells hold what was typed; `core.shots.needs` reads them."""

    scene: Cell = ""
    #: Who or what is seen, and how tall it is (1.7 m where nobody says).
    what: Cell = ""
    height: Cell = ""
    day: Cell = ""
    unit: Cell = ""
    notes: Annotated[str, Field(max_length=2000), AfterValidator(_printable)] = ""
    framing: Cell = ""
    distance: Cell = ""
    #: From the subject to the wall behind the camera.
    room: Cell = ""
    speed: Cell = ""
    deliveries: Cell = ""
    hold: Cell = ""
    background: Cell = ""
    stop: Cell = ""
    light: Cell = ""
    lamps: Cell = ""
    picture: Cell = ""
    #: Not nearer than this, for the sake of the perspective.
    nearest: Cell = ""
    rig: Cell = ""
    look: Cell = ""
    body: Cell = ""
    #: The lens that is asked for.
    glass: Cell = ""
    #: The distance that whoever is responsible for safety has set, and who that is.
    keep_out: Cell = ""
    keep_out_by: Cell = ""
    #: Needs that are wishes, with their weights; all others are musts.
    wishes: dict[NeedName, Annotated[float, Field(gt=0, le=10)]] = {}
    pin: Pin | None = None
    #: Columns of a file that Hextan does not know: they go back as they came.
    extra: dict[Annotated[str, Field(max_length=120)], Annotated[str, Field(max_length=8000)]] = {}


class ShotList(Part):
    """All shots of a production in their order."""

    schema_name: Literal["hextan.shots"] = Field("hextan.shots", alias="schema")
    schema_version: Literal[1] = 1
    shots: Annotated[list[Shot], Field(max_length=MOST_SHOTS)] = []
    #: What the columns of the file it came from are, by their titles: a field, or nothing for one that is kept as it is.
    columns: dict[Annotated[str, Field(max_length=120)], Annotated[str, Field(max_length=40)]] = {}
    #: By the key of a shot.
    noted: dict[Key, Noted] = {}

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> ShotList:
        keys = [shot.key for shot in self.shots]
        if len(set(keys)) != len(keys):
            raise ValueError("two shots have the same key")
        return self


#: Checks a list given as plain data.
parse_shots = parser_of(ShotList)
