"""The OpenAPI document as it is served: names without the library's endings, and the public evaluation's request."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from hextan.api.words import meaning
from hextan.core.evaluation import EvaluationRequest

REF = "#/components/schemas/"


def described(document: dict[str, Any]) -> dict[str, Any]:
    """Finish the document that the library makes.

    What comes back has its plain name; what goes in and may leave defaults out, where that is another shape, ends in
    `In`.
    """
    document = _renamed(document, _plain_name)
    schemas = document["components"]["schemas"]
    # The endpoint of the public evaluation reads its body itself.
    request = EvaluationRequest.model_json_schema(ref_template=f"{REF}{{model}}")
    parts = request.pop("$defs", {})
    given = {f"{REF}{name}": f"{REF}{name}In" for name in parts if f"{name}In" in schemas}
    added = {name: part for name, part in parts.items() if f"{name}In" not in schemas}
    schemas |= _renamed({**added, "EvaluationRequest": request}, lambda text: given.get(text, text))
    for schema in schemas.values():
        for name, part in schema.get("properties", {}).items():
            part.setdefault("description", meaning(name))
    return document


def _plain_name(text: str) -> str:
    """Take off the library's endings.

    >>> _plain_name(f"{REF}Light-Output"), _plain_name("Light-Input"), _plain_name(f"{REF}Stale_BodyWrite_")
    ('#/components/schemas/Light', 'LightIn', '#/components/schemas/StaleBodyWrite')
    """
    text = re.sub(r"-Output$", "", re.sub(r"-Input$", "In", text))
    return re.sub(r"(\w+?)_(\w+)_$", r"\1\2", text)


def _renamed(value: Any, name: Callable[[str], str]) -> Any:
    """Give schemas other names, wherever they are named: keys of `schemas`, and references."""
    if isinstance(value, dict):
        return {
            (name(key) if _names_a_schema(key, item) else key): (
                name(item) if key == "$ref" else _renamed(item, name)
            )
            for key, item in value.items()
        }
    if isinstance(value, list):
        return [_renamed(item, name) for item in value]
    return name(value) if isinstance(value, str) and value.startswith(REF) else value


def _names_a_schema(key: str, item: Any) -> bool:
    return (
        isinstance(item, dict)
        and ("properties" in item or "type" in item or "anyOf" in item)
        and key != "schema"
    )
