"""The Package over HTTP: bodies kept, compared, taken out and brought back; speed, finder, data, files."""

import json

import pytest
from sqlalchemy import text
from sqlalchemy.orm import Session

from hextan.core.documents import parse_body
from hextan.core.documents.answers import BodySheet
from hextan.core.equipment.answers import DataTable, SpeedTable
from hextan.core.finder.answers import FinderAnswer
from hextan.formats import formats_csv
from tests.core.bodies import a_body, a_mode
from tests.shapes import check_shape


@pytest.fixture
def bodies(client, url):
    return {body["name"]: body for body in client.get(f"{url}/bodies").json()["here"]}


@pytest.fixture
def skiff(client, url, bodies):
    return client.get(f"{url}/bodies/{bodies['Skiff 46']['id']}").json()


def put(client, url, body, status=200):
    answer = client.put(
        f"{url}/bodies/{body['id']}", json={"version": body["version"], "document": body["document"]}
    )
    assert answer.status_code == status, answer.text
    return answer.json()


def test_the_demo_has_bodies_from_the_catalogue(client, url, bodies):
    assert list(bodies) == ["Ebb 64", "Skiff 46", "Tern G"]
    shelf = client.get("/api/v1/catalogue", params={"production_id": url.rsplit("/", 1)[1]}).json()
    kept = client.get(f"/api/v1/productions/{shelf['id']}/bodies").json()["here"]
    assert [body["name"] for body in kept] == ["Ebb 64", "Skiff 46", "Tern G", "Punt 52"]
    assert bodies["Ebb 64"]["changes"] == 4
    assert bodies["Skiff 46"]["changes"] == 0
    assert shelf["name"] not in [p["name"] for p in client.get("/api/v1/productions").json()["here"]]


def test_a_body_is_changed_and_its_formats_keep_their_numbers(client, url, skiff):
    before = client.get(f"{url}/package").json()["bodies"][1]
    document = skiff["document"]
    mode = document["modes"][0]
    mode["row_time_us"] = 5.5
    mode["origins"] = {
        "row_time_us": {"kind": "measured", "source": "chart", "date": "2026-05-18", "firmware": "1.3"}
    }
    mode["formats"].reverse()
    document["modes"][1]["window"], document["modes"][1]["window_mm"] = None, [24.5, 10.0]
    kept = put(client, url, skiff)
    assert kept["version"] == skiff["version"] + 1
    assert kept["document"] == document
    after = client.get(f"{url}/package").json()["bodies"][1]
    assert [f["id"] for f in after["modes"][0]["formats"]] == [
        f["id"] for f in before["modes"][0]["formats"]
    ][::-1]
    assert after["modes"][1]["window"] == [round(24.5 / 0.00546), round(10 / 0.00546)]


def test_what_is_deleted_comes_back_the_same_with_undo(client, url, skiff):
    """A format that is deleted and brought back keeps its number, so that a Bench that showed it still does."""
    before = client.get(f"{url}/package").json()["bodies"][1]
    whole = json.loads(json.dumps(skiff["document"]))
    skiff["document"]["modes"].pop(0)
    skiff["document"]["claims"] = {}
    for crop in skiff["document"]["crops"]:
        crop["rules"] = [rule for rule in crop["rules"] if rule["mode"] != whole["modes"][0]["key"]]
    less = put(client, url, skiff)
    assert len(client.get(f"{url}/package").json()["bodies"][1]["modes"]) == len(before["modes"]) - 1
    kept = put(client, url, less | {"document": whole})
    assert kept["document"] == whole
    assert client.get(f"{url}/package").json()["bodies"][1] == before


def test_a_format_can_move_to_another_mode(client, url, skiff):
    modes = skiff["document"]["modes"]
    modes[1]["formats"].append(modes[0]["formats"].pop())
    before = client.get(f"{url}/package").json()["bodies"][1]["modes"][0]["formats"][-1]
    assert put(client, url, skiff)["document"] == skiff["document"]
    after = client.get(f"{url}/package").json()["bodies"][1]["modes"][1]["formats"][-1]
    assert (after["id"], after["name"]) == (before["id"], before["name"])


def test_stale_write_of_a_body_tells_both(client, url, skiff):
    mine = json.loads(json.dumps(skiff))
    skiff["document"]["firmware"] = "1.4"
    put(client, url, skiff)
    mine["document"]["firmware"] = "9"
    error = put(client, url, mine, 409)["error"]
    assert error["code"] == "stale_write"
    assert (error["given"]["document"]["firmware"], error["stored"]["document"]["firmware"]) == ("9", "1.4")
    assert error["stored"]["version"] == skiff["version"] + 1


