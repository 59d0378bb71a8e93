"""What the Bench says about light: the ledger of exposure with what balances it, and flicker."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Any, Literal

import numpy as np

from hextan.core.base import Fault, InvalidInputError, needed_light, stops_of_lens, stops_words
from hextan.core.bench.light_answers import (
    BalanceRead,
    ExposureView,
    FlickerView,
    LampRow,
    LedgerKey,
    LedgerRow,
    NearestShutter,
    Opening,
    RateCost,
    SafeShutter,
    Wave,
)
from hextan.core.bench.result import BenchResult, compute_bench
from hextan.core.bench.state import BenchState
from hextan.core.equipment import Body, Mounting, Package, highest_of
from hextan.core.light import (
    LEAST_LUX,
    LUX_PER_FOOT_CANDLE,
    MOST_LUX,
    SHUTTER_ANGLES,
    Balance,
    LampKind,
    Light,
    Means,
    NdFilter,
    Settings,
    balance,
    flicker,
    gain_db,
    nd_choices,
    needed_lux,
    rate_cost_stops,
    shutter_s,
    stop_for_lux,
    thirds_text,
)
from hextan.core.optics import close_up_stops

#: Offered where a body states no sensitivities (an assumption, and told as one).
ASSUMED_EIS = (
    100,
    125,
    160,
    200,
    250,
    320,
    400,
    500,
    640,
    800,
    1000,
    1280,
    1600,
    2000,
    2560,
    3200,
    4000,
    5120,
    6400,
)
ASSUMED_EI = 800
_COST_RATES = (24.0, 25.0, 30.0, 48.0, 50.0, 60.0, 75.0, 100.0, 120.0, 150.0, 200.0, 240.0)
FLICKER_CAUTION = (
    "Strobing light can harm photosensitive people: warn everybody before a lamp strobes on set, and follow the "
    "safety supervisor and local rules."
)
#: So many safe shutters and locking rates are listed, and so many frames are drawn.
SHOWN, FRAMES_DRAWN = 24, 40
_WAVE_POINTS = 480


@dataclass(frozen=True)
class Exposing:
    """A look's exposure: settings, what can be set, and what was assumed."""

    settings: Settings
    means: Means
    adapter_stops: float
    close_up_stops: float
    notes: tuple[str, ...]


def ei_of(body: Body, light: Light) -> int:
    """The sensitivity set, or the body's first native one."""
    if light.ei is not None:
        return light.ei
    return next(iter(body.base_eis or body.eis), ASSUMED_EI)


def time_of(light: Light, fps: float) -> float:
    """How long the shutter is open; never longer than a frame."""
    wanted = float(shutter_s(light.shutter_deg, fps)) if light.shutter == "angle" else light.shutter_s
    return min(wanted, 1 / fps)


