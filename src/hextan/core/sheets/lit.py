"""Sheets of light: what a stop needs, what rates cost, ND; and shutters that are safe under lamps."""

from __future__ import annotations

import math

from hextan.core.base import InvalidInputError, needed_light, parse_rate, stops_words
from hextan.core.bench import FLICKER_CAUTION, flicker_view
from hextan.core.light import (
    LUX_PER_FOOT_CANDLE,
    flicker,
    nd_choices,
    needed_lux,
    rate_cost_stops,
    shutter_s,
    thirds_text,
)
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material
from hextan.core.sheets.sheet import Cell, SheetRow, column, figure, number, row, table, told, words
from hextan.core.shots import answer_of_shot

#: Stops and rates of the tables where none is named (common practice, no source).
STOPS = (1.4, 2.0, 2.8, 4.0, 5.6, 8.0, 11.0, 16.0)
RATES = (24.0, 25.0, 30.0, 48.0, 50.0, 60.0, 100.0, 120.0, 200.0, 240.0)
EIS = (200, 400, 800, 1600, 3200, 6400)
MOST_ND = 40
_ANGLES = (360.0, 270.0, 180.0, 172.8, 144.0, 90.0, 45.0)


def exposure(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Light for a stop at each sensitivity, what rates and angles cost, and every ND that the kit can make."""
    base = float(parse_rate(m.settings.base_fps))
    time_s = float(shutter_s(m.settings.shutter_deg, base))
    name = "ISO" if m.settings.words == "stills" else "EI"
    draft.lead = (
        f"Incident light on the subject for T-stops at {m.settings.base_fps} fps and {m.settings.shutter_deg:g}°, "
        "without filters and adapters."
    )
    stops = sorted(set(plan.stops)) or list(STOPS)
    native = sorted({ei for body in m.package.bodies for ei in body.base_eis})
    eis = sorted({*EIS, *native})
    foot = (plan.unit or m.settings.unit) == "ft"
    scale = LUX_PER_FOOT_CANDLE if foot else 1.0
    rows = []
    for ei in eis:
        cells = [figure(float(ei), f"{ei}", "focus" if ei in native else "")]
        for stop in stops:
            light = float(needed_lux(stop, time_s, float(ei))) / scale
            cells.append(figure(light, needed_light(light)))
        rows.append(row(cells))
    unit = "fc" if foot else "lux"
    draft.blocks.append(
        table(
            [column(name), *(column(f"T{stop:g}", unit) for stop in stops)],
            rows,
            heading=f"Light for a stop, {unit}",
            told="Native sensitivities of the package's bodies are set apart." if native else "",
        )
    )
    costs: list[SheetRow] = []
    for fps in sorted({*RATES, base}):
        stops_lost = float(rate_cost_stops(fps, base))
        costs.append(row([figure(fps, f"{fps:g}"), figure(stops_lost, "0" if abs(stops_lost) < 0.005 else f"{stops_lost:+.2f}".replace("-", "−")),
                          *(words(_time(float(shutter_s(angle, fps)))) for angle in _ANGLES)]))  # fmt: skip
    draft.blocks.append(
        table(
            [column("rate", "fps"), column("costs", "stops"), *(column(f"{a:g}°", "s") for a in _ANGLES)],
            costs,
            heading="What a rate costs, and shutter times",
            told=f"Against {m.settings.base_fps} fps at the same angle. From 180° to 90° is one stop.",
        )
    )
    _nd(m, draft)


def _time(seconds: float) -> str:
    return f"1/{1 / seconds:.4g}"


def _nd(m: Material, draft: Draft) -> None:
    for body in m.package.bodies:
        choices = [choice for choice in nd_choices(body.nd_stops, m.package.filters) if choice.stops > 0]
        if not choices:
            continue
        shown = choices[:MOST_ND]
        rows = [
            row(
                [
                    figure(choice.stops, thirds_text(choice.stops).removeprefix("+")),
                    figure(choice.stops * math.log10(2), f"{choice.stops * math.log10(2):.2f}"),
                    figure(2**choice.stops, f"{2**choice.stops:.3g}"),
                    words(" + ".join(choice.parts)),
                ]
            )
            for choice in shown
        ]
        left = f" {len(choices) - len(shown)} denser ones are left out." if len(choices) > len(shown) else ""
        draft.blocks.append(
            table(
                [
                    column("takes", "stops"),
                    column("density"),
                    column("factor", "×"),
                    column("How", words=True),
                ],
                rows,
                heading=f"ND with {body.name}",
                told=f"Every sum of its built-in ND and the kit's filters, by the fewest parts.{left}",
            )
        )


def rates_in_use(m: Material) -> list[float]:
    """The base rate, and every rate at which a shot is made."""
    rates = {float(parse_rate(m.settings.base_fps))}
    for shot in m.shots.shots:
        best = answer_of_shot(m.package, m.settings, shot)["best"]
        if best is not None:
            rates.add(best["fps"])
    return sorted(rates)


def flicker_safe(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Shutters that see every frame alike under the mains, for the rates in use; and what the present one shows."""
    hz = 2.0 * m.settings.mains_hz
    rates = rates_in_use(m)
    draft.lead = (
        f"Shutters that are safe under lamps on {m.settings.mains_hz} Hz mains, at the rates of this plan."
    )
    rows: list[SheetRow] = []
    for fps in rates:
        safe = flicker.safe_times(hz, fps, 6)
        wanted = float(shutter_s(m.settings.shutter_deg, fps))
        nearest = flicker.nearest_safe(hz, fps, wanted)
        cells: list[Cell] = [figure(fps, f"{fps:g}")]
        if nearest is None:
            cells += [
                words("none: a frame is shorter than one swing of the lamp", "short"),
                number(None, 0),
                words(""),
            ]
        else:
            angle = min(360 * float(nearest) * fps, 360.0)
            off = math.log2(float(nearest) / wanted)
            cells += [
                words(f"{nearest} s", "focus"),
                figure(angle, f"{angle:.1f}°"),
                words(
                    "as planned"
                    if abs(off) < 0.01
                    else f"{stops_words(abs(off), 2)} {'more' if off > 0 else 'less'} light"
                ),
            ]
        cells.append(
            words(", ".join(f"{time} ({min(360 * float(time) * fps, 360.0):.1f}°)" for time in safe))
        )
        rows.append(row(cells))
    draft.blocks.append(
        table(
            [
                column("rate", "fps"),
                column("Nearest to the planned", words=True),
                column("angle", "°"),
                column(f"Against {m.settings.shutter_deg:g}°", words=True),
                column("All that are safe, seconds", words=True),
            ],
            rows,
        )
    )
    if m.bench is not None:
        try:
            view = flicker_view(m.package, m.bench)
        except InvalidInputError:
            view = None
        if view is not None:
            lamps = [
                row(
                    [
                        words(lamp["name"]),
                        words(
                            lamp["text"],
                            "short"
                            if lamp["verdict"] == "shows"
                            else "marginal"
                            if lamp["verdict"] == "borderline"
                            else "covers",
                        ),
                    ]
                )
                for lamp in view["lamps"]
            ]
            draft.blocks.append(
                table(
                    [column("Lamp", words=True), column("What is seen", words=True)],
                    lamps,
                    heading=f"As the Bench is set: {view['fps']:g} fps, {view['angle_deg']:.1f}°",
                )
            )
    draft.blocks.append(told([FLICKER_CAUTION], caution=True))
