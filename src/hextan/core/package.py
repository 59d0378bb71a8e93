"""What a production carries: bodies with scan modes and recording formats, lenses, adapters.

Plain frozen records without behaviour of a database or a screen. Identifiers are opaque numbers.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import Any


@dataclass(frozen=True)
class InCameraCrop:
    """A crop that a body can switch on: stabiliser, lens correction, small-circle mode.

    `factors` holds the factor for each scan mode (by its id) that offers it; it never acts on raw.
    """

    id: int
    name: str
    factors: dict[int, float]


@dataclass(frozen=True)
class RecordingFormat:
    """Raster, mapping, codec and rates. Rates in frames a second, also when interlaced."""

    id: int
    name: str
    raster: tuple[int, int]
    map: str
    codec: str
    bits: int
    raw: bool
    interlaced: bool
    rates: tuple[Fraction, ...]
    highest_fps: float | None = None


@dataclass(frozen=True)
class ScanMode:
    """Which photosites are read, how they are sampled, and how fast."""

    id: int
    name: str
    window: tuple[int, int]
    offset: tuple[int, int]
    sampling: tuple[int, int]
    method: str
    row_time_us: float | None
    overhead_us: float
    max_fps: float | None
    formats: tuple[RecordingFormat, ...] = ()


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


@dataclass(frozen=True)
class Lens:
    """A prime (equal ends) or a zoom. Stops at the short and at the long end."""

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
    projection: str
    pupil_magnification: float = 1.0

    @property
    def is_zoom(self) -> bool:
        """Whether the focal length can be changed."""
        return self.focal_max_mm > self.focal_min_mm


@dataclass(frozen=True)
class LensSet:
    """Lenses that belong together."""

    id: int
    maker: str
    name: str
    lenses: tuple[Lens, ...] = ()


@dataclass(frozen=True)
class MountAdapter:
    """What goes between lens and body."""

    id: int
    name: str
    magnification: float
    lens_mount: str
    body_mount: str


@dataclass(frozen=True)
class Package:
    """All equipment of a production."""

    bodies: tuple[Body, ...] = ()
    lens_sets: tuple[LensSet, ...] = ()
    adapters: tuple[MountAdapter, ...] = ()

    @cached_property
    def formats(self) -> dict[int, FormatInPackage]:
        """Every recording format by its id, with its scan mode and body."""
        return {
            recording.id: FormatInPackage(body, mode, recording)
            for body in self.bodies
            for mode in body.modes
            for recording in mode.formats
        }

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

    def crops_that_apply(self, switched_on: frozenset[int]) -> list[tuple[InCameraCrop, float]]:
        """List the in-camera crops that act here among those that are switched on."""
        if self.recording.raw:
            return []
        return [
            (crop, crop.factors[self.mode.id])
            for crop in self.body.crops
            if crop.id in switched_on and self.mode.id in crop.factors
        ]

    def as_request(
        self, switched_on: frozenset[int], fps: float | None, delivery: dict[str, Any] | None
    ) -> dict[str, Any]:
        """Write the format in the public evaluation format."""
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
                {"name": crop.name, "factor": factor} for crop, factor in self.crops_that_apply(switched_on)
            ],
            "delivery": delivery,
        }

    def stated_scan_fps(self) -> float | None:
        """Lowest stated limit on the scan rate: of the mode, or of the codec (two scans a frame if interlaced)."""
        codec = self.recording.highest_fps
        if codec is not None and self.recording.interlaced:
            codec *= 2
        stated = [limit for limit in (self.mode.max_fps, codec) if limit is not None]
        return min(stated, default=None)
