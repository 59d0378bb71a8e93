"""A production as a document: refused whole with every fault and its place, whoever wrote it, in bounded time."""

import time

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.bench import BenchState
from hextan.core.compare import Column, Comparison
from hextan.core.evaluation import BenchReference
from hextan.core.production import (
    Numbers,
    glance,
    parse_production,
    renumbered_bench,
    renumbered_comparison,
)
from hextan.core.production.numbers import GONE
from hextan.formats import production_json
from tests.core.bodies import a_body, a_format, a_mode, catalogue, package_of
from tests.core.kits import a_lens, a_set

BODY = a_body([a_mode("Full", formats=[a_format()])], schema="hextan.body", schema_version=2)
KIT = a_set([a_lens("25", 25.0)], schema="hextan.lens_set", schema_version=1)


def a_production(**changes):
    return {"schema": "hextan.production", "schema_version": 1, "name": "Low tide",
            "bodies": [{"document": BODY}], "lens_sets": [{"document": KIT}]} | changes  # fmt: skip


def refusal(plain):
    with pytest.raises(InvalidInputError) as refused:
        parse_production(plain)
    return {fault.field: fault.rule for fault in refused.value.faults}


def test_all_faults_are_told_with_their_places():
    bad_body = BODY | {"pitch_um": 900.0}
    told = refusal(
        a_production(
            ends_on="2026-02-30",
            bodies=[{"document": BODY}, {"document": bad_body}, {"document": {"schema": "hextan.lens_set"}}],
            lens_sets=[{"document": KIT | {"schema_version": 7}}],
        )
    )
    assert set(told) == {
        "bodies[2].document.schema",
        "lens_sets[0].document.schema_version",
        "ends_on",
        "bodies[1].document.pitch_um",
    }
    assert told["lens_sets[0].document.schema_version"].endswith("needs a newer Hextan")


def test_what_must_not_be_combined_is_told_of_every_part():
    outside = BODY | {"modes": [a_mode("Full", window=[9000, 3375])]}
    doubled = KIT | {"lenses": [a_lens("25", 25.0), a_lens("25", 25.0, key="other")]}
    told = refusal(a_production(bodies=[{"document": outside}], lens_sets=[{"document": doubled}]))
    assert set(told) == {"bodies[0].document.modes[0].window[0]", "lens_sets[0].document.lenses[1].name"}


@pytest.mark.parametrize(
    ("state", "path"),
    [
        ({"format_id": 2, "lens_id": 1}, "format_id"),
        ({"format_id": 1, "lens_id": 2}, "lens_id"),
        ({"format_id": 1, "lens_id": 1, "adapter_id": 1}, "adapter_id"),
        ({"format_id": 1, "lens_id": 1, "second_adapter_id": 4}, "second_adapter_id"),
        ({"format_id": 1, "lens_id": 1, "crop_ids": [3]}, "crop_ids"),
        ({"format_id": 1, "lens_id": 1, "pinned": [1, 5]}, "pinned"),
        ({"format_id": 1, "lens_id": 1, "reference": {"name": "scan_mode", "scan_mode_id": 2}}, "reference.scan_mode_id"),
    ],
)  # fmt: skip
def test_numbers_that_no_row_has_are_told(state, path):
    assert list(refusal(a_production(bench={"state": state}))) == [f"bench.state.{path}"]
    assert parse_production(a_production(bench={"state": {"format_id": 1, "lens_id": GONE}}))


def test_columns_of_comparisons_name_rows_as_well():
    comparison = {"schema": "hextan.comparison", "schema_version": 1,
                  "columns": [{"key": "a", "format_id": 1, "lens_id": 1}, {"key": "b", "format_id": 3, "lens_id": 1}]}  # fmt: skip
    told = refusal(a_production(comparisons=[{"document": comparison}]))
    assert list(told) == ["comparisons[0].document.columns[1].format_id"]


def test_renumbering_changes_every_number_and_nothing_else():
    numbers = Numbers(
        modes={9: 1}, formats={4: 40, 5: 50}, crops={6: 60}, lenses={7: 70}, adapters={8: 80, 3: 30}
    )
    state = BenchState(
        format_id=4, lens_id=7, adapter_id=8, second_adapter_id=3, crop_ids=[6, 61], pinned=[5, 51],
        reference=BenchReference(name="scan_mode", scan_mode_id=9), subject_m=2.5,
    )  # fmt: skip
    told = renumbered_bench(state, numbers)
    assert (told.format_id, told.lens_id, told.adapter_id, told.second_adapter_id) == (40, 70, 80, 30)
    assert (told.crop_ids, told.pinned, told.reference.scan_mode_id) == ([60, GONE], [50, GONE], 1)
    assert told.subject_m == 2.5
    comparison = Comparison(columns=[Column(key="a", format_id=5, lens_id=7, crop_ids=[6])])
    column = renumbered_comparison(comparison, numbers).columns[0]
    assert (column.key, column.format_id, column.lens_id, column.crop_ids) == ("a", 50, 70, [60])


#: What nobody writes by accident, and how it is refused.
HOSTILE = {
    "a million rows": (b'{"schema":"hextan.production","schema_version":1,"name":"x","bodies":['
                       + b'{"document":1},' * 10**6 + b'{}]}', "bodies: must have at most 300 entries"),
    "depth": (b'{"name":' + b"[" * 100_000 + b"]" * 100_000 + b"}", "nested too deeply"),
    "half a surrogate": (b'{"schema":"hextan.production","schema_version":1,"name":"\\ud83d"}', "stands for no character"),
    "digits": (b'{"schema_version":' + b"9" * 10_000 + b"}", "more digits"),
    "no object": (b"[1]", "must be hextan.production"),
    "no JSON": (b"{", "is not valid JSON"),
    "newer": (b'{"schema":"hextan.production","schema_version":2}', "needs a newer Hextan"),
}  # fmt: skip


@pytest.mark.parametrize("kind", HOSTILE)
def test_hostile_files_are_refused_soon(kind):
    data, told = HOSTILE[kind]
    begun = time.process_time()
    with pytest.raises(InvalidInputError, match=told):
        production_json.read(data)
    # Bounded by far more than a slow machine needs: what walked through every row would take minutes.
    assert time.process_time() - begun < 30


def test_a_glance_tells_windows_to_scale_and_what_is_missing():
    package = package_of(catalogue()[:1])
    body = catalogue()[0]
    told = glance(package)
    assert told["bodies"][0]["sensor_mm"] == pytest.approx(
        [n * body.pitch_um / 1000 for n in body.photosites]
    )
    areas = [w * h for w, h in told["bodies"][0]["windows_mm"]]
    assert areas == sorted(areas, reverse=True)
    assert told["missing"] == ["a lens"]
    assert glance(package_of([]))["missing"] == ["a body", "a lens"]
