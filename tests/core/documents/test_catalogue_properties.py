"""Changes of a catalogue: whatever was changed on both sides, taking all of it ends where the catalogue is."""

import copy

from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents import catalogue as shelf
from hextan.core.documents.body import parse_body
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode

BASE = a_body([a_mode(f"M{i}", formats=[a_format(f"F{i}{j}") for j in range(3)]) for i in range(3)],
              crops=[{"key": "c", "name": "Steady", "rules": [{"mode": "M0", "factor": 1.1}]}])  # fmt: skip


@st.composite
def edits(draw):
    """Some edits of a body: figures, names, rows that go, rows that come."""
    plain = copy.deepcopy(parse_body(BASE).model_dump(mode="json"))
    for mode in list(plain["modes"]):
        what = draw(st.sampled_from(["keep", "keep", "time", "go", "rename"]))
        if what == "time":
            mode["row_time_us"] = draw(st.sampled_from([4.0, 5.0, 7.0]))
        elif what == "rename":
            mode["name"] = f"{mode['name']} {draw(st.sampled_from('ab'))}"
        elif what == "go" and len(plain["modes"]) > 1:
            plain["modes"].remove(mode)
            for crop in plain["crops"]:
                crop["rules"] = [rule for rule in crop["rules"] if rule["mode"] != mode["key"]]
            continue
        for f in list(mode["formats"]):
            how = draw(st.sampled_from(["keep", "keep", "bits", "rates", "go"]))
            if how == "bits":
                f["bits"] = draw(st.sampled_from([8, 12]))
            elif how == "rates":
                f["rates"] = draw(st.sampled_from([["25"], ["24", "50"]]))
            elif how == "go":
                mode["formats"].remove(f)
        if draw(st.booleans()):
            key = draw(st.sampled_from(["new1", "new2"]))
            mode["formats"].append(a_format(f"{key} {mode['key']}", key=f"{key}{mode['key']}"))
    if draw(st.booleans()):
        plain["firmware"] = draw(st.sampled_from(["2", "3"]))
    return parse_body(plain)


def figures(document):
    """What a body says, by its keys: the order of rows is each copy's own."""
    plain = document.model_dump(mode="json")
    return (
        plain["firmware"],
        {
            m["key"]: (m["name"], m["row_time_us"], {f["key"]: f for f in m["formats"]})
            for m in plain["modes"]
        },
    )


@settings(max_examples=examples(120), deadline=None)
@given(edits())
def test_an_untouched_copy_follows_the_catalogue(now):
    taken = parse_body(BASE)
    plain = taken.model_dump(mode="json")
    for change in shelf.changes(taken, now, taken):
        assert not change.touched
        plain = shelf.apply(plain, change)
    assert figures(parse_body(plain)) == figures(now)


@settings(max_examples=examples(120), deadline=None)
@given(edits(), edits())
def test_taking_all_changes_leaves_none(now, here):
    taken = parse_body(BASE)
    plain, base = here.model_dump(mode="json"), taken.model_dump(mode="json")
    for change in shelf.changes(taken, now, here):
        plain, base = shelf.apply(plain, change), shelf.apply(base, change)
    assert shelf.changes(parse_body(base), now, parse_body(plain)) == []


@settings(max_examples=examples(120), deadline=None)
@given(edits(), edits())
def test_leaving_all_changes_leaves_the_copy_alone(now, here):
    taken = parse_body(BASE)
    base = taken.model_dump(mode="json")
    for change in shelf.changes(taken, now, here):
        base = shelf.apply(base, change)
    assert shelf.changes(parse_body(base), now, here) == []


@settings(max_examples=examples(60), deadline=None)
@given(edits())
def test_what_only_the_copy_changed_is_never_offered(here):
    taken = parse_body(BASE)
    assert shelf.changes(taken, taken, here) == []
