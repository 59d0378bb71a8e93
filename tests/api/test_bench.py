"""The Bench's endpoints on a real PostgreSQL."""

import copy
import math

import pytest
from sqlalchemy import func, select, text
from sqlalchemy.orm import Session

from hextan.api.plumbing import get_session
from hextan.core.bench.answers import BenchView
from hextan.demo.load import load_demo
from hextan.store import migrate, models
from hextan.store.kinds import BODIES
from tests.shapes import check_shape


@pytest.fixture
def bench(client, production_id):
    return client.get(f"/api/v1/productions/{production_id}/bench").json()


@pytest.fixture
def package(client, production_id):
    return client.get(f"/api/v1/productions/{production_id}/package").json()


@pytest.fixture
def view(client, production_id, bench):
    """Ask for a view of the demo's Bench with parts of its state changed."""

    def ask(open_rows=(), status=200, **changes):
        state = {**copy.deepcopy(bench["state"]), **changes}
        answer = client.post(f"/api/v1/productions/{production_id}/bench/view",
                             json={"state": state, "open_rows": list(open_rows)})  # fmt: skip
        assert answer.status_code == status, answer.text
        return answer.json()

    return ask


def chosen(view_answer, state):
    return next(r for r in view_answer["rows"] if r["format_id"] == state["format_id"])


def by_name(package, name):
    for group in ("lens_sets", "bodies"):
        for outer in package[group]:
            for inner in outer.get("lenses", []) + [f for m in outer.get("modes", []) for f in m["formats"]]:
                if inner["name"] == name:
                    return inner["id"]
    return next(a["id"] for a in package["adapters"] if a["name"] == name)


def test_demo_is_as_large_as_a_real_package(package):
    modes = [m for body in package["bodies"] for m in body["modes"]]
    formats = [f for m in modes for f in m["formats"]]
    lenses = [x for kit in package["lens_sets"] for x in kit["lenses"]]
    assert len(package["bodies"]) >= 3
    assert len(modes) >= 12
    assert len(formats) >= 45
    assert len(package["lens_sets"]) >= 4
    assert len(lenses) >= 35
    assert {f["raw"] for f in formats} == {f["interlaced"] for f in formats} == {True, False}
    assert {m["method"] for m in modes} == {"full", "binned", "skipped"}
    assert {1.0, 2.0} <= {x["squeeze"] for x in lenses}
    assert sum(x["focal_max_mm"] > x["focal_min_mm"] for x in lenses) >= 2
    assert any(x["projection"] != "rectilinear" for x in lenses)
    assert {0.71, 1.0, 1.4} <= {a["magnification"] for a in package["adapters"]}


def test_demo_rates_are_within_what_the_readout_allows(package, view):
    """No format of the demo offers a rate that its own scan mode cannot reach."""
    highest = {r["format_id"]: r["answer"]["speed"]["max_fps"] for r in view()["rows"]}
    for body in package["bodies"]:
        for mode in body["modes"]:
            for f in mode["formats"]:
                assert max(f["rates"]) <= highest[f["id"]] * 1.0011, (body["name"], f["name"])


def test_demo_loads_once(session):
    before = session.scalar(select(func.count()).select_from(models.Document))
    assert load_demo(session) is False
    assert session.scalar(select(func.count()).select_from(models.Document)) == before


def test_view_has_the_promised_shape_and_a_row_for_every_format(view, bench, package):
    got = view(open_rows=[bench["state"]["format_id"]])
    check_shape(BenchView, got)
    assert len(got["rows"]) == sum(len(m["formats"]) for b in package["bodies"] for m in b["modes"])
    steps = got["derivations"][str(bench["state"]["format_id"])]
    row = chosen(got, bench["state"])
    results = {step["what"]: step["result"] for step in steps}
    assert results["Effective focal length"] == f"{row['answer']['effective_focal_mm']:.2f} mm"
    assert results["Near limit"] == f"{math.ceil(1000 * row['answer']['depth']['near_m']) / 1000:.3f} m"
    assert (
        results["Highest frame rate"] == f"{math.floor(10 * row['answer']['speed']['max_fps']) / 10} frames/s"
    )


