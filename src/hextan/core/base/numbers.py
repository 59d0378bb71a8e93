"""The array types of the core, and the two checks that every public formula makes."""

from __future__ import annotations

import math
from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from hextan.core.base.errors import Fault, InvalidInputError

Floats: TypeAlias = NDArray[np.float64]
Flags: TypeAlias = NDArray[np.bool_]
Counts: TypeAlias = NDArray[np.int_]
#: A scalar or an array of any shape; the formulas broadcast.
Real: TypeAlias = float | Floats | np.float64


def positive(**quantities: Real) -> None:
    """Refuse zero, negative, NaN and infinite quantities.

    Raises
    ------
    InvalidInputError
        Names each quantity that breaks the rule, with its first offending value.

    >>> positive(focal_mm=50.0, f_number=2.8)
    >>> positive(focal_mm=-1.0)
    Traceback (most recent call last):
    ...
    hextan.core.base.errors.InvalidInputError: focal_mm: must be a finite number above zero (given: -1.0).
    """
    for values in quantities.values():
        # NaN compares false, so it fails as well.
        good = 0 < values < math.inf if isinstance(values, float) else _all_positive(np.asarray(values))
        if not good:
            told = [_fault(n, v) for n, v in quantities.items()]
            raise InvalidInputError.of(*(fault for fault in told if fault))


def _all_positive(values: Floats) -> bool:
    return bool(((values > 0) & (values < math.inf)).all())


def _fault(name: str, values: Real) -> Fault | None:
    array = np.asarray(values, dtype=float)
    bad = ~((array > 0) & (array < math.inf))
    return Fault(name, float(array[bad].flat[0]), "must be a finite number above zero") if bad.any() else None
