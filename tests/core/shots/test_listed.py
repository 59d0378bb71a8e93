"""A list that is typed in: what it shows is what the whole answers say, and comes once."""

from hextan.core.equipment import PackageSettings
from hextan.core.shots import Shot, ShotList, answer_of_shot, shots_view
from hextan.core.shots.listed import shots_listed
from tests.core.kits import demo_package

DEMO, SETTINGS = demo_package(), PackageSettings()
#: Untidy: a squeezed wish in feet, half a row, one that cannot be read, and one that nothing makes.
SHOTS = [
    Shot(key="a", name="1", framing="waist", distance="9 ft", stop="T2.8"),
    Shot(key="b", name="2", framing="chest"),
    Shot(key="c", name="3", framing="quite wide", distance="far away"),
    Shot(key="d", name="4", framing="face", distance="40 m", speed="1000"),
    Shot(key="e", name="5"),
]


def told(shots, known=None, package=DEMO):
    return shots_listed(package, SETTINGS, ShotList(shots=shots), known or {})


def test_what_is_listed_is_what_the_answers_say():
    whole, listed = shots_view(DEMO, SETTINGS, ShotList(shots=SHOTS), changes_for=()), told(SHOTS)
    for answer, shown in zip(whole["answers"], listed["answers"], strict=True):
        assert {name: answer[name] for name in shown if name != "tag"} == {
            name: each for name, each in shown.items() if name != "tag"
        }
    del whole["answers"], listed["answers"]
    assert listed == whole
    assert {shown["verdict"] for shown in told(SHOTS)["answers"]} >= {"does", "cannot", "open"}


def test_only_what_is_new_comes_again():
    tags = {shown["key"]: shown["tag"] for shown in told(SHOTS)["answers"]}
    assert told(SHOTS, tags)["answers"] == []
    assert told(SHOTS, tags)["does"] == told(SHOTS)["does"]
    typed = [shot.model_copy(update={"distance": "3 m"}) if shot.key == "b" else shot for shot in SHOTS]
    (new,) = told(typed, tags)["answers"]
    assert (new["key"], new["best"]["distance_m"]) == ("b", 3.0)
    # Another order is no other answer, and a shot that is added has none yet.
    added = [*reversed(SHOTS), Shot(key="f", name="6", framing="eyes", distance="2 m")]
    assert [shown["key"] for shown in told(added, tags)["answers"]] == ["f"]


def test_a_tag_is_of_the_whole_answer():
    """A warning that a list does not show makes another tag: whoever shows the whole asks again."""
    before = answer_of_shot(DEMO, SETTINGS, SHOTS[0])
    noted = SHOTS[0].model_copy(update={"keep_out": "2 m", "keep_out_by": "safety"})
    after = answer_of_shot(DEMO, SETTINGS, noted)
    assert before["warnings"] != after["warnings"]
    (one,), (other,) = (told([shot])["answers"] for shot in (SHOTS[0], noted))
    assert one["tag"] != other["tag"]
