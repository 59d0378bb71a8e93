"""The lines that readers of what people write are counted against are whole: each has one meaning, in facts that are named."""

import csv
import json
import re
from pathlib import Path

import pytest

FOLDER = Path(__file__).parent / "fixtures" / "written"
KINDS = {"spec_lines": 290, "lens_lines": 150, "questions": 100}
FACT = re.compile(r"(?:^|(?<=[ ;]))([a-z]+)(?::|<=)")


def lines(name):
    rows = (FOLDER / f"{name}.txt").read_text().splitlines()
    return [row.split(" | ") for row in rows if not row.startswith("#")]


@pytest.mark.parametrize(("kind", "least"), KINDS.items())
def test_every_line_has_one_meaning_and_a_third_is_set_aside(kind, least):
    tuned, aside = lines(kind), lines(f"{kind}_aside")
    every = [*tuned, *aside]
    assert all(len(row) == 2 and row[1].strip() for row in every)
    assert len({row[0] for row in every}) == len(every) >= least
    assert len(aside) == pytest.approx(len(every) / 3, abs=3)


@pytest.mark.parametrize("name", ["spec_lines", "spec_lines_aside", "lens_lines", "lens_lines_aside"])
def test_facts_are_those_that_are_named(name):
    named = set(re.findall(r"`([a-z]+)(?::|<=)", (FOLDER / "README.md").read_text()))
    for written, meaning in lines(name):
        assert set(FACT.findall(meaning)) <= named, written


def test_every_shot_list_says_which_shots_are_in_it():
    means = json.loads((FOLDER / "shot_lists" / "means.json").read_text())
    lists = sorted((FOLDER / "shot_lists").glob("*.csv"))
    assert {file.name for file in lists} == set(means) - {"about"}
    assert len(lists) == 12
    for file in lists:
        rows = list(
            csv.reader(file.read_text().splitlines(), delimiter=";" if ";" in file.read_text() else ",")
        )
        below = {cell for row in rows[means[file.name]["header"] :] for cell in row}
        assert below.issuperset(means[file.name]["shots"]), file.name
