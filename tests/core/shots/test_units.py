"""Bare distances get their unit when they are entered, and mean the same in whatever unit the production is shown."""

import pytest

from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot, ShotList, with_units
from hextan.core.shots.needs import needs_of
from tests.core.shots.test_against_one_by_one import PACKAGE

CELLS = {
    "distance": ("3", "2-4", "from 2", "up to 5", "2,5 - 4", "3 m", "9'6\"", "6.5"), "framing": ("1.9 wide", "1.2 high", "as 35 on Super 35 at 3", "waist", "like 50", "6' wide"),
    "room": ("3.2",), "nearest": ("1.2",), "hold": ("±0.3", "2.5-4", "2 to infinity", "deep", "±30 cm"), "background": ("3 % at 8", "2 %", "3 % at 8 m"),
    "height": ("1.7", "5'6\""), "keep_out": ("4",),
}  # fmt: skip


@pytest.mark.parametrize(("name", "text"), [(name, text) for name, texts in CELLS.items() for text in texts])
@pytest.mark.parametrize("unit", ["m", "ft"])
def test_a_cell_means_the_same_after_the_unit_was_switched(name, text, unit):
    if unit == "ft" and name == "height" and text == "1.7":
        return  # A person of 1.7 ft is refused for its height.
    shot = Shot(name="1", keep_out_by="somebody", **{name: text})
    here, there = PackageSettings(unit=unit), PackageSettings(unit="ft" if unit == "m" else "m")
    (written,) = with_units(ShotList(shots=[shot]), unit).shots
    before, after = needs_of(shot, PACKAGE, here), needs_of(written, PACKAGE, there)
    assert before.faults == after.faults == ()
    for field in ("distance", "room_m", "nearest_m", "keep_out_m", "hold", "soft", "height_m"):
        assert getattr(before, field) == getattr(after, field), (text, getattr(written, name))
    assert (before.wanted is None) == (after.wanted is None)
    if before.wanted is not None:
        assert (before.wanted.field_m, before.wanted.like_mm) == (after.wanted.field_m, after.wanted.like_mm)


def test_what_says_its_unit_or_cannot_be_read_stays_as_it_is():
    shot = Shot(name="1", distance="3 m", framing="1.9 m wide", hold="soon", background="2 %")
    shots = ShotList(shots=[shot])
    assert with_units(shots, "ft") is shots
