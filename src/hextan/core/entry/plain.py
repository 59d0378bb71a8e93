"""Plain windows and plain glass without makers: enough to begin without entering anything.

Windows of published standards as bodies with one scan mode, and series of focal lengths by class.
"""

from __future__ import annotations

from hextan.core.base import Origin
from hextan.core.documents import BodyDocument, FilterDocument, LensSetDocument, RigDocument
from hextan.core.entry.body import QuickBodyAsk, quick_body
from hextan.core.entry.lens_line import LensLineAsk, lens_line
from hextan.core.entry.sensor import SensorAsk
from hextan.core.optics import NAMED_WINDOWS

MAKER = "plain"
#: A series each: name, and the line that makes it.
GLASS: tuple[tuple[str, str], ...] = (
    ("Primes for Super 35", "18 21 25 32 40 50 65 75 100 T2 Super 35"),
    ("Primes for full frame", "18 21 24 28 35 50 75 100 135 T2 full frame"),
    ("Primes for Super 16", "6 8 9.5 12 16 25 35 50 T2 Super 16"),
    ("Primes for 65 mm", "28 35 50 65 80 100 150 T2.8 65 mm"),
    ("Primes for 2/3 inch", "5 7 10 14 20 35 T2 2/3 inch"),
    ("Zooms for Super 35", "18-80 25-250 T3 Super 35"),
    ("Zooms for full frame", "24-70 70-200 f2.8 full frame"),
)


def plain_bodies() -> list[BodyDocument]:
    """Make the bodies. Photosites stand in: a window of film has none."""
    bodies = []
    for name, _, w, h, source in NAMED_WINDOWS:
        # A stand-in for the photosites of every window, as a camera of few facts has it.
        sensor = SensorAsk(size_mm=f"{w} x {h}")
        made = quick_body(QuickBodyAsk(name=name, maker=MAKER, sensor=sensor, modes="whole 24 25 30"))[
            "document"
        ]
        assert made is not None
        origin = Origin(kind="claimed", source=source)
        bodies.append(made.model_copy(update={"origin": origin, "key": f"plain-{w}x{h}".replace(".", "_")}))
    return bodies


def plain_rig() -> RigDocument:
    """Make a set of ND filters, a stop apart; mounts and adapters have makers."""
    filters = [
        FilterDocument(name=f"ND {stops * 0.3:.1f}", stops=float(stops), count=1, key=f"plain-nd-{stops}")
        for stops in range(1, 7)
    ]
    return RigDocument(schema_name="hextan.rig", filters=filters)


def plain_lens_sets() -> list[LensSetDocument]:
    """Make the series of focal lengths."""
    sets = []
    for i, (name, line) in enumerate(GLASS):
        made = lens_line(LensLineAsk(line=line, name=name))["document"]
        assert made is not None
        sets.append(made.model_copy(update={"maker": MAKER, "key": f"plain-glass-{i}"}))
    return sets
