"""Units of length, in one place: the core counts in millimetres; metres and micrometres come in and go out."""

from __future__ import annotations

from typing import TypeVar

from hextan.core.base.numbers import Floats

N = TypeVar("N", float, Floats)


def mm_from_m(metres: N) -> N:
    """Millimetres on the way in.

    >>> mm_from_m(2.5)
    2500.0
    """
    return metres * 1000.0


def m_from_mm(mm: N) -> N:
    """Metres on the way out.

    >>> m_from_mm(2500.0)
    2.5
    """
    return mm / 1000.0


def mm_from_um(um: N) -> N:
    """Millimetres of a pitch.

    >>> mm_from_um(6.0)
    0.006
    """
    return um / 1000.0


def um_from_mm(mm: N) -> N:
    """Micrometres on the way out.

    >>> um_from_mm(0.025)
    25.0
    """
    return mm * 1000.0
