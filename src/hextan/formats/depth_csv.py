"""A depth table as CSV: a row for each distance and stop, for spreadsheets."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Callable

from hextan.core.base import METRES
from hextan.core.bench import DepthTable
from hextan.formats.table import cell_text


def write_depth(table: DepthTable | None, unit: str) -> bytes:
    """Write what `depth_view` gives as its table; lengths in the unit, infinity as `inf`, decimals with a point."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow((f"distance_{unit}", "stop", f"near_{unit}", f"far_{unit}"))

    def length(
        metres: float | None, towards: Callable[[float], int] = round, total_m: float = math.inf
    ) -> str:
        """To a tenth of a millimetre and better where the total asks for it; limits never outwards."""
        if metres is None:
            return "inf"
        digits = 4
        if math.isfinite(total_m):
            digits = max(4, 2 - math.floor(math.log10(max(total_m / METRES[unit], 1e-12))))
        scaled = metres / METRES[unit] * 10**digits
        # What rounding in the computation leaves is no reason for another digit.
        near_whole = abs(scaled - round(scaled)) < 1e-6
        return cell_text((round(scaled) if near_whole else towards(scaled)) / 10**digits)

    for row in [] if table is None else table["rows"]:
        for stop, cell in zip(table["stops"] if table else [], row["cells"], strict=True):
            near, far = cell["near_m"], cell["far_m"]
            total = math.inf if far is None else far - near
            figures = (
                length(row["distance_m"]),
                cell_text(stop),
                length(near, math.ceil, total),
                length(far, math.floor, total),
            )
            writer.writerow(figures)
    return out.getvalue().encode()
