"""Words of the trade and what they mean, by all the names that cine, video and stills have for them."""

from __future__ import annotations

import re
from typing import NamedTuple


class Gloss(NamedTuple):
    """A term as Hextan says it, what others call it, and what it means."""

    term: str
    also: tuple[str, ...]
    means: str


GLOSSES: tuple[Gloss, ...] = (
    Gloss("effective focal length", ("frames like", "35 mm equivalent", "equivalent focal length"),
          "The focal length that frames the same on the window of reference: optical focal length times crop. It says nothing of depth or light."),
    Gloss("crop", ("crop factor", "focal length multiplier"),
          "How many times the window of reference is as wide (high, diagonal) as the picture on the sensor."),
    Gloss("EI", ("ISO", "ASA", "exposure index", "sensitivity", "gain"),
          "How sensitive the camera is set. Twice the EI is a stop; as a gain a stop is 6 dB (20 log10 of the ratio)."),
    Gloss("native EI", ("base ISO", "native ISO", "dual ISO"), "A sensitivity at which the sensor reads with the least noise for its range."),
    Gloss("shutter angle", ("shutter", "shutter speed", "shutter time"),
          "The share of the frame's time in which the shutter is open: 180° at 25 fps is 1/50 s."),
    Gloss("T-stop", ("T", "transmission stop"), "The f-number that a lens without losses would need for the light that comes through. Exposure goes by it."),
    Gloss("f-number", ("f", "f-stop", "aperture", "relative aperture"), "Focal length over the diameter of the entrance pupil. Depth goes by it."),
    Gloss("stop", ("f-stop of light", "EV"), "Twice or half the light. A third of it is the usual step."),
    Gloss("depth of field", ("dof", "depth", "in focus"), "From the near to the far limit in which a point is drawn no larger than the circle of confusion."),
    Gloss("circle of confusion", ("coc", "rule for sharp"), "The largest disc on the sensor that still counts as a point. Which one, is a rule that the production chooses."),
    Gloss("hyperfocal distance", ("hyperfocal",), "Focused there, everything from half of it to infinity is sharp."),
    Gloss("image circle", ("circle", "coverage", "covers"), "The disc that a lens draws on the sensor plane. It has to reach the farthest corner of what is recorded."),
    Gloss("squeeze", ("anamorphic", "scope lens", "2x"), "How many times as wide a lens takes the picture in; it is stretched again afterwards. Heights stay."),
    Gloss("adapter", ("mount adapter",), "What fills the way between a lens's mount and the body's, with glass or without."),
    Gloss("reducer", ("focal reducer",), "An adapter with glass that shortens the focal length and gathers the light: brighter, wider, and a smaller circle."),
    Gloss("extender", ("teleconverter",), "Glass behind a lens that lengthens it: darker, tighter, and a larger circle."),
    Gloss("flange distance", ("flange focal distance", "register"), "From the mount to the sensor plane. A lens goes on a shorter one with an adapter, on a longer one only with glass."),
    Gloss("scan mode", ("sensor mode", "readout mode", "crop mode"), "Which photosites are read, how they are sampled, and how fast."),
    Gloss("recording format", ("codec settings", "resolution"), "Raster, mapping, codec and rates that are recorded of a scan mode."),
    Gloss("window", ("sensor area", "gate"), "The part of the sensor that a scan mode reads."),
    Gloss("photosite", ("sensel",), "One element of the sensor. A pixel is one of the recorded picture; they are the same only where nothing is scaled."),
    Gloss("binned", ("binning", "pixel binning"), "Neighbouring photosites are read as one: faster, with less noise, and with less detail."),
    Gloss("skipped", ("line skipping",), "Rows or columns are left out: faster, softer, and fine patterns shimmer."),
    Gloss("oversampled", ("oversampling", "downsampled"), "More samples are read than pixels are recorded, and scaled down: sharper, with less noise."),
    Gloss("readout", ("rolling shutter", "row time", "readout time"), "The time from the first row to the last. What moves meanwhile is drawn askew, and it limits the rate."),
    Gloss("raw", ("sensor data",), "Unaltered samples of the sensor: no stabiliser, no correction, no scaling acts on it."),
    Gloss("delivery", ("deliverable", "extraction"), "The picture that is shown in the end: aspect and pixels, and what of it is protected."),
    Gloss("protection", ("protect",), "A share of the picture that is framed around, to be left to move or turn afterwards."),
    Gloss("headroom", ("punch-in", "re-framing"), "Pixels that are recorded beyond those that are delivered: so much can be cropped or moved afterwards."),
    Gloss("close focus", ("minimum focus", "MOD"), "The nearest distance, from the sensor plane, to which a lens can be focused."),
    Gloss("breathing", ("focus breathing",), "A lens frames tighter or wider when it is focused nearer."),
    Gloss("entrance pupil", ("nodal point", "no-parallax point"), "Where the aperture seems to stand, seen from the front. Perspective is seen from there."),
    Gloss("diffraction", ("Airy disc",), "A small aperture spreads every point: stopped down far, nothing is sharp any more, however deep."),
    Gloss("flicker", ("banding", "mains hum"), "Lamps brighten twice in every cycle of the mains. A shutter that holds whole pulses does not see it."),
    Gloss("ND", ("neutral density", "ND filter"), "Glass that takes light and nothing else: 0.3 of density, or ND2, is a stop."),
    Gloss("keep-out", ("safety distance", "exclusion zone"), "How near the camera or its crew may come. Whoever is responsible for safety sets it; Hextan never calls a distance safe."),
)  # fmt: skip


def _plain(text: str) -> str:
    told = re.sub(r"^(?:what(?:'s| is| are)?|define)\s+(?:an?\s+|the\s+)?", "", text.strip().lower())
    return re.sub(r"[^a-z0-9]", "", told)


_BY_NAME = {_plain(name): gloss for gloss in reversed(GLOSSES) for name in (*gloss.also, gloss.term)}
#: So many letters of a term are enough, where they begin one alone.
_ENOUGH = 4


def gloss_of(line: str) -> Gloss | None:
    """Find a term in a line that is nothing else: whole, or by its beginning where only one begins so.

    >>> gloss_of("what is a T-stop?").term, gloss_of("iso").term, gloss_of("hyper").term, gloss_of("50 s35")
    ('T-stop', 'EI', 'hyperfocal distance', None)
    """
    plain = _plain(line)
    if plain in _BY_NAME:
        return _BY_NAME[plain]
    found = (
        {gloss for name, gloss in _BY_NAME.items() if name.startswith(plain)}
        if len(plain) >= _ENOUGH
        else set()
    )
    return found.pop() if len(found) == 1 else None
