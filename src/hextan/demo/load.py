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
from hextan.store import log
from hextan.store.keeper import Equipment, Kept
from hextan.store.kinds import (
    BENCH,
    BODIES,
    COMPARISONS,
    LENS_SETS,
    PACKING,
    RIG,
    SET,
    SETTINGS,
    SHEETS,
    SHOTS,
)
from hextan.store.models import Production
from hextan.store.repositories import DEMO_KEY, DEMO_SHELF, shelf_of

Numbers = dict[str, int]


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
    session.add(production)
    session.flush()
    here = production.id
    SETTINGS.put(session, here, parse_settings(data["settings"]))
    taken = {kept.document.name: BODIES.copy_from_catalogue(session, here, kept)
             for name in data["takes"] for kept in kept_bodies if kept.document.name == name}  # fmt: skip
    lenses: Numbers = {}
    for name in data["takes_lens_sets"]:
        for kept in kept_sets:
            if kept.document.name == name:
                lenses |= _named(LENS_SETS.copy_from_catalogue(session, here, kept))
    RIG.put(session, here, parse_rig(data["rig"]))
    _change_later(session, kept_bodies, kept_sets)
    rig = RIG.find(session, here)
    assert rig is not None
    formats = {name: _named(body) for name, body in taken.items()}
    bench = _first_bench(formats, lenses, _named(rig), data["bench"])
    BENCH.put(session, here, bench)
    COMPARISONS.add(session, here, _comparison(formats, lenses, bench, data["comparison"]))
    SHOTS.put(session, here, parse_shots({"schema": "hextan.shots", "shots": data["shots"]}))
    PACKING.put(session, here, parse_packing(data["packing"]))
    SHEETS.put(session, here, parse_sheets(data["sheets"]))
    SET.put(session, here, parse_set(data["set_settings"]))
    log.add_log(session, here, parse_log(data["log"]))
    session.commit()
    return True


def _named(kept: Kept[Any]) -> Numbers:
    """Numbers of formats, lenses and adapters by their names."""
    plain = kept.document.model_dump(include={"modes", "lenses", "adapters"})
    formats = [f for mode in plain.get("modes", ()) for f in mode["formats"]]
    rows = [*formats, *plain.get("lenses", ()), *plain.get("adapters", ())]
    return {row["name"]: kept.number_of[row["key"]] for row in rows}


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


def _load_catalogue(session: Session) -> tuple[list[Kept[Any]], list[Kept[Any]]]:
    shelf, data = shelf_of(session, DEMO_SHELF), _read("catalogue.json")
    kept_bodies = BODIES.every(session, shelf.id)
    if not kept_bodies and not BODIES.every(session, shelf.id, removed=True):
        kept_bodies = [BODIES.add(session, shelf.id, parse_body(document)) for document in data["bodies"]]
    kept_sets = LENS_SETS.every(session, shelf.id)
    if not kept_sets and not LENS_SETS.every(session, shelf.id, removed=True):
        kept_sets = [
            LENS_SETS.add(session, shelf.id, parse_lens_set(document)) for document in data["lens_sets"]
        ]
    if RIG.find(session, shelf.id) is None:
        RIG.put(session, shelf.id, parse_rig(_read("low_water.json")["rig"]))
    session.commit()
    return kept_bodies, kept_sets


def _change_later(session: Session, kept_bodies: list[Kept[Any]], kept_sets: list[Kept[Any]]) -> None:
    """What makers changed after the production took its copies: the Package shows it side by side."""
    for later in _read("catalogue.json")["later"]:
        kind: Equipment[Any] = BODIES if "body" in later else LENS_SETS
        name = later.get("body") or later["lens_set"]
        every = kept_bodies if "body" in later else kept_sets
        kept = next((kept for kept in every if kept.document.name == name), None)
        if kept is None:
            continue
        plain = kept.document.model_dump(mode="json")
        for change in later["changes"]:
            told = {"where": "", "kind": "changed", "taken": None, "here": None} | change
            plain = catalogue.apply(plain, catalogue.Change(**told))
        kind.rewrite(session, kept, kind.read_plain(plain))


def _comparison(
    formats: dict[str, Numbers], lenses: Numbers, bench: BenchState, data: dict[str, Any]
) -> Comparison:
    """The demo's cameras beside one another, each with a lens of its own mount."""
    columns = [
        Column(
            key=f"demo{i}",
            label=told["label"],
            format_id=formats[told["body"]][told["format"]],
            lens_id=lenses[told["lens"]],
            stop=told["stop"],
            subject_m=data["subject_m"],
        )
        for i, told in enumerate(data["columns"])
    ]
    return Comparison(
        name=data["name"], columns=columns, delivery=bench.delivery, scene=bench.scene, lux=bench.light.lux
    )


def _first_bench(
    formats: dict[str, Numbers], lenses: Numbers, adapters: Numbers, data: dict[str, Any]
) -> BenchState:
    """Set the Bench of the demo as the story begins: a close-up on the ferry's deck."""
    body = formats[data["body"]]
    return BenchState(
        format_id=body[data["format"]],
        lens_id=lenses[data["lens"]],
        adapter_id=adapters[data["adapter"]],
        stop=data["stop"],
        subject_m=data["subject_m"],
        pinned=[body[name] for name in data["pinned"]],
        delivery=BenchDelivery(**data["delivery"]),
        scene=Scene.model_validate(data["scene"]),
    )
