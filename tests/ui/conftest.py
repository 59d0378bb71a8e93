"""A server with the built front end on a database of its own, and Debian's Chromium."""

import json
import os
import re
import signal
import subprocess
import sys
import time
import urllib.parse
import urllib.request
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import expect
from sqlalchemy import create_engine, text
from sqlalchemy.orm import Session

from hextan.demo.load import load_demo
from hextan.store import migrate
from hextan.store.models import Base
from hextan.store.sessions import make_engine
from launcher.cluster import free_port
from launcher.debian import chromium_program

#: A busy machine may take its time; what is right comes at once all the same.
PATIENCE_MS = 20_000
expect.set_options(timeout=PATIENCE_MS)
ROOT = Path(__file__).resolve().parents[2]


def pytest_collection_modifyitems(items):
    for item in items:
        if "tests/ui" in str(item.path):
            # A server and a database for each file, so that the files can run side by side; the longest in two parts.
            half = "" if item.path.stem != "test_every_view" else str(sum(map(ord, item.name)) % 2)
            item.add_marker(pytest.mark.xdist_group(f"{item.path.stem}{half}"))
            # One more try, which is told at the end (tests/conftest.py): what needs it is to be mended.
            item.add_marker(pytest.mark.flaky(reruns=1))


class Database:
    """The browser tests' database; what the demo begins with stands in a schema of its own, from which it is put back."""

    def __init__(self, url):
        self.url = url
        self.name = url.rsplit("/", 1)[1]
        self.engine = make_engine(url)
        migrate.upgrade(self.engine)
        with Session(self.engine) as session:
            load_demo(session)
        self.tables = [table.name for table in Base.metadata.sorted_tables]
        with self.engine.begin() as connection:
            connection.execute(text("create schema first"))
            for table in self.tables:
                connection.execute(text(f"create table first.{table} as table public.{table}"))
        # Within one transaction what others do is told as it was at its beginning.
        self.watch = self.engine.connect().execution_options(isolation_level="AUTOCOMMIT")
        #: The next transaction that will write, as it was when the database was put back last.
        self.untouched = self._next_write()

    def _next_write(self):
        """The number of the next transaction that writes; waits until nothing is under way."""
        busy = text(
            "select count(*) from pg_stat_activity where datname = :name and state <> 'idle' and pid <> pg_backend_pid()"
        )
        for _ in range(100):
            if self.watch.scalar(busy, {"name": self.name}) == 0:
                break
            time.sleep(0.05)
        return self.watch.scalar(text("select pg_snapshot_xmax(pg_current_snapshot())::text"))

    def put_back(self):
        """Begin anew where the demo begins, unless nobody wrote anything; whoever is connected stays so."""
        if self._next_write() == self.untouched:
            return
        with self.engine.begin() as connection:
            # Neither triggers nor references: what is put in is whole.
            connection.execute(text("set local session_replication_role = replica"))
            connection.execute(text(f"truncate {', '.join(self.tables)}"))
            for table in self.tables:
                connection.execute(text(f"insert into public.{table} select * from first.{table}"))
        self.untouched = self._next_write()


@pytest.fixture(scope="session")
def database(database_url):
    name = f"ui{os.getpid()}"
    admin = create_engine(
        database_url.replace("postgresql:", "postgresql+psycopg:"), isolation_level="AUTOCOMMIT"
    )
    with admin.connect() as connection:
        connection.execute(text(f"create database {name}"))
    admin.dispose()
    found = Database(f"{database_url.rsplit('/', 1)[0]}/{name}")
    yield found
    found.watch.close()
    found.engine.dispose()


