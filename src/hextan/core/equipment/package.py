"""What a production carries: bodies with scan modes and recording formats, lenses, adapters.

Plain frozen records without behaviour of a database or a screen. Identifiers are opaque numbers.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from functools import cached_property, lru_cache
from typing import Any, Literal, NamedTuple, TypeAlias

from hextan.core.base import Floats, RateSet, Unit, stops_words
from hextan.core.equipment.answers import Limit
from hextan.core.equipment.settings import DeliveryFrame
from hextan.core.equipment.the_plan import ThePlan
from hextan.core.evaluation import (
    BenchReference,
    Coc,
    CocByDiagonal,
    Delivery,
    Format,
    FormatColumns,
    HouseTerms,
    OwnWindow,
    columns_of,
)
from hextan.core.light import NdFilter
from hextan.core.optics import (
    DARK_SHARE,
    CircleAxis,
    FormatClass,
    Projection,
    bytes_per_second,
    circle_along_mm,
    frame_bytes,
    highest_rate_by_data,
    needed_circle_mm,
)

#: How photosites become samples along an axis, the finest first.
ReadMethod: TypeAlias = Literal["full", "binned", "skipped"]
READ_METHODS: tuple[ReadMethod, ...] = ("full", "binned", "skipped")
#: How the iris is set: by a ring on the lens, from the body, or either way.
Iris: TypeAlias = Literal["ring", "body", "either"]
#: What a second slot does: it takes over, writes the same again, or takes the proxy.
SlotUse: TypeAlias = Literal["after", "both", "proxy"]


@dataclass(frozen=True)
class Menu:
    """What a scan mode or a switch is called in the camera, where, what wins over it, how the finder shows it, what knocks it."""

    name: str = ""
    where: str = ""
    overridden_by: str = ""
    finder: str = ""
    knocked: str = ""

    @property
    def path(self) -> str:
        """The way through the menu; empty where it is not stated.

        >>> Menu("Steady", "Image").path
        'Image > Steady'
        """
        return " > ".join(part for part in (self.where, self.name) if part)

    @property
    def by_itself(self) -> str:
        """What switches it without anybody meaning to: an automatic setting, a key that is knocked."""
        return "; ".join(part for part in (self.overridden_by, self.knocked) if part)

    @property
    def told(self) -> str | None:
        """All of it in a sentence; None where nothing is stated.

        >>> Menu("Steady", "Image", "raw recording").told
        'In the menu: “Steady” under Image; raw recording wins over it.'
        """
        name = f"“{self.name}”" if self.name else "it stands" if self.where else ""
        place = f"{name} under {self.where}" if self.where else name
        parts = [
            f"In the menu: {place}" if place else "",
            f"{self.overridden_by} wins over it" if self.overridden_by else "",
            f"the finder shows {self.finder}" if self.finder else "",
            f"{self.knocked} switches it when it is knocked" if self.knocked else "",
        ]
        sentence = "; ".join(part for part in parts if part)
        return f"{sentence[0].upper()}{sentence[1:]}." if sentence else None


@dataclass(frozen=True)
class CropRule:
    """Where a crop can be switched on: a scan mode by its id, and a raster's aspect (any without)."""

    mode_id: int
    aspect: float | None
    factor: float

    def fits(self, mode_id: int, raster: tuple[int, int]) -> bool:
        """Whether it holds; aspects are nicknames (17:9 is 1.896), so half a per cent is allowed."""
        if self.mode_id != mode_id or self.aspect is None:
            return self.mode_id == mode_id
        return abs(raster[0] / raster[1] / self.aspect - 1) <= 0.005


@dataclass(frozen=True)
class InCameraCrop:
    """A crop that a body can switch on, or that is always on: stabiliser, lens correction, small-circle mode.

    The first rule that fits holds; none ever acts on raw. `lens` is ``any``, ``spherical`` (not with
    a squeeze), ``short_circle`` (only for a lens whose circle does not cover the recording) or ``corrected``
    (as much as the lens says; the rule's factor is the most where it does not).
    """

    id: int
    name: str
    lens: str
    rules: tuple[CropRule, ...]
    menu: Menu = Menu()
    #: Whether nothing switches it off where it can act.
    always: bool = False

    def factor(self, mode_id: int, raster: tuple[int, int]) -> float | None:
        """Give the factor in a scan mode for a raster, or None where it cannot be switched on."""
        return next((rule.factor for rule in self.rules if rule.fits(mode_id, raster)), None)


