"""The tables: productions, everything that is written in them (`Document`), and what each row was before (`Revision`).

Constraints carry names (`NAMES`), so that migrations and error messages can speak of them. What a document may say is a rule of the
core's models (`hextan.store.kinds`); the tables hold where it stands.
"""

from __future__ import annotations

from datetime import date, datetime
from typing import Any
from uuid import UUID

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    MetaData,
    Text,
    UniqueConstraint,
    false,
    func,
    text,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

NAMES = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    """Base of all tables."""

    metadata = MetaData(naming_convention=NAMES)
    type_annotation_map = {str: Text(), int: BigInteger(), datetime: DateTime(timezone=True)}


class Production(Base):
    """A production: the unit of ownership. The catalogue is one of its own kind."""

    __tablename__ = "production"
    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    version: Mapped[int] = mapped_column()
    kind: Mapped[str] = mapped_column(default="production")
    name: Mapped[str]
    synopsis: Mapped[str] = mapped_column(default="")
    starts_on: Mapped[date | None]
    ends_on: Mapped[date | None]
    archived: Mapped[bool] = mapped_column(default=False, server_default=false())
    demo_key: Mapped[str | None] = mapped_column(unique=True)
    #: Under which key it was asked for: sent again, the same request makes no other.
    asked_key: Mapped[str | None] = mapped_column(unique=True)
    __mapper_args__ = {"version_id_col": version}
    __table_args__ = (
        CheckConstraint("name <> ''", name="name_given"),
        CheckConstraint("kind in ('production', 'catalogue')", name="kind_known"),
    )


class Document(Base):
    """A document of a production, or a row of one that is edited by itself: a scan mode of a body, a shot of the list.

    Triggers renew the production's stamp after every change, and keep what a row was before as a `Revision` (migration 0018).
    """

    __tablename__ = "document"
    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    #: By which addresses and other documents name it; unique among those of its kind.
    number: Mapped[int]
    production_id: Mapped[int] = mapped_column(ForeignKey("production.id", ondelete="CASCADE"))
    #: Of a row of a list its document's kind and the list: `body.modes`.
    kind: Mapped[str]
    #: Stays through copies, files and undo; empty where a production has one of the kind.
    key: Mapped[str]
    position: Mapped[int]
    version: Mapped[int]
    removed_at: Mapped[datetime | None]
    changed_at: Mapped[datetime] = mapped_column(server_default=func.now())
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)
    #: The row whose list it stands in, and the document that both belong to.
    parent_id: Mapped[int | None] = mapped_column(ForeignKey("document.id", ondelete="CASCADE"), index=True)
    root_id: Mapped[int | None] = mapped_column(ForeignKey("document.id", ondelete="CASCADE"), index=True)
    #: The catalogue's document that it was copied from, and what that one said then.
    source_id: Mapped[int | None] = mapped_column(ForeignKey("document.id", ondelete="SET NULL"), index=True)
    taken: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    __table_args__ = (
        CheckConstraint("jsonb_typeof(body) = 'object'", name="body_is_an_object"),
        CheckConstraint("(parent_id is null) = (root_id is null)", name="below_a_root"),
        CheckConstraint("version > 0", name="version_positive"),
        UniqueConstraint("kind", "number"),
        Index("ix_document_production_id_kind", "production_id", "kind"),
        Index(
            "uq_document_one_of_a_kind",
            "production_id",
            "kind",
            unique=True,
            postgresql_where=text("key = ''"),
        ),
        Index(
            "uq_document_entry_key",
            "production_id",
            "key",
            unique=True,
            postgresql_where=text("kind = 'log_entry'"),
        ),
        Index(
            "uq_document_key_below_root",
            "root_id",
            "kind",
            "key",
            unique=True,
            postgresql_where=text("removed_at is null and root_id is not null"),
        ),
    )


class Revision(Base):
    """What a row was before: the last two hundred of each, written by a trigger."""

    __tablename__ = "revision"
    document_id: Mapped[int] = mapped_column(
        ForeignKey("document.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    version: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    parent_id: Mapped[int | None]
    position: Mapped[int]
    removed_at: Mapped[datetime | None]
    changed_at: Mapped[datetime]
    body: Mapped[dict[str, Any]] = mapped_column(JSONB)


class EquipmentStamp(Base):
    """A stamp of each production, new after every change of its equipment; triggers write it (migration 0018)."""

    __tablename__ = "equipment_stamp"
    production_id: Mapped[int] = mapped_column(
        ForeignKey("production.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    stamp: Mapped[UUID]
    #: When the production or anything in it was last changed.
    changed_at: Mapped[datetime] = mapped_column(server_default=func.now())
