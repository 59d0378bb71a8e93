"""The format finder against a brute-force enumeration written anew, format by format."""

import itertools
import json
import math
from dataclasses import replace
from importlib.resources import files

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError
from hextan.core.equipment import Lens, LensSet, MountAdapter, parse_settings
from hextan.core.finder.ask import FinderAsk
from hextan.core.finder.formats import TIE_BREAKS, find_formats
from tests.budget import examples
from tests.core.bodies import catalogue, package_of
from tests.core.kits import kit_package, lens

SETTINGS = parse_settings(
    json.loads(files("hextan.demo").joinpath("low_water.json").read_text(encoding="utf-8"))["settings"]
)


def a_lens(number, name, focal, circle, mount="K50", squeeze=1.0):
    return Lens(number, name, focal, focal, 2.0, 2.1, None, None, circle, squeeze, 0.5, mount, "rectilinear")


LENSES = [a_lens(1, "Wren 40", 40.0, 31.5), a_lens(2, "Wren 20", 20.0, 31.5), a_lens(3, "Merrow 40", 40.0, 46.0, "W54"),
          a_lens(4, "Merrow 21", 21.0, 46.0, "W54"), a_lens(5, "Dunlin 12", 12.0, 14.8, "N30")]  # fmt: skip
ADAPTERS = [
    MountAdapter(1, "K50 to W54", 1.0, "K50", "W54"),
    MountAdapter(2, "K50 to N30", 1.0, "K50", "N30"),
]
PACKAGE = package_of(
    catalogue(),
    lens_sets=(LensSet(1, "Lantern Works", "all", tuple(LENSES)),),
    adapters=tuple(ADAPTERS),
    carried=frozenset(["Weir 7 recorder", "high-speed key"]),
)


def find(**ask):
    return find_formats(PACKAGE, SETTINGS, FinderAsk.model_validate(ask))


