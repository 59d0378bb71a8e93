"""One sheet, made: from what it is planned to be and the production as it stands, to data with its stamp and fingerprint."""

from __future__ import annotations

import json
from hashlib import sha256

from hextan.core.base import HextanError
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.kinds import KINDS
from hextan.core.sheets.material import Draft, Material
from hextan.core.sheets.sheet import Sheet, StampFact

CAUTION = "Computed. It does not replace a test with the camera and the lens at hand, and no distance in it is called safe."


#: Kinds whose figures are of the picture that the Bench delivers, with the switches that are on there.
OF_PICTURES = ("lens_by_format", "look", "depth", "field", "coverage", "bench")


def sheet_title(plan: SheetPlan) -> str:
    """What a sheet is called: its own name, or that of its kind."""
    return plan.name or KINDS[plan.kind].title


def sheet_of(m: Material, plan: SheetPlan) -> Sheet:
    """Make a sheet. One that cannot be made says why, and never fails for what the production lacks."""
    kind = KINDS[plan.kind]
    draft = Draft()
    if kind.bench and m.bench is None:
        draft.why_empty = (
            "It needs a body with a recording format, and a lens: enter them in the Package first."
        )
    else:
        try:
            kind.make(m, plan, draft)
        except HextanError as error:
            draft.blocks.clear()
            draft.why_empty = error.message
    if not draft.blocks and not draft.why_empty:
        draft.why_empty = " ".join(draft.told) or "There is nothing to print."
    return {
        "kind": plan.kind,
        "title": sheet_title(plan),
        "lead": draft.lead,
        "blocks": draft.blocks,
        "stamp": _stamp(m, plan, draft),
        "why_empty": draft.why_empty,
        "notes": draft.told,
    }


def _stamp(m: Material, plan: SheetPlan, draft: Draft) -> list[StampFact]:
    asks = KINDS[plan.kind].asks
    unit = {"m": "metres", "ft": "feet and inches", "both": "metres, then feet"}[plan.unit or m.settings.unit]
    facts = [("Production", m.name)]
    if plan.kind in ("depth", "look", "bench", "compare", "shots"):
        facts.append(("Sharp", m.sharp_words))
    if plan.kind in ("lens_by_format", "look", "bench", "compare", "coverage"):
        facts.append(("Reference", m.reference_words))
    if plan.kind in OF_PICTURES and m.bench is not None:
        aspect = m.bench.delivery.aspect
        facts.append(("Picture", "as recorded" if aspect is None else f"{aspect:.4g}:1 delivered"))
        on = [crop.name for body in m.package.bodies for crop in body.crops if crop.id in m.bench.crop_ids]
        if on:
            facts.append(("Switched on", ", ".join(dict.fromkeys(on))))
    if plan.kind == "monitor":
        unit = "inches" if (plan.unit or m.settings.unit) == "ft" else "millimetres"
    if "unit" in asks:
        facts.append(("Unit", unit))
    if "from_front" in asks or plan.kind in ("look", "bench", "shots"):
        facts.append(
            (
                "Distances from",
                "the front of the lens" if plan.from_front and "from_front" in asks else "the sensor plane",
            )
        )
    told: list[StampFact] = [{"name": name, "text": text} for name, text in facts]
    return told + draft.stamp


def fingerprint(sheet: Sheet) -> str:
    """Twelve signs that are others as soon as anything on the sheet is.

    >>> len(fingerprint({"kind": "look", "title": "", "lead": "", "blocks": [], "stamp": [], "why_empty": "", "notes": []}))
    12
    """
    return sha256(json.dumps(sheet).encode()).hexdigest()[:12]
