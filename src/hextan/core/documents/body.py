"""A body as a document: what a technician enters, checks, keeps, hands on, and takes from the catalogue.

One description serves the editor, the JSON file and the database. Every figure has an origin:
claimed, computed or measured, from where, when, with which firmware.
"""

from __future__ import annotations

from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import (
    Count,
    Fault,
    FocalMm,
    Fps,
    InconsistentError,
    InvalidInputError,
    Key,
    Metres,
    Millimetres,
    Name,
    Note,
    Origin,
    Pair,
    Part,
    Plain,
    RateSet,
    RateText,
    Row,
    Schema,
    new_key,
    parser_of,
    um_from_mm,
)
from hextan.core.equipment import (
    Body,
    CropRule,
    InCameraCrop,
    Menu,
    Package,
    RecordingFormat,
    ScanMode,
)
from hextan.core.optics import SAMPLES, By


def _tried_with_crops(plain: Plain) -> Plain:
    """Version 1 held a claimed crop against the windows with in-camera crops on as well; version 2 only where it says so."""
    claims = plain.get("claims") or {}
    crops = [{"basis": None, "by": None, "switches": True} | claim for claim in claims.get("crops", [])]
    return plain | {"claims": claims | {"crops": crops}}


BODY_SCHEMA = Schema("hextan.body", 2, {1: _tried_with_crops})
#: Recording formats of one scan mode.
MOST_FORMATS = 2000

Method: TypeAlias = Literal["full", "binned", "skipped"]
Sampling: TypeAlias = Literal["raw", "4:2:0", "4:2:2", "4:4:4"]
LensCondition: TypeAlias = Literal["any", "spherical", "short_circle", "corrected"]
#: What a second slot does: it takes over, writes the same again, or takes the proxy.
SlotUse: TypeAlias = Literal["after", "both", "proxy"]


Step: TypeAlias = Annotated[int, Field(ge=1, le=16)]
Ei: TypeAlias = Annotated[int, Field(ge=1, le=10_000_000)]
NdStops: TypeAlias = Annotated[float, Field(gt=0, le=30)]
Version: TypeAlias = Annotated[str, Field(pattern=r"^\d{1,6}(\.\d{1,6}){0,3}$")]
Shift: TypeAlias = Annotated[int, Field(ge=-100_000, le=100_000)]


class MenuWords(Part):
    """What a scan mode or a switch is called in the camera, and what can get in its way."""

    #: As it stands in the menu, and where.
    name: Note = ""
    where: Note = ""
    #: What wins over it: an automatic setting, a recording format, a lens.
    overridden_by: Note = ""
    #: How the finder shows that it is on.
    finder: Note = ""
    #: Which key on the body switches it when it is knocked.
    knocked: Note = ""


class FormatDocument(Row):
    """A recording format."""

    raster: Pair
    map: Literal["scale", "crop"] = "scale"
    codec: Note = ""
    #: None where nobody states them; raw carries raw samples.
    bits: Annotated[int, Field(ge=1, le=32)] | None = None
    samples: Sampling | None = None
    compression: Annotated[float, Field(ge=1, le=1000)] | None = None
    megabits: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    megabits_at_fps: Fps | None = None
    raw: bool = False
    interlaced: bool = False
    rates: Annotated[list[RateText], Field(min_length=1, max_length=80)]
    highest_fps: Fps | None = None
    #: Accessories and licences without which it does not record, and the firmware since which there is it.
    needs: Annotated[list[Name], Field(max_length=8)] = []
    from_firmware: Version | None = None

    @model_validator(mode="after")
    def _one_story(self) -> FormatDocument:
        if self.megabits_at_fps is not None and self.megabits is None:
            raise ValueError("megabits_at_fps says at which rate megabits holds: give megabits too")
        if self.raw and self.samples not in ("raw", None):
            raise ValueError("a raw recording carries raw samples: set samples to raw")
        return self


