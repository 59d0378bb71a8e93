"""What the documents of equipment are made of: rows with keys, names, and origins of their figures."""

from __future__ import annotations

from functools import lru_cache
from typing import Annotated, Literal, TypeAlias
from uuid import uuid4

import numpy as np
from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from hextan.core.base.errors import InvalidInputError
from hextan.core.base.rates import parse_span


def _one_line(text: str) -> str:
    told = text.strip()
    if not told.isprintable():
        raise ValueError("must be one line of text")
    return told


@lru_cache(maxsize=4096)
def _exact(text: str) -> str:
    try:
        return parse_span(text).text()
    except InvalidInputError as error:
        raise ValueError(error.faults[0].rule) from None


def _a_day(text: str) -> str:
    if text and np.isnat(np.datetime64(text)):
        raise ValueError("must be a day like 2026-05-18")
    return text


Name: TypeAlias = Annotated[str, Field(max_length=80), AfterValidator(_one_line), Field(min_length=1)]
Note: TypeAlias = Annotated[str, Field(max_length=400), AfterValidator(_one_line)]
#: An ISO day, or nothing where it is not known.
Day: TypeAlias = Annotated[str, Field(pattern=r"^(\d{4}-\d{2}-\d{2})?$"), AfterValidator(_a_day)]
Key: TypeAlias = Annotated[str, Field(pattern=r"^[0-9A-Za-z_-]{1,40}$")]
RateText: TypeAlias = Annotated[str, Field(max_length=60), AfterValidator(_exact)]


def new_key() -> str:
    """Make a key: it stays with a row through copies, imports and undo."""
    return uuid4().hex


class Part(BaseModel):
    """Base of the document's parts: strict, without unknown keys."""

    model_config = ConfigDict(
        strict=True, extra="forbid", allow_inf_nan=False, json_schema_serialization_defaults_required=True
    )


class Origin(Part):
    """Where a figure comes from."""

    kind: Literal["claimed", "computed", "measured", "assumed"] = "claimed"
    source: Note = ""
    date: Day = ""
    firmware: Note = ""


class Row(Part):
    """A row of the document that can be told from others."""

    key: Key = Field(default_factory=new_key)
    name: Name
    #: Origins of single figures by field; the others have the body's.
    origins: dict[Annotated[str, Field(max_length=40)], Origin] = {}