def exposing(filters: Sequence[NdFilter], state: BenchState, found: BenchResult) -> Exposing:
    """Gather what decides the exposure of a look.

    Raises
    ------
    InvalidInputError
        A lens without any stop.
    """
    light, setting, body = state.light, found.setting, found.chosen.body
    stop = setting.stop
    if stop is None:
        raise InvalidInputError.of(
            Fault("state.lens_id", state.lens_id, "states no stop: no exposure can be told")
        )
    notes = []
    if setting.marks != "T":
        notes.append(
            f"{setting.lens.name} states no T-stop: its f-number is used, and the light that its glass takes is left out."
        )
    time_s = time_of(light, state.fps)
    if light.shutter == "time" and light.shutter_s > 1 / state.fps * (1 + 1e-9):
        notes.append(
            f"{_time_words(light.shutter_s)} is longer than a frame at {state.fps:g} fps: counted as {_time_words(time_s)}."
        )
    eis = body.eis or ASSUMED_EIS
    if not body.eis:
        notes.append(f"{body.name} states no EI values: thirds from 100 to 6400 are assumed.")
    if not body.base_eis:
        notes.append(f"{body.name} states no native sensitivity.")
    m = float(np.broadcast_to(found.evaluation.traced.magnification, (len(found.order),))[found.index])
    adapters = Mounting(setting.adapters).stops_lost
    close_up = float(close_up_stops(m if math.isfinite(m) else 0.0, setting.lens.pupil_magnification))
    ei = ei_of(body, light)
    if light.ei is not None and light.ei not in eis:
        notes.append(f"EI {light.ei} is not among the values of {body.name}.")
    if body.highest_ei is not None and ei > body.highest_ei:
        notes.append(
            f"EI {ei} is beyond EI {body.highest_ei}, up to which {body.name} is said to be usable: expect noise."
        )
    lost = adapters + close_up
    nds = nd_choices(body.nd_stops, filters)
    if light.nd_stops and not any(abs(c.stops - light.nd_stops) < 0.05 for c in nds):
        notes.append(f"ND of {stops_words(light.nd_stops, 2)} is not in the kit.")
    return Exposing(
        settings=Settings(stop, time_s, ei, light.nd_stops, _lux(light, lost), lost),
        means=Means(
            stops=stops_of_lens(setting.widest) if setting.widest else [stop],
            eis=eis,
            base_eis=body.base_eis,
            nds=nds,
            times_s=[float(shutter_s(a, state.fps)) for a in SHUTTER_ANGLES],
        ),
        adapter_stops=adapters,
        close_up_stops=close_up,
        notes=tuple(notes),
    )


def _lux(light: Light, lost_stops: float) -> float:
    """The scene's light: measured, or what the metered exposure says (a meter knows nothing of this lens's losses)."""
    if light.known_by == "lux":
        return light.lux
    if light.known_by == "foot_candles":
        return light.foot_candles * LUX_PER_FOOT_CANDLE
    m = light.metered
    return float(needed_lux(m.t_stop, m.shutter_s, float(m.ei), m.nd_stops))


def exposure_view(package: Package, state: BenchState, base_fps: float) -> ExposureView:
    """Write the ledger of a look, what balances it, and what light, rates and angles cost.

    Parameters
    ----------
    base_fps : rate that the production shoots at; higher ones cost light against it

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench; and a lens without any stop.
    """
    found = compute_bench(package, state)
    e = exposing(package.filters, state, found)
    s, light = e.settings, state.light
    solved = _within_reason(balance(s, e.means, light.may_move))
    losses = s.lost_stops + s.nd_stops
    stops = e.means.stops
    return {
        "ledger": _ledger(e, state, base_fps),
        "off_stops": s.off_stops,
        "off_text": off_text(s.off_stops),
        "balanced": abs(s.off_stops) <= 1 / 6 + 1e-9,
        "t_stop": s.t_stop,
        "marks": found.setting.marks,
        "ei": s.ei,
        "time_s": s.time_s,
        "angle_deg": 360 * s.time_s * state.fps,
        "lux": s.lux,
        "foot_candles": s.lux / LUX_PER_FOOT_CANDLE,
        "balance": _balance(solved, e, state),
        "eis": [
            {"ei": ei, "native": ei in e.means.base_eis, "gain_db": gain_db(ei, found.chosen.body.zero_db_ei)}
            for ei in e.means.eis
        ],
        "nds": [{"stops": c.stops, "parts": list(c.parts)} for c in e.means.nds],
        "light_for_stops": [
            {
                "stop": stop,
                "lux": float(needed_lux(stop, s.time_s, float(s.ei), losses)),
                "foot_candles": float(needed_lux(stop, s.time_s, float(s.ei), losses)) / LUX_PER_FOOT_CANDLE,
            }
            for stop in stops
        ],
        "stop_for_light": float(stop_for_lux(s.lux, s.time_s, float(s.ei), losses)),
        "rates": _rates(found, state, base_fps),
        "angles": [{"angle_deg": a, "stops": math.log2(a / 180.0), "time_s": float(shutter_s(a, state.fps))}
                   for a in SHUTTER_ANGLES],
        "notes": list(e.notes),
    }  # fmt: skip


