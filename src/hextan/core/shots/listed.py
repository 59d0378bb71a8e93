"""A list of shots as it is shown while it is typed: little of each answer, and only what somebody does not have yet."""

from __future__ import annotations

from collections.abc import Mapping
from hashlib import blake2b

from hextan.core.equipment import Package, PackageSettings
from hextan.core.shots.answers import ListedAnswer, ListedShots, ShotAnswer
from hextan.core.shots.document import ShotList
from hextan.core.shots.view import shots_view


def shots_listed(
    package: Package, settings: PackageSettings, document: ShotList, known: Mapping[str, str]
) -> ListedShots:
    """Judge a list of shots, and tell of it what a list shows.

    Parameters
    ----------
    known : tags of the answers that whoever asks has, by the keys of their shots

    Returns
    -------
    As `shots_view`, with the answers alone whose tag is another, in the order of the shots.
    """
    view = shots_view(package, settings, document, changes_for=())
    listed = [_listed(answer) for answer in view["answers"]]
    new = [answer for answer in listed if known.get(answer["key"]) != answer["tag"]]
    return {**view, "answers": new}


def _listed(answer: ShotAnswer) -> ListedAnswer:
    shown: ListedAnswer = {
        "key": answer["key"],
        "verdict": answer["verdict"],
        "faults": answer["faults"],
        "best": answer["best"],
        "binds": answer["binds"],
        "off_main": answer["off_main"],
        "noted": answer["noted"],
        "tag": "",
    }
    # Of the whole answer: what a list does not show is asked for again by its tag, too.
    told = repr(answer).encode()
    return {**shown, "tag": blake2b(told, digest_size=8).hexdigest()}
