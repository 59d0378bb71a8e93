"""Match one camera to another: field, depth and exposure with the lenses, stops, EI and ND that there really are."""

from __future__ import annotations

import math
from bisect import insort
from collections.abc import Iterator
from dataclasses import dataclass, replace

from hextan.core.base import (
    Fault,
    HextanError,
    InvalidInputError,
    both_units,
    distance_words,
    m_from_mm,
    no_longer_here,
    signed,
    stops_words,
)
from hextan.core.compare.answers import CameraMatch, ExactMatch, MatchOption
from hextan.core.compare.cases import Optics
from hextan.core.compare.comparison import Column, Comparison, letter_of
from hextan.core.compare.setups import Setup, setup_of, size_of
from hextan.core.equipment import Body, Lens, Mounting, Package, ways
from hextan.core.evaluation import columns_of
from hextan.core.light import NdChoice, Settings
from hextan.core.optics import Verdict, coverage_verdict

#: What counts how much when lenses are ranked (docs/looks.md).
COSTS = {
    "width_percent": 1.0,
    "depth_stop": 3.0,
    "exposure_stop": 3.0,
    "short_circle": 25.0,
    "adapter": 1.0,
    "other_squeeze": 10.0,
    # Of the light: what is set so that the other comes out as bright.
    "ei_stop": 0.3,
    "nd_part": 0.05,
    "ei_up_with_nd": 1.5,
    "beyond_usable_ei": 2.0,
}
#: A bare EI this near beats an EI that is raised and taken back by ND.
THIRD = 1 / 3 + 0.005
#: Below these nobody sees a difference (common practice, no source).
GOOD_WIDTH_PERCENT, GOOD_STOPS = 1.0, 0.17
MOST_OPTIONS = 6


@dataclass(frozen=True)
class LightMatch:
    """EI and ND that bring the other nearest to the first, and what is left over."""

    settings: Settings
    nd_parts: tuple[str, ...]
    #: Against the first, stops; positive: brighter. It counts to the hundredth.
    off_stops: float
    cost: float


@dataclass(frozen=True)
class Candidate:
    """A lens of the kit on the other camera, as near as it comes."""

    setup: Setup
    way: Mounting
    width_percent: float
    exact_stop: float
    depth_stops: float
    light: LightMatch
    exposure_stops: float
    covers: Verdict
    #: Squeezed where the first is not, or otherwise: bokeh differs.
    other_squeeze: bool

    @property
    def cost(self) -> float:
        """How far it is from a match; see `COSTS`."""
        return (
            abs(self.width_percent) * COSTS["width_percent"]
            + abs(self.depth_stops) * COSTS["depth_stop"]
            + self.light.cost
            + (COSTS["short_circle"] if self.covers == "short" else 0.0)
            + len(self.way.adapters) * COSTS["adapter"]
            + (COSTS["other_squeeze"] if self.other_squeeze else 0.0)
        )


def match_camera(package: Package, comparison: Comparison, index: int) -> CameraMatch:
    """Match a column to the master.

    Parameters
    ----------
    index : the column, not the master; its body, format, rate and place are kept

    Returns
    -------
    ``exact`` (what it would take), ``options`` (real ones, the nearest first, each with what is left over),
    ``advice`` where the nearest is not near enough.

    Raises
    ------
    InvalidInputError
        No such column, or a master whose depth cannot be told.
    """
    at = comparison.master_index
    if not 0 <= index < len(comparison.columns) or index == at:
        raise InvalidInputError.of(
            Fault("index", index, f"must be a column of the comparison other than {letter_of(at)}")
        )
    first = setup_of(package, comparison, comparison.columns[at])
    if first.optics is None:
        rule = "has a fisheye or no stop: there is no field or depth to match"
        raise InvalidInputError.of(Fault(f"document.columns[{at}].lens_id", first.state.lens_id, rule))
    column = comparison.columns[index]
    subject = first.state.subject_m
    there = column.model_copy(update={"subject_m": subject, "focus_m": first.state.focus_m})
    found = sorted(candidates(package, comparison, first, there), key=lambda c: c.cost)
    within = [c for c in found if abs(c.width_percent) <= comparison.within_percent + 1e-9]
    exact = _exact(package, comparison, first, there)
    return {
        "exact": exact,
        "options": [_option(c) for c in _varied(within)],
        "advice": _advice(package, comparison, first, there, within or found),
        "tried": len(found),
    }


