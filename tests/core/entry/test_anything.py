"""Whatever is pasted: each line goes to the reader that it speaks to, nothing is swallowed, and nothing is guessed."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.written import lines
from hextan.core.documents import check_body, check_lens_set
from hextan.core.entry import AnythingAsk, anything
from tests.budget import examples

MESSAGE = """Hi, this is what they have for us next week:

Skerry 60
Sensor: 36.0 x 24.0 mm, 24.2 MP
Full frame 3:2 raw 12 bit up to 30, 10 bit up to 60 with recorder
S35 1.5x UHD 4:2:2 10-bit 23.98-59.94
EI 200-12800, base 800 / 5000
Mount: E18

Fallow
Sensor 24.9 x 14 mm, 8.6 MP
Full up to 120

Merrow 25/35/50/75 T1.5 FF E18
18-135 f3.5-5.6 circle 28.4 K50
reducer 0.71 K50 to E18
ND 0.3 0.6 0.9
2x 1 TB cards
See you on Monday!"""


def of(text, **more):
    return anything(AnythingAsk(text=text, **more))


def test_a_message_makes_bodies_lenses_adapters_and_filters():
    found = of(MESSAGE)
    assert [(b["name"], b["document"].mount, len(b["document"].modes)) for b in found["bodies"]] == [
        ("Skerry 60", "E18", 2),
        ("Fallow", "unknown", 1),
    ]
    assert [f.bits for mode in found["bodies"][0]["document"].modes for f in mode.formats] == [12, 10, 10]
    (kit,) = found["lens_sets"]
    assert [(x.name, x.t_stop, x.f_number_long, x.mount) for x in kit.lenses] == [
        *((name, 1.5, None, "E18") for name in ("25", "35", "50", "75")),
        ("18-135", None, 5.6, "K50"),
    ]
    (adapter,) = found["adapters"]
    assert (adapter.lens_mount, adapter.body_mount, adapter.magnification, adapter.glass) == (
        "K50",
        "E18",
        0.71,
        True,
    )
    assert [f.stops for f in found["filters"]] == [1.0, 2.0, 3.0]
    # What is named becomes the production's, and what is said of it is that nobody has said it.
    assert {(mount.name, mount.flange_mm, mount.note) for mount in found["mounts"]} == {
        ("E18", None, "flange distance not stated"),
        ("K50", None, "flange distance not stated"),
    }
    assert found["faults"] == []
    assert found["unused"] == [
        "Hi, this is what they have for us next week:",
        "2x 1 TB cards",
        "See you on Monday!",
    ]


def test_mounts_that_are_there_are_no_new_ones_and_are_known_by_their_names():
    found = of("25 35 T1.5 halewick", mounts=["Halewick", "E18"])
    assert [lens.mount for lens in found["lens_sets"][0].lenses] == ["halewick", "halewick"]
    assert of("25 35 T1.5 E18", mounts=["E18"])["mounts"] == []


def test_tables_in_a_page_are_read_by_their_titles():
    text = "Skerry\nSensor 36 x 24 mm, 24 MP\n\nMode\tPhotosites\tMax fps\nFull\t6000x4000\t60\n\nLens\tT\n25\t1.5\n50\t1.5"
    found = of(text)
    assert found["bodies"][0]["name"] == "Skerry" and found["faults"] == [], found["faults"]
    assert [lens.focal_mm for lens in found["lens_sets"][0].lenses] == [25, 50]


def test_a_word_that_is_open_holds_back_what_it_stands_in_and_nothing_else():
    found = of("Skerry\nSensor 36 x 24 mm, 24 MP\nFull up to 60\n1920 x 1080\n\n25 35 T1.5")
    assert [body["document"] for body in found["bodies"]] == [None]
    assert len(found["lens_sets"]) == 1 and found["faults"][0]["value"] == "1920 x 1080"
    (span,) = [span for span in found["spans"] if span["asked"]]
    taken = "Skerry\nSensor 36 x 24 mm, 24 MP\nFull up to 60\nrecords 1920 x 1080\n\n25 35 T1.5"
    assert span["options"][0]["text"] in taken and of(taken)["bodies"][0]["document"] is not None


@settings(max_examples=examples(200))
@given(
    text=st.lists(
        st.sampled_from([written for name in ("spec_lines", "lens_lines", "questions") for written, _ in lines(name)]) | st.text(max_size=30),
        max_size=12,
    ).map("\n".join)
)  # fmt: skip
def test_every_character_is_in_one_stretch_and_what_comes_of_it_can_be_kept(text):
    found = of(text)
    assert "".join(span["text"] for span in found["spans"]) == text
    assert all(a["end"] == b["start"] for a, b in zip(found["spans"], found["spans"][1:], strict=False))
    for body in found["bodies"]:
        assert body["document"] is None or check_body(body["document"])
    for kit in found["lens_sets"]:
        check_lens_set(kit)


@pytest.mark.parametrize("text", ["", "   \n\n", "Dear all,\nsee you."])
def test_what_says_nothing_makes_nothing(text):
    found = of(text)
    assert found["bodies"] == found["lens_sets"] == found["adapters"] == found["filters"] == []
