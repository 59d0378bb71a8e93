"""What was read, told by its place in the text: each character stands in exactly one stretch, with what it was taken for."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any, Literal, TypeAlias

from typing_extensions import TypedDict

from hextan.core.reading.lexicon import NAME_OF_RASTER
from hextan.core.reading.scan import FILLER, NUMBER, SIGN, SPACE, UNKNOWN, Word

#: What a stretch speaks of. `plain` is white space, signs and words between; `unused` was not understood.
Group: TypeAlias = Literal[
    "lens", "readout", "recording", "rate", "crop", "light", "other", "plain", "unused"
]


class OptionRead(TypedDict):
    """A meaning that is offered: in words, and the text that says so without a doubt."""

    told: str
    text: str


class SpanRead(TypedDict):
    """A stretch of the text, by the numbers of its characters, and what it was taken for."""

    start: int
    end: int
    text: str
    group: Group
    taken_for: str
    #: What has to be asked about it; empty where it is plain.
    asked: str
    options: list[OptionRead]


def _size(value: Any) -> str:
    return f"{value[0]} × {value[1]}"


def _raster(value: Any) -> str:
    name = NAME_OF_RASTER.get(value)
    return f"recorded: {_size(value)}" + (f", {name}" if name else "")


def _rate(value: Any) -> str:
    text, suffix = value
    return f"{text} {'fields a second, interlaced' if suffix == 'i' else 'frames a second'}"


def _list(value: Any) -> str:
    return f"{value[0]:g} to {value[1]:g}" if isinstance(value, tuple) else ", ".join(f"{n:g}" for n in value)


def _zoom(value: Any) -> str:
    return f"a zoom of {value[0]:g} to {value[1]:g} mm"


def _stop(mark: str) -> Callable[[Any], str]:
    return lambda v: f"{mark}{v[0]:g}" + ("" if v[1] is None else f", {mark}{v[1]:g} at the long end")


#: What each kind of word speaks of, and what it is told as.
KINDS: dict[str, tuple[Group, Callable[[Any], str]]] = {
    "class": ("readout", lambda v: f"the class {v}"),
    "photosites": ("readout", lambda v: f"read of the sensor: {_size(v)} photosites"),
    "size_mm": ("readout", lambda v: f"a size of {v[0]:g} × {v[1]:g} mm"),
    "whole": ("readout", lambda v: "the whole width of the sensor"),
    "open_gate": ("readout", lambda v: "open gate: the whole sensor"),
    "aspect": ("readout", lambda v: f"the shape {v[0]}"),
    "method": ("readout", lambda v: {"full": "every photosite is read", "binned": "photosites are binned", "skipped": "photosites are skipped"}[v[0]]),
    "grid": ("readout", lambda v: "how many photosites are binned"),
    "megapixels": ("readout", lambda v: f"{v:g} megapixels"),
    "thousands": ("readout", lambda v: f"a name: {v:g}K"),
    "row_us": ("readout", lambda v: f"{v:g} µs for a row"),
    "readout_ms": ("readout", lambda v: f"{v:.3g} ms from the first row to the last"),
    "raster": ("recording", _raster),
    "raw": ("recording", lambda v: "raw"),
    "bits": ("recording", lambda v: f"{v} bits"),
    "samples": ("recording", lambda v: f"colour samples {v}"),
    "codec": ("recording", lambda v: f"coded as {v}"),
    "compression": ("recording", lambda v: f"compressed {v:g}:1"),
    "megabits": ("recording", lambda v: f"{v:g} Mbit/s"),
    "need": ("recording", lambda v: f"needs a {v}"),
    "internal": ("recording", lambda v: "recorded in the camera"),
    "firmware": ("recording", lambda v: f"firmware {v} or later"),
    "buffer_s": ("recording", lambda v: f"a buffer of {v:g} s"),
    "rate": ("rate", _rate),
    "cap": ("rate", lambda v: f"up to {v[0]} frames a second"),
    "rates": ("rate", lambda v: f"{v[0]} to {v[1]} frames a second"),
    "scan_letter": ("rate", lambda v: "interlaced" if v == "i" else "progressive"),
    "interlaced": ("rate", lambda v: "interlaced"),
    "system": ("rate", lambda v: f"in the {v.upper()} setting"),
    "factor": ("crop", lambda v: f"a crop of {v[1]:.4g} against the whole width"),
    "in_camera": ("crop", lambda v: "an in-camera crop of " + ", ".join(f"{k:g}" for k in v)),
    "not_raw": ("crop", lambda v: "not for raw"),
    "squeeze": ("lens", lambda v: "a squeeze of " + (", ".join(f"{k:g}" for k in v) if isinstance(v, list) else f"{v:g}")),
    "eis": ("light", lambda v: f"EI {_list(v)}"),
    "base_eis": ("light", lambda v: f"base EI {_list(v)}"),
    "nd": ("light", lambda v: f"built-in ND of {_list(v)}" if v else "no built-in ND"),
    "nd_range": ("light", lambda v: f"variable ND, {v[0]:g} to {v[1]:g}"),
    "mount": ("lens", lambda v: f"mount {v}"),
    "weight_kg": ("other", lambda v: f"weighs {v:g} kg"),
    "focal": ("lens", lambda v: f"a lens of {v:g} mm"),
    "zoom": ("lens", _zoom),
    "fast_zoom": ("lens", lambda v: f"a zoom of {v[1]:g} to {v[2]:g} mm, f/{v[0]:g}"),
    "both": ("lens", lambda v: f"a lens of {v[0]:g} mm, f/{v[1]:g}"),
    "list": ("lens", lambda v: "lenses of " + ", ".join(f"{n:g}" for n in v) + " mm"),
    "count": ("lens", lambda v: f"{v} of them"),
    "t": ("lens", _stop("T")),
    "long_t": ("lens", lambda v: f"T{v:g} at the long end"),
    "f": ("lens", _stop("f/")),
    "circle": ("lens", lambda v: f"an image circle of {v:g} mm"),
    "close": ("lens", lambda v: f"close focus {v:g} m"),
    "front": ("lens", lambda v: f"a front of {v:g} mm"),
    "weight": ("lens", lambda v: f"weighs {v:g} kg"),
    "adapter": ("lens", lambda v: "an adapter"),
    "filters": ("light", lambda v: "ND filters"),
    "name": ("other", lambda v: "a name"),
    "lowest": ("unused", lambda v: ""),
    "against": ("unused", lambda v: ""),
    "cap_word": ("rate", lambda v: "up to"),
    "or": ("unused", lambda v: ""),
    "span": ("unused", lambda v: ""),
    "covers": ("plain", lambda v: ""),
    "stabiliser": ("crop", lambda v: "a stabiliser"),
    "fraction": ("unused", lambda v: "a fraction of nothing"),
    "off_topic": ("unused", lambda v: "speaks of something else"),
    "vague": ("crop", lambda v: "a crop"),
    "set_of": ("plain", lambda v: ""),
    "group": ("plain", lambda v: ""),
    "nothing": ("unused", lambda v: "says nothing that is used"),
    "open": ("unused", lambda v: ""),
    UNKNOWN: ("unused", lambda v: "not understood"),
    NUMBER: ("unused", lambda v: "a figure of nothing"),
    SPACE: ("plain", lambda v: ""),
    SIGN: ("plain", lambda v: ""),
    FILLER: ("plain", lambda v: ""),
}  # fmt: skip


def spans_of(text: str, words: Iterable[Word], start: int = 0) -> list[SpanRead]:
    """Tell words by their places, so that each character of the text is in exactly one span.

    Parameters
    ----------
    words : in their order, each within the text; what lies between them is plain
    start : what is added to the numbers of their characters

    >>> [(span["text"], span["group"]) for span in spans_of("a b", [Word("unknown", 2, 3, "b")])]
    [('a ', 'plain'), ('b', 'unused')]
    """
    spans: list[SpanRead] = []
    at = 0
    for word in words:
        if word.start > at:
            spans.append(_plain(text, at, word.start, start))
        group, told = KINDS[word.kind]
        spans.append(
            {
                "start": start + word.start,
                "end": start + word.end,
                "text": word.text,
                "group": group,
                "taken_for": told(word.value),
                "asked": word.asked,
                "options": [{"told": option.told, "text": option.text} for option in word.options],
            }
        )
        at = word.end
    if at < len(text):
        spans.append(_plain(text, at, len(text), start))
    return spans


def _plain(text: str, at: int, end: int, start: int) -> SpanRead:
    return {"start": start + at, "end": start + end, "text": text[at:end], "group": "plain", "taken_for": "", "asked": "",
            "options": []}  # fmt: skip
