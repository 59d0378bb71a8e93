"""Does a bigger sensor give less depth? Three cases kept apart, and a change of depth or blur split into its parts."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal, TypeAlias

from hextan.core.base import Fault, InvalidInputError
from hextan.core.compare.comparison import Case
from hextan.core.optics import ThinLens, depth


@dataclass(frozen=True)
class Optics:
    """A lens focused on its subject before a picture. Lengths in mm; the distance from the sensor plane.

    `size_mm` is the de-squeezed picture's size by the dimension that framing goes by; `width_mm` its de-squeezed
    width, which blur is told against.
    """

    focal_mm: float
    distance_mm: float
    f_number: float
    coc_mm: float
    size_mm: float
    width_mm: float
    #: Exit over entrance pupil; 1 is a symmetrical lens.
    pupil_magnification: float = 1.0

    @property
    def lens(self) -> ThinLens:
        """The lens as depth sees it."""
        return ThinLens(self.focal_mm, self.coc_mm, self.pupil_magnification)

    @property
    def magnification(self) -> float:
        """Of the subject.

        Raises
        ------
        InvalidInputError
            Nearer than four focal lengths no image is formed.
        """
        return self.lens.focused(self.distance_mm).magnification

    @property
    def field_mm(self) -> float:
        """The subject's plane as far as the picture shows it."""
        return self.size_mm / self.magnification

    @property
    def total_depth_mm(self) -> float:
        """From the near to the far limit; infinite from the hyperfocal distance on."""
        plane = self.lens.focused(self.distance_mm)
        near, far = self.lens.limits(plane, self.f_number)
        return far - near

    @property
    def depth_dioptres(self) -> float:
        """1/near - 1/far from the pupil, per metre: finite where the total is not. It is 2q/z."""
        plane = self.lens.focused(self.distance_mm)
        q = self.coc_mm * self.f_number / (self.focal_mm * plane.magnification)
        return 2000.0 * q / plane.z_mm

    @property
    def blur_share(self) -> float:
        """Disc of a point at infinity, its taller extent, as a share of the de-squeezed width."""
        return float(depth.blur_of_width(self.magnification * self.focal_mm / self.f_number, self.width_mm))


def in_case(case: Case, first: Optics, other: Optics) -> Optics:
    """Put the first set-up's lens before another format, as a case has it.

    Parameters
    ----------
    first : what is held against
    other : its format's sizes and circle of confusion, laid out behind the first one's lens, are kept; its lens
        and place are not

    Returns
    -------
    same_place: everything of the first. moved: its lens from where its field is the same. other_lens: from its place
    with the focal length whose field is the same. The f-number stays in all of them.

    Raises
    ------
    InvalidInputError
        A field that no focal length gives from there, or so near that it is drawn larger than it is.

    Notes
    -----
    With C = size of the first / size of the other, the same field asks for m' = m/C: by moving D = f(1+m')^2/m', by
    another lens f = D*m'/(1+m')^2.
    """
    here = replace(first, coc_mm=other.coc_mm, size_mm=other.size_mm, width_mm=other.width_mm)
    if case in ("as_set", "same_place"):
        return other if case == "as_set" else here
    m = first.magnification * other.size_mm / first.size_mm
    if m >= 1:
        raise InvalidInputError.of(
            Fault("case", case, "would have to draw it larger than it is, which is not computed")
        )
    if case == "moved":
        return replace(here, distance_mm=first.focal_mm * (1 + m) ** 2 / m)
    return replace(here, focal_mm=first.distance_mm * m / (1 + m) ** 2)


#: What depth and blur depend on.
PartKey: TypeAlias = Literal["focal_mm", "distance_mm", "f_number", "coc_mm", "width_mm"]


@dataclass(frozen=True)
class Share:
    """What one of the parts does: its factor, in the order in which they were changed."""

    part: PartKey
    before: float
    after: float
    factor: float


#: The parts of depth and of blur, in the order in which they are changed from one set-up to the other.
DEPTH_PARTS: tuple[PartKey, ...] = ("focal_mm", "distance_mm", "f_number", "coc_mm")
BLUR_PARTS: tuple[PartKey, ...] = ("focal_mm", "distance_mm", "f_number", "width_mm")


def shares(
    first: Optics, other: Optics, measure: Callable[[Optics], float], parts: tuple[PartKey, ...]
) -> list[Share]:
    """Split the change of a measure into its parts: their factors multiply to the whole.

    Notes
    -----
    The parts are changed one after another; another order would share the whole out a little differently, but never
    change it.
    """
    found, at = [], replace(first, pupil_magnification=other.pupil_magnification)
    # What belongs to no part goes with the first.
    value = measure(first)
    for part in parts:
        at = replace(at, **{part: getattr(other, part)})
        if part == parts[-1]:
            at = replace(other)
        after = measure(at)
        factor = after / value if value and math.isfinite(value) and math.isfinite(after) else math.nan
        found.append(Share(part, getattr(first, part), getattr(other, part), factor))
        value = after
    return found
