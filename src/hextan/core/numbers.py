"""The array types of the core, and the two checks that every public formula makes."""

from __future__ import annotations

from typing import Any, TypeAlias

import numpy as np
from numpy.typing import NDArray

from hextan.core.errors import Fault, InvalidInputError

Floats: TypeAlias = NDArray[np.float64]
Flags: TypeAlias = NDArray[np.bool_]
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
    hextan.core.errors.InvalidInputError: focal_mm: must be a finite number above zero (given: -1.0).
    """
    faults = [
        Fault(name, _first(values, good), "must be a finite number above zero")
        for name, values in quantities.items()
        if not (good := (np.asarray(values) > 0) & (np.asarray(values) < np.inf)).all()
    ]
    if faults:
        raise InvalidInputError.of(*faults)


def _first(values: Any, good: NDArray[np.bool_]) -> float:
    return float(np.asarray(values, dtype=float)[~good].flat[0])