def test_two_writers_of_a_body_at_once(engine):
    """Both read the same version; the database lets one of them through."""
    from hextan.core.base import StaleWriteError
    from hextan.store import productions
    from hextan.store.kinds import BODIES

    with Session(engine) as one, Session(engine) as two:
        production = productions.every(one)[0][0].id
        row, other = (BODIES.every(s, production)[1] for s in (one, two))
        version, document = row.version, row.document
        assert other.version == version
        BODIES.save(one, production, row.id, version, document.model_copy(update={"firmware": "one"}))
        with pytest.raises(StaleWriteError) as refused:
            BODIES.save(two, production, row.id, version, document.model_copy(update={"firmware": "two"}))
        assert refused.value.stored["document"]["firmware"] == "one"
        BODIES.save(one, production, row.id, version + 1, document)


def test_a_body_is_taken_out_and_brought_back(client, url, skiff, bodies):
    answer = client.post(
        f"{url}/bodies/{skiff['id']}/removal", json={"version": skiff["version"], "removed": True}
    )
    assert answer.status_code == 200
    listed = client.get(f"{url}/bodies").json()
    assert [b["name"] for b in listed["here"]] == ["Ebb 64", "Tern G"]
    assert [b["name"] for b in listed["removed"]] == ["Skiff 46"]
    assert [b["name"] for b in client.get(f"{url}/package").json()["bodies"]] == ["Ebb 64", "Tern G"]
    stale = client.post(
        f"{url}/bodies/{skiff['id']}/removal", json={"version": skiff["version"], "removed": False}
    )
    assert stale.status_code == 409
    version = answer.json()["version"]
    client.post(f"{url}/bodies/{skiff['id']}/removal", json={"version": version, "removed": False})
    assert [b["name"] for b in client.get(f"{url}/bodies").json()["here"]] == list(bodies)


def test_bodies_are_added_from_the_catalogue_anew_and_as_copies(client, url):
    shelf = client.get("/api/v1/catalogue", params={"production_id": url.rsplit("/", 1)[1]}).json()["id"]
    punt = client.get(f"/api/v1/productions/{shelf}/bodies").json()["here"][3]
    taken = client.post(f"{url}/bodies", json={"catalogue_body_id": punt["id"]})
    assert (taken.status_code, taken.json()["document"]["name"]) == (201, "Punt 52")
    assert client.get(taken.headers["location"]).json() == taken.json()
    fresh = client.post(f"{url}/bodies", json={"document": a_body()})
    assert fresh.status_code == 201
    copies = [client.post(f"{url}/bodies", json={"body_id": fresh.json()["id"]}).json() for _ in range(2)]
    assert [c["document"]["name"] for c in copies] == ["Skerry 60 (2)", "Skerry 60 (3)"]
    names = [b["name"] for b in client.get(f"{url}/bodies").json()["here"]]
    assert names[3:] == ["Punt 52", "Skerry 60", "Skerry 60 (2)", "Skerry 60 (3)"]
    assert client.post(f"{url}/bodies", json={}).status_code == 422
    assert client.post(f"{url}/bodies", json={"catalogue_body_id": 10**9}).status_code == 404


