"""What people write is understood, asked about or marked; nothing is taken wrongly in silence, and every character is told."""

import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bench.written import lenses, lines, spec
from hextan.core.entry import LensLineAsk, QuickBodyAsk, lens_line, quick_body
from hextan.core.entry.sensor import SensorAsk
from hextan.core.reading import read_lens_words, read_page_line, spans_of
from hextan.core.reading.lexicon import PAGE
from hextan.core.reading.scan import Scanner
from tests.budget import examples

#: Pieces of what pages, lists and messages say, to be strung together at random.
PIECES = sorted(
    {
        piece
        for name in ("spec_lines", "lens_lines", "questions")
        for written, _ in lines(name)
        for piece in re.split(r"(?<=[ ,/;])", written)
    }
)
ANYTHING = st.lists(st.sampled_from(PIECES) | st.text(max_size=6), max_size=20).map("".join)


@pytest.mark.parametrize(("read", "name"), [(spec, "spec_lines"), (lenses, "lens_lines")])
def test_what_pages_and_lists_say_is_understood_and_never_wrong_in_silence(read, name):
    rows = [*read(name), *read(f"{name}_aside")]
    assert [row for row in rows if row.verdict == "wrong"] == []
    assert sum(row.verdict == "understood" for row in rows) >= 0.95 * len(rows)


@settings(max_examples=examples(400))
@given(text=ANYTHING)
def test_every_character_is_in_one_stretch(text):
    for words in (read_page_line(text).words, read_lens_words(text).words):
        spans = spans_of(text, words)
        assert "".join(span["text"] for span in spans) == text
        assert [span["start"] for span in spans[1:]] == [span["end"] for span in spans[:-1]]


@settings(max_examples=examples(400))
@given(text=ANYTHING)
def test_words_that_are_passed_over_in_prose_are_in_no_table(text):
    assert Scanner(PAGE)(text) == Scanner(PAGE, prose=True)(text)


@pytest.mark.parametrize("name", ["spec_lines", "spec_lines_aside", "lens_lines", "lens_lines_aside"])
def test_an_offered_meaning_is_asked_about_no_more_when_it_is_taken(name):
    """The advice is applied: its text stands in the line in place of the word."""
    read = read_page_line if name.startswith("spec") else read_lens_words
    for written, _ in lines(name):
        for word in read(written).asked:
            for option in word.options:
                taken = f"{written[: word.start]}{option.text}{written[word.end :]}"
                at = [w for w in read(taken).asked if w.start <= word.start < w.end]
                assert not at, (written, option)


def body(modes, formats=("raw", "uhd", "hd"), **sensor):
    asked = sensor or {"photosites": "6144 x 4096", "pitch_um": "6"}
    return quick_body(
        QuickBodyAsk(name="Skerry", modes=modes, formats=list(formats), sensor=SensorAsk(**asked))
    )


def formats(answer):
    return [
        (mode.name, f.name, f.raster, f.bits, f.samples, f.interlaced, f.rates, f.needs)
        for mode in answer["document"].modes
        for f in mode.formats
    ]


def test_interlaced_belongs_to_a_rate_and_raw_never_has_it():
    got = formats(body("Full 17:9 23.98 24 25 29.97 50i 59.94i"))
    progressive = ["24000/1001", "24", "25", "30000/1001"]
    assert [(name, interlaced, rates) for _, name, _, _, _, interlaced, rates, _ in got] == [
        ("Full 17:9 raw", False, progressive),
        ("Full 17:9 → UHD", False, progressive),
        ("Full 17:9 → HD", False, progressive),
        ("Full 17:9 → HD interlaced", True, ["25", "30000/1001"]),
    ]


def test_two_statements_of_one_line_are_two_formats_of_one_mode():
    got = formats(body("Full raw 12 bit up to 30, 10 bit up to 60 with recorder"))
    assert [(bits, rates, needs) for _, _, _, bits, _, _, rates, needs in got] == [
        (12, ["1..30"], []),
        (10, ["1..60"], ["recorder"]),
    ]
    assert {name for name, *_ in got} == {"Full"}


def test_two_rows_of_a_table_that_differ_in_what_is_recorded_are_two_formats_of_one_mode():
    table = "Mode\tResolution\tCodec\tBits\tFrame rates\nFF\t3840x2160\tintra 4:2:2\t10\tup to 30\nFF\t3840x2160\tlong GOP 4:2:0\t8\tup to 60"
    got = formats(body(table))
    assert [(name, raster, bits, samples, rates) for name, _, raster, bits, samples, _, rates, _ in got] == [
        ("FF", [3840, 2160], 10, "4:2:2", ["1..30"]),
        ("FF", [3840, 2160], 8, "4:2:0", ["1..60"]),
    ]


def test_a_raster_on_a_page_is_what_is_recorded_and_a_pair_that_could_be_either_is_asked_about():
    assert [raster for _, _, raster, *_ in formats(body("HD 1920x1080 59.94i"))] == [[1920, 1080]]
    asked = body("1920 x 1080")
    assert asked["document"] is None
    (span,) = [span for span in asked["spans"] if span["asked"]]
    assert [option["text"] for option in span["options"]] == ["records 1920 x 1080", "reads 1920 x 1080"]
    read, recorded = (body(option["text"])["document"] for option in reversed(span["options"]))
    assert read.modes[0].window == [1920, 1080] and recorded.modes[0].window == [6144, 4096]


