"""Speed of scan modes and the weight of their recordings, against the evaluation and by hand."""

import json
from importlib.resources import files

import numpy as np
import pytest

from hextan.core import evaluate
from hextan.core.documents import parse_body
from hextan.core.equipment.data import DataAsk, data_table
from hextan.core.equipment.settings import PackageSettings, parse_settings
from hextan.core.equipment.speed import (
    highest_of,
    rows_for_rate,
    shutter_time_s,
    skew_share,
    speed_table,
    stops_lost,
)
from hextan.core.optics import frame_time_us
from tests.core.bodies import a_body, a_format, a_mode, catalogue, package_of


@pytest.fixture(scope="module")
def package():
    return package_of(catalogue())


@pytest.fixture(scope="module")
def settings():
    text = files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8")
    return parse_settings(json.loads(text)["settings"])


def test_highest_rates_agree_with_the_public_evaluation(package):
    formats = [here.as_request() for here in package.formats.values()]
    rows = evaluate({"lens": {"focal_mm": 40}, "formats": formats})["formats"]
    for here, row in zip(package.formats.values(), rows, strict=True):
        highest = highest_of(here)
        assert highest.possible_fps == pytest.approx(row["speed"]["max_fps"], rel=1e-12)
        assert (highest.limited_by == "readout") == (row["speed"]["limited_by"] == "readout")
        assert here.limited_by(row["speed"]["limited_by"]) == highest.limited_by


def limited(body=None, mode=None, **changes):
    document = parse_body(a_body([a_mode(formats=[a_format(**changes)], **(mode or {}))], **(body or {})))
    return highest_of(next(iter(package_of([document]).formats.values())))


def test_each_limit_binds_in_its_turn():
    readout = 1e6 / (3375 * 6.0 + 400)
    assert (limited().possible_fps, limited().limited_by) == (pytest.approx(readout), "readout")
    assert limited(mode={"max_fps": 40.0}).limited_by == "stated limit"
    assert limited(highest_fps=30.0).limited_by == "codec"
    # UHD 4:2:2 10 bit 5:1 is 4.1472 MB a frame.
    by_data = limited(body={"write_mb_s": 100.0})
    assert (by_data.possible_fps, by_data.limited_by) == (pytest.approx(100 / 4.1472), "data rate")
    assert limited(body={"write_mb_s": 100.0, "buffer_gb": 8.0}).limited_by == "readout"
    unknown = limited(mode={"row_time_us": None})
    assert (unknown.possible_fps, unknown.usable_fps) == (None, 25.0)


def test_interlaced_needs_the_scan_at_the_field_rate():
    """A mode that stops at 30 scans cannot record 50i: two fields make a frame."""
    assert limited(mode={"max_fps": 30.0}, interlaced=True).possible_fps == pytest.approx(15.0)
    # What the codec and the card take is counted in frames.
    assert limited(highest_fps=20.0, interlaced=True).possible_fps == pytest.approx(20.0)
    assert limited(body={"write_mb_s": 41.472}, interlaced=True).possible_fps == pytest.approx(10.0)


def test_rows_for_a_rate_are_the_most_that_fit():
    rng = np.random.default_rng(3)
    fps, row, over = rng.uniform(10, 500, 200), rng.uniform(1, 15, 200), rng.uniform(0, 900, 200)
    rows = rows_for_rate(fps, row, over)
    assert (1e6 / frame_time_us(rows, row, over) >= fps * (1 - 1e-9)).all()
    assert (1e6 / frame_time_us(rows + 1, row, over) < fps).all()


def test_shutter_light_and_skew_by_hand():
    assert float(shutter_time_s(180.0, 25.0)) == pytest.approx(1 / 50)
    assert float(stops_lost(100.0, 25.0)) == pytest.approx(2.0)
    # 2000 px/s over 2160 rows of 6.6 us: 28.5 px of 3840.
    assert float(skew_share(2160 * 6.6e-6, 3840 / 2000)) * 3840 == pytest.approx(28.51, abs=0.01)
    assert skew_share(np.full((2, 3), 0.01), 0.5).shape == (2, 3)


def test_speed_table(package, settings):
    table = speed_table(package, settings)
    rows = {(m["body"], m["name"]): m for m in table["modes"]}
    assert len(rows) == sum(len(body.modes) for body in package.bodies)
    full = rows["Ebb 64", "Full 6.4K"]
    assert full["readout_ms"] == pytest.approx(3620 * 6.35 / 1000)
    assert full["slow_motion"] == pytest.approx(30 / 25)
    assert full["shutter_ms"] == pytest.approx(1000 / 60)
    assert full["skew"]["share"] == pytest.approx(full["readout_ms"] / 1000 / settings.crossing_s)
    assert full["wanted"] == {"fits": False, "free_window": None}
    assert rows["Skiff 46", "Scope 4.6K"]["progressive"]["limited_by"] == "data rate"
    assert rows["Ebb 64", "S35 4.3K"]["interlaced"]["possible_fps"] == pytest.approx(62.6378 / 2, rel=1e-5)
    fast = speed_table(package, settings.model_copy(update={"wanted_fps": "500"}))
    window = next(m for m in fast["modes"] if m["name"] == "Fast window")["wanted"]
    assert not window["fits"]
    assert window["free_window"]["rows"] == int((2000 - 900) / 1.55)


