"""Depth, exposure and flicker over the API, with the demo's equipment, on a real PostgreSQL."""

import copy
import csv
import io
import math

import pytest

from hextan.core.bench.depth_answers import DepthView
from hextan.core.bench.light_answers import ExposureView, FlickerView
from tests.shapes import check_shape

SHAPES = {"depth": DepthView, "exposure": ExposureView, "flicker": FlickerView}


@pytest.fixture
def look(client, production_id):
    """Ask about the demo's Bench with parts of its state changed."""
    kept = client.get(f"/api/v1/productions/{production_id}/bench").json()["state"]

    def ask(what, status=200, ask=None, light=None, **changes):
        state = {**copy.deepcopy(kept), **changes}
        state["light"] = {**state["light"], **(light or {})}
        answer = client.post(
            f"/api/v1/productions/{production_id}/bench/{what}", json={"state": state, **(ask or {})}
        )
        assert answer.status_code == status, answer.text
        if status == 200 and what in SHAPES:
            check_shape(SHAPES[what], answer.json())
        return answer if what.endswith(".csv") else answer.json()

    return ask


@pytest.fixture
def lens(client, production_id):
    sets = client.get(f"/api/v1/productions/{production_id}/package").json()["lens_sets"]
    return {x["name"]: x["id"] for s in sets for x in s["lenses"]}


def faults(answer):
    return {f["field"] for f in answer["error"]["faults"]}


def test_held_limits_agree_with_the_bench(look, client, production_id):
    """Set to the answer, the Bench's own limits are those that were asked for."""
    told = look("depth", ask={"hold_near_m": 2.6, "hold_far_m": 4.4})["hold"]
    assert told["mark"] >= told["exact"] * 0.98
    state = client.get(f"/api/v1/productions/{production_id}/bench").json()["state"]
    state |= {"stop": told["exact"], "focus_m": told["focus_m"]}
    plan = client.post(f"/api/v1/productions/{production_id}/bench/view", json={"state": state}).json()[
        "plan"
    ]
    assert (plan["near_m"], plan["far_m"]) == pytest.approx((2.6, 4.4), rel=1e-6)
    assert told["near_m"] <= 2.6 + 1e-3
    assert told["far_m"] >= 4.4 - 1e-3
    assert "holds from 2.60 m to 4.40 m" in told["text"]


def test_what_the_lens_cannot_hold_is_told_with_the_next_step(look):
    told = look("depth", ask={"hold_near_m": 0.9, "hold_far_m": None})["hold"]
    assert told["mark"] is None
    assert told["text"].startswith("No stop of this lens holds from 0.90 m")
    assert "holds it at" in told["next"]
    wrong = look("depth", ask={"hold_near_m": 5, "hold_far_m": 4})["hold"]
    assert (wrong["exact"], wrong["text"]) == (
        None,
        "near_m: must lie nearer than the far limit (given: 5.0).",
    )


def test_movement_and_softness(look):
    got = look("depth", movement_m=0.4, ask={"softness_percent": 0.5, "background_m": 9})
    kept, best = got["movement"]["kept"], got["movement"]["best"]
    assert best["exact"] <= kept["exact"]
    assert kept["focus_m"] == pytest.approx(3.2)
    assert got["softness"]["exact"] == pytest.approx(
        got["softness"]["percent"] / 0.5 * got["softness"]["mark"]
    )
    beyond = look("depth", ask={"softness_percent": 60})["softness"]
    assert beyond["mark"] is None
    assert beyond["text"].startswith("It would take T")
    same = look("depth", ask={"background_m": 3.2})["softness"]
    assert same["text"].endswith("is in focus: no stop makes it soft.")
    assert look("depth")["movement"] is None


@pytest.mark.parametrize(
    ("coc", "words"),
    [
        (None, "the delivered picture's diagonal over 1500"),
        ({"rule": "fixed", "mm": 0.025}, "0.025 mm on any sensor"),
        ({"rule": "photosite"}, "2 sampled photosites"),
        ({"rule": "pixel"}, "1 delivered pixel"),
        ({"rule": "eye"}, "what an eye resolves (1 arc minute) from 3 picture heights away"),
    ],
)
def test_every_rule_says_what_it_assumes(look, coc, words):
    rule = look("depth", coc=coc)["rule"]
    assert words in rule["text"]
    assert rule["own"] is (coc is not None)


