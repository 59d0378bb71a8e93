"""What stands before the camera: people, lamps, posts and a far shore, and their outlines in metres.

The camera is level and looks along the axis of the plan view. An outline is flat and faces the camera: points
(right, up) in metres from the foot of the object, so that the finder can project it as it is.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Annotated, Literal, TypeAlias

import numpy as np
from pydantic import Field

from hextan.core.base import Floats, Key, Metres, Name, Part, new_key

Kind: TypeAlias = Literal["standing", "seated", "lamp", "post", "shore"]
#: What an outline is of.
PartName: TypeAlias = Literal["body", "head", "lamp", "post", "shore"]
Posture: TypeAlias = Literal["standing", "seated"]
#: Most objects of a scene.
MOST_OBJECTS = 60
#: How wide a thing is when nothing is said, in metres (common practice, no source): a lamp's globe, a post.
USUAL_SIZE_M: dict[Kind, float] = {"lamp": 0.16, "post": 0.22}

# Outlines of a person as shares of the standing height: (half width, height above ground). Drawn for this program
# after the usual seven and a half heads (common practice, no source).
_STANDING = (
    (0.000, 0.000), (0.060, 0.000), (0.057, 0.025), (0.045, 0.055), (0.062, 0.190), (0.062, 0.280), (0.086, 0.400),
    (0.094, 0.420), (0.118, 0.400), (0.130, 0.440), (0.136, 0.540), (0.138, 0.640), (0.136, 0.740), (0.132, 0.790),
    (0.116, 0.818), (0.060, 0.838), (0.036, 0.850), (0.033, 0.890), (0.000, 0.890),
)  # fmt: skip
_SEATED = (
    (0.000, 0.000), (0.078, 0.000), (0.074, 0.028), (0.064, 0.060), (0.082, 0.210), (0.112, 0.252), (0.128, 0.290),
    (0.136, 0.330), (0.138, 0.410), (0.136, 0.510), (0.132, 0.560), (0.116, 0.588), (0.060, 0.608), (0.036, 0.620),
    (0.033, 0.660), (0.000, 0.660),
)  # fmt: skip
#: Height of the head's middle above ground, and its half width and half height, as shares of the standing height.
_HEAD: dict[Posture, float] = {"standing": 0.935, "seated": 0.705}
_HEAD_HALF = (0.046, 0.066)
#: How often corners of an outline are cut, from things that are small in the picture to those that are larger than it.
Fineness: TypeAlias = Literal[1, 2, 3]
#: Half the breadth of a shore: wider than any lens that is not a fisheye sees, in distances to it.
_SHORE_REACH = 8.0


class SceneObject(Part):
    """A thing in the scene. Distances in metres from the sensor plane along the axis, aside to the right."""

    key: Key = Field(default_factory=new_key)
    kind: Kind
    name: Name
    distance_m: Metres
    aside_m: Annotated[float, Field(ge=-100_000, le=100_000)] = 0.0
    #: A person's standing height, the middle of a lamp, the top of a post or of a shore's trees, above its ground.
    height_m: Annotated[float, Field(gt=0, le=1000)]
    #: Diameter of a lamp, width of a post.
    size_m: Annotated[float, Field(gt=0, le=1000)] | None = None
    #: Its ground above (below) the camera's: a boat lies lower than the quay.
    ground_m: Annotated[float, Field(ge=-1000, le=1000)] = 0.0


def _starting_objects() -> list[SceneObject]:
    """A few things at stated distances, until somebody sets the scene."""
    told: list[tuple[Kind, str, float, float, float]] = [
        ("standing", "second person", 5.2, 0.9, 1.78),
        ("lamp", "lamp left", 6.5, -1.3, 2.3),
        ("post", "post", 9.0, -2.2, 3.0),
        ("lamp", "lamp right", 14.0, 2.4, 2.8),
        ("shore", "far shore", 180.0, 0.0, 9.0),
    ]
    return [
        SceneObject(key=f"start{i}", kind=kind, name=name, distance_m=d, aside_m=a, height_m=h)
        for i, (kind, name, d, a, h) in enumerate(told)
    ]


class Scene(Part):
    """The scene, the camera's height over its ground, and the lines that the finder shows."""

    camera_height_m: Annotated[float, Field(ge=0.01, le=1000)] = 1.55
    posture: Posture = "standing"
    subject_height_m: Annotated[float, Field(ge=0.3, le=3)] = 1.72
    #: Nearer than this a face is told to look stretched.
    face_caution_m: Annotated[float, Field(ge=0, le=10)] = 0.45
    #: Aspects of other deliveries that are marked in the finder.
    frames: Annotated[list[Annotated[float, Field(ge=0.1, le=10)]], Field(max_length=8)] = []
    title_safe: bool = False
    objects: Annotated[list[SceneObject], Field(max_length=MOST_OBJECTS)] = Field(
        default_factory=_starting_objects
    )


