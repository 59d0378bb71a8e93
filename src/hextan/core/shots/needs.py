"""All that a shot needs, read from its cells and made of figures."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field, replace
from typing import Any

from hextan.core.base import Fault, InvalidInputError, Unit, m_from_mm, mm_from_m, parse_rate
from hextan.core.equipment import (
    DeliveryFrame,
    MainFormat,
    Package,
    PackageSettings,
    main_format,
    reference_words,
)
from hextan.core.evaluation import BenchDelivery
from hextan.core.kit import FramingWish, field_of_person_m, window_of_reference
from hextan.core.optics import NAMED, magnification_from_sensor
from hextan.core.shots import words
from hextan.core.shots.document import Shot
from hextan.core.shots.rows import ROWS
from hextan.core.shots.words import Carrier, Glass, Hold, Lit, Picture, Side, Soft, Span, Stops, read

#: Nobody says how tall, metres.
USUAL_HEIGHT_M = 1.7
#: With every distance free, zooms are set for this one, and people are met at it (common practice, no source).
USUAL_DISTANCE_M = 3.0
ANYWHERE = Span(0.0, math.inf)
ONE_RATE = Span(25.0, 25.0)
#: Cells without which nothing is judged when they cannot be read.
_NEEDED = ("body", "keep_out", "keep_out_by", "height")
#: Framings in which a face is looked at.
FACES = ("face", "eyes", "chest", "waist")


@dataclass(frozen=True)
class Wanted:
    """The field that is wanted at the subject, or an angle as the focal length that has it on a window of reference."""

    side: Side
    field_m: float | None
    like_mm: float | None = None
    on_mm: tuple[float, float] = NAMED["super35"]
    on: str = "Super 35"
    words: str = ""
    #: Whether a face is near enough for its nose to matter.
    face: bool = False


@dataclass(frozen=True)
class Needs:
    """What a shot needs; None where it does not matter."""

    shot: Shot
    height_m: float = USUAL_HEIGHT_M
    wanted: Wanted | None = None
    distance: Span = ANYWHERE
    room_m: float | None = None
    nearest_m: float | None = None
    keep_out_m: float | None = None
    fps: Span = ONE_RATE
    deliveries: tuple[DeliveryFrame, ...] = ()
    hold: Hold | None = None
    soft: Soft | None = None
    stops: Stops | None = None
    lit: Lit | None = None
    #: How often a second the lamps brighten.
    flicker_hz: float | None = None
    picture: Picture = field(default_factory=Picture)
    rig: Carrier = field(default_factory=Carrier)
    squeeze: float | None = None
    #: The lens that is asked for: by its figures, or by its name in small letters.
    glass: Glass | None = None
    glass_name: str = ""
    #: What its unit shoots on; None where nothing is named, or the shot names a body or lets it go.
    main: MainFormat | None = None
    #: The least that the production records, where the shot does not ask for less.
    least_px: int | None = None
    least_bits: int | None = None
    faults: tuple[Fault, ...] = field(default=())

    @property
    def delivery(self) -> BenchDelivery:
        """The picture that is framed: the first that is delivered, or all that is recorded."""
        if not self.deliveries:
            return BenchDelivery(long_edge_px=None)
        first = self.deliveries[0]
        return BenchDelivery(aspect=first.aspect, long_edge_px=first.long_edge_px, protect=first.protect)

    @property
    def asks(self) -> bool:
        """Whether anything is asked that could be read."""
        unread = {fault.field for fault in self.faults}
        return any(
            getattr(self.shot, row.name).strip() for row in ROWS if row.asks and row.name not in unread
        )

    @property
    def unread(self) -> str:
        """What could not be read, in words; empty where everything could."""
        return "; ".join(f"{fault.field.replace('_', ' ')}: {fault.rule}" for fault in self.faults)

    @property
    def stands(self) -> bool:
        """Whether what cannot be read leaves the shot open: who stands where, and on which body, is not guessed."""
        return any(fault.field in _NEEDED for fault in self.faults)

    def must(self, name: str) -> bool:
        """Whether a need is a must."""
        return name not in self.shot.wishes

    def weight(self, name: str) -> float:
        """How much a wish counts."""
        return self.shot.wishes.get(name, 1.0)  # type: ignore[call-overload,no-any-return]


def needs_of(shot: Shot, package: Package, settings: PackageSettings) -> Needs:
    """Read a shot's cells.

    Returns
    -------
    What could be read; what could not is among its ``faults``, each with the name of its cell.
    """
    faults: list[Fault] = []
    shot = _with_usual(shot, settings)
    unit: Unit = settings.unit
    base = float(parse_rate(settings.base_fps))

    def cell(name: str, reader: Any, *more: Any) -> Any:
        return read(name, getattr(shot, name), lambda text: reader(text, *more), faults)

    height = cell("height", words.distance, unit) or USUAL_HEIGHT_M
    framing = cell(
        "framing", words.framing, unit, {name.lower(): size for name, size in settings.sizes.items()}
    )
    rate = cell("speed", words.speed, base)
    lenses = {lens.name.lower() for _, lens in package.lenses.values()}
    named = shot.glass.strip().lower() if shot.glass.strip().lower() in lenses else ""
    needs = Needs(
        shot=shot,
        height_m=height,
        wanted=None if framing is None else _wanted(framing, height, package, faults, shot),
        distance=cell("distance", words.distances, unit) or ANYWHERE,
        room_m=cell("room", words.distance, unit),
        nearest_m=cell("nearest", words.distance, unit),
        keep_out_m=cell("keep_out", words.distance, unit),
        fps=rate or Span(base, base),
        deliveries=_deliveries(shot, settings, faults),
        hold=cell("hold", words.hold, unit),
        soft=cell("background", words.background, unit),
        stops=cell("stop", words.stops),
        lit=cell("light", words.light),
        flicker_hz=cell("lamps", words.lamps),
        picture=cell("picture", words.picture) or Picture(),
        rig=cell("rig", words.rig) or Carrier(),
        squeeze=cell("look", words.look),
        glass_name=named,
        glass=None if named else cell("glass", words.glass),
    )
    if shot.body.strip() and all(body.name.lower() != shot.body.strip().lower() for body in package.bodies):
        names = ", ".join(body.name for body in package.bodies)
        faults.append(
            Fault("body", shot.body, f"is not among the bodies: {names}" if names else "there is no body yet")
        )
    if needs.keep_out_m is not None and not shot.keep_out_by.strip():
        faults.append(Fault("keep_out_by", "", "say who has set the distance: it is theirs to change"))
    return replace(
        needs,
        main=_main(shot, needs.picture, settings),
        least_px=settings.least_px if needs.picture.least_px is None else needs.picture.least_px,
        least_bits=settings.least_bits if needs.picture.bits is None else None,
        faults=tuple(faults),
    )


def _with_usual(shot: Shot, settings: PackageSettings) -> Shot:
    """A shot that says no stop or no support has the usual ones, as wishes."""
    usual = {"stop": settings.usual_stop, "rig": settings.usual_rig}
    said = {name: text for name, text in usual.items() if text.strip() and not getattr(shot, name).strip()}
    # A row that asks nothing stays open.
    if not said or not any(getattr(shot, row.name).strip() for row in ROWS if row.asks):
        return shot
    wishes: dict[Any, float] = {**dict.fromkeys(said, 1.0), **shot.wishes}
    return shot.model_copy(update={**said, "wishes": wishes})


def check_usual(settings: PackageSettings) -> None:
    """Check that the cells of settings can be read.

    Raises
    ------
    InvalidInputError
        With what could stand there.
    """
    faults: list[Fault] = []
    read("settings.usual_stop", settings.usual_stop, words.stops, faults)
    read("settings.usual_rig", settings.usual_rig, words.rig, faults)
    if faults:
        raise InvalidInputError.of(*faults)


def _main(shot: Shot, picture: Picture, settings: PackageSettings) -> MainFormat | None:
    main = main_format(settings, shot.unit)
    named = shot.body.strip().lower()
    elsewhere = main is not None and named not in ("", main.body.strip().lower())
    return None if picture.any_format or elsewhere else main


def _wanted(
    framing: words.Framing, height_m: float, package: Package, faults: list[Fault], shot: Shot
) -> Wanted | None:
    told = re.sub(r"\s+", " ", shot.framing.strip())
    if framing.person is not None:
        if 0.3 <= height_m <= 3:
            wish = FramingWish.model_validate({"framing": framing.person, "height_m": height_m})
            return Wanted(
                "height",
                field_of_person_m(wish),
                words=f"{framing.person} {height_m:.2f} m",
                face=framing.person in FACES,
            )
        rule = "a person's framing needs the height of a person, 0.3 to 3 m"
        faults.append(Fault("height", shot.height, rule))
        return None
    if framing.like_mm is None:
        return Wanted(framing.side, framing.field_m, words=told)
    return _like(framing, told, framing.like_mm, package, faults)


def _like(
    framing: words.Framing, told: str, like_mm: float, package: Package, faults: list[Fault]
) -> Wanted | None:
    """The angle of a focal length on a window of reference, or its field at a distance."""
    windows = {"super 35": NAMED["super35"], "full frame": NAMED["full_frame"], "s35": NAMED["super35"],
               "ff": NAMED["full_frame"]}  # fmt: skip
    window: tuple[float, float] | None
    windows |= {own.name.lower(): (own.width_mm, own.height_mm) for own in package.references}
    if framing.on is None:
        # Whoever names no window means the one that the production counts against.
        house = window_of_reference(package.modes, package.reference)
        name, window = reference_words(package), (house.width_mm, house.height_mm)
    else:
        name = framing.on.strip()
        window = windows.get(name.lower())
    if window is None:
        faults.append(Fault("framing", told, f"{name} is not among the windows of reference: see Settings"))
        return None
    if framing.at_m is None:
        return Wanted("width", None, like_mm, window, name, told)
    m = float(magnification_from_sensor(like_mm, mm_from_m(framing.at_m)))
    if m > 0:
        return Wanted("width", m_from_mm(window[0] / m), words=told)
    faults.append(Fault("framing", told, "that lens forms no image so near"))
    return None


def _deliveries(shot: Shot, settings: PackageSettings, faults: list[Fault]) -> tuple[DeliveryFrame, ...]:
    """The frames that are delivered at once: by their names in Settings, or as rasters; else the production's main one."""
    if not shot.deliveries.strip():
        return tuple(settings.deliveries[:1])
    by_name = {frame.name.lower(): frame for frame in settings.deliveries}
    found = []
    for part in (part.strip() for part in re.split(r"[,;]", shot.deliveries)):
        raster = re.fullmatch(
            r"(\d{2,5})\s*[x×]\s*(\d{2,5})(?:\s*protect\s*(\d{1,2})\s*%)?", part, re.IGNORECASE
        )
        w, h, spare = (int(n or 0) for n in raster.groups()) if raster else (0, 0, 0)
        if part.lower() in by_name:
            found.append(by_name[part.lower()])
        elif min(w, h) >= 16 and 0.1 <= w / h <= 10 and spare <= 90:
            found.append(DeliveryFrame(name=part, aspect=w / h, long_edge_px=max(w, h), protect=spare / 100))
        elif part:
            names = ", ".join(frame.name for frame in settings.deliveries)
            rule = f"“{part}” is no delivery of this production ({names or 'Settings has none'}), and no raster like 3840x2160"
            faults.append(Fault("deliveries", shot.deliveries, rule))
    return tuple(found)
