"""Load the invented catalogue and production once; a second start finds them there."""

from __future__ import annotations

import json
from importlib.resources import files
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core import catalogue
from hextan.core.bench_state import BenchDelivery, BenchState
from hextan.core.body_document import parse_body
from hextan.core.package_settings import parse_settings
from hextan.store import bodies
from hextan.store.models import Adapter, Body, Lens, LensSet, Production
from hextan.store.repositories import catalogue_of, save_bench

DEMO_KEY = "low-water"


def load_demo(session: Session) -> bool:
    """Load *Low Water* unless it is there, and the catalogue's bodies when it has none; commit.

    Returns
    -------
    Whether the production was loaded now.
    """
    kept = _load_catalogue(session)
    if session.scalars(select(Production).where(Production.demo_key == DEMO_KEY)).first():
        return False
    data = _read("low_water.json")
    production = Production(name=data["name"], synopsis=data["synopsis"], demo_key=DEMO_KEY)
    production.settings = parse_settings(data["settings"]).model_dump(mode="json")
    production.lens_sets = [
        LensSet(
            position=i,
            maker=kit["maker"],
            name=kit["name"],
            lenses=[Lens(position=j, **lens) for j, lens in enumerate(kit["lenses"])],
        )
        for i, kit in enumerate(data["lens_sets"])
    ]
    production.adapters = [Adapter(position=i, **adapter) for i, adapter in enumerate(data["adapters"])]
    session.add(production)
    session.flush()
    taken = {row.name: bodies.copy_from_catalogue(session, production, row)
             for name in data["takes"] for row in kept if row.name == name}  # fmt: skip
    _change_later(kept)
    session.flush()
    save_bench(session, production.id, 0, _first_bench(production, taken, data["bench"]))
    return True


def _read(name: str) -> dict[str, Any]:
    return dict(json.loads(files("hextan.demo").joinpath(name).read_text(encoding="utf-8")))


def _load_catalogue(session: Session) -> list[Body]:
    shelf = catalogue_of(session)
    kept = bodies.list_bodies(session, shelf.id)
    if not kept and not bodies.list_bodies(session, shelf.id, removed=True):
        documents = _read("catalogue.json")["bodies"]
        kept = [bodies.add_body(session, shelf, parse_body(document)) for document in documents]
        session.commit()
    return kept


def _change_later(kept: list[Body]) -> None:
    """What makers changed after the production took its copies: the Package shows it side by side."""
    for later in _read("catalogue.json")["later"]:
        row = next((body for body in kept if body.name == later["body"]), None)
        if row is None:
            continue
        plain = bodies.document_of(row).model_dump(mode="json")
        for change in later["changes"]:
            told = {"where": "", "kind": "changed", "taken": None, "here": None} | change
            plain = catalogue.apply(plain, catalogue.Change(**told))
        bodies.apply_document(row, parse_body(plain))


def _first_bench(production: Production, taken: dict[str, Body], data: dict[str, Any]) -> BenchState:
    """Set the Bench of the demo as the story begins: a close-up on the ferry's deck."""
    body = taken[data["body"]]
    formats = {f.name: f.id for mode in body.modes for f in mode.formats}
    lenses = {lens.name: lens.id for kit in production.lens_sets for lens in kit.lenses}
    adapters = {a.name: a.id for a in production.adapters}
    return BenchState(
        format_id=formats[data["format"]],
        lens_id=lenses[data["lens"]],
        adapter_id=adapters[data["adapter"]],
        stop=data["stop"],
        subject_m=data["subject_m"],
        pinned=[formats[name] for name in data["pinned"]],
        delivery=BenchDelivery(**data["delivery"]),
    )