def test_catalogue_changes_are_taken_or_left(client, url, bodies):
    ebb = bodies["Ebb 64"]
    offered = client.get(f"{url}/bodies/{ebb['id']}/catalogue").json()["here"]
    assert {c["path"]: c["kind"] for c in offered} == {
        "firmware": "changed", "modes/m2/formats/m2f6": "added", "modes/m6/row_time_us": "changed",
        "modes/m6/formats/m6f2/rates": "changed",
    }  # fmt: skip
    change = next(c for c in offered if c["path"] == "modes/m6/row_time_us")
    assert (change["where"], change["taken"], change["catalogue"], change["here"]) == (
        "S16 2.2K",
        6.35,
        6.1,
        6.35,
    )
    settled = client.post(f"{url}/bodies/{ebb['id']}/catalogue",
                          json={"version": ebb["version"], "take": [change["path"], "modes/m2/formats/m2f6"], "leave": ["firmware"]})  # fmt: skip
    document = settled.json()["document"]
    assert document["modes"][5]["row_time_us"] == 6.1
    assert document["modes"][1]["formats"][-1]["name"] == "S35 → UHD long"
    assert document["firmware"] == "2.0"
    left = client.get(f"{url}/bodies/{ebb['id']}/catalogue").json()["here"]
    assert [c["path"] for c in left] == ["modes/m6/formats/m6f2/rates"]
    again = client.post(
        f"{url}/bodies/{ebb['id']}/catalogue",
        json={"version": settled.json()["version"], "take": ["firmware"]},
    )
    assert again.status_code == 404
    stale = client.post(f"{url}/bodies/{ebb['id']}/catalogue", json={"version": ebb["version"], "take": []})
    assert stale.status_code == 409


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda d: d["modes"][0].update(window=[9999, 100]), "document.modes[0].window[0]"),
        (lambda d: d["modes"][0].update(row_time_us="fast"), "document.modes[0].row_time_us"),
        (lambda d: d["modes"][0]["formats"][0].update(rates=["x"]), "document.modes[0].formats[0].rates[0]"),
        (lambda d: d.update(pitch_um=-1), "document.pitch_um"),
        (lambda d: d.update(nonsense=1), "document.nonsense"),
    ],
)
def test_bad_bodies_are_refused_at_the_field(client, url, skiff, change, field):
    change(skiff["document"])
    faults = put(client, url, skiff, 422)["error"]["faults"]
    assert field in [f["field"] for f in faults]
    # As it is typed, the path begins at the document.
    answer = client.post(f"{url}/bodies/sheet", json=skiff["document"])
    assert answer.status_code == 422
    assert field.removeprefix("document.") in [f["field"] for f in answer.json()["error"]["faults"]]


def test_answers_have_the_promised_shape(client, url, bodies):
    def check(shape, answer):
        assert answer.status_code == 200, answer.text
        check_shape(shape, answer.json())
        return answer.json()

    for body in bodies.values():
        document = client.get(f"{url}/bodies/{body['id']}").json()["document"]
        sheet = check(BodySheet, client.post(f"{url}/bodies/sheet", json=document))
        assert len(sheet["formats"]) == body["formats"]
    check(BodySheet, client.post(f"{url}/bodies/sheet", json=a_body([a_mode(row_time_us=None)])))
    check(SpeedTable, client.get(f"{url}/speed"))
    check(
        DataTable,
        client.post(f"{url}/data", json={"fps": "100", "delivery": [4096, 2160], "squeeze": 2.0}),
    )
    found = check(
        FinderAnswer,
        client.post(f"{url}/finder", json={"rate": {"fps": "50"}, "raw": {"must": False}}),
    )
    assert found["ranked"]
    assert found["rejected"]


def test_a_copied_page_is_found_in_the_catalogue(client, url, bodies):
    document = client.get(f"{url}/bodies/{bodies['Ebb 64']['id']}").json()["document"]
    crops = client.post(f"{url}/bodies/sheet", json=document).json()["claims"]["crops"]
    assert [c["verdict"] for c in crops] == ["holds", "elsewhere"]
    assert "Corran Skiff 46" in crops[1]["text"]


@pytest.mark.parametrize(
    ("ask", "field"),
    [({"covers": {}}, "covers"), ({"rate": {"fps": "x"}}, "rate.fps"), ({"bits": {"least": 0}}, "bits.least"),
     ({"surprise": 1}, "surprise"), ({"lens": {"lens_id": 10**9}}, "lens.lens_id")],
)  # fmt: skip
def test_finder_refuses_at_the_field(client, url, ask, field):
    answer = client.post(f"{url}/finder", json=ask)
    assert answer.status_code == 422
    assert field in [f["field"] for f in answer.json()["error"]["faults"]]


def test_settings_are_kept_with_a_version(client, url):
    first = client.get(f"{url}/settings").json()
    assert [card["name"] for card in first["settings"]["cards"]] == ["Slab 512", "Slab 1T", "Wafer 240"]
    changed = first["settings"] | {"base_fps": "23.976", "minutes_a_day": 120.0}
    kept = client.put(f"{url}/settings", json={"version": first["version"], "settings": changed})
    assert kept.json()["settings"]["base_fps"] == "24000/1001"
    assert client.get(f"{url}/speed").json()["base_fps"] == pytest.approx(23.976, abs=1e-3)
    stale = client.put(f"{url}/settings", json={"version": first["version"], "settings": changed})
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["settings"]["minutes_a_day"] == 120
    bad = client.put(
        f"{url}/settings", json={"version": 1, "settings": {"cards": [{"name": "x", "capacity": -1}]}}
    )
    assert bad.json()["error"]["faults"][0]["field"] == "settings.cards[0].capacity"
    settings = first["settings"] | {"usual_stop": "bright"}
    unread = client.put(f"{url}/settings", json={"version": 2, "settings": settings})
    assert unread.status_code == 422
    assert [each["field"] for each in unread.json()["error"]["faults"]] == ["settings.usual_stop"]