def test_view_agrees_with_the_public_evaluation(client, view, bench):
    """The close-up of the demo: 40 mm on a 25.3 mm wide window at 3.2 m, asked by hand."""
    row = chosen(view(), bench["state"])["answer"]
    by_hand = client.post("/api/v1/evaluate", json={
        "subject": {"distance_m": 3.2},
        "lens": {"focal_mm": 40, "f_number": 1.8, "t_stop": 2.1},
        "formats": [{"window": {"width_mm": 4352 * 0.00582, "height_mm": 2448 * 0.00582},
                     "delivery": {"aspect": 2.39}}],
    }).json()["formats"][0]  # fmt: skip
    for key in ("effective_focal_mm", "magnification"):
        assert row[key] == pytest.approx(by_hand[key], rel=1e-12)
    for key in ("angle_deg", "field_m"):
        assert row[key] == pytest.approx(by_hand[key], rel=1e-12)
    assert row["depth"] == pytest.approx(by_hand["depth"], rel=1e-12)


def test_plan_view_stands_where_the_numbers_say(view, bench):
    got = view()
    row, plan = chosen(got, bench["state"])["answer"], got["plan"]
    assert plan["focus_m"] == plan["subject_m"] == 3.2
    assert plan["near_m"] == row["depth"]["near_m"]
    assert plan["far_m"] == row["depth"]["far_m"]
    outline = next(c for c in plan["cones"] if c["chosen"])["points_m"]
    (x0, _), (x1, y1), (x2, y2) = outline[0], outline[1], outline[-1]
    at_focus = (plan["focus_m"] - x0) / (x1 - x0)
    assert at_focus * (y2 - y1) == pytest.approx(row["field_m"]["width"], rel=1e-9)
    assert x1 == pytest.approx(x2)


def test_focus_off_the_subject_is_told(view):
    assert view()["links"]["subject"]["text"] is None
    near = view(focus_m=3.25)["links"]["subject"]
    assert near["sharp"] is True
    assert near["text"].startswith("Focus 50 mm behind the subject: still inside the depth")
    far = view(focus_m=4.0)["links"]["subject"]
    assert far["sharp"] is False
    assert "the subject is soft" in far["text"]


def test_stop_wider_than_the_lens_is_held_at_its_widest_and_told(view):
    got = view(stop=1.0)["lens"]
    assert got["stop"] == 2.1
    assert [n["code"] for n in got["notes"]] == ["stop_clamped"]
    assert got["notes"][0]["text"] == "T1 is wider than this lens opens: set to T2.1."


def test_zoom_is_held_in_its_range(view, package):
    zoom = by_name(package, "Reach 75–290")
    got = view(lens_id=zoom, focal_mm=400.0)["lens"]
    assert got["focal_mm"] == 290
    assert got["stop"] == pytest.approx(4.6)
    assert view(lens_id=zoom, focal_mm=75.0, stop=None)["lens"]["stop"] == pytest.approx(3.8)
    middle = view(lens_id=zoom, focal_mm=147.5, stop=None)["lens"]["stop"]
    assert middle == pytest.approx((3.8 * 4.6) ** 0.5, rel=1e-3)


def test_mounts_must_fit(view, package):
    bare = view(adapter_id=None)["rows"]
    texts = {n["text"] for r in bare for n in r["answer"]["notes"] if n["code"] == "mount"}
    assert "The lens has the K50 mount and Ebb 64 takes W54: an adapter is needed." in texts
    assert {r["mounts"] for r in bare} == {True, False}


def test_extender_lets_a_small_circle_cover(view, package):
    wren, full = by_name(package, "Wren 40"), by_name(package, "Full → UHD")
    plain = chosen(view(format_id=full), {"format_id": full})
    longer = view(format_id=full, adapter_id=by_name(package, "K50 to W54, 1.4x extender"), lens_id=wren)
    assert plain["verdict"] == "short"
    assert chosen(longer, {"format_id": full})["verdict"] == "covers"
    assert longer["lens"]["mounted"]["optical_focal_mm"] == pytest.approx(56.0)
    # 2 log2(1.4) for the magnification, and what the glass lets through.
    assert longer["lens"]["adapter_stops"] == pytest.approx(0.971 - math.log2(0.93), abs=5e-4)