def test_the_production_sets_the_rule_until_a_look_has_its_own(look, client, production_id):
    address = f"/api/v1/productions/{production_id}/settings"
    kept = client.get(address).json()
    changed = kept["settings"] | {"coc": {"rule": "fixed", "mm": 0.02}}
    assert client.put(address, json={"version": kept["version"], "settings": changed}).status_code == 200
    assert look("depth", coc=None)["rule"]["coc_mm"] == 0.02
    assert look("depth", coc={"rule": "fixed", "mm": 0.03})["rule"]["coc_mm"] == 0.03


def test_curves_and_table(look):
    got = look("depth")
    assert [c["chosen"] for c in got["curves"]] == [True, False, False]
    chosen = got["curves"][0]
    assert all(p["near_m"] < p["x"] for p in chosen["by_distance"])
    depths = [p["far_m"] - p["near_m"] for p in chosen["by_stop"] if p["far_m"] is not None]
    assert depths == sorted(depths)
    blurs = [p["percent"] for p in chosen["blur"]]
    assert blurs == sorted(blurs)
    assert blurs[-1] < chosen["blur_at_infinity"]
    table = got["table"]
    # The lens's close focus stands first; then round figures.
    assert [r["distance_m"] for r in table["rows"]][:3] == [0.45, 0.5, 0.6]
    assert table["stops"][0] == 2.1
    rows = list(csv.reader(io.StringIO(look("depth.csv").text)))
    assert rows[0] == ["distance_m", "stop", "near_m", "far_m"]
    assert len(rows) == 1 + len(table["rows"]) * len(table["stops"])
    feet = list(csv.reader(io.StringIO(look("depth.csv", unit="ft").text)))
    assert feet[0][0] == "distance_ft"
    assert float(feet[1][0]) == pytest.approx(0.45 / 0.3048, abs=1e-3)


def test_what_the_aperture_does_close_up_and_stopped_down(look, lens):
    close = look("depth", lens_id=lens["Wren 40"], subject_m=0.6)["aperture"]
    assert "focused so close the lens works at" in close["text"]
    small = look("depth", stop=22, coc={"rule": "pixel"})["aperture"]
    assert small["diffraction"] is True
    assert "stopping down further makes nothing sharper" in small["text"]


def test_the_ledger_adds_up(look):
    got = look("exposure", light={"lux": 320, "ei": 800, "nd_stops": 2})
    assert sum(row["stops"] for row in got["ledger"]) == pytest.approx(got["off_stops"])
    # ISO 2720, C = 250: by hand, with what the adapter (none here) and the focus at 3.2 m take.
    m = 1 / ((3200 / 40 - 2) / 2 + math.sqrt(80 * 76) / 2)
    expected = math.log2(320 * (1 / 50) * 800 / (250 * 2.1**2)) - 2 - 2 * math.log2(1 + m)
    assert got["off_stops"] == pytest.approx(expected, abs=1e-3)
    assert [row["key"] for row in got["ledger"]][-2:] == ["adapter", "close_up"]


def test_speed_costs_what_the_brief_says(look):
    """24 to 120 frames at the same angle is 2.3 stops (here from 25: 2.26)."""
    base, fast = look("exposure"), look("exposure", fps=60.0)
    assert base["off_stops"] - fast["off_stops"] == pytest.approx(math.log2(60 / 25))
    rate = next(row for row in fast["ledger"] if row["key"] == "rate")
    assert rate["stops"] == pytest.approx(-math.log2(60 / 25))
    assert next(r for r in fast["rates"] if r["fps"] == 120)["stops"] == pytest.approx(math.log2(120 / 25))


