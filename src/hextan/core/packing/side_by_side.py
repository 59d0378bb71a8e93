"""Two kits for the same shots: what each cannot do, weighs, costs, gathers in light, keeps in pixels and blurs; and why."""

from __future__ import annotations

import math
from collections.abc import Callable
from statistics import median

from hextan.core.base import Unit, weight_words
from hextan.core.packing.answers import DONE, KitAnswer, KitShot, SideBySide, SideFigure, SideShot
from hextan.core.packing.choices import Choices, choices_of
from hextan.core.packing.document import KitPlan
from hextan.core.packing.reasons import ANOTHER_UNIT
from hextan.core.packing.told import money, plural
from hextan.core.packing.view import Packed
from hextan.core.shots import ShotChoice, ShotList, head_of, with_what


def side_by_side(first: Packed, second: Packed) -> SideBySide:
    """Hold two kits for the same shots against one another."""
    a, b = first.answer, second.answer
    rows = [_shot(first, second, s) for s in range(len(first.choices.shots))]
    _reasons(first, second, rows)
    return {
        "first": a["name"],
        "second": b["name"],
        "figures": _figures(a, b, first.choices.settings.unit),
        "shots": rows,
        "told": _told(a, b, rows),
    }


def _shot(first: Packed, second: Packed, s: int) -> SideShot:
    x, y = first.answer["shots"], second.answer["shots"]
    shot = first.choices.shots[s].shot
    one, other = (x[s] if x else None), (y[s] if y else None)
    measured = [_measured(packed, s) for packed in (first, second)]
    both = all(each is not None for each in measured)
    p, q = (each or (math.nan,) * 3 for each in measured)

    def whole(value: float) -> float | None:
        return value if both and math.isfinite(value) else None

    return {
        "key": shot.key,
        "name": shot.name,
        "first": _choice_words(one),
        "second": _choice_words(other),
        "does_first": one is not None and one["verdict"] in DONE,
        "does_second": other is not None and other["verdict"] in DONE,
        "stops": whole(2 * math.log2(p[0] / q[0])) if both and p[0] > 0 and q[0] > 0 else None,
        "blur_percent": whole(q[1] - p[1]),
        "pixels": whole(q[2] / p[2]) if both and p[2] > 0 else None,
        "reason": "",
    }


def _choice_words(shot: KitShot | None) -> str:
    if shot is None:
        return ""
    choice = shot["choice"]
    return shot["told"] if choice is None else f"{_lens(choice)}, {choice['body']}, {choice['format']}"


def _lens(choice: ShotChoice) -> str:
    return f"{choice['lens_told']} at {choice['focal_mm']:.0f}" if choice["is_zoom"] else choice["lens_told"]


def _measured(packed: Packed, s: int) -> tuple[float, float, float] | None:
    """Of the choice of a shot that is done: the widest T at the sensor, how much of the width a far light is blurred then
    (per cent), and recorded pixels of the picture across."""
    setup = next((each for day in packed.days for each in day.setups if each.shot == s), None)
    judged = packed.choices.shots[s].judged
    if setup is None or judged is None:
        return None
    cells, (i, j) = judged.cells, judged.at(setup.cell)
    t = float(cells.widest[0][i, j])
    return t, 100 * float(cells.far_blur[i, j]), _pixels(packed, s, i, j)


def _pixels(packed: Packed, s: int, i: int, j: int) -> float:
    """Recorded pixels across the delivered picture, or across all that is recorded."""
    judged = packed.choices.shots[s].judged
    assert judged is not None
    cells = judged.cells
    frames = cells.needs.deliveries
    if frames and frames[0].long_edge_px:
        return float(head_of(cells, 0)[i, j]) * frames[0].long_edge_px
    return float(cells.layout.places[j].recording.raster[0])


def _reasons(first: Packed, second: Packed, rows: list[SideShot]) -> None:
    """Where one does a shot and the other does not: whether another lens on its own bodies would do it as well."""
    missing_first = [s for s, row in enumerate(rows) if row["does_second"] and not row["does_first"]]
    missing_second = [s for s, row in enumerate(rows) if row["does_first"] and not row["does_second"]]
    for other, missing in ((first, missing_first), (second, missing_second)):
        if not missing or other.solution is None:
            continue
        bodies = [t for t in other.solution.counts if other.choices.things.every[t].kind == "body"]
        whole = _all_lenses(other.choices, bodies)
        for s in missing:
            if other.answer["shots"][s]["told"].startswith(ANOTHER_UNIT):
                rows[s]["reason"] = "the number: two units need the same at the same time"
                continue
            rows[s]["reason"] = _reason(whole, s, [other.choices.things.every[t].name for t in bodies])


