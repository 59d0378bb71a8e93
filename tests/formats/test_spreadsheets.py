"""Tables of shots as CSV, XLSX and ODS: nothing is lost, formulas are harmless, hostile files end a child and nothing else."""

import io
import time
import zipfile

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from openpyxl import load_workbook

from hextan.core.base import InvalidInputError
from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot, ShotList, shots_of_table, shots_view, table_of_shots
from hextan.formats import child
from hextan.formats import spreadsheets as tables
from tests.budget import examples
from tests.core.kits import kit_package

KINDS = ("csv", "xlsx", "ods")
NOTHING = kit_package([], [])
#: Text as people and spreadsheets write it; a line break within a cell is told apart from the end of a row.
TEXT = st.text(st.characters(exclude_categories=["Cs", "Cc"]), max_size=30).map(lambda text: text.strip())


def shot(number, **cells):
    return Shot(name=str(number), **cells)


def listed(*shots):
    return ShotList(shots=list(shots))


def written(document):
    return table_of_shots(document, shots_view(NOTHING, PackageSettings(), document)["answers"])


@pytest.mark.parametrize("kind", KINDS)
def test_a_list_goes_out_and_comes_back_as_it_was(kind):
    first = listed(
        shot("12A", framing="1.9 m wide", height="5' 6\"", notes="=SUM(A1)", wishes={"picture": 2.0, "stop": 0.5}, extra={"Crane?": "+3 m", "Owner": "'hers"}),
        shot("12B", what="two; three, \"four\"", light="200 lux, EI 800", pin={"body": "Ebb 64", "mode": "S35", "format": "UHD", "lens": "Reach",
             "focal_mm": 29.4, "adapters": ["plain", "relay"]}),
        shot("7", day="3", notes="first line\nsecond line"),
    )  # fmt: skip
    rows = tables.read(kind, tables.write(kind, written(first)))
    again = shots_of_table(rows, listed())
    assert (again["new"], again["left_out"][:2], again["kept"]) == (
        ["12A", "12B", "7"],
        ["Verdict", "Body used"],
        ["Crane?", "Owner"],
    )

    def keyless(document):
        return [{k: v for k, v in s.items() if k != "key"} for s in document.model_dump(mode="json")["shots"]]

    assert keyless(again["document"]) == keyless(first)
    same = shots_of_table(rows, first)
    assert (same["new"], same["changed"], same["gone"]) == ([], [], [])
    assert same["document"] == first


@settings(max_examples=examples(1000))
@given(
    st.lists(
        st.one_of(
            st.sampled_from(["Framing", "FPS", "comment", "Lens used", "shot size", "Shot", "Verdict"]), TEXT
        ),
        max_size=6,
    ),
    st.lists(st.lists(TEXT, max_size=7), max_size=5),
)
def test_tables_with_odd_columns_lose_nothing(titles, rows):
    table = [["Number", *titles], *[[f"n{n}", *row] for n, row in enumerate(rows)]]
    read = shots_of_table(table, listed())
    whole = read["document"]
    out = [[str(cell) if cell is not None else "" for cell in row] for row in written(whole)]
    again = shots_of_table(out, whole)
    assert (again["new"], again["changed"], again["gone"]) == ([], [], [])
    # Every cell of a column that is not an answer stands somewhere in its shot.
    for row, kept in zip(table[1:], whole.shots, strict=True):
        everything = [
            *kept.extra.values(),
            *(str(value) for value in kept.model_dump().values() if isinstance(value, str)),
        ]
        for title, cell in zip(["Number", *titles], row, strict=False):
            assert title in read["left_out"] or cell in everything or cell == ""


@settings(max_examples=examples(60))
@given(st.lists(st.lists(TEXT, min_size=1, max_size=4), min_size=1, max_size=5), st.sampled_from(KINDS))
def test_any_text_survives_a_file(rows, kind):
    read = tables.read(kind, tables.write(kind, rows)) if kind == "csv" or rows[0][0] else None
    if read is not None:
        trimmed = [list(row) for row in rows]
        for row in [*trimmed, *read]:
            while row and row[-1] == "":
                row.pop()
        while trimmed and not trimmed[-1]:
            trimmed.pop()
        assert [row for row in read if row] == [row for row in trimmed if row]


def test_numbers_are_numbers_and_formulas_are_text():
    rows = [["Shot", "Frames like mm"], ["=1+1", 42.5], ["-x", 7]]
    sheet = load_workbook(io.BytesIO(tables.write("xlsx", rows))).worksheets[0]
    assert [[(cell.value, cell.data_type) for cell in row] for row in sheet.iter_rows(min_row=2)] == [
        [("=1+1", "s"), (42.5, "n")], [("-x", "s"), (7, "n")]]  # fmt: skip
    assert tables.write("csv", rows).decode("utf-8-sig").splitlines()[1] == "'=1+1,42.5"
    assert tables.read("ods", tables.write("ods", rows)) == [
        ["Shot", "Frames like mm"],
        ["=1+1", "42.5"],
        ["-x", "7"],
    ]


def bomb():
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("content.xml", b" " * (child.MOST_BYTES + 1))
    return out.getvalue()


def archive(name, text):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as packed:
        packed.writestr("mimetype", tables.MEDIA["ods"])
        packed.writestr(name, text)
    return out.getvalue()


@pytest.mark.parametrize("kind", ["xlsx", "ods"])
@pytest.mark.parametrize(
    "data", [b"", b"PK\x03\x04 cut off", bomb(), archive("content.xml", "<a>" * 200_000), archive("other", "x")],
    ids=["empty", "cut", "bomb", "deep", "other"],
)  # fmt: skip
def test_hostile_files_are_refused_in_bounded_time(kind, data):
    began = time.monotonic()
    with pytest.raises(InvalidInputError) as error:
        tables.read(kind, data)
    assert error.value.faults[0].field == "file"
    assert time.monotonic() - began < tables.CHILD_SECONDS


def test_what_a_table_changes_is_told_first():
    before = listed(
        shot("1", framing="waist"), shot("2", framing="face"), shot("3"), shot("4", notes="stays")
    )
    rows = [["slate", "Shot size", "Crew"], ["3", "chest", ""], ["1", "waist", "five"], ["5", "eyes", ""]]
    read = shots_of_table(rows, before)
    assert (read["new"], read["changed"], read["gone"]) == (["5"], ["3", "1"], ["2", "4"])
    assert (read["understood"], read["kept"]) == (["slate", "Shot size"], ["Crew"])
    # What the table does not name stays behind what it stood behind.
    assert [s.name for s in read["document"].shots] == ["3", "4", "1", "2", "5"]
    assert [s.name for s in shots_of_table(rows, before, remove=True)["document"].shots] == [
        "3",
        "1",
        "5",
    ]


@pytest.mark.parametrize(
    ("rows", "field"),
    [([], "file"), ([["Framing"], ["waist"]], "row 1"), ([["Shot", "Framing"], ["1", "x" * 121]], "row 2, column Framing"),
     ([["Shot"], [""], ["1"], [""]], None), ([["Shot", "Framing"], ["", "waist"]], "row 2, column Shot")],
)  # fmt: skip
def test_what_cannot_be_read_is_told_by_row_and_column(rows, field):
    if field is None:
        assert shots_of_table(rows, listed())["new"] == ["1"]
        return
    with pytest.raises(InvalidInputError) as error:
        shots_of_table(rows, listed())
    assert error.value.faults[0].field == field
