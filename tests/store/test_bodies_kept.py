"""Bodies in the database: rows found by their keys, kept when they are left out, and copies that stay apart."""

import pytest
from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError

from hextan.core.base import NotFoundError, StaleWriteError
from hextan.core.documents import parse_body
from hextan.core.equipment import Card, PackageSettings
from hextan.store import bodies, models, productions, repositories
from hextan.store.bodies import BODIES
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


def numbers(row):
    return {r.key: r.id for mode in row.modes for r in (mode, *mode.formats)}


def test_a_document_comes_back_as_it_was_kept(session, production):
    row = BODIES.add(session, production, TWO)
    session.commit()
    session.expire_all()
    assert bodies.document_of(BODIES.find(session, production.id, row.id)) == TWO


def test_rows_keep_their_numbers_through_every_edit(session, production):
    row = BODIES.add(session, production, TWO)
    session.commit()
    first = numbers(row)
    plain = TWO.model_dump(mode="json")
    plain["modes"].reverse()
    plain["modes"][1]["formats"].reverse()
    plain["modes"][1]["name"] = "Whole"
    kept = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert numbers(kept) == first
    assert [m.name for m in bodies.document_of(kept).modes] == ["Small", "Whole"]


def test_rows_that_are_left_out_stay_and_come_back(session, production):
    row = BODIES.add(session, production, TWO)
    session.commit()
    first, count = numbers(row), len(row.modes[0].formats)
    plain = TWO.model_dump(mode="json")
    del plain["modes"][0]["formats"][0]
    less = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert [f.removed for f in less.modes[0].formats].count(True) == 1
    assert len(less.modes[0].formats) == count
    whole = BODIES.save(session, production.id, row.id, less.version, TWO)
    assert numbers(whole) == first
    assert not any(f.removed for f in whole.modes[0].formats)


def test_every_write_moves_the_version_also_when_only_a_format_changed(session, production):
    row = BODIES.add(session, production, TWO)
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
    row = BODIES.add(session, production, TWO)
    session.commit()
    plain = TWO.model_dump(mode="json")
    plain["crops"][0]["rules"] = [{"mode": "Small", "aspect": [17, 9], "factor": 1.3}]
    kept = BODIES.save(session, production.id, row.id, row.version, parse_body(plain))
    assert [(r.mode.key, r.aspect_w, r.aspect_h, r.factor) for r in kept.crops[0].rules] == [
        ("Small", 17, 9, 1.3)
    ]
    left = session.scalar(
        text("select count(*) from crop_rule where crop_id = :id"), {"id": kept.crops[0].id}
    )
    assert left == 1


def test_a_body_belongs_to_one_production(session, production, production_id):
    row = BODIES.add(session, production, TWO)
    session.commit()
    with pytest.raises(NotFoundError, match=f"There is no body {row.id} in this production"):
        BODIES.find(session, production_id, row.id)
    assert row.id not in {body.id for body in repositories.load_package(session, production_id).bodies}


def test_copies_have_names_and_keys_of_their_own(session, production):
    row = BODIES.add(session, production, TWO)
    session.commit()
    names, keys = [row.name], {row.key}
    for _ in range(3):
        copy = BODIES.duplicate(session, production, row)
        names.append(copy.name)
        keys.add(copy.key)
        session.refresh(production)
    assert names == ["Skerry 60", "Skerry 60 (2)", "Skerry 60 (3)", "Skerry 60 (4)"]
    assert len(keys) == 4
    assert [b.position for b in BODIES.every(session, production.id)] == [0, 1, 2, 3]


def test_a_body_that_is_taken_out_keeps_its_place(session, production):
    rows = [BODIES.add(session, production, document(name=f"Body {i}", key=f"b{i}")) for i in range(3)]
    session.commit()
    out = BODIES.set_removed(session, production.id, rows[1].id, rows[1].version, True)
    assert [b.name for b in BODIES.every(session, production.id)] == ["Body 0", "Body 2"]
    new = BODIES.add(session, production, document(name="Body 3", key="b3"))
    session.commit()
    assert new.position == 3
    BODIES.set_removed(session, production.id, out.id, out.version, False)
    assert [b.name for b in BODIES.every(session, production.id)] == [f"Body {i}" for i in range(4)]


