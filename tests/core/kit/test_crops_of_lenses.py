"""In-camera crops, some of which the lens decides: the matrix, the Bench and Shots against the rules written out by hand."""

import itertools
import math

import pytest

from hextan.core.bench import BenchState
from hextan.core.bench.result import compute_bench
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings
from hextan.core.evaluation import BenchDelivery
from hextan.core.kit import KitAsk, kit_of
from hextan.core.shots import Shot
from hextan.core.shots.view import answer_of_shot
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import kit_package, lens


def body(always=(), factor=1.0):
    """A body with a correction whose rule says 1 (as much as the lens says), a second one, a stabiliser, a mode for short circles."""
    crops = [
        {
            "key": "c",
            "name": "Correction",
            "lens": "corrected",
            "rules": [{"mode": "Full", "factor": factor}],
        },
        {"key": "d", "name": "Breathing", "lens": "corrected", "rules": [{"mode": "Full", "factor": 1.08}]},
        {"key": "s", "name": "Stabiliser", "lens": "spherical", "rules": [{"mode": "Full", "factor": 1.1}]},
        {
            "key": "k",
            "name": "Small circle",
            "lens": "short_circle",
            "rules": [{"mode": "Full", "factor": 1.5}],
        },
    ]
    for crop in crops:
        crop["always"] = crop["key"] in always
    return parse_body(a_body([a_mode(formats=[a_format(), a_format("raw", raw=True, samples="raw")]),
                              a_mode("Other", window=[4000, 2250], formats=[a_format("tight", raster=[3840, 2160])])], crops=crops))  # fmt: skip


LENSES = [
    lens(1, name="Says 1.04", focal=24.0, correction=1.04),
    lens(2, name="Says none", focal=35.0, correction=None),
    lens(3, name="Needs none", focal=50.0, correction=1.0),
    lens(4, name="Short", focal=28.0, image_circle_mm=24.0, correction=1.02),
    lens(5, name="Scope", focal=40.0, squeeze=2.0, correction=1.03),
    lens(6, name="Silent", focal=65.0, image_circle_mm=None, correction=1.01),
]


def by_hand(glass, here, on, always, factor):
    """The product of what acts, by docs: none on raw or in another mode; the lens's own figure, or the rule's where it is silent."""
    if here.recording.raw or here.mode.name != "Full":
        return 1.0
    product = 1.0
    for name, rule in (("Correction", factor), ("Breathing", 1.08)):
        if name in on or name in always:
            product *= (
                rule
                if glass.correction_at(glass.focal_min_mm) is None
                else glass.correction_at(glass.focal_min_mm)
            )
    if ("Stabiliser" in on or "Stabiliser" in always) and glass.squeeze == 1.0:
        product *= 1.1
    circle = glass.image_circle_mm
    if ("Small circle" in on or "Small circle" in always) and (
        circle is None or circle < here.needed_circle_mm
    ):
        product *= 1.5
    return product


@pytest.mark.parametrize("factor", [1.0, 1.06])
@pytest.mark.parametrize("always", [(), ("c",), ("c", "s")])
def test_one_computation_of_crops_for_matrix_bench_and_hand(always, factor):
    package = kit_package([body(always, factor)], LENSES)
    crops = {crop.name: crop.id for crop in package.bodies[0].crops}
    names = {"c": "Correction", "d": "Breathing", "s": "Stabiliser", "k": "Small circle"}
    kept = [names[key] for key in always]
    for count in range(5):
        for on in itertools.combinations(crops, count):
            ids = [crops[name] for name in on]
            kit = kit_of(package, KitAsk(crop_ids=ids, delivery=BenchDelivery()))
            for i, entry in enumerate(kit.entries):
                for j, here in enumerate(kit.places):
                    state = BenchState(
                        format_id=here.recording.id, lens_id=entry.lens.id, crop_ids=ids, subject_m=5.0
                    )
                    found = compute_bench(package, state, format_ids=()).evaluation
                    product = by_hand(entry.lens, here, on, kept, factor)
                    whole = kit_of(package, KitAsk(delivery=BenchDelivery())) if not always else None
                    assert math.isclose(
                        float(kit.recorded_w[i, j]), float(found.columns.recorded_w[0]), rel_tol=1e-12
                    ), (entry.lens.name, on)
                    if whole is not None:
                        assert math.isclose(
                            float(whole.recorded_w[i, j]) / float(kit.recorded_w[i, j]), product, rel_tol=1e-9
                        )


def test_shots_switch_the_correction_on_and_an_always_on_crop_needs_no_word():
    settings = PackageSettings()
    free = kit_package([body()], LENSES[:1])
    plain, on = (
        answer_of_shot(free, settings, Shot(name="1", framing="like 20", body="Skerry 60", picture=p))["best"]
        for p in ("", "lens correction, not raw")
    )
    crops = {crop.id: crop.name for crop in free.bodies[0].crops}
    assert [crops[c] for c in on["crop_ids"]] == ["Correction", "Breathing"]
    assert on["effective_mm"] > plain["effective_mm"]
    raw = answer_of_shot(free, settings, Shot(name="1", framing="like 20", picture="lens correction, raw"))
    assert raw["verdict"] == "cannot"
    fixed = kit_package([body(("c",))], LENSES[:1])
    best = answer_of_shot(fixed, settings, Shot(name="1", framing="like 20", picture="not raw"))["best"]
    assert best["crop_ids"] == []
    if best["mode"] == "Full":
        assert (
            best["effective_mm"] == pytest.approx(plain["effective_mm"] * 1.04)
            or best["format"] != plain["format"]
        )