def test_a_factor_on_a_page_is_rounded_and_the_crop_that_gives_a_raster_is_offered():
    """6007 photosites over 1.6 are 3754, 86 short of UHD; 6007 / 3840 = 1.564, which prints as 1.6."""
    answer = body("crop 1.6x 24 25", photosites="6007 x 4005", pitch_um="6")
    assert answer["modes"][0]["formats"][1]["why_not"] == "86 photosites short: the window gives 3754 × 2503"
    (span,) = [span for span in answer["spans"] if span["options"]]
    assert [option["told"] for option in span["options"]] == ["rounded: 1.564, which gives UHD"]
    again = body("crop 1.564x 24 25", photosites="6007 x 4005", pitch_um="6")
    assert "UHD" in " ".join(name for _, name, *_ in formats(again))
    # What is said to be recorded and cannot be is not kept by guessing.
    assert body("UHD crop 1.6x 24 25", photosites="6007 x 4005", pitch_um="6")["document"] is None


def test_a_raster_that_cuts_the_sides_of_a_window_is_offered_as_what_it_is():
    answer = body("2.35 24 25", formats=["uhd", "dci4k"])
    assert formats(answer) == []
    assert [f["cuts"] for f in answer["modes"][0]["formats"] if f["tick"] == "uhd"] == [
        "cuts its sides: 4647 of 6144 photosites"
    ]
    asked = QuickBodyAsk(modes="2.35 24 25", formats=["uhd"], also=["uhd 2.35"], sensor=SensorAsk(photosites="6144 x 4096", pitch_um="6"))  # fmt: skip
    assert [f.name for f in quick_body(asked)["document"].modes[0].formats] == ["2.35 → UHD"]


def test_what_a_page_says_of_the_whole_body_is_kept():
    page = """Sensor: 36.0 × 24.0 mm, 24.2 MP
Full frame 3:2 raw 12 bit 1-60 fps
S35 UHD 4:2:2 10 bit up to 120
Dual base ISO 800 / 5000
EI 200-12800
internal ND 1/4, 1/16, 1/64
stabiliser 1.1x / 1.43x, not raw
Mount: E18
Weight 1.1 kg (body only)
Made for storytellers"""
    answer = body(page, size_mm="")
    document = answer["document"]
    assert document is not None, answer["faults"]
    assert (document.mount, document.weight_kg, document.base_eis) == ("E18", 1.1, [800, 5000])
    assert document.eis == [200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000, 10000, 12800]  # fmt: skip
    # The digits of the page say how exactly a size is known.
    facts = {fact["name"]: fact["text"] for fact in answer["facts"]}
    assert facts["size_mm"].startswith("36.00 × 24.00 mm ± 0.0")
    assert document.nd_stops == [2.0, 4.0, 6.0]
    assert [[rule.factor for rule in crop.rules] for crop in document.crops] == [[1.1, 1.1], [1.43, 1.43]]
    assert document.photosites[0] * document.photosites[1] == pytest.approx(24.2e6, rel=1e-3)
    assert [mode.name for mode in document.modes] == ["Full frame 3:2", "S35"]
    unused = [span["text"] for span in answer["spans"] if span["group"] == "unused"]
    assert unused == ["body", "Made", "storytellers"]


def test_a_heading_holds_for_the_lines_below_it():
    page = "S35:\nUHD 4:2:2 10 bit up to 60\nHD up to 120\nFull frame:\nUHD up to 30"
    assert [(name, raster) for name, _, raster, *_ in formats(body(page))] == [
        ("S35", [3840, 2160]),
        ("S35", [1920, 1080]),
        ("Full frame", [3840, 2160]),
    ]


RASTERS = {"UHD": [3840, 2160], "4K DCI": [4096, 2160], "HD": [1920, 1080], "raw": None}
FORMAT = st.tuples(
    st.sampled_from(list(RASTERS)), st.sampled_from([8, 10, 12]), st.sampled_from(["4:2:0", "4:2:2", "4:4:4"]),
    st.sampled_from(["24 25 30", "up to 60", "1-120", "23.98p 59.94p"]), st.sampled_from(["", " with recorder"]),
)  # fmt: skip
MODES = st.lists(
    st.tuples(st.integers(4200, 8000), st.integers(2400, 5000), st.lists(FORMAT, min_size=1, max_size=4)),
    min_size=1, max_size=4, unique_by=lambda mode: mode[:2],
)  # fmt: skip


def written(mode):
    w, h, recorded = mode
    return "\n".join(
        f"reads {w} x {h} {raster}{'' if raster == 'raw' else ' ' + samples} {bits} bit {rates}{need}"
        for raster, bits, samples, rates, need in recorded
    )


@settings(max_examples=examples(60))
@given(modes=MODES)
def test_bodies_that_are_written_out_are_read_back_the_same(modes):
    answer = body("\n".join(map(written, modes)), photosites="8192 x 5120", pitch_um="4")
    assert answer["document"] is not None, answer["faults"]
    assert [mode.window for mode in answer["document"].modes] == [[w, h] for w, h, _ in modes]
    for mode, (w, h, recorded) in zip(answer["document"].modes, modes, strict=True):
        wanted = {
            (tuple(RASTERS[raster] or [w, h]), bits, "raw" if raster == "raw" else samples, bool(need))
            for raster, bits, samples, _, need in recorded
        }
        assert {(tuple(f.raster), f.bits, f.samples, bool(f.needs)) for f in mode.formats} == wanted


@settings(max_examples=examples(200))
@given(text=ANYTHING)
def test_anything_that_is_pasted_is_answered(text):
    answer = body(text)
    assert "".join(span["text"] for span in answer["spans"]) == text
    made = lens_line(LensLineAsk(line=text))
    assert made["columns"] or "".join(span["text"] for span in made["spans"]) == text
