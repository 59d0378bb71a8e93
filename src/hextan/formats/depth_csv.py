"""A depth table as CSV: a row for each distance and stop, for spreadsheets."""

from __future__ import annotations

import csv
import io
from typing import Any

from hextan.core.distances import METRES
from hextan.formats.table import cell_text


def write_depth(table: dict[str, Any] | None, unit: str) -> bytes:
    """Write what `depth_view` gives as its table; lengths in the unit, infinity as `inf`, decimals with a point."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow((f"distance_{unit}", "stop", f"near_{unit}", f"far_{unit}"))

    def length(metres: float | None) -> str:
        return "inf" if metres is None else cell_text(round(metres / METRES[unit], 4))

    for row in [] if table is None else table["rows"]:
        for stop, cell in zip(table["stops"] if table else [], row["cells"], strict=True):
            figures = (
                length(row["distance_m"]),
                cell_text(stop),
                length(cell["near_m"]),
                length(cell["far_m"]),
            )
            writer.writerow(figures)
    return out.getvalue().encode()
