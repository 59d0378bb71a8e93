"""Frame rates as exact fractions, as they are printed: 23.976 is 24000/1001, and 1-60 is any rate between."""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property, lru_cache

from hextan.core.base.errors import Fault, InvalidInputError
from hextan.core.base.typed import one_or_two

#: A printed decimal this near to n * 1000/1001 means that rate (23.98 and 23.976 are both 24000/1001).
PRINTED = Fraction(6, 1000)
_NUMBER = r"\d+(?:[.,]\d+)?(?:/\d+)?"
_SPAN = re.compile(rf"({_NUMBER})\s*(?:\.\.|-|–|to)\s*({_NUMBER})")
HIGHEST = 1_000_000
EXAMPLES = "write rates like 23.976, 25, 24000/1001 or 1-60"


def parse_rate(text: str, field: str = "rate") -> Fraction:
    """Read one rate.

    Raises
    ------
    InvalidInputError
        Text that is no rate above zero.

    >>> parse_rate("23.976"), parse_rate("59.94"), parse_rate("12.5"), parse_rate("24000/1001")
    (Fraction(24000, 1001), Fraction(60000, 1001), Fraction(25, 2), Fraction(24000, 1001))
    """
    told = text.strip().replace(",", ".")
    try:
        rate = Fraction(told)
    except (ValueError, ZeroDivisionError):
        raise InvalidInputError.of(Fault(field, text, EXAMPLES)) from None
    if not 0 < rate <= HIGHEST:
        raise InvalidInputError.of(
            Fault(field, text, f"must be above 0 and at most {HIGHEST} frames a second")
        )
    if rate.denominator != 1 and "/" not in told:
        ntsc = Fraction(round(rate * 1001 / 1000) * 1000, 1001)
        if abs(ntsc - rate) <= PRINTED:
            return ntsc
    return rate


@dataclass(frozen=True)
class RateSpan:
    """One rate (equal ends), or every rate from low to high."""

    low: Fraction
    high: Fraction

    def __contains__(self, rate: Fraction) -> bool:
        return self.low <= rate <= self.high

    def text(self) -> str:
        """Write it exactly, as it is kept.

        >>> parse_span("23.976").text(), parse_span("1 - 60").text()
        ('24000/1001', '1..60')
        """
        return str(self.low) if self.low == self.high else f"{self.low}..{self.high}"


def parse_span(text: str, field: str = "rates") -> RateSpan:
    """Read one rate or a range of rates.

    Raises
    ------
    InvalidInputError
        Text that is neither, or a range whose ends are the wrong way round.
    """
    try:
        return _span(text)
    except InvalidInputError as error:
        fault = error.faults[0]
        raise InvalidInputError.of(Fault(field, fault.value, fault.rule)) from None


# A body has hundreds of formats and a dozen different rates.
@lru_cache(maxsize=4096)
def _span(text: str) -> RateSpan:
    field = "rate"
    found = _SPAN.fullmatch(text.strip())
    if found is None:
        rate = parse_rate(text, field)
        return RateSpan(rate, rate)
    low, high = parse_rate(found[1], field), parse_rate(found[2], field)
    if low > high:
        raise InvalidInputError.of(Fault(field, text, "the lower rate comes first"))
    return RateSpan(low, high)


@dataclass(frozen=True)
class RateSet:
    """The rates that a recording format offers."""

    spans: tuple[RateSpan, ...]

    @classmethod
    def parse(cls, texts: list[str] | tuple[str, ...], field: str = "rates") -> RateSet:
        """Read a list of rates and ranges.

        >>> RateSet.parse(["23.976", "25", "30-60"]).texts()
        ['24000/1001', '25', '30..60']
        """
        return _rate_set(tuple(texts), field)

    def texts(self) -> list[str]:
        """Write each exactly."""
        return [span.text() for span in self.spans]

    @cached_property
    def highest(self) -> Fraction:
        """The highest rate that is offered."""
        return max(span.high for span in self.spans)

    @cached_property
    def spans_fps(self) -> tuple[tuple[float, float], ...]:
        """The lowest and highest rate of each span as decimals."""
        return tuple((float(span.low), float(span.high)) for span in self.spans)

    @cached_property
    def words(self) -> str:
        """Write them as the trade prints them.

        >>> RateSet.parse(["24000/1001", "25", "1..60"]).words
        '23.976, 25, 1–60'
        """
        ends = ((rate_words(span.low), rate_words(span.high)) for span in self.spans)
        return ", ".join(low if low == high else f"{low}–{high}" for low, high in ends)

    def __contains__(self, rate: Fraction) -> bool:
        return any(rate in span for span in self.spans)

    def highest_within(self, limit_fps: float) -> float | None:
        """The highest offered rate that is no higher than a limit; None where all are.

        >>> RateSet.parse(["24", "25", "60"]).highest_within(42.7), RateSet.parse(["1-60"]).highest_within(42.7)
        (25.0, 42.7)
        """
        ends = [min(high, limit_fps) for low, high in self.spans_fps if low <= limit_fps]
        return max(ends, default=None)

    def offers(self, fps: float) -> bool:
        """Whether a rate given as a decimal is offered, as it is printed: 23.976 is 24000/1001.

        >>> RateSet.parse(["24000/1001", "25"]).offers(23.976)
        True
        """
        grain = 2e-5 * fps
        return any(low - grain <= fps <= high + grain for low, high in self.spans_fps)

    def nearest(self, rate: Fraction) -> Fraction:
        """The offered rate nearest to a wanted one.

        >>> RateSet.parse(["24", "25", "30-60"]).nearest(Fraction(28))
        Fraction(30, 1)
        """
        held = [min(max(rate, span.low), span.high) for span in self.spans]
        return min(held, key=lambda offered: (abs(offered - rate), offered))


@lru_cache(maxsize=4096)
def _rate_set(texts: tuple[str, ...], field: str) -> RateSet:
    return RateSet(tuple(_entry(text, f"{field}[{i}]") for i, text in enumerate(texts)))


def _entry(text: str, field: str) -> RateSpan:
    """One entry of a list; 24,25 may be one rate or two, and 23,976 is one."""
    span = parse_span(text, field)
    asked = one_or_two(text)
    if asked is not None and span.low.denominator != 1001:
        raise InvalidInputError.of(Fault(field, text, asked))
    return span


def rate_words(rate: Fraction | float) -> str:
    """Write a rate for sentences, with at most three decimals.

    >>> rate_words(Fraction(24000, 1001)), rate_words(Fraction(25))
    ('23.976', '25')
    """
    return f"{float(rate):.3f}".rstrip("0").rstrip(".")
