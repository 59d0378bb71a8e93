"""What can be asked in one line: each question is a row, with the words that it needs, those that it may have, and examples."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from hextan.core.ask.lenses import (
    angle_seen,
    distance_for,
    field_seen,
    hyperfocal,
    like,
    same_depth,
    which_format,
    which_lens,
)
from hextan.core.ask.light import equal_light, flickers, needed_light_of
from hextan.core.ask.said import Reply, Said
from hextan.core.ask.sums import (
    card_time,
    chained,
    converted,
    covers,
    crop_of,
    megapixels,
    rates_apart,
    what_of,
)
from hextan.core.equipment import Package


@dataclass(frozen=True)
class Question:
    """A question: the kinds of words that it needs and may have, how it is answered, and examples of it."""

    name: str
    told: str
    needs: tuple[tuple[str, ...], ...]
    may: tuple[str, ...]
    answer: Callable[[Said, Package | None], Reply]
    examples: tuple[str, ...]
    #: Whether it can be set on a Bench.
    on_bench: bool = False
    #: Whether it is asked only where its words are said: which lens, how far.
    by_name: bool = False


_FOCAL = ("number", "lens", "zoom")
_STOP = ("t_stop", "f_number")
_SHAPE = ("aspect", "raster")
#: Needed words, each with what may stand for it; a kind that is named twice is needed twice.
QUESTIONS: tuple[Question, ...] = (
    Question("like", "What is this lens like on other formats, and which gives it there?",
             (_FOCAL, ("window",)), ("window", "squeeze", "times", "like", *_STOP), like,
             ("50 s35", "75 full frame", "like 35 on full frame", "50 s35 in ff", "24-70 s35", "40 2x ff", "which lens on s16 looks like 50 on full frame"), True),
    Question("field", "What is seen and sharp at a distance?",
             (_FOCAL, ("distance",)), ("window", *_STOP, *_SHAPE, "squeeze", "times"), field_seen,
             ("85 f1.2 0.85m s35", "40 T2.1 10'6\" full frame 2.39:1", "50 10ft full frame", "how wide is 25 at 4m on s35", "depth 35 f1.5 2m full frame"), True),
    Question("angle", "Which angle does it see?", (_FOCAL, ("window",)), (*_SHAPE, "squeeze", "times"), angle_seen,
             ("angle of 35 on s35", "fov 24 ff"), False, True),
    Question("hyperfocal", "Where is it focused to be sharp to infinity?", (_FOCAL, _STOP, ("window",)), _SHAPE, hyperfocal,
             ("hyperfocal 25 f4 s35",), False, True),
    Question("stop for", "Which stop gives the same depth on another format?", (_STOP, ("window",)), ("window", *_FOCAL), same_depth,
             ("same depth as 50 f2 s35 on full frame", "what stop on ff for the depth of T2 on s35"), False, True),
    Question("which lens", "Which lens frames a person so?",
             (("framing",), ("distance",), ("window",)), _SHAPE, which_lens,
             ("waist 5m uhd s35", "face 8ft full frame", "which lens for a close-up at 2 m on s35", "MCU 3m s35")),
    Question("distance for", "From how far is a person framed so?", (("framing",), _FOCAL, ("window",)), (*_SHAPE, "squeeze"), distance_for,
             ("face 8 mm full frame", "how far for waist 50 s35")),
    Question("which format", "Which format frames a person so?", (("framing",), _FOCAL, ("distance",)), _SHAPE, which_format,
             ("waist 35 2m", "knees 50 12ft")),
    Question("what of", "What does a crop make of a lens?", (_FOCAL, ("crop", "times", "factors")), ("crop", "times", "factors", *_STOP), what_of,
             ("28 f2 crop 1.5", "85 1.6x", "24-70 crop 1.5", "50 T2 crop 1.5 crop 1.07")),
    Question("crop", "How much does a window crop?", (("number",), ("number",), ("of",)), (), crop_of, ("5952 of 8192",)),
    Question("crops", "What do crops come to?", (("aspects", "factors", "crop"),), ("crop", "times", "factors"), chained,
             ("16:9 of 17:9", "2.75x 1.067 x 1.43", "crop 1.5 crop 1.1")),
    Question("megapixels", "What does a crop leave of the pixels?", (("megapixels",), ("crop", "times", "factors", "window")),
             ("crop", "times", "factors"), megapixels, ("24 MP /1.5", "45 mp crop 1.3", "24 MP /1.5 /1.5", "45 MP s35")),
    Question("covers", "Does a circle cover a window?", (("number",), ("circle", "intent"), ("size", "window")), ("circle",), covers,
             ("31.5 circle 25.3x14.2", "28.4 circle s35", "does 43.3 cover 36x24")),
    Question("rates", "What does another rate cost?", (("number", "fps"), ("fps",), ("to",)), (), rates_apart,
             ("24 to 120 fps", "25fps to 100fps")),
    Question("flicker", "Does it flicker?", (("fps", "number"), ("hz",)), ("angle", "time", "number"), flickers,
             ("400 fps 50 hz", "25 fps 60 hz 1/60", "24 fps 50hz 172.8", "which shutter at 24 under 50 hz")),
    Question("light", "How much light does it want?", (_STOP, ("fps", "time"), ("ei",)), ("angle", "time", "number"),
             needed_light_of, ("T2.8 25fps 180 ei800", "f4 24fps 1/50 iso 400", "f4 1/50 iso 400")),
    Question("equal light", "What does another setting cost, and what makes up for it?",
             ((*_STOP, "angle", "time", "ei"), (*_STOP, "angle", "time", "ei", "number"), ("to",)), ("ei", "time", "angle", *_STOP), equal_light,
             ("iso 800 T2.8 to T5.6", "ND for T2.8 instead of T8", "180 to 90 degrees", "ei 800 to ei 3200", "1/50 to 1/200")),
    Question("card", "How long is a card?", (("storage",),), ("megabits", "fps"), card_time,
             ("1 TB at 600 Mbit/s", "how long is a 512 GB card at 400 Mbit/s")),
    Question("convert", "What is it in the other unit?", (("distance",), ("to",), ("unit",)), (), converted,
             ("6'2\" to m", "1.88m to ft")),
)  # fmt: skip