@dataclass(frozen=True)
class LensOnBody:
    """What an in-camera crop has to know of the lens."""

    squeeze: float = 1.0
    #: Whether its circle covers what is recorded without crops; None when the circle is not stated.
    covers: bool | None = None
    #: How much the correction of its distortion crops; None where it is not stated.
    correction: float | None = None


@dataclass(frozen=True)
class RecordingFormat:
    """Raster, mapping, codec and rates. Rates in frames a second, also when interlaced."""

    id: int
    name: str
    raster: tuple[int, int]
    map: Literal["scale", "crop"]
    codec: str
    #: None where nobody states it.
    bits: int | None
    raw: bool
    interlaced: bool
    rates: RateSet
    highest_fps: float | None = None
    #: Samples for each pixel: 1 raw, 1.5 for 4:2:0, 2 for 4:2:2, 3 for 4:4:4; None where nobody states them.
    samples: float | None = 1.0
    compression: float | None = None
    #: Stated bit rate, 10^6 bit/s, and the frame rate with which it grows (None: the same at every rate).
    megabits: float | None = None
    megabits_at_fps: float | None = None
    #: Accessories and licences without which it does not record, and the firmware since which there is it.
    needs: tuple[str, ...] = ()
    from_firmware: str | None = None

    @property
    def data_known(self) -> bool:
        """Whether its data rate can be told."""
        by_pixels = None not in (self.compression, self.bits, self.samples)
        return self.megabits is not None or by_pixels

    def bytes_per_second(self, fps: float) -> float | None:
        """Data rate at a frame rate; None where neither compression nor bit rate is stated."""
        return _bytes_per_second(self._written, fps) if self.data_known else None

    def highest_by_data(self, write_bytes_s: float) -> float | None:
        """Frame rate at which so many bytes a second are reached; None where that is not known."""
        return _highest_by_data(self._written, write_bytes_s) if self.data_known else None

    @property
    def _written(self) -> _Written:
        # Where the bit rate is stated, it holds, and nothing is asked of the pixels.
        samples, bits, compression = self.samples or 1.0, self.bits or 1, self.compression or 1.0
        return _Written(*self.raster, samples, bits, compression, self.megabits, self.megabits_at_fps)


# Kept, because a page with hundreds of formats asks for all of them at every key that is pressed.
@lru_cache(maxsize=16384)
def _bytes_per_second(written: _Written, fps: float) -> float:
    return float(bytes_per_second(written.frame, fps, *written.stated))


@lru_cache(maxsize=16384)
def _highest_by_data(written: _Written, write: float) -> float:
    return float(highest_rate_by_data(written.frame, write, *written.stated))


class _Written(NamedTuple):
    """All of a format that decides its data rate."""

    w: int
    h: int
    samples: float
    bits: int
    compression: float
    megabits: float | None
    at: float | None

    @property
    def frame(self) -> Floats:
        return frame_bytes(self.w, self.h, self.samples, self.bits, self.compression)

    @property
    def stated(self) -> tuple[float, float]:
        return self.megabits or math.nan, self.at or math.nan


@dataclass(frozen=True)
class ScanMode:
    """Which photosites are read, how they are sampled, and how fast."""

    id: int
    name: str
    window: tuple[int, int]
    offset: tuple[int, int]
    sampling: tuple[int, int]
    methods: tuple[ReadMethod, ReadMethod]
    row_time_us: float | None
    overhead_us: float
    max_fps: float | None
    formats: tuple[RecordingFormat, ...] = ()
    menu: Menu = Menu()

    @property
    def method(self) -> ReadMethod:
        """The coarser of the methods of both axes."""
        return max(self.methods, key=READ_METHODS.index)

    @property
    def rows_read(self) -> int:
        """Rows of samples that a scan reads."""
        return self.window[1] // self.sampling[1]


