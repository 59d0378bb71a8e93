"""Published rasters, apertures and rates, each named with its source, as Hextan takes them. Standards from memory."""

import math
from fractions import Fraction

import pytest

from hextan.core.base import parse_rate
from hextan.core.documents import Home, parse_body
from hextan.core.documents.body import CropClaim
from hextan.core.documents.claims import aspect_words, check_crop, readings
from hextan.core.equipment import DataAsk, PackageSettings, data_table
from hextan.formats.fdl import aspect_ratio
from tests.core.bodies import a_body, a_format, a_mode, package_of

RASTERS = {
    "ITU-R BT.709, HD": ((1920, 1080), "16:9", 2.07),
    "ITU-R BT.2020, UHD 4K": ((3840, 2160), "16:9", 8.29),
    "ITU-R BT.2020, UHD 8K": ((7680, 4320), "16:9", 33.18),
    "SMPTE ST 2048-1, 4096 x 2160": ((4096, 2160), "17:9", 8.85),
    "SMPTE ST 2048-1, 2048 x 1080": ((2048, 1080), "17:9", 2.21),
    "SMPTE ST 428-1, 4K scope": ((4096, 1716), "2.39:1", 7.03),
    "SMPTE ST 428-1, 4K flat": ((3996, 2160), "1.85:1", 8.63),
}


@pytest.mark.parametrize("source", RASTERS)
def test_published_rasters(source):
    (w, h), aspect, megapixels = RASTERS[source]
    assert aspect_words(w / h) == aspect
    assert w * h / 1e6 == pytest.approx(megapixels, abs=0.005)
    over, under = aspect_ratio(w / h)
    assert over / under == pytest.approx(w / h, abs=1e-5)
    # Recorded and delivered in the same raster, nothing is left over and nothing is missing.
    document = parse_body(a_body([a_mode(formats=[a_format("x", raster=[w, h])])]))
    row = data_table(package_of([document]), PackageSettings(), DataAsk(delivery=[w, h]))["rows"][0]
    assert row["headroom_percent"] == pytest.approx(0, abs=1e-9)
    assert row["levelling_deg"] == pytest.approx(0, abs=1e-6)


RATES = {
    "SMPTE ST 2048-1: 24/1.001": ("23.976", Fraction(24000, 1001)),
    "ITU-R BT.709: 30/1.001": ("29.97", Fraction(30000, 1001)),
    "ITU-R BT.709: 60/1.001": ("59.94", Fraction(60000, 1001)),
    "ITU-R BT.2020: 120/1.001": ("119.88", Fraction(120000, 1001)),
    "ITU-R BT.709: 25": ("25", Fraction(25)),
    "SMPTE ST 428-11: 48": ("48", Fraction(48)),
}


@pytest.mark.parametrize("source", RATES)
def test_published_rates(source):
    printed, exact = RATES[source]
    assert parse_rate(printed) == exact


#: Windows as large as published apertures, on an invented sensor of 36 x 24 mm, with the crops that follow.
APERTURES = {
    "ISO 1007, 135 frame: 36 x 24 mm": ((36.0, 24.0), 1.0),
    "SMPTE ST 59, 35 mm full aperture: 24.89 x 18.66 mm": ((24.89, 18.66), 1.4464),
    "SMPTE ST 201, Super 16: 12.52 x 7.41 mm": ((12.52, 7.41), 2.8754),
}


@pytest.mark.parametrize("source", APERTURES)
def test_published_apertures(source):
    (w, h), crop = APERTURES[source]
    mode = a_mode("Window", window=None, window_mm=[w, h])
    document = parse_body(a_body([mode], pitch_um=1.0, photosites=[36000, 24000]))
    by_width = next(
        r for r in readings(document, document.modes[0]) if (r.basis, r.by) == ("full frame", "width")
    )
    assert by_width.factor == pytest.approx(crop, abs=1e-4)
    claim = CropClaim(mode="Window", factor=round(crop, 2))
    assert check_crop(document, claim, [], Home.named("full_frame"))["verdict"] == "holds"


def test_crop_chain_of_the_trade():
    """1.375 x 1.067 = 1.467: a window and its 16:9 trim (common practice, no source)."""
    document = parse_body(a_body([a_mode(window=None, window_mm=[36 / 1.375, 36 / 1.375 / (4096 / 2160)])]))
    told = check_crop(
        document,
        CropClaim(mode="Full", factor=1.467, decimals=3, aspect=[16, 9]),
        [],
        Home.named("full_frame"),
    )
    assert told["verdict"] in ("holds", "near")
    assert told["readings"][0]["factor"] == pytest.approx(1.375 * 4096 / 3840, rel=1e-3)


def test_active_pixels_fall_with_the_square():
    """24 MP at 1.5x leaves 10.7 MP (common practice, no source)."""
    document = parse_body(a_body([a_mode("Crop", window=[4000, 2667])]))
    w, h = document.modes[0].photosites(document.pitch_um)
    assert math.prod(document.photosites) / 1e6 == 24
    assert w * h / 1e6 == pytest.approx(10.7, abs=0.05)
