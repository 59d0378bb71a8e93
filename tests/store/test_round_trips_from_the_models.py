"""Every field of every document that is kept, set to something that is not its default, comes back: from the database, from a file, from a copy.

The documents are made from the models (`tests/filled.py`): a field that somebody adds is tested without being named here. One that takes
no plain value gets one in `HINTS`.
"""

import json
from importlib.resources import files

import pytest

from hextan.core.bench import BenchState
from hextan.core.documents import parse_body, parse_lens_set, parse_rig
from hextan.core.equipment import PackageSettings
from hextan.core.packing import Packing
from hextan.core.record import SetSettings
from hextan.core.record.document import Booking, Clip, Take, Tick
from hextan.core.sheets import Sheets
from hextan.core.shots import Shot, ShotList
from hextan.store import log, productions, repositories
from hextan.store.kinds import BENCH, BODIES, LENS_SETS, PACKING, RIG, SET, SETTINGS, SHEETS, SHOTS
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import a_lens, a_set
from tests.filled import filled

HINTS = {
    "ModeDocument.sampling": [2, 2], "ModeDocument.methods": ["binned", "skipped"],
    "LensDocument.circles": [{"at": 2.0, "circle_mm": 40.0}],
    "Shot.wishes": {"framing": 2.0}, "Packing.stock": [{"thing": {"kind": "body", "name": "Ebb 64"}}], "Source.path": "/lines",
    "BenchState.reference": {"name": "own", "own": {"name": "Ours", "width_mm": 27.0, "height_mm": 15.0}, "by": "height"},
    "PackageSettings.sizes": {"MS": "knees"},
    "PackageSettings.reference": {"name": "own", "own": {"name": "Ours", "width_mm": 27.0, "height_mm": 15.0}, "by": "height"},
    "ShotList.noted": {"s": {"verdict": "does", "told": "40 mm", "asked": "0123456789abcdef"}},
    "Take.said": {"start": "2026-05-04T18:00:00Z", "end": "2026-05-04T18:01:00Z", "samples": 7, "left_out": 1,
                  "changes": [{"at": "2026-05-04T18:00:30Z", "what": "EI", "was": "800", "now": "1600"}]},
    "SheetPlan.made": {"at": "2026-05-04T10:00:00Z", "fingerprint": "0123456789ab"},
}  # fmt: skip


def body(mode=None, **format_changes):
    first = a_mode("Full", window=[4000, 2250], formats=[a_format("UHD", **format_changes)]) | (mode or {})
    crops = [{"key": "s", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.1}]}]
    return parse_body(a_body([first], crops=crops))


def lens_set(**changes):
    return parse_lens_set(a_set([a_lens(**changes)]))


