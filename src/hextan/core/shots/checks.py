"""A shot's needs, each judged for every lens on every format: met, how much of it, and how much is to spare."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from hextan.core.base import (
    Flags,
    Floats,
    distance_words,
    just_covers_words,
    limit_words,
    margin_words,
    mm_from_m,
    stops_words,
    weight_words,
)
from hextan.core.bench import ASSUMED_EIS
from hextan.core.equipment import RecordingFormat, main_words
from hextan.core.finder import Check as OfFormats
from hextan.core.finder import FinderAsk, candidates, checks_of
from hextan.core.optics import MARGINAL_SHARE, close_up_stops, extract_picture, media
from hextan.core.shots.cells import Cells
from hextan.core.shots.layout import Layout

#: A framing within this of what was wanted is it; within the second it is nearly (common practice, no source).
SAME_PERCENT = 3.0
NEARLY_PERCENT = 10.0
#: Nearer than this a close focus that nobody states may bind (common practice, no source).
NEAR_M = 1.5
#: From this loss of light on, close up, what kind of lens it is counts (common practice, no source: a third of a stop).
CLOSE_UP_STOPS = 1 / 3
#: What is to spare where nothing can be measured.
PLENTY = np.inf


@dataclass(frozen=True)
class Check:
    """One need, judged for every cell; arrays of shape (L, F).

    ``spare`` is what is left over, in stops or as a binary logarithm; infinite where it cannot be measured.
    """

    name: str
    label: str
    must: bool
    weight: float
    met: Flags
    share: Floats
    spare: Floats
    #: What a cell has of it, in words.
    has: Callable[[int, int], str]
    #: Where it is missed by a figure that nobody stated and that stands in: such a miss is not known, and never red.
    unsure: Flags | None = None
    #: What has to be so in a cell that nobody stated, met or missed; empty where all that it rests on is stated.
    provided: Callable[[int, int], str] = lambda i, j: ""


def checks_of_shot(cells: Cells) -> list[Check]:
    """Judge everything that a shot needs; first what no lens can do without."""
    needs = cells.needs
    found = [_mounts(cells), _covers(cells), *_format_checks(cells), _place(cells)]
    found += [check for make in _WHERE_ASKED for check in make(cells)]
    if needs.wanted is not None:
        found.append(_framing(cells))
    found.append(_stop(cells))
    found += _wished_stops(cells)
    return found


def _mounts(cells: Cells) -> Check:
    met = cells.fits_mounts
    return Check("mounts", "the lens goes on the body", True, 1.0, met, met.astype(float), np.full(met.shape, PLENTY),
                 lambda i, j: "goes on" if cells.layout.mounts[i, j] else "does not mount")  # fmt: skip


def _covers(cells: Cells) -> Check:
    """A circle that is not stated may be enough: that is told, and nothing is refused for it."""
    layout, only_picture = cells.layout, cells.needs.picture.dark_outside
    circle = cells.circle_mm
    needed = layout.picture_needed_mm if only_picture else layout.needed_mm
    unknown = np.isnan(circle)
    met = unknown | (circle >= needed * (1 - 1e-9)) | (cells.dark(only_picture) <= layout.package.seen_dark)
    share = np.where(met, 1.0, np.clip(np.nan_to_num(circle) / needed, 0, 1))
    with np.errstate(divide="ignore", invalid="ignore"):
        # A circle binds where it is marginal; elsewhere nobody thinks of it.
        spare = np.where(unknown | (circle > needed * (1 + MARGINAL_SHARE)), PLENTY, np.log2(circle / needed))

    def has(i: int, j: int) -> str:
        if unknown[i, j]:
            return "image circle not stated"
        told = (just_covers_words if met[i, j] else margin_words)(float(circle[i, j] - needed[i, j]))
        if only_picture and circle[i, j] < layout.needed_mm[i, j]:
            return f"the picture alone: {told}; dark outside it"
        if not met[i, j] and circle[i, j] >= layout.picture_needed_mm[i, j]:
            return f"{told} for all that is recorded, and the delivered picture is covered"
        return told

    assumed = layout.assumed("image_circle_mm")

    def provided(i: int, j: int) -> str:
        lens = layout.rows[i].lens
        if unknown[i, j]:
            return f"{lens.name} covers: no image circle is stated"
        told = "reaches the corners" if not met[i, j] else "covers as others of its class do"
        return f"{lens.name} {told}: its circle is assumed, not stated" if assumed[i, 0] else ""

    unsure = np.broadcast_to(assumed, met.shape) & ~met
    return Check("covers", "the lens covers", True, 1.0, met, share, spare, has, unsure, provided)


def _format_checks(cells: Cells) -> list[Check]:
    """What the format finder judges, by its rules: rate, read, raw, bits, samples, and what has to be carried."""
    needs, layout = cells.needs, cells.layout
    wish = {"must": needs.must("speed"), "weight": needs.weight("speed")}
    asked: dict[str, object] = {"rate": wish | {"fps": f"{needs.fps.high:.6g}"}}
    wanted = needs.picture
    wish = {"must": needs.must("picture"), "weight": needs.weight("picture")}
    if wanted.raw:
        asked["raw"] = wish
    if wanted.full_read:
        asked["full_read"] = wish
    if wanted.bits is not None:
        asked["bits"] = wish | {"least": float(wanted.bits)}
    if wanted.oversampling is not None:
        asked["oversampling"] = wish | {"least": wanted.oversampling}
    found = [_over_lenses(layout, check) for check in _found(cells, asked)]
    if not needs.fps.fixed:
        low = {"must": needs.must("speed"), "weight": needs.weight("speed"), "fps": f"{needs.fps.low:.6g}"}
        found += [
            _over_lenses(layout, check) for check in _found(cells, {"rate": low}) if check.name == "rate"
        ]
    if wanted.raw is False:
        met = np.array([not here.recording.raw for here in layout.places])
        found.append(
            _flag(cells, "picture", "not raw", met, lambda i, j: "raw" if not met[j] else "processed")
        )
    if wanted.stabiliser:
        found.append(_steadied(cells))
    if wanted.corrected:
        met = cells.layout.corrected
        found.append(_flag(cells, "picture", "lens corrected in camera", met,
                           lambda i, j: "corrected in camera" if met[j] else "no correction of the lens there"))  # fmt: skip
    found += _of_the_house(cells)
    if needs.shot.body.strip():
        name = needs.shot.body.strip().lower()
        met = np.array([here.body.name.lower() == name for here in layout.places])
        found.append(
            _flag(
                cells, "body", f"on {needs.shot.body.strip()}", met, lambda i, j: layout.places[j].body.name
            )
        )
    return found


def _of_the_house(cells: Cells) -> list[Check]:
    """What holds for the whole production: its main format, and the least that it records."""
    needs, layout, shape = cells.needs, cells.layout, cells.layout.shape
    found: list[Check] = []

    def add(
        name: str, label: str, share: Floats, has: Callable[[int], str], must: bool, weight: float
    ) -> None:
        met = np.broadcast_to(share >= 1, shape)
        whole = np.broadcast_to(share, shape)
        found.append(
            Check(name, label, must, weight, met, whole, np.full(shape, PLENTY), lambda i, j: has(j))
        )

    if needs.least_px is not None or needs.least_bits is not None:
        formats = [here.recording for here in layout.places]
        least_px, least_bits = needs.least_px or 0, needs.least_bits or 0
        edges = np.array([max(format.raster) for format in formats], dtype=float)
        # Bits that nobody states may be enough: nothing is refused for what is not known.
        bits = np.array(
            [least_bits if format.bits is None else format.bits for format in formats], dtype=float
        )
        share = np.minimum(edges / max(least_px, 1), bits / max(least_bits, 1)).clip(0, 1)
        label = " and ".join(
            part
            for part in (f"{least_px} px" if least_px else "", f"{least_bits} bit" if least_bits else "")
            if part
        )
        add("least", f"at least {label}", share, lambda j: _recorded_words(formats[j]), True, 1.0)
    if needs.main is not None:
        main, near = needs.main, layout.nearness(needs.main)
        wanted = 3 if main.format else 2 if main.mode else 1
        share = np.minimum(near, wanted) / wanted
        add("main", f"on the main format: {main_words(main)}", share,
            lambda j: f"{layout.places[j].recording.name}, {layout.places[j].body.name}", main.must, main.weight)  # fmt: skip
    return found


def _recorded_words(recording: RecordingFormat) -> str:
    w, h = recording.raster
    return f"{w} × {h}" if recording.bits is None else f"{w} × {h}, {recording.bits} bit"


def _found(cells: Cells, asked: dict[str, object]) -> list[OfFormats]:
    """Judged once for a package: hundreds of shots ask for few rates and reads."""
    kept = cells.layout.package.worked_out
    key = ("formats for shots", repr(asked))
    if key not in kept:
        ask = FinderAsk.model_validate(asked)
        kept[key] = checks_of(candidates(cells.layout.package, ask), cells.settings, ask)
    found: list[OfFormats] = kept[key]
    return found


def _over_lenses(layout: Layout, check: OfFormats) -> Check:
    """Spread a judgement of formats over all lenses."""
    shape, numbers = layout.shape, layout.numbers
    met, share = np.broadcast_to(check.met[numbers], shape), np.broadcast_to(check.share[numbers], shape)
    has, wish = check.has, check.wish
    return Check(check.name, check.label, wish.must, wish.weight, met, share, np.full(shape, PLENTY),
                 lambda i, j: has(int(numbers[j])))  # fmt: skip


def _flag(cells: Cells, need: str, label: str, met: Flags, has: Callable[[int, int], str]) -> Check:
    shape = cells.layout.shape
    whole = np.broadcast_to(met, shape)
    needs = cells.needs
    return Check(
        need,
        label,
        needs.must(need),
        needs.weight(need),
        whole,
        whole.astype(float),
        np.full(shape, PLENTY),
        has,
    )


def _steadied(cells: Cells) -> Check:
    met = cells.layout.steadied

    def has(i: int, j: int) -> str:
        here = cells.layout.places[j]
        if met[j]:
            return "can be stabilised"
        return (
            "raw cannot be stabilised in camera"
            if here.recording.raw
            else f"{here.mode.name} has no stabiliser"
        )

    return _flag(cells, "picture", "stabilised in camera", met, has)


def _place(cells: Cells) -> Check:
    """The camera can stand where it has to: close focus, keep-out, the wall, the perspective."""
    at, near, far = cells.distance_m, cells.nearest_m, cells.farthest_m
    if not cells.placed:
        anywhere = np.ones(cells.layout.shape, dtype=bool)
        return Check("place", "a place for the camera", True, 1.0, anywhere, anywhere.astype(float),
                     np.full(anywhere.shape, PLENTY), lambda i, j: "anywhere")  # fmt: skip
    met = (at >= near * (1 - 1e-9)) & (at <= far * (1 + 1e-9))
    with np.errstate(divide="ignore", invalid="ignore"):
        short = np.where(at < near, at / near, np.where(at > far, far / at if far > 0 else 0.0, 1.0))
        spare = np.log2(np.where(np.isfinite(far), np.maximum(far, 1e-9) / at, np.inf))
        spare = np.minimum(spare, np.where(near > 0, np.log2(at / near), np.inf))
    unit = cells.settings.unit

    def has(i: int, j: int) -> str:
        here = float(at[i, j])
        told = distance_words(here, unit)
        # What binds is the bound with the least to spare.
        if here > far * (1 + 1e-9):
            return f"{told}, and the wall behind the camera is {distance_words(far, unit)} away"
        least = float(near[i, j])
        name = nearest_name(cells, i, j)
        if here < least * (1 - 1e-9):
            return f"{told}, nearer than {name} of {distance_words(least, unit)}"
        if np.isfinite(far) and far / here < here / max(least, 1e-9):
            return (
                f"{told}: the wall leaves {distance_words(far - here, unit)}"
                if far - here > 5e-4
                else f"{told}, at the wall"
            )
        if least > 0 and here - least > 5e-4:
            return f"{told}: {name} is {distance_words(least, unit)}"
        return f"{told}, at {name}" if least > 0 else told

    def provided(i: int, j: int) -> str:
        lens = cells.layout.rows[i].lens
        close = lens.close_focus_m is None and float(at[i, j]) < NEAR_M
        return (
            f"{lens.name} focuses at {distance_words(float(at[i, j]), unit)}: no close focus is stated"
            if close
            else ""
        )

    # Close focus and keep-out are never wishes.
    return Check("place", "a place for the camera", True, 1.0, met, short, spare, has, None, provided)


def nearest_name(cells: Cells, i: int, j: int) -> str:
    """What keeps the camera from going nearer."""
    needs, layout = cells.needs, cells.layout
    bounds = {
        "keep-out": needs.keep_out_m or 0.0,
        "the nearest place for the perspective": (needs.nearest_m or 0.0) if needs.must("nearest") else 0.0,
        "close focus": float(layout.close_m[i, 0]),
        "four focal lengths": float(4 * layout.low_mm[i, j] / 1000),
    }
    return max(bounds, key=lambda name: bounds[name])


def _framing(cells: Cells) -> Check:
    wider = cells.wider
    off = np.abs(wider - 1)
    known = np.isfinite(wider)
    met = known & (off <= SAME_PERCENT / 100 + 1e-9)
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.where(met, 1.0, np.where(known & (wider > 0), np.minimum(wider, 1 / wider), 0.0))
        spare = np.where(known, np.log2((1 + SAME_PERCENT / 100) / np.exp(np.abs(np.log(wider)))), PLENTY)
    needs = cells.needs

    def has(i: int, j: int) -> str:
        if not known[i, j]:
            return "no image so near"
        percent = 100 * (float(wider[i, j]) - 1)
        if abs(percent) < 0.5:
            return "as wanted"
        told = f"{abs(percent):.0f} % {'wider' if percent > 0 else 'tighter'}"
        needed = _framing_mm(cells, i, j)
        return told if met[i, j] or not needed > 0 else f"{told}; {needed:.1f} mm would frame it from there"

    label = needs.wanted.words if needs.wanted else ""
    # What is met to within its tolerance binds nothing.
    return Check(
        "framing",
        label,
        needs.must("framing"),
        needs.weight("framing"),
        met,
        share,
        np.where(met, PLENTY, spare),
        has,
    )


def _framing_mm(cells: Cells, i: int, j: int) -> float:
    """The focal length that would frame what is wanted from where the camera stands, as it is marked on a lens."""
    wanted, magnification = cells.needs.wanted, float(cells.layout.magnification[i, j])
    if wanted is None:
        return math.nan
    if wanted.field_m is None:
        return float(cells.focal_mm[i, j] * cells.wider[i, j]) / magnification
    m = float(cells.side_mm[i, j]) / mm_from_m(wanted.field_m)
    return mm_from_m(float(cells.distance_m[i, j])) * m / (1 + m) ** 2 / magnification


def _stop(cells: Cells) -> Check:
    """One stop for lens, depth, background and light, or two of them that leave none."""
    wide, narrow = cells.no_wider.tightest(True), cells.no_narrower.tightest(False)
    with np.errstate(divide="ignore", invalid="ignore"):
        spare = 2 * np.log2(narrow / wide)
    spare = np.where(np.isnan(spare), -np.inf, spare)
    met = spare >= -1 / 12
    share = np.where(met, 1.0, np.exp2(np.clip(spare, -60, 0)))
    free = len(cells.no_wider.names) == 1 and len(cells.no_narrower.names) == 1

    def has(i: int, j: int) -> str:
        least, most = cells.no_wider.binding(i, j, True), cells.no_narrower.binding(i, j, False)
        t = f"T{float(cells.stop_t[i, j]):.3g}"
        if met[i, j]:
            left = float(spare[i, j])
            return t if free or not np.isfinite(left) else f"{t}, {stops_words(max(left, 0.0))} in hand"
        low, high = float(wide[i, j]), float(narrow[i, j])
        told = "no stop" if not np.isfinite(low) else f"T{low:.3g}"
        return f"{least} needs {told}, {most} allows T{high:.2g}: {stops_words(min(-float(spare[i, j]), 99.0))} short"

    lost = np.nan_to_num(close_up_stops(np.nan_to_num(cells.magnification, nan=1e-9), cells.layout.pupil))
    wide_known, narrow_known = cells.known_stops
    with np.errstate(divide="ignore", invalid="ignore"):
        unsure = ~met & (2 * np.log2(narrow_known / wide_known) >= -1 / 12)

    def provided(i: int, j: int) -> str:
        here, lens = cells.layout.places[j], cells.layout.rows[i].lens
        told = [cells.light_provided(i, j, wide, narrow)] if not met[i, j] and unsure[i, j] else []
        held = cells.needs.hold is not None and cells.no_wider.binding(i, j, True) == "the depth"
        if held and "f_number" in lens.assumed:
            told.append(f"{lens.name} is as deep as its T-stop suggests: no f-number is stated")
        measured = held or (cells.needs.lit is not None and cells.needs.must("light"))
        if measured and float(lost[i, j]) >= CLOSE_UP_STOPS and "pupil_magnification" in lens.assumed:
            told.append(f"{lens.name} is taken as symmetrical, so close: no pupil magnification is stated")
        if (
            met[i, j]
            and cells.needs.lit is not None
            and cells.needs.lit.lux is not None
            and not here.body.states_ei
        ):
            told.append(
                f"{here.body.name} goes from EI {ASSUMED_EIS[0]} to {ASSUMED_EIS[-1]}: none is stated"
            )
        return "; ".join(told)

    return Check(
        "stop",
        "a stop for everything",
        True,
        1.0,
        met,
        share,
        np.where(free, PLENTY, spare),
        has,
        unsure,
        provided,
    )


def _wished_stops(cells: Cells) -> list[Check]:
    """Wishes about stops are held against the stop that the musts leave."""
    needs = cells.needs
    asked: list[tuple[str, str, Floats, bool]] = []
    if needs.stops is not None and not needs.must("stop"):
        asked += [("stop", "the stop asked for", cells.asked(needs.stops.span.low), True),
                  ("stop", "the stop asked for", cells.asked(needs.stops.span.high), False)]  # fmt: skip
    if needs.hold is not None and not needs.must("hold"):
        asked.append(("hold", "the depth", cells.held[0], True))
    if needs.soft is not None and not needs.must("background"):
        asked.append(("background", "a background this soft", cells.softest, False))
    if needs.lit is not None and not needs.must("light"):
        asked.append(("light", "the light", cells.lit[1], False))
    found: list[Check] = []
    if not asked:
        return found
    t = cells.stop_t
    for name, label, mark, at_least in asked:
        with np.errstate(divide="ignore", invalid="ignore"):
            spare = 2 * np.log2(t / mark) if at_least else 2 * np.log2(mark / t)
        spare = np.where(np.isnan(spare), -np.inf, spare)
        met = spare >= -1 / 12
        share = np.where(met, 1.0, np.exp2(np.clip(spare, -60, 0)))

        def has(i: int, j: int, spare: Floats = spare, met: Flags = met) -> str:
            left = float(spare[i, j])
            return "met" if met[i, j] else f"{stops_words(min(-left, 99.0))} short"

        found.append(
            Check(name, label, False, needs.weight(name), met, share, np.full(met.shape, PLENTY), has)
        )
    return found


def _squeeze(cells: Cells) -> list[Check]:
    wanted = cells.needs.squeeze
    if wanted is None:
        return []
    met = np.broadcast_to(np.abs(cells.layout.squeeze - wanted) < 1e-6, cells.layout.shape)
    label = "spherical" if wanted == 1 else f"{wanted:g}x squeeze"
    return [_flag(cells, "look", label, met, lambda i, j: f"{float(cells.layout.squeeze[i, 0]):g}x squeeze"
                  if cells.layout.squeeze[i, 0] != 1 else "spherical")]  # fmt: skip


def _glass(cells: Cells) -> list[Check]:
    """The lens that is asked for, by its name or by the focal lengths that it has."""
    wanted, name, rows = cells.needs.glass, cells.needs.glass_name, cells.layout.rows
    if wanted is None and not name:
        return []
    low = np.array([[row.lens.focal_min_mm] for row in rows])
    high = np.array([[row.lens.focal_max_mm] for row in rows])
    near = 1 + SAME_PERCENT / 100
    if wanted is None:
        met = np.array([[row.lens.name.lower() == name] for row in rows])
    else:
        met = np.ones_like(low, dtype=bool)
        if wanted.focal_mm is not None:
            met &= (low <= wanted.focal_mm * near) & (high * near >= wanted.focal_mm)
        if wanted.zoom_mm is not None:
            met &= (low <= wanted.zoom_mm[0] * near) & (high * near >= wanted.zoom_mm[1])
    return [_flag(cells, "glass", cells.needs.shot.glass.strip(), met, lambda i, j: rows[i].lens.name)]


def _delivers(cells: Cells) -> list[Check]:
    """Pixels for every frame that is delivered, and what is left to re-frame and to level the first."""
    needs, layout = cells.needs, cells.layout
    heads = {frame.name: head_of(cells, k) for k, frame in enumerate(needs.deliveries) if frame.long_edge_px}
    found = []
    if needs.shot.deliveries.strip():
        for name, head in heads.items():
            found.append(_measured(cells, "deliveries", f"{name} delivered", head, 1 - 1e-3,
                                   _pixels(head)))  # fmt: skip
    first = next(iter(heads.values()), None)
    picture = needs.picture
    if picture.reframe_percent is not None:
        head = np.zeros(layout.shape) if first is None else first
        found.append(_measured(cells, "picture", f"{picture.reframe_percent:g} % to re-frame", head, 1 + picture.reframe_percent / 100,
                               lambda i, j: "needs a delivery in pixels" if first is None else f"{100 * (float(head[i, j]) - 1):.0f} % to re-frame"))  # fmt: skip
    if picture.levelling_deg is not None:
        level = _levels(cells, first)
        found.append(_measured(cells, "picture", f"{picture.levelling_deg:g}° of levelling", level, picture.levelling_deg,
                               lambda i, j: "needs a delivery in pixels" if first is None else f"{float(level[i, j]):.1f}° of levelling"))  # fmt: skip
    return found


def _pixels(head: Floats) -> Callable[[int, int], str]:
    return lambda i, j: f"{float(head[i, j]):.2f} pixels for each that is delivered"


def head_of(cells: Cells, k: int) -> Floats:
    """Recorded pixels for each delivered one, along the tighter axis, for one of the frames that are delivered."""
    frame, layout = cells.needs.deliveries[k], cells.layout
    given = layout.columns.given
    aspect = frame.aspect
    if k == 0 or aspect is None:
        w, h = layout.picture_w, layout.picture_h
    else:
        w, h = (
            np.asarray(x)
            for x in extract_picture(layout.recorded_w, layout.recorded_h, layout.squeeze, aspect)
        )
    px_w, px_h = given.raster_w * w / layout.recorded_w, given.raster_h * h / layout.recorded_h
    edge = float(frame.long_edge_px or 1)
    if aspect is None:
        return np.maximum(px_w, px_h) / edge
    need_w, need_h = (edge, edge / aspect) if aspect >= 1 else (edge * aspect, edge)
    return np.minimum(px_w / need_w, px_h / need_h)


def _levels(cells: Cells, head: Floats | None) -> Floats:
    frame, layout = cells.needs.deliveries[0] if cells.needs.deliveries else None, cells.layout
    if head is None or frame is None or frame.aspect is None:
        return np.zeros(layout.shape)
    edge = float(frame.long_edge_px or 1)
    w, h = (edge, edge / frame.aspect) if frame.aspect >= 1 else (edge * frame.aspect, edge)
    given = layout.columns.given
    turned = media.levelling_degrees(
        given.raster_w * layout.squeeze, np.broadcast_to(given.raster_h, layout.shape), w, h
    )
    return np.where(head >= 1 - 1e-3, np.nan_to_num(turned), 0.0)


def _measured(
    cells: Cells, need: str, label: str, value: Floats, least: float, has: Callable[[int, int], str]
) -> Check:
    met = value >= least * (1 - 1e-6)
    with np.errstate(divide="ignore", invalid="ignore"):
        spare = np.where(met, np.log2(value / least), 0.0)
    needs = cells.needs
    share = np.where(met, 1.0, np.clip(value / least, 0, 1))
    return Check(need, label, needs.must(need), needs.weight(need), met, share, spare, has)


def _carried_by(cells: Cells) -> list[Check]:
    limit = cells.needs.rig.limit_kg
    if limit is None:
        return []
    weight = cells.layout.lens_kg + cells.layout.body_kg
    known = ~np.isnan(weight)
    # What is not known is told, and nothing is refused for it.
    met = ~known | (weight <= limit * (1 + 1e-9))
    with np.errstate(divide="ignore", invalid="ignore"):
        spare = np.where(known, np.log2(limit / weight), PLENTY)
        share = np.where(met, 1.0, np.clip(limit / weight, 0, 1))

    def provided(i: int, j: int) -> str:
        if known[i, j]:
            return ""
        silent = [
            each.name
            for each in (cells.layout.rows[i].lens, cells.layout.places[j].body)
            if each.weight_kg is None
        ]
        most = limit_words(limit, cells.settings.unit)
        return f"body and lens weigh {most} at most: {' and '.join(silent)} {'state' if len(silent) > 1 else 'states'} no weight"

    return [Check("rig", f"{limit_words(limit, cells.settings.unit)} on the {cells.needs.rig.kind or 'rig'}", cells.needs.must("rig"), cells.needs.weight("rig"),
                  met, share, spare, lambda i, j: weight_words(float(weight[i, j]), cells.settings.unit, 2) if known[i, j] else "weight not stated", None, provided)]  # fmt: skip


def _wished_places(cells: Cells) -> list[Check]:
    """Distances that are wishes, held against where the camera would stand."""
    needs, at, unit = cells.needs, cells.distance_m, cells.settings.unit
    bounds: list[tuple[str, str, float, bool]] = []
    if not needs.must("distance"):
        bounds += [
            ("distance", "the distance", needs.distance.low, True),
            ("distance", "the distance", needs.distance.high, False),
        ]
    if not needs.must("room") and needs.room_m is not None:
        bounds.append(("room", "the room", needs.room_m, False))
    if not needs.must("nearest") and needs.nearest_m is not None:
        bounds.append(("nearest", "the perspective", needs.nearest_m, True))
    found = []
    for name, label, mark, at_least in bounds:
        if mark <= 0 or not np.isfinite(mark):
            continue
        with np.errstate(divide="ignore"):
            ratio = at / mark if at_least else mark / at
        met = ratio >= 1 - 1e-6
        found.append(Check(name, label, False, needs.weight(name), met, np.where(met, 1.0, np.clip(ratio, 0, 1)),
                           np.full(met.shape, PLENTY), lambda i, j: distance_words(float(at[i, j]), unit)))  # fmt: skip
    return found


_WHERE_ASKED: tuple[Callable[[Cells], list[Check]], ...] = (
    _squeeze,
    _glass,
    _delivers,
    _carried_by,
    _wished_places,
)
