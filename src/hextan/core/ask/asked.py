"""A line is read, every question that its words can mean is answered, and what is not understood is told."""

from __future__ import annotations

import math

from typing_extensions import TypedDict

from hextan.core.ask.gloss import Gloss, gloss_of
from hextan.core.ask.questions import QUESTIONS, Question
from hextan.core.ask.said import Answered, OnBench, Said
from hextan.core.ask.words import CALLED, KINDS, readings, refused, skipped
from hextan.core.base import HextanError, mm_from_um
from hextan.core.equipment import FormatInPackage, Package, simplest
from hextan.core.reading import Word

MOST_LETTERS = 200
#: A format of the production is set on the Bench for a window whose diagonal is within this share of its own.
ALIKE = 0.2
#: What a term alone asks.
MEANS = "What does a word of the trade mean?"
EXAMPLES = [*(example for question in QUESTIONS for example in question.examples), "what is a T-stop"]


class WordRead(TypedDict):
    """A word, and what it was understood as."""

    text: str
    start: int
    #: None for one that is not understood.
    understood: str | None
    #: What could stand there, or what has to be asked about it.
    could_be: str
    #: Whether the line was answered without it.
    skipped: bool


class Asked(TypedDict):
    """What a line means, and its answers: one for each reading."""

    words: list[WordRead]
    answers: list[Answered]
    #: What would make it a question, where it is none yet.
    wants: list[str]
    #: In whose terms it was read.
    terms: str
    examples: list[str]


def ask(line: str, package: Package | None = None, production: str = "") -> Asked:
    """Answer a line. It never guesses: a line that means nothing says what would make it a question.

    Words of no list are passed over where the others make one question, and told.

    Parameters
    ----------
    package : a production's, so that its names are understood and its formats answered for
    production : what it is called

    >>> ask("50 s35")["answers"][0]["told"]
    '50 mm on Super 35 is like 72.3 mm on full frame.'
    """
    terms = (
        f"the names and formats of {production}"
        if production
        else "no production: classes and references alone"
    )
    gloss = gloss_of(line[:MOST_LETTERS])
    if gloss is not None:
        return _explained(line, gloss, terms)
    read = readings(line[:MOST_LETTERS], package)
    words = read[0] if read else []
    known = [word for word in words if not skipped(word) and not refused(word)]
    answers: list[Answered] = []
    wants: list[str] = []
    if not any(refused(word) for word in words):
        for reading in read:
            told, asked = _answers([word for word in reading if not skipped(word)], package)
            answers += [answer for answer in told if answer["told"] not in {a["told"] for a in answers}]
            wants += [want for want in asked if want not in wants]
    over = [word for word in words if skipped(word)]
    # More than one question and words that nobody understood: it is not guessed which.
    if over and len({answer["question"] for answer in answers}) > 1:
        answers = []
    if not answers and not wants and known and len(known) + len(over) == len(words):
        wants = _wants(known) or [
            f"These words make no question together. Ask like {QUESTIONS[0].examples[0]}."
        ]
    return {
        "words": [_word(word, known, bool(answers)) for word in words],
        "answers": answers,
        "wants": wants,
        "terms": terms,
        "examples": EXAMPLES,
    }


def _answers(words: list[Word], package: Package | None) -> tuple[list[Answered], list[str]]:
    """The answers of one reading, and what is wrong with it."""
    answers: list[Answered] = []
    wants: list[str] = []
    for question in QUESTIONS:
        if _fits(question, words):
            try:
                answers.append(_answered(question, words, package))
            except HextanError as error:
                wants.append(error.message)
    return answers, wants


def _explained(line: str, gloss: Gloss, terms: str) -> Asked:
    """A term of the trade, and what it means."""
    text = line.strip()
    return {
        "words": [
            {
                "text": text,
                "start": line.index(text),
                "understood": "a term of the trade",
                "could_be": "",
                "skipped": False,
            }
        ],
        "answers": [
            {
                "question": MEANS,
                "told": f"{gloss.term[0].upper()}{gloss.term[1:]}: {gloss.means}",
                "figures": [{"name": "also called", "value": ", ".join(gloss.also)}],
                "steps": [],
                "bench": None,
            }
        ],
        "wants": [],
        "terms": terms,
        "examples": EXAMPLES,
    }


#: Words that are crops, of which there may be many.
CROPS = ("crop", "times", "factors")
#: What squeezes there are: a bare factor beside a format is one of these, or is no word of such a question.
SQUEEZES = (1.25, 1.3, 1.33, 1.5, 1.6, 1.65, 1.8, 2.0)
#: Words between others.
BETWEEN = ("to", "of", "like", "unit", "intent")


