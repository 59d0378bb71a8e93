"""The matrix of lenses by formats as CSV: one row for each lens and format, for spreadsheets."""

from __future__ import annotations

import csv
import io
from typing import Any

from hextan.core.kit import KitMatrix, MatrixColumn, MatrixRow
from hextan.formats.table import cell_text

HEADER = (
    "lens_set", "lens", "mounted", "body", "scan_mode", "format", "focal_mm", "focal_long_mm", "effective_mm",
    "effective_long_mm", "angle_deg", "angle_long_deg", "view", "coverage", "coverage_long", "needed_mm", "circle_mm",
    "dark_share", "highest_fps", "needs", "assumed",
)  # fmt: skip


def write_matrix(matrix: KitMatrix) -> bytes:
    """Write what `kit_matrix` gives; lengths in mm, angles in degrees, decimals with a point."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADER)
    for row in matrix["rows"]:
        for j, column in enumerate(matrix["columns"]):
            writer.writerow([cell_text(value) for value in _cells(row, column, j)])
    return out.getvalue().encode()


def _cells(row: MatrixRow, column: MatrixColumn, j: int) -> list[Any]:
    long = row["long"]
    via = row["via"][j]

    def figure(figures: Any, name: str, digits: int = 3) -> Any:
        value = None if figures is None else figures[name][j]
        return round(value, digits) if isinstance(value, float) else value

    return [
        row["set"],
        row["name"],
        "" if via is None else row["ways"][via]["name"],
        column["body"],
        column["mode"],
        column["name"],
        figure(row, "focal_mm"),
        figure(long, "focal_mm"),
        figure(row, "effective_mm"),
        figure(long, "effective_mm"),
        figure(row, "angle_deg"),
        figure(long, "angle_deg"),
        figure(row, "view_class"),
        figure(row, "verdict"),
        figure(long, "verdict"),
        figure(row, "needed_mm"),
        figure(row, "circle_mm"),
        figure(row, "dark_share", 6),
        column["highest_fps"],
        "; ".join(column["needs"]),
        "; ".join(row["stands_in"].values()),
    ]
