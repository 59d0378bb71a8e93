"""A day of the demo, and entries to write into its log."""

import json
from functools import cache
from importlib.resources import files

from hextan.core.record.document import Log, LogItem, OnCamera, Take, parse_log
from hextan.core.record.planned import on_by_plan
from tests.core.sheets.material import DEMO, demo

LOG = parse_log(DEMO["log"])
SHOTS = {shot.name: shot for shot in demo().shots.shots}


@cache
def planned_on(shot):
    """What the plan has on the camera for a shot of the demo."""
    m = demo()
    return on_by_plan(m.package, m.settings, SHOTS[shot])


def on(shot, **change):
    return planned_on(shot).model_copy(update=change)


def take(key, shot, number, used=None, at="20:00:00", unit="A", **more):
    plain = {"key": key, "at": f"2026-05-18T{at}Z", "offset_min": 60, "by": "Nell", "written_at": f"2026-05-18T{at}Z",
             "unit": unit, "day": "1", "shot": SHOTS[shot].key, "shot_name": shot, "take": number}  # fmt: skip
    return Take.model_validate(plain | more | {"on": (used or on(shot)).model_dump()})


def log_of(*entries):
    return Log(items=[LogItem(entry=entry) for entry in entries])


def catalogue_json():
    return json.loads(files("hextan.demo").joinpath("catalogue.json").read_text(encoding="utf-8"))


__all__ = ["LOG", "SHOTS", "OnCamera", "log_of", "on", "planned_on", "take"]
