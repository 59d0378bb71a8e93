"""What nobody stated and stands in is said wherever a verdict rests on it: whole kit, coverage, Compare, hand-over and files."""

import csv
import io
from dataclasses import replace

import pytest

from hextan.core.bench import BenchState
from hextan.core.compare.comparison import Column, Comparison
from hextan.core.compare.view import compare_view
from hextan.core.handover.facts import facts_of
from hextan.core.kit import CoverageAsk, MatrixAsk, coverage_view, kit_matrix
from hextan.formats.matrix_csv import write_matrix
from tests.core.kits import demo_package, format_named, lens_named

DEMO = demo_package()
FORMAT = format_named(DEMO, "Full → UHD", "Ebb 64")
LENS = lens_named(DEMO, "Merrow 50")


def supposed(**changes):
    """The demo with one lens of which the circle and the f-number stand in."""
    sets = tuple(
        replace(
            kit,
            lenses=tuple(
                replace(lens, assumed=frozenset({"image_circle_mm", "f_number"}), **changes)
                if lens.id == LENS
                else lens
                for lens in kit.lenses
            ),
        )
        for kit in DEMO.lens_sets
    )
    return replace(DEMO, lens_sets=sets)


@pytest.mark.parametrize(
    ("t", "f", "told"),
    [
        (2.0, 2 / 2 ** (1 / 6), "a third of a stop wider than T"),
        (2.0, 2 / 2**0.25, "0.5 stops wider than T"),
        (2.0, 2.0, "as T"),
    ],
)
def test_an_f_number_that_stands_in_says_how_it_lies_to_t(t, f, told):
    lens = supposed(t_stop=t, f_number=f).lenses[LENS][1]
    assert lens.stands_in["f_number"] == f"its f-number is taken {told}"


def test_every_page_and_file_says_what_stands_in():
    package = supposed()
    state = BenchState(format_id=FORMAT, lens_id=LENS, subject_m=3.0)
    circle = package.lenses[LENS][1].stands_in["image_circle_mm"]
    assert circle.startswith("its circle is assumed")
    rows = kit_matrix(package, MatrixAsk())["rows"]
    assert {row["lens_id"] for row in rows if row["stands_in"]} == {LENS}
    kept = list(csv.DictReader(io.StringIO(write_matrix(kit_matrix(package, MatrixAsk())).decode())))
    assert {line["lens"] for line in kept if line["assumed"]} == {"Merrow 50"}
    assert coverage_view(package, CoverageAsk(format_id=FORMAT, lens_id=LENS))["lens"]["stands_in"][
        "image_circle_mm"
    ] == (circle)
    column = Column(format_id=FORMAT, lens_id=LENS, subject_m=3.0)
    (shown,) = compare_view(package, Comparison(columns=[column]))["columns"]
    assert f"Merrow 50: {circle}." in shown["notes"]
    assert circle in facts_of(package, state, "12A")["assumed"]
    # Of a lens that states its figures nothing is said.
    assert all(not row["stands_in"] for row in kit_matrix(DEMO, MatrixAsk())["rows"])
    assert facts_of(DEMO, state, "12A")["assumed"] == []
