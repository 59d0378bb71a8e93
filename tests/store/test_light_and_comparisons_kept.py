"""Sensitivities, filters, the production's rule and comparisons in the database."""

import pytest
from sqlalchemy import text

from hextan.core.base import InvalidInputError, NotFoundError, StaleWriteError
from hextan.core.compare import parse_comparison
from hextan.core.documents import parse_body, parse_rig, with_rigs
from hextan.core.equipment import PackageSettings
from hextan.core.evaluation.contract import CocFixed
from hextan.store import models, repositories
from hextan.store.kinds import BODIES, COMPARISONS, RIG, SETTINGS
from hextan.store.package_cache import PackageCache
from tests.core.bodies import a_body, a_format, a_mode


def body(**changes):
    light = {"eis": [400, 800, 1600], "base_eis": [800], "nd_stops": [2.0, 4.0]}
    return parse_body(a_body([a_mode(formats=[a_format()])], **(light | changes)))


def filters(*rows):
    return parse_rig(
        {"filters": [{"key": k, "name": name, "stops": s, "count": n} for k, name, s, n in rows]}
    )


def document(name="Deck", **changes):
    column = {"key": "a", "format_id": 1, "lens_id": 1, "stop": 2.8}
    return parse_comparison({"name": name, "columns": [column, column | {"key": "b"}]} | changes)


def test_sensitivities_and_built_in_nd_come_back(session, production):
    row = BODIES.add(session, production.id, body())
    session.commit()
    session.expire_all()
    kept = BODIES.find(session, production.id, row.id).document
    assert (kept.eis, kept.base_eis, kept.nd_stops) == ([400, 800, 1600], [800], [2.0, 4.0])
    loaded = repositories.load_package(session, production.id).bodies[0]
    assert (loaded.eis, loaded.base_eis, loaded.nd_stops) == ((400, 800, 1600), (800,), (2.0, 4.0))


def test_a_body_without_them_states_none(session, production):
    BODIES.add(session, production.id, body(eis=[], base_eis=[], nd_stops=[]))
    session.commit()
    loaded = repositories.load_package(session, production.id).bodies[0]
    assert (loaded.eis, loaded.base_eis, loaded.nd_stops) == ((), (), ())


@pytest.mark.parametrize(
    ("change", "field"),
    [({"eis": [0]}, "eis[0]"), ({"nd_stops": [-1.0]}, "nd_stops[0]"), ({"base_eis": ["800"]}, "base_eis[0]")],
)
def test_sensitivities_that_cannot_be_are_refused_by_their_field(change, field):
    with pytest.raises(InvalidInputError) as refused:
        body(**change)
    assert [f.field for f in refused.value.faults] == [field]


def test_filters_come_back_and_those_left_out_are_kept(session, production):
    first = filters(("a", "ND 0.3", 1.0, 1), ("b", "ND 0.9", 3.0, 2))
    version = RIG.save(session, production.id, 0, first)
    session.expire_all()
    assert RIG.read(session, production.id) == first
    package = repositories.load_package(session, production.id)
    assert [(f.name, f.stops, f.count) for f in package.filters] == [("ND 0.3", 1.0, 1), ("ND 0.9", 3.0, 2)]
    fewer = filters(("b", "ND 0.9", 3.0, 2))
    version = RIG.save(session, production.id, version, fewer)
    removed = "select key, removed_at is not null from document where kind = 'rig.filters' and production_id = :id order by key"
    rows = session.execute(text(removed), {"id": production.id}).all()
    assert [tuple(row) for row in rows] == [("a", True), ("b", False)]
    # Undone: the row that was left out is the same one again.
    RIG.save(session, production.id, version, first)
    assert RIG.read(session, production.id) == first


def test_filters_of_a_file_change_those_of_the_same_name():
    here = filters(("a", "ND 0.3", 1.0, 1), ("b", "ND 0.6", 2.0, 1))
    other = filters(("x", "ND 0.6", 2.0, 3), ("y", "ND 1.2", 4.0, 1))
    merged = with_rigs(here, [other]).filters
    assert [(f.name, f.count) for f in merged] == [("ND 0.3", 1), ("ND 0.6", 3), ("ND 1.2", 1)]
    assert merged[1].key == "b"
    with pytest.raises(InvalidInputError, match="already taken"):
        filters(("a", "ND 0.3", 1.0, 1), ("b", "ND 0.3", 1.0, 1))


def test_a_change_of_the_rule_or_of_filters_renews_the_package(session, production):
    cache = PackageCache()
    BODIES.add(session, production.id, body())
    session.commit()
    before = cache.package(session, production.id)
    assert cache.package(session, production.id) is before
    settings = PackageSettings(coc=CocFixed(rule="fixed", mm=0.02))
    SETTINGS.save(session, production.id, 0, settings)
    after = cache.package(session, production.id)
    assert after is not before
    assert after.coc == CocFixed(rule="fixed", mm=0.02)
    RIG.save(session, production.id, 0, filters(("a", "ND 0.3", 1.0, 1)))
    assert [f.name for f in cache.package(session, production.id).filters] == ["ND 0.3"]


def test_comparisons_stand_in_their_order(session, production):
    for name in ("first", "second", "third"):
        COMPARISONS.add(session, production.id, document(name))
    rows = COMPARISONS.every(session, production.id)
    assert [r.document.name for r in rows] == ["first", "second", "third"]
    middle = COMPARISONS.set_removed(session, production.id, rows[1].id, rows[1].version, True)
    assert [r.document.name for r in COMPARISONS.every(session, production.id)] == [
        "first",
        "third",
    ]
    assert COMPARISONS.every(session, production.id, removed=True) == [middle]
    COMPARISONS.set_removed(session, production.id, middle.id, middle.version, False)
    assert [r.document.name for r in COMPARISONS.every(session, production.id)][1] == "second"


def test_a_stale_comparison_is_refused_with_both(session, production):
    row = COMPARISONS.add(session, production.id, document("deck"))
    version = row.version
    COMPARISONS.save(session, production.id, row.id, version, document("theirs"))
    with pytest.raises(StaleWriteError, match="Comparison theirs was changed elsewhere") as refused:
        COMPARISONS.save(session, production.id, row.id, version, document("mine"))
    assert refused.value.stored["document"]["name"] == "theirs"
    assert refused.value.given["document"]["name"] == "mine"
    with pytest.raises(StaleWriteError):
        COMPARISONS.set_removed(session, production.id, row.id, version, True)


def test_a_comparison_belongs_to_its_production(session, production):
    row = COMPARISONS.add(session, production.id, document())
    other = models.Production(name="Third unit", synopsis="")
    session.add(other)
    session.commit()
    with pytest.raises(NotFoundError, match="There is no comparison"):
        COMPARISONS.find(session, other.id, row.id)
    session.delete(production)
    session.commit()
    assert COMPARISONS.kept(session, models.Document.id == row.row_id) == []


@pytest.mark.parametrize(
    ("change", "rule"),
    [
        ({"columns": []}, "document.columns"),
        ({"schema_version": 2}, "document.schema_version"),
        ({"columns": [{"key": "a", "format_id": 1, "lens_id": 1}] * 2}, "two columns have the same key"),
    ],
)
def test_comparisons_that_cannot_be(change, rule):
    with pytest.raises(InvalidInputError, match=rule):
        document(**change)
