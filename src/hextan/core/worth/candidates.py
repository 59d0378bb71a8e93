"""The choices for a shot: each lens on each body through each chain, on its best format, with what it gives, weighs and costs."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import TypeAlias

from hextan.core.base import Floats, mm_from_m
from hextan.core.equipment import ThePlan
from hextan.core.packing import Thing, Things, buying_pays_after
from hextan.core.shots import Judged, ShotVerdict
from hextan.core.worth.answers import Having, WorthThing
from hextan.core.worth.ask import RANKED_BY, RankedBy, WorthAsk

#: Best to worst, as a row is called by the worst of its things.
HAVINGS: tuple[Having, ...] = ("own", "planned", "hire", "buy", "unknown")
#: Verdicts with which a shot can be made, the surest first.
_CAN = {"does": 0, "depends": 1, "nearly": 2}
_DIGITS = 9
#: Blurs that differ by less are one.
_NOISE = 1e-9
#: Nearer to one another, two choices are alike: blurs as a share, fields in per cent of what is wanted.
ALIKE_BLUR = 0.02
ALIKE_PERCENT = 0.5
#: Less is not worth another adapter: a blur as a share, a field that is nearer in per cent (common practice, no source).
_DETOUR_BLUR = 0.1
_DETOUR_PERCENT = 3.0


@dataclass(frozen=True)
class Priced:
    """A thing with what has to be paid for it."""

    thing: Thing
    have: Having
    cost: float | None

    @property
    def told(self) -> WorthThing:
        """As it is answered."""
        thing = self.thing
        pays = buying_pays_after(thing.stock) if self.have == "hire" else None
        return {"kind": thing.kind, "name": thing.name, "of": thing.of, "weight_kg": thing.weight_kg, "have": self.have,
                "cost": self.cost, "pays_after": pays}  # fmt: skip


def priced(things: Things, t: int, ask: WorthAsk, plan: ThePlan | None) -> Priced:
    """Say what has to be paid for a thing: nothing, hire for the days of the production, or its price."""
    thing = things.every[t]
    stock = thing.stock
    if stock.owned:
        return Priced(thing, "own", 0.0)
    if ask.planned and plan is not None and plan.has(thing.kind, thing.name, thing.of):
        return Priced(thing, "planned", 0.0)
    if ask.pay == "buy":
        return Priced(thing, "unknown" if stock.to_buy is None else "buy", stock.to_buy)
    cost = things.cost(t)
    if cost is None:
        return Priced(thing, "unknown", None)
    for_hire = stock.per_day is not None or stock.per_week is not None
    return Priced(thing, "hire" if for_hire else "buy", cost)


@dataclass(frozen=True)
class Candidate:
    """A choice: a cell of a judgement, and the things that it takes."""

    judged: Judged
    cell: int
    #: Its body, its lens, and its adapters.
    parts: tuple[Priced, ...]
    #: Share of the picture's width that the light is drawn at.
    blur: float

    @property
    def key(self) -> str:
        """By the numbers of its things."""
        return "-".join(f"{part.thing.kind[0]}{part.thing.id}" for part in self.parts)

    @property
    def name(self) -> str:
        """In a few words."""
        i, j = self.judged.at(self.cell)
        layout = self.judged.cells.layout
        row = layout.rows[i]
        told = layout.package.lens_words(row.lens.name, row.lens_set.name)
        if row.lens.is_zoom:
            told += f" at {self.judged.set_mm(self.cell):.0f}"
        through = [part.thing.name for part in self.parts if part.thing.kind == "adapter"]
        return f"{told} on {layout.places[j].body.name}" + (f" ({', '.join(through)})" if through else "")

    @property
    def verdict(self) -> ShotVerdict:
        """Whether it does the shot."""
        return self.judged.verdict(self.cell)

    @property
    def squeeze(self) -> float:
        """Of the lens."""
        return self.judged.cells.layout.rows[self.judged.at(self.cell)[0]].lens.squeeze

    @property
    def have(self) -> Having:
        """The worst of its things."""
        return max((part.have for part in self.parts), key=HAVINGS.index)

    @property
    def cost(self) -> float | None:
        """Of all things; None where one has no price."""
        costs = [part.cost for part in self.parts if part.cost is not None]
        return sum(costs) if len(costs) == len(self.parts) else None

    @property
    def weight_kg(self) -> float | None:
        """Of all things; None where one states none."""
        weights = [part.thing.weight_kg for part in self.parts]
        known = [kg for kg in weights if kg is not None]
        return sum(known) if len(known) == len(weights) else None

    @property
    def percent(self) -> float:
        """How much wider (positive) the field is than wanted."""
        return 100 * (self._cell(self.judged.cells.wider) - 1)

    @property
    def off_percent(self) -> float:
        """How far the field is off what is wanted, per cent, whichever way."""
        return abs(self.percent)

    @property
    def focal_mm(self) -> float:
        """With its adapters."""
        return self._cell(self.judged.cells.focal_mm)

    @property
    def f_number(self) -> float:
        """At the sensor, as it is set."""
        return self._cell(self.judged.cells.stop_t * self.judged.cells.f_of_t)

    @property
    def field_mm(self) -> float:
        """Width of the field at the subject."""
        cells = self.judged.cells
        return self._cell(cells.layout.picture_w * cells.layout.squeeze / cells.magnification)

    def away(self, ask: WorthAsk) -> float:
        """How far behind the subject the light is, of its way to the pupil: 1 far away."""
        if ask.behind_m is None:
            return 1.0
        behind, z = mm_from_m(ask.behind_m), self._cell(self.judged.cells.pupil_z_mm)
        return behind / (z + behind)

    @property
    def distance_m(self) -> float:
        """From the sensor plane to the subject."""
        return self._cell(self.judged.cells.distance_m)

    @cached_property
    def figures(self) -> dict[RankedBy, float]:
        """What it is ranked by; the less, the better, for a soft look. Infinite where it is not known."""
        weight, cost = self.weight_kg, self.cost
        return {
            "blur": -self.blur,
            "field": self.off_percent,
            "weight": math.inf if weight is None else weight,
            "price": math.inf if cost is None else cost,
        }

    def figure(self, by: RankedBy, ask: WorthAsk) -> float:
        """One of its figures; the less, the better."""
        return self.blur if by == "blur" and ask.look == "deep" else self.figures[by]

    def place(self, ask: WorthAsk) -> tuple[float, ...]:
        """Where it stands in the ranking: by what is asked for, and then by the look and the price."""
        figures = {by: self.figure(by, ask) for by in RANKED_BY}
        figures["field"] = round(figures["field"], 1)
        # Blurs that differ in their last digits are one.
        figures["blur"] = float(f"{figures['blur']:.3e}")
        return figures[ask.ranked_by], figures["blur"], figures["price"]

    def _cell(self, values: Floats) -> float:
        return float(values[self.judged.at(self.cell)])


#: What a cell is a choice of, by numbers: a lens and a body, and the adapters between them.
_Of: TypeAlias = tuple[int, ...]


def candidates(judged: Judged, things: Things, ask: WorthAsk, plan: ThePlan | None) -> list[Candidate]:
    """List the choices that do a shot, or would, or nearly do.

    Of the formats on which one lens does as well, meets as much of what is wished and records as many pixels as are delivered,
    the one with the best look is taken.
    """
    cells, layout = judged.cells, judged.cells.layout
    blur = cells.blur_behind(ask.behind_m)
    worse = blur if ask.look == "deep" else -blur
    best: dict[_Of, int] = {}
    for k in judged.order:
        if judged.verdict(k) not in _CAN:
            # They stand behind all that can.
            break
        i, j = judged.at(k)
        of = (layout.rows[i].lens.id, layout.places[j].body.id, *layout.way(i, j).key)
        first = best.setdefault(of, k)
        mine, other = _rank(judged, k), _rank(judged, first)
        if mine < other or (mine == other and worse.flat[k] < worse.flat[first] - _NOISE):
            best[of] = k
    index = things.index
    found = []
    for (lens, body, *adapters), k in best.items():
        names = [("body", body), ("lens", lens), *(("adapter", a) for a in adapters)]
        parts = tuple(priced(things, index[name], ask, plan) for name in names)  # type: ignore[index]
        found.append(Candidate(judged, k, parts, float(blur.flat[k])))
    return _without_detours(found, ask)


def _without_detours(found: list[Candidate], ask: WorthAsk) -> list[Candidate]:
    """Leave out what puts a lens on a body with more trouble, or for more money, and nothing gained by it."""
    kept: list[Candidate] = []
    simplest: dict[_Of, Candidate] = {}
    for each in sorted(found, key=lambda each: (len(each.parts), each.figures["price"])):
        body, lens, *_ = each.parts
        plain = simplest.setdefault((body.thing.id, lens.thing.id), each)
        softer = each.figure("blur", ask) - plain.figure("blur", ask) < -_DETOUR_BLUR * plain.blur
        if plain is each or softer or each.off_percent < plain.off_percent - _DETOUR_PERCENT:
            kept.append(each)
    # In the order of the judgement again.
    return [each for each in found if each in kept]


def _rank(judged: Judged, k: int) -> tuple[float, ...]:
    """What counts before the look; less is better."""
    few = float(not judged.enough.flat[k])
    return _CAN[judged.verdict(k)], -round(float(judged.score.flat[k]), _DIGITS), few
