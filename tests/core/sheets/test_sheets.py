"""Sheets as data: what each kind says, held against computations of its own, and what happens where something is lacking."""

import math
from dataclasses import replace

import pytest

from hextan.core.bench import BenchState
from hextan.core.packing import Packing
from hextan.core.sheets import KINDS, SheetPlan, fingerprint, sheet_of
from tests.core.kits import format_named, lens, lens_named
from tests.core.sheets.material import EMPTY, column, demo, made, row, tables


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_makes_a_sheet_of_the_demo(kind):
    sheet = made(kind)
    assert sheet["why_empty"] == ""
    assert sheet["blocks"]
    assert sheet["stamp"][0] == {"name": "Production", "text": "Low Water"}
    for table in tables(sheet):
        assert table["rows"]
        assert table["fixed"] < len(table["columns"])
        for each in table["rows"]:
            assert len(each["cells"]) == len(table["columns"])
            for cell, head in zip(each["cells"], table["columns"], strict=True):
                assert "nan" not in cell["text"]
                assert "None" not in cell["text"]
                if cell["value"] is not None:
                    assert math.isfinite(cell["value"])
                    assert not head["words"]


@pytest.mark.parametrize("kind", KINDS)
def test_a_production_with_nothing_says_what_is_missing(kind):
    sheet = made(kind, EMPTY)
    if kind in ("exposure", "flicker"):
        assert sheet["blocks"]
    else:
        assert sheet["why_empty"]
        assert sheet["blocks"] == []


def thin_lens_limits(f, n, c, distance):
    """Near and far from the sensor plane of a thin symmetrical lens, mm: the textbook's formulas, written out here."""
    # From object and image distance s + s' = D and 1/s + 1/s' = 1/f.
    s = (distance + math.sqrt(distance * distance - 4 * distance * f)) / 2
    near = s * f * f / (f * f + n * c * (s - f))
    under = f * f - n * c * (s - f)
    behind = distance - s
    return near + behind, (s * f * f / under + behind) if under > 0 else math.inf


def test_depth_is_that_of_the_textbook_and_rounded_inwards():
    m = demo()
    glass = m.package.lenses[lens_named(m.package, "Merrow 40")][1]
    table = tables(made("depth", lens_ids=[glass.id], distances_m=[2.0, 5.0], stops=[2.8, 8.0]))[0]
    assert [c["group"] for c in table["columns"]] == ["", "T2.8", "T2.8", "T8", "T8"]
    coc = float(table["told"].split("under ")[1].split(" mm")[0])
    for distance in (2.0, 5.0):
        cells = row(table, f"{distance:.2f}")
        for stop in (2.8, 8.0):
            n = stop * glass.f_number / glass.t_stop
            near, far = (x / 1000 for x in thin_lens_limits(40.0, n, coc, distance * 1000))
            got_near, got_far = (cells[column(table, t, f"T{stop:g}")] for t in ("near", "far"))
            # The circle of confusion is printed with four digits of a millimetre.
            assert got_near["value"] == pytest.approx(near, rel=3e-3)
            assert got_far["value"] == pytest.approx(far, rel=3e-3)
            assert float(got_near["text"]) >= got_near["value"] - 1e-4
            assert float(got_far["text"]) <= got_far["value"] + 1e-4


def test_depth_from_the_front_counts_from_there():
    m = demo()
    glass = next(
        lens for _, lens in m.package.lenses.values() if lens.length_mm and lens.name.startswith("Merrow")
    )
    flange = m.package.rig.mounts_by_name[glass.mount].flange_mm
    off = (flange + glass.length_mm) / 1000
    front = tables(made("depth", lens_ids=[glass.id], distances_m=[3.0], stops=[4.0], from_front=True))[0]
    sensor = tables(made("depth", lens_ids=[glass.id], distances_m=[3.0 + off], stops=[4.0]))[0]
    for a, b in zip(front["rows"][0]["cells"], sensor["rows"][0]["cells"], strict=True):
        assert a["value"] == pytest.approx(b["value"] - off, abs=2e-4)
    assert "from the front of the lens" in front["told"]
    unknown = replace(glass, length_mm=None)
    sets = tuple(
        replace(s, lenses=tuple(unknown if g.id == glass.id else g for g in s.lenses))
        for s in m.package.lens_sets
    )
    told = made(
        "depth", replace(m, package=replace(m.package, lens_sets=sets)), lens_ids=[glass.id], from_front=True
    )
    assert any("not stated" in note for note in told["notes"])


