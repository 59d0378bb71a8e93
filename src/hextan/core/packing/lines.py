"""A day as a line of shots, and the ways that can stay up over several of them in a row."""

from __future__ import annotations

from collections.abc import Sequence


def runs_of(line: Sequence[dict[int, int]]) -> list[tuple[int, range]]:
    """All longest runs of every way along a line of shots: the way, and the places that it covers.

    Parameters
    ----------
    line : for each shot the ways that do it
    """
    found: list[tuple[int, range]] = []
    since: dict[int, int] = {}
    for at, ways in enumerate([*line, {}]):
        for o in [o for o in since if o not in ways]:
            found.append((o, range(since.pop(o), at)))
        for o in ways:
            since.setdefault(o, at)
    return found


def fewest_runs(line: Sequence[dict[int, int]]) -> int:
    """The fewest ways, one after the other, that make all shots of a line: each time the one that reaches farthest.

    Shots that nothing makes are passed over.

    >>> fewest_runs([{1: 0}, {1: 0, 2: 0}, {2: 0}, {2: 0, 3: 0}])
    2
    """
    reach: dict[int, int] = {}
    for _, run in runs_of(line):
        for at in run:
            reach[at] = max(reach.get(at, 0), run.stop)
    count = at = 0
    while at < len(line):
        count += at in reach
        at = reach.get(at, at + 1)
    return count
