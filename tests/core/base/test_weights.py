"""Weights as people write them, in either system."""

import pytest

from hextan.core.base import InvalidInputError, limit_words, parse_weight_kg, weight_words


@pytest.mark.parametrize(
    ("text", "bare", "kg"),
    [
        # The pound is 0.45359237 kg (agreement of 1959), an ounce 28.349523125 g.
        ("1", "lb", 0.45359237),
        ("1 oz", "kg", 0.028349523125),
        ("3 lb 8 oz", "kg", 1.587573295),
        ("3 lb 8", "kg", 1.587573295),
        ("4.4LBS", "kg", 1.995806428),
        ("1,8 kg", "lb", 1.8),
        ("1800 g", "lb", 1.8),
        ("2 kg.", "lb", 2.0),
    ],
)
def test_is_read(text: str, bare: str, kg: float) -> None:
    assert parse_weight_kg(text, bare) == pytest.approx(kg, abs=1e-9)


@pytest.mark.parametrize(
    "text", ["", "0", "kg", "2 stone", "1,234", "2 kg 3 lb", "-2", "3 oz 2 lb", "2 lb 3 oz 4 oz"]
)
def test_is_not_guessed(text: str) -> None:
    with pytest.raises(InvalidInputError):
        parse_weight_kg(text)


def test_is_told_in_the_unit_of_the_production() -> None:
    assert weight_words(4.5359237, "ft") == "10.0 lb"
    assert weight_words(4.5359237, "m", 2) == "4.54 kg"
    assert limit_words(4.5, "ft") == "9.921 lb"
