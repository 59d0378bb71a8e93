"""Questions in one line: every example of the docs runs, answers agree with figures from outside, nothing is guessed."""

import math
import re
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.written import questions
from hextan.cli import main
from hextan.core import evaluate
from hextan.core.ask import ask
from hextan.core.ask.gloss import GLOSSES, gloss_of
from hextan.core.ask.questions import QUESTIONS
from hextan.core.ask.words import readings
from hextan.core.kit import FramingWish
from tests.core.bodies import a_body, a_format, a_mode, package_of, parse_body
from tests.core.kits import lens

DOCS = (Path(__file__).resolve().parents[3] / "docs" / "ask.md").read_text(encoding="utf-8")


def figures(line, package=None):
    (answer,) = ask(line, package)["answers"]
    return {figure["name"]: figure["value"] for figure in answer["figures"]}


def told(line):
    return ask(line)["answers"][0]["told"]


def test_the_docs_list_every_question_with_its_examples():
    table = DOCS[DOCS.index("## Questions") : DOCS.index("## Lines")]
    rows = re.findall(r"^\| (.+?) \| .+? \| (.+) \|$", table, re.MULTILINE)[1:]
    listed = {
        question: tuple(re.findall(r"`(.+?)`", examples)) for question, examples in rows if question != "---"
    }
    assert listed == {question.told: question.examples for question in QUESTIONS}


@pytest.mark.parametrize("word", [w for row in re.findall(r"^\| a.+? \| (.+) \|$|^\| pixels.+? \| (.+) \|$", DOCS[: DOCS.index("## Questions")], re.MULTILINE)
                                  for w in re.findall(r"`(.+?)`", "".join(row))])  # fmt: skip
def test_every_word_of_the_docs_is_understood_as_one(word):
    assert {len(reading) for reading in readings(word)} == {len(word.split()) if word.count("x") > 1 else 1}
    assert all(w.kind != "unknown" and not w.asked for reading in readings(word) for w in reading)


LINES = re.findall(
    r"^\| `(.+?)` \| (.+) \|$", DOCS[DOCS.index("## Lines") : DOCS.index("## Terms")], re.MULTILINE
)


def test_the_docs_have_150_lines_in_the_words_of_the_trade():
    assert len({line for line, _ in LINES}) >= 150


@pytest.mark.parametrize(("line", "answer"), LINES)
def test_every_line_of_the_docs_has_its_answer(line, answer):
    assert " / ".join(found["told"] for found in ask(line)["answers"]) == answer


def test_questions_of_the_fixtures_are_understood_and_none_is_answered_as_another():
    rows = [*questions(), *questions("questions_aside")]
    assert [row for row in rows if row.verdict == "wrong"] == []
    assert sum(row.verdict == "understood" for row in rows) >= 0.95 * len(rows)


def test_the_docs_list_every_term_and_every_name_is_explained():
    rows = re.findall(r"^\| (.+?) \| (.+) \|$", DOCS[DOCS.index("## Terms") :], re.MULTILINE)[2:]
    assert rows == [(gloss.term, ", ".join(gloss.also)) for gloss in GLOSSES]
    names = [(name, gloss) for gloss in GLOSSES for name in (gloss.term, *gloss.also)]
    assert len({name.lower() for name, _ in names}) == len(names)
    for name, gloss in names:
        (answer,) = ask(f"What is {name}?")["answers"]
        assert answer["told"].endswith(gloss.means), name


def test_a_question_is_no_term():
    assert all(gloss_of(example) is None for question in QUESTIONS for example in question.examples)
    assert ask("hyperf")["answers"][0]["told"].startswith("Hyperfocal distance: ")
    # Several terms begin so.
    assert gloss_of("focal") is None


@pytest.mark.parametrize(
    ("question", "example"),
    [(q, e) for q in QUESTIONS for e in q.examples],
    ids=lambda x: str(getattr(x, "name", x)),
)
def test_every_example_is_answered_by_its_question_alone(question, example):
    asked = ask(example)
    assert [answer["question"] for answer in asked["answers"]] == [question.told]
    assert all(word["understood"] for word in asked["words"])
    assert asked["answers"][0]["steps"]


#: Worked out by hand, from the sizes of the windows and the definitions.
BY_HAND = {
    "50 s35": ("full frame", f"{50 * 36 / 24.89:.1f} mm"),
    "like 35 on full frame": ("Super 35", f"{35 * 24.89 / 36:.1f} mm"),
    "5952 of 8192": ("crop", "1.376×"),
    "24 MP /1.5": ("left", "10.7 MP"),
    "31.5 circle 25.3x14.2": ("needed", f"{math.hypot(25.3, 14.2):.2f} mm"),
    "24 to 120 fps": ("light", f"{-math.log2(5):+.2f} stops"),
    "T2.8 25fps 180 ei800": ("light", f"{math.ceil(250 * 2.8**2 * 50 / 800)} lux"),
    "6'2\" to m": ("distance", f"{74 * 0.0254:.2f} m"),
    "1.88m to ft": ("distance", "6' 2\""),
    "25 fps 60 hz 1/60": ("frames differ", "0.00 stops"),
}


