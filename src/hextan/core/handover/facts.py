"""All that another program has to know of a set-up: camera, picture, lens, focus, and what stands before it."""

from __future__ import annotations

import math
from typing import Literal

from typing_extensions import TypedDict

from hextan.core.base import m_from_mm
from hextan.core.bench import BenchState, compute_bench, viewfinder
from hextan.core.equipment import Package


class ThingFacts(TypedDict):
    """A thing of the scene. Metres: its distance from the sensor plane along the axis, aside to the right, its ground."""

    key: str
    kind: Literal["standing", "seated", "lamp", "post", "shore"]
    name: str
    distance_m: float
    aside_m: float
    height_m: float
    size_m: float | None
    ground_m: float


class CameraFacts(TypedDict):
    """A set-up. Millimetres are those on the sensor, de-squeezed, upright: x to the right, y down from the axis."""

    name: str
    body: str
    maker: str
    mode: str
    format: str
    lens_set: str
    lens: str
    adapters: list[str]
    #: As it is set on the lens, and behind the adapters.
    set_mm: float
    focal_mm: float
    squeeze: float
    rectilinear: bool
    #: The delivered picture and where its middle lies; the recording as it lies on the sensor, squeezed.
    wide_mm: float
    high_mm: float
    middle_mm: list[float]
    recorded_mm: list[float]
    raster: list[int]
    #: From the entrance pupil to the picture, as the lens is focused.
    image_mm: float
    #: From the sensor plane forward to the entrance pupil, and from there to the plane of focus.
    pupil_m: float
    focus_from_pupil_m: float
    subject_m: float
    focus_m: float
    f_number: float | None
    #: As marked.
    marks: str
    stop: float | None
    fps: float
    shutter_deg: float
    ei: int | None
    camera_height_m: float
    #: What stands in for figures of the lens that nobody stated.
    assumed: list[str]
    things: list[ThingFacts]


def facts_of(package: Package, state: BenchState, name: str) -> CameraFacts:
    """Resolve a set-up and compute it.

    Raises
    ------
    InvalidInputError, CannotFocusError
        As for the Bench.
    """
    found = compute_bench(package, state, format_ids=())
    here, setting, e = found.chosen, found.setting, found.evaluation
    seen = viewfinder(e, 0, state.scene, state.subject_m, float(e.coc_mm[0]))
    picture = seen["picture"]
    origin_mm = float(e.traced.origin_mm.reshape(-1)[0])
    z_mm = float(e.traced.pupil_z_mm.reshape(-1)[0])
    subject: ThingFacts = {
        "key": "subject",
        "kind": state.scene.posture,
        "name": "the subject",
        "distance_m": state.subject_m,
        "aside_m": 0.0,
        "height_m": state.scene.subject_height_m,
        "size_m": None,
        "ground_m": 0.0,
    }
    others: list[ThingFacts] = [
        {
            "key": thing.key,
            "kind": thing.kind,
            "name": thing.name,
            "distance_m": thing.distance_m,
            "aside_m": thing.aside_m,
            "height_m": thing.height_m,
            "size_m": thing.size_m,
            "ground_m": thing.ground_m,
        }
        for thing in state.scene.objects
    ]
    lens_set = package.lenses[setting.lens.id][0]
    c = e.columns
    return {
        "name": name,
        "body": here.body.name,
        "maker": here.body.maker,
        "mode": here.mode.name,
        "format": here.recording.name,
        "lens_set": lens_set.name,
        "lens": setting.lens.name,
        "adapters": [adapter.name for adapter in setting.adapters],
        "set_mm": setting.focal_mm,
        "focal_mm": float(e.lens.focal_mm),
        "squeeze": setting.lens.squeeze,
        "rectilinear": setting.lens.projection == "rectilinear",
        "wide_mm": picture["width"],
        "high_mm": picture["height"],
        "middle_mm": [picture["x"] + picture["width"] / 2, picture["y"] + picture["height"] / 2],
        "recorded_mm": [float(c.recorded_w[0]), float(c.recorded_h[0])],
        "raster": list(here.recording.raster),
        "image_mm": seen["image_mm"],
        "pupil_m": m_from_mm(origin_mm),
        "focus_from_pupil_m": m_from_mm(z_mm),
        "subject_m": state.subject_m,
        "focus_m": state.focus_m or state.subject_m,
        "f_number": None if e.f_number is None or math.isnan(e.f_number) else float(e.f_number),
        "marks": setting.marks,
        "stop": setting.stop,
        "fps": state.fps,
        "shutter_deg": state.light.shutter_deg
        if state.light.shutter == "angle"
        else min(360 * state.light.shutter_s * state.fps, 360.0),
        "ei": state.light.ei,
        "camera_height_m": state.scene.camera_height_m,
        "assumed": list(setting.lens.stands_in.values()),
        "things": [subject, *others],
    }
