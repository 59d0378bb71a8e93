"""Productions over the web: made, copied, put away, as files; and nobody's rows are seen from another."""

import json
import re

import pytest

FILE = {"Content-Type": "application/octet-stream"}
FACTS = {"name": "Low tide", "synopsis": "", "starts_on": "2026-05-04", "ends_on": ""}


def new(client, **more):
    answer = client.post("/api/v1/productions", json={"facts": FACTS} | more)
    assert answer.status_code == 201, answer.text
    assert answer.headers["Location"] == f"/api/v1/productions/{answer.json()['id']}"
    return answer.json()


def test_it_is_made_renamed_put_away_and_brought_back(client):
    made = new(client)
    assert made["facts"] == FACTS
    here = client.get("/api/v1/productions").json()["here"]
    row = next(p for p in here if p["id"] == made["id"])
    assert (row["name"], row["demo"], row["glance"]["missing"]) == ("Low tide", False, ["a body", "a lens"])
    at = f"/api/v1/productions/{made['id']}"
    facts = FACTS | {"name": "Ebb tide", "ends_on": "2026-05-30"}
    written = client.put(at, json={"version": made["version"], "facts": facts})
    assert written.json()["facts"] == facts
    late = client.put(at, json={"version": made["version"], "facts": FACTS})
    assert (late.status_code, late.json()["error"]["stored"]["facts"]["name"]) == (409, "Ebb tide")
    gone = client.post(f"{at}/removal", json={"version": 2, "removed": True}).json()
    assert gone["archived"]
    lists = client.get("/api/v1/productions").json()
    assert made["id"] in [p["id"] for p in lists["removed"]]
    assert made["id"] not in [p["id"] for p in lists["here"]]
    assert client.get(at).json()["archived"]
    assert not client.post(f"{at}/removal", json={"version": 3, "removed": False}).json()["archived"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": " "}, "facts.name"),
        ({"starts_on": "4 May"}, "facts.starts_on"),
        ({"starts_on": "2026-06-31"}, "facts.starts_on"),
        ({"ends_on": "2026-05-01"}, "facts"),
    ],
)
def test_what_cannot_be_said_of_one_is_told_beside_its_field(client, change, field):
    answer = client.post("/api/v1/productions", json={"facts": FACTS | change})
    assert answer.status_code == 422
    assert [fault["field"] for fault in answer.json()["error"]["faults"]] == [field]


def test_its_glance_draws_the_windows_of_its_bodies(client, production_id):
    row = next(p for p in client.get("/api/v1/productions").json()["here"] if p["id"] == production_id)
    ebb = row["glance"]["bodies"][0]
    assert (ebb["body"], [round(mm, 1) for mm in ebb["sensor_mm"]]) == ("Ebb 64", [37.4, 21.1])
    assert (row["glance"]["formats"], row["glance"]["lenses"], row["demo"]) == (46, 39, True)


def test_a_whole_production_goes_out_and_in_again(client, url):
    answer = client.get(f"{url}/file")
    assert "Low%20Water.hextan.json" in answer.headers["Content-Disposition"]
    again = client.post("/api/v1/productions/file", content=answer.content, headers=FILE)
    assert again.status_code == 201
    there = f"/api/v1/productions/{again.json()['id']}"
    assert client.get(f"{there}/file").content == answer.content
    assert client.get(f"{there}/bench").json()["state"]["stop"] == 2.1


def test_a_faulty_file_is_refused_whole(client, url):
    before = len(client.get("/api/v1/productions").json()["here"])
    plain = json.loads(client.get(f"{url}/file").content)
    plain["bodies"][1]["document"]["modes"][0]["formats"][0]["bits"] = 99
    plain["settings"]["shutter_deg"] = 400
    answer = client.post("/api/v1/productions/file", content=json.dumps(plain), headers=FILE)
    assert answer.status_code == 422
    fields = {fault["field"] for fault in answer.json()["error"]["faults"]}
    assert fields == {"bodies[1].document.modes[0].formats[0].bits", "settings.shutter_deg"}
    assert len(client.get("/api/v1/productions").json()["here"]) == before


def test_the_demo_is_begun_anew_and_never_mixes_with_ones_own(client, production_id):
    own = new(client)["id"]
    shelf, demo_shelf = (
        client.get("/api/v1/catalogue", params={"production_id": i}).json()["id"]
        for i in (own, production_id)
    )
    assert shelf != demo_shelf
    invented = {
        body["name"] for body in client.get(f"/api/v1/productions/{demo_shelf}/bodies").json()["here"]
    }
    assert "Ebb 64" in invented
    assert not invented & {
        body["name"] for body in client.get(f"/api/v1/productions/{shelf}/bodies").json()["here"]
    }
    anew = client.post("/api/v1/demo")
    assert anew.status_code == 201
    lists = client.get("/api/v1/productions").json()
    assert [p["id"] for p in lists["here"] if p["demo"]] == [anew.json()["id"]]
    assert production_id in [p["id"] for p in lists["removed"]]