def _within_reason(solved: Balance) -> Balance:
    """No more light than there can be: beyond it the exposure stays off."""
    lux = min(max(solved.settings.lux, LEAST_LUX), MOST_LUX)
    settings = replace(solved.settings, lux=lux)
    return Balance(settings, solved.nd_parts, solved.moved, settings.off_stops)


def off_text(stops: float) -> str:
    """Say how far an exposure is off."""
    words = thirds_text(stops)
    if words == "0":
        return "balanced"
    return f"{words.lstrip('+−')} stops {'too bright' if stops > 0 else 'too dark'}"


def _time_words(time_s: float) -> str:
    return f"{time_s:.3g} s" if time_s >= 0.4 else f"1/{1 / time_s:.4g} s"


def _ledger(e: Exposing, state: BenchState, base_fps: float) -> list[LedgerRow]:
    s, light = e.settings, state.light
    at_base = min(s.time_s * state.fps / base_fps, 1 / base_fps) if light.shutter == "angle" else s.time_s
    rows: list[tuple[LedgerKey, str, str, float]] = [
        ("light", "Light", f"{s.lux:.4g} lux, {s.lux / LUX_PER_FOOT_CANDLE:.3g} fc", math.log2(s.lux / 2.5)),
        ("ei", "Sensitivity", f"EI {s.ei}", math.log2(s.ei / 100)),
        ("stop", "Stop", f"{s.t_stop:.3g}", -2 * math.log2(s.t_stop)),
        ("shutter", "Shutter", f"{_time_words(at_base)} at {base_fps:g} fps" if light.shutter == "angle"
         else _time_words(at_base), math.log2(at_base)),
        ("rate", "Rate", f"{state.fps:g} fps", math.log2(s.time_s / at_base)),
        ("nd", "ND", f"{stops_words(s.nd_stops, 2)}, density {s.nd_stops * 0.30103:.1f}", -s.nd_stops),
        ("adapter", "Adapter", "no loss" if e.adapter_stops == 0 else "gains light" if e.adapter_stops < 0 else "takes light", -e.adapter_stops),
        ("close_up", "Close-up", "the lens draws out", -e.close_up_stops),
    ]  # fmt: skip
    return [{"key": key, "name": name, "setting": text, "stops": stops} for key, name, text, stops in rows]


def _balance(solved: Balance, e: Exposing, state: BenchState) -> BalanceRead:
    before, after = e.settings, solved.settings
    changes = []
    if after.nd_stops != before.nd_stops:
        what = " + ".join(solved.nd_parts) or "no ND"
        changes.append(f"{what} ({stops_words(after.nd_stops, 2)})")
    if after.ei != before.ei:
        changes.append(f"EI {after.ei}{' (native)' if after.ei in e.means.base_eis else ''}")
    if after.t_stop != before.t_stop:
        changes.append(f"stop {after.t_stop:.3g}")
    if after.time_s != before.time_s:
        changes.append(f"shutter {360 * after.time_s * state.fps:.4g}° ({_time_words(after.time_s)})")
    lux_moved = abs(math.log2(after.lux / before.lux)) > 1e-6
    if lux_moved:
        changes.append(f"light {after.lux:.4g} lux ({thirds_text(math.log2(after.lux / before.lux))} stops)")
    told = " and ".join([", ".join(changes[:-1]), changes[-1]] if len(changes) > 1 else changes)
    if not state.light.may_move and not solved.balanced:
        text = "Nothing may move: say above what may."
    elif not changes:
        text = "It is balanced as it is." if solved.balanced else "Nothing that may move brings it nearer."
    elif solved.balanced:
        text = f"Balanced by {told}."
    else:
        text = f"The nearest that can be had is {told}: it stays {off_text(solved.off_stops)}."
    light = state.light.model_copy(update={"ei": after.ei, "nd_stops": after.nd_stops})
    if after.time_s != before.time_s:
        light = light.model_copy(
            update={"shutter": "angle", "shutter_deg": min(360 * after.time_s * state.fps, 360.0)}
        )
    if lux_moved:
        light = light.model_copy(update={"known_by": "lux", "lux": after.lux})
    return {
        "balanced": solved.balanced,
        "changed": bool(changes),
        "off_stops": solved.off_stops,
        "off_text": off_text(solved.off_stops),
        "text": text,
        "nd_parts": list(solved.nd_parts),
        "light": light,
        "stop": after.t_stop,
        "next": None if solved.balanced else _next(solved),
    }


