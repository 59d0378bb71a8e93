"""The endpoints of files for other programs: set-ups out, and cameras in."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Body, Path, Query, Request, Response
from sqlalchemy.orm import Session

from hextan.api.plumbing import Db, ProductionId, file_answer
from hextan.api.route import Route
from hextan.api.shape import Shape
from hextan.core.base import Fault, InvalidInputError
from hextan.core.bench import BenchState
from hextan.core.handover import Source, setups_of, state_of
from hextan.core.sheets import Material
from hextan.formats.handed import Handed, kind_of, read_cameras
from hextan.store.material import material_of

router = APIRouter(route_class=Route, prefix="/productions/{production_id}/handover")
KindName = Annotated[str, Path(max_length=60)]
FILE: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/octet-stream": {}}, "description": "The file."}
}


class SetUpRead(Shape):
    """A camera of a file as a set-up of this production, and what had to be guessed."""

    name: str
    state: BenchState
    notes: list[str]


class CamerasRead(Shape):
    """The cameras of a file; nothing is kept."""

    setups: list[SetUpRead]


@router.get("/{kind}", name="handover_write", tags=["Files"], response_class=Response, responses=FILE)
def write(
    production_id: ProductionId,
    kind: KindName,
    db: Db,
    request: Request,
    of: Annotated[Source, Query()] = "bench",
) -> Response:
    """Write the set-ups of the Bench, of all comparisons, or of all shots as a file for another program."""
    found = kind_of(kind)
    m = _material(production_id, db, request)
    setups, without = setups_of(of, m.package, m.settings, m.bench, m.comparisons, m.shots)
    if not setups:
        what = {"bench": "The Bench", "comparisons": "No comparison", "shots": "No shot"}[of]
        raise InvalidInputError.of(
            Fault("of", of, f"has no set-up to hand over: {' '.join(without) or f'{what} is there yet.'}")
        )
    data = found.write(Handed(m.name, setups, m.bodies, m.settings, m.bench))
    return file_answer(data, found.media_type, f"{m.name}, {of}.{found.suffix}")


@router.post("/{kind}", name="handover_read", tags=["Files"])
def read(
    production_id: ProductionId,
    kind: KindName,
    data: Annotated[bytes, Body(media_type="application/octet-stream")],
    db: Db,
    request: Request,
) -> CamerasRead:
    """Read the cameras of a file as set-ups of this production; nothing is kept."""
    m = _material(production_id, db, request)
    told = []
    for seen in read_cameras(kind, data):
        state, notes = state_of(m.package, m.bench, seen)
        told.append(SetUpRead(name=seen.name, state=state, notes=notes))
    return CamerasRead(setups=told)


def _material(production_id: int, db: Session, request: Request) -> Material:
    return material_of(db, production_id, request.app.state.packages.package(db, production_id))
