"""The examples of docs/api.md run as they stand, against a server with the demo."""

import json
import os
import re
import shutil
import subprocess
import sys
import urllib.request
from pathlib import Path

import pytest

TEXT = (Path(__file__).resolve().parents[2] / "docs" / "api.md").read_text(encoding="utf-8")


def examples(language):
    found = re.findall(rf"```{language}\n(.*?)```", TEXT, re.DOTALL)
    assert found
    return found


def run(command, base_url, folder):
    told = subprocess.run(command, env={**os.environ, "HEXTAN": base_url}, cwd=folder, capture_output=True, text=True, check=False)  # fmt: skip
    assert told.returncode == 0, told.stderr
    return told.stdout


def test_the_example_in_python_does_the_main_job(base_url, tmp_path):
    (example,) = examples("python")
    told = run([sys.executable, "-c", example], base_url, tmp_path).splitlines()
    assert re.fullmatch(r"1 .+ \d+\.\d mm", told[0])
    assert " is out: " in told[-2]
    # 25 mm behind the chosen format: as the page shows it.
    assert re.fullmatch(r"\d+\.\d mm against Super 35", told[-1])


@pytest.mark.skipif(shutil.which("curl") is None, reason="no curl on this machine")
def test_the_examples_with_curl(base_url, tmp_path):
    (example,) = examples("sh")
    production = json.load(urllib.request.urlopen(f"{base_url}/api/v1/productions"))["here"][0]["id"]
    script = "set -e\n" + example.replace("production=1\n", f"production={production}\n")
    told = run(["sh", "-c", script], base_url, tmp_path)
    assert '"name":"Low Water"' in told
    assert '"effective_focal_mm":' in told
    assert json.loads((tmp_path / "body.json").read_text())["schema"] == "hextan.body"
    assert '"bodies":[{"id":' in told


def test_every_operation_is_listed(base_url):
    document = json.load(urllib.request.urlopen(f"{base_url}/api/v1/openapi.json"))
    served = {o["operationId"] for operations in document["paths"].values() for o in operations.values()}
    table = TEXT[TEXT.index("## Addresses") : TEXT.index("## In Python")]
    assert served <= set(re.findall(r"`([a-z_]+)`", table.replace("`.../", "`")))
    assert all(schema["description"] for s in document["components"]["schemas"].values() for schema in s.get("properties", {}).values())  # fmt: skip
