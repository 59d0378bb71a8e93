"""Productions in the database: made, copied, put away, written out whole and read in whole."""

from datetime import date

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError, NotFoundError, StaleWriteError
from hextan.core.documents import parse_body
from hextan.core.equipment import parse_settings
from hextan.core.production import ProductionFacts, parse_production
from hextan.core.production.numbers import GONE
from hextan.demo.load import demo, reset_demo
from hextan.formats import production_json
from hextan.store import productions, repositories
from hextan.store.kinds import BENCH, BODIES, COMPARISONS, LENS_SETS, RIG, SETTINGS
from tests.budget import examples
from tests.store.test_bodies_kept import TWO
from tests.store.test_lens_sets_kept import TWO as TWO_LENSES

LOW = ProductionFacts(name="Low tide", starts_on="2026-05-04", ends_on="2026-05-30")


def of_demo(session, removed=False):
    return productions.document_of(session, demo(session).id, removed)


def test_it_is_made_renamed_and_put_away(session):
    row = productions.make(session, LOW)
    assert (row.name, row.starts_on, row.archived) == ("Low tide", date(2026, 5, 4), False)
    renamed = productions.save_facts(session, row.id, row.version, LOW.model_copy(update={"name": "Ebb"}))
    assert renamed.version == 2
    with pytest.raises(StaleWriteError) as refused:
        productions.save_facts(session, row.id, 1, LOW)
    assert refused.value.stored["facts"]["name"] == "Ebb"
    assert productions.set_archived(session, row.id, 2, True).archived
    assert not productions.set_archived(session, row.id, 3, False).archived


def test_a_shelf_is_no_production(session):
    shelf = repositories.catalogue_of(session)
    assert shelf.id not in [row.id for row, _ in productions.every(session)]
    for refused in (
        lambda: productions.own(session, shelf.id),
        lambda: productions.set_archived(session, shelf.id, shelf.version, True),
    ):
        with pytest.raises(NotFoundError, match="no production"):
            refused()


def test_the_last_changed_comes_first(session, production):
    before = {row.id: changed for row, changed in productions.every(session)}
    BODIES.add(session, production.id, TWO)
    session.commit()
    rows = productions.every(session)
    assert rows[0][0].id == production.id
    assert rows[0][1] > before[production.id]
    bench = demo(session)
    version, state = repositories.read_bench(session, bench.id)
    BENCH.save(session, bench.id, version, state.model_copy(update={"stop": 4.0}))
    assert productions.every(session)[0][0].id == bench.id


def test_the_demo_goes_through_its_file_and_comes_out_the_same(session):
    told = of_demo(session, removed=True)
    data = production_json.write(told)
    assert production_json.read(data) == told
    again = productions.add_document(session, production_json.read(data))
    assert production_json.write(productions.document_of(session, again.id, True)) == data
    assert again.demo_key is None
    # What the Bench names are rows of the new production.
    package = repositories.load_package(session, again.id)
    _, state = repositories.read_bench(session, again.id)
    _, first = repositories.read_bench(session, demo(session).id)
    there = repositories.load_package(session, demo(session).id)
    assert state.format_id != first.format_id
    assert package.formats[state.format_id].recording.name == there.formats[first.format_id].recording.name
    assert package.lenses[state.lens_id][1].name == there.lenses[first.lens_id][1].name
    column = COMPARISONS.every(session, again.id)[0].document.columns[1]
    assert column.format_id in package.formats and column.lens_id in package.lenses


def test_what_was_taken_out_goes_with_it_on_request_only(session, production):
    row = BODIES.add(session, production.id, TWO)
    LENS_SETS.add(session, production.id, TWO_LENSES)
    session.commit()
    BODIES.set_removed(session, production.id, row.id, row.version, True)
    assert productions.document_of(session, production.id).bodies == []
    told = productions.document_of(session, production.id, removed=True)
    assert [item.removed for item in told.bodies] == [True]
    again = productions.add_document(session, told)
    assert BODIES.every(session, again.id) == []
    assert [b.document.name for b in BODIES.every(session, again.id, removed=True)] == [TWO.name]


def test_a_bench_that_names_what_is_gone_stays_that_way(session):
    low = demo(session)
    version, state = repositories.read_bench(session, low.id)
    BENCH.save(session, low.id, version, state.model_copy(update={"lens_id": 987_654}))
    told = of_demo(session)
    assert told.bench.state.lens_id == GONE
    again = productions.add_document(session, told)
    assert repositories.read_bench(session, again.id)[1].lens_id == GONE


def test_a_copy_is_one_s_own(session):
    low = demo(session)
    copy = productions.copy(session, low.id, LOW)
    assert (copy.name, copy.synopsis, copy.demo_key) == ("Low tide", "", None)
    body = BODIES.every(session, copy.id)[0]
    BODIES.set_removed(session, copy.id, body.id, body.version, True)
    assert len(BODIES.every(session, low.id)) == 3
    assert len(BODIES.every(session, copy.id)) == 2


