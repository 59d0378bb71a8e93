"""The endpoints of the plan: what it is and what changed since, made by a kit that was found, and taken away."""

from __future__ import annotations

from datetime import UTC, datetime

from fastapi import APIRouter, Request

from hextan.api.errors import stale
from hextan.api.packing_schemas import PlanBefore, PlanKept, PlanWrite
from hextan.api.plumbing import Db, ProductionId
from hextan.api.route import Route
from hextan.core.base import Fault, InvalidInputError
from hextan.core.equipment import ThePlan
from hextan.core.packing import plan_of
from hextan.core.production import plan_view
from hextan.search.work import Work
from hextan.store.kinds import PACKING, PLAN, SETTINGS, SHEETS, SHOTS

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/plan")


@router.get("", name="plan_read", tags=["Kit"])
def read_plan(production_id: ProductionId, db: Db, request: Request) -> PlanKept:
    """Give the plan of a production, and all that does not agree with it; version 0 when none was made yet."""
    version, _ = PLAN.versioned(db, production_id)
    before = _at_version(production_id, version - 1, db) if version else None
    package = request.app.state.packages.package(db, production_id)
    settings, shots = SETTINGS.read(db, production_id), SHOTS.read(db, production_id)
    packing, sheets = PACKING.read(db, production_id), SHEETS.read(db, production_id)
    return PlanKept(
        version=version,
        plan=plan_view(package, settings, shots, packing, sheets),
        before=None
        if before is None
        else PlanBefore(version=version - 1, name=before.name, made_at=before.made_at),
    )


def _at_version(production_id: int, version: int, db: Db) -> ThePlan | None:
    """The plan as it was in a version; none before the first, None where that is not kept any more."""
    kept = PLAN.find(db, production_id)
    if version == 0 or kept is None:
        return ThePlan()
    there = any(each == version for each, _ in PLAN.revisions(db, kept))
    return PLAN.at_version(db, kept, version) if there else None


@router.post("", name="plan_write", tags=["Kit"], responses=stale(PlanWrite))
def write_plan(production_id: ProductionId, asked: PlanWrite, db: Db, request: Request) -> PlanKept:
    """Make a kit the plan, as it was found for what is asked now, or go back to an earlier plan; with neither there is none any more."""
    PLAN.save(db, production_id, asked.version, _plan(production_id, asked, db, request))
    return read_plan(production_id, db, request)


def _plan(production_id: int, asked: PlanWrite, db: Db, request: Request) -> ThePlan:
    if asked.back_to is not None:
        then = _at_version(production_id, asked.back_to, db)
        if then is None:
            raise InvalidInputError.of(
                Fault("back_to", asked.back_to, "is no version of the plan that is there")
            )
        return then
    if asked.kit is None:
        return ThePlan()
    kit = next((each for each in asked.document.kits if each.key == asked.kit), None)
    if kit is None:
        raise InvalidInputError.of(Fault("kit", asked.kit, "is no kit of this packing"))
    package, shots = request.app.state.packages.package(db, production_id), SHOTS.read(db, production_id)
    work = Work(package, SETTINGS.read(db, production_id), shots, asked.document, (kit,))
    search = request.app.state.searches.begin(production_id, kit.key, work)
    if search.state != "done":
        why = search.problem or "is still being looked for: ask again when it is found"
        raise InvalidInputError.of(Fault("kit", asked.kit, why))
    if search.answer["why"]:
        raise InvalidInputError.of(Fault("kit", asked.kit, search.answer["why"]))
    return plan_of(kit, search.answer, shots, f"{datetime.now(UTC):%Y-%m-%dT%H:%M:%SZ}")
