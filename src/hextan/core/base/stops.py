"""Marked stops, as engraved on lenses: thirds, rounded as is usual."""

from __future__ import annotations

import math

#: Thirds of a stop from 0.7 to 45 as they are marked (ISO 517 gives the series of full stops; the
#: rounded thirds are common practice, no source).
MARKED: tuple[float, ...] = (
    0.7, 0.8, 0.9, 1.0, 1.1, 1.3, 1.4, 1.6, 1.8, 2.0, 2.2, 2.5, 2.8, 3.2, 3.6, 4.0, 4.5, 5.0, 5.6, 6.3, 7.1,
    8.0, 9.0, 10.0, 11.0, 13.0, 14.0, 16.0, 18.0, 20.0, 22.0, 25.0, 29.0, 32.0, 36.0, 40.0, 45.0,
)  # fmt: skip
#: A lens's own widest stop replaces a mark that is nearer to it than this (in stops).
SAME_MARK = 0.1


def stops_between(wider: float, narrower: float) -> float:
    """Stops of light from one aperture to another: 2*log2(N2/N1).

    >>> stops_between(2.0, 4.0)
    2.0
    """
    return 2.0 * math.log2(narrower / wider)


def stops_of_lens(widest: float, narrowest: float = 22.0) -> list[float]:
    """List the stops that can be set on a lens: its widest, then the marks.

    >>> stops_of_lens(2.1)[:3]
    [2.1, 2.5, 2.8]
    """
    return [widest] + [s for s in MARKED if stops_between(widest, s) > SAME_MARK + 0.1 and s <= narrowest]
