"""A lens set as a document: what a technician enters, checks, keeps, hands on, and takes from the catalogue."""

from __future__ import annotations

import math
from typing import Annotated, Literal, TypeAlias

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import (
    Fault,
    FocalMm,
    InconsistentError,
    Metres,
    Millimetres,
    Name,
    Note,
    Origin,
    Part,
    Row,
    Schema,
    Squeeze,
    Stop,
    parser_of,
)
from hextan.core.equipment import F_OF_T, Iris, Lens, LensSet
from hextan.core.optics import CircleAxis, FormatClass, Projection

LENS_SET_SCHEMA = Schema("hextan.lens_set", 1)


Correction: TypeAlias = Annotated[float, Field(ge=1, le=2)]


class CirclePoint(Part):
    """One row of a table of image circles."""

    #: Focal length in mm, stop as marked, or focus in metres (None: infinity).
    at: Annotated[float, Field(gt=0, le=1_000_000)] | None
    circle_mm: Millimetres


class LensDocument(Row):
    """A prime (one focal length) or a zoom (two)."""

    focal_mm: FocalMm
    focal_long_mm: FocalMm | None = None
    f_number: Stop | None = None
    t_stop: Stop | None = None
    f_number_long: Stop | None = None
    t_stop_long: Stop | None = None
    image_circle_mm: Millimetres | None = None
    circle_by: CircleAxis | None = None
    circles: Annotated[list[CirclePoint], Field(max_length=40)] = []
    squeeze: Squeeze = 1.0
    #: From the sensor plane.
    close_focus_m: Metres | None = None
    mount: Name
    designed_for: FormatClass | None = None
    projection: Projection = "rectilinear"
    pupil_magnification: Annotated[float, Field(ge=0.05, le=20)] = 1.0
    breathing_percent: Annotated[float, Field(ge=-50, le=50)] | None = None
    front_mm: Millimetres | None = None
    length_mm: Annotated[float, Field(gt=0, le=3000)] | None = None
    weight_kg: Annotated[float, Field(gt=0, le=100)] | None = None
    #: How much a body's correction of its distortion crops, at either end of a zoom.
    correction: Correction | None = None
    correction_long: Correction | None = None
    iris: Iris = "ring"
    data_link: Note = ""

    @model_validator(mode="after")
    def _one_story(self) -> LensDocument:
        if self.focal_long_mm is not None and self.focal_long_mm <= self.focal_mm:
            raise ValueError("focal_long_mm must be longer than focal_mm; leave it out for a prime")
        if self.f_number is None and self.t_stop is None:
            raise ValueError("give an f-number or a T-stop")
        for name in ("f_number", "t_stop"):
            long = getattr(self, f"{name}_long")
            if long is not None and self.focal_long_mm is None:
                raise ValueError(f"{name}_long is for zooms: a prime has one stop")
            if long is not None and getattr(self, name) is None:
                raise ValueError(f"{name}_long needs {name} at the short end")
        if self.correction_long is not None and (self.focal_long_mm is None or self.correction is None):
            raise ValueError("correction_long is for zooms that state correction at the short end")
        if self.projection != "rectilinear" and self.squeeze != 1.0:
            raise ValueError("a fisheye projection and a squeeze other than 1 cannot be computed together")
        if (self.circle_by is None) != (not self.circles):
            raise ValueError("circles and circle_by belong together: a table, and what it is along")
        if self.circle_by is not None and self.image_circle_mm is not None:
            raise ValueError("give one image circle or a table of them, not both")
        places = [row.at for row in self.circles]
        if len(set(places)) != len(places):
            raise ValueError("a place is twice in the table of circles")
        if None in places and self.circle_by != "focus":
            raise ValueError("only a table along focus can speak of infinity")
        return self


class LensSetDocument(Row):
    """Lenses that belong together."""

    schema_name: Literal["hextan.lens_set"] = Field("hextan.lens_set", alias="schema")
    schema_version: Literal[1] = 1
    maker: Name
    note: Note = ""
    origin: Origin = Origin()
    lenses: Annotated[list[LensDocument], Field(max_length=2000)] = []

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    @model_validator(mode="after")
    def _keys(self) -> LensSetDocument:
        keys = [lens.key for lens in self.lenses]
        if len(set(keys)) != len(keys):
            raise ValueError("two lenses have the same key")
        return self


