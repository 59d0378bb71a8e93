"""The lens as it is set on the Bench: zooms, stops, adapters, mounts, crops; without database or web."""

import math

import pytest

from hextan.core.base import InvalidInputError, NotFoundError
from hextan.core.bench.state import BenchState, mended
from hextan.core.bench.view import bench_view
from hextan.core.documents import parse_body
from hextan.core.equipment import Lens, LensSet, MountAdapter
from tests.core.bodies import a_body, a_format, a_mode, package_of


def a_lens(number, name, short, long=None, f=(1.8, None), t=(2.0, None), circle=40.0, **changes):
    given = {"squeeze": 1.0, "close_focus_m": 0.5, "mount": "W54", "projection": "rectilinear"} | changes
    return Lens(number, name, short, long or short, f[0], t[0], f[1], t[1], circle, **given)


LENSES = (
    a_lens(1, "Prime 40", 40.0),
    a_lens(2, "Zoom 20-80", 20.0, 80.0, f=(2.6, 4.2), t=(2.8, 4.5)),
    a_lens(3, "Only T", 50.0, f=(None, None), t=(1.5, None)),
    a_lens(4, "Only f", 50.0, f=(1.4, None), t=(None, None)),
    a_lens(5, "Scope 50", 50.0, squeeze=2.0, circle=30.0),
    a_lens(6, "Other mount", 35.0, mount="K50", circle=None),
)
ADAPTERS = (
    MountAdapter(1, "plain", 1.0, "K50", "W54"),
    MountAdapter(2, "reducer", 0.71, "K50", "W54"),
    MountAdapter(3, "extender", 1.4, "W54", "W54"),
)
CROPS = [
    {"key": "s", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.1}]},
    {"key": "c", "name": "Small circle", "lens": "short_circle", "rules": [{"mode": "Full", "factor": 1.5}]},
    {"key": "l", "name": "Straighten", "lens": "spherical", "rules": [{"mode": "Full", "factor": 1.02}]},
]
FORMATS = [a_format("UHD", rates=["25", "50"]), a_format("HD", raster=[1920, 1080], codec="long")]
BODY = parse_body(
    a_body([a_mode(formats=FORMATS, max_fps=45.0), a_mode("Small", window=[3000, 1688])], crops=CROPS)
)
PACKAGE = package_of([BODY], lens_sets=(LensSet(1, "Lantern Works", "all", LENSES),), adapters=ADAPTERS)
FORMAT = next(iter(PACKAGE.formats))
CROP_IDS = {crop.name: crop.id for crop in PACKAGE.bodies[0].crops}


def view(lens=1, **changes):
    return bench_view(PACKAGE, BenchState(format_id=FORMAT, lens_id=lens, **changes), [])


def chosen(got):
    return next(row for row in got["rows"] if row["format_id"] == FORMAT)


@pytest.mark.parametrize(
    ("focal", "stop"), [(20.0, 2.8), (80.0, 4.5), (40.0, math.sqrt(2.8 * 4.5)), (None, 2.8)]
)
def test_a_zoom_opens_less_towards_its_long_end(focal, stop):
    lens = view(2, focal_mm=focal)["lens"]
    assert lens["stop"] == pytest.approx(stop)
    assert lens["focal_mm"] == (focal or 20.0)


def test_depth_goes_by_the_f_number_that_belongs_to_the_t_stop():
    lens = view(2, focal_mm=80.0, stop=9.0)["lens"]
    # Two stops down from T4.5, so two stops down from f/4.2.
    assert lens["mounted"]["f_number"] == pytest.approx(8.4)
    assert lens["mounted"]["t_stop"] == pytest.approx(9.0)


@pytest.mark.parametrize(("lens", "marks", "noted"), [(3, "T", True), (4, "f/", False), (1, "T", False)])
def test_which_marks_a_lens_has(lens, marks, noted):
    got = view(lens)
    assert got["lens"]["marks"] == marks
    codes = [note["code"] for note in chosen(got)["answer"]["notes"]]
    assert ("t_stop_used" in codes) is noted


