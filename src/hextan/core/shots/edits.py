"""Changes of a shot, or of what is carried for it: each is a fact that anybody can apply, and costs a stated trouble."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from hextan.core.base import Unit, distance_words, m_from_mm, mm_from_m
from hextan.core.equipment import Package, Pin
from hextan.core.light import NdFilter
from hextan.core.shots.answers import ChangeKind, ShotEdit
from hextan.core.shots.document import Shot

_FOOT_M = 0.3048


@dataclass(frozen=True)
class Edit:
    """One change. `after` is the new text of the shot's cell, what is added, the figure of a body, or a pin as JSON."""

    kind: ChangeKind
    after: str
    #: In words, as a person would ask for it.
    words: str
    field: str = ""
    before: str = ""
    body: str = ""
    lens: str = ""
    lens_set: str = ""

    @property
    def told(self) -> ShotEdit:
        """As it is answered."""
        return ShotEdit({"kind": self.kind, "field": self.field, "from": self.before, "to": self.after,
                         "body": self.body, "lens": self.lens, "lens_set": self.lens_set})  # fmt: skip


def cell(kind: ChangeKind, shot: Shot, after: str, words: str, field: str = "") -> Edit:
    """Another text in a cell of the shot."""
    name = field or kind
    return Edit(kind, after, words, name, getattr(shot, name))


def applied(
    package: Package, shot: Shot, edits: Sequence[ShotEdit], catalogue: Package | None = None
) -> tuple[Package, Shot]:
    """Apply changes, as they are told, to a shot and to what is carried for it.

    Parameters
    ----------
    catalogue : where lenses and bodies are that have to be rented
    """
    for edit in edits:
        package, shot = _KINDS.get(edit["kind"], _cell)(package, shot, edit, catalogue)
    return package, shot


_Applied = tuple[Package, Shot]


def _cell(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    return package, shot.model_copy(update={edit["field"]: edit["to"]})


def _wish(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    return package, shot.model_copy(update={"wishes": {**shot.wishes, edit["field"]: 1.0}})


def _unpinned(package: Package, shot: Shot, _: ShotEdit, __: Package | None) -> _Applied:
    return package, shot.model_copy(update={"pin": None})


def _brought(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    return package, shot.model_copy(update={"pin": Pin.model_validate_json(edit["to"])})


def _filter(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    stops = round(float(edit["to"].removeprefix("ND ")) / 0.3 * 3) / 3
    return replace(package, filters=(*package.filters, NdFilter(edit["to"], stops))), shot


def _ei(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    bodies = tuple(
        replace(b, highest_ei=int(edit["to"])) if b.name == edit["body"] else b for b in package.bodies
    )
    return replace(package, bodies=bodies), shot


def _carried(package: Package, shot: Shot, edit: ShotEdit, _: Package | None) -> _Applied:
    return replace(package, carried=package.carried | {edit["to"]}), shot


def _rented_lens(package: Package, shot: Shot, edit: ShotEdit, catalogue: Package | None) -> _Applied:
    sets = () if catalogue is None else catalogue.lens_sets
    found = [
        replace(s, lenses=tuple(lens for lens in s.lenses if lens.name == edit["lens"]))
        for s in sets
        if s.name == edit["lens_set"]
    ]
    return replace(package, lens_sets=(*package.lens_sets, *found)), shot


def _rented_body(package: Package, shot: Shot, edit: ShotEdit, catalogue: Package | None) -> _Applied:
    bodies = () if catalogue is None else catalogue.bodies
    return replace(package, bodies=(*package.bodies, *(b for b in bodies if b.name == edit["body"]))), shot


#: How a kind is applied; all others are a cell of the shot.
_KINDS: dict[str, Callable[[Package, Shot, ShotEdit, Package | None], _Applied]] = {
    "wish": _wish,
    "unpin": _unpinned,
    "bring": _brought,
    "filter": _filter,
    "usable_ei": _ei,
    "carry": _carried,
    "lens": _rented_lens,
    "body": _rented_body,
}

#: The trouble of a change: what any of its kind costs, and what each stop or octave of it adds. The least is told first.
#: (Common practice, no source: what is in the bag before what is asked of others, a wish given up before a need.)
TROUBLE: dict[ChangeKind, tuple[float, float]] = {
    "unpin": (0.5, 0.0),
    "bring": (0.5, 1.0),
    "filter": (1.0, 0.1),
    "carry": (1.0, 0.0),
    "outside": (1.0, 0.0),
    "distance": (1.0, 4.0),
    "crop": (1.5, 4.0),
    "usable_ei": (1.5, 0.5),
    "ei": (1.5, 0.5),
    "stop": (2.0, 1.0),
    "light": (2.0, 1.0),
    "framing": (2.0, 6.0),
    "hold": (2.5, 1.0),
    "background": (2.5, 1.0),
    "speed": (3.0, 2.0),
    "nearest": (3.0, 4.0),
    "rig": (3.0, 2.0),
    "room": (4.0, 4.0),
    "picture": (4.0, 0.0),
    "deliveries": (5.0, 0.0),
    "lens": (5.0, 0.0),
    "wish": (6.0, 0.0),
    "body": (8.0, 0.0),
}


def trouble(kind: ChangeKind, amount: float = 0.0) -> float:
    """What a change costs; the amount in stops or octaves."""
    base, each = TROUBLE[kind]
    return base + each * abs(amount)


def distance_text(metres: float, unit: Unit, up: bool) -> str:
    """Write a distance as a cell holds it, rounded up or down to what is read again: centimetres, or half inches."""
    if unit == "m":
        grain = 0.01 if metres >= 0.2 else 0.001
        steps = metres / grain
        whole = math.ceil(steps - 1e-9) if up else math.floor(steps + 1e-9)
        return f"{whole * grain:.2f} m" if grain == 0.01 else f"{m_from_mm(mm_from_m(whole * grain)):.3f} m"
    halves = metres / (_FOOT_M / 24)
    whole = math.ceil(halves - 1e-9) if up else math.floor(halves + 1e-9)
    return distance_words(whole * _FOOT_M / 24, "ft")
