"""A whole production judged from its file alone, without a server: its package, and what every shot can be made with."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.documents import (
    adapter_of,
    body_of,
    filter_of,
    lens_set_of,
    mount_of,
    pair_notes_of,
)
from hextan.core.equipment import Package
from hextan.core.production.document import ProductionDocument
from hextan.core.production.numbers import counted
from hextan.core.shots import ShotsView, shots_view


class Plan(TypedDict):
    """What is planned of a production."""

    production: str
    shots: ShotsView


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
    return Package(
        bodies=tuple(
            body_of(item.document, of(place, "modes", "formats", "crops"), place + 1)
            for place, item in enumerate(document.bodies)
            if not item.removed
        ),
        lens_sets=tuple(
            lens_set_of(item.document, of(place, "lenses"), place + 1)
            for place, item in enumerate(document.lens_sets)
            if not item.removed
        ),
        mounts=tuple(mount_of(mount) for mount in document.rig.mounts),
        adapters=tuple(adapter_of(adapter, i) for i, adapter in enumerate(document.rig.adapters, 1)),
        filters=tuple(filter_of(each) for each in document.rig.filters),
        pair_notes=pair_notes_of(document.rig),
        carried=frozenset(settings.carried),
        coc=settings.coc,
        references=tuple(settings.references),
        deliveries=tuple(settings.deliveries),
    )


def plan(document: ProductionDocument) -> Plan:
    """Judge the shots of a production."""
    return {
        "production": document.name,
        "shots": shots_view(package_of(document), document.settings, document.shots),
    }
