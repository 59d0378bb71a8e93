"""A whole production as one document: everything that hangs below it, checked completely before anything is kept."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, model_validator

from hextan.core.base import Day, Fault, InvalidInputError, Name, Part, Schema, parser_of
from hextan.core.bench import BENCH_SCHEMA, BenchState
from hextan.core.compare import COMPARISON_SCHEMA, Comparison
from hextan.core.documents import (
    BODY_SCHEMA,
    LENS_SET_SCHEMA,
    RIG_SCHEMA,
    BodyDocument,
    LensSetDocument,
    RigDocument,
    check_body,
    check_lens_set,
    check_rig,
)
from hextan.core.equipment import PLAN_SCHEMA, SETTINGS_SCHEMA, PackageSettings, ThePlan
from hextan.core.packing import PACKING_SCHEMA, Packing
from hextan.core.production.numbers import GONE, counted
from hextan.core.record import LOG_SCHEMA, SET_SCHEMA, Log, SetSettings
from hextan.core.sheets import SHEETS_SCHEMA, Sheets
from hextan.core.shots import SHOTS_SCHEMA, ShotList

PRODUCTION_SCHEMA = Schema("hextan.production", 1)
#: Bodies, lens sets or comparisons of one production.
MOST_OF_A_KIND = 300

Synopsis = Annotated[str, Field(max_length=2000)]


class ProductionFacts(Part):
    """What is said of a production itself. Days are ISO dates, or empty where they are not known."""

    name: Name
    synopsis: Synopsis = ""
    starts_on: Day = ""
    ends_on: Day = ""

    @model_validator(mode="after")
    def _in_order(self) -> ProductionFacts:
        if self.starts_on and self.ends_on and self.ends_on < self.starts_on:
            raise ValueError("ends_on is before starts_on")
        return self


class BodyItem(Part):
    """A body of a production."""

    document: BodyDocument
    #: As it was when it was taken from the catalogue; none for one of its own.
    taken: BodyDocument | None = None
    removed: bool = False


class LensSetItem(Part):
    """A lens set of a production."""

    document: LensSetDocument
    taken: LensSetDocument | None = None
    removed: bool = False


class BenchItem(Part):
    """What the Bench is set to."""

    schema_version: Literal[1] = 1
    state: BenchState


class ComparisonItem(Part):
    """A comparison of a production."""

    document: Comparison
    removed: bool = False


class ProductionDocument(ProductionFacts):
    """A whole production. What names rows goes by their places (`core.production.numbers`)."""

    schema_name: Literal["hextan.production"] = Field("hextan.production", alias="schema")
    schema_version: Literal[1] = 1
    settings: PackageSettings = PackageSettings()
    bodies: Annotated[list[BodyItem], Field(max_length=MOST_OF_A_KIND)] = []
    lens_sets: Annotated[list[LensSetItem], Field(max_length=MOST_OF_A_KIND)] = []
    rig: RigDocument = RigDocument()
    #: None where nothing was set on it yet.
    bench: BenchItem | None = None
    comparisons: Annotated[list[ComparisonItem], Field(max_length=MOST_OF_A_KIND)] = []
    shots: ShotList = ShotList()
    packing: Packing = Packing()
    plan: ThePlan = ThePlan()
    sheets: Sheets = Sheets()
    log: Log = Log()
    #: Cameras that are listened to; `set` is a word of Python's.
    set_settings: SetSettings = SetSettings()

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)


def _check(document: ProductionDocument, field: str = "") -> None:
    """Refuse what a document must not combine, and numbers of rows that it does not have; tell every fault."""
    prefix = f"{field}." if field else ""
    faults = [Fault(prefix + at, number, rule) for at, number, rule in _nameless(document)]
    more = 0
    checks: list[tuple[Any, Any, str]] = [
        *((check_body, item.document, f"bodies[{i}].document") for i, item in enumerate(document.bodies)),
        *((check_lens_set, item.document, f"lens_sets[{i}].document") for i, item in enumerate(document.lens_sets)),
        (check_rig, document.rig, "rig"),
    ]  # fmt: skip
    for check, part, at in checks:
        try:
            check(part, prefix + at)
        except InvalidInputError as error:
            faults += error.faults
            more += error.more
    if faults:
        raise InvalidInputError.of(*faults, more=more)


def _nameless(document: ProductionDocument) -> Iterator[tuple[str, int, str]]:
    """What is named by a number that no row of the document has."""
    rows = counted(
        (b.document for b in document.bodies), (s.document for s in document.lens_sets), document.rig
    )
    kinds = {"format_id": "formats", "lens_id": "lenses", "adapter_id": "adapters",
             "second_adapter_id": "adapters", "crop_ids": "crops", "pinned": "formats",
             "lens_ids": "lenses", "format_ids": "formats"}  # fmt: skip

    def named(part: Any, at: str) -> Iterator[tuple[str, int, str]]:
        for name, kind in kinds.items():
            value = getattr(part, name, None)
            for number in value if isinstance(value, list) else [value]:
                if number is not None and number != GONE and number > len(rows[kind]):
                    yield f"{at}.{name}", number, f"names one of {len(rows[kind])} {kind}"
        mode = getattr(getattr(part, "reference", None), "scan_mode_id", None)
        if mode is not None and mode != GONE and mode > len(rows["modes"]):
            yield f"{at}.reference.scan_mode_id", mode, f"names one of {len(rows['modes'])} modes"

    if document.bench is not None:
        yield from named(document.bench.state, "bench.state")
    for b, bundle in enumerate(document.sheets.bundles):
        for i, sheet in enumerate(bundle.sheets):
            yield from named(sheet, f"sheets.bundles[{b}].sheets[{i}]")
    for i, item in enumerate(document.comparisons):
        yield from named(item.document, f"comparisons[{i}].document")
        for k, column in enumerate(item.document.columns):
            yield from named(column, f"comparisons[{i}].document.columns[{k}]")


_parse = parser_of(ProductionDocument, then=_check)


def parse_production(plain: Any, field: str = "") -> ProductionDocument:
    """Read a production that somebody sends: whatever an older Hextan wrote in it is brought up first.

    Raises
    ------
    InvalidInputError
        Another schema, a newer version, and whatever is wrong in any part of it, each with its place.
    """
    document = dict(PRODUCTION_SCHEMA.foreign(plain, field))
    faults: list[Fault] = []

    def upgraded(schema: Schema, item: Any, at: str) -> Any:
        try:
            return schema.foreign(item, at)
        except InvalidInputError as error:
            faults.extend(error.faults)
            return item

    def each(name: str, schema: Schema, parts: tuple[str, ...]) -> None:
        items = document.get(name)
        if not isinstance(items, list):
            return
        # A list that is too long is refused for its length, not walked through.
        document[name] = items if len(items) > MOST_OF_A_KIND else [
            {key: upgraded(schema, part, f"{name}[{i}].{key}") if key in parts and part is not None else part
             for key, part in item.items()} if isinstance(item, dict) else item
            for i, item in enumerate(items)
        ]  # fmt: skip

    each("bodies", BODY_SCHEMA, ("document", "taken"))
    each("lens_sets", LENS_SET_SCHEMA, ("document", "taken"))
    each("comparisons", COMPARISON_SCHEMA, ("document",))
    if document.get("rig") is not None:
        document["rig"] = upgraded(RIG_SCHEMA, document["rig"], "rig")
    for name, schema in (("shots", SHOTS_SCHEMA), ("packing", PACKING_SCHEMA), ("plan", PLAN_SCHEMA), ("sheets", SHEETS_SCHEMA),
                         ("log", LOG_SCHEMA), ("set_settings", SET_SCHEMA)):  # fmt: skip
        if document.get(name) is not None:
            document[name] = upgraded(schema, document[name], name)
    settings, bench = document.get("settings"), document.get("bench")
    if isinstance(settings, dict) and settings.get("schema_version") in SETTINGS_SCHEMA.steps:
        document["settings"] = SETTINGS_SCHEMA.stored(settings)
    if isinstance(bench, dict) and bench.get("schema_version") in BENCH_SCHEMA.steps:
        state = BENCH_SCHEMA.newest(bench.get("state") or {}, bench["schema_version"])
        document["bench"] = {"schema_version": BENCH_SCHEMA.version, "state": state}
    try:
        read = _parse(document, field)
    except InvalidInputError as error:
        foreign = tuple(fault.field.removesuffix(".schema") for fault in faults)
        rest = (
            [fault for fault in error.faults if not fault.field.startswith(foreign)]
            if foreign
            else error.faults
        )
        raise InvalidInputError.of(*faults, *rest, more=error.more) from None
    if faults:
        raise InvalidInputError.of(*faults)
    return read
