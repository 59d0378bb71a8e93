"""Does this lens go on this body, through which adapters, and what follows from it?

Every combination is possible, possible with consequences (which are listed), or impossible (with the
reasons). One place decides it for the Bench, the finder and the whole kit.
"""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, field

from hextan.core.equipment.answers import Combination, Mounted, MountingVerdict, Way
from hextan.core.equipment.package import Body, Lens, MountAdapter, Rig
from hextan.core.optics import CLASSES, stops_of_adapter

_RANK: dict[MountingVerdict, int] = {"possible": 0, "consequences": 1, "impossible": 2}
#: The smallest class first.
_SIZE = {name: i for i, name in enumerate(reversed(CLASSES))}


@dataclass(frozen=True)
class Mounting:
    """A lens on a body through adapters, the one at the lens first."""

    adapters: tuple[MountAdapter, ...]
    reasons: tuple[str, ...] = ()
    consequences: tuple[str, ...] = field(default=())

    @property
    def verdict(self) -> MountingVerdict:
        """What all of it comes to."""
        if self.reasons:
            return "impossible"
        return "consequences" if self.consequences else "possible"

    @property
    def magnification(self) -> float:
        """Of all adapters together."""
        return math.prod(a.magnification for a in self.adapters)

    @property
    def transmission(self) -> float:
        """Of all adapters together."""
        return math.prod(a.transmission for a in self.adapters)

    @property
    def stops_lost(self) -> float:
        """Light lost by magnification and glass, in stops; negative when a reducer wins some."""
        return float(stops_of_adapter(self.magnification)) - math.log2(self.transmission)

    @property
    def name(self) -> str:
        """What stands between lens and body, in words."""
        return " + ".join(a.name for a in self.adapters) or "directly"

    @property
    def told(self) -> Mounted:
        """What all of it comes to, and why."""
        return {
            "verdict": self.verdict,
            "reasons": list(self.reasons),
            "consequences": list(self.consequences),
        }

    @property
    def key(self) -> tuple[int, ...]:
        """Ids of the adapters."""
        return tuple(a.id for a in self.adapters)


def mounting_of(rig: Rig, lens: Lens, adapters: tuple[MountAdapter, ...], body: Body) -> Mounting:
    """Judge one combination.

    Notes
    -----
    - Mounts have to meet from lens to body.
    - Without glass an adapter fills the difference of the flange distances, so the lens's must exceed
      the camera's; otherwise the lens does not reach infinity.
    - An adapter may be made for some classes of lenses only: another is refused, unless its circle
      behind the adapter covers every recording of the body.
    - Behind a reducer a lens is refused when its circle is not stated, or covers no recording at all.
    """
    magnification = math.prod(a.magnification for a in adapters)
    reasons = [*_mount_gaps(lens, adapters, body), *_flange_faults(rig, adapters)]
    covered, recordings = _covered(lens, magnification, body)
    reasons += _class_faults(lens, adapters, covered, recordings)
    if magnification < 1 and recordings and not covered:
        circle = _smallest_circle_mm(lens)
        told = (
            "its circle is not stated"
            if circle is None
            else f"its circle shrinks to {circle * magnification:.1f} mm and covers no recording of {body.name}"
        )
        reasons.append(f"behind a reducer {told}")
    if reasons:
        return Mounting(adapters, tuple(reasons))
    return Mounting(adapters, (), tuple(_consequences(rig, lens, adapters, body, covered, recordings)))


def _mount_gaps(lens: Lens, adapters: tuple[MountAdapter, ...], body: Body) -> list[str]:
    at, gaps = lens.mount, []
    for adapter in adapters:
        if adapter.lens_mount != at:
            gaps.append(f"{adapter.name} takes {adapter.lens_mount}, not {at}")
        at = adapter.body_mount
    if at != body.mount and adapters:
        gaps.append(f"{adapters[-1].name} ends in {at} and {body.name} takes {body.mount}")
    elif at != body.mount:
        gaps.append(f"the lens has the {at} mount and {body.name} takes {body.mount}: an adapter is needed")
    return gaps


