"""Sheets of the days: the report of what was shot, and the checklist to tick before it."""

from __future__ import annotations

from hextan.core.record import CameraDay, TakeHeld, checks_of, day_report, days_of, planned_of
from hextan.core.sheets.cells import distance_cell
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material, units_of
from hextan.core.sheets.sheet import SheetRow, SheetTable, column, figure, number, row, table, told, words

#: A fault that spoils what is recorded.
_LOUD = "✕ "


def _days(m: Material, plan: SheetPlan, draft: Draft) -> list[str]:
    """The days that a sheet is of: those that are named, else all on which something was shot, else all."""
    there = [each["day"] for each in days_of(m.shots, m.log)]
    for day in plan.days:
        if day not in there:
            draft.note(f"There is no day {day} in the list of shots or in the log.")
    return [day for day in there if not plan.days or day in plan.days]


def day(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """What was shot on a day, what differed from the plan, lens changes, cards and minutes."""
    draft.lead = "What was really on the cameras, held against the plan."
    for name in _days(m, plan, draft):
        report = day_report(m.package, m.settings, m.shots, m.log, name)
        takes = report["day"]["takes"]
        if not takes and not report["clips"]["clips"] and not plan.days:
            continue
        heading = f"Day {name}" if name else "No day"
        faults = [
            f"{_LOUD if f['loud'] else ''}{f['unit']}{': ' if f['unit'] else ''}{f['told']}"
            for f in report["faults"]
        ]
        draft.blocks.append(
            told(
                [
                    *(faults or [report["nothing_told"]]),
                    *([report["clips"]["told"]] if report["clips"]["told"] else []),
                ],
                heading=f"{heading}: what differed",
                caution=bool(faults),
            )
        )
        if takes:
            draft.blocks.append(_takes(takes, plan, m, heading))
        if report["cameras"]:
            draft.blocks.append(_cameras(report["cameras"]))
        if report["clips"]["clips"]:
            rows = [
                row([words(clip["clock"]), words(clip["name"]), words(clip["take_told"] or "–"), words(clip["fits"][0] if clip["fits"] else clip["fit_told"])])
                for clip in report["clips"]["clips"]
            ]  # fmt: skip
            columns = [
                column("at"),
                column("Clip", words=True),
                column("Take", words=True),
                column("Written by", words=True),
            ]
            draft.blocks.append(table(columns, rows, heading=f"{len(rows)} clips and stills"))
        last = [
            *([f"Not shot: {', '.join(report['not_shot'])}."] if report["not_shot"] else []),
            *report["corrected"],
        ]
        if last:
            draft.blocks.append(told(last))
    if not draft.blocks and not draft.why_empty:
        draft.why_empty = "Nothing was logged yet: the Set is where takes are."


def _takes(takes: list[TakeHeld], plan: SheetPlan, m: Material, heading: str) -> SheetTable:
    unit = units_of(m, plan)[0]
    rows: list[SheetRow] = []
    for each in takes:
        take, on = each["entry"], each["entry"].on
        off = {d["code"] for d in each["held"]["differences"]}
        light = [f"EI {on.ei}"] if on.ei else []
        light += [f"ND {on.nd_stops:g}"] if on.nd_stops else []
        rows.append(
            row(
                [
                    words(each["clock"]),
                    words(f"{take.unit} {take.shot_name or '–'}"),
                    figure(
                        take.take,
                        f"{take.take}{' ○' if take.circled else ''}",
                        "focus" if take.circled else "",
                    ),
                    words(on.lens or "–", "short" if off & {"lens", "focal", "adapters"} else ""),
                    number(on.stop, 1, "short" if "stop" in off else ""),
                    distance_cell(on.focus_m, unit),
                    words(on.format or "–", "short" if off & {"body", "mode", "format", "crop"} else ""),
                    number(on.fps, 3 if on.fps and on.fps % 1 else 0, "short" if "rate" in off else ""),
                    words(", ".join(light), "short" if off & {"ei", "nd", "shutter"} else ""),
                    words(on.card),
                    words(take.note),
                ]
            )
        )
    return table(
        [column("at"), column("Shot", words=True), column("take"), column("Lens", words=True), column("stop"), column("focus", unit),
         column("Recording", words=True), column("rate", "fps"), column("EI, ND", words=True), column("Card", words=True), column("Note", words=True)],
        rows,
        heading=f"{heading}: {len(rows)} takes",
        told="○ is circled; what differs from the plan stands out.",
        fixed=3,
    )  # fmt: skip


def _cameras(cameras: list[CameraDay]) -> SheetTable:
    rows = []
    for camera in cameras:
        for i, card in enumerate(camera["cards"]):
            first = i == 0
            rows.append(
                row(
                    [
                        words(camera["unit"] if first else ""),
                        number(camera["takes"], 0) if first else words(""),
                        number(camera["circled"], 0) if first else words(""),
                        number(camera["lens_changes"], 0) if first else words(""),
                        words(card["card"] or "no card noted", "" if card["card"] else "quiet"),
                        number(card["takes"], 0),
                        number(card["minutes"], 1),
                        number(card["gb"], 0),
                    ]
                )
            )
    columns = [column("Camera", words=True), column("takes"), column("circled"), column("lens changes"), column("Card", words=True),
               column("takes on it"), column("minutes", "min"), column("data", "GB")]  # fmt: skip
    return table(
        columns,
        rows,
        heading="Cameras and cards",
        told="Minutes count takes whose length is known, from the log or from clips.",
    )


def checks(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """A page for each body with what is looked at before the day, in the order of the work, and room to tick."""
    draft.lead = "What is looked at before the day, in this order: an automatic setting before the switch that it overrides."
    for name in _days(m, plan, draft):
        planned = [
            planned_of(m.package, m.settings, shot) for shot in m.shots.shots if shot.day.strip() == name
        ]
        for body in checks_of(m.package, m.settings, planned, m.log, name, {}):
            if plan.bodies and body["body"] not in plan.bodies:
                continue
            rows = [
                row([words("☑" if item["ticked"] else "☐"), words(item["told"]), words(item["more"]),
                     words(" ".join(part for part in (item["by"], item["clock"], item["note"]) if part))])
                for item in body["items"]
            ]  # fmt: skip
            units = f", camera {', '.join(body['units'])}" if body["units"] else ""
            draft.blocks.append(
                table(
                    [
                        column("✓"),
                        column("Look", words=True),
                        column("Where, why", words=True),
                        column("Who, when", words=True),
                    ],
                    rows,
                    heading=f"{body['body']}{units}: {f'day {name}' if name else 'no day'}",
                    own_page=bool(draft.blocks),
                    fixed=2,
                )
            )
    if not draft.blocks and not draft.why_empty:
        draft.why_empty = "No shot of these days has a camera yet: see Shots."
