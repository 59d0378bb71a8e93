"""Every error that Hextan raises on purpose, in one tree.

The core knows nothing of HTTP; `hextan.api.errors` maps this tree to status codes.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, NotRequired, Self

from pydantic import JsonValue
from typing_extensions import TypedDict

#: Whole numbers with more bits are not written out.
_WORD = 63
#: So many faults are told; of the rest their number.
MOST_FAULTS = 100


class FaultBody(TypedDict):
    """One thing that is wrong."""

    field: str
    value: JsonValue
    rule: str


class ErrorBody(TypedDict):
    """What went wrong. `more` counts the faults that are not told."""

    code: str
    message: str
    faults: list[FaultBody]
    more: NotRequired[int]


class StaleBody(ErrorBody):
    """A write that is based on an old version: what was given, and what is stored."""

    given: JsonValue
    stored: JsonValue


class ErrorAnswer(TypedDict):
    """The body of every error."""

    error: ErrorBody


@dataclass(frozen=True)
class Fault:
    """One thing that is wrong: where it stands, what was given and which rule it breaks."""

    field: str
    value: Any
    rule: str

    def sentence(self) -> str:
        """Say the fault in a sentence that names field, value and rule."""
        return f"{self.field}: {self.rule} (given: {shown(self.value)})."

    def as_dict(self) -> FaultBody:
        """Give the fault as JSON-ready data."""
        return {"field": self.field, "value": plain(self.value), "rule": self.rule}


def shown(value: Any) -> str:
    """Write a value for a message, cut when it is long.

    >>> shown("x" * 100)
    "'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx…"
    """
    text = repr(plain(value)) if isinstance(value, int) else repr(value)
    return text if len(text) <= 40 else text[:39] + "…"


def plain(value: Any) -> JsonValue:
    """Turn a value into something JSON can carry (NaN and infinity become text)."""
    if isinstance(value, float) and not math.isfinite(value):
        return repr(value)
    if isinstance(value, int) and value.bit_length() > _WORD:
        return f"a whole number of about {int(value.bit_length() * math.log10(2)) + 1} digits"
    if value is None or isinstance(value, bool | int | float):
        return value
    if isinstance(value, str):
        return value if len(value) <= 200 else value[:199] + "…"
    return shown(value)


class HextanError(Exception):
    """Base of all errors that are told to the user."""

    code = "error"

    def __init__(self, message: str, faults: tuple[Fault, ...] = (), more: int = 0) -> None:
        super().__init__(message)
        self.message = message
        self.faults = faults[:MOST_FAULTS]
        #: How many faults there are besides those that are told.
        self.more = more + max(0, len(faults) - MOST_FAULTS)

    def as_dict(self) -> ErrorBody:
        """Give the structured body: code, message and the faults by field."""
        told: ErrorBody = {
            "code": self.code,
            "message": self.message,
            "faults": [fault.as_dict() for fault in self.faults],
        }
        if self.more:
            told["more"] = self.more
        return told


class InvalidInputError(HextanError):
    """Something given is malformed, out of bounds or contradicts itself."""

    code = "invalid_input"

    @classmethod
    def of(cls, *faults: Fault, more: int = 0) -> Self:
        """Build the error from its faults; the message tells all of them (at most five).

        Parameters
        ----------
        more : how many there are besides those that are given
        """
        told = " ".join(fault.sentence() for fault in faults[:5])
        rest = len(faults) + more - min(5, len(faults))
        if rest:
            told += f" And {rest} more."
        return cls(told, faults, more)

    @classmethod
    def plainly(cls, *faults: Fault) -> Self:
        """Build the error from faults whose rules are whole sentences: the message goes without fields and values."""
        told = ". ".join(f"{fault.rule[0].upper()}{fault.rule[1:]}" for fault in faults[:5])
        return cls(f"{told}.", faults)


def no_longer_here(what: str, field: str, value: Any) -> Fault:
    """Something that the production does not have, or no longer.

    >>> no_longer_here("lens", "state.lens_id", 7).rule
    'the lens is no longer in this production: choose another'
    """
    return Fault(field, value, f"the {what} is no longer in this production: choose another")


class InconsistentError(InvalidInputError):
    """Every part is well formed, but they do not go together: all such faults are told at once."""

    code = "inconsistent"


class CannotFocusError(HextanError):
    """No image can be formed at this distance with this focal length."""

    code = "cannot_focus"


class NotFoundError(HextanError):
    """A thing that was asked for does not exist (any more)."""

    code = "not_found"


class RemovedError(NotFoundError):
    """A production that was put away: it is neither read nor written until somebody brings it back."""

    code = "removed"

    def __init__(self) -> None:
        super().__init__("This production was removed. Bring it back from the list of productions.")


class NothingYetError(NotFoundError):
    """A production has no recording format or no lens yet, so that there is nothing to compute."""

    code = "nothing_yet"

    def __init__(self) -> None:
        super().__init__(
            "This production has no recording format or no lens yet: enter a body and a lens first."
        )


class BusyError(HextanError):
    """The server has too much to do at the moment: the same may be asked again in a while."""

    code = "busy"

    def __init__(self, message: str, before: int = 0) -> None:
        super().__init__(f"{message} Try again in a few seconds.")
        #: How many are before this one.
        self.before = before

    @property
    def again_after_s(self) -> int:
        """When it is worth asking again, seconds."""
        return 1 + min(self.before, 20)


class FullError(HextanError):
    """There is no room left to write to."""

    code = "disk_full"

    def __init__(self) -> None:
        super().__init__(
            "The disk of the server is full: nothing was changed. Make room on it, then try again."
        )


class StaleWriteError(HextanError):
    """A write was based on a version that is no longer the newest; both versions are told."""

    code = "stale_write"

    def __init__(self, message: str, *, given: Any, stored: Any) -> None:
        super().__init__(message)
        self.given = given
        self.stored = stored

    def as_dict(self) -> StaleBody:
        """Give the structured body with both versions, so that nothing is lost."""
        return {**super().as_dict(), "given": self.given, "stored": self.stored}
