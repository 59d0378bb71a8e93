"""Documents in which every field says something that is not its default: made from the models alone.

A field that is added to a model is filled, and so tested, without anybody naming it.
"""

import json
from collections.abc import Callable, Iterator
from itertools import islice
from typing import Any

from pydantic import BaseModel, ValidationError

from hextan.core.base import HextanError

WORDS = (
    "Filled",
    "x",
    "25",
    "1",
    "2 m",
    "2026-05-04",
    "2026-05-04T10:00:00Z",
    "0123456789abcdef0123456789abcdef",
    "W54",
    "00:00:01:02",
)
FIGURES = (2, 3, 1, 1.5, 0.5, 24, 50, 90, 800, 0.02, 4000, 0.9, 12)
MOST_TRIED = 60


def resolved(schema: dict[str, Any], defs: dict[str, Any]) -> dict[str, Any]:
    """A schema behind its reference."""
    while "$ref" in schema:
        schema = defs[schema["$ref"].rsplit("/", 1)[1]]
    return schema


def candidates(
    schema: dict[str, Any], defs: dict[str, Any], words: tuple[str, ...], deep: int = 0
) -> Iterator[Any]:
    """Values that may fit a schema, the plainest first."""
    schema = resolved(schema, defs)
    if deep > 4 or "const" in schema:
        return
    for several in ("anyOf", "oneOf", "allOf"):
        for each in schema.get(several, ()):
            yield from candidates(each, defs, words, deep)
    if "enum" in schema:
        yield from reversed(schema["enum"])
    kind = schema.get("type")
    if kind == "boolean":
        yield from (True, False)
    elif kind in ("integer", "number"):
        low, high = (
            schema.get("minimum", schema.get("exclusiveMinimum", -1e9)),
            schema.get("maximum", schema.get("exclusiveMaximum", 1e9)),
        )
        for value in (*FIGURES, low + 1, (low + high) / 2, -1):
            if low <= value <= high:
                yield int(value) if kind == "integer" else value
    elif kind == "string":
        yield from words
    elif kind == "array":
        if "prefixItems" in schema:
            yield [next(candidates(each, defs, words, deep + 1), None) for each in schema["prefixItems"]]
        for n in {max(1, schema.get("minItems", 1)), 2}:
            yield from ([value] * n for value in candidates(schema.get("items", {}), defs, words, deep + 1))
    elif kind == "object":
        properties = schema.get("properties", {})
        if properties:
            # Fields that refer to a row do so by its key.
            for word in words[len(WORDS) :]:
                yield {
                    name: next(candidates(properties[name], defs, (word,), deep + 1), None)
                    for name in schema.get("required", ())
                }
            for wanted in (schema.get("required", ()), properties):
                yield {
                    name: next(candidates(properties[name], defs, words, deep + 1), None)
                    for name in wanted
                    if "const" not in properties[name]
                }
        for value in (
            candidates(more, defs, words, deep + 1)
            if isinstance(more := schema.get("additionalProperties"), dict)
            else ()
        ):
            yield from ({word: value} for word in words)


def keys_of(plain: Any) -> Iterator[str]:
    """The keys and names of rows: other fields may refer to them."""
    if isinstance(plain, dict):
        yield from (plain[name] for name in ("key", "name") if isinstance(plain.get(name), str))
        for value in plain.values():
            yield from keys_of(value)
    elif isinstance(plain, list):
        for value in plain:
            yield from keys_of(value)


def spots(
    model: BaseModel, path: tuple[Any, ...] = ()
) -> Iterator[tuple[tuple[Any, ...], str, type[BaseModel]]]:
    """Every field of every part of a document: its path as JSON has it, its name, and the model."""
    for name, info in type(model).model_fields.items():
        at = (*path, info.alias or name)
        yield at, name, type(model)
        value = getattr(model, name)
        items = (
            enumerate(value)
            if isinstance(value, list | tuple)
            else value.items()
            if isinstance(value, dict)
            else [(None, value)]
        )
        for step, item in items:
            if isinstance(item, BaseModel):
                yield from spots(item, at if step is None else (*at, step))


def got(plain: Any, path: tuple[Any, ...]) -> Any:
    """The value at a path."""
    for step in path:
        plain = plain[step]
    return plain


def filled(
    model: BaseModel, hints: dict[str, Any], parse: Callable[[Any], BaseModel] | None = None
) -> tuple[BaseModel, set[str]]:
    """Fill every field that still says its default.

    Parameters
    ----------
    model : a document to begin with, valid
    parse : reads the whole document, and refuses what does not hold; the model's own validation without
    hints : values for fields (``Model.field``) that take no plain one

    Returns
    -------
    The document, and the names of fields (``Model.field``) for which nothing was found that fits.
    """
    parse = parse or type(model).model_validate
    left: set[str] = set()
    done: set[tuple[Any, ...]] = set()
    progress = True
    while progress:
        progress, left = False, set()
        for path, name, part in spots(model):
            info = part.model_fields[name]
            plain = model.model_dump(mode="json")
            before = got(plain, path)
            default = (
                json.loads(json.dumps(info.get_default(call_default_factory=True), default=_plain))
                if not info.is_required()
                else None
            )
            if path in done or (before != default and before not in (None, [], {}, "")):
                continue
            schema = part.model_json_schema()
            of = schema["properties"].get(info.alias or name, {})
            words = (*dict.fromkeys((*WORDS, *keys_of(plain))),)
            hint = hints.get(f"{part.__name__}.{name}")
            tried = (
                [hint]
                if hint is not None
                else islice(candidates(of, schema.get("$defs", {}), words), MOST_TRIED)
            )
            for value in tried:
                target = got(plain, path[:-1])
                target[path[-1]] = value
                try:
                    after = parse(plain)
                    now = got(after.model_dump(mode="json"), path)
                except (ValidationError, HextanError, ValueError, KeyError, IndexError, TypeError):
                    now = before
                if now != before:
                    model, progress = after, True
                    done.add(path)
                    break
                target[path[-1]] = before
            else:
                if "const" not in of:
                    left.add(f"{part.__name__}.{name}")
            if path not in done and "const" not in of and before == default:
                left.add(f"{part.__name__}.{name}")
            if progress and path in done:
                # Paths may have changed.
                break
    return model, left


def _plain(value: Any) -> Any:
    return (
        value.model_dump(mode="json")
        if isinstance(value, BaseModel)
        else list(value)
        if isinstance(value, set | frozenset | tuple)
        else str(value)
    )