def _varied(found: list[Candidate]) -> list[Candidate]:
    """The nearest ones, each lens through its nearest way only."""
    seen: set[int] = set()
    kept = []
    for each in found:
        if each.setup.state.lens_id not in seen:
            seen.add(each.setup.state.lens_id)
            kept.append(each)
    return kept[:MOST_OPTIONS]


def candidates(
    package: Package, comparison: Comparison, first: Setup, column: Column, most: int | None = None
) -> Iterator[Candidate]:
    """Lenses of the kit in every way on the column's body, set as near to the first set-up as they go.

    Parameters
    ----------
    most : only so many, those whose field is nearest; without it all that could be among the best
    """
    body = package.formats[column.format_id].body if column.format_id in package.formats else None
    if body is None:
        raise InvalidInputError.plainly(no_longer_here("recording format", "format_id", column.format_id))
    screened = _screened(package, comparison, first, column, body)
    costs: list[float] = []
    for off, lens, way in screened[:most]:
        # Its width alone costs at least this; nothing after it is cheaper.
        if (
            len(costs) >= MOST_OPTIONS
            and costs[MOST_OPTIONS - 1] < 99 * (1 - 1 / off) * COSTS["width_percent"]
        ):
            return
        try:
            found = _nearest(package, comparison, first, column, lens, way)
        except HextanError:
            # Too close for this lens to form an image: it is no candidate.
            continue
        insort(costs, found.cost)
        yield found


def _screened(
    package: Package, comparison: Comparison, first: Setup, column: Column, body: Body
) -> list[tuple[float, Lens, Mounting]]:
    """Every lens in every way that goes, by how far its field is off as a factor, the nearest first."""
    target = first.optics
    assert target is not None
    sizes: dict[float, float] = {}
    found = []
    for _, lens in package.lenses.values():
        if lens.projection != "rectilinear":
            continue
        if lens.squeeze not in sizes:
            sizes[lens.squeeze] = _size(package, comparison, column, lens.squeeze)
        # The longest that gives the field is found from afar; focusing close changes it by little.
        exact = exact_focal_mm(target.field_mm, sizes[lens.squeeze], target.distance_mm)
        for way in ways(package.rig, lens, body):
            if not way.reasons:
                low, high = lens.focal_min_mm * way.magnification, lens.focal_max_mm * way.magnification
                off = max(exact / high, low / exact, 1.0)
                found.append((off, lens, way))
    return sorted(found, key=lambda each: each[0])


def _size(package: Package, comparison: Comparison, column: Column, squeeze: float) -> float:
    """The picture's de-squeezed size, by the dimension that framing goes by, behind a lens of this squeeze."""
    here = package.formats[column.format_id]
    asked = here.as_request(
        column.fps,
        comparison.delivery.for_recording(here.recording.raster, squeeze),
        frozenset(column.crop_ids),
    )
    c = columns_of([asked], squeeze)
    return size_of(
        float(c.picture_w[0]) * squeeze, float(c.picture_h[0]), (comparison.reference or package.reference).by
    )


def _with_lens(
    column: Column, lens: Lens, way: Mounting, focal_mm: float | None, stop: float | None
) -> Column:
    ids = [*way.key, None, None]
    return column.model_copy(
        update={
            "lens_id": lens.id,
            "adapter_id": ids[0],
            "second_adapter_id": ids[1],
            "focal_mm": focal_mm,
            "stop": stop,
        }
    )


def _nearest(
    package: Package, comparison: Comparison, first: Setup, column: Column, lens: Lens, way: Mounting
) -> Candidate:
    """Set one lens: the zoom's focal length by the field, the stop by the depth, ND and EI by the exposure."""
    target = first.optics
    assert target is not None
    tried = setup_of(package, comparison, _with_lens(column, lens, way, None, None))
    optics = tried.optics
    if optics is None:
        raise InvalidInputError("Depth cannot be told for this lens here.")
    focal = None
    if lens.is_zoom:
        wanted = exact_focal_mm(target.field_mm, optics.size_mm, optics.distance_mm) / way.magnification
        focal = min(max(wanted, lens.focal_min_mm), lens.focal_max_mm)
        tried = setup_of(package, comparison, _with_lens(column, lens, way, focal, None))
        optics = tried.optics
        assert optics is not None
    n = exact_f_number(target.depth_dioptres, optics.focal_mm, optics.distance_mm, optics.coc_mm,
                       optics.pupil_magnification)  # fmt: skip
    setting = tried.found.setting
    assert setting.stop is not None
    exact_stop = n * setting.stop / optics.f_number
    stop = min(tried.exposing.means.stops, key=lambda s: abs(math.log2(s / exact_stop)))
    whole = setup_of(package, comparison, _with_lens(column, lens, way, focal, stop))
    light = match_light(first, whole)
    return Candidate(
        setup=whole,
        way=way,
        width_percent=100 * (optics.field_mm / target.field_mm - 1),
        exact_stop=exact_stop,
        depth_stops=2 * math.log2(stop / exact_stop),
        light=light,
        exposure_stops=light.off_stops,
        covers=coverage_verdict(
            setting.circle_mm,
            float(whole.found.evaluation.needed_mm[0]),
            float(whole.found.evaluation.dark[0]),
            package.seen_dark,
        ),
        other_squeeze=abs(lens.squeeze / first.found.setting.lens.squeeze - 1) > 0.01,
    )


