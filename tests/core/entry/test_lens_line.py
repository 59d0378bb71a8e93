"""A lens set from one line: what is said is read, what is assumed is marked, what is not understood is told."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.documents import check_lens_set
from hextan.core.entry import LensLineAsk, lens_line
from hextan.core.optics import NAMED, class_circle_mm


def of(line, **more):
    return lens_line(LensLineAsk(line=line, **more))


def test_primes_of_a_class():
    kit = of("18 25 35 50 85 T1.5 Super 35 K50")["document"]
    assert [lens.focal_mm for lens in kit.lenses] == [18, 25, 35, 50, 85]
    assert {(lens.t_stop, lens.f_number, lens.mount, lens.designed_for) for lens in kit.lenses} == {
        (1.5, None, "K50", "Super 35")
    }
    assert kit.name == "Primes 18 to 85"
    # The circle is assumed of the class, and marked so.
    assert {lens.image_circle_mm for lens in kit.lenses} == {31.2}
    assert kit.lenses[0].origins["image_circle_mm"].kind == "assumed"
    assert {lens.close_focus_m for lens in kit.lenses} == {None}


@pytest.mark.parametrize(
    ("line", "expected"),
    [
        ("24-70 f2.8 full frame", [(24, 70, 2.8, None, 1.0)]),
        ("40 60mm 2x T2.3 s35 anamorphic", [(40, None, None, 2.3, 2.0), (60, None, None, 2.3, 2.0)]),
        ("18, 25, 35 f/1.4", [(f, None, 1.4, None, 1.0) for f in (18, 25, 35)]),
        ("9,5 t 2", [(9.5, None, None, 2.0, 1.0)]),
        ("19 to 92 T2.9 PL", [(19, 92, None, 2.9, 1.0)]),
    ],
)
def test_other_ways_to_say_it(line, expected):
    lenses = of(line)["document"].lenses
    assert [(x.focal_mm, x.focal_long_mm, x.f_number, x.t_stop, x.squeeze) for x in lenses] == expected


def test_the_mount_of_the_body_stands_in_and_the_name_is_ones_own():
    assert {lens.mount for lens in of("35 50 T2", mount="W54")["document"].lenses} == {"W54"}
    assert {lens.mount for lens in of("35 50 T2 K50", mount="W54")["document"].lenses} == {"K50"}
    assert {lens.mount for lens in of("35 50 T2")["document"].lenses} == {"unknown"}
    assert of("35 50 T2", name="Old glass")["document"].name == "Old glass"


@pytest.mark.parametrize(
    ("line", "rule"),
    [
        ("35 50", "says no aperture"),
        ("T2 full frame", "is of no lens: a focal length is needed"),
        ("1,234 T2", "may mean 1234 or 1.234"),
        (f"{' '.join(map(str, range(10, 90)))} T2", "at most 60 lenses"),
        ("35-24 T2", "begins with its short end"),
    ],
)
def test_what_is_not_understood_is_told(line, rule):
    answer = of(line)
    assert answer["document"] is None
    assert any(rule in fault["rule"] for fault in answer["faults"])


def test_what_is_not_used_is_told_by_its_place_and_takes_nothing_from_the_rest():
    answer = of("35 T2 $ dented")
    assert answer["document"].lenses[0].focal_mm == 35
    assert [(s["start"], s["text"]) for s in answer["spans"] if s["group"] == "unused"] == [
        (6, "$"),
        (8, "dented"),
    ]


def test_each_lens_has_its_own_aperture_circle_and_mount():
    lenses = of("28 f2.0 E18\n18-135 f3.5-5.6 G9, circle 28.4\n8 T3.1")["document"].lenses
    assert [(x.name, x.f_number, x.f_number_long, x.t_stop, x.mount, x.image_circle_mm) for x in lenses] == [
        ("28", 2.0, None, None, "E18", None), ("18-135", 3.5, 5.6, None, "G9", 28.4), ("8", None, None, 3.1, "unknown", None)
    ]  # fmt: skip


def test_what_can_mean_two_things_is_kept_by_neither_until_one_is_taken():
    answer = of("70-24 f2.8")
    (asked,) = [span for span in answer["spans"] if span["asked"]]
    assert answer["document"] is None and [o["text"] for o in asked["options"]] == ["24-70", "70 24"]
    for option in asked["options"]:
        taken = "70-24 f2.8".replace(asked["text"].strip(), option["text"])
        assert of(taken)["document"] is not None


def test_what_a_line_leaves_out_is_said():
    told = " ".join(of("35 T2")["assumed"])
    assert "by as much as Settings say" in told and "coverage is told as not known" in told
    assert "too near" in told
    assert "No T-stop" in " ".join(of("35 f2")["assumed"])
    assert of("")["assumed"] == [] == of("")["faults"]


def test_circles_of_classes_are_the_diagonals_of_their_largest_windows():
    """Super 35 and full frame as in the table of references; the others are of the class that they stand for."""
    for name, key in (("Super 35", "super35"), ("full frame", "full_frame")):
        assert 0 <= class_circle_mm(name) - sum(n * n for n in NAMED[key]) ** 0.5 < 0.1


@given(st.text(max_size=100))
def test_anything_may_be_typed(line):
    answer = of(line)
    assert answer["document"] is None or check_lens_set(answer["document"])