def _next(solved: Balance) -> str:
    off = solved.off_stops
    s = solved.settings
    lux = s.lux * 2.0**-off
    if off < 0:
        return f"It takes {needed_light(lux)} lux ({2.0**-off:.3g} times the light), or a faster lens, or a lower rate."
    return f"It takes {stops_words(off)} more of ND, or {lux:.4g} lux."


def _rates(found: BenchResult, state: BenchState, base_fps: float) -> list[RateCost]:
    """What rates cost at the same angle; those of the format, and the usual ones up to its limit."""
    highest = highest_of(found.chosen)
    rates = sorted({*_COST_RATES, base_fps, state.fps})
    return [
        {"fps": fps, "stops": float(rate_cost_stops(fps, base_fps)), "possible": highest.allows(fps)}
        for fps in rates
        if fps >= base_fps * 0.999
    ]


def flicker_view(package: Package, state: BenchState) -> FlickerView:
    """Hold the look's shutter against lamps.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench.
    """
    found = compute_bench(package, state)
    light, mode = state.light, found.chosen.mode
    fps, time_s = state.fps, time_of(state.light, state.fps)
    readout_s = None if mode.row_time_us is None else mode.rows_read * mode.row_time_us / 1e6
    lamps = {kind: _lamp(light, kind) for kind in flicker.LAMPS}
    lamp = lamps[light.lamp]
    swings = lamp.ripple > 0
    safe = flicker.safe_times(lamp.hz, fps, SHOWN) if swings else []
    nearest = flicker.nearest_safe(lamp.hz, fps, time_s) if swings else None
    return {
        "fps": fps,
        "time_s": time_s,
        "angle_deg": 360 * time_s * fps,
        "readout_ms": None if readout_s is None else readout_s * 1000,
        "lamps": [_lamp_row(kind, each, time_s, fps, readout_s) for kind, each in lamps.items()],
        "hz": lamp.hz,
        "safe": [_shutter(float(t), fps) for t in safe],
        "safe_count": flicker.safe_count(lamp.hz, fps) if swings else 0,
        "nearest": _nearest(nearest, time_s, fps),
        "rates": [
            {"exact": str(r), "fps": float(r)}
            for r in flicker.locking_rates(lamp.hz, fps / 4, fps * 4, SHOWN)
        ],
        "no_safe": _no_safe(lamp, fps, safe),
        "wave": _wave(lamp, time_s, fps, readout_s or 0.0),
        "caution": FLICKER_CAUTION,
    }


def _lamp(light: Light, kind: LampKind) -> flicker.Lamp:
    measured = light.ripple_percent if kind == light.lamp else None
    ripple = None if measured is None else measured / 100
    return flicker.lamp_of(kind, light.mains_hz, light.pulse_hz, light.pulse_duty, ripple)


def _shutter(time_s: float, fps: float) -> SafeShutter:
    return {"time_s": time_s, "angle_deg": min(360 * time_s * fps, 360.0), "text": _time_words(time_s)}


def _nearest(found: Fraction | None, time_s: float, fps: float) -> NearestShutter | None:
    if found is None:
        return None
    return {**_shutter(float(found), fps), "off_stops": math.log2(float(found) / time_s)}


def _no_safe(lamp: flicker.Lamp, fps: float, safe: list[Any]) -> str | None:
    if safe or lamp.ripple == 0:
        return None
    return (
        f"No safe shutter at this rate: a frame at {fps:g} fps is shorter than one swing of the lamp "
        f"({_time_words(1 / lamp.hz)}). Take lamps that do not swing (direct current, or an electronic ballast in its "
        f"flicker-free setting), or {math.floor(lamp.hz)} fps and less; large filaments swing least. Shoot a test."
    )


