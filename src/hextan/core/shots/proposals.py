"""What could be changed about a shot, kind by kind: a row each, with the needs that it can cure and what it proposes.

A proposal is made of the figures of single cells; whether it cures is judged by whoever asks (`changes.py`).
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from hextan.core.base import (
    MARKED,
    Flags,
    Floats,
    Unit,
    limit_words,
    m_from_mm,
    mm_from_m,
    rate_words,
    stops_words,
    two_digits,
    weight_figure,
)
from hextan.core.optics import conjugates
from hextan.core.shots.cells import AT_A_MARK, Cells, Limits, listed_eis
from hextan.core.shots.checks import SAME_PERCENT, Check, head_of
from hextan.core.shots.document import NEEDS
from hextan.core.shots.edits import Edit, cell, distance_text, trouble
from hextan.core.shots.judge import Judged
from hextan.core.shots.words import TIMES_LUX

#: Lamps are brought closer or added, up to so many stops; more is another light (common practice, no source).
MOST_LIGHT_STOPS = 4.0
#: Filters that there are, by density (common practice, no source).
DENSITIES = (0.3, 0.6, 0.9, 1.2, 1.5, 1.8, 2.1)
#: Of one kind so many are tried, the least trouble first.
MOST_TRIED = 10
#: What a rig carries, as a cell says it.
_CARRIED = r"[\d.,]+\s*(?:kg|g|lbs?|pounds?)\b(?:\s*\d+\s*oz)?"
_EDGE = 1 + SAME_PERCENT / 100

Proposal = tuple[float, list[Edit]]


@dataclass(frozen=True)
class Kind:
    """A kind of change."""

    #: Musts, by the names of their checks, that it can cure.
    cures: frozenset[str]
    propose: Callable[[Judged, Flags], Iterator[Proposal]]


def _least(proposals: list[Proposal], most: int = MOST_TRIED) -> Iterator[Proposal]:
    """The least trouble first, each once."""
    seen: set[str] = set()
    for cost, edits in sorted(proposals, key=lambda each: each[0]):
        key = repr([(e.kind, e.after, e.body) for e in edits])
        if key not in seen:
            seen.add(key)
            yield cost, edits
        if len(seen) >= most:
            return


# The stop: what binds it from either side.


def _without(limits: Limits, name: str, wide: bool) -> Floats:
    """What the other limits leave."""
    others = [value for n, value in zip(limits.names, limits.values, strict=True) if n != name]
    return np.asarray(np.maximum.reduce(others) if wide else np.minimum.reduce(others))


def _named(limits: Limits, name: str) -> Floats | None:
    return limits.values[limits.names.index(name)] if name in limits.names else None


def _short(cells: Cells, name: str, wide: bool) -> Floats:
    """By how many stops a limit has to give way in each cell; infinite where that is not enough, or not needed."""
    mine, other = (cells.no_wider, cells.no_narrower) if wide else (cells.no_narrower, cells.no_wider)
    value = _named(mine, name)
    if value is None:
        return np.full(cells.layout.shape, np.inf)
    rest, bound = _without(mine, name, wide), other.tightest(not wide)
    with np.errstate(divide="ignore", invalid="ignore"):
        # Within a twelfth of a stop of one another they leave a stop.
        needed = bound * AT_A_MARK if wide else bound / AT_A_MARK
        short = 2 * np.log2(value / needed) if wide else 2 * np.log2(needed / value)
        possible = (rest <= needed * (1 + 1e-9)) if wide else (rest >= needed * (1 - 1e-9))
    return np.where(possible & np.isfinite(short) & (short > 0), short, np.inf)


def _lit_text(cells: Cells, lux: str | None, ei: str | None) -> str:
    lit = cells.needs.lit
    assert lit is not None
    told_lux = lux if lux is not None else "" if lit.lux is None else f"{lit.lux:.6g} lux"
    told_ei = ei if ei is not None else "" if lit.ei is None else f"EI {lit.ei.low:.0f}-{lit.ei.high:.0f}"
    return ", ".join(part for part in (told_lux, told_ei) if part)


def more_light(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """More light than there is, where it can be had: no more of daylight."""
    cells = judged.cells
    lit = cells.needs.lit
    if lit is None or lit.lux is None or "day" in cells.needs.shot.light.lower():
        return
    short = float(np.min(np.where(mask, _short(cells, "the light", False), np.inf), initial=np.inf))
    if short > MOST_LIGHT_STOPS:
        return
    lux = lit.lux * 2**short
    for tried in (two_digits(lux, True), two_digits(lux * 1.02, True), two_digits(lux * 1.1, True)):
        stops = math.log2(tried / lit.lux)
        words = f"{stops_words(stops)} more light ({tried:g} lux instead of {lit.lux:.3g})"
        yield (
            trouble("light", stops),
            [cell("light", cells.needs.shot, _lit_text(cells, f"{tried:g} lux", None), words)],
        )


def other_ei(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Another EI of the body's own list: beyond what is called usable, or beyond what the shot allows."""
    cells = judged.cells
    lit, shot = cells.needs.lit, cells.needs.shot
    if lit is None:
        return
    high_short, low_short = _short(cells, "the light", False), _short(cells, "too much light", True)
    found: list[Proposal] = []
    for j, here in enumerate(cells.layout.places):
        body = here.body
        listed = listed_eis(body)
        for short, up in ((high_short, True), (low_short, False)):
            need = float(np.min(np.where(mask[:, j], short[:, j], np.inf), initial=np.inf))
            if not math.isfinite(need):
                continue
            low, high = float(cells.ei_span[0][j]), float(cells.ei_span[1][j])
            wanted = high * 2**need if up else low / 2**need
            ready = [e for e in listed if (e >= wanted * (1 - 1e-9) if up else e <= wanted * (1 + 1e-9))]
            if not ready:
                continue
            ei = min(ready) if up else max(ready)
            stops = abs(math.log2(ei / (high if up else low)))
            words = f"EI {ei} instead of {high if up else low:.0f} on {body.name}"
            edits: list[Edit] = []
            if lit.ei is not None and (ei > lit.ei.high if up else ei < lit.ei.low):
                span = (lit.ei.low, ei) if up else (ei, lit.ei.high)
                edits.append(
                    cell(
                        "ei",
                        shot,
                        _lit_text(cells, _as_told(shot.light), f"EI {span[0]:.0f}-{span[1]:.0f}"),
                        words,
                        "light",
                    )
                )
            if up and body.highest_ei is not None and ei > body.highest_ei:
                edits.append(Edit("usable_ei", str(ei), words if not edits else f"beyond what is called usable on {body.name}",
                                  before=str(body.highest_ei), body=body.name))  # fmt: skip
            if edits:
                found.append((sum(trouble(e.kind, stops) for e in edits), edits))
    yield from _least(found)


