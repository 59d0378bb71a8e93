"""Clips that random bodies write: the format that wrote one is among those it fits, and all of them could have."""

import random

import pytest

from hextan.core.documents import parse_body
from hextan.core.record.clips import fitting
from hextan.core.record.document import ClipFacts
from tests.core.bodies import a_body, a_format, a_mode, package_of

RASTERS = [[1920, 1080], [3840, 2160], [4096, 2160], [4096, 2304], [2048, 1152], [6144, 3456], [3000, 2000]]
RATES = ["24000/1001", "24", "25", "30000/1001", "50", "60000/1001", "120"]
RATE = {text: eval(text) for text in RATES}
CODECS = {"intra 4:2:2": "intra", "long GOP 4:2:0": "long", "raw": "raw"}


def a_random_body(rng, number):
    formats = [
        a_format(f"F{n}", raster=rng.choice(RASTERS), rates=rng.sample(RATES, 3), bits=rng.choice([10, 12]),
                 codec=rng.choice(list(CODECS)), interlaced=False)
        for n in range(6)
    ]  # fmt: skip
    modes = [
        a_mode(f"M{n}", window=[rng.randrange(3000, 6000, 2), rng.randrange(1800, 4000, 2)], formats=formats[2 * n : 2 * n + 2])
        for n in range(3)
    ]  # fmt: skip
    return parse_body(a_body(modes, key=f"b{number}", name=f"Body {number}"))


@pytest.mark.parametrize("seed", range(40))
def test_the_format_that_wrote_it_is_found(seed):
    rng = random.Random(seed)
    package = package_of([a_random_body(rng, number) for number in range(5)])
    for here in package.formats.values():
        recording = here.recording
        fps = float(rng.choice([r for r in RATE.values() if recording.rates.offers(r)]))
        facts = {"name": "a.mov", "raster": list(recording.raster)}
        says = rng.sample(["fps", "bits", "codec", "body"], rng.randrange(5))
        if "fps" in says:
            facts["fps"] = fps
        if "bits" in says:
            facts["bits"] = recording.bits
        if "codec" in says:
            facts["codec"] = CODECS[recording.codec]
        if "body" in says:
            facts["body"] = here.body.name
        found, told = fitting(package, ClipFacts.model_validate(facts))

        def could(other, facts=facts):
            r = other.recording
            return (
                list(r.raster) == facts["raster"]
                and (facts.get("fps") is None or r.rates.offers(facts["fps"]))
                and facts.get("bits") in (None, r.bits)
                and facts.get("codec") in (None, "", CODECS[r.codec])
                and facts.get("body") in (None, other.body.name)
            )

        wanted = [other for other in package.formats.values() if could(other)]
        assert [f.recording.id for f in found] == [f.recording.id for f in wanted], (facts, told)
        assert here in found
        assert "none" not in told
