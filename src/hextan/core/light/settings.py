"""How the light is set: sensitivity, shutter, ND, the scene's light, the lamps; kept with the Bench."""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import Field

from hextan.core.base import Part, Stop

Mover: TypeAlias = Literal["nd", "ei", "light", "stop", "shutter"]
LampKind: TypeAlias = Literal["tungsten", "magnetic", "electronic", "pulsed", "steady"]
ExposureIndex: TypeAlias = Annotated[int, Field(ge=1, le=10_000_000)]
ShutterS: TypeAlias = Annotated[float, Field(gt=0, le=3600)]
Nd: TypeAlias = Annotated[float, Field(ge=0, le=200)]
#: Starlight is a thousandth of a lux, the sun a hundred thousand.
LEAST_LUX, MOST_LUX = 1e-9, 1e7
Lux: TypeAlias = Annotated[float, Field(ge=LEAST_LUX, le=MOST_LUX)]


class Metered(Part):
    """An exposure that is known to be right in this light: as somebody metered it, or as a test came out."""

    t_stop: Stop = 2.8
    ei: ExposureIndex = 800
    shutter_s: ShutterS = 0.02
    nd_stops: Nd = 0.0


class Light(Part):
    """The light of a look."""

    #: None: the body's first native sensitivity.
    ei: ExposureIndex | None = None
    nd_stops: Nd = 0.0
    shutter: Literal["angle", "time"] = "angle"
    shutter_deg: Annotated[float, Field(gt=0, le=360)] = 180.0
    shutter_s: ShutterS = 0.02
    known_by: Literal["lux", "foot_candles", "metered"] = "lux"
    lux: Lux = 100.0
    foot_candles: Lux = 10.0
    metered: Metered = Metered()
    #: What may move to balance the exposure, in this order; the shutter is held unless it is named.
    may_move: Annotated[list[Mover], Field(max_length=5)] = ["nd", "ei", "light"]
    mains_hz: Literal[50, 60] = 50
    lamp: LampKind = "tungsten"
    #: Of a lamp that is dimmed by pulses: its own frequency, and the share of the time that it is on.
    pulse_hz: Annotated[float, Field(ge=1, le=1_000_000)] = 1200.0
    pulse_duty: Annotated[float, Field(gt=0, le=1)] = 0.5
    #: Ripple of the lamp, per cent, when it was measured: (most - least) / (most + least).
    ripple_percent: Annotated[float, Field(ge=0, le=100)] | None = None
