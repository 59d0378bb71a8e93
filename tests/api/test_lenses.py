"""Lens sets, mounts and adapters, and the whole kit, over the API on a real PostgreSQL."""

import pytest

from hextan.core.documents.answers import LensSetSheet, RigSheet
from hextan.core.kit import answers as kit_answers
from hextan.formats import lenses_csv
from hextan.store import models
from hextan.store.kinds import LENS_SETS
from tests.core.kits import a_lens, a_set
from tests.shapes import check_shape

BYTES = {"content-type": "application/octet-stream"}


@pytest.fixture
def sets(client, url):
    return {row["name"]: row for row in client.get(f"{url}/lens-sets").json()["here"]}


@pytest.fixture
def package(client, url):
    return client.get(f"{url}/package").json()


def kept(client, url, set_id):
    return client.get(f"{url}/lens-sets/{set_id}").json()


def write(client, url, row, document, version=None):
    body = {"version": version or row["version"], "document": document}
    return client.put(f"{url}/lens-sets/{row['id']}", json=body)


def test_the_sets_of_the_demo(sets):
    assert list(sets) == ["Merrow", "Wren", "Longshore 2x", "Dunlin", "Reach zooms", "Bowl"]
    wren = sets["Wren"]
    assert (wren["lenses"], wren["focal_min_mm"], wren["focal_max_mm"], wren["mounts"]) == (
        10,
        16.0,
        100.0,
        ["K50"],
    )
    assert wren["changes"] == 2
    assert sets["Longshore 2x"]["squeezes"] == [2.0]


def test_a_set_is_kept_from_a_known_version(client, url, sets):
    row = kept(client, url, sets["Merrow"]["id"])
    row["document"]["lenses"][0]["close_focus_m"] = 0.33
    first = write(client, url, row, row["document"])
    assert first.status_code == 200
    assert first.json()["version"] == row["version"] + 1
    stale = write(client, url, row, row["document"])
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["version"] == row["version"] + 1


def test_numbers_of_lenses_stay_and_removed_ones_come_back(client, url, sets, session):
    row = kept(client, url, sets["Wren"]["id"])

    def numbers():
        session.expire_all()
        found = LENS_SETS.find(session, int(url.rsplit("/", 1)[1]), row["id"])
        return found.numbers["lenses"]

    before, whole = numbers(), row["document"]
    shorter = whole | {"lenses": whole["lenses"][1:][::-1]}
    now = write(client, url, row, shorter).json()
    assert len(now["document"]["lenses"]) == 9
    back = write(client, url, now, whole).json()
    assert back["document"] == whole
    assert numbers() == before


def test_refused_documents_name_the_field(client, url, sets):
    row = kept(client, url, sets["Merrow"]["id"])
    row["document"]["lenses"][2]["t_stop"] = 1.0
    answer = write(client, url, row, row["document"])
    assert answer.status_code == 422
    assert answer.json()["error"]["code"] == "inconsistent"
    assert answer.json()["error"]["faults"][0]["field"] == "document.lenses[2].t_stop"
    sheet = client.post(f"{url}/lens-sets/sheet", json=row["document"])
    assert sheet.json()["error"]["faults"][0]["field"] == "lenses[2].t_stop"


def test_the_sheet_has_its_shape(client, url, sets):
    for row in sets.values():
        document = kept(client, url, row["id"])["document"]
        sheet = client.post(f"{url}/lens-sets/sheet", json=document).json()
        check_shape(LensSetSheet, sheet)
        assert len(sheet["lenses"]) == row["lenses"]


def test_a_set_is_taken_from_the_catalogue_copied_taken_out_and_brought_back(client, url, sets):
    shelf = client.get("/api/v1/catalogue", params={"production_id": url.rsplit("/", 1)[1]}).json()["id"]
    there = client.get(f"/api/v1/productions/{shelf}/lens-sets").json()["here"]
    sluice = next(row for row in there if row["name"] == "Sluice 1.5x")
    taken = client.post(f"{url}/lens-sets", json={"catalogue_lens_set_id": sluice["id"]})
    assert taken.status_code == 201
    copied = client.post(f"{url}/lens-sets", json={"lens_set_id": taken.json()["id"]}).json()
    assert copied["document"]["name"] == "Sluice 1.5x (2)"
    removal = {"version": copied["version"], "removed": True}
    client.post(f"{url}/lens-sets/{copied['id']}/removal", json=removal)
    listed = client.get(f"{url}/lens-sets").json()
    assert [row["name"] for row in listed["removed"]] == ["Sluice 1.5x (2)"]
    removal = {"version": listed["removed"][0]["version"], "removed": False}
    assert client.post(f"{url}/lens-sets/{copied['id']}/removal", json=removal).status_code == 200
    assert client.post(f"{url}/lens-sets", json={}).json()["error"]["faults"][0]["field"] == "document"
    assert client.get(f"{url}/lens-sets/999999").status_code == 404