def check_lens_set(document: LensSetDocument, field: str = "") -> LensSet:
    """Refuse what a document must not combine, though each part of it is well formed.

    Returns
    -------
    The package's record of it.

    Raises
    ------
    InconsistentError
        Names that are taken, a T-stop wider than its f-number, circles along a range that is not the lens's.
    """
    faults: list[Fault] = []
    seen: set[str] = set()
    for i, lens in enumerate(document.lenses):
        at = f"{field}.lenses[{i}]" if field else f"lenses[{i}]"
        if lens.name in seen:
            faults.append(Fault(f"{at}.name", lens.name, "this name is already taken here"))
        seen.add(lens.name)
        faults += _lens_faults(lens, at)
    if faults:
        raise InconsistentError.of(*faults)
    return lens_set_of(document)


#: Checks a document given as plain data, and what it must not combine.
parse_lens_set = parser_of(LensSetDocument, then=check_lens_set)


def _lens_faults(lens: LensDocument, at: str) -> list[Fault]:
    faults = []
    for end in ("", "_long"):
        f, t = getattr(lens, f"f_number{end}"), getattr(lens, f"t_stop{end}")
        if f is not None and t is not None and t < f * (1 - 1e-9):
            rule = f"cannot be wider than f/{f:g}: glass only loses light"
            faults.append(Fault(f"{at}.t_stop{end}", t, rule))
    if lens.circle_by == "focal":
        low, high = lens.focal_mm, lens.focal_long_mm or lens.focal_mm
        for k, row in enumerate(lens.circles):
            if row.at is not None and not low * (1 - 1e-9) <= row.at <= high * (1 + 1e-9):
                rule = f"lies outside the lens's {low:g} to {high:g} mm"
                faults.append(Fault(f"{at}.circles[{k}].at", row.at, rule))
    return faults


def lens_set_of(
    document: LensSetDocument, ids: dict[str, int] | None = None, set_id: int = 0, f_of_t: float = F_OF_T
) -> LensSet:
    """Make the package's record of a document.

    Parameters
    ----------
    ids : number of each lens by its key, as the database has them; without it lenses are counted
    f_of_t : the T-stop of a lens over the f-number that stands in for one that is not stated
    """
    number = ids or {lens.key: i + 1 for i, lens in enumerate(document.lenses)}
    lenses = tuple(lens_of(lens, number[lens.key], f_of_t) for lens in document.lenses)
    return LensSet(set_id, document.maker, document.name, lenses)


def lens_of(document: LensDocument, lens_id: int = 0, f_of_t: float = F_OF_T) -> Lens:
    """Make the package's record of one lens."""
    long = document.focal_long_mm is not None
    assumed = {field for field, origin in document.origins.items() if origin.kind == "assumed"}
    if document.pupil_magnification == 1.0 and "pupil_magnification" not in document.origins:
        # A symmetrical lens stands in for one that says nothing.
        assumed.add("pupil_magnification")
    f_short, f_long = document.f_number, document.f_number_long
    if f_short is None and document.t_stop is not None:
        assumed.add("f_number")
        f_short = document.t_stop / f_of_t
        f_long = f_long or (None if document.t_stop_long is None else document.t_stop_long / f_of_t)
    return Lens(
        id=lens_id,
        name=document.name,
        focal_min_mm=document.focal_mm,
        focal_max_mm=document.focal_long_mm or document.focal_mm,
        f_number=f_short,
        t_stop=document.t_stop,
        # Without a figure of its own the long end opens as wide as the short one.
        f_number_long=f_long or (f_short if long else None),
        t_stop_long=document.t_stop_long or (document.t_stop if long else None),
        image_circle_mm=document.image_circle_mm,
        squeeze=document.squeeze,
        close_focus_m=document.close_focus_m,
        mount=document.mount,
        projection=document.projection,
        pupil_magnification=document.pupil_magnification,
        circle_by=document.circle_by,
        circle_rows=tuple(
            (math.inf if row.at is None else row.at, row.circle_mm) for row in document.circles
        ),
        designed_for=document.designed_for,
        breathing_percent=document.breathing_percent,
        correction=document.correction,
        correction_long=document.correction_long or (document.correction if long else None),
        assumed=frozenset(assumed),
        weight_kg=document.weight_kg,
        front_mm=document.front_mm,
        iris=document.iris,
        data_link=document.data_link,
        length_mm=document.length_mm,
    )
