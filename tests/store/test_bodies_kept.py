"""Bodies in the database: rows found by their keys, kept when they are left out, and copies that stay apart."""

import pytest
from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError

from hextan.core.base import NotFoundError, StaleWriteError
from hextan.core.documents import parse_body
from hextan.core.equipment import Card, PackageSettings
from hextan.store import models, productions, repositories
from hextan.store.kinds import BODIES, SETTINGS
from tests.core.bodies import a_body, a_format, a_mode


def document(*modes, **changes):
    return parse_body(a_body(list(modes), **changes))


TWO = document(
    a_mode("Full", formats=[a_format("UHD"), a_format("HD", raster=[1920, 1080])]),
    a_mode("Small", window=[3000, 1688]),
    crops=[
        {
            "key": "s",
            "name": "Steady",
            "rules": [{"mode": "Full", "factor": 1.1}, {"mode": "Small", "factor": 1.2}],
        }
    ],
)


def numbers(kept):
    return {**kept.numbers["modes"], **kept.numbers["formats"]}


def rows(session, kept, kind):
    """Keys of a body's rows of a kind, and which of them are taken out."""
    row = models.Document
    query = select(row.key, row.removed_at.is_not(None)).where(row.root_id == kept.row_id, row.kind == kind)
    return dict(session.execute(query.order_by(row.id)).all())