def _flange_faults(rig: Rig, adapters: tuple[MountAdapter, ...]) -> list[str]:
    faults = []
    for adapter in adapters:
        lens, camera = (rig.mounts_by_name.get(m) for m in (adapter.lens_mount, adapter.body_mount))
        if adapter.glass or lens is None or camera is None:
            continue
        if lens.flange_mm is not None and camera.flange_mm is not None and lens.flange_mm <= camera.flange_mm:
            faults.append(
                f"{adapter.name} has no glass, and {lens.name} sits {lens.flange_mm:g} mm from the sensor where "
                f"{camera.name} already takes {camera.flange_mm:g} mm: infinity is out of reach"
            )
    return faults


def _smallest_circle_mm(lens: Lens) -> float | None:
    """The circle where it is smallest: what can be relied on anywhere."""
    if lens.circle_by is None:
        return lens.image_circle_mm
    return min(mm for _, mm in lens.circle_rows)


def _covered(lens: Lens, magnification: float, body: Body) -> tuple[int, int]:
    """Count the recordings that the circle covers where it is largest, and all of the body."""
    ids = [f.id for mode in body.modes for f in mode.formats]
    circle = lens.image_circle_mm if lens.circle_by is None else max(mm for _, mm in lens.circle_rows)
    if circle is None:
        return 0, len(ids)
    return sum(circle * magnification >= body.needed_circle_mm[i] for i in ids), len(ids)


def _class_faults(lens: Lens, adapters: tuple[MountAdapter, ...], covered: int, recordings: int) -> list[str]:
    if lens.designed_for is None or (recordings and covered == recordings):
        return []
    return [
        f"{a.name} is made for {_either(a.classes)} lenses, and this one was made for {lens.designed_for}"
        for a in adapters
        if a.classes and all(_SIZE[lens.designed_for] < _SIZE[c] for c in a.classes)
    ]


def _either(names: tuple[str, ...]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} or {names[-1]}"


def _consequences(
    rig: Rig,
    lens: Lens,
    adapters: tuple[MountAdapter, ...],
    body: Body,
    covered: int,
    recordings: int,
) -> list[str]:
    told = rig.notes_on(lens.name, body.name)
    together = Mounting(adapters)
    m = together.magnification
    if m != 1:
        light = together.stops_lost
        told.append(
            f"focal length, f and T × {m:.2f}, {abs(light):.2f} stop {'darker' if light > 0 else 'brighter'}, "
            f"image circle × {m:.2f}"
        )
    elif together.transmission < 1:
        told.append(f"{together.stops_lost:.2f} stop of light is lost in the adapter")
    if m < 1:
        told.append("a reducer is softest and darkest in the corners wide open")
    if lens.iris == "body" and not all(a.passes_iris for a in adapters):
        told.append("the iris cannot be set: it stays where it was when the lens was taken off")
    if lens.data_link and not all(a.passes_data for a in adapters):
        told.append("no lens data reach the camera: log the lens by hand")
    if len(adapters) > 1:
        told.append("two adapters in a row: check flange depth and support")
    told += _unknown_flanges(rig, adapters)
    circle = _smallest_circle_mm(lens)
    throat = rig.mounts_by_name[body.mount].throat_mm if body.mount in rig.mounts_by_name else None
    ids = [f.id for mode in body.modes for f in mode.formats]
    needed = max((body.needed_circle_mm[i] for i in ids), default=0.0)
    if throat is not None and throat < needed:
        told.append(
            f"the {body.mount} throat of {throat:g} mm is narrower than the largest recording's diagonal of {needed:.1f} mm"
        )
    if circle is None:
        told.append("the image circle is not stated: test coverage")
    elif covered < recordings:
        told.append(f"the circle covers {covered} of {recordings} recording formats")
    return told


