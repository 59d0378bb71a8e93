"""Run it, and tell what was lost, who was ended wrongly, what grew, and how long answers took."""

from __future__ import annotations

import argparse
import contextlib
import math
import random
import socket
import statistics
import sys
import threading
import time

from hextan.standins.camera.models import invented
from hextan.standins.camera.serving import Sender
from hextan.standins.camera.simulated import SimulatedCamera
from soak.instance import ENDED, HANGS, Instance, Neighbour
from soak.work import JSON, Client, Told

#: Memory that a server may have taken more at the end than when it was warm: a share, and megabytes.
GROWS_SHARE, GROWS_MB = 0.25, 60.0
MOST_HANDLES = 400


def main() -> int:
    """Soak."""
    parser = argparse.ArgumentParser(prog="./hextan soak", description=__doc__)
    parser.add_argument("--seconds", type=float, default=120.0, help="how long clients work")
    parser.add_argument("--clients", type=int, default=20)
    parser.add_argument("--kills", type=int, default=2, help="how often the web server is killed")
    parser.add_argument("--seed", type=int, default=1)
    options = parser.parse_args()
    instance, told = Instance(), Told()
    print(f"An instance of its own in {instance.folder}; seed {options.seed}", flush=True)
    try:
        instance.wait()
        wrong = soaked(instance, told, options)
    finally:
        instance.end()
    print(
        "\nNothing was lost, ended wrongly, or grew."
        if not wrong
        else "\n" + "\n".join(f"✗ {each}" for each in wrong)
    )
    return 1 if wrong else 0


def soaked(instance: Instance, told: Told, options: argparse.Namespace) -> list[str]:
    """Work, with a neighbour in the middle third and kills in the first half; then look at what is there."""
    first = Client(instance.port, -1, told, instance.killed, 0)
    _, productions = first.ask("read", "GET", "/api/v1/productions")
    production = next(each["id"] for each in productions["here"] if each["demo"])
    first.url = f"/api/v1/productions/{production}"
    _, shots = first.ask("read", "GET", f"{first.url}/shots")
    camera = _speaking(instance, first)
    over = threading.Event()
    clients = [
        Client(instance.port, options.seed * 1000 + n, told, instance.killed, production)
        for n in range(options.clients)
    ]
    threads = [threading.Thread(target=_work, args=(client, over), daemon=True) for client in clients]
    threads += [
        threading.Thread(target=_read_slowly, args=(instance, production, over), daemon=True)
        for _ in range(5)
    ]
    rng = random.Random(options.seed)
    began = time.monotonic()
    events = sorted(
        [
            *((rng.uniform(0.1, 0.5), "kill") for _ in range(options.kills)),
            (0.33, "busy"),
            (0.66, "free"),
            (0.7, "warm"),
        ]
    )
    for thread in threads:
        thread.start()
    neighbour, warm = None, math.nan
    for share, what in events:
        time.sleep(max(0.0, began + share * options.seconds - time.monotonic()))
        if what == "kill":
            instance.kill()
        elif what == "busy":
            neighbour = Neighbour()
        elif what == "free" and neighbour is not None:
            neighbour.end()
        elif what == "warm":
            warm = instance.memory_mb()
    time.sleep(max(0.0, began + options.seconds - time.monotonic()))
    over.set()
    for thread in threads:
        thread.join(180)
    stuck = sum(thread.is_alive() for thread in threads)
    camera.close()
    return _looked_at(instance, told, first, shots["version"], warm) + (
        [f"{stuck} clients never came to an end"] if stuck else []
    )


def _speaking(instance: Instance, first: Client) -> Sender:
    """A camera that the instance listens to."""
    _, kept = first.ask("read", "GET", f"{first.url}/set/settings")
    source = {"unit": "A", "body": "Ebb 64", "on": True, "port": instance.camera_port}
    first.ask("write", "PUT", f"{first.url}/set/settings",
              {"version": kept["version"], "document": kept["document"] | {"sources": [source]}}, JSON)  # fmt: skip
    camera = SimulatedCamera("A", next(model for model in invented() if model.name == "Ebb 64"), rate=50.0)
    sender = Sender(camera, instance.camera_port)
    sender.start()
    return sender


