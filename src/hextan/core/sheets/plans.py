"""Sheets of the plan: the list of shots with its choices and pictures, and the kit by its cases."""

from __future__ import annotations

from hextan.core.base import Unit, parse_rate, weight_figure, weight_unit, weight_words
from hextan.core.bench import Scene
from hextan.core.packing import KitAnswer, KitPlan
from hextan.core.sheets.cells import distance_cell
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material, units_of
from hextan.core.sheets.shapes import finder_picture
from hextan.core.sheets.sheet import (
    Cell,
    PictureRow,
    SheetPicture,
    SheetRow,
    Tone,
    column,
    figure,
    number,
    row,
    table,
    told,
    words,
)
from hextan.core.shots import Shot, ShotAnswer, answer_of_shot, day_order, pictures_of_shots

_VERDICTS: dict[str, tuple[str, Tone]] = {
    "does": ("✓", "covers"),
    "depends": ("?", "marginal"),
    "nearly": ("≈", "marginal"),
    "cannot": ("✕", "short"),
    "open": ("", "quiet"),
}
_DEPTHLESS = "–"
#: Pictures of shots beside one another.
_ACROSS = 4
#: A production without a kit has one that asks for the smallest.
SMALLEST = KitPlan(key="smallest", name="Smallest kit")
LOOKED_FOR = "The kit is being looked for: it takes some seconds."


