"""The process that looks: reads its work from standard input, and prints how far it is and what it found as lines of JSON.

After the work, a line on standard input stops it, and so does the end of standard input: nobody listens any more.
"""

from __future__ import annotations

import os
import pickle
import resource
import sys
import threading
import time
from typing import Any

import orjson

from hextan.core.base import HextanError, refuse_bad_arithmetic
from hextan.core.packing import Watch
from hextan.search.quiet import quiet
from hextan.search.work import MOST_SECONDS, Job

#: Memory of the process, bytes.
MEMORY = 4 << 30


def main() -> None:
    """Do one piece of work."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY, MEMORY))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    os.nice(5)
    refuse_bad_arithmetic()
    size = int.from_bytes(sys.stdin.buffer.read(8), "big")
    work: Job = pickle.loads(sys.stdin.buffer.read(size))
    stop = threading.Event()

    def listen() -> None:
        if not sys.stdin.buffer.read(1):
            os._exit(0)
        stop.set()
        # Stopped, it still says what it has; with nobody there it ends.
        if not sys.stdin.buffer.read(1):
            os._exit(0)

    threading.Thread(target=listen, daemon=True).start()
    with quiet() as out:

        def say(what: str, value: Any) -> None:
            _write(out, orjson.dumps({what: value}) + b"\n")

        ends = time.monotonic() + MOST_SECONDS
        watch = Watch(lambda: ends - time.monotonic(), stop.is_set, lambda told: say("told", told))
        try:
            say("answer", work.done(watch, lambda answer: say("kit", answer)))
        except HextanError as error:
            say("problem", error.message)
        except MemoryError:
            say(
                "problem",
                "It takes more memory than it may: choose out of fewer things, look at fewer shots, or print fewer sheets.",
            )
    # The listening thread waits for a line that nobody sends.
    os._exit(0)


def _write(out: int, data: bytes) -> None:
    while data:
        data = data[os.write(out, data) :]


if __name__ == "__main__":
    main()