@pytest.fixture(scope="session")
def base_url(database, tmp_path_factory):
    url = f"http://127.0.0.1:{(port := free_port())}"
    log = (tmp_path_factory.mktemp("server") / "log").open("wb")
    server = subprocess.Popen(
        [sys.executable, "-m", "hextan.api.serve", "--port", str(port)],
        env={**os.environ, "PYTHONPATH": str(ROOT / "src"), "HEXTAN_WEB_DIST": str(ROOT / "web" / "dist"),
             "HEXTAN_DATABASE_URL": database.url},
        stdout=log, stderr=log,
    )  # fmt: skip
    for _ in range(300):
        try:
            urllib.request.urlopen(f"{url}/api/v1/health", timeout=1).close()
            break
        except OSError:
            assert server.poll() is None, Path(log.name).read_text()
            time.sleep(0.1)
    yield url
    server.terminate()
    server.wait(10)
    log.close()


@pytest.fixture(autouse=True)
def own_production(database, base_url):
    """Each test has a production of its own: the database is put back to where the demo begins."""
    database.put_back()


def ready(url):
    """Wait until a server whose connections are gone has opened others."""
    for _ in range(50):
        try:
            urllib.request.urlopen(f"{url}/api/v1/ready", timeout=5).close()
            break
        except OSError:
            time.sleep(0.05)


@pytest.fixture(scope="session")
def browser_type_launch_args():
    flags = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
             "--disable-component-update", "--disable-sync"]  # fmt: skip
    return {"executable_path": chromium_program(), "args": flags}


@pytest.fixture(scope="session")
def browser_context_args():
    # A service worker would answer for a server that a test has changed: tests of working without a line allow it themselves.
    return {
        "viewport": {"width": 1280, "height": 800},
        "color_scheme": "dark",
        "reduced_motion": "reduce",
        "service_workers": "block",
    }


@pytest.fixture
def complaints(page):
    """Whatever the browser complains about; checked after each test."""
    said = []
    blocked = "Service Worker registration blocked"
    page.on(
        "console",
        lambda m: said.append(m.text) if m.type in ("error", "warning") and blocked not in m.text else None,
    )
    page.on("pageerror", lambda e: said.append(str(e)))
    return said


def formats_of(kit):
    return (row for mode in kit["bodies"][0]["modes"] for row in mode["formats"])


def id_of(name, rows):
    return next(row["id"] for row in rows if row["name"] == name)


@pytest.fixture
def bench(page, base_url, complaints):
    """The Bench as the demo begins, whatever earlier tests kept."""
    page.set_default_timeout(PATIENCE_MS)

    def get(path):
        return page.request.get(f"{base_url}/api/v1/productions{path}").json()

    at = f"/{get('')['here'][0]['id']}"
    kit = get(f"{at}/package")
    first = urllib.parse.urlencode(
        {"format": id_of("S35 → UHD", formats_of(kit)), "stop": 2.1, "subject": 3.2, "rate": 25,
         "lens": id_of("Wren 40", (lens for each in kit["lens_sets"] for lens in each["lenses"])), "aspect": 2.39,
         "pixels": 3840, "spare": 0.05, "adapter": id_of("K50 to W54, plain", kit["adapters"]), "reference": "super35",
         "by": "width", "unit": "m", "pins": id_of("Full → UHD", formats_of(kit)), "sharp": "picture_diagonal_at_1500",
         "show": "all", "mounts": 0}
    )  # fmt: skip
    page.goto(f"{base_url}/?{first}")
    page.wait_for_selector(".sum")
    page.wait_for_selector("tr[data-format]")
    yield page
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def saving(page):
    """Wait, behind the block, until the server has the Bench."""
    return page.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/bench") and r.ok)


def settled(page, read):
    """What is read, once it stays the same over ten frames that are drawn and no question is under way."""
    same, last = 0, None
    while same < 10:
        page.evaluate("() => new Promise((done) => requestAnimationFrame(() => setTimeout(done)))")
        now = read()
        same, last = (same + 1, last) if now == last else (0, now)
    return last


def box(page, label):
    """The field of a choice, whether it is a list of the browser or one to search in."""
    return page.get_by_role("combobox", name=label, exact=True)


