"""Busy or hung: the rule on made-up looks, and on real processes in every state."""

import itertools
import os
import signal
import subprocess
import sys
import textwrap
import time

import pytest

from launcher import pulse
from launcher.pulse import Look, Pulse


def verdicts(seconds, beat, share, state="S", step=0.2, pauses=()):
    """What is judged over so many seconds; `beat(t)` gives the last beat, the main thread works for a share of the time."""
    judge, worked, found = Pulse(100.0), 0.0, []
    for i in itertools.count():
        at = 100.0 + i * step + sum(long for begins, long in pauses if i * step >= begins)
        if at > 100.0 + seconds:
            return found
        found.append((at - 100.0, judge.judge(Look(at, beat(at), int(worked * 1e9), state))))
        worked += share * step


def first(found, verdict):
    return next((at for at, each in found if each == verdict), None)


@pytest.mark.parametrize(
    ("share", "state", "expected"),
    # Shares of the time that were measured in these states: a loop in Python, C with the interpreter held, asleep in a call, stopped,
    # starved by twenty busy processes.
    [
        (1.0, "R", "busy"),
        (0.98, "R", "busy"),
        (0.0, "S", "hung"),
        (0.0, "T", "hung"),
        (0.97, "R", "busy"),
        (0.0, "D", "busy"),
    ],
)
def test_what_works_is_left_alone_and_what_sleeps_is_replaced_within_ten_seconds(share, state, expected):
    found = verdicts(300, lambda at: min(at, 130.0), share, state)
    assert {each for at, each in found if 2 < at < 31} <= {"well", "starting"}
    hung = first(found, "hung")
    if expected == "busy":
        assert hung is None
    else:
        assert 36 <= hung <= 40


def test_a_loop_that_works_without_end_is_replaced_after_a_quarter_of_an_hour():
    assert 925 <= first(verdicts(1000, lambda at: min(at, 130.0), 1.0, "R"), "hung") <= 935


def test_a_start_may_take_minutes_but_not_for_ever():
    """A migration: the main thread sleeps while the database works."""
    assert 598 <= first(verdicts(700, lambda at: 0.0, 0.0), "hung") <= 603


def test_the_launchers_own_pauses_do_not_count():
    """The launcher starts a database for half a minute; the server, asleep as it is when nobody asks, had stopped beating for a moment."""
    found = verdicts(90, lambda at: at if at < 130.0 or at > 166.0 else 130.0, 0.02, pauses=[(31, 34)])
    assert first(found, "hung") is None
    # One that beats no more after the pause is found all the same, ten seconds after it.
    late = first(verdicts(120, lambda at: min(at, 130.0), 0.0, pauses=[(31, 34)]), "hung")
    assert 65 + 5 <= late <= 65 + 12


STATES = {
    "well": "await asyncio.sleep(60)",
    "busy": "while True: sum(range(10_000))",
    "hung": "time.sleep(60)",
}
PROGRAM = """
import asyncio, sys, time
from pathlib import Path
from hextan.api.beat import beat
async def main():
    task = asyncio.create_task(beat(Path(sys.argv[1])))
    await asyncio.sleep(1)
    {body}
asyncio.run(main())
"""


@pytest.mark.parametrize("state", [*STATES, "stopped", "starved"])
def test_a_real_process_in_every_state(state, tmp_path):
    """The trace of a loop that no longer beats is in its log."""
    file, log = tmp_path / "beat", tmp_path / "log"
    pulse.new_beat(file)
    body = STATES.get(state, STATES["well"])
    program = textwrap.dedent(PROGRAM).format(body=body)
    neighbours = []
    with open(log, "wb") as written:
        process = subprocess.Popen([sys.executable, "-c", program, str(file)], stderr=written,
                                   env={**os.environ, "PYTHONPATH": "src"})  # fmt: skip
    try:
        judge, began = Pulse(time.monotonic()), time.monotonic()
        found, disturbed = [], False
        while time.monotonic() - began < 14 and (not found or found[-1] != "hung"):
            seen = pulse.look(process.pid, file)
            found.append(judge.judge(seen))
            if not disturbed and seen.beat and seen.at - began > 2:
                disturbed = True
                if state == "stopped":
                    process.send_signal(signal.SIGSTOP)
                if state == "starved":
                    neighbours = [
                        subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(12)
                    ]
            time.sleep(0.2)
        assert (found[-1] == "hung") == (state in ("hung", "stopped"))
        if state == "hung":
            assert b"most recent call first" in log.read_bytes()
            assert b"in main" in log.read_bytes()
    finally:
        for each in [*neighbours, process]:
            each.kill()
            each.wait(10)


def test_a_process_that_is_gone_is_not_looked_at(tmp_path):
    pulse.new_beat(tmp_path / "beat")
    done = subprocess.Popen([sys.executable, "-c", ""])
    done.wait(10)
    assert pulse.look(done.pid, tmp_path / "beat") is None
