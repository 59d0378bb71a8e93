"""Sheets of the lenses in every format: effective focal lengths, coverage, what each lens looks like, adapters."""

from __future__ import annotations

import math
from collections.abc import Iterator

from hextan.core.base import Unit, distance_words, limits, share_words, span_words
from hextan.core.bench import viewfinder
from hextan.core.equipment import FormatInPackage, Lens, LensSet, combinations
from hextan.core.kit import KitMatrix, MatrixAsk, MatrixColumn, MatrixFigures, MatrixRow, kit_matrix
from hextan.core.sheets.document import SheetPlan
from hextan.core.sheets.material import (
    Draft,
    Material,
    Up,
    ends_of,
    format_words,
    formats_of,
    lens_up,
    lens_words,
    lenses_of,
    only_whole,
    units_of,
)
from hextan.core.sheets.shapes import finder_picture
from hextan.core.sheets.sheet import (
    Cell,
    PictureRow,
    SheetColumn,
    SheetPicture,
    SheetPictures,
    SheetRow,
    Tone,
    column,
    figure,
    number,
    row,
    table,
    words,
)

#: Of a look sheet with fewer formats the lenses stand side by side.
LEAST_ACROSS = 3
#: Distances of a look sheet where none is named, metres (common practice, no source).
LOOK_M = (8.0,)
#: So many pictures a sheet shows at most.
MOST_PICTURES = 600
_TONES: dict[str, Tone] = {"covers": "covers", "marginal": "marginal", "short": "short"}
_VERDICT_WORDS = {
    "covers": "covers",
    "marginal": "marginal",
    "short": "dark corners",
    "unknown": "circle not known",
    "impossible": "cannot be mounted",
}


