"""The sheet of what a look is worth: one shot in everything, and the steps from what costs least upwards."""

from __future__ import annotations

from hextan.core.base import Unit, signed, weight_figure, weight_unit
from hextan.core.bench import Scene
from hextan.core.equipment import Package
from hextan.core.packing import plural
from hextan.core.sheets.cells import distance_cell
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material, units_of
from hextan.core.sheets.shapes import finder_picture
from hextan.core.sheets.sheet import Cell, SheetPicture, Tone, column, figure, number, row, table, told, words
from hextan.core.worth import Worth, WorthAsk, WorthRow, WorthStep, worth_of

_HAVE: dict[str, tuple[str, Tone]] = {
    "own": ("owned", "covers"),
    "planned": ("in the plan", "covers"),
    "hire": ("hire", ""),
    "buy": ("buy", ""),
    "unknown": ("no price", "quiet"),
}
#: Choices on the sheet; what it does not show is told.
_MOST = 40
#: Pictures of steps beside one another.
_ACROSS = 4


def worth_sheet(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Steps with their finder pictures and reasons, and the choices ranked."""
    asked = (
        next((shot for shot in m.shots.shots if shot.name == plan.which), None)
        if plan.which
        else next(iter(m.shots.shots), None)
    )
    if asked is None:
        draft.why_empty = (
            f"There is no shot {plan.which} any more: choose another."
            if plan.which
            else "It is of a shot, and there are none yet."
        )
        return
    unit = units_of(m, plan)[0]
    settings = m.settings.model_copy(update={"unit": unit})
    scene = m.bench.scene if m.bench is not None else Scene()
    ask = WorthAsk(shot=asked, ranked_by=plan.ranked_by, pay=plan.pay, most=_MOST)
    found = worth_of(m.package, Package(), settings, m.shots, m.packing, scene, ask)
    if not found["rows"]:
        draft.why_empty = " ".join(found["told"])
        return
    said = (asked.what, asked.framing, asked.distance, asked.room and f"room {asked.room}", asked.stop)
    draft.lead = f"Shot {asked.name}: {', '.join(part for part in said if part)}."
    draft.fact("Ranked by", plan.ranked_by)
    draft.fact("Paid for", f"{plural(found['hire_days'], 'day')} of hire" if plan.pay == "hire" else "bought")
    draft.blocks.append(told(found["told"]))
    names = {each["key"]: each for each in found["rows"]}
    _steps(found, names, draft)
    draft.blocks.append(
        table(
            [
                column("Lens", words=True),
                column("On", words=True),
                column("", words=True),
                column("cost", found["currency"]),
                column("distance", unit),
                column("stop"),
                column("field", "%"),
                column("blur", "% of width"),
                column("softer", "%"),
                column("weight", weight_unit(unit)),
                column("Beaten in all by; notes", words=True),
            ],
            [row(_cells(each, unit)) for each in found["rows"]],
            heading="Every choice",
            fixed=2,
        )
    )
    if found["found"] > len(found["rows"]):
        draft.note(f"{found['found'] - len(found['rows'])} more choices stand further down in the ranking.")


def _steps(found: Worth, rows: dict[str, WorthRow], draft: Draft) -> None:
    lines = [_step_words(step) for step in found["steps"]]
    if lines:
        draft.blocks.append(told(lines, heading="Step by step"))
    pictures: list[SheetPicture | None] = [
        finder_picture(
            step["viewfinder"],
            [rows[step["key"]]["choice"]["lens"], rows[step["key"]]["choice"]["body"]],
            step["told"],
        )
        for step in found["steps"]
        if step["viewfinder"] is not None
    ]
    if not pictures:
        return
    draft.blocks.append(
        {
            "kind": "pictures",
            "heading": "Through the finder",
            "told": "Computed, in the scene of the Bench; lights with their blur.",
            "columns": [""] * _ACROSS,
            "columns_more": [""] * _ACROSS,
            "rows": [
                {"title": "", "more": "", "pictures": [*pictures[i : i + _ACROSS], *[None] * (_ACROSS - len(pictures[i : i + _ACROSS]))],
                 "why_not": [""] * _ACROSS}
                for i in range(0, len(pictures), _ACROSS)
            ],
            "to_scale": False,
            "own_page": False,
        }
    )  # fmt: skip


def _step_words(step: WorthStep) -> str:
    why = "; ".join(f"{signed(each['percent'], 0)} %: {each['told']}" for each in step["why"])
    return f"{step['told']} {f'Why: {why}.' if why else ''}".strip()


def _cells(each: WorthRow, unit: Unit) -> list[Cell]:
    choice = each["choice"]
    name, tone = _HAVE[each["have"]]
    lens = f"{choice['lens_told']} at {choice['focal_mm']:.0f}" if choice["is_zoom"] else choice["lens_told"]
    lens += "".join(f" + {name}" for name in choice["adapters"])
    beaten = [each["beaten_by"]] if each["beaten_by"] else []
    off = choice["percent"]
    return [
        words(lens, "quiet" if beaten else "focus"),
        words(f"{choice['body']}: {choice['format']}"),
        words(name, tone),
        number(each["cost"], 0),
        distance_cell(choice["distance_m"], unit),
        words("–" if choice["stop"] is None else f"{choice['marks']}{choice['stop']:.3g}"),
        figure(off, "–" if off is None else signed(off, 0, 0.5)),
        number(each["blur_percent"], 2),
        figure(each["softer_percent"], "" if each["softer_percent"] is None else signed(each["softer_percent"], 0)),
        number(None if each["weight_kg"] is None else weight_figure(each["weight_kg"], unit), 1),
        words("; ".join([*beaten, *each["notes"]])),
    ]  # fmt: skip
