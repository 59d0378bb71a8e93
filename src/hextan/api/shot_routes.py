"""The endpoints of shots: parse, call, answer."""

from __future__ import annotations

from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Query, Request, Response

from hextan.api.errors import stale
from hextan.api.plumbing import Db, ProductionId, answers, json_answer, no_longer_needed
from hextan.api.route import Route
from hextan.api.shot_schemas import (
    BenchOfShot,
    PicturesAsk,
    ShotAnswerAsk,
    ShotAsk,
    ShotOfBenchAsk,
    ShotsAsk,
    ShotsKept,
    ShotsListedAsk,
    ShotsTableRead,
    ShotsWrite,
)
from hextan.core.base import parse_rate
from hextan.core.equipment import Package, PackageSettings
from hextan.core.shots import (
    Shot,
    answer_of_shot,
    answer_with_changes,
    bench_of_shot,
    pictures_of_shots,
    rented_for,
    shot_of_bench,
    shots_listed,
    shots_of_table,
    table_of_shots,
    with_units,
)
from hextan.core.shots import shots_view as judge_shots
from hextan.formats.shot_files import SHOTS_FILES, ShotsFileKind
from hextan.store import repositories
from hextan.store.keeper import find_production
from hextan.store.kinds import SETTINGS, SHOTS

FileBytes = Annotated[bytes, Body(media_type="application/octet-stream")]
DOWNLOAD: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/octet-stream": {}}, "description": "The file."}
}
router = APIRouter(route_class=Route, prefix="/productions/{production_id}/shots")


def _known(request: Request, db: Any, production_id: int) -> tuple[Package, PackageSettings]:
    return request.app.state.packages.package(db, production_id), SETTINGS.read(db, production_id)


@router.get("", name="shots_read", tags=["Shots"])
def read_shots(production_id: ProductionId, db: Db) -> ShotsKept:
    """Give the list of shots; version 0 and nothing when none was kept yet."""
    version, document = SHOTS.versioned(db, production_id)
    return ShotsKept(version=version, document=document)


@router.put("", name="shots_write", tags=["Shots"], responses=stale(ShotsWrite))
def write_shots(production_id: ProductionId, asked: ShotsWrite, db: Db) -> ShotsKept:
    """Keep the list of shots; 409 with both when somebody else kept one in between.

    A bare distance gets the production's unit, as it is kept: `3` becomes `3 m`.
    """
    unit = SETTINGS.read(db, production_id).unit
    document = with_units(asked.document, unit)
    version = SHOTS.save(db, production_id, asked.version, document)
    return ShotsKept(version=version, document=document)


@router.post("/view", name="shots_view", tags=["Shots"], responses=answers(judge_shots))
def view_shots(production_id: ProductionId, asked: ShotsAsk, db: Db, request: Request) -> Response:
    """Judge a list of shots, without keeping it."""
    package, settings = _known(request, db, production_id)
    shelf = repositories.catalogue_of(db, production_id)
    catalogue = request.app.state.packages.package(db, shelf.id)
    return json_answer(judge_shots(package, settings, asked.document, catalogue, asked.changes_for))


@router.post("/listed", name="shots_listed", tags=["Shots"], responses=answers(shots_listed))
def list_shots(production_id: ProductionId, asked: ShotsListedAsk, db: Db, request: Request) -> Response:
    """Judge a list of shots as it is typed: what a list shows of the answers that are new, without keeping it."""
    package, settings = _known(request, db, production_id)
    return json_answer(shots_listed(package, settings, asked.document, asked.known))


@router.post("/answer", name="shot_answer", tags=["Shots"], responses=answers(answer_with_changes))
def answer_shot(production_id: ProductionId, asked: ShotAnswerAsk, db: Db, request: Request) -> Response:
    """Judge one shot with all reasons, without keeping it."""
    package, settings = _known(request, db, production_id)
    if not asked.changes:
        return json_answer(answer_of_shot(package, settings, asked.shot))
    catalogue = request.app.state.packages.package(db, repositories.catalogue_of(db, production_id).id)
    return json_answer(answer_with_changes(package, settings, asked.shot, catalogue))


