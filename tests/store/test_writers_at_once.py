"""Writers at once, stamps of equipment by production, and lists that are written anew again and again."""

import json
import threading
import time

import pytest
from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from hextan.core.base import StaleWriteError, new_key
from hextan.core.compare import Comparison
from hextan.core.documents import parse_body, parse_lens_set
from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot, ShotList
from hextan.store import models
from hextan.store.keeper import MOST_REMOVED
from hextan.store.kinds import BODIES, COMPARISONS, LENS_SETS, SETTINGS, SHOTS
from hextan.store.package_cache import PackageCache
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import a_lens, a_set


@pytest.fixture
def fresh(engine):
    """Two productions of their own, committed, and gone after the test."""
    with Session(engine, expire_on_commit=False) as session:
        pair = [models.Production(name=f"Pair {i}") for i in (1, 2)]
        session.add_all(pair)
        session.commit()
        ids = [p.id for p in pair]
    yield ids
    with Session(engine) as session:
        for each in ids:
            session.delete(session.get(models.Production, each))
        session.commit()


def stamps(engine, ids):
    with Session(engine) as session:
        query = select(models.EquipmentStamp.production_id, models.EquipmentStamp.stamp)
        found = dict(session.execute(query).all())
        return [found.get(each) for each in ids]


def test_twenty_clients_remove_one_comparison_at_once(engine, fresh):
    with Session(engine) as session:
        document = Comparison.model_validate({"columns": [{"key": "a", "format_id": 1, "lens_id": 1}]})
        kept = COMPARISONS.add(session, fresh[0], document)
        session.commit()
        number, version = kept.id, kept.version
    begin, told = threading.Barrier(20), []

    def remove():
        with Session(engine) as session:
            begin.wait()
            try:
                COMPARISONS.set_removed(session, fresh[0], number, version, True)
                told.append("removed")
            except StaleWriteError:
                told.append("stale")

    threads = [threading.Thread(target=remove) for _ in range(20)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(told) == ["removed"] + ["stale"] * 19


def test_a_write_to_one_production_leaves_the_other_alone(engine, fresh):
    """Neither the other's loaded package nor its writers: one waits for nobody while the other's is still open."""
    cache = PackageCache()
    with Session(engine) as session:
        before = [cache.package(session, each) for each in fresh]
    was = stamps(engine, fresh)
    with Session(engine) as one, Session(engine) as two:
        for session, each in ((one, fresh[0]), (two, fresh[1])):
            # The second write goes through while the first is not committed yet.
            session.execute(select(func.set_config("lock_timeout", "2s", True)))
            LENS_SETS.add(session, each, parse_lens_set(a_set([a_lens()])))
        two.commit()
        assert stamps(engine, fresh)[0] == was[0]
        one.rollback()
    assert stamps(engine, fresh)[0] == was[0] != stamps(engine, fresh)[1]
    with Session(engine) as session:
        after = [cache.package(session, each) for each in fresh]
    assert after[0] is before[0]
    assert after[1] is not before[1]


def test_every_kind_of_change_renews_the_stamp(engine, fresh):
    def change(act):
        before = stamps(engine, fresh)
        with Session(engine) as session:
            act(session)
            session.commit()
        after = stamps(engine, fresh)
        assert after[0] != before[0], act
        assert after[1] == before[1]

    body = parse_body(a_body([a_mode(formats=[a_format()])]))
    change(lambda s: BODIES.add(s, fresh[0], body))
    row = models.Document
    for kind in ("body", "body.modes", "body.modes.formats"):
        mine = (row.production_id == fresh[0], row.kind == kind)
        change(lambda s, mine=mine: s.execute(update(row).where(*mine).values(body={"name": "Other"})))
    formats = (row.production_id == fresh[0], row.kind == "body.modes.formats")
    change(lambda s: s.execute(delete(row).where(*formats)))
    change(lambda s: SETTINGS.save(s, fresh[0], 0, PackageSettings(base_fps="24")))
    # What is no equipment leaves the loaded package alone.
    before = stamps(engine, fresh)
    with Session(engine) as session:
        SHOTS.save(session, fresh[0], 0, ShotList(shots=[Shot(key="s", name="1")]))
    assert stamps(engine, fresh) == before


def test_sixty_saves_with_other_keys_do_not_slow_a_set_down(engine, fresh):
    """Rows that are left out are kept for undo, but not for ever."""
    with Session(engine) as session:
        lenses = [a_lens(f"L{i}", 20.0 + i, key=new_key()) for i in range(20)]
        row = LENS_SETS.add(session, fresh[0], parse_lens_set(a_set(lenses)))
        session.commit()
        number, took = row.id, []
        for _ in range(60):
            document = parse_lens_set(a_set([each | {"key": new_key()} for each in lenses]))
            began = time.perf_counter()
            row = LENS_SETS.save(session, fresh[0], number, row.version, document)
            took.append(time.perf_counter() - began)
        count = session.scalar(select(func.count()).where(models.Document.root_id == row.row_id))
        assert count <= 20 + MOST_REMOVED + 20
        assert [x.name for x in row.document.lenses] == [f"L{i}" for i in range(20)]
        assert json.dumps(row.document.model_dump(mode="json"))


def test_a_body_written_anew_keeps_what_it_needs_and_no_more(engine, fresh):
    with Session(engine) as session:

        def document():
            modes = [
                a_mode(f"M{m}", [a_format(f"F{i}", key=new_key()) for i in range(3)], key=new_key())
                for m in range(2)
            ]
            return parse_body(a_body(modes))

        row = BODIES.add(session, fresh[0], document())
        session.commit()
        first = row.document
        for _ in range(40):
            row = BODIES.save(session, fresh[0], row.id, row.version, document())
        modes = session.scalar(
            select(func.count()).where(
                models.Document.root_id == row.row_id, models.Document.kind == "body.modes"
            )
        )
        assert modes <= 2 + MOST_REMOVED + 2
        # What was left out long ago comes back as new rows under its old keys.
        row = BODIES.save(session, fresh[0], row.id, row.version, first)
        assert row.document == first
