"""What differs from the plan, and what that does: each thing by itself, as if all else were as planned.

The rules, stated here and in docs/set.md: stops, ND and shutter count as the same within `SAME_STOPS`, zooms within
`SAME_SHARE`, rates within `SAME_RATE` (24 is not 23.976). A distance differs where it leaves what the shot allows.
What is not said, or not planned, differs from nothing.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from typing_extensions import TypedDict

from hextan.core.base import both_units, crop_words, distance_words, parse_rate, signed, stops_words
from hextan.core.equipment import Menu, Package, PackageSettings
from hextan.core.evaluation import BenchDelivery, BenchReference
from hextan.core.light import flicker
from hextan.core.record.document import OnCamera
from hextan.core.record.figures import Figures, figures_of, found_of
from hextan.core.record.planned import on_by_plan, picture_of
from hextan.core.shots import Needs, Shot, needs_of

#: Half of a third of a stop: what nobody can set more exactly (common practice, no source).
SAME_STOPS = 1 / 6 + 1e-9
SAME_SHARE = 0.02
SAME_RATE = 2e-4
#: Below this share a field, or a depth, is told as the same.
_LITTLE = 0.01


class Difference(TypedDict):
    """One thing that is not as planned."""

    code: str
    name: str
    planned: str
    used: str
    #: In large words, where it spoils what is recorded; empty otherwise.
    headline: str
    effects: list[str]
    #: Where it stands in the camera's menu.
    menu: str


class Held(TypedDict):
    """A set-up held against the plan."""

    differences: list[Difference]
    #: All differences of light together, stops: positive is brighter. None where there is none.
    brighter_stops: float | None
    #: In a sentence.
    told: str
    #: Near and far where it is focused, None where they are not known; far is None where it is infinite.
    near_m: float | None
    far_m: float | None
    #: What is named and is not in the package.
    gone: list[str]


@dataclass(frozen=True)
class Pair:
    """The plan and what is on the camera, computed; and what the rest is told by."""

    package: Package
    settings: PackageSettings
    needs: Needs
    delivery: BenchDelivery
    reference: BenchReference
    planned: OnCamera
    used: OnCamera
    before: Figures | None
    after: Figures | None

    def only(self, **change: object) -> Figures | None:
        """The plan with one thing changed."""
        return figures_of(self.package, self.planned.model_copy(update=change), self.delivery, self.reference)


def held_against(package: Package, settings: PackageSettings, shot: Shot | None, used: OnCamera) -> Held:
    """Hold what is on a camera against the plan of a shot; without a shot, or a choice, nothing differs."""
    needs = Needs(shot=Shot(name="-")) if shot is None else needs_of(shot, package, settings)
    delivery, reference = (
        picture_of(settings, needs if shot is not None else None),
        package.reference,
    )
    planned = None if shot is None else on_by_plan(package, settings, shot)
    after = figures_of(package, used, delivery, reference)
    found: list[Difference] = []
    brighter = None
    if planned is not None:
        before = figures_of(package, planned, delivery, reference)
        pair = Pair(package, settings, needs, delivery, reference, planned, used, before, after)
        found = [difference for row in ROWS for difference in row(pair)]
        brighter = brighter_stops(pair)
    return {
        "differences": found,
        "brighter_stops": brighter,
        "told": _told(found, brighter) if planned is not None else "",
        "near_m": None if after is None else after.near_m,
        "far_m": None if after is None else after.far_m,
        "gone": list(found_of(package, used).gone),
    }


def _told(found: list[Difference], brighter: float | None) -> str:
    if not found:
        return "As planned."
    names = ", ".join(dict.fromkeys(each["name"].lower() for each in found))
    light = "" if brighter is None else f" All in all {_light(brighter)}."
    return f"Not as planned: {names}.{light}"


def brighter_stops(pair: Pair) -> float | None:
    """All that changes the exposure, together; None where nothing of it does, or it cancels out within a sixth."""
    p, u = pair.planned, pair.used
    total = 0.0
    if pair.before is not None and pair.after is not None and u.stop is not None and p.stop is not None:
        a, b = pair.before.t_stop, pair.after.t_stop
        total += 0.0 if a is None or b is None else 2 * math.log2(a / b)
    if p.ei and u.ei:
        total += math.log2(u.ei / p.ei)
    if p.nd_stops is not None and u.nd_stops is not None:
        total += p.nd_stops - u.nd_stops
    if p.shutter_deg and u.shutter_deg:
        total += math.log2(u.shutter_deg / p.shutter_deg)
    if p.fps and u.fps:
        total -= math.log2(u.fps / p.fps)
    return total if abs(total) > SAME_STOPS else None


def _light(stops: float) -> str:
    return f"{stops_words(stops)} {'brighter' if stops > 0 else 'darker'}"


def _frames(before: Figures | None, after: Figures | None) -> list[str]:
    """What it frames like."""
    if before is None or after is None:
        return []
    a, b = before.effective_mm, after.effective_mm
    if a is None or b is None or abs(b / a - 1) <= _LITTLE:
        return []
    return [
        f"frames like {b:.3g}, not {a:.3g}"
        if f"{b:.3g}" != f"{a:.3g}"
        else f"frames {crop_words(b / a)} tighter"
    ]


def _pixels(pair: Pair, before: Figures | None, after: Figures | None) -> list[str]:
    """Photosites that are left, and whether they are enough for what is delivered."""
    if before is None or after is None:
        return []
    told = []
    a, b = before.megapixels, after.megapixels
    if a is not None and b is not None and abs(b / a - 1) > _LITTLE:
        told.append(f"read from {b:.1f} MP of the sensor instead of {a:.1f}")
    first = pair.needs.deliveries[0] if pair.needs.deliveries else next(iter(pair.settings.deliveries), None)
    head, over = after.headroom, after.oversampling
    if first is None or head is None or not first.long_edge_px:
        return told
    # Photosites across for each pixel that is delivered: what a recording scales up is no picture.
    true = head * min(over, 1.0) if over is not None else head
    if true >= 1 - 1e-3:
        told.append(f"still enough for {first.name}: {100 * (true - 1):.0f} % to spare")
    else:
        told.append(f"{first.name} is upscaled ×{1 / true:.2f}")
    return told


def _recorded(before: Figures | None, after: Figures | None) -> list[str]:
    """What is recorded, pixels first: that is what everybody gets."""
    if before is None or after is None or before.found.here is None or after.found.here is None:
        return []
    a, b = before.found.here.recording, after.found.here.recording
    told = []
    if a.raster != b.raster:
        told.append(f"{raster_words(b.raster)}, instead of {raster_words(a.raster)}")
    if a.codec != b.codec or a.bits != b.bits:
        words = [" ".join(p for p in (r.codec, f"{r.bits} bit" if r.bits else "") if p) for r in (b, a)]
        told += [f"{words[0]} instead of {words[1]}"] if all(words) else []
    return told


def raster_words(raster: tuple[int, int]) -> str:
    """A raster with its megapixels.

    >>> raster_words((1920, 1080))
    '1920 × 1080, 2.1 MP'
    """
    return f"{raster[0]} × {raster[1]}, {raster[0] * raster[1] / 1e6:.1f} MP"


def _covered(after: Figures | None) -> list[str]:
    if after is None:
        return []
    circle, needed = after.result.setting.circle_mm, float(after.result.evaluation.needed_mm[0])
    return (
        []
        if circle is None or circle >= needed or not after.result.evaluation.short[0]
        else [f"its circle is {needed - circle:.1f} mm short: dark corners"]
    )


def _depth(pair: Pair, before: Figures | None, after: Figures | None) -> list[str]:
    """How much deeper or shallower."""
    if before is None or after is None or not before.depth or not after.depth:
        return []
    a, b = before.total_m, after.total_m
    if a is None or b is None:
        return [] if a == b else ["sharp to infinity" if b is None else "no longer sharp to infinity"]
    if abs(b - a) <= _LITTLE * max(a, b):
        return []
    return [f"{distance_words(abs(b - a), pair.settings.unit)} {'deeper' if b > a else 'shallower'}"]


def _said(a: object, b: object) -> bool:
    return a not in (None, "") and b not in (None, "")


def _row(
    code: str, name: str, planned: str, used: str, effects: list[str], headline: str = "", menu: str = ""
) -> Difference:
    return {
        "code": code,
        "name": name,
        "planned": planned,
        "used": used,
        "headline": headline,
        "effects": effects,
        "menu": menu,
    }


def _menu(to: Menu, came_by: Menu) -> str:
    """Where it is put right, and what may have brought it about."""
    told = [
        f"Menu: {to.path}." if to.path else "",
        f"May have come by itself: {came_by.by_itself}." if came_by.by_itself else "",
    ]
    return " ".join(each for each in told if each)


def _body(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned, pair.used
    if _said(p.body, u.body) and p.body != u.body:
        effects = [
            *_recorded(pair.before, pair.after),
            *_frames(pair.before, pair.after),
            *_pixels(pair, pair.before, pair.after),
        ]
        yield _row("body", "Body", p.body, u.body, effects, f"ANOTHER BODY, planned {p.body}")


def _mode(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned, pair.used
    if p.body != u.body or not _said(p.mode, u.mode) or p.mode == u.mode:
        return
    alone = pair.only(mode=u.mode, format=u.format)
    headline = f"{u.mode} IS ON, planned {p.mode}"
    menu = ""
    if pair.before is not None and alone is not None:
        a, b = pair.before.found.here, alone.found.here
        assert a is not None and b is not None
        menu = _menu(a.mode.menu, b.mode.menu)
        wider = b.mode.window[0] / a.mode.window[0]
        if wider < 1 - _LITTLE:
            headline = "CROP IS ON, planned off"
        elif wider > 1 + _LITTLE:
            headline = "CROP IS OFF, planned on"
        elif b.mode.method not in (a.mode.method, "full"):
            headline = (
                f"{'BINNED' if b.mode.method == 'binned' else 'LINES ARE SKIPPED'}, planned every photosite"
            )
    effects = [
        *_recorded(pair.before, alone),
        *_pixels(pair, pair.before, alone),
        *_frames(pair.before, alone),
        *_covered(alone),
    ]
    yield _row("mode", "Scan mode", p.mode, u.mode, effects, headline, menu)


def _format(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned, pair.used
    if (
        p.body != u.body
        or not _said(p.format, u.format)
        or p.format == u.format
        or (p.mode != u.mode and u.mode)
    ):
        return
    alone = pair.only(format=u.format)
    effects: list[str] = []
    if pair.before is not None and alone is not None and pair.before.found.here and alone.found.here:
        a, b = pair.before.found.here.recording, alone.found.here.recording
        effects += [
            *_recorded(pair.before, alone),
            *_frames(pair.before, alone),
            *(_pixels(pair, pair.before, alone) if a.raster != b.raster else []),
        ]
    yield _row("format", "Recording", p.format, u.format, effects, f"RECORDS {u.format}, planned {p.format}")


def _crops(pair: Pair) -> Iterator[Difference]:
    p, u, before = pair.planned, pair.used, pair.before
    if p.body != u.body or p.crops is None or u.crops is None or before is None or before.found.here is None:
        return
    here = before.found.here
    for crop in here.body.crops:
        planned, used = crop.name in p.crops, crop.name in u.crops
        if planned == used:
            continue
        alone = pair.only(
            crops=[*p.crops, crop.name] if used else [name for name in p.crops if name != crop.name]
        )
        acts = (
            pair.after is None
            or pair.after.found.here is None
            or any(
                each.name == crop.name
                for each, _ in pair.after.found.here.crops_that_apply(
                    frozenset([crop.id]), pair.after.result.setting.on_body(pair.after.found.here)
                )
            )
        )
        effects = [*_frames(before, alone), *_pixels(pair, before, alone)]
        if used and not acts:
            effects = ["it does nothing here"]
        headline = f"{crop.name.upper()} IS {'ON' if used else 'OFF'}, planned {'on' if planned else 'off'}"
        yield _row(
            "crop",
            crop.name,
            _switch(planned),
            _switch(used),
            effects,
            headline if acts or not used else "",
            _menu(crop.menu, crop.menu),
        )


def _switch(on: bool) -> str:
    return "on" if on else "off"


def _rate(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned.fps, pair.used.fps
    if p is None or u is None or abs(u / p - 1) <= SAME_RATE:
        return
    base = float(parse_rate(pair.settings.base_fps))
    effects = []
    if abs(u / p - 1) > 0.02:
        effects.append(
            f"played at {base:.5g} it runs {'slower' if u > p else 'faster'}, ×{max(u / p, p / u):.3g}"
        )
        if pair.planned.shutter_deg and pair.used.shutter_deg:
            effects.append(f"{_light(-math.log2(u / p))} at the same angle")
    else:
        effects.append("the same to the eye, and another rate to whoever edits")
    effects += _flickers(pair)
    yield _row(
        "rate", "Rate", f"{p:.5g} fps", f"{u:.5g} fps", effects, f"{u:.5g} FRAMES A SECOND, planned {p:.5g}"
    )


def _flickers(pair: Pair) -> list[str]:
    hz, fps, angle = (
        pair.needs.flicker_hz,
        pair.used.fps or pair.planned.fps,
        pair.used.shutter_deg or pair.planned.shutter_deg,
    )
    if hz is None or not fps or not angle:
        return []
    time = angle / 360 / fps
    safe = flicker.nearest_safe(hz, fps, time)
    if safe is not None and abs(float(safe) / time - 1) < 1e-6:
        return []
    return [
        f"lamps that pulse at {hz:g} Hz may flicker"
        + ("" if safe is None else f": {360 * fps * float(safe):.1f}° would hold")
    ]


def _lens(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned, pair.used
    other_set = p.lens == u.lens and _said(p.lens_set, u.lens_set) and p.lens_set != u.lens_set
    if _said(p.lens, u.lens) and (p.lens != u.lens or other_set):
        # On another body the lens is another as a matter of course: what both come to is told with the body.
        alone = (
            None
            if p.body != u.body
            else pair.only(lens=u.lens, lens_set=u.lens_set, adapters=u.adapters, focal_mm=u.focal_mm)
        )
        yield _row(
            "lens",
            "Lens",
            pair.package.lens_words(p.lens, p.lens_set),
            pair.package.lens_words(u.lens, u.lens_set),
            [*_frames(pair.before, alone), *_depth(pair, pair.before, alone), *_covered(alone)],
        )
        return
    if p.lens == u.lens and p.focal_mm and u.focal_mm and abs(u.focal_mm / p.focal_mm - 1) > SAME_SHARE:
        alone = pair.only(focal_mm=u.focal_mm)
        yield _row("focal", "Focal length", f"{p.focal_mm:.3g} mm", f"{u.focal_mm:.3g} mm",
                   [*_frames(pair.before, alone), *_depth(pair, pair.before, alone)])  # fmt: skip
    if p.lens == u.lens and p.adapters != u.adapters:
        alone = pair.only(adapters=u.adapters)
        yield _row("adapters", "Adapter", " + ".join(p.adapters) or "none", " + ".join(u.adapters) or "none",
                   [*_frames(pair.before, alone), *_covered(alone)])  # fmt: skip


def _squeeze(pair: Pair) -> Iterator[Difference]:
    """What the camera de-squeezes by has to be the squeeze of the lens that is on."""
    used = pair.used.squeeze
    figures = pair.after if pair.after is not None else pair.before
    lens = None if figures is None else figures.found.lens
    if used is None or lens is None or abs(used / lens.squeeze - 1) <= SAME_SHARE:
        return
    effects = [f"the finder shows everything too {'wide' if used > lens.squeeze else 'narrow'}"]
    yield _row(
        "squeeze",
        "De-squeeze",
        f"{lens.squeeze:g}x",
        f"{used:g}x",
        effects,
        f"DE-SQUEEZED {used:g}x, the lens has {lens.squeeze:g}x",
    )


def _stop(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned.stop, pair.used.stop
    if p is None or u is None or abs(2 * math.log2(u / p)) <= SAME_STOPS:
        return
    marks = "T" if pair.before is None else pair.before.result.setting.marks
    alone = pair.only(stop=u)
    effects = [_light(2 * math.log2(p / u)), *_depth(pair, pair.before, alone)]
    yield _row("stop", "Stop", f"{marks}{p:.3g}", f"{marks}{u:.3g}", effects)


def _nd(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned.nd_stops, pair.used.nd_stops
    if p is not None and u is not None and abs(p - u) > SAME_STOPS:
        yield _row(
            "nd", "ND", stops_words(p) if p else "none", stops_words(u) if u else "none", [_light(p - u)]
        )


def _ei(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned.ei, pair.used.ei
    if p is None or u is None or p == u:
        return
    here = None if pair.before is None else pair.before.found.here
    effects = [_light(math.log2(u / p)) if abs(math.log2(u / p)) > 0.005 else "as bright"]
    if here is not None and here.body.highest_ei is not None and u > here.body.highest_ei:
        effects.append(f"above {here.body.highest_ei}, which is stated as usable")
    yield _row("ei", "EI", str(p), str(u), effects)


def _shutter(pair: Pair) -> Iterator[Difference]:
    p, u = pair.planned.shutter_deg, pair.used.shutter_deg
    if p is not None and u is not None and abs(math.log2(u / p)) > 0.01:
        yield _row(
            "shutter", "Shutter", f"{p:.4g}°", f"{u:.4g}°", [_light(math.log2(u / p)), *_flickers(pair)]
        )


def _distance(pair: Pair) -> Iterator[Difference]:
    at, needs, unit = pair.used.focus_m, pair.needs, pair.settings.unit
    both = pair.settings.brackets
    if at is None:
        return
    span = needs.distance
    if needs.keep_out_m is not None and at < needs.keep_out_m * (1 - 1e-9):
        by = needs.shot.keep_out_by.strip() or "nobody who is named"
        yield _row("keep_out", "Keep-out distance", both_units(needs.keep_out_m, unit, both), both_units(at, unit, both),
                   [f"set by {by}: whoever is responsible decides; no distance is called safe here"],
                   "NEARER THAN THE KEEP-OUT DISTANCE")  # fmt: skip
    if span.low * (1 - SAME_SHARE) <= at <= span.high * (1 + SAME_SHARE):
        return
    end = span.low if at < span.low else span.high
    first, last = (
        distance_words(span.low, unit),
        distance_words(span.high, unit) if math.isfinite(span.high) else "∞",
    )
    effects = []
    if pair.planned.focus_m:
        field = signed(100 * (at / pair.planned.focus_m - 1), 0)
        effects.append(
            f"the field is {field.lstrip('+−')} % {'wider' if at > pair.planned.focus_m else 'narrower'} than planned"
        )
    yield _row("distance", "Distance", first if span.low == span.high else f"{first} to {last}", distance_words(at, unit),
               [f"{distance_words(abs(at - end), unit)} {'nearer' if at < end else 'farther'} than the shot allows", *effects])  # fmt: skip


#: In the order in which they are told: what spoils most comes first.
ROWS: tuple[Callable[[Pair], Iterator[Difference]], ...] = (
    _body, _mode, _crops, _format, _rate, _distance, _squeeze, _lens, _stop, _nd, _ei, _shutter,
)  # fmt: skip
