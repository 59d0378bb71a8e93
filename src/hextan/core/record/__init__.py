"""What was really shot, and does it agree with the plan?"""

from hextan.core.record.checks import BodyChecks, checks_of
from hextan.core.record.curves import depth_curves
from hextan.core.record.day import SetDay, TakeHeld, days_of, set_day
from hextan.core.record.differences import held_against
from hextan.core.record.document import (
    LOG_SCHEMA,
    MOST_ENTRIES,
    SET_SCHEMA,
    Log,
    LogEntry,
    LogItem,
    OnCamera,
    SetSettings,
    parse_item,
    parse_log,
    parse_set,
)
from hextan.core.record.planned import planned_of
from hextan.core.record.report import CameraDay, day_report
from hextan.core.record.writing import written

__all__ = [
    "LOG_SCHEMA",
    "MOST_ENTRIES",
    "SET_SCHEMA",
    "BodyChecks",
    "CameraDay",
    "Log",
    "LogEntry",
    "LogItem",
    "OnCamera",
    "SetDay",
    "SetSettings",
    "TakeHeld",
    "checks_of",
    "day_report",
    "days_of",
    "depth_curves",
    "held_against",
    "parse_item",
    "parse_log",
    "parse_set",
    "planned_of",
    "set_day",
    "written",
]
