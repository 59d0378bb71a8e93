"""The words of a question by their kinds, and what its answer is made of."""

from __future__ import annotations

from typing import Any, TypeAlias

from typing_extensions import TypedDict

from hextan.core.ask.words import Window, window_of
from hextan.core.equipment import Package
from hextan.core.optics import (
    LABELS,
    NAMED,
    trim_to_aspect,
)
from hextan.core.reading import Word


class Figure(TypedDict):
    """A figure of an answer."""

    name: str
    value: str


class OnBench(TypedDict):
    """What a question sets on the Bench of its production."""

    format_id: int
    lens_id: int
    #: What the lens goes on the body with, the one at the lens first.
    adapter_ids: list[int]
    focal_mm: float | None
    stop: float | None
    subject_m: float | None


class Answered(TypedDict):
    """One reading of a line, with its answer."""

    question: str
    #: The answer in a sentence.
    told: str
    figures: list[Figure]
    #: How it is worked out, one step after another.
    steps: list[str]
    #: None where the production has nothing to set it with.
    bench: OnBench | None


#: The answer in a sentence, its figures, and how it is worked out, one step after another.
Reply: TypeAlias = tuple[str, list[Figure], list[str]]


class Said:
    """The words of a line by their kinds."""

    def __init__(self, words: list[Word]) -> None:
        self.words = words

    def all(self, kind: str) -> list[Any]:
        """What the words of a kind are worth, in their order."""
        return [word.value for word in self.words if word.kind == kind]

    def one(self, kind: str) -> Any:
        """What the first word of a kind is worth; None without one."""
        return next(iter(self.all(kind)), None)

    def text(self, kind: str) -> str:
        """The first word of a kind, as it is written."""
        return next((word.text for word in self.words if word.kind == kind), "")

    @property
    def focal_mm(self) -> float:
        """Focal length: a number, or that of a lens of the production; the short end of a zoom."""
        lens, zoom = self.one("lens"), self.one("zoom")
        if zoom is not None:
            return float(zoom[0])
        return float(lens.focal_min_mm if lens is not None else self.one("number"))

    @property
    def squeeze(self) -> float:
        """Squeeze of the lens; 1 where none is said. Beside a format a bare 2x is one."""
        return float(self.one("squeeze") or self.one("times") or 1.0)

    @property
    def window_of_lens(self) -> Window:
        """The window that the focal length is on: the one that stands next to it."""
        at = next(
            (
                i
                for i, word in enumerate(self.words)
                if word.kind in ("number", "lens", "zoom", "t_stop", "f_number")
            ),
            0,
        )
        windows = [
            (abs(i - at - 0.1), word.value) for i, word in enumerate(self.words) if word.kind == "window"
        ]
        nearest: Window = min(windows, key=lambda row: row[0])[1]
        return nearest

    @property
    def other_window(self) -> Window | None:
        """The other window that is said; None where there is one alone."""
        first = self.window_of_lens
        return next((window for window in self.all("window") if window != first), None)

    @property
    def crops(self) -> list[float]:
        """All crops, in their order."""
        found: list[float] = []
        for word in self.words:
            found += (
                word.value
                if word.kind == "factors"
                else [word.value]
                if word.kind in ("crop", "times")
                else []
            )
        return found

    @property
    def aspect(self) -> float | None:
        """The shape of the picture: an aspect, or that of a raster."""
        raster = self.one("raster")
        return self.one("aspect") or (raster[0] / raster[1] if raster else None)

    @property
    def windows(self) -> list[Window]:
        """The windows that are meant: those that are said, else the two that the trade measures by."""
        return self.all("window") or [Window(LABELS[name], *size) for name, size in NAMED.items()]


def windows_known(package: Package | None) -> list[Window]:
    """The references, and one recording format of each picture that the production has."""
    found = [Window(LABELS[name], *size) for name, size in NAMED.items()]
    seen = set()
    for here in [] if package is None else package.formats.values():
        window = window_of(here, f"{here.mode.name}, {here.body.name}")
        if (round(window.width_mm, 2), here.body.id) not in seen:
            seen.add((round(window.width_mm, 2), here.body.id))
            found.append(window)
    return found


def focal_words(said: Said) -> str:
    """Write the focal length that is said, with its squeeze."""
    squeezed = f" with a squeeze of {said.squeeze:g}" if said.squeeze != 1.0 else ""
    zoom = said.one("zoom")
    return (f"{zoom[0]:g}-{zoom[1]:g} mm" if zoom else f"{said.focal_mm:g} mm") + squeezed


def picture_of(window: Window, aspect: float | None) -> tuple[float, float]:
    """The part of a window with an aspect, mm; all of it without one."""
    if aspect is None:
        return window.width_mm, window.height_mm
    w, h = trim_to_aspect(window.width_mm, window.height_mm, aspect)
    return float(w), float(h)


def unit_said(said: Said) -> Any:
    """The unit in which distances were written."""
    text = next((word.text for word in said.words if word.kind == "distance"), "")
    return (
        "ft" if any(sign in text for sign in "'′’\"") or text.lower().endswith(("ft", "feet", "in")) else "m"
    )