@dataclass(frozen=True)
class Body:
    """A camera body."""

    id: int
    maker: str
    name: str
    mount: str
    photosites: tuple[int, int]
    pitch_um: float
    modes: tuple[ScanMode, ...] = ()
    crops: tuple[InCameraCrop, ...] = ()
    free_windows: bool = False
    #: What the body writes to its card at most, and what it buffers while it falls behind.
    write_bytes_s: float | None = None
    buffer_bytes: float | None = None
    #: Sensitivities that can be set, those of them that are native, and what its built-in ND takes, in stops.
    eis: tuple[int, ...] = ()
    base_eis: tuple[int, ...] = ()
    #: The highest that is stated as usable.
    highest_ei: int | None = None
    nd_stops: tuple[float, ...] = ()
    #: The version of its firmware as stated.
    firmware: str = ""
    #: The EI of a gain of 0 dB.
    zero_db_ei: int | None = None
    #: Slots for cards, and what the second one does.
    slots: int = 1
    slot_use: SlotUse = "after"
    weight_kg: float | None = None

    @property
    def states_ei(self) -> bool:
        """Whether any sensitivity is stated; others stand in where none is."""
        return bool(self.eis or self.base_eis)

    @cached_property
    def places(self) -> tuple[FormatInPackage, ...]:
        """Its recording formats where they stand."""
        return tuple(
            FormatInPackage(self, mode, recording) for mode in self.modes for recording in mode.formats
        )

    @cached_property
    def needed_circle_mm(self) -> dict[int, float]:
        """The circle that each of its recording formats needs without in-camera crops, by its id."""
        if not self.places:
            return {}
        c = columns_of([here.as_request(lens=None) for here in self.places], 1.0)
        needed = needed_circle_mm(c.recorded_w, c.recorded_h, c.offset_x, c.offset_y)
        return dict(zip((here.recording.id for here in self.places), needed.tolist(), strict=True))


#: Where only T is known the f-number is taken a third of a stop wider, so that no depth is told that is not there
#: (common practice, no source).
F_OF_T = 2 ** (1 / 6)


