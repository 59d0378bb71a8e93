"""Data rates, cards, and what is left for re-framing."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base.errors import InvalidInputError
from hextan.core.optics import media


def test_data_rate_by_hand():
    """UHD, 4:2:2, 10 bit: 3840 x 2160 x 2 x 10 / 8 = 20.736 MB a frame; at 25 fps 518.4 MB/s."""
    frame = media.frame_bytes(3840, 2160, media.SAMPLES["4:2:2"], 10)
    assert float(frame) == 20_736_000
    assert float(media.bytes_per_second(frame, 25.0)) == pytest.approx(518.4e6)
    assert float(media.card_minutes(512, "GB", 518.4e6)) == pytest.approx(512e9 / 518.4e6 / 60)
    assert media.BYTES["GiB"] / media.BYTES["GB"] == pytest.approx(1.0737, abs=5e-5)


def test_highest_rate_by_data_is_where_the_data_reach_the_limit():
    for megabits, at in ((np.nan, np.nan), (240.0, 25.0)):
        fps = media.highest_rate_by_data(4e6, 300e6, megabits, at)
        assert float(media.bytes_per_second(4e6, fps, megabits, at)) == pytest.approx(300e6)
    assert float(media.highest_rate_by_data(4e6, 20e6, 100.0, np.nan)) == np.inf
    assert float(media.highest_rate_by_data(4e6, 10e6, 100.0, np.nan)) == 0.0


def test_a_buffer_fills_as_fast_as_the_card_falls_behind():
    seconds = media.buffer_seconds(16e9, 1134e6, 280e6)
    assert float(seconds) * (1134e6 - 280e6) == pytest.approx(16e9)


@given(st.floats(1.0, 3.0), st.floats(1.0, 3.0), st.sampled_from([(16, 9), (239, 100), (9, 16), (1, 1)]))
def test_levelling_leaves_every_delivered_pixel_a_recorded_one(spare_w, spare_h, shape):
    """The four corners of the delivered rectangle, turned, stay inside; a hair more and one leaves (numpy rotation)."""
    w, h = shape
    angle = float(media.levelling_degrees(w * spare_w, h * spare_h, w, h))

    def reach(degrees):
        t = np.radians(degrees)
        turn = np.array([[np.cos(t), -np.sin(t)], [np.sin(t), np.cos(t)]])
        corners = np.abs(turn @ np.array([[w, w], [h, -h]]) / 2).max(axis=1)
        return corners / (np.array([w * spare_w, h * spare_h]) / 2)

    for t in np.linspace(0, angle, 20):
        assert (reach(t) <= 1 + 1e-9).all()
    if angle < 45:
        assert (reach(angle + 0.01) > 1).any()


def test_levelling_without_room_is_no_number():
    assert np.isnan(media.levelling_degrees(3840, 2160, 4096, 2160))


@pytest.mark.parametrize("shape", [(), (6,), (2, 3)])
def test_media_formulas_broadcast(shape):
    one = np.full(shape, 3840.0)
    assert media.frame_bytes(one, 2160, 2.0, 10).shape == shape
    assert media.levelling_degrees(one, 2160.0, 1920.0, 1080.0).shape == shape
    assert media.buffer_seconds(1e9, one, 100.0).shape == shape


@pytest.mark.parametrize("bad", [0, -1, np.nan, np.inf])
def test_media_formulas_refuse_nonsense(bad):
    with pytest.raises(InvalidInputError):
        media.frame_bytes(bad, 2160, 2.0, 10)
    with pytest.raises(InvalidInputError):
        media.levelling_degrees(bad, 2160, 1920, 1080)
