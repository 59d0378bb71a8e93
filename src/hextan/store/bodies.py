"""Bodies as documents in the database: kept, copied from the catalogue, taken out and brought back."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload
from sqlalchemy.orm.attributes import flag_modified
from sqlalchemy.orm.exc import StaleDataError

from hextan.core import catalogue
from hextan.core.body_document import (
    BodyDocument,
    CropDocument,
    FormatDocument,
    ModeDocument,
    new_key,
    parse_body,
)
from hextan.core.errors import NotFoundError, StaleWriteError
from hextan.store.models import Body, CropRule, InCameraCrop, Production, RecordingFormat, ScanMode

#: Columns that stand in the document under the same name.
_BODY = ("key", "name", "maker", "mount", "firmware", "pitch_um", "free_windows", "write_mb_s", "buffer_gb")
_MODE = ("key", "name", "row_time_us", "overhead_us", "max_fps", "origins")
_FORMAT = ("key", "name", "codec", "bits", "samples", "compression", "megabits", "megabits_at_fps", "raw",
           "interlaced", "rates", "highest_fps", "origins")  # fmt: skip

#: What a body's document needs, loaded in few queries.
WHOLE = (
    selectinload(Body.modes).selectinload(ScanMode.formats),
    selectinload(Body.crops).selectinload(InCameraCrop.rules),
)


def document_of(row: Body) -> BodyDocument:
    """Write a body's rows as a document."""
    modes = [mode for mode in row.modes if not mode.removed]
    keys = {mode.id: mode.key for mode in modes}
    return BodyDocument.model_validate(
        {name: getattr(row, name) for name in (*_BODY, "origin", "origins", "claims")}
        | {
            "photosites": [row.photosites_w, row.photosites_h],
            "total_photosites": _pair(row.total_photosites_w, row.total_photosites_h),
            "modes": [_mode_of(mode) for mode in modes],
            "crops": [
                {
                    "key": crop.key,
                    "name": crop.name,
                    "lens": crop.lens,
                    "origins": crop.origins,
                    "rules": [
                        {
                            "mode": keys[rule.scan_mode_id],
                            "aspect": _pair(rule.aspect_w, rule.aspect_h),
                            "factor": rule.factor,
                        }
                        for rule in crop.rules
                        if rule.scan_mode_id in keys
                    ],
                }
                for crop in row.crops
                if not crop.removed
            ],
        }
    )


def _pair(w: Any, h: Any) -> list[Any] | None:
    return None if w is None or h is None else [w, h]


def _mode_of(row: ScanMode) -> dict[str, Any]:
    in_mm = _pair(row.window_w_mm, row.window_h_mm)
    return {name: getattr(row, name) for name in _MODE} | {
        "window": None if in_mm else [row.window_w, row.window_h],
        "window_mm": in_mm,
        "offset": [row.offset_x, row.offset_y],
        "sampling": [row.sampling_h, row.sampling_v],
        "methods": [row.method_h, row.method_v],
        "formats": [
            {name: getattr(f, name) for name in _FORMAT}
            | {"raster": [f.raster_w, f.raster_h], "map": f.mapping, "rates": list(f.rates)}
            for f in row.formats
            if not f.removed
        ],
    }


def apply_document(row: Body, document: BodyDocument) -> None:
    """Make a body's rows say what the document says; rows that it leaves out are kept as removed."""
    for name in _BODY:
        setattr(row, name, getattr(document, name))
    plain = document.model_dump(mode="json", include={"origin", "origins", "claims"})
    row.origin, row.origins, row.claims = plain["origin"], plain["origins"], plain["claims"]
    row.photosites_w, row.photosites_h = document.photosites
    row.total_photosites_w, row.total_photosites_h = document.total_photosites or (None, None)
    # A format may have moved to another scan mode: it is found by its key wherever it was.
    formats = {f.key: f for mode in row.modes for f in mode.formats}
    modes = _matched(row.modes, document.modes, ScanMode)
    for mode_row, mode in zip(modes, document.modes, strict=True):
        _apply_mode(mode_row, mode, document.pitch_um, formats)
    by_key = {mode.key: mode_row for mode, mode_row in zip(document.modes, modes, strict=True)}
    crops = _matched(row.crops, document.crops, InCameraCrop)
    for crop_row, crop in zip(crops, document.crops, strict=True):
        _apply_crop(crop_row, crop, by_key)
    if row.id is not None:
        # Also when only rows below it changed, the body's version has to move.
        flag_modified(row, "claims")