def test_balance_moves_what_may_and_says_so(look):
    bright = {"lux": 5000, "ei": 800, "nd_stops": 0}
    told = look("exposure", light=bright | {"may_move": ["nd", "ei"]})["balance"]
    assert told["balanced"]
    assert told["text"].startswith("Balanced by built-in ND 6 (6 stops)")
    assert (told["light"]["ei"], told["light"]["lux"]) == (800, 5000)
    again = look("exposure", light=told["light"], stop=told["stop"])
    assert again["balanced"]
    assert again["balance"]["text"] == "It is balanced as it is."
    dark = look("exposure", light={"lux": 0.05, "may_move": ["nd", "ei"]})["balance"]
    assert not dark["balanced"]
    assert dark["text"].startswith("The nearest that can be had is EI 12800: it stays ")
    assert "times the light" in dark["next"]
    assert look("exposure", light={"lux": 0.05, "may_move": []})["balance"]["text"].startswith(
        "Nothing may move"
    )


def test_metered_light(look):
    metered = {"t_stop": 2.1, "ei": 800, "shutter_s": 0.02, "nd_stops": 0.0}
    got = look("exposure", light={"known_by": "metered", "metered": metered, "ei": 800})
    close_up = got["ledger"][-1]["stops"]
    assert got["off_stops"] == pytest.approx(close_up)


@pytest.mark.parametrize(
    ("light", "field"),
    [
        ({"lux": 0}, "state.light.lux"),
        ({"lux": -5}, "state.light.lux"),
        ({"ei": 0}, "state.light.ei"),
        ({"shutter_deg": 361}, "state.light.shutter_deg"),
        ({"mains_hz": 55}, "state.light.mains_hz"),
        ({"may_move": ["sun"]}, "state.light.may_move[0]"),
        ({"pulse_duty": 1.5}, "state.light.pulse_duty"),
        ({"metered": {"t_stop": "wide"}}, "state.light.metered.t_stop"),
    ],
)
def test_light_that_cannot_be_is_refused_by_its_field(look, light, field):
    assert field in faults(look("exposure", 422, light=light))


def test_scene_that_cannot_be_is_refused_by_its_field(look):
    thing = {"kind": "lamp", "name": "x", "distance_m": -1.0, "height_m": 2.0}
    assert "state.scene.objects[0].distance_m" in faults(look("depth", 422, scene={"objects": [thing]}))
    many = [{**thing, "distance_m": 2.0}] * 61
    assert "state.scene.objects" in faults(look("depth", 422, scene={"objects": many}))


def test_flicker_by_rate_and_lamp(look):
    safe = look("flicker", light={"lamp": "magnetic"})
    # 180 degrees at 25 fps is 1/50 s: two whole swings at 50 Hz.
    assert [round(s["angle_deg"], 1) for s in safe["safe"]] == [90, 180, 270, 360]
    assert safe["nearest"]["off_stops"] == pytest.approx(0)
    assert all(row["verdict"] == "none" for row in safe["lamps"] if row["kind"] != "pulsed")
    there = look("flicker", light={"lamp": "magnetic", "mains_hz": 60})
    row = next(r for r in there["lamps"] if r["kind"] == "magnetic")
    assert row["verdict"] == "shows"
    assert "bands" in row["text"]
    assert "photosensitive" in there["caution"]
    fast = look("flicker", fps=400.0, light={"lamp": "tungsten"})
    assert fast["safe"] == []
    assert fast["no_safe"].startswith("No safe shutter at this rate: a frame at 400 fps")
    openings = there["wave"]["openings"]
    assert openings[1]["from_ms"] - openings[0]["from_ms"] == pytest.approx(there["readout_ms"])
    assert all(p[1] <= there["wave"]["highest"] + 1e-9 for p in there["wave"]["points"])


def test_light_has_its_bounds(look):
    """What would take more light than there is stays off, and what is told can be set again."""
    blind = look("exposure", stop=22, light={"lux": 1e-6, "nd_stops": 60, "may_move": ["light"]})
    told = blind["balance"]
    assert not told["balanced"]
    assert told["light"]["lux"] == 1e7
    again = look("exposure", stop=22, light=told["light"])
    assert again["off_stops"] == pytest.approx(told["off_stops"])