def test_in_camera_crops_act_where_they_can(view, package, bench):
    crops = {c["name"]: c["id"] for c in view()["crops"]}
    on = [crops["Stabiliser, strong"]]
    got = view(crop_ids=on)
    row = chosen(got, bench["state"])["answer"]
    assert {"name": "Stabiliser, strong", "factor": 1.25} in row["crop"]["links"]
    assert got["links"]["recording"]["factor"] == pytest.approx(1.25)
    assert row["pixels"]["oversampling"] == pytest.approx(4352 / 1.25 / 3840)
    raw = by_name(package, "S35 4.3K raw")
    on_raw = view(crop_ids=on, format_id=raw)
    assert {c["reason"] for c in on_raw["crops"]} == {"raw recordings are unaltered sensor data"}
    assert chosen(on_raw, {"format_id": raw})["answer"]["crop"]["links"][1:] == []
    wide = view(crop_ids=on, format_id=by_name(package, "Scope → 4096"))
    reasons = {c["name"]: c["reason"] for c in wide["crops"]}
    assert reasons["Stabiliser, strong"] == "not in the scan mode Full scope 6.4K"
    assert reasons["Lens correction"] is None


@pytest.mark.parametrize("by", ["width", "height", "diagonal"])
def test_the_links_of_the_band_multiply_to_its_sum(view, package, by):
    scope = by_name(package, "Longshore 2x 50")
    crops = {c["name"]: c["id"] for c in view()["crops"]}
    links = view(lens_id=scope, crop_ids=[crops["Lens correction"]],
                 reference={"name": "full_frame", "by": by})["links"]  # fmt: skip
    product = 1.0
    for name in ("lens", "readout", "recording", "delivery"):
        product *= links[name]["factor"]
    assert product == pytest.approx(links["sum"]["factor"], rel=1e-12)
    assert links["lens"]["factor"] == pytest.approx(
        {"width": 0.5, "height": 1.0}.get(by, links["lens"]["factor"])
    )


def test_sixteen_by_nine_crops_the_wider_window(view, package):
    rows = {
        r["format_id"]: r["answer"]
        for r in view(delivery={"aspect": None, "long_edge_px": 3840, "protect": 0})["rows"]
    }
    wide, narrow = (rows[by_name(package, n)] for n in ("17:9 → 4096", "16:9 → UHD"))
    assert narrow["effective_focal_mm"] / wide["effective_focal_mm"] == pytest.approx(4096 / 3840, rel=1e-3)


@pytest.mark.parametrize(
    ("ladder", "keeps"),
    [
        ({"scope": "body"}, lambda r: True),
        ({"classes": ["Super 16"]}, lambda r: r["format_class"] == "Super 16"),
        ({"mounts": True}, lambda r: r["mounts"]),
        ({"covers": True}, lambda r: r["answer"]["coverage"]["covers"]),
        ({"oversampled": True}, lambda r: r["sharpness"] == "oversampled"),
        ({"least_fps": 100.0}, lambda r: r["rate"]["usable_fps"] >= 99.9),
    ],
)
def test_ladder_filters(view, package, ladder, keeps):
    rows = view(ladder={"mounts": False} | ladder)["rows"]
    shown = [r for r in rows if r["shown"]]
    assert 0 < len(shown) < len(rows)
    assert all(keeps(r) for r in shown)
    if "scope" in ladder:
        assert len(shown) == sum(len(m["formats"]) for m in package["bodies"][0]["modes"])
    else:
        assert not any(keeps(r) for r in rows if not r["shown"])


def test_a_lens_that_does_not_go_on_says_so_and_the_nearest_that_does_is_offered(view, package):
    sets = {each["name"]: each["lenses"] for each in package["lens_sets"]}
    wren = next(lens for lens in sets["Wren"] if lens["name"] == "Wren 40")
    here = by_name(package, "S35 → UHD")
    bare = view(lens_id=wren["id"], adapter_id=None, format_id=here)
    assert "does not mount on Ebb 64" in bare["unmounted"]["told"]
    # The same lens through an adapter is nearer than any other.
    assert bare["unmounted"]["nearest_id"] == wren["id"]
    assert bare["unmounted"]["nearest_told"] == "Wren 40 through K50 to W54, plain"
    assert all(words["verdict"] not in ("covers", "marginal") for words in bare["window_map"]["words"])
    chosen = [row for row in bare["rows"] if row["shown"] and not row["mounts"]]
    assert len(chosen) == 1
    way = next(each for each in bare["kit"] if each["lens_id"] == wren["id"])["adapter_ids"]
    again = view(lens_id=wren["id"], adapter_id=way[0], format_id=here)
    assert again["unmounted"] is None and all(row["mounts"] for row in again["rows"] if row["shown"])


