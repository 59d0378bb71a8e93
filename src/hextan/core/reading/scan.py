"""A text is parted into words, each character into exactly one, by tables of how the words of the trade are written."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any, NamedTuple

from hextan.core.base import either_way

#: A figure as it is typed, with a point or a comma before its decimals; and how people write "times".
N = r"\d+(?:[.,]\d+)?"
TIMES = r"\s*[x×X*]\s*"
#: From one figure to another.
TO = r"\s*(?:-|–|—|\.\.\.?|…|\bto\b)\s*"
#: What may not follow a word: it would go on.
_ENDS = r"(?![^\W_])(?!(?<=\d)[.,]\d)"


class Option(NamedTuple):
    """What a word may mean: in words, and the text that says so without a doubt."""

    told: str
    text: str


class Word(NamedTuple):
    """A stretch of the text, what it was taken for, and what it is worth."""

    kind: str
    start: int
    end: int
    text: str
    value: Any = None
    #: What has to be asked about it, and what it can mean.
    asked: str = ""
    options: tuple[Option, ...] = ()

    @property
    def rule(self) -> str:
        """What has to be asked, without the word itself."""
        return self.asked.removeprefix(f"{self.text.strip()}: ")

    def ask(self, asked: str, *options: Option) -> Word:
        """The word, with what has to be asked about it."""
        return self._replace(asked=asked, options=options)


class Phrase(NamedTuple):
    """How a kind of word is written, and what it is worth."""

    kind: str
    pattern: str
    value: Callable[[re.Match[str]], Any] = lambda found: None
    #: Whether it may be followed by letters or digits at once.
    open: bool = False


#: Kinds that no table names: white space, signs between words, words that are not in the table, and bare figures.
SPACE, SIGN, UNKNOWN, NUMBER, FILLER = "space", "sign", "unknown", "number", "filler"
#: Signs that part words, and say nothing by themselves.
SIGNS = ",;.:/|()[]+-–—=&@*~<>•·#\"'’“”″′"
_SPACE = re.compile(r"\s+")
_LETTERS = re.compile(r"[^\W\d_]+")
#: So many runs of letters are remembered.
_MOST_RUNS = 20_000
_NUMBER = re.compile(N + _ENDS)
_WORD = re.compile(r"[^\W\d_][\w'’./-]*[\w]|\d(?:[\w.,'’/-]*\w)?|[^\W_]")
#: No figure of the trade is larger.
LARGEST = 1e9


def number(text: str) -> float:
    """A figure with a point or a comma before its decimals.

    >>> number("2,8"), number("24")
    (2.8, 24.0)
    """
    return float(text.replace(",", "."))


def numbers(text: str) -> list[float]:
    """All figures of a text.

    >>> numbers("800 / 12800"), numbers("18, 25,5")
    ([800.0, 12800.0], [18.0, 25.5])
    """
    return [number(found) for found in re.findall(N, text)]


def beginnings(pattern: str) -> set[str]:
    """Letters that a pattern may begin with, and more: every run of letters in it, and single ones of its sets.

    >>> sorted(beginnings(r"colou?r[sz]\\s+bits?"))
    ['bit', 'colo', 'r', 's', 'z']
    """
    plain = re.sub(r"\\.|\{[^}]*\}|\(\?[^:=!]*[:=!]", " ", pattern.lower())
    letters = {
        letter for group in re.findall(r"\[([^\]]*)\]", plain) for letter in re.findall(r"[^\W\d_]", group)
    }
    plain = re.sub(r"\[[^\]]*\]", " ", plain)
    return letters | {
        run for run in re.findall(r"[^\W\d_]+(?![?*\w])|[^\W\d_]+(?=[^\W\d_][?*])", plain) if run
    }


class Scanner:
    """Parts texts by one table; the first row that fits a place is taken.

    Parameters
    ----------
    prose : most of what is read are words of no table: those are found out without trying each row
    """

    def __init__(self, phrases: Iterable[Phrase], prose: bool = False) -> None:
        self._phrases = list(phrases)
        found = set[str]().union(*(beginnings(row.pattern) for row in self._phrases))
        self._runs = {run for run in found if len(run) > 1}
        self._letters = found - self._runs
        self._begins: dict[str, bool] = {}
        self._prose = prose
        written = [f"(?:{row.pattern}){'' if row.open else _ENDS}" for row in self._phrases]
        self._each = [re.compile(pattern, re.IGNORECASE) for pattern in written]
        parts = (f"(?P<p{i}>{pattern})" for i, pattern in enumerate(written))
        self._any = re.compile("|".join(parts), re.IGNORECASE)

    def __call__(self, text: str) -> list[Word]:
        """Part a text. Words follow one another without a gap, from its first character to its last."""
        words: list[Word] = []
        at = 0
        while at < len(text):
            word = self._at(text, at)
            words.append(word)
            at = word.end
        return words

    def _at(self, text: str, at: int) -> Word:
        space = _SPACE.match(text, at)
        if space is not None:
            return Word(SPACE, at, space.end(), space[0])
        run = _LETTERS.match(text, at) if self._prose else None
        found = None if run is not None and not self._may_begin(run[0].lower()) else self._any.match(text, at)
        if found is not None and found.end() > at and found.lastgroup is not None:
            return self._word(int(found.lastgroup[1:]), text, at, found.end())
        bare = _NUMBER.match(text, at)
        if bare is not None:
            return _checked(Word(NUMBER, at, bare.end(), bare[0], number(bare[0])))
        word = _WORD.match(text, at)
        if word is not None:
            return Word(UNKNOWN, at, word.end(), word[0])
        return Word(SIGN if text[at] in SIGNS else UNKNOWN, at, at + 1, text[at])

    def _may_begin(self, run: str) -> bool:
        """Whether a row may begin with these letters."""
        known = self._begins.get(run)
        if known is None:
            known = run in self._letters or any(run.startswith(r) or r.startswith(run) for r in self._runs)
            if len(self._begins) < _MOST_RUNS:
                self._begins[run] = known
        return known

    def _word(self, row: int, text: str, at: int, end: int) -> Word:
        phrase = self._phrases[row]
        found = self._each[row].match(text, at)
        assert found is not None
        try:
            value = phrase.value(found)
        except (ValueError, ZeroDivisionError, OverflowError) as error:
            rule = str(error) if isinstance(error, NotOneError) else "cannot be: every figure is above zero"
            return Word(UNKNOWN, at, end, text[at:end], asked=rule)
        return _checked(Word(phrase.kind, at, end, text[at:end], value))


@dataclass
class Read:
    """A text, and all its words."""

    text: str
    words: list[Word]

    @property
    def asked(self) -> list[Word]:
        """Words that can mean two things, or nothing."""
        return [word for word in self.words if word.asked]

    @property
    def unused(self) -> list[Word]:
        """Words that are not in the trade's lists."""
        return [word for word in self.words if word.kind == UNKNOWN]


class NotOneError(ValueError):
    """A word that is written as one of its kind and cannot be one; its message says why."""


def _checked(word: Word) -> Word:
    """A word whose figures may be: none is zero or beyond all sense, and no comma may part thousands."""
    told = next(
        (
            ask
            for figure in re.findall(r"(?<![\d.,])\d{1,3},\d{3}(?![\d.,])", word.text)
            if (ask := either_way(figure))
        ),
        None,
    )
    if told is not None:
        return word._replace(kind=UNKNOWN, value=None, asked=told)
    if word.kind not in MAY_BE_ZERO and any(not 0 < n <= LARGEST for n in numbers(word.text)):
        rule = "cannot be: every figure is above zero"
        return word._replace(kind=UNKNOWN, value=None, asked=rule)
    return word


#: Kinds of words in which a nought says something.
MAY_BE_ZERO = {FILLER, SIGN, "nd", "samples", "firmware"}
