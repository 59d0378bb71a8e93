"""The private PostgreSQL: loopback only, never root, and nothing committed is lost by kill -9."""

import contextlib
import os
import random
import re
import shutil
import signal
import socket
import stat
import subprocess
import sys
import time
from pathlib import Path
from types import SimpleNamespace

import pytest
from sqlalchemy import create_engine, text

from launcher import debian, running
from launcher.cluster import Cluster
from launcher.paths import MOST_LOG_BYTES, LauncherError, trim_log
from tests.conftest import scratch_folder


@pytest.fixture
def folder():
    folder = scratch_folder()
    yield folder
    shutil.rmtree(folder, ignore_errors=True)


def run_sql(url, *statements):
    engine = create_engine(url.replace("postgresql:", "postgresql+psycopg:"))
    try:
        with engine.begin() as connection:
            result = [connection.execute(text(s)) for s in statements][-1]
            return result.fetchall() if result.returns_rows else []
    finally:
        engine.dispose()


def test_data_survive_kill_9_of_the_server(folder):
    cluster = Cluster(folder / "postgres")
    url = cluster.start()
    try:
        run_sql(url, "create table kept (x int)", "insert into kept values (42)")
        os.kill(cluster.process.pid, signal.SIGKILL)
        cluster.process.wait(10)
        assert cluster.died()
        url = cluster.start(cluster.port)
        assert run_sql(url, "select x from kept") == [(42,)]
    finally:
        cluster.stop()
    assert not cluster.died()


def test_an_orphan_of_a_killed_launcher_is_ended_and_its_data_kept(folder):
    orphan = Cluster(folder / "postgres", careless=True)
    run_sql(orphan.start(), "create table kept (x int)", "insert into kept values (7)")
    heir = Cluster(folder / "postgres", careless=True)
    try:
        assert run_sql(heir.start(), "select x from kept") == [(7,)]
        assert orphan.process.wait(10) == 0
    finally:
        heir.stop()


def test_password_is_needed_and_private(folder):
    cluster = Cluster(folder / "postgres", careless=True)
    url = cluster.start()
    try:
        password = folder / "postgres" / "password"
        assert stat.S_IMODE(password.stat().st_mode) == 0o600
        assert stat.S_IMODE((folder / "postgres").stat().st_mode) == 0o700
        guess = url.replace(password.read_text().strip(), "guess")
        with pytest.raises(Exception, match="password authentication failed"):
            run_sql(guess, "select 1")
        assert run_sql(url, "show listen_addresses") == [("127.0.0.1",)]
        owner = Path(f"/proc/{cluster.process.pid}").stat().st_uid
        assert owner == (os.geteuid() or cluster.owner.pw_uid)
        assert owner != 0
    finally:
        cluster.stop()


@pytest.mark.skipif(os.geteuid() != 0, reason="only root drops to another user")
def test_a_folder_that_the_database_user_cannot_enter_is_replaced(folder, capsys):
    closed = folder / "closed"
    closed.mkdir(mode=0o700)
    cluster = Cluster(closed / "postgres", careless=True)
    try:
        assert cluster.folder.is_relative_to("/var/lib/hextan")
        assert f"cannot enter {closed}: its data lie in {cluster.folder} instead." in capsys.readouterr().out
        assert run_sql(cluster.start(), "select 1") == [(1,)]
        assert Cluster(closed / "postgres").folder == cluster.folder
    finally:
        cluster.stop()
        shutil.rmtree(cluster.folder)


def test_what_is_missing_is_said_with_the_command_for_root(monkeypatch):
    monkeypatch.setattr(os, "geteuid", lambda: 1000)
    missing = (lambda: None, "some-package"), (lambda: None, "another")
    with pytest.raises(
        LauncherError, match="apt-get install -y --no-install-recommends some-package another"
    ):
        debian.ensure(*missing)
    debian.ensure((lambda: "there", "some-package"))


ROOT = Path(__file__).resolve().parents[2]


@pytest.fixture
def home():
    """A HEXTAN_HOME of its own, with the virtual environment of the one that runs the tests."""
    folder = scratch_folder()
    (folder / "venv").symlink_to(Path(os.environ.get("HEXTAN_HOME") or ROOT / ".hextan") / "venv")
    yield folder
    shutil.rmtree(folder, ignore_errors=True)


