"""A whole production judged from its file alone, without a server: its package, and what every shot can be made with."""

from __future__ import annotations

from typing import NotRequired

from typing_extensions import TypedDict

from hextan.core.base import Fault, InvalidInputError
from hextan.core.bench import BenchState, mended
from hextan.core.documents import (
    adapter_of,
    body_of,
    filter_of,
    lens_set_of,
    mount_of,
    pair_notes_of,
)
from hextan.core.equipment import Package, ThingName, f_of_t, house_facts
from hextan.core.packing import KitAnswer, KitPlan, SideBySide, Watch, packed, side_by_side
from hextan.core.production.document import ProductionDocument
from hextan.core.production.numbers import counted
from hextan.core.sheets import Material
from hextan.core.shots import ShotsView, shots_view


class Plan(TypedDict):
    """What is planned of a production."""

    production: str
    shots: ShotsView
    #: Where one is asked for: a kit with its proof, reasons and days.
    kit: NotRequired[KitAnswer]
    #: Where two are asked for: both for the same shots.
    packages: NotRequired[SideBySide]


def package_of(document: ProductionDocument) -> Package:
    """The package of a document; rows have the numbers that they have in the file. What was taken out stays out."""
    order = counted(
        (b.document for b in document.bodies), (s.document for s in document.lens_sets), document.rig
    )
    numbers: dict[tuple[str, int, str], int] = {
        (kind, place, key): number
        for kind, places in order.items()
        for number, (place, key) in enumerate(places, 1)
    }

    def of(place: int, *kinds: str) -> dict[str, int]:
        return {key: number for (kind, at, key), number in numbers.items() if kind in kinds and at == place}

    settings = document.settings
    bodies = tuple(
        body_of(item.document, of(place, "modes", "formats", "crops"), place + 1)
        for place, item in enumerate(document.bodies)
        if not item.removed
    )
    return Package(
        bodies=bodies,
        lens_sets=tuple(
            lens_set_of(item.document, of(place, "lenses"), place + 1, f_of_t(settings))
            for place, item in enumerate(document.lens_sets)
            if not item.removed
        ),
        mounts=tuple(mount_of(mount) for mount in document.rig.mounts),
        adapters=tuple(adapter_of(adapter, i) for i, adapter in enumerate(document.rig.adapters, 1)),
        filters=tuple(filter_of(each) for each in document.rig.filters),
        pair_notes=pair_notes_of(document.rig),
        **house_facts(settings, bodies),
        plan=document.plan if document.plan.stands else None,
    )


def material_of(document: ProductionDocument) -> Material:
    """What the sheets of a production are made from, out of its file alone."""
    package = package_of(document)
    bench = None
    if package.formats and package.lenses:
        here, (_, lens) = next(iter(package.formats)), next(iter(package.lenses.values()))
        state = document.bench.state if document.bench else BenchState(format_id=here, lens_id=lens.id)
        bench = mended(state, package)[0]
    return Material(
        name=document.name,
        package=package,
        settings=document.settings,
        bench=bench,
        shots=document.shots,
        packing=document.packing,
        log=document.log,
        comparisons=tuple(item.document for item in document.comparisons if not item.removed),
        bodies={item.document.name: item.document for item in document.bodies if not item.removed},
    )


def plan(document: ProductionDocument) -> Plan:
    """Judge the shots of a production."""
    return {
        "production": document.name,
        "shots": shots_view(package_of(document), document.settings, document.shots),
    }


def plan_kit(document: ProductionDocument, name: str, watch: Watch) -> Plan:
    """The same, and the smallest kit, or the production's kit of a name.

    Raises
    ------
    InvalidInputError
        No kit has this name.
    """
    kit = KitPlan(name="Smallest kit") if not name else _kit(document, name, "--kit")
    package = package_of(document)
    answer = packed(package, document.settings, document.shots, document.packing, kit, watch).answer
    return {**plan(document), "kit": answer}


def plan_packages(document: ProductionDocument, names: str, watch: Watch) -> Plan:
    """The same, and two packages for the same shots, by names with a comma between them.

    A package is a kit of the production by its name, or bodies, lens sets and lenses joined by ``+``.

    Raises
    ------
    InvalidInputError
        Not two of them, or a name that nothing has.
    """
    asked = [part.strip() for part in names.split(",")]
    if len(asked) != 2 or not all(asked):
        raise InvalidInputError.of(Fault("--packages", names, "needs two names with a comma between them"))
    package = package_of(document)
    first, second = (
        packed(
            package,
            document.settings,
            document.shots,
            document.packing,
            _package(document, each),
            watch,
            around=False,
        )
        for each in asked
    )
    return {**plan(document), "packages": side_by_side(first, second)}


def _kit(document: ProductionDocument, name: str, where: str) -> KitPlan:
    found = next((kit for kit in document.packing.kits if kit.name == name), None)
    if found is None:
        names = ", ".join(kit.name for kit in document.packing.kits) or "it has none"
        raise InvalidInputError.of(Fault(where, name, f"is no kit of this production: {names}"))
    return found


def _package(document: ProductionDocument, name: str) -> KitPlan:
    """A kit by its name, or one out of what is joined by plus signs; all adapters go with it."""
    if any(kit.name == name for kit in document.packing.kits):
        return _kit(document, name, "--packages")
    bodies = {item.document.name for item in document.bodies if not item.removed}
    sets = {item.document.name: item.document for item in document.lens_sets if not item.removed}
    lenses = {lens.name for each in sets.values() for lens in each.lenses}
    only = [ThingName(kind="adapter", name=adapter.name) for adapter in document.rig.adapters]
    for part in (part.strip() for part in name.split("+")):
        if part in bodies:
            only.append(ThingName(kind="body", name=part))
        elif part in sets:
            only.append(ThingName(kind="lens", of=part))
        elif part in lenses:
            only.append(ThingName(kind="lens", name=part))
        else:
            known = ", ".join([*(kit.name for kit in document.packing.kits), *sorted(bodies), *sorted(sets)])
            rule = f"is no kit, body, lens set or lens of this production: {known}"
            raise InvalidInputError.of(Fault("--packages", part, rule))
    return KitPlan(name=name[:80], only=only)