def _lamp_row(
    kind: LampKind, lamp: flicker.Lamp, time_s: float, fps: float, readout_s: float | None
) -> LampRow:
    told = flicker.judge(lamp, time_s, fps, readout_s or 0.0)
    worst = max(told.frame_stops, told.band_stops)
    safe = told.spread_stops <= flicker.UNSEEN
    verdict = "none" if safe else flicker.seen(worst)
    return {
        "kind": kind,
        "name": flicker.LAMPS[kind].name,
        "hz": lamp.hz,
        "ripple_percent": 100 * lamp.ripple,
        "duty": lamp.duty,
        "verdict": verdict,
        "frame_stops": _finite(told.frame_stops),
        "band_stops": _finite(told.band_stops) if readout_s is not None else None,
        "bands": told.bands if readout_s is not None else None,
        "beat_hz": told.beat_hz,
        "text": _lamp_words(told, safe, readout_s),
    }


def _finite(value: float) -> float | None:
    return value if math.isfinite(value) else None


def _lamp_words(told: flicker.FlickerVerdict, safe: bool, readout_s: float | None) -> str:
    if safe:
        return "Every frame and every row is exposed alike."
    words = []
    if flicker.seen(told.frame_stops) == "none":
        words.append("frames are alike")
    else:
        beat = f", {beat_words(told.beat_hz)}" if told.beat_hz else ""
        words.append(f"frames differ by {_stops(told.frame_stops)}{beat}")
    if readout_s is None:
        words.append("whether bands show is not known: the body states no row time")
    elif flicker.seen(told.band_stops) == "none":
        words.append("no bands to be seen")
    else:
        stand = "standing" if told.beat_hz == 0 else "moving"
        words.append(f"about {told.bands:.1f} {stand} bands, {_stops(told.band_stops)} deep")
    text = "; ".join(words)
    return f"{text[0].upper()}{text[1:]}."


def beat_words(hz: float) -> str:
    """Say how often the picture pulses.

    >>> beat_words(0.12), beat_words(4.0959), beat_words(120.0), beat_words(1.0)
    ('once in 8.3 s', '4.1 times a second', '120 times a second', 'once a second')
    """
    if hz < 0.95:
        return f"once in {1 / hz:.1f} s" if hz > 0.01 else f"once in {1 / hz / 60:.0f} min"
    told = f"{hz:.0f}" if hz >= 10 else f"{hz:.1f}".removesuffix(".0")
    return "once a second" if told == "1" else f"{told} times a second"


def _stops(value: float) -> str:
    return stops_words(value, 2) if math.isfinite(value) else "all of their light"


def _wave(lamp: flicker.Lamp, time_s: float, fps: float, readout_s: float) -> Wave:
    """The lamp's light over three frames, with the shutter's opening on the first and on the last row; milliseconds."""
    span = max(3 / fps, 2 / lamp.hz) if lamp.hz > 0 else 3 / fps
    # Pulses much faster than the drawing is wide would only smear.
    span = min(span, _WAVE_POINTS / 8 / lamp.hz, FRAMES_DRAWN / fps)
    at = np.linspace(0.0, span, _WAVE_POINTS + 1)
    openings: list[Opening] = []
    for frame in range(math.ceil(span * fps)):
        delays: tuple[tuple[Literal["first", "last"], float], ...] = (("first", 0.0), ("last", readout_s))
        for row, delay in delays:
            start = frame / fps + delay
            if start < span:
                exposed = float(lamp.exposure(np.array(start), time_s))
                openings.append({"frame": frame, "row": row, "from_ms": start * 1000,
                                 "to_ms": (start + time_s) * 1000, "exposure": exposed})  # fmt: skip
    return {
        "span_ms": span * 1000,
        "frame_ms": 1000 / fps,
        "highest": 1 / lamp.duty if lamp.duty else 1 + lamp.ripple,
        "points": np.round(np.column_stack((at * 1000, lamp.level(at))), 4).tolist(),
        "openings": openings,
    }