def own_port():
    """A port that no other test's Hextan takes while this one starts its server again: not the usual one, not a passing one."""
    while True:
        port = random.SystemRandom().randrange(20_000, 30_000)
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port


def launch(home, *arguments, **how):
    environment = {**os.environ, "HEXTAN_HOME": str(home), "HEXTAN_PORT": str(own_port())}
    environment.pop("HEXTAN_DATABASE_URL", None)
    return subprocess.Popen([ROOT / "hextan", *arguments], env=environment, stdout=subprocess.PIPE,
                            stderr=subprocess.STDOUT, text=True, **how)  # fmt: skip


def address_of(process):
    for line in process.stdout:
        if line.startswith("Hextan is at "):
            return line.split()[-1]
    raise AssertionError("no address")


def fetch(address, path):
    import json
    import urllib.request

    with urllib.request.urlopen(f"{address}{path}", timeout=5) as answer:
        return json.loads(answer.read())


def test_demo_starts_says_so_when_started_twice_and_stops(home):
    first = launch(home, "demo")
    address = address_of(first)
    assert [p["name"] for p in fetch(address, "api/productions")["here"]] == ["Low Water"]
    second = launch(home, "demo")
    assert second.communicate(timeout=30)[0].startswith(
        f"Hextan already runs at {address} (process {first.pid})."
    )
    assert second.returncode == 0
    stop = launch(home, "stop")
    assert stop.communicate(timeout=40)[0] == "Stopped.\n"
    assert first.wait(10) == 0
    first.stdout.close()


@pytest.mark.parametrize("kind", [signal.SIGHUP, signal.SIGKILL])
def test_a_second_start_finds_the_data_and_is_quick(home, kind):
    first = launch(home, "demo")
    address = address_of(first)
    fetch(address, "api/health")
    first.send_signal(kind)
    first.wait(20)
    first.stdout.close()
    if kind == signal.SIGKILL:
        # The web server ends with its launcher; the database is ended by the next start.
        time.sleep(2)
        with pytest.raises(OSError):
            fetch(address, "api/health")
    second = launch(home, "demo")
    try:
        assert len(fetch(address_of(second), "api/productions")["here"]) == 1
    finally:
        second.send_signal(signal.SIGINT)
        assert second.wait(20) == 0
        second.stdout.close()


def test_a_port_that_is_taken_at_the_same_moment(home):
    """Another Hextan answers on the port before ours has bound it: ours takes another one, and says where it is."""
    other = scratch_folder()
    (other / "venv").symlink_to((home / "venv").resolve())
    first = launch(home, "demo")
    taken = address_of(first)
    # What the second launcher does when the port was still free a moment ago: it is told so by a patched choice.
    patched = "import launcher.running as r, launcher.__main__ as m; r._choose_port = lambda: {port}; m.sys.exit(m.main())"
    port = int(taken.rstrip("/").rsplit(":", 1)[1])
    environment = {**os.environ, "HEXTAN_HOME": str(other), "PYTHONPATH": str(ROOT)}
    for name in ("HEXTAN_DATABASE_URL", "HEXTAN_PORT"):
        environment.pop(name, None)
    second = subprocess.Popen([sys.executable, "-c", patched.format(port=port), "demo"], env=environment, text=True,
                              stdout=subprocess.PIPE, stderr=subprocess.STDOUT, cwd=ROOT)  # fmt: skip
    try:
        assert address_of(second) != taken
        second.send_signal(signal.SIGTERM)
        assert second.wait(20) == 0
    finally:
        first.send_signal(signal.SIGTERM)
        assert first.wait(20) == 0
        first.stdout.close()
        second.stdout.close()
        shutil.rmtree(other, ignore_errors=True)


def web_of(process):
    """The web server's process: the launcher's child that serves."""
    children = Path(f"/proc/{process.pid}/task/{process.pid}/children").read_text().split()
    return next(int(c) for c in children if b"hextan.api.serve" in Path(f"/proc/{c}/cmdline").read_bytes())


def another_answers(address, before, patience_s=60):
    """Wait until another process answers at the same address."""
    until = time.monotonic() + patience_s
    while time.monotonic() < until:
        with contextlib.suppress(OSError):
            told = fetch(address, "api/health")["process"]
            if told != before:
                return told
        time.sleep(0.1)
    raise AssertionError("nobody took its place")


