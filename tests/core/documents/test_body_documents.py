"""Bodies as documents: what is refused and how it is said, sheets, and changes of the catalogue."""

import copy

import pytest

from hextan.core.base import InvalidInputError, NotFoundError
from hextan.core.documents import catalogue as shelf
from hextan.core.documents.body import body_of, parse_body
from hextan.core.documents.body_figures import body_sheet
from hextan.core.equipment import FormatInPackage, LensOnBody
from tests.core.bodies import a_body, a_format, a_mode, catalogue

REFUSALS = {
    "window wider than the sensor": (
        a_body([a_mode(window=[6010, 3375])]),
        "modes[0].window[0]: reaches 5 photosites beyond the sensor across: the sensor has 6000, the window 6010 (given: 6010).",
    ),
    "window in millimetres too high": (
        a_body([a_mode(window=None, window_mm=[36.0, 24.6])]),
        "modes[0].window_mm[1]: reaches 50 photosites beyond the sensor up and down: the sensor has 4000, the window 4100 "
        "(given: 4100).",
    ),
    "window moved outside": (
        a_body([a_mode(offset=[0, -400])]),
        "modes[0].offset[1]: reaches 88 photosites beyond the sensor up and down: the sensor has 4000, the window 3375, "
        "moved by -400 (given: -400).",
    ),
    "two windows": (
        a_body([a_mode(window_mm=[36.0, 20.0])]),
        "modes[0]: give the window in photosites or in millimetres, one of them",
    ),
    "binned by one": (
        a_body([a_mode(methods=["binned", "full"])]),
        "modes[0]: across: full reads every photosite (1); binned and skipped need 2 or more",
    ),
    "raster larger than the window": (
        a_body([a_mode(formats=[a_format(map="crop", raster=[6144, 3240])])]),
        "modes[0].formats[0].raster: map crop takes photosites for pixels, and this window has 6000 x 3375 samples "
        "(given: [6144, 3240]).",
    ),
    "bit rate that cannot be written": (
        a_body([a_mode(formats=[a_format(megabits=1000.0)])], write_mb_s=100.0),
        "modes[0].formats[0].megabits: is 125 MB/s, and the body writes 100 MB/s at most (given: 1000.0).",
    ),
    "name taken": (
        a_body([a_mode(), a_mode(key="other")]),
        "modes[1].name: this name is already taken here (given: 'Full').",
    ),
    "no rate": (
        a_body([a_mode(formats=[a_format(rates=["fast"])])]),
        "modes[0].formats[0].rates[0]: write rates like 23.976, 25, 24000/1001 or 1-60 (given: 'fast').",
    ),
    "no day": (
        a_body(origin={"date": "2026-02-30"}),
        "origin.date: ",
    ),
    "crop in a mode that is not there": (
        a_body([a_mode()], crops=[{"name": "Steady", "rules": [{"mode": "gone", "factor": 1.1}]}]),
        "a crop or a claim names a scan mode that is not in this body",
    ),
    "raw with colour samples": (
        a_body([a_mode(formats=[a_format(raw=True)])]),
        "modes[0].formats[0]: a raw recording carries raw samples: set samples to raw",
    ),
    "unknown key": (a_body(sensor=1), "sensor: is not a key of this format (given: 1)."),
    "negative time": (
        a_body([a_mode(row_time_us=-6.0)]),
        "modes[0].row_time_us: must be greater than 0 (given: -6.0).",
    ),
    "text for a number": (a_body(pitch_um="6,0"), "pitch_um: must be a number (given: '6,0')."),
}


@pytest.mark.parametrize("name", REFUSALS)
def test_refusals_name_field_value_and_rule(name):
    document, message = REFUSALS[name]
    with pytest.raises(InvalidInputError) as refused:
        parse_body(document)
    assert message in refused.value.message


def test_millimetres_become_whole_photosites():
    document = parse_body(a_body([a_mode(window=None, window_mm=[24.89, 14.0])]))
    # 24.89 / 0.006 = 4148.33; 14 / 0.006 = 2333.33
    assert document.modes[0].photosites(document.pitch_um) == (4148, 2333)


