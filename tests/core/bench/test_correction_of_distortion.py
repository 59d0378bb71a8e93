"""A crop that depends on the lens: as much as the correction of its distortion takes."""

import math
from dataclasses import replace

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.bench.state import BenchState
from hextan.core.bench.view import bench_view
from hextan.core.documents import parse_body, parse_lens_set
from hextan.core.equipment import LensSet
from hextan.core.kit import KitAsk, kit_of
from tests.core.bodies import a_body, a_format, a_mode, package_of
from tests.core.kits import a_lens, a_set, lens

CROPS = [{"key": "c", "name": "Straighten", "lens": "corrected", "rules": [{"mode": "Full", "factor": 1.05}]}]
BODY = parse_body(a_body([a_mode(formats=[a_format()])], crops=CROPS))
ZOOM = lens(3, name="Zoom", focal=20.0, focal_long_mm=80.0, correction=1.08, correction_long=1.02)
GLASS = (lens(1, correction=1.03), lens(2, name="Silent"), ZOOM, lens(4, name="Straight", correction=1.0))
PACKAGE = package_of([BODY], lens_sets=(LensSet(1, "Lantern Works", "all", GLASS),))
FORMAT, CROP = next(iter(PACKAGE.formats)), PACKAGE.bodies[0].crops[0].id


def view(lens_id, **changes):
    return bench_view(PACKAGE, BenchState(format_id=FORMAT, lens_id=lens_id, **changes), [])


def taken(lens_id, **changes):
    """How much tighter the picture becomes when the switch is on."""
    on, off = (view(lens_id, crop_ids=ids, **changes)["rows"][0]["answer"] for ids in ([CROP], []))
    return on["crop"]["total"] / off["crop"]["total"]


@pytest.mark.parametrize(
    ("lens_id", "focal", "factor"),
    [(1, None, 1.03), (2, None, 1.05), (3, 20.0, 1.08), (3, 80.0, 1.02), (3, 40.0, math.sqrt(1.08 * 1.02)), (4, None, 1.0)],
)  # fmt: skip
def test_the_lens_says_how_much_is_taken(lens_id, focal, factor):
    assert taken(lens_id, focal_mm=focal) == pytest.approx(factor)
    # The whole kit counts as the Bench does.
    kit = kit_of(PACKAGE, KitAsk(crop_ids=[CROP]))
    plain = kit_of(PACKAGE, KitAsk())
    got = {(e.lens.id, e.focal_mm): kit.crop[i, 0] / plain.crop[i, 0] for i, e in enumerate(kit.entries)}
    if focal != 40.0:
        assert got[lens_id, focal or 40.0] == pytest.approx(factor)


def test_where_the_lens_does_not_say_the_bound_is_told():
    notes = {n["code"]: n["text"] for n in view(2, crop_ids=[CROP])["rows"][0]["answer"]["notes"]}
    assert notes["correction_unknown"] == (
        "Straighten is counted with ×1.05, the most that it may take: Silent does not state its own. "
        "The picture may be up to 5.0 % wider."
    )
    for lens_id, ids in ((1, [CROP]), (2, [])):
        answered = view(lens_id, crop_ids=ids)["rows"][0]["answer"]["notes"]
        assert all(note["code"] != "correction_unknown" for note in answered)


def test_the_switch_shows_what_it_takes_of_this_lens():
    assert [view(i)["crops"][0]["factor"] for i in (1, 2, 4)] == pytest.approx([1.03, 1.05, 1.05])
    assert view(4)["crops"][0]["reason"] == "this lens is not cropped by it"


def test_what_lacks_an_accessory_says_so_in_its_row():
    body = parse_body(a_body([a_mode(formats=[a_format(needs=["raw key"])])]))
    bare = package_of([body], lens_sets=PACKAGE.lens_sets)
    state = BenchState(format_id=next(iter(bare.formats)), lens_id=1)
    (row,) = bench_view(bare, state, [])["rows"]
    assert row["answer"]["notes"][0]["text"] == "Needs raw key, which is not carried."
    (row,) = bench_view(replace(bare, carried=frozenset(["raw key"])), state, [])["rows"]
    assert all(note["code"] != "lacking" for note in row["answer"]["notes"])


def test_a_correction_crops():
    for change in ({"correction": 0.97}, {"correction_long": 1.02}):
        with pytest.raises(InvalidInputError):
            parse_lens_set(a_set([a_lens(**change)]))
