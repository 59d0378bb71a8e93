"""The endpoints that add understood equipment to a production: all of it at once, and undo that in one step."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from hextan.api.plumbing import Db, Id, ProductionId
from hextan.api.route import Route
from hextan.api.shape import Shape, Version
from hextan.core.base import Fault, InvalidInputError
from hextan.core.documents import (
    AdapterDocument,
    BodyDocument,
    FilterDocument,
    LensSetDocument,
    RigDocument,
    check_body,
    check_lens_set,
    check_rig,
    with_rigs,
)
from hextan.core.entry import mounts_of
from hextan.store.keeper import find_production
from hextan.store.kinds import BODIES, LENS_SETS, RIG

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/equipment", tags=["Entry"])


class EquipmentNew(Shape):
    """Equipment that is added in one step; mounts that it names become the production's."""

    bodies: Annotated[list[BodyDocument], Field(max_length=50)] = []
    lens_sets: Annotated[list[LensSetDocument], Field(max_length=50)] = []
    adapters: Annotated[list[AdapterDocument], Field(max_length=100)] = []
    filters: Annotated[list[FilterDocument], Field(max_length=100)] = []


class EquipmentOne(Shape):
    """A body or a lens set that was added: its number and its version."""

    id: Id
    version: Version
    name: str


class EquipmentAdded(Shape):
    """What was added, as it is wanted to undo that."""

    bodies: list[EquipmentOne]
    lens_sets: list[EquipmentOne]
    #: Names of mounts that were added: nobody has said their flange distance.
    mounts: list[str]
    #: Mounts, adapters and filters as they were before, and the version that they have now; none where they stayed.
    rig_before: RigDocument | None
    rig_version: Version | None


class EquipmentUndone(Shape):
    """What was undone."""

    removed: int


@router.post("", name="equipment_add", status_code=201)
def add_equipment(production_id: ProductionId, asked: EquipmentNew, db: Db) -> EquipmentAdded:
    """Add bodies, lens sets, adapters, filters and the mounts that they name, all of them or none."""
    find_production(db, production_id)
    if not (asked.bodies or asked.lens_sets or asked.adapters or asked.filters):
        raise InvalidInputError.of(
            Fault("bodies", None, "is empty, and so is all else: there is nothing to add")
        )
    for i, body in enumerate(asked.bodies):
        check_body(body, f"bodies[{i}]")
    for i, kit in enumerate(asked.lens_sets):
        check_lens_set(kit, f"lens_sets[{i}]")
    version, rig = RIG.versioned(db, production_id)
    named = [body.mount for body in asked.bodies]
    named += [lens.mount for kit in asked.lens_sets for lens in kit.lenses]
    named += [mount for adapter in asked.adapters for mount in (adapter.lens_mount, adapter.body_mount)]
    mounts = mounts_of(named, [mount.name for mount in rig.mounts])
    more = RigDocument(schema_name="hextan.rig", adapters=asked.adapters, filters=asked.filters)
    whole = with_rigs(rig, [more])
    whole = whole.model_copy(update={"mounts": [*whole.mounts, *mounts]})
    check_rig(whole, "rig")
    bodies = [BODIES.add(db, production_id, body) for body in asked.bodies]
    sets = [LENS_SETS.add(db, production_id, kit) for kit in asked.lens_sets]
    changed = whole != rig
    # Keeping mounts and adapters commits all of it at once.
    now = RIG.save(db, production_id, version, whole) if changed else None
    if not changed:
        db.commit()
    return EquipmentAdded(
        bodies=[EquipmentOne(id=k.id, version=k.version, name=k.document.name) for k in bodies],
        lens_sets=[EquipmentOne(id=k.id, version=k.version, name=k.document.name) for k in sets],
        mounts=[mount.name for mount in mounts],
        rig_before=rig if changed else None,
        rig_version=now,
    )


@router.post("/undo", name="equipment_undo")
def undo_equipment(production_id: ProductionId, asked: EquipmentAdded, db: Db) -> EquipmentUndone:
    """Undo what was added: bodies and lens sets are removed and can be brought back, mounts and adapters are as before.

    409 where somebody changed one of them since.
    """
    find_production(db, production_id)
    steps: list[tuple[bool, Callable[[], object]]] = [
        (BODIES.find(db, production_id, one.id).version == one.version,
         partial(BODIES.set_removed, db, production_id, one.id, one.version, removed=True))
        for one in asked.bodies
    ]  # fmt: skip
    steps += [
        (LENS_SETS.find(db, production_id, one.id).version == one.version,
         partial(LENS_SETS.set_removed, db, production_id, one.id, one.version, removed=True))
        for one in asked.lens_sets
    ]  # fmt: skip
    if asked.rig_before is not None and asked.rig_version is not None:
        same = RIG.versioned(db, production_id)[0] == asked.rig_version
        steps.append((same, partial(RIG.save, db, production_id, asked.rig_version, asked.rig_before)))
    # What was changed since comes first, and refuses before anything else is touched.
    for _, step in sorted(steps, key=lambda row: row[0]):
        step()
    return EquipmentUndone(removed=len(asked.bodies) + len(asked.lens_sets))
