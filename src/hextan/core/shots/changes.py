"""With what a shot could be made: changes that are judged again as a whole before they are told, the least trouble first.

A change is one edit, or two together where none alone is enough. Each is rounded to the side that cures and is made of what
there is: what the package has, what the catalogue can rent, the EI of the body's list. Nothing is told that was not tried.
"""

from __future__ import annotations

from dataclasses import replace
from itertools import islice

import numpy as np

from hextan.core.base import Flags, HextanError
from hextan.core.equipment import Package, PackageSettings
from hextan.core.shots.answers import ShotChange
from hextan.core.shots.by_plan import chosen_cell, not_carried
from hextan.core.shots.catalogue import package_with
from hextan.core.shots.checks import Check
from hextan.core.shots.document import Shot
from hextan.core.shots.edits import Edit, applied, trouble
from hextan.core.shots.judge import Judged, judge, judge_on
from hextan.core.shots.layout import layout_of
from hextan.core.shots.needs import needs_of
from hextan.core.shots.pins import pin_of, pinned_cell
from hextan.core.shots.proposals import KINDS, Kind, Proposal, given_up
from hextan.core.shots.told import with_what

#: So many changes are told, each of another kind.
MOST_CHANGES = 4
#: Of two together, so many first ones are tried.
MOST_FIRSTS = 6


def changes_of(
    package: Package, settings: PackageSettings, shot: Shot, judged: Judged, catalogue: Package | None = None
) -> list[ShotChange]:
    """Find what would make a shot that cannot be made, or only nearly.

    Parameters
    ----------
    judged : the shot as it is
    catalogue : what could be rented; without one nothing is
    """
    search = _Search(package, settings, shot, judged)
    brought = search.brought()
    if search.cured(judged, shot) is not None:
        return brought
    found = brought + [
        each
        for kind in KINDS
        if (mask := search.curable(kind.cures)).any() and (each := search.first(kind, mask)) is not None
    ]
    found += search.unpinned()
    if catalogue is not None:
        found += search.rented(catalogue)
    if not found:
        found = search.pairs()
    if not found:
        found = search.all_given_up()
    return sorted(found, key=lambda change: change["cost"])[:MOST_CHANGES]


