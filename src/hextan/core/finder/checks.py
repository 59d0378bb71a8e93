"""The format finder's requirements, judged for all formats of a package at once."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from hextan.core.base import (
    Fault,
    Flags,
    Floats,
    InvalidInputError,
    highest_rate,
    just_covers_words,
    margin_words,
    no_longer_here,
    parse_rate,
    rate_words,
)
from hextan.core.equipment import (
    FormatInPackage,
    Highest,
    Lens,
    LensSetting,
    Package,
    PackageSettings,
    adapters_by_id,
    cards_filled,
    highest_of,
    lacking,
)
from hextan.core.evaluation import Delivery, FormatColumns, columns_of
from hextan.core.finder.ask import (
    AtLeast,
    CardWish,
    DeliveryWish,
    FinderAsk,
    RateWish,
    Wish,
)
from hextan.core.optics import (
    dark_where_short,
    media,
    needed_circle_mm,
    rate_fits,
    upscaled,
    view_angles_deg,
)


@dataclass(frozen=True)
class Check:
    """One requirement, judged for every format; arrays of shape (F,)."""

    name: str
    label: str
    wish: Wish
    met: Flags
    share: Floats
    #: What a format has, in words.
    has: Callable[[int], str]


@dataclass(frozen=True)
class Candidates:
    """The formats of a package with all that the requirements ask of them, shape (F,)."""

    places: list[FormatInPackage]
    columns: FormatColumns
    highest: list[Highest]
    fps: Floats
    oversampling: Floats
    bytes_s: Floats
    lens: Lens | None
    focal_mm: float
    circle_mm: float | None
    mounts: Flags
    angle_deg: Floats
    #: From which share of a recording on what a circle leaves dark is called dark corners.
    seen_dark: float
    #: What each format lacks to be recorded at all.
    lacks: list[list[str]]

    @property
    def softened(self) -> Flags:
        """Binned, skipped or upscaled."""
        return (self.columns.given.method > 0) | upscaled(self.oversampling)


def candidates(package: Package, ask: FinderAsk) -> Candidates:
    """Lay out all formats of a package with what the requirements ask of them.

    Raises
    ------
    InvalidInputError
        A lens or adapter that the production does not have, or none where coverage or angle are asked.
    """
    places = package.places(ask.planned and not ask.catalogue)
    setting = _lens_at_hand(package, ask)
    lens = None if setting is None else setting.lens
    squeeze = 1.0 if lens is None else lens.squeeze
    focal = np.nan if setting is None else setting.focal_mm * setting.magnification
    delivery: Delivery | None = None
    if ask.delivery is not None:
        w, h = ask.delivery.raster
        delivery = {"aspect": w / h, "raster": [w, h]}
    requests = [here.as_request(delivery=delivery) for here in places]
    columns = columns_of(requests, squeeze)
    highest = [highest_of(here) for here in places]
    fps = _fps(ask, highest)
    given = columns.given
    share_w, share_h = columns.recorded_w / columns.read_w, columns.recorded_h / columns.read_h
    over = np.minimum(
        columns.samples_across * share_w / given.raster_w, columns.samples_down * share_h / given.raster_h
    )
    rates = [here.recording.bytes_per_second(rate) for here, rate in zip(places, fps.tolist(), strict=True)]
    angle = np.full(len(places), np.nan)
    if lens is not None:
        angle = angles_of(columns, lens, focal)
    return Candidates(
        places=places,
        columns=columns,
        highest=highest,
        fps=fps,
        oversampling=over,
        bytes_s=np.array([np.nan if rate is None else rate for rate in rates]),
        lens=lens,
        focal_mm=float(focal),
        circle_mm=None if setting is None else setting.circle_mm,
        mounts=np.array([setting is None or not setting.mounting(here.body).reasons for here in places]),
        angle_deg=angle,
        seen_dark=package.seen_dark,
        lacks=[lacking(here, package.carried) for here in places],
    )


def _lens_at_hand(package: Package, ask: FinderAsk) -> LensSetting | None:
    if ask.lens is None:
        needing = [name for name in ("covers", "angle_deg") if getattr(ask, name) is not None]
        if needing:
            raise InvalidInputError.of(*(Fault(f"{n}", None, "needs a lens: choose one") for n in needing))
        return None
    if ask.lens.lens_id not in package.lenses:
        raise InvalidInputError.plainly(no_longer_here("lens", "lens.lens_id", ask.lens.lens_id))
    chain = [ask.lens.adapter_id, ask.lens.second_adapter_id]
    adapters = adapters_by_id(package.adapters, chain, "lens.adapter_id")
    return LensSetting(package.rig, package.lenses[ask.lens.lens_id][1], adapters, ask.lens.focal_mm)


def angles_of(columns: FormatColumns, lens: Lens, focal_mm: float) -> Floats:
    """Horizontal angles of view of a lens in every format, degrees, shape (F,)."""
    return view_angles_deg(
        columns.picture_w * lens.squeeze, columns.picture_h, focal_mm, columns.offset_x * lens.squeeze,
        columns.offset_y, lens.projection,
    )[0]  # fmt: skip


def _fps(ask: FinderAsk, highest: list[Highest]) -> Floats:
    """The rate at which data are counted: the wanted one, or the highest usable of each format."""
    if ask.rate is not None:
        return np.full(len(highest), float(parse_rate(ask.rate.fps)))
    return np.array([np.nan if h.usable_fps is None else h.usable_fps for h in highest])


def checks_of(c: Candidates, settings: PackageSettings, ask: FinderAsk) -> list[Check]:
    """Judge every requirement that is asked, in the order of the six links."""
    makers: dict[str, Callable[[Any], Check]] = {
        "covers": lambda wish: _coverage_check(c, wish),
        "angle_deg": lambda wish: _number(
            "angle_deg", f"angle of view at least {wish.least:g}°", wish, c.angle_deg, lambda v: f"{v:.1f}°"
        ),
        "full_read": lambda wish: _yes_no(
            "full_read", "every photosite read", wish, c.columns.given.method == 0,
            lambda i: {"full": "every photosite read", "binned": "binned", "skipped": "lines skipped"}[c.places[i].mode.method],
        ),
        "rate": lambda wish: _rate_check(c, wish),
        "raw": lambda wish: _yes_no(
            "raw", "raw", wish, c.columns.given.raw > 0, lambda i: "raw" if c.places[i].recording.raw else "processed"
        ),
        "bits": lambda wish: _number(
            "bits", f"at least {wish.least:g} bits", wish, np.array([float(p.recording.bits or np.nan) for p in c.places]),
            lambda v: f"{v:.0f} bits",
        ),
        "oversampling": lambda wish: _number(
            "oversampling", f"at least {wish.least:g} samples for each pixel", wish, c.oversampling,
            lambda v: f"{v:.2f} samples for each pixel",
        ),
        "card_minutes": lambda wish: _card_check(c, settings, wish),
        "delivery": lambda wish: _delivery_check(c, wish),
        "reframe_percent": lambda wish: _number(
            "reframe_percent", f"at least {wish.least:g} % to re-frame", wish, 100 * (_headroom(c, ask) - 1),
            lambda v: f"{v:z.0f} % to re-frame",
        ),
        "levelling_deg": lambda wish: _number(
            "levelling_deg", f"at least {wish.least:g}° of levelling", wish, _levelling(c, ask),
            lambda v: f"{v:.1f}° of levelling",
        ),
    }  # fmt: skip
    asked = {name: getattr(ask, name) for name in makers}
    if ask.delivery is None:
        needing = [name for name in ("reframe_percent", "levelling_deg") if asked[name] is not None]
        if needing:
            rule = "needs a delivery raster: what is left over is counted against it"
            raise InvalidInputError.of(*(Fault(f"{name}", None, rule) for name in needing))
    checks = [make(asked[name]) for name, make in makers.items() if asked[name] is not None]
    # Nobody has to ask for what a format cannot be recorded without.
    return [*checks, _carried_check(c)] if any(c.lacks) else checks


def _number(name: str, label: str, wish: AtLeast, value: Floats, words: Callable[[float], str]) -> Check:
    known = np.isfinite(value)
    met = known & (value >= wish.least * (1 - 1e-6))
    share = np.where(met, 1.0, np.clip(np.where(known, value, 0.0) / wish.least, 0.0, 1.0))
    # An unlimited value (a delivery that needs no rotation limit) is more than enough.
    return Check(name, label, wish, met, share, lambda i: words(float(value[i])) if known[i] else "not known")


def _yes_no(name: str, label: str, wish: Wish, met: Flags, words: Callable[[int], str]) -> Check:
    return Check(name, label, wish, met, met.astype(float), words)


def _rate_check(c: Candidates, wish: RateWish) -> Check:
    """The rate must be offered in the format, of the wanted kind, and be possible."""
    wanted = parse_rate(wish.fps)
    kind = np.array([p.recording.interlaced is wish.interlaced for p in c.places])
    offered = np.array([wanted in p.recording.rates for p in c.places])
    possible = np.array(
        [h.possible_fps is None or bool(rate_fits(float(wanted), h.possible_fps)) for h in c.highest]
    )
    met = kind & offered & possible
    nearest = np.array([_nearest_fps(h, float(wanted)) for h in c.highest])
    reached = np.minimum(nearest, float(wanted)) / np.maximum(nearest, float(wanted))
    share = np.where(met, 1.0, np.where(kind, reached, 0.0))
    word = "interlaced" if wish.interlaced else "progressive"

    def has(i: int) -> str:
        if met[i]:
            return f"{rate_words(wanted)} fps {word}"
        if not kind[i]:
            return "interlaced only" if c.places[i].recording.interlaced else "progressive only"
        h = c.highest[i]
        if not possible[i]:
            return f"{highest_rate(h.possible_fps or 0.0)} fps at most ({h.limited_by})"
        return f"up to {rate_words(h.offered_fps)} fps offered, {rate_words(wanted)} not among them"

    return Check("rate", f"{rate_words(wanted)} fps {word}", wish, met, share, has)


def _nearest_fps(highest: Highest, wanted: float) -> float:
    """The rate nearest to a wanted one that can be chosen; 0 where none can."""
    if highest.usable_fps is None:
        return 0.0
    limit = highest.usable_fps
    ends = [
        min(max(wanted, low), high, limit)
        for low, high in highest.rates.spans_fps
        if low <= limit * (1 + 1e-9)
    ]
    return min(ends, key=lambda fps: abs(math.log(fps / wanted)))


def _coverage_check(c: Candidates, wish: Wish) -> Check:
    cols = c.columns
    needed = needed_circle_mm(cols.recorded_w, cols.recorded_h, cols.offset_x, cols.offset_y)
    known = c.circle_mm is not None
    margin = (c.circle_mm or 0.0) - needed
    dark = dark_where_short(
        np.nan if c.circle_mm is None else c.circle_mm,
        cols.recorded_w,
        cols.recorded_h,
        cols.offset_x,
        cols.offset_y,
    )
    met = np.asarray(
        c.mounts & ((margin >= 0) | (dark <= c.seen_dark) if known else np.zeros(len(needed), bool))
    )
    share = np.where(met, 1.0, np.where(c.mounts & known, np.clip((c.circle_mm or 0.0) / needed, 0, 1), 0.0))

    def has(i: int) -> str:
        if not c.mounts[i]:
            return "does not mount"
        if not known:
            return "image circle not stated"
        if met[i]:
            return just_covers_words(float(margin[i])) if margin[i] < 0 else margin_words(float(margin[i]))
        return f"{margin_words(float(margin[i]))} of {needed[i]:.1f} mm"

    return Check("covers", "the lens covers", wish, met, share, has)


def _headroom(c: Candidates, ask: FinderAsk) -> Floats:
    """Recorded pixels across the picture for each delivered one, along the tighter axis."""
    assert ask.delivery is not None
    w, h = _picture_pixels(c)
    return np.minimum(w / ask.delivery.raster[0], h / ask.delivery.raster[1])


def _picture_pixels(c: Candidates) -> tuple[Floats, Floats]:
    given, cols = c.columns.given, c.columns
    return (
        given.raster_w * cols.picture_w / cols.recorded_w,
        given.raster_h * cols.picture_h / cols.recorded_h,
    )


def _delivery_check(c: Candidates, wish: DeliveryWish) -> Check:
    w, h = _picture_pixels(c)
    head = np.minimum(w / wish.raster[0], h / wish.raster[1])
    # The raster is whole pixels, and so is what is extracted: half a pixel is not missing.
    met = head >= 1 - 0.5 / min(wish.raster)
    label = f"{wish.raster[0]} × {wish.raster[1]} delivered"
    return Check("delivery", label, wish, met, np.where(met, 1.0, np.clip(head, 0, 1)),
                 lambda i: f"{w[i]:.0f} × {h[i]:.0f} pixels in that aspect")  # fmt: skip


def _levelling(c: Candidates, ask: FinderAsk) -> Floats:
    assert ask.delivery is not None
    squeeze = 1.0 if c.lens is None else c.lens.squeeze
    w, h = ask.delivery.raster
    given = c.columns.given
    # Rotation happens in the de-squeezed picture, so pixels are counted there.
    turned = media.levelling_degrees(given.raster_w * squeeze, given.raster_h, float(w), float(h))
    fits = _headroom(c, ask) >= 1 - 0.5 / min(w, h)
    return np.where(fits, np.nan_to_num(turned), 0.0)


def _carried_check(c: Candidates) -> Check:
    met = np.array([not told for told in c.lacks])
    return Check("carried", "all that it needs is there", Wish(), met, met.astype(float),
                 lambda i: "; ".join(c.lacks[i]) or "nothing is missing")  # fmt: skip


def _card_check(c: Candidates, settings: PackageSettings, wish: CardWish) -> Check:
    card = next((card for card in settings.cards if card.key == wish.card), None)
    if card is None:
        raise InvalidInputError.of(Fault("card_minutes.card", wish.card, "is not a card of this production"))
    minutes = card.bytes * np.array([cards_filled(p.body) for p in c.places]) / c.bytes_s / 60
    return _number("card_minutes", f"at least {wish.least:g} min on {card.name}", wish, minutes,
                   lambda v: f"{v:.0f} min on {card.name}")  # fmt: skip
