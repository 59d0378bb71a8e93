"""What was really shot, and does it agree with the plan?"""

from hextan.core.record.cameras import KeptMatch, kept_match, live_held, said_against
from hextan.core.record.checks import BodyChecks, checks_of
from hextan.core.record.clips import clip_key
from hextan.core.record.curves import depth_curves, format_curves
from hextan.core.record.day import SetDay, TakeHeld, cameras_now, days_of, set_day
from hextan.core.record.differences import Held, held_against
from hextan.core.record.document import (
    LOG_SCHEMA,
    MOST_CHANGES,
    MOST_ENTRIES,
    SET_SCHEMA,
    Clip,
    ClipFacts,
    Log,
    LogEntry,
    LogItem,
    OnCamera,
    Said,
    SaidChange,
    SetSettings,
    Short,
    Source,
    parse_item,
    parse_log,
    parse_set,
)
from hextan.core.record.heard import Heard, on_camera, windows_of
from hextan.core.record.planned import planned_of
from hextan.core.record.report import CameraDay, day_report
from hextan.core.record.writing import written

__all__ = [
    "LOG_SCHEMA",
    "MOST_CHANGES",
    "MOST_ENTRIES",
    "SET_SCHEMA",
    "BodyChecks",
    "CameraDay",
    "Clip",
    "ClipFacts",
    "Heard",
    "Held",
    "KeptMatch",
    "Log",
    "LogEntry",
    "LogItem",
    "OnCamera",
    "Said",
    "SaidChange",
    "SetDay",
    "SetSettings",
    "Short",
    "Source",
    "TakeHeld",
    "cameras_now",
    "checks_of",
    "clip_key",
    "day_report",
    "days_of",
    "depth_curves",
    "format_curves",
    "held_against",
    "kept_match",
    "live_held",
    "on_camera",
    "parse_item",
    "parse_log",
    "parse_set",
    "planned_of",
    "said_against",
    "set_day",
    "windows_of",
    "written",
]
