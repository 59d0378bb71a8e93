"""How is it exposed, does it flicker, which filters balance it?"""

from hextan.core.light import flicker
from hextan.core.light.exposure import (
    LUX_PER_FOOT_CANDLE,
    SHUTTER_ANGLES,
    Balance,
    Means,
    NdChoice,
    Settings,
    balance,
    gain_db,
    nd_choices,
    needed_lux,
    rate_cost_stops,
    shutter_s,
    stop_for_lux,
    thirds_text,
)
from hextan.core.light.filters import NdFilter
from hextan.core.light.settings import LEAST_LUX, MOST_LUX, ExposureIndex, LampKind, Light, Lux, Mover, Nd

__all__ = [
    "LEAST_LUX",
    "LUX_PER_FOOT_CANDLE",
    "MOST_LUX",
    "SHUTTER_ANGLES",
    "Balance",
    "ExposureIndex",
    "LampKind",
    "Light",
    "Lux",
    "Means",
    "Mover",
    "Nd",
    "NdChoice",
    "NdFilter",
    "Settings",
    "balance",
    "flicker",
    "gain_db",
    "nd_choices",
    "needed_lux",
    "rate_cost_stops",
    "shutter_s",
    "stop_for_lux",
    "thirds_text",
]
