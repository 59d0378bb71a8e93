"""What clients do: every kind of work with its weight, what was acknowledged of it, and how long it took."""

from __future__ import annotations

import http.client
import json
import random
import struct
import threading
import time
import zlib
from collections import Counter, defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

JSON, BYTES = "application/json", "application/octet-stream"
#: A killed server is there again after so long at most, on a machine whose processors others take; seconds.
BACK_AFTER_S = 45.0


@dataclass
class Told:
    """What all clients saw, together."""

    lock: threading.Lock = field(default_factory=threading.Lock)
    #: Milliseconds of answers by kind of work, and how many there were by kind and status.
    took: dict[str, list[float]] = field(default_factory=lambda: defaultdict(list))
    status: Counter[tuple[str, int]] = field(default_factory=Counter)
    #: Answers that should not be, and connections that broke while nobody was killed.
    faults: list[str] = field(default_factory=list)
    #: Takes that were acknowledged, with their notes; productions by the keys of their requests; versions of the list of shots.
    takes: dict[str, str] = field(default_factory=dict)
    made: dict[str, set[int]] = field(default_factory=lambda: defaultdict(set))
    versions: list[int] = field(default_factory=list)


class Client:
    """One client with its own chance and its own connection."""

    def __init__(self, port: int, seed: int, told: Told, killed: list[float], production: int) -> None:
        self.port, self.told, self.killed = port, told, killed
        self.rng = random.Random(seed)
        self.name = f"c{seed}"
        self.url = f"/api/v1/productions/{production}"
        self._line: http.client.HTTPConnection | None = None
        self._kept: dict[str, Any] = {}

    def ask(
        self, kind: str, method: str, path: str, body: Any = None, media: str = JSON, **headers: str
    ) -> tuple[int, Any]:
        """Ask; 0 where nobody answered. What should not be is noted."""
        data = body if isinstance(body, bytes) or body is None else json.dumps(body).encode()
        began = time.monotonic()
        try:
            if self._line is None:
                self._line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=150)
            self._line.request(
                method, path, data, {"Content-Type": media, **headers} if data is not None else headers
            )
            answer = self._line.getresponse()
            text = answer.read()
            status, again = answer.status, answer.headers.get("Retry-After")
        except (OSError, http.client.HTTPException) as error:
            if self._line is not None:
                self._line.close()
            self._line = None
            if not any(-1 < began - at < BACK_AFTER_S or began < at < time.monotonic() for at in self.killed):
                self._fault(f"{kind}: no answer to {method} {path}: {error!r}, and nobody was killed")
            return 0, None
        with self.told.lock:
            self.told.took[kind].append(1000 * (time.monotonic() - began))
            self.told.status[kind, status] += 1
        if status >= 500 and not (status == 503 and again):
            self._fault(f"{kind}: {status} to {method} {path}: {text[:200]!r}")
        if status == 503:
            time.sleep(min(float(again or 1), 2))
        return status, json.loads(text) if answer.headers.get("content-type", "").startswith(
            JSON
        ) and text else text

    def surely(self, path: str) -> tuple[int, Any]:
        """Read what has to be there, on a connection of its own where the kept one has gone."""
        for _ in range(5):
            status, found = self.ask("read", "GET", path)
            if status:
                return status, found
            time.sleep(1)
        return 0, None

    def _fault(self, words: str) -> None:
        with self.told.lock:
            self.told.faults.append(words)

    def kept(self, path: str) -> Any:
        """What is at an address, read once."""
        if path not in self._kept:
            status, found = self.ask("read", "GET", f"{self.url}{path}")
            if status != 200:
                return None
            self._kept[path] = found
        return self._kept[path]

    def step(self) -> None:
        """Do something."""
        works, weights = zip(*WORKS.items(), strict=True)
        self.rng.choices(works, weights)[0](self)


def _take(client: Client) -> None:
    """A take is logged, and now and then sent again: it is there once."""
    key = f"{client.rng.getrandbits(128):032x}"
    note = f"{client.name} {client.rng.random()}"
    entry = {"kind": "take", "key": key, "at": "2026-05-04T18:00:00Z", "by": client.name, "written_at": "2026-05-04T18:00:00Z",
             "unit": client.rng.choice("ABC"), "day": "1", "shot": None, "shot_name": "12A", "take": client.rng.randrange(1, 99), "on": {},
             "note": note}  # fmt: skip
    for _ in range(client.rng.choice([1, 1, 1, 2, 4])):
        status, _ = client.ask("take", "PUT", f"{client.url}/log/{key}", {"entry": entry, "based_on": 0})
        if status == 200:
            with client.told.lock:
                client.told.takes[key] = note


