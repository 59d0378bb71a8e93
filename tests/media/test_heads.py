"""Heads of clips and stills: what is read, from the first and last bytes alone; and what hostile files come to."""

import json
import os
import random
import resource
import subprocess
import sys

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.record import ClipFacts
from hextan.media import heads
from hextan.media.heads import merged, of_bytes, of_path
from hextan.standins.camera.simulated import SimulatedCamera
from tests.formats.test_tracked import EBB
from tests.media.clips import clip, still, still_bytes


def test_a_clip_is_read_with_what_its_maker_wrote(tmp_path):
    tags = {"timecode": "21:26:30:00", "LensModel": "Merrow 65", "com.maker.camera.FNumber": "1.8", "TStop": "T2.0",
            "iso": "800", "ShutterAngle": "180.0", "creation_time": "2026-05-18T20:26:30Z"}  # fmt: skip
    (found,) = of_path(clip(tmp_path / "12B_T2.mov", tags=tags))
    assert (found.raster, found.fps, found.bits, found.codec) == ([4096, 1714], 25.0, 8, "mjpeg intra 4:4:4")
    assert (found.lens, found.t_stop, found.f_number, found.ei, found.shutter_deg) == (
        "Merrow 65",
        2.0,
        1.8,
        800,
        180.0,
    )
    assert (found.timecode, found.at) == ("21:26:30:00", "2026-05-18T20:26:30Z")
    assert found.seconds == pytest.approx(0.08)
    assert found.tags["LensModel"] == "Merrow 65"


@pytest.mark.parametrize(
    ("name", "codec", "pix", "fps", "told"),
    [
        ("a.mxf", "mpeg2video", "yuv422p", 25, "mpeg2video 4:2:2"),
        ("a.mp4", "libx264", "yuv420p", 24000 / 1001, "h264 4:2:0"),
        ("a.mkv", "ffv1", "yuv422p10le", 50, "ffv1 4:2:2"),
        ("a.avi", "mjpeg", "yuvj422p", 24, "mjpeg intra 4:2:2"),
    ],
)
def test_containers_and_codecs_are_told(tmp_path, name, codec, pix, fps, told):
    from fractions import Fraction

    rate = Fraction(24000, 1001) if isinstance(fps, float) else fps
    (found,) = of_path(clip(tmp_path / name, codec, (1920, 1080), rate, pix))
    assert found.raster == [1920, 1080]
    assert found.fps == pytest.approx(fps, rel=1e-6)
    assert found.codec == told
    assert found.bits == (10 if "10" in pix else 8)


def test_a_squeeze_that_the_file_states_is_told(tmp_path):
    (found,) = of_path(clip(tmp_path / "s.mp4", "libx264", (2048, 1716), 25, "yuv420p", squeeze=2))
    assert found.pixel_aspect == 2.0


def test_head_and_tail_are_enough(tmp_path, monkeypatch):
    path = clip(tmp_path / "long.mov", size=(1920, 1080), frames=40)
    whole = of_path(path)
    monkeypatch.setattr(heads, "HEAD", 4096)
    monkeypatch.setattr(heads, "TAIL", 8192)
    assert path.stat().st_size > 50_000
    assert of_path(path) == whole


def test_a_still_tells_its_lens_and_how_far_its_photosites_are_apart(tmp_path):
    exif = {0x920A: 65.0, 0x829D: 1.8, 0x8827: 800, 0x829A: 0.02, 0xA434: "Merrow 65", 0x9003: "2026:05:18 21:26:30",
            0xA20E: 10_000 / 5.82, 0xA210: 3}  # fmt: skip
    (found,) = of_path(still(tmp_path / "12B_T2.jpg", exif=exif, top={0x0110: "Ebb 64"}), offset_min=60)
    assert (found.still, found.body, found.lens, found.focal_mm, found.f_number, found.ei) == (
        True,
        "Ebb 64",
        "Merrow 65",
        65.0,
        1.8,
        800,
    )
    assert found.at == "2026-05-18T20:26:30Z"
    assert found.pitch_um == pytest.approx(5.82, rel=1e-4)
    assert found.read_mm == pytest.approx([640 * 5.82e-3, 270 * 5.82e-3], rel=1e-4)


