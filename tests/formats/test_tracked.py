"""What a camera says: samples of the standard and of firmware that names things otherwise; and whatever else may come to a port."""

import contextlib
import json
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base import HextanError, InvalidInputError
from hextan.core.record import Heard
from hextan.formats.tracked import HEAD, MARK, datagram_of, fletcher16, heard_of, lines_of, payload_of
from hextan.standins.camera.models import invented
from hextan.standins.camera.simulated import SimulatedCamera

EBB = next(model for model in invented() if model.name == "Ebb 64")


def camera(**setting):
    made = SimulatedCamera("A", EBB, clock=lambda: 1_779_134_000.25)
    made.command({"format": "Scope → 4096", "lens": "Merrow 65", "stop": 2.0, "focus_m": 3.3} | setting)
    return made


def test_a_sample_is_read_as_it_is_said():
    heard = heard_of(camera(fps=24000 / 1001, ei=1600, shutter_deg=172.8, recording=True, slate="12B").data())
    assert (heard.body, heard.lens, heard.raster) == ("Ebb 64", "Merrow 65", (4096, 1714))
    assert heard.read_mm == (round(6432 * 5.82e-3, 3), round(6432 * 1714 / 4096 * 5.82e-3, 3))
    assert heard.fps == pytest.approx(24000 / 1001, rel=1e-12)
    assert (heard.ei, heard.shutter_deg, heard.t_stop, heard.focus_m) == (1600, 172.8, 2.0, 3.3)
    assert (heard.recording, heard.slate, heard.sequence) == (True, "12B", 1)
    assert heard.clock_s == pytest.approx(1_779_134_000.25)


def test_other_names_say_the_same():
    plain, renamed = camera(), camera()
    renamed.command({"misbehave": "renamed"})
    text = renamed.data().decode()
    assert "ExposureIndex" in text
    assert "isoSpeed" not in text
    assert heard_of(renamed.data()).facts == heard_of(plain.data()).facts


def test_the_standards_name_wins_over_another():
    both = {"static": {"camera": {"EI": 400, "isoSpeed": 800}}}
    assert heard_of(json.dumps(both).encode()).ei == 800
    assert heard_of(json.dumps({"static": {"camera": {"isoSpeed": 800, "EI": 400}}}).encode()).ei == 800


@pytest.mark.parametrize(
    ("said", "field"),
    [
        ({"static": {"camera": {"isoSpeed": -1}}}, "isoSpeed"),
        ({"lens": {"focusDistance": -3.0}}, "focusDistance"),
        ({"lens": {"tStop": "wide open"}}, "tStop"),
        ({"static": {"camera": {"captureFrameRate": {"num": 25, "denom": 0}}}}, "denom"),
        ({"static": {"camera": {"shutterAngle": 720}}}, "shutterAngle"),
        ({"static": {"camera": {"activeSensorResolution": {"width": 0, "height": 3}}}}, "width"),
    ],
)
def test_figures_that_cannot_be_are_told_at_their_place(said, field):
    with pytest.raises(InvalidInputError) as refused:
        heard_of(json.dumps(said).encode())
    assert field in refused.value.faults[0].field


def test_a_datagram_has_a_head_that_holds():
    data = camera().data()
    assert payload_of(datagram_of(data, 7)) == data
    assert payload_of(data) == data
    whole = datagram_of(data)
    for bad, word in (
        (whole[:10], "ends within its head"),
        (MARK + bytes([0, 2]) + whole[6:], "JSON"),
        (HEAD.pack(MARK, 0, 1, 0, 900, len(data), 0) + data, "part of a sample"),
        (whole + b"x", "bytes follow"),
    ):
        with pytest.raises(InvalidInputError, match=word):
            payload_of(bad)
    # Fletcher's sum of known words (from memory, the examples of the method's usual description).
    assert [fletcher16(word) for word in (b"abcde", b"abcdef", b"abcdefgh")] == [0xC8F0, 0x2057, 0x0627]


@given(st.binary(max_size=400))
def test_noise_is_refused_and_nothing_else(noise):
    with contextlib.suppress(HextanError):
        assert isinstance(heard_of(payload_of(noise)), Heard)


@given(st.integers(0, 2**32), st.integers(1, 6))
def test_a_sample_with_holes_is_heard_or_refused(seed, times):
    rng = random.Random(seed)
    data = bytearray(camera().data())
    for _ in range(times):
        at = rng.randrange(len(data))
        data[at] = rng.randrange(256)
    try:
        heard_of(bytes(data))
    except HextanError as error:
        assert error.message


def test_what_is_nested_without_end_or_too_long_is_refused():
    for bad in (
        b'{"a":' * 5000 + b"1" + b"}" * 5000,
        b"[" * 70_000,
        b'{"a": "' + b"x" * 70_000 + b'"}',
        b"5",
        b'"text"',
        b"\xff\xfe",
    ):
        with pytest.raises(InvalidInputError):
            heard_of(bad)


def test_lines_are_cut_and_one_without_end_is_dropped():
    parts = [b'{"a":1}\n{"b"', b":2}\n\n", b"x" * 60, b"y" * 60, b'z\n{"c":3}\n']
    assert list(lines_of(iter(parts), most=100)) == [b'{"a":1}', b'{"b":2}', b"", b'{"c":3}']
