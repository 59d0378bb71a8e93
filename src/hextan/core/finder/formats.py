"""The format finder: what can I shoot this in?

Every requirement is a must or a wish with a weight. The rules of ranking stand here and in
`docs/finder.md`, nowhere else:

1. A format that fails a must is rejected, with the shortfall and the nearest change that admits it.
2. The rest are ranked by score: the sum of weight x share over all wishes, divided by the sum of the
   weights. A wish that is met has share 1; a measurable one that is missed has reached / wanted; a
   missed yes-or-no has 0. Without wishes every score is 1.
3. Equal scores are settled by `TIE_BREAKS`, one after the other.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from hextan.core.base import Flags, Floats
from hextan.core.equipment import Package, PackageSettings
from hextan.core.finder.answers import FinderAnswer, FinderRow, RankedRow, RejectedRow
from hextan.core.finder.ask import FinderAsk
from hextan.core.finder.changes import Changes, why_empty
from hextan.core.finder.checks import Candidates, Check, candidates, checks_of
from hextan.core.optics import oversampled

#: What settles equal scores, in this order; each says what the better one has.
TIE_BREAKS = ("the sharper read", "the wider field on the sensor", "more samples for each pixel", "less data")
#: Scores are equal when so many digits are; below that is the noise of sums.
DIGITS = 9


def find_formats(
    package: Package, settings: PackageSettings, ask: FinderAsk, catalogue: Package | None = None
) -> FinderAnswer:
    """Rank the formats of a package by what is asked, and say why the others are out.

    Parameters
    ----------
    catalogue : what is looked over besides where the ask says so; bodies that the package has are left out

    Returns
    -------
    ``ranked`` and ``rejected`` rows, ``empty`` (why nothing is left, or None), ``tie_breaks``.

    Raises
    ------
    InvalidInputError
        A lens, adapter or card that the production does not have; an angle or coverage without a lens.
    """
    if ask.catalogue and catalogue is not None:
        here = {(body.maker, body.name) for body in package.bodies}
        more = [body for body in catalogue.bodies if (body.maker, body.name) not in here]
        elsewhere = frozenset(body.id for body in more)
        package = replace(package, bodies=(*package.bodies, *more))
    else:
        elsewhere = frozenset()
    if not package.formats:
        return {
            "ranked": [],
            "rejected": [],
            "empty": "This production has no recording formats yet: add a body.",
        }
    c = candidates(package, ask)
    checks = checks_of(c, settings, ask)
    count = len(c.places)
    musts = [check for check in checks if check.wish.must]
    wishes = [check for check in checks if not check.wish.must]
    admitted = np.logical_and.reduce([np.ones(count, bool), *(check.met for check in musts)])
    total = sum(check.wish.weight for check in wishes)
    score = np.ones(count) if not wishes else sum(ch.wish.weight * ch.share for ch in wishes) / total
    ranked = _ranked(c, checks, np.asarray(score), admitted, elsewhere)
    changes = Changes(package, c, settings, ask, admitted)
    rejected = [
        _rejected_row(c, checks, musts, changes, i, elsewhere) for i in np.flatnonzero(~admitted).tolist()
    ]
    rejected.sort(key=lambda row: len(row["fails"]))
    return {"ranked": ranked, "rejected": rejected, "empty": None if ranked else why_empty(musts)}


def _ranked(
    c: Candidates, checks: list[Check], score: Floats, admitted: Flags, elsewhere: frozenset[int]
) -> list[RankedRow]:
    breaks = _tie_columns(c)
    # lexsort: the last key counts first; ties that remain keep the package's order.
    score = np.round(score, DIGITS)
    order = np.lexsort((np.arange(len(score)), *reversed([-b for b in breaks]), -score))
    rows: list[RankedRow] = []
    last = -1
    for i in (k for k in order.tolist() if admitted[k]):
        tie = None
        if rows and rows[-1]["score"] == score[i]:
            tie = next((told for told, col in zip(TIE_BREAKS, breaks, strict=True)
                        if col[last] != col[i]), "the order of the package")  # fmt: skip
        rows.append(
            {**_row(c, checks, i, elsewhere), "rank": len(rows) + 1, "score": float(score[i]), "tie": tie}
        )
        last = i
    return rows


def _tie_columns(c: Candidates) -> list[Floats]:
    """The columns of `TIE_BREAKS`: more is better."""
    sharp = np.where(c.softened, 0.0, np.where(oversampled(c.oversampling), 2.0, 1.0))
    width = c.columns.picture_w
    data = -np.where(np.isnan(c.bytes_s), np.inf, c.bytes_s)
    return [sharp, np.round(width, 6), np.round(c.oversampling, 6), np.maximum(data, -1e300)]


def _row(c: Candidates, checks: list[Check], i: int, elsewhere: frozenset[int]) -> FinderRow:
    here, h = c.places[i], c.highest[i]
    return {
        "format_id": here.recording.id,
        "format": here.recording.name,
        "mode": here.mode.name,
        "body": here.body.name,
        "from_catalogue": here.body.id in elsewhere,
        "possible_fps": h.possible_fps,
        "limited_by": h.limited_by,
        "rate_text": h.text,
        "oversampling": float(c.oversampling[i]),
        "picture_width_mm": float(c.columns.picture_w[i]),
        "mb_s": None if np.isnan(c.bytes_s[i]) else float(c.bytes_s[i]) / 1e6,
        "reasons": [
            {
                "name": check.name,
                "wanted": check.label,
                "has": check.has(i),
                "met": bool(check.met[i]),
                "must": check.wish.must,
                "share": float(check.share[i]),
                "weight": check.wish.weight,
            }
            for check in checks
        ],
    }


def _rejected_row(
    c: Candidates,
    checks: list[Check],
    musts: list[Check],
    changes: Changes,
    i: int,
    elsewhere: frozenset[int],
) -> RejectedRow:
    failing = [check for check in musts if not check.met[i]]
    return {
        **_row(c, checks, i, elsewhere),
        "fails": [f"{check.label}: {check.has(i)}" for check in failing],
        "changes": changes.admitting(i, [check.name for check in failing]),
    }
