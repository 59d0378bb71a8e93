"""Where an in-camera crop can act, and why not elsewhere."""

import pytest

from hextan.core.documents import parse_body
from hextan.core.equipment.package import LensOnBody
from tests.core.bodies import a_body, a_format, a_mode, package_of

BODY = a_body(
    [
        a_mode(
            "Full", formats=[a_format("UHD"), a_format("raw", raster=[6000, 3375], raw=True, samples="raw")]
        ),
        a_mode("Small", window=[3000, 1688], formats=[a_format("HD", raster=[1920, 1080])]),
    ],
    crops=[
        {"key": "a", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.1}]},
        {"key": "b", "name": "Straight", "lens": "spherical", "rules": [{"mode": "Full", "factor": 1.05}]},
        {
            "key": "c",
            "name": "Small circle",
            "lens": "short_circle",
            "rules": [{"mode": "Full", "factor": 1.5}],
        },
    ],
)
PLACES = {p.recording.name: p for p in package_of([parse_body(BODY)]).formats.values()}
CROPS = {c.name: c for c in PLACES["UHD"].body.crops}


@pytest.mark.parametrize(
    ("place", "crop", "lens", "reason"),
    [
        ("UHD", "Steady", LensOnBody(), None),
        ("raw", "Steady", LensOnBody(), "raw recordings are unaltered sensor data"),
        ("HD", "Steady", LensOnBody(), "not in the scan mode Small"),
        ("UHD", "Straight", LensOnBody(), None),
        ("UHD", "Straight", LensOnBody(2.0), "not with a squeezed lens"),
        ("UHD", "Small circle", LensOnBody(covers=False), None),
        ("UHD", "Small circle", LensOnBody(), None),
        (
            "UHD",
            "Small circle",
            LensOnBody(covers=True),
            "not needed: the lens's circle covers this recording",
        ),
    ],
)
def test_a_crop_acts_or_says_why_not(place, crop, lens, reason):
    here = PLACES[place]
    assert here.crop_reason(CROPS[crop], lens) == reason
    acting = here.crops_that_apply(frozenset(c.id for c in CROPS.values()), lens)
    assert (crop in [c.name for c, _ in acting]) is (reason is None)
