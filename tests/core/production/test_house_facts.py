"""Facts of the house: what stands in is a setting, and holds on every page."""

from dataclasses import replace

import pytest

from hextan.core.base import CannotFocusError, InvalidInputError
from hextan.core.bench import BenchState, bench_view, compute_bench
from hextan.core.documents import LensSetDocument
from hextan.core.documents.lens_set import lens_set_of
from hextan.core.equipment import f_of_t, house_facts, parse_settings
from hextan.core.kit import CoverageAsk, MatrixAsk, coverage_view, kit_matrix
from hextan.core.shots import Shot, check_usual, needs_of
from hextan.core.shots.view import answer_of_shot
from tests.core.kits import a_lens, demo_package, format_named, lens_named

DEMO = demo_package()


@pytest.mark.parametrize(("stops", "f_number"), [(1 / 3, 1.782), (0.0, 2.0), (0.5, 1.682)])
def test_an_f_number_from_t_is_as_much_wider_as_the_house_says(stops, f_number):
    """N = T / 2^(stops/2): a third of a stop below T2 is f/1.78."""
    document = LensSetDocument.model_validate(
        {"key": "s", "name": "Set", "maker": "M", "lenses": [a_lens(f_number=None, t_stop=2.0)]}
    )
    (glass,) = lens_set_of(document, f_of_t=f_of_t(parse_settings({"t_loss_stops": stops}))).lenses
    assert glass.f_number == pytest.approx(f_number, abs=1e-3)
    assert "f_number" in glass.assumed


def test_dark_corners_are_called_so_from_the_share_that_the_house_says():
    """Whatever is dark by more than nothing is short at 0 %, and nothing is short at the largest share there is."""
    columns = kit_matrix(DEMO, MatrixAsk()).get("columns")
    assert columns
    shares = [x for row in kit_matrix(DEMO, MatrixAsk())["rows"] for x in row["dark_share"] if x]
    middle = sorted(shares)[len(shares) // 2]
    for seen in (0.0, middle, max(shares)):
        facts = house_facts(parse_settings({"seen_dark_percent": min(100 * seen, 20)}), DEMO.bodies)
        package = replace(DEMO, seen_dark=facts["seen_dark"])
        for row in kit_matrix(package, MatrixAsk())["rows"]:
            for dark, verdict in zip(row["dark_share"], row["verdict"], strict=True):
                if dark is not None and verdict != "impossible" and abs(dark - facts["seen_dark"]) > 1e-5:
                    assert (verdict == "short") == (dark > facts["seen_dark"]), (dark, verdict)


@pytest.mark.parametrize(("times", "short"), [(0.9, True), (1.1, False)])
def test_the_bench_its_window_map_and_coverage_call_the_same_corners_dark(times, short):
    here, glass = format_named(DEMO, "Full → UHD", "Ebb 64"), lens_named(DEMO, "Wren 28")
    way = {"adapter_id": next(a.id for a in DEMO.adapters if a.name == "K50 to W54, plain")}
    state = BenchState(format_id=here, lens_id=glass, subject_m=3.0, **way)
    dark = coverage_view(DEMO, CoverageAsk(format_id=here, lens_id=glass))["map"]["dark_share"]
    assert 0.001 < dark < 0.3
    package = replace(DEMO, seen_dark=dark * times)
    view = bench_view(package, state, [])
    row = next(row for row in view["rows"] if row["format_id"] == here)
    assert (row["verdict"] == "short") == short
    assert any(note["code"] == "coverage_short" for note in row["answer"]["notes"]) == short
    assert (
        coverage_view(package, CoverageAsk(format_id=here, lens_id=glass))["map"]["verdict"] == "short"
    ) == short
    found = compute_bench(package, state, format_ids=()).evaluation
    assert bool(found.short[0]) == short


@pytest.mark.parametrize(
    ("unit", "brackets", "told"),
    [("m", False, "0.40 m from"), ("ft", False, "1' 3½\" from"), ("m", True, "0.40 m (1' 3½\") from")],
)
def test_notes_of_the_bench_tell_distances_as_the_production_does(unit, brackets, told):
    near = {"format_id": format_named(DEMO, "Full → UHD", "Ebb 64"), "lens_id": lens_named(DEMO, "Merrow 40")}
    state = BenchState(subject_m=0.3, unit=unit, **near)
    view = bench_view(replace(DEMO, brackets=brackets), state, [])
    answer = next(row["answer"] for row in view["rows"] if row["format_id"] == state.format_id)
    notes = {note["code"]: note["text"] for note in answer["notes"]}
    assert told in notes["close_focus"]
    with pytest.raises(CannotFocusError) as refused:
        compute_bench(replace(DEMO, brackets=brackets), state.model_copy(update={"subject_m": 0.1}))
    assert (
        "m (" in str(refused.value).split(" (given")[0] or '" (' in str(refused.value).split(" (given")[0]
    ) == brackets


def test_sentences_tell_both_units_only_where_the_production_wants_them():
    state = BenchState(
        format_id=format_named(DEMO, "Full → UHD", "Ebb 64"),
        lens_id=lens_named(DEMO, "Merrow 50"),
        subject_m=3.0,
        focus_m=3.5,
    )
    plain = bench_view(DEMO, state, [])["links"]["subject"]["text"]
    both = bench_view(replace(DEMO, brackets=True), state, [])["links"]["subject"]["text"]
    assert plain.startswith("Focus 0.50 m behind")
    assert both.startswith("Focus 0.50 m (1' 7½\") behind")
    feet = bench_view(DEMO, state.model_copy(update={"unit": "ft"}), [])["links"]["subject"]["text"]
    assert feet.startswith("Focus 1' 7½\" behind")


def test_a_shot_that_says_no_stop_has_the_usual_one_as_a_wish():
    house = parse_settings({"usual_stop": "T4-T5.6", "usual_rig": "gimbal 4 kg"})
    needs = needs_of(Shot(name="1", framing="waist", distance="3 m"), DEMO, house)
    assert (needs.stops.span.low, needs.stops.span.high, needs.must("stop")) == (4.0, 5.6, False)
    assert (needs.rig.limit_kg, needs.must("rig")) == (4.0, False)
    own = needs_of(Shot(name="1", framing="waist", distance="3 m", stop="T2"), DEMO, house)
    assert (own.stops.span.low, own.must("stop")) == (2.0, True)
    # A row that asks nothing stays open.
    assert not needs_of(Shot(name="1"), DEMO, house).asks
    usual = answer_of_shot(DEMO, house, Shot(name="1", framing="waist", distance="3 m"))["best"]
    free = answer_of_shot(DEMO, parse_settings({}), Shot(name="1", framing="waist", distance="3 m"))["best"]
    assert 3.9 <= usual["stop"] <= 5.7 and free["stop"] < 3.9


def test_a_usual_cell_that_cannot_be_read_is_refused_where_it_stands():
    with pytest.raises(InvalidInputError) as error:
        check_usual(parse_settings({"usual_stop": "bright", "usual_rig": "gimbal 4 kg"}))
    assert [fault.field for fault in error.value.faults] == ["settings.usual_stop"]