class _Search:
    """A shot, as it is judged, and what is tried on it."""

    def __init__(self, package: Package, settings: PackageSettings, shot: Shot, judged: Judged) -> None:
        self.package, self.settings, self.shot, self.judged = package, settings, shot, judged
        self.only = self._only(judged, shot)

    def _only(self, judged: Judged, shot: Shot) -> int | None:
        """The one cell that counts, where a choice is pinned."""
        return None if shot.pin is None else pinned_cell(judged, shot.pin)

    def cured(self, judged: Judged, shot: Shot) -> int | None:
        """The cell that makes the shot; None where none does."""
        if self._only(judged, shot) is None and not np.any((judged.missed == 0) & judged.cells.layout.inside):
            return None
        best = chosen_cell(judged, shot)
        return best if judged.missed[judged.at(best)] == 0 else None

    @property
    def allowed(self) -> Flags:
        """The cells that may make it."""
        if self.only is None:
            return self.judged.cells.layout.inside
        mask = np.zeros(self.judged.cells.layout.shape, dtype=bool)
        mask[self.judged.at(self.only)] = True
        return mask

    def curable(self, names: frozenset[str], others: int = 0) -> Flags:
        """Where nothing but the named musts is missed, or so many others besides."""
        missed = np.zeros(self.judged.cells.layout.shape)
        mine = np.zeros(self.judged.cells.layout.shape)
        for check in self.judged.checks:
            if check.must:
                (mine if check.name in names else missed)[~check.met] += 1
        return np.asarray(self.allowed & (missed == others) & (mine > 0))

    def tried(self, edits: list[Edit], mask: Flags | None = None) -> tuple[Judged, Shot, Package] | None:
        """The shot judged with changes; None where it cannot be read, or computed.

        Parameters
        ----------
        mask : the cells that may be cured; every other cell stays as it is
        """
        try:
            package, shot = applied(self.package, self.shot, [edit.told for edit in edits])
            needs = needs_of(shot, package, self.settings)
            if needs.stands or not needs.asks:
                return None
            # Filters, sensitivities and what is carried leave the layout as it is.
            layout = layout_of(self.package, needs.delivery, needs.picture)
            if mask is not None:
                layout = layout.part(mask)
            if package is not self.package:
                places = [package.formats[here.recording.id] for here in layout.places]
                layout = replace(layout, package=package, places=places)
            return judge_on(layout, self.settings, needs), shot, package
        except HextanError:
            return None

    def told(self, cost: float, edits: list[Edit], mask: Flags | None = None) -> ShotChange | None:
        """A change in facts and words, if it cures."""
        again = self.tried(edits, mask)
        if again is None:
            return None
        judged, shot, _ = again
        best = self.cured(judged, shot)
        return None if best is None else _change(cost, edits, judged, best)

    def first(self, kind: Kind, mask: Flags) -> ShotChange | None:
        """The smallest change of a kind that cures."""
        return next(
            (
                told
                for cost, edits in kind.propose(self.judged, mask)
                if (told := self.told(cost, edits, mask)) is not None
            ),
            None,
        )

    def brought(self) -> list[ShotChange]:
        """What does the shot and is not what the plan makes it with: it is pinned, and what it needs comes along."""
        plan = self.package.plan
        if plan is None or self.only is not None or not self.judged.order:
            return []
        best = self.judged.order[0]
        if self.judged.missed[self.judged.at(best)] > 0:
            return []
        missing = not_carried(self.judged, best, plan)
        words = f"with {' and '.join(missing)} as well" if missing else "otherwise than planned"
        edit = Edit("bring", pin_of(self.judged, best).model_dump_json(), words)
        return [_change(trouble("bring", len(missing)), [edit], self.judged, best)]

    def unpinned(self) -> list[ShotChange]:
        """Another choice than the one that is pinned."""
        if (
            self.only is None
            or not self.judged.order
            or self.judged.missed[self.judged.at(self.judged.order[0])] > 0
        ):
            return []
        edit = Edit("unpin", "", "unpinned", before=self.shot.pin.lens if self.shot.pin else "")
        return [_change(trouble("unpin"), [edit], self.judged, self.judged.order[0])]

    def rented(self, catalogue: Package) -> list[ShotChange]:
        """A lens of the catalogue on a body that is there, or a body under a lens that is there."""
        if self.only is not None or self.package.plan is not None:
            # With a plan, what else there is comes first; what must be rented is asked for by itself.
            return []
        whole = package_with(self.package, catalogue)
        judged = judge(whole, self.settings, needs_of(self.shot, whole, self.settings))
        if judged is None:
            return []
        mine = {body.id for body in self.package.bodies}
        lenses, adapters = set(self.package.lenses), {adapter.id for adapter in self.package.adapters}
        found: dict[str, ShotChange] = {}
        for k in judged.order:
            i, j = judged.at(k)
            if judged.missed[i, j] > 0 or len(found) == 2:
                break
            row, here, way = (
                judged.cells.layout.rows[i],
                judged.cells.layout.places[j],
                judged.cells.layout.way(i, j),
            )
            new_lens, new_body = row.lens.id not in lenses, here.body.id not in mine
            if new_lens == new_body or not {a.id for a in way.adapters} <= adapters:
                continue
            kind = "lens" if new_lens else "body"
            name = f"{row.lens.name} ({row.lens_set.name})" if new_lens else here.body.name
            edit = Edit("lens" if new_lens else "body", name, f"rent the {name}", body="" if new_lens else here.body.name,
                        lens=row.lens.name if new_lens else "", lens_set=row.lens_set.name if new_lens else "")  # fmt: skip
            found.setdefault(kind, _change(trouble(edit.kind), [edit], judged, k))
        return list(found.values())

    def pairs(self) -> list[ShotChange]:
        """Two changes together: the first as far as its own need asks, then whatever cures the rest."""
        firsts: list[Proposal] = []
        for kind in KINDS[:-1]:
            mask = self.curable(kind.cures, others=1)
            if mask.any():
                firsts += list(islice(kind.propose(self.judged, mask), 2))
        found: list[ShotChange] = []
        for cost, edits in sorted(firsts, key=lambda each: each[0])[:MOST_FIRSTS]:
            again = self.tried(edits)
            if again is None:
                continue
            judged, shot, package = again
            then = _Search(package, self.settings, shot, judged)
            for kind in KINDS[:-1]:
                mask = then.curable(kind.cures)
                if not mask.any():
                    continue
                for more, second in islice(kind.propose(judged, mask), 3):
                    told = self.told(cost + more, [*edits, *second], mask)
                    if told is not None:
                        found.append(told)
                        break
        seen: set[frozenset[str]] = set()
        kept = []
        for change in sorted(found, key=lambda each: each["cost"]):
            kinds = frozenset(edit["kind"] for edit in change["edits"])
            if kinds not in seen:
                seen.add(kinds)
                kept.append(change)
        return kept

    def all_given_up(self) -> list[ShotChange]:
        """What the nearest cell misses, all of it as wishes."""
        if not self.judged.order:
            return []
        i, j = self.judged.at(chosen_cell(self.judged, self.shot))
        names: list[str] = []
        for check in self.judged.checks:
            if check.must and not check.met[i, j]:
                names += self._to_give_up(check)
        wishes = [
            Edit("wish", "wish", f"{name.replace('_', ' ')} as a wish", name, "must")
            for name in dict.fromkeys(names)
        ]
        told = self.told(trouble("wish") * len(wishes), wishes) if wishes else None
        return [] if told is None else [told]

    def _to_give_up(self, check: Check) -> list[str]:
        return [n for n in given_up(check, self.shot) if self.judged.cells.needs.must(n)]


def _change(cost: float, edits: list[Edit], judged: Judged, k: int) -> ShotChange:
    i, j = judged.at(k)
    here, row = judged.cells.layout.places[j], judged.cells.layout.rows[i]
    words = " and ".join(edit.words for edit in edits if edit.words)
    return {
        "edits": [edit.told for edit in edits],
        "text": f"{words}: {with_what(judged, k)}",
        "cost": round(cost, 3),
        "body": here.body.name,
        "format": here.recording.name,
        "lens": row.lens.name,
    }
