"""Sheets being printed by a process of its own: page by page, told how far it is, stopped when nobody wants it any more."""

from __future__ import annotations

import pickle
from base64 import b64encode
from collections.abc import Callable
from dataclasses import dataclass, replace
from hashlib import sha256
from typing import Any

from typing_extensions import TypedDict

from hextan.core.base import InvalidInputError
from hextan.core.packing import KitAnswer, KitPlan, Watch, packed
from hextan.core.sheets import Material, Sheet, SheetPlan, fingerprint, sheet_of
from hextan.paper.flow import Printed
from hextan.paper.layout import laid_out
from hextan.paper.marks import Page
from hextan.paper.pdf import pdf_of
from hextan.search.work import bare

#: A bundle has no more pages than this.
MOST_PAGES = 2000


class PrintedSheets(TypedDict):
    """A file of printed sheets, and the state of each sheet in it."""

    title: str
    pdf_base64: str
    pages: int
    #: Fingerprints by the keys of the sheets.
    fingerprints: dict[str, str]
    #: Sheets that had nothing to print, with why.
    empty: dict[str, str]


@dataclass(frozen=True)
class Stamped:
    """What every page is stamped with: a day in words, and the address under which this production's sheets open."""

    day: str
    address: str

    def on(self, key: str, state: str) -> Printed:
        """For one sheet in one state."""
        return Printed(
            self.day, code_of(state), f"{self.address}/{key}?state={state}" if self.address else ""
        )


def code_of(state: str) -> str:
    """A fingerprint as it is printed.

    >>> code_of("e7705303d19a")
    'e770 5303 d19a'
    """
    return " ".join(state[i : i + 4] for i in range(0, len(state), 4))


def pages_of(m: Material, plan: SheetPlan, stamped: Stamped) -> tuple[Sheet, str, list[Page]]:
    """A sheet, its fingerprint, and its pages."""
    sheet = sheet_of(m, plan)
    state = fingerprint(sheet)
    return sheet, state, laid_out(sheet, plan, stamped.on(plan.key, state))


@dataclass(frozen=True)
class PrintWork:
    """Sheets to be printed as one file."""

    material: Material
    plans: tuple[SheetPlan, ...]
    stamped: Stamped
    title: str

    @property
    def asked(self) -> str:
        """What tells this question from another."""
        return sha256(self.written).hexdigest()[:16]

    @property
    def written(self) -> bytes:
        """As bytes for another process of this program."""
        return pickle.dumps(
            replace(self, material=replace(self.material, package=bare(self.material.package)))
        )

    def done(self, watch: Watch, show: Callable[[Any], None]) -> PrintedSheets:
        """Print; how far it is, is told in pages.

        Raises
        ------
        InvalidInputError
            When it was stopped, or is more than `MOST_PAGES`.
        """
        # A kit that is looked for here can be stopped as well.
        material = replace(self.material, kit=lambda m, plan: _kit(m, plan, watch))
        laid: list[tuple[str, list[Page]]] = []
        states: dict[str, str] = {}
        empty: dict[str, str] = {}
        count = 0
        for number, plan in enumerate(self.plans, 1):
            watch.tell(f"sheet {number} of {len(self.plans)}")
            sheet, state, pages = pages_of(material, plan, self.stamped)
            states[plan.key] = state
            if sheet["why_empty"]:
                empty[plan.key] = f"{sheet['title']}: {sheet['why_empty']}"
            laid.append((sheet["title"], pages))
            count += len(pages)
            if count > MOST_PAGES:
                raise InvalidInputError(
                    f"These sheets have more than {MOST_PAGES} pages: print fewer at once."
                )
            _unless_stopped(watch)

        def told(page: int) -> None:
            if page % 10 == 0 or page == count:
                watch.tell(f"page {page} of {count}")
            _unless_stopped(watch)

        data = pdf_of(laid, self.title, told)
        return {
            "title": self.title,
            "pdf_base64": b64encode(data).decode(),
            "pages": count,
            "fingerprints": states,
            "empty": empty,
        }


def _kit(m: Material, plan: KitPlan, watch: Watch) -> KitAnswer:
    return packed(m.package, m.settings, m.shots, m.packing, plan, watch, around=False).answer


def _unless_stopped(watch: Watch) -> None:
    if watch.stopped():
        raise InvalidInputError("Stopped before it was printed.")
