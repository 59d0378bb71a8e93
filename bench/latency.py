"""Endpoints against an empty endpoint of the same server, over one kept connection."""

from __future__ import annotations

import contextlib
import http.client
import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from bench.bulk import paired_ratio
from bench.result import Result
from launcher.cluster import Cluster, free_port
from launcher.paths import application_environment

FORMATS = 60


@contextlib.contextmanager
def server() -> Iterator[str]:
    """A server of its own with the demo production."""
    folder = Path(
        tempfile.mkdtemp(prefix="hextan-bench-", dir="/dev/shm" if os.path.isdir("/dev/shm") else None)
    )
    folder.chmod(0o755)
    cluster = Cluster(folder / "postgres", careless=True)
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "hextan.api.serve", "--port", str(port)],
        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        env=application_environment() | {"HEXTAN_DATABASE_URL": cluster.start(), "HEXTAN_DEMO": "1"},
    )  # fmt: skip
    address = f"http://127.0.0.1:{port}"
    try:
        for _ in range(300):
            with contextlib.suppress(OSError):
                urllib.request.urlopen(f"{address}/api/v1/health", timeout=1).close()
                break
            time.sleep(0.1)
        yield address
    finally:
        process.terminate()
        process.wait(10)
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)


def evaluation_request(formats: int) -> bytes:
    """A full request: sensor, timing, crops, delivery, background."""
    one = {
        "id": "f", "sensor": {"photosites": [6432, 3620], "pitch_um": 5.82}, "window": {"photosites": [4352, 2448]},
        "sampling": {"horizontal": 1, "vertical": 1, "method": "full"},
        "timing": {"row_time_us": 6.35, "overhead_us": 420, "max_fps": None},
        "recording": {"raster": [3840, 2160], "map": "scale", "raw": False, "interlaced": False, "fps": 25},
        "crops": [{"name": "stabiliser", "factor": 1.1}],
        "delivery": {"aspect": 2.39, "raster": [3840, 1607], "protect": 0.05},
    }  # fmt: skip
    lens = {"focal_mm": 40, "f_number": 1.8, "t_stop": 2.1, "image_circle_mm": 31.5, "close_focus_m": 0.6}
    return json.dumps({
        "subject": {"distance_m": 3.2}, "background_m": [5.1, None], "lens": lens,
        "formats": [{**one, "id": f"f{i}"} for i in range(formats)],
    }).encode()  # fmt: skip


def against_empty(address: str) -> list[Result]:
    """Latency of the evaluation of 60 formats over that of an empty endpoint."""
    connection = http.client.HTTPConnection(address.removeprefix("http://"))

    def post(path: str, body: bytes) -> bytes:
        connection.request("POST", path, body, {"Content-Type": "application/json"})
        answer = connection.getresponse()
        data = answer.read()
        assert answer.status == 200, data
        return data

    body = evaluation_request(FORMATS)
    assert len(json.loads(post("/api/v1/evaluate", body))["formats"]) == FORMATS
    for _ in range(50):
        post("/api/v1/evaluate", body)
        post("/api/v1/empty", b"{}")
    ratio = paired_ratio(lambda: post("/api/v1/evaluate", body), lambda: post("/api/v1/empty", b"{}"), 300)
    connection.close()
    return [Result(f"/api/v1/evaluate with {FORMATS} formats / empty endpoint", ratio, 3.0, "x")]