def test_modes_stand_on_the_curves_of_their_sensors(package, settings):
    table = speed_table(package, settings)
    for mode in table["modes"]:
        curves = [np.array(c["points"]) for c in table["curves"] if c["body_id"] == mode["body_id"]]
        times = [np.interp(mode["height_mm"], c[:, 0], 1 / c[:, 1]) for c in curves]
        assert min(abs(1 / t / mode["scan_fps"] - 1) for t in times) < 1e-6


def test_a_mode_without_formats_tells_its_bare_limit():
    document = parse_body(a_body([a_mode(max_fps=40.0), a_mode("Unknown", row_time_us=None)]))
    bare, unknown = speed_table(package_of([document]), PackageSettings())["modes"]
    assert (bare["progressive"]["possible_fps"], bare["progressive"]["limited_by"]) == (40.0, "stated limit")
    assert unknown["progressive"] is unknown["skew"] is unknown["wanted"] is None


def test_data_table_by_hand(package, settings):
    rows = {(r["body"], r["format"]): r for r in data_table(package, settings, DataAsk())["rows"]}
    uhd = rows["Ebb 64", "S35 → UHD"]
    assert uhd["oversampling"] == pytest.approx([4352 / 3840, 2448 / 2160])
    assert uhd["sampled"] == [4352, 2448]
    assert (uhd["headroom_percent"], uhd["levelling_deg"]) == (pytest.approx(0, abs=1e-9), 0.0)
    assert uhd["mb_s"] == pytest.approx(750 / 8)
    assert uhd["card_minutes"]["card1"] == pytest.approx(512e9 / (750e6 / 8) / 60)
    assert uhd["card_minutes"]["card3"] == pytest.approx(240 * 2**30 / (750e6 / 8) / 60)
    assert uhd["day_gb"] == pytest.approx(90 * 60 * 750 / 8 / 1000)
    assert uhd["day_gib"] == pytest.approx(uhd["day_gb"] * 1e9 / 2**30)
    raw = rows["Ebb 64", "Full 6.4K raw"]
    assert raw["headroom_percent"] == pytest.approx(100 * (6432 / 3840 - 1), abs=0.1)
    assert raw["levelling_deg"] > 10
    hd = rows["Ebb 64", "S35 → HD"]
    assert hd["levelling_deg"] is None
    assert hd["headroom_percent"] == pytest.approx(-50)
    burst = data_table(package, settings, DataAsk(fps="240"))["rows"]
    tern = next(r for r in burst if r["format"] == "2.6K raw")
    rate = 2592 * 1458 * 10 / 8 * 240
    assert tern["buffer_s"] == pytest.approx(16e9 / (rate - 280e6))
    assert tern["fits_rate"]
    assert not next(r for r in burst if r["format"] == "Full 6.4K raw")["fits_rate"]


def test_crop_in_camera_against_crop_afterwards(package, settings):
    rows = {
        (r["body"], r["format"]): r
        for r in data_table(package, settings, DataAsk(delivery=[1920, 1080]))["rows"]
    }
    strong = next(c for c in rows["Ebb 64", "S35 → UHD"]["crops"] if c["name"] == "Stabiliser, strong")
    # 4352 / 1.25 / 3840 samples for each pixel; a crop of C leaves 1/C^2 of the pixels.
    assert strong["words"].startswith("×1.25: in camera it is upscaled (0.91 samples for each pixel)")
    assert "afterwards 3072 × 1728 pixels (5.3 MP) are left" in strong["words"]
    assert pytest.approx(3840 * 2160 / 1.25**2) == 3072 * 1728
    assert "enough for the delivery" in strong["words"]
    assert rows["Ebb 64", "S35 4.3K raw"]["crops"] == []


def test_tighter_window_against_crop_afterwards(package, settings):
    rows = {
        (r["body"], r["format"]): r
        for r in data_table(package, settings, DataAsk(delivery=[1920, 1080]))["rows"]
    }
    s16 = next(w for w in rows["Ebb 64", "Full 6.4K raw"]["windows"] if w["name"] == "S16 2.2K raw, S16 2.2K")
    assert s16["factor"] == pytest.approx(6432 / 2176)
    # Raw of 12 bits at 3:1 and 25 fps: 2176 x 1224 x 12 / 8 / 3 x 25 against 6432 x 3620.
    assert pytest.approx(33.3, abs=0.05) == 2176 * 1224 * 0.5 * 25 / 1e6
    assert pytest.approx(291.0, abs=0.1) == 6432 * 3620 * 0.5 * 25 / 1e6
    assert s16["words"] == (
        "×2.956: in camera 2176 × 1224 pixels at 33 MB/s; cropped afterwards 2176 × 1225 are left at 291 MB/s, enough for "
        "the delivery."
    )
    assert rows["Ebb 64", "S16 2.2K raw"]["windows"] == []
    burst = data_table(package, settings, DataAsk(fps="240"))["rows"]
    tern = next(r for r in burst if r["format"] == "2.6K raw")["windows"][0]
    assert "s of buffer" in tern["words"]


def test_unknown_data_rates_are_none(settings):
    document = parse_body(a_body([a_mode(formats=[a_format(compression=None)])]))
    row = data_table(package_of([document]), settings, DataAsk())["rows"][0]
    assert row["mb_s"] is row["day_gb"] is row["buffer_s"] is None
    assert set(row["card_minutes"].values()) == {None}
    assert data_table(package_of([]), settings, DataAsk())["rows"] == []
