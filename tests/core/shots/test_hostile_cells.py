"""Whatever stands in a cell, a shot is answered or its cell is refused: one of them never takes the list with it."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.bench import Scene
from hextan.core.shots import Shot, pictures_of_shots
from hextan.core.shots.view import answer_of_shot
from tests.budget import examples
from tests.core.kits import kit_package, lens
from tests.core.shots.test_against_one_by_one import BODIES, PACKAGE, SETTINGS

DISTANCES = ["3 m", "0.0000001 m", "5 mm", "999999 m", "0.01-0.02 m", "up to 1 mm", "from 900000 m", "1e9"]
CELLS = {
    "framing": [
        "waist",
        "eyes",
        "0.000001 m wide",
        "99999999 m wide",
        "1 mm high",
        "like 0.1",
        "like 99999",
        "as 5000 on Super 35 at 1 mm",
    ],
    "height": ["0.3 m", "1 mm", "9999 m"],
    "distance": DISTANCES,
    "room": ["1 mm", "3 m", "99999999 m"],
    "nearest": ["1 mm", "99999999 m"],
    "speed": ["99999999999", "1000000x slow", "0.001", "1-99999999", "0.0001x", "23.976", "59.94"],
    "hold": ["±0.1 mm", "±99999 m", "deep", "1 mm-2 mm", "1 mm to infinity"],
    "background": ["0.0001 % at 1 mm", "100 %", "3 % at 99999999 m"],
    "stop": ["T0.3", "T256", "f/0.5", "up to T1"],
    "light": ["0.0001 lux", "9999999999 lux", "EI 1", "EI 99999999", "day"],
    "lamps": ["1 Hz", "999999 Hz", "pulsed 1"],
    "picture": [
        "99 bit",
        "0 bit",
        "level 90",
        "level 0",
        "re-frame 0 %",
        "re-frame 99999 %",
        "0 samples",
        "raw, stabiliser",
    ],
    "rig": ["gimbal 0 kg", "gimbal 0.05 kg"],
    "look": ["0.5x", "4x"],
    "deliveries": ["16x100", "99999x99999", "scope", "16x16 protect 99 %", "00x00", "16x99999"],
    "keep_out": ["1 mm", "99999999 m"],
}


@settings(max_examples=examples(300))
@given(
    st.fixed_dictionaries({}, optional={name: st.sampled_from(texts) for name, texts in CELLS.items()}),
    st.booleans(),
)
def test_no_cell_breaks_the_list(cells, wished):
    wishes = (
        dict.fromkeys(("picture", "distance", "stop", "light", "hold", "background"), 1.0) if wished else {}
    )
    shot = Shot(name="1", keep_out_by="somebody", wishes=wishes, **cells)
    answer = answer_of_shot(PACKAGE, SETTINGS, shot)
    assert answer["verdict"] == "open" or answer["best"] is not None
    (picture,) = pictures_of_shots(PACKAGE, SETTINGS, [shot], Scene())
    assert picture["key"] == shot.key


@pytest.mark.parametrize("text", ["0 bit", "33 bit", "level 0", "re-frame 0 %", "0 samples"])
def test_a_figure_that_is_a_slip_of_the_pen_says_its_bounds(text):
    (fault,) = answer_of_shot(PACKAGE, SETTINGS, Shot(name="1", picture=text))["faults"]
    assert "has to be from" in fault["rule"]


def test_a_lens_without_t_marks_behind_glass_shows_the_mark_of_its_ring():
    f_only = lens(
        5, name="Silent 85", focal=85.0, t_stop=None, f_number=1.8, image_circle_mm=60.0, mount="K50"
    )
    extender = next(adapter for adapter in PACKAGE.adapters if adapter.glass)
    package = kit_package(BODIES[:1], [f_only], [extender])
    best = answer_of_shot(package, SETTINGS, Shot(name="1", framing="waist"))["best"]
    assert (best["adapters"], best["marks"], best["stop"]) == (["extender"], "f/", pytest.approx(1.8))


def test_only_faces_are_warned_of_their_noses():
    def codes(**cells):
        return {
            w["code"]
            for w in answer_of_shot(PACKAGE, SETTINGS, Shot(name="1", distance="0.6 m", **cells))["warnings"]
        }

    assert "face" in codes(framing="face")
    assert "face" not in codes(framing="0.25 m wide")