def test_a_set_that_is_taken_out_is_out_of_the_package(client, url, sets, package):
    row = sets["Bowl"]
    client.post(f"{url}/lens-sets/{row['id']}/removal", json={"version": row["version"], "removed": True})
    names = [s["name"] for s in client.get(f"{url}/package").json()["lens_sets"]]
    assert "Bowl" in [s["name"] for s in package["lens_sets"]]
    assert "Bowl" not in names


def test_changes_of_the_catalogue_are_taken_one_by_one(client, url, sets):
    at = f"{url}/lens-sets/{sets['Wren']['id']}"
    offered = client.get(f"{at}/catalogue").json()["here"]
    assert [(c["where"], c["field"], c["catalogue"]) for c in offered] == [
        ("Wren 18", "image_circle_mm", 30.0), ("Wren 24", "close_focus_m", 0.28)]  # fmt: skip
    ask = {"version": sets["Wren"]["version"], "take": [offered[0]["path"]], "leave": [offered[1]["path"]]}
    now = client.post(f"{at}/catalogue", json=ask).json()
    lenses = {lens["name"]: lens for lens in now["document"]["lenses"]}
    assert (lenses["Wren 18"]["image_circle_mm"], lenses["Wren 24"]["close_focus_m"]) == (30.0, 0.3)
    assert client.get(f"{at}/catalogue").json() == {"here": [], "removed": []}


def test_files_of_a_set(client, url, sets):
    wren = {"document_id": sets["Wren"]["id"]}
    whole = client.get(f"{url}/files/lens-sets.json", params=wren)
    assert "Wren.json" in whole.headers["content-disposition"]
    added = client.post(f"{url}/files/lens-sets.json", content=whole.content, headers=BYTES)
    assert added.status_code == 201
    assert len(added.json()["lens_sets"][0]["document"]["lenses"]) == 10
    rows = f"{url}/files/lenses.csv"
    table = client.get(rows, params=wren).content.replace(b"Wren 40,40", b"Wren 40,41")
    read = client.post(rows, params=wren, content=table, headers=BYTES)
    changed = next(x for x in read.json()["lens_set"]["lenses"] if x["name"] == "Wren 40")
    assert changed["focal_mm"] == 41.0
    # It is shown and not kept.
    document = kept(client, url, sets["Wren"]["id"])["document"]
    assert next(x for x in document["lenses"] if x["name"] == "Wren 40")["focal_mm"] == 40.0
    assert client.get(rows, params={"template": True}).content == lenses_csv.write_template()
    bad = client.post(rows, params=wren, content=table.replace(b"41,", b"4 1,"), headers=BYTES)
    assert bad.status_code == 422
    assert bad.json()["error"]["faults"][0]["field"].startswith("row ")


def test_mounts_and_adapters_are_one_document_with_a_version(client, url):
    rig = client.get(f"{url}/rig").json()
    assert [m["name"] for m in rig["document"]["mounts"]] == ["W54", "K50", "N30"]
    document = rig["document"]
    document["adapters"][0]["name"] = "K50 to W54, shimmed"
    now = client.put(f"{url}/rig", json=rig).json()
    assert now["version"] == rig["version"] + 1
    stale = client.put(f"{url}/rig", json=rig)
    assert stale.status_code == 409
    assert stale.json()["error"]["stored"]["document"] == now["document"]
    gone = now | {"document": document | {"adapters": document["adapters"][1:]}}
    shorter = client.put(f"{url}/rig", json=gone).json()
    back = client.put(f"{url}/rig", json=shorter | {"document": document}).json()
    assert back["document"]["adapters"][0]["key"] == document["adapters"][0]["key"]
    document["adapters"][0]["magnification"] = 0.5
    refused = client.put(f"{url}/rig", json=back | {"document": document})
    assert refused.json()["error"]["faults"][0]["field"] == "document.adapters[0]"


