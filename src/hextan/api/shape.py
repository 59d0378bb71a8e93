"""The bases of what the API alone knows: what is written, what is kept, and lists."""

from __future__ import annotations

from typing import Annotated, Generic, TypeAlias, TypeVar

from pydantic import BaseModel, ConfigDict, Field

T = TypeVar("T")
#: Of what is kept: 0 where nothing was kept yet.
Version: TypeAlias = Annotated[int, Field(ge=0, le=2**53)]


class Shape(BaseModel):
    """All keys are known, and always there."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)


class Listed(Shape, Generic[T]):
    """Every list has this shape: what is here, and what was taken out and can be brought back."""

    here: list[T]
    removed: list[T] = []
