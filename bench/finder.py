"""The format finder over 2,000 formats against one public evaluation of the same formats."""

from __future__ import annotations

import json
import time
from statistics import median

from bench.bulk import paired_ratio
from bench.result import Result
from hextan.core import evaluate
from hextan.core.documents import body_of, parse_body
from hextan.core.equipment import Body, Card, Lens, LensSet, Package, PackageSettings
from hextan.core.finder import FinderAsk, find_formats

BODIES, MODES, FORMATS = 10, 20, 10


def against_evaluation() -> list[Result]:
    """Time of the finder over that of an evaluation; and its time alone."""
    package = _package()
    assert len(package.formats) == 2000
    settings = PackageSettings(cards=[Card(key="card", name="Slab", capacity=512)])
    # Every requirement is asked, musts and wishes, and most formats are rejected: that is the most work.
    ask = FinderAsk.model_validate(
        {"lens": {"lens_id": 1}, "rate": {"fps": "60"}, "delivery": {"raster": [3840, 2160], "must": False},
         "oversampling": {"least": 1.1, "must": False}, "full_read": {"must": False}, "bits": {"least": 10},
         "covers": {}, "angle_deg": {"least": 30}, "card_minutes": {"least": 20, "card": "card", "must": False},
         "levelling_deg": {"least": 2, "must": False}}
    )  # fmt: skip
    formats = [
        here.as_request(60.0, {"aspect": 16 / 9, "raster": [3840, 2160]}) for here in package.formats.values()
    ]
    request = json.dumps({"subject": {"distance_m": 3}, "lens": {"focal_mm": 40, "f_number": 2.8, "image_circle_mm": 31},
                          "formats": formats}).encode()  # fmt: skip
    answer = find_formats(package, settings, ask)
    assert answer["rejected"]
    assert len(answer["ranked"]) + len(answer["rejected"]) == 2000
    ratio = paired_ratio(lambda: find_formats(package, settings, ask), lambda: evaluate(request), 9)
    times = []
    for _ in range(9):
        start = time.perf_counter()
        find_formats(package, settings, ask)
        times.append(time.perf_counter() - start)
    return [
        Result("format finder over 2,000 formats / one evaluation of them", ratio, 2.0, "x"),
        Result("format finder over 2,000 formats", 1000 * median(times), 300.0, "ms"),
    ]


def _package() -> Package:
    lenses = [Lens(i, f"Lens {i}", 12.0 + 4 * i, 12.0 + 4 * i, 2.0, 2.1, None, None, 24.0 + i, 1.0, 0.5, "W54", "rectilinear")
              for i in range(1, 41)]  # fmt: skip
    return Package(
        tuple(_body(number) for number in range(BODIES)), (LensSet(1, "Lantern Works", "all", tuple(lenses)),)
    )


def _body(number: int) -> Body:
    modes = [
        {"key": f"m{i}", "name": f"Mode {i}", "window": [6000 - 180 * i, 3375 - 100 * i], "row_time_us": 6.0 + 0.1 * number,
         "formats": [{"key": f"m{i}f{j}", "name": f"Format {j}", "raster": [3840 - 192 * j, 2160 - 108 * j], "bits": 8 + j % 3 * 2,
                      "megabits": 400.0, "megabits_at_fps": 25.0, "rates": ["24", "25", "50", "60", "100"]} for j in range(FORMATS)]}
        for i in range(MODES)
    ]  # fmt: skip
    document = parse_body({"key": "b", "name": f"Body {number}", "maker": "Halewick", "mount": "W54",
                           "photosites": [6000, 4000], "pitch_um": 6.0, "modes": modes})  # fmt: skip
    keys = [key for mode in document.modes for key in (mode.key, *(f.key for f in mode.formats))]
    first = 1 + number * len(keys)
    return body_of(document, {key: first + i for i, key in enumerate(keys)}, number + 1)
