"""The log in the database: with the production's file, in copies, when it is full, and when two write at once."""

import threading

import pytest
from sqlalchemy.orm import Session

from hextan.core.base import InvalidInputError, NotFoundError
from hextan.core.production import ProductionFacts
from hextan.core.record import Log
from hextan.demo.load import demo
from hextan.store import log, models, productions
from hextan.store.kinds import SET
from tests.core.record.days import LOG, take


def test_the_log_goes_with_the_production_and_nothing_listens_in_a_copy(session):
    here = demo(session).id
    document = productions.document_of(session, here)
    assert document.log == LOG
    assert [source.unit for source in document.set_settings.sources] == ["A", "B"]
    on = document.set_settings.model_copy(
        update={"sources": [s.model_copy(update={"on": True}) for s in document.set_settings.sources]}
    )
    row = productions.add_document(session, document.model_copy(update={"set_settings": on}))
    assert log.read(session, row.id) == LOG
    assert [source.on for source in SET.read(session, row.id).sources] == [False, False]
    begun = productions.copy(session, here, ProductionFacts(name="High Water"))
    assert log.read(session, begun.id) == Log()


def test_a_full_log_says_so(session, production, monkeypatch):
    monkeypatch.setattr(log, "MOST_ENTRIES", 2)
    for key in ("a", "b"):
        log.put(session, production.id, take(key, "12B", 1), 0)
    with pytest.raises(InvalidInputError, match="holds 2 entries at most"):
        log.put(session, production.id, take("c", "12B", 1), 0)
    # What is there can still be changed.
    assert log.put(session, production.id, take("a", "12B", 2), 1).revision == 2
    with pytest.raises(NotFoundError):
        log.put(session, 10**9, take("a", "12B", 1), 0)


def test_many_are_added_at_once_and_none_twice(session, production):
    entries = [take(key, "12B", 1) for key in "abc"]
    log.put(session, production.id, entries[0].model_copy(update={"note": "first"}), 0)
    assert log.put_new(session, production.id, entries) == 2
    assert log.put_new(session, production.id, entries) == 0
    items = log.read(session, production.id).items
    assert [(item.entry.key, item.entry.note) for item in items] == [("a", "first"), ("b", ""), ("c", "")]


def test_the_same_entry_sent_by_many_at_once_is_one(engine):
    with Session(engine) as session:
        row = models.Production(name="At once", synopsis="")
        session.add(row)
        session.commit()
        production_id = row.id
    entry, found, begin = take("same", "12B", 1), [], threading.Barrier(6)

    def send():
        with Session(engine) as own:
            begin.wait()
            found.append(log.put(own, production_id, entry, 0).revision)

    threads = [threading.Thread(target=send) for _ in range(6)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    with Session(engine) as session:
        assert found == [1] * 6
        assert len(log.read(session, production_id).items) == 1
        session.delete(session.get(models.Production, production_id))
        session.commit()