def _unknown_flanges(rig: Rig, adapters: tuple[MountAdapter, ...]) -> list[str]:
    open_ones = {
        name
        for a in adapters
        if not a.glass
        for name in (a.lens_mount, a.body_mount)
        if (m := rig.mounts_by_name.get(name)) is None or m.flange_mm is None
    }
    if not open_ones:
        return []
    return [f"flange distance of {' and '.join(sorted(open_ones))} not stated: infinity is not checked"]


def ways(rig: Rig, lens: Lens, body: Body) -> list[Mounting]:
    """List all ways from a lens to a body whose mounts meet, the least trouble first.

    Returns
    -------
    Impossible ones last, with their reasons; empty when no adapters lead from mount to mount.
    """
    kept: list[Mounting] | None = rig.worked_out.get((lens.id, body.id))
    if kept is None:
        found = [mounting_of(rig, lens, chain, body) for chain in _chains(rig, lens.mount, body.mount)]
        kept = sorted(found, key=_trouble)
        rig.worked_out[lens.id, body.id] = kept
    return kept


def _trouble(way: Mounting) -> tuple[float, ...]:
    """Verdict, then magnification, then how many adapters, then light."""
    return (
        _RANK[way.verdict] == _RANK["impossible"],
        abs(math.log(way.magnification)),
        len(way.adapters),
        way.stops_lost,
    )


def _chains(rig: Rig, lens_mount: str, body_mount: str) -> list[tuple[MountAdapter, ...]]:
    chains: list[tuple[MountAdapter, ...]] = [()] if lens_mount == body_mount else []
    for first in rig.adapters:
        if first.lens_mount != lens_mount:
            continue
        if first.body_mount == body_mount:
            chains.append((first,))
        chains += [
            (first, second)
            for second in rig.adapters
            if second.lens_mount == first.body_mount and second.body_mount == body_mount
            # There and back again leads nowhere.
            and second is not first
            and not (second.body_mount == lens_mount and second.magnification == first.magnification == 1)
        ]  # fmt: skip
    return chains


def simplest(rig: Rig, lens: Lens, body: Body) -> Mounting | None:
    """Give the possible way with the least trouble, or None."""
    first = next(iter(ways(rig, lens, body)), None)
    return None if first is None or first.verdict == "impossible" else first


def why_not(rig: Rig, lens: Lens, body: Body) -> str:
    """Say why a lens cannot go on a body at all, and what would have to be had."""
    tried = ways(rig, lens, body)
    if tried:
        return "; ".join(f"{way.name}: {', '.join(way.reasons)}" for way in tried)
    told = f"no adapter of this package leads from {lens.mount} to {body.mount}"
    have, wanted = (rig.mounts_by_name.get(m) for m in (lens.mount, body.mount))
    if have and wanted and have.flange_mm is not None and wanted.flange_mm is not None:
        if have.flange_mm > wanted.flange_mm:
            return f"{told}; a plain one {have.flange_mm - wanted.flange_mm:.1f} mm long would do"
        return f"{told}; only one with glass could: {lens.mount} sits nearer to the sensor than {body.mount}"
    return told


def combinations(rig: Rig, lenses: Iterable[Lens], bodies: Iterable[Body]) -> list[Combination]:
    """Judge every lens of the production on every body of it, through every chain of adapters."""
    return [
        {
            "lens_id": lens.id,
            "body_id": body.id,
            "ways": [_told(way) for way in ways(rig, lens, body)],
            "verdict": "impossible" if (best := simplest(rig, lens, body)) is None else best.verdict,
            "why_not": why_not(rig, lens, body) if best is None else None,
        }
        for lens in lenses
        for body in bodies
    ]


def _told(way: Mounting) -> Way:
    return {
        "adapter_ids": list(way.key),
        "name": way.name,
        **way.told,
        "magnification": way.magnification,
        "stops_lost": way.stops_lost,
    }
