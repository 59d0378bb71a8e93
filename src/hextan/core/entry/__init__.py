"""How does equipment come from few facts, a line or a pasted table?"""

from hextan.core.entry.body import TICKS, QuickBodyAsk, quick_body
from hextan.core.entry.lens_line import LensLineAsk, lens_line
from hextan.core.entry.plain import plain_bodies, plain_lens_sets

__all__ = [
    "TICKS",
    "LensLineAsk",
    "QuickBodyAsk",
    "lens_line",
    "plain_bodies",
    "plain_lens_sets",
    "quick_body",
]
