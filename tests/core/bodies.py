"""Bodies for the tests: small ones made here, and those of the demo's catalogue."""

import json
from importlib.resources import files

from hextan.core.documents import body_of, parse_body
from hextan.core.equipment import Package
from hextan.core.evaluation import compute, parse_request


def a_format(name="UHD", **changes):
    return {"key": name.replace(" ", "_"), "name": name, "raster": [3840, 2160], "rates": ["24", "25"],
            "bits": 10, "samples": "4:2:2", "compression": 5.0} | changes  # fmt: skip


def a_mode(name="Full", formats=(), **changes):
    return {"key": name.replace(" ", "_"), "name": name, "window": [6000, 3375], "row_time_us": 6.0,
            "overhead_us": 400.0, "formats": list(formats)} | changes  # fmt: skip


def a_body(modes=(), **changes):
    return {"key": "body", "name": "Skerry 60", "maker": "Halewick", "mount": "W54", "photosites": [6000, 4000],
            "pitch_um": 6.0, "modes": list(modes)} | changes  # fmt: skip


def catalogue():
    text = files("hextan.demo").joinpath("catalogue.json").read_text(encoding="utf-8")
    return [parse_body(body) for body in json.loads(text)["bodies"]]


def package_of(documents, **more):
    """Put documents into a package, with ids that are unique over all bodies."""
    bodies, used = [], 0
    for number, document in enumerate(documents, 1):
        rows = [row for mode in document.modes for row in (mode, *mode.formats)] + list(document.crops)
        ids = {row.key: used + i for i, row in enumerate(rows, 1)}
        used += len(rows)
        bodies.append(body_of(document, ids, number))
    return Package(bodies=tuple(bodies), **more)


#: A body of three windows: all of it, a small one, and one that lies off the middle.
WINDOWS = package_of(
    [
        parse_body(
            a_body(
                [
                    a_mode("Full", window=[6000, 3375], formats=[a_format("UHD")]),
                    a_mode("Small", window=[3000, 1688], formats=[a_format("small")]),
                    a_mode("Moved", window=[2000, 1125], offset=[400, -200], formats=[a_format("moved")]),
                ]
            )
        )
    ]
)


def evaluated(circle=31.5, squeeze=1.0, focal=40.0, distance=3.2, projection="rectilinear", delivery=None):
    """A lens on all formats of `WINDOWS`, computed."""
    formats = [here.as_request(25.0, delivery) for here in WINDOWS.formats.values()]
    return compute(parse_request({
        "subject": {"distance_m": distance}, "formats": formats,
        "lens": {"focal_mm": focal, "f_number": 2.0, "image_circle_mm": circle, "squeeze": squeeze,
                 "projection": projection}}))  # fmt: skip
