"""Sheets of set-ups: all that the Bench shows, and a comparison with its reasons."""

from __future__ import annotations

import math

from hextan.core.base import (
    HextanError,
    Unit,
    both_units,
    crop_words,
    distance_words,
    m_from_mm,
)
from hextan.core.bench import LadderRow, bench_view, compute_bench
from hextan.core.compare import compare_view
from hextan.core.equipment import WindowMap
from hextan.core.sheets.cells import distance_cell, limit_cells
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material, format_words, lens_words, units_of
from hextan.core.sheets.shapes import circle_shape, finder_picture, rect
from hextan.core.sheets.sheet import (
    Cell,
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

_TONES: dict[str, Tone] = {"covers": "covers", "marginal": "marginal", "short": "short"}


def bench_sheet(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """The set-up that is on the Bench: its chain with its sum, finder picture, windows, every format, what to watch."""
    assert m.bench is not None
    unit = units_of(m, plan)[0]
    state = m.bench.model_copy(update={"unit": unit})
    view = bench_view(m.package, state, [])
    found = compute_bench(m.package, state, format_ids=())
    here, setting = found.chosen, found.setting
    through = "".join(f" + {a.name}" for a in setting.adapters)
    stop = "" if setting.stop is None else f" at {setting.marks}{setting.stop:.3g}"
    draft.lead = (
        f"{lens_words(setting.lens, setting.focal_mm)}{through}{stop} on {format_words(here)} of {here.body.name}, "
        f"subject at {both_units(state.subject_m, unit, m.settings.brackets)}, {state.fps:g} fps."
    )
    links = view["links"]
    chain: list[list[Cell]] = [
        [words("subject"), words(""), words(f"at {both_units(state.subject_m, unit, m.settings.brackets)}. {links['subject']['text'] or ''}".strip())],
        [words("lens and adapter"), figure(links["lens"]["factor"], crop_words(links["lens"]["factor"])), words(f"{setting.focal_mm:g} mm{through}")],
        [words("readout"), figure(links["readout"]["factor"], crop_words(links["readout"]["factor"])),
         words(f"{links['readout']['width_mm']:.2f} × {links['readout']['height_mm']:.2f} mm. {links['readout']['menu'] or ''}".strip())],
        [words("recording"), figure(links["recording"]["factor"], crop_words(links["recording"]["factor"])),
         words(", ".join(c["name"] for c in view["crops"] if c["on"] and c["reason"] is None) or "no switch on")],
        [words("delivery"), figure(links["delivery"]["factor"], crop_words(links["delivery"]["factor"])), words("")],
        [words("sum", "focus"), figure(links["sum"]["factor"], crop_words(links["sum"]["factor"]), "focus"), words(f"against {m.reference_words}")],
    ]  # fmt: skip
    draft.blocks.append(
        table(
            [column("Link", words=True), column("factor", "×"), column("", words=True)],
            [row(cells) for cells in chain],
        )
    )
    t = found.evaluation.traced
    wide = float(t.field_w_mm.reshape(-1)[0])
    lines = [
        format_words(here),
        f"{distance_words(m_from_mm(wide), unit)} wide" if math.isfinite(wide) else "",
    ]
    picture = finder_picture(view["viewfinder"], lines, f"Through the finder: {draft.lead}")
    draft.blocks.append(
        {
            "kind": "pictures",
            "heading": "",
            "told": "",
            "columns": ["Through the finder", "On the sensor, to scale"],
            "columns_more": ["", ""],
            "rows": [
                {
                    "title": "",
                    "more": "",
                    "pictures": [picture, _map_picture(view["window_map"], here.mode.name)],
                    "why_not": ["", ""],
                }
            ],
            "to_scale": False,
            "own_page": False,
        }
    )
    rows: list[SheetRow] = []
    for each in view["rows"]:
        place = m.package.formats[each["format_id"]]
        rows.append(row(_ladder_cells(each, unit), section=place.body.name))
        rows[-1]["cells"][0] = words(
            format_words(place), "focus" if each["format_id"] == state.format_id else ""
        )
    draft.blocks.append(
        table(
            [
                column("Format", words=True), column("like", "mm"), column("angle", "°"), column("wide", unit),
                column("high", unit), column("near", unit), column("far", unit), column("covers", words=True),
                column("pixels", "MP"), column("Highest rate", words=True),
            ],
            rows,
            heading="This lens from this place in every format",
            told="Limits are rounded inwards.",
        )
    )  # fmt: skip
    watch = [n["text"] for n in view["lens"]["notes"]]
    chosen = next((r for r in view["rows"] if r["format_id"] == state.format_id), None)
    watch += [n["text"] for n in chosen["answer"]["notes"]] if chosen else []
    watch += [*view["lens"]["mounting"]["reasons"], *view["lens"]["mounting"]["consequences"]]
    if view["viewfinder"]["perspective"]["caution"]:
        watch.append(view["viewfinder"]["perspective"]["caution"])
    if watch:
        draft.blocks.append(told(list(dict.fromkeys(watch)), heading="To watch", caution=True))


def _ladder_cells(each: LadderRow, unit: Unit) -> list[Cell]:
    of = each["answer"]

    depth, at = of["depth"], of["subject_distance_m"]
    span = limit_cells(None if at is None else depth["near_m"], depth["far_m"], at or 1.0, unit)
    covers = each["verdict"]
    return [
        words(""),
        number(of["effective_focal_mm"], 1, "focus"),
        number(of["angle_deg"]["horizontal"], 1),
        distance_cell(of["field_m"]["width"], unit),
        distance_cell(of["field_m"]["height"], unit),
        *span,
        words(
            {"short": "dark corners", "unknown": "not known"}.get(covers, covers), _TONES.get(covers, "quiet")
        ),
        number(of["pixels"]["recorded_megapixels"], 1),
        words(each["rate"]["text"]),
    ]


def _map_picture(shown: WindowMap, mode: str) -> SheetPicture:
    s = shown["sensor"]
    shapes = [rect("soft", s["x"], s["y"], s["width"], s["height"])]
    for window in shown["windows"]:
        if window["chosen"]:
            shapes.append(rect("fill", window["x"], window["y"], window["width"], window["height"]))
    shapes.append(rect("frame", s["x"], s["y"], s["width"], s["height"]))
    p = shown["picture"]
    shapes.append(rect("focus", p["x"], p["y"], p["width"], p["height"]))
    half_w, half_h = s["width"] / 2, s["height"] / 2
    if shown["circle_mm"] is not None:
        r = shown["circle_mm"] / 2
        shapes.append(circle_shape(r, r))
        half_w, half_h = max(half_w, min(r, half_w * 2)), max(half_h, min(r, half_h * 2))
    return {
        "x": -half_w, "y": -half_h, "width": 2 * half_w, "height": 2 * half_h, "shapes": shapes,
        "lines": [mode, shown["words"][0]["text"] if shown["words"] else ""],
        "told": "; ".join(w["text"] for w in shown["words"]),
    }  # fmt: skip


_UNITS = {"m": ("m", 2), "mm": ("mm", 2), "um": ("µm", 1), "deg": ("°", 1), "percent": ("%", 2), "stops": ("stops", 2),
          "ratio": ("×", 2), "px": ("px", 0), "fps": ("fps", 0), "stop": ("f/", 2), "mp": ("MP", 1)}  # fmt: skip


def comparison_sheet(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """A comparison: every figure side by side, the finder pictures, what matches, and why depth and blur differ."""
    asked = (
        next((c for c in m.comparisons if c.name == plan.which), None)
        if plan.which
        else next(iter(m.comparisons), None)
    )
    if asked is None:
        draft.why_empty = (
            f"There is no comparison {plan.which} any more: choose another."
            if plan.which
            else "There is no comparison yet."
        )
        return
    try:
        view = compare_view(m.package, asked)
    except HextanError as error:
        draft.why_empty = error.message
        return
    case = next(each["name"] for each in view["cases"] if each["case"] == view["case"])
    draft.lead = f"{asked.name}: {case}."
    titles = [f"{column_['body']}" for column_ in view["columns"]]
    more = [f"{each['format']} · {each['lens']}" for each in view["columns"]]
    pictures: list[SheetPicture | None] = [
        finder_picture(
            each["viewfinder"],
            [f"{each['lens']}", distance_words(each["subject_m"], m.settings.unit)],
            f"{each['lens']} on {each['format']}",
        )
        for each in view["columns"]
    ]
    draft.blocks.append(
        {
            "kind": "pictures", "heading": "", "told": "", "columns": titles, "columns_more": more,
            "rows": [{"title": "", "more": "", "pictures": pictures, "why_not": [""] * len(pictures)}],
            "to_scale": False, "own_page": False,
        }
    )  # fmt: skip
    rows: list[SheetRow] = []
    for each in view["rows"]:
        unit, digits = _UNITS[each["unit"]]
        cells = [words(each["label"]), words(unit, "quiet")]
        for value, infinite, text, differs in zip(
            each["values"], each["infinite"], each["texts"], each["differs"], strict=True
        ):
            shown = (
                text
                if text is not None
                else "∞"
                if infinite
                else "–"
                if value is None
                else f"{value:.{digits}f}"
            )
            cells.append(figure(value, shown, "focus" if differs else ""))
        rows.append(row(cells))
    draft.blocks.append(
        table(
            [
                column("", words=True),
                column("", words=True),
                *(
                    column(t, "", f"{a}", b)
                    for t, (a, b) in zip([""] * len(titles), zip(titles, more, strict=True), strict=True)
                ),
            ],
            rows,
            told=f"Set apart: what differs from {titles[view['master']]}.",
            fixed=2,
        )
    )
    master = view["master"]
    for title, summary, why in zip(titles, view["summary"], view["why"], strict=True):
        if summary is None:
            continue
        lines = [
            f"The same: {', '.join(summary['matches']) or 'nothing'}.",
            f"Different: {', '.join(summary['differs']) or 'nothing'}.",
        ]
        if why is not None:
            lines.append(
                f"Depth is ×{why['depth_factor']:.2f} of {titles[master]}'s, blur of the background ×{why['blur_factor']:.2f}."
            )
        draft.blocks.append(told(lines, heading=f"{title} beside {titles[master]}"))
    notes = [note for each in view["columns"] for note in each["notes"]]
    if notes:
        draft.blocks.append(told(list(dict.fromkeys(notes)), heading="To watch", caution=True))
