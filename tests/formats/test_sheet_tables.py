"""Tables of sheets as files: numbers are numbers, units stand in titles, and nothing computes anything."""

import io

import openpyxl
import pytest

from hextan.core.sheets import KINDS
from hextan.formats.sheet_tables import rows_of, title_of, write_tables
from hextan.formats.spreadsheets import MEDIA, read
from tests.core.kits import format_named, lens_named
from tests.core.sheets.material import demo, made, tables


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind != "kit"])
@pytest.mark.parametrize("file", MEDIA)
def test_every_table_is_whole_in_every_file(kind, file):
    formats = [format_named(demo().package, name, "Ebb 64") for name in ("S35 → UHD", "Full → UHD")]
    sheet = made(kind, bodies=["Ebb 64"], lens_sets=["Wren"], distances_m=[2.0, 5.0], format_ids=formats)
    rows = read(file, write_tables(sheet, file))
    told = [[cell for cell in row if cell] for row in rows]
    for table in tables(sheet):
        for row in rows_of(table):
            wanted = [cell for cell in row if cell not in ("", None)]
            assert any(same(wanted, got) for got in told), wanted
    for fact in sheet["stamp"]:
        assert [fact["name"], fact["text"]] in told


def number(text):
    try:
        return float(text)
    except ValueError:
        return None


def same(wanted, got):
    return len(wanted) == len(got) and all(
        got_cell == cell if isinstance(cell, str) else number(got_cell) == pytest.approx(cell, rel=1e-8)
        for cell, got_cell in zip(wanted, got, strict=True)
    )


def test_numbers_are_numbers_with_their_unit_in_the_title():
    glass = lens_named(demo().package, "Merrow 50")
    sheet = made("depth", lens_ids=[glass], distances_m=[3.0], stops=[2.8])
    book = openpyxl.load_workbook(io.BytesIO(write_tables(sheet, "xlsx")))
    rows = [[cell.value for cell in row] for row in book.active.iter_rows()]
    head = next(i for i, row in enumerate(rows) if row[0] == "focus (m)")
    assert rows[head][:3] == ["focus (m)", "T2.8: near (m)", "T2.8: far (m)"]
    near, far = rows[head + 1][1:3]
    assert isinstance(near, float) and 2.5 < near < 3.0 < far < 3.5
    assert title_of(tables(sheet)[0]["columns"][1]) == "T2.8: near (m)"


def test_a_name_that_looks_like_a_formula_stays_a_name():
    sheet = made("exposure", name='=HYPERLINK("x")')
    book = openpyxl.load_workbook(io.BytesIO(write_tables(sheet, "xlsx")))
    assert book.active["A1"].data_type == "s"
    assert write_tables(sheet, "csv").decode("utf-8-sig").startswith("\"'=HYPERLINK")