@dataclass(frozen=True)
class Lens:
    """A prime (equal ends) or a zoom. Stops at the short and at the long end.

    The image circle is one value, or a table along focal length (mm), stop (as marked) or focus
    (metres, infinity as inf): `circle_by` and `circle_rows`, which then replace it.
    """

    id: int
    name: str
    focal_min_mm: float
    focal_max_mm: float
    f_number: float | None
    t_stop: float | None
    f_number_long: float | None
    t_stop_long: float | None
    image_circle_mm: float | None
    squeeze: float
    close_focus_m: float | None
    mount: str
    projection: Projection
    pupil_magnification: float = 1.0
    circle_by: CircleAxis | None = None
    circle_rows: tuple[tuple[float, float], ...] = ()
    designed_for: FormatClass | None = None
    #: Share of the frame's width, per cent, that is lost from infinity to close focus (negative: won).
    breathing_percent: float | None = None
    iris: Iris = "ring"
    data_link: str = ""
    #: From the mount's flange to the front rim.
    length_mm: float | None = None
    front_mm: float | None = None
    weight_kg: float | None = None
    #: How much a body's correction of its distortion crops, at the short and at the long end.
    correction: float | None = None
    correction_long: float | None = None
    #: Figures that nobody stated and that stand in, by their names: a verdict that rests on one says so.
    assumed: frozenset[str] = frozenset()

    @property
    def stands_in(self) -> dict[str, str]:
        """What stands in for figures that nobody stated, in words, by the figure's name: no verdict on it is sure."""
        told = {}
        if "image_circle_mm" in self.assumed:
            told["image_circle_mm"] = (
                f"its circle is assumed{f', as made for {self.designed_for}' if self.designed_for else ''}"
            )
        if "f_number" in self.assumed:
            told["f_number"] = f"its f-number is taken {self.wider_than_t}"
        if "close_focus_m" in self.assumed:
            told["close_focus_m"] = "its close focus is assumed"
        return told

    @property
    def wider_than_t(self) -> str:
        """How an f-number that stands in lies to the T-stop that is stated, in words."""
        if self.f_number is None or self.t_stop is None or abs(self.t_stop / self.f_number - 1) < 1e-9:
            return "as T"
        stops = 2 * math.log2(self.t_stop / self.f_number)
        third = abs(stops - 1 / 3) < 0.005
        return f"{'a third of a stop' if third else stops_words(stops, 2)} wider than T"

    @property
    def is_zoom(self) -> bool:
        """Whether the focal length can be changed."""
        return self.focal_max_mm > self.focal_min_mm

    def widest_at(self, focal_mm: float) -> tuple[float | None, float | None]:
        """Widest f-number and T-stop at a focal length: geometric between the ends, as apertures go."""
        f = self._along(focal_mm, self.f_number, self.f_number_long)
        return f, self._along(focal_mm, self.t_stop, self.t_stop_long)

    def correction_at(self, focal_mm: float) -> float | None:
        """How much a body's correction crops: geometric between the ends of a zoom. None where it is not stated."""
        return self._along(focal_mm, self.correction, self.correction_long)

    def _along(self, focal_mm: float, short: float | None, long: float | None) -> float | None:
        if short is None or long is None or not self.is_zoom:
            return short
        share = math.log(focal_mm / self.focal_min_mm) / math.log(self.focal_max_mm / self.focal_min_mm)
        return float(short * (long / short) ** share)

    def circle_marks(self) -> list[tuple[float, float]]:
        """The image circle along a zoom's range, wide open and at infinity: (focal length, circle), rising.

        Between the marks it goes with the logarithm of the focal length. Empty where it is not stated.
        """
        low, high = self.focal_min_mm, self.focal_max_mm
        inner: list[float] = []
        if self.circle_by == "focal":
            inner = [at for at, _ in self.circle_rows]
        elif self.circle_by == "stop":
            ends = [t if t is not None else f for f, t in (self.widest_at(low), self.widest_at(high))]
            inner = [f for at, _ in self.circle_rows if (f := self._focal_at_stop(at, *ends)) is not None]
        marks = [low, *sorted(f for f in inner if low < f < high), high]
        circles = [(focal, self.circle_at_mm(focal)) for focal in dict.fromkeys(marks)]
        return [(focal, circle) for focal, circle in circles if circle is not None]

    def _focal_at_stop(self, stop: float, short: float | None, long: float | None) -> float | None:
        """Where along the range the widest stop is this one."""
        if short is None or long is None or short == long:
            return None
        share = math.log(stop / short) / math.log(long / short)
        return float(self.focal_min_mm * (self.focal_max_mm / self.focal_min_mm) ** share)

    def circle_at_mm(
        self, focal_mm: float, stop: float | None = None, focus_m: float = math.inf
    ) -> float | None:
        """Image circle as the lens is set; without a stop as wide open. None where it is not stated."""
        if self.circle_by is None:
            return self.image_circle_mm
        if stop is None:
            f, t = self.widest_at(focal_mm)
            stop = t if t is not None else f
        at = {"focal": focal_mm, "stop": stop, "focus": focus_m}[self.circle_by]
        return None if at is None else circle_along_mm(self.circle_by, self.circle_rows, at)


@dataclass(frozen=True)
class LensSet:
    """Lenses that belong together."""

    id: int
    maker: str
    name: str
    lenses: tuple[Lens, ...] = ()


@dataclass(frozen=True)
class Mount:
    """A lens mount: flange focal distance and clear throat in mm, None where not stated."""

    name: str
    flange_mm: float | None = None
    throat_mm: float | None = None


@dataclass(frozen=True)
class MountAdapter:
    """What goes between lens and body."""

    id: int
    name: str
    magnification: float
    lens_mount: str
    body_mount: str
    #: Share of the light that comes through, 1 without loss.
    transmission: float = 1.0
    glass: bool = False
    #: Classes of lenses that it is made for; any when empty.
    classes: tuple[FormatClass, ...] = ()
    passes_iris: bool = True
    passes_data: bool = True


@dataclass(frozen=True)
class PairNote:
    """What is known of a lens, or of every lens of a set, on one body."""

    glass: str
    body: str
    note: str


@dataclass(frozen=True)
class Rig:
    """What lenses are put on with: mounts and adapters."""

    mounts: tuple[Mount, ...] = ()
    adapters: tuple[MountAdapter, ...] = ()
    pair_notes: tuple[PairNote, ...] = ()

    @cached_property
    def mounts_by_name(self) -> dict[str, Mount]:
        """Every mount that is described, by its name."""
        return {mount.name: mount for mount in self.mounts}

    def notes_on(self, lens: str, body: str) -> list[str]:
        """What is known of a lens on a body, by their names."""
        return [pair.note for pair in self.pair_notes if (pair.glass, pair.body) == (lens, body)]

    @cached_property
    def worked_out(self) -> dict[tuple[int, int], Any]:
        """The ways from lenses to bodies that were worked out with it, by the ids of both."""
        return {}