def test_the_catalogue_is_made_once(session):
    shelf = repositories.catalogue_of(session)
    assert repositories.catalogue_of(session).id == shelf.id
    assert shelf.kind == "catalogue"
    assert shelf.id not in [row.id for row, _ in productions.every(session)]


def test_a_copy_does_not_follow_the_catalogue_by_itself(session, production):
    shelf = repositories.catalogue_of(session)
    source = BODIES.add(session, shelf, TWO)
    session.commit()
    copy = BODIES.copy_from_catalogue(session, production, source)
    plain = TWO.model_dump(mode="json")
    plain["firmware"] = "2.0"
    BODIES.save(session, shelf.id, source.id, source.version, parse_body(plain))
    assert bodies.document_of(copy).firmware == ""
    assert [c.path for c in BODIES.catalogue_changes(session, copy)] == ["firmware"]
    # A body that leaves the catalogue has nothing more to say.
    BODIES.set_removed(session, shelf.id, source.id, source.version, True)
    assert BODIES.catalogue_changes(session, copy) == []


def test_a_change_that_is_taken_is_one_write(session, production):
    shelf = repositories.catalogue_of(session)
    source = BODIES.add(session, shelf, TWO)
    session.commit()
    copy = BODIES.copy_from_catalogue(session, production, source)
    plain = TWO.model_dump(mode="json")
    plain["firmware"], plain["pitch_um"] = "2.0", 5.9
    BODIES.save(session, shelf.id, source.id, source.version, parse_body(plain))
    version = copy.version
    settled = BODIES.settle_changes(session, copy, version, ["firmware"], ["pitch_um"])
    assert (settled.version, settled.firmware, settled.pitch_um) == (version + 1, "2.0", 6.0)
    assert BODIES.catalogue_changes(session, settled) == []
    with pytest.raises(NotFoundError, match="no longer differs at firmware"):
        BODIES.settle_changes(session, settled, settled.version, ["firmware"], [])


def test_settings_are_kept_with_the_production(session, production):
    assert repositories.find_production(session, production.id).settings == {}
    settings = PackageSettings(cards=[Card(key="c", name="Slab", capacity=240, unit="GiB")])
    version = repositories.save_settings(session, production.id, production.version, settings)
    assert version == 2
    with pytest.raises(StaleWriteError) as refused:
        repositories.save_settings(session, production.id, 1, PackageSettings())
    assert refused.value.stored["settings"]["cards"][0]["name"] == "Slab"


@pytest.mark.parametrize(
    ("change", "constraint"),
    [
        ("update scan_mode set method_v = 'full', sampling_v = 2", "ck_scan_mode_full_reads_all_down"),
        ("update scan_mode set method_h = 'guessed'", "ck_scan_mode_method_h_known"),
        ("update recording_format set samples = '4:1:1'", "ck_recording_format_samples_known"),
        ("update recording_format set megabits = -1", "ck_recording_format_megabits_positive"),
        ("update crop_rule set factor = 0.9", "ck_crop_rule_factor_crops"),
        ("update crop_rule set aspect_w = 16", "ck_crop_rule_aspect_whole"),
        ("update body set buffer_gb = 0", "ck_body_buffer_gb_positive"),
        ("update production set kind = 'shelf'", "ck_production_kind_known"),
        ("update scan_mode set key = 'same'", "uq_scan_mode_body_id_key"),
    ],
)
def test_the_database_holds_the_rules_by_itself(session, production, change, constraint):
    BODIES.add(session, production, TWO)
    session.commit()
    savepoint = session.begin_nested()
    with pytest.raises(IntegrityError, match=constraint):
        session.execute(text(change))
    savepoint.rollback()


def test_deleting_a_production_leaves_nothing_behind(session, production):
    BODIES.add(session, production, TWO)
    session.commit()
    session.execute(text("delete from production where id = :id"), {"id": production.id})
    for table in ("body", "scan_mode", "recording_format", "in_camera_crop", "crop_rule"):
        orphans = {
            "body": "production_id not in (select id from production)",
            "scan_mode": "body_id not in (select id from body)",
            "recording_format": "scan_mode_id not in (select id from scan_mode)",
            "in_camera_crop": "body_id not in (select id from body)",
            "crop_rule": "crop_id not in (select id from in_camera_crop)",
        }[table]
        assert session.scalar(text(f"select count(*) from {table} where {orphans}")) == 0
    assert session.scalars(select(models.Body).where(models.Body.production_id == production.id)).all() == []