def _matched(rows: list[Any], documents: list[Any], kind: type[Any]) -> list[Any]:
    """Find or make the row of each document, in order; mark the rest as removed."""
    kept = {row.key: row for row in rows}
    found = []
    for position, document in enumerate(documents):
        row = kept.pop(document.key, None)
        if row is None:
            row = kind(key=document.key)
            rows.append(row)
        row.position, row.removed, row.name = position, False, document.name
        found.append(row)
    for row in kept.values():
        row.removed = True
    return found


def _apply_mode(
    row: ScanMode, mode: ModeDocument, pitch_um: float, formats: dict[str, RecordingFormat]
) -> None:
    plain = mode.model_dump(mode="json", include={"origins"})
    for name in _MODE:
        setattr(row, name, plain.get(name, getattr(mode, name)))
    row.window_w, row.window_h = mode.photosites(pitch_um)
    row.window_w_mm, row.window_h_mm = mode.window_mm or (None, None)
    row.offset_x, row.offset_y = mode.offset
    row.sampling_h, row.sampling_v = mode.sampling
    row.method_h, row.method_v = mode.methods
    here = {f.key for f in row.formats}
    for f in mode.formats:
        if f.key in formats and f.key not in here:
            row.formats.append(formats[f.key])
    for format_row, f in zip(_matched(row.formats, mode.formats, RecordingFormat), mode.formats, strict=True):
        _apply_format(format_row, f)


def _apply_format(row: RecordingFormat, document: FormatDocument) -> None:
    plain = document.model_dump(mode="json", include={"origins"})
    for name in _FORMAT:
        setattr(row, name, plain.get(name, getattr(document, name)))
    row.raster_w, row.raster_h = document.raster
    row.mapping = document.map


def _apply_crop(row: InCameraCrop, document: CropDocument, modes: dict[str, ScanMode]) -> None:
    row.lens = document.lens
    row.origins = document.model_dump(mode="json", include={"origins"})["origins"]
    wanted = [(rule.mode, *(rule.aspect or (None, None)), rule.factor) for rule in document.rules]
    have = [(rule.mode.key, rule.aspect_w, rule.aspect_h, rule.factor) for rule in row.rules]
    if wanted != have:
        row.rules = [
            CropRule(position=i, mode=modes[key], aspect_w=w, aspect_h=h, factor=factor)
            for i, (key, w, h, factor) in enumerate(wanted)
        ]


def list_bodies(session: Session, production_id: int, removed: bool = False) -> list[Body]:
    """List the bodies of a production, or those that were taken out of it."""
    query = (
        select(Body)
        .where(Body.production_id == production_id, Body.removed == removed)
        .order_by(Body.position, Body.id)
        .options(*WHOLE)
    )
    return list(session.scalars(query))


def find_body(session: Session, production_id: int, body_id: int) -> Body:
    """Find a body of a production, also one that was taken out.

    Raises
    ------
    NotFoundError
        When the production has none of this id.
    """
    query = select(Body).where(Body.id == body_id, Body.production_id == production_id).options(*WHOLE)
    row = session.scalars(query).one_or_none()
    if row is None:
        raise NotFoundError(f"There is no body {body_id} in this production. Choose one from its list.")
    return row