@pytest.mark.parametrize("index", range(4))
def test_documents_survive_writing_and_reading(index):
    document = catalogue()[index]
    assert parse_body(document.model_dump(mode="json")) == document


def test_every_figure_has_an_origin():
    own = {"row_time_us": {"kind": "measured", "source": "chart", "date": "2026-05-18", "firmware": "2.0"}}
    document = parse_body(a_body([a_mode(origins=own)], origin={"kind": "claimed", "source": "data sheet"}))
    mode = document.modes[0]
    assert mode.origins["row_time_us"].kind == "measured"
    # A figure without an origin of its own has the body's.
    assert "overhead_us" not in mode.origins
    assert document.origin.source == "data sheet"


def test_in_camera_crops_know_where_they_can_act():
    crops = [
        {"key": "s", "name": "Steady", "rules": [{"mode": "Full", "aspect": [16, 9], "factor": 1.37}, {"mode": "Full", "factor": 1.43}]},
        {"key": "c", "name": "Small circle", "lens": "short_circle", "rules": [{"mode": "Full", "factor": 1.5}]},
        {"key": "l", "name": "Straighten", "lens": "spherical", "rules": [{"mode": "Full", "aspect": [17, 9], "factor": 1.02}]},
    ]  # fmt: skip
    formats = [
        a_format("UHD"),
        a_format("4096", raster=[4096, 2160]),
        a_format("raw", raw=True, samples="raw", raster=[6000, 3375]),
    ]
    body = body_of(
        parse_body(a_body([a_mode(formats=formats), a_mode("Small", window=[3000, 1688])], crops=crops))
    )
    uhd, wide, raw = (FormatInPackage(body, body.modes[0], f) for f in body.modes[0].formats)
    steady, small, straight = body.crops
    plain = LensOnBody()
    assert steady.factor(body.modes[0].id, uhd.recording.raster) == 1.37
    # 4096:2160 is called 17:9 though it is 1.896.
    assert steady.factor(body.modes[0].id, wide.recording.raster) == 1.43
    assert straight.factor(body.modes[0].id, wide.recording.raster) == 1.02
    assert uhd.crop_reason(straight, plain) == "not for this raster's aspect in Full"
    assert wide.crop_reason(straight, LensOnBody(squeeze=2.0)) == "not with a squeezed lens"
    assert raw.crop_reason(steady, plain) == "raw recordings are unaltered sensor data"
    assert (
        uhd.crop_reason(small, LensOnBody(covers=True))
        == "not needed: the lens's circle covers this recording"
    )
    assert uhd.crop_reason(small, LensOnBody(covers=False)) is None
    other = FormatInPackage(body, body.modes[1], uhd.recording)
    assert other.crop_reason(steady, plain) == "not in the scan mode Small"
    acting = uhd.crops_that_apply(frozenset(c.id for c in body.crops), LensOnBody(covers=False))
    assert [(crop.name, factor) for crop, factor in acting] == [("Steady", 1.37), ("Small circle", 1.5)]


def test_sheet_by_hand():
    formats = [
        a_format("UHD", rates=["25", "60"], megabits=200.0, megabits_at_fps=25.0),
        a_format("4096", raster=[4096, 2160], compression=None),
    ]
    sheet = body_sheet(parse_body(a_body([a_mode(formats=formats)])), [])
    assert sheet["sensor"]["width_mm"] == pytest.approx(36.0)
    mode, (uhd, wide) = sheet["modes"][0], sheet["formats"]
    assert mode["rect"] == pytest.approx({"x": -18.0, "y": -10.125, "width": 36.0, "height": 20.25})
    assert mode["crop_by_width"]["Super 35"] == pytest.approx(24.89 / 36)
    assert uhd["possible_fps"] == pytest.approx(1e6 / (3375 * 6.0 + 400))
    assert uhd["limited_by"] == "readout"
    assert uhd["mb_s"] == pytest.approx(25.0)
    # 60 is listed and not possible, so that 25 is what can be chosen.
    assert uhd["rate_text"] == "25 (readout 48.4)"
    assert uhd["notes"] == ["60 fps is listed, but readout allows 48.4: check rows, times and limits."]
    assert wide["height_mm"] == pytest.approx(36 * 2160 / 4096)
    assert wide["oversampling"][0] == pytest.approx(6000 / 4096)
    assert wide["notes"] == ["No data rate: enter compression or bit rate."]


