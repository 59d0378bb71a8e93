"""Where a shot is focused, and how soft its background is: as the lens can, and as the public evaluation says."""

import warnings

import numpy as np
import pytest

from hextan.core import evaluate
from hextan.core.base import refuse_bad_arithmetic
from hextan.core.documents import parse_body
from hextan.core.equipment import PackageSettings
from hextan.core.optics import ThinLens
from hextan.core.shots import Shot
from hextan.core.shots.cells import Cells
from hextan.core.shots.judge import judge
from hextan.core.shots.layout import layout_of
from hextan.core.shots.needs import needs_of
from hextan.core.shots.view import answer_of_shot
from tests.core.bodies import a_body, a_format, a_mode
from tests.core.kits import kit_package, lens

BODY = parse_body(a_body([a_mode(formats=[a_format(rates=["25"])]),
                          a_mode("Small", window=[3000, 1688], formats=[a_format("HD", raster=[1920, 1080], rates=["25"])])],
                         eis=[800, 1600], base_eis=[800]))  # fmt: skip
PLAIN = PackageSettings()


def test_a_focus_that_the_lens_cannot_reach_is_paid_for_by_the_stop_or_refused():
    """Close focus 0.90 m, and 0.5 to 0.7 m to be sharp: focused at 0.583 m by the formula, where the ring does not go."""
    package = kit_package(
        [BODY],
        [lens(1, name="Prime 25", focal=25.0, close_focus_m=0.9, pupil_magnification=1.0, t_stop=None)],
    )
    answer = answer_of_shot(package, PLAIN, Shot(name="1", framing="1.9 m wide", hold="0.5-0.7 m"))
    best = answer["best"]
    assert best["focus_m"] is None or best["focus_m"] >= 0.9
    # A lens as deep as that is stopped down for it, and holds both limits from its close focus.
    deep = kit_package(
        [BODY],
        [
            lens(
                1,
                name="Prime 8",
                focal=8.0,
                close_focus_m=0.9,
                pupil_magnification=1.0,
                t_stop=None,
                f_number=2.0,
            )
        ],
    )
    shot = Shot(name="1", distance="2 m", hold="0.5-0.7 m")
    best = answer_of_shot(deep, PLAIN, shot)["best"]
    assert best["focus_m"] == pytest.approx(0.9)
    judged = judge(deep, PLAIN, needs_of(shot, deep, PLAIN))
    row, column = judged.at(judged.order[0])
    thin = ThinLens(8.0, float(judged.cells.layout.coc_mm[row, column]), 1.0)
    near, far = thin.limits(thin.focused(900.0), best["stop"] * 2 ** (1 / 12))
    assert near <= 500.0 * (1 + 1e-6)
    assert far >= 700.0


@pytest.mark.parametrize("squeeze", [1.0, 1.25, 1.33, 1.5, 1.65, 1.8, 2.0])
@pytest.mark.parametrize("words", ["2 %", "0.5 % at 8 m", "0.4 % at 1.9 m"])
def test_a_background_is_as_soft_as_the_evaluation_says_for_every_squeeze(squeeze, words):
    """The stop at which Shots calls a background just soft enough, put into the public evaluation."""
    package = kit_package(
        [BODY],
        [
            lens(
                1, name="Scope 50", focal=50.0, squeeze=squeeze, pupil_magnification=0.8, image_circle_mm=60.0
            )
        ],
    )
    needs = needs_of(
        Shot(name="1", distance="2.5 m", background=words, deliveries="3840x1607"), package, PLAIN
    )
    cells = Cells(layout_of(package, needs.delivery, needs.picture), needs, PLAIN)
    for j, here in enumerate(cells.layout.places):
        f_number = float(cells.softest[0, j] * cells.f_of_t[0, j])
        answer = evaluate({
            "lens": {"focal_mm": 50.0, "f_number": f_number, "squeeze": squeeze, "pupil_magnification": 0.8},
            "subject": {"distance_m": 2.5}, "background_m": [None if np.isinf(needs.soft.at_m) else needs.soft.at_m],
            "formats": [{"window": {"width_mm": here.mode.window[0] * here.body.pitch_um / 1000, "height_mm": here.mode.window[1] * here.body.pitch_um / 1000},
                         "recording": {"raster": list(here.recording.raster)}, "delivery": {"aspect": 3840 / 1607}}],
        })["formats"][0]  # fmt: skip
        assert answer["background"][0]["blur_fraction_of_width"] == pytest.approx(needs.soft.share, rel=1e-6)


def test_an_ordinary_shot_prints_nothing_on_the_terminal():
    """A lens that goes on no body, none that states a close focus: warnings of the arithmetic are errors in every door."""
    other = parse_body(a_body([a_mode()], key="other", name="Otter", mount="K50"))
    lenses = [
        lens(1, name="Prime 25", focal=25.0, close_focus_m=None),
        lens(2, name="Prime 40", focal=40.0, mount="K50", close_focus_m=None),
    ]
    package = kit_package([BODY, other], lenses)
    with warnings.catch_warnings():
        warnings.simplefilter("default")
        refuse_bad_arithmetic()
        for cells in ({"framing": "waist"}, {"framing": "waist", "distance": "3 m", "wishes": {"distance": 1.0}},
                      {"room": "2 m", "background": "2 %", "hold": "deep"}, {"framing": "waist", "light": "50 lux", "stop": "T2", "wishes": {"stop": 1.0}}):  # fmt: skip
            assert answer_of_shot(package, PLAIN, Shot(name="1", **cells))["verdict"] != "open", cells
        with pytest.raises(RuntimeWarning):
            exec(
                compile("import numpy as np\nnp.array(1.0) / np.array(0.0)", "x", "exec"),
                {"__name__": "hextan.core.x"},
            )
