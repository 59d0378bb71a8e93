"""The report of a day against its entries, counted one after another by hand: random takes, cards, corrections and removals."""

import random
from collections import Counter

import pytest

from hextan.core.record.document import Log, LogItem
from hextan.core.record.report import day_report
from tests.core.record.days import SHOTS, on, take
from tests.core.sheets.material import demo

M = demo()
NAMES = ("12A", "12B", "12C", "13A")
OTHERS = {
    "lens": ("Merrow 65", "Merrow 75", "Merrow 50", ""),
    "ei": (800, 1600),
    "card": ("A001", "A002", ""),
}


def drawn(rng, number):
    """An entry of a day, or of another one; some were changed, some removed, some have no length."""
    shot, unit = rng.choice(NAMES), rng.choice("AB")
    used = on(shot, **{name: rng.choice(options) for name, options in OTHERS.items()})
    more = {
        "circled": rng.random() < 0.3,
        "removed": rng.random() < 0.2,
        "seconds": rng.choice([None, 31.0, 58.5]),
    }
    entry = take(
        f"k{number}",
        shot,
        number,
        used,
        at=f"{8 + number // 60:02d}:{number % 60:02d}:{rng.randrange(60):02d}",
        unit=unit,
        **more,
    )
    if rng.random() < 0.15:
        entry = entry.model_copy(update={"day": "2"})
    before = [entry.model_copy(update={"circled": not entry.circled})] if rng.random() < 0.2 else []
    return LogItem(entry=entry, before=before)


@pytest.mark.parametrize("seed", range(6))
def test_every_count_of_a_report_is_that_of_its_entries(seed):
    rng = random.Random(seed)
    items = [drawn(rng, n) for n in range(1, 41)]
    rng.shuffle(items)
    found = day_report(M.package, M.settings, M.shots, Log(items=items), "1")
    kept = sorted((i.entry for i in items if i.entry.day == "1" and not i.entry.removed), key=lambda e: e.at)
    assert [camera["unit"] for camera in found["cameras"]] == sorted({entry.unit for entry in kept})
    for camera in found["cameras"]:
        mine = [entry for entry in kept if entry.unit == camera["unit"]]
        assert camera["takes"] == len(mine)
        assert camera["circled"] == sum(entry.circled for entry in mine)
        assert camera["shots"] == len({entry.shot for entry in mine})
        lenses = [entry.on.lens for entry in mine if entry.on.lens]
        assert camera["lens_changes"] == sum(lenses[i] != lenses[i + 1] for i in range(len(lenses) - 1))
        assert camera["minutes"] == pytest.approx(sum(entry.seconds or 0 for entry in mine) / 60)
        cards = Counter(entry.on.card for entry in mine)
        assert {card["card"]: card["takes"] for card in camera["cards"]} == cards
        for card in camera["cards"]:
            gb = 0.0
            for entry in (e for e in mine if e.on.card == card["card"]):
                (here,) = (
                    p
                    for p in M.package.formats.values()
                    if (p.body.name, p.mode.name, p.recording.name)
                    == (entry.on.body, entry.on.mode, entry.on.format)
                )
                gb += (entry.seconds or 0) * here.recording.bytes_per_second(entry.on.fps) / 1e9
            assert (card["gb"] or 0.0) == pytest.approx(gb)
    shot = {entry.shot for entry in kept}
    assert found["not_shot"] == [s.name for s in SHOTS.values() if s.day == "1" and s.key not in shot]
    changed = [i for i in items if i.before and i.entry.day == "1"]
    assert len(found["corrected"]) == len(changed)
    assert sum("removed" in told for told in found["corrected"]) == sum(i.entry.removed for i in changed)
    # What differs is told of the takes that differ, and of no other.
    told = {fault["told"].split(",")[0] for fault in found["faults"]}
    differing = {
        f"{e.shot_name} take {e.take}"
        for e in kept
        if (e.on.lens and e.on.lens != on(e.shot_name).lens) or e.on.ei != on(e.shot_name).ei
    }
    assert differing <= told