def shot_list(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Every shot with what it is made with, its limits and warnings, and a strip of finder pictures."""
    shots = [shot for shot in m.shots.shots if not plan.days or shot.day in plan.days]
    if not shots:
        draft.why_empty = (
            "There is no shot of these days." if m.shots.shots else "The list of shots is empty."
        )
        return
    unit = units_of(m, plan)[0]
    days = sorted({(shot.day, shot.unit) for shot in shots}, key=day_order)
    answers = {shot.key: answer_of_shot(m.package, m.settings, shot) for shot in shots}
    draft.lead = (
        f"{len(shots)} shots"
        + (f" of day {', '.join(plan.days)}" if plan.days else "")
        + ", with what each is made with."
    )
    rows: list[SheetRow] = []
    cautions: list[str] = []
    for day, of_unit in days:
        section = " ".join(
            part for part in (f"Day {day}" if day else "No day", f"unit {of_unit}" if of_unit else "") if part
        )
        for shot in (s for s in shots if (s.day, s.unit) == (day, of_unit)):
            rows.append(row(_shot_cells(shot, answers[shot.key], unit, m), section=section))
            cautions += [f"{shot.name}: {w['text']}" for w in answers[shot.key]["warnings"]]
    draft.blocks.append(
        table(
            [
                column("Shot"),
                column("What", words=True),
                column("", words=True),
                column("Format", words=True),
                column("Lens", words=True),
                column("stop"),
                column("distance", unit),
                column("field", unit),
                column("rate", "fps"),
                column("EI, ND", words=True),
                column("Binds, or is missing", words=True),
            ],
            rows,
        )
    )
    if cautions:
        draft.blocks.append(told(cautions, heading="To watch", caution=True))
    if plan.pictures:
        _strip(m, shots, answers, draft)


def _shot_cells(shot: Shot, answer: ShotAnswer, unit: Unit, m: Material) -> list[Cell]:
    sign, tone = _VERDICTS[answer["verdict"]]
    best = answer["best"]
    what = " ".join(
        part for part in (f"[{shot.scene}]" if shot.scene else "", shot.what, shot.framing) if part
    )
    if best is None:
        faults = "; ".join(f"{fault['field']}: {fault['rule']}" for fault in answer["faults"])
        return [
            words(shot.name),
            words(what),
            words(sign, tone),
            *[words(_DEPTHLESS, "quiet")] * 7,
            words(faults or answer["binds"], "short"),
        ]

    name = "ISO" if m.settings.words == "stills" else "EI"
    light = [] if best["ei"] is None else [f"{name} {best['ei']}", *(best["nd_parts"] or [])]
    lens = f"{best['lens_told']} at {best['focal_mm']:g}" if best["is_zoom"] else best["lens_told"]
    if best["adapters"]:
        lens += f" + {' + '.join(best['adapters'])}"
    base = float(parse_rate(m.settings.base_fps))
    missing = [reason for reason in answer["reasons"] if reason["must"] and not reason["met"]]
    binds = (
        answer["binds"]
        if not missing
        else "; ".join(f"{r['name']}: wanted {r['wanted']}, has {r['has']}" for r in missing)
    )
    return [
        words(shot.name),
        words(what),
        words(sign, tone),
        words(f"{best['body']}: {best['format']}"),
        words(lens, "focus"),
        words(_DEPTHLESS if best["stop"] is None else f"{best['marks']}{best['stop']:.3g}"),
        distance_cell(best["distance_m"], unit),
        distance_cell(best["field_width_m"], unit),
        figure(best["fps"], f"{best['fps']:g}", "focus" if abs(best["fps"] / base - 1) > 1e-3 else ""),
        words(", ".join(light)),
        words(binds, "short" if missing else ""),
    ]


def _strip(m: Material, shots: list[Shot], answers: dict[str, ShotAnswer], draft: Draft) -> None:
    scene = m.bench.scene if m.bench is not None else Scene()
    pictures: list[SheetPicture] = []
    for shot, shown in zip(shots, pictures_of_shots(m.package, m.settings, shots, scene), strict=True):
        best = answers[shot.key]["best"]
        if shown["viewfinder"] is None or best is None:
            continue
        lines = [f"{shot.name}  {best['lens']}", best["format"]]
        pictures.append(
            finder_picture(
                shown["viewfinder"], lines, f"Shot {shot.name}: {best['lens']} on {best['format']}"
            )
        )
    rows: list[PictureRow] = [
        {
            "title": "",
            "more": "",
            "pictures": [*pictures[i : i + _ACROSS], *[None] * (_ACROSS - len(pictures[i : i + _ACROSS]))],
            "why_not": [""] * _ACROSS,
        }
        for i in range(0, len(pictures), _ACROSS)
    ]
    if rows:
        draft.blocks.append(
            {
                "kind": "pictures",
                "heading": "Through the finder",
                "told": "Computed, with the subject at its height, in the scene of the Bench.",
                "columns": [""] * _ACROSS,
                "columns_more": [""] * _ACROSS,
                "rows": rows,
                "to_scale": False,
                "own_page": True,
            }
        )


def kit_list(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """What is carried, by case: counts, weights, whose it is, serial numbers, and what each thing is for."""
    asked = (
        next((kit for kit in m.packing.kits if kit.name == plan.which), None)
        if plan.which
        else next(iter(m.packing.kits), None)
    )
    if plan.which and asked is None:
        draft.why_empty = f"There is no kit {plan.which} any more: choose another."
        return
    if not m.shots.shots:
        draft.why_empty = "A kit is for shots, and there are none yet."
        return
    answer = m.kit(m, asked or SMALLEST)
    if answer is None:
        draft.why_empty = LOOKED_FOR
        return
    if answer["why"]:
        draft.why_empty = answer["why"]
        return
    stock = {(s.thing.kind, s.thing.of, s.thing.name): s for s in m.packing.stock}
    cases: dict[str, list[SheetRow]] = {}
    unit = units_of(m, plan)[0]
    weights: dict[str, list[float | None]] = {}
    for thing in answer["things"]:
        known = (
            stock.get((thing["kind"], thing["of"], thing["name"]))
            or stock.get((thing["kind"], "", thing["name"]))
            or stock.get((thing["kind"], thing["of"], ""))
        )
        case = thing["case"] or "Not in a case"
        whose = known.owner if known is not None and known.owner else "own" if thing["owned"] else "rented"
        cases.setdefault(case, []).append(
            row(
                [
                    words("☐"),
                    figure(float(thing["count"]), f"{thing['count']}"),
                    words(thing["name"], "focus"),
                    words(thing["of"] or thing["kind"]),
                    number(
                        None if thing["weight_kg"] is None else weight_figure(thing["weight_kg"], unit), 2
                    ),
                    words(whose),
                    words("" if known is None else known.serial),
                    words(thing["note"] or thing["told"]),
                ],
                section=case,
            )
        )
        known_kg = thing["weight_kg"]
        weights.setdefault(case, []).append(None if known_kg is None else known_kg * thing["count"])
    rows = [
        each
        for case in sorted(cases, key=lambda c: (c == "Not in a case", c))
        for each in _with_weight(cases[case], f"{case} · {_sum_words(weights[case], unit)}")
    ]
    draft.lead = _kit_lead(answer, unit)
    draft.blocks.append(
        table(
            [
                column("", words=True),
                column("", "×"),
                column("What", words=True),
                column("Of", words=True),
                column("each", weight_unit(unit)),
                column("Whose", words=True),
                column("Serial numbers", words=True),
                column("For", words=True),
            ],
            rows,
            fixed=3,
        )
    )
    names = {shot.key: shot.name for shot in m.shots.shots}
    if answer["filters"]:
        draft.blocks.append(
            told(
                [
                    f"{f['name']}: for {', '.join(names.get(key, key) for key in f['shots'])}"
                    for f in answer["filters"]
                ],
                heading="Filters that the shots need",
            )
        )
    if answer["weight_unknown"]:
        draft.note(f"No weight is stated of {', '.join(answer['weight_unknown'])}: the sums are too small.")
    _days_of_kit(answer, draft)


def _sum_words(weights: list[float | None], unit: Unit) -> str:
    """What things weigh together, and whether some of it is not known."""
    known = [kg for kg in weights if kg is not None]
    if not known:
        return "weight not known"
    return weight_words(sum(known), unit) + ("" if len(known) == len(weights) else ", and what is not known")


def _with_weight(rows: list[SheetRow], title: str) -> list[SheetRow]:
    return [{"section": title, "cells": each["cells"]} for each in rows]


def _kit_lead(answer: KitAnswer, unit: Unit) -> str:
    how = (
        "kept by hand" if answer["kept"] else "proved smallest" if answer["proved"] else "not proved smallest"
    )
    weight = (
        "weight not known"
        if not answer["weight_kg"] and answer["weight_unknown"]
        else weight_words(answer["weight_kg"], unit)
    )
    lenses = "1 lens" if answer["lenses"] == 1 else f"{answer['lenses']} lenses"
    return (
        f"{answer['name']}: {lenses} for {answer['shots_done']} of {answer['shots_asked']} shots, "
        f"{weight}; {how}."
    )


def _days_of_kit(answer: KitAnswer, draft: Draft) -> None:
    rows: list[SheetRow] = []
    for day in answer["days"]:
        of_unit = f", unit {day['unit']}" if day["unit"] else ""
        title = f"Day {day['day'] or '?'}{of_unit}: {day['changes']} changes, {day['minutes']:.0f} min"
        for each in day["setups"]:
            rows.append(
                row(
                    [
                        words(each["name"]),
                        words(each["lens"], "focus" if each["changed"] else ""),
                        words(f"{each['body']}: {each['format']}"),
                        words(", ".join(each["changed"])),
                        number(each["minutes"] or None, 0),
                    ],
                    section=title,
                )
            )
    if rows:
        draft.blocks.append(
            table(
                [
                    column("Shot"),
                    column("Lens", words=True),
                    column("Format", words=True),
                    column("Changed before it", words=True),
                    column("takes", "min"),
                ],
                rows,
                heading="Day by day",
            )
        )
