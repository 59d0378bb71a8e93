"""What an older Hextan wrote is read: files of each kind as version 1 had them, rows of the database, and its tables up and down."""

import json
from dataclasses import replace
from pathlib import Path

import pytest
from sqlalchemy import text

from hextan.core.base import Schema
from hextan.core.documents import parse_body
from hextan.core.documents.claims import check_claims
from hextan.formats import production_json
from hextan.formats.kinds import kind_of
from hextan.store import migrate, models
from hextan.store.kinds import BENCH, BODIES, COMPARISONS, KINDS, SETTINGS
from hextan.store.sessions import make_engine

FOLDER = Path(__file__).resolve().parents[1] / "fixtures" / "documents"


def old(name):
    return (FOLDER / f"{name}_1.json").read_bytes()


@pytest.mark.parametrize(
    ("kind", "name"), [("bodies.json", "body"), ("lens-sets.json", "lens_set"), ("rig.json", "rig")]
)
def test_files_of_the_first_version_are_read(kind, name):
    chosen = kind_of(kind)
    plain = json.loads(old(name))
    read = (chosen.read(old(name)).documents[0] if chosen.read else chosen.merge(old(name), _empty_rig())).model_dump(mode="json")  # fmt: skip
    assert read["schema"] == plain["schema"]
    for rows in ("modes", "lenses", "mounts", "adapters", "filters"):
        assert [row["name"] for row in read.get(rows, [])] == [row["name"] for row in plain.get(rows, [])]


def test_a_production_of_the_first_version_is_read_with_all_its_parts_of_theirs():
    """A production's file holds documents that each have a version of their own."""
    parts = {name: json.loads(old(name)) for name in ("body", "lens_set", "rig", "comparison")}
    read = production_json.read(old("production"))
    assert (read.name, read.bench.state.subject_m) == ("Low tide", 4.5)
    plain = json.loads(old("production")) | {"bodies": [{"document": parts["body"]}], "rig": parts["rig"],
                                              "lens_sets": [{"document": parts["lens_set"]}], "bench": None}  # fmt: skip
    whole = production_json.read(json.dumps(plain).encode())
    assert whole.bodies[0].document.schema_version == 2
    assert whole.lens_sets[0].document.name == parts["lens_set"]["name"]


def _empty_rig():
    from hextan.core.documents import parse_rig

    return parse_rig({})


def test_claims_of_the_first_version_try_crops_as_they_did():
    read = kind_of("bodies.json").read(old("body")).documents[0]
    assert read.schema_version == 2
    assert [claim.switches for claim in read.claims.crops] == [True, True]
    without = parse_body(read.model_dump(mode="json") | {"claims": {"crops": [
        claim.model_dump(mode="json") | {"switches": False} for claim in read.claims.crops]}})  # fmt: skip
    as_before, as_new = (check_claims(d, [])["crops"][0]["tried"] for d in (read, without))
    assert as_before > as_new


def test_a_step_of_each_kind_of_row_is_taken_when_it_is_read(session, production, monkeypatch):
    """There is no second version of these yet: a toy step for each shows that rows go through it."""
    stored = {"bench": {"schema_version": 0, "state": json.loads(old("bench"))}}
    stored |= {name: json.loads(old(name)) | {"schema_version": 0} for name in ("settings", "comparison")}
    for i, (kind, body) in enumerate(stored.items()):
        key = "c" if kind == "comparison" else ""
        session.add(models.Document(
            number=-1 - i, production_id=production.id, kind=kind, key=key, position=0, version=1, body=body))  # fmt: skip
    session.commit()

    def from_older(kind, **change):
        toy = Schema(kind.schema.name, kind.schema.version, {0: lambda d: d | change})
        monkeypatch.setitem(kind.__dict__, "schema", toy)

    from_older(BENCH, subject_m=9.0)
    from_older(SETTINGS, minutes_a_day=7.0)
    from_older(COMPARISONS, name="Brought up")
    assert BENCH.read(session, production.id).subject_m == 9.0
    assert SETTINGS.read(session, production.id).minutes_a_day == 7.0
    assert COMPARISONS.every(session, production.id)[0].document.name == "Brought up"


def test_every_kind_of_document_has_a_schema_of_its_own():
    assert len({kind.schema.name for kind in KINDS}) == len(KINDS)


def test_what_a_copy_was_when_it_was_taken_is_brought_up(session, production_id):
    """The catalogue's changes are told against it."""
    kept = BODIES.every(session, production_id)[0]
    before = [change.path for change in BODIES.catalogue_changes(session, kept)]
    older = replace(kept, taken=kept.taken | {"schema_version": 1})
    assert [change.path for change in BODIES.catalogue_changes(session, older)] == before


@pytest.fixture
def own_database(database_url):
    """A database that nobody else is in."""
    whole = make_engine(database_url)
    with whole.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("drop database if exists up_and_down"))
        connection.execute(text("create database up_and_down"))
    whole.dispose()
    engine = make_engine(database_url.rsplit("/", 1)[0] + "/up_and_down")
    yield engine
    engine.dispose()


def steps(engine, direction, to):
    from alembic import command

    with engine.begin() as connection:
        getattr(command, direction)(migrate.config_for(connection), to)


def test_tables_go_up_and_down_and_claims_are_brought_up(own_database):
    steps(own_database, "upgrade", "0007")
    claims = {
        "crops": [{"key": "a", "factor": 1.5}, {"key": "b", "factor": 1.4, "switches": False}],
        "tapes": [],
    }
    with own_database.begin() as connection:
        production = connection.execute(text(
            "insert into production (name, synopsis, version, settings, kind) values ('x', '', 1, '{}', 'production') returning id")).scalar()  # fmt: skip
        connection.execute(text(
            "insert into body (production_id, position, removed, key, name, maker, mount, photosites_w, photosites_h, pitch_um, "
            "version, firmware, free_windows, eis, base_eis, nd_stops, origin, origins, claims) values (:p, 0, false, 'k', 'b', 'm', 'W54', "
                "6000, 4000, 6, 1, '', false, '{}', '{}', '{}', '{}', '{}', cast(:c as jsonb))"),
            {"p": production, "c": json.dumps(claims)})  # fmt: skip
    steps(own_database, "upgrade", "head")
    migrate.check(own_database)
    with own_database.begin() as connection:
        told = connection.execute(text("select body->'claims' from document where kind = 'body'")).scalar()
    assert [crop["switches"] for crop in told["crops"]] == [True, False]
    steps(own_database, "downgrade", "0004")
    for step, why in (("0003", "mounts and tables of circles"), ("0002", "mounts and tables of circles")):
        with pytest.raises(NotImplementedError, match=why):
            steps(own_database, "downgrade", step)
    steps(own_database, "upgrade", "head")
    migrate.check(own_database)