@pytest.mark.parametrize(("line", "told"), [
    ("T2.8 25fps 1/10 ei 800", "T2.8 at EI 800 wants 61.3 lux with the whole frame open (1/25 s): 1/10 s is not possible at 25 fps."),
    ("T2.8 25fps 1/50 180 ei800", "T2.8 at EI 800 wants 123 lux."),
    ("T8 25fps ei 3", "T8 at EI 3 wants 267,000 lux."),
    ("25 fps 50 hz 1/10", "At 25 fps under 50 Hz nothing is seen: frames differ by 0.00 stops with the whole frame open (1/25 s): "
     "1/10 s is not possible at 25 fps."),
    ("27.3 circle 36x24", "A circle of 27.3 mm is 16.0 mm too small: dark corners."),
    ("29.01 circle 25.3x14.2", "A circle of 29.01 mm just covers: 0.003 mm short, which nobody sees as dark corners."),
])  # fmt: skip
def test_what_cannot_be_is_said_and_no_figure_hides_what_is_judged(line, told):
    assert ask(line)["answers"][0]["told"] == told


@pytest.mark.parametrize(("line", "wants"), [
    ("T2.8 25fps 1/100 180 ei800", "1/100 s is 90° at 25 fps, and 180° is said as well: say one of them"),
    ("T2.8 25fps 400° ei800", "400° is more than a whole frame: a shutter is open for 360° at most"),
    ("24 MP crop 0.5", "a crop of 0.5 would leave more than there is: say 2 for a 2x crop"),
])  # fmt: skip
def test_what_contradicts_itself_is_asked_about(line, wants):
    asked = ask(line)
    assert asked["answers"] == []
    assert wants.lower() in asked["wants"][0].lower()


def test_an_angle_says_where_it_is_focused():
    got = figures("200mm 3'6\" T2.8 ff")
    row = evaluate({"lens": {"focal_mm": 200}, "subject": {"distance_m": 42 * 0.0254},
                    "formats": [{"window": {"width_mm": 36, "height_mm": 24}}]})["formats"][0]  # fmt: skip
    assert got["angle, focused there"].startswith(f"{row['angle_at_focus_deg']['horizontal']:.1f}°")
    assert got["angle, at infinity"].startswith(f"{row['angle_deg']['horizontal']:.1f}°")


@pytest.mark.parametrize("line", BY_HAND)
def test_answers_agree_with_figures_worked_out_by_hand(line):
    name, value = BY_HAND[line]
    assert figures(line)[name] == value


def test_field_and_depth_are_those_of_the_public_evaluation():
    row = evaluate({
        "lens": {"focal_mm": 40, "f_number": 2.0}, "subject": {"distance_m": 3.2},
        "formats": [{"id": "x", "window": {"width_mm": 24.89, "height_mm": 24.89 / 2.39}}],
    })["formats"][0]  # fmt: skip
    shown = figures("40 f2 3.2m s35 2.39:1")
    assert shown["field"] == f"{row['field_m']['width']:.2f} m × {row['field_m']['height']:.2f} m"
    near, far = (float(n) for n in re.findall(r"[\d.]+", shown["in focus"]))
    assert near == pytest.approx(row["depth"]["near_m"], abs=0.02)
    assert far == pytest.approx(row["depth"]["far_m"], abs=0.02)


def test_the_lens_that_frames_a_person_gives_that_field():
    """The focal length, put into the public evaluation, frames what was asked."""
    from hextan.core.kit import field_of_person_m

    focal = float(re.search(r"= ([\d.]+) mm", ask("waist 5m uhd s35")["answers"][0]["steps"][-1])[1])
    row = evaluate({
        "lens": {"focal_mm": focal}, "subject": {"distance_m": 5},
        "formats": [{"id": "x", "window": {"width_mm": 24.89, "height_mm": 24.89 * 9 / 16}}],
    })["formats"][0]  # fmt: skip
    assert row["field_m"]["height"] == pytest.approx(
        field_of_person_m(FramingWish(framing="waist")), rel=0.002
    )


def test_a_t_stop_says_that_the_depth_is_told_too_deep():
    assert any("too deep" in step for step in ask("40 T2.1 3m s35")["answers"][0]["steps"])


