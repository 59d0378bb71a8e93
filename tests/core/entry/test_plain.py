"""Plain windows and glass: as large as their tables say, of the class that they stand for, without makers."""

import math

import pytest

from hextan.core.documents import body_of, check_body, check_lens_set, lens_set_of
from hextan.core.entry import plain_bodies, plain_lens_sets
from hextan.core.optics import NAMED, NAMED_WINDOWS, coverage_verdict, dark_where_short, format_class


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


def test_plain_glass_covers_the_windows_of_its_own_class():
    """What is assumed of a class never leaves the class's own windows dark."""
    bodies = tuple(body_of(body, None, i) for i, body in enumerate(plain_bodies(), 1))
    sets = tuple(lens_set_of(each, None, i) for i, each in enumerate(plain_lens_sets(), 1))
    cells = 0
    for lens_set in sets:
        for lens in lens_set.lenses:
            for body in bodies:
                w, h = (n * body.pitch_um / 1000 for n in body.photosites)
                if format_class(w, h) == lens.designed_for and lens.image_circle_mm is not None:
                    dark = float(dark_where_short(lens.image_circle_mm, w, h))
                    assert coverage_verdict(lens.image_circle_mm, math.hypot(w, h), dark) != "short", (
                        lens.name,
                        body.name,
                    )
                    cells += 1
    assert cells > 20
