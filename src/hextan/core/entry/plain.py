"""Plain windows and plain glass without makers: enough to begin without entering anything.

Windows of published standards as bodies with one scan mode, and series of focal lengths by class.
"""

from __future__ import annotations

from hextan.core.base import Origin
from hextan.core.documents import BodyDocument, FilterDocument, LensSetDocument, RigDocument
from hextan.core.entry.body import QuickBodyAsk, quick_body
from hextan.core.entry.lens_line import LensLineAsk, lens_line
from hextan.core.entry.sensor import SensorAsk

MAKER = "plain"
#: A window each: name, width and height in mm, and where the figures come from.
WINDOWS: tuple[tuple[str, float, float, str], ...] = (
    ("Super 35, 4 perforations", 24.89, 18.66, "SMPTE ST 59, full aperture, from memory"),
    ("Super 35, 3 perforations", 24.89, 13.87, "common practice, no source"),
    ("Super 35 in 16:9", 24.89, 14.0, "the width of SMPTE ST 59 in 16:9"),
    ("35 mm, Academy", 21.95, 16.0, "SMPTE ST 59, from memory"),
    ("35 mm, 2 perforations", 24.89, 9.35, "common practice, no source"),
    ("full frame", 36.0, 24.0, "ISO 1007, from memory"),
    ("full frame in 16:9", 36.0, 20.25, "the width of ISO 1007 in 16:9"),
    ("65 mm, 5 perforations", 52.48, 23.01, "SMPTE ST 215, from memory"),
    ("Super 16", 12.52, 7.41, "SMPTE ST 201, from memory"),
    ("16 mm", 10.26, 7.49, "SMPTE ST 7, from memory"),
    ("APS-C, 23.6 mm", 23.6, 15.6, "common practice, no source"),
    ("APS-C, 22.3 mm", 22.3, 14.9, "common practice, no source"),
    ("half frame", 24.0, 18.0, "common practice, no source"),
    ("micro four thirds", 17.3, 13.0, "common practice, no source"),
    ("1 inch", 13.2, 8.8, "common practice, no source"),
    ("2/3 inch", 9.6, 5.4, "common practice, no source"),
)
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
    for name, w, h, source in WINDOWS:
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