def lens_by_format(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Every lens in every picture: effective focal length, angle, the stop that compares in depth, coverage."""
    matrix = _matrix(m, plan, draft, "pictures")
    if draft.too_much(len(matrix["rows"]) * len(matrix["columns"]), MOST_CELLS, "cells"):
        return
    columns, kept = _format_columns(
        matrix, (("equivalent", "mm"), ("angle", "°"), ("depth like", "stop"), ("covers", ""))
    )
    rows: list[SheetRow] = []
    for each, lens, focal, figures in _told(m, plan, draft, matrix):
        cells = [words(lens_words(lens, focal))]
        for j in kept:
            cells += _cells_of(lens, focal, figures, j)
        rows.append(row(cells, section=each["set"]))
    draft.lead = (
        "Equivalent focal length, horizontal angle, and the stop that gives the same depth in the reference."
    )
    draft.blocks.append(
        table(
            [column("Lens", words=True), *columns],
            rows,
            told="As each lens is mounted the simplest way; wide open, at infinity; a zoom at both ends.",
            stacked=True,
        )
    )
    if not rows:
        draft.why_empty = "No lens of this sheet is in the package."


#: So many cells a sheet of lenses by formats has at most.
MOST_CELLS = 40_000


def _told(
    m: Material, plan: SheetPlan, draft: Draft, matrix: KitMatrix
) -> Iterator[tuple[MatrixRow, Lens, float, MatrixFigures]]:
    """The rows of a matrix that a sheet is of: each lens as it is set, a zoom at both ends."""
    wanted = {lens.id for _, lens in lenses_of(m, plan, draft)}
    for each in matrix["rows"]:
        if each["lens_id"] in wanted:
            lens = m.package.lenses[each["lens_id"]][1]
            yield each, lens, lens.focal_min_mm, each
            if each["long"] is not None:
                yield each, lens, lens.focal_max_mm, each["long"]


def _matrix(m: Material, plan: SheetPlan, draft: Draft, across: str) -> KitMatrix:
    assert m.bench is not None
    formats = formats_of(m, plan, draft, few=False)
    ask = MatrixAsk(
        delivery=m.bench.delivery,
        crop_ids=m.bench.crop_ids,
        format_ids=[here.recording.id for here in formats],
        across="pictures" if across == "pictures" else "formats",
        unit=m.settings.unit,
    )
    return kit_matrix(m.package, ask)


def _format_columns(
    matrix: KitMatrix, parts: tuple[tuple[str, str], ...]
) -> tuple[list[SheetColumn], list[int]]:
    """Columns for each format of a matrix, as a group of so many parts."""
    columns = []
    for each in matrix["columns"]:
        also = f" and {len(each['also'])} more" if each["also"] else ""
        columns += [
            column(title, unit, f"{each['name']}{also}", f"{each['body']}{_rate(each)}")
            for title, unit in parts
        ]
    return columns, list(range(len(matrix["columns"])))


def _rate(of: MatrixColumn) -> str:
    """The rate of the format that a column is named by, and of one beside it that goes faster."""
    if of["highest_fps"] is None:
        return ""
    return f", {of['rate_text']} fps" + (f" ({of['faster']})" if of["faster"] else "")


def _cells_of(lens: Lens, focal: float, of: MatrixFigures, j: int) -> list[Cell]:
    verdict = of["verdict"][j]
    if verdict == "impossible":
        return [
            words("–", "quiet"),
            words("", "quiet"),
            words("", "quiet"),
            words("cannot be mounted", "quiet"),
        ]
    effective, angle = of["effective_mm"][j], of["angle_deg"][j]
    f, t = lens.widest_at(focal)
    stop = f if f is not None else t
    behind = of["focal_mm"][j]
    like = None
    if stop is not None and effective is not None and behind:
        # Behind an adapter the aperture is another, and so is the focal length: their product with the crop holds.
        like = stop * (behind / focal) * (effective / behind)
    tone = _TONES.get(verdict, "quiet")
    covers = _VERDICT_WORDS[verdict]
    dark = of["dark_share"][j]
    if verdict == "short" and dark is not None:
        covers = f"{share_words(dark)} dark"
    return [
        number(effective, 0 if effective and effective >= 99.5 else 1, "focus"),
        figure(angle, "–" if angle is None else f"{angle:.1f}°"),
        figure(like, "–" if like is None else f"f/{like:.1f}"),
        words(covers, tone),
    ]


def coverage(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """The image circle of every lens against what every format records: margin, and what stays dark."""
    matrix = _matrix(m, plan, draft, "formats")
    if draft.too_much(len(matrix["rows"]) * len(matrix["columns"]), MOST_CELLS, "cells"):
        return
    columns, kept = _format_columns(matrix, (("margin", "mm"), ("", "")))
    rows: list[SheetRow] = []
    for each, lens, focal, of in _told(m, plan, draft, matrix):
        circle = lens.circle_at_mm(focal)
        cells = [words(lens_words(lens, focal)), number(circle, 1)]
        for j in kept:
            verdict, have, needed = of["verdict"][j], of["circle_mm"][j], of["needed_mm"][j]
            margin = None if have is None or needed is None else have - needed
            told = _VERDICT_WORDS[verdict]
            dark = of["dark_share"][j]
            if verdict == "short" and dark is not None:
                told = f"{share_words(dark)} dark"
            shown = "–" if margin is None else f"{margin:+.1f}".replace("-", "−")
            cells += [figure(margin, shown), words(told, _TONES.get(verdict, "quiet"))]
        rows.append(row(cells, section=each["set"]))
    draft.lead = (
        "How much larger than the recording's diagonal the circle of each lens is, behind its adapter."
    )
    draft.blocks.append(
        table(
            [column("Lens", words=True), column("circle", "mm"), *columns],
            rows,
            told="Circles as stated, wide open and at infinity; a zoom at both ends. Stated circles differ: test corners.",
            fixed=2,
            stacked=True,
        )
    )
    if not rows:
        draft.why_empty = "No lens of this sheet is in the package."


def look(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """Finder pictures, computed: lenses by formats at a distance, or one lens by formats at several."""
    lenses = lenses_of(m, plan, draft)
    formats = formats_of(m, plan, draft, few=True)
    distances = list(plan.distances_m) or list(LOOK_M)
    unit = units_of(m, plan)[0]
    one = len(lenses) == 1 and len(distances) > 1
    lenses = [pair for pair in lenses if _on_any(m, plan, pair, formats, distances[0], draft)]
    if not lenses or not formats:
        draft.why_empty = "No lens or no format of this sheet is in the package."
        return
    across = [format_words(here) for here in formats]
    more = [here.body.name for here in formats]
    asked = [
        (pair, focal, away)
        for pair in lenses
        for focal in ends_of(pair[1], plan.focal_mm)
        for away in distances
    ]
    if len(asked) * len(formats) > MOST_PICTURES:
        draft.note(
            f"Only the first {MOST_PICTURES} of {len(asked) * len(formats)} pictures are shown: choose fewer."
        )
        asked = asked[: MOST_PICTURES // len(formats)]
    pages = [[each for each in asked if each[2] == away] for away in distances] if not one else [asked]
    for page in pages:
        rows = [_look_row(m, pair, focal, away, formats, unit, one) for pair, focal, away in page]
        heading = lens_words(lenses[0][1], page[0][1]) if one else f"At {distance_words(page[0][2], unit)}"
        block: SheetPictures = {
            "kind": "pictures",
            "heading": heading,
            "told": "",
            "columns": across,
            "columns_more": more,
            "rows": rows,
            "to_scale": False,
            "own_page": len(pages) > 1 and page is not pages[0],
        }
        # A column or two would leave most of the page empty: the lenses stand beside one another instead.
        draft.blocks.append(_turned(block) if len(across) < min(LEAST_ACROSS, len(rows)) else block)
    assert m.bench is not None
    tall = distance_words(m.bench.scene.subject_height_m, unit)
    draft.lead = (
        f"What each lens looks like in each format: a person of {tall}, in the scene of the Bench. "
        "Each picture is the delivered frame; hatched corners stay dark."
    )
    draft.fact("Camera height", distance_words(m.bench.scene.camera_height_m, unit))


def _turned(block: SheetPictures) -> SheetPictures:
    """Rows for columns."""
    rows = block["rows"]
    turned: list[PictureRow] = [
        {
            "title": title,
            "more": more,
            "pictures": [row["pictures"][j] for row in rows],
            "why_not": [row["why_not"][j] for row in rows],
        }
        for j, (title, more) in enumerate(zip(block["columns"], block["columns_more"], strict=True))
    ]
    return {
        **block,
        "columns": [row["title"] for row in rows],
        "columns_more": [row["more"] for row in rows],
        "rows": turned,
    }


def _on_any(
    m: Material,
    plan: SheetPlan,
    pair: tuple[LensSet, Lens],
    formats: list[FormatInPackage],
    away: float,
    draft: Draft,
) -> bool:
    """Whether a lens goes on any of the formats, and covers it; one that does not is left out, and named."""
    why = "there is no format"
    for here in formats:
        whole = only_whole(m, plan, pair, here)
        up = lens_up(m, pair, here, focal_mm=plan.focal_mm, subject_m=away, whole=whole)
        if not isinstance(up, str):
            return True
        why = up
    draft.leave_out(pair[1].name, why)
    return False


def _look_row(
    m: Material,
    pair: tuple[LensSet, Lens],
    focal: float,
    away: float,
    formats: list[FormatInPackage],
    unit: Unit,
    by_distance: bool,
) -> PictureRow:
    pictures: list[SheetPicture | None] = []
    why: list[str] = []
    for here in formats:
        up = lens_up(m, pair, here, focal_mm=focal, subject_m=away)
        if isinstance(up, str):
            pictures.append(None)
            why.append(up)
            continue
        pictures.append(_picture(m, up, away, unit))
        why.append("")
    title = distance_words(away, unit) if by_distance else lens_words(pair[1], focal)
    return {"title": title, "more": "" if by_distance else pair[0].name, "pictures": pictures, "why_not": why}


def _picture(m: Material, up: Up, away: float, unit: Unit) -> SheetPicture:
    assert m.bench is not None
    seen = viewfinder(up.found.evaluation, 0, m.bench.scene, away, up.coc_mm, unit)
    t = up.found.evaluation.traced
    crop = _crop(up)
    wide = up.one(t.field_w_mm) / 1000
    near, far = up.one(t.near_mm) / 1000, up.one(t.far_mm) / 1000
    equivalent = "" if crop is None else f"{crop:.0f} mm" if crop >= 99.5 else f"{crop:.1f} mm"
    first = f"{equivalent} · {distance_words(wide, unit)} wide" if math.isfinite(wide) else equivalent
    lines = [first]
    sentence = f"{up.name} on {format_words(up.here)} of {up.here.body.name} at {distance_words(away, unit)}: {first}"
    if not math.isnan(near):
        far_m = None if math.isinf(far) else far
        stop = up.found.setting
        lines.append(f"{stop.marks}{stop.stop:.3g}: {limits(near, far_m, away, unit).words()}")
        sentence += f"; sharp {span_words(near, far_m, away, unit, m.settings.brackets)}"
    return finder_picture(seen, lines, sentence)


def _crop(up: Up) -> float | None:
    """Equivalent focal length against the reference; a fisheye has none."""
    if up.lens.projection != "rectilinear":
        return None
    e = up.found.evaluation
    at = ("width", "height", "diagonal").index(e.reference.by)
    return up.focal_mm * up.one(e.crops[at])


def adapters(m: Material, plan: SheetPlan, draft: Draft) -> None:
    """What goes on what, through which adapters, and what is lost."""
    lenses = lenses_of(m, plan, draft)
    bodies = [body for body in m.package.bodies if not plan.bodies or body.name in plan.bodies]
    if not lenses or not bodies:
        draft.why_empty = "There is no lens or no body to put together."
        return
    sets = {lens.id: kit.name for kit, lens in lenses}
    told = combinations(m.package.rig, [lens for _, lens in lenses], bodies)
    names = {body.id: body.name for body in bodies}
    by_id = {lens.id: lens for _, lens in lenses}
    rows = []
    for each in told:
        lens = by_id[each["lens_id"]]
        start = [words(lens.name), words(names[each["body_id"]])]
        ways = [way for way in each["ways"] if way["verdict"] != "impossible"]
        for way in ways:
            lost = way["stops_lost"]
            rows.append(
                row(
                    [
                        *start,
                        words(way["name"]),
                        figure(way["magnification"], f"×{way['magnification']:g}"),
                        figure(
                            lost,
                            "0" if abs(lost) < 0.005 else f"{lost:+.2f}".replace("-", "−").replace("+", ""),
                        ),
                        words("; ".join(way["consequences"]) or "nothing"),
                    ],
                    section=sets[lens.id],
                )
            )
        if not ways:
            rows.append(
                row(
                    [
                        *start,
                        words("cannot be mounted", "short"),
                        number(None, 0),
                        number(None, 0),
                        words(each["why_not"] or ""),
                    ],
                    section=sets[lens.id],
                )
            )
    draft.lead = "Every lens on every body, the simplest way first."
    draft.blocks.append(
        table(
            [
                column("Lens", words=True),
                column("Body", words=True),
                column("Through", words=True),
                column("focal length", "×"),
                column("light lost", "stops"),
                column("What is lost, or why not", words=True),
            ],
            rows,
            fixed=2,
        )
    )
