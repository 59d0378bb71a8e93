"""What the page offers to choose from, as the tables of the core have it: written for the front end with the types."""

from __future__ import annotations

import json
from typing import get_args

from hextan.core.entry import TICKS
from hextan.core.evaluation import READY_REFERENCES, SHARP_RULES
from hextan.core.light import LampKind, Mover
from hextan.core.optics import PROJECTIONS, SAMPLES, FormatClass
from hextan.core.sheets import KINDS
from hextan.core.shots import ON_PAGE, ROWS
from hextan.formats.handed import KINDS as HANDOVERS

HEAD = "/** Written by ./hextan types from the tables of the core: change those. */\n"


def choices() -> str:
    """Write the choices as TypeScript."""
    sharp = [
        {"label": label, "coc": asked.model_dump(mode="json")}
        for rule in SHARP_RULES.values()
        for label, asked in rule.choices.items()
    ]
    # In an address a rule stands by its name with its figures in this order.
    figures = {
        str(model.model_fields["rule"].annotation.__args__[0]): [n for n in model.model_fields if n != "rule"]
        for model in SHARP_RULES
    }
    tables = {
        "SHARP": sharp,
        "SHARP_FIGURES": figures,
        "PROJECTIONS": list(PROJECTIONS),
        "CLASSES": list(get_args(FormatClass)),
        "SAMPLES": list(SAMPLES),
        "FORMATS_OFFERED": [
            {"tick": tick, "label": f"{raster[0]} x {raster[1]}" if raster else "the whole window, raw"}
            for tick, (_, raster) in TICKS.items()
        ],
        "READY_REFERENCES": [window.model_dump() for window in READY_REFERENCES],
        "SHOT_CELLS": [
            {"key": row.name, "title": row.page_title, "size": row.size, "gloss": row.gloss} for row in ROWS
        ],
        "NEEDS": list(ON_PAGE),
        "LAMPS": list(get_args(LampKind)),
        "MOVERS": list(get_args(Mover)),
        "HANDOVERS": [
            {
                "kind": k.name,
                "title": k.title,
                "carries": k.carries,
                "lost": k.lost,
                "back": k.back,
                "reads": k.read is not None,
            }
            for k in HANDOVERS
        ],
        "SHEET_KINDS": [
            {"kind": name, "title": kind.title, "told": kind.told, "asks": list(kind.asks), "wide": kind.wide}
            for name, kind in KINDS.items()
        ],
    }
    parts = (
        f"export const {name} = {json.dumps(table, indent=2, ensure_ascii=False)} as const\n"
        for name, table in tables.items()
    )
    return HEAD + "\n".join(parts)
