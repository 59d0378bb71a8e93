"""Arithmetic that goes wrong is a fault, not a line on the terminal."""

from __future__ import annotations

import warnings


def refuse_bad_arithmetic() -> None:
    """Let a division by zero, an overflow or a NaN out of nothing raise `RuntimeWarning` where it happens.

    Every door calls it once (API, command line, searches in processes of their own), so that what the tests refuse is refused
    at work as well. Where an infinite or undefined figure is meant, the code says so with ``np.errstate``.
    """
    warnings.filterwarnings("error", category=RuntimeWarning, module=r"(hextan|numpy)\b")
