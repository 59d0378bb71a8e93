"""How figures are shown: limits to the safe side, and no figure that hides what is judged.

Near is rounded up and far down; highest rates are rounded down. As many digits are shown as the difference needs.
`web/src/lib/figures.ts` does the same for the screen; `tests/fixtures/figures.json` holds both.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from hextan.core.base.distances import METRES, Unit
from hextan.core.base.lengths import mm_from_m

#: Totals below this are told about the mark: two limits that differ in the last digit only tell less.
ABOUT_THE_MARK_M = 0.025
#: A margin or a shortage below this is "just" covered or "just" short, mm.
JUST_MM = 0.05
#: What rounding in a computation leaves, in units of the last digit shown.
_GRAIN = 1e-6
_SIXTEENTHS = METRES["in"] / 16
#: From so many sixteenths of an inch on, the steps in which feet and inches are told: at least ten to the total.
_STEPS = ((80, 8), (40, 4), (20, 2), (0, 1))
_LEAST_SIXTEENTHS = 10
#: In what parts of an inch a small depth is told: in the coarsest of which it has at least ten.
_PARTS = (16, 32, 64)
#: A far limit, or a depth, from here on is beyond anything that can be set or measured on a set: metres, and feet.
BEYOND_M, BEYOND_FT = 1000, 3000
_FRACTIONS = {4: "¼", 8: "½", 12: "¾"}


@dataclass(frozen=True)
class Limits:
    """Near and far limits as they are shown. `about` tells them about the mark, with their signs."""

    near: str
    far: str
    unit: str
    about: bool

    def words(self) -> str:
        """Both, with their unit.

        >>> limits(0.9934, 1.0067, 1.0, "m").words(), limits(2.412, 3.967, 3.0, "m").words()
        ('−6 / +6 mm', '2.42 – 3.96 m')
        """
        between = " / " if self.about else " – "
        return f"{self.near}{between}{self.far}{f' {self.unit}' if self.unit else ''}"


def limits(near_m: float, far_m: float | None, mark_m: float, unit: Unit) -> Limits:
    """Show depth limits: at least two significant digits of the total, near rounded up and far down.

    Parameters
    ----------
    near_m, far_m : metres; None for infinity
    mark_m : where the lens is focused, metres
    unit : m, or ft for feet and inches

    Returns
    -------
    Limits; in centimetres at most, in millimetres where the total is under 10 cm; feet and inches from halves down to
    sixteenths. A total under 25 mm is told about the mark, in feet as fractions of an inch down to 64ths. A far limit
    beyond anything that can be set is told as that.

    >>> limits(8.1, 5314.3, 16.0, "m").words(), limits(8.1, 5314.3, 16.0, "ft").far, limits(0.996, 1.004, 1.0, "ft").words()
    ('8.10 – >1000 m', ">3000'", '−5/32 / +5/32 in')
    >>> limits(2.9, None, 6.0, "ft")
    Limits(near='9\\' 6½"', far='∞', unit='', about=False)
    """
    total = math.inf if far_m is None else far_m - near_m
    if total < ABOUT_THE_MARK_M and far_m is not None:
        return _about(mark_m - near_m, far_m - mark_m, total, unit)
    if unit == "m":
        digits = 2 if math.isinf(total) else _digits(total)
        near = _rounded(near_m, digits, up=True)
        far = "∞" if far_m is None else _beyond(near_m, far_m, unit) or _rounded(far_m, digits, up=False)
        return Limits(near, far, "m", False)
    step = 8 if math.isinf(total) else next(s for least, s in _STEPS if total / _SIXTEENTHS >= least)
    near = feet_and_inches(_steps(near_m, step, up=True) * step)
    far = (
        "∞"
        if far_m is None
        else _beyond(near_m, far_m, unit) or feet_and_inches(_steps(far_m, step, up=False) * step)
    )
    return Limits(near, far, "", False)


def limit_digits(near_m: float, far_m: float, least: int) -> tuple[str, str]:
    """Both limits in metres with at least so many decimals, near rounded up and far down.

    >>> limit_digits(0.84995, 0.85005, 3), limit_digits(2.41234, math.inf, 3)
    (('0.84995', '0.85005'), ('2.413', 'inf'))
    """
    digits = max(least, 2 if math.isinf(far_m) else _digits(far_m - near_m))
    far = "inf" if math.isinf(far_m) else _rounded(far_m, digits, up=False)
    return _rounded(near_m, digits, up=True), far


def _beyond(near_m: float, far_m: float, unit: Unit) -> str | None:
    """What stands for a far limit that is beyond what can be set."""
    bound = BEYOND_M if unit == "m" else BEYOND_FT * METRES["ft"]
    return (f">{BEYOND_M}" if unit == "m" else f">{BEYOND_FT}'") if near_m < bound <= far_m else None


def _about(before_m: float, behind_m: float, total_m: float, unit: Unit) -> Limits:
    for part in _PARTS if unit == "ft" else ():
        steps = [_parts(side, part) for side in (before_m, behind_m)]
        if total_m * part / METRES["in"] >= _LEAST_SIXTEENTHS and min(steps) > 0:
            return Limits(f"−{inches(steps[0], part)}", f"+{inches(steps[1], part)}", "in", True)
    sides = [_some_mm(side, max(0, _digits(total_m) - 3)) for side in (before_m, behind_m)]
    return Limits(f"−{sides[0]}", f"+{sides[1]}", "mm", True)


def _digits(total_m: float) -> int:
    """Decimals of a metre that give two significant digits of a total; at least centimetres."""
    return max(2, 1 - math.floor(math.log10(max(total_m, 1e-9)) + 1e-12))


def _some_mm(metres: float, digits: int) -> str:
    """Millimetres rounded down, with more digits rather than as nothing."""
    while metres > 0 and digits < 9 and math.floor(mm_from_m(metres) * 10**digits + _GRAIN) == 0:
        digits += 1
    return _rounded(mm_from_m(metres), digits, up=False)


def _rounded(value: float, digits: int, up: bool) -> str:
    scaled = value * 10**digits
    whole = math.ceil(scaled - _GRAIN) if up else math.floor(scaled + _GRAIN)
    return f"{whole / 10**digits:.{digits}f}"


def _steps(metres: float, step: int, up: bool) -> int:
    scaled = metres / (_SIXTEENTHS * step)
    return math.ceil(scaled - _GRAIN) if up else math.floor(scaled + _GRAIN)


def _parts(metres: float, part: int) -> int:
    return math.floor(metres * part / METRES["in"] + _GRAIN)


def inches(parts: int, part: int = 16) -> str:
    """Write sixteenths, or smaller parts, of an inch as inches.

    >>> inches(4), inches(22), inches(21), inches(32), inches(5, 64), inches(16, 64)
    ('¼', '1 3/8', '1 5/16', '2', '5/64', '¼')
    """
    whole, rest = divmod(parts, part)
    if not rest:
        return str(whole)
    if rest * 16 % part == 0 and rest * 16 // part in _FRACTIONS:
        return f"{whole or ''}{_FRACTIONS[rest * 16 // part]}"
    over, under = rest, part
    while over % 2 == 0:
        over, under = over // 2, under // 2
    return f"{f'{whole} ' if whole else ''}{over}/{under}"


def feet_and_inches(sixteenths: int) -> str:
    """Write sixteenths of an inch as feet and inches.

    >>> feet_and_inches(1864), feet_and_inches(1861), feet_and_inches(3)
    ('9\\' 8½"', '9\\' 8 5/16"', '0\\' 3/16"')
    """
    feet, rest = divmod(sixteenths, 192)
    told = inches(rest)
    return f"{feet}' {'0' if told in _FRACTIONS.values() else ''}{told}\""


def total_words(total_m: float | None, unit: Unit) -> str:
    """Write a total depth, rounded down: at least two significant digits.

    >>> total_words(1.5678, "m"), total_words(0.0134, "m"), total_words(0.0012, "ft"), total_words(None, "ft")
    ('1.56 m', '13 mm', '1.2 mm', '∞')
    >>> total_words(0.0134, "ft"), total_words(5306.2, "m"), total_words(5306.2, "ft")
    ('½"', '>1000 m', ">3000'")
    """
    if total_m is None:
        return "∞"
    beyond = _beyond(0.0, total_m, unit)
    if beyond is not None:
        return f"{beyond} m" if unit == "m" else beyond
    if unit == "ft" and total_m / _SIXTEENTHS >= _LEAST_SIXTEENTHS:
        step = next(s for least, s in _STEPS if total_m / _SIXTEENTHS >= least)
        told = _steps(total_m, step, up=False) * step
        return feet_and_inches(told) if told >= 192 else f'{inches(told)}"'
    for part in _PARTS if unit == "ft" else ():
        if total_m * part / METRES["in"] >= _LEAST_SIXTEENTHS:
            return f'{inches(_parts(total_m, part), part)}"'
    if total_m >= 0.1:
        return f"{_rounded(total_m, 2, up=False)} m"
    return f"{_some_mm(total_m, max(0, _digits(total_m) - 3))} mm"


def distance_words(metres: float, unit: Unit) -> str:
    """Write a distance, to the nearest: centimetres, or half inches; near ones in millimetres, or sixteenths.

    >>> distance_words(2.97, "m"), distance_words(2.97, "ft"), distance_words(0.0471, "m"), distance_words(0.0471, "ft")
    ('2.97 m', '9\\' 9"', '47 mm', '1 7/8"')
    """
    if unit == "m":
        return (
            f"{metres:.2f} m"
            if metres >= 0.1
            else f"{_told(mm_from_m(metres), 0 if metres >= 0.01 else 1)} mm"
        )
    sixteenths = round(metres / _SIXTEENTHS)
    if sixteenths < _LEAST_SIXTEENTHS:
        return distance_words(metres, "m")
    if sixteenths < _STEPS[0][0]:
        return f'{inches(sixteenths)}"'
    return feet_and_inches(round(metres / _SIXTEENTHS / 8) * 8)


def both_units(metres: float, unit: Unit = "m", brackets: bool = True) -> str:
    """Write a distance for sentences: the chosen unit first, the other behind it where that is wanted.

    >>> both_units(0.6), both_units(0.6, "ft"), both_units(0.6, "m", False)
    ('0.60 m (1\\' 11½")', '1\\' 11½" (0.60 m)', '0.60 m')
    """
    if not brackets:
        return distance_words(metres, unit)
    first, second = distance_words(metres, unit), distance_words(metres, "ft" if unit == "m" else "m")
    return first if first == second else f"{first} ({second})"


def span_words(near_m: float, far_m: float | None, mark_m: float, unit: Unit, brackets: bool = True) -> str:
    """Write depth limits for sentences, rounded inwards; in both units where that is wanted.

    >>> span_words(2.412, 3.967, 3.0, "m"), span_words(0.9984, 1.0017, 1.0, "m")
    ('from 2.42 m to 3.96 m (7\\' 11" to 13\\' 0")', 'from 1.6 mm before to 1.7 mm behind the mark')
    """
    told = [limits(near_m, far_m, mark_m, u) for u in ((unit, "ft") if unit == "m" else (unit, "m"))]
    first, second = (_span(each) for each in told)
    return f"from {first}" if first == second or not brackets else f"from {first} ({second})"


def _span(told: Limits) -> str:
    unit = {"in": '"', "": ""}.get(told.unit, f" {told.unit}")
    if told.about:
        return f"{told.near[1:]}{unit} before to {told.far[1:]}{unit} behind the mark"
    far = "infinity" if told.far == "∞" else f"{told.far.replace('>', 'beyond ')}{unit}"
    return f"{told.near}{unit} to {far}"


def highest_rate(fps: float) -> str:
    """Write a limit on the rate, rounded down: what is printed can be had.

    >>> [highest_rate(f) for f in (23.956, 62.644, 399.96, 240.0, 59.94005994, 23.976, 0.04)]
    ['23.9', '62.6', '399.9', '240', '59.94', '23.976', '0.04']
    """
    nearest = round(fps * 1.001) / 1.001
    if fps > 10 and abs(fps - nearest) <= 6e-4 and abs(fps - round(fps)) > 1e-9:
        return f"{math.floor(nearest * 1000) / 1000:.3f}".rstrip("0").rstrip(".")
    digits = 1
    while digits < 6 and math.floor(fps * 10**digits + _GRAIN) == 0:
        digits += 1
    return _rounded(fps, digits, up=False).removesuffix(".0")


def highest_rate_words(offered: float | None, possible: float | None, limited_by: str | None) -> str:
    """Write the highest rate that the menu offers, with what else limits it where that differs.

    >>> highest_rate_words(30, 42.71, "readout"), highest_rate_words(60, None, None), highest_rate_words(None, 42.71, "readout")
    ('30 (readout 42.7)', '60', 'readout 42.7')
    """
    limit = None if possible is None else f"{limited_by} {highest_rate(possible)}"
    if offered is None:
        return limit or "not known"
    told = highest_rate(offered)
    if possible is None or limit is None or abs(possible / offered - 1) < 1e-6:
        return told
    return f"{told} ({limit})"


def signed(value: float, digits: int, nothing: float = 0.0) -> str:
    """Write a figure whose sign is judged: more digits rather than a zero, no sign where it is nothing.

    Parameters
    ----------
    nothing : below this it counts as zero

    >>> signed(0.971, 1), signed(-0.004, 1), signed(-1e-9, 1, nothing=0.005), signed(0.0, 2)
    ('+1.0', '−0.004', '0.0', '0.00')
    """
    if abs(value) <= nothing:
        return f"{0:.{digits}f}"
    return f"{'+' if value > 0 else '−'}{_told(abs(value), digits)}"


def _told(value: float, digits: int) -> str:
    while digits < 9 and value != 0 and float(f"{value:.{digits}f}") == 0:
        digits += 1
    return f"{value:.{digits}f}"


def stops_words(stops: float, digits: int = 1) -> str:
    """Write stops without a sign, as many as there are.

    >>> stops_words(1.0), stops_words(2.32), stops_words(0.04), stops_words(1.02, 1)
    ('1 stop', '2.3 stops', '0.04 stops', '1 stop')
    """
    told = _told(abs(stops), digits) if abs(stops) >= 0.005 else "0"
    told = told.rstrip("0").rstrip(".") if "." in told else told
    return f"{told} {'stop' if told == '1' else 'stops'}"


def needed_light(amount: float) -> str:
    """Write light that is needed, lux or foot-candles: rounded up, to three significant digits, without an exponent.

    >>> needed_light(122.5), needed_light(61.24), needed_light(64210.0), needed_light(980.0), needed_light(0.02451)
    ('123', '61.3', '64,300', '980', '0.0246')
    """
    if not 0 < amount < math.inf:
        return "0" if amount <= 0 else "∞"
    digits = 2 - math.floor(math.log10(amount))
    steps = amount * 10.0**digits if digits >= 0 else amount / 10.0**-digits
    whole = math.ceil(steps - _GRAIN)
    if digits <= 0:
        return f"{whole * 10**-digits:,}"
    return f"{whole / 10**digits:,.{digits}f}"


def margin_words(margin_mm: float) -> str:
    """Say by how much a circle covers or is short.

    >>> [margin_words(m) for m in (1.25, 0.004, 0.0, -0.0004, -2.31)]
    ['covers, 1.2 mm spare', 'just covers, 0.004 mm spare', 'just covers', 'just short, by 0.0004 mm', '2.4 mm short']
    """
    if abs(margin_mm) < 1e-9:
        return "just covers"
    if abs(margin_mm) < JUST_MM:
        told = _told(abs(margin_mm), 2)
        return f"just covers, {told} mm spare" if margin_mm > 0 else f"just short, by {told} mm"
    if margin_mm > 0:
        return (
            f"covers, {_rounded(margin_mm, 1, up=False) if margin_mm >= 0.1 else f'{margin_mm:.2f}'} mm spare"
        )
    return f"{_rounded(-margin_mm, 1, up=True)} mm short"


def just_covers_words(margin_mm: float) -> str:
    """The same where little is spare: makers measure circles differently.

    >>> just_covers_words(0.31), just_covers_words(-0.2)
    ('just covers, 0.3 mm spare', 'just covers: 0.2 mm short, which nobody sees as dark corners')
    """
    if margin_mm <= -1e-9:
        told = margin_words(margin_mm)
        short = f"{told.removeprefix('just short, by ')} short" if told.startswith("just short") else told
        return f"just covers: {short}, which nobody sees as dark corners"
    return (
        margin_words(margin_mm).replace("covers,", "just covers,", 1)
        if margin_mm >= JUST_MM
        else margin_words(margin_mm)
    )


def crop_words(factor: float) -> str:
    """Write a crop that has to be taken: rounded up, with enough digits to differ from none.

    >>> crop_words(1.234), crop_words(1.00004), crop_words(1.0)
    ('×1.24', '×1.00004', '×1.00')
    """
    digits = 2
    while digits < 9 and factor > 1 and float(_rounded(factor - 1, digits, up=False)) == 0:
        digits += 1
    return f"×{_rounded(factor, digits, up=True)}"


def two_digits(figure: float, up: bool) -> float:
    """Round to two significant digits, up or down.

    >>> two_digits(123.4, True), two_digits(0.0567, False)
    (130.0, 0.056)
    """
    scale = 10.0 ** (math.floor(math.log10(figure)) - 1)
    steps = figure / scale
    return float(f"{(math.ceil(steps - 1e-9) if up else math.floor(steps + 1e-9)) * scale:.6g}")


def share_words(share: float) -> str:
    """Write a share as per cent; what is there does not print as nothing.

    >>> share_words(0.1234), share_words(0.00004), share_words(0.0)
    ('12.3 %', 'less than 0.1 %', '0.0 %')
    """
    return "less than 0.1 %" if 0 < share < 0.0005 else f"{100 * share:.1f} %"
