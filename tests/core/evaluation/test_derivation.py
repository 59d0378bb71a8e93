"""The derivation of a row, redone with a calculator: every line's numbers give its result."""

import math
import re

import pytest

from hextan.core.evaluation.computation import compute
from hextan.core.evaluation.contract import parse_request
from hextan.core.evaluation.derivation import derivation_of
from tests.core.evaluation.test_evaluate import asking

CASES = {
    "the example": {},
    "squeezed, reduced, off centre, from the lens": {
        "lens__squeeze": 2.0,
        "adapter": {"magnification": 0.71},
        "subject": {"distance_m": 3.2, "measured_from": "lens"},
        "format__window": {"photosites": [4320, 2430], "offset": [100, 20]},
    },
    "photosite for pixel, the eye, by diagonal": {
        "coc": {"rule": "eye"},
        "format__recording": {"raster": [1920, 1080], "map": "crop"},
        "format__crops": [],
        "reference__by": "diagonal",
    },
    "fixed circle, by height, extender": {
        "coc": {"rule": "fixed", "mm": 0.0254},
        "reference__by": "height",
        "adapter": {"magnification": 1.4},
        "lens__f_number": 5.6,
        "lens__t_stop": 6.0,
    },
    "two photosites, binned": {
        "coc": {"rule": "photosite"},
        "format__sampling": {"horizontal": 2, "vertical": 2, "method": "binned"},
    },
    "delivered pixels": {"coc": {"rule": "pixel", "factor": 1.5}, "lens__t_stop": None},
}


def steps(name):
    return derivation_of(compute(parse_request(asking(**CASES[name]))), 0)


def calculate(written):
    """Work out what is written, with the signs of a pocket calculator. None for words."""
    told = re.sub(r"\s*(mm|µm|µs|m)\b", "", written).replace("×", "*").replace("·", "*").replace("−", "-")
    told = re.sub(r"√(\d[\d.]*)", r"sqrt(\1)", told.replace("√(", "sqrt(").replace("²", "**2"))
    told = told.replace("tan(1′)", "tan(radians(1/60))").replace("atan(", "arc(")
    if re.search(r"[a-z]", re.sub(r"sqrt|tan|radians|arc|min", "", told)) or "=" in told:
        return None
    names = {"sqrt": math.sqrt, "tan": math.tan, "radians": math.radians, "min": min,
             "arc": lambda x: math.degrees(math.atan(x))}  # fmt: skip
    return eval(told, {"__builtins__": {}}, names)


#: Results that are told in another unit than their numbers, by the words of the step.
PER = {"Near limit": 1000, "Far limit": 1000, "Hyperfocal distance, from the lens": 1000, "Time to read a frame": 1000,
       "Field in the plane of focus": 1000}  # fmt: skip


@pytest.mark.parametrize("name", CASES)
def test_every_line_can_be_redone_by_hand(name):
    redone = 0
    for step in steps(name):
        if step["what"] in ("Readout window", "Photosite for pixel") or " × " in step["result"]:
            continue
        value = calculate(step["numbers"])
        if value is None:
            continue
        digits = re.search(r"[-+−]?\d+(?:\.(\d+))?", step["result"].replace("−", "-"))
        result = float(digits[0])
        # Half of the last digit, and what the rounding of the numbers on the way may make of it.
        slack = 0.6 * 10.0 ** -len(digits[1] or "") + 2e-3 * abs(result)
        assert value / PER.get(step["what"], 1) == pytest.approx(result, abs=slack), step
        redone += 1
    assert redone >= 10


@pytest.mark.parametrize("name", CASES)
def test_windows_of_the_derivation(name):
    for step in steps(name):
        found = re.fullmatch(r"(\d+) × (\d+) × ([\d.]+) µm", step["numbers"])
        sampled = 2 if "binned" in name and step["what"] == "Photosite for pixel" else 1
        if found:
            w, h, pitch = (float(x) for x in found.groups())
            told = [float(x) for x in re.findall(r"[\d.]+", step["result"])[:2]]
            assert told == pytest.approx([w * pitch * sampled / 1000, h * pitch * sampled / 1000], abs=6e-4)


def test_the_steps_follow_the_links():
    links = [step["link"] for step in steps("the example")]
    assert set(links) <= {"subject", "lens", "adapter", "readout", "recording", "delivery", "sum"}
    assert [s["what"] for s in steps("squeezed, reduced, off centre, from the lens")][:3] == [
        "Focal length behind the adapter", "T-stop behind the adapter", "Image circle behind the adapter",
    ]  # fmt: skip


def test_what_is_unknown_has_no_step():
    request = {"lens": {"focal_mm": 40}, "formats": [{"window": {"width_mm": 24.9, "height_mm": 18.7}}]}
    told = {s["what"] for s in derivation_of(compute(parse_request(request)), 0)}
    assert told == {
        "Crop by width against 24.89 × 18.66 mm",
        "Effective focal length",
        "Horizontal angle, at infinity",
    } | (told & {"Circle needed by the recording", "Circle of confusion"})
    assert "Near limit" not in told
