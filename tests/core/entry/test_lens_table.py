"""Lenses from a pasted table: columns by their titles, units by titles and cells, faults with row and column."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.entry import LensLineAsk, lens_line


def of(text, **more):
    return lens_line(LensLineAsk(line=text, **more))


TABLE = """Lens\tT-stop\tClose focus (in)\tImage circle\tWeight (g)\tColour
25 mm\t1.5\t11\t46.2 mm\t1200\tblack
35\tT1.5\t1'2"\t46\t1.3 kg\tblack
24–70\t2.8-4\t0.9 m\t\t2000\tgrey"""


def test_a_table_becomes_a_set():
    answer = of(TABLE, mount="K50")
    assert answer["told"] == ["3 lenses: 25, 35, 24-70 mm"]
    assert [column["title"] for column in answer["columns"] if column["taken_for"] is None] == ["Colour"]
    told = [
        (lens.name, lens.focal_mm, lens.focal_long_mm, lens.t_stop, lens.t_stop_long, lens.close_focus_m, lens.image_circle_mm, lens.weight_kg)
        for lens in answer["document"].lenses
    ]  # fmt: skip
    assert told == [
        ("25", 25.0, None, 1.5, None, pytest.approx(0.2794), 46.2, 1.2),
        ("35", 35.0, None, 1.5, None, pytest.approx(0.3556), 46.0, 1.3),
        ("24-70", 24.0, 70.0, 2.8, 4.0, 0.9, None, 2.0),
    ]
    assert {lens.mount for lens in answer["document"].lenses} == {"K50"}
    assert answer["assumed"] == [
        "No image circle: coverage is told as not known.",
        "No f-number: depth goes by one that is wider than T, by as much as Settings say.",
    ]


@pytest.mark.parametrize(
    ("title", "cell", "kg"),
    # A pound is 0.45359237 kg, an ounce its sixteenth.
    [("Weight", "2 kg", 2.0), ("Weight (lbs)", "4.4", 1.995806), ("Weight", "4.4 lb", 1.995806), ("Weight (kg / lb)", "2.0 / 4.4", 2.0),
     ("Weight", "2.0 kg (4.4 lbs)", 2.0), ("Weight (g)", "950", 0.95), ("Weight [kg]", "950 g", 0.95), ("Weight", "2 lb 6 oz", 1.077282)],
)  # fmt: skip
def test_a_weight_is_read_in_its_own_unit(title, cell, kg):
    lens = of(f"Lens\tT\t{title}\n25\t2\t{cell}")["document"].lenses[0]
    assert lens.weight_kg == pytest.approx(kg, abs=1e-6)


@pytest.mark.parametrize("separator", ["\t", ";", "|"])
def test_however_it_is_separated(separator):
    rows = [
        ["Focal length", "Aperture", "Class", "Squeeze", "Mount", "Name"],
        ["32", "f/2.8", "Super 35", "2x", "W54", "Otter A"],
    ]
    lens = of("\n".join(separator.join(row) for row in rows))["document"].lenses[0]
    assert (lens.name, lens.focal_mm, lens.f_number, lens.t_stop, lens.designed_for, lens.squeeze, lens.mount) == (
        "Otter A", 32.0, 2.8, None, "Super 35", 2.0, "W54")  # fmt: skip


@pytest.mark.parametrize(
    ("text", "field", "words"),
    [("Lens\tT\n25\tfast", "row 1, T", "has no stop"),
     ("Lens\tT\n25\t\n35\t2", "row 1", "says no aperture"),
     ("Lens\tT\twide\nA\t2\t3", "row 1, Lens", "says no focal length"),
     ("Lens\tT\tClass\n25\t2\thuge", "row 1, Class", "is no class"),
     ("Lens\tT\tImage circle\n25\t2\t1,234", "row 1, Image circle", "could be a thousand"),
     ("Lens\tT\tWeight (kg or lb)\n25\t2\t4.4", "row 1, Weight (kg or lb)", "may be in kg or lb"),
     ("Lens\tT\tWeight\n25\t2\t2 stone", "row 1, Weight", "write it like"),
     ("Lens\tT\tClose focus\n25\t2\tnear", "row 1, Close focus", "")],
)  # fmt: skip
def test_what_is_not_understood_is_told_with_its_place(text, field, words):
    answer = of(text)
    assert answer["document"] is None
    assert answer["faults"][0]["field"] == field
    assert words in answer["faults"][0]["rule"]


def test_without_a_focal_length_it_is_no_table_of_lenses():
    assert of("Colour\tWeight\nblack\t1")["columns"] == []


@given(st.text(max_size=300))
def test_nothing_that_is_pasted_breaks_it(text):
    of("Lens\tT\tClose focus\tCircle\n" + text)