@router.post("/pictures", name="shots_pictures", tags=["Shots"], responses=answers(pictures_of_shots))
def shot_pictures(production_id: ProductionId, asked: PicturesAsk, db: Db, request: Request) -> Response:
    """Draw what the finder shows of shots, as their choices draw it."""
    package, settings = _known(request, db, production_id)
    return json_answer(pictures_of_shots(package, settings, asked.shots, asked.scene))


@router.post("/rented", name="shot_rented", tags=["Shots"], responses=answers(rented_for))
def rented(production_id: ProductionId, asked: ShotAsk, db: Db, request: Request) -> Response:
    """Answer a shot with what the catalogue has besides: what would have to be rented."""
    package, settings = _known(request, db, production_id)
    shelf = repositories.catalogue_of(db, production_id)
    catalogue = request.app.state.packages.package(db, shelf.id)
    return json_answer(rented_for(package, catalogue, settings, asked.shot))


@router.post("/bench", name="shot_bench", tags=["Shots"])
def bench(production_id: ProductionId, asked: ShotAsk, db: Db, request: Request) -> BenchOfShot:
    """Give the Bench as a shot's choice sets it."""
    package, settings = _known(request, db, production_id)
    kept = repositories.kept_bench(db, production_id)
    scene = None if kept is None else kept.scene
    return BenchOfShot(state=bench_of_shot(package, settings, asked.shot, scene))


@router.post("/from-bench", name="shot_from_bench", tags=["Shots"])
def from_bench(production_id: ProductionId, asked: ShotOfBenchAsk, db: Db, request: Request) -> Shot:
    """Write a Bench as a shot, without keeping it: what it frames is what the shot needs, its choice is pinned."""
    package, settings = _known(request, db, production_id)
    return shot_of_bench(package, settings, asked.state, asked.number)


@router.get("/files/{kind}", name="shots_file", tags=["Shots"], response_class=Response, responses=DOWNLOAD)
def shots_file(production_id: ProductionId, kind: ShotsFileKind, db: Db, request: Request) -> Response:
    """Give the list that is kept as a table or as a timeline, with its answers."""
    package, settings = _known(request, db, production_id)
    document = SHOTS.read(db, production_id)
    rows = table_of_shots(document, judge_shots(package, settings, document, changes_for=())["answers"])
    name = find_production(db, production_id).name
    file = SHOTS_FILES[kind]
    no_longer_needed(db)
    data = file.write(rows, name, float(parse_rate(settings.base_fps)))
    headers = {
        "content-disposition": f"attachment; filename*=UTF-8''{quote(f'{name}, shots.{kind}', safe='')}"
    }
    return Response(data, media_type=file.media, headers=headers)


@router.post("/files/{kind}", name="shots_file_read", tags=["Shots"])
def read_shots_file(
    production_id: ProductionId,
    kind: ShotsFileKind,
    data: FileBytes,
    db: Db,
    remove: Annotated[bool, Query()] = False,
    columns: Annotated[list[Annotated[str, Query(max_length=200)]] | None, Query(max_length=200)] = None,
) -> ShotsTableRead:
    """Read a table or a timeline into the list that is kept: what would be, and what would change. Keeps nothing.

    `columns` says what a column is, a field before the title of the column: `distance=How far`, or `=How far` for one that is kept.
    """
    pointed = {title: field for field, _, title in (column.partition("=") for column in columns or ())}
    document = SHOTS.read(db, production_id)
    settings = SETTINGS.read(db, production_id)
    no_longer_needed(db)
    rows = SHOTS_FILES[kind].read(data, float(parse_rate(settings.base_fps)))
    return ShotsTableRead(**shots_of_table(rows, document, remove, pointed))
