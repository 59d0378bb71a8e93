"""Load the invented production once; a second start finds it there."""

from __future__ import annotations

import json
from importlib.resources import files
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from hextan.core.bench_state import BenchDelivery, BenchState
from hextan.store.models import (
    Adapter,
    Body,
    CropInMode,
    InCameraCrop,
    Lens,
    LensSet,
    Production,
    RecordingFormat,
    ScanMode,
)
from hextan.store.repositories import save_bench

DEMO_KEY = "low-water"


def load_demo(session: Session) -> bool:
    """Load *Low Water* unless it is there; commit.

    Returns
    -------
    Whether it was loaded now.
    """
    if session.scalars(select(Production).where(Production.demo_key == DEMO_KEY)).first():
        return False
    data = json.loads(files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8"))
    production = Production(name=data["name"], synopsis=data["synopsis"], demo_key=DEMO_KEY)
    production.bodies = [_body(i, body) for i, body in enumerate(data["bodies"])]
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
    save_bench(session, production.id, 0, _first_bench(production, data["bench"]))
    return True


def _body(position: int, data: dict[str, Any]) -> Body:
    modes = {mode["name"]: _mode(i, mode) for i, mode in enumerate(data["modes"])}
    crops = [
        InCameraCrop(
            position=i,
            name=crop["name"],
            in_modes=[CropInMode(mode=modes[name], factor=k) for name, k in crop["factors"].items()],
        )
        for i, crop in enumerate(data["crops"])
    ]
    return Body(
        position=position,
        maker=data["maker"],
        name=data["name"],
        mount=data["mount"],
        photosites_w=data["photosites"][0],
        photosites_h=data["photosites"][1],
        pitch_um=data["pitch_um"],
        modes=list(modes.values()),
        crops=crops,
    )


def _mode(position: int, data: dict[str, Any]) -> ScanMode:
    return ScanMode(
        position=position,
        name=data["name"],
        window_w=data["window"][0],
        window_h=data["window"][1],
        offset_x=data["offset"][0],
        offset_y=data["offset"][1],
        sampling_h=data["sampling"][0],
        sampling_v=data["sampling"][1],
        method=data["method"],
        row_time_us=data["row_time_us"],
        overhead_us=data["overhead_us"],
        max_fps=data["max_fps"],
        formats=[
            RecordingFormat(
                position=i,
                name=f["name"],
                raster_w=f["raster"][0],
                raster_h=f["raster"][1],
                mapping=f["map"],
                codec=f["codec"],
                bits=f["bits"],
                raw=f["raw"],
                interlaced=f["interlaced"],
                rates=f["rates"],
                highest_fps=f["highest_fps"],
            )
            for i, f in enumerate(data["formats"])
        ],
    )


def _first_bench(production: Production, data: dict[str, Any]) -> BenchState:
    """Set the Bench of the demo as the story begins: a close-up on the ferry's deck."""
    body = next(b for b in production.bodies if b.name == data["body"])
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
