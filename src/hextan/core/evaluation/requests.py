"""The public evaluation: JSON or plain data in, plain data out.

`evaluate` is the door for Python; the endpoint and the command go through it as well, so that the
three agree to the last digit.
"""

from __future__ import annotations

from typing import Any, overload

import pydantic_core

from hextan.core.base import ErrorAnswer, Fault, HextanError, InvalidInputError
from hextan.core.evaluation.answer import answer_of
from hextan.core.evaluation.answers import EvaluationAnswer
from hextan.core.evaluation.computation import compute
from hextan.core.evaluation.contract import parse_request

#: How many requests one call may hold.
MOST_REQUESTS = 2000


@overload
def evaluate(data: dict[str, Any]) -> EvaluationAnswer: ...
@overload
def evaluate(data: list[Any]) -> list[EvaluationAnswer | ErrorAnswer]: ...
@overload
def evaluate(data: bytes | str) -> EvaluationAnswer | list[EvaluationAnswer | ErrorAnswer]: ...
def evaluate(
    data: bytes | str | dict[str, Any] | list[Any],
) -> EvaluationAnswer | list[EvaluationAnswer | ErrorAnswer]:
    """Answer a request, or a list of requests, of the public evaluation format.

    Parameters
    ----------
    data : plain data, or JSON as bytes or text. A list gives a list of answers in the same order; a
        bad request among them gives ``{"error": {...}}`` in its place.

    Returns
    -------
    Plain data, ready for JSON: infinities and unknowns are None.

    Raises
    ------
    InvalidInputError
        A single request that breaks a rule; names field, value and rule.
    CannotFocusError
        A single request with a distance at which the lens forms no image.

    >>> window = {"width_mm": 36, "height_mm": 24}
    >>> answer = evaluate({"lens": {"focal_mm": 50}, "formats": [{"window": window}]})
    >>> round(answer["formats"][0]["angle_deg"]["horizontal"], 3)
    39.598
    """
    if isinstance(data, bytes | str):
        if data.lstrip()[:1] not in (b"[", "["):
            return answer_of(compute(parse_request(data)))
        data = _parse_list(data)
    if isinstance(data, list):
        return [_answer_or_error(item) for item in data]
    return answer_of(compute(parse_request(data)))


def _parse_list(text: bytes | str) -> list[Any]:
    try:
        data = pydantic_core.from_json(text)
    except ValueError as error:
        fault = Fault("request", "(text)", f"is not valid JSON ({error})")
        raise InvalidInputError.of(fault) from None
    if len(data) > MOST_REQUESTS:
        raise InvalidInputError.of(
            Fault("request", len(data), f"at most {MOST_REQUESTS} requests in one list")
        )
    return list(data)


def _answer_or_error(item: Any) -> EvaluationAnswer | ErrorAnswer:
    try:
        return answer_of(compute(parse_request(item)))
    except HextanError as error:
        return {"error": error.as_dict()}
