"""Which lens on which format does a shot? One judgement, its rules stated here and in docs/shots.md.

1. A cell does the shot where every must is met; it nearly does where only the framing is off, by `NEARLY_PERCENT` at most;
   it depends where all that is missed is missed by figures that nobody stated and that stand in.
2. Of those that do, the first by score: the sum of weight x share over all wishes, over the sum of the weights.
3. Equal scores are settled by `TIE_BREAKS`, one after the other.
4. Where nothing does, the nearest: fewest musts missed, then the most of them reached, then as above.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from hextan.core.base import Flags, Floats
from hextan.core.equipment import Package, PackageSettings
from hextan.core.optics import oversampled, upscaled
from hextan.core.shots.answers import ShotVerdict
from hextan.core.shots.cells import Cells
from hextan.core.shots.checks import NEARLY_PERCENT, SAME_PERCENT, Check, checks_of_shot, head_of
from hextan.core.shots.layout import Layout, layout_of
from hextan.core.shots.needs import Needs

#: What settles equal scores, in this order; each says what the better one has.
TIE_BREAKS = (
    "no squeeze where none is asked for",
    "a normal to wide view, where nothing says how far away it is",
    "the framing nearer to what is wanted",
    "a pixel for every one that is delivered",
    "the place nearer to the middle of where the camera may stand",
    "fewer adapters",
    "the sharper read",
    "the larger picture on the sensor",
    "the wider stop in hand",
    "more bits",
    "less data",
)
#: Places that differ by less than this, in octaves, are alike.
ALIKE_PLACES = 0.25
#: What is missed only by figures that nobody stated stands behind what does the shot, and before what nearly does.
DEPENDS = 0.25
_DIGITS = 9


@dataclass(frozen=True)
class Judged:
    """A shot judged over all cells."""

    cells: Cells
    checks: list[Check]

    @cached_property
    def missed(self) -> Floats:
        """How many musts each cell misses."""
        musts = [~check.met for check in self.checks if check.must]
        return np.asarray(np.sum(musts, axis=0, dtype=float))

    @cached_property
    def unsure(self) -> Floats:
        """How many of the missed musts are missed by figures that nobody stated."""
        guessed = [
            check.unsure & ~check.met for check in self.checks if check.must and check.unsure is not None
        ]
        return (
            np.asarray(np.sum(guessed, axis=0, dtype=float)) if guessed else np.zeros(self.cells.layout.shape)
        )

    @cached_property
    def depends(self) -> Flags:
        """Where nothing is missed but by figures that nobody stated."""
        return np.asarray((self.missed > 0) & (self.missed == self.unsure))

    def provided(self, k: int) -> list[str]:
        """What has to be so in a cell that nobody stated."""
        i, j = self.at(k)
        told = (check.provided(i, j) for check in self.checks if check.must)
        return [each for each in told if each]

    @cached_property
    def nearly(self) -> Flags:
        """Where only the framing is off, and by little."""
        framing = next((c for c in self.checks if c.name == "framing" and c.must), None)
        if framing is None:
            return np.zeros(self.cells.layout.shape, dtype=bool)
        off = np.abs(np.nan_to_num(self.cells.wider, nan=np.inf) - 1) <= NEARLY_PERCENT / 100 + 1e-9
        return np.asarray((self.missed - self.unsure == 1) & ~framing.met & off)

    @cached_property
    def score(self) -> Floats:
        """Of the wishes; 1 where nothing is wished."""
        wishes = [check for check in self.checks if not check.must]
        if not wishes:
            return np.ones(self.cells.layout.shape)
        total = sum(check.weight for check in wishes)
        return np.asarray(np.sum([check.weight * check.share for check in wishes], axis=0) / total)

    @cached_property
    def enough(self) -> Flags:
        """Where as many pixels are recorded as are delivered; everywhere, where nothing says how many that are."""
        cells = self.cells
        if not cells.needs.deliveries or not cells.needs.deliveries[0].long_edge_px:
            return np.ones(cells.layout.shape, dtype=bool)
        return np.asarray(head_of(cells, 0) >= 1 - 1e-3)

    @cached_property
    def ties(self) -> list[Floats]:
        """The columns of `TIE_BREAKS`: more is better."""
        cells, layout = self.cells, self.cells.layout
        off = 100 * np.abs(np.nan_to_num(cells.wider, nan=1e6) - 1)
        # All that frames as wanted is alike.
        off = np.where(off <= SAME_PERCENT, 0.0, np.ceil(off))
        columns = layout.columns
        over = np.minimum(
            columns.samples_across * columns.recorded_w / columns.read_w / columns.given.raster_w,
            columns.samples_down * columns.recorded_h / columns.read_h / columns.given.raster_h,
        )
        sharp = np.where(
            (columns.given.method > 0) | upscaled(over), 0.0, np.where(oversampled(over), 2.0, 1.0)
        )
        with np.errstate(divide="ignore", invalid="ignore"):
            hand = np.round(-2 * np.log2(cells.widest[0]), 1)
        data = [here.recording.bytes_per_second(cells.needs.fps.high) for here in layout.places]
        light = np.array([-np.inf if rate is None else -rate for rate in data])
        bits = np.array([float(here.recording.bits or 0) for here in layout.places])
        plain = np.ones((1, 1)) if cells.needs.squeeze is not None else layout.squeeze == 1
        with np.errstate(divide="ignore", invalid="ignore"):
            away = np.abs(np.log2(cells.distance_m / cells.usual_m))
        return [
            np.broadcast_to(plain, layout.shape).astype(float),
            -np.ceil(np.round(cells.unnatural / ALIKE_PLACES, _DIGITS)),
            -off,
            self.enough.astype(float),
            -np.floor(np.nan_to_num(away, nan=99.0, posinf=99.0) / ALIKE_PLACES),
            -np.nan_to_num(layout.adapters, nan=9.0),
            np.broadcast_to(sharp, layout.shape),
            np.round(layout.picture_w * layout.squeeze * layout.picture_h, 2),
            np.nan_to_num(hand, nan=-99.0),
            np.broadcast_to(bits, layout.shape),
            np.broadcast_to(np.maximum(light, -1e300), layout.shape),
        ]  # fmt: skip

    @cached_property
    def order_inside(self) -> list[int]:
        """The cells of `order` that the plan has everything for; all of them where it has nothing for any."""
        flat = self.cells.layout.inside.ravel()
        return [k for k in self.order if flat[k]] or self.order

    @cached_property
    def order(self) -> list[int]:
        """All cells by their flat number, the best first."""
        reached = np.sum([check.share for check in self.checks if check.must], axis=0)
        known = np.where(self.nearly, 0.5, self.missed - self.unsure)
        missed = np.where(
            self.missed == 0, 0.0, np.where(self.depends, DEPENDS, known + DEPENDS * (self.unsure > 0))
        )
        keys = [missed, np.where(missed >= 1, -np.round(reached, _DIGITS), 0.0), -np.round(self.score, _DIGITS),
                *(-tie for tie in self.ties)]  # fmt: skip
        mounted = np.flatnonzero(self.cells.layout.mounts)
        flat = [np.asarray(key).ravel()[mounted] for key in keys]
        # What nothing settles stays in the order of the package: the sort is stable.
        kept: list[int] = mounted[np.lexsort(flat[::-1])].tolist()
        return kept

    def at(self, k: int) -> tuple[int, int]:
        """Lens and format of a cell by its flat number."""
        return divmod(k, self.cells.layout.shape[1])

    def set_mm(self, k: int) -> float:
        """Focal length of a cell as it is set on the lens, before its adapters."""
        i, j = self.at(k)
        return float(self.cells.focal_mm[i, j] / self.cells.layout.magnification[i, j])

    def verdict(self, k: int) -> ShotVerdict:
        """What a cell comes to."""
        i, j = self.at(k)
        if self.missed[i, j] == 0:
            return "does"
        if self.depends[i, j]:
            return "depends"
        return "nearly" if self.nearly[i, j] else "cannot"

    def settled_by(self, first: int, second: int) -> str:
        """What puts the second of two cells behind the first."""
        (a, b), (c, d) = self.at(first), self.at(second)
        missing = [check for check in self.checks if check.must and not check.met[c, d] and check.met[a, b]]
        if missing:
            return "; ".join(f"{check.label}: {check.has(c, d)}" for check in missing)
        off = next((ch for ch in self.checks if ch.must and not ch.met[c, d]), None)
        if off is not None and self.missed[c, d] > 0:
            return f"{off.label}: {off.has(c, d)}"
        if round(float(self.score[a, b] - self.score[c, d]), _DIGITS) > 0:
            behind = max(
                (ch for ch in self.checks if not ch.must),
                key=lambda ch: ch.weight * float(ch.share[a, b] - ch.share[c, d]),
            )
            return f"{behind.label}: {behind.has(c, d)}"
        tie = next(
            (told for told, col in zip(TIE_BREAKS, self.ties, strict=True) if col[a, b] != col[c, d]), None
        )
        return "the order of the package alone" if tie is None else f"{tie} is with the first"


def judge(package: Package, settings: PackageSettings, needs: Needs) -> Judged | None:
    """Judge a shot over all lenses and formats of a package; None where there is no lens or no format."""
    layout = layout_of(package, needs.delivery, needs.picture)
    return judge_on(layout, settings, needs) if layout.rows and layout.places else None


def judge_on(layout: Layout, settings: PackageSettings, needs: Needs) -> Judged:
    """Judge a shot over all cells of a layout."""
    cells = Cells(layout, needs, settings)
    return Judged(cells, checks_of_shot(cells))
