"""A simulated camera: what it is set to, how that is changed, what it says of it, and how it misbehaves."""

from __future__ import annotations

import math
import threading
import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Any, Literal, TypeAlias

import orjson

from hextan.core.base import Fault, InvalidInputError

#: None: it behaves. Nothing is said; the clock is hours off; figures that cannot be; far too much; other names for all; lines that
#: never end.
Misbehaviour: TypeAlias = Literal["none", "silent", "clock", "impossible", "flood", "renamed", "endless"]
MISBEHAVIOURS: tuple[Misbehaviour, ...] = (
    "none",
    "silent",
    "clock",
    "impossible",
    "flood",
    "renamed",
    "endless",
)
_WRONG_CLOCK_S = 8_000.0
#: What an older firmware calls things.
_RENAMED = {
    "isoSpeed": "ExposureIndex", "captureFrameRate": "sensorFps", "shutterAngle": "shutter_degrees", "tStop": "iris",
    "focusDistance": "focus_distance_m", "activeSensorPhysicalDimensions": "sensorSize", "activeSensorResolution": "recordedResolution",
    "nominalFocalLength": "focalLength",
}  # fmt: skip


@dataclass(frozen=True)
class Window:
    """What a recording format reads and writes, without crops and with each."""

    mode: str
    format: str
    crops: tuple[str, ...]
    read_mm: tuple[float, float]
    raster: tuple[int, int]


@dataclass(frozen=True)
class Glass:
    """A lens by its name, with its ends and its widest stop; without contacts a camera knows nothing of it."""

    name: str
    short_mm: float
    long_mm: float
    widest: float
    contacts: bool


@dataclass(frozen=True)
class Model:
    """A body that can be simulated."""

    maker: str
    name: str
    windows: tuple[Window, ...]
    lenses: tuple[Glass, ...]


@dataclass(frozen=True)
class Setting:
    """What a camera is set to."""

    format: str
    crops: tuple[str, ...] = ()
    fps: float = 25.0
    ei: int = 800
    shutter_deg: float = 180.0
    squeeze: float = 1.0
    lens: str = ""
    focal_mm: float | None = None
    stop: float = 2.8
    focus_m: float = 3.0
    recording: bool = False
    slate: str = ""


@dataclass(frozen=True)
class Pull:
    """The focus on its way."""

    from_m: float
    to_m: float
    begun: float
    seconds: float

    def at(self, now: float) -> float:
        """Where it is: as a hand turns the ring, by the reciprocal of the distance."""
        share = min(max((now - self.begun) / self.seconds, 0.0), 1.0)
        smooth = share * share * (3 - 2 * share)
        return 1 / ((1 - smooth) / self.from_m + smooth / self.to_m)


_FIELDS: dict[str, Callable[[Any], Any]] = {
    "fps": float, "ei": int, "shutter_deg": float, "squeeze": float, "lens": str, "focal_mm": float, "stop": float, "focus_m": float,
    "recording": bool, "slate": str,
}  # fmt: skip


