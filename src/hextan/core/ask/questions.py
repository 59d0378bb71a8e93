"""What can be asked in one line: each question is a row, with the words that it needs, those that it may have, and examples."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from typing_extensions import TypedDict

from hextan.core.ask.words import Window, Word
from hextan.core.base import (
    Fault,
    InvalidInputError,
    distance_words,
    just_covers_words,
    limits,
    margin_words,
    mm_from_um,
    needed_light,
    rate_words,
    stops_words,
)
from hextan.core.equipment import Package
from hextan.core.evaluation import evaluate
from hextan.core.kit import FramingWish, field_of_person_m
from hextan.core.light import LUX_PER_FOOT_CANDLE, flicker, needed_lux, rate_cost_stops, shutter_s
from hextan.core.optics import (
    LABELS,
    NAMED,
    angle_of_view_deg,
    class_words,
    coverage_verdict,
    needed_circle_mm,
    trim_to_aspect,
)

#: A shutter of a line that says none (common practice, no source).
USUAL_SHUTTER_DEG = 180.0
#: A time and an angle within this of one another are the same shutter: times are printed rounded.
SAME_SHUTTER = 0.02


class Figure(TypedDict):
    """A figure of an answer."""

    name: str
    value: str


class OnBench(TypedDict):
    """What a question sets on the Bench of its production."""

    format_id: int
    lens_id: int
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
        """Focal length: a number, or that of a lens of the production."""
        lens = self.one("lens")
        return float(lens.focal_min_mm if lens is not None else self.one("number"))


def _windows(package: Package | None) -> list[Window]:
    """The references, and one recording format of each picture that the production has."""
    found = [Window(LABELS[name], *size) for name, size in NAMED.items()]
    seen = set()
    for here in [] if package is None else package.formats.values():
        mm = mm_from_um(here.body.pitch_um)
        w, h = here.mode.window[0] * mm, here.mode.window[1] * mm
        if (round(w, 2), here.body.id) not in seen:
            seen.add((round(w, 2), here.body.id))
            found.append(Window(f"{here.mode.name}, {here.body.name}", w, h, here.recording.id))
    return found


def _like(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    focal, window = said.focal_mm, said.one("window")
    gives = "like" in {word.kind for word in said.words}
    angle = float(angle_of_view_deg(window.width_mm, focal))
    others = [other for other in _windows(package) if other.name != window.name]
    figures: list[Figure] = [
        {"name": other.name, "value": f"{focal * other.width_mm / window.width_mm:.1f} mm"}
        for other in others
    ]
    first, value = figures[0]["name"], figures[0]["value"]
    if gives:
        told = f"Like {focal:g} mm on {window.name} is {value} on {first}."
    else:
        told = f"{focal:g} mm on {window.name} is like {value} on {first}."
    other = others[0]
    steps = [
        f"{window.name} is {window.width_mm:.2f} mm wide, {other.name} {other.width_mm:.2f} mm",
        f"{focal:g} × {other.width_mm:.2f} / {window.width_mm:.2f} = {value}, by the width",
        f"both see {angle:.1f}° across, focused at infinity",
    ]
    return told, figures, steps


def _picture(window: Window, aspect: float | None) -> tuple[float, float]:
    if aspect is None:
        return window.width_mm, window.height_mm
    w, h = trim_to_aspect(window.width_mm, window.height_mm, aspect)
    return float(w), float(h)


def _evaluated(
    focal_mm: float, picture: tuple[float, float], subject: dict[str, float], **lens: float | None
) -> Any:
    answer = evaluate(
        {
            "lens": {"focal_mm": focal_mm, **lens},
            "subject": subject,
            "formats": [{"id": "it", "window": {"width_mm": picture[0], "height_mm": picture[1]}}],
        }
    )
    return answer["formats"][0]


def _field(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    focal, window, distance = said.focal_mm, said.one("window"), said.one("distance")
    f_number, t_stop = said.one("f_number"), said.one("t_stop")
    picture = _picture(window, said.one("aspect"))
    row = _evaluated(focal, picture, {"distance_m": distance}, f_number=f_number, t_stop=t_stop)
    field, depth = row["field_m"], row["depth"]
    unit = _unit_of(said)
    figures: list[Figure] = [
        {
            "name": "field",
            "value": f"{distance_words(field['width'], unit)} × {distance_words(field['height'], unit)}",
        },
        {"name": "angle, focused there", "value": _angles(row["angle_at_focus_deg"])},
        {"name": "angle, at infinity", "value": _angles(row["angle_deg"])},
        {"name": "like, on Super 35", "value": f"{row['effective_focal_mm']:.1f} mm"},
    ]
    told = f"{focal:g} mm at {distance_words(distance, unit)} sees {figures[0]['value']}."
    steps = [
        f"{window.name}: a picture of {picture[0]:.1f} × {picture[1]:.1f} mm",
        f"magnification {row['magnification']:.4f}: the picture's size over the field's",
    ]
    if depth["near_m"] is not None:
        shown = limits(depth["near_m"], depth["far_m"], distance, unit)
        figures[1:1] = [
            {"name": "in focus", "value": shown.words()},
        ]
        told = f"{told[:-1]}, in focus {shown.words()}."
        steps.append(f"sharp to {depth['coc_mm']:.4f} mm: the picture's diagonal over 1500")
        if f_number is None:
            steps.append("no f-number: the depth is computed with the T-stop, and told a little too deep")
    return told, figures, steps


def _angles(angle: dict[str, float]) -> str:
    return f"{angle['horizontal']:.1f}° × {angle['vertical']:.1f}°"


def _unit_of(said: Said) -> Any:
    text = next((word.text for word in said.words if word.kind == "distance"), "")
    return (
        "ft" if any(sign in text for sign in "'′’\"") or text.lower().endswith(("ft", "feet", "in")) else "m"
    )


def _which(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    framing, distance, window = said.one("framing"), said.one("distance"), said.one("window")
    picture = _picture(window, said.one("aspect"))
    wish = FramingWish(framing=framing)
    high = field_of_person_m(wish)
    # Thin lens: the picture's height over the field's is the magnification, and f = m D / (1 + m)^2 from the sensor.
    m = picture[1] / 1000 / high
    focal = 1000 * distance * m / (1 + m) ** 2
    figures: list[Figure] = [{"name": "focal length", "value": f"{focal:.0f} mm"}]
    for kit, lens in [] if package is None else package.lenses.values():
        if lens.focal_min_mm <= focal <= lens.focal_max_mm or abs(lens.focal_min_mm / focal - 1) < 0.12:
            figures.append({"name": f"{lens.name}, {kit.name}", "value": f"{lens.focal_min_mm:g} mm"})
    told = f"{framing} at {distance_words(distance, _unit_of(said))} on {window.name} wants {focal:.0f} mm."
    steps = [
        f"{framing} of a person of {wish.height_m:g} m is {high:.2f} m high in the picture, with headroom",
        f"the picture is {picture[0]:.1f} × {picture[1]:.1f} mm on {window.name}",
        f"magnification {m:.4f}; focal length = m D / (1 + m)² = {focal:.1f} mm",
    ]
    return told[0].upper() + told[1:], figures, steps


def _crop_of(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    part, whole = said.all("number")
    k = whole / part
    figures: list[Figure] = [
        {"name": "crop", "value": f"{k:.3f}×"},
        {"name": "of the width", "value": f"{100 / k:.1f} %"},
        {"name": "of the area, in the same shape", "value": f"{100 / k**2:.1f} %"},
    ]
    return f"{part:g} of {whole:g} is a crop of {k:.3f}.", figures, [f"{whole:g} / {part:g} = {k:.4f}"]


def _megapixels(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    pixels, k = said.one("megapixels"), said.one("crop")
    if k < 1:
        rule = f"a crop of {k:g} would leave more than there is: say {1 / k:.3g} for a {1 / k:.3g}x crop"
        raise InvalidInputError.plainly(Fault("line", said.text("crop"), rule))
    left = pixels / k**2
    figures: list[Figure] = [{"name": "left", "value": f"{left:.1f} MP"}]
    return (
        f"A crop of {k:g} leaves {left:.1f} of {pixels:g} MP.",
        figures,
        [f"{pixels:g} / {k:g}² = {left:.2f}"],
    )


def _covers(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    circle, (w, h) = said.one("number"), said.one("size")
    needed = float(needed_circle_mm(w, h))
    verdict = coverage_verdict(circle, needed)
    spare = circle - needed
    told = just_covers_words(spare) if verdict == "marginal" else margin_words(spare)
    if spare < 0:
        told = f"{told.removesuffix(' short').removeprefix('just short, by ')} too small: dark corners"
    figures: list[Figure] = [
        {"name": "needed", "value": f"{needed:.2f} mm"},
        {"name": "circle", "value": told},
        {"name": "class of the window", "value": class_words(w, h)},
    ]
    steps = [f"the diagonal of {w:g} × {h:g} mm is √({w:g}² + {h:g}²) = {needed:.2f} mm"]
    return (
        f"A circle of {circle:g} mm {'is ' if spare < 0 else ''}{told}.",
        figures,
        steps,
    )


def _rates(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    rates = [word.value for word in said.words if word.kind in ("number", "fps")]
    low, high = rates
    stops = float(rate_cost_stops(high, low))
    figures: list[Figure] = [
        {"name": "light", "value": f"{-stops:+.2f} stops"},
        {"name": "slower on the screen", "value": f"{high / low:.2f}×"},
    ]
    moved = "costs" if stops > 0 else "gives"
    told = f"From {rate_words(low)} to {rate_words(high)} fps at the same shutter angle {moved} {stops_words(stops)} of light."
    return told, figures, [f"log2({rate_words(high)} / {rate_words(low)}) = {stops:.2f} stops"]


def _open_s(said: Said, fps: float) -> tuple[float, str]:
    """How long the shutter is open, and how that comes about; no longer than a frame.

    Raises
    ------
    InvalidInputError
        A time and an angle that are not the same, or more of an angle than there is.
    """
    time, angle = said.one("time"), said.one("angle") or said.one("number")
    if time is not None:
        of_time = 360 * fps * float(time)
        if angle is not None and abs(of_time / angle - 1) > SAME_SHUTTER:
            rule = f"1/{1 / time:g} s is {of_time:.4g}° at {rate_words(fps)} fps, and {angle:g}° is said as well: say one of them"
            raise InvalidInputError.plainly(Fault("line", said.text("time"), rule))
        if of_time > 360 * (1 + SAME_SHUTTER):
            return (
                1 / fps,
                f"1/{1 / time:g} s is longer than a frame at {rate_words(fps)} fps: the longest is 1/{fps:g} s",
            )
        return float(time), f"1/{1 / time:g} s"
    angle = angle or USUAL_SHUTTER_DEG
    if angle > 360:
        rule = f"{angle:g}° is more than a whole frame: a shutter is open for 360° at most"
        raise InvalidInputError.plainly(Fault("line", f"{angle:g}°", rule))
    seconds = float(shutter_s(angle, fps))
    return seconds, f"{angle:g}° at {rate_words(fps)} fps are 1/{1 / seconds:.4g} s"


def _whole_frame(said: Said, fps: float) -> str:
    """What is said of a time that no frame has."""
    time = said.one("time")
    if time is None or 360 * fps * float(time) <= 360 * (1 + SAME_SHUTTER):
        return ""
    return (
        f" with the whole frame open (1/{fps:g} s): 1/{1 / time:g} s is not possible at {rate_words(fps)} fps"
    )


def _flicker(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    fps, hz = said.one("fps"), said.one("hz")
    seconds, how = _open_s(Said([word for word in said.words if word.kind != "number"]), fps)
    lamp = flicker.lamp_of("magnetic", hz, 0.0, 0.5)
    verdict = flicker.judge(lamp, seconds, fps, 0.0)
    seen = flicker.seen(verdict.frame_stops)
    safe = flicker.nearest_safe(lamp.hz, fps, seconds)
    words = {"none": "nothing is seen", "borderline": "a pulse may be seen", "shows": "frames pulse"}
    told = f"At {rate_words(fps)} fps under {hz:g} Hz {words[seen]}: frames differ by {verdict.frame_stops:.2f} stops{_whole_frame(said, fps)}."
    figures: list[Figure] = [
        {"name": "frames differ", "value": f"{verdict.frame_stops:.2f} stops"},
        {"name": "the lamp swings", "value": f"{lamp.hz:g} times a second"},
        {
            "name": "nearest safe shutter",
            "value": f"1/{1 / float(safe):.4g} s" if safe else "none at this rate",
        },
    ]
    steps = [
        how,
        f"a lamp on {hz:g} Hz swings {lamp.hz:g} times a second: only whole swings in a frame are even",
        "for a discharge lamp on a magnetic ballast; test the lamps that you will have",
    ]
    return told, figures, steps


def _light(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    fps, ei = said.one("fps"), said.one("ei")
    stop = said.one("t_stop") or said.one("f_number")
    seconds, how = _open_s(said, fps)
    lux = float(needed_lux(stop, seconds, ei))
    figures: list[Figure] = [
        {"name": "light", "value": f"{needed_light(lux)} lux"},
        {"name": "or", "value": f"{needed_light(lux / LUX_PER_FOOT_CANDLE)} foot-candles"},
    ]
    mark = "T" if said.one("t_stop") else "f/"
    steps = [how, f"E = 250 × {stop:g}² / (t × {ei}) = {lux:,.2f} lux (ISO 2720, incident), rounded up"]
    if mark == "f/":
        steps.append("by the f-number: the glass loses a little more")
    return (
        f"{mark}{stop:g} at EI {ei} wants {needed_light(lux)} lux{_whole_frame(said, fps)}.",
        figures,
        steps,
    )


def _convert(said: Said, package: Package | None) -> tuple[str, list[Figure], list[str]]:
    metres, unit = said.one("distance"), said.one("unit")
    told = distance_words(metres, unit)
    return f"{told}.", [{"name": "distance", "value": told}], ["1 ft is 0.3048 m, exactly"]


@dataclass(frozen=True)
class Question:
    """A question: the kinds of words that it needs and may have, how it is answered, and examples of it."""

    name: str
    told: str
    needs: tuple[tuple[str, ...], ...]
    may: tuple[str, ...]
    answer: Callable[[Said, Package | None], tuple[str, list[Figure], list[str]]]
    examples: tuple[str, ...]
    #: Whether it can be set on a Bench.
    on_bench: bool = False


#: Needed words, each with what may stand for it; a kind that is named twice is needed twice.
QUESTIONS: tuple[Question, ...] = (
    Question("like", "What is this lens like on other formats, and which gives it there?",
             (("number", "lens"), ("window",)), ("like",), _like, ("50 s35", "75 full frame", "like 35 on full frame"), True),
    Question("field", "What is seen and sharp at a distance?",
             (("number", "lens"), ("f_number", "t_stop"), ("distance",), ("window",)), ("aspect",), _field,
             ("85 f1.2 0.85m s35", "40 T2.1 10'6\" full frame 2.39:1"), True),
    Question("which lens", "Which lens frames a person so?",
             (("framing",), ("distance",), ("window",)), ("aspect",), _which, ("waist 5m uhd s35", "face 8ft full frame")),
    Question("crop", "How much does a window crop?", (("number",), ("number",), ("of",)), (), _crop_of, ("5952 of 8192",)),
    Question("megapixels", "What does a crop leave of the pixels?", (("megapixels",), ("crop",)), (), _megapixels,
             ("24 MP /1.5", "45 mp crop 1.3")),
    Question("covers", "Does a circle cover a window?", (("number",), ("circle",), ("size",)), (), _covers,
             ("31.5 circle 25.3x14.2",)),
    Question("rates", "What does another rate cost?", (("number", "fps"), ("fps",), ("to",)), (), _rates,
             ("24 to 120 fps", "25fps to 100fps")),
    Question("flicker", "Does it flicker?", (("fps",), ("hz",)), ("angle", "time"), _flicker,
             ("400 fps 50 hz", "25 fps 60 hz 1/60")),
    Question("light", "How much light does it want?", (("t_stop", "f_number"), ("fps",), ("ei",)), ("angle", "time", "number"),
             _light, ("T2.8 25fps 180 ei800", "f4 24fps 1/50 iso 400")),
    Question("convert", "What is it in the other unit?", (("distance",), ("to",), ("unit",)), (), _convert,
             ("6'2\" to m", "1.88m to ft")),
)  # fmt: skip