def test_depth_in_feet_and_by_distance():
    m = demo()
    ids = [lens_named(m.package, name) for name in ("Merrow 25", "Merrow 50")]
    feet = tables(made("depth", lens_ids=ids[:1], distances_m=[3.048], stops=[4.0], unit="ft"))[0]
    assert feet["rows"][0]["cells"][0]["text"] == "10' 0\""
    assert feet["rows"][0]["cells"][0]["value"] == pytest.approx(10.0)
    assert feet["columns"][0]["unit"] == "ft"
    both = tables(made("depth", lens_ids=ids[:1], distances_m=[3.0], stops=[4.0], unit="both"))
    assert [t["columns"][0]["unit"] for t in both] == ["m", "ft"]
    by_distance = tables(made("depth", lens_ids=ids, distances_m=[2.0, 4.0], stops=[4.0], each="distance"))
    assert [t["heading"] for t in by_distance] == ["Focus at 2.00 m", "Focus at 4.00 m"]
    assert [r["cells"][0]["text"] for r in by_distance[0]["rows"]] == ["Merrow 25", "Merrow 50"]
    one = tables(made("depth", lens_ids=ids[:1], distances_m=[2.0], stops=[4.0]))[0]
    assert by_distance[0]["rows"][0]["cells"][1:] == one["rows"][0]["cells"][1:]


def test_depth_leaves_out_what_cannot_be_set():
    m = demo()
    glass = m.package.lenses[lens_named(m.package, "Merrow 50")][1]
    near = made("depth", lens_ids=[glass.id], distances_m=[0.05])
    assert "none of the distances of this sheet can be set on it" in near["why_empty"]
    wide = tables(made("depth", lens_ids=[glass.id], distances_m=[3.0], stops=[0.7, 4.0]))[0]
    assert {c["group"] for c in wide["columns"]} == {"", "T4"}
    dunlin = made("depth", lens_sets=["Dunlin"])
    assert "cannot be mounted on Ebb 64" in dunlin["why_empty"]


def test_effective_focal_length_and_the_stop_that_compares():
    m = demo()
    table = tables(made("lens_by_format", lens_sets=["Merrow"], bodies=["Ebb 64"]))[0]
    cells = row(table, "Merrow 50")
    glass = m.package.lenses[lens_named(m.package, "Merrow 50")][1]
    here = m.package.formats[format_named(m.package, "S35 → UHD", "Ebb 64")]
    group = next(c["group"] for c in table["columns"] if c["group"].startswith(("S35 → UHD", "S35 4.3K raw")))
    crop = 24.89 / (here.mode.window[0] * here.body.pitch_um / 1000)
    assert cells[column(table, "equivalent", group)]["value"] == pytest.approx(50 * crop, rel=2e-3)
    assert cells[column(table, "depth like", group)]["value"] == pytest.approx(
        glass.f_number * crop, rel=2e-3
    )
    assert cells[column(table, "covers", group)]["text"] == "covers"


def test_fields_and_framings():
    m = demo()
    lens_ids = [lens_named(m.package, "Merrow 50")]
    sheet = made("field", lens_ids=lens_ids, distances_m=[4.0], everything=True)
    wide, framing = tables(sheet)[:2]
    here = m.package.formats[m.bench.format_id]
    sensor = here.mode.window[0] * here.body.pitch_um / 1000
    s = (4000 + math.sqrt(4000**2 - 4 * 4000 * 50)) / 2
    got = row(wide, "Merrow 50")[column(wide, "wide", "at 4.00 m")]
    assert got["value"] == pytest.approx(sensor * s / (4000 - s) / 1000, rel=3e-3)
    full = row(framing, "Merrow 50")[column(framing, "full figure")]["value"]
    face = row(framing, "Merrow 50")[column(framing, "face")]["value"]
    assert full > 3 * face


