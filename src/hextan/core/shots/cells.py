"""A shot in every lens on every format at once: focal length, distance and stop that would be set, arrays (L, F).

How they are set is stated in docs/shots.md: the distance that frames exactly, as far as the shot, the room, keep-out and
close focus let the camera go; a zoom first to what frames from the middle of where it may stand; the widest stop that all
musts leave.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from hextan.core.base import MARKED, Flags, Floats, m_from_mm, mm_from_m, two_digits
from hextan.core.bench import ASSUMED_EIS
from hextan.core.equipment import Body, FormatInPackage, PackageSettings
from hextan.core.light import NdChoice, nd_choices, needed_lux, shutter_s, stop_for_lux
from hextan.core.optics import (
    LEAST_ANGLE_DEG,
    close_up_stops,
    dark_where_short,
    depth,
    distance_for_magnification,
    magnification_from_sensor,
)
from hextan.core.shots.layout import NARROWEST, Layout
from hextan.core.shots.needs import USUAL_DISTANCE_M, Needs

#: Off by less than half of a third of a stop, an exposure is right (common practice, no source).
RIGHT_STOPS = 1 / 6
#: So near to a mark a stop counts as it, as a ratio: a twelfth of a stop.
AT_A_MARK = 2 ** (1 / 24)
_ROUNDS = 40
#: From a wide view to a normal one, degrees across: what a person takes where nothing else is said; see `VIEW_CLASSES`.
NATURAL_DEG = LEAST_ANGLE_DEG[0], LEAST_ANGLE_DEG[2]


@dataclass(frozen=True)
class Limits:
    """What lets a stop go no wider, or no narrower; each as T at the sensor, shape (L, F)."""

    names: tuple[str, ...]
    values: tuple[Floats, ...]

    def tightest(self, wide: bool) -> Floats:
        """The one that binds: the narrowest of what keeps it narrow, or the widest of what keeps it wide."""
        return np.asarray(np.maximum.reduce(self.values) if wide else np.minimum.reduce(self.values))

    def binding(self, i: int, j: int, wide: bool) -> str:
        """Name the one that binds in a cell."""
        at = [float(value[i, j]) for value in self.values]
        return self.names[int(np.nanargmax(at) if wide else np.nanargmin(at))]


class Cells:
    """A shot laid over a layout."""

    def __init__(self, layout: Layout, needs: Needs, settings: PackageSettings) -> None:
        self.layout, self.needs, self.settings = layout, needs, settings

    @cached_property
    def side_mm(self) -> Floats:
        """The side of the picture by which the field is wanted, as it is seen."""
        wanted = self.needs.wanted
        if wanted is not None and wanted.side == "height":
            return self.layout.picture_h
        return self.layout.picture_w * self.layout.squeeze

    @cached_property
    def nearest_m(self) -> Floats:
        """As near as the camera may and can go, (L, F)."""
        needs = self.needs
        held = [needs.keep_out_m or 0.0]
        if needs.must("nearest"):
            held.append(needs.nearest_m or 0.0)
        optics = m_from_mm(4 * self.layout.low_mm)
        return np.maximum(np.maximum(self.layout.close_m, max(held)), np.nan_to_num(optics))

    @property
    def farthest_m(self) -> float:
        """As far as the room lets it go."""
        needs = self.needs
        return needs.room_m if needs.room_m is not None and needs.must("room") else math.inf

    @property
    def span_m(self) -> tuple[float, float]:
        """Where the shot lets the camera stand."""
        needs = self.needs
        return (needs.distance.low, needs.distance.high) if needs.must("distance") else (0.0, math.inf)

    @property
    def placed(self) -> bool:
        """Whether anything says where the camera stands: a field, a distance, a room, or what keeps it away."""
        needs = self.needs
        field = needs.wanted is not None and needs.wanted.field_m is not None
        stated = needs.distance.low > 0 or math.isfinite(needs.distance.high)
        return (
            field or stated or any(x is not None for x in (needs.room_m, needs.nearest_m, needs.keep_out_m))
        )

    @property
    def free(self) -> bool:
        """Whether a field is wanted, and nothing says where the camera stands: the lens is then chosen by its view."""
        needs = self.needs
        stated = needs.distance.low > 0 or math.isfinite(needs.distance.high)
        kept = any(x is not None for x in (needs.room_m, needs.nearest_m, needs.keep_out_m))
        return needs.wanted is not None and needs.wanted.field_m is not None and not stated and not kept

    @cached_property
    def unnatural(self) -> Floats:
        """How far the view is out of the range from normal to wide, octaves of focal length; 0 where a place is stated."""
        if not self.free:
            return np.zeros(self.layout.shape)
        wide, normal = (np.tan(np.radians(angle / 2)) for angle in NATURAL_DEG)
        with np.errstate(divide="ignore", invalid="ignore"):
            half = self.layout.picture_w * self.layout.squeeze / (2 * self.focal_mm)
            out = np.maximum(np.log2(half / wide), np.log2(normal / half))
        return np.asarray(np.maximum(np.nan_to_num(out, nan=99.0, posinf=99.0), 0.0))

    def _natural_m(self) -> Floats:
        """The usual distance, within those from which the wanted field is a wide to normal view."""
        wanted = self.needs.wanted
        assert wanted is not None and wanted.field_m is not None
        across_mm = self.layout.picture_w * self.layout.squeeze
        m = self.side_mm / mm_from_m(wanted.field_m)
        wide, normal = (across_mm / (2 * math.tan(math.radians(angle / 2))) for angle in NATURAL_DEG)
        bounds = (m_from_mm(focal * (1 + m) ** 2 / m) for focal in (wide, normal))
        return np.asarray(np.clip(USUAL_DISTANCE_M, *bounds))

    @cached_property
    def usual_m(self) -> Floats:
        """The distance for which a zoom is set: the middle of where the camera may stand."""
        low, high = self.needs.distance.low, self.needs.distance.high
        middle: float | Floats
        if self.free:
            middle = self._natural_m()
        elif low > 0 and math.isfinite(high):
            middle = math.sqrt(low * high)
        else:
            middle = min(max(USUAL_DISTANCE_M, low), high)
        allowed = np.minimum(np.maximum(middle, self.nearest_m), max(self.farthest_m, 0.0))
        return np.asarray(np.clip(allowed, *self.span_m))

    @cached_property
    def focal_mm(self) -> Floats:
        """Focal length with adapter, as it would be set."""
        layout, wanted = self.layout, self.needs.wanted
        low, high = layout.low_mm, layout.high_mm
        if wanted is None:
            return low
        if wanted.field_m is None:
            assert wanted.like_mm is not None
            exact = wanted.like_mm * self.side_mm / wanted.on_mm[0]
        else:
            m = self.side_mm / mm_from_m(wanted.field_m)
            exact = mm_from_m(self.usual_m) * m / (1 + m) ** 2
        return np.clip(exact, low, high)

    @cached_property
    def exact_m(self) -> Floats:
        """The distance from which the field is exactly what is wanted; NaN where no field is wanted."""
        wanted = self.needs.wanted
        if wanted is None or wanted.field_m is None:
            return np.full(self.layout.shape, np.nan)
        m = self.side_mm / mm_from_m(wanted.field_m)
        focal = np.where(self.layout.mounts, self.focal_mm, 1.0)
        return np.where(self.layout.mounts, m_from_mm(distance_for_magnification(focal, m)[1]), np.nan)

    @cached_property
    def distance_m(self) -> Floats:
        """Where the camera would stand, from the sensor plane."""
        free = np.where(np.isnan(self.exact_m), self.usual_m, self.exact_m)
        allowed = np.minimum(np.maximum(free, self.nearest_m), max(self.farthest_m, 0.0))
        return np.asarray(np.clip(allowed, *self.span_m))

    @cached_property
    def magnification(self) -> Floats:
        """Of the subject; NaN where the lens forms no image."""
        focal = np.where(self.layout.mounts, self.focal_mm, 1.0)
        m = magnification_from_sensor(focal, mm_from_m(np.maximum(self.distance_m, 1e-6)))
        return np.where(
            self.layout.mounts & (mm_from_m(self.distance_m) >= 4 * focal * (1 - 1e-12)), m, np.nan
        )

    @cached_property
    def wider(self) -> Floats:
        """The field over the wanted one: above 1 it is wider; 1 where none is wanted."""
        wanted = self.needs.wanted
        if wanted is None:
            return np.ones(self.layout.shape)
        if wanted.field_m is None:
            assert wanted.like_mm is not None
            return wanted.like_mm * self.side_mm / wanted.on_mm[0] / self.focal_mm
        return m_from_mm(self.side_mm / self.magnification) / wanted.field_m

    @cached_property
    def circle_mm(self) -> Floats:
        """The image circle as the lens is set."""
        return self.layout.circle_mm(self.focal_mm)

    def dark(self, picture: bool) -> Floats:
        """Share of the recording, or of the picture alone, that the circle leaves dark; NaN where no circle is stated."""
        layout = self.layout
        sizes = (layout.picture_w, layout.picture_h) if picture else (layout.recorded_w, layout.recorded_h)
        circle = np.where(layout.mounts, self.circle_mm, np.nan)
        w, h = (np.where(layout.mounts, size, 1.0) for size in sizes)
        return dark_where_short(circle, w, h, layout.columns.offset_x, layout.columns.offset_y)

    @cached_property
    def pupil_z_mm(self) -> Floats:
        """From the entrance pupil to the subject."""
        return self.focal_mm * (1 / self.magnification + 1 / self.layout.pupil)

    @cached_property
    def widest(self) -> tuple[Floats, Floats]:
        """Widest T at the sensor, and the f-number that goes with it."""
        return self.layout.widest(self.focal_mm)

    @cached_property
    def f_of_t(self) -> Floats:
        """The f-number over the T-stop."""
        t, f = self.widest
        return f / t

    # Stops, as T at the sensor.

    @cached_property
    def held(self) -> tuple[Floats, Floats]:
        """The T-stop that just holds what has to be sharp (0 where nothing has), and where to focus: no nearer than the lens does."""
        hold, shape = self.needs.hold, self.layout.shape
        if hold is None:
            return np.zeros(shape), self.distance_m
        if hold.deep:
            near, far = self.distance_m, np.full(shape, np.inf)
        elif hold.about_m is not None:
            near, far = self.distance_m - hold.about_m, self.distance_m + hold.about_m
        else:
            assert hold.near_m is not None and hold.far_m is not None
            near, far = np.full(shape, hold.near_m), np.full(shape, hold.far_m)
        n, at = hold_stop(
            self.focal_mm,
            self.layout.pupil,
            self.layout.coc_mm,
            mm_from_m(near),
            mm_from_m(far),
            mm_from_m(self.layout.close_m),
        )
        return np.where(np.isnan(n), np.inf, n / self.f_of_t), m_from_mm(at)

    @cached_property
    def softest(self) -> Floats:
        """The T-stop at which the background is just soft enough (infinite where none is wanted)."""
        soft = self.needs.soft
        if soft is None:
            return np.full(self.layout.shape, np.inf)
        origin = mm_from_m(self.distance_m) - self.pupil_z_mm
        z_b = mm_from_m(soft.at_m) - origin
        with np.errstate(invalid="ignore"):
            off = np.where(np.isinf(z_b), 1.0, np.abs(z_b - self.pupil_z_mm) / z_b)
        disc_mm = depth.disc_for_blur_mm(soft.share, self.layout.picture_w, self.layout.squeeze)
        n = self.focal_mm * self.magnification * off / disc_mm
        return np.where(z_b > 0, n, 0.0) / self.f_of_t

    @cached_property
    def far_blur(self) -> Floats:
        """How soft a far light is drawn wide open, as a share of the picture's width: its disc is f m / N."""
        disc_mm = self.focal_mm * self.magnification / self.widest[1]
        return depth.blur_of_width(disc_mm, self.layout.picture_w, self.layout.squeeze)

    def blur_behind(self, behind_m: float | None) -> Floats:
        """How soft a light behind the subject is drawn as the lens is set, focused on the subject: a share of the picture's width.

        Parameters
        ----------
        behind_m : from the subject; None: far away
        """
        away = 1.0 if behind_m is None else mm_from_m(behind_m) / (self.pupil_z_mm + mm_from_m(behind_m))
        disc_mm = self.focal_mm * self.magnification * away / (self.stop_t * self.f_of_t)
        return depth.blur_of_width(disc_mm, self.layout.picture_w, self.layout.squeeze)

    @cached_property
    def ei_span(self) -> tuple[Floats, Floats]:
        """Lowest and highest sensitivity that can be set and may be, shape (F,)."""
        lit = self.needs.lit
        low, high = np.array([_eis(here) for here in self.layout.places], dtype=float).reshape(-1, 2).T
        if lit is not None and lit.ei is not None and self.needs.must("light"):
            low, high = np.maximum(low, lit.ei.low), np.minimum(high, lit.ei.high)
        return low, high

    @property
    def time_s(self) -> float:
        """How long the shutter is open, at the highest rate of the shot."""
        return float(shutter_s(self.settings.shutter_deg, self.needs.fps.high))

    @cached_property
    def lit(self) -> tuple[Floats, Floats]:
        """Widest and narrowest T that the light allows: with all ND and the lowest EI, and with the highest EI."""
        lit, shape = self.needs.lit, self.layout.shape
        if lit is None or lit.lux is None:
            return np.zeros(shape), np.full(shape, np.inf)
        lost = np.nan_to_num(close_up_stops(np.nan_to_num(self.magnification, nan=1e-9), self.layout.pupil))
        low, high = self.ei_span
        possible = high >= low
        nd = np.array([max(c.stops for c in self._nds(here)) for here in self.layout.places])
        narrow = stop_for_lux(lit.lux, self.time_s, np.where(possible, high, 1.0), lost)
        wide = stop_for_lux(lit.lux, self.time_s, np.where(possible, low, 1.0), lost + nd)
        return np.where(possible, wide, np.inf), np.where(possible, narrow, 0.0)

    def _nds(self, here: FormatInPackage) -> list[NdChoice]:
        return list(nd_choices(here.body.nd_stops, self.layout.package.filters))

    @cached_property
    def no_wider(self) -> Limits:
        """What keeps the stop from being wider."""
        named = {"the lens": self.widest[0]}
        if self.needs.stops is not None and self.needs.must("stop"):
            named["the stop asked for"] = self.asked(self.needs.stops.span.low)
        if self.needs.hold is not None and self.needs.must("hold"):
            named["the depth"] = self.held[0]
        if self.needs.lit is not None and self.needs.must("light"):
            named["too much light"] = self.lit[0]
        return Limits(tuple(named), tuple(named.values()))

    @cached_property
    def no_narrower(self) -> Limits:
        """What keeps the stop from being narrower."""
        ring = NARROWEST * self.layout.magnification / np.sqrt(self.layout.transmission)
        named = {"the ring": ring}
        if self.needs.stops is not None and self.needs.must("stop"):
            named["the stop asked for"] = self.asked(self.needs.stops.span.high)
        if self.needs.soft is not None and self.needs.must("background"):
            named["the background"] = self.softest
        if self.needs.lit is not None and self.needs.must("light"):
            named["the light"] = self.lit[1]
        return Limits(tuple(named), tuple(named.values()))

    @cached_property
    def guessed(self) -> tuple[Flags, Flags]:
        """Of which formats the widest and the narrowest stop by the light rest on what nobody stated, shape (F,): sensitivities,
        and ND where neither the body nor the package has any."""
        bodies = [here.body for here in self.layout.places]
        silent = np.array([not body.states_ei for body in bodies], dtype=bool)
        bare = np.array([not body.nd_stops for body in bodies], dtype=bool) & (
            not self.layout.package.filters
        )
        return silent | bare, silent

    @cached_property
    def known_stops(self) -> tuple[Floats, Floats]:
        """As wide and as narrow as the stop may be by all that is stated, (L, F)."""
        found = []
        for limits, name, guessed, wide in (
            (self.no_wider, "too much light", self.guessed[0], True),
            (self.no_narrower, "the light", self.guessed[1], False),
        ):
            free = 0.0 if wide else np.inf
            values = tuple(
                np.where(guessed, free, value) if each == name else value
                for each, value in zip(limits.names, limits.values, strict=True)
            )
            found.append(Limits(limits.names, values).tightest(wide))
        return found[0], found[1]

    def light_provided(self, i: int, j: int, wide: Floats, narrow: Floats) -> str:
        """What would let a stop be right that the light allows by no figure that is stated."""
        body, lit = self.layout.places[j].body, self.needs.lit
        low, high = float(self.ei_span[0][j]), float(self.ei_span[1][j])
        if low > high and lit is not None and lit.ei is not None:
            return f"at EI {lit.ei.low:.0f} to {lit.ei.high:.0f}: {body.name} states none"
        short = -2 * math.log2(float(narrow[i, j]) / float(wide[i, j]))
        if self.no_wider.binding(i, j, True) == "too much light":
            nd = f"with {'more ' if body.nd_stops else ''}ND {0.3 * math.ceil(short - 1 / 12):.1f}"
            if body.states_ei:
                return f"{nd}: {body.name} states none"
            return f"{nd}, or a lower EI: {body.name} states no {'EI' if body.nd_stops else 'EI and no ND'}"
        return f"at EI {two_digits(high * 2**short, True):.0f}: {body.name} states none"

    def asked(self, mark: float) -> Floats:
        """A stop that is asked for, as T at the sensor."""
        stops = self.needs.stops
        assert stops is not None
        return np.full(self.layout.shape, mark) if stops.marks == "T" else mark / self.f_of_t

    @cached_property
    def stop_t(self) -> Floats:
        """The stop that would be set, T at the sensor: the widest that everything leaves, and in a known light as much narrower
        as the exposure needs for which no EI and no ND is there."""
        if self.needs.lit is None or self.needs.lit.lux is None:
            return self.widest_stop_t
        return self._exposed_stop()

    @cached_property
    def widest_stop_t(self) -> Floats:
        """The widest stop that everything leaves, at a mark of the ring where one is among them; T at the sensor."""
        wide, narrow = self.no_wider.tightest(True), self.no_narrower.tightest(False)
        stops = self.needs.stops
        if stops is not None and not self.needs.must("stop"):
            # One that is wished for is set as far as the musts leave it.
            wide = np.maximum(wide, np.minimum(self.asked(stops.span.low), narrow))
        ring = np.sqrt(self.layout.transmission) / self.layout.magnification
        marks = np.array([*MARKED, np.inf])
        with np.errstate(invalid="ignore"):
            on_ring = np.nan_to_num(wide * ring, nan=1.0, posinf=1e9)
            at = marks[np.minimum(np.searchsorted(marks, on_ring / AT_A_MARK), len(marks) - 1)] / ring
        # The lens's own widest stop is a mark of its ring as well.
        marked = np.where(wide <= self.widest[0] * (1 + 1e-9), self.widest[0], at)
        return np.where(marked <= narrow * AT_A_MARK, marked, wide)

    def _exposed_stop(self) -> Floats:
        """From the widest stop on narrower, until an EI with ND is right for it, as far as everything leaves it."""
        widest = self.widest_stop_t
        ring = np.sqrt(self.layout.transmission) / self.layout.magnification
        found, marks = widest.copy(), np.log2(np.array(MARKED))
        with np.errstate(divide="ignore", invalid="ignore"):
            allowed = np.log2(self._as_narrow_as(widest))
            want = np.where(np.isfinite(widest) & (widest > 0), np.log2(self.needed_ei_at(widest)), np.nan)
            for j in range(len(self.layout.places)):
                at_hand = np.array(sorted({math.log2(ei) - nd.stops for ei, nd in self.exposures(j)}))
                if not len(at_hand):
                    continue
                above = np.searchsorted(at_hand, want[:, j])
                next_up = at_hand[np.minimum(above, len(at_hand) - 1)]
                last = at_hand[np.maximum(above - 1, 0)]
                off = np.minimum(np.abs(next_up - want[:, j]), np.abs(want[:, j] - last))
                # What more light comes in than an EI takes is held back by the ring, at a mark where one is right.
                exact = np.log2(widest[:, j]) + (next_up - want[:, j]) / 2
                to_ring = np.log2(ring[:, j])
                on_ring = np.nan_to_num(exact + to_ring)
                mark = marks[np.argmin(np.abs(marks - on_ring[:, None]), axis=1)] - to_ring
                right = (2 * np.abs(mark - exact) <= RIGHT_STOPS) & (mark > np.log2(widest[:, j]))
                slack = math.log2(AT_A_MARK)
                stop = np.where(right & (mark <= allowed[:, j] + slack), mark, exact)
                nearly = 2 * (exact - allowed[:, j]) <= RIGHT_STOPS
                stop = np.where(stop <= allowed[:, j] + slack, stop, np.where(nearly, allowed[:, j], np.nan))
                moved = (off > RIGHT_STOPS) & (want[:, j] < at_hand[-1]) & np.isfinite(stop)
                found[:, j] = np.where(moved, np.exp2(stop), widest[:, j])
        return found

    def _as_narrow_as(self, stop_t: Floats) -> Floats:
        """As narrow as the musts let it go, and the wishes that a stop fulfils now."""
        needs = self.needs
        found = self.no_narrower.tightest(False)
        wished: list[Floats] = []
        if needs.stops is not None and not needs.must("stop"):
            wished.append(self.asked(needs.stops.span.high))
        if needs.soft is not None and not needs.must("background"):
            wished.append(self.softest)
        for mark in wished:
            found = np.where(mark >= stop_t, np.minimum(found, mark), found)
        return np.asarray(found)

    def exposures(self, j: int) -> list[tuple[int, NdChoice]]:
        """Every EI that may be set on a format's body, with every ND."""
        here = self.layout.places[j]
        low, high = float(self.ei_span[0][j]), float(self.ei_span[1][j])
        return [(ei, nd) for ei in listed_eis(here.body) if low <= ei <= high for nd in self._nds(here)]

    @cached_property
    def needed_ei(self) -> Floats:
        """The sensitivity that the stop and the light need without ND; NaN where the light is not known."""
        lit = self.needs.lit
        if lit is None or lit.lux is None:
            return np.full(self.layout.shape, np.nan)
        return self.needed_ei_at(self.stop_t)

    def needed_ei_at(self, stop_t: Floats) -> Floats:
        """The sensitivity that a stop needs in the light there is, without ND."""
        lit = self.needs.lit
        assert lit is not None and lit.lux is not None
        lost = np.nan_to_num(close_up_stops(np.nan_to_num(self.magnification, nan=1e-9), self.layout.pupil))
        stop = np.where(np.isfinite(stop_t) & (stop_t > 0), stop_t, 1.0)
        return np.asarray(100.0 * needed_lux(stop, self.time_s, 100.0, lost) / lit.lux)

    @cached_property
    def fits_mounts(self) -> Flags:
        """Where the lens goes on the body and draws a flat field."""
        return self.layout.mounts & self.layout.rectilinear


