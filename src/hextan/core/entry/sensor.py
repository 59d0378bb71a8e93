"""A sensor from few facts: what is given, what follows from it and how exactly, and what contradicts."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Annotated, Literal, TypeAlias, TypeVar

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import Fault, InvalidInputError, Part
from hextan.core.entry.figures import Figure, read_figure, read_pair, whole_pair, without_unit
from hextan.core.optics import CLASS_ERROR, LABELS, NAMED, FormatClass, class_size_mm, format_class

Typed = Annotated[str, Field(max_length=60)]
#: Photosites across that stand in where only a size is known; everything told in millimetres is right all the same.
STAND_IN = 6000


class SensorAsk(Part):
    """What is known of a sensor, as it is typed. Any two of size, photosites, pitch and class; or less."""

    size_mm: Typed = ""
    photosites: Typed = ""
    pitch_um: Typed = ""
    format_class: FormatClass | None = None
    megapixels: Typed = ""
    #: Against full frame or Super 35, by the width.
    crop: Typed = ""
    reference: Literal["super35", "full_frame"] = "full_frame"


FactName: TypeAlias = Literal["size_mm", "photosites", "pitch_um", "format_class", "megapixels", "crop"]
T = TypeVar("T")


class SensorFact(TypedDict):
    """One fact of a sensor."""

    name: FactName
    text: str
    #: Whether it was typed; else it follows from what was.
    given: bool
    #: How it follows.
    how: str


class Contradiction(TypedDict):
    """Figures that cannot all be right."""

    fields: list[str]
    text: str


@dataclass
class Sensor:
    """What is known of a sensor."""

    photosites: tuple[int, int] | None = None
    pitch_um: Figure | None = None
    facts: list[SensorFact] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    contradictions: list[Contradiction] = field(default_factory=list)
    #: Photosites are not known: others stand in for them.
    stands_in: bool = False

    @property
    def size_mm(self) -> tuple[float, float] | None:
        """Width and height of the active area."""
        if self.photosites is None or self.pitch_um is None:
            return None
        w, h = self.photosites
        return w * self.pitch_um.value / 1000, h * self.pitch_um.value / 1000


@dataclass(frozen=True)
class _Given:
    """What could be read of an ask."""

    size: tuple[Figure, Figure] | None
    photosites: tuple[int, int] | None
    pitch: Figure | None
    megapixels: Figure | None
    crop: Figure | None


def solve(ask: SensorAsk) -> Sensor:
    """Work out a sensor. Nothing is refused: what cannot be read is a fault beside its field, what contradicts is said.

    >>> known = solve(SensorAsk(size_mm="38.1 x 20.1 mm", photosites="5952 x 3140"))
    >>> round(known.pitch_um.value, 3)
    6.401
    """
    sensor = Sensor()
    given = _read(ask, sensor)
    _work_out(ask, given, sensor)
    if sensor.photosites is not None and sensor.pitch_um is not None:
        _contradictions(ask, given, sensor)
        _tell(ask, given, sensor)
    return sensor


def _read(ask: SensorAsk, sensor: Sensor) -> _Given:
    def of(name: str, read: Callable[[str], T], *units: str) -> T | None:
        text = without_unit(getattr(ask, name), *units)
        try:
            return read(text) if text else None
        except InvalidInputError as error:
            sensor.faults.extend(error.faults)
            return None

    return _Given(
        size=of("size_mm", lambda t: read_pair(t, "size_mm", "38.1 x 20.1"), "mm"),
        photosites=of(
            "photosites", lambda t: whole_pair(t, "photosites", "5952 x 3140"), "px", "pixels", "photosites"
        ),
        pitch=of("pitch_um", lambda t: read_figure(t, "pitch_um", "6.4"), "um", "µm", "μm", "microns"),
        megapixels=of("megapixels", lambda t: read_figure(t, "megapixels", "24.2"), "mp", "megapixels"),
        crop=of("crop", _crop, "x", "×"),
    )


def _crop(text: str) -> Figure:
    """A crop factor; a whole one is meant to a tenth: 1 is full frame, and 2 half of it."""
    figure = read_figure(text, "crop", "1.5")
    return Figure(figure.value, min(figure.error, 0.05))


def _wide(ask: SensorAsk, given: _Given) -> tuple[Figure, float] | None:
    """Width in mm and height over width where the size itself is not known, from crop or class."""
    aspect = None if given.photosites is None else given.photosites[1] / given.photosites[0]
    if given.crop is not None:
        w, h = NAMED[ask.reference]
        return Figure(w).over(given.crop), aspect or h / w
    if ask.format_class is not None:
        w, h = class_size_mm(ask.format_class)
        return Figure(w, w * CLASS_ERROR), aspect or h / w
    return None


def _work_out(ask: SensorAsk, given: _Given, sensor: Sensor) -> None:
    wide = (given.size[0], given.size[1].value / given.size[0].value) if given.size else _wide(ask, given)
    if given.photosites is not None:
        sensor.photosites = given.photosites
        if given.pitch is not None:
            sensor.pitch_um = given.pitch
        elif given.size is not None:
            sensor.pitch_um = _pitch_of(given.size, given.photosites)
        elif wide is not None:
            sensor.pitch_um = _per_site(wide[0], given.photosites[0])
        return
    if wide is None:
        return
    width, aspect = wide
    if given.pitch is not None:
        across = Figure(width.value * 1000, width.error * 1000).over(given.pitch)
    elif given.megapixels is not None:
        count = math.sqrt(given.megapixels.value * 1e6 / aspect)
        across = Figure(count, count * given.megapixels.share / 2)
    else:
        across, sensor.stands_in = Figure(STAND_IN), True
    sensor.photosites = max(1, round(across.value)), max(1, round(across.value * aspect))
    sensor.pitch_um = given.pitch or _per_site(width, sensor.photosites[0])


def _per_site(width_mm: Figure, sites: int) -> Figure:
    return Figure(width_mm.value * 1000, width_mm.error * 1000).over(Figure(sites))


def _pitch_of(size: tuple[Figure, Figure], photosites: tuple[int, int]) -> Figure:
    """The pitch that both axes allow; where they contradict, that of the one that is known more exactly."""
    both = [_per_site(mm, sites) for mm, sites in zip(size, photosites, strict=True)]
    least, most = max(f.value - f.error for f in both), min(f.value + f.error for f in both)
    if least > most:
        return min(both, key=lambda figure: figure.share)
    return Figure((least + most) / 2, (most - least) / 2)


def _contradictions(ask: SensorAsk, given: _Given, sensor: Sensor) -> None:
    assert sensor.photosites is not None and sensor.pitch_um is not None and sensor.size_mm is not None

    def say(fields: list[str], text: str) -> None:
        sensor.contradictions.append({"fields": fields, "text": text})

    if given.size is not None and given.photosites is not None:
        across, down = (_per_site(mm, n) for mm, n in zip(given.size, given.photosites, strict=True))
        if not across.agrees(down):
            say(["size_mm", "photosites"], f"By the width a photosite is {across.value:.3g} µm, by the height "
                f"{down.value:.3g} µm: one of the figures is of another area.")  # fmt: skip
        elif given.pitch is not None and not given.pitch.agrees(across):
            say(["pitch_um", "size_mm", "photosites"], f"{given.size[0].value:g} mm over {given.photosites[0]} "
                f"photosites are {across.value:.4g} µm each, not {given.pitch.value:g}.")  # fmt: skip
    w, h = sensor.photosites
    known = given.photosites is not None
    if given.megapixels is not None and known and not given.megapixels.agrees(Figure(w * h / 1e6)):
        say(["megapixels", "photosites"], f"{w} × {h} are {w * h / 1e6:.1f} MP, not {given.megapixels.value:g}: "
            "perhaps one counts all photosites of the chip, and the other the active ones.")  # fmt: skip
    width, height = sensor.size_mm
    measured = given.size is not None or (known and given.pitch is not None)
    if ask.format_class is not None and measured:
        there = format_class(width, height)
        if there != ask.format_class:
            say(["format_class"], f"{width:.1f} × {height:.1f} mm counts as {there or 'no class that has a name'}, "
                f"not as {ask.format_class}.")  # fmt: skip
    if given.crop is not None and measured:
        share = sensor.pitch_um.share if given.size is None else given.size[0].share
        factor = NAMED[ask.reference][0] / width
        if not given.crop.agrees(Figure(factor, factor * share)):
            say(["crop"], f"{width:.1f} mm is {factor:.2f}× of {LABELS[ask.reference]} by the width, "
                f"not {given.crop.value:g}×: perhaps it is told by the diagonal, or against another frame.")  # fmt: skip


def within(error: float, unit: str) -> str:
    """How exactly a figure is known, written behind it; nothing where its digits leave nothing open.

    >>> within(0.0084, "µm"), within(0.0, "mm")
    (' ± 0.0084 µm', '')
    """
    return f" ± {error:.2g} {unit}" if error > 0 else ""


def _tell(ask: SensorAsk, given: _Given, sensor: Sensor) -> None:
    assert sensor.photosites is not None and sensor.pitch_um is not None and sensor.size_mm is not None
    (w, h), (width, height), pitch = sensor.photosites, sensor.size_mm, sensor.pitch_um
    reference = LABELS[ask.reference]
    if given.photosites and given.pitch:
        wide = "photosites times pitch"
    else:
        wide = f"from the crop against {reference}" if given.crop else "what the class usually is, roughly"
    counted = "from size and pitch" if given.pitch else "from the megapixels and the shape"
    sites = {
        "photosites": (f"{w} × {h}", given.photosites, counted),
        "pitch_um": (f"{pitch.value:.3f} µm{within(pitch.error, 'µm')}", given.pitch, "size over photosites"),
        "megapixels": (f"{w * h / 1e6:.1f} MP", given.megapixels, "width times height in photosites"),
    }
    if sensor.stands_in:
        sites = dict.fromkeys(sites, ("not known", None, ""))
    diagonal = math.hypot(width, height)
    size = f"{width:.2f} × {height:.2f} mm{within(width * pitch.share, 'mm')}"
    rows: dict[FactName, tuple[str, object, str]] = {
        "size_mm": (size, given.size, wide),
        **sites,  # type: ignore[dict-item]  # its keys are among the names
        "format_class": (
            format_class(width, height) or "no class that has a name",
            ask.format_class,
            f"by its size; the diagonal is {diagonal:.1f} mm",
        ),
        "crop": (f"{NAMED[ask.reference][0] / width:.3f}× of {reference}", given.crop, "by the width"),
    }
    for name, (text, typed, how) in rows.items():
        known = typed is not None
        sensor.facts.append({"name": name, "text": text, "given": known, "how": "" if known else how})