def test_monitor_marks_of_a_wide_picture_in_a_high_one():
    m = demo()
    bench = m.bench.model_copy(update={"delivery": m.bench.delivery.model_copy(update={"aspect": 2.39})})
    table = tables(
        made(
            "monitor",
            replace(m, bench=bench, package=replace(m.package, deliveries=())),
            monitor_mm=480.0,
            everything=True,
        )
    )[0]
    uhd = next(r["cells"] for r in table["rows"] if "S35" in r["section"])
    high = 480.0 / (3840 / 2160)
    assert [c["value"] for c in uhd[1:]] == pytest.approx(
        [0.0, (high - 480 / 2.39) / 2, 480.0, 480 / 2.39], abs=0.01
    )
    inches = tables(made("monitor", replace(m, bench=bench), monitor_mm=480.0, unit="ft"))[0]
    assert inches["columns"][1]["unit"] == "in"


def test_cards_of_a_day():
    m = demo()
    table = tables(made("cards", bodies=["Ebb 64"]))[0]
    first = table["rows"][0]["cells"]
    card = m.settings.cards[0]
    rate = first[column(table, "data")]["value"]
    lasts = first[column(table, "lasts", card.name)]["value"]
    cards = first[column(table, "a day", card.name)]["value"]
    body = next(b for b in m.package.bodies if b.name == "Ebb 64")
    filled = body.slots if body.slot_use == "after" else 1
    assert lasts == pytest.approx(card.bytes / 1e6 / rate / 60 * filled, rel=1e-6)
    assert cards == math.ceil(m.settings.minutes_a_day / (lasts / filled))


def test_cards_of_a_body_that_writes_everything_twice_are_twice_as_many():
    m = demo()

    def cards(use):
        bodies = tuple(
            replace(body, slots=2, slot_use=use) for body in m.package.bodies if body.name == "Ebb 64"
        )
        table = tables(made("cards", replace(m, package=replace(m.package, bodies=bodies))))[0]
        return [r["cells"][column(table, "a day", m.settings.cards[0].name)]["value"] for r in table["rows"]]

    once, twice = cards("after"), cards("both")
    assert twice == [None if n is None else 2 * n for n in once]


def test_flicker_is_told_with_its_caution():
    sheet = made("flicker")
    table = tables(sheet)[0]
    assert row(table, "25")[1]["text"] == "1/50 s"
    assert {r["cells"][0]["value"] for r in table["rows"]} >= {25.0, 100.0, 200.0}
    assert "none" in row(table, "200")[1]["text"]
    assert any(
        "photosensitive" in line
        for b in sheet["blocks"]
        if b["kind"] == "words" and b["caution"]
        for line in b["lines"]
    )
    assert any(
        "photosensitive" in line
        for b in made("flicker", EMPTY)["blocks"]
        if b["kind"] == "words"
        for line in b["lines"]
    )


def test_the_light_for_a_stop():
    """980 lux for T2.8 at 1/50 s and EI 100: the incident formula with C = 250 (ISO 2720, from memory)."""
    m = demo()
    table = tables(made("exposure", stops=[2.8]))[0]
    at_800 = row(table, "800")[1]["value"]
    assert at_800 == pytest.approx(980 / 8, rel=1e-6)
    feet = tables(made("exposure", stops=[2.8], unit="ft"))[0]
    assert row(feet, "800")[1]["value"] == pytest.approx(980 / 8 / 10.764, rel=1e-4)
    assert m.settings.base_fps == "25"


def test_claims_are_told_with_their_verdict():
    rows = tables(made("claims", bodies=["Ebb 64"]))[0]["rows"]
    assert {r["section"] for r in rows} >= {"Crop factors"}
    assert any(r["cells"][1]["tone"] == "short" or r["cells"][1]["tone"] == "marginal" for r in rows)
    assert all(r["cells"][2]["text"] for r in rows)


