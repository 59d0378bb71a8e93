"""Lens sets as CSV and JSON: round trips, and every kind of wrong file."""

import csv
import io
import json
from importlib.resources import files

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError
from hextan.core.documents import parse_lens_set
from hextan.formats import lenses_csv
from hextan.formats.csv_rows import MOST_ROWS
from hextan.formats.documents_json import LENS_FILE, RIG_FILE
from hextan.formats.lenses_csv import read_lenses, write_lenses, write_template
from tests.budget import examples
from tests.core.kits import a_lens, a_set

TEXT = files("hextan.demo").joinpath("catalogue.json").read_text(encoding="utf-8")
SETS = [parse_lens_set(plain) for plain in json.loads(TEXT)["lens_sets"]]
EMPTY = parse_lens_set(a_set())


def told(data, document=EMPTY):
    with pytest.raises(InvalidInputError) as refused:
        read_lenses(data, document)
    return [fault.sentence() for fault in refused.value.faults]


def table(*rows, header="name,focal_mm,t_stop,mount"):
    return "\n".join([header, *rows]).encode()


@pytest.mark.parametrize("document", SETS, ids=lambda d: d.name)
def test_every_set_of_the_demo_round_trips(document):
    assert LENS_FILE.read(LENS_FILE.write([document])) == [document]
    assert read_lenses(write_lenses(document), document) == document
    bare = document.model_copy(update={"lenses": []})
    keys = [lens.key for lens in document.lenses]
    back = read_lenses(write_lenses(document), bare).lenses
    same = [lens.model_copy(update={"key": key, "origins": {}}) for lens, key in zip(back, keys, strict=True)]
    assert same == [lens.model_copy(update={"origins": {}}) for lens in document.lenses]


def test_several_sets_in_one_file():
    assert LENS_FILE.read(LENS_FILE.write(SETS)) == SETS
    broken = json.loads(LENS_FILE.write(SETS))
    broken[2]["lenses"][0]["focal_mm"] = -1
    with pytest.raises(InvalidInputError, match=r"\[2\]\.lenses\[0\]\.focal_mm: must be greater than 0\.5"):
        LENS_FILE.read(json.dumps(broken).encode())


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        (b"{", "is not valid JSON"),
        (b'{"schema": "hextan.body", "schema_version": 1}', "schema: must be hextan.lens_set"),
        (b'{"schema": "hextan.lens_set", "schema_version": 2}', "needs a newer Hextan"),
        (b"[]", "holds 1 to 200 documents"),
    ],
)
def test_json_that_is_no_lens_set(text, fault):
    with pytest.raises(InvalidInputError, match=fault):
        LENS_FILE.read(text)


def test_a_rig_round_trips():
    rig = RIG_FILE.parse(
        json.loads(files("hextan.demo").joinpath("low_water.json").read_text("utf-8"))["rig"], ""
    )
    assert RIG_FILE.read(RIG_FILE.write([rig])) == [rig]


def test_the_template_can_be_read():
    prime, zoom = read_lenses(write_template(), EMPTY).lenses
    assert (prime.focal_mm, prime.designed_for, prime.projection, prime.squeeze) == (
        40.0,
        "Super 35",
        "rectilinear",
        1.0,
    )
    assert (zoom.focal_long_mm, zoom.circle_by, [row.at for row in zoom.circles]) == (
        80.0,
        "focal",
        [20.0, 30.0],
    )


def test_lenses_of_the_same_name_are_changed_and_the_rest_stays():
    before = parse_lens_set(a_set([a_lens("25", 25.0), a_lens("50", 50.0)]))
    after = read_lenses(table("50,52,2.1,W54", "75,75,2,W54"), before)
    assert [(x.name, x.focal_mm, x.t_stop) for x in after.lenses] == [
        ("25", 25.0, 2.0),
        ("50", 52.0, 2.1),
        ("75", 75.0, 2.0),
    ]
    # Columns that the file does not have keep their figures.
    assert after.lenses[1].image_circle_mm == 46.0
    assert after.lenses[1].key == before.lenses[1].key


def test_what_people_write_is_read():
    header = "name;focal_mm;f_number;t_stop;image_circle_mm;squeeze;close_focus_m;breathing_percent;weight_kg;mount"
    rows = "A;35 mm;f/1,4;T1.5;31,5;1.33x;2'6\";2 %;950 g;K50\nB;50;;2;;2×;35cm;;1.2 kg;K50"
    a, b = read_lenses(f"{header}\n{rows}".encode(), EMPTY).lenses
    assert (a.focal_mm, a.f_number, a.t_stop, a.image_circle_mm, a.squeeze) == (35.0, 1.4, 1.5, 31.5, 1.33)
    assert (a.close_focus_m, a.breathing_percent, a.weight_kg) == (0.762, 2.0, 0.95)
    assert (b.close_focus_m, b.weight_kg, b.squeeze, b.image_circle_mm) == (0.35, 1.2, 2.0, None)


