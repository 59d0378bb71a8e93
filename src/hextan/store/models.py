"""The tables. Every row belongs to a production; every row that people edit has a version number.

Constraints carry names (`NAMES`), so that migrations and error messages can speak of them.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import (
    BigInteger,
    CheckConstraint,
    DateTime,
    Double,
    ForeignKey,
    Identity,
    MetaData,
    Text,
    UniqueConstraint,
    false,
    func,
)
from sqlalchemy.dialects.postgresql import ARRAY, JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, declared_attr, mapped_column, relationship

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
    type_annotation_map = {str: Text(), int: BigInteger()}


class Versioned:
    """A row that people edit: a write based on an old version is refused."""

    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    version: Mapped[int]

    @declared_attr.directive
    def __mapper_args__(cls) -> dict[str, Any]:  # noqa: N805
        return {"version_id_col": cls.__table__.c.version}  # type: ignore[attr-defined]


class Positioned(Versioned):
    """A row that stands in an order of the user's."""

    position: Mapped[int]
    name: Mapped[str]


class Keyed(Positioned):
    """A row of a body's document: its key stays through copies; taken out, it is kept for undo."""

    key: Mapped[str]
    origins: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict)
    removed: Mapped[bool] = mapped_column(default=False, server_default=false())


def _owner(table: str) -> Mapped[int]:
    return mapped_column(ForeignKey(f"{table}.id", ondelete="CASCADE"), index=True)


def _positive(*columns: str) -> tuple[CheckConstraint, ...]:
    return tuple(CheckConstraint(f"{column} > 0", name=f"{column}_positive") for column in columns)


class Production(Versioned, Base):
    """A production: the unit of ownership. The catalogue is one of its own kind."""

    __tablename__ = "production"
    kind: Mapped[str] = mapped_column(default="production")
    name: Mapped[str]
    synopsis: Mapped[str] = mapped_column(default="")
    #: ISO days; empty where they are not known.
    starts_on: Mapped[str] = mapped_column(default="", server_default="")
    ends_on: Mapped[str] = mapped_column(default="", server_default="")
    archived: Mapped[bool] = mapped_column(default=False, server_default=false())
    settings: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict)
    demo_key: Mapped[str | None] = mapped_column(unique=True)
    #: Under which key it was asked for: sent again, the same request makes no other.
    asked_key: Mapped[str | None] = mapped_column(unique=True)
    bodies: Mapped[list[Body]] = relationship(order_by="Body.position", cascade="all, delete-orphan")
    lens_sets: Mapped[list[LensSet]] = relationship(order_by="LensSet.position", cascade="all, delete-orphan")
    rig: Mapped[Rig | None] = relationship(cascade="all, delete-orphan", uselist=False)
    __table_args__ = (
        CheckConstraint("name <> ''", name="name_given"),
        CheckConstraint("kind in ('production', 'catalogue')", name="kind_known"),
    )


class Body(Keyed, Base):
    """A camera body with its sensor; one taken from the catalogue knows from which body, and as what."""

    __tablename__ = "body"
    production_id: Mapped[int] = _owner("production")
    maker: Mapped[str]
    mount: Mapped[str]
    firmware: Mapped[str] = mapped_column(default="")
    photosites_w: Mapped[int]
    photosites_h: Mapped[int]
    pitch_um: Mapped[float]
    total_photosites_w: Mapped[int | None]
    total_photosites_h: Mapped[int | None]
    free_windows: Mapped[bool] = mapped_column(default=False)
    write_mb_s: Mapped[float | None]
    buffer_gb: Mapped[float | None]
    eis: Mapped[list[int]] = mapped_column(ARRAY(BigInteger), default=list)
    base_eis: Mapped[list[int]] = mapped_column(ARRAY(BigInteger), default=list)
    highest_ei: Mapped[int | None]
    zero_db_ei: Mapped[int | None]
    slots: Mapped[int] = mapped_column(default=1, server_default="1")
    slot_use: Mapped[str] = mapped_column(default="after", server_default="after")
    weight_kg: Mapped[float | None]
    size_mm: Mapped[list[float] | None] = mapped_column(ARRAY(Double))
    nd_stops: Mapped[list[float]] = mapped_column(ARRAY(Double), default=list)
    origin: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict)
    claims: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict)
    catalogue_body_id: Mapped[int | None] = mapped_column(
        ForeignKey("body.id", ondelete="SET NULL"), index=True
    )
    taken: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    modes: Mapped[list[ScanMode]] = relationship(order_by="ScanMode.position", cascade="all, delete-orphan")
    crops: Mapped[list[InCameraCrop]] = relationship(
        order_by="InCameraCrop.position", cascade="all, delete-orphan"
    )
    __table_args__ = (
        *_positive("photosites_w", "photosites_h", "pitch_um", "total_photosites_w", "total_photosites_h"),
        *_positive("write_mb_s", "buffer_gb", "highest_ei", "zero_db_ei", "slots", "weight_kg"),
        CheckConstraint("slot_use in ('after', 'both', 'proxy')", name="slot_use_known"),
    )