def test_the_crop_chain_multiplies():
    table = tables(made("chain", bodies=["Ebb 64"]))[0]
    crops = [j for j, c in enumerate(table["columns"]) if c["group"] == "Switches"]
    assert crops
    for each in table["rows"]:
        product = math.prod(each["cells"][j]["value"] or 1.0 for j in crops)
        off, on = (each["cells"][column(table, t)]["value"] for t in ("switches off", "all that can be on"))
        assert on == pytest.approx(off * product)
        assert each["cells"][-1]["value"] == pytest.approx(50 * on)


def test_shots_are_told_with_pictures_and_for_the_days_that_are_asked():
    whole, second = made("shots"), made("shots", days=["2"], pictures=False)
    assert len(tables(whole)[0]["rows"]) == 40
    pictures = next(b for b in whole["blocks"] if b["kind"] == "pictures")
    drawn = [p for r in pictures["rows"] for p in r["pictures"] if p is not None]
    assert len(drawn) >= 37
    assert all(p["shapes"] for p in drawn)
    assert {r["section"].split(" unit")[0] for r in tables(second)[0]["rows"]} == {"Day 2"}
    assert all(b["kind"] != "pictures" for b in second["blocks"])


def test_the_kit_by_its_cases():
    sheet = made("kit", which="River days")
    table = tables(sheet)[0]
    ebb = next(r for r in table["rows"] if r["cells"][2]["text"] == "Ebb 64")
    assert ebb["section"].startswith("A camera · ")
    assert [c["text"] for c in ebb["cells"][5:7]] == ["Halewick Hire", "E64-0417"]
    weights = {r["section"]: 0.0 for r in table["rows"]}
    for r in table["rows"]:
        weights[r["section"]] += r["cells"][1]["value"] * (r["cells"][4]["value"] or 0.0)
    for section, kg in weights.items():
        assert float(section.rsplit(" · ", 1)[1].split()[0]) == pytest.approx(kg, abs=0.051)
    # In feet the same in pounds, 0.45359237 kg each.
    in_feet = replace(m := demo(), settings=m.settings.model_copy(update={"unit": "ft"}))
    pounds = tables(made("kit", in_feet, which="River days"))[0]
    assert [c["unit"] for c in pounds["columns"]][4] == "lb"
    for one, other in zip(table["rows"], pounds["rows"], strict=True):
        kg, lb = one["cells"][4]["value"], other["cells"][4]["value"]
        assert lb == (None if kg is None else pytest.approx(kg / 0.45359237, abs=0.006))
    assert not any(
        line.split("for ")[1].startswith("s1")
        for b in sheet["blocks"]
        if b["kind"] == "words"
        for line in b["lines"]
    )
    assert "any more" in made("kit", which="Gone")["why_empty"]
    waiting = made("kit", replace(demo(), kit=lambda m, plan: None))
    assert "looked for" in waiting["why_empty"]
    bare = made("kit", replace(demo(), packing=Packing()))
    assert "Smallest kit" in bare["lead"]


def test_a_look_sheet_of_one_lens_goes_along_distances():
    m = demo()
    sheet = made("look", lens_ids=[lens_named(m.package, "Merrow 50")], distances_m=[2.0, 4.0])
    (block,) = sheet["blocks"]
    assert [r["title"] for r in block["rows"]] == ["2.00 m", "4.00 m"]
    near, far = (r["pictures"][0] for r in block["rows"])

    def tall(picture):
        body = next(s for s in picture["shapes"] if s["style"] == "dark")
        ys = [y for _, y in body["points"]]
        return max(ys) - min(ys)

    assert tall(near) == pytest.approx(2 * tall(far), rel=0.03)