BYTES = {"content-type": "application/octet-stream"}


def test_the_server_lists_the_kinds_of_files(client):
    kinds = {k["kind"]: k for k in client.get("/api/v1/files").json()["here"]}
    assert {name for name, k in kinds.items() if k["adds"]} == {"bodies.json", "fdl", "lens-sets.json"}
    assert {name for name, k in kinds.items() if k["merges"]} == {"formats.csv", "lenses.csv", "rig.json"}
    assert {name for name, k in kinds.items() if k["template"]} == {"formats.csv", "lenses.csv"}
    assert kinds["fdl"]["frames"]


@pytest.mark.parametrize(
    ("kind", "suffix"), [("bodies.json", "json"), ("formats.csv", "csv"), ("fdl", "fdl")]
)
def test_files_go_out(client, url, bodies, kind, suffix):
    asked = {"document_id": bodies["Ebb 64"]["id"], "aspect": 2.39, "protect": 0.05}
    answer = client.get(f"{url}/files/{kind}", params=asked)
    assert answer.status_code == 200
    assert answer.headers["content-disposition"] == f"attachment; filename*=UTF-8''Ebb%2064.{suffix}"
    assert answer.content
    if kind == "fdl":
        assert answer.json()["framing_intents"][0]["aspect_ratio"] == {"width": 239, "height": 100}


def test_files_that_cannot_be_are_told(client, url, bodies):
    unknown = client.get(f"{url}/files/pages.odt")
    assert (
        unknown.status_code,
        "There are bodies.json, formats.csv" in unknown.json()["error"]["message"],
    ) == (404, True)
    nameless = client.get(f"{url}/files/bodies.json")
    assert nameless.json()["error"]["faults"][0]["field"] == "document_id"
    assert (
        client.get(f"{url}/files/fdl", params={"template": True}).json()["error"]["faults"][0]["field"]
        == "template"
    )
    assert client.get(f"{url}/files/fdl", params={"document_id": 10**9}).status_code == 404


@pytest.mark.parametrize("kind", ["bodies.json", "fdl"])
def test_files_come_back_as_bodies(client, url, bodies, kind):
    source = bodies["Tern G"]
    data = client.get(f"{url}/files/{kind}", params={"document_id": source["id"]}).content
    got = client.post(f"{url}/files/{kind}", content=data, headers=BYTES)
    assert got.status_code == 201, got.text
    made = got.json()["bodies"][0]
    assert made["id"] != source["id"]
    assert len(made["document"]["modes"]) == source["modes"]
    bad = client.post(f"{url}/files/{kind}", content=b'{"schema": 1}', headers=BYTES)
    assert bad.status_code == 422
    assert len(client.get(f"{url}/bodies").json()["here"]) == 4


def test_formats_of_a_table_are_shown_and_not_kept(client, url, bodies):
    into = {"document_id": bodies["Tern G"]["id"]}
    table = client.get(f"{url}/files/formats.csv", params={"template": True}).content.replace(
        b"4560,2406", b"2560,1440"
    )
    got = client.post(f"{url}/files/formats.csv", params=into, content=table, headers=BYTES)
    assert got.status_code == 200, got.text
    assert [m["name"] for m in got.json()["body"]["modes"]][-1] == "Full 17:9"
    assert client.get(f"{url}/bodies").json()["here"][2]["modes"] == 4
    spoilt = table.replace(b"2560", b"9999")
    bad = client.post(f"{url}/files/formats.csv", params=into, content=spoilt, headers=BYTES)
    assert bad.json()["error"]["faults"][0]["field"] == "row 2, column window_w"


def test_table_of_a_body_round_trips_over_the_api(client, url, bodies):
    body = client.get(f"{url}/bodies/{bodies['Ebb 64']['id']}").json()
    assert (
        formats_csv.write_formats(parse_body(body["document"]))
        == client.get(f"{url}/files/formats.csv", params={"document_id": body["id"]}).content
    )