def _all_lenses(choices: Choices, bodies: list[int]) -> Choices:
    """The shots of a kit with its own bodies, and every lens and adapter of the package."""
    things = choices.things.every
    only = [thing.told for t, thing in enumerate(things) if thing.kind != "body" or t in bodies]
    plan = KitPlan(name="every lens", only=only, framing_percent=choices.plan.framing_percent)
    shots = ShotList(shots=[each.shot.model_copy(update={"pin": None}) for each in choices.shots])
    return choices_of(choices.package, choices.settings, shots, choices.packing, plan)


def _reason(whole: Choices, s: int, bodies: list[str]) -> str:
    shot = whole.shots[s]
    names = " and ".join(bodies) or "no body"
    if not shot.possible or shot.judged is None:
        return f"the body: no lens on {names} does it"
    best = min(shot.cells.items(), key=lambda each: (shot.missed[each[0]], each[1]))
    return f"the lens: {with_what(shot.judged, best[1])} would do it as well"


def _figures(a: KitAnswer, b: KitAnswer, unit: Unit) -> list[SideFigure]:
    def figure(name: str, told: Callable[[KitAnswer], str]) -> SideFigure:
        return {"name": name, "first": told(a), "second": told(b)}

    def without(names: list[str], told: str) -> str:
        return f"{told}, without {', '.join(names)}" if names else told

    return [
        figure("Shots done", lambda k: f"{k['shots_done']} of {k['shots_asked']}"),
        figure("Lenses", lambda k: ", ".join(t["name"] for t in k["things"] if t["kind"] == "lens") or "none"),
        figure("Bodies", lambda k: ", ".join(t["name"] for t in k["things"] if t["kind"] == "body") or "none"),
        figure("Adapters", lambda k: ", ".join(t["name"] for t in k["things"] if t["kind"] == "adapter") or "none"),
        figure("Weight", lambda k: without(k["weight_unknown"], weight_words(k["weight_kg"], unit))),
        figure("Cost", lambda k: without(k["cost_unknown"], money(k["cost"], k["currency"]))),
        figure("Cost of a shot", lambda k: money(round(k["cost"] / k["shots_done"], 2), k["currency"]) if k["shots_done"] else "–"),
        figure("Changes", lambda k: f"{k['changes']}, {k['minutes']:.0f} min"),
    ]  # fmt: skip


def _told(a: KitAnswer, b: KitAnswer, rows: list[SideShot]) -> list[str]:
    """What it comes to."""
    found: list[str] = []
    for mine, other, only in (
        (a, b, [row for row in rows if row["does_first"] and not row["does_second"]]),
        (b, a, [row for row in rows if row["does_second"] and not row["does_first"]]),
    ):
        if only:
            by_body = [row["name"] for row in only if row["reason"].startswith("the body")]
            told = (
                f"{mine['name']} does {_some([row['name'] for row in only])}, which {other['name']} does not"
            )
            if by_body:
                told += f"; for {_some(by_body)} the body is the reason"
            else:
                told += "; another lens would do as much on the other body"
            found.append(f"{told}.")
    stops = [row["stops"] for row in rows if row["stops"] is not None]
    if stops and abs(median(stops)) >= 0.05:
        wider = b if median(stops) > 0 else a
        blur = median(row["blur_percent"] for row in rows if row["blur_percent"] is not None)
        told = f"{wider['name']} opens {abs(median(stops)):.1f} stops wider in the middle of {plural(len(stops), 'shot')} that both do"
        found.append(f"{told}; a far light is blurred {_more(blur, wider is b)} of the width.")
        more = b["cost"] - a["cost"]
        if more and (more > 0) == (wider is b):
            found.append(f"That costs {money(abs(more), a['currency'])} more.")
    pixels = [row["pixels"] for row in rows if row["pixels"] is not None]
    if pixels and abs(median(pixels) - 1) >= 0.02:
        more_of = b if median(pixels) > 1 else a
        ratio = max(median(pixels), 1 / median(pixels))
        found.append(f"{more_of['name']} keeps {ratio:.2f} pixels across for each of the other's.")
    return found


def _more(blur: float, second: bool) -> str:
    """How much more of the width is blurred, as the one with the wider stop has it."""
    percent = blur if second else -blur
    return f"{abs(percent):.2f} % {'more' if percent >= 0 else 'less'}"


def _some(names: list[str]) -> str:
    """A few names.

    >>> _some(["1", "2", "3", "4", "5", "6", "7"])
    '1, 2, 3, 4, 5 and 2 more'
    """
    most = 6
    if len(names) <= most:
        return ", ".join(names)
    return f"{', '.join(names[: most - 1])} and {len(names) - most + 1} more"