@lru_cache(maxsize=64)
def _round(fineness: Fineness) -> tuple[Floats, Floats]:
    """Cosines and sines of points round a circle: 16, 32 or 64."""
    turn = np.linspace(0.0, 2.0 * math.pi, 8 * 2**fineness, endpoint=False)
    return np.cos(turn), np.sin(turn)


@lru_cache(maxsize=64)
def _smooth_body(posture: Posture, fineness: Fineness) -> Floats:
    """Outline of body and legs, both sides, with its corners cut round."""
    side = np.array(_STANDING if posture == "standing" else _SEATED)
    points = np.concatenate((side, side[::-1] * (-1.0, 1.0)))
    for _ in range(fineness):
        after = np.roll(points, -1, axis=0)
        points = np.stack((0.75 * points + 0.25 * after, 0.25 * points + 0.75 * after), axis=1).reshape(-1, 2)
    return points


def head_height_m(posture: Posture, height_m: float) -> float:
    """Height of the middle of a person's head above the ground.

    >>> round(head_height_m("standing", 1.72), 2), round(head_height_m("seated", 1.72), 2)
    (1.61, 1.21)
    """
    return _HEAD[posture] * height_m


def fineness_of(share: float) -> Fineness:
    """How finely a thing is drawn that takes this share of the picture's height: half a pixel of a screen is not seen."""
    return 1 if share < 0.4 else 2 if share < 2.5 else 3


def outlines_m(thing: SceneObject, fineness: Fineness = 2) -> list[tuple[PartName, Floats]]:
    """Give the outlines of an object with what each part is: body, head, lamp, post, shore.

    Returns
    -------
    Part and points of shape (P, 2): metres to the right and up from the object's foot.
    """
    h = thing.height_m
    cosine, sine = _round(fineness)
    if thing.kind in ("standing", "seated"):
        posture: Posture = "standing" if thing.kind == "standing" else "seated"
        rx, ry = _HEAD_HALF
        head = np.column_stack((rx * cosine, _HEAD[posture] + ry * sine))
        return [("body", _smooth_body(posture, fineness) * h), ("head", head * h)]
    if thing.kind == "shore":
        return [("shore", _shore(thing.distance_m, h))]
    half = (thing.size_m or USUAL_SIZE_M[thing.kind]) / 2
    if thing.kind == "lamp":
        return [("lamp", np.column_stack((half * cosine, h + half * sine)))]
    return [("post", np.array([[-half, 0.0], [-half, h], [half, h], [half, 0.0]]))]


def _shore(distance_m: float, height_m: float) -> Floats:
    """Trees along the water: an even line would give no size to judge by."""
    across = np.linspace(-_SHORE_REACH, _SHORE_REACH, 481)
    crowns = 0.72 + 0.16 * np.sin(across * 23.0) + 0.12 * np.sin(across * 61.0 + 1.0)
    top = np.column_stack((across * distance_m, crowns * height_m))
    foot = [[across[-1] * distance_m, 0.0], [across[0] * distance_m, 0.0]]
    return np.concatenate((top, np.array(foot)))


def middle_m(thing: SceneObject) -> float:
    """Height of what one looks at, above the object's ground: a face, a lamp, half of a post or of a shore."""
    if thing.kind == "lamp":
        return thing.height_m
    if thing.kind in ("standing", "seated"):
        return head_height_m("standing" if thing.kind == "standing" else "seated", thing.height_m)
    return thing.height_m / 2
