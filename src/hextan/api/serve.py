"""The web server's process: heads and bodies that are begun and not ended are given up, logs carry the time.

``python -m hextan.api.serve --port 8734``
"""

from __future__ import annotations

import argparse
import asyncio
from types import FrameType
from typing import Any

import uvicorn
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

from hextan.api.beat import beat, told_file
from hextan.live.cameras import ENDING

#: A head has to be there within so many seconds of its first byte, or of the connection.
HEAD_SECONDS = 20.0
LINE = "%(asctime)s %(levelname)s %(name)s: %(message)s"
LOGS: dict[str, Any] = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": LINE}},
    "handlers": {"out": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["out"], "level": "INFO"},
}


class PatientOnce(HttpToolsProtocol):
    """Closes a connection whose head does not come to an end."""

    _waiting: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        """Begin to wait."""
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        """Wait again when this begins another head."""
        if self._waiting is None and (self.cycle is None or self.cycle.response_complete):
            self._wait()
        super().data_received(data)

    def on_headers_complete(self) -> None:
        """The head is there."""
        self._no_longer()
        super().on_headers_complete()

    def connection_lost(self, exc: Exception | None) -> None:
        """Nobody waits any more."""
        self._no_longer()
        super().connection_lost(exc)

    def _wait(self) -> None:
        self._waiting = asyncio.get_running_loop().call_later(HEAD_SECONDS, self._give_up)

    def _no_longer(self) -> None:
        if self._waiting is not None:
            self._waiting.cancel()
            self._waiting = None

    def _give_up(self) -> None:
        self._waiting = None
        if self.transport is not None and not self.transport.is_closing():
            self.transport.close()


class Server(uvicorn.Server):
    """Beats for the launcher; tells open streams that the server ends: it waits for them."""

    async def main_loop(self) -> None:
        """Serve, and beat meanwhile."""
        file = told_file()
        beating = None if file is None else asyncio.create_task(beat(file))
        try:
            await super().main_loop()
        finally:
            if beating is not None:
                beating.cancel()

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        """Told to end."""
        ENDING.set()
        super().handle_exit(sig, frame)


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="hextan.api.serve")
    parser.add_argument("--port", type=int, required=True)
    options = parser.parse_args()
    config = uvicorn.Config(
        "hextan.api.app:create_app",
        factory=True,
        host="127.0.0.1",
        port=options.port,
        http=PatientOnce,
        access_log=False,
        server_header=False,
        log_config=LOGS,
        timeout_graceful_shutdown=5,
    )
    Server(config).run()


if __name__ == "__main__":
    main()