def test_a_dead_and_a_hung_web_server_are_replaced_and_the_log_goes_on(home):
    process = launch(home, "demo")
    address = address_of(process)
    try:
        first = web_of(process)
        os.kill(first, signal.SIGKILL)
        second = another_answers(address, first)
        # Long enough for the launcher to have heard of it, too.
        time.sleep(1)
        os.kill(second, signal.SIGSTOP)
        stopped = time.monotonic()
        until = stopped + 10
        while Path(f"/proc/{second}").exists() and time.monotonic() < until:
            time.sleep(0.05)
        # Noticed, and ended, within ten seconds.
        assert not Path(f"/proc/{second}").exists()
        another_answers(address, second)
        assert fetch(address, "api/ready")["status"] == "ok"
        assert len(fetch(address, "api/productions")["here"]) == 1
    finally:
        process.send_signal(signal.SIGTERM)
        told = process.communicate(timeout=30)[0]
    assert "The web server ended by itself (code -9" in told
    assert "The web server hangs" in told
    assert process.returncode == 0
    log = (home / "server.log").read_text()
    # What the first, the second and the third said is all there, with the time.
    assert log.count("Application startup complete") >= 3
    assert re.search(r"^20\d\d-\d\d-\d\d \d\d:\d\d:\d\d,\d+ INFO", log, re.MULTILINE)


def test_pauses_grow_and_logs_stay_within_bounds(tmp_path, monkeypatch):
    said, pauses = [], []
    monkeypatch.setattr(running, "say", said.append)
    service = running.Service.__new__(running.Service)
    service.ending = False
    service.cluster = None
    service.started = time.monotonic()
    service.web = SimpleNamespace(pid=1, poll=lambda: 1, returncode=1)
    monkeypatch.setattr(service, "_replace", lambda ended, pause: pauses.append(pause), raising=False)
    monkeypatch.setattr(running.time, "sleep", lambda s: setattr(service, "ending", len(pauses) >= 8))
    service._watch()
    assert pauses == [0.5, 1, 2, 4, 8, 16, 30, 30, 30]
    log = tmp_path / "server.log"
    with open(log, "ab") as writer:
        writer.write(b"x" * (MOST_LOG_BYTES + 1))
        writer.flush()
        trim_log(log)
        writer.write(b"goes on")
    assert log.read_bytes() == b"goes on"
    assert (tmp_path / "server.log.1").stat().st_size == MOST_LOG_BYTES + 1
    trim_log(tmp_path / "none.log")


def test_evaluate_prints_only_the_answer(home):
    import json

    request = {"lens": {"focal_mm": 50}, "formats": [{"window": {"width_mm": 36, "height_mm": 24}}]}
    done = subprocess.run([ROOT / "hextan", "evaluate", "-"], input=json.dumps(request), text=True,
                          capture_output=True, check=True, env={**os.environ, "HEXTAN_HOME": str(home)})  # fmt: skip
    assert round(json.loads(done.stdout)["formats"][0]["angle_deg"]["horizontal"], 3) == 39.598
    assert done.stderr == ""


def test_productions_go_in_and_out_by_command_and_nothing_else_is_printed(home):
    """On a machine where nothing runs: a server is started for the time, and its file comes out as it went in."""
    import json

    def command(*words, **more):
        environment = {**os.environ, "HEXTAN_HOME": str(home)}
        return subprocess.run([ROOT / "hextan", *words], capture_output=True, text=True, check=False, env=environment, **more)  # fmt: skip

    file = ROOT / "tests" / "fixtures" / "documents" / "production_1.json"
    taken = command("import", str(file))
    assert (taken.returncode, taken.stderr.splitlines()[-1][-18:]) == (0, "Low tide is added.")
    out = command("export", "Low tide")
    plain = json.loads(out.stdout)
    assert (plain["schema"], plain["bench"]["state"]["subject_m"]) == ("hextan.production", 4.5)
    again = command("import", "-", input=out.stdout)
    assert again.returncode == 0
    # Two of one name are told apart by their numbers.
    both = command("export", "Low tide")
    assert both.returncode == 1 and "There are several productions" in both.stderr
    refused = command("import", "-", input='{"schema": "hextan.production", "schema_version": 9}')
    assert refused.returncode == 1 and "schema_version: must be 1 to 1" in refused.stderr
    assert json.loads(command("export", "2").stdout) == plain
    bare = command("export", "2", "--as", "usd", "--of", "shots")
    assert (bare.returncode, "no set-up" in bare.stderr) == (1, True)
