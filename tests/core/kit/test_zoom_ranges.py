"""Zooms whose circle covers a part of their range: no row may be worse than trying every focal length."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents import parse_body
from hextan.core.equipment import LensSetting, ways
from hextan.core.kit.arrays import kit_of
from hextan.core.kit.ask import FieldAsk, LadderAsk, MatchAsk, SlowAsk
from hextan.core.kit.dark_corners import lies_of
from hextan.core.kit.framing import find_field
from hextan.core.kit.high_speed import slow_motion
from hextan.core.kit.ladder import kit_ladder
from hextan.core.kit.match import kit_match
from hextan.core.kit.reach import reaches, verdict_at
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, format_named, kit_package, lens

PLAIN = {"aspect": None, "long_edge_px": None}
STEPS = 300
BODY = parse_body(
    a_body(
        [
            a_mode(formats=[a_format("UHD")]),
            a_mode("Right", window=[4000, 2250], offset=[500, 0], formats=[a_format("R")]),
            a_mode("Small", window=[3000, 1688], formats=[a_format("HD")]),
        ],
        crops=[{"key": "sc", "name": "small circle", "lens": "short_circle",
                "rules": [{"mode": m, "factor": 1.4} for m in ("Full", "Right", "Small")]}],
    )
)  # fmt: skip


def zoom(number, **more):
    return lens(number, name=f"Zoom {number}", image_circle_mm=None, **more)


def every_setting(package, ask, here):
    """(lens, focal length behind the adapters, size by the dimension asked, whether it covers), by trying them all."""
    by = ask.on.by if hasattr(ask, "on") else ask.reference.by
    for _, each in package.lenses.values():
        tried = (
            np.geomspace(each.focal_min_mm, each.focal_max_mm, STEPS).tolist()
            if each.is_zoom
            else [each.focal_min_mm]
        )
        for way in ways(package.rig, each, here.body):
            if way.reasons or each.projection != "rectilinear":
                continue
            for focal in tried:
                setting = LensSetting(package.rig, each, way.adapters, focal)
                lies = lies_of(here, ask, setting)
                w, h = lies.picture[0] * each.squeeze, lies.picture[1]
                size = {"width": w, "height": h, "diagonal": math.hypot(w, h)}[by]
                yield (
                    each,
                    focal * way.magnification,
                    size,
                    setting.circle_mm is None or setting.circle_mm >= lies.needed_mm,
                )


circles = st.lists(
    st.tuples(st.floats(18, 90), st.floats(20, 50)), min_size=1, max_size=4, unique_by=lambda r: r[0]
)
stops = st.lists(
    st.tuples(st.floats(2, 5), st.floats(20, 50)), min_size=1, max_size=4, unique_by=lambda r: r[0]
)


@settings(max_examples=examples(12), deadline=None)
@given(circles, stops, st.floats(20, 90), st.booleans())
def test_no_row_of_a_match_is_worse_than_every_focal_length(by_focal, by_stop, wanted, crop):
    package = kit_package(
        [BODY],
        [zoom(1, focal=24.0, focal_long_mm=70.0, circle_by="focal",
              circles=[{"at": a, "circle_mm": c} for a, c in by_focal]),
         zoom(2, focal=28.0, focal_long_mm=85.0, t_stop=2.2, t_stop_long=4.5, circle_by="stop",
              circles=[{"at": a, "circle_mm": c} for a, c in by_stop])],
    )  # fmt: skip
    crops = [c.id for b in package.bodies for c in b.crops] if crop else []
    ask = MatchAsk(focal_mm=wanted, delivery=PLAIN, crop_ids=crops)
    for row in kit_match(package, ask)["rows"]:
        here = package.formats[row["format_id"]]
        tried = [
            (abs(math.log(f / (wanted * s / 36.0))), covers)
            for _, f, s, covers in every_setting(package, ask, here)
        ]
        covering = [off for off, covers in tried if covers]
        near = row["nearest"]
        if covering:
            off = abs(math.log(near["focal_mm"] / near["needed_mm"]))
            assert near["covers"]
            assert off <= min(covering) + 1e-9
            # Nor better than there is: what is proposed does cover.
            assert off >= min(covering) - 2 * math.log(85 / 24) / STEPS


DEMO = demo_package()


@pytest.mark.parametrize("focal", [18.0, 27.0, 35.0, 50.0, 85.0])
@pytest.mark.parametrize("mounted", ["simplest", "every"])
def test_like_a_lens_on_full_frame_in_the_demo(focal, mounted):
    """Every lens, adapter and focal length of the demo: where another covers nearer, it is the answer."""
    ask = MatchAsk(focal_mm=focal, mounted=mounted)
    kit = kit_of(DEMO, ask)
    ids = [p.recording.id for p in kit.places]
    for row in kit_match(DEMO, ask)["rows"]:
        near = row["nearest"]
        if near is None or not near["covers"]:
            continue
        j = ids.index(row["format_id"])
        for i, entry in enumerate(kit.entries):
            if entry.end == "long" or entry.lens.projection != "rectilinear" or not kit.mounts[i, j]:
                continue
            needed = focal * float(kit.picture_w[i, j]) * entry.lens.squeeze / 36.0
            m = float(kit.magnification[i, j])
            tried = (
                np.geomspace(entry.lens.focal_min_mm, entry.lens.focal_max_mm, 400)
                if entry.end
                else [entry.focal_mm]
            )
            for f in tried:
                circle = entry.lens.circle_at_mm(float(f))
                if circle is None or circle * m >= float(kit.needed_mm[i, j]):
                    off = abs(math.log(f * m / needed))
                    assert abs(math.log(near["focal_mm"] / near["needed_mm"])) <= off + 1e-9, (
                        row["names"],
                        entry.name,
                    )


def with_circles(ends, middle):
    """A zoom from 24 to 70 mm whose circle is another at 40 mm than at its ends."""
    circles = [{"at": at, "circle_mm": mm} for at, mm in ((24.0, ends), (40.0, middle), (70.0, ends))]
    return kit_package([BODY], [zoom(1, focal=24.0, focal_long_mm=70.0, circle_by="focal", circles=circles)])


def test_the_covered_part_is_used_by_ladder_slow_motion_and_framing():
    """The circle reaches 41.3 mm in the middle of the range alone: neither end covers, the middle does."""
    package = with_circles(ends=38.0, middle=44.0)
    full = format_named(package, "UHD")
    needed = package.formats[full].needed_circle_mm
    low = 24 * (40 / 24) ** ((needed - 38) / 6)
    high = 40 * (70 / 40) ** ((44 - needed) / 6)
    rung = next(r for r in kit_ladder(package, LadderAsk(delivery=PLAIN))["rungs"] if r["format_id"] == full)
    assert (rung["focal_mm"], rung["verdict"]) == (pytest.approx(low, rel=1e-6), "marginal")
    assert rung["effective_long_mm"] / rung["effective_mm"] == pytest.approx(high / low, rel=1e-6)
    slow = slow_motion(package, SlowAsk(base_format_id=full, fps=10.0, delivery=PLAIN))
    lines = next(r for r in slow["rows"] if r["format_id"] == full)["lines"]
    assert [line["lens"] for line in lines] == [f"Zoom 1 at {low:.1f}", f"Zoom 1 at {high:.1f}"]
    assert all(line["nearest"]["same"] for line in lines)
    found = find_field(
        package, FieldAsk(find="lens", width_m=2.0, distance_m=2.0, format_id=full, delivery=PLAIN)
    )
    best = found["answers"][0]
    assert best["verdict"] in ("covers", "marginal")
    assert low <= best["focal_mm"] <= high
    assert best["same"]


def test_a_circle_that_just_reaches_still_covers():
    """What is proposed at the edge of its range is judged as covering there, and not short by a rounding."""
    table = [{"at": 24.0, "circle_mm": 38.0}, {"at": 70.0, "circle_mm": 44.0}]
    package = kit_package([BODY], [zoom(1, focal=24.0, focal_long_mm=70.0, circle_by="focal", circles=table)])
    kit = kit_of(package, MatchAsk(delivery=PLAIN))
    j = [p.recording.name for p in kit.places].index("UHD")
    edge = reaches(kit, 0, j)[0].low_mm
    assert verdict_at(kit, 0, j, edge) != 2
    setting = LensSetting(package.rig, next(iter(package.lenses.values()))[1], (), edge)
    assert setting.circle_mm >= package.formats[format_named(package, "UHD")].needed_circle_mm - 1e-8


@pytest.mark.parametrize("wanted", [26.0, 65.0])
def test_a_range_that_covers_at_both_ends_and_not_between(wanted):
    """Two parts of one range: each is used for what lies in it, and both stand on the ladder."""
    package = with_circles(ends=44.0, middle=38.0)
    full = format_named(package, "UHD")
    row = next(
        r
        for r in kit_match(package, MatchAsk(focal_mm=wanted, delivery=PLAIN))["rows"]
        if r["format_id"] == full
    )
    assert row["nearest"]["covers"]
    assert row["nearest"]["focal_mm"] == pytest.approx(wanted)
    rungs = [r for r in kit_ladder(package, LadderAsk(delivery=PLAIN))["rungs"] if r["format_id"] == full]
    assert len(rungs) == 2