def test_the_catalogue_is_neither_renamed_nor_put_away(client):
    shelf = client.get("/api/v1/catalogue").json()["id"]
    at = f"/api/v1/productions/{shelf}"
    for answer in (
        client.get(at),
        client.put(at, json={"version": 1, "facts": FACTS}),
        client.post(f"{at}/removal", json={"version": 1, "removed": True}),
    ):
        assert answer.status_code == 404


#: For each kind of row below a production the name of its number in the path, and where a list of them is.
ROWS = {"body_id": "bodies", "set_id": "lens-sets", "comparison_id": "comparisons"}


def endpoints():
    """Every endpoint that names a row below a production, from the document that is served."""
    from hextan.api.app import bare_app

    for path, methods in bare_app().openapi()["paths"].items():
        named = set(re.findall(r"{(\w+)}", path)) - {"production_id"}
        if "{production_id}" in path and named <= set(ROWS) and named:
            name = next(iter(named))
            yield from ((method, path, name) for method in methods)


@pytest.mark.parametrize(("method", "path", "named"), list(endpoints()), ids=str)
def test_no_production_sees_another_s_rows(client, production_id, method, path, named):
    """By every address that names a row: the demo's are there, and under another production they are not."""
    other = new(client)["id"]
    row = client.get(f"/api/v1/productions/{production_id}/{ROWS[named]}").json()["here"][0]
    kept = client.get(f"/api/v1/productions/{production_id}/{ROWS[named]}/{row['id']}").json()
    bodies = {
        "put": {"version": kept["version"], "document": kept["document"]},
        "post": {"version": kept["version"], "removed": True},
    }
    if path.endswith("/catalogue"):
        bodies["post"] = {"version": kept["version"], "take": [], "leave": []}
    at = path.replace(f"{{{named}}}", str(row["id"]))
    told = client.request(method, at.replace("{production_id}", str(other)), json=bodies.get(method))
    assert told.status_code == 404, told.text
    assert kept["document"]["name"] not in told.text
    mine = client.request(method, at.replace("{production_id}", str(production_id)), json=bodies.get(method))
    assert mine.status_code == 200, mine.text


def test_no_list_and_no_computation_shows_another_s_rows(client, production_id):
    """By every address of a production that is only read: an empty one shows nothing of the demo's."""
    from hextan.api.app import bare_app

    other = new(client)["id"]
    seen = 0
    for path, methods in bare_app().openapi()["paths"].items():
        if "get" not in methods or set(re.findall(r"{(\w+)}", path)) != {"production_id"}:
            continue
        answer = client.get(path.replace("{production_id}", str(other)))
        # An address that asks for more than the production says so.
        assert answer.status_code in (200, 404, 422), path
        assert not re.search("Ebb 64|Wren|Low Water|Slab", answer.text), path
        seen += 1
    assert seen >= 8


def test_a_production_speaks_in_the_words_of_its_trade(client, production_id):
    at = f"/api/v1/productions/{production_id}"
    assert client.get(at).json()["words"] == "cine"
    made = client.post(
        "/api/v1/productions", json={"facts": {"name": "Stills"}, "production_id": production_id}
    ).json()
    at = f"/api/v1/productions/{made['id']}"
    kept = client.get(f"{at}/settings").json()
    settings = kept["settings"] | {"words": "stills", "shutter_deg": 90.0}
    assert (
        client.put(f"{at}/settings", json={"version": kept["version"], "settings": settings}).status_code
        == 200
    )
    assert client.get(at).json()["words"] == "stills"


def test_a_new_bench_begins_in_the_words_of_the_trade(session):
    """In stills by the time, and the production against full frame where nothing else is said: 90 degrees at 25 frames a second are 1/100 s."""
    from hextan.core.equipment import parse_settings
    from hextan.store import models, repositories
    from hextan.store.kinds import SETTINGS

    demo = session.query(models.Production).filter_by(demo_key=repositories.DEMO_KEY).one()
    session.query(models.Document).filter_by(production_id=demo.id, kind="bench").delete()
    version, settings = SETTINGS.versioned(session, demo.id)
    plain = settings.model_dump(mode="json")
    for words, shutter, reference in (("cine", "angle", "super35"), ("video", "time", "super35"), ("stills", "time", "full_frame")):  # fmt: skip
        asked = parse_settings(
            plain
            | {
                "words": words,
                "shutter_deg": 90.0,
                "reference": None if words == "stills" else {"name": "super35"},
            }
        )
        version = SETTINGS.save(session, demo.id, version, asked)
        state = repositories.read_bench(session, demo.id)[1]
        house = repositories.load_package(session, demo.id).reference.name
        assert state.reference is None
        assert (state.light.shutter, state.light.shutter_s, house) == (shutter, 0.01, reference)


def test_a_glance_follows_the_equipment(client, production_id):
    def glance():
        rows = client.get("/api/v1/productions").json()["here"]
        return next(row["glance"] for row in rows if row["id"] == production_id)

    before = glance()
    assert glance() == before
    at = f"/api/v1/productions/{production_id}/lens-sets"
    first = client.get(at).json()["here"][0]
    removed = client.post(f"{at}/{first['id']}/removal", json={"version": first["version"], "removed": True})
    assert removed.status_code == 200, removed.text
    assert glance()["lens_sets"] == before["lens_sets"][1:]
