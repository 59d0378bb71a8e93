"""Do the claims hold? Crop factors by every reading, tapes with their errors, fits of stated limits."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.documents.body import CropClaim, PixelClaim, SpeedClaim, TapeClaim, parse_body
from hextan.core.documents.claims import (
    Home,
    check_claims,
    check_crop,
    check_pixels,
    check_tape,
    fit_speed,
    implied_width_mm,
    readings,
)
from tests.budget import examples
from tests.core.bodies import a_body, a_format, a_mode, catalogue


@pytest.fixture(scope="module")
def body():
    """A window of exactly 24 x 12.66 mm, 17:9 as 4096:2160, on a sensor of 36 x 24 mm."""
    formats = [a_format("4096", raster=[4096, 2160]), a_format("UHD")]
    crops = [{"key": "s", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.1}]}]
    return parse_body(a_body([a_mode(window=[4000, 2110], formats=formats)], crops=crops))


FULL_FRAME, SUPER_35 = Home.named("full_frame"), Home.named("super35")


def crop(body, factor, decimals=2, aspect=None, others=(), home=SUPER_35, **more):
    claim = CropClaim(mode="Full", factor=factor, decimals=decimals, aspect=aspect, **more)
    return check_crop(body, claim, list(others), home)


@pytest.mark.parametrize(
    ("factor", "aspect", "home", "verdict", "reading"),
    [
        (1.50, None, FULL_FRAME, "holds", "Full whole, by width against full frame: 1.500"),
        (1.04, None, SUPER_35, "holds", "Full whole, by width against Super 35: 1.037"),
        (1.50, None, SUPER_35, "basis", "multiply focal lengths by 1.037, not by 1.50"),
        (1.59, None, FULL_FRAME, "basis", "Full whole, by diagonal against full frame: 1.595"),
        (
            1.59,
            None,
            Home.named("full_frame", "diagonal"),
            "holds",
            "Full whole, by diagonal against full frame: 1.595",
        ),
        (1.90, None, FULL_FRAME, "basis", "Full whole, by height against full frame: 1.896"),
        # Trimmed to 16:9 the window is 12.66 x 16/9 = 22.507 mm wide: 36 / 22.507 = 1.5995.
        (1.60, [16, 9], FULL_FRAME, "holds", "Full trimmed to 16:9, by width against full frame: 1.600"),
    ],
)
def test_a_claim_holds_by_the_productions_own_reading_only(body, factor, aspect, home, verdict, reading):
    told = crop(body, factor, aspect=aspect, home=home)
    assert told["verdict"] == verdict
    assert reading in told["text"]


def test_a_claim_that_states_its_basis_is_held_to_that(body):
    assert crop(body, 1.50, basis="full_frame")["verdict"] == "holds"
    assert crop(body, 1.59, basis="full_frame", by="diagonal")["verdict"] == "holds"
    assert crop(body, 1.59, basis="full_frame", by="width")["verdict"] == "basis"
    assert crop(body, 1.50, basis="sensor")["verdict"] == "holds"
    assert crop(body, 1.04, basis="full_frame")["verdict"] == "basis"


def test_switches_are_tried_on_request_only(body):
    """10 % tighter than by the whole window: a crop may have been left on, and with it nearly anything fits."""
    assert "Try those as well" in crop(body, 1.65, home=FULL_FRAME)["text"]
    told = crop(body, 1.65, home=FULL_FRAME, switches=True)
    assert told["verdict"] == "holds"
    assert "Full with Steady on, by width against full frame: 1.650" in told["text"]


def test_arbitrary_factors_are_not_called_true():
    """Of 201 factors from 1.00 to 3.00 hardly any is green, for any body of the catalogue; and the chance is told."""
    for document in catalogue():
        mode = document.modes[0]
        told = [check_crop(document, CropClaim(mode=mode.key, factor=(100 + i) / 100, decimals=2), [], FULL_FRAME)
                for i in range(201)]  # fmt: skip
        green = sum(t["verdict"] == "holds" for t in told)
        # One for each picture that the mode's formats leave of its window.
        assert green <= len(mode.formats) + 1
        some = sum(t["verdict"] in ("holds", "near", "basis") for t in told)
        assert some > green
        assert all(t["tried"] == len(readings(document, mode, None, FULL_FRAME)) for t in told)


def test_the_chance_of_a_hit_by_counting(body):
    """Every factor that can be printed between the least and the largest reading, tried one by one."""
    told = crop(body, 1.50)
    tried = readings(body, body.modes[0], None, SUPER_35)
    low, high = (round(100 * f) for f in (min(r.factor for r in tried), max(r.factor for r in tried)))
    hits = sum(any(round(100 * r.factor) == n for r in tried) for n in range(low, high + 1))
    assert f"{told['tried']} readings were tried" in told["text"]
    assert f"in {100 * hits / (high - low + 1):.0f} of 100 cases" in told["text"]


def test_a_claim_that_was_rounded_on_the_way_is_near(body):
    # 1.5 x 1.0667 = 1.6 by the chain; 1.605 is 0.35 % from 1.5995.
    told = crop(body, 1.605, decimals=3, aspect=[16, 9], home=FULL_FRAME)
    assert told["verdict"] == "near"
    assert "(-0.3 %)" in told["text"]


def test_a_claim_that_nothing_gives_says_by_how_much(body):
    told = crop(body, 1.30)
    assert told["verdict"] == "fails"
    assert told["text"].startswith(
        "No reading of Full gives 1.30; the nearest is Full trimmed to 16:9, by diagonal against Super 35: 1.205, and "
        "the claim is +7.9 % from it. Measure it with a tape. Was an in-camera crop on? Try those as well."
    )


def test_a_copied_page_is_recognised():
    ebb, skiff, *rest = catalogue()
    claim = next(c for c in ebb.claims.crops if c.factor == 1.54)
    told = check_crop(ebb, claim, [skiff, *rest])
    assert told["verdict"] == "elsewhere"
    assert (
        "It fits Corran Skiff 46: 17:9 4.6K whole, by diagonal against full frame: 1.537. Copied from there?"
        in told["text"]
    )
    assert check_crop(ebb, claim, [])["verdict"] == "fails"


def tape(body, width_mm, focal=50.0, distance=4.0, error=0.005, **more):
    """A tape measurement of a window of a known width."""
    field = width_mm / implied_width_mm(focal, distance * 1000, 1.0) / 1000
    return check_tape(body, TapeClaim(mode="Full", focal_mm=focal, focal_error_mm=0.1, distance_m=distance,
                                      field_m=field, field_error_m=error, **more))  # fmt: skip


def test_tape_agrees_within_its_error(body):
    told = tape(body, 24.05)
    assert told["implied_mm"] == pytest.approx(24.05)
    assert told["verdict"] == "holds"
    assert told["computed_mm"] == pytest.approx(24.0)
    assert tape(body, 12.66 * 16 / 9, format="UHD")["verdict"] == "holds"


def test_tape_disagrees_and_finds_what_was_claimed(body):
    claimed = body.model_copy(update={"claims": body.claims.model_copy(update={"crops": [
        CropClaim(mode="Full", factor=1.5), CropClaim(mode="Full", factor=1.65)]})})  # fmt: skip
    told = tape(claimed, 36 / 1.65)
    assert told["verdict"] == "fails"
    assert (
        "they disagree by -9.1 %. It fits the claim 1.65 by width against full frame (21.82 mm)."
        in told["text"]
    )
    assert "Is a crop on, or is the mode another one?" in tape(body, 36 / 1.65)["text"]


def test_a_coarse_tape_says_what_to_measure_better(body):
    told = tape(body, 24.0, error=0.2)
    assert told["verdict"] == "coarse"
    assert told["text"].endswith("Measure the field width better: most of the error comes from it.")
    assert tape(body, 24.15)["verdict"] == "coarse"


def test_tape_error_against_random_draws(body):
    """The stated error is the spread of the implied width over random errors (Monte Carlo, numpy)."""
    claim = TapeClaim(mode="Full", focal_mm=50.0, focal_error_mm=0.3, distance_m=4.0, distance_error_m=0.02,
                      field_m=1.85, field_error_m=0.01)  # fmt: skip
    rng = np.random.default_rng(7)
    f, d, w = (c + e * rng.normal(size=4000) for c, e in ((50.0, 0.3), (4000.0, 20.0), (1850.0, 10.0)))
    spread = np.std([implied_width_mm(*x) for x in zip(f, d, w, strict=True)])
    assert check_tape(body, claim)["error_mm"] == pytest.approx(spread, rel=0.05)


def test_tape_where_nothing_can_be_focused(body):
    told = check_tape(body, TapeClaim(mode="Full", focal_mm=100.0, distance_m=0.3, field_m=0.1))
    assert (told["verdict"], told["implied_mm"]) == ("unknown", None)


def limits(row_time, overhead, rows, digits=1):
    return [SpeedClaim(rows=n, fps=round(1e6 / (n * row_time + overhead), digits)) for n in rows]


@settings(max_examples=examples(60), deadline=None)
@given(st.floats(1.0, 15.0), st.floats(100.0, 2000.0), st.randoms(use_true_random=False))
def test_fit_recovers_row_time_and_overhead_from_printed_limits(row_time, overhead, random):
    """Synthetic limits, rounded as they are printed, with a little noise."""
    rows = random.sample(range(500, 4000, 125), 6)
    claims = [
        SpeedClaim(rows=n, fps=1e6 / (n * row_time + overhead) * (1 + random.uniform(-5e-4, 5e-4)))
        for n in rows
    ]
    told = fit_speed(claims)
    assert told["verdict"] == "holds"
    assert told["row_time_us"] == pytest.approx(row_time, rel=0.02)
    assert told["overhead_us"] == pytest.approx(overhead, abs=0.01 * row_time * max(rows))


@pytest.mark.parametrize("spoiled", range(5))
@pytest.mark.parametrize("factor", [1.07, 0.8])
def test_the_limit_that_does_not_fit_is_flagged(spoiled, factor):
    claims = limits(6.35, 420.0, [3620, 2692, 2448, 2000, 1224], digits=2)
    claims[spoiled] = claims[spoiled].model_copy(update={"fps": claims[spoiled].fps * factor})
    told = fit_speed(claims)
    assert told["verdict"] == "fails"
    assert [row["off"] for row in told["rows"]] == [i == spoiled for i in range(5)]
    assert told["rows"][spoiled]["residual"] == pytest.approx(factor - 1, abs=2e-3)
    assert told["row_time_us"] == pytest.approx(6.35, rel=2e-3)
    assert ("faster than the readout can be" if factor > 1 else "something else binds it") in told["text"]


def test_two_limits_say_little_and_one_nothing():
    assert fit_speed(limits(6.0, 400.0, [3000, 1500]))["verdict"] == "coarse"
    assert fit_speed(limits(6.0, 400.0, [3000]))["row_time_us"] is None
    assert fit_speed(limits(6.0, 400.0, [3000, 3000, 3000]))["verdict"] == "unknown"


def test_limits_that_cannot_be():
    told = fit_speed([SpeedClaim(rows=1000, fps=30.0), SpeedClaim(rows=3000, fps=60.0)])
    assert told["verdict"] == "fails"
    assert "more rows cannot take less time" in told["text"]


@pytest.mark.parametrize(
    ("megapixels", "decimals", "verdict", "words"),
    [
        (24.0, 1, "holds", "the active photosites"),
        (25.2, 1, "holds", "all photosites of the chip"),
        (10.7, 1, "holds", "Crop's window (24.0 MP / 2.250)"),
        # 24 MP at 1.5x leaves 10.7 MP; people divide once and get 16 (common practice, no source).
        (16.0, 1, "fails", "the crop's factor once instead of its square"),
        (30.0, 1, "fails", "from all photosites of the chip"),
    ],
)
def test_pixel_counts(megapixels, decimals, verdict, words):
    document = parse_body(
        a_body([a_mode("Crop", window=[4000, 2667])], photosites=[6000, 4000], total_photosites=[6100, 4130])
    )
    mode = "Crop" if megapixels in (10.7, 16.0) else None
    told = check_pixels(document, PixelClaim(mode=mode, megapixels=megapixels, decimals=decimals))
    assert told["verdict"] == verdict
    assert words in told["text"]


def test_a_uhd_frame_is_8_3_megapixels():
    """3840 x 2160 (ITU-R BT.2020, from memory)."""
    document = parse_body(a_body([a_mode("UHD", window=[3840, 2160])]))
    told = check_pixels(document, PixelClaim(mode="UHD", megapixels=8.3, decimals=1))
    assert told["verdict"] == "holds"


def test_samples_are_counted_along_both_axes():
    """A window of 4000 x 3000 that is read by twos both ways makes 2000 x 1500 samples: 3 MP, and by one axis alone 6."""
    document = parse_body(
        a_body([a_mode("Binned", window=[4000, 3000], sampling=[2, 2], methods=["binned", "binned"])])
    )
    for megapixels, verdict in ((3.0, "holds"), (6.0, "fails")):
        told = check_pixels(document, PixelClaim(mode="Binned", megapixels=megapixels, decimals=1))
        assert told["verdict"] == verdict
    assert {c["name"]: c["megapixels"] for c in told["counts"]}["Binned's samples"] == 3.0


def test_all_claims_of_the_demo_are_answered():
    for document in catalogue():
        told = check_claims(document, [])
        for kind in ("crops", "tapes", "pixels"):
            assert [c["key"] for c in told[kind]] == [c.key for c in getattr(document.claims, kind)]
