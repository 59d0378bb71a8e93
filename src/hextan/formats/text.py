"""Text from files that people send: UTF-8, with or without its mark."""

from __future__ import annotations

import json
import re
from typing import Any

from hextan.core.base import Fault, InvalidInputError

#: What JSON can say and no text can hold: half of a pair of surrogates.
_SUSPECT = re.compile(rb"\\u[dD][89a-fA-F]")
_PAIR = re.compile(rb"\\u[dD][89abAB][0-9a-fA-F]{2}\\u[dD][c-fC-F][0-9a-fA-F]{2}")
_HALF = re.compile(rb"\\u[dD][89a-fA-F][0-9a-fA-F]{2}")


def refuse_what_is_no_text(body: bytes) -> None:
    """Refuse JSON with escapes that stand for no character.

    Raises
    ------
    InvalidInputError
        Half of a surrogate pair, anywhere in the body.

    >>> refuse_what_is_no_text(b'{"name": "\\\\ud83d\\\\ude00"}')
    >>> refuse_what_is_no_text(b'{"name": "\\\\ud83d"}')
    Traceback (most recent call last):
    ...
    hextan.core.base.errors.InvalidInputError: request: holds an escape that stands for no character (given: '\\\\ud83d').
    """
    if not _SUSPECT.search(body):
        return
    # Pairs stand for one character, and a doubled backslash for itself; what is left of them is none.
    found = _HALF.search(_PAIR.sub(b"", body.replace(rb"\\", b"")))
    if found is not None:
        rule = "holds an escape that stands for no character"
        raise InvalidInputError.of(Fault("request", found[0].decode(), rule))


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
        text = decode(data)
        refuse_what_is_no_text(data)
        return json.loads(text)
    except json.JSONDecodeError as error:
        rule = f"is not valid JSON: {error.msg} in line {error.lineno}, column {error.colno}"
        raise InvalidInputError.of(Fault("file", "(text)", rule)) from None
    except RecursionError:
        raise InvalidInputError.of(Fault("file", "(text)", "is nested too deeply to be read")) from None
    except ValueError:
        # What is well formed and still not read: numbers of thousands of digits.
        rule = "holds a number of more digits than can be read"
        raise InvalidInputError.of(Fault("file", "(text)", rule)) from None
