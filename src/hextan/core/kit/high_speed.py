"""Slow motion: which lens keeps the field of the base format in the windows that are fast enough."""

from __future__ import annotations

from functools import partial
from operator import mul

from hextan.core.base import InvalidInputError, no_longer_here
from hextan.core.equipment import Package
from hextan.core.kit.answers import SlowLine, SlowMotion, SlowRow
from hextan.core.kit.arrays import Kit, kit_of, pictures, told_picture
from hextan.core.kit.ask import SlowAsk
from hextan.core.kit.match import candidates, size_of, told
from hextan.core.kit.reach import reaches


def slow_motion(package: Package, ask: SlowAsk) -> SlowMotion:
    """Hold every lens of the base format against the fast ones.

    Returns
    -------
    ``base``, a row for each fast picture with one line a lens (needed focal length, nearest in the kit, whether
    it keeps the field), and ``words``.

    Raises
    ------
    InvalidInputError
        A base format that the production does not have.
    """
    if ask.base_format_id not in package.formats:
        raise InvalidInputError.plainly(no_longer_here("base format", "base_format_id", ask.base_format_id))
    here = package.formats[ask.base_format_id]
    by = (ask.reference or package.reference).by
    base = kit_of(package, ask.model_copy(update={"format_ids": [ask.base_format_id], "mounted": "simplest",
                                                  "least_fps": None, "body_ids": None}))  # fmt: skip
    fast = kit_of(package, ask.model_copy(update={"least_fps": ask.fps}))
    lenses = [
        (name, r.entry, focal, r.smaller)
        for i, entry in enumerate(base.entries)
        if entry.end != "long" and base.rectilinear[i, 0]
        for r in reaches(base, i, 0)
        if r.covers
        for focal in dict.fromkeys((r.low_mm, r.high_mm))
        for name in (entry.name_at(focal / float(base.magnification[i, 0])),)
    ]
    rows = [_row(base, lenses, fast, group, by) for group in pictures(fast)]
    rows.sort(key=lambda r: -int(r["kept"]))
    return {
        "base": {"format_id": here.recording.id, "name": here.recording.name, "body": here.body.name},
        "fps": ask.fps,
        "rows": rows,
        "words": _words(rows, len(lenses), ask.fps, here.recording.name),
    }


def _row(
    base: Kit, lenses: list[tuple[str, int, float, float]], fast: Kit, group: list[int], by: str
) -> SlowRow:
    j = group[0]
    lines: list[SlowLine] = []
    for name, i, focal, smaller in lenses:
        whole = float(size_of(base, 0, by)[i]) * smaller
        needed = focal * size_of(fast, j, by) / whole
        found = candidates(fast, j, by, partial(mul, focal / whole))
        spherical = next((k for k, e in enumerate(fast.entries) if e.lens.squeeze == 1.0), 0)
        near = found[0] if found and found[0].covers else None
        lines.append(
            {
                "lens": name,
                "lens_id": base.entries[i].lens.id,
                "needed_mm": float(needed[spherical]),
                "nearest": None if near is None else told(fast, j, near),
            }
        )
    kept = sum(bool(line["nearest"] and line["nearest"]["same"]) for line in lines)
    usable = [
        r.low_mm
        for k, entry in enumerate(fast.entries)
        if entry.end != "long" and fast.rectilinear[k, 0]
        for r in reaches(fast, k, j)
        if r.covers
    ]
    return {
        **told_picture(fast, group),
        "kept": kept,
        "widest_mm": (widest := min(usable, default=None)),
        "text": _missing(lines, widest),
        "lines": lines,
    }


def _words(rows: list[SlowRow], count: int, fps: float, base: str) -> list[str]:
    if not rows:
        return [f"No format of this package reaches {fps:g} fps."]
    if not count:
        return [f"No lens of the kit can be mounted and covers {base}."]
    best = rows[0]
    return [
        f"At {fps:g} fps {best['names'][0]} of {best['body']} keeps the most: {best['kept']} of {count} lenses "
        f"find the field that they have in {base} again."
    ]


def _missing(lines: list[SlowLine], widest_mm: float | None) -> str | None:
    """Say what is not wide enough in a fast picture."""
    lost = [line for line in lines if line["nearest"] is None or not line["nearest"]["same"]]
    too_wide = [line for line in lost if widest_mm is None or line["needed_mm"] < widest_mm * 0.97]
    if not too_wide:
        return None
    first = min(too_wide, key=lambda line: float(line["needed_mm"]))
    have = "nothing covers here" if widest_mm is None else f"the widest is {widest_mm:.1f} mm"
    return f"{first['lens']} would need {first['needed_mm']:.1f} mm; {have}."