def test_the_first_mounts_of_a_production(client, session):
    row = models.Production(name="Second unit", synopsis="")
    session.add(row)
    session.commit()
    url = f"/api/v1/productions/{row.id}/rig"
    assert client.get(url).json() == {"version": 0, "document": {
        "schema": "hextan.rig", "schema_version": 1, "mounts": [], "adapters": [], "filters": [], "pairs": []}}  # fmt: skip
    document = {"mounts": [{"key": "a", "name": "W54", "flange_mm": 38.2}]}
    assert client.put(url, json={"version": 0, "document": document}).json()["version"] == 1
    assert client.put(url, json={"version": 0, "document": document}).status_code == 409
    assert client.get("/api/v1/productions/999999/rig").status_code == 404


def test_mounts_and_adapters_go_out_and_come_back(client, url):
    file = f"{url}/files/rig.json"
    whole = client.get(file)
    assert "mounts%20and%20adapters.json" in whole.headers["content-disposition"]
    rig = client.get(f"{url}/rig").json()
    assert client.post(file, content=whole.content, headers=BYTES).json()["rig"] == rig["document"]
    changed = whole.content.replace(b"38.2", b"39.0")
    read = client.post(file, content=changed, headers=BYTES).json()["rig"]
    assert read["mounts"][0]["flange_mm"] == 39.0
    # It is shown and not kept.
    assert client.get(f"{url}/rig").json() == rig
    bad = client.post(file, content=whole.content.replace(b"0.71", b"71"), headers=BYTES)
    assert bad.json()["error"]["faults"][0]["field"] == "adapters[3].magnification"


def test_combinations_as_they_would_be(client, url, package):
    document = client.get(f"{url}/rig").json()["document"]
    sheet = client.post(f"{url}/rig/sheet", json=document).json()
    check_shape(RigSheet, sheet)
    lenses = {x["id"]: x["name"] for s in package["lens_sets"] for x in s["lenses"]}
    bodies = {b["id"]: b["name"] for b in package["bodies"]}

    def found(answer, lens, body):
        return next(c for c in answer["combinations"]
                    if (lenses[c["lens_id"]], bodies[c["body_id"]]) == (lens, body))  # fmt: skip

    assert found(sheet, "Wren 40", "Skiff 46")["verdict"] == "possible"
    assert found(sheet, "Dunlin 12", "Ebb 64")["verdict"] == "impossible"
    without = client.post(f"{url}/rig/sheet", json=document | {"adapters": []}).json()
    assert found(without, "Wren 40", "Ebb 64")["verdict"] == "impossible"


def test_a_change_of_mounts_is_seen_at_once(client, url):
    """A flange distance that the plain adapter cannot bridge leaves the one with glass."""

    def ways():
        matrix = client.post(f"{url}/kit/matrix", json={"across": "formats"}).json()
        row = next(row for row in matrix["rows"] if row["name"] == "Wren 40")
        ebb = [row["via"][j] for j, column in enumerate(matrix["columns"]) if column["body"] == "Ebb 64"]
        return {row["ways"][via]["name"] for via in ebb}

    assert ways() == {"K50 to W54, plain"}
    rig = client.get(f"{url}/rig").json()
    rig["document"]["mounts"][1]["flange_mm"] = 20.0
    client.put(f"{url}/rig", json=rig)
    assert ways() == {"K50 to W54, 1.4x extender"}


@pytest.mark.parametrize(
    ("path", "ask", "shape"),
    [
        ("matrix", {}, kit_answers.KitMatrix),
        ("matrix", {"across": "classes", "mounted": "every"}, kit_answers.KitMatrix),
        ("ladder", {"least_fps": 100.0}, kit_answers.KitLadder),
        ("match", {"focal_mm": 35.0}, kit_answers.KitMatch),
    ],
)
def test_the_kits_answers_have_their_shape(client, url, path, ask, shape):
    answer = client.post(f"{url}/kit/{path}", json=ask)
    assert answer.status_code == 200
    check_shape(shape, answer.json())


def test_coverage_field_and_slow_motion_have_their_shape(client, url, package):
    lens = next(x["id"] for s in package["lens_sets"] for x in s["lenses"] if x["name"] == "Wren 16")
    form = next(
        f["id"]
        for b in package["bodies"]
        for m in b["modes"]
        for f in m["formats"]
        if f["name"] == "S35 → UHD"
    )
    coverage = client.post(f"{url}/kit/coverage", json={"lens_id": lens, "format_id": form}).json()
    check_shape(kit_answers.CoverageView, coverage)
    assert {o["kind"] for o in coverage["advice"]} >= {"stop", "lens", "correct"}
    field = client.post(f"{url}/kit/field", json={"lens_id": lens, "format_id": form, "width_m": 2.0}).json()
    check_shape(kit_answers.FieldAnswer, field)
    slow = client.post(f"{url}/kit/slow-motion", json={"base_format_id": form}).json()
    check_shape(kit_answers.SlowMotion, slow)