def test_sheet_notes_raw_that_is_scaled():
    raw = a_format("raw", raw=True, samples="raw", raster=[3000, 1688])
    notes = body_sheet(parse_body(a_body([a_mode(formats=[raw])])), [])["formats"][0]["notes"]
    assert notes == ["Raw, but not photosite for pixel: raw data are not scaled. Check raster and window."]


def moved_on(document, change):
    """A document after somebody worked on it."""
    plain = copy.deepcopy(document.model_dump(mode="json"))
    change(plain)
    return parse_body(plain)


@pytest.fixture
def taken():
    crops = [{"key": "s", "name": "Steady", "rules": [{"mode": "Full", "factor": 1.1}]}]
    claims = {"crops": [{"key": "c", "mode": "Full", "factor": 1.4}]}
    modes = [
        a_mode(formats=[a_format("UHD"), a_format("HD", raster=[1920, 1080])]),
        a_mode("Small", window=[3000, 1688]),
    ]
    return parse_body(a_body(modes, crops=crops, claims=claims))


def test_changes_of_the_catalogue_are_taken_one_by_one(taken):
    def newer(plain):
        plain["firmware"] = "2"
        plain["modes"][0]["row_time_us"] = 5.5
        plain["modes"][0]["formats"].append(a_format("4K", raster=[4096, 2160]))
        del plain["modes"][0]["formats"][1]
        plain["crops"][0]["rules"][0]["factor"] = 1.2
        plain["modes"].reverse()

    def mine(plain):
        plain["modes"][0]["row_time_us"] = 5.8
        plain["name"] = "B camera"

    now, here = moved_on(taken, newer), moved_on(taken, mine)
    found = {change.path: change for change in shelf.changes(taken, now, here)}
    assert list(found) == [
        "firmware", "modes/Full/row_time_us", "modes/Full/formats/4K", "modes/Full/formats/HD", "crops/s/rules",
    ]  # fmt: skip
    row_time = found["modes/Full/row_time_us"]
    assert (row_time.taken, row_time.catalogue, row_time.here, row_time.touched) == (6.0, 5.5, 5.8, True)
    assert not found["firmware"].touched
    plain = here.model_dump(mode="json")
    for change in found.values():
        plain = shelf.apply(plain, change)
    result = parse_body(plain)
    assert result.modes[0].row_time_us == 5.5
    assert [f.name for f in result.modes[0].formats] == ["UHD", "4K"]
    assert result.name == "B camera"
    assert shelf.changes(now, now, result) == []


def test_a_mode_that_goes_takes_its_rules_and_claims_along(taken):
    now = moved_on(taken, lambda plain: (plain["modes"].pop(0), plain.update(crops=[], claims={})))
    change = next(c for c in shelf.changes(taken, now, taken) if c.path == "modes/Full")
    assert (change.kind, change.where) == ("gone", "Full")
    result = parse_body(shelf.apply(taken.model_dump(mode="json"), change))
    assert result.crops[0].rules == result.claims.crops == []


def test_what_both_changed_alike_is_no_difference(taken):
    now = moved_on(taken, lambda plain: plain.update(firmware="2"))
    assert shelf.changes(taken, now, now) == []


def test_a_change_below_a_row_that_is_gone_cannot_be_taken(taken):
    now = moved_on(taken, lambda plain: plain["modes"][0].update(row_time_us=5.0))
    change = shelf.changes(taken, now, taken)[0]
    without = moved_on(taken, lambda plain: (plain["modes"].pop(0), plain.update(crops=[], claims={})))
    with pytest.raises(NotFoundError, match="Full is not here any more"):
        shelf.apply(without.model_dump(mode="json"), change)
