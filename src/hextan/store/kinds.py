"""The kinds of documents that a production has, a row each: what is kept, copied, exported and undone follows from it."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from hextan.core.base import Plain, Schema
from hextan.core.bench import BENCH_SCHEMA, BenchState, parse_state
from hextan.core.compare import COMPARISON_SCHEMA, Comparison, parse_comparison
from hextan.core.documents import (
    BODY_SCHEMA,
    LENS_SET_SCHEMA,
    RIG_SCHEMA,
    BodyDocument,
    LensSetDocument,
    RigDocument,
    parse_body,
    parse_lens_set,
    parse_rig,
)
from hextan.core.equipment import (
    PLAN_SCHEMA,
    SETTINGS_SCHEMA,
    PackageSettings,
    ThePlan,
    parse_plan,
    parse_settings,
)
from hextan.core.packing import PACKING_SCHEMA, Packing, parse_packing
from hextan.core.record import SET_SCHEMA, SetSettings, parse_set
from hextan.core.sheets import SHEETS_SCHEMA, Sheets, parse_sheets
from hextan.core.shots import SHOTS_SCHEMA, ShotList, parse_shots
from hextan.store.keeper import Equipment, Kind, Many, One


def _no_bench() -> BenchState:
    """What a Bench is first set to depends on the equipment: `hextan.store.repositories.read_bench`."""
    raise AssertionError("a Bench that is not kept yet is asked for")


def _with_version(state: BenchState) -> Plain:
    """The Bench says its version beside its state."""
    head = {"schema": BENCH_SCHEMA.name, "schema_version": BENCH_SCHEMA.version}
    return {**head, "state": state.model_dump(mode="json")}


def _state_of(schema: Schema, plain: Plain) -> Plain:
    # What a client is refused with carries the state alone.
    return schema.newest(plain["state"], plain["schema_version"])


BODIES: Equipment[BodyDocument] = Equipment(
    "body", BodyDocument, BODY_SCHEMA, parse_body, lambda body: f"{body.name} was"
)
LENS_SETS: Equipment[LensSetDocument] = Equipment(
    "lens_set", LensSetDocument, LENS_SET_SCHEMA, parse_lens_set, lambda kit: f"{kit.name} was"
)
COMPARISONS: Many[Comparison] = Many(
    "comparison", Comparison, COMPARISON_SCHEMA, parse_comparison, lambda c: f"Comparison {c.name} was"
)
RIG: One[RigDocument] = One(
    "rig",
    RigDocument,
    RIG_SCHEMA,
    parse_rig,
    lambda _: "Mounts and adapters were",
    empty=lambda: parse_rig({}),
)
SETTINGS: One[PackageSettings] = One(
    "settings", PackageSettings, SETTINGS_SCHEMA, parse_settings, lambda _: "The settings were", "settings",
    empty=PackageSettings,
)  # fmt: skip
BENCH: One[BenchState] = One(
    "bench", BenchState, BENCH_SCHEMA, parse_state, lambda _: "The Bench was", "state", _with_version, _state_of, empty=_no_bench
)  # fmt: skip
SHOTS: One[ShotList] = One(
    "shots", ShotList, SHOTS_SCHEMA, parse_shots, lambda _: "The list of shots was", empty=ShotList
)
PACKING: One[Packing] = One(
    "packing", Packing, PACKING_SCHEMA, parse_packing, lambda _: "The packing was", empty=Packing
)
PLAN: One[ThePlan] = One("plan", ThePlan, PLAN_SCHEMA, parse_plan, lambda _: "The plan was", empty=ThePlan)
SHEETS: One[Sheets] = One(
    "sheets", Sheets, SHEETS_SCHEMA, parse_sheets, lambda _: "The sheets were", empty=Sheets
)
SET: One[SetSettings] = One(
    "set", SetSettings, SET_SCHEMA, parse_set, lambda _: "What the set listens to was", empty=SetSettings
)
#: An entry of the log is written by `hextan.store.log`: sent again, it is kept once.
KINDS: tuple[Kind[Any], ...] = (
    BODIES,
    LENS_SETS,
    RIG,
    SETTINGS,
    BENCH,
    COMPARISONS,
    SHOTS,
    PACKING,
    PLAN,
    SHEETS,
    SET,
)


def kind_named(name: str) -> Kind[BaseModel] | None:
    """The kind of a name; None where there is none."""
    return next((kind for kind in KINDS if kind.name == name), None)