class ModeDocument(Row):
    """A scan mode: its window in photosites, or in millimetres and then rounded to whole photosites."""

    window: Pair | None = None
    window_mm: Annotated[list[Millimetres], Field(min_length=2, max_length=2)] | None = None
    offset: Annotated[list[Shift], Field(min_length=2, max_length=2)] = [0, 0]
    sampling: Annotated[list[Step], Field(min_length=2, max_length=2)] = [1, 1]
    methods: Annotated[list[Method], Field(min_length=2, max_length=2)] = ["full", "full"]
    row_time_us: Annotated[float, Field(gt=0, le=10_000)] | None = None
    overhead_us: Annotated[float, Field(ge=0, le=1_000_000)] = 0.0
    max_fps: Fps | None = None
    menu: MenuWords = MenuWords()
    formats: Annotated[list[FormatDocument], Field(max_length=MOST_FORMATS)] = []

    @model_validator(mode="after")
    def _one_window(self) -> ModeDocument:
        if (self.window is None) == (self.window_mm is None):
            raise ValueError("give the window in photosites or in millimetres, one of them")
        for axis, step, method in zip(("across", "down"), self.sampling, self.methods, strict=True):
            if (method == "full") != (step == 1):
                raise ValueError(f"{axis}: full reads every photosite (1); binned and skipped need 2 or more")
        return self

    def photosites(self, pitch_um: float) -> tuple[int, int]:
        """Give the window in whole photosites."""
        if self.window is not None:
            return self.window[0], self.window[1]
        assert self.window_mm is not None
        w, h = (max(1, round(um_from_mm(size) / pitch_um)) for size in self.window_mm)
        return w, h


class CropRuleDocument(Part):
    """Where an in-camera crop can act, and by how much; the first rule that fits holds."""

    mode: Key
    #: Raster aspect for which the rule holds, as width and height; none for every aspect.
    aspect: Annotated[list[Count], Field(min_length=2, max_length=2)] | None = None
    factor: Annotated[float, Field(ge=1, le=20)]


class CropDocument(Row):
    """A crop that the body can switch on. It never acts on raw.

    For lenses that are corrected it takes what each lens says; a rule's factor is the most that it may take
    where the lens does not say.
    """

    lens: LensCondition = "any"
    #: Whether nothing switches it off where it can act.
    always: bool = False
    menu: MenuWords = MenuWords()
    rules: Annotated[list[CropRuleDocument], Field(max_length=200)] = []


class CropClaim(Part):
    """A crop factor that somebody states for a scan mode."""

    key: Key = Field(default_factory=new_key)
    mode: Key
    factor: Annotated[float, Field(gt=0.01, le=100)]
    decimals: Annotated[int, Field(ge=0, le=6)] = 2
    #: The aspect for which it is stated, as width and height; none when the page does not say.
    aspect: Annotated[list[Count], Field(min_length=2, max_length=2)] | None = None
    #: What it is said to be measured against, and by which dimension; none when the page does not say.
    basis: Literal["super35", "full_frame", "sensor"] | None = None
    by: By | None = None
    #: Whether in-camera crops that may have been left on are tried as well.
    switches: bool = False
    note: Note = ""


class TapeClaim(Part):
    """A field width measured with a tape, each figure with its uncertainty."""

    key: Key = Field(default_factory=new_key)
    mode: Key
    format: Key | None = None
    focal_mm: FocalMm
    focal_error_mm: Annotated[float, Field(ge=0, le=500)] = 0.0
    distance_m: Metres
    distance_error_m: Annotated[float, Field(ge=0, le=1000)] = 0.01
    field_m: Metres
    field_error_m: Annotated[float, Field(ge=0, le=1000)] = 0.005
    note: Note = ""


class SpeedClaim(Part):
    """A stated limit: so many rows at such a rate."""

    key: Key = Field(default_factory=new_key)
    rows: Count
    fps: Fps
    note: Note = ""


class PixelClaim(Part):
    """A stated pixel count."""

    key: Key = Field(default_factory=new_key)
    mode: Key | None = None
    megapixels: Annotated[float, Field(gt=0, le=10_000)]
    decimals: Annotated[int, Field(ge=0, le=6)] = 1
    note: Note = ""


class Claims(Part):
    """What is said and measured of a body, to be held against its figures."""

    crops: Annotated[list[CropClaim], Field(max_length=200)] = []
    tapes: Annotated[list[TapeClaim], Field(max_length=200)] = []
    speeds: Annotated[list[SpeedClaim], Field(max_length=200)] = []
    pixels: Annotated[list[PixelClaim], Field(max_length=200)] = []