@dataclass
class SimulatedCamera:
    """One camera. Commands are dictionaries: of a script, of its page, or sent to it."""

    unit: str
    model: Model
    source: str = ""
    rate: float = 24.0
    setting: Setting = field(default_factory=lambda: Setting(""))
    misbehaves: Misbehaviour = "none"
    monotonic: Callable[[], float] = time.monotonic
    clock: Callable[[], float] = time.time

    def __post_init__(self) -> None:
        self._lock = threading.Lock()
        self._pull: Pull | None = None
        self._sequence = 0
        self.source = (
            self.source or f"urn:uuid:{uuid.uuid5(uuid.NAMESPACE_OID, f'{self.model.name} {self.unit}')}"
        )
        if not self.setting.format:
            self.setting = replace(self.setting, format=self.model.windows[0].format)
        if not self.setting.lens and self.model.lenses:
            self.setting = replace(self.setting, lens=self.model.lenses[0].name)

    def command(self, asked: dict[str, Any]) -> None:
        """Change what it is set to.

        Parameters
        ----------
        asked : any of ``format``, ``crops`` (a list of names), ``crop`` (turned over), ``fps``, ``ei``, ``shutter_deg``, ``lens``,
            ``focal_mm``, ``stop``, ``focus_m``, ``pull`` (``{"to_m", "seconds"}``), ``recording``, ``slate``, ``misbehave``

        Raises
        ------
        InvalidInputError
            What it does not have, or does not know.
        """
        with self._lock:
            for name, value in asked.items():
                self._one(name, value)

    def _one(self, name: str, value: Any) -> None:
        if name == "misbehave":
            if value not in MISBEHAVIOURS:
                raise InvalidInputError.of(Fault(name, value, f"must be one of {', '.join(MISBEHAVIOURS)}"))
            self.misbehaves = value
        elif name == "pull":
            self._pull = Pull(
                self.setting.focus_m,
                float(value["to_m"]),
                self.monotonic(),
                max(float(value["seconds"]), 0.01),
            )
        elif name in ("format", "crops", "crop"):
            self._window_to(name, value)
        elif name in _FIELDS:
            if name == "focus_m":
                self._pull = None
            self.setting = replace(self.setting, **{name: _FIELDS[name](value)})
        else:
            raise InvalidInputError.of(Fault(name, value, "is nothing that this camera can be told"))

    def _window_to(self, name: str, value: Any) -> None:
        now = self.setting
        if name == "format":
            wanted = replace(now, format=str(value), crops=())
        elif name == "crops":
            wanted = replace(now, crops=tuple(value))
        else:
            on = tuple(c for c in now.crops if c != value) if value in now.crops else (*now.crops, str(value))
            wanted = replace(now, crops=on[-1:])
        if not any((w.format, w.crops) == (wanted.format, wanted.crops) for w in self.model.windows):
            there = ", ".join(dict.fromkeys(w.format for w in self.model.windows))
            raise InvalidInputError.of(
                Fault(name, str(value), f"is nothing that {self.model.name} has here (formats: {there})")
            )
        self.setting = wanted

    @property
    def window(self) -> Window:
        """What is read and written now."""
        now = self.setting
        return next(w for w in self.model.windows if (w.format, w.crops) == (now.format, now.crops))

    def sample(self) -> dict[str, Any] | None:
        """What it says now; None while it is silent."""
        with self._lock:
            self._follow()
            if self.misbehaves == "silent":
                return None
            self._sequence += 1
            return self._said()

    def _follow(self) -> None:
        if self._pull is None:
            return
        now = self.monotonic()
        self.setting = replace(self.setting, focus_m=self._pull.at(now))
        if now >= self._pull.begun + self._pull.seconds:
            self._pull = None

    def _said(self) -> dict[str, Any]:
        now, window = self.setting, self.window
        clock = self.clock() + (_WRONG_CLOCK_S if self.misbehaves == "clock" else 0.0)
        whole = math.floor(clock)
        glass = next((g for g in self.model.lenses if g.name == now.lens), None)
        camera: dict[str, Any] = {
            "make": self.model.maker,
            "model": self.model.name,
            "label": self.unit,
            "activeSensorPhysicalDimensions": {
                "width": round(window.read_mm[0], 3),
                "height": round(window.read_mm[1], 3),
            },
            "activeSensorResolution": {"width": window.raster[0], "height": window.raster[1]},
            "captureFrameRate": _rational(now.fps),
            "anamorphicSqueeze": _rational(now.squeeze),
            "isoSpeed": now.ei if self.misbehaves != "impossible" else -1,
            "shutterAngle": now.shutter_deg,
        }
        static: dict[str, Any] = {"camera": camera}
        lens: dict[str, Any] = {}
        if glass is not None and glass.contacts:
            static["lens"] = {"model": glass.name, "nominalFocalLength": now.focal_mm or glass.short_mm}
            lens = {
                "tStop": now.stop,
                "focusDistance": now.focus_m if self.misbehaves != "impossible" else -3.0,
            }
        said: dict[str, Any] = {
            "protocol": {"name": "OpenTrackIO", "version": [1, 0, 0]},
            "sampleId": f"urn:uuid:{uuid.uuid5(uuid.NAMESPACE_OID, f'{self.source} {self._sequence}')}",
            "sourceId": self.source,
            "timing": {
                "mode": "internal",
                "sequenceNumber": self._sequence,
                "sampleRate": {"num": round(self.rate), "denom": 1},
                "sampleTimestamp": {"seconds": whole, "nanoseconds": int((clock - whole) * 1e9)},
            },
            "tracker": {"recording": now.recording, "slate": now.slate},
            "static": static,
            "lens": lens,
        }
        renamed: dict[str, Any] = _rename(said) if self.misbehaves == "renamed" else said
        return renamed

    def data(self) -> bytes | None:
        """What it says now as bytes."""
        said = self.sample()
        return None if said is None else orjson.dumps(said)

    @property
    def state(self) -> dict[str, Any]:
        """What it is set to, for its page."""
        now = self.setting
        return {
            "unit": self.unit,
            "model": f"{self.model.maker} {self.model.name}",
            "source": self.source,
            "format": now.format,
            "crops": list(now.crops),
            "fps": now.fps,
            "ei": now.ei,
            "shutter_deg": now.shutter_deg,
            "squeeze": now.squeeze,
            "lens": now.lens,
            "stop": now.stop,
            "focus_m": round(now.focus_m, 3),
            "recording": now.recording,
            "slate": now.slate,
            "misbehave": self.misbehaves,
            "formats": list(dict.fromkeys(w.format for w in self.model.windows)),
            "switches": list(
                dict.fromkeys(c for w in self.model.windows if w.format == now.format for c in w.crops)
            ),
            "lenses": [g.name for g in self.model.lenses],
        }


def _rational(fps: float) -> dict[str, int]:
    for denom in (1, 1001):
        num = round(fps * denom / (1 if denom == 1 else 1000)) * (1 if denom == 1 else 1000)
        if abs(num / denom / fps - 1) < 2e-5:
            return {"num": num, "denom": denom}
    return {"num": round(fps * 1000), "denom": 1000}


def _rename(plain: Any) -> Any:
    """The same in other names: a rate as a plain number, too."""
    if not isinstance(plain, dict):
        return plain
    found = {}
    for key, value in plain.items():
        bare = value["num"] / value["denom"] if key == "captureFrameRate" else value
        found[_RENAMED.get(key, key)] = _rename(bare)
    return found