def test_dark_corners_are_hatched_where_the_circle_is_short():
    m = demo()
    full = format_named(m.package, "Full → UHD", "Ebb 64")
    picture = made("look", lens_ids=[lens_named(m.package, "Wren 20")], format_ids=[full])["blocks"][0][
        "rows"
    ][0]["pictures"][0]
    hatched = [s for s in picture["shapes"] if s["style"] == "hatch"]
    assert len(hatched) == 4

    def size(points):
        return (
            abs(
                sum(
                    x0 * y1 - x1 * y0
                    for (x0, y0), (x1, y1) in zip(points, points[1:] + points[:1], strict=True)
                )
            )
            / 2
        )

    dark = sum(size(s["points"]) for s in hatched) / (picture["width"] * picture["height"])
    told = tables(made("coverage", lens_ids=[lens_named(m.package, "Wren 20")], format_ids=[full]))[0]
    share = float(told["rows"][0]["cells"][-1]["text"].split(" %")[0]) / 100
    # The picture is a part of the recording, whose share is told.
    assert dark == pytest.approx(share, abs=0.08)
    assert dark > 0.05


def test_what_the_figures_rest_on_stands_in_the_stamp():
    m = demo()
    crop = next(crop for body in m.package.bodies if body.name == "Ebb 64" for crop in body.crops)
    delivery = m.bench.delivery.model_copy(update={"aspect": 2.39})
    on = replace(m, bench=m.bench.model_copy(update={"crop_ids": [crop.id], "delivery": delivery}))
    for kind in ("lens_by_format", "look", "depth", "field", "coverage", "bench"):
        told = {fact["name"]: fact["text"] for fact in made(kind, on, lens_sets=["Merrow"])["stamp"]}
        assert (told["Switched on"], told["Picture"]) == (crop.name, "2.39:1 delivered"), kind
        assert "Switched on" not in {fact["name"] for fact in made(kind, lens_sets=["Merrow"])["stamp"]}


def test_a_fingerprint_changes_with_what_is_on_the_sheet_and_with_nothing_else():
    m = demo()
    before = fingerprint(made("depth", lens_sets=["Merrow"]))
    moved = replace(m, bench=m.bench.model_copy(update={"subject_m": 7.0}))
    assert fingerprint(made("depth", moved, lens_sets=["Merrow"])) == before
    other = replace(m, package=replace(m.package, coc=m.package.coc.model_copy(update={"divisor": 1400.0})))
    assert fingerprint(made("depth", other, lens_sets=["Merrow"])) != before


def test_what_no_sheet_could_hold_is_refused_before_it_is_computed(monkeypatch):
    monkeypatch.setattr("hextan.core.sheets.distances.MOST_TABLES", 100)
    monkeypatch.setattr("hextan.core.sheets.lenses.MOST_CELLS", 100)
    for kind, what in (
        ("depth", "tables"),
        ("field", "rows"),
        ("lens_by_format", "cells"),
        ("coverage", "cells"),
    ):
        told = made(kind, bodies=["Ebb 64"])
        assert told["blocks"] == []
        assert f"{what}" in told["why_empty"] and "at most: choose fewer" in told["why_empty"]


def test_what_was_chosen_and_is_gone_is_noted():
    told = made("lens_by_format", lens_ids=[999], lens_sets=["Merrow", "Lost"], format_ids=[12345])
    assert any("lenses that were chosen" in note for note in told["notes"])
    assert any("lens set Lost" in note for note in told["notes"])
    assert any("recording formats that were chosen" in note for note in told["notes"])


def test_a_lens_that_states_no_stop_or_circle_is_told_as_far_as_it_goes():
    m = demo()
    plain = replace(lens(900, name="Plain", mount="W54", image_circle_mm=None), f_number=None, t_stop=None)
    sets = (*m.package.lens_sets, replace(m.package.lens_sets[0], id=90, name="Old", lenses=(plain,)))
    with_it = replace(m, package=replace(m.package, lens_sets=sets))
    for kind in KINDS:
        sheet = sheet_of(with_it, SheetPlan(key="k", kind=kind, lens_ids=[900]))
        assert sheet["blocks"] or sheet["why_empty"], kind
    assert "without a stop" in made("depth", with_it, lens_ids=[900])["why_empty"]


def test_a_bench_that_cannot_be_computed_is_told():
    m = demo()
    near = replace(m, bench=BenchState(format_id=m.bench.format_id, lens_id=m.bench.lens_id, subject_m=0.01))
    assert made("bench", near)["why_empty"]
