"""The log: each entry once, in any order, none over another; and what a day of it comes to."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from hextan.core.base import InvalidInputError, StaleWriteError
from hextan.core.record.checks import checks_of
from hextan.core.record.day import cameras_now, days_of, set_day
from hextan.core.record.document import Booking, Clip, ClipFacts, Log, LogItem, Tick, parse_log
from hextan.core.record.planned import planned_of
from hextan.core.record.report import day_report
from hextan.core.record.writing import written
from tests.core.record.days import LOG, SHOTS, log_of, on, take
from tests.core.sheets.material import DEMO, demo

M = demo()


def report(log, day="1"):
    return day_report(M.package, M.settings, M.shots, log, day)


def test_an_entry_is_kept_once_however_often_it_is_sent():
    first = take("k", "12B", 1)
    item = written(None, first, 0)
    assert item.revision == 1
    assert written(item, first, 0) is item
    circled = first.model_copy(update={"circled": True})
    item = written(item, circled, 1)
    assert (item.revision, item.before, item.entry.circled) == (2, [first], True)
    # The first version arrives late, and again: it is history.
    assert written(item, first, 0) is item
    assert written(item, circled, 1) is item


def test_two_who_change_the_same_entry_are_both_told():
    first = take("k", "12B", 1)
    item = written(LogItem(entry=first), first.model_copy(update={"note": "hers", "by": "Nell"}), 1)
    with pytest.raises(StaleWriteError) as refused:
        written(item, first.model_copy(update={"note": "his"}), 1)
    assert refused.value.given["entry"]["note"] == "his"
    assert refused.value.stored == {"revision": 2, "entry": item.entry.model_dump(mode="json")}
    with pytest.raises(StaleWriteError):
        written(None, first, 1)
    with pytest.raises(InvalidInputError, match="key of a take, and stays one"):
        written(item, Booking(**{k: v for k, v in first if k in Booking.model_fields and k != "kind"}), 2)


@given(st.lists(st.tuples(st.integers(0, 3), st.booleans()), max_size=30))
def test_no_word_is_lost_whatever_the_order(sends):
    """Devices write notes on one entry, each from what it knows; a refused one takes what is stored and writes again."""
    item, known, notes = LogItem(entry=take("k", "12B", 1)), [1] * 4, []
    for number, (device, stubborn) in enumerate(sends):
        note = f"{device}-{number}"
        entry = item.entry.model_copy(update={"note": note})
        try:
            item = written(item, entry, known[device])
        except StaleWriteError as refused:
            if not stubborn:
                continue
            item = written(item, entry, refused.stored["revision"])
        known[device] = item.revision
        notes.append(note)
    assert [e.note for e in (*item.before, item.entry)] == ["", *notes]


def test_the_day_of_the_demo_names_its_faults_and_no_more():
    found = report(LOG)
    assert [(f["unit"], f["told"].split(";")[0]) for f in found["faults"]] == [
        ("A", "12B take 2, 21:26: Scan mode S35 4.3K, planned Full scope 6.4K"),
        ("A", "12B take 3, 21:33: Scan mode S35 4.3K, planned Full scope 6.4K"),
        ("A", "12C take 1, 21:58: Stop T2.8, planned T1.9"),
    ]
    a, b = found["cameras"]
    assert (a["takes"], a["circled"], a["shots"], a["lens_changes"], a["lenses"]) == (
        7,
        3,
        3,
        1,
        ["Merrow 75", "Merrow 65"],
    )
    assert [(c["card"], c["takes"]) for c in a["cards"]] == [("A001", 5), ("A002", 2)]
    seconds = 48 + 51 + 37 + 40 + 42
    assert a["cards"][0]["minutes"] == pytest.approx(seconds / 60)
    here = next(
        p
        for p in M.package.formats.values()
        if p.recording.name == "Scope → 4096" and p.body.name == "Ebb 64"
    )
    there = next(p for p in M.package.formats.values() if p.recording.name == "S35 → 4096 17:9")
    data = (48 + 51 + 37) * here.recording.bytes_per_second(25) + 82 * there.recording.bytes_per_second(25)
    assert a["cards"][0]["gb"] == pytest.approx(data / 1e9)
    assert (b["unit"], b["takes"]) == ("B", 1)
    assert found["not_shot"] == ["13A", "13B", "13C"]
    assert found["corrected"] == ["12A take 1: changed 1 time, last by Nell, first assistant at 20:01 UTC."]


def test_takes_that_go_by_the_same_number_are_told_of_both():
    log = log_of(
        take("a", "12B", 3),
        take("b", "12B", 3, at="20:01:00"),
        take("c", "12B", 3, unit="B"),
        take("d", "12B", 4),
    )
    shown = set_day(M.package, M.settings, M.shots, log, "1")
    doubled = {t["entry"].key: t["double"] for t in shown["takes"]}
    assert "also logged by Nell at 21:01" in doubled["a"]
    assert "also logged by Nell at 21:00" in doubled["b"]
    assert (doubled["c"], doubled["d"]) == ("", "")
    log = log_of(take("a", "12B", 3), take("b", "12B", 3, removed=True))
    assert [t["double"] for t in set_day(M.package, M.settings, M.shots, log, "1")["takes"]] == [""]


def test_what_was_said_last_is_on_the_camera_whenever_it_arrives():
    late = Booking(
        key="b",
        at="2026-05-18T19:00:00Z",
        written_at="2026-05-18T23:00:00Z",
        unit="A",
        on=on("12B", lens="Merrow 21"),
    )
    shot = take("a", "12B", 1, on("12B", lens="Merrow 35"), at="20:00:00")
    assert [c["on"].lens for c in cameras_now(log_of(shot, late))] == ["Merrow 35"]
    assert [
        c["on"].lens
        for c in cameras_now(log_of(shot, late.model_copy(update={"at": "2026-05-18T20:00:01Z"})))
    ] == ["Merrow 21"]
    gone = shot.model_copy(update={"removed": True})
    assert [c["on"].lens for c in cameras_now(log_of(gone, late))] == ["Merrow 21"]


def test_a_shot_that_is_gone_leaves_its_takes():
    log = log_of(take("a", "12B", 1, day="9").model_copy(update={"shot": "away", "shot_name": "99Z"}))
    assert [d["day"] for d in days_of(M.shots, log)][-1] == "9"
    found = report(log, "9")
    assert found["faults"] == []
    assert [t["entry"].shot_name for t in found["day"]["takes"]] == ["99Z"]


def test_the_checklist_follows_the_work_and_the_override_comes_before_the_switch():
    planned = [planned_of(M.package, M.settings, s) for s in M.shots.shots if s.day == "1"]
    (page,) = checks_of(M.package, M.settings, planned, Log(), "1", {})
    told = [item["told"] for item in page["items"]]
    assert page["body"] == "Ebb 64"
    assert page["open"] == len(told)
    order = [
        "Batteries are full, and one more is at hand",
        "Time code runs with the time of day, at the base rate",
        "Nothing wins over S35 4.3K: an adapter that reports a small circle",
        "Scan mode S35 4.3K: “Inner Frame”",
        "Stabiliser, standard: raw recording wins over it",
        "Stabiliser, standard is off",
        "A test clip is shot, and its width in pixels read from the file",
    ]
    assert [told.index(each) for each in order] == sorted(told.index(each) for each in order)
    item = next(i for i in page["items"] if i["told"] == "Stabiliser, standard is off")
    tick = Tick(key="t", at="2026-05-18T16:00:00Z", offset_min=60, by="Owen", written_at="2026-05-18T16:00:00Z",
                day="1", body="Ebb 64", item=item["key"])  # fmt: skip
    said = {"Ebb 64": ["crop: STABILISER, STANDARD IS ON, planned off", "mode: CROP IS ON, planned off"]}
    (page,) = checks_of(M.package, M.settings, planned, log_of(tick), "1", said)
    ticked = next(i for i in page["items"] if i["key"] == item["key"])
    assert (ticked["ticked"], ticked["by"], ticked["clock"]) == (True, "Owen", "17:00")
    assert ticked["against"] == "STABILISER, STANDARD IS ON, planned off"
    # What nobody ticked yet is contradicted as well; another day begins anew.
    others = {
        i["told"].split(" ")[0]: i["against"]
        for i in page["items"]
        if i["against"] and i["key"] != item["key"]
    }
    assert others == {"Scan": "CROP IS ON, planned off"}
    assert checks_of(M.package, M.settings, planned, log_of(tick), "2", said)[0]["open"] == len(told)


def test_a_log_goes_out_and_comes_back():
    assert parse_log(LOG.model_dump(mode="json", by_alias=True)) == LOG
    with pytest.raises(InvalidInputError, match="two entries have the same key"):
        parse_log({**DEMO["log"], "items": DEMO["log"]["items"] * 2})


def test_a_clip_lengthens_its_take_where_nobody_logged_how_long_it_was():
    facts = ClipFacts(name="12B_T1.mov", raster=[4096, 1714], fps=25.0, seconds=90.0)
    clip = Clip(
        key="c", at="2026-05-18T20:00:00Z", written_at="2026-05-18T22:00:00Z", day="1", unit="A", facts=facts
    )
    found = report(log_of(take("a", "12B", 1), clip))
    assert found["cameras"][0]["minutes"] == pytest.approx(1.5)
    assert SHOTS["12B"].key == found["day"]["takes"][0]["entry"].shot
