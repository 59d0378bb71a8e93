"""Text from files that people send: UTF-8, with or without its mark."""

from __future__ import annotations

import json
from typing import Any

from hextan.core.errors import Fault, InvalidInputError


def decode(data: bytes) -> str:
    """Read bytes as UTF-8.

    Raises
    ------
    InvalidInputError
        Bytes that are no UTF-8; tells how to save them.
    """
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        rule = f"is not UTF-8 text (at byte {error.start}): save it as UTF-8"
        raise InvalidInputError.of(Fault("file", "(bytes)", rule)) from None


def decode_json(data: bytes) -> Any:
    """Read bytes as JSON.

    Raises
    ------
    InvalidInputError
        Text that is no JSON; tells line and column.
    """
    try:
        return json.loads(decode(data))
    except json.JSONDecodeError as error:
        rule = f"is not valid JSON: {error.msg} in line {error.lineno}, column {error.colno}"
        raise InvalidInputError.of(Fault("file", "(text)", rule)) from None
    except RecursionError:
        raise InvalidInputError.of(Fault("file", "(text)", "is nested too deeply to be read")) from None