def _shots(client: Client) -> None:
    """A note of a shot is changed; two at once are told, and one of them is kept."""
    status, found = client.ask("read", "GET", f"{client.url}/shots")
    if status != 200:
        return
    document = found["document"]
    client.rng.choice(document["shots"])["notes"] = f"{client.name} {client.rng.random():.6f}"
    status, kept = client.ask(
        "write shots", "PUT", f"{client.url}/shots", {"version": found["version"], "document": document}
    )
    if status == 200:
        with client.told.lock:
            client.told.versions.append(kept["version"])


def _bench(client: Client) -> None:
    kept = client.kept("/bench")
    if kept is not None:
        state = kept["state"] | {"subject_m": round(client.rng.uniform(1, 20), 2)}
        what = client.rng.choice(["view", "view", "depth", "exposure", "flicker"])
        client.ask(f"bench {what}", "POST", f"{client.url}/bench/{what}", {"state": state})


def _shots_view(client: Client) -> None:
    kept = client.kept("/shots")
    if kept is not None:
        client.ask("shots view", "POST", f"{client.url}/shots/view", {"document": kept["document"]})


def _matrix(client: Client) -> None:
    client.ask("matrix", "POST", f"{client.url}/kit/matrix", {})


def _question(client: Client) -> None:
    text = client.rng.choice(["50%20s35", "2.9m%2050%20ff%20T2.8", "9%276%22%2085%20T2", "what"])
    client.ask("question", "GET", f"/api/v1/ask?q={text}")


def _day(client: Client) -> None:
    client.ask("day", "GET", f"{client.url}/set?day={client.rng.choice('12')}")


def _still(client: Client) -> None:
    """The head of a still: a child reads it."""
    data = png(client.rng.randrange(8, 40), 8)
    path = f"{client.url}/clips/head?name=a.png&size={len(data)}&head={len(data)}"
    client.ask("head", "POST", path, data, BYTES)


def _table(client: Client) -> None:
    """A table of shots is read, without keeping it; now and then one that is far too large."""
    if client.rng.random() < 0.1:
        data = b"1\n" * 3_900_000
    else:
        data = b"Number,Framing,Distance\n" + b"".join(b"%d,waist,3 m\n" % n for n in range(60))
    client.ask("table", "POST", f"{client.url}/shots/files/csv", data, BYTES)


def _file(client: Client) -> None:
    client.ask(
        "file out",
        "GET",
        f"{client.url}/shots/files/{client.rng.choice(['csv', 'xlsx', 'ods', 'otio', 'edl'])}",
    )


def _kit(client: Client) -> None:
    """A kit is looked for, looked at for a while, and left."""
    kept = client.kept("/packing")
    if kept is None:
        return
    document = kept["document"]
    plan = client.rng.choice(document["kits"])
    status, _ = client.ask(
        "kit", "POST", f"{client.url}/packing/searches", {"document": document, "kits": [plan["key"]]}
    )
    for _ in range(5 if status == 200 else 0):
        client.ask("kit seen", "GET", f"{client.url}/packing/searches/{plan['key']}")
        time.sleep(0.2)


def _print(client: Client) -> None:
    kept = client.kept("/sheets")
    if kept is not None:
        plan = client.rng.choice([p for b in kept["document"]["bundles"] for p in b["sheets"]])
        client.ask("print", "POST", f"{client.url}/sheets/prints", {"title": "Soak", "plans": [plan]})


def _production(client: Client) -> None:
    """A production is asked for several times under one key: it is made once."""
    key = f"{client.rng.getrandbits(64):016x}"
    for _ in range(client.rng.choice([1, 2, 3])):
        status, made = client.ask(
            "production",
            "POST",
            "/api/v1/productions",
            {"facts": {"name": f"Soak {key}"}},
            JSON,
            **{"Idempotency-Key": key},
        )
        if status == 201:
            with client.told.lock:
                client.told.made[key].add(made["id"])


def _nonsense(client: Client) -> None:
    path = client.rng.choice(["/bench/view", "/shots/view", "/kit/field", "/nowhere", "/log/%00"])
    client.ask(
        "nonsense",
        "POST",
        f"{client.url}{path}",
        client.rng.choice([b"{", b"[]", b'{"state": 1e400}', b"\xff" * 100]),
    )


WORKS: dict[Callable[[Client], None], float] = {
    _take: 10, _shots: 3, _bench: 20, _shots_view: 1, _matrix: 1, _question: 6, _day: 4, _still: 3, _table: 2, _file: 1, _kit: 0.6,
    _print: 0.6, _production: 0.3, _nonsense: 3,
}  # fmt: skip


def png(wide: int, high: int) -> bytes:
    """A grey picture (PNG, ISO/IEC 15948)."""

    def part(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", wide, high, 8, 0, 0, 0, 0)
    rows = zlib.compress(b"".join(b"\0" + b"\x80" * wide for _ in range(high)))
    return b"\x89PNG\r\n\x1a\n" + part(b"IHDR", head) + part(b"IDAT", rows) + part(b"IEND", b"")
