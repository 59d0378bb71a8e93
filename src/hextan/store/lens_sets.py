"""Lens sets as documents in the database: rows on one side, the document on the other."""

from __future__ import annotations

from sqlalchemy.orm import selectinload

from hextan.core.documents import LENS_SET_SCHEMA, LensDocument, LensSetDocument, parse_lens_set
from hextan.store.documents import Documents, matched, prune
from hextan.store.models import Lens, LensSet

#: Columns that stand in the document under the same name.
_SET = ("key", "name", "maker", "note")
_LENS = tuple(name for name in LensDocument.model_fields if name not in ("origins", "circles"))
WHOLE = (selectinload(LensSet.lenses),)


def document_of(row: LensSet) -> LensSetDocument:
    """Write a set's rows as a document."""
    return LensSetDocument.model_validate(
        {name: getattr(row, name) for name in (*_SET, "origin", "origins")}
        | {
            "lenses": [
                {name: getattr(lens, name) for name in (*_LENS, "origins", "circles")}
                for lens in row.lenses
                if not lens.removed
            ]
        }
    )


def apply_document(row: LensSet, document: LensSetDocument) -> None:
    """Make a set's rows say what the document says; lenses that it leaves out are kept as removed."""
    plain = document.model_dump(mode="json")
    for name in (*_SET, "origin", "origins"):
        setattr(row, name, plain[name])
    lenses = matched(row.lenses, document.lenses, Lens)
    prune(row.lenses)
    for lens_row, lens in zip(lenses, plain["lenses"], strict=True):
        for name in (*_LENS, "origins", "circles"):
            setattr(lens_row, name, lens[name])


LENS_SETS = Documents(
    model=LensSet,
    what="lens set",
    whole=WHOLE,
    parent="lens_sets",
    link="catalogue_lens_set_id",
    document_of=document_of,
    apply=apply_document,
    parse=lambda plain: parse_lens_set(LENS_SET_SCHEMA.stored(plain)),
)