def test_reference_can_be_a_window_of_the_production(view, package, bench):
    mode = package["bodies"][0]["modes"][0]
    got = view(reference={"name": "scan_mode", "scan_mode_id": mode["id"], "by": "height"})
    assert got["reference"]["height_mm"] == pytest.approx(3620 * 0.00582)
    assert got["reference"]["by"] == "height"


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"lens_id": 10**9}, "state.lens_id"),
        ({"format_id": 10**9}, "state.format_id"),
        ({"adapter_id": 10**9}, "state.adapter_id"),
        ({"subject_m": -1.0}, "state.subject_m"),
        ({"subject_m": 0.05}, "subject.distance_m"),
        ({"coc": {"rule": "fixed"}}, "state.coc.mm"),
        ({"pinned": [1, 2, 3, 4, 5]}, "state.pinned"),
        ({"nonsense": 1}, "state.nonsense"),
    ],
)
def test_bad_states_are_refused_at_the_field(view, changes, field):
    assert field in [f["field"] for f in view(status=422, **changes)["error"]["faults"]]


def test_stale_write_is_refused_with_both_versions(client, production_id, bench):
    url = f"/api/v1/productions/{production_id}/bench"
    mine = {"version": bench["version"], "state": {**bench["state"], "subject_m": 4.5}}
    first = client.put(url, json=mine)
    assert first.status_code == 200
    assert first.json()["version"] == bench["version"] + 1
    late = client.put(url, json={"version": bench["version"], "state": {**bench["state"], "subject_m": 9.0}})
    assert late.status_code == 409
    error = late.json()["error"]
    assert error["code"] == "stale_write"
    assert error["given"]["state"]["subject_m"] == 9.0
    assert error["stored"]["state"]["subject_m"] == 4.5
    assert error["stored"]["version"] == bench["version"] + 1
    assert client.get(url).json()["state"]["subject_m"] == 4.5


def test_two_writers_at_once_lose_nothing(engine):
    """Both read the same version; the second to commit is told (optimistic locking in the database)."""
    from hextan.core.base import StaleWriteError
    from hextan.store.kinds import BENCH
    from hextan.store.repositories import read_bench

    with Session(engine) as one, Session(engine) as two:
        production = one.scalars(
            select(models.Production.id).where(models.Production.kind == "production")
        ).one()
        version, state = read_bench(one, production)
        assert read_bench(two, production)[0] == version
        two.scalars(select(models.Document)).all()  # holds the old row in its identity map
        BENCH.save(one, production, version, state.model_copy(update={"subject_m": 5.0}))
        with pytest.raises(StaleWriteError) as refused:
            BENCH.save(two, production, version, state.model_copy(update={"subject_m": 6.0}))
        assert refused.value.stored["state"]["subject_m"] == 5.0
        BENCH.save(one, production, version + 1, state)


def test_a_change_of_equipment_is_seen_at_once(view, session, bench, production_id):
    """Loaded packages are kept, but never longer than the equipment stays as it is."""
    before = chosen(view(), bench["state"])["answer"]["window_mm"]["width"]
    body = BODIES.every(session, production_id)[0]
    wider = body.document.model_copy(update={"pitch_um": body.document.pitch_um * 1.01})
    BODIES.save(session, production_id, body.id, body.version, wider)
    assert chosen(view(), bench["state"])["answer"]["window_mm"]["width"] == pytest.approx(before * 1.01)
    small = "update document set body = body || '{\"image_circle_mm\": 12}' where kind = 'lens_set.lenses' and body->>'circle_by' is null"
    session.execute(text(small))
    session.commit()
    assert view()["window_map"]["circle_mm"] == 12
    session.execute(text("delete from document where kind = 'rig.adapters'"))
    session.commit()
    view(status=422)