class ScanMode(Keyed, Base):
    """Which photosites are read, how they are sampled, and how fast."""

    __tablename__ = "scan_mode"
    body_id: Mapped[int] = _owner("body")
    window_w: Mapped[int]
    window_h: Mapped[int]
    #: As entered in millimetres; window_w and window_h are then rounded from it.
    window_w_mm: Mapped[float | None]
    window_h_mm: Mapped[float | None]
    offset_x: Mapped[int] = mapped_column(default=0)
    offset_y: Mapped[int] = mapped_column(default=0)
    sampling_h: Mapped[int] = mapped_column(default=1)
    sampling_v: Mapped[int] = mapped_column(default=1)
    method_h: Mapped[str] = mapped_column(default="full")
    method_v: Mapped[str] = mapped_column(default="full")
    row_time_us: Mapped[float | None]
    overhead_us: Mapped[float] = mapped_column(default=0.0)
    max_fps: Mapped[float | None]
    menu: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict, server_default="{}")
    formats: Mapped[list[RecordingFormat]] = relationship(
        order_by="RecordingFormat.position", cascade="all, delete-orphan"
    )
    __table_args__ = (
        *_positive("window_w", "window_h", "window_w_mm", "window_h_mm", "sampling_h", "sampling_v"),
        *_positive("row_time_us", "max_fps"),
        UniqueConstraint("body_id", "key"),
        CheckConstraint("overhead_us >= 0", name="overhead_us_not_negative"),
        CheckConstraint("method_h in ('full', 'binned', 'skipped')", name="method_h_known"),
        CheckConstraint("method_v in ('full', 'binned', 'skipped')", name="method_v_known"),
        CheckConstraint("method_h <> 'full' or sampling_h = 1", name="full_reads_all_across"),
        CheckConstraint("method_v <> 'full' or sampling_v = 1", name="full_reads_all_down"),
    )


class RecordingFormat(Keyed, Base):
    """What is recorded of a scan mode's window. Rates are exact fractions (or ranges), frames a second."""

    __tablename__ = "recording_format"
    scan_mode_id: Mapped[int] = _owner("scan_mode")
    raster_w: Mapped[int]
    raster_h: Mapped[int]
    mapping: Mapped[str] = mapped_column(default="scale")
    codec: Mapped[str]
    bits: Mapped[int | None]
    raw: Mapped[bool] = mapped_column(default=False)
    interlaced: Mapped[bool] = mapped_column(default=False)
    rates: Mapped[list[str]] = mapped_column(ARRAY(Text))
    highest_fps: Mapped[float | None]
    needs: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list, server_default="{}")
    from_firmware: Mapped[str | None]
    samples: Mapped[str | None]
    compression: Mapped[float | None]
    megabits: Mapped[float | None]
    megabits_at_fps: Mapped[float | None]
    __table_args__ = (
        *_positive("raster_w", "raster_h", "highest_fps", "compression", "megabits", "megabits_at_fps"),
        UniqueConstraint("scan_mode_id", "key"),
        CheckConstraint("samples in ('raw', '4:2:0', '4:2:2', '4:4:4')", name="samples_known"),
        CheckConstraint("mapping in ('scale', 'crop')", name="mapping_known"),
        CheckConstraint("bits between 1 and 32", name="bits_possible"),
        CheckConstraint("cardinality(rates) > 0", name="some_rate"),
    )


class InCameraCrop(Keyed, Base):
    """A crop that the body can switch on, or that is always on; it never acts on raw."""

    __tablename__ = "in_camera_crop"
    body_id: Mapped[int] = _owner("body")
    lens: Mapped[str] = mapped_column(default="any")
    always: Mapped[bool] = mapped_column(default=False, server_default=false())
    menu: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict, server_default="{}")
    rules: Mapped[list[CropRule]] = relationship(order_by="CropRule.position", cascade="all, delete-orphan")
    __table_args__ = (
        UniqueConstraint("body_id", "key"),
        CheckConstraint("lens in ('any', 'spherical', 'short_circle', 'corrected')", name="lens_known"),
    )