def _as_told(light: str) -> str | None:
    """A light that is called by its name stays called so."""
    return next((name for name in TIMES_LUX if name in light.lower().split(",")[0]), None)


def more_nd(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """A filter more in front of the lens."""
    cells = judged.cells
    short = float(np.min(np.where(mask, _short(cells, "too much light", True), np.inf), initial=np.inf))
    if not math.isfinite(short):
        return
    for density in DENSITIES:
        stops = density / 0.3
        if stops >= short - 1e-9:
            yield (
                trouble("filter", stops),
                [Edit("filter", f"ND {density:.1f}", f"an ND {density:.1f} more ({stops_words(stops)})")],
            )


def other_stop(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Another stop than the one asked for."""
    cells = judged.cells
    stops = cells.needs.stops
    if stops is None or not cells.needs.must("stop"):
        return
    name = "the stop asked for"
    to_mark = np.ones(cells.layout.shape) if stops.marks == "T" else cells.f_of_t
    with np.errstate(invalid="ignore"):
        low = _without(cells.no_wider, name, True) / AT_A_MARK * to_mark
        high = _without(cells.no_narrower, name, False) * AT_A_MARK * to_mark
    low, high = low[mask], high[mask]
    span, shown = stops.span, "T" if stops.marks == "T" else "f/"
    found: list[Proposal] = []
    for mark in MARKED:
        if span.low <= mark <= span.high or not np.any(
            (low <= mark * (1 + 1e-9)) & (mark <= high * (1 + 1e-9))
        ):
            continue
        below = mark < span.low
        far = 2 * abs(math.log2(mark / (span.low if below else span.high)))
        if span.fixed:
            text, words = f"{shown}{mark:g}", f"{shown}{mark:g} instead of {shown}{span.low:g}"
        elif below:
            text = f"from {shown}{mark:g}" if span.high >= 256 else f"{shown}{mark:g}-{shown}{span.high:g}"
            words = f"{shown}{mark:g} allowed"
        else:
            text = f"up to {shown}{mark:g}" if span.low <= 0.3 else f"{shown}{span.low:g}-{shown}{mark:g}"
            words = f"{shown}{mark:g} allowed"
        found.append((trouble("stop", far), [cell("stop", cells.needs.shot, text, words)]))
    yield from _least(found)


def less_depth(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Less that has to be sharp."""
    cells = judged.cells
    hold = cells.needs.hold
    if hold is None or not cells.needs.must("hold"):
        return
    short = np.where(mask, _short(cells, "the depth", True), np.inf)
    if not np.isfinite(short.min(initial=np.inf)):
        return
    i, j = divmod(int(np.argmin(short)), short.shape[1])
    stops = float(short[i, j])
    unit, shot = cells.settings.unit, cells.needs.shot
    for share in (1.0, 0.97, 0.9, 0.8):
        part = share * 2 ** (-stops / 2)
        if hold.about_m is not None:
            text = f"±{distance_text(hold.about_m * part, unit, False)}"
        elif hold.deep or math.isinf(hold.far_m or 0.0):
            near = float(cells.distance_m[i, j]) if hold.deep else hold.near_m or 1.0
            text = f"{distance_text(near / part, unit, True)} to infinity"
        else:
            near, far = hold.near_m or 0.0, hold.far_m or 0.0
            middle = 2 * near * far / (near + far)
            ends = [1 / (1 / middle + part * (1 / end - 1 / middle)) for end in (near, far)]
            text = f"{distance_text(ends[0], unit, True)} to {distance_text(ends[1], unit, False)}"
        if not text.startswith("±0.00") and "0.00 m" not in text:
            words = f"sharp {text} instead of {shot.hold}"
            yield trouble("hold", stops - 2 * math.log2(share)), [cell("hold", shot, text, words)]


def less_soft(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """A background that is less soft."""
    cells = judged.cells
    soft = cells.needs.soft
    if soft is None or not cells.needs.must("background"):
        return
    short = float(np.min(np.where(mask, _short(cells, "the background", False), np.inf), initial=np.inf))
    if not math.isfinite(short):
        return
    place = re.sub(r"^[\d.,\s]*%", "", cells.needs.shot.background.strip())
    for share in (1.0, 0.95, 0.85):
        percent = two_digits(100 * soft.share * share * 2 ** (-short / 2), False)
        if percent >= 0.01:
            text = f"{percent:g} %{place}"
            words = f"a background {percent:g} % of the width soft instead of {100 * soft.share:g} %"
            yield (
                trouble("background", short - 2 * math.log2(share)),
                [cell("background", cells.needs.shot, text, words)],
            )


# The framing, and where the camera stands.


def other_framing(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Another field; or the wider one, cropped afterwards where pixels are left."""
    cells = judged.cells
    if cells.needs.wanted is None or not cells.needs.must("framing"):
        return
    framing = next(check for check in judged.checks if check.name == "framing")
    off = cells.wider[mask & ~framing.met]
    off = np.unique(np.round(off[np.isfinite(off) & (off > 0.01)], 3))
    # Another field is another place for the camera, and so another depth.
    steps = 2 ** (np.array([-3, -2, -1, 1, 2, 3]) / 4) if np.any(mask & framing.met) else np.empty(0)
    ratios = sorted({*off.tolist(), *steps.tolist()}, key=lambda ratio: abs(math.log2(ratio)))
    plain = [
        (trouble("framing", math.log2(ratio)), [edit])
        for ratio in ratios[: 2 * MOST_TRIED]
        for edit in _field(cells, ratio)
    ]
    wider = [ratio for ratio in ratios if ratio > 1][:MOST_TRIED]
    cropped = [each for ratio in wider for each in _cropped(cells, mask, ratio)]
    yield from sorted([*_least(plain), *_least(cropped)], key=lambda each: each[0])


def _field(cells: Cells, ratio: float) -> list[Edit]:
    """So many times as wide a field."""
    wanted, shot, unit = cells.needs.wanted, cells.needs.shot, cells.settings.unit
    assert wanted is not None
    if wanted.field_m is None:
        assert wanted.like_mm is not None
        like = wanted.like_mm / ratio
        text = re.sub(
            r"(?<=[a-z] )\d+(?:\.\d+)?", f"{like:.3g}", shot.framing.strip(), count=1, flags=re.IGNORECASE
        )
        return [cell("framing", shot, text, f"like a {like:.3g} instead of a {wanted.like_mm:g}")]
    text = f"{distance_text(wanted.field_m * ratio, unit, ratio > 1)} {'wide' if wanted.side == 'width' else 'high'}"
    words = f"framed {abs(100 * (ratio - 1)):.0f} % {'wider' if ratio > 1 else 'tighter'}, {text}"
    return [cell("framing", shot, text, words)]


def _cropped(cells: Cells, mask: Flags, ratio: float) -> list[Proposal]:
    """Framed wider and cropped afterwards, with pixels left for it."""
    needs = cells.needs
    if (
        not needs.deliveries
        or not needs.deliveries[0].long_edge_px
        or needs.picture.reframe_percent is not None
    ):
        return []
    if not np.any(head_of(cells, 0)[mask] >= ratio * 1.01):
        return []
    spare = math.ceil(100 * (ratio - 1) + 1)
    picture = ", ".join(part for part in (needs.shot.picture.strip(), f"re-frame {spare} %") if part)
    words = f"framed {100 * (ratio - 1):.0f} % wider and cropped ×{ratio:.2f} afterwards, pixels are left"
    return [
        (trouble("crop", math.log2(ratio)), [cell("crop", needs.shot, edit.after, words, "framing"),
                                             cell("crop", needs.shot, picture, "", "picture")])
        for edit in _field(cells, ratio)
    ]  # fmt: skip


def _framed_from(cells: Cells) -> list[Floats]:
    """The nearest and the farthest distance, and the one between, from which each cell frames as wanted, m; a zoom also at both
    of its ends."""
    wanted, layout = cells.needs.wanted, cells.layout
    if wanted is None or wanted.field_m is None:
        return []
    found = []
    for focal_mm in (cells.focal_mm, layout.low_mm, layout.high_mm):
        focal = np.where(layout.mounts, focal_mm, 1.0)
        for off in (1 / _EDGE, 1.0, _EDGE):
            m = cells.side_mm / mm_from_m(wanted.field_m * off)
            found.append(m_from_mm(conjugates.distance_for_magnification(focal, m)[1]))
    return found


def other_distance(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Another place for the camera than the shot allows."""
    cells = judged.cells
    span = cells.needs.distance
    if not cells.needs.must("distance") or not (span.low > 0 or math.isfinite(span.high)):
        return
    bounds = [cells.nearest_m, np.full(cells.layout.shape, cells.farthest_m)]
    framed = _framed_from(cells)
    # Where the stop is right already the place alone is missing: those are not crowded out by the others.
    met = [check.met for check in judged.checks if check.name == "stop" and check.must]
    right = mask & np.logical_and.reduce(met)
    found = [*_places(cells, right, [*framed, *bounds]), *_places(cells, mask, [*framed, *bounds])]
    # A zoom is set otherwise from every place, and without a framing every place is another depth.
    if not framed or np.any(mask & (cells.layout.high_mm > cells.layout.low_mm)):
        ends = [end for end in (span.low, span.high) if 0 < end < math.inf]
        every = [
            np.full(mask.shape, end * 2 ** (k / 4)) for end in ends for k in (*range(-6, 0), *range(1, 7))
        ]
        found += _places(cells, mask, every, 2 * MOST_TRIED)
    yield from sorted(found, key=lambda each: each[0])


def _places(cells: Cells, mask: Flags, places: list[Floats], most: int = MOST_TRIED) -> list[Proposal]:
    needs, unit = cells.needs, cells.settings.unit
    span = needs.distance
    found: dict[str, Proposal] = {}
    figures = np.array([place[mask] for place in places]).ravel()
    figures = np.unique(np.round(figures[np.isfinite(figures)], 3))
    figures = figures[
        (figures > 0.01) & (figures <= cells.farthest_m) & ((figures < span.low) | (figures > span.high))
    ]
    far = np.abs(np.log2(figures / np.where(figures < span.low, span.low, span.high)))
    for metres in figures[np.argsort(far, kind="stable")].tolist():
        nearer = metres < span.low
        bound = span.low if nearer else span.high
        # To the side that frames: never beyond the wall, never nearer than the lens goes.
        text = distance_text(metres, unit, not nearer and metres < cells.farthest_m)
        if text in found:
            continue
        words = f"{distance_text(abs(metres - bound), unit, True)} {'nearer' if nearer else 'farther back'}, from {text}"
        told = text
        if not span.fixed:
            ends = (text, _open_end(span.high, unit)) if nearer else (_open_end(span.low, unit), text)
            told = (
                f"from {ends[0]}"
                if not ends[1]
                else f"up to {ends[1]}"
                if not ends[0]
                else f"{ends[0]} to {ends[1]}"
            )
        cost = trouble("distance", math.log2(metres / bound))
        found[text] = cost, [cell("distance", needs.shot, told, words)]
        if len(found) >= most:
            break
    return list(found.values())


def _open_end(metres: float, unit: str) -> str:
    return (
        ""
        if metres <= 0 or math.isinf(metres)
        else distance_text(metres, "ft" if unit == "ft" else "m", False)
    )


def more_room(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """A wall that is farther away."""
    cells = judged.cells
    room = cells.needs.room_m
    if room is None or not cells.needs.must("room"):
        return
    found: list[Proposal] = []
    for place in (
        *_framed_from(cells),
        cells.nearest_m,
        np.full(cells.layout.shape, cells.needs.distance.low),
    ):
        for metres in {float(x) for x in place[mask] if math.isfinite(x) and x > room}:
            text = distance_text(metres, cells.settings.unit, True)
            words = f"{distance_text(metres - room, cells.settings.unit, True)} more room behind the camera ({text})"
            found.append(
                (trouble("room", math.log2(metres / room)), [cell("room", cells.needs.shot, text, words)])
            )
    yield from _least(found)


def nearer(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Nearer than the perspective asks for."""
    cells = judged.cells
    nearest = cells.needs.nearest_m
    if nearest is None or not cells.needs.must("nearest"):
        return
    found: list[Proposal] = []
    for place in (
        *_framed_from(cells),
        np.full(cells.layout.shape, min(cells.needs.distance.high, cells.farthest_m)),
    ):
        for metres in {float(x) for x in place[mask] if 0.01 < x < nearest and x <= cells.farthest_m}:
            text = distance_text(metres, cells.settings.unit, False)
            words = f"as near as {text} instead of {cells.needs.shot.nearest}"
            found.append(
                (
                    trouble("nearest", math.log2(nearest / metres)),
                    [cell("nearest", cells.needs.shot, text, words)],
                )
            )
    yield from _least(found)


# What is recorded, and what is carried.


def other_rate(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Another rate: the nearest that a format offers."""
    cells = judged.cells
    fps, shot = cells.needs.fps, cells.needs.shot
    rates: set[float] = set()
    for j in np.flatnonzero(mask.any(axis=0)):
        highest = cells.layout.highest[j]
        top = highest.usable_fps
        if top is None:
            continue
        for low, high in cells.layout.places[j].recording.rates.spans_fps:
            rates |= {min(max(fps.high, low), high, top)} if low <= top else set()
    found: list[Proposal] = []
    for rate in rates:
        if abs(rate / fps.high - 1) < 1e-6 or not 0.1 <= rate <= 100_000:
            continue
        # Down: a rate that is a hair too fast is none.
        told = rate_words(math.floor(rate * 1000 + 1e-6) / 1000)
        ramp = not fps.fixed and rate > fps.low
        text = f"{rate_words(fps.low)}-{told}" if ramp else told
        words = f"{told} fps instead of {rate_words(fps.high)}"
        found.append((trouble("speed", math.log2(rate / fps.high)), [cell("speed", shot, text, words)]))
    yield from _least(found)


def carry(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """An accessory or a licence more."""
    layout = judged.cells.layout
    found: list[Proposal] = []
    for j in np.flatnonzero(mask.any(axis=0)):
        names = [n for n in layout.places[j].recording.needs if n not in layout.package.carried]
        if 0 < len(names) <= 2:
            found.append(
                (trouble("carry") * len(names), [Edit("carry", name, f"carry {name}") for name in names])
            )
    yield from _least(found)


def _parts(text: str) -> list[str]:
    return [part.strip() for part in re.split(r"[,;]", text) if part.strip()]


def fewer_parts(field: str) -> Callable[[Judged, Flags], Iterator[Proposal]]:
    """One of several things that a cell asks for left out."""

    def propose(judged: Judged, mask: Flags) -> Iterator[Proposal]:
        needs = judged.cells.needs
        parts = _parts(getattr(needs.shot, field))
        if len(parts) < 2 or not needs.must(field):
            return
        kind = "picture" if field == "picture" else "deliveries"
        for part in parts:
            rest = ", ".join(each for each in parts if each != part)
            yield trouble(kind), [cell(kind, needs.shot, rest, f"without “{part}”")]  # type: ignore[arg-type]

    return propose


def dark_outside(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Dark corners outside the delivered picture, which nobody will see."""
    cells = judged.cells
    picture = cells.needs.shot.picture.strip()
    within = cells.circle_mm >= cells.layout.picture_needed_mm
    if cells.needs.picture.dark_outside or not cells.needs.deliveries or not np.any(mask & within):
        return
    text = ", ".join(part for part in (picture, "dark outside") if part)
    yield (
        trouble("outside"),
        [cell("outside", cells.needs.shot, text, "dark outside the picture only", "picture")],
    )


def off_the_main_format(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """This shot on whatever format does it."""
    if judged.cells.needs.main is not None and judged.cells.needs.main.must:
        yield _picture_too(judged, "any format", "off the main format for this shot")


def below_the_least(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """Less recorded than the production's least, for this shot."""
    cells = judged.cells
    formats = [cells.layout.places[j].recording for j in np.flatnonzero(mask.any(axis=0))]
    edges = {max(format.raster) for format in formats}
    bits = {format.bits for format in formats if format.bits is not None}
    least_px, least_bits = cells.needs.least_px or 0, cells.needs.least_bits or 0
    for edge in sorted((e for e in edges if e < least_px), reverse=True):
        yield _picture_too(
            judged, f"from {edge} px", f"recorded {edge} px wide, below the production’s {least_px}"
        )
    for fewer in sorted((b for b in bits if b < least_bits), reverse=True):
        yield _picture_too(
            judged, f"{fewer} bit", f"recorded with {fewer} bit, below the production’s {least_bits}"
        )


def _picture_too(judged: Judged, part: str, words: str) -> Proposal:
    shot = judged.cells.needs.shot
    text = ", ".join(each for each in (shot.picture.strip(), part) if each)
    return trouble("picture"), [cell("picture", shot, text, words)]


def stronger_rig(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """A rig that carries more."""
    cells = judged.cells
    limit, shot = cells.needs.rig.limit_kg, cells.needs.shot
    if limit is None or not cells.needs.must("rig"):
        return
    weight = (cells.layout.lens_kg + cells.layout.body_kg)[mask]
    above = weight[weight > limit]
    if not len(above):
        return
    # Told in the unit in which it was written.
    unit: Unit = "ft" if re.search(r"\d\s*(?:lb|pound)", shot.rig, re.IGNORECASE) else "m"
    per_kg = weight_figure(1.0, unit)
    kg = math.ceil(float(above.min()) * per_kg * 10 - 1e-9) / 10 / per_kg
    carried = limit_words(kg, unit)
    text = re.sub(_CARRIED, carried, shot.rig, count=1, flags=re.IGNORECASE)
    words = f"a {cells.needs.rig.kind or 'rig'} that carries {carried}"
    yield trouble("rig", math.log2(kg / limit)), [cell("rig", shot, text, words)]


#: The needs that a check belongs to, where it has another name.
NEEDS_OF = {
    "rate": ("speed",),
    "raw": ("picture",),
    "full_read": ("picture",),
    "bits": ("picture",),
    "oversampling": ("picture",),
    "stop": ("stop", "hold", "background", "light"),
    "place": ("distance", "room", "nearest"),
}


def given_up(check: Check, needs_shot: object) -> list[str]:
    """The needs that could be wishes instead, so that a check is not missed."""
    names = NEEDS_OF.get(check.name, (check.name,))
    return [n for n in names if n in NEEDS and str(getattr(needs_shot, n)).strip()]


def as_wishes(judged: Judged, mask: Flags) -> Iterator[Proposal]:
    """A must that becomes a wish."""
    needs = judged.cells.needs
    names = [
        name
        for check in judged.checks
        if check.must and not check.met[mask].all()
        for name in given_up(check, needs.shot)
        if needs.must(name)
    ]
    for name in dict.fromkeys(names):
        words = f"{name.replace('_', ' ')} as a wish, not a must"
        yield trouble("wish"), [Edit("wish", "wish", words, name, "must")]


_PICTURES = frozenset({"raw", "full_read", "bits", "oversampling", "picture"})
_PLACED = frozenset({"place", "framing", "stop", "covers"})
#: Every kind of change that is looked for, the least trouble about first.
KINDS: tuple[Kind, ...] = (
    Kind(frozenset({"stop"}), more_nd),
    Kind(frozenset({"carried"}), carry),
    Kind(frozenset({"covers"}), dark_outside),
    Kind(frozenset({"main"}), off_the_main_format),
    Kind(frozenset({"least"}), below_the_least),
    Kind(_PLACED, other_distance),
    Kind(frozenset({"stop"}), other_ei),
    Kind(frozenset({"stop"}), other_stop),
    Kind(frozenset({"stop"}), more_light),
    Kind(_PLACED, other_framing),
    Kind(frozenset({"stop"}), less_depth),
    Kind(frozenset({"stop"}), less_soft),
    Kind(frozenset({"rate", "stop"}), other_rate),
    Kind(_PLACED, nearer),
    Kind(frozenset({"rig"}), stronger_rig),
    Kind(_PLACED, more_room),
    Kind(_PICTURES | _PLACED, fewer_parts("picture")),
    Kind(frozenset({"deliveries"}) | _PLACED | _PICTURES, fewer_parts("deliveries")),
    Kind(frozenset({*NEEDS, *NEEDS_OF, "covers"}), as_wishes),
)