def test_a_document_comes_back_as_it_was_kept(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    session.expire_all()
    assert BODIES.find(session, production.id, row.id).document == TWO


def test_rows_keep_their_numbers_through_every_edit(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    first = numbers(row)
    plain = TWO.model_dump(mode="json")
    plain["modes"].reverse()
    plain["modes"][1]["formats"].reverse()
    plain["modes"][1]["name"] = "Whole"
    kept = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert numbers(kept) == first
    assert [m.name for m in kept.document.modes] == ["Small", "Whole"]


def test_rows_that_are_left_out_stay_and_come_back(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    first, every = numbers(row), rows(session, row, "body.modes.formats")
    plain = TWO.model_dump(mode="json")
    del plain["modes"][0]["formats"][0]
    less = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert rows(session, less, "body.modes.formats") == every | {"UHD": True}
    whole = BODIES.save(session, production.id, row.id, less.version, TWO)
    assert numbers(whole) == first
    assert rows(session, whole, "body.modes.formats") == every


def test_every_write_moves_the_version_also_when_only_a_format_changed(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    before = row.version
    plain = TWO.model_dump(mode="json")
    plain["modes"][0]["formats"][1]["bits"] = 12
    kept = BODIES.save(session, production.id, row.id, before, parse_body(plain))
    assert kept.version == before + 1
    with pytest.raises(
        StaleWriteError, match=f"based on version {before}, and version {before + 1} is saved"
    ):
        BODIES.save(session, production.id, row.id, before, TWO)


def test_crop_rules_follow_their_modes(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    plain = TWO.model_dump(mode="json")
    plain["crops"][0]["rules"] = [{"mode": "Small", "aspect": [17, 9], "factor": 1.3}]
    kept = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert [(r.mode, r.aspect, r.factor) for r in kept.document.crops[0].rules] == [("Small", [17, 9], 1.3)]


def test_a_body_belongs_to_one_production(session, production, production_id):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    with pytest.raises(NotFoundError, match=f"There is no body {row.id} in this production"):
        BODIES.find(session, production_id, row.id)
    assert row.id not in {body.id for body in repositories.load_package(session, production_id).bodies}


def test_copies_have_names_and_keys_of_their_own(session, production):
    row = BODIES.add(session, production.id, TWO)
    session.commit()
    names, keys = [row.document.name], {row.document.key}
    for _ in range(3):
        copy = BODIES.duplicate(session, production.id, row)
        names.append(copy.document.name)
        keys.add(copy.document.key)
    assert names == ["Skerry 60", "Skerry 60 (2)", "Skerry 60 (3)", "Skerry 60 (4)"]
    assert len(keys) == 4
    assert [b.position for b in BODIES.every(session, production.id)] == [0, 1, 2, 3]


def test_a_body_that_is_taken_out_keeps_its_place(session, production):
    rows = [BODIES.add(session, production.id, document(name=f"Body {i}", key=f"b{i}")) for i in range(3)]
    session.commit()
    out = BODIES.set_removed(session, production.id, rows[1].id, rows[1].version, True)
    assert [b.document.name for b in BODIES.every(session, production.id)] == ["Body 0", "Body 2"]
    new = BODIES.add(session, production.id, document(name="Body 3", key="b3"))
    session.commit()
    assert new.position == 3
    BODIES.set_removed(session, production.id, out.id, out.version, False)
    assert [b.document.name for b in BODIES.every(session, production.id)] == [f"Body {i}" for i in range(4)]


def test_the_catalogue_is_made_once(session):
    shelf = repositories.catalogue_of(session)
    assert repositories.catalogue_of(session).id == shelf.id
    assert shelf.kind == "catalogue"
    assert shelf.id not in [row.id for row, _ in productions.every(session)]


def test_a_copy_does_not_follow_the_catalogue_by_itself(session, production):
    shelf = repositories.catalogue_of(session)
    source = BODIES.add(session, shelf.id, TWO)
    session.commit()
    copy = BODIES.copy_from_catalogue(session, production.id, source)
    plain = TWO.model_dump(mode="json")
    plain["firmware"] = "2.0"
    source = BODIES.save(session, shelf.id, source.id, source.version, parse_body(plain))
    assert BODIES.find(session, production.id, copy.id).document.firmware == ""
    assert [c.path for c in BODIES.catalogue_changes(session, copy)] == ["firmware"]
    # A body that leaves the catalogue has nothing more to say.
    BODIES.set_removed(session, shelf.id, source.id, source.version, True)
    assert BODIES.catalogue_changes(session, copy) == []


def test_a_change_that_is_taken_is_one_write(session, production):
    shelf = repositories.catalogue_of(session)
    source = BODIES.add(session, shelf.id, TWO)
    session.commit()
    copy = BODIES.copy_from_catalogue(session, production.id, source)
    plain = TWO.model_dump(mode="json")
    plain["firmware"], plain["pitch_um"] = "2.0", 5.9
    BODIES.save(session, shelf.id, source.id, source.version, parse_body(plain))
    version = copy.version
    settled = BODIES.settle_changes(session, copy, version, ["firmware"], ["pitch_um"])
    assert (settled.version, settled.document.firmware, settled.document.pitch_um) == (
        version + 1,
        "2.0",
        6.0,
    )
    assert BODIES.catalogue_changes(session, settled) == []
    with pytest.raises(NotFoundError, match="no longer differs at firmware"):
        BODIES.settle_changes(session, settled, settled.version, ["firmware"], [])


def test_settings_are_kept_with_the_production(session, production):
    assert SETTINGS.versioned(session, production.id) == (0, PackageSettings())
    settings = PackageSettings(cards=[Card(key="c", name="Slab", capacity=240, unit="GiB")])
    version = SETTINGS.save(session, production.id, 0, settings)
    assert version == 1
    with pytest.raises(StaleWriteError) as refused:
        SETTINGS.save(session, production.id, 0, PackageSettings())
    assert refused.value.stored["settings"]["cards"][0]["name"] == "Slab"


@pytest.mark.parametrize(
    ("change", "constraint"),
    [
        ("update document set key = 'same' where kind = 'body.modes'", "uq_document_key_below_root"),
        ("update document set number = 7 where kind = 'body.modes'", "uq_document_kind_number"),
        ("update document set body = '[]'", "ck_document_body_is_an_object"),
        ("update document set root_id = null where kind = 'body.modes'", "ck_document_below_a_root"),
        ("update document set version = 0", "ck_document_version_positive"),
        ("update document set parent_id = -1 where kind = 'body.modes'", "fk_document_parent_id_document"),
        ("update document set key = '' where kind = 'body'", "uq_document_one_of_a_kind"),
        ("update production set kind = 'shelf'", "ck_production_kind_known"),
    ],
)
def test_the_database_holds_by_itself_where_rows_stand(session, production, change, constraint):
    for _ in range(2):
        BODIES.add(session, production.id, TWO)
    session.commit()
    savepoint = session.begin_nested()
    with pytest.raises(IntegrityError, match=constraint):
        session.execute(text(change))
    savepoint.rollback()


def test_deleting_a_production_leaves_nothing_behind(session, production):
    kept = BODIES.add(session, production.id, TWO)
    BODIES.save(session, production.id, kept.id, kept.version, document(key=TWO.key))
    session.execute(text("delete from production where id = :id"), {"id": production.id})
    for table, column in (("document", "production_id"), ("revision", "document_id")):
        of = column.removesuffix("_id")
        orphans = f"select count(*) from {table} where {column} not in (select id from {of})"
        assert session.scalar(text(orphans)) == 0
    row = models.Document
    assert session.scalars(select(row).where(row.production_id == production.id)).all() == []


def test_every_version_is_there_as_it_was(session, production):
    kept = BODIES.add(session, production.id, TWO)
    session.commit()
    versions = [TWO]
    for change in ("renamed", "without", "moved", "back"):
        plain = versions[-1].model_dump(mode="json")
        if change == "renamed":
            plain["modes"][0]["formats"][1]["name"] = "HD new"
        elif change == "without":
            del plain["modes"][0]["formats"][0]
        elif change == "moved":
            plain["modes"].reverse()
        else:
            plain = TWO.model_dump(mode="json")
        plain["firmware"] = change
        versions.append(parse_body(plain))
        kept = BODIES.save(session, production.id, kept.id, kept.version, versions[-1])
    told = [version for version, _ in BODIES.revisions(session, kept)]
    assert told == sorted(set(told), reverse=True)
    for version, document_then in enumerate(versions, 1):
        assert BODIES.at_version(session, kept, version) == document_then
    with pytest.raises(NotFoundError, match="There is no version 99"):
        BODIES.at_version(session, kept, 99)