class BodyDocument(Row):
    """A body with sensor, scan modes, recording formats, in-camera crops and claims."""

    schema_name: Literal["hextan.body"] = Field("hextan.body", alias="schema")
    schema_version: Literal[2] = 2
    maker: Name
    mount: Name
    firmware: Note = ""
    photosites: Pair
    pitch_um: Annotated[float, Field(ge=0.3, le=100)]
    #: All photosites of the chip, those outside the active ones included.
    total_photosites: Pair | None = None
    #: The body lets its user set any window.
    free_windows: bool = False
    write_mb_s: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    buffer_gb: Annotated[float, Field(gt=0, le=100_000)] | None = None
    #: Sensitivities that can be set, which of them are native, and what the built-in ND takes, in stops.
    eis: Annotated[list[Ei], Field(max_length=100)] = []
    base_eis: Annotated[list[Ei], Field(max_length=10)] = []
    #: The highest that whoever knows the body calls usable.
    highest_ei: Ei | None = None
    nd_stops: Annotated[list[NdStops], Field(max_length=40)] = []
    #: The EI that its menu calls a gain of 0 dB.
    zero_db_ei: Ei | None = None
    #: Slots for cards, and what the second one does.
    slots: Annotated[int, Field(ge=1, le=8)] = 1
    slot_use: SlotUse = "after"
    #: Ready to shoot without lens; width, height and depth in mm.
    weight_kg: Annotated[float, Field(gt=0, le=200)] | None = None
    size_mm: Annotated[list[Millimetres], Field(min_length=3, max_length=3)] | None = None
    origin: Origin = Origin()
    modes: Annotated[list[ModeDocument], Field(max_length=200)] = []
    crops: Annotated[list[CropDocument], Field(max_length=50)] = []
    claims: Claims = Claims()

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _light(self) -> BodyDocument:
        if self.eis and not set(self.base_eis) <= set(self.eis):
            gone = ", ".join(str(ei) for ei in self.base_eis if ei not in self.eis)
            raise ValueError(f"base_eis are among the EI values that can be set: {gone} is not in eis")
        return self

    @model_validator(mode="after")
    def _keys_and_references(self) -> BodyDocument:
        rows: list[Row] = [*self.modes, *self.crops, *(f for mode in self.modes for f in mode.formats)]
        keys = [row.key for row in rows]
        if len(set(keys)) != len(keys):
            raise ValueError("two rows have the same key")
        modes = {mode.key for mode in self.modes}
        claims = self.claims
        named = [rule.mode for crop in self.crops for rule in crop.rules]
        said: list[CropClaim | TapeClaim | PixelClaim] = [*claims.crops, *claims.tapes, *claims.pixels]
        named += [claim.mode for claim in said if claim.mode is not None]
        if any(key not in modes for key in named):
            raise ValueError("a crop or a claim names a scan mode that is not in this body")
        return self


def check_body(document: BodyDocument, field: str = "") -> Package:
    """Refuse what a document must not combine, though each part of it is well formed.

    Returns
    -------
    A package of this one body.

    Raises
    ------
    InconsistentError
        Windows outside the sensor, names that are taken, rasters that the window cannot give, bit rates
        that the body cannot write.
    """
    faults = [*_outside(document), *_doubles(document), *_unwritable(document)]
    package = Package(bodies=(body_of(document),))
    faults = faults or _contradictions(document, package)
    if faults:
        prefix = f"{field}." if field else ""
        raise InconsistentError.of(*(Fault(f"{prefix}{f.field}", f.value, f.rule) for f in faults))
    return package


#: Checks a document given as plain data, and what it must not combine.
parse_body = parser_of(BodyDocument, then=check_body)


def _contradictions(document: BodyDocument, package: Package) -> list[Fault]:
    """What the evaluation would refuse of a recording format is refused before it is kept."""
    places = [
        f"modes[{i}].formats[{j}]" for i, mode in enumerate(document.modes) for j in range(len(mode.formats))
    ]
    try:
        _ = package.columns if package.formats else None
    except InvalidInputError as error:
        faults = []
        for fault in error.faults:
            index, path = fault.field.removeprefix("formats[").split("].", 1)
            faults.append(
                Fault(f"{places[int(index)]}.{path.removeprefix('recording.')}", fault.value, fault.rule)
            )
        return faults
    return []


def _outside(document: BodyDocument) -> list[Fault]:
    faults = []
    for i, mode in enumerate(document.modes):
        window = mode.photosites(document.pitch_um)
        for axis, (size, offset, whole) in enumerate(
            zip(window, mode.offset, document.photosites, strict=True)
        ):
            over = size + 2 * abs(offset) - whole
            if over > 0:
                name = "offset" if size <= whole else "window_mm" if mode.window is None else "window"
                way = ("across", "up and down")[axis]
                rule = (
                    f"reaches {-(-over // 2)} photosites beyond the sensor {way}: the sensor has {whole}, "
                    f"the window {size}" + (f", moved by {offset}" if offset else "")
                )
                faults.append(
                    Fault(f"modes[{i}].{name}[{axis}]", mode.offset[axis] if name == "offset" else size, rule)
                )
    return faults


