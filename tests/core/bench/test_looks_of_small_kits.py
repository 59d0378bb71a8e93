"""Depth and light where the equipment states little: no f-number, no EI values, no row time."""

from dataclasses import replace

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.bench.depth import DepthAsk, depth_view
from hextan.core.bench.light import ASSUMED_EIS, exposure_view, flicker_view
from hextan.core.bench.state import parse_state
from hextan.core.documents import parse_body
from hextan.core.light import NdFilter
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import EXTENDER, K50, W54, kit_package, lens


def package(body=None, mode=None, **changes):
    document = parse_body(a_body([a_mode(formats=[a_format()], **(mode or {}))], **(body or {})))
    glass = lens(1, **{"focal": 40.0, "t_stop": 2.0, "f_number": 1.8} | changes)
    return kit_package([document], [glass], [EXTENDER], [W54, K50])


def state(equipment, **changes):
    return parse_state({"format_id": next(iter(equipment.formats)), "lens_id": 1, "subject_m": 2.0} | changes)


def test_without_an_f_number_the_t_stop_counts_and_that_is_said():
    told = depth_view(package(f_number=None), DepthAsk(state=state(package())))["aperture"]
    assert told["from_t"] is True
    # A third of a stop wider than T2.0: docs/conventions.md.
    assert told["f_number"] == pytest.approx(2.0 / 2 ** (1 / 6))
    assert "taken a third of a stop wider than T, because the lens states no f-number" in told["text"]
    known = depth_view(package(), DepthAsk(state=state(package())))["aperture"]
    assert (known["from_t"], known["f_number"]) == (False, 1.8)


def test_without_a_t_stop_the_light_goes_by_the_f_number_and_that_is_said():
    got = exposure_view(package(t_stop=None), state(package()), 25.0)
    assert (got["marks"], got["t_stop"]) == ("f/", 1.8)
    assert any("states no T-stop" in note for note in got["notes"])


def test_a_body_without_sensitivities_gets_assumed_ones_and_that_is_said():
    got = exposure_view(package(), state(package()), 25.0)
    assert [e["ei"] for e in got["eis"]] == list(ASSUMED_EIS)
    assert any("states no EI values" in note for note in got["notes"])
    stated = package({"eis": [400, 800], "base_eis": [800], "nd_stops": [2.0]})
    here = exposure_view(stated, state(stated), 25.0)
    assert (here["ei"], here["notes"]) == (800, [])
    assert [n["stops"] for n in here["nds"]] == [0.0, 2.0]
    assert here["nds"][1]["parts"] == ["built-in ND 2"]


def test_filters_of_the_kit_count():
    with_filter = replace(package({"eis": [800], "base_eis": [800]}), filters=(NdFilter("ND 0.9", 3.0),))
    bright = state(with_filter, light={"lux": 5000.0, "may_move": ["nd"]})
    told = exposure_view(with_filter, bright, 25.0)["balance"]
    assert told["nd_parts"] == ["ND 0.9"]
    assert told["light"].nd_stops == 3.0


def test_an_extender_costs_light_in_its_own_row():
    equipment = package(mount="K50")
    plain = state(equipment, adapter_id=EXTENDER.id)
    rows = {row["key"]: row["stops"] for row in exposure_view(equipment, plain, 25.0)["ledger"]}
    # FORMULAS: 1.4x is 0.971 stop; 7 % of the light stays in the glass.
    assert rows["adapter"] == pytest.approx(-0.971 - 0.105, abs=0.002)


def test_a_shutter_longer_than_a_frame_is_cut_and_told():
    long = state(package(), light={"shutter": "time", "shutter_s": 0.1})
    got = exposure_view(package(), long, 25.0)
    assert got["time_s"] == pytest.approx(1 / 25)
    assert "0.1 s" not in got["ledger"][3]["setting"]
    assert any("is longer than a frame at 25 fps: counted as 1/25 s" in note for note in got["notes"])
    assert got["ledger"][4]["stops"] == 0


def test_a_body_without_row_time_leaves_bands_open():
    unknown = package(mode={"row_time_us": None, "max_fps": 60.0})
    got = flicker_view(unknown, state(unknown, light={"lamp": "magnetic", "shutter_deg": 45.0}))
    assert got["readout_ms"] is None
    row = next(r for r in got["lamps"] if r["kind"] == "magnetic")
    assert row["bands"] is None
    assert "whether bands show is not known" in row["text"]


def test_a_measured_ripple_counts_for_its_lamp_only():
    small = state(package(), light={"lamp": "tungsten", "shutter_deg": 50.0, "ripple_percent": 0.5})
    rows = {r["kind"]: r for r in flicker_view(package(), small)["lamps"]}
    assert rows["tungsten"]["ripple_percent"] == pytest.approx(0.5)
    assert rows["magnetic"]["ripple_percent"] == 75
    assert rows["steady"]["verdict"] == "none"


def test_native_values_are_among_those_that_can_be_set():
    with pytest.raises(InvalidInputError, match="640 is not in eis"):
        parse_body(a_body([a_mode()], eis=[400, 800], base_eis=[640]))
