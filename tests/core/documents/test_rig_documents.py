"""What follows from filters as they are entered."""

import pytest

from hextan.core.documents.rig import filter_markings, parse_rig


@pytest.mark.parametrize(
    ("stops", "density", "factor"),
    # ND 0.3 is one stop and ND 0.9 three, as they are engraved: density is log10 of the factor.
    [(1.0, 0.30103, 2.0), (3.0, 0.90309, 8.0), (10.0, 3.0103, 1024.0)],
)
def test_a_filter_by_its_engraving(stops, density, factor):
    told = filter_markings(parse_rig({"filters": [{"key": "a", "name": "ND", "stops": stops}]}))
    assert told["a"]["density"] == pytest.approx(density, abs=5e-6)
    assert told["a"]["factor"] == pytest.approx(factor)