def exact_focal_mm(field_mm: float, size_mm: float, distance_mm: float) -> float:
    """Focal length behind the adapters for a field, from the sensor: D*m/(1+m)^2 with m = w/F.

    >>> round(exact_focal_mm(2124.0, 36.0, 3000.0), 2)
    49.17
    """
    m = size_mm / field_mm
    return distance_mm * m / (1 + m) ** 2


def exact_f_number(
    dioptres: float, focal_mm: float, distance_mm: float, coc_mm: float, pupil_magnification: float = 1.0
) -> float:
    """The f-number behind the adapters that gives a depth of 1/near - 1/far, per metre: N = q*f*m/c with q = depth*z/2."""
    q_distance = distance_mm / focal_mm
    m = 2.0 / ((q_distance - 2.0) + math.sqrt(q_distance * (q_distance - 4.0)))
    z = focal_mm * (1 / m + 1 / pupil_magnification)
    return dioptres * z / 2000.0 * focal_mm * m / coc_mm


def match_light(first: Setup, other: Setup) -> LightMatch:
    """Set EI and ND so that the other comes out as bright as the first; the light is shared.

    Notes
    -----
    Every EI with every ND is weighed: what is left over, to the hundredth of a stop; how far the EI is from a native
    one, in stops (noise); each ND that is put in; an EI that is raised and taken back by ND, which is left out
    altogether where an EI without it comes within a third; an EI beyond what the body says is usable. See `COSTS`.
    """
    means, now, target = other.exposing.means, other.settings, first.settings.off_stops
    usable = other.found.chosen.body.highest_ei
    natives = means.base_eis or (now.ei,)

    def weighed(ei: int, nd: NdChoice) -> tuple[LightMatch, bool]:
        settings = replace(now, ei=ei, nd_stops=nd.stops)
        off = settings.off_stops - target
        together = ei > now.ei and nd.stops > now.nd_stops + 1e-6
        cost = (
            abs(round(off, 2)) * COSTS["exposure_stop"]
            + min(abs(math.log2(ei / native)) for native in natives) * COSTS["ei_stop"]
            + len(nd.parts) * COSTS["nd_part"]
            + (COSTS["ei_up_with_nd"] if together else 0.0)
            + (COSTS["beyond_usable_ei"] if usable is not None and ei > usable else 0.0)
        )
        return LightMatch(settings, nd.parts, off, cost), together

    tried = [weighed(ei, nd) for ei in means.eis for nd in means.nds]
    bare = [match for match, together in tried if not together and not match.nd_parts]
    if any(abs(match.off_stops) <= THIRD for match in bare):
        tried = [each for each in tried if not each[1]]
    # Of equals the one that changes least.
    return min(
        (match for match, _ in tried),
        key=lambda m: (round(m.cost, 6), len(m.nd_parts), abs(math.log2(m.settings.ei / now.ei))),
    )


def _usable_words(setup: Setup, ei: int) -> str | None:
    """Warn of an EI beyond what the body states as usable."""
    body = setup.found.chosen.body
    if body.highest_ei is None or ei <= body.highest_ei:
        return None
    return (
        f"EI {ei} is beyond EI {body.highest_ei}, up to which {body.name} is said to be usable: expect noise."
    )


