"""What the properties of the API mean, by their names: one word is one thing, wherever it stands.

A name that says all by itself is written out with its unit; what it does not say stands in `MEANINGS`.
"""

from __future__ import annotations

#: Units by the ending of a name, the longest first.
UNITS: dict[str, str] = {
    "_fraction_of_width": "share of the picture's width",
    "_mb_s": "megabytes (10^6) a second",
    "_percent": "per cent",
    "_error_mm": "millimetres",
    "_gib": "gibibytes (2^30)",
    "_stops": "stops",
    "_share": "share of one",
    "_deg": "degrees",
    "_fps": "frames a second",
    "_gb": "gigabytes (10^9)",
    "_hz": "hertz",
    "_kg": "kilograms",
    "_mm": "millimetres",
    "_mp": "megapixels",
    "_ms": "milliseconds",
    "_px": "pixels",
    "_um": "micrometres",
    "_us": "microseconds",
    "_m": "metres",
    "_s": "seconds",
}
#: Names that end like a unit and are none.
NO_UNIT = frozenset({"may_move", "is_m"})
MEANINGS: dict[str, str] = {
    "across": "What stands side by side: formats, pictures or classes.",
    "adapter_ids": "Adapters between lens and body, the one at the lens first.",
    "aspect": "Width over height of the picture as it is seen.",
    "airy_mm": "Diameter of the Airy disc on the sensor, millimetres.",
    "background_ratio": "Size of what stands behind against the subject, over what it was.",
    "by": "The dimension that counts: width, height or diagonal.",
    "circle_mm": "Diameter of the image circle, behind the adapters; null where it is not stated. Millimetres.",
    "coc": "The rule for the circle of confusion: what counts as sharp.",
    "coc_mm": "Circle of confusion on the sensor, millimetres.",
    "code": "Stable name of the error or note, for programs.",
    "cost_stops": "Light, field and handling together, in stops: the cheapest comes first.",
    "crop": "Crop against the reference.",
    "crop_ids": "In-camera crops that are switched on.",
    "dark_share": "Share of the recording that lies outside the image circle, 0 to 1.",
    "delivery": "The picture on the screen: aspect, size and what is protected.",
    "delivery_headroom": "Recorded pixels for each delivered one, across the picture.",
    "distance_m": "Distance from the sensor plane, metres.",
    "document": "The document as it is entered and kept.",
    "effective_focal_mm": "Focal length behind the adapters times the crop against the reference, millimetres.",
    "effective_mm": "Effective focal length against the reference, millimetres.",
    "ei": "Exposure index that the camera is set to.",
    "equivalent": "What on the reference gives the same field and the same depth.",
    "f_number": "f-number behind the adapters, by which depth goes; null where none is known.",
    "far_m": "Far limit of depth from the sensor plane, metres; null is infinity.",
    "faults": "What is wrong, one entry for each field.",
    "field": "Path of the field that is wrong.",
    "field_m": "Field in the plane of focus, metres.",
    "flange_mm": "Flange focal distance of the mount, millimetres.",
    "focal_mm": "Focal length, millimetres.",
    "focus_m": "Focus distance from the sensor plane, metres; null: on the subject.",
    "format_class": "Class of the recording by its size; none where it is near to no named size.",
    "fps": "Frames a second.",
    "framed_mm": "The picture without what is protected, as it lies on the sensor, millimetres.",
    "given": "What the write was to be.",
    "here": "What is there.",
    "hyperfocal_m": "Hyperfocal distance from the lens, metres.",
    "id": "Number that stays with the thing.",
    "image_circle_mm": "Diameter of the image circle, millimetres; null where it is not stated.",
    "key": "Name of a row that stays with it through copies, files and undo.",
    "kind": "Which kind it is.",
    "level": "How much it matters: info, warn, or stop where it cannot be shot like this.",
    "limited_by": "What limits the rate: the readout, or a stated limit.",
    "links": "The links of the chain; their factors multiply to the whole.",
    "magnification": "Size of the image over the size of the thing; of an adapter, what it multiplies focal length by.",
    "map": "How the raster is made: scaled from the whole window, or photosite for pixel from its middle.",
    "margin_mm": "Circle left over beyond what is needed, millimetres; negative where it is short.",
    "marks": "How the ring is marked: T or f/.",
    "max_fps": "Highest rate that is possible, frames a second.",
    "mb_s": "Data rate, megabytes (10^6) a second.",
    "message": "What is wrong and what to do, in a sentence or more.",
    "metres": "Metres.",
    "mm": "Millimetres.",
    "more": "How many faults there are besides those that are told.",
    "near_m": "Near limit of depth from the sensor plane, metres.",
    "needed_mm": "Circle that the recording needs, or focal length that would be needed, millimetres.",
    "nd_stops": "Neutral density, stops.",
    "notes": "What to watch out for.",
    "offset": "From the optical axis in photosites, right and down.",
    "open_rows": "Recording formats whose derivation is wanted.",
    "oversampling": "Samples for each recorded pixel.",
    "percent": "Per cent.",
    "photosites": "Photosites across and down.",
    "picture_mm": "The delivered picture as it lies on the sensor, millimetres.",
    "pitch_um": "From photosite to photosite, micrometres.",
    "projection": "By which law the lens draws.",
    "protect": "Share of the delivered picture that is protected all round, 0 to 0.9.",
    "pupil_magnification": "Exit pupil over entrance pupil.",
    "raster": "Recorded pixels across and down.",
    "recorded_mm": "What is recorded as it lies on the sensor, millimetres.",
    "reference": "What crops and effective focal lengths are told against.",
    "removed": "What was removed and can be brought back.",
    "rule": "The rule that is broken, or by which is judged.",
    "scan_fps": "How often the sensor can be scanned, times a second.",
    "schema": "Name of the document's schema.",
    "schema_version": "Version of the document's schema.",
    "sharpness": "How the read does: oversampled, photosite for pixel, or softened.",
    "squeeze": "By how much the lens squeezes: the picture is so many times as wide when it is seen.",
    "stop": "Stop as the ring is marked.",
    "stops": "Stops: marks of the ring, or an amount of light.",
    "stored": "What is stored.",
    "subject_m": "Distance of the subject from the sensor plane, metres.",
    "t_stop": "T-stop behind the adapters, by which exposure goes; null where none is known.",
    "taken": "What it was when it was taken from the catalogue.",
    "text": "In words.",
    "texts": "In words, one for each.",
    "throat_mm": "Clear width of the mount, millimetres.",
    "value": "What was given.",
    "verdict": "What it comes to.",
    "version": "Counts up with each change; a write names the one that it is based on.",
    "via": "The adapters between lens and body, in words; null without.",
    "window": "The part of the sensor that is read.",
    "window_mm": "The window as it is read, millimetres.",
    "words": "In sentences.",
    "working": "f-number that counts for light close up.",
    "x": "To the right of the optical axis or along the curve, in the unit of the whole.",
    "y": "Down from the optical axis, in the unit of the whole.",
}


def meaning(name: str) -> str:
    """Describe a property by its name.

    >>> meaning("hyperfocal_m"), meaning("card_minutes"), meaning("band_stops")
    ('Hyperfocal distance from the lens, metres.', 'Card minutes.', 'Band, stops.')
    """
    if name in MEANINGS:
        return MEANINGS[name]
    unit = "" if name in NO_UNIT else next((end for end in UNITS if name.endswith(end)), "")
    said = name.removesuffix(unit).replace("_", " ").strip()
    said = f"{said[:1].upper()}{said[1:]}"
    return f"{said}, {UNITS[unit]}." if unit else f"{said}."
