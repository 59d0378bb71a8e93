"""Standard output for answers alone: what a library of another language prints goes nowhere."""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def quiet() -> Iterator[int]:
    """Let file descriptor 1 lead nowhere for a while; gives a descriptor of the real standard output."""
    sys.stdout.flush()
    real, nowhere = os.dup(1), os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, 1)
    os.close(nowhere)
    try:
        yield real
    finally:
        os.dup2(real, 1)
        os.close(real)
