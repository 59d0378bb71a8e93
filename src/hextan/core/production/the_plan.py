"""The plan of a production: what is not as it has it any more, and who has papers that are older."""

from __future__ import annotations

from typing_extensions import TypedDict

from hextan.core.equipment import Package, PackageSettings
from hextan.core.packing import Packing, PlanSeen, plan_seen
from hextan.core.sheets import Sheets, sheet_title
from hextan.core.shots import ShotList


class OldPaper(TypedDict):
    """A sheet that was made before the plan."""

    name: str
    bundle: str
    made_at: str
    given_to: str


class PlanState(PlanSeen):
    """The plan, what changed since, and what was printed before it."""

    papers: list[OldPaper]


def plan_view(
    package: Package, settings: PackageSettings, shots: ShotList, packing: Packing, sheets: Sheets
) -> PlanState:
    """Tell the plan, and all that does not agree with it."""
    made_at = "" if package.plan is None else package.plan.made_at or ""
    papers: list[OldPaper] = [
        {
            "name": sheet_title(sheet),
            "bundle": bundle.name,
            "made_at": sheet.made.at,
            "given_to": sheet.given_to,
        }
        for bundle in sheets.bundles
        for sheet in bundle.sheets
        if sheet.made is not None and sheet.made.at < made_at
    ]
    return {**plan_seen(package, settings, shots, packing), "papers": papers}
