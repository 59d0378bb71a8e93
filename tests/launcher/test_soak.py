"""A short soak: everything that was acknowledged is there, only those that were killed were replaced, nothing grew."""

import os
import subprocess
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]


def test_a_short_soak_loses_nothing():
    done = subprocess.run(
        [ROOT / "hextan", "soak", "--seconds", "25", "--clients", "12", "--kills", "1", "--seed", "3"],
        capture_output=True, text=True, timeout=400, check=False, env={**os.environ},
    )  # fmt: skip
    assert done.returncode == 0, done.stdout + done.stderr
    assert "Nothing was lost, ended wrongly, or grew." in done.stdout
    assert "1 kills, 1 replaced" in done.stdout