@pytest.mark.parametrize(
    ("data", "expected"),
    [
        (table("A,2in,2,K50"), "row 2, column focal_mm: is in millimetres: write the number alone (given: '2in')."),
        (table("A,5 cm,2,K50"), "row 2, column focal_mm: is in millimetres: write the number alone (given: '5 cm')."),
        (table('A,"1,234",2,K50'), "row 2, column focal_mm: may be read two ways: write it without separators, with a point for decimals (given: '1,234')."),
        (table("A,fifty,2,K50"), "row 2, column focal_mm: must be a number (given: 'fifty')."),
        (table("A,,2,K50"), "row 2, column focal_mm: is required (given: '')."),
        (table("A,50,2"), "row 2, column mount: is required (given: '')."),
        (table("A,50,2,K50,9"), "row 2: has more cells than the 4 of the first row (given: 5)."),
        (table("A,50,2,K50", "A,40,2,K50"), "row 3, column name: is there already, in row 2 (given: 'A')."),
        (table("A,50,,K50"), "row 2: give an f-number or a T-stop (given: "),
        (table("A,0.05,2,K50"), "row 2, column focal_mm: must be greater than 0.5 (given: 0.05)."),
        (table("A,50,2,K50,70", header="name,focal_mm,t_stop,mount,weight_kg").replace(b"70", b"950"), "row 2, column weight_kg: must be at most 100 (given: 950.0)."),
        (table("A,50,2,K50,3 stone", header="name,focal_mm,t_stop,mount,weight_kg"), "row 2, column weight_kg: write it like 1.8, 1.8 kg, 1800 g, 4 lb or 4 lb 6 oz (given: '3 stone')."),
        (table("A,50,2,K50,near", header="name,focal_mm,t_stop,mount,close_focus_m"), "row 2, column close_focus_m: write it like 2.9, 2.9m, 9'6\", 9ft 6in or 115in (given: 'near')."),
        (table("A,50,2,K50,stop,2.4 27", header="name,focal_mm,t_stop,mount,circle_by,circles"), "row 2, column circles: write it like 2.4: 27.9; 4: 28.7 (place, colon, circle) (given: '2.4 27')."),
        (table("A,50,2,K50,round", header="name,focal_mm,t_stop,mount,projection"), "row 2, column projection: must be one of "),
        (table("A,50", header="name,focal_mm"), "row 1: the column mount is missing (given: None)."),
        (table("A,50,2,K50,x", header="name,focal_mm,t_stop,mount,colour"), "row 1: is not a column of this file: see the template (given: 'colour')."),
        (table("A,50,2,K50", header="name,focal_mm,focal_mm,mount"), "row 1: is there twice (given: 'focal_mm')."),
        (b"name,focal_mm,t_stop,mount", "file: has no rows below the first (given: '(text)')."),
        (b"", "row 1: the column name is missing"),
        ("näme".encode("latin-1"), "file: is not UTF-8 text"),
        (b'name,focal_mm,t_stop,mount\n"A,50,2,K50', "file: is not a CSV file"),
    ],
)  # fmt: skip
def test_every_wrong_cell_is_told_by_row_and_column(data, expected):
    assert any(line.startswith(expected) for line in told(data)), told(data)


def test_ten_thousand_rows_are_read_or_refused_one_by_one():
    rows = [f"L{i},{20 + i % 200},2,K50" for i in range(2000)]
    assert len(read_lenses(table(*rows), EMPTY).lenses) == 2000
    many = [f"L{i},50,2,K50" for i in range(10_000)]
    refused = told(table(*many))
    assert len(refused) == 1
    assert refused[0].startswith("lenses: must have at most 2000 entries")
    wrong = [f"L{i},x,2,K50" for i in range(10_000)]
    with pytest.raises(InvalidInputError) as error:
        read_lenses(table(*wrong), EMPTY)
    # The first hundred are told, and the number of the rest.
    assert (len(error.value.faults), error.value.more) == (100, 9900)
    assert error.value.message.endswith("And 9995 more.")
    assert error.value.as_dict()["more"] == 9900
    assert told(table(*many * 3)) == [f"file: may hold {MOST_ROWS} rows at most (given: '(text)')."]


def test_formulas_in_cells_are_made_harmless_and_come_back():
    document = parse_lens_set(
        a_set([a_lens("=cmd|' /C calc'!A0"), a_lens("+1", key="b"), a_lens("@x", key="c")])
    )
    cells = [row["name"] for row in csv.DictReader(io.StringIO(write_lenses(document).decode()))]
    assert all(cell.startswith("'") for cell in cells)
    assert read_lenses(write_lenses(document), document) == document


def test_every_column_is_a_field_of_the_document():
    fields = set(a_lens()) | set(SETS[0].lenses[0].model_dump())
    assert {c.name for c in lenses_csv.COLUMNS} == fields - {"key", "origins"}


@settings(max_examples=examples(150), deadline=None)
@given(st.binary(max_size=200) | st.text(max_size=200).map(str.encode) | st.text(alphabet=',;\n"name0.5K:x', max_size=120).map(lambda t: b"name,focal_mm,t_stop,mount\n" + t.encode()))  # fmt: skip
def test_no_file_breaks_the_reader(data):
    try:
        read_lenses(data, EMPTY)
    except InvalidInputError as error:
        assert error.faults
