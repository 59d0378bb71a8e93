"""Bodies as documents in the database: rows on one side, the document on the other."""

from __future__ import annotations

from typing import Any

from sqlalchemy.orm import selectinload

from hextan.core.documents import (
    BODY_SCHEMA,
    BodyDocument,
    CropDocument,
    FormatDocument,
    ModeDocument,
    parse_body,
)
from hextan.store.documents import Documents, matched, prune
from hextan.store.models import Body, CropRule, InCameraCrop, RecordingFormat, ScanMode

#: Columns that stand in the document under the same name.
_BODY = ("key", "name", "maker", "mount", "firmware", "pitch_um", "free_windows", "write_mb_s", "buffer_gb",
         "eis", "base_eis", "highest_ei", "nd_stops", "zero_db_ei", "slots", "slot_use", "weight_kg", "size_mm")  # fmt: skip
_MODE = ("key", "name", "row_time_us", "overhead_us", "max_fps", "menu", "origins")
_FORMAT = ("key", "name", "codec", "bits", "samples", "compression", "megabits", "megabits_at_fps", "raw",
           "interlaced", "rates", "highest_fps", "needs", "from_firmware", "origins")  # fmt: skip

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
                    "always": crop.always,
                    "menu": crop.menu,
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
    modes = matched(row.modes, document.modes, ScanMode)
    for mode_row, mode in zip(modes, document.modes, strict=True):
        _apply_mode(mode_row, mode, document.pitch_um, formats)
    by_key = {mode.key: mode_row for mode, mode_row in zip(document.modes, modes, strict=True)}
    crops = matched(row.crops, document.crops, InCameraCrop)
    for crop_row, crop in zip(crops, document.crops, strict=True):
        _apply_crop(crop_row, crop, by_key)
    prune(row.crops)
    wanted = {f.key for mode in document.modes for f in mode.formats}
    prune(row.modes, [mode for mode in row.modes if any(f.key in wanted for f in mode.formats)])


def _apply_mode(
    row: ScanMode, mode: ModeDocument, pitch_um: float, formats: dict[str, RecordingFormat]
) -> None:
    plain = mode.model_dump(mode="json", include={"origins", "menu"})
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
    for format_row, f in zip(matched(row.formats, mode.formats, RecordingFormat), mode.formats, strict=True):
        _apply_format(format_row, f)
    prune(row.formats)


def _apply_format(row: RecordingFormat, document: FormatDocument) -> None:
    plain = document.model_dump(mode="json", include={"origins"})
    for name in _FORMAT:
        setattr(row, name, plain.get(name, getattr(document, name)))
    row.raster_w, row.raster_h = document.raster
    row.mapping = document.map


def _apply_crop(row: InCameraCrop, document: CropDocument, modes: dict[str, ScanMode]) -> None:
    row.lens, row.always = document.lens, document.always
    plain = document.model_dump(mode="json", include={"origins", "menu"})
    row.origins, row.menu = plain["origins"], plain["menu"]
    wanted = [(rule.mode, *(rule.aspect or (None, None)), rule.factor) for rule in document.rules]
    have = [(rule.mode.key, rule.aspect_w, rule.aspect_h, rule.factor) for rule in row.rules]
    if wanted != have:
        row.rules = [
            CropRule(position=i, mode=modes[key], aspect_w=w, aspect_h=h, factor=factor)
            for i, (key, w, h, factor) in enumerate(wanted)
        ]


BODIES = Documents(
    model=Body,
    what="body",
    whole=WHOLE,
    parent="bodies",
    link="catalogue_body_id",
    document_of=document_of,
    apply=apply_document,
    parse=lambda plain: parse_body(BODY_SCHEMA.stored(plain)),
)
