"""Lens sets, mounts and adapters in the database: rows found by their keys, kept when left out, copies that stay apart."""

import pytest
from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.base import NotFoundError, StaleWriteError
from hextan.core.documents import parse_lens_set, parse_rig
from hextan.store import models, repositories
from hextan.store.kinds import LENS_SETS
from hextan.store.kinds import RIG as RIGS
from hextan.store.package_cache import PackageCache
from tests.core.kits import a_lens, a_set

ORIGIN = {"kind": "measured", "source": "own projector", "date": "2026-05-18", "firmware": ""}
TABLE = {
    "image_circle_mm": None,
    "circle_by": "focus",
    "circles": [{"at": 0.9, "circle_mm": 31.8}, {"at": None, "circle_mm": 30.2}],
}
TWO = parse_lens_set(
    a_set(
        [
            a_lens("25", 25.0, origins={"image_circle_mm": ORIGIN}, iris="either", data_link="contacts", weight_kg=1.2),
            a_lens("Zoom", 20.0, focal_long_mm=80.0, t_stop_long=2.8, breathing_percent=-1.5) | TABLE,
        ],
        note="Rehoused.",
        origin=ORIGIN,
    )
)  # fmt: skip
RIG = parse_rig(
    {
        "mounts": [{"key": "m", "name": "W54", "flange_mm": 38.2, "throat_mm": 54.0}],
        "adapters": [
            {"key": "a", "name": "reducer", "lens_mount": "W54", "body_mount": "K50", "magnification": 0.71, "glass": True,
             "transmission": 0.95, "classes": ["full frame"], "passes_iris": False}
        ],
    }
)  # fmt: skip


def numbers(kept):
    return kept.numbers["lenses"]


def test_a_set_comes_back_as_it_was_kept(session, production):
    row = LENS_SETS.add(session, production.id, TWO)
    session.commit()
    session.expire_all()
    assert LENS_SETS.find(session, production.id, row.id).document == TWO


def test_lenses_keep_their_numbers_through_every_edit(session, production):
    row = LENS_SETS.add(session, production.id, TWO)
    session.commit()
    first = numbers(row)
    plain = TWO.model_dump(mode="json")
    plain["lenses"].reverse()
    plain["lenses"][1]["name"] = "25 new"
    kept = LENS_SETS.save(session, production.id, row.id, row.version, parse_lens_set(plain))
    assert numbers(kept) == first
    assert [lens.name for lens in kept.document.lenses] == ["Zoom", "25 new"]
    shorter = parse_lens_set(plain | {"lenses": plain["lenses"][:1]})
    kept = LENS_SETS.save(session, production.id, row.id, kept.version, shorter)
    assert len(kept.document.lenses) == 1
    back = LENS_SETS.save(session, production.id, row.id, kept.version, TWO)
    assert numbers(back) == first
    assert back.document == TWO


def test_the_version_moves_when_only_a_lens_changed(session, production):
    row = LENS_SETS.add(session, production.id, TWO)
    session.commit()
    before = row.version
    plain = TWO.model_dump(mode="json")
    plain["lenses"][0]["close_focus_m"] = 0.4
    assert LENS_SETS.save(session, production.id, row.id, before, parse_lens_set(plain)).version == before + 1
    with pytest.raises(StaleWriteError) as refused:
        LENS_SETS.save(session, production.id, row.id, before, TWO)
    assert refused.value.stored["document"]["lenses"][0]["close_focus_m"] == 0.4
    assert refused.value.given["document"]["lenses"][0]["close_focus_m"] == 0.5


