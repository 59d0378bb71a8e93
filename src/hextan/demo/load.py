"""Load the invented catalogue and production once; a second start finds them there."""

from __future__ import annotations

import json
from importlib.resources import files
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.bench import BenchState, Scene
from hextan.core.compare import Column, Comparison
from hextan.core.documents import catalogue, parse_body, parse_lens_set, parse_rig
from hextan.core.equipment import parse_settings
from hextan.core.evaluation import BenchDelivery
from hextan.core.packing import parse_packing
from hextan.core.record import parse_log, parse_set
from hextan.core.sheets import parse_sheets
from hextan.core.shots import parse_shots
from hextan.store import comparisons, log, rigs
from hextan.store.bodies import BODIES
from hextan.store.documents import Documents
from hextan.store.lens_sets import LENS_SETS
from hextan.store.models import Body, LensSet, Production
from hextan.store.repositories import DEMO_KEY, DEMO_SHELF, save_bench, shelf_of
from hextan.store.single import PACKING, SET, SHEETS, SHOTS


def load_demo(session: Session) -> bool:
    """Load *Low Water* unless it is there, and the catalogue's bodies when it has none; commit.

    Returns
    -------
    Whether the production was loaded now.
    """
    kept_bodies, kept_sets = _load_catalogue(session)
    if demo(session) is not None:
        return False
    data = _read("low_water.json")
    production = Production(name=data["name"], synopsis=data["synopsis"], demo_key=DEMO_KEY)
    production.settings = parse_settings(data["settings"]).model_dump(mode="json")
    session.add(production)
    session.flush()
    taken = {row.name: BODIES.copy_from_catalogue(session, production, row)
             for name in data["takes"] for row in kept_bodies if row.name == name}  # fmt: skip
    for name in data["takes_lens_sets"]:
        for row in kept_sets:
            if row.name == name:
                LENS_SETS.copy_from_catalogue(session, production, row)
    rigs.save_rig(session, production.id, 0, parse_rig(data["rig"]))
    _change_later(kept_bodies, kept_sets)
    session.flush()
    bench = _first_bench(session, production, taken, data["bench"])
    save_bench(session, production.id, 0, bench)
    comparisons.add(session, production.id, _comparison(production, taken, bench, data["comparison"]))
    SHOTS.save(session, production.id, 0, parse_shots({"schema": "hextan.shots", "shots": data["shots"]}))
    PACKING.save(session, production.id, 0, parse_packing(data["packing"]))
    SHEETS.save(session, production.id, 0, parse_sheets(data["sheets"]))
    SET.save(session, production.id, 0, parse_set(data["set_settings"]))
    log.add_log(session, production.id, parse_log(data["log"]))
    session.commit()
    return True


def demo(session: Session) -> Production | None:
    """Find the demo's production."""
    return session.scalars(select(Production).where(Production.demo_key == DEMO_KEY)).one_or_none()


def reset_demo(session: Session) -> Production:
    """Load the demo as it begins, and put away the one that was there, with its shelf; commit."""
    there = demo(session)
    if there is not None:
        there.demo_key, there.archived = None, True
        there.name = f"{there.name[:60]} (before its reset)"
        shelf_of(session, DEMO_SHELF).demo_key = None
        session.flush()
    load_demo(session)
    found = demo(session)
    assert found is not None
    return found


def _read(name: str) -> dict[str, Any]:
    return dict(json.loads(files("hextan.demo").joinpath(name).read_text(encoding="utf-8")))


def _load_catalogue(session: Session) -> tuple[list[Body], list[LensSet]]:
    shelf, data = shelf_of(session, DEMO_SHELF), _read("catalogue.json")
    kept_bodies = BODIES.every(session, shelf.id)
    if not kept_bodies and not BODIES.every(session, shelf.id, removed=True):
        kept_bodies = [BODIES.add(session, shelf, parse_body(document)) for document in data["bodies"]]
    kept_sets = LENS_SETS.every(session, shelf.id)
    if not kept_sets and not LENS_SETS.every(session, shelf.id, removed=True):
        kept_sets = [
            LENS_SETS.add(session, shelf, parse_lens_set(document)) for document in data["lens_sets"]
        ]
    if shelf.rig is None:
        rigs.save_rig(session, shelf.id, 0, parse_rig(_read("low_water.json")["rig"]))
    session.commit()
    return kept_bodies, kept_sets


def _change_later(kept_bodies: list[Body], kept_sets: list[LensSet]) -> None:
    """What makers changed after the production took its copies: the Package shows it side by side."""
    for later in _read("catalogue.json")["later"]:
        kind: Documents[Any, Any] = BODIES if "body" in later else LENS_SETS
        kept: list[Any] = [*kept_bodies] if "body" in later else [*kept_sets]
        name = later.get("body") or later["lens_set"]
        row = next((row for row in kept if row.name == name), None)
        if row is None:
            continue
        plain = kind.document_of(row).model_dump(mode="json")
        for change in later["changes"]:
            told = {"where": "", "kind": "changed", "taken": None, "here": None} | change
            plain = catalogue.apply(plain, catalogue.Change(**told))
        kind.apply(row, kind.parse(plain))


def _comparison(
    production: Production, taken: dict[str, Body], bench: BenchState, data: dict[str, Any]
) -> Comparison:
    """The demo's cameras beside one another, each with a lens of its own mount."""
    lenses = {lens.name: lens.id for kit in production.lens_sets for lens in kit.lenses}
    columns = []
    for i, told in enumerate(data["columns"]):
        formats = {f.name: f.id for mode in taken[told["body"]].modes for f in mode.formats}
        columns.append(
            Column(
                key=f"demo{i}",
                label=told["label"],
                format_id=formats[told["format"]],
                lens_id=lenses[told["lens"]],
                stop=told["stop"],
                subject_m=data["subject_m"],
            )
        )
    return Comparison(
        name=data["name"], columns=columns, delivery=bench.delivery, scene=bench.scene, lux=bench.light.lux
    )


def _first_bench(
    session: Session, production: Production, taken: dict[str, Body], data: dict[str, Any]
) -> BenchState:
    """Set the Bench of the demo as the story begins: a close-up on the ferry's deck."""
    body = taken[data["body"]]
    formats = {f.name: f.id for mode in body.modes for f in mode.formats}
    lenses = {lens.name: lens.id for kit in production.lens_sets for lens in kit.lenses}
    rig = rigs.find_rig(session, production.id)
    adapters = {} if rig is None else {a.name: a.id for a in rig.adapters}
    return BenchState(
        format_id=formats[data["format"]],
        lens_id=lenses[data["lens"]],
        adapter_id=adapters[data["adapter"]],
        stop=data["stop"],
        subject_m=data["subject_m"],
        pinned=[formats[name] for name in data["pinned"]],
        delivery=BenchDelivery(**data["delivery"]),
        scene=Scene.model_validate(data["scene"]),
    )
