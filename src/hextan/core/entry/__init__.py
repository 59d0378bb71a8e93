"""How does equipment come from few facts, a line or a pasted table?"""

from hextan.core.entry.anything import AnythingAsk, anything, mounts_of
from hextan.core.entry.body import TICKS, QuickBodyAsk, quick_body
from hextan.core.entry.lens_line import LensLineAsk, lens_line
from hextan.core.entry.plain import plain_bodies, plain_lens_sets, plain_rig
from hextan.core.entry.sensor import SensorAsk

__all__ = [
    "TICKS",
    "AnythingAsk",
    "LensLineAsk",
    "QuickBodyAsk",
    "SensorAsk",
    "anything",
    "lens_line",
    "mounts_of",
    "plain_bodies",
    "plain_lens_sets",
    "plain_rig",
    "quick_body",
]