class CropRule(Base):
    """In which scan mode, for which raster aspect, a crop can be switched on, and with which factor."""

    __tablename__ = "crop_rule"
    id: Mapped[int] = mapped_column(Identity(), primary_key=True)
    crop_id: Mapped[int] = _owner("in_camera_crop")
    scan_mode_id: Mapped[int] = _owner("scan_mode")
    position: Mapped[int]
    aspect_w: Mapped[int | None]
    aspect_h: Mapped[int | None]
    factor: Mapped[float]
    mode: Mapped[ScanMode] = relationship()
    __table_args__ = (
        *_positive("aspect_w", "aspect_h"),
        CheckConstraint("factor >= 1", name="factor_crops"),
        CheckConstraint("(aspect_w is null) = (aspect_h is null)", name="aspect_whole"),
    )


class LensSet(Keyed, Base):
    """Lenses that belong together; a set taken from the catalogue knows from which, and as what."""

    __tablename__ = "lens_set"
    production_id: Mapped[int] = _owner("production")
    maker: Mapped[str]
    note: Mapped[str] = mapped_column(default="")
    origin: Mapped[dict[str, Any]] = mapped_column(JSONB, default=dict)
    catalogue_lens_set_id: Mapped[int | None] = mapped_column(
        ForeignKey("lens_set.id", ondelete="SET NULL"), index=True
    )
    taken: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    lenses: Mapped[list[Lens]] = relationship(order_by="Lens.position", cascade="all, delete-orphan")


class Lens(Keyed, Base):
    """A prime (equal ends) or a zoom."""

    __tablename__ = "lens"
    lens_set_id: Mapped[int] = _owner("lens_set")
    focal_mm: Mapped[float]
    focal_long_mm: Mapped[float | None]
    f_number: Mapped[float | None]
    t_stop: Mapped[float | None]
    f_number_long: Mapped[float | None]
    t_stop_long: Mapped[float | None]
    image_circle_mm: Mapped[float | None]
    #: A table instead of one circle: what it is along, and its rows.
    circle_by: Mapped[str | None]
    circles: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, default=list)
    squeeze: Mapped[float] = mapped_column(default=1.0)
    close_focus_m: Mapped[float | None]
    mount: Mapped[str]
    designed_for: Mapped[str | None]
    projection: Mapped[str] = mapped_column(default="rectilinear")
    pupil_magnification: Mapped[float] = mapped_column(default=1.0)
    breathing_percent: Mapped[float | None]
    front_mm: Mapped[float | None]
    length_mm: Mapped[float | None]
    weight_kg: Mapped[float | None]
    correction: Mapped[float | None]
    correction_long: Mapped[float | None]
    iris: Mapped[str] = mapped_column(default="ring")
    data_link: Mapped[str] = mapped_column(default="")
    __table_args__ = (
        *_positive("focal_mm", "f_number", "t_stop", "f_number_long", "t_stop_long", "image_circle_mm"),
        *_positive("squeeze", "pupil_magnification", "close_focus_m", "front_mm", "length_mm", "weight_kg"),
        CheckConstraint("correction >= 1", name="correction_crops"),
        CheckConstraint("correction_long >= 1", name="correction_long_crops"),
        UniqueConstraint("lens_set_id", "key"),
        CheckConstraint("focal_long_mm > focal_mm", name="focal_range_ordered"),
        CheckConstraint("f_number is not null or t_stop is not null", name="some_aperture"),
        CheckConstraint("circle_by in ('focal', 'stop', 'focus')", name="circle_by_known"),
        CheckConstraint("iris in ('ring', 'body', 'either')", name="iris_known"),
        CheckConstraint(
            "projection in ('rectilinear', 'equidistant', 'equisolid', 'stereographic', 'orthographic')",
            name="projection_known",
        ),
    )


class Rig(Versioned, Base):
    """Mounts, adapters and filters of a production: one document."""

    __tablename__ = "rig"
    production_id: Mapped[int] = mapped_column(
        ForeignKey("production.id", ondelete="CASCADE"), index=True, unique=True
    )
    #: Moves the version when only rows below it changed.
    edits: Mapped[int] = mapped_column(default=0)
    mounts: Mapped[list[Mount]] = relationship(order_by="Mount.position", cascade="all, delete-orphan")
    adapters: Mapped[list[Adapter]] = relationship(order_by="Adapter.position", cascade="all, delete-orphan")
    filters: Mapped[list[NdFilter]] = relationship(order_by="NdFilter.position", cascade="all, delete-orphan")
    pairs: Mapped[list[PairNote]] = relationship(order_by="PairNote.position", cascade="all, delete-orphan")


