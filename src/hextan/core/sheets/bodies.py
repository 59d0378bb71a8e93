"""Sheets of bodies: their formats with windows to scale, the chain of crops, claims, cards and storage, monitor marks."""

from __future__ import annotations

import math

from hextan.core.base import crop_words, distance_words, m_from_mm, mm_from_um, parse_rate
from hextan.core.documents import BodyDocument, Home, body_sheet
from hextan.core.equipment import (
    Body,
    DataAsk,
    FormatInPackage,
    InCameraCrop,
    LensOnBody,
    Package,
    RecordingFormat,
    cards_filled,
    copies_written,
    data_table,
    highest_of,
)
from hextan.core.evaluation import columns_of
from hextan.core.kit import window_of_reference
from hextan.core.optics import DIMENSIONS, crop_factors
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import Draft, Material, format_words, formats_of
from hextan.core.sheets.shapes import label, rect
from hextan.core.sheets.sheet import (
    Cell,
    PictureRow,
    SheetPicture,
    SheetPictures,
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

_VERDICTS: dict[str, tuple[str, Tone]] = {
    "holds": ("holds", "covers"),
    "near": ("nearly holds", "marginal"),
    "basis": ("holds on another basis", "marginal"),
    "elsewhere": ("belongs elsewhere", "marginal"),
    "fails": ("does not hold", "short"),
    "coarse": ("too coarse to tell", "quiet"),
    "unknown": ("cannot be told", "quiet"),
}


def _bodies(m: Material, plan: SheetPlan, draft: Draft) -> list[Body]:
    names = {body.name for body in m.package.bodies}
    for name in plan.bodies:
        if name not in names:
            draft.note(f"The body {name} is not in the package any more.")
    found = [body for body in m.package.bodies if not plan.bodies or body.name in plan.bodies]
    if not found:
        draft.why_empty = "No body of this sheet is in the package."
    return found


def _places(m: Material, plan: SheetPlan, draft: Draft, body: Body) -> list[FormatInPackage]:
    """The recording formats of a body that a sheet is of; what is planned where nothing is named."""
    named = plan.format_ids or (() if plan.bodies else _used(m, plan, draft))
    return [here for here in body.places if not named or here.recording.id in named]


def _used(m: Material, plan: SheetPlan, draft: Draft) -> frozenset[int]:
    used = m.default(plan, draft)
    return frozenset() if used is None else used.formats


def formats(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Each body's recording formats: window to scale, crop, raster, codec, rates, data, needs, menu words."""
    draft.lead = "Every recording format with its window, what it records, how fast, and what it takes."
    data = {r["format_id"]: r for r in data_table(m.package, m.settings, DataAsk())["rows"]}
    for body in _bodies(m, plan, draft):
        places = _places(m, plan, draft, body)
        if not places:
            if not body.places:
                draft.note(f"{body.name} has no recording format yet.")
            continue
        crops = _against_reference(m.package, places)
        columns = columns_of([here.as_request() for here in places], 1.0)
        rows: list[SheetRow] = []
        for i, here in enumerate(places):
            r = here.recording
            highest = highest_of(here)
            weights = data[r.id]
            minutes = [weights["card_minutes"].get(card.key) for card in m.settings.cards]
            cells: list[Cell] = [
                words(r.name),
                figure(
                    float(columns.recorded_w[i]), f"{columns.recorded_w[i]:.2f} × {columns.recorded_h[i]:.2f}"
                ),
                figure(crops[i], f"{crops[i]:.2f}"),
                words(f"{r.raster[0]} × {r.raster[1]}"),
                words(codec_words(r)),
                words(highest.text),
                number(weights["mb_s"], 0),
                *(number(each, 0) for each in minutes),
                words("; ".join([*r.needs, *([f"firmware {r.from_firmware}"] if r.from_firmware else [])])),
            ]
            rows.append(row(cells, section=_mode_title(here)))
        draft.blocks.append(_windows(body, places))
        draft.blocks.append(
            table(
                [
                    column("Format", words=True),
                    column("recorded", "mm"),
                    column("crop", "× S35 width"),
                    column("raster", "px"),
                    column("Codec", words=True),
                    column("Highest rate", words=True),
                    column("data", "MB/s"),
                    *(column(card.name, "min") for card in m.settings.cards),
                    column("Needs", words=True),
                ],
                rows,
                told=f"Data and cards at {m.settings.base_fps} fps"
                + (f"; {cards_filled(body)} cards one after the other." if cards_filled(body) > 1 else "."),
            )
        )
        _switches(body, draft)


def codec_words(r: RecordingFormat) -> str:
    """How a format records; empty where nothing is known.

    >>> from hextan.core.base import RateSet
    >>> codec_words(RecordingFormat(1, "UHD", (3840, 2160), "scale", "", 12, True, False, RateSet(())))
    '12 bit, raw'
    """
    bits = "" if r.bits is None else f"{r.bits} bit"
    what = " ".join(part for part in (r.codec or "", bits) if part)
    parts = (what, "raw" if r.raw else "", "interlaced" if r.interlaced else "")
    return ", ".join(part for part in parts if part)


def _mode_title(here: FormatInPackage) -> str:
    mode = here.mode
    menu = mode.menu.told
    return f"{mode.name} — {menu[0].lower()}{menu[1:]}".rstrip(".") if menu else mode.name


def _switches(body: Body, draft: Draft) -> None:
    lines = [f"{crop.name}: {crop.menu.told}" for crop in body.crops if crop.menu.told]
    if lines:
        draft.blocks.append(told(lines, heading=f"Switches of {body.name} in its menus"))


def _against_reference(package: Package, places: list[FormatInPackage]) -> list[float]:
    """Crop of each recording against the production's reference."""
    c = columns_of([here.as_request() for here in places], 1.0)
    window = window_of_reference(package.modes, package.reference)
    along = DIMENSIONS.index(window.by)
    factors = crop_factors(c.recorded_w, c.recorded_h, 1.0, window.width_mm, window.height_mm)[along]
    return [float(x) for x in factors]


def _windows(body: Body, places: list[FormatInPackage]) -> SheetPictures:
    """The sensor and the windows of its scan modes, to one scale."""
    mm = mm_from_um(body.pitch_um)
    w, h = (n * mm for n in body.photosites)
    shown = list({here.mode.id: here.mode for here in places}.values())
    pictures: list[SheetPicture | None] = []
    for mode in shown:
        ww, wh = (n * mm for n in mode.window)
        x, y = (n * mm for n in mode.offset)
        shapes = [
            rect("soft", -w / 2, -h / 2, w, h),
            rect("fill", x - ww / 2, y - wh / 2, ww, wh),
            rect("focus", x - ww / 2, y - wh / 2, ww, wh),
            rect("frame", -w / 2, -h / 2, w, h),
        ]
        pictures.append(
            {
                "x": -w / 2,
                "y": -h / 2,
                "width": w,
                "height": h,
                "shapes": shapes,
                "lines": [mode.name, f"{ww:.2f} × {wh:.2f} mm"],
                "told": f"{mode.name}: {ww:.2f} × {wh:.2f} mm of {w:.2f} × {h:.2f} mm",
            }
        )
    across = min(len(pictures), 4)
    rows: list[PictureRow] = [
        {
            "title": "",
            "more": "",
            "pictures": pictures[i : i + across],
            "why_not": [""] * len(pictures[i : i + across]),
        }
        for i in range(0, len(pictures), across)
    ]
    return {
        "kind": "pictures",
        "heading": f"{body.maker} {body.name}",
        "told": f"Windows on the sensor of {w:.2f} × {h:.2f} mm, all to one scale"
        + (f"; firmware {body.firmware}" if body.firmware else ""),
        "columns": [""] * across,
        "columns_more": [""] * across,
        "rows": rows,
        "to_scale": True,
        "own_page": False,
    }


def chain(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """From the sensor to the recording: what each step and each switch crops, and what all of it comes to."""
    draft.lead = "Which step crops by how much: the window that is read, the recording, and every switch that can be on."
    bodies = _bodies(m, plan, draft)
    for body in bodies:
        places = _places(m, plan, draft, body)
        if not places:
            if not body.places:
                draft.note(f"{body.name} has no recording format yet.")
            continue
        c = columns_of([here.as_request() for here in places], 1.0)
        against = _against_reference(m.package, places)
        sensor_w = body.photosites[0] * mm_from_um(body.pitch_um)
        rows: list[SheetRow] = []
        for i, here in enumerate(places):
            of_window = sensor_w / float(c.read_w[i])
            of_recording = float(c.read_w[i]) / float(c.recorded_w[i])
            switches, product = _switch_cells(here, body.crops)
            all_on = against[i] * product
            rows.append(
                row(
                    [
                        words(here.recording.name),
                        figure(of_window, crop_words(of_window)),
                        figure(of_recording, crop_words(of_recording)),
                        figure(against[i], f"{against[i]:.3f}", "focus"),
                        *switches,
                        figure(all_on, f"{all_on:.3f}", "focus"),
                        figure(50 * all_on, f"{50 * all_on:.0f}"),
                    ],
                    section=here.mode.name,
                )
            )
        draft.blocks.append(
            table(
                [
                    column("Format", words=True),
                    column("window of sensor", "×"),
                    column("recording of window", "×"),
                    column("switches off", "× S35 width"),
                    *(column(crop.name, "×", "Switches") for crop in body.crops),
                    column("all that can be on", "× S35 width"),
                    column("a 50 is then like", "mm"),
                ],
                rows,
                heading=f"{body.maker} {body.name}",
                told="By width, for a spherical lens whose correction is as the body assumes. A dash: it cannot be on here.",
                own_page=bool(draft.blocks),
            )
        )
        _switches(body, draft)
        reasons = _why_switches_rest(places, body.crops)
        if reasons:
            draft.blocks.append(told(reasons, heading="Where a switch cannot be on"))


#: A lens on which every crop acts that acts on any: its circle is short, and its correction is not stated.
_ANY_LENS = LensOnBody(1.0, False, None)


def _switch_cells(here: FormatInPackage, crops: tuple[InCameraCrop, ...]) -> tuple[list[Cell], float]:
    """The factor of each switch on a format, and the product of those that can be on."""
    cells, product = [], 1.0
    for crop in crops:
        factor = None
        if here.crop_reason(crop, _ANY_LENS) is None:
            factor = crop.factor(here.mode.id, here.recording.raster)
        product *= factor or 1.0
        cells.append(figure(factor, "–" if factor is None else crop_words(factor), "" if factor else "quiet"))
    return cells, product


def _why_switches_rest(places: list[FormatInPackage], crops: tuple[InCameraCrop, ...]) -> list[str]:
    lines = []
    for crop in crops:
        by_reason: dict[str, list[str]] = {}
        for here in places:
            reason = here.crop_reason(crop, _ANY_LENS)
            if reason is not None:
                by_reason.setdefault(reason, []).append(here.recording.name)
        lines += [f"{crop.name}: {reason} ({_some(names)})." for reason, names in by_reason.items()]
    return lines


def _some(names: list[str], most: int = 4) -> str:
    shown = ", ".join(names[:most])
    return shown if len(names) <= most else f"{shown} and {len(names) - most} more"


def claims(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """What is claimed of a body, held against its own figures: to be sent to whoever made the page."""
    draft.lead = (
        "What is stated of this body, held against its own figures: which statements hold, which hold only when read "
        "another way, and which do not."
    )
    documents = list(m.bodies.values())
    for body in _bodies(m, plan, draft):
        document = m.bodies.get(body.name)
        if document is None:
            continue
        rows = _claim_rows(m, document, documents)
        if not rows:
            draft.note(f"No claim is noted about {body.name}.")
            continue
        origin = document.origins.get("") or next(iter(document.origins.values()), None)
        where = f" Figures: {origin.source}, {origin.date}." if origin is not None and origin.source else ""
        draft.blocks.append(
            table(
                [
                    column("Stated", words=True),
                    column("Verdict", words=True),
                    column("What the figures say", words=True),
                    column("Where", words=True),
                ],
                rows,
                heading=f"{document.maker} {document.name}",
                told=f"Checked against sensor, windows and formats as they are stated.{where}",
                own_page=bool(draft.blocks),
            )
        )
    if not draft.blocks and not draft.why_empty:
        draft.why_empty = "Nothing is claimed of these bodies: note claims on a body's page first."


def _claim_rows(m: Material, document: BodyDocument, documents: list[BodyDocument]) -> list[SheetRow]:
    others = [other for other in documents if other.name != document.name]
    checked = body_sheet(document, others, Home.of(m.package.reference))["claims"]
    modes = {mode.key: mode.name for mode in document.modes}
    rows: list[SheetRow] = []

    def add(section: str, stated: str, verdict: str, text: str, note: str) -> None:
        shown, tone = _VERDICTS[verdict]
        rows.append(row([words(stated), words(shown, tone), words(text), words(note)], section=section))

    for crop, found in zip(document.claims.crops, checked["crops"], strict=True):
        add(
            "Crop factors",
            f"×{crop.factor:.{crop.decimals}f} in {modes.get(crop.mode, '?')}",
            found["verdict"],
            found["text"],
            crop.note,
        )
    for tape, seen in zip(document.claims.tapes, checked["tapes"], strict=True):
        stated = f"{tape.field_m:g} m wide at {tape.distance_m:g} m with {tape.focal_mm:g} mm in {modes.get(tape.mode, '?')}"
        add("Measured with a tape", stated, seen["verdict"], seen["text"], tape.note)
    speed = checked["speed"]
    if speed is not None:
        stated = ", ".join(f"{claim.rows} rows at {claim.fps:g} fps" for claim in document.claims.speeds)
        add(
            "Speed",
            stated,
            speed["verdict"],
            speed["text"],
            "; ".join(c.note for c in document.claims.speeds if c.note),
        )
    for pixels, counted in zip(document.claims.pixels, checked["pixels"], strict=True):
        add(
            "Pixels",
            f"{pixels.megapixels:.{pixels.decimals}f} MP",
            counted["verdict"],
            counted["text"],
            pixels.note,
        )
    return rows


def cards(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Data rate, minutes on each card, and what a day takes."""
    asked = {here.recording.id for here in formats_of(m, plan, draft, few=False)}
    rate = float(parse_rate(m.settings.base_fps))
    minutes = m.settings.minutes_a_day
    draft.lead = f"At {m.settings.base_fps} fps; a day of {minutes:g} recorded minutes."
    rows: list[SheetRow] = []
    bodies = {body.name: body for body in m.package.bodies}
    for each in data_table(m.package, m.settings, DataAsk())["rows"]:
        if each["format_id"] not in asked:
            continue
        body = bodies[each["body"]]
        filled, copies = cards_filled(body), copies_written(body)
        cells = [
            words(
                f"{each['mode']}: {each['format']}" if each["mode"] not in each["format"] else each["format"]
            ),
            words("" if each["fits_rate"] else f"not at {rate:g} fps", "short"),
            number(each["mb_s"], 1),
            number(each["day_gb"], 0, "focus"),
        ]
        for card in m.settings.cards:
            lasts = each["card_minutes"].get(card.key)
            needed = None if not lasts else math.ceil(minutes / (lasts / filled) - 1e-9) * copies
            cells += [number(lasts, 0), number(needed, 0)]
        rows.append(row(cells, section=each["body"]))
    if not rows:
        draft.why_empty = "No recording format of this sheet is in the package."
        return
    if not m.settings.cards:
        draft.note("No card is set: enter the production's cards in Settings to see how long they last.")
    cards_of = [
        column(title, unit, card.name, f"{card.capacity:g} {card.unit}")
        for card in m.settings.cards
        for title, unit in (("lasts", "min"), ("a day", "cards"))
    ]
    draft.blocks.append(
        table(
            [
                column("Format", words=True),
                column("", words=True),
                column("data", "MB/s"),
                column("a day", "GB"),
                *cards_of,
            ],
            rows,
            told="GB is 10⁹ bytes, GiB 2³⁰. A day counts every copy that the body writes by itself; add those that you make.",
        )
    )


def monitor(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Where to put tape on a monitor whose picture is so wide, for each frame line of each format."""
    assert m.bench is not None
    places = formats_of(m, plan, draft, few=True)
    if not places:
        draft.why_empty = "No recording format of this sheet is in the package."
        return
    inch = (plan.unit or m.settings.unit) == "ft"
    wide = plan.monitor_mm
    aspects: dict[str, float | None] = {delivery.name: delivery.aspect for delivery in m.package.deliveries}
    bench = m.bench.delivery
    if bench.aspect is not None and bench.aspect not in aspects.values():
        aspects = {**{f"{bench.aspect:.3g}:1": bench.aspect}, **aspects}
    aspects |= {f"{a:.3g}:1": a for a in m.bench.scene.frames if a not in aspects.values()}
    squeeze = m.package.lenses[m.bench.lens_id][1].squeeze
    draft.lead = (
        f"Marks for a monitor that shows the whole recording {_length(wide, inch)} wide: how far each frame line lies "
        "from the edge of the picture."
    )
    if squeeze != 1:
        draft.note(f"For the lens on the Bench, {squeeze:g}x: the monitor shows its picture de-squeezed.")
    shown = {name: aspect for name, aspect in aspects.items() if aspect is not None}
    if not shown:
        draft.why_empty = (
            "No delivery has an aspect of its own: enter the deliveries in Settings, or set one on the Bench."
        )
        return
    rows: list[SheetRow] = []
    pictures: list[SheetPicture | None] = []
    for here in places:
        aspect_of_recording = here.recording.raster[0] / here.recording.raster[1] * squeeze
        high = wide / aspect_of_recording
        shapes = [rect("soft", 0, 0, wide, high)]
        for name, aspect in shown.items():
            w, h = (wide, wide / aspect) if aspect >= aspect_of_recording else (high * aspect, high)
            x, y = (wide - w) / 2, (high - h) / 2
            rows.append(
                row(
                    [words(name), *(_mark(each, inch) for each in (x, y, w, h))],
                    section=f"{format_words(here)}, {here.body.name}: {_length(wide, inch)} × {_length(high, inch)}",
                )
            )
            shapes += [rect("dashed", x, y, w, h), label(name, x + wide / 80, y + h - high / 40)]
        shapes.append(rect("frame", 0, 0, wide, high))
        pictures.append(
            {
                "x": 0.0,
                "y": 0.0,
                "width": wide,
                "height": high,
                "shapes": shapes,
                "lines": [format_words(here), here.body.name],
                "told": f"Frame lines within {format_words(here)}",
            }
        )
    unit = "in" if inch else "mm"
    draft.blocks.append(
        table(
            [
                column("Frame line", words=True),
                column("from left and right", unit),
                column("from top and bottom", unit),
                column("width", unit),
                column("height", unit),
            ],
            rows,
            told="Put the inner edge of the tape there. Measure the picture itself: many monitors scan over its edges.",
        )
    )
    across = min(2, len(pictures))
    draft.blocks.append(
        {
            "kind": "pictures",
            "heading": "Frame lines to scale",
            "told": "",
            "columns": [""] * across,
            "columns_more": [""] * across,
            "rows": [
                {
                    "title": "",
                    "more": "",
                    "pictures": pictures[i : i + across],
                    "why_not": [""] * len(pictures[i : i + across]),
                }
                for i in range(0, len(pictures), across)
            ],
            "to_scale": True,
            "own_page": False,
        }
    )


def _length(mm: float, inch: bool) -> str:
    return distance_words(m_from_mm(mm), "ft") if inch else f"{mm:.0f} mm"


def _mark(mm: float, inch: bool) -> Cell:
    if not inch:
        return figure(round(mm, 2), f"{mm:.1f}")
    sixteenths = round(mm / 25.4 * 16)
    whole, rest = divmod(sixteenths, 16)
    shown = (
        f"{whole}"
        if not rest
        else f"{f'{whole} ' if whole else ''}{rest // math.gcd(rest, 16)}/{16 // math.gcd(rest, 16)}"
    )
    return figure(round(mm / 25.4, 4), shown)