def _work(client: Client, over: threading.Event) -> None:
    while not over.is_set():
        try:
            client.step()
        except Exception as error:
            client._fault(f"{client.name}: {error!r}")
        over.wait(client.rng.uniform(0, 0.05))


def _read_slowly(instance: Instance, production: int, over: threading.Event) -> None:
    """Somebody who opens the stream of a camera and hardly reads it."""
    while not over.is_set():
        with (
            contextlib.suppress(OSError),
            socket.create_connection(("127.0.0.1", instance.port), timeout=5) as line,
        ):
            line.sendall(
                f"GET /api/v1/productions/{production}/live/A/events HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n".encode()
            )
            while not over.wait(0.5) and line.recv(16):
                pass
        over.wait(0.5)


def _looked_at(instance: Instance, told: Told, first: Client, version: int, warm: float) -> list[str]:
    """Everything that was acknowledged is there once; nobody was replaced but those that were killed; nothing grew."""
    wrong = list(dict.fromkeys(told.faults))[:20]
    if instance.web(120) is None:
        return [*wrong, "The web server does not answer at the end"]
    lost = []
    for key, note in told.takes.items():
        status, kept = first.surely(f"{first.url}/log/{key}")
        if status != 200 or kept["entry"]["note"] != note:
            lost.append(f"{key} ({status})")
    _, productions = first.surely("/api/v1/productions")
    names = [each["name"] for each in productions["here"]]
    doubled = [key for key, made in told.made.items() if len(made) > 1 or names.count(f"Soak {key}") != 1]
    _, shots = first.surely(f"{first.url}/shots")
    twice = len(told.versions) - len(set(told.versions))
    late = instance.memory_mb()
    handles = instance.handles()
    ended, hangs = instance.replaced(ENDED), instance.replaced(HANGS)
    wrong += (
        [f"{len(lost)} of {len(told.takes)} acknowledged takes are lost: {', '.join(lost[:5])}"]
        if lost
        else []
    )
    wrong += [f"productions that were made twice, or are gone: {doubled}"] if doubled else []
    wrong += [f"{twice} writes of the list of shots were acknowledged with the same version"] if twice else []
    wrong += (
        ["acknowledged writes of the list of shots are lost"]
        if shots["version"] < max(told.versions, default=version)
        else []
    )
    wrong += [f"a healthy web server was replaced {hangs} times"] if hangs else []
    wrong += (
        [f"the web server ended {ended} times, and was killed {len(instance.killed)} times"]
        if ended != len(instance.killed)
        else []
    )
    grew = late > warm * (1 + GROWS_SHARE) + GROWS_MB
    wrong += [f"memory grew from {warm:.0f} to {late:.0f} MB"] if grew else []
    wrong += [f"{handles} files and connections are open"] if handles > MOST_HANDLES else []
    _table(told)
    print(
        f"{len(told.takes)} takes, {len(told.made)} productions and {len(told.versions)} lists acknowledged; {len(instance.killed)} kills, "
        f"{ended + hangs} replaced; {warm:.0f} MB when warm, {late:.0f} MB at the end; {handles} handles"
    )
    return wrong


def _table(told: Told) -> None:
    """Answers by kind of work: how many, how long, and by which status."""
    print(f"{'':14}{'answers':>8}{'median ms':>11}{'p95 ms':>9}  status")
    for kind, took in sorted(told.took.items()):
        p95 = sorted(took)[math.ceil(0.95 * len(took)) - 1]
        by = {status: n for (name, status), n in sorted(told.status.items()) if name == kind}
        print(
            f"{kind:14}{len(took):>8}{statistics.median(took):>11.0f}{p95:>9.0f}  {', '.join(f'{n} x {status}' for status, n in by.items())}"
        )


if __name__ == "__main__":
    sys.exit(main())
