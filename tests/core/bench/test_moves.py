"""What follows the hand is, figure for figure, what the whole Bench says at rest."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError
from hextan.core.bench import BenchState, bench_move, bench_view
from tests.budget import DATABASE, examples
from tests.core.kits import demo_package

DEMO = demo_package()
FORMATS, LENSES = list(DEMO.formats), list(DEMO.lenses)


def alike(one, other):
    """The same, but for the last digit of a figure: arrays of another length are added up in another order."""
    if isinstance(one, dict):
        assert one.keys() == other.keys()
        one, other = [*one.values()], [*other.values()]
    if isinstance(one, list):
        assert len(one) == len(other)
        for mine, theirs in zip(one, other, strict=True):
            alike(mine, theirs)
    else:
        assert one == (pytest.approx(other, rel=1e-12, abs=1e-12) if isinstance(other, float) else other)


@settings(max_examples=examples(60), deadline=None, database=DATABASE)
@given(st.data())
def test_a_move_says_what_the_whole_bench_says(data):
    draw = data.draw
    state = BenchState(
        format_id=draw(st.sampled_from(FORMATS)),
        lens_id=draw(st.sampled_from(LENSES)),
        subject_m=draw(st.floats(2, 60)),
        focus_m=draw(st.one_of(st.none(), st.floats(2, 60))),
        pinned=draw(st.lists(st.sampled_from(FORMATS), max_size=4, unique=True)),
        unit=draw(st.sampled_from(["m", "ft"])),
    )
    in_sight = draw(st.lists(st.sampled_from(FORMATS), max_size=12, unique=True))
    extent = draw(st.sampled_from([None, 6.0, 40.0]))
    whole, moved = bench_view(DEMO, state, [], extent), bench_move(DEMO, state, in_sight, extent)
    seen = {row["format_id"]: row for row in whole["rows"] if row["format_id"] in in_sight}
    assert [row["format_id"] for row in moved["rows"]] == [*seen]
    # Put into what was shown at another place, a row is the row of this one.
    elsewhere = bench_view(DEMO, state.model_copy(update={"subject_m": 7.7, "focus_m": 9.1}), [])
    shown = {row["format_id"]: row for row in elsewhere["rows"]}
    for row in moved["rows"]:
        before, after = shown[row["format_id"]], seen[row["format_id"]]
        moved_answer = {**before["answer"], **row["answer"]}
        # Nothing of the Bench reads it: it does not go over the line at every move.
        moved_answer["angle_at_focus_deg"] = after["answer"]["angle_at_focus_deg"]
        alike({**before, **row, "answer": moved_answer}, after)
    for part in ("lens", "links", "plan", "viewfinder"):
        alike(moved[part], whole[part])


def test_rows_that_the_package_does_not_have_are_left_out_and_a_state_without_equipment_is_refused():
    state = BenchState(format_id=FORMATS[0], lens_id=LENSES[0], subject_m=3.0)
    assert bench_move(DEMO, state, [999_999])["rows"] == []
    with pytest.raises(InvalidInputError):
        bench_move(DEMO, state.model_copy(update={"lens_id": 999_999}), [])
