"""Exposure in stops: a ledger that says what each thing contributes, and what has to move to balance it.

Incident light, after ISO 2720 (from memory): E = C*T*T/(t*ISO) with C = 250. With E in lux this is
log2(E/2.5) + log2(ISO/100) = 2*log2(T) - log2(t); light lost on the way counts against the left side.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import product

import numpy as np

from hextan.core.base import Floats, Real, positive
from hextan.core.light.filters import NdFilter
from hextan.core.light.settings import Mover

#: ISO 2720's constant for incident light on a flat receptor, lux (from memory).
INCIDENT_C = 250.0
LUX_PER_FOOT_CANDLE = 10.7639
#: At most so many filters are stacked before a lens (common practice, no source).
FILTER_STAGES = 3
#: What is left below this is as good as balanced: half of a third.
BALANCED = 1 / 6 + 1e-9
THIRD = 1 / 3 + 1e-9
#: An EI that is not native counts as so much more change, in stops.
NOT_NATIVE_STOPS = 1.0
#: Angles that a shutter is set to (common practice, no source).
SHUTTER_ANGLES = (360.0, 270.0, 216.0, 180.0, 172.8, 144.0, 120.0, 90.0, 72.0, 60.0, 45.0, 30.0, 22.5, 11.25)


def shutter_s(angle_deg: Real, fps: Real) -> Floats:
    """Time that a shutter is open: angle/(360*fps), seconds.

    >>> round(1 / float(shutter_s(172.8, 24.0)), 6)
    50.0
    """
    positive(angle_deg=angle_deg, fps=fps)
    return np.asarray(np.asarray(angle_deg, dtype=float) / (360.0 * np.asarray(fps, dtype=float)))


def needed_lux(t_stop: Real, time_s: Real, ei: Real, lost_stops: Real = 0.0) -> Floats:
    """Incident light for a stop, lux: C*T*T/(t*ISO), more by what is lost on the way.

    Parameters
    ----------
    t_stop, time_s, ei : T-stop, shutter time in seconds, sensitivity
    lost_stops : by ND, adapter, extension

    Raises
    ------
    InvalidInputError
        Zero, negative, NaN or infinite input.

    >>> round(float(needed_lux(2.8, 1 / 50, 100.0)), 6)
    980.0
    """
    positive(t_stop=t_stop, time_s=time_s, ei=ei)
    t = np.asarray(t_stop, dtype=float)
    return np.asarray(INCIDENT_C * t * t / (np.asarray(time_s) * ei) * 2.0 ** np.asarray(lost_stops))


def gain_db(ei: Real, zero_db_ei: float | None) -> float | None:
    """A sensitivity as a gain: 20 log10(EI / EI of 0 dB), so that a stop is 6.02 dB. None without the EI of 0 dB.

    >>> gain_db(1600, 800)
    6.020599913279624
    """
    return None if zero_db_ei is None else 20 * math.log10(float(ei) / zero_db_ei)


def stop_for_lux(lux: Real, time_s: Real, ei: Real, lost_stops: Real = 0.0) -> Floats:
    """The T-stop that a light allows: sqrt(E*t*ISO/C), wider by what is lost on the way.

    >>> round(float(stop_for_lux(980.0, 1 / 50, 100.0)), 6)
    2.8
    """
    positive(lux=lux, time_s=time_s, ei=ei)
    light = np.asarray(lux, dtype=float) / 2.0 ** np.asarray(lost_stops)
    return np.asarray(np.sqrt(light * time_s * ei / INCIDENT_C))


def rate_cost_stops(fps: Real, base_fps: Real) -> Floats:
    """Stops that a higher rate costs at the same angle: log2(fps/base)."""
    positive(fps=fps, base_fps=base_fps)
    return np.asarray(np.log2(np.asarray(fps, dtype=float) / base_fps))


def thirds_text(stops: float) -> str:
    """Write stops in thirds, with their sign.

    >>> thirds_text(1.34), thirds_text(-0.02), thirds_text(-2.66)
    ('+1⅓', '0', '−2⅔')
    """
    thirds = round(abs(stops) * 3)
    whole, rest = divmod(thirds, 3)
    if thirds == 0:
        return "0"
    figure = f"{whole if whole or not rest else ''}{('', '⅓', '⅔')[rest]}"
    return f"{'+' if stops > 0 else '−'}{figure}"


def nd_words(stops: float) -> str:
    """Write ND in stops without a sign: thirds as thirds.

    >>> nd_words(2.0), nd_words(1 / 3), nd_words(1.6666667), nd_words(0.5)
    ('2', '⅓', '1⅔', '0.5')
    """
    if abs(3 * stops - round(3 * stops)) < 0.02:
        return thirds_text(stops).lstrip("+")
    return f"{stops:.2f}".rstrip("0").rstrip(".")


@dataclass(frozen=True)
class Settings:
    """All that decides an exposure. `lost_stops` by adapter and extension; ND apart."""

    t_stop: float
    time_s: float
    ei: int
    nd_stops: float
    #: What falls on the subject.
    lux: float
    lost_stops: float = 0.0

    @property
    def off_stops(self) -> float:
        """How much too bright (positive) or too dark it comes out."""
        return (
            math.log2(self.lux / (INCIDENT_C / 100))
            + math.log2(self.ei / 100)
            - 2 * math.log2(self.t_stop)
            + math.log2(self.time_s)
            - self.nd_stops
            - self.lost_stops
        )


@dataclass(frozen=True)
class NdChoice:
    """A way to take light away: the built-in ND and filters in front."""

    stops: float
    parts: tuple[str, ...]


def nd_choices(built_in: Sequence[float], filters: Sequence[NdFilter]) -> list[NdChoice]:
    """Every sum of one built-in step and up to three filters, each by the fewest parts, from none upwards.

    >>> [round(c.stops) for c in nd_choices([2.0], [NdFilter("ND 0.3", 1.0)])]
    [0, 1, 2, 3]
    """
    return list(_nd_choices(tuple(built_in), tuple(filters)))


@lru_cache(maxsize=64)
def _nd_choices(built_in: tuple[float, ...], filters: tuple[NdFilter, ...]) -> tuple[NdChoice, ...]:
    stacks: dict[float, tuple[str, ...]] = {0.0: ()}
    for each in filters:
        for stops, parts in list(stacks.items()):
            for n in range(1, min(each.count, FILTER_STAGES - len(parts)) + 1):
                _keep_fewest(stacks, stops + n * each.stops, (*parts, *[each.name] * n))
    whole: dict[float, tuple[str, ...]] = {}
    for stops, parts in stacks.items():
        _keep_fewest(whole, stops, parts)
        for step in built_in:
            _keep_fewest(whole, stops + step, (f"built-in ND {nd_words(step)}", *parts))
    return tuple(NdChoice(stops, whole[stops]) for stops in sorted(whole))


def _keep_fewest(found: dict[float, tuple[str, ...]], stops: float, parts: tuple[str, ...]) -> None:
    stops = round(stops, 6)
    if stops not in found or len(parts) < len(found[stops]):
        found[stops] = parts


@dataclass(frozen=True)
class Means:
    """What can really be set: the lens's stops, the body's EI list with its native values, ND, shutter times."""

    stops: Sequence[float]
    eis: Sequence[int]
    base_eis: Sequence[int]
    nds: Sequence[NdChoice]
    times_s: Sequence[float]


@dataclass(frozen=True)
class Balance:
    """What was moved, and what is left over (positive: too bright)."""

    settings: Settings
    nd_parts: tuple[str, ...]
    moved: tuple[Mover, ...]
    off_stops: float

    @property
    def balanced(self) -> bool:
        """Whether less than half of a third is left."""
        return abs(self.off_stops) <= BALANCED


def balance(now: Settings, means: Means, may_move: Sequence[Mover]) -> Balance:
    """Balance an exposure with what may move, in its order, as few of them as will do.

    Parameters
    ----------
    now : settings as they are; what may not move is held
    may_move : first what moves first; "light" is set exactly, all others to what there is

    Returns
    -------
    The first that is balanced to half of a third; else the nearest that can be had.

    Notes
    -----
    With one, two, ... movers every combination of what there is is tried. Among those that balance, native EI values
    are worth a stop of change; what changes least comes first, then fewer filters, then what is left over. No ND goes into a
    picture that is too dark; and no EI is moved together with more ND where an EI alone comes within a
    third, as in `compare.match_light`.
    """
    order = tuple(dict.fromkeys(may_move))
    first_parts = next((c.parts for c in means.nds if math.isclose(c.stops, now.nd_stops, abs_tol=1e-4)), ())
    best = Balance(now, first_parts, (), now.off_stops)
    if best.balanced:
        return best
    for count in range(1, len(order) + 1):
        moving = order[:count]
        found = _best_of(now, means, [m for m in moving if m != "light"], first_parts)
        if "light" in moving:
            # What is already balanced without the light keeps it.
            lux = found.settings.lux * 2.0**-found.off_stops
            settings = _with(found.settings, lux=lux)
            return Balance(settings, found.nd_parts, moving, settings.off_stops)
        near = abs(found.off_stops) <= THIRD and _plain_ei(now, means, moving)
        if found.balanced or near:
            return Balance(found.settings, found.nd_parts, moving, found.off_stops)
        if abs(found.off_stops) < abs(best.off_stops) - 1e-9:
            best = Balance(found.settings, found.nd_parts, moving, found.off_stops)
    return best


def _plain_ei(now: Settings, means: Means, moving: Sequence[Mover]) -> bool:
    """Whether an EI alone, with the ND as it is, comes within a third."""
    return "ei" in moving and any(abs(_with(now, ei=ei).off_stops) <= THIRD for ei in means.eis)


def _best_of(now: Settings, means: Means, moving: Sequence[Mover], parts: tuple[str, ...]) -> Balance:
    """Try every combination of what may be set."""
    nds: Iterable[NdChoice] = means.nds if "nd" in moving else [NdChoice(now.nd_stops, parts)]
    eis: Iterable[int] = means.eis if "ei" in moving else [now.ei]
    stops: Iterable[float] = means.stops if "stop" in moving else [now.t_stop]
    times: Iterable[float] = means.times_s if "shutter" in moving else [now.time_s]
    best: Balance | None = None
    best_cost: tuple[float, ...] = ()
    dark, plain = now.off_stops < 0, _plain_ei(now, means, moving)
    for nd, ei, stop, time in product(nds, eis, stops, times):
        more = nd.stops > now.nd_stops + 1e-6
        if more and (dark or (plain and ei != now.ei)):
            continue
        settings = _with(now, nd_stops=nd.stops, ei=ei, t_stop=stop, time_s=time)
        off = settings.off_stops
        change = (
            abs(math.log2(ei / now.ei))
            + abs(nd.stops - now.nd_stops)
            + 2 * abs(math.log2(stop / now.t_stop))
            + abs(math.log2(time / now.time_s))
        )
        foreign = 0.0 if ei in means.base_eis or ei == now.ei else NOT_NATIVE_STOPS
        # Below half of a third nothing is gained by being nearer; above it nearness comes first.
        left = 0.0 if abs(off) <= BALANCED else abs(off)
        cost = (left, round(change + foreign, 6), len(nd.parts), abs(off))
        if best is None or cost < best_cost:
            best, best_cost = Balance(settings, nd.parts, tuple(moving), off), cost
    if best is None:
        # Something that may move has nothing to be set to.
        return Balance(now, parts, tuple(moving), now.off_stops)
    return best


def _with(
    s: Settings,
    *,
    lux: float | None = None,
    nd_stops: float | None = None,
    ei: int | None = None,
    t_stop: float | None = None,
    time_s: float | None = None,
) -> Settings:
    return Settings(
        s.t_stop if t_stop is None else t_stop,
        s.time_s if time_s is None else time_s,
        s.ei if ei is None else ei,
        s.nd_stops if nd_stops is None else nd_stops,
        s.lux if lux is None else lux,
        s.lost_stops,
    )
