"""Rates as they are printed, and as they are."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base.errors import InvalidInputError
from hextan.core.base.rates import RateSet, parse_rate, parse_span


@pytest.mark.parametrize(
    ("printed", "exact"),
    [
        # SMPTE ST 2048-1 and ITU-R BT.709 give the rates over 1.001 as these fractions (from memory).
        ("23.976", Fraction(24000, 1001)),
        ("23.98", Fraction(24000, 1001)),
        ("29.97", Fraction(30000, 1001)),
        ("47.952", Fraction(48000, 1001)),
        ("59.94", Fraction(60000, 1001)),
        ("119.88", Fraction(120000, 1001)),
        ("23,976", Fraction(24000, 1001)),
        ("24000/1001", Fraction(24000, 1001)),
        ("12.5", Fraction(25, 2)),
        ("25.0", Fraction(25)),
        ("33.333", Fraction(33333, 1000)),
    ],
)
def test_printed_rates_are_exact(printed, exact):
    assert parse_rate(printed) == exact


@given(st.integers(1, 1000))
def test_a_rate_over_1001_survives_printing(n):
    """Printed to three decimals and read again, also the ones above 100."""
    exact = Fraction(n * 1000, 1001)
    assert parse_rate(f"{float(exact):.3f}") == exact
    assert parse_span(parse_span(str(exact)).text()).low == exact


@pytest.mark.parametrize("text", ["", "fast", "0", "-25", "1/0", "nan", "inf", "60-24", "25p", "9999999"])
def test_text_that_is_no_rate(text):
    with pytest.raises(InvalidInputError) as refused:
        RateSet.parse([text])
    assert refused.value.faults[0].field == "rates[0]"


def test_ranges_hold_every_rate_between():
    rates = RateSet.parse(["23.976", "30 – 60", "1..4"])
    assert [Fraction(n) in rates for n in (2, 5, 24, 30, 45, 60, 61)] == [
        True,
        False,
        False,
        True,
        True,
        True,
        False,
    ]
    assert rates.highest == 60
    assert rates.nearest(Fraction(100)) == 60
    assert RateSet.parse(rates.texts()) == rates
