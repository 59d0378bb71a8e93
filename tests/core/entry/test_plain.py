"""Plain windows and glass: as large as their tables say, of the class that they stand for, without makers."""

import math

import pytest

from hextan.core.documents import check_body, check_lens_set
from hextan.core.entry import plain_bodies, plain_lens_sets
from hextan.core.optics import NAMED, NAMED_WINDOWS, format_class


def sizes():
    return {b.name: [n * b.pitch_um / 1000 for n in b.photosites] for b in plain_bodies()}


def test_windows_are_as_large_as_said():
    assert len(sizes()) == len(NAMED_WINDOWS) >= 15
    for name, _, w, h, source in NAMED_WINDOWS:
        # The height goes by whole photosites, of 9 um at most.
        assert sizes()[name] == pytest.approx([w, h], abs=0.009)
        assert "from memory" in source or "no source" in source or "the width of" in source


def test_windows_of_reference_are_among_them():
    assert sizes()["Super 35, 4 perforations"] == pytest.approx(NAMED["super35"], abs=0.005)
    assert sizes()["full frame"] == pytest.approx(NAMED["full_frame"], abs=0.005)


def test_each_can_be_kept_and_says_where_its_size_is_from():
    for body in plain_bodies():
        check_body(body)
        assert body.maker == "plain" and body.origin.source
        assert body.origins["photosites"].kind == "computed"
        assert [mode.name for mode in body.modes] == ["whole"]


def test_glass_is_made_for_the_class_of_its_name():
    for kit in plain_lens_sets():
        check_lens_set(kit)
        (of_class,) = {lens.designed_for for lens in kit.lenses}
        assert kit.name.endswith(f"for {of_class}")
        window = next(size for name, size in sizes().items() if format_class(*size) == of_class)
        assert all(lens.image_circle_mm > 0.9 * math.hypot(*window) for lens in kit.lenses)
