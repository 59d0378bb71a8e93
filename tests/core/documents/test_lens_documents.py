"""Lens sets as documents: what they may say, what follows from it, and circles that change."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base import InconsistentError, InvalidInputError
from hextan.core.documents import catalogue
from hextan.core.documents.lens_figures import lens_set_sheet
from hextan.core.documents.lens_set import lens_set_of, parse_lens_set
from hextan.core.equipment import LensSetting, Mount, Package, adapters_by_id
from hextan.core.optics import circle_along_mm, covering_from
from tests.core.kits import EXTENDER, PLAIN, a_lens, a_set, lens

ZOOM = {"focal": 20.0, "focal_long_mm": 80.0}
ALONG = {
    "image_circle_mm": None,
    "circle_by": "focal",
    "circles": [{"at": 20.0, "circle_mm": 28.0}, {"at": 80.0, "circle_mm": 32.0}],
}


@pytest.mark.parametrize(
    ("changes", "told"),
    [
        ({"focal_mm": 0}, "lenses[0].focal_mm: must be greater than 0.5"),
        ({"focal_long_mm": 30.0}, "must be longer than focal_mm"),
        ({"f_number": None, "t_stop": None}, "give an f-number or a T-stop"),
        ({"t_stop_long": 2.8}, "t_stop_long is for zooms"),
        ({"focal_long_mm": 80.0, "t_stop": None, "t_stop_long": 2.8}, "t_stop_long needs t_stop at the short end"),
        ({"projection": "equidistant", "squeeze": 2.0}, "cannot be computed together"),
        ({"squeeze": 9.0}, "lenses[0].squeeze: must be at most 4"),
        ({"circle_by": "stop"}, "circles and circle_by belong together"),
        ({"circles": [{"at": 2.0, "circle_mm": 30.0}]}, "circles and circle_by belong together"),
        ({"circle_by": "stop", "circles": [{"at": 2.0, "circle_mm": 30.0}]}, "one image circle or a table of them, not both"),
        (ALONG | {"circles": [{"at": 40.0, "circle_mm": 28.0}] * 2}, "a place is twice"),
        (ALONG | {"circle_by": "stop", "circles": [{"at": None, "circle_mm": 28.0}]}, "only a table along focus"),
        ({"close_focus_m": -1.0}, "close_focus_m: must be greater than 0"),
        ({"designed_for": "medium"}, "must be one of"),
        ({"iris": "wifi"}, "must be one of"),
        ({"name": ""}, "name: must have at least 1 characters"),
        ({"colour": "red"}, "is not a key of this format"),
    ],
)  # fmt: skip
def test_lenses_that_cannot_be(changes, told):
    with pytest.raises(InvalidInputError) as refused:
        parse_lens_set(a_set([a_lens() | changes]))
    assert told in str(refused.value)


@pytest.mark.parametrize(
    ("lenses", "field", "rule"),
    [
        ([a_lens(), a_lens(key="other")], "lenses[1].name", "this name is already taken here"),
        ([a_lens(t_stop=1.7)], "lenses[0].t_stop", "cannot be wider than f/1.8: glass only loses light"),
        ([a_lens(**ZOOM, f_number_long=2.8, t_stop_long=2.5)], "lenses[0].t_stop_long", "cannot be wider than f/2.8"),
        ([a_lens(**ZOOM) | ALONG | {"circles": [{"at": 10.0, "circle_mm": 28.0}]}], "lenses[0].circles[0].at", "lies outside the lens's 20 to 80 mm"),
    ],
)  # fmt: skip
def test_lenses_that_do_not_go_together(lenses, field, rule):
    with pytest.raises(InconsistentError) as refused:
        parse_lens_set(a_set(lenses))
    assert refused.value.faults[0].field == field
    assert rule in refused.value.faults[0].rule


def test_a_set_becomes_records():
    document = parse_lens_set(a_set([a_lens(), a_lens(name="Zoom", **ZOOM, t_stop_long=2.8)]))
    prime, zoom = lens_set_of(document, set_id=7).lenses
    assert (prime.id, prime.is_zoom, prime.f_number_long) == (1, False, None)
    assert (zoom.focal_min_mm, zoom.focal_max_mm, zoom.f_number_long, zoom.t_stop_long) == (
        20.0,
        80.0,
        1.8,
        2.8,
    )
    assert zoom.widest_at(40.0) == (1.8, pytest.approx(math.sqrt(2.0 * 2.8)))


@pytest.mark.parametrize(
    ("by", "rows", "at", "expected"),
    [
        ("focal", [(20, 28.0), (80, 32.0)], 40, 30.0),
        ("focal", [(20, 28.0), (80, 32.0)], 10, 28.0),
        ("focal", [(20, 28.0), (80, 32.0)], 200, 32.0),
        ("stop", [(4, 30.0), (2, 28.0)], 2.8284271247461903, 29.0),
        ("focus", [(1.0, 32.0), (math.inf, 30.0)], 2.0, 31.0),
        ("focus", [(1.0, 32.0), (math.inf, 30.0)], math.inf, 30.0),
        ("stop", [(2, 28.0)], 22, 28.0),
    ],
)
def test_circles_between_the_rows_of_a_table(by, rows, at, expected):
    assert circle_along_mm(by, rows, at) == pytest.approx(expected)


@given(st.lists(st.tuples(st.floats(1, 30), st.floats(10, 60)), min_size=1, max_size=6, unique_by=lambda r: round(r[0], 2)),
       st.floats(5, 70))  # fmt: skip
def test_where_a_circle_begins_to_cover(rows, needed):
    """Tried on a fine scale: just before it is too small, there it is enough."""
    found = covering_from("stop", rows, needed)
    if found is None:
        assert max(mm for _, mm in rows) < needed
        return
    assert circle_along_mm("stop", rows, found) >= needed - 1e-6
    first = min(at for at, _ in rows)
    for at in np.geomspace(first, found, 20)[:-1]:
        if at < found * (1 - 1e-9):
            assert circle_along_mm("stop", rows, float(at)) <= needed + 1e-6


def test_the_circle_of_a_lens_as_it_is_set():
    zoom = lens(**ZOOM, **ALONG)
    assert zoom.circle_at_mm(40.0) == pytest.approx(30.0)
    by_stop = lens(
        image_circle_mm=None,
        circle_by="stop",
        circles=[{"at": 2.0, "circle_mm": 28.0}, {"at": 4.0, "circle_mm": 30.0}],
    )
    assert by_stop.circle_at_mm(40.0) == 28.0
    assert by_stop.circle_at_mm(40.0, 4.0) == 30.0
    by_focus = lens(
        image_circle_mm=None,
        circle_by="focus",
        circles=[{"at": 1.0, "circle_mm": 32.0}, {"at": None, "circle_mm": 30.0}],
    )
    assert by_focus.circle_at_mm(40.0) == 30.0
    assert by_focus.circle_at_mm(40.0, focus_m=1.0) == 32.0
    assert lens(image_circle_mm=None).circle_at_mm(40.0) is None


def test_a_setting_knows_its_marks_its_circle_and_what_is_behind_it():
    zoom = lens(**ZOOM, **ALONG, mount="K50")
    package = Package(adapters=(PLAIN, EXTENDER))
    setting = LensSetting(
        package.rig, zoom, adapters_by_id(package.adapters, [3, None], "adapter_id"), focal_mm=40.0
    )
    assert (setting.bare_circle_mm, setting.circle_mm) == (pytest.approx(30.0), pytest.approx(42.0))
    assert setting.zoom_marks_mm()[:4] == [20.0, 25.0, 28.0, 32.0]
    assert setting.zoom_marks_mm()[-1] == 80.0
    assert setting.covers_from_mm(42.0) == pytest.approx(40.0)
    assert setting.covers_from_mm(38.0) is None
    assert setting.covers_from_mm(60.0) is None
    assert LensSetting(package.rig, lens()).zoom_marks_mm() == []
    with pytest.raises(InvalidInputError, match="The adapter is no longer in this production"):
        adapters_by_id(package.adapters, [9], "adapter_id")


def sheet_of(*lenses, mounts=("W54",)):
    document = parse_lens_set(a_set(lenses))
    return lens_set_sheet(document, {name: Mount(name, 40.0) for name in mounts})["lenses"]


def test_the_sheet_tells_class_coverage_and_light():
    wide, scope, fish = sheet_of(
        a_lens("18", 18.0, image_circle_mm=44.0),
        a_lens("2x 50", 50.0, squeeze=2.0, image_circle_mm=30.6),
        a_lens("8", 8.0, projection="equidistant", image_circle_mm=14.0),
    )
    assert wide["angle_deg"] == [pytest.approx(math.degrees(2 * math.atan(24.89 / 36)))]
    assert (wide["view_class"], wide["covers"]) == ("wide", "full frame")
    assert wide["transmission"] == pytest.approx(0.81)
    assert (scope["view_class"], scope["covers"]) == ("wide", "Super 35")
    assert fish["angle_deg"] == [pytest.approx(math.degrees(24.89 / 8))]
    assert (fish["covers"], fish["close"]) == (None, None)


def test_close_focus_by_the_lens_equation():
    """f 50 at D 500: s + v = 500 with 1/s + 1/v = 1/50."""
    close = sheet_of(a_lens("50", 50.0, close_focus_m=0.5))[0]["close"]
    s = (500 + math.sqrt(500**2 - 4 * 50 * 500)) / 2
    m = 50 / (s - 50)
    assert close["magnification"] == pytest.approx(m)
    assert close["field_m"] == pytest.approx(24.89 / m / 1000)
    assert close["extension_percent"] == pytest.approx(100 * (1 - 1 / (1 + m)))


@pytest.mark.parametrize(
    ("changes", "note"),
    [
        ({"image_circle_mm": None}, "Image circle not stated"),
        ({"designed_for": "full frame", "image_circle_mm": 30.0}, "is less than the class begins with"),
        ({"mount": "Q9"}, "The mount Q9 is not described"),
        ({"f_number": None}, "Only T is known"),
        ({"close_focus_m": 0.15}, "nearer than four focal lengths"),
        ({"close_focus_m": 45.0}, "is that centimetres?"),
        ({"image_circle_mm": None, "circle_by": "stop", "circles": [{"at": 2.0, "circle_mm": 40.0}]}, "A table of one row"),
    ],
)  # fmt: skip
def test_what_looks_wrong_is_told_and_not_refused(changes, note):
    assert any(note in text for text in sheet_of(a_lens(**changes))[0]["notes"])
    assert sheet_of(a_lens())[0]["notes"] == []


def test_changes_of_the_catalogue_reach_a_lens_set_lens_by_lens():
    taken = parse_lens_set(a_set([a_lens("25", 25.0), a_lens("50", 50.0)]))
    plain = taken.model_dump(mode="json")
    plain["lenses"][0]["close_focus_m"] = 0.3
    plain["lenses"].pop(1)
    plain["lenses"].append(a_lens("75", 75.0))
    now = parse_lens_set(plain)
    found = catalogue.changes(taken, now, taken)
    assert [(c.kind, c.where, c.field) for c in found] == [
        ("changed", "25", "close_focus_m"), ("added", "75", ""), ("gone", "50", "")]  # fmt: skip
    here = taken.model_dump(mode="json")
    for change in found:
        here = catalogue.apply(here, change)
    assert parse_lens_set(here) == now