def _light_cures(first: Setup, best: Candidate) -> str:
    """What brings two cameras together that EI and ND leave apart. More or less light would change both alike."""
    off, setup = best.exposure_stops, best.setup
    setting, means = setup.found.setting, setup.exposing.means
    ways_out = []
    now = setting.stop
    assert now is not None
    stop = min(means.stops, key=lambda s: abs(2 * math.log2(s / now) - off))
    moved = 2 * math.log2(stop / now)
    if abs(off - moved) < abs(off) - 0.05:
        side = "deeper" if moved > 0 else "shallower"
        ways_out.append(
            f"its stop at {setting.marks}{stop:.3g} leaves {stops_words(off - moved, 2)}, and the depth is "
            f"{stops_words(moved, 2)} {side}"
        )
    angle = 360 * setup.settings.time_s * setup.state.fps * 2.0**-off
    if 1 <= angle <= 360:
        motion = "crisper, and may stutter" if off > 0 else "smoother, and smears more"
        ways_out.append(f"its shutter at {angle:.4g}° makes motion {motion}")
    if off > 0:
        ways_out.append(f"an ND of {stops_words(off, 2)} (density {off * math.log10(2):.2f}) would be exact")
    own = first.found.setting
    if own.stop is not None and own.widest is not None:
        wanted = own.stop * 2.0 ** (-off / 2)
        if wanted >= own.widest:
            ways_out.append(f"or {own.marks}{wanted:.3g} on the first, whose depth changes with it")
    if not ways_out:
        return "No setting brings them closer."
    text = "; ".join(ways_out)
    return f"{text[0].upper()}{text[1:]}."


def _exact(package: Package, comparison: Comparison, first: Setup, column: Column) -> ExactMatch:
    """What it would take, with a lens like the first one's but for its length."""
    target = first.optics
    assert target is not None
    sample = setup_of(package, comparison, column).optics
    if sample is None:
        return {"focal_mm": None, "f_number": None, "stop": None, "ei": None}
    focal = exact_focal_mm(target.field_mm, sample.size_mm, sample.distance_mm)
    n = exact_f_number(target.depth_dioptres, focal, sample.distance_mm, sample.coc_mm)
    stop = n * first.settings.t_stop / target.f_number
    # The same light through another stop, rate and shutter asks for another sensitivity.
    there = setup_of(package, comparison, column).settings
    bare = replace(first.settings, t_stop=stop, time_s=there.time_s)
    return {
        "focal_mm": focal,
        "f_number": n,
        "stop": stop,
        "ei": first.settings.ei * 2.0 ** (first.settings.off_stops - bare.off_stops),
    }


def _option(c: Candidate) -> MatchOption:
    setup, settings = c.setup, c.light.settings
    setting = setup.found.setting
    assert setting.stop is not None
    good = (
        abs(c.width_percent) <= GOOD_WIDTH_PERCENT
        and abs(c.depth_stops) <= GOOD_STOPS
        and abs(c.exposure_stops) <= GOOD_STOPS
        and c.covers in ("covers", "marginal")
        and not c.other_squeeze
    )
    column = setup.column
    return {
        "lens": setting.lens.name,
        "via": c.way.name,
        "focal_mm": setup.found.evaluation.lens.focal_mm,
        "marks": setting.marks,
        "stop": setting.stop,
        "exact_stop": c.exact_stop,
        "width_percent": c.width_percent,
        "depth_stops": c.depth_stops,
        "exposure_stops": c.exposure_stops,
        "ei": settings.ei,
        "nd_stops": settings.nd_stops,
        "nd_parts": list(c.light.nd_parts),
        "warning": _usable_words(setup, settings.ei),
        "notes": setup.found.setting.rig.notes_on(setting.lens.name, setup.found.chosen.body.name),
        "covers": c.covers,
        "good": good,
        "text": _words(c),
        "column": column.model_copy(update={"ei": settings.ei, "nd_stops": settings.nd_stops}),
    }


def _off_words(width_percent: float) -> str:
    return f"{abs(width_percent):.1f} % {'wider' if width_percent > 0 else 'tighter'}"


def _words(c: Candidate) -> str:
    told = []
    if abs(c.width_percent) > 0.05:
        told.append(_off_words(c.width_percent))
    if abs(c.depth_stops) > 0.05:
        side = "deeper" if c.depth_stops > 0 else "shallower"
        told.append(f"{stops_words(c.depth_stops)} {side}")
    if abs(c.exposure_stops) > 0.05:
        told.append(f"{stops_words(c.exposure_stops)} {'brighter' if c.exposure_stops > 0 else 'darker'}")
    if c.covers == "short":
        told.append("the corners are dark")
    if c.other_squeeze:
        told.append("bokeh differs")
    if not told:
        return "It matches."
    text = ", ".join(told)
    return f"{text[0].upper()}{text[1:]}."