@dataclass(frozen=True)
class Package:
    """All equipment of a production."""

    bodies: tuple[Body, ...] = ()
    lens_sets: tuple[LensSet, ...] = ()
    adapters: tuple[MountAdapter, ...] = ()
    mounts: tuple[Mount, ...] = ()
    filters: tuple[NdFilter, ...] = ()
    pair_notes: tuple[PairNote, ...] = ()
    #: Accessories and licences that are carried, by name.
    carried: frozenset[str] = frozenset()
    #: What counts as sharp in this production, unless a look says otherwise.
    coc: Coc = field(default_factory=CocByDiagonal)
    #: Windows of reference of the production's own, and the pictures that it delivers, the main one first.
    references: tuple[OwnWindow, ...] = ()
    #: What crops are told against, on every page that is not asked for another.
    reference: BenchReference = field(default_factory=BenchReference)
    deliveries: tuple[DeliveryFrame, ...] = ()
    #: From which share of a recording on what a circle leaves dark is called dark corners.
    seen_dark: float = DARK_SHARE
    #: Whether sentences tell distances in the other unit as well, in brackets.
    brackets: bool = False
    #: What was decided to be carried, and what each shot is made with; None where nothing was.
    plan: ThePlan | None = None

    @cached_property
    def rig(self) -> Rig:
        """What lenses are put on with."""
        sets = {kit.name: [lens.name for lens in kit.lenses] for kit in self.lens_sets}
        notes = (
            replace(note, glass=name)
            for note in self.pair_notes
            for name in sets.get(note.glass, [note.glass])
        )
        return Rig(self.mounts, self.adapters, tuple(notes))

    @cached_property
    def worked_out(self) -> dict[Any, Any]:
        """What other modules have worked out of this package and keep with it."""
        return {}

    def places(self, planned: bool = False) -> list[FormatInPackage]:
        """Every recording format; where that is asked for those of bodies that the plan carries, as long as one of them is here."""
        every, plan = list(self.formats.values()), self.plan
        if not planned or plan is None:
            return every
        carried = {body.id for body in self.bodies if plan.has("body", body.name)}
        return [here for here in every if here.body.id in carried] or every

    @cached_property
    def _sets_of_lens_names(self) -> dict[str, list[str]]:
        found: dict[str, list[str]] = {}
        for lens_set, lens in self.lenses.values():
            found.setdefault(lens.name, []).append(lens_set.name)
        return found

    def terms(self, unit: Unit) -> HouseTerms:
        """What the production decides about an evaluation."""
        return HouseTerms(self.seen_dark, unit, self.brackets)

    def lens_words(self, name: str, of: str) -> str:
        """A lens by its name, and its set where several have a lens of that name."""
        return f"{name}, {of}" if of and len(self._sets_of_lens_names.get(name, ())) > 1 else name

    def lens_named(self, name: str, of: str = "") -> Lens | None:
        """The lens of a name, out of a set where one is said; None where there is none."""
        found = [(lens_set.name, lens) for lens_set, lens in self.lenses.values() if lens.name == name]
        return next((lens for kit, lens in found if kit == of), found[0][1] if found else None)

    @cached_property
    def formats(self) -> dict[int, FormatInPackage]:
        """Every recording format by its id, with its scan mode and body."""
        return {here.recording.id: here for body in self.bodies for here in body.places}

    @cached_property
    def columns(self) -> FormatColumns:
        """The windows of all recording formats as columns, in the order of `formats`: no crops, no delivery.

        Raises
        ------
        InvalidInputError
            A format that contradicts itself; documents are checked for that before they are kept.
        """
        return columns_of([here.as_request() for here in self.formats.values()], 1.0)

    @cached_property
    def lenses(self) -> dict[int, tuple[LensSet, Lens]]:
        """Every lens by its id, with its set."""
        return {lens.id: (kit, lens) for kit in self.lens_sets for lens in kit.lenses}

    @cached_property
    def modes(self) -> dict[int, tuple[Body, ScanMode]]:
        """Every scan mode by its id, with its body."""
        return {mode.id: (body, mode) for body in self.bodies for mode in body.modes}


