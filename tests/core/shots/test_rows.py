"""Every cell of a shot has its row: a need that is forgotten anywhere is seen here."""

import re
from pathlib import Path

from hextan.core.equipment import Package, PackageSettings
from hextan.core.shots import ON_PAGE, ROWS, Shot, ShotList, shots_of_table, shots_view, table_of_shots
from hextan.core.shots.document import NEEDS
from hextan.core.shots.table import _BY_TITLE

DOCS = (Path(__file__).resolve().parents[3] / "docs" / "shots.md").read_text(encoding="utf-8")
#: What is kept of a shot besides its cells.
BESIDES = {"key", "origins", "wishes", "pin", "extra"}


def test_cells_and_rows_are_the_same():
    assert {row.name for row in ROWS} == set(Shot.model_fields) - BESIDES
    assert {row.name for row in ROWS if row.need} == set(NEEDS) == set(ON_PAGE)
    assert all(row.gloss for row in ROWS if row.need)
    assert all(row.need for row in ROWS if row.asks)


def bare(title):
    return re.sub(r"[^a-z]", "", title.lower())


def test_no_two_columns_go_by_one_name():
    said = [each for row in ROWS for each in {bare(title) for title in (row.title, *row.also)}]
    assert len(said) == len(set(said))
    assert all(_BY_TITLE[bare(row.page_title)] == row.name for row in ROWS)


def test_every_cell_goes_out_and_comes_back():
    shot = Shot(**{row.name: f"{n} x" for n, row in enumerate(ROWS)})
    document = ShotList(shots=[shot])
    answers = shots_view(Package(), PackageSettings(), document, changes_for=())["answers"]
    table = [[str(cell) for cell in line] for line in table_of_shots(document, answers)]
    assert dict(zip(*table, strict=True))["Not nearer"] == shot.nearest
    (back,) = shots_of_table(table, ShotList())["document"].shots
    assert {row.name: getattr(back, row.name) for row in ROWS} == {
        row.name: getattr(shot, row.name) for row in ROWS
    }


def test_every_cell_is_documented():
    """But for those that say nothing of the picture."""
    told = set(re.findall(r"\w+", " ".join(re.findall(r"^\| ([a-z_, ]+) \|", DOCS, re.MULTILINE))))
    assert {row.name for row in ROWS} - told == {"name", "scene", "what", "day", "unit", "notes"}