def test_a_wish_that_the_lens_cannot_meet_is_held_and_told():
    got = view(1, stop=1.0)["lens"]
    assert (got["stop"], got["notes"][0]["code"]) == (2.0, "stop_clamped")
    got = view(2, focal_mm=135.0)["lens"]
    assert (got["focal_mm"], got["notes"][0]["code"]) == (80.0, "focal_clamped")
    assert view(1, focal_mm=135.0)["lens"]["focal_mm"] == 40.0


def test_stops_begin_at_the_widest_and_follow_the_marks():
    stops = view(1)["lens"]["stops"]
    assert stops[:4] == [2.0, 2.2, 2.5, 2.8]
    assert stops == sorted(stops)
    assert stops[-1] == 22


@pytest.mark.parametrize(
    ("lens", "adapter", "mounts"),
    [(1, None, True), (6, None, False), (6, 1, True), (1, 1, False), (1, 3, True), (6, 3, False)],
)
def test_what_mounts_on_what(lens, adapter, mounts):
    row = chosen(view(lens, adapter_id=adapter))
    assert row["mounts"] is mounts
    assert ("mount" in [note["code"] for note in row["answer"]["notes"]]) is not mounts


def test_a_reducer_and_an_extender_change_the_lens():
    reduced = view(6, adapter_id=2)["lens"]
    assert reduced["mounted"]["optical_focal_mm"] == pytest.approx(35 * 0.71)
    assert reduced["adapter_stops"] == pytest.approx(-0.988, abs=5e-4)
    extended = view(1, adapter_id=3)["lens"]["mounted"]
    assert extended["t_stop"] == pytest.approx(2.8)
    assert extended["image_circle_mm"] == pytest.approx(56.0)


def test_crops_know_the_lens():
    reasons = {c["name"]: c["reason"] for c in view(1)["crops"]}
    # The format needs 2 hypot(18, 10.125) = 41.3 mm, and the lens gives 40.
    assert reasons == {"Steady": None, "Small circle": None, "Straighten": None}
    extended = {c["name"]: c["reason"] for c in view(1, adapter_id=3)["crops"]}
    assert extended["Small circle"] == "not needed: the lens's circle covers this recording"
    scope = {c["name"]: c["reason"] for c in view(5)["crops"]}
    assert scope["Straighten"] == "not with a squeezed lens"
    on = [CROP_IDS["Steady"], CROP_IDS["Small circle"]]
    both = chosen(view(1, crop_ids=on))["answer"]
    assert both["crop"]["total"] / chosen(view(1))["answer"]["crop"]["total"] == pytest.approx(1.1 * 1.5)
    one = chosen(view(1, adapter_id=3, crop_ids=on))["answer"]
    assert [link["name"] for link in one["crop"]["links"]] == ["readout", "Steady"]


def test_what_binds_the_rate_is_named():
    row = chosen(view(1))
    assert (row["answer"]["speed"]["max_fps"], row["limited_by"]) == (45.0, "stated limit")


def test_a_state_without_its_equipment_is_refused_or_mended():
    state = BenchState(format_id=10**6, lens_id=10**6, adapter_id=9, pinned=[FORMAT, 10**6])
    with pytest.raises(InvalidInputError) as refused:
        bench_view(PACKAGE, state, [])
    assert [f.field for f in refused.value.faults] == ["state.format_id", "state.lens_id", "state.adapter_id"]
    whole, notes = mended(state, PACKAGE)
    assert (whole.format_id, whole.lens_id, whole.adapter_id, whole.pinned) == (FORMAT, 1, None, [FORMAT])
    assert len(notes) == 3
    assert mended(whole, PACKAGE) == (whole, [])
    with pytest.raises(NotFoundError, match="enter a body and a lens first"):
        mended(state, package_of([]))


def test_focus_off_the_subject_is_told_in_circles_of_confusion():
    near = view(1, subject_m=3.0, focus_m=3.02)["links"]["subject"]
    assert near["sharp"] is True
    assert near["text"].startswith("Focus 20 mm behind the subject: still inside the depth")
    far = view(1, subject_m=3.0, focus_m=4.0)["links"]["subject"]
    assert far["sharp"] is False
    assert "the subject is soft" in far["text"]
    assert view(1, subject_m=3.0)["links"]["subject"]["text"] is None
