"""Packing over the API: kept, looked at, and searched by processes of their own."""

import io
import os
import signal
import threading
import time
from types import SimpleNamespace

import pytest

from hextan.core.packing import KitPlan, Packing
from hextan.search.searches import Search, Searches
from hextan.search.work import Work
from hextan.store import models
from tests.core.packing.test_kits import PACKAGE, PLAIN, like, shots_of


@pytest.fixture
def at(client, production_id):
    return f"/api/v1/productions/{production_id}/packing"


def ended(look, seconds=60):
    """What a search comes to."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        seen = look()
        if seen["state"] in ("done", "failed"):
            return seen
        time.sleep(0.05)
    raise AssertionError(f"still {seen['state']} after {seconds} s")


def test_packing_is_kept_with_its_version(client, at):
    first = client.get(at).json()
    assert first["version"] == 1
    document = first["document"]
    document["kits"][0]["weight_limit_kg"] = 12.0
    kept = client.put(at, json={"version": 1, "document": document}).json()
    assert (kept["version"], kept["document"]["kits"][0]["weight_limit_kg"]) == (2, 12.0)
    stale = client.put(at, json={"version": 1, "document": document})
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["version"] == 2


def test_a_production_without_packing(client, session):
    row = models.Production(name="Second unit", synopsis="")
    session.add(row)
    session.commit()
    empty = client.get(f"/api/v1/productions/{row.id}/packing").json()
    assert (empty["version"], empty["document"]["kits"]) == (0, [])
    seen = client.post(
        f"/api/v1/productions/{row.id}/packing/view", json={"document": empty["document"]}
    ).json()
    assert seen == {"things": [], "days": [], "units_on": {}, "hire_days": 1, "gone": []}


def test_a_kit_is_looked_for_beside_the_request(client, at):
    document = client.get(at).json()["document"]
    begun = client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]})
    assert begun.status_code == 200
    assert begun.json()["state"] in ("waiting", "running")
    found = ended(lambda: client.get(f"{at}/searches/zooms").json())
    assert (found["state"], found["problem"], found["kit"]["proved"]) == ("done", "", True)
    assert {thing["name"] for thing in found["kit"]["things"] if thing["kind"] == "body"} == {"Skiff 46"}
    # The same question is answered at once; another one begins anew.
    again = client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]}).json()
    assert (again["state"], again["seconds"]) == ("done", found["seconds"])
    document["moves"]["mode"] = 30.0
    other = client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]}).json()
    assert other["state"] in ("waiting", "running")
    assert (
        ended(lambda: client.get(f"{at}/searches/zooms").json())["kit"]["minutes"] > found["kit"]["minutes"]
    )


def test_two_kits_side_by_side(client, at):
    document = client.get(at).json()["document"]
    name = client.post(f"{at}/searches", json={"document": document, "kits": ["primes", "zooms"]}).json()[
        "name"
    ]
    found = ended(lambda: client.get(f"{at}/searches/{name}").json())
    assert (found["kit"], found["sides"]["first"], found["sides"]["second"]) == (
        None,
        "Ebb and primes",
        "Skiff and zooms",
    )
    assert len(found["sides"]["shots"]) == 40


def test_what_is_asked_for_wrongly(client, at):
    document = client.get(at).json()["document"]
    unknown = client.post(f"{at}/searches", json={"document": document, "kits": ["nobody"]})
    assert (unknown.status_code, unknown.json()["error"]["faults"][0]["field"]) == (422, "kits")
    assert client.get(f"{at}/searches/never").status_code == 404
    assert client.post(f"{at}/searches/never/stop").status_code == 404
    assert client.get("/api/v1/productions/999999/packing/searches/river").status_code == 404


def work(*cells):
    return Work(PACKAGE, PLAIN, shots_of(*cells), Packing(), (KitPlan(key="k", name="a"),))


@pytest.fixture
def searches():
    every = Searches()
    yield every
    every.close()


def look(search):
    return lambda: {"state": search.state, "problem": search.problem, "answer": search.answer}


def test_stopped_it_answers_what_it_has(searches):
    search = searches.begin(1, "a", work(*(like(24 + n / 7) for n in range(60))))
    while search.state == "waiting":
        time.sleep(0.01)
    search.stop()
    found = ended(look(search))
    assert found["state"] == "done"
    assert found["answer"]["stopped"] or found["answer"]["proved"]


def test_a_stop_waits_until_the_work_is_sent():
    """What stops a search is a byte behind its work; before it, it would be read as the length of the work."""
    search = Search("asked")
    search._process = SimpleNamespace(stdin=io.BytesIO(), poll=lambda: None)
    stopping = threading.Thread(target=search.stop)
    stopping.start()
    stopping.join(0.2)
    assert search._process.stdin.getvalue() == b""
    search._sent.set()
    stopping.join(5)
    assert search._process.stdin.getvalue() == b"\n"


def test_a_process_that_dies_is_told_and_may_be_asked_again(searches):
    asked = work(like(25), like(50))
    search = searches.begin(1, "a", asked)
    while search._process is None:
        time.sleep(0.005)
    os.kill(search._process.pid, signal.SIGKILL)
    found = ended(look(search))
    assert (found["state"], found["problem"][:20]) == ("failed", "The process that loo")
    again = searches.begin(1, "a", asked)
    assert again is not search
    assert ended(look(again))["state"] == "done"


def test_one_production_does_not_see_anothers_search(searches):
    search = searches.begin(1, "a", work(like(25)))
    assert searches.find(2, "a") is None
    assert searches.begin(1, "a", work(like(25))) is search
    assert searches.begin(2, "a", work(like(25))) is not search
    assert ended(look(search))["state"] == "done"


def test_a_question_is_the_same_whatever_was_worked_out_before():
    before = work(like(25)).asked
    assert PACKAGE.bodies[0].places
    assert work(like(25)).asked == before
    assert work(like(26)).asked != before


def test_a_kit_becomes_the_plan_and_every_page_follows_it(client, at):
    production = at.removesuffix("/packing")
    document = client.get(at).json()["document"]
    none = client.get(f"{production}/plan").json()
    assert (none["version"], none["plan"]["made_at"], none["plan"]["otherwise"]) == (0, None, [])
    ask = {"version": 0, "document": document, "kit": "zooms"}
    client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]})
    too_early = client.post(f"{production}/plan", json=ask)
    if too_early.status_code != 200:
        assert "still being looked for" in too_early.json()["error"]["faults"][0]["rule"]
        kit = ended(lambda: client.get(f"{at}/searches/zooms").json())["kit"]
        made = client.post(f"{production}/plan", json=ask).json()
    assert (made["version"], made["plan"]["name"], made["plan"]["pinned"]) == (1, "Skiff and zooms", [])
    assert made["plan"]["otherwise"] == []
    shots = client.get(f"{production}/shots").json()["document"]
    view = client.post(f"{production}/shots/view", json={"document": shots}).json()
    by_kit = {row["key"]: row["choice"] for row in kit["shots"] if row["choice"]}
    names = ("lens", "lens_set", "body", "mode", "format")
    for answer in view["answers"]:
        if answer["key"] in by_kit:
            assert [answer["best"][n] for n in names] == [by_kit[answer["key"]][n] for n in names]
    assert view["in_plan"]["as_planned"] == len(by_kit)
    day = client.get(f"{production}/set", params={"day": "1"}).json()
    planned = {each["shot"]: each["on"] for each in day["day"]["shots"]}
    for key, on in planned.items():
        if key in by_kit:
            assert (on["lens"], on["format"]) == (by_kit[key]["lens"], by_kit[key]["format"])
    # A search for a kit does not hang on the plan; a plan of an older version is refused; without a kit there is none.
    assert (
        client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]}).json()["state"]
        == "done"
    )
    assert client.post(f"{production}/plan", json=ask).status_code == 409
    assert client.post(f"{production}/plan", json={**ask, "version": 1, "kit": "nobody"}).status_code == 422
    assert made["before"] == {"version": 0, "name": "", "made_at": None}
    gone = client.post(f"{production}/plan", json={**ask, "version": 1, "kit": None}).json()
    assert gone["plan"]["made_at"] is None
    # What was there before is gone back to, exactly as it was, and forth again.
    assert gone["before"] == {"version": 1, "name": "Skiff and zooms", "made_at": made["plan"]["made_at"]}
    again = client.post(f"{production}/plan", json={**ask, "version": 2, "kit": None, "back_to": 1}).json()
    assert (again["version"], again["plan"]) == (3, made["plan"])
    assert again["before"]["name"] == ""
    unknown = client.post(f"{production}/plan", json={**ask, "version": 3, "kit": None, "back_to": 17})
    assert (unknown.status_code, unknown.json()["error"]["faults"][0]["field"]) == (422, "back_to")
    assert (
        client.post(f"{production}/plan", json={**ask, "version": 3, "kit": None, "back_to": 0}).json()[
            "plan"
        ]["made_at"]
        is None
    )


def test_the_plan_goes_with_the_whole_production(client, at):
    production = at.removesuffix("/packing")
    document = client.get(at).json()["document"]
    client.post(f"{at}/searches", json={"document": document, "kits": ["zooms"]})
    ended(lambda: client.get(f"{at}/searches/zooms").json())
    version = client.get(f"{production}/plan").json()["version"]
    made = client.post(
        f"{production}/plan", json={"version": version, "document": document, "kit": "zooms"}
    ).json()
    file = client.get(f"{production}/file").content
    copy = client.post(
        "/api/v1/productions/file", content=file, headers={"content-type": "application/octet-stream"}
    )
    other = client.get(f"/api/v1/productions/{copy.json()['id']}/plan").json()["plan"]
    assert other["made_at"] == made["plan"]["made_at"] and other["otherwise"] == []
    assert other["without"] == made["plan"]["without"] != []
