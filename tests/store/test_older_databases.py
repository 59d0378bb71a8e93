"""Databases as older versions of Hextan left them: every document, number and history is there after the migration, and after going back.

The clusters of `tests/fixtures/databases` were written by those versions, the last of them with every field filled, rows taken out,
moved and written anew. What they hold was read by the version before the one table (0017).
"""

import gzip
import json
import re
from pathlib import Path

import pytest
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from hextan.formats import production_json
from hextan.store import log, migrate, models, productions, repositories
from hextan.store.kinds import BODIES, KINDS
from hextan.store.sessions import make_engine
from tests.store.test_older_documents import steps

FOLDER = Path(__file__).resolve().parents[1] / "fixtures" / "databases"
AGES = ("0003", "0008", "0013", "0015", "0017")


def read(name):
    return gzip.decompress((FOLDER / name).read_bytes()).decode()


@pytest.fixture
def old_database(database_url):
    """Gives a database as it was at a migration; gone after the test."""
    whole = make_engine(database_url)
    made = []

    def make(age):
        name = f"old_{age}"
        with whole.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
            connection.execute(text(f"drop database if exists {name}"))
            connection.execute(text(f"create database {name}"))
        engine = make_engine(database_url.rsplit("/", 1)[0] + f"/{name}")
        raw = engine.raw_connection()
        raw.cursor().execute(read(f"{age}.sql.gz"))
        raw.commit()
        raw.close()
        engine.dispose()
        made.append(make_engine(database_url.rsplit("/", 1)[0] + f"/{name}"))
        return made[-1]

    yield make
    for engine in made:
        engine.dispose()
    whole.dispose()


def differs(a, b, path=""):
    """The first place where two plain documents differ."""
    if isinstance(a, dict) and isinstance(b, dict):
        for key in (*a, *(set(b) - set(a))):
            if a.get(key, ...) != b.get(key, ...):
                return differs(a.get(key, ...), b.get(key, ...), f"{path}.{key}")
    if isinstance(a, list) and isinstance(b, list) and len(a) == len(b):
        for i, (x, y) in enumerate(zip(a, b, strict=True)):
            if x != y:
                return differs(x, y, f"{path}[{i}]")
    return None if a == b else f"{path}: {a!r:.200} is {b!r:.200}"


def held(engine):
    """Every production as a file, and the numbers by which addresses name its equipment."""
    with Session(engine) as session:
        for production_id in session.scalars(select(models.Production.id).order_by(models.Production.id)):
            package = repositories.load_package(session, production_id)
            bodies, kits = package.bodies, package.lens_sets
            numbers = {
                "bodies": [body.id for body in bodies],
                "lens_sets": [kit.id for kit in kits],
                "formats": [[number, f.recording.name] for number, f in package.formats.items()],
                "lenses": [[lens.id, lens.name] for kit in kits for lens in kit.lenses],
                "adapters": [[adapter.id, adapter.name] for adapter in package.adapters],
                "modes": [[mode.id, mode.name] for body in bodies for mode in body.modes],
                "crops": [[crop.id, crop.name] for body in bodies for crop in body.crops],
            }
            yield production_id, productions.document_of(session, production_id, True), numbers


def plain(document):
    """A document with its keys by their order: the oldest rows had none, and got any."""
    text = document.model_dump_json()
    for i, key in enumerate(dict.fromkeys(re.findall(r"\b[0-9a-f]{32}\b", text))):
        text = text.replace(key, f"key {i}")
    return json.loads(text)


@pytest.mark.parametrize("age", AGES)
def test_everything_is_there_after_the_migration(old_database, age):
    engine = old_database(age)
    migrate.upgrade(engine)
    migrate.check(engine)
    expected = json.loads(read(f"{age}.json.gz"))
    found = list(held(engine))
    assert [number for number, _, _ in found] == [each["id"] for each in expected]
    for (_, document, numbers), each in zip(found, expected, strict=True):
        assert numbers == each["numbers"]
        was = production_json.read(json.dumps(each["file"]).encode())
        assert differs(plain(document), plain(was)) is None
    with Session(engine) as session:
        # What is new gets a number that none of its kind had.
        used = {number for _, _, numbers in found for number in numbers["bodies"]}
        document = next(document for _, document, _ in found if document.bodies).bodies[0].document
        assert BODIES.add(session, found[0][0], document).id not in used


def rows_of(engine):
    """What the older tables hold, in the order of their numbers."""
    tables = ("production", "body", "scan_mode", "recording_format", "in_camera_crop", "lens_set", "lens", "rig", "mount", "adapter",
              "nd_filter", "pair_note", "comparison", "bench", "shots", "packing", "sheets", "set_settings", "log_entry")  # fmt: skip
    # Edits only moved a rig's version; an entry's is its revision now; rules of crops have no number that anybody names.
    left = {"rig": " - 'edits'", "log_entry": " - 'version'"}
    rules = (
        "select c.id, m.key, r.position, r.aspect_w, r.aspect_h, r.factor from crop_rule r join in_camera_crop c on c.id = r.crop_id "
        "join scan_mode m on m.id = r.scan_mode_id where not m.removed order by c.id, r.position"
    )
    with engine.begin() as connection:
        found = {
            table: [row for (row,) in connection.execute(text(f"select to_jsonb(t){left.get(table, '')} from {table} t order by id"))]
            for table in tables
        }  # fmt: skip
        return found | {"crop_rule": [list(row) for row in connection.execute(text(rules))]}


@pytest.mark.parametrize("age", AGES[2:])
def test_up_and_down_leaves_the_older_tables_as_they_were(old_database, age):
    engine = old_database(age)
    steps(engine, "upgrade", "0017")
    before = rows_of(engine)
    steps(engine, "upgrade", "0018")
    steps(engine, "downgrade", "0017")
    after = rows_of(engine)
    for table, rows in before.items():
        assert after[table] == rows, table
    steps(engine, "upgrade", "head")
    migrate.check(engine)


def test_the_history_of_the_log_is_there(old_database):
    engine = old_database("0017")
    migrate.upgrade(engine)
    with Session(engine) as session:
        production_id = session.scalar(
            select(models.Production.id).where(models.Production.name == "High Water")
        )
        item = log.find(session, production_id, "Clip")
        assert [entry.by for entry in (*item.before, item.entry)][1:] == ["Owen", "Mina"]


def test_every_kind_is_a_row_of_the_registry(old_database):
    engine = old_database("0017")
    migrate.upgrade(engine)
    with Session(engine) as session:
        kinds = set(session.scalars(select(models.Document.kind).where(models.Document.root_id.is_(None))))
    assert kinds == {kind.name for kind in KINDS} - {"plan"} | {log.KIND}
