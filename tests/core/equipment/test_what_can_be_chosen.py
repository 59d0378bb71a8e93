"""Offered and possible rates are two things; what a crop leaves; what is left before the lens; tables for sheets."""

import csv
import io
import math
from fractions import Fraction

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import RateSet
from hextan.core.bench import BenchState, DepthAsk, bench_view, depth_view
from hextan.core.documents import parse_body
from hextan.core.equipment.data import DataAsk, data_table
from hextan.core.equipment.package import Mount
from hextan.core.equipment.settings import PackageSettings
from hextan.core.equipment.speed import Highest, highest_of
from hextan.core.kit import KitAsk, kit_of
from hextan.formats.depth_csv import write_depth
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, kit_package, lens

RATES = ["24000/1001", "24", "25", "30", "48", "50", "60000/1001", "60", "100", "120"]


@settings(max_examples=examples(300), deadline=None)
@given(
    st.lists(st.sampled_from(RATES), min_size=1, unique=True),
    st.none() | st.floats(20, 200),
    st.floats(20, 130),
)
def test_what_can_be_chosen_by_trying_every_rate(texts, possible, wanted):
    """A rate can be chosen when the menu has it and the limits allow it, within 0.1 %."""
    told = Highest(possible, "readout", RateSet.parse(texts))
    can = [
        float(Fraction(t))
        for t in texts
        if possible is None or float(Fraction(t)) <= possible / 0.999 * (1 + 1e-12)
    ]
    assert told.usable_fps == (pytest.approx(max(can)) if can else None)
    assert told.reaches(wanted) == any(wanted <= fps / 0.999 * (1 + 1e-12) for fps in can)
    for text in RATES:
        fps = float(Fraction(text))
        assert told.allows(fps) == any(abs(fps / each - 1) < 1e-6 for each in can)


def a_kit(**more):
    """One mode whose row time is not known, with a menu of up to 60."""
    unknown = a_mode(
        "Unknown",
        row_time_us=None,
        overhead_us=0.0,
        formats=[a_format("Menu", key="menu", rates=["24", "25", "60"])],
    )
    slow = a_mode("Slow", formats=[a_format("Slow", key="slow_f", rates=["24", "25", "60"])])
    return kit_package([parse_body(a_body([unknown, slow]))], [lens(image_circle_mm=46.0)], **more)


def test_one_rule_for_filters_finder_and_speed():
    """At least 60: the format whose menu lists 60 and whose readout is not known counts, the one that is too slow not."""
    package = a_kit()
    names = {here.recording.name: here for here in package.formats.values()}
    assert highest_of(names["Menu"]).text == "60"
    assert highest_of(names["Slow"]).text == "25 (readout 48.4)"
    state = BenchState.model_validate(
        {"format_id": names["Menu"].recording.id, "lens_id": 1, "ladder": {"least_fps": 60.0}}
    )
    shown = {r["format_id"]: r["shown"] for r in bench_view(package, state, [])["rows"]}
    assert shown == {names["Menu"].recording.id: True, names["Slow"].recording.id: False}
    kit = kit_of(package, KitAsk(least_fps=60.0))
    assert [p.recording.name for p in kit.places] == ["Menu"]
    rows = {
        r["format"]: r["fits_rate"] for r in data_table(package, PackageSettings(), DataAsk(fps="60"))["rows"]
    }
    assert rows == {"Menu": True, "Slow": False}


def test_cropped_afterwards_divides_what_is_recorded():
    """A window that is trimmed, and one whose raster takes photosites for pixels: brute force from the recorded widths."""
    full = a_mode("Full", formats=[a_format("UHD", compression=5.0)])
    tall = a_mode(
        "Tall",
        window=[4000, 3000],
        formats=[a_format("Tall", key="tall_f", raster=[3840, 2160], compression=5.0)],
    )
    sites = a_mode(
        "Sites",
        window=[5000, 2800],
        formats=[a_format("1:1", key="one", raster=[1920, 1080], map="crop", compression=5.0)],
    )
    package = kit_package([parse_body(a_body([full, tall, sites]))], [lens()])
    rows = {r["format"]: r for r in data_table(package, PackageSettings(), DataAsk())["rows"]}
    windows = {w["name"]: w for w in rows["UHD"]["windows"]}
    # Full records all 6000 photosites across, Tall its 4000, 1:1 its 1920.
    assert windows["Tall, Tall"]["factor"] == pytest.approx(6000 / 4000)
    assert windows["1:1, Sites"]["factor"] == pytest.approx(6000 / 1920)
    left = f"{round(3840 * 1920 / 6000)} × {round(2160 * 1920 / 6000)} are left"
    assert left in windows["1:1, Sites"]["words"]


def test_megapixels_and_buffer_in_frames():
    """24 MP cropped 1.5 times leave 10.7; UHD is 8.3 (common practice, no source)."""
    crop = a_mode(
        "Crop",
        window=[4000, 2667],
        formats=[a_format("UHD", raster=[3840, 2560], compression=1.0, rates=["25"])],
    )
    body = parse_body(
        a_body([crop, a_mode("Full", formats=[a_format("UHD", key="uhd2")])], write_mb_s=200.0, buffer_gb=4.0)
    )
    package = kit_package([body], [lens()])
    first, second = data_table(package, PackageSettings(), DataAsk(fps="25", delivery=[3840, 2160]))["rows"]
    assert first["sampled_mp"] == pytest.approx(10.7, abs=0.05)
    assert first["picture_mp"] == pytest.approx(3840 * 2160 / 1e6, rel=1e-3)
    assert second["recorded_mp"] == pytest.approx(8.3, abs=0.01)
    assert first["buffer_frames"] == math.floor(first["buffer_s"] * 25 + 1e-9)


def test_distance_from_the_front_of_the_lens():
    """3 m less the flange focal distance of 38.2 mm and 120 mm of lens; behind glass it is not told."""
    package = a_kit(mounts=[Mount("W54", 38.2, 54.0)])
    long = kit_package([parse_body(a_body([a_mode(formats=[a_format()])]))],
                       [lens(length_mm=120.0)], mounts=[Mount("W54", 38.2, 54.0)])  # fmt: skip
    for kit, told in ((long, 3 - 0.1582), (package, None)):
        here = next(iter(kit.formats))
        state = BenchState.model_validate({"format_id": here, "lens_id": 1, "subject_m": 3.0})
        assert bench_view(kit, state, [])["links"]["subject"]["from_front_m"] == (
            told and pytest.approx(told)
        )


@pytest.mark.parametrize("unit", ["m", "ft"])
def test_the_table_for_spreadsheets_is_never_outwards(unit):
    package = demo_package()
    here = next(iter(package.formats))
    for number in list(package.lenses)[:12:3]:
        state = BenchState.model_validate({"format_id": here, "lens_id": number, "unit": unit})
        table = depth_view(package, DepthAsk(state=state))["table"]
        cells = [cell for row in table["rows"] for cell in row["cells"]]
        rows = list(csv.DictReader(io.StringIO(write_depth(table, unit).decode())))
        per = 0.3048 if unit == "ft" else 1.0
        for row, cell in zip(rows, cells, strict=True):
            near, far = float(row[f"near_{unit}"]) * per, float(row[f"far_{unit}"]) * per
            assert near >= cell["near_m"] - 1e-9
            if cell["far_m"] is not None:
                assert far <= cell["far_m"] + 1e-9
                assert near < far
            else:
                assert np.isinf(far)