def test_a_reset_puts_the_old_demo_away_and_begins_anew(session):
    old = demo(session)
    body = BODIES.every(session, old.id)[0]
    BODIES.set_removed(session, old.id, body.id, body.version, True)
    new = reset_demo(session)
    assert (new.name, len(BODIES.every(session, new.id))) == ("Low Water", 3)
    assert (old.archived, old.name) == (True, "Low Water (before its reset)")
    assert len(BODIES.every(session, old.id)) == 2
    # Its own shelf is as it began too: what the makers changed since is offered again.
    assert BODIES.catalogue_changes(session, BODIES.every(session, new.id)[0])
    assert repositories.catalogue_of(session, new.id).id != repositories.catalogue_of(session, old.id).id
    plain = BODIES.every(session, repositories.catalogue_of(session, old.id).id)
    assert {body.document.maker for body in plain} == {"plain"}


NAMES = st.text(st.characters(codec="utf-8", exclude_categories=["C", "Z"]), min_size=1, max_size=20)
DAYS = st.dates().map(str) | st.just("")


@settings(max_examples=examples(25), suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    name=NAMES,
    days=st.tuples(DAYS, DAYS).map(sorted),
    bodies=st.lists(st.tuples(NAMES, st.floats(0.5, 90), st.booleans()), max_size=3),
    pins=st.lists(st.integers(1, 2), max_size=4),
)
def test_any_production_goes_round_exactly(session, name, days, bodies, pins):
    items = [
        {"document": TWO.model_dump(mode="json") | {"name": label, "key": f"b{i}", "pitch_um": pitch},
         "removed": out}
        for i, (label, pitch, out) in enumerate(bodies)
    ]  # fmt: skip
    # Those that were taken out come last, as a file has them.
    items.sort(key=lambda item: item["removed"])
    state = {"format_id": 1, "lens_id": 2, "pinned": pins}
    plain = {
        "schema": "hextan.production", "schema_version": 1, "name": name, "starts_on": days[0], "ends_on": days[1],
        "bodies": items, "lens_sets": [{"document": TWO_LENSES.model_dump(mode="json")}],
        "bench": {"state": state} if bodies else None,
    }  # fmt: skip
    document = parse_production(plain)
    row = productions.add_document(session, document)
    assert productions.document_of(session, row.id, removed=True) == document


def test_a_new_bench_begins_with_what_is_set_for_the_production(session, production):
    BODIES.add(session, production.id, TWO)
    LENS_SETS.add(session, production.id, TWO_LENSES)
    session.commit()
    plain = {"unit": "ft", "mains_hz": 60, "shutter_deg": 172.8, "deliveries": [
        {"name": "Cinema", "aspect": 2.39, "long_edge_px": 4096, "protect": 0.05}, {"name": "Phone", "aspect": 0.5625}],
        "references": [{"name": "half frame", "width_mm": 24.0, "height_mm": 18.0}]}  # fmt: skip
    SETTINGS.save(session, production.id, 0, parse_settings(plain))
    version, state = repositories.read_bench(session, production.id)
    assert (version, state.unit, state.light.mains_hz, state.light.shutter_deg) == (0, "ft", 60, 172.8)
    assert (state.delivery.aspect, state.delivery.long_edge_px, state.delivery.protect) == (2.39, 4096, 0.05)
    package = repositories.load_package(session, production.id)
    assert [r.name for r in package.references] == ["half frame"]
    assert [d.name for d in package.deliveries] == ["Cinema", "Phone"]


def test_nothing_of_a_faulty_production_is_kept(session):
    before = [row.id for row, _ in productions.every(session)]
    plain = of_demo(session).model_dump(mode="json")
    plain["lens_sets"][2]["document"]["lenses"][0]["focal_mm"] = -1
    with pytest.raises(InvalidInputError, match=r"lens_sets\[2\].document.lenses\[0\].focal_mm"):
        productions.add_document(session, parse_production(plain))
    assert [row.id for row, _ in productions.every(session)] == before


def test_a_body_of_an_older_version_is_brought_up(session):
    plain = parse_body(TWO.model_dump(mode="json")).model_dump(mode="json")
    plain["schema_version"] = 1
    document = parse_production(
        {"schema": "hextan.production", "schema_version": 1, "name": "Old", "bodies": [{"document": plain}]}
    )
    assert document.bodies[0].document.schema_version == 2


def test_the_shelf_of_everybody_begins_with_plain_windows_and_glass(session):
    shelf = repositories.catalogue_of(session)
    names = [body.document.name for body in BODIES.every(session, shelf.id)]
    assert "Super 35, 4 perforations" in names
    assert next(kit.document.name for kit in LENS_SETS.every(session, shelf.id)) == "Primes for Super 35"
    assert [f.stops for f in RIG.read(session, shelf.id).filters] == [1, 2, 3, 4, 5, 6]
    # What is taken out of it stays out.
    for body in BODIES.every(session, shelf.id):
        BODIES.set_removed(session, shelf.id, body.id, body.version, True)
    assert BODIES.every(session, repositories.catalogue_of(session).id) == []
    # The demo's is another.
    assert {b.document.name for b in BODIES.every(session, repositories.catalogue_of(session, demo(session).id).id)} == {
        "Ebb 64", "Skiff 46", "Tern G", "Punt 52",
    }  # fmt: skip
