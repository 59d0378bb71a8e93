"""How makers call what they write into clips, stills and tables: a table of names, and nothing is guessed beyond it."""

from __future__ import annotations

import re
from typing import Any

#: By field: how the last part of a key may read, in lower case without signs between. What stands first is looked for first.
ALIASES: dict[str, tuple[str, ...]] = {
    "lens": ("lensmodel", "lensname", "lenstype", "lens"),
    "body": ("cameramodel", "cameramodelname", "model"),
    "focal_mm": ("focallengthmm", "focallength", "lensfocallength"),
    "t_stop": ("tstop", "tnumber", "transmissionstop"),
    "f_number": ("fnumber", "fstop", "aperture", "irisfnumber"),
    "ei": ("exposureindex", "isospeed", "isospeedratings", "photographicsensitivity", "iso", "ei"),
    "shutter_deg": ("shutterangle", "shutterdegrees"),
    "shutter_s": ("exposuretime", "shutterspeed", "shuttertime"),
    "focus_m": ("focusdistance", "subjectdistance", "focusdistancem"),
    "reel": ("reelname", "reel", "rollname", "cameraroll"),
    "fps": ("capturefps", "sensorfps", "captureframerate", "framerate", "fps", "rate"),
    "name": ("clipname", "filename", "clip", "name", "file"),
    "timecode": ("starttimecode", "timecodestart", "starttc", "timecode", "tc"),
    "width": ("framewidth", "imagewidth", "width"),
    "height": ("frameheight", "imageheight", "height"),
    "codec": ("codec", "videocodec", "compression"),
    "bits": ("bitdepth", "bits"),
    "seconds": ("durationseconds", "duration", "seconds"),
    "pixel_aspect": ("pixelaspectratio", "pixelaspect", "sampleaspectratio"),
}  # fmt: skip
_FIELD = {alias: (field, rank) for field, names in ALIASES.items() for rank, alias in enumerate(names)}


def field_of(key: str) -> tuple[str, int] | None:
    """Which field a key is, and how surely: its last part counts, then its last two.

    >>> field_of("com.maker.camera.LensModel"), field_of("lens model"), field_of("lens.focal_length"), field_of("weather")
    (('lens', 0), ('lens', 0), ('focal_mm', 1), None)
    """
    parts = [re.sub(r"[^a-z0-9]", "", part) for part in re.split(r"[.:/]", key.lower())]
    for many in (1, 2):
        found = _FIELD.get("".join(parts[-many:]))
        if found is not None:
            return found
    return None


def number_of(value: Any) -> float | None:
    """The number that a text begins with, or a fraction; None where there is none.

    >>> number_of("50 mm"), number_of("T2.8"), number_of("1/50"), number_of("f/4"), number_of("wide open"), number_of("24000/1001")
    (50.0, 2.8, 0.02, 4.0, None, 23.976023976023978)
    """
    if isinstance(value, bool):
        return None
    if isinstance(value, int | float):
        return float(value) if abs(float(value)) < 1e12 else None
    text = str(value).strip().replace(",", ".")
    fraction = re.fullmatch(r"(\d{1,12})\s*/\s*(\d{1,12})(?:\s*[a-z]*)?", text, re.IGNORECASE)
    if fraction and int(fraction[2]):
        return int(fraction[1]) / int(fraction[2])
    found = re.match(r"(?:[tf]\s*/?\s*)?(-?\d{1,12}(?:\.\d{1,12})?(?:e[+-]?\d{1,2})?)", text, re.IGNORECASE)
    return float(found[1]) if found else None


def known(tags: dict[str, Any]) -> dict[str, Any]:
    """What is known of a clip's tags, by the field's name; of several names for one thing the surest wins."""
    best: dict[str, tuple[int, Any]] = {}
    for key, value in tags.items():
        found = field_of(key)
        if found is None or value in (None, ""):
            continue
        field, rank = found
        if field not in best or rank < best[field][0]:
            best[field] = (rank, value)
    return {field: value for field, (_, value) in best.items()}
