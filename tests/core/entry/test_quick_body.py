"""A body from few facts: what follows is exact, what contradicts is said, and nothing is guessed silently."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError
from hextan.core.documents import check_body
from hextan.core.entry import TICKS, QuickBodyAsk, quick_body
from hextan.core.entry.figures import Figure, read_figure, read_pair, whole_pair
from hextan.core.entry.mode_lines import read_modes
from hextan.core.entry.sensor import SensorAsk, solve
from hextan.core.entry.tables import read_table
from hextan.core.reading import read_page_line


def of(modes="", formats=("raw", "uhd", "hd"), **sensor):
    return quick_body(
        QuickBodyAsk(name="Mine", modes=modes, formats=list(formats), sensor=SensorAsk(**sensor))
    )


def read_mode(line, at, photosites, pitch_um):
    (mode,) = read_modes(read_page_line(line), at, photosites, pitch_um)
    return mode


def facts(answer):
    return {fact["name"]: (fact["text"], fact["given"]) for fact in answer["facts"]}


def test_size_and_photosites_give_the_pitch_within_its_uncertainty():
    """38.1 mm over 5952 photosites: 6.4012 um by hand, known to half a tenth of a millimetre in 38.1."""
    sensor = solve(SensorAsk(size_mm="38.1 x 20.1 mm", photosites="5952 x 3140"))
    assert sensor.pitch_um.value == pytest.approx(6.401, abs=0.0005)
    assert sensor.pitch_um.error == pytest.approx(6.4012 * 0.05 / 38.1, rel=0.01)
    told = facts(of(size_mm="38.1 x 20.1 mm", photosites="5952 x 3140"))
    assert told["pitch_um"] == ("6.401 µm ± 0.0084 µm", False)
    assert told["photosites"] == ("5952 × 3140", True)


def test_windows_of_a_pasted_list_give_their_crops():
    """8192 / 5952 and 8192 / 2976, from no more than a list of windows."""
    answer = of("8192 x 4320, Super 35 5952 x 3140, Super 16 2976 x 1570")
    assert [mode["told"].split(" · ")[0] for mode in answer["modes"]] == [
        "whole width",
        "1.376× crop",
        "2.753× crop",
    ]
    assert answer["document"] is None and "Say two of size" in answer["missing"][0]
    whole = of("8192 x 4320, Super 35 5952 x 3140, Super 16 2976 x 1570", pitch_um="4.6")
    assert [m.window for m in whole["document"].modes] == [[8192, 4320], [5952, 3140], [2976, 1570]]
    assert [m.name for m in whole["document"].modes] == ["8192 x 4320", "Super 35", "Super 16"]


def test_a_crop_of_one_and_a_half_leaves_less_than_half_of_the_pixels():
    """24 MP / 1.5^2 = 10.7 MP."""
    answer = of("full\ncrop 1.5x", megapixels="24", format_class="full frame")
    assert "10.7 of 24.0 MP" in answer["modes"][1]["told"]


@pytest.mark.parametrize(
    ("sensor", "photosites", "pitch_um"),
    [
        ({"size_mm": "36 x 24", "pitch_um": "6"}, (6000, 4000), 6.0),
        ({"photosites": "6000x4000", "pitch_um": "5,9"}, (6000, 4000), 5.9),
        ({"photosites": "6000 x 4000", "format_class": "full frame"}, (6000, 4000), 6.0),
        ({"photosites": "6000 x 4000", "crop": "1.5x"}, (6000, 4000), 4.0),
        ({"megapixels": "24 MP", "format_class": "full frame"}, (6000, 4000), 6.0),
        ({"megapixels": "24", "crop": "1.5"}, (6000, 4000), 4.0),
        ({"size_mm": "36 x 24", "megapixels": "24"}, (6000, 4000), 6.0),
        ({"pitch_um": "6", "format_class": "full frame"}, (6000, 4000), 6.0),
        ({"crop": "1.5", "reference": "super35"}, (6000, 4498), 24890 / 1.5 / 6000),
    ],
)
def test_any_two_facts_or_fewer_give_a_sensor(sensor, photosites, pitch_um):
    found = solve(SensorAsk(**sensor))
    assert found.photosites == photosites
    assert found.pitch_um.value == pytest.approx(pitch_um)
    assert not found.faults and not found.contradictions


def test_a_crop_alone_tells_fields_and_says_that_pixels_stand_in():
    answer = of("full up to 60", crop="1.5")
    assert facts(answer)["photosites"] == ("not known", False)
    assert "MP" not in answer["modes"][0]["told"]
    assert "6000 across stand in" in answer["missing"][0]
    assert answer["sheet"]["sensor"]["width_mm"] == pytest.approx(24.0)


@pytest.mark.parametrize(
    ("sensor", "fields", "told"),
    [
        ({"size_mm": "36 x 24", "photosites": "6000 x 4000", "pitch_um": "5.2"}, "pitch_um", "are 6 µm each, not 5.2"),
        ({"size_mm": "36.0 x 20.0", "photosites": "6000 x 4000"}, "size_mm", "by the height 5 µm"),
        ({"size_mm": "36 x 24", "photosites": "6000 x 4000", "megapixels": "26"}, "megapixels", "24.0 MP, not 26"),
        ({"size_mm": "36 x 24", "photosites": "6000 x 4000", "format_class": "Super 35"}, "format_class", "counts as full frame"),
        ({"size_mm": "36.0 x 24.0", "photosites": "6000 x 4000", "crop": "1.50"}, "crop", "is 1.00× of full frame"),
    ],
)  # fmt: skip
def test_what_contradicts_is_said_and_nothing_is_refused(sensor, fields, told):
    answer = of(**sensor)
    assert [fields in c["fields"] and told in c["text"] for c in answer["contradictions"]] == [True]
    assert answer["document"] is not None and not answer["faults"]


@pytest.mark.parametrize("sensor", [{"size_mm": "36.0 x 24.0", "photosites": "6000 x 4000", "pitch_um": "6.0",
                                     "megapixels": "24", "crop": "1.0", "format_class": "full frame"}])  # fmt: skip
def test_figures_that_agree_as_far_as_their_digits_tell_do_not_contradict(sensor):
    assert of(**sensor)["contradictions"] == []


@pytest.mark.parametrize(
    ("sensor", "field", "rule"),
    [
        ({"size_mm": "38.1"}, "size_mm", "write width and height"),
        ({"photosites": "1,234 x 800"}, "photosites", "may mean 1234 or 1.234"),
        ({"pitch_um": "six"}, "pitch_um", "write it like 6.4"),
        ({"photosites": "5952.5 x 3140"}, "photosites", "whole numbers"),
        ({"megapixels": "0"}, "megapixels", "write it like 24.2"),
    ],
)
def test_what_cannot_be_read_is_told_beside_its_field(sensor, field, rule):
    (fault,) = of(**sensor)["faults"]
    assert fault["field"] == field and rule in fault["rule"]


#: Lines in the words of menus on a sensor of 6144 x 3240 photosites of 6 um: window, step, method, rates.
LINES = {
    "S35 crop 1.5x": ((4096, 2160), 1, "full", None),
    "6K 6144x3240": ((6144, 3240), 1, "full", None),
    "full width, 2K binned": ((6144, 3240), 3, "binned", None),
    "full, binned 2x up to 120": ((6144, 3240), 2, "binned", ["1..120"]),
    "2.39 5952x2532": ((5952, 2532), 1, "full", None),
    "2.39:1 up to 120": ((6144, 2571), 1, "full", ["1..120"]),
    "16:9 crop 1.3x 24 25": ((4430, 2492), 1, "full", ["24", "25"]),
    "S35 crop 1.5x up to 60": ((4096, 2160), 1, "full", ["1..60"]),
    "reads 4096x2160 23.98 24 25 29.97 50 59.94": (
        (4096, 2160), 1, "full", ["24000/1001", "24", "25", "30000/1001", "50", "60000/1001"]),
    "full frame 1-120": ((6000, 3240), 1, "full", ["1..120"]),
    "25.3 x 14.2 mm up to 60": ((4217, 2367), 1, "full", ["1..60"]),
    "36.9 x 19.4 mm 60p": ((6144, 3240), 1, "full", ["60"]),
    "2/3 inch 400": ((1600, 900), 1, "full", ["400"]),
    "Super 35 24p 25p": ((4148, 2333), 1, "full", ["24", "25"]),
    "open gate line-skipped 3x 180": ((6144, 3240), 3, "skipped", ["180"]),
    "whole sensor max 59.94": ((6144, 3240), 1, "full", ["1..60000/1001"]),
}  # fmt: skip


@pytest.mark.parametrize("line", LINES)
def test_lines_are_read_in_the_words_of_menus(line):
    mode = read_mode(line, "modes[0]", (6144, 3240), 6.0)
    window, step, method, rates = LINES[line]
    assert not mode.faults
    assert (mode.window, mode.sampling, mode.method) == (window, step, method)
    assert mode.rates == (rates or ["24000/1001", "24", "25", "30000/1001", "30"])
    # What nobody typed is said.
    assert any("no rates" in told for told in mode.assumed) is (rates is None)


def test_names_are_what_a_line_says_besides_figures():
    names = [read_mode(line, "", (6144, 3240), 6.0).name for line in ("6K 6144x3240 up to 60", "S35 crop 1.5x 24 25", "4096 x 2160")]  # fmt: skip
    assert names == ["6K", "S35 crop 1.5x", "4096 x 2160"]


@pytest.mark.parametrize(
    ("line", "rule"),
    [
        ("6K", "6K is this what is recorded, or how wide a window is read?"),
        ("Ocean gate", "is not understood: write a window and rates"),
        ("8192x4320", "is 8192 photosites wide, and the sensor has 6144"),
        ("full up to 1,200", "may mean 1200 or 1.200"),
        ("full crop 0x 24", "crop 0x cannot be"),
        ("full 16:0 24", "16:0 cannot be"),
        ("full 0K binned 24", "0K cannot be"),
    ],
)
def test_a_line_that_is_not_understood_says_what_could_stand_there(line, rule):
    (fault,) = read_mode(line, "modes[3]", (6144, 3240), 6.0).faults
    assert fault.field == "modes[3]" and rule in f"{fault.value} {fault.rule}"


def test_interlaced_is_read_by_its_letter_or_its_word():
    """50i is fifty fields, of which two make a frame (ITU-R BT.709, from memory)."""
    for line in ("HD 1920x1080 50i", "HD 1920x1080 25 interlaced", "1080i50", "1080/50i"):
        mode = read_mode(line, "", (6144, 3240), 6.0)
        assert (mode.rates, mode.interlaced) == ([], ["25"]), line
    assert read_mode("HD 1920x1080 50p", "", (6144, 3240), 6.0).interlaced == []


TABLES = {
    "a spreadsheet": "Mode\tPixels\tMax fps\nFull\t6144 x 3240\t60\nS16\t2976x1570\t120",
    "Markdown": "| Mode | Photosites | Highest rate | Weight |\n|---|---:|---|---|\n| Full | 6144 x 3240 | 60 | 3 kg |\n"
                "| S16 | 2976 x 1570 | 120 | 3 kg |",
    "CSV": 'name,width,height,max fps\nFull,6144,3240,60\nS16,2976,1570,120',
    "semicolons": "Setting;Resolution;Frame rates\nFull;6144x3240;up to 60\nS16;2976x1570;up to 120",
}  # fmt: skip


@pytest.mark.parametrize("kind", TABLES)
def test_tables_are_recognized_by_the_titles_of_their_columns(kind):
    answer = of(TABLES[kind], photosites="6144 x 3240", pitch_um="6")
    assert [(m.name, m.window) for m in answer["document"].modes] == [
        ("Full", [6144, 3240]),
        ("S16", [2976, 1570]),
    ]
    assert [m.formats[0].rates for m in answer["document"].modes] == [["1..60"], ["1..120"]]
    left_out = [column["title"] for column in answer["columns"] if column["taken_for"] is None]
    assert left_out == (["Weight"] if kind == "Markdown" else [])


def test_a_cell_in_quotes_may_hold_the_separator():
    table = read_table('mode,pixels,rates\nFull,6144x3240,"24, 25, 30"')
    assert [rate.text for rate in table.lines[0].formats[0].rates] == ["24", "25", "30"]
    assert read_table("6K 6144x3240\nS35 crop 1.5x") is None


def test_windows_follow_the_sensor_until_they_are_set_by_hand():
    for photosites in ("6000 x 4000", "8000 x 4500"):
        answer = of("full\n16:9\ncrop 2x", photosites=photosites, pitch_um="6")
        w, h = map(int, photosites.split(" x "))
        windows = [m.window for m in answer["document"].modes]
        assert windows[0] == [w, h] and windows[2] == [w // 2, h // 2]
        assert windows[1][0] / windows[1][1] == pytest.approx(16 / 9, rel=1e-3)


def test_formats_are_offered_where_the_window_gives_them_and_nobody_says_bits():
    answer = of("full 24 25\ncrop 2x 24", formats=list(TICKS), photosites="6144 x 3456", pitch_um="5")
    names = [[f.name for f in m.formats] for m in answer["document"].modes]
    assert names == [["full raw", "full → UHD", "full → 4096", "full → HD"], ["crop 2x raw", "crop 2x → HD"]]
    offered = {f["tick"]: f["why_not"] for f in answer["modes"][1]["formats"]}
    assert offered["uhd"] == "768 photosites short: the window gives 3072 × 1728" and offered["hd"] == ""
    formats = [f for m in answer["document"].modes for f in m.formats]
    assert {f.bits for f in formats} == {None}
    assert {f.samples for f in formats} == {"raw", None}


def test_without_a_line_the_whole_sensor_is_read_and_names_are_kept_apart():
    assert [m.name for m in of(photosites="6000 x 4000", pitch_um="6")["document"].modes] == ["Full"]
    twice = of("full\nfull", photosites="6000 x 4000", pitch_um="6")
    assert [m.name for m in twice["document"].modes] == ["full", "full (2)"]


def test_figures_know_what_their_digits_leave_open():
    assert read_figure("38.10", "x", "1") == Figure(38.1, 0.005)
    assert read_pair("38.1 by 20.1", "x", "1 x 1")[1].value == 20.1
    assert whole_pair("6000×4000", "x", "1 x 1") == (6000, 4000)
    assert Figure(6.0, 0.05).agrees(Figure(6.1, 0.06)) and not Figure(6.0, 0.05).agrees(Figure(6.2, 0.05))
    with pytest.raises(InvalidInputError, match=r"may mean 12345 or 12\.345"):
        read_figure("12,345", "x", "1")


@given(text=st.text(max_size=60), lines=st.text(max_size=200), name=st.text(max_size=80))
def test_anything_may_be_typed_and_what_comes_of_it_can_be_kept(text, lines, name):
    sensor = SensorAsk(size_mm=text, photosites="6000 x 4000", pitch_um="6")
    answer = quick_body(QuickBodyAsk(name=name, mount=text, modes=lines, sensor=sensor))
    assert answer["document"] is None or check_body(answer["document"])
    assert answer["document"] is not None or answer["faults"]
    assert "".join(span["text"] for span in answer["spans"]) == lines


@given(
    w=st.integers(500, 20_000), h=st.integers(400, 15_000), pitch=st.integers(20, 120).map(lambda n: n / 10)
)
def test_size_and_photosites_lead_back_to_the_pitch(w, h, pitch):
    size = f"{w * pitch / 1000:.2f} x {h * pitch / 1000:.2f}"
    sensor = solve(SensorAsk(size_mm=size, photosites=f"{w} x {h}"))
    assert abs(sensor.pitch_um.value - pitch) <= sensor.pitch_um.error * (1 + 1e-9)


def test_one_line_that_is_not_understood_takes_nothing_from_the_others():
    answer = of("full\n8K reads 8192x4320", photosites="6000 x 4000", pitch_um="6")
    assert [fault["field"] for fault in answer["faults"]] == ["modes[1]"]
    assert answer["document"] is None
    assert len(answer["sheet"]["modes"]) == 1


def test_a_format_of_one_mode_may_be_left_out():
    asked = QuickBodyAsk(
        modes="Full 6000x3376\nSmall 4000x2250", formats=["uhd", "hd"], without=["uhd Small"],
        sensor=SensorAsk(size_mm="36 x 20.3 mm", photosites="6000 x 3376"),
    )  # fmt: skip
    modes = quick_body(asked)["document"].modes
    assert [[each.name for each in mode.formats] for mode in modes] == [
        ["Full → UHD", "Full → HD"],
        ["Small → HD"],
    ]