@dataclass(frozen=True)
class FormatInPackage:
    """A recording format where it stands."""

    body: Body
    mode: ScanMode
    recording: RecordingFormat

    @property
    def needed_circle_mm(self) -> float:
        """The circle that it needs without in-camera crops."""
        return self.body.needed_circle_mm[self.recording.id]

    def crop_reason(self, crop: InCameraCrop, lens: LensOnBody) -> str | None:
        """Say why a crop cannot act here, or None where it can."""
        if self.recording.raw:
            return "raw recordings are unaltered sensor data"
        if all(rule.mode_id != self.mode.id for rule in crop.rules):
            return f"not in the scan mode {self.mode.name}"
        if crop.factor(self.mode.id, self.recording.raster) is None:
            return f"not for this raster's aspect in {self.mode.name}"
        unless = {
            "spherical": (lens.squeeze != 1.0, "not with a squeezed lens"),
            "short_circle": (bool(lens.covers), "not needed: the lens's circle covers this recording"),
            "corrected": (lens.correction == 1.0, "this lens is not cropped by it"),
        }
        stands_in_the_way, why = unless.get(crop.lens, (False, ""))
        return why if stands_in_the_way else None

    def crops_that_apply(
        self, switched_on: frozenset[int], lens: LensOnBody
    ) -> list[tuple[InCameraCrop, float]]:
        """List the in-camera crops that act here: those that are switched on, and those that always are."""
        acting = []
        for crop in self.body.crops:
            if (crop.id in switched_on or crop.always) and self.crop_reason(crop, lens) is None:
                factor = crop.factor(self.mode.id, self.recording.raster)
                assert factor is not None
                if crop.lens == "corrected" and lens.correction is not None:
                    factor = lens.correction
                acting.append((crop, factor))
        return acting

    def as_request(
        self,
        fps: float | None = None,
        delivery: Delivery | None = None,
        switched_on: frozenset[int] = frozenset(),
        lens: LensOnBody | None = LensOnBody(),
    ) -> Format:
        """Write the format in the public evaluation format.

        Parameters
        ----------
        lens : what is in front of it, for in-camera crops; None: without any of them, also of those that are always on
        """
        mode, recording = self.mode, self.recording
        return {
            "id": str(recording.id),
            "sensor": {"photosites": list(self.body.photosites), "pitch_um": self.body.pitch_um},
            "window": {"photosites": list(mode.window), "offset": list(mode.offset)},
            "sampling": {
                "horizontal": mode.sampling[0],
                "vertical": mode.sampling[1],
                "method": mode.method,
            },
            "timing": {
                "row_time_us": mode.row_time_us,
                "overhead_us": mode.overhead_us,
                "max_fps": self.stated_scan_fps(),
            },
            "recording": {
                "raster": list(recording.raster),
                "map": recording.map,
                "raw": recording.raw,
                "interlaced": recording.interlaced,
                "fps": fps,
            },
            "crops": [
                {"name": crop.name, "factor": factor}
                for crop, factor in ([] if lens is None else self.crops_that_apply(switched_on, lens))
            ],
            "delivery": delivery,
        }

    @cached_property
    def stated_limits(self) -> dict[Limit, float]:
        """List what limits the scan rate besides the readout, by its name.

        An interlaced frame takes two scans, so that limits on frames count double there. A body that
        buffers can run ahead of its card and is not held by it.
        """
        body, recording = self.body, self.recording
        scans = 2 if recording.interlaced else 1
        by_data = None
        if body.write_bytes_s is not None and body.buffer_bytes is None:
            by_data = recording.highest_by_data(body.write_bytes_s)
        limits: dict[Limit, float | None] = {
            "stated limit": self.mode.max_fps,
            "codec": None if recording.highest_fps is None else recording.highest_fps * scans,
            "data rate": None if by_data is None else by_data * scans,
        }
        return {name: limit for name, limit in limits.items() if limit is not None}

    def stated_scan_fps(self) -> float | None:
        """Lowest of the stated limits on the scan rate."""
        limit = min(self.stated_limits.values(), default=math.inf)
        return limit if math.isfinite(limit) else None

    def limited_by(self, answered: Literal["readout", "stated"] | None) -> Limit | None:
        """Name what binds the rate, given what the public evaluation answered (readout or stated)."""
        if answered != "stated":
            return answered
        limits = self.stated_limits
        return min(limits, key=lambda name: limits[name])