def add_body(
    session: Session, production: Production, document: BodyDocument, source: Body | None = None
) -> Body:
    """Add a body at the end of a production's list; `source` is the catalogue's that it was copied from."""
    # Loaded ones only would miss those taken out, whose places stay theirs.
    position = max((b.position for b in production.bodies), default=-1) + 1
    row = Body(production_id=production.id, position=position, removed=False)
    if source is not None:
        row.catalogue_body_id, row.taken = source.id, document.model_dump(mode="json")
    apply_document(row, document)
    production.bodies.append(row)
    session.flush()
    return row


def save_body(
    session: Session, production_id: int, body_id: int, version: int, document: BodyDocument
) -> Body:
    """Keep a body that was changed from a known version, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else kept one in between; carries both documents.
    NotFoundError
        When the production has no such body.
    """
    row = find_body(session, production_id, body_id)
    _still(row, version, document)
    apply_document(row, document)
    return _commit(session, row, version, document)


def set_removed(session: Session, production_id: int, body_id: int, version: int, removed: bool) -> Body:
    """Take a body out of a production, or bring it back, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else changed it in between.
    NotFoundError
        When the production has no such body.
    """
    row = find_body(session, production_id, body_id)
    document = document_of(row)
    _still(row, version, document)
    row.removed = removed
    return _commit(session, row, version, document)


def _still(row: Body, version: int, document: BodyDocument) -> None:
    if row.version != version:
        raise _stale(row, version, document)


def _commit(session: Session, row: Body, version: int, document: BodyDocument) -> Body:
    production_id, body_id = row.production_id, row.id
    try:
        session.commit()
    except (StaleDataError, IntegrityError):
        session.rollback()
        raise _stale(find_body(session, production_id, body_id), version, document) from None
    return row


def _stale(row: Body, version: int, document: BodyDocument) -> StaleWriteError:
    return StaleWriteError(
        f"{row.name} was changed elsewhere: this change is based on version {version}, and version {row.version} "
        "is kept. Take the kept one or write yours over it.",
        given={"version": version, "document": document.model_dump(mode="json")},
        stored={"version": row.version, "document": document_of(row).model_dump(mode="json")},
    )


def copy_from_catalogue(session: Session, production: Production, source: Body) -> Body:
    """Take a copy of a catalogue's body into a production, and commit. Keys stay, so that it can be compared."""
    row = add_body(session, production, document_of(source), source)
    session.commit()
    return row


def duplicate(session: Session, production: Production, source: Body) -> Body:
    """Add a second body that begins as a copy of one of the same production, and commit."""
    document = document_of(source)
    names = {body.name for body in production.bodies}
    name = next(n for i in range(2, 10_000) if (n := f"{document.name[:70]} ({i})") not in names)
    row = add_body(session, production, document.model_copy(update={"name": name, "key": new_key()}))
    session.commit()
    return row


def catalogue_changes(session: Session, row: Body) -> list[catalogue.Change]:
    """List what the catalogue says differently since the body was taken from it."""
    if row.catalogue_body_id is None or row.taken is None:
        return []
    source = session.get(Body, row.catalogue_body_id, options=WHOLE)
    if source is None or source.removed:
        return []
    return catalogue.changes(parse_body(row.taken), document_of(source), document_of(row))


def settle_changes(session: Session, row: Body, version: int, take: list[str], leave: list[str]) -> Body:
    """Take some changes of the catalogue into a body, leave others for good, and commit.

    Raises
    ------
    StaleWriteError
        Somebody else changed the body in between.
    NotFoundError
        When a change is no longer there.
    """
    document = document_of(row)
    _still(row, version, document)
    offered = {change.path: change for change in catalogue_changes(session, row)}
    missing = [path for path in (*take, *leave) if path not in offered]
    if missing:
        raise NotFoundError(f"The catalogue no longer differs at {missing[0]}. Look at the changes again.")
    assert row.taken is not None
    base = row.taken
    for path in (*take, *leave):
        base = catalogue.apply(base, offered[path])
    row.taken = base
    plain = document.model_dump(mode="json")
    for path in take:
        plain = catalogue.apply(plain, offered[path])
    settled = parse_body(plain)
    apply_document(row, settled)
    return _commit(session, row, version, settled)
