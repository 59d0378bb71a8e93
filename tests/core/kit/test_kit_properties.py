"""What has to hold of the kit whatever is in it."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents import parse_body
from hextan.core.evaluation import BenchDelivery, BenchReference
from hextan.core.kit.arrays import IMPOSSIBLE, SHORT, kit_of, pictures
from hextan.core.kit.ask import FieldAsk, KitAsk, LadderAsk, MatrixAsk
from hextan.core.kit.framing import find_field
from hextan.core.kit.ladder import kit_ladder
from hextan.core.kit.matrix import kit_matrix
from hextan.core.optics import LEAST_ANGLE_DEG, VIEW_CLASSES, dark_share, view_class, view_classes
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import demo_package, kit_package, lens

DEMO = demo_package()
FOCALS = st.lists(st.floats(6, 300), min_size=1, max_size=6, unique_by=lambda f: round(f, 3))


def body(scale=1.0, **changes):
    return parse_body(
        a_body(
            [a_mode(formats=[a_format("UHD")]), a_mode("Aside", window=[3000, 2000], offset=[1200, -300], formats=[a_format("S")])],
            pitch_um=6.0 * scale,
            **changes,
        )
    )  # fmt: skip


def primes(focals, scale=1.0, **changes):
    return [lens(i, name=str(i), focal=f * scale, **changes) for i, f in enumerate(focals, 1)]


@settings(max_examples=examples(30), deadline=None)
@given(focals=FOCALS, k=st.floats(0.3, 1.5), circle=st.floats(15, 60))
def test_scaling_everything_scales_lengths_and_keeps_angles_and_dark(focals, k, circle):
    ask = KitAsk(delivery=BenchDelivery(aspect=2.0), reference=BenchReference(name="full_frame"))
    one = kit_of(kit_package([body()], primes(focals, image_circle_mm=circle)), ask)
    other = kit_of(kit_package([body(k)], primes(focals, k, image_circle_mm=circle * k)), ask)
    np.testing.assert_allclose(other.angle_deg, one.angle_deg, rtol=1e-9)
    np.testing.assert_allclose(other.dark, one.dark, atol=1e-9)
    np.testing.assert_allclose(other.needed_mm, one.needed_mm * k, rtol=1e-9)
    # The reference stays: a sensor k times larger crops k times less, with lenses k times longer.
    np.testing.assert_allclose(other.effective_mm, one.effective_mm, rtol=1e-9)


@settings(max_examples=examples(30), deadline=None)
@given(focal=st.floats(6, 300), circle=st.floats(10, 60), more=st.floats(0.01, 30))
def test_a_larger_circle_never_covers_less(focal, circle, more):
    kit = kit_of(
        kit_package([body()], [lens(1, name="a", focal=focal, image_circle_mm=circle),
                               lens(2, name="b", focal=focal, image_circle_mm=circle + more)]),
        KitAsk(),
    )  # fmt: skip
    assert (kit.dark[1] <= kit.dark[0] + 1e-12).all()
    assert (kit.verdict[1] <= kit.verdict[0]).all()


def test_the_delivered_aspect_changes_fields_and_never_coverage():
    wide, tall = (kit_of(DEMO, KitAsk(delivery=BenchDelivery(aspect=a))) for a in (2.39, 1.0))
    np.testing.assert_array_equal(wide.verdict, tall.verdict)
    here = wide.mounts & wide.rectilinear
    assert (wide.angle_deg[here] >= tall.angle_deg[here] - 1e-9).all()


def test_the_crop_of_the_reference_itself_is_one():
    mode = next(m.id for b in DEMO.bodies for m in b.modes if m.name == "S35 4.3K")
    raw = next(p for p in DEMO.formats.values() if p.recording.name == "S35 4.3K raw")
    reference = BenchReference(name="scan_mode", scan_mode_id=mode)
    kit = kit_of(
        DEMO, KitAsk(reference=reference, delivery=BenchDelivery(aspect=None), format_ids=[raw.recording.id])
    )
    spherical = [i for i, e in enumerate(kit.entries) if e.lens.squeeze == 1.0]
    np.testing.assert_allclose(kit.crop[spherical], 1.0, rtol=1e-9)


def test_pictures_part_the_formats_and_lose_none():
    kit = kit_of(DEMO, KitAsk(delivery=BenchDelivery(aspect=2.39)))
    groups = pictures(kit)
    assert sorted(j for group in groups for j in group) == list(range(len(kit.places)))
    for group in groups:
        for j in group[1:]:
            assert kit.places[j].body is kit.places[group[0]].body
            np.testing.assert_array_equal(kit.verdict[:, j], kit.verdict[:, group[0]])
            near = np.abs(kit.angle_deg[:, j] - kit.angle_deg[:, group[0]])
            assert np.nanmax(near) < 0.3


def test_every_way_is_a_part_of_all_ways():
    simple, every = (kit_of(DEMO, KitAsk(mounted=m)) for m in ("simplest", "every"))

    def fields(kit):
        return {
            (kit.entries[i].lens.id, kit.places[j].recording.id, round(float(kit.focal_mm[i, j]), 6))
            for i, j in np.argwhere(kit.verdict != IMPOSSIBLE).tolist()
        }

    assert fields(simple) < fields(every)


@settings(max_examples=examples(40), deadline=None)
@given(focals=FOCALS, ratio=st.floats(1.1, 3.0))
def test_gaps_are_what_is_left_between_marks(focals, ratio):
    kit = kit_package([body()], primes(focals, image_circle_mm=90.0))
    got = kit_ladder(kit, LadderAsk(gap_ratio=ratio))
    marks = sorted(r["effective_mm"] for r in got["rungs"])
    wide = [(a, b) for a, b in pairwise(marks) if b / a > ratio * (1 + 1e-9)]
    assert [(g["from_mm"], g["to_mm"]) for g in got["gaps"]] == [
        (pytest.approx(a), pytest.approx(b)) for a, b in wide
    ]
    for gap in got["gaps"]:
        assert not any(gap["from_mm"] * 1.000001 < m < gap["to_mm"] / 1.000001 for m in marks)
        filled = [gap["from_mm"], *(b["effective_mm"] for b in gap["buys"]), gap["to_mm"]]
        assert all(b / a <= ratio * (1 + 1e-6) for a, b in pairwise(filled))


def test_the_words_of_the_ladder_agree_with_its_marks():
    got = kit_ladder(DEMO, LadderAsk(delivery=BenchDelivery(aspect=2.39)))
    marks = [r["effective_mm"] for r in got["rungs"]] + [r["effective_long_mm"] or 0 for r in got["rungs"]]
    longest = max(marks)
    assert any(text.startswith(f"Nothing longer than {longest:.0f} mm") for text in got["words"])
    assert not any(r["verdict"] in ("short", "impossible") for r in got["rungs"])


@settings(max_examples=examples(200))
@given(st.floats(0.1, 179))
def test_one_angle_and_many_get_the_same_class(angle):
    assert view_classes(np.array([angle, np.nan])) == [view_class(angle), None]


@pytest.mark.parametrize(("bound", "wider"), list(zip(LEAST_ANGLE_DEG, VIEW_CLASSES, strict=False)))
def test_bounds_of_classes(bound, wider):
    assert view_class(bound * 1.001) == wider
    assert view_class(bound * 0.999) == VIEW_CLASSES[VIEW_CLASSES.index(wider) + 1]
    assert view_classes(np.array([bound])) == [view_class(bound)]


@settings(max_examples=examples(60), deadline=None)
@given(st.floats(5, 60), st.floats(3, 50), st.floats(3, 40))
def test_a_centred_window_is_as_dark_as_one_that_is_hardly_moved(circle, w, h):
    """The quarter that stands for four, against the general sum, whose roots of small differences lose digits."""
    centred = float(dark_share(circle, w, h))
    assert centred == pytest.approx(float(dark_share(circle, w, h, 1e-12, 0.0)), abs=1e-7)
    assert 0 <= centred <= 1


def test_the_matrix_agrees_with_itself_however_its_columns_are_grouped():
    one, each = (kit_matrix(DEMO, MatrixAsk(across=across)) for across in ("pictures", "formats"))
    at = {column["format_id"]: j for j, column in enumerate(each["columns"])}
    for row, whole in zip(one["rows"], each["rows"], strict=True):
        for j, column in enumerate(one["columns"]):
            k = at[column["format_id"]]
            assert row["effective_mm"][j] == whole["effective_mm"][k]
            assert row["verdict"][j] == whole["verdict"][k]
            # A way is told wherever a lens goes on, and why not wherever it does not.
            assert (row["via"][j] is None) == (row["verdict"][j] == "impossible")
        impossible = {c["body"] for j, c in enumerate(each["columns"]) if whole["verdict"][j] == "impossible"}
        assert len(whole["why_not"]) == len(impossible)


def test_short_cells_and_only_they_have_dark_corners():
    for row in kit_matrix(DEMO, MatrixAsk(across="formats"))["rows"]:
        for verdict, corners, dark in zip(
            row["verdict"], row["dark_corners"], row["dark_share"], strict=True
        ):
            seen = (dark or 0) > 0.001
            assert (verdict == "short") == bool(corners) == seen, (row["name"], verdict, corners, dark)


@settings(max_examples=examples(40), deadline=None)
@given(size=st.floats(0.2, 20), focal=st.sampled_from([18, 35, 75, 135]))
def test_from_the_distance_that_is_found_the_wanted_field_is_seen(size, focal):
    """There and back: the lens that is found from that distance is the one that was asked with."""
    primes_only = [s.id for s in DEMO.lens_sets if s.name == "Merrow"]
    given_lens = next(x.id for _, x in DEMO.lenses.values() if x.name == f"Merrow {focal}")
    place = next(p.recording.id for p in DEMO.formats.values() if p.recording.name == "Full → UHD")
    ask = {
        "lens_set_ids": primes_only,
        "format_id": place,
        "width_m": size,
        "delivery": BenchDelivery(aspect=16 / 9),
    }
    there = find_field(DEMO, FieldAsk(find="distance", lens_id=given_lens, **ask))["answers"][0]
    close = DEMO.lenses[given_lens][1].close_focus_m
    if there["distance_m"] < close:
        assert any("close focus" in text or "four focal lengths" in text for text in there["binds"])
        return
    back = find_field(DEMO, FieldAsk(find="lens", distance_m=there["distance_m"], **ask))["answers"][0]
    assert back["lens_id"] == given_lens
    assert back["width_m"] == pytest.approx(size, rel=1e-6)
    assert math.isclose(back["candidate"]["error_mm"], 0.0, abs_tol=1e-6)


def test_a_short_lens_is_never_the_nearest_while_another_covers():
    kit = kit_of(DEMO, KitAsk(mounted="every"))
    assert (kit.verdict == SHORT).any()
    assert not (kit.usable & (kit.verdict == SHORT)).any()
