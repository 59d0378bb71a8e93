"""What would have to be rented: a shot judged with everything that the catalogue has besides."""

from __future__ import annotations

from dataclasses import replace

from hextan.core.equipment import Package, PackageSettings
from hextan.core.shots.answers import ShotAnswer
from hextan.core.shots.catalogue import package_with
from hextan.core.shots.document import Shot
from hextan.core.shots.view import answer_with_changes


def rented_for(package: Package, catalogue: Package, settings: PackageSettings, shot: Shot) -> ShotAnswer:
    """Answer a shot with what is carried and what could be rented."""
    whole = replace(package_with(package, catalogue), plan=None)
    return answer_with_changes(whole, settings, shot.model_copy(update={"pin": None}))