def _doubles(document: BodyDocument) -> list[Fault]:
    """Scan modes of one name, or formats of one name in a mode, cannot be told apart in a list."""
    faults = []
    lists = [
        ("modes", document.modes),
        *((f"modes[{i}].formats", m.formats) for i, m in enumerate(document.modes)),
    ]
    for path, rows in lists:
        seen: set[str] = set()
        for i, row in enumerate(rows):  # type: ignore[arg-type,var-annotated]
            if row.name in seen:
                faults.append(Fault(f"{path}[{i}].name", row.name, "this name is already taken here"))
            seen.add(row.name)
    return faults


def _unwritable(document: BodyDocument) -> list[Fault]:
    """A bit rate that is the same at every frame rate must fit what the body writes."""
    if document.write_mb_s is None or document.buffer_gb is not None:
        return []
    return [
        Fault(f"modes[{i}].formats[{j}].megabits", f.megabits,
              f"is {f.megabits / 8:g} MB/s, and the body writes {document.write_mb_s:g} MB/s at most")
        for i, mode in enumerate(document.modes)
        for j, f in enumerate(mode.formats)
        if f.megabits and f.megabits_at_fps is None and f.megabits / 8 > document.write_mb_s
    ]  # fmt: skip


def body_of(document: BodyDocument, ids: dict[str, int] | None = None, body_id: int = 0) -> Body:
    """Make the package's record of a document.

    Parameters
    ----------
    ids : number of each row by its key, as the database has them; without it rows are counted
    """
    rows = [row for mode in document.modes for row in (mode, *mode.formats)] + list(document.crops)
    number = ids or {row.key: i + 1 for i, row in enumerate(rows)}
    return Body(
        id=body_id,
        maker=document.maker,
        name=document.name,
        mount=document.mount,
        photosites=(document.photosites[0], document.photosites[1]),
        pitch_um=document.pitch_um,
        modes=tuple(_mode(document, mode, number) for mode in document.modes),
        crops=tuple(
            InCameraCrop(number[crop.key], crop.name, crop.lens, tuple(
                CropRule(number[r.mode], r.aspect[0] / r.aspect[1] if r.aspect else None, r.factor) for r in crop.rules),
                _menu(crop.menu), crop.always)
            for crop in document.crops
        ),
        free_windows=document.free_windows,
        write_bytes_s=None if document.write_mb_s is None else document.write_mb_s * 1e6,
        buffer_bytes=None if document.buffer_gb is None else document.buffer_gb * 1e9,
        eis=tuple(sorted(set(document.eis))),
        base_eis=tuple(sorted(set(document.base_eis))),
        highest_ei=document.highest_ei,
        nd_stops=tuple(sorted(set(document.nd_stops))),
        firmware=document.firmware,
        zero_db_ei=document.zero_db_ei,
        slots=document.slots,
        slot_use=document.slot_use,
        weight_kg=document.weight_kg,
    )  # fmt: skip


def _menu(words: MenuWords) -> Menu:
    """Make the package's record of menu words."""
    return Menu(words.name, words.where, words.overridden_by, words.finder, words.knocked)


def _mode(document: BodyDocument, mode: ModeDocument, number: dict[str, int]) -> ScanMode:
    return ScanMode(
        id=number[mode.key],
        name=mode.name,
        window=mode.photosites(document.pitch_um),
        offset=(mode.offset[0], mode.offset[1]),
        sampling=(mode.sampling[0], mode.sampling[1]),
        methods=(mode.methods[0], mode.methods[1]),
        row_time_us=mode.row_time_us,
        overhead_us=mode.overhead_us,
        max_fps=mode.max_fps,
        menu=_menu(mode.menu),
        formats=tuple(_format(f, number) for f in mode.formats),
    )


def _format(f: FormatDocument, number: dict[str, int]) -> RecordingFormat:
    return RecordingFormat(
        id=number[f.key],
        name=f.name,
        raster=(f.raster[0], f.raster[1]),
        map=f.map,
        codec=f.codec,
        bits=f.bits,
        raw=f.raw,
        interlaced=f.interlaced,
        rates=RateSet.parse(f.rates),
        highest_fps=f.highest_fps,
        samples=SAMPLES["raw"] if f.raw else None if f.samples is None else SAMPLES[f.samples],
        compression=f.compression,
        megabits=f.megabits,
        megabits_at_fps=f.megabits_at_fps,
        needs=tuple(f.needs),
        from_firmware=f.from_firmware,
    )
