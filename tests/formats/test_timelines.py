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


@settings(max_examples=25)
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
    assert (read["new"], read["kept"]) == (["12A", "12B"], ["OpenTimelineIO"])


@pytest.mark.parametrize(
    ("kind", "data"),
    [("otio", b"[" * 100_000), ("otio", b"[]"), ("otio", b'{"OTIO_SCHEMA": "Clip.1"}'), ("otio", b'{"OTIO_SCHEMA": "Timeline.1", "tracks": 3}'),
     ("otio", b"\xff\xfe"), ("edl", b"001 AX V C 99:99:99:99 00:00:01:00 00:00:00:00 00:00:01:00"), ("edl", b"")],
)  # fmt: skip
def test_hostile_timelines_are_refused(kind, data):
    with pytest.raises(InvalidInputError):
        shots_of_table(timelines.read(kind, data, 25.0), ShotList())