@pytest.mark.parametrize(
    ("line", "word", "could"),
    [
        ("50 s35 banana9", "banana9", "could be"),
        ("1,234 of 5", "1,234", "may mean 1234 or 1.234"),
        ("50mmm s35", "50mmm", "could be"),
        ("0 s35", "0", "above zero"),
        ("0 of 8192", "0", "above zero"),
        ("24 MP /0", "/0", "above zero"),
        ("0x14 31.5 circle", "0x14", "above zero"),
        ("9999999999 of 5", "9999999999", "above zero"),
        ("waist 5m 16:0 s35", "16:0", "above zero"),
    ],
)
def test_what_is_not_understood_is_marked_and_nothing_is_answered(line, word, could):
    asked = ask(line)
    unknown = [w for w in asked["words"] if w["understood"] is None]
    assert [w["text"] for w in unknown] == [word]
    assert line[unknown[0]["start"] :].startswith(word)
    assert could in unknown[0]["could_be"]
    assert asked["answers"] == []


def test_a_line_that_is_no_question_yet_says_what_it_needs():
    wants = ask("85 f1.2")["wants"]
    assert any(
        want.startswith("What is seen and sharp at a distance? It needs a distance, as in 85")
        for want in wants
    )
    assert ask("85 85 s35")["wants"] == ["These words make no question together. Ask like 50 s35."]
    assert ask("")["wants"] == ask("")["answers"] == []
    assert len(ask("")["examples"]) == 1 + sum(len(q.examples) for q in QUESTIONS)


def test_a_distance_that_cannot_be_focused_is_told_not_computed():
    asked = ask("85 f1.2 5cm s35")
    assert asked["answers"] == [] and asked["wants"]


def test_names_of_a_production_are_words_and_its_formats_are_answered_for():
    document = parse_body(a_body([a_mode("Full", formats=[a_format()])], name="Skerry 60"))
    from hextan.core.equipment import LensSet

    glass = (
        lens(1, name="Heron 33", focal=33.0, mount="W54"),
        lens(2, name="Heron 85", focal=85.0, mount="W54"),
    )
    package = package_of([document], lens_sets=(LensSet(1, "Lantern", "Heron", glass),))
    assert "Full, Skerry 60" in figures("50 s35", package)
    (answer,) = ask("heron 33 f2 3m skerry 60", package)["answers"]
    assert answer["told"].startswith("33 mm at 3.00 m sees")
    format_id = next(iter(package.formats))
    assert answer["bench"] == {
        "format_id": format_id,
        "lens_id": 1,
        "adapter_ids": [],
        "focal_mm": None,
        "stop": 2.0,
        "subject_m": 3.0,
    }
    # A class finds the format and the lens that come nearest; without a production there is no Bench.
    near = ask("80 f4 2m full frame", package)["answers"][0]["bench"]
    assert (near["format_id"], near["lens_id"]) == (format_id, 2)
    assert ask("80 f4 2m full frame")["answers"][0]["bench"] is None


def test_the_command_prints_answers_and_refusals(capsys):
    assert main(["ask", "50", "s35"]) == 0
    assert "50 mm on Super 35 is like 72.3 mm on full frame." in capsys.readouterr().out
    assert main(["ask", "50 s35 banana9"]) == 2
    assert "banana9 is not understood" in capsys.readouterr().err


@given(st.text(max_size=60) | st.lists(st.sampled_from(sorted({w for q in QUESTIONS for e in q.examples for w in e.split()} | {"0", "0x0", "/0", "1/0", "0fps", "T0", "1:0", "9" * 30})), max_size=7).map(" ".join))  # fmt: skip
def test_anything_may_be_typed(line):
    asked = ask(line)
    for word in asked["words"]:
        assert line[word["start"] :].startswith(word["text"])


def test_a_name_that_is_a_class_as_well_is_read_both_ways_and_a_body_has_its_window_of_a_class():
    document = parse_body(
        a_body(
            [
                a_mode("S35", formats=[a_format()], window=[3000, 2000]),
                a_mode("Full", formats=[a_format("whole")]),
            ],
            name="Fallow",
        )
    )
    package = package_of([document])
    told = [answer["told"] for answer in ask("50 s35", package, "Low Water")["answers"]]
    assert told[0].startswith("50 mm on Super 35 is like") and told[1].startswith(
        "50 mm on S35, Fallow is like"
    )
    assert ask("50 s35", package, "Low Water")["terms"] == "the names and formats of Low Water"
    largest, of_mode = (ask(line, package)["answers"][0]["told"] for line in ("28 Fallow", "28 Fallow Full"))
    assert largest.startswith("28 mm on Full, Fallow is like") and of_mode == largest


def test_words_of_no_list_are_passed_over_and_shown_but_never_a_figure():
    asked = ask("50 banana s35")
    assert [(w["text"], w["skipped"]) for w in asked["words"] if w["understood"] is None] == [
        ("banana", True)
    ]
    assert len(asked["answers"]) == 1
    assert ask("50 s35 x9000")["answers"] == []