def _advice(
    package: Package, comparison: Comparison, first: Setup, column: Column, found: list[Candidate]
) -> list[str]:
    """What to do where the nearest is not near enough."""
    if not found:
        return ["No lens of the kit can be mounted on this body and focused at this distance."]
    best, target = found[0], first.optics
    assert target is not None
    told = []
    optics = best.setup.optics
    assert optics is not None
    if abs(best.width_percent) > comparison.within_percent:
        told.append(
            f"No lens of the kit comes within {comparison.within_percent:g} % of {letter_of(comparison.master_index)}'s field: "
            f"the nearest is {best.setup.found.setting.lens.name}, {_off_words(best.width_percent)}."
        )
    if abs(best.width_percent) > GOOD_WIDTH_PERCENT:
        m = optics.size_mm / target.field_mm
        away = optics.focal_mm * (1 + m) ** 2 / m
        by = m_from_mm(away - optics.distance_mm)
        told.append(
            f"With {best.setup.found.setting.lens.name} the field is exact from {both_units(m_from_mm(away), comparison.unit, package.brackets)}, "
            f"{distance_words(abs(by), comparison.unit)} {'farther away' if by > 0 else 'nearer'}; "
            f"{_perspective_words(optics, away)}."
        )
    if best.depth_stops > GOOD_STOPS:
        setting = best.setup.found.setting
        told.append(
            f"There is no such aperture: {setting.marks}{best.exact_stop:.3g} is wanted, and {setting.lens.name} opens to "
            f"{setting.marks}{setting.widest:.3g}. It stays {stops_words(best.depth_stops)} deeper."
        )
        shallower = min(
            found, key=lambda c: (c.depth_stops > GOOD_STOPS, abs(c.width_percent) + 3 * abs(c.depth_stops))
        )
        if shallower.depth_stops < best.depth_stops - 0.1 and shallower.covers != "short":
            name = f"{shallower.setup.found.setting.lens.name} {shallower.way.name}"
            told.append(
                f"{name} comes nearer in depth ({signed(shallower.depth_stops, 1, 0.005)} stops), {_words(shallower).lower()}"
            )
    elif best.depth_stops < -GOOD_STOPS:
        told.append("No lens of the kit stops down far enough.")
    if abs(best.exposure_stops) > GOOD_STOPS:
        side = "bright" if best.exposure_stops > 0 else "dark"
        told.append(
            f"EI and ND leave it {stops_words(best.exposure_stops, 2)} too {side}. {_light_cures(first, best)}"
        )
    if best.cost > 3:
        told += _other_format(package, comparison, first, column, best)
    return told


def _perspective_words(optics: Optics, away_mm: float) -> str:
    """What moving does to the size of a thing that stands as far behind the subject as the camera before it."""
    before, after = optics.lens.focused(optics.distance_mm).z_mm, optics.lens.focused(away_mm).z_mm
    behind = optics.distance_mm
    change = 100 * ((after / (after + behind)) / (before / (before + behind)) - 1)
    if abs(change) < 0.5:
        return "perspective hardly changes"
    return (
        f"perspective then changes: what stands as far behind the subject is drawn {abs(change):.1f} % "
        f"{'larger' if change > 0 else 'smaller'}"
    )


def _other_format(
    package: Package, comparison: Comparison, first: Setup, column: Column, best: Candidate
) -> list[str]:
    """Another format of the same body that comes nearer, if there is one."""
    body: Body = package.formats[column.format_id].body
    nearest: Candidate | None = None
    seen: set[tuple[int, int]] = set()
    for mode in body.modes:
        # One format stands for all of a scan mode's with its shape.
        for recording in mode.formats:
            shape = (mode.id, round(1000 * recording.raster[0] / recording.raster[1]))
            if shape in seen or recording.id == column.format_id:
                continue
            seen.add(shape)
            other = column.model_copy(update={"format_id": recording.id, "crop_ids": []})
            here = min(
                candidates(package, comparison, first, other, most=2), key=lambda c: c.cost, default=None
            )
            if here is not None and (nearest is None or here.cost < nearest.cost):
                nearest = here
    if nearest is None or nearest.cost > best.cost - 1:
        return []
    place = nearest.setup.found.chosen
    return [
        f"{place.recording.name} of {body.name} comes nearer, with {nearest.setup.found.setting.lens.name}: "
        f"{_words(nearest).lower()}"
    ]
