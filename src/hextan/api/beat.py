"""The beat of the event loop: written to a file that the launcher reads, and the trace of a loop that no longer beats, to the log.

A beat is the time of the system's monotonic clock, seconds, as one double in the file that HEXTAN_BEAT names.
"""

from __future__ import annotations

import asyncio
import faulthandler
import mmap
import os
import struct
import sys
import time
from pathlib import Path

#: Seconds between two beats, and how long there is none until every thread's trace is written.
EVERY_S, TRACED_AFTER_S = 0.25, 5.0
FORM = struct.Struct("<d")


async def beat(file: Path) -> None:
    """Write a beat from time to time, for as long as the loop runs."""
    with open(file, "r+b") as opened, mmap.mmap(opened.fileno(), FORM.size) as shared:
        try:
            while True:
                FORM.pack_into(shared, 0, time.monotonic())
                # Set anew by every beat: it is written also while something holds the interpreter.
                faulthandler.dump_traceback_later(TRACED_AFTER_S, file=sys.stderr)
                await asyncio.sleep(EVERY_S)
        finally:
            faulthandler.cancel_dump_traceback_later()


def told_file() -> Path | None:
    """The file that the launcher made for the beat; None where nobody looks."""
    named = os.environ.get("HEXTAN_BEAT")
    return Path(named) if named and Path(named).is_file() else None