def listed_eis(body: Body) -> list[int]:
    """The sensitivities that a body offers, or those that stand in where it states none."""
    return sorted({*body.eis, *body.base_eis} or {*ASSUMED_EIS})


def _eis(here: FormatInPackage) -> tuple[float, float]:
    body = here.body
    known = listed_eis(body)
    return float(known[0]), float(body.highest_ei if body.highest_ei is not None else known[-1])


def hold_stop(
    focal_mm: Floats,
    pupil: Floats,
    coc_mm: Floats,
    near_mm: Floats,
    far_mm: Floats,
    close_mm: Floats | float = 0.0,
) -> tuple[Floats, Floats]:
    """Stop and focus that just hold from near to far, as `optics.hold`, for arrays.

    Parameters
    ----------
    close_mm : from the sensor plane, as near as the lens focuses: where the best focus lies nearer, it is focused there,
        and the stop has to make up for it

    Returns
    -------
    (f-number, distance of the focus from the sensor plane in mm); NaN where the lens forms no image so near.

    Notes
    -----
    From the pupil: focus at 2nr/(n+r), N = (f m/c)(r-n)/(r+n); with r infinite 2n and f m/c. The pupil moves with the
    focus, so that both are found together.
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        distance = np.maximum(near_mm, 4.0 * focal_mm)
        q = distance / focal_mm
        m = 2.0 / ((q - 2.0) + np.sqrt(np.maximum(q * (q - 4.0), 0.0)))
        z = focal_mm * (1 / m + 1 / pupil)
        for _ in range(_ROUNDS):
            origin = distance - z
            n, r = near_mm - origin, far_mm - origin
            z = np.where(np.isinf(r), 2 * n, 2 * n * r / (n + r))
            m = focal_mm / (z - focal_mm / pupil)
            before, distance = distance, focal_mm * (1 + m) ** 2 / m
            if np.nanmax(np.abs(distance / before - 1), initial=0.0) < 1e-10:
                break
        reached = np.maximum(distance, close_mm)
        q = reached / focal_mm
        held_back = reached > distance
        m = np.where(held_back, 2.0 / ((q - 2.0) + np.sqrt(np.maximum(q * (q - 4.0), 0.0))), m)
        z = np.where(held_back, focal_mm * (1 / m + 1 / pupil), z)
        distance = reached
        origin = distance - z
        n, r = near_mm - origin, far_mm - origin
        share = np.maximum(z / n - 1, 1 - np.where(np.isinf(r), 0.0, z / r))
        found = np.maximum(share, 1e-12) * focal_mm * m / coc_mm
    good = (near_mm > focal_mm) & (m > 0) & (n > focal_mm)
    return np.where(good, found, np.nan), np.where(good, distance, np.nan)