def choose(page, label, name):
    """Choose by its name, of a list of the browser or of one to search in; its mark of coverage does not matter."""
    field = box(page, label)
    named = re.compile(f"^{re.escape(name)}( .*)?$")
    if field.evaluate("(field) => field.localName") == "select":
        value = field.get_by_role("option", name=named).first.get_attribute("value")
        field.select_option(value)
        expect(field).to_have_value(value or "")
        return
    field.click()
    field.fill(name)
    page.get_by_role("listbox").get_by_role("option", name=named).first.click()
    expect(field).to_have_value(re.compile(f"^{re.escape(name)}( .)?$"))


def choose_lens(page, name):
    choose(page, "Lens", name)


@contextmanager
def package_of(page, base_url, complaints, at):
    """Give the address of a production's package, from that of its API; nothing may be complained about meanwhile."""
    page.set_default_timeout(PATIENCE_MS)
    yield f"{base_url}{at.removeprefix(base_url).replace('/api/v1/productions', '/p')}/package"
    page.close()
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


class Server:
    """A server that can be killed and started again at its address."""

    def __init__(self, database_url, log):
        self.port, self.log = free_port(), log.open("wb")
        self.url = f"http://127.0.0.1:{self.port}"
        self.env = {**os.environ, "PYTHONPATH": str(ROOT / "src"), "HEXTAN_WEB_DIST": str(ROOT / "web" / "dist"),
                    "HEXTAN_DATABASE_URL": database_url}  # fmt: skip
        self.process = None

    def start(self):
        assert self.process is None, "the server is started while it runs"
        command = [sys.executable, "-m", "hextan.api.serve", "--port", str(self.port)]
        self.process = subprocess.Popen(command, env=self.env, stdout=self.log, stderr=self.log)
        until = time.monotonic() + 40
        while time.monotonic() < until:
            try:
                urllib.request.urlopen(f"{self.url}/api/v1/health", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server does not start")

    def kill(self):
        if self.process is not None:
            self.process.send_signal(signal.SIGKILL)
            self.process.wait(10)
            self.process = None

    def takes(self, shot="12B"):
        listed = next(p["id"] for p in self.get("productions")["here"] if p["demo"])
        day = self.get(f"productions/{listed}/set?day=1")["day"]
        return [t for t in day["takes"] if t["entry"]["shot_name"] == shot]

    def get(self, path):
        with urllib.request.urlopen(f"{self.url}/api/v1/{path}", timeout=20) as answer:
            return json.load(answer)

    def page(self):
        listed = next(p["id"] for p in self.get("productions")["here"] if p["demo"])
        return f"{self.url}/p/{listed}/set?day=1&unit=A&shot=s12b"


@pytest.fixture(scope="module")
def server_of_file(database, tmp_path_factory):
    found = Server(database.url, tmp_path_factory.mktemp("own") / "log")
    yield found
    found.kill()
    found.log.close()


@pytest.fixture
def own_server(server_of_file, own_production):
    """A server that this test may kill and start again; after it, what is left of it serves the next one."""
    if server_of_file.process is None:
        server_of_file.start()
    ready(server_of_file.url)
    return server_of_file


@pytest.fixture
def device(playwright, browser_type_launch_args, tmp_path):
    """Opens browsers that keep what they have when they are closed; each is a device of its own."""
    opened = []
    # Newer Chromium sends what outlives a page from its own process, past every route of a test.
    args = [*browser_type_launch_args["args"], "--disable-features=KeepAliveInBrowserMigration"]

    def launch(name):
        context = playwright.chromium.launch_persistent_context(
            str(tmp_path / name), executable_path=chromium_program(), args=args,
            viewport={"width": 390, "height": 844}, color_scheme="dark", reduced_motion="reduce", service_workers="allow",
        )  # fmt: skip
        opened.append(context)
        return context

    yield launch
    for context in opened:
        context.close()
