"""Bodies, lens sets, mounts and adapters out as files and in from files."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from urllib.parse import quote

from fastapi import APIRouter, Body, Path, Query, Response

from hextan.api.errors import BAD
from hextan.api.evaluation_schema import Shape
from hextan.api.gate import StatedRoute
from hextan.api.lens_routes import kept_set
from hextan.api.lens_schemas import LensSetKept
from hextan.api.package_routes import kept
from hextan.api.package_schemas import BodyKept
from hextan.api.plumbing import Db, Id, ProductionId
from hextan.core.body_document import BodyDocument
from hextan.core.lens_document import LensSetDocument
from hextan.core.rig_document import RigDocument, with_rigs
from hextan.formats import fdl, formats_csv, lenses_csv
from hextan.formats.documents_json import BODY_FILE, LENS_FILE, RIG_FILE
from hextan.store import bodies, repositories, rigs
from hextan.store.bodies import BODIES
from hextan.store.lens_sets import LENS_SETS

router = APIRouter(route_class=StatedRoute, responses=BAD, prefix="/productions/{production_id}")
MEDIA = {"json": "application/json", "csv": "text/csv; charset=utf-8", "fdl": "application/json"}
SUFFIX = {"json": "json", "csv": "csv", "fdl": "fdl"}
FileBytes = Annotated[bytes, Body(media_type="application/octet-stream")]
DOWNLOAD: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/octet-stream": {}}, "description": "The file."}
}


class DeliveryRead(Shape):
    """A delivery that a file speaks of."""

    label: str
    aspect: list[int]
    protect: float


class FileRead(Shape):
    """What came of a file."""

    bodies: list[BodyKept]
    deliveries: list[DeliveryRead]
    notes: list[str]


class FormatsRead(Shape):
    """A body with the formats of a file in it; not kept yet."""

    document: BodyDocument


def _download(data: bytes, kind: str, name: str) -> Response:
    header = f"attachment; filename*=UTF-8''{quote(f'{name}.{SUFFIX[kind]}', safe='')}"
    return Response(data, media_type=MEDIA[kind], headers={"Content-Disposition": header})


@router.get("/bodies/{body_id}/file/{kind}", response_class=Response, responses=DOWNLOAD)
def body_file(
    production_id: ProductionId,
    body_id: Annotated[Id, Path()],
    kind: Literal["json", "csv", "fdl"],
    db: Db,
    aspect: Annotated[list[Annotated[float, Query(ge=0.1, le=10)]] | None, Query(max_length=20)] = None,
    protect: Annotated[float, Query(ge=0, le=0.9)] = 0.0,
    squeeze: Annotated[float, Query(ge=0.5, le=4)] = 1.0,
) -> Response:
    """Give a body as a file: whole (json), its recording formats (csv), or as an ASC FDL with deliveries."""
    row = BODIES.find(db, production_id, body_id)
    document = bodies.document_of(row)
    if kind == "json":
        data = BODY_FILE.write([document])
    elif kind == "csv":
        data = formats_csv.write_formats(document)
    else:
        ratios = [fdl.aspect_ratio(a) for a in aspect or [16 / 9]]
        deliveries = [fdl.Delivery(f"{w}:{h}", (w, h), protect) for w, h in ratios]
        data, _ = fdl.write_fdl(document, deliveries, squeeze)
    return _download(data, kind, document.name)


@router.get("/formats-template.csv", response_class=Response, responses=DOWNLOAD)
def formats_template(production_id: ProductionId) -> Response:
    """Give an empty table of recording formats, to be filled in."""
    return _download(formats_csv.write_template(), "csv", "recording-formats")


@router.post("/files/{kind}", status_code=201)
def read_file(production_id: ProductionId, kind: Literal["json", "fdl"], data: FileBytes, db: Db) -> FileRead:
    """Add the bodies of a file; all of them or none."""
    production = repositories.find_production(db, production_id)
    read = fdl.FdlRead(BODY_FILE.read(data), [], []) if kind == "json" else fdl.read_fdl(data)
    rows = [BODIES.add(db, production, document) for document in read.bodies]
    db.commit()
    return FileRead(
        bodies=[kept(row) for row in rows],
        deliveries=[
            DeliveryRead(label=d.label, aspect=list(d.aspect), protect=d.protect) for d in read.deliveries
        ],
        notes=read.notes,
    )


@router.post("/bodies/{body_id}/csv")
def read_formats(
    production_id: ProductionId, body_id: Annotated[Id, Path()], data: FileBytes, db: Db
) -> FormatsRead:
    """Read recording formats into a body, without keeping it: the page shows them, and they can be undone."""
    document = bodies.document_of(BODIES.find(db, production_id, body_id))
    return FormatsRead(document=formats_csv.read_formats(data, document))


class LensSetsRead(Shape):
    """What came of a file."""

    lens_sets: list[LensSetKept]


class LensesRead(Shape):
    """A lens set with the lenses of a file in it; not kept yet."""

    document: LensSetDocument


@router.get("/lens-sets/{set_id}/file/{kind}", response_class=Response, responses=DOWNLOAD)
def lens_set_file(
    production_id: ProductionId, set_id: Annotated[Id, Path()], kind: Literal["json", "csv"], db: Db
) -> Response:
    """Give a lens set as a file: whole (json), or its lenses as a table (csv)."""
    document = LENS_SETS.document_of(LENS_SETS.find(db, production_id, set_id))
    data = LENS_FILE.write([document]) if kind == "json" else lenses_csv.write_lenses(document)
    return _download(data, kind, document.name)


@router.get("/lenses-template.csv", response_class=Response, responses=DOWNLOAD)
def lenses_template(production_id: ProductionId) -> Response:
    """Give a table of lenses to be filled in."""
    return _download(lenses_csv.write_template(), "csv", "lenses")


@router.post("/lens-sets/file", status_code=201)
def read_lens_sets(production_id: ProductionId, data: FileBytes, db: Db) -> LensSetsRead:
    """Add the lens sets of a JSON file; all of them or none."""
    production = repositories.find_production(db, production_id)
    rows = [LENS_SETS.add(db, production, document) for document in LENS_FILE.read(data)]
    db.commit()
    return LensSetsRead(lens_sets=[kept_set(row) for row in rows])


@router.post("/lens-sets/{set_id}/csv")
def read_lenses(
    production_id: ProductionId, set_id: Annotated[Id, Path()], data: FileBytes, db: Db
) -> LensesRead:
    """Read lenses into a set, without keeping it: the page shows them, and they can be undone."""
    document = LENS_SETS.document_of(LENS_SETS.find(db, production_id, set_id))
    return LensesRead(document=lenses_csv.read_lenses(data, document))


class RigRead(Shape):
    """Mounts and adapters with those of a file in them; not kept yet."""

    document: RigDocument


@router.get("/rig/file", response_class=Response, responses=DOWNLOAD)
def rig_file(production_id: ProductionId, db: Db) -> Response:
    """Give mounts and adapters as a JSON file."""
    production = repositories.find_production(db, production_id)
    document = rigs.document_of(rigs.find_rig(db, production_id))
    return _download(RIG_FILE.write([document]), "json", f"{production.name}, mounts and adapters")


@router.post("/rig/file")
def read_rig_file(production_id: ProductionId, data: FileBytes, db: Db) -> RigRead:
    """Read mounts and adapters from a JSON file, without keeping them: those of the same name are changed."""
    repositories.find_production(db, production_id)
    here = rigs.document_of(rigs.find_rig(db, production_id))
    return RigRead(document=with_rigs(here, RIG_FILE.read(data)))