def _left(question: Question, words: list[Word]) -> tuple[list[tuple[str, ...]], list[Word]]:
    """What a question still needs after these words, and which of them it has no use for."""
    needs, over = list(question.needs), []
    # Words between others belong to any question that does not need them.
    between = {kind for kind in BETWEEN if all(kind not in need for need in question.needs)}
    for word in words:
        if word.kind in between or (
            word.kind == "intent" and "intent" not in {k for need in needs for k in need}
        ):
            continue
        # The need that has fewest ways to be met is met first.
        fitting = sorted((need for need in needs if word.kind in need), key=len)
        if fitting:
            needs.remove(fitting[0])
        else:
            over.append(word)
    allowed = list(question.may)
    useless = []
    for word in over:
        if word.kind in allowed:
            # Crops may be as many as they are.
            if word.kind not in CROPS:
                allowed.remove(word.kind)
        else:
            useless.append(word)
    return needs, useless


def _fits(question: Question, words: list[Word]) -> bool:
    needs, useless = _left(question, words)
    squeezed = (
        all(word.value in SQUEEZES for word in words if word.kind == "times") or "squeeze" not in question.may
    )
    return not needs and not useless and squeezed and _is_asked(question, words)


def _is_asked(question: Question, words: list[Word]) -> bool:
    """Whether the words that ask something, ask this."""
    intents = [word.value for word in words if word.kind == "intent"]
    return all(question.name in means for means in intents) and (bool(intents) or not question.by_name)


def _wants(words: list[Word]) -> list[str]:
    """The questions that begin with these words, and what each still needs; the nearest first."""
    told = []
    for question in QUESTIONS:
        needs, useless = _left(question, words)
        if words and not useless and needs and _is_asked(question, words):
            missing = " and ".join(" or ".join(_called(kind) for kind in need) for need in needs)
            told.append((len(needs), f"{question.told} It needs {missing}, as in {question.examples[0]}"))
    return [text for _, text in sorted(told, key=lambda row: row[0])[:3]]


def _called(kind: str) -> str:
    return CALLED[kind]


def _word(word: Word, known: list[Word], answered: bool) -> WordRead:
    unknown = skipped(word) or refused(word)
    could = word.asked
    if unknown and not could and not answered:
        could = _could_stand(known)
    return {
        "text": word.text.strip(), "start": word.start, "understood": None if unknown else _understood(word),
        "could_be": could, "skipped": answered and skipped(word),
    }  # fmt: skip


def _understood(word: Word) -> str:
    if word.kind == "window":
        return f"{word.value.name}, {word.value.width_mm:.2f} × {word.value.height_mm:.2f} mm"
    if word.kind == "lens":
        return f"lens {word.value.name}"
    return _called(word.kind)


def _could_stand(known: list[Word]) -> str:
    """What could stand in the place of a word that is not understood: whatever questions need besides the others."""
    kinds = dict.fromkeys(
        kind
        for question in QUESTIONS
        if not (left := _left(question, known))[1]
        for need in (*left[0], question.may)
        for kind in need
    )
    rows = {
        row.called: row.example
        for row in reversed(KINDS)
        if row.kind in kinds and row.example and row.kind not in BETWEEN
    }
    return (
        "could be " + ", ".join(f"{called} ({example})" for called, example in reversed(rows.items()))
        if rows
        else ""
    )


def _answered(question: Question, words: list[Word], package: Package | None) -> Answered:
    said = Said(words)
    told, figures, steps = question.answer(said, package)
    return {
        "question": question.told,
        "told": told,
        "figures": figures,
        "steps": steps,
        "bench": _bench(said, package) if question.on_bench and said.one("window") is not None else None,
    }


def _bench(said: Said, package: Package | None) -> OnBench | None:
    """Formats and lens of the production that come nearest to what is asked."""
    if package is None or not package.formats or not package.lenses:
        return None
    window = said.window_of_lens
    formats = list(package.formats.values())
    here = next((f for f in formats if f.recording.id == window.format_id), None)
    if here is None:
        sized = [
            (abs(_size_mm(f)[0] - window.width_mm), f)
            for f in formats
            if abs(math.log(math.hypot(*_size_mm(f)) / math.hypot(window.width_mm, window.height_mm)))
            <= ALIKE
        ]
        here = min(sized, key=lambda row: row[0])[1] if sized else None
    if here is None:
        return None
    focal = said.focal_mm
    lens = said.one("lens") or min(
        (lens for _, lens in package.lenses.values()),
        key=lambda lens: (
            max(lens.focal_min_mm - focal, focal - lens.focal_max_mm, 0.0),
            lens.focal_max_mm - lens.focal_min_mm,
        ),
    )
    way = simplest(package.rig, lens, here.body)
    return {
        "format_id": here.recording.id,
        "lens_id": lens.id,
        "adapter_ids": [] if way is None else list(way.key),
        "focal_mm": focal if lens.focal_max_mm > lens.focal_min_mm else None,
        "stop": said.one("t_stop") or said.one("f_number"),
        "subject_m": said.one("distance"),
    }


def _size_mm(here: FormatInPackage) -> tuple[float, float]:
    w, h = here.mode.window
    return mm_from_um(w * here.body.pitch_um), mm_from_um(h * here.body.pitch_um)
