"""What comes in, checked: figures with their bounds, and what is wrong told in our words."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Annotated, Any, Protocol, TypeAlias, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from hextan.core.base.errors import Fault, InvalidInputError
from hextan.core.base.typed import either_way, one_or_two

#: Bounds beyond which a figure is a slip of the pen, not a camera.
Millimetres: TypeAlias = Annotated[float, Field(gt=0, le=1000)]
FocalMm: TypeAlias = Annotated[float, Field(gt=0.5, le=5000)]
Stop: TypeAlias = Annotated[float, Field(ge=0.3, le=256)]
Metres: TypeAlias = Annotated[float, Field(gt=0, le=1_000_000)]
Count: TypeAlias = Annotated[int, Field(ge=1, le=100_000)]
Pair: TypeAlias = Annotated[list[Count], Field(min_length=2, max_length=2)]
Fps: TypeAlias = Annotated[float, Field(gt=0, le=1_000_000)]
Squeeze: TypeAlias = Annotated[float, Field(ge=0.5, le=4)]
#: What a row goes by: a number that stays with it.
Id: TypeAlias = Annotated[int, Field(ge=1, le=2**53)]


class Strict(BaseModel):
    """Base of the format's parts: no unknown keys, no text for numbers, no NaN, no changes."""

    model_config = ConfigDict(
        strict=True,
        extra="forbid",
        frozen=True,
        allow_inf_nan=False,
        json_schema_serialization_defaults_required=True,
    )


class Complaint(Protocol):
    """What a validation error of the library, or of the web framework, has in common."""

    def errors(self) -> Sequence[Any]:
        """List what is wrong."""
        ...


M = TypeVar("M", bound=BaseModel)
Read_co = TypeVar("Read_co", bound=BaseModel, covariant=True)


def parse_as(model: type[M], data: Any, field: str = "") -> M:
    """Check plain data.

    Parameters
    ----------
    field : what stands before the path of each fault

    Raises
    ------
    InvalidInputError
        Names each field that breaks a rule.
    """
    try:
        return model.model_validate(data)
    except ValidationError as error:
        raise InvalidInputError.of(*faults_of(error, field)) from None


class Parser(Protocol[Read_co]):
    """Checks plain data; `field` stands before the path of each fault. Raises InvalidInputError, which names each."""

    def __call__(self, data: Any, field: str | None = None) -> Read_co:
        """Check."""
        ...


def parser_of(model: type[M], field: str = "", then: Callable[[M, str], object] | None = None) -> Parser[M]:
    """What checks the plain data of a model.

    Parameters
    ----------
    field : what stands before the path of each fault, where the caller says nothing else
    then : refuses what must not be combined, though each part of it is well formed; is given the path as well
    """

    first = field

    def parse(data: Any, field: str | None = None) -> M:
        at = first if field is None else field
        read = parse_as(model, data, at)
        if then is not None:
            then(read, at)
        return read

    return parse


def faults_of(error: Complaint, prefix: str = "", skip: tuple[str, ...] = ()) -> list[Fault]:
    """Turn what the validation library says into our faults, in our words.

    Parameters
    ----------
    prefix : put before every path
    skip : first steps of a path that say nothing to the user
    """
    faults = []
    for item in error.errors():
        steps = tuple(item["loc"])
        steps = steps[1:] if steps and steps[0] in skip else steps
        kind = item["type"]
        if kind == "too_short" and isinstance(item.get("input"), str):
            kind = "string_too_short"
        given = item.get("input")
        # A comma that may be either is asked about, and neither dropped nor guessed at.
        typed = _asked(given, steps) if isinstance(given, str) and kind in _NO_NUMBER else None
        rule = typed or _rule(kind, item.get("ctx"), item["msg"])
        faults.append(Fault(_path(steps, prefix), item.get("input"), rule))
    return faults


def _path(loc: tuple[int | str, ...], prefix: str) -> str:
    path = prefix
    for depth, step in enumerate(loc):
        if isinstance(step, int):
            path += f"[{step}]"
        # The library names a key of a dictionary and says beside it that the key is meant.
        elif step == "[key]":
            continue
        # The library names which of several kinds was chosen; the field lies directly in `coc`, or in the `entry`.
        elif not (depth and loc[depth - 1] in ("coc", "entry")):
            path += f".{step}" if path else step
    return path or "request"


#: What the library says of text where a number belongs.
_NO_NUMBER = {"float_type", "float_parsing", "int_type", "int_parsing", "int_from_float"}


def _asked(given: str, steps: Sequence[str | int]) -> str | None:
    """What has to be asked of a figure with a comma: in a list it may be two."""
    return one_or_two(given) if steps and isinstance(steps[-1], int) else either_way(given)


#: The library's error types in our words; `{}` names come from its context.
_RULES: dict[str, str] = {
    "missing": "is required",
    "extra_forbidden": "is not a key of this format",
    "greater_than": "must be greater than {gt:g}",
    "greater_than_equal": "must be at least {ge:g}",
    "less_than": "must be less than {lt:g}",
    "less_than_equal": "must be at most {le:g}",
    "finite_number": "must be a finite number",
    "float_type": "must be a number",
    "int_type": "must be a whole number",
    "int_from_float": "must be a whole number",
    "bool_type": "must be true or false",
    "string_type": "must be text",
    "list_type": "must be a list",
    "int_parsing": "must be a whole number",
    "int_parsing_size": "is too large a number",
    "float_parsing": "must be a number",
    "bool_parsing": "must be true or false",
    "string_pattern_mismatch": "has characters that do not go here (it has to match {pattern})",
    "string_unicode": "must be text that can be written",
    "none_required": "must be null",
    "dict_attributes_type": "must be an object with named fields",
    "invalid_key": "must have text as the names of its fields",
    "tuple_type": "must be a list",
    "bytes_type": "must be a file",
    "mapping_type": "must be an object with named fields",
    "iterable_type": "must be a list",
    "recursion_loop": "is nested in itself",
    "recursion_depth_exceeded": "is nested too deeply",
    "json_type": "must be JSON",
    "frozen_dict_type": "must be an object with named fields",
    "set_type": "must be a list",
    "too_short": "must have at least {min_length} entries",
    "too_long": "must have at most {max_length} entries",
    "string_too_short": "must have at least {min_length} characters",
    "string_too_long": "must have at most {max_length} characters",
    "literal_error": "must be one of {expected}",
    "dict_type": "must be an object with named fields",
    "model_type": "must be an object with named fields",
    "model_attributes_type": "must be an object with named fields",
    "union_tag_invalid": "the rule must be one of {expected_tags}",
    "union_tag_not_found": "must name its rule",
    "json_invalid": "is not valid JSON ({error})",
    "value_error": "{error}",
}


def _rule(kind: str, context: dict[str, Any] | None, message: str) -> str:
    told = _RULES.get(kind)
    return message if told is None else told.format(**(context or {}))
