"""The picture through the finder, computed: where each thing of the scene lies, how large, and how soft.

Millimetres as the image lies on the sensor, de-squeezed, upright as it is seen: x to the right and y down from the
optical axis. What the finder shows is the recorded part; the delivered picture and other frames lie within it.
"""

from __future__ import annotations

from typing import Any

import numpy as np

from hextan.core.base import Floats, Unit, both_units, m_from_mm, mm_from_m
from hextan.core.bench.answers import (
    BlurOval,
    FinderObject,
    FinderRect,
    Frames,
    OtherFrame,
    Perspective,
    Viewfinder,
)
from hextan.core.bench.scene import USUAL_SIZE_M, Scene, SceneObject, fineness_of, middle_m, outlines_m
from hextan.core.evaluation import Evaluation
from hextan.core.optics import angles, depth

#: Share of the picture's width and height inside which titles are safe (SMPTE ST 2046-1, from memory).
TITLE_SAFE = 0.90
#: From the eyes of a face forward to the tip of the nose and back to the ears, metres (common practice, no source).
NOSE_M, EARS_M = 0.025, 0.095
#: Nearer to the entrance pupil than this nothing is drawn.
_LEAST_Z_MM = 50.0
_SUBJECT = "subject"
#: Of an outline's millimetres: a thousandth is less than a tenth of a photosite.
OUTLINE_DIGITS = 3


def viewfinder(
    result: Evaluation,
    index: int,
    scene: Scene,
    subject_m: float,
    coc_mm: float,
    unit: Unit = "m",
    brackets: bool = False,
) -> Viewfinder:
    """Lay out the finder picture of one format.

    Parameters
    ----------
    result, index : an evaluation and which of its formats is looked through
    scene : what stands before the camera
    subject_m : distance of the subject from the sensor plane
    coc_mm : circle of confusion of the format
    unit, brackets : which comes first in sentences, and whether the other stands behind it

    Returns
    -------
    Frames, the circle, the horizon, the objects from far to near with outlines, discs and blur, and what is to be
    said of perspective.
    """
    frame = _Frame(result, index)
    things = [_subject(scene, subject_m), *scene.objects]
    drawn = [_drawn(frame, scene, thing, subject_m, coc_mm) for thing in things]
    drawn.sort(key=lambda thing: -thing["distance_m"])
    return {
        **frame.frames(scene),
        "squeeze": frame.squeeze,
        "image_mm": frame.image_mm,
        "horizon_blur": frame.blur(np.inf),
        "projection": frame.projection,
        "objects": drawn,
        "perspective": _perspective(frame, scene, subject_m, unit, brackets),
    }


class _Frame:
    """One format's frame, and how the lens projects into it."""

    def __init__(self, result: Evaluation, index: int) -> None:
        c, t = result.columns, result.traced
        lens = result.request.lens

        def one(column: Any) -> float:
            return float(np.broadcast_to(column, c.picture_w.shape)[index])

        self.squeeze, self.projection = lens.squeeze, lens.projection
        self.focal_mm, self.f_number = result.lens.focal_mm, result.f_number
        self.magnification, self.z_mm, self.origin_mm = (
            one(t.magnification),
            one(t.pupil_z_mm),
            one(t.origin_mm),
        )
        rectilinear = lens.projection == "rectilinear"
        self.image_mm = (
            float(angles.image_distance_mm(self.focal_mm, self.magnification, lens.pupil_magnification))
            if rectilinear
            else self.focal_mm
        )
        self.centre = one(c.offset_x) * lens.squeeze, one(c.offset_y)
        self.recorded = one(c.recorded_w) * lens.squeeze, one(c.recorded_h)
        self.picture = one(c.picture_w) * lens.squeeze, one(c.picture_h)
        self.kept = 1.0 - one(c.given.protect)
        self.circle_mm = result.lens.image_circle_mm

    def project(self, z_mm: float, right_mm: Floats, up_mm: Floats) -> Floats:
        """Project points at a distance z from the entrance pupil: (P, 2), x right and y down."""
        if self.projection == "rectilinear":
            return np.column_stack((right_mm, -up_mm)) * (self.image_mm / z_mm)
        aside = np.hypot(right_mm, up_mm)
        height = angles.image_height_mm(np.arctan2(aside, z_mm), self.image_mm, self.projection)
        per_mm = np.divide(height, aside, out=np.full_like(aside, self.image_mm / z_mm), where=aside > 1e-9)
        return np.column_stack((right_mm * per_mm, -up_mm * per_mm))

    def blur(self, z_mm: float) -> BlurOval | None:
        """The disc of a point at z: as high as on the sensor, narrower by the squeeze when it is de-squeezed."""
        if self.f_number is None or z_mm <= 0:
            return None
        disc = float(depth.blur_disc_mm(self.z_mm, z_mm, self.focal_mm, self.magnification, self.f_number))
        return {"width": disc / self.squeeze, "height": disc}

    def within(self, points: Floats) -> Floats:
        """Leave out of a long outline what lies far outside the frame, but for its ends."""
        x, reach = points[:, 0], self.recorded[0]
        near = np.abs(x - self.centre[0]) <= reach
        kept = near | np.roll(near, 1) | np.roll(near, -1)
        kept[-2:] = True
        kept[0] = True
        return np.asarray(points[kept])

    def rect(self, width: float, height: float) -> FinderRect:
        """A frame about the middle of the recording."""
        x, y = self.centre
        return {"x": x - width / 2, "y": y - height / 2, "width": width, "height": height}

    def frames(self, scene: Scene) -> Frames:
        """All frame lines. Other deliveries are taken from the recording as any delivery is."""
        (w, h), (pw, ph) = self.recorded, self.picture
        others: list[OtherFrame] = []
        for aspect in scene.frames:
            high = min(h, w / aspect)
            others.append({"aspect": aspect, **self.rect(high * aspect, high)})
        circle = self.circle_mm
        return {
            "recorded": self.rect(w, h),
            "picture": self.rect(pw, ph),
            "framed": self.rect(pw * self.kept, ph * self.kept),
            "others": others,
            "title_safe": self.rect(pw * TITLE_SAFE, ph * TITLE_SAFE) if scene.title_safe else None,
            "circle": None if circle is None else {"rx": circle / 2 * self.squeeze, "ry": circle / 2},
        }