def rig():
    return parse_rig(
        json.loads(files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8"))["rig"]
    )


#: Documents to begin with. Where one field stands for another (a window in photosites, or in millimetres), there are several.
BODY_STARTS = (
    body(),
    body({"window": None, "window_mm": [24.0, 13.5]}),
    body({"sampling": [2, 2], "methods": ["binned", "skipped"]}, raster=[1920, 1080]),
    body(raw=True, samples=None),
)
SET_STARTS = (
    lens_set(),
    lens_set(image_circle_mm=None, circle_by="stop", circles=[{"at": 2.0, "circle_mm": 40.0}]),
    lens_set(projection="equidistant", focal=8.0),
)


def every_field(starts, parse=None):
    """Each start filled; none of the fields is filled in none of them."""
    found = [filled(start, HINTS, parse) for start in starts]
    assert set.intersection(*(left for _, left in found)) == set(), "give it a value in HINTS"
    return [document for document, _ in found]


@pytest.fixture(scope="module")
def whole_bodies():
    return every_field(BODY_STARTS, parse_body)


@pytest.fixture(scope="module")
def whole_sets():
    return every_field(SET_STARTS, parse_lens_set)


def test_bodies(session, production, whole_bodies):
    for document in whole_bodies:
        row = BODIES.add(session, production.id, document)
        session.commit()
        session.expire_all()
        assert BODIES.find(session, production.id, row.id).document == document
        # Written over another, nothing of that one stays.
        other = BODY_STARTS[0].model_copy(update={"key": document.key})
        over = BODIES.save(session, production.id, row.id, row.version, other)
        BODIES.save(session, production.id, row.id, over.version, document)
        session.expire_all()
        assert BODIES.find(session, production.id, row.id).document == document


def test_lens_sets(session, production, whole_sets):
    for document in whole_sets:
        row = LENS_SETS.add(session, production.id, document)
        session.commit()
        session.expire_all()
        assert LENS_SETS.find(session, production.id, row.id).document == document


def test_rigs(session, production):
    (document,) = every_field([rig()])
    RIG.save(session, production.id, 0, document)
    session.expire_all()
    assert RIG.read(session, production.id) == document


@pytest.mark.parametrize(
    ("kind", "start"),
    [(SHOTS, ShotList(shots=[Shot(key="s", name="1")])), (PACKING, Packing()), (SHEETS, Sheets()), (SET, SetSettings())],
    ids=["shots", "packing", "sheets", "set"],
)  # fmt: skip
def test_documents_of_which_there_is_one(session, production, kind, start):
    (document,) = every_field([start])
    kind.save(session, production.id, 0, document)
    session.expire_all()
    assert kind.read(session, production.id) == document


def test_settings(session, production):
    (settings,) = every_field([PackageSettings()])
    SETTINGS.save(session, production.id, 0, settings)
    assert SETTINGS.read(session, production.id) == settings


def a_written(kind):
    plain = {
        "key": "k" * 32,
        "at": "2026-05-04T18:00:00Z",
        "by": "Ines",
        "written_at": "2026-05-04T18:00:00Z",
        "unit": "A",
        "day": "1",
    }
    own = {
        Take: {"take": 1, "shot_name": "12A"},
        Booking: {},
        Tick: {"item": "x", "body": "Ebb 64"},
        Clip: {"facts": {"name": "a.mov"}},
    }
    return kind.model_validate(plain | own[kind])


@pytest.mark.parametrize("kind", [Take, Booking, Tick, Clip])
def test_entries_of_the_log(session, production, kind):
    (entry,) = every_field([a_written(kind)])
    log.put(session, production.id, entry, 0)
    session.expire_all()
    assert log.find(session, production.id, entry.key).entry == entry


def test_a_whole_production_goes_out_and_comes_back(session, production, whole_bodies, whole_sets):
    """With a Bench and a comparison on its own equipment, a log and all its documents; a copy of it is the same but for the log."""
    from hextan.formats import production_json

    for document in whole_bodies[:1]:
        BODIES.add(session, production.id, document)
    for document in whole_sets[:1]:
        LENS_SETS.add(session, production.id, document)
    RIG.save(session, production.id, 0, every_field([rig()])[0])
    for kind, start in (
        (SHOTS, ShotList(shots=[Shot(key="s", name="1")])),
        (PACKING, Packing()),
        (SHEETS, Sheets()),
    ):
        kind.save(session, production.id, 0, every_field([start])[0])
    package = repositories.load_package(session, production.id)
    on = {"format_id": next(iter(package.formats)), "lens_id": next(iter(package.lenses))}
    begin = BenchState(**on)
    bench, left = filled(begin, HINTS)
    assert left <= {"BenchState.coc"}
    # What it names has to be there.
    named = ("format_id", "lens_id", "adapter_id", "second_adapter_id", "crop_ids", "pinned")
    bench = bench.model_copy(update={name: getattr(begin, name) for name in named})
    BENCH.save(session, production.id, 0, bench)
    log.put(session, production.id, every_field([a_written(Take)])[0], 0)
    out = productions.document_of(session, production.id)
    back = productions.add_document(session, production_json.read(production_json.write(out)))
    session.expire_all()
    assert productions.document_of(session, back.id) == out
    copied = productions.copy(session, production.id, productions.facts_of(production))
    session.expire_all()
    assert productions.document_of(session, copied.id) == out.model_copy(update={"log": type(out.log)()})
    assert (out.bench.state.subject_m, out.bench.state.scene) == (bench.subject_m, bench.scene)
