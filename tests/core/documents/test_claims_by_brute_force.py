"""Verdicts of claimed crop factors against all readings, written out here for random bodies."""

import math
import random

import pytest

from hextan.core.documents import parse_body
from hextan.core.documents.claims import Home, check_crop
from tests.core.bodies import a_body, a_format, a_mode

#: Super 35 as 4 perforations 24.89 x 18.66 (SMPTE ST 59), full frame 36 x 24 (ISO 1007), mm.
SUPER_35, FULL_FRAME = (24.89, 18.66), (36.0, 24.0)


def factors(windows, bases):
    for w, h in windows:
        for name, (rw, rh) in bases.items():
            yield name, "width", rw / w
            yield name, "height", rh / h
            yield name, "diagonal", math.hypot(rw, rh) / math.hypot(w, h)


def trimmed(w, h, aspect):
    return (w, w / aspect) if w / h < aspect else (h * aspect, h)


@pytest.mark.parametrize("seed", range(120))
def test_a_verdict_is_that_of_all_readings(seed):
    rng = random.Random(seed)
    pitch = rng.choice([3.8, 5.6, 6.0, 8.25])
    wide, high = rng.randrange(4000, 9000, 2), rng.randrange(2200, 6000, 2)
    window = [rng.randrange(wide // 2, wide, 2), rng.randrange(high // 2, high, 2)]
    rasters = rng.sample([[3840, 2160], [4096, 2160], [2048, 1536], [3000, 2000]], 2)
    document = parse_body(a_body(
        [a_mode("Full", window=window, formats=[a_format(f"F{i}", raster=r) for i, r in enumerate(rasters)])],
        pitch_um=pitch, photosites=[wide, high],
    ))  # fmt: skip
    w, h = window[0] * pitch / 1000, window[1] * pitch / 1000
    windows, shapes = [(w, h)], [w / h]
    for raster in rasters:
        aspect = raster[0] / raster[1]
        if all(abs(aspect / known - 1) > 0.005 for known in shapes):
            shapes.append(aspect)
            windows.append(trimmed(w, h, aspect))
    named = {
        "super35": SUPER_35,
        "full_frame": FULL_FRAME,
        "sensor": (wide * pitch / 1000, high * pitch / 1000),
    }
    every = list(factors(windows, named))
    basis, by, decimals = (
        rng.choice(["super35", "full_frame"]),
        rng.choice(["width", "height", "diagonal"]),
        rng.choice([2, 3]),
    )
    at_home = [k for name, dimension, k in every if (name, dimension) == (basis, by)]
    # A factor that somebody prints: of the home reading, of another one, a little off, or out of the air.
    factor = rng.choice(
        [
            rng.choice(at_home),
            rng.choice(every)[2],
            rng.choice(at_home) * 1.004,
            rng.uniform(0.5, 3.0),
        ]
    )
    factor = round(factor, decimals)
    claim = {
        "key": "c",
        "mode": document.modes[0].key,
        "factor": factor,
        "decimals": decimals,
        "basis": basis,
        "by": by,
    }
    claimed = parse_body(document.model_dump(mode="json") | {"claims": {"crops": [claim]}})
    got = check_crop(claimed, claimed.claims.crops[0], [], Home.named("super35"))

    def fits(k):
        return abs(k - factor) <= 0.5 * 10**-decimals * (1 + 1e-9)

    def close(k):
        return abs(k / factor - 1) <= 0.005

    wanted = (
        "holds"
        if any(map(fits, at_home))
        else "near"
        if any(map(close, at_home))
        else "basis"
        if any(fits(k) or close(k) for _, _, k in every)
        else "fails"
    )
    assert got["verdict"] == wanted, got["text"]
