"""Every kind of file that goes out or comes in, one row each: addresses, pages and the list of kinds read it here.

A new format is a module beside this one with a writer and a reader, and a row.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Generic, Literal, TypeAlias, TypeVar

from pydantic import BaseModel

from hextan.core.base import NotFoundError
from hextan.core.documents import BodyDocument, LensSetDocument, RigDocument, with_rigs
from hextan.formats import fdl, formats_csv, lenses_csv
from hextan.formats.documents_json import BODY_FILE, LENS_FILE, RIG_FILE, JsonFile

D = TypeVar("D", bound=BaseModel)
#: What a file is of.
Of: TypeAlias = Literal["body", "lens_set", "rig"]


@dataclass(frozen=True)
class Framing:
    """What a file that frames is asked for: aspects of deliveries, the share that is protected, the lens's squeeze."""

    aspects: tuple[float, ...] = (16 / 9,)
    protect: float = 0.0
    squeeze: float = 1.0


@dataclass(frozen=True)
class Found(Generic[D]):
    """What a file holds: documents, the deliveries that it frames for, and what could not be taken over."""

    documents: list[D]
    deliveries: list[fdl.Delivery] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class FileKind(Generic[D]):
    """One kind of file. What it cannot do is None."""

    name: str
    of: Of
    title: str
    told: str
    suffix: str
    media_type: str
    #: Writes a document out.
    write: Callable[[D, Framing], bytes]
    #: Reads whole documents, to be added.
    read: Callable[[bytes], Found[D]] | None = None
    #: Reads rows into a document that is here.
    merge: Callable[[bytes, D], D] | None = None
    #: Writes an empty file to fill in.
    template: Callable[[], bytes] | None = None
    #: Whether it is asked with a `Framing`.
    frames: bool = False


JSON, CSV = "application/json", "text/csv; charset=utf-8"


def _write_fdl(body: BodyDocument, framing: Framing) -> bytes:
    ratios = [fdl.aspect_ratio(a) for a in framing.aspects]
    deliveries = [fdl.Delivery(f"{w}:{h}", (w, h), framing.protect) for w, h in ratios]
    return fdl.write_fdl(body, deliveries, framing.squeeze)[0]


def _read_fdl(data: bytes) -> Found[BodyDocument]:
    read = fdl.read_fdl(data)
    return Found(read.bodies, read.deliveries, read.notes)


def _merge_rig(data: bytes, here: RigDocument) -> RigDocument:
    return with_rigs(here, RIG_FILE.read(data))


def _json_words(file: JsonFile[Any]) -> str:
    return f"JSON, schema {file.schema.name} {file.schema.version}"


KINDS: tuple[FileKind[Any], ...] = (
    FileKind[BodyDocument](
        name="bodies.json",
        of="body",
        title="The whole body",
        told=_json_words(BODY_FILE),
        suffix="json",
        media_type=JSON,
        write=lambda body, _: BODY_FILE.write([body]),
        read=lambda data: Found(BODY_FILE.read(data)),
    ),
    FileKind[BodyDocument](
        name="formats.csv",
        of="body",
        title="Its recording formats",
        told="CSV, one row each",
        suffix="csv",
        media_type=CSV,
        write=lambda body, _: formats_csv.write_formats(body),
        merge=formats_csv.read_formats,
        template=formats_csv.write_template,
    ),
    FileKind[BodyDocument](
        name="fdl",
        of="body",
        title="Canvases and framing",
        told="ASC FDL 2.0: each recording format a canvas, the Bench's delivery and 16:9, 9:16 as framing intents. "
        "Rates, codecs and timing stand in keys that other programs pass over; crops, claims and origins are not in it.",
        suffix="fdl",
        media_type=JSON,
        write=_write_fdl,
        read=_read_fdl,
        frames=True,
    ),
    FileKind[LensSetDocument](
        name="lens-sets.json",
        of="lens_set",
        title="The whole set",
        told=_json_words(LENS_FILE),
        suffix="json",
        media_type=JSON,
        write=lambda lens_set, _: LENS_FILE.write([lens_set]),
        read=lambda data: Found(LENS_FILE.read(data)),
    ),
    FileKind[LensSetDocument](
        name="lenses.csv",
        of="lens_set",
        title="Its lenses",
        told="CSV, one row each",
        suffix="csv",
        media_type=CSV,
        write=lambda lens_set, _: lenses_csv.write_lenses(lens_set),
        merge=lenses_csv.read_lenses,
        template=lenses_csv.write_template,
    ),
    FileKind[RigDocument](
        name="rig.json",
        of="rig",
        title="Mounts and adapters",
        told=_json_words(RIG_FILE),
        suffix="json",
        media_type=JSON,
        write=lambda rig, _: RIG_FILE.write([rig]),
        merge=_merge_rig,
    ),
)


def kind_of(name: str) -> FileKind[Any]:
    """Find a kind of file.

    Raises
    ------
    NotFoundError
        Names the kinds that there are.
    """
    found = next((kind for kind in KINDS if kind.name == name), None)
    if found is None:
        raise NotFoundError(
            f"There is no kind of file {name[:60]}. There are {', '.join(k.name for k in KINDS)}."
        )
    return found
