"""The look sheet's pictures against a projection of their own, and the adapters' sheet against chains put together by hand."""

import math
import random

import pytest

from hextan.core.base import parse_distance_m
from tests.core.kits import lens_named
from tests.core.sheets.material import demo, made, tables


def magnification(focal, distance):
    """Of a thin lens whose sensor is so far from the subject: D = f(2 + m + 1/m), the smaller root; mm."""
    b = distance / focal - 2
    return (b - math.sqrt(b * b - 4)) / 2


@pytest.mark.parametrize("name", ["Merrow 25", "Merrow 50", "Merrow 135", "Longshore 2x 40"])
def test_the_feet_of_the_subject_stand_where_a_projection_puts_them(name):
    m = demo()
    glass = m.package.lenses[lens_named(m.package, name)][1]
    rng = random.Random(name)
    distances = sorted(round(rng.uniform(2.2, 9.0), 2) for _ in range(3))
    (block,) = made("look", lens_ids=[glass.id], distances_m=distances, everything=True)["blocks"]
    seen = 0
    # With few formats the distances stand beside one another.
    pictures = [row["pictures"] for row in block["rows"]]
    if len(block["columns"]) == len(distances):
        pictures = list(zip(*pictures, strict=True))
    for distance, row in zip(distances, pictures, strict=True):
        for picture in row:
            if picture is None:
                continue
            # Behind an adapter the lens is another one; the field that is told says which.
            wide = parse_distance_m(picture["lines"][0].split("· ")[1].removesuffix(" wide")) * 1000
            scale = picture["width"] / wide
            if abs(scale / magnification(glass.focal_min_mm, distance * 1000) - 1) < 0.02:
                seen += 1
            ground = m.bench.scene.camera_height_m * 1000 * scale
            feet = max(y for s in picture["shapes"] if s["style"] == "dark" for _, y in s["points"])
            assert feet == pytest.approx(ground, rel=0.01)
    assert seen


def chains(adapters, start, end):
    """Every one or two adapters between two mounts."""
    if start == end:
        yield ()
    for a in adapters:
        if (a.lens_mount, a.body_mount) == (start, end):
            yield (a,)
        for b in adapters:
            if a is not b and (a.lens_mount, a.body_mount, b.body_mount) == (start, b.lens_mount, end):
                yield (a, b)


def test_the_adapters_of_the_sheet_are_the_chains_that_there_are():
    """A chain's magnifications multiply; it loses 2 log2(m) - log2(what the glass lets through) stops."""
    m = demo()
    (table,) = tables(made("adapters", everything=True))
    told = {}
    for each in table["rows"]:
        lens, body, through, factor, lost, _ = each["cells"]
        told.setdefault((each["section"], lens["text"], body["text"]), {})[through["text"]] = (
            factor["value"],
            lost["value"],
        )
    assert len(told) == len(m.package.lenses) * len(m.package.bodies)
    seen = 0
    for kit, lens in m.package.lenses.values():
        for body in m.package.bodies:
            rows = told[kit.name, lens.name, body.name]
            wanted = {}
            for chain in chains(m.package.rig.adapters, lens.mount, body.mount):
                factor = math.prod(a.magnification for a in chain)
                through = math.prod(a.transmission for a in chain)
                wanted[frozenset(a.name for a in chain)] = (
                    factor,
                    2 * math.log2(factor) - math.log2(through),
                )
            for name, (factor, lost) in rows.items():
                if factor is None:
                    continue
                names = frozenset(a.name for a in m.package.rig.adapters if a.name in name)
                assert (factor, lost) == pytest.approx(wanted[names], abs=0.006), (lens.name, body.name, name)
                seen += 1
            assert bool(wanted) or list(rows) == ["cannot be mounted"]
    assert seen > 50
