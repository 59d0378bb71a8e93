"""What `./hextan bench` says of the run before."""

from bench import history
from bench.result import Result

BEFORE: history.Run = {
    "commit": "abcd1234",
    "at": "2026-11-30T12:00:00Z",
    "yardstick_ms": 10.0,
    "figures": {"a drag": 50.0, "an answer": 12.0, "a ratio": 2.0},
}


def told(*results, now_ms=10.0):
    return history.slower(list(results), now_ms, BEFORE)


def test_what_became_slower_by_more_than_a_tenth_is_told():
    assert (
        told(Result("a drag", 54.9, 80, "ms"), Result("a ratio", 2.19, 3, "x"), Result("new", 9, 9, "ms"))
        == []
    )
    (one,) = told(Result("a drag", 60.0, 80, "ms"))
    assert one == "slower by 20 % since abcd1234: a drag (50.00 to 60.00 ms)"


def test_a_machine_that_is_slow_today_makes_times_longer_and_neither_ratios_nor_answers():
    assert told(Result("a drag", 104.0, 80, "ms"), now_ms=20.0) == []
    assert len(told(Result("a drag", 60.0, 80, "ms"), now_ms=5.0)) == 1
    assert len(told(Result("a ratio", 2.3, 3, "x"), Result("an answer", 14, 15, "kB"), now_ms=20.0)) == 2


def test_runs_are_noted_and_the_last_is_read(tmp_path, monkeypatch):
    monkeypatch.setattr(history, "FILE", tmp_path / "none" / "history.jsonl")
    assert history.last() is None
    history.add([Result("a drag", 50.0, 80, "ms")], 10.0)
    history.add([Result("a drag", 70.0, 80, "ms")], 11.0)
    assert history.last()["figures"] == {"a drag": 70.0}
    assert len(history.FILE.read_text().splitlines()) == 2
    assert history.yardstick_ms() > 0