class Mount(Keyed, Base):
    """A lens mount."""

    __tablename__ = "mount"
    rig_id: Mapped[int] = _owner("rig")
    flange_mm: Mapped[float | None]
    throat_mm: Mapped[float | None]
    note: Mapped[str] = mapped_column(default="")
    __table_args__ = (*_positive("flange_mm", "throat_mm"), UniqueConstraint("rig_id", "key"))


class Adapter(Keyed, Base):
    """What goes between lens and body."""

    __tablename__ = "adapter"
    rig_id: Mapped[int] = _owner("rig")
    magnification: Mapped[float] = mapped_column(default=1.0)
    lens_mount: Mapped[str]
    body_mount: Mapped[str]
    transmission: Mapped[float] = mapped_column(default=1.0)
    glass: Mapped[bool] = mapped_column(default=False)
    classes: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    passes_iris: Mapped[bool] = mapped_column(default=True)
    passes_data: Mapped[bool] = mapped_column(default=True)
    __table_args__ = (
        *_positive("magnification", "transmission"),
        UniqueConstraint("rig_id", "key"),
        CheckConstraint("transmission <= 1", name="transmission_loses"),
    )


class NdFilter(Keyed, Base):
    """A neutral density filter that goes in front of any lens."""

    __tablename__ = "nd_filter"
    rig_id: Mapped[int] = _owner("rig")
    stops: Mapped[float]
    count: Mapped[int]
    __table_args__ = (*_positive("stops", "count"), UniqueConstraint("rig_id", "key"))


class PairNote(Keyed, Base):
    """What is known of a lens, or of a whole set, on one body; all three by their names."""

    __tablename__ = "pair_note"
    rig_id: Mapped[int] = _owner("rig")
    body: Mapped[str]
    note: Mapped[str]
    __table_args__ = (
        UniqueConstraint("rig_id", "key"),
        CheckConstraint("note <> ''", name="note_given"),
    )


class Comparison(Versioned, Base):
    """Set-ups side by side: a document with schema name and version."""

    __tablename__ = "comparison"
    production_id: Mapped[int] = _owner("production")
    position: Mapped[int]
    removed: Mapped[bool] = mapped_column(default=False, server_default=false())
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)


class ShotsRow(Versioned, Base):
    """The list of shots of a production: a document with schema name and version."""

    __tablename__ = "shots"
    production_id: Mapped[int] = _owner("production")
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)
    __table_args__ = (UniqueConstraint("production_id"),)


class PackingRow(Versioned, Base):
    """What is said of packing, and the kits that are asked for: a document with schema name and version."""

    __tablename__ = "packing"
    production_id: Mapped[int] = _owner("production")
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)
    __table_args__ = (UniqueConstraint("production_id"),)


class SheetsRow(Versioned, Base):
    """The sheets that are printed, in bundles: a document with schema name and version."""

    __tablename__ = "sheets"
    production_id: Mapped[int] = _owner("production")
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)
    __table_args__ = (UniqueConstraint("production_id"),)


class SetRow(Versioned, Base):
    """What the page of the set keeps: cameras that are listened to. A document with schema name and version."""

    __tablename__ = "set_settings"
    production_id: Mapped[int] = _owner("production")
    document: Mapped[dict[str, Any]] = mapped_column(JSONB)
    __table_args__ = (UniqueConstraint("production_id"),)


class LogRow(Versioned, Base):
    """An entry of the log under the key that was made where it was written; its version is its revision."""

    __tablename__ = "log_entry"
    production_id: Mapped[int] = _owner("production")
    key: Mapped[str]
    entry: Mapped[dict[str, Any]] = mapped_column(JSONB)
    #: As it stood before, the oldest first.
    before: Mapped[list[dict[str, Any]]] = mapped_column(JSONB, default=list)
    __table_args__ = (UniqueConstraint("production_id", "key"),)


class EquipmentStamp(Base):
    """A stamp of each production, new after every change of its equipment; triggers write it (migration 0006)."""

    __tablename__ = "equipment_stamp"
    production_id: Mapped[int] = mapped_column(
        ForeignKey("production.id", ondelete="CASCADE"), primary_key=True, autoincrement=False
    )
    stamp: Mapped[UUID]
    #: When the production, its equipment, its Bench or a comparison was last changed.
    changed_at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())


class BenchRow(Versioned, Base):
    """What the Bench of a production is set to: a document with schema name and version."""

    __tablename__ = "bench"
    production_id: Mapped[int] = _owner("production")
    schema_name: Mapped[str]
    schema_version: Mapped[int]
    state: Mapped[dict[str, Any]] = mapped_column(JSONB)
    __table_args__ = (UniqueConstraint("production_id"),)