def test_a_bench_whose_equipment_is_gone_is_mended(client, production_id, bench):
    url = f"/api/v1/productions/{production_id}/bench/mended"
    whole = client.post(url, json=bench["state"]).json()
    assert whole == {"state": bench["state"], "notes": []}
    gone = bench["state"] | {
        "format_id": 10**9, "lens_id": 10**9, "adapter_id": 10**9, "pinned": [10**9, bench["state"]["format_id"]],
        "reference": {"name": "scan_mode", "scan_mode_id": 10**9, "by": "height"},
    }  # fmt: skip
    got = client.post(url, json=gone).json()
    assert len(got["notes"]) == 4
    assert got["notes"][0] == (
        "The recording format is not in the package any more: Full 6.4K raw is shown instead."
    )
    assert got["state"]["pinned"] == [bench["state"]["format_id"]]
    # Without one the production's counts.
    assert got["state"]["reference"] is None
    view = client.post(f"/api/v1/productions/{production_id}/bench/view", json={"state": got["state"]})
    assert view.status_code == 200


def test_unknown_production(client):
    for path in ("package", "bench"):
        answer = client.get(f"/api/v1/productions/999999/{path}")
        assert answer.status_code == 404
        assert answer.json()["error"]["message"].startswith("There is no production 999999.")


def test_production_without_equipment_says_what_is_missing(client, session):
    empty = models.Production(name="Empty", synopsis="")
    session.add(empty)
    session.commit()
    answer = client.get(f"/api/v1/productions/{empty.id}/bench")
    assert answer.status_code == 404
    assert answer.json()["error"]["code"] == "nothing_yet"
    assert answer.json()["error"]["message"].endswith("enter a body and a lens first.")


@pytest.mark.parametrize(
    ("typed", "unit", "metres"),
    [("2.9", "m", 2.9), ("2,9", "m", 2.9), ("2.9m", "ft", 2.9), ("9'6\"", "m", 2.8956), ("9ft 6in", "m", 2.8956),
     ("115in", "m", 2.921), ("9.5", "ft", 2.8956), ("9'6", "m", 2.8956), ("9′ 6½″", "m", 2.9083), ("290 cm", "ft", 2.9),
     ("9' 6 1/2\"", "m", 2.9083), ("1/2m", "m", 0.5), ("2900mm", "m", 2.9)],
)  # fmt: skip
def test_distances_as_people_write_them(client, typed, unit, metres):
    answer = client.get("/api/v1/distance", params={"text": typed, "unit": unit})
    assert answer.json()["metres"] == pytest.approx(metres, rel=1e-12)


@pytest.mark.parametrize(
    "typed", ["", "far", "-2", "0", "2m 3m", "6in 3ft", "2..9", "1/0", "9'6'", "2 3", "9999999"]
)
def test_text_that_is_no_distance(client, typed):
    answer = client.get("/api/v1/distance", params={"text": typed, "field": "subject"})
    assert answer.status_code == 422
    assert answer.json()["error"]["faults"][0]["field"] == "subject"


def test_a_database_that_is_away_is_told(client, unreachable_engine):
    def gone():
        with Session(unreachable_engine) as session:
            yield session

    client.app.dependency_overrides[get_session] = gone
    answer = client.get("/api/v1/productions")
    assert answer.status_code == 503
    assert answer.json()["error"]["code"] == "database_unavailable"


def test_other_hosts_are_refused(client):
    answer = client.get("/api/v1/health", headers={"host": "evil.example"})
    assert answer.status_code == 400
    assert answer.json()["error"]["message"] == "This server answers to 127.0.0.1 and localhost only."


def test_migrations_are_in_step_with_the_models(engine):
    migrate.check(engine)


def test_constraints_have_names(session):
    unnamed = text("select conname from pg_constraint where conname !~ '^(ck|pk|fk|uq)_' "
                   "and connamespace = 'public'::regnamespace and conrelid <> 'alembic_version'::regclass")  # fmt: skip
    assert session.scalars(unnamed).all() == []