def test_two_writers_of_a_set_at_once(engine):
    """Whoever comes second is told, and nothing of the first is lost."""
    with Session(engine) as one, Session(engine) as other:
        shelf = repositories.catalogue_of(one)
        row = LENS_SETS.add(one, shelf.id, TWO)
        one.commit()
        version, row_id, shelf_id = row.version, row.id, shelf.id
        try:
            mine = parse_lens_set(TWO.model_dump(mode="json") | {"note": "mine"})
            yours = parse_lens_set(TWO.model_dump(mode="json") | {"note": "yours"})
            LENS_SETS.find(other, shelf_id, row_id)
            LENS_SETS.save(one, shelf_id, row_id, version, mine)
            with pytest.raises(StaleWriteError, match="was changed elsewhere"):
                LENS_SETS.save(other, shelf_id, row_id, version, yours)
            other.rollback()
            assert LENS_SETS.find(other, shelf_id, row_id).document.note == "mine"
        finally:
            other.rollback()
            one.delete(one.get(models.Document, row.row_id))
            one.commit()


def test_copies_stay_apart_and_what_changed_is_taken_in_one_write(session, production):
    shelf = repositories.catalogue_of(session)
    source = LENS_SETS.add(session, shelf.id, TWO)
    session.commit()
    copy = LENS_SETS.copy_from_catalogue(session, production.id, source)
    assert LENS_SETS.catalogue_changes(session, copy) == []
    plain = TWO.model_dump(mode="json")
    plain["lenses"][0]["image_circle_mm"] = 45.0
    plain["lenses"].append(a_lens("75", 75.0))
    LENS_SETS.save(session, shelf.id, source.id, source.version, parse_lens_set(plain))
    assert LENS_SETS.find(session, production.id, copy.id).document == TWO
    found = LENS_SETS.catalogue_changes(session, copy)
    assert [(c.kind, c.where) for c in found] == [("changed", "25"), ("added", "75")]
    version = copy.version
    copy = LENS_SETS.settle_changes(session, copy, version, [c.path for c in found], [])
    assert copy.version == version + 1
    assert [lens.name for lens in copy.document.lenses] == ["25", "Zoom", "75"]
    assert LENS_SETS.catalogue_changes(session, copy) == []
    with pytest.raises(NotFoundError, match="no longer differs"):
        LENS_SETS.settle_changes(session, copy, copy.version, [found[0].path], [])


def test_a_set_of_another_production_is_not_found(session, production):
    other = session.scalars(select(models.Document.number).where(models.Document.kind == "lens_set")).first()
    with pytest.raises(NotFoundError, match="There is no lens set"):
        LENS_SETS.find(session, production.id, other)


def test_the_package_has_what_is_not_taken_out(session, production):
    row = LENS_SETS.add(session, production.id, TWO)
    RIGS.save(session, production.id, 0, RIG)
    package = repositories.load_package(session, production.id)
    assert [lens.id for lens in package.lens_sets[0].lenses] == list(numbers(row).values())
    assert package.lens_sets[0].lenses[1].circle_rows == ((0.9, 31.8), (float("inf"), 30.2))
    assert package.rig.mounts_by_name["W54"].flange_mm == 38.2
    assert (package.adapters[0].classes, package.adapters[0].passes_iris) == (("full frame",), False)
    LENS_SETS.set_removed(session, production.id, row.id, row.version, True)
    assert repositories.load_package(session, production.id).lens_sets == ()


def test_a_rig_is_kept_from_a_known_version(session, production):
    assert RIGS.save(session, production.id, 0, RIG) == 1
    assert RIGS.read(session, production.id) == RIG
    first = RIGS.find(session, production.id).numbers["adapters"]
    empty = parse_rig({})
    version = RIGS.save(session, production.id, 1, empty)
    assert RIGS.read(session, production.id) == empty
    with pytest.raises(StaleWriteError, match="Mounts and adapters were changed elsewhere"):
        RIGS.save(session, production.id, 1, RIG)
    RIGS.save(session, production.id, version, RIG)
    assert RIGS.find(session, production.id).numbers["adapters"] == first


def test_a_change_of_the_rig_makes_another_package(session, production):
    cache = PackageCache()
    LENS_SETS.add(session, production.id, TWO)
    session.commit()
    before = cache.package(session, production.id)
    assert cache.package(session, production.id) is before
    RIGS.save(session, production.id, 0, RIG)
    after = cache.package(session, production.id)
    assert after is not before
    assert [a.name for a in after.adapters] == ["reducer"]
