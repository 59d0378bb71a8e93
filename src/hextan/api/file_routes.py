"""Files out and in: one scheme for every kind (`hextan.formats.kinds`)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Body, Path, Query, Response
from sqlalchemy.orm import Session

from hextan.api.lens_routes import kept_set
from hextan.api.lens_schemas import LensSetKept
from hextan.api.package_routes import kept
from hextan.api.package_schemas import BodyKept
from hextan.api.plumbing import Db, Id, ProductionId, no_longer_needed
from hextan.api.route import Route
from hextan.api.shape import Listed, Shape
from hextan.core.base import Fault, InvalidInputError
from hextan.core.documents import BodyDocument, LensSetDocument, RigDocument
from hextan.formats.kinds import KINDS, FileKind, Found, Framing, Of, kind_of
from hextan.store import models
from hextan.store.keeper import find_production
from hextan.store.kinds import BODIES, LENS_SETS, RIG

router = APIRouter(route_class=Route, tags=["Files"])
KindName = Annotated[str, Path(max_length=60)]
FileBytes = Annotated[bytes, Body(media_type="application/octet-stream")]
DOWNLOAD: dict[int | str, dict[str, Any]] = {
    200: {"content": {"application/octet-stream": {}}, "description": "The file."}
}


class FileKindRead(Shape):
    """A kind of file, and what can be done with it."""

    kind: str
    of: Of
    title: str
    told: str
    suffix: str
    media_type: str
    #: Read as whole documents, which are added; or as rows of one that is here, which is not kept yet.
    adds: bool
    merges: bool
    template: bool
    frames: bool


class FileKindList(Listed[FileKindRead]):
    """The kinds of files that go out and come in."""


class DeliveryRead(Shape):
    """A delivery that a file speaks of."""

    label: str
    aspect: list[int]
    protect: float


class FileRead(Shape):
    """What came of a file: documents that were added, or one with the file's rows in it that is not kept yet."""

    bodies: list[BodyKept] = []
    lens_sets: list[LensSetKept] = []
    body: BodyDocument | None = None
    lens_set: LensSetDocument | None = None
    rig: RigDocument | None = None
    deliveries: list[DeliveryRead] = []
    notes: list[str] = []


@dataclass(frozen=True)
class Home:
    """Where documents of a kind are: one of them with its name, how one is added, and how both are told."""

    find: Callable[[Session, models.Production, int | None], tuple[Any, str]]
    add: Callable[[Session, models.Production, Found[Any]], FileRead] | None
    read: Callable[[Any], FileRead]


def _needed(document_id: int | None) -> int:
    if document_id is None:
        raise InvalidInputError.of(Fault("document_id", None, "is needed: of which one"))
    return document_id


def _body(db: Session, production: models.Production, document_id: int | None) -> tuple[Any, str]:
    document = BODIES.find(db, production.id, _needed(document_id)).document
    return document, document.name


def _lens_set(db: Session, production: models.Production, document_id: int | None) -> tuple[Any, str]:
    document = LENS_SETS.find(db, production.id, _needed(document_id)).document
    return document, document.name


def _rig(db: Session, production: models.Production, document_id: int | None) -> tuple[Any, str]:
    return RIG.read(db, production.id), f"{production.name}, mounts and adapters"


def _add_bodies(db: Session, production: models.Production, found: Found[Any]) -> FileRead:
    rows = [BODIES.add(db, production.id, document) for document in found.documents]
    db.commit()
    deliveries = [
        DeliveryRead(label=d.label, aspect=list(d.aspect), protect=d.protect) for d in found.deliveries
    ]
    return FileRead(bodies=[kept(row) for row in rows], deliveries=deliveries, notes=found.notes)


def _add_lens_sets(db: Session, production: models.Production, found: Found[Any]) -> FileRead:
    rows = [LENS_SETS.add(db, production.id, document) for document in found.documents]
    db.commit()
    return FileRead(lens_sets=[kept_set(row) for row in rows], notes=found.notes)


HOMES: dict[Of, Home] = {
    "body": Home(_body, _add_bodies, lambda document: FileRead(body=document)),
    "lens_set": Home(_lens_set, _add_lens_sets, lambda document: FileRead(lens_set=document)),
    "rig": Home(_rig, None, lambda document: FileRead(rig=document)),
}


@router.get("/files", name="file_kinds")
def file_kinds() -> FileKindList:
    """List the kinds of files that go out and come in."""
    return FileKindList(
        here=[
            FileKindRead(
                kind=k.name,
                of=k.of,
                title=k.title,
                told=k.told,
                suffix=k.suffix,
                media_type=k.media_type,
                adds=k.read is not None,
                merges=k.merge is not None,
                template=k.template is not None,
                frames=k.frames,
            )
            for k in KINDS
        ]
    )


@router.get(
    "/productions/{production_id}/files/{kind}",
    name="file_write",
    response_class=Response,
    responses=DOWNLOAD,
)
def write_file(
    production_id: ProductionId,
    kind: KindName,
    db: Db,
    document_id: Annotated[Id | None, Query()] = None,
    template: bool = False,
    aspect: Annotated[list[Annotated[float, Query(ge=0.1, le=10)]] | None, Query(max_length=20)] = None,
    protect: Annotated[float, Query(ge=0, le=0.9)] = 0.0,
    squeeze: Annotated[float, Query(ge=0.5, le=4)] = 1.0,
) -> Response:
    """Give a document as a file, or an empty file to fill in; a kind that frames takes aspects, protect and squeeze."""
    chosen = kind_of(kind)
    production = find_production(db, production_id)
    if template:
        if chosen.template is None:
            raise InvalidInputError.of(Fault("template", True, f"there is none for {kind}"))
        return _download(chosen.template(), chosen, chosen.name.removesuffix(f".{chosen.suffix}"))
    document, name = HOMES[chosen.of].find(db, production, document_id)
    framing = Framing(tuple(aspect) if aspect else Framing.aspects, protect, squeeze)
    return _download(chosen.write(document, framing), chosen, name)


@router.post(
    "/productions/{production_id}/files/{kind}",
    name="file_read",
    responses={201: {"model": FileRead, "description": "Its documents were added."}},
)
def read_file(
    production_id: ProductionId,
    kind: KindName,
    data: FileBytes,
    db: Db,
    response: Response,
    document_id: Annotated[Id | None, Query()] = None,
) -> FileRead:
    """Add the documents of a file, all of them or none; or read its rows into a document, without keeping it."""
    chosen = kind_of(kind)
    production = find_production(db, production_id)
    home = HOMES[chosen.of]
    if chosen.read is not None and home.add is not None:
        response.status_code = 201
        no_longer_needed(db)
        found = chosen.read(data)
        return home.add(db, find_production(db, production_id), found)
    if chosen.merge is None:
        raise InvalidInputError.of(Fault("kind", kind, "can be written, not read"))
    document, _ = home.find(db, production, document_id)
    no_longer_needed(db)
    return home.read(chosen.merge(data, document))


def _download(data: bytes, kind: FileKind[Any], name: str) -> Response:
    header = f"attachment; filename*=UTF-8''{quote(f'{name}.{kind.suffix}', safe='')}"
    return Response(data, media_type=kind.media_type, headers={"Content-Disposition": header})
