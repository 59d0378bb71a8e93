"""A spherical 25 and a squeezed 25: lenses go by what they are, and are shown with their set where the name is not enough."""

from dataclasses import replace

import pytest

from hextan.core.documents import parse_body
from hextan.core.equipment import LensSet, PackageSettings
from hextan.core.packing import Packing, serials_of
from hextan.core.record import Log, held_against, set_day
from hextan.core.record.document import Booking, LogItem, OnCamera
from hextan.core.record.figures import found_of
from hextan.core.record.planned import on_by_plan, planned_of
from hextan.core.shots import ShotList, shots_view
from hextan.core.shots.document import Shot
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import kit_package, lens

BODY = parse_body(a_body([a_mode(formats=[a_format(rates=["1-60"])])]))
PLAIN = kit_package([BODY], [lens(1, name="25", focal=25.0)])
PACKAGE = replace(PLAIN, lens_sets=(
    *PLAIN.lens_sets, LensSet(2, "Lantern Works", "Longshore 2x", (lens(2, name="25", focal=25.0, squeeze=2.0),)),
))  # fmt: skip
ROUND, OVAL = (Shot(key=key, name=key, framing="like 25 on Super 35", look=look, day="1")
               for key, look in (("round", "spherical"), ("oval", "2x")))  # fmt: skip
SETTINGS = PackageSettings()


def test_shots_tell_them_apart_and_count_the_change():
    view = shots_view(PACKAGE, SETTINGS, ShotList(shots=[ROUND, OVAL]))
    assert [use["name"] for use in view["lenses"]] == ["25, Heron", "25, Longshore 2x"]
    assert view["days"][0]["lens_changes"] == 1
    alone = shots_view(PLAIN, SETTINGS, ShotList(shots=[ROUND]))
    assert [use["name"] for use in alone["lenses"]] == ["25"]


def test_the_set_computes_with_the_one_that_is_on():
    on = OnCamera(body=BODY.name, format="UHD", lens="25", lens_set="Longshore 2x")
    assert found_of(PACKAGE, on).lens.squeeze == 2.0
    assert found_of(PACKAGE, on.model_copy(update={"lens_set": ""})).lens.squeeze == 1.0
    assert found_of(PACKAGE, on.model_copy(update={"lens_set": "gone"})).lens.squeeze == 1.0
    assert found_of(PACKAGE, on.model_copy(update={"lens": "26"})).lens is None
    assert planned_of(PACKAGE, SETTINGS, OVAL)["lens_told"] == "25, Longshore 2x"
    assert on_by_plan(PACKAGE, SETTINGS, OVAL).lens_set == "Longshore 2x"


@pytest.mark.parametrize(("used", "codes"), [("Heron", ["lens"]), ("Longshore 2x", []), ("", [])])
def test_another_set_is_a_difference_and_one_that_nobody_states_is_none(used, codes):
    planned = on_by_plan(PACKAGE, SETTINGS, OVAL)
    found = held_against(PACKAGE, SETTINGS, OVAL, planned.model_copy(update={"lens_set": used}))[
        "differences"
    ]
    assert [each["code"] for each in found] == codes
    if found:
        assert (found[0]["planned"], found[0]["used"]) == ("25, Longshore 2x", "25, Heron")
        assert any("frames like" in effect for effect in found[0]["effects"])


def test_which_of_several_lenses_it_is_can_be_said_and_is_no_difference():
    stock = [
        {"thing": {"kind": "lens", "name": "25", "of": "Heron"}, "serial": "H-101, H-102;H-107", "count": 3},
        {"thing": {"kind": "lens", "name": "25", "of": "Longshore 2x"}, "serial": "L-7"},
    ]
    serials = serials_of(PACKAGE, Packing.model_validate({"stock": stock}))
    # One alone is not asked about.
    assert serials == {("Heron", "25"): ["H-101", "H-102", "H-107"]}
    day = set_day(PACKAGE, SETTINGS, ShotList(shots=[ROUND]), Log(), "1", serials)
    lenses = {each["lens_set"]: each["serials"] for each in day["bodies"][0]["lenses"]}
    assert lenses == {"Heron": ["H-101", "H-102", "H-107"], "Longshore 2x": []}
    on = on_by_plan(PACKAGE, SETTINGS, ROUND)
    held = held_against(PACKAGE, SETTINGS, ROUND, on.model_copy(update={"serial": "H-102"}))
    assert held["differences"] == []


def test_what_was_put_on_for_a_shot_is_told_with_it():
    on = on_by_plan(PACKAGE, SETTINGS, ROUND)
    entry = Booking(key="b" * 8, at="2026-05-04T18:00:00Z", written_at="2026-05-04T18:00:00Z", unit="A", day="1", shot="round", on=on)  # fmt: skip
    (camera,) = set_day(PACKAGE, SETTINGS, ShotList(shots=[ROUND]), Log(items=[LogItem(entry=entry)]), "1")[
        "cameras"
    ]
    assert (camera["shot"], camera["kind"], camera["on"]) == ("round", "booking", on)