def _subject(scene: Scene, subject_m: float) -> SceneObject:
    return SceneObject(key=_SUBJECT, kind=scene.posture, name="the subject", distance_m=subject_m,
                       height_m=scene.subject_height_m)  # fmt: skip


def _drawn(frame: _Frame, scene: Scene, thing: SceneObject, subject_m: float, coc_mm: float) -> FinderObject:
    """Project one object; behind the entrance pupil there is nothing to draw."""
    z = mm_from_m(thing.distance_m) - frame.origin_mm
    foot_mm = mm_from_m(thing.ground_m - scene.camera_height_m)
    told: FinderObject = {
        "key": thing.key,
        "kind": thing.kind,
        "name": thing.name,
        "distance_m": thing.distance_m,
        "aside_m": thing.aside_m,
        "parts": [],
        "at": None,
        "blur": None,
        "blur_share": None,
        "sharp": None,
        "size_ratio": None,
        "height_share": None,
        "in_picture": False,
    }
    if z < _LEAST_Z_MM:
        return told

    def place(points: Floats) -> Floats:
        return frame.project(z, mm_from_m(thing.aside_m + points[:, 0]), foot_mm + mm_from_m(points[:, 1]))

    size_m = (thing.size_m or USUAL_SIZE_M[thing.kind]) if thing.kind == "lamp" else thing.height_m
    fineness = fineness_of(mm_from_m(size_m) * frame.image_mm / z / frame.recorded[1])
    parts = [(part, place(points)) for part, points in outlines_m(thing, fineness)]
    if thing.kind == "shore":
        parts = [(part, frame.within(points)) for part, points in parts]
    at = place(np.array([[0.0, middle_m(thing)]]))[0]
    blur = frame.blur(z)
    high = max(float(p[:, 1].max()) for _, p in parts) - min(float(p[:, 1].min()) for _, p in parts)
    subject_z = mm_from_m(subject_m) - frame.origin_mm
    (cx, cy), (pw, ph) = frame.centre, frame.picture
    return {
        **told,
        "parts": [
            {"part": part, "points": np.round(points, OUTLINE_DIGITS).tolist()} for part, points in parts
        ],
        "at": at.tolist(),
        "blur": blur,
        "blur_share": None if blur is None else float(depth.blur_of_width(blur["height"], frame.picture[0])),
        "sharp": None if blur is None or np.isnan(coc_mm) else bool(blur["height"] <= coc_mm * (1 + 1e-9)),
        "size_ratio": subject_z / z if subject_z > 0 else None,
        "height_share": high / ph,
        "in_picture": bool(abs(at[0] - cx) <= pw / 2 and abs(at[1] - cy) <= ph / 2),
    }


def _perspective(frame: _Frame, scene: Scene, subject_m: float, unit: Unit, brackets: bool) -> Perspective:
    """Say what the camera's place does: sizes behind the subject, and the depth of a face."""
    z = subject_m - m_from_mm(frame.origin_mm)
    behind = [o for o in scene.objects if o.distance_m > subject_m + 0.005 and z > 0]
    words = []
    if behind:
        nearest = min(behind, key=lambda o: o.distance_m)
        farthest = max(behind, key=lambda o: o.distance_m)
        for thing in dict.fromkeys(o.key for o in (nearest, farthest)):
            told = next(o for o in behind if o.key == thing)
            ratio = z / (told.distance_m - m_from_mm(frame.origin_mm))
            words.append(f"{told.name} is drawn at {100 * ratio:.3g} % of the size it had beside the subject")
    face = (z + EARS_M) / (z - NOSE_M) if z > NOSE_M * 1.01 else None
    caution = None
    if face is not None and subject_m < scene.face_caution_m:
        caution = (
            f"At {both_units(subject_m, unit, brackets)} the nose of a face is drawn {100 * (face - 1):.0f} % larger than its ears: "
            f"faces look stretched nearer than {both_units(scene.face_caution_m, unit, brackets)}. Step back and take a longer lens "
            "for the same field; only distance changes this."
        )
    return {"pupil_to_subject_m": z, "face_ratio": face, "caution": caution, "words": words}