def test_small_circle_mode_acts_only_where_the_circle_is_short(client, url, production_id):
    kit = client.get(f"{url}/package").json()
    state = client.get(f"{url}/bench").json()["state"]
    formats = {f["name"]: f["id"] for mode in kit["bodies"][1]["modes"] for f in mode["formats"]}
    lenses = {lens["name"]: lens["id"] for kit_set in kit["lens_sets"] for lens in kit_set["lenses"]}

    def crop(lens, name):
        asked = state | {"lens_id": lenses[lens], "adapter_id": None, "format_id": formats[name]}
        view = client.post(f"{url}/bench/view", json={"state": asked}).json()
        return next(c for c in view["crops"] if c["name"] == "Small-circle mode")

    assert crop("Wren 40", "17:9 → 4096")["reason"] == "not needed: the lens's circle covers this recording"
    short = crop("Dunlin 12", "17:9 → 4096")
    assert (short["reason"], short["factor"]) == (None, 1.43)
    assert crop("Dunlin 12", "16:9 → UHD")["factor"] == 1.37


def test_old_data_survive_the_migration(database_url):
    """A database of the first version, with a body in it, is brought up and says the same."""
    from alembic import command
    from sqlalchemy import create_engine

    from hextan.store import migrate
    from hextan.store.kinds import BODIES
    from hextan.store.repositories import load_package
    from hextan.store.sessions import make_engine

    admin = create_engine(
        database_url.replace("postgresql:", "postgresql+psycopg:"), isolation_level="AUTOCOMMIT"
    )
    with admin.connect() as connection:
        connection.execute(text("drop database if exists old_version"))
        connection.execute(text("create database old_version"))
    admin.dispose()
    engine = make_engine(database_url.rsplit("/", 1)[0] + "/old_version")
    with engine.begin() as connection:
        command.upgrade(migrate.config_for(connection), "0002")
    with engine.begin() as connection:
        for line in OLD.strip().split(";\n"):
            connection.execute(text(line))
    migrate.upgrade(engine)
    migrate.check(engine)
    with Session(engine) as session:
        document = BODIES.find(session, 1, 1).document
        package = load_package(session, 1)
    engine.dispose()
    prime, zoom = package.lens_sets[0].lenses
    assert (prime.is_zoom, prime.f_number_long, prime.iris) == (False, None, "ring")
    assert (zoom.focal_min_mm, zoom.focal_max_mm, zoom.t_stop_long) == (20.0, 80.0, 4.5)
    assert [(a.name, a.glass) for a in package.adapters] == [("plain", False), ("reducer", True)]
    mode = document.modes[0]
    assert (mode.sampling, mode.methods) == ([1, 3], ["full", "skipped"])
    assert [f.samples for f in mode.formats] == ["raw", "4:2:0"]
    assert [(rule.mode, rule.factor) for rule in document.crops[0].rules] == [(mode.key, 1.1)]


OLD = """
insert into production (name, synopsis, version) values ('Old', '', 1);
insert into body (production_id, maker, mount, photosites_w, photosites_h, pitch_um, position, name, version)
  values (1, 'Halewick', 'W54', 6000, 4000, 6.0, 0, 'Skerry 60', 1);
insert into scan_mode (body_id, window_w, window_h, offset_x, offset_y, sampling_h, sampling_v, method, row_time_us, overhead_us,
  position, name, version) values (1, 6000, 3000, 0, 0, 1, 3, 'skipped', 6.0, 400, 0, 'Skipped', 1);
insert into recording_format (scan_mode_id, raster_w, raster_h, mapping, codec, bits, raw, interlaced, rates, position, name,
  version) values (1, 6000, 1000, 'scale', 'raw', 12, true, false, '{24,25}', 0, 'raw', 1),
  (1, 1920, 1080, 'scale', 'long 4:2:0', 8, false, false, '{25}', 1, 'HD', 1);
insert into in_camera_crop (body_id, position, name, version) values (1, 0, 'Steady', 1);
insert into lens_set (production_id, maker, position, name, version) values (1, 'Pellow', 0, 'Old glass', 1);
insert into lens (lens_set_id, focal_min_mm, focal_max_mm, f_number, t_stop, f_number_long, t_stop_long, squeeze, mount, projection,
  pupil_magnification, position, name, version) values (1, 40, 40, 1.8, 2, 1.8, 2, 1, 'K50', 'rectilinear', 1, 0, 'Prime', 1),
  (1, 20, 80, 2.6, 2.8, 4.2, 4.5, 1, 'K50', 'rectilinear', 1, 1, 'Zoom', 1);
insert into adapter (production_id, magnification, lens_mount, body_mount, position, name, version)
  values (1, 1, 'K50', 'W54', 0, 'plain', 1), (1, 0.71, 'K50', 'W54', 1, 'reducer', 1);
insert into crop_in_mode (crop_id, scan_mode_id, factor) values (1, 1, 1.1)
"""
