"""Lists of shots as OpenTimelineIO and as edit lists, against the library itself; what is not ours survives."""

import json

import opentimelineio
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError
from hextan.core.equipment import PackageSettings
from hextan.core.shots import ANSWERS, Shot, ShotList, shots_of_table, shots_view, table_of_shots
from hextan.formats import timelines
from hextan.formats.shot_files import SHOTS_FILES
from tests.budget import examples
from tests.core.kits import kit_package

TEXT = st.text(st.characters(exclude_categories=["Cs", "Cc"]), min_size=1, max_size=12)
METADATA = st.dictionaries(
    TEXT.filter(lambda key: not key.startswith("hextan")),
    st.recursive(st.one_of(st.booleans(), st.integers(-1000, 1000), TEXT), lambda deeper: st.lists(deeper, max_size=3), max_leaves=6),
    min_size=1, max_size=3,
)  # fmt: skip


def table(*shots):
    document = ShotList(shots=list(shots))
    return table_of_shots(document, shots_view(kit_package([], []), PackageSettings(), document)["answers"])


def plain(read):
    return [shot.model_dump(exclude={"key"}) for shot in read["document"].shots]


def test_each_shot_is_a_clip_with_its_needs():
    shots = [
        Shot(
            name="12A",
            framing="waist",
            notes="first\nsecond",
            extra={"Crane": "yes"},
            wishes={"framing": 2.0},
        ),
        Shot(name="12B"),
    ]
    data = timelines.write("otio", table(*shots), ANSWERS, "Low Water", 25.0)
    timeline = opentimelineio.adapters.read_from_string(data.decode(), "otio_json")
    clips = list(timeline.find_clips())
    assert [clip.name for clip in clips] == ["12A", "12B"]
    assert clips[0].metadata["hextan"]["Framing"] == "waist"
    assert clips[0].metadata["hextan_answers"]["Verdict"] == "open"
    again = shots_of_table(timelines.read("otio", data, 25.0), ShotList())
    assert plain(again) == [shot.model_dump(exclude={"key"}) for shot in shots]


@settings(max_examples=examples(25))
@given(METADATA)
def test_foreign_metadata_survives(metadata):
    timeline = opentimelineio.schema.Timeline("cut")
    track = opentimelineio.schema.Track("V1", kind="Video")
    timeline.tracks.append(track)
    clip = opentimelineio.schema.Clip("7")
    for key, value in metadata.items():
        clip.metadata[key] = value
    track.append(clip)
    data = opentimelineio.adapters.write_to_string(timeline, "otio_json").encode()
    (shot,) = shots_of_table(timelines.read("otio", data, 25.0), ShotList())["document"].shots
    out = timelines.write("otio", table(shot), ANSWERS, "cut", 25.0)
    (back,) = opentimelineio.adapters.read_from_string(out.decode(), "otio_json").find_clips()
    read = json.loads(opentimelineio.core.serialize_json_to_string(back.metadata))
    assert {key: value for key, value in read.items() if not key.startswith("hextan")} == metadata


def test_an_edit_list_goes_out_and_comes_in():
    data = timelines.write("edl", table(Shot(name="12A"), Shot(name="12B")), ANSWERS, "Low Water", 25.0)
    assert b"* FROM CLIP NAME:  12A" in data
    read = shots_of_table(timelines.read("edl", data, 25.0), ShotList())
    assert (read["new"], read["kept"]) == (["12A", "12B"], [])


LIST = ShotList(
    shots=[
        Shot(name="12A", framing="waist", extra={"OpenTimelineIO": '{"cut": {"take": 3}}'}),
        Shot(name="12B", stop="T4", notes="second"),
        Shot(name="13", wishes={"stop": 2.0}),
        Shot(name="14"),
    ]
)


@pytest.mark.parametrize("kind", ["csv", "xlsx", "ods", "otio", "edl"])
def test_what_nobody_touched_comes_back_as_nothing_changed(kind):
    file = SHOTS_FILES[kind]
    read = shots_of_table(file.read(file.write(table(*LIST.shots), "Low Water", 25.0), 25.0), LIST)
    told = {name: read[name] for name in ("new", "changed", "renamed", "moved", "gone")}
    assert not any(told.values()), told
    assert [shot.extra.keys() for shot in read["document"].shots] == [
        shot.extra.keys() for shot in LIST.shots
    ]


@pytest.mark.parametrize("kind", ["otio", "edl"])
def test_a_clip_that_is_renamed_or_moved_is_the_same_shot(kind):
    data = timelines.write(kind, table(*LIST.shots), ANSWERS, "Low Water", 25.0)
    adapter = {"otio": "otio_json", "edl": "cmx_3600"}[kind]
    cut = opentimelineio.adapters.read_from_string(
        data.decode(), adapter, **({"rate": 25.0} if kind == "edl" else {})
    )
    track = cut.tracks[0]
    track[1].name = "12C"
    last = track.pop()
    track.insert(0, last)
    if kind == "edl":
        # Another program lays the events out anew, in their order.
        track = rebuilt(list(track))
        cut = opentimelineio.schema.Timeline("cut", tracks=[track])
    again = opentimelineio.adapters.write_to_string(cut, adapter).encode()
    read = shots_of_table(timelines.read(kind, again, 25.0), LIST)
    assert (read["new"], read["renamed"], read["moved"], read["gone"]) == ([], ["12B → 12C"], ["14"], [])
    assert [shot.key for shot in read["document"].shots] == [LIST.shots[i].key for i in (3, 0, 1, 2)]
    assert read["document"].shots[2].stop == "T4"


def rebuilt(clips):
    track = opentimelineio.schema.Track("V1", kind="Video")
    for clip in clips:
        track.append(clip.deepcopy())
    return track


def test_shots_that_are_renumbered_in_a_table_stay_the_same_and_copied_rows_are_new():
    rows = [[str(cell) for cell in row] for row in table(*LIST.shots)]
    names = rows[0].index("Shot")
    rows[1][names], rows[2][names] = "12B", "12A"
    rows.append(list(rows[3]))
    rows[-1][names] = "13 pickup"
    read = shots_of_table(rows, LIST)
    assert read["renamed"] == ["12A → 12B", "12B → 12A"]
    assert (read["new"], read["gone"], read["moved"]) == (["13 pickup"], [], [])
    assert [shot.key for shot in read["document"].shots][:4] == [shot.key for shot in LIST.shots]
    assert read["document"].shots[0].framing == "waist"
    # A table without keys goes by numbers, as before.
    bare = [[cell for n, cell in enumerate(row) if rows[0][n] != "Hextan key"] for row in rows[:5]]
    assert shots_of_table(bare, LIST)["renamed"] == []


@pytest.mark.parametrize(
    ("kind", "data"),
    [("otio", b"[" * 100_000), ("otio", b"[]"), ("otio", b'{"OTIO_SCHEMA": "Clip.1"}'), ("otio", b'{"OTIO_SCHEMA": "Timeline.1", "tracks": 3}'),
     ("otio", b"\xff\xfe"), ("edl", b"001 AX V C 99:99:99:99 00:00:01:00 00:00:00:00 00:00:01:00"), ("edl", b"")],
)  # fmt: skip
def test_hostile_timelines_are_refused(kind, data):
    with pytest.raises(InvalidInputError):
        shots_of_table(timelines.read(kind, data, 25.0), ShotList())
