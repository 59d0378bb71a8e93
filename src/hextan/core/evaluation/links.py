"""The crop chain: what each link does to the size of the picture.

All factors multiply; written as sizes before / after, the product telescopes to first / last, also
by the diagonal.
"""

from __future__ import annotations

import numpy as np

from hextan.core.base import Floats
from hextan.core.evaluation.answers import CropLink
from hextan.core.evaluation.computation import Evaluation
from hextan.core.optics import By

#: A link that changes the size by less than this does not act and is not listed.
ACTS = 1e-12


def crop_links(result: Evaluation) -> list[list[CropLink]]:
    """List the links of each format with their factors by the dimension of the reference.

    Returns
    -------
    For each format: ``[{"name": ..., "factor": ...}]``; the first is always ``readout`` (reference
    over window), then those of ``squeeze``, ``recording``, the in-camera crops by their names and
    ``delivery`` that change the size by that dimension.
    """
    c, by = result.columns, result.reference.by
    squeeze = result.request.lens.squeeze
    read = _size(c.read_w, c.read_h, by)
    wide = _size(c.read_w * squeeze, c.read_h, by)
    trimmed = _size(c.trimmed_w * squeeze, c.trimmed_h, by)
    recorded = _size(c.recorded_w * squeeze, c.recorded_h, by)
    picture = _size(c.picture_w * squeeze, c.picture_h, by)
    whole = float(_size(np.asarray(result.reference.width_mm), np.asarray(result.reference.height_mm), by))
    factors = zip(
        (whole / read).tolist(),
        (read / wide).tolist(),
        (wide / trimmed).tolist(),
        (recorded / picture).tolist(),
        result.request.formats,
        strict=True,
    )
    rows = []
    for readout, squeezed, recording, delivery, asked in factors:
        row: list[CropLink] = [{"name": "readout", "factor": readout}]
        if abs(squeezed - 1.0) > ACTS:
            row.append({"name": "squeeze", "factor": squeezed})
        if abs(recording - 1.0) > ACTS:
            row.append({"name": "recording", "factor": recording})
        for crop in asked.get("crops", ()):
            if crop["factor"] != 1.0:
                row.append({"name": crop["name"], "factor": crop["factor"]})
        if abs(delivery - 1.0) > ACTS:
            row.append({"name": "delivery", "factor": delivery})
        rows.append(row)
    return rows


def _size(width: Floats, height: Floats, by: By) -> Floats:
    if by == "width":
        return width
    return height if by == "height" else np.hypot(width, height)