def test_the_matrix_as_a_table(client, url):
    answer = client.post(f"{url}/kit/matrix.csv", json={})
    assert answer.headers["content-type"] == "text/csv; charset=utf-8"
    lines = answer.text.splitlines()
    assert lines[0].startswith("lens_set,lens,mounted,body")
    assert any(line.startswith("Reach zooms,Reach 19–92,") for line in lines)


def test_bad_asks_are_told_by_field(client, url):
    for path, ask, field in (
        ("matrix", {"across": "rows"}, "across"),
        ("ladder", {"gap_ratio": 0}, "gap_ratio"),
        ("match", {"focal_mm": -5}, "focal_mm"),
        ("field", {}, "width_m"),
        ("slow-motion", {"base_format_id": 10**12}, "base_format_id"),
        ("coverage", {"lens_id": 1, "format_id": 10**12}, "format_id"),
    ):
        answer = client.post(f"{url}/kit/{path}", json=ask)
        assert answer.status_code == 422, path
        assert field in [fault["field"] for fault in answer.json()["error"]["faults"]], (path, answer.json())


def test_a_large_set_is_kept_and_checked(client, url):
    """A rental house's list: 2000 lenses."""
    lenses = [a_lens(f"L {i}", 10.0 + i % 300, key=f"k{i}") for i in range(2000)]
    added = client.post(f"{url}/lens-sets", json={"document": a_set(lenses, name="All")})
    assert added.status_code == 201
    assert len(added.json()["document"]["lenses"]) == 2000
    over = client.post(f"{url}/lens-sets", json={"document": a_set([*lenses, a_lens("one more")])})
    assert over.json()["error"]["faults"][0]["rule"] == "must have at most 2000 entries"


def test_the_bench_with_two_adapters_and_the_kit_in_order(client, url, package):
    bench = client.get(f"{url}/bench").json()
    ids = {a["name"]: a["id"] for a in package["adapters"]}
    merrow = next(x["id"] for s in package["lens_sets"] for x in s["lenses"] if x["name"] == "Merrow 50")
    tern = next(
        f["id"] for b in package["bodies"] if b["name"] == "Tern G" for m in b["modes"] for f in m["formats"]
    )
    state = bench["state"] | {"lens_id": merrow, "format_id": tern, "adapter_id": ids["W54 to K50, 0.71x reducer"],
                              "second_adapter_id": ids["K50 to N30, plain"]}  # fmt: skip
    view = client.post(f"{url}/bench/view", json={"state": state}).json()
    assert view["lens"]["mounted"]["optical_focal_mm"] == pytest.approx(35.5)
    assert "two adapters in a row: check flange depth and support" in view["lens"]["mounting"]["consequences"]
    # T 1.9 behind 0.71x that lets 95 % through; the f-number for depth loses nothing.
    assert view["lens"]["mounted"]["t_stop"] == pytest.approx(max(2.1, 1.9) * 0.71 / 0.95**0.5)
    assert len(view["kit"]) == sum(len(s["lenses"]) for s in package["lens_sets"])
    direct = next(k for k in view["kit"] if k["lens_id"] == merrow)
    assert direct["adapter_ids"] == [ids["W54 to K50, relay"], ids["K50 to N30, plain"]]


def test_scope_lenses_are_offered_the_formats_that_suit_them(client, url, package):
    bench = client.get(f"{url}/bench").json()
    scope = next(x["id"] for s in package["lens_sets"] for x in s["lenses"] if x["name"] == "Longshore 2x 50")
    view = client.post(f"{url}/bench/view", json={"state": bench["state"] | {"lens_id": scope}}).json()
    names = {f["id"]: f["name"] for b in package["bodies"] for m in b["modes"] for f in m["formats"]}
    assert names[view["suited"][0]["format_id"]].startswith("6:5")
    assert view["suited"][0]["used"] > 0.99
    assert view["window_map"]["squeeze"] == 2.0
    plain = client.post(f"{url}/bench/view", json={"state": bench["state"]}).json()
    assert plain["suited"] == []