def by_hand(here, ask):
    """What one format has of each requirement: (met, share). Plain arithmetic, one format at a time."""
    body, mode, f = here.body, here.mode, here.recording
    w, h = mode.window[0] * body.pitch_um / 1000, mode.window[1] * body.pitch_um / 1000
    if f.map == "crop":
        w, h = (n * s * body.pitch_um / 1000 for n, s in zip(f.raster, mode.sampling, strict=True))
    elif w / h > f.raster[0] / f.raster[1] * (1 + 1e-6):
        w = h * f.raster[0] / f.raster[1]
    elif w / h < f.raster[0] / f.raster[1] * (1 - 1e-6):
        h = w * f.raster[1] / f.raster[0]
    got = {}
    if "rate" in ask:
        fps = float(ask["rate"]["fps"])
        times = [(mode.window[1] // mode.sampling[1]) * mode.row_time_us + mode.overhead_us]
        scans = 2 if f.interlaced else 1
        limits = [1e6 / times[0] / scans]
        limits += [] if mode.max_fps is None else [mode.max_fps / scans]
        limits += [] if f.highest_fps is None else [f.highest_fps]
        if body.write_bytes_s and not body.buffer_bytes and f.megabits_at_fps:
            limits.append(body.write_bytes_s * 8 / 1e6 / f.megabits * f.megabits_at_fps)
        elif body.write_bytes_s and not body.buffer_bytes and not f.megabits:
            frame = f.raster[0] * f.raster[1] * f.samples * f.bits / 8 / f.compression
            limits.append(body.write_bytes_s / frame)
        kind = f.interlaced is ask["rate"].get("interlaced", False)
        met = kind and any(s.low <= fps <= s.high for s in f.rates.spans) and fps <= min(limits) * 1.001002
        # The nearest rate that can be chosen is what is reached: an end of a range, or the wanted one inside it.
        most = min(limits) / 0.999
        spans = [(float(s.low), min(float(s.high), most)) for s in f.rates.spans if float(s.low) <= most]
        ratios = [1.0 if low <= fps <= high else min(low / fps, fps / low) if fps < low else high / fps
                  for low, high in spans]  # fmt: skip
        got["rate"] = (met, 1.0 if met else max(ratios, default=0.0) if kind else 0.0)
    if "oversampling" in ask:
        across = w * 1000 / body.pitch_um / mode.sampling[0] / f.raster[0]
        down = h * 1000 / body.pitch_um / mode.sampling[1] / f.raster[1]
        got["oversampling"] = at_least(min(across, down), ask["oversampling"])
    if "full_read" in ask:
        met = mode.methods == ("full", "full")
        got["full_read"] = (met, float(met))
    if "raw" in ask:
        got["raw"] = (f.raw, float(f.raw))
    if "bits" in ask:
        got["bits"] = at_least(f.bits, ask["bits"])
    if "angle_deg" in ask or "covers" in ask:
        lens = next(x for x in LENSES if x.id == ask["lens"]["lens_id"])
        got["angle_deg"] = at_least(math.degrees(2 * math.atan(w / 2 / lens.focal_min_mm)), ask["angle_deg"])
        x, y = (abs(n) * body.pitch_um / 1000 for n in mode.offset)
        needed = 2 * math.hypot(x + w / 2, y + h / 2)
        adapter = next((a for a in ADAPTERS if a.id == ask["lens"].get("adapter_id")), None)
        fits = (
            adapter.body_mount
            if adapter and adapter.lens_mount == lens.mount
            else None
            if adapter
            else lens.mount
        ) == body.mount
        met = fits and lens.image_circle_mm >= needed
        got["covers"] = (met, 1.0 if met else min(1, lens.image_circle_mm / needed) if fits else 0.0)
    return got


def at_least(value, wish):
    met = value >= wish["least"] * (1 - 1e-6)
    return met, 1.0 if met else value / wish["least"]


@settings(max_examples=examples(60), deadline=None)
@given(st.data())
def test_finder_against_brute_force(data):
    must = st.fixed_dictionaries({"must": st.booleans(), "weight": st.sampled_from([0.5, 1.0, 3.0])})
    ask = {
        "rate": data.draw(must) | {"fps": data.draw(st.sampled_from(["24", "25", "50", "60", "100", "180"])),
                                   "interlaced": data.draw(st.booleans())},
        "oversampling": data.draw(must) | {"least": data.draw(st.sampled_from([0.8, 1.0, 1.3, 2.0]))},
        "full_read": data.draw(must),
        "raw": data.draw(must),
        "bits": data.draw(must) | {"least": data.draw(st.sampled_from([8, 10, 12]))},
        "covers": data.draw(must),
        "angle_deg": data.draw(must) | {"least": data.draw(st.sampled_from([10.0, 25.0, 45.0]))},
    }  # fmt: skip
    keep = data.draw(st.sets(st.sampled_from(sorted(ask)), min_size=1))
    ask = {k: v for k, v in ask.items() if k in keep}
    ask["lens"] = {
        "lens_id": data.draw(st.sampled_from([1, 2, 3])),
        "adapter_id": data.draw(st.sampled_from([None, 1])),
    }
    if "angle_deg" in ask or "covers" in ask:
        ask.setdefault("angle_deg", {"least": 1.0, "must": False})
        ask.setdefault("covers", {"must": False})
    got = find(**ask)
    wishes = {k: v for k, v in ask.items() if k != "lens"}
    expected, rejected = {}, {}
    for here in PACKAGE.formats.values():
        hand = by_hand(here, ask)
        failing = {k for k in wishes if wishes[k].get("must", True) and not hand[k][0]}
        if failing:
            rejected[here.recording.id] = failing
            continue
        soft = [k for k in wishes if not wishes[k].get("must", True)]
        total = sum(wishes[k].get("weight", 1.0) for k in soft)
        score = sum(wishes[k].get("weight", 1.0) * hand[k][1] for k in soft) / total if soft else 1.0
        expected[here.recording.id] = score
    assert {r["format_id"]: pytest.approx(r["score"], abs=1e-6) for r in got["ranked"]} == expected
    scores = [r["score"] for r in got["ranked"]]
    assert scores == sorted(scores, reverse=True)
    assert {
        r["format_id"]: {x["name"] for x in r["reasons"] if x["must"] and not x["met"]}
        for r in got["rejected"]
    } == rejected
    assert (got["empty"] is None) == bool(got["ranked"])


def test_equal_scores_are_settled_in_the_documented_order():
    ranked = find(rate={"fps": "25"})["ranked"]
    assert {r["score"] for r in ranked} == {1.0}
    rank = {"softened": 0, "1:1": 1, "oversampled": 2}

    def sharp(row):
        here = PACKAGE.formats[row["format_id"]]
        if here.mode.method != "full" or row["oversampling"] < 0.999:
            return rank["softened"]
        return rank["oversampled"] if row["oversampling"] > 1.001 else rank["1:1"]

    keys = [
        (sharp(r), round(r["picture_width_mm"], 6), round(r["oversampling"], 6), -r["mb_s"]) for r in ranked
    ]
    assert keys == sorted(keys, reverse=True)
    for one, other, row in zip(keys, keys[1:], ranked[1:], strict=False):
        differs = next(
            (told for told, a, b in zip(TIE_BREAKS, one, other, strict=True) if a != b),
            "the order of the package",
        )
        assert row["tie"] == differs


def row_of(answer, name, part="rejected"):
    return next(r for r in answer[part] if r["format"] == name)


def test_a_rejected_format_says_what_would_admit_it():
    row = row_of(find(rate={"fps": "100"}), "S35 → UHD")
    assert row["fails"] == ["100 fps progressive: 62.6 fps at most (readout)"]
    assert row["changes"] == ["60 fps instead of 100", "S16 2.2K raw in S16 2.2K of the same body"]
    row = row_of(find(rate={"fps": "72"}), "S35 → HD")
    assert row["fails"] == ["72 fps progressive: 62.6 fps at most (readout)"]
    offered = row_of(find(rate={"fps": "40"}), "S35 → UHD")
    assert offered["fails"] == ["40 fps progressive: up to 60 fps offered, 40 not among them"]
    assert offered["changes"] == ["30 fps instead of 40"]
    assert row_of(find(rate={"fps": "25"}), "S35 → HD 50i")["fails"] == [
        "25 fps progressive: interlaced only"
    ]


def test_another_lens_would_admit_it():
    lens = {"lens_id": 1, "adapter_id": 1}
    row = row_of(find(lens=lens, covers={}), "Full → UHD")
    assert row["fails"] == ["the lens covers: 11.5 mm short of 43.0 mm"]
    assert row["changes"][0] == "Merrow 40 instead of Wren 40"
    wide = row_of(find(lens=lens, covers={}, angle_deg={"least": 60}), "Full → UHD")
    assert wide["changes"][0] == "Merrow 21 instead of Wren 40"
    bare = row_of(find(lens={"lens_id": 1}, covers={}), "Full → UHD")
    assert bare["fails"] == ["the lens covers: does not mount"]


def test_a_zoom_that_covers_only_far_from_the_focal_length_is_not_the_nearest():
    """Of a zoom that covers full frame from 60 mm on and a 35 mm prime, the prime is nearer to 40 mm."""
    dark = lens(1, name="Wren 40", focal=40.0, image_circle_mm=31.5)
    marks = [
        {"at": 28.0, "circle_mm": 30.0},
        {"at": 60.0, "circle_mm": 44.0},
        {"at": 90.0, "circle_mm": 46.0},
    ]
    far = lens(
        2,
        name="Long zoom",
        focal=28.0,
        focal_long_mm=90.0,
        circle_by="focal",
        circles=marks,
        image_circle_mm=None,
    )
    near = lens(3, name="Wren 35", focal=35.0, image_circle_mm=46.0)
    for others in ([far, near], [near, far]):
        package = kit_package(catalogue(), [dark, *others])
        ask = FinderAsk.model_validate({"lens": {"lens_id": 1}, "covers": {}})
        row = row_of(find_formats(package, SETTINGS, ask), "Full → UHD")
        assert row["changes"][0] == "Wren 35 instead of Wren 40"


def test_a_larger_card_would_admit_it():
    wish = {"least": 100, "card": "card1"}
    row = row_of(find(card_minutes=wish), "Full → UHD")
    assert row["fails"] == ["at least 100 min on Slab 512: 76 min on Slab 512"]
    assert row["changes"][0] == "the card Slab 1T"


def test_delivery_reframing_and_levelling():
    answer = find(
        delivery={"raster": [1920, 1080]},
        reframe_percent={"least": 20},
        levelling_deg={"least": 5, "must": False},
    )
    for row in answer["ranked"]:
        here = PACKAGE.formats[row["format_id"]].recording
        assert min(here.raster[0] / 1920, here.raster[1] / 1080) >= 1.2
    assert "2.2K" not in {r["mode"] for r in answer["ranked"]}
    assert row_of(answer, "S16 2.2K raw")["fails"] == ["at least 20 % to re-frame: 13 % to re-frame"]


def test_a_squeezed_picture_is_re_framed_along_its_tighter_axis():
    """Behind a 2x lens half the width of 16:9 is used: its pixels run out first, twice as early as the lines."""
    package = kit_package(catalogue(), [lens(1, squeeze=2.0, image_circle_mm=46.0)])
    asked = {"lens": {"lens_id": 1}, "delivery": {"raster": [1920, 1080], "must": False}}
    row = row_of(
        find_formats(package, SETTINGS, FinderAsk.model_validate(asked | {"reframe_percent": {"least": 1}})),
        "Full → UHD", "rejected",
    )  # fmt: skip
    # 3840 x 2160 of UHD: the picture is 1920 columns and 2160 lines, for 1920 x 1080.
    assert row["fails"] == ["at least 1 % to re-frame: 0 % to re-frame"]


def test_an_empty_result_is_explained():
    told = find(rate={"fps": "100"}, delivery={"raster": [3840, 2160]})["empty"]
    assert told == (
        "No format meets every must. Make one of them a wish: without “3840 × 2160 delivered” 17 would; without “100 fps "
        "progressive” 15 would remain."
    )
    alone = find(rate={"fps": "1000"})["empty"]
    assert (
        alone
        == "No format meets every must. Make one of them a wish: without “1000 fps progressive” 49 would remain."
    )
    two = find(rate={"fps": "1000"}, bits={"least": 16})["empty"]
    assert two == "No format meets “1000 fps progressive”, nor “at least 16 bits”, whatever else is asked."
    assert find_formats(package_of([]), SETTINGS, FinderAsk())["empty"].endswith("add a body.")


@pytest.mark.parametrize(
    ("ask", "field"),
    [
        ({"covers": {}}, "covers"),
        ({"angle_deg": {"least": 20}}, "angle_deg"),
        ({"lens": {"lens_id": 99}}, "lens.lens_id"),
        ({"lens": {"lens_id": 1, "adapter_id": 99}}, "lens.adapter_id"),
        ({"levelling_deg": {"least": 2}}, "levelling_deg"),
        ({"card_minutes": {"least": 2, "card": "none"}}, "card_minutes.card"),
    ],
)
def test_what_cannot_be_asked(ask, field):
    with pytest.raises(InvalidInputError) as refused:
        find(**ask)
    assert [fault.field for fault in refused.value.faults] == [field]


def test_everything_is_admitted_when_nothing_is_asked():
    assert len(find()["ranked"]) == len(PACKAGE.formats)


def test_musts_never_admit_more_than_fewer_musts():
    asks = {"rate": {"fps": "50"}, "raw": {}, "bits": {"least": 12}, "full_read": {}}
    for some in itertools.combinations(asks, 2):
        many = {r["format_id"] for r in find(**{k: asks[k] for k in some})["ranked"]}
        for one in some:
            assert many <= {r["format_id"] for r in find(**{one: asks[one]})["ranked"]}


def test_the_whole_catalogue_is_looked_over_on_request_and_marked_apart():
    here = package_of([catalogue()[0]])
    ask = FinderAsk.model_validate({"rate": {"fps": "240", "must": True}})
    shelf = package_of(catalogue())
    # Numbers of rows are the database's: no two bodies share any.
    shelf = replace(shelf, bodies=tuple(replace(body, id=body.id + 100) for body in shelf.bodies))
    alone = find_formats(here, SETTINGS, ask, shelf)
    assert alone["ranked"] == []
    over = find_formats(here, SETTINGS, ask.model_copy(update={"catalogue": True}), shelf)
    assert over["ranked"] and {row["from_catalogue"] for row in over["ranked"]} == {True}
    # What the production has is not offered again.
    assert here.bodies[0].name not in {row["body"] for row in over["ranked"]}
    assert sum(not row["from_catalogue"] for row in over["rejected"]) == len(here.formats)
