"""Questions about light: how much, does it flicker, what does another setting cost."""

from __future__ import annotations

import math

from hextan.core.ask.said import Figure, Reply, Said
from hextan.core.base import (
    Fault,
    InvalidInputError,
    needed_light,
    rate_words,
    stops_words,
)
from hextan.core.equipment import Package
from hextan.core.light import LUX_PER_FOOT_CANDLE, flicker, needed_lux, shutter_s

#: A shutter of a line that says none (common practice, no source).
USUAL_SHUTTER_DEG = 180.0
#: A time and an angle within this of one another are the same shutter: times are printed rounded.
SAME_SHUTTER = 0.02


def _open_s(said: Said, fps: float) -> tuple[float, str]:
    """How long the shutter is open, and how that comes about; no longer than a frame.

    Raises
    ------
    InvalidInputError
        A time and an angle that are not the same, or more of an angle than there is.
    """
    time, angle = said.one("time"), said.one("angle") or said.one("number")
    if time is not None:
        of_time = 360 * fps * float(time)
        if angle is not None and abs(of_time / angle - 1) > SAME_SHUTTER:
            rule = f"1/{1 / time:g} s is {of_time:.4g}° at {rate_words(fps)} fps, and {angle:g}° is said as well: say one of them"
            raise InvalidInputError.plainly(Fault("line", said.text("time"), rule))
        if of_time > 360 * (1 + SAME_SHUTTER):
            return (
                1 / fps,
                f"1/{1 / time:g} s is longer than a frame at {rate_words(fps)} fps: the longest is 1/{fps:g} s",
            )
        return float(time), f"1/{1 / time:g} s"
    angle = angle or USUAL_SHUTTER_DEG
    if angle > 360:
        rule = f"{angle:g}° is more than a whole frame: a shutter is open for 360° at most"
        raise InvalidInputError.plainly(Fault("line", f"{angle:g}°", rule))
    seconds = float(shutter_s(angle, fps))
    return seconds, f"{angle:g}° at {rate_words(fps)} fps are 1/{1 / seconds:.4g} s"


def _whole_frame(said: Said, fps: float) -> str:
    """What is said of a time that no frame has."""
    time = said.one("time")
    if time is None or 360 * fps * float(time) <= 360 * (1 + SAME_SHUTTER):
        return ""
    return (
        f" with the whole frame open (1/{fps:g} s): 1/{1 / time:g} s is not possible at {rate_words(fps)} fps"
    )


def flickers(said: Said, package: Package | None) -> Reply:
    """Say whether lamps on the mains are seen to flicker."""
    fps, hz = said.one("fps") or said.one("number"), said.one("hz")
    # A bare figure beside a rate is the angle.
    angle_said = said.one("fps") is not None
    seconds, how = _open_s(Said([word for word in said.words if word.kind != "number" or angle_said]), fps)
    lamp = flicker.lamp_of("magnetic", hz, 0.0, 0.5)
    verdict = flicker.judge(lamp, seconds, fps, 0.0)
    seen = flicker.seen(verdict.frame_stops)
    safe = flicker.nearest_safe(lamp.hz, fps, seconds)
    words = {"none": "nothing is seen", "borderline": "a pulse may be seen", "shows": "frames pulse"}
    told = f"At {rate_words(fps)} fps under {hz:g} Hz {words[seen]}: frames differ by {verdict.frame_stops:.2f} stops{_whole_frame(said, fps)}."
    figures: list[Figure] = [
        {"name": "frames differ", "value": f"{verdict.frame_stops:.2f} stops"},
        {"name": "the lamp swings", "value": f"{lamp.hz:g} times a second"},
        {
            "name": "nearest safe shutter",
            "value": f"1/{1 / float(safe):.4g} s" if safe else "none at this rate",
        },
    ]
    steps = [
        how,
        f"a lamp on {hz:g} Hz swings {lamp.hz:g} times a second: only whole swings in a frame are even",
        "for a discharge lamp on a magnetic ballast; test the lamps that you will have",
    ]
    return told, figures, steps


def needed_light_of(said: Said, package: Package | None) -> Reply:
    """Say how much light a stop, a time and a sensitivity want."""
    fps, ei = said.one("fps"), said.one("ei")
    stop = said.one("t_stop") or said.one("f_number")
    if fps is None:
        seconds, how = float(said.one("time")), f"open for {said.text('time')} s"
    else:
        seconds, how = _open_s(said, fps)
    lux = float(needed_lux(stop, seconds, ei))
    figures: list[Figure] = [
        {"name": "light", "value": f"{needed_light(lux)} lux"},
        {"name": "or", "value": f"{needed_light(lux / LUX_PER_FOOT_CANDLE)} foot-candles"},
    ]
    mark = "T" if said.one("t_stop") else "f/"
    steps = [how, f"E = 250 × {stop:g}² / (t × {ei}) = {lux:,.2f} lux (ISO 2720, incident), rounded up"]
    if mark == "f/":
        steps.append("by the f-number: the glass loses a little more")
    return (
        f"{mark}{stop:g} at EI {ei} wants {needed_light(lux)} lux{_whole_frame(said, fps) if fps is not None else ''}.",
        figures,
        steps,
    )


def _traded(said: Said) -> tuple[float, str, str, str]:
    """How much light the second of two settings gives more than the first, in stops, and both as they are written."""
    for kind, per in (("t_stop", -2.0), ("f_number", -2.0), ("angle", 1.0), ("time", 1.0), ("ei", 1.0)):
        words = [
            w
            for w in said.words
            if w.kind == kind or (kind == "angle" and w.kind == "number" and said.one("angle"))
        ]
        if len(words) == 2:
            first, second = words
            return per * math.log2(second.value / first.value), first.text.strip(), second.text.strip(), kind
    raise InvalidInputError.plainly(
        Fault("line", "", "needs two stops, two angles, two times or two sensitivities")
    )


def equal_light(said: Said, package: Package | None) -> Reply:
    """What a change of stop, angle, time or sensitivity costs, and which EI makes up for it."""
    more, first, second, kind = _traded(said)
    figures: list[Figure] = [{"name": "light", "value": f"{more:+.2f} stops"}]
    steps = [
        f"{'2 log2' if kind in ('t_stop', 'f_number') else 'log2'} of the ratio of {first} and {second}: {more:+.2f} stops"
    ]
    told = f"From {first} to {second} {'gives' if more > 0 else 'costs'} {stops_words(abs(more))} of light."
    ei = said.one("ei")
    if ei is not None and kind != "ei":
        balanced = ei / 2**more
        figures.append({"name": "EI that makes up for it", "value": f"{balanced:.0f}"})
        told = f"{told[:-1]}: EI {ei} becomes EI {balanced:.0f}."
        steps.append(f"{ei} / 2^{more:.2f} = {balanced:.1f}")
    density = abs(more) * 0.3
    if kind != "ei" and round(density, 1) > 0:
        figures.append({"name": "ND", "value": f"{density:.1f}"})
        steps.append(f"0.3 of density is a stop: {abs(more):.2f} stops are ND {density:.1f}")
        if any("equal light" in w.value for w in said.words if w.kind == "intent"):
            told = f"{told[:-1]}: ND {density:.1f}."
    return told, figures, steps
