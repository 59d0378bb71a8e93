"""A package with what the catalogue could rent besides."""

from __future__ import annotations

from dataclasses import replace

from hextan.core.equipment import Package


def with_catalogue(package: Package, catalogue: Package) -> Package:
    """A package with the bodies, lens sets, mounts and adapters of the catalogue that it does not have itself.

    What is already in it, by maker and name, stays as it is. Adapters and mounts go by their names.
    """
    bodies = {(body.maker, body.name) for body in package.bodies}
    sets = {(kit.maker, kit.name) for kit in package.lens_sets}
    mounts = {mount.name for mount in package.mounts}
    adapters = {adapter.name for adapter in package.adapters}
    return replace(
        package,
        bodies=(*package.bodies, *(b for b in catalogue.bodies if (b.maker, b.name) not in bodies)),
        lens_sets=(*package.lens_sets, *(s for s in catalogue.lens_sets if (s.maker, s.name) not in sets)),
        mounts=(*package.mounts, *(m for m in catalogue.mounts if m.name not in mounts)),
        adapters=(*package.adapters, *(a for a in catalogue.adapters if a.name not in adapters)),
    )


def package_with(package: Package, catalogue: Package) -> Package:
    """As `with_catalogue`, kept with the package as long as nothing in either changes."""
    key = ("with the catalogue", id(catalogue))
    kept: dict[tuple[str, int], tuple[Package, Package]] = package.worked_out.setdefault("rented", {})
    if key not in kept:
        kept.clear()
        kept[key] = (catalogue, with_catalogue(package, catalogue))
    return kept[key][1]
