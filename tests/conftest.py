"""A private PostgreSQL for the tests, one for each worker."""

import os
import shutil
import tempfile
from pathlib import Path

import pytest
from hypothesis import settings
from sqlalchemy import create_engine
from sqlalchemy.orm import Session

from hextan.api.app import bare_app
from hextan.api.plumbing import get_session
from hextan.demo.load import load_demo
from hextan.store import migrate
from hextan.store.sessions import make_engine
from launcher.cluster import Cluster
from tests.budget import DATABASE, examples

# How long an example takes says how busy the machine is, and nothing about what is tested.
settings.register_profile("hextan", deadline=None, max_examples=examples(100), database=DATABASE)
settings.load_profile("hextan")

#: What each folder may take, seconds of all workers together on a machine with two processors; more is told.
BUDGETS_S = {
    "ui": 420,
    "core": 240,
    "api": 150,
    "reference": 60,
    "launcher": 150,
    "store": 60,
    "paper": 40,
    "formats": 40,
    "live": 30,
}


def where_the_time_is(terminalreporter):
    """Tell what each folder took, and the ten slowest tests."""
    folders, tests = {}, {}
    for reports in terminalreporter.stats.values():
        for report in reports:
            if hasattr(report, "duration"):
                parts = report.nodeid.split("/")
                folder = parts[1] if len(parts) > 2 else "."
                folders[folder] = folders.get(folder, 0.0) + report.duration
                tests[report.nodeid] = tests.get(report.nodeid, 0.0) + report.duration
    if len(tests) < 500:
        return
    terminalreporter.section("where the time is")
    for folder, took in sorted(folders.items(), key=lambda each: -each[1]):
        over = f"  over its budget of {BUDGETS_S[folder]} s" if took > BUDGETS_S.get(folder, 1e9) else ""
        terminalreporter.write_line(f"{took:7.1f} s  tests/{folder}{over}")
    for name, took in sorted(tests.items(), key=lambda each: -each[1])[:25]:
        terminalreporter.write_line(f"{took:7.1f} s  {name[:150]}")


def pytest_terminal_summary(terminalreporter):
    """Tell where the time is, and name the browser tests that failed and passed at once again: each is a fault to find."""
    where_the_time_is(terminalreporter)
    failed = {report.nodeid for report in terminalreporter.stats.get("failed", [])}
    for nodeid in dict.fromkeys(report.nodeid for report in terminalreporter.stats.get("rerun", [])):
        if nodeid not in failed:
            terminalreporter.write_line(f"unsteady: {nodeid}")


def scratch_folder() -> Path:
    """In memory where possible; enterable for the database's own user."""
    place = "/dev/shm" if os.access("/dev/shm", os.W_OK) else None
    folder = Path(tempfile.mkdtemp(prefix="hextan-test-", dir=place))
    folder.chmod(0o755)
    return folder


@pytest.fixture(scope="session")
def database_url():
    folder = scratch_folder()
    cluster = Cluster(folder / "postgres", careless=True)
    yield cluster.start()
    cluster.stop()
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="session")
def engine(database_url):
    """A migrated database with the demo production."""
    engine = make_engine(database_url)
    migrate.upgrade(engine)
    with Session(engine) as session:
        assert load_demo(session)
    yield engine
    engine.dispose()


@pytest.fixture
def session(engine):
    """A session whose changes, committed or not, are gone after the test."""
    with engine.connect() as connection, connection.begin() as outer:
        with Session(connection, join_transaction_mode="create_savepoint") as session:
            yield session
        if outer.is_active:
            outer.rollback()


@pytest.fixture(scope="session")
def application():
    """One for all tests: to describe every endpoint takes over a second."""
    return bare_app(("testserver",))


@pytest.fixture
def client(application, session):
    """The application over the rolled-back session."""
    from starlette.testclient import TestClient

    def one_session():
        try:
            yield session
        except Exception:
            # As a request's own session would end: nothing of it is kept.
            session.rollback()
            raise

    application.dependency_overrides[get_session] = one_session
    with TestClient(application, raise_server_exceptions=False) as client:
        yield client
    application.dependency_overrides.clear()


@pytest.fixture
def production_id(client) -> int:
    return next(row["id"] for row in client.get("/api/v1/productions").json()["here"] if row["demo"])


@pytest.fixture
def unreachable_engine():
    engine = create_engine(
        "postgresql+psycopg://nobody:x@127.0.0.1:1/none", connect_args={"connect_timeout": 1}
    )
    yield engine
    engine.dispose()