def test_tables_and_samples_beside_a_clip_fill_in_what_its_head_does_not_say(tmp_path):
    camera = SimulatedCamera("A", EBB, clock=lambda: 1_779_134_790.0)
    camera.command({"format": "Scope → 4096", "lens": "Merrow 65", "stop": 2.0})
    (tmp_path / "12B_T2.jsonl").write_bytes(camera.data() + b"\n" + camera.data() + b"\n")
    (tmp_path / "report.csv").write_text(
        "Clip;ISO;Lens Model;Duration\n12B_T2.mov;1600;Merrow 40;12,5\n12B_T3.mov;800;;3\n"
    )
    clip(tmp_path / "12B_T2.mov")
    found = {f.name: f for f in merged(f for p in sorted(tmp_path.iterdir()) for f in of_path(p))}
    assert set(found) == {"12B_T2.mov", "12B_T3.mov"}
    two = found["12B_T2.mov"]
    assert (two.raster, two.body, two.read_mm) == (
        [4096, 1714],
        "Ebb 64",
        pytest.approx([37.434, 15.665], abs=1e-3),
    )
    assert two.seconds == pytest.approx(0.08)
    assert found["12B_T3.mov"].ei == 800
    with pytest.raises(InvalidInputError, match="names no clips"):
        of_bytes("t.csv", b"a,b\n1,2\n3,4\n", b"", 16)


def test_an_odd_figure_costs_itself_and_not_the_clip():
    rows = b'[{"name": "x.mov", "fps": -3, "iso": "very", "focal length": "1e9", "lens": "Merrow 65"}]'
    (found,) = of_bytes("x.json", rows, b"", len(rows))
    assert (found.lens, found.fps, found.ei, found.focal_mm) == ("Merrow 65", None, None, None)


@pytest.mark.parametrize(
    ("name", "data"),
    [
        ("playlist.mov", b"#EXTM3U\n#EXTINF:10,\n/etc/passwd\n"),
        ("list.mp4", b"ffconcat version 1.0\nfile /etc/passwd\n"),
        ("empty.mov", b""),
        ("noise.mxf", bytes.fromhex("060e2b34") + random.Random(1).randbytes(5000)),
        ("boxes.mov", b"\0\0\0\x08ftyp" * 200),
        ("huge.mov", b"\xff\xff\xff\xffmoov" + b"\xff" * 4000),
        ("page.jpg", b"<html>"),
        ("bomb.png", b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR\x7f\xff\xff\xff\x7f\xff\xff\xff\x08\2\0\0\0"),
        ("deep.json", b"[" * 50_000),
        ("other.exe", b"MZ"),
    ],
)
def test_hostile_files_are_refused_with_a_reason(name, data):
    with pytest.raises(InvalidInputError) as refused:
        of_bytes(name, data, b"", len(data))
    assert refused.value.message


def test_damaged_files_end_the_child_and_nothing_else(tmp_path):
    whole = clip(tmp_path / "a.mov", size=(320, 180)).read_bytes()
    photo = still_bytes()
    rng = random.Random(7)
    for i in range(12):
        for name, data in (("a.mov", whole), ("a.jpg", photo)):
            broken = bytearray(data)
            for _ in range(1 + i):
                broken[rng.randrange(len(broken))] = rng.randrange(256)
            try:
                assert all(isinstance(f, ClipFacts) for f in of_bytes(name, bytes(broken), b"", len(broken)))
            except InvalidInputError as refused:
                assert name in refused.message


def test_the_child_has_its_limits(tmp_path):
    """It says what it may itself: as much memory and time as is stated, no file to write, few to open."""
    code = "import resource; from hextan.media import child; child.limit(); print([resource.getrlimit(r)[0] for r in (resource.RLIMIT_AS, resource.RLIMIT_CPU, resource.RLIMIT_FSIZE, resource.RLIMIT_NOFILE)])"
    env = {**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)}
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, env=env)
    assert json.loads(done.stdout) == [1 << 30, 5, 0, 64]
    assert resource.getrlimit(resource.RLIMIT_FSIZE)[0] != 0


def test_more_bytes_than_the_file_has_are_refused():
    with pytest.raises(InvalidInputError, match="is smaller than what was sent"):
        of_bytes("a.mov", b"\0\0\0\x08ftyp", b"", 3)
