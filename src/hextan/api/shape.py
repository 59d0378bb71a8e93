"""The bases of what the API alone knows: what is written, what is kept, and lists."""

from __future__ import annotations

from typing import Generic, TypeVar

from pydantic import BaseModel, ConfigDict

T = TypeVar("T")


class Shape(BaseModel):
    """All keys are known, and always there."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)


class Listed(Shape, Generic[T]):
    """Every list has this shape: what is here, and what was taken out and can be brought back."""

    here: list[T]
    removed: list[T] = []
