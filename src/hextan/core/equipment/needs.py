"""What a recording format needs besides its body: accessories and licences, and a version of the firmware."""

from __future__ import annotations

import re
from collections.abc import Collection

from hextan.core.equipment.package import FormatInPackage


def version_of(text: str) -> tuple[int, ...] | None:
    """Read the first version that a text names, without zeros at its end; None where it names none.

    >>> version_of("v4.10 beta"), version_of("4.10.0") > version_of("4.9"), version_of("as delivered")
    ((4, 10), True, None)
    """
    found = re.search(r"\d{1,6}(?:\.\d{1,6})*", text)
    if found is None:
        return None
    parts = [int(part) for part in found[0].split(".")]
    while len(parts) > 1 and not parts[-1]:
        parts.pop()
    return tuple(parts)


def needs_words(here: FormatInPackage, carried: Collection[str]) -> list[str]:
    """Say what a format needs, and which of it is not carried; what is missing first."""
    missing = lacking(here, carried)
    there = [f"needs {name}" for name in here.recording.needs if name in carried]
    return [*missing, *there]


def lacking(here: FormatInPackage, carried: Collection[str]) -> list[str]:
    """Say what a format lacks to be recorded, in words; nothing where all is there.

    Parameters
    ----------
    carried : names of the accessories and licences that the production carries
    """
    told = [f"needs {name}, which is not carried" for name in here.recording.needs if name not in carried]
    since = here.recording.from_firmware
    wanted = None if since is None else version_of(since)
    if wanted is not None:
        have = version_of(here.body.firmware)
        if have is None:
            told.append(f"needs firmware {since}, and the body does not state its own")
        elif have < wanted:
            told.append(f"needs firmware {since}, and the body has {here.body.firmware}")
    return told
