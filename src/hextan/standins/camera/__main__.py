"""``./hextan camera``: simulated cameras that speak until they are ended."""

from __future__ import annotations

import argparse
import json
import sys
import threading
from pathlib import Path
from typing import Any

from hextan.core.base import HextanError
from hextan.core.production import material_of
from hextan.formats import production_json
from hextan.standins.camera.models import invented, models_of
from hextan.standins.camera.serving import HOST, Cameras, Sender
from hextan.standins.camera.simulated import Model, SimulatedCamera


def main(arguments: list[str] | None = None) -> int:
    """Simulate cameras; 2 and a message on standard error for bad input."""
    parser = argparse.ArgumentParser(
        prog="hextan camera", description="simulated cameras that speak OpenTrackIO"
    )
    parser.add_argument("cameras", nargs="*", default=["A=Ebb 64"], metavar="LETTER=BODY[:PORT]",
                        help="as A='Ebb 64':45501; with a port its samples go there as datagrams")  # fmt: skip
    parser.add_argument(
        "--from",
        dest="file",
        metavar="FILE",
        help="bodies of a .hextan.json file instead of the invented ones",
    )
    parser.add_argument(
        "--port", type=int, default=45511, help="of the page, and of samples as lines (/samples/A)"
    )
    parser.add_argument("--secret", default="", help="the word that whoever fetches lines has to say")
    parser.add_argument(
        "--source", action="append", default=[], metavar="LETTER=ID", help="what a camera goes by (sourceId)"
    )
    parser.add_argument(
        "--script",
        metavar="FILE",
        help='a JSON list of steps: [{"at": 3, "camera": "A", "crop": "Stabiliser"}]',
    )
    parser.add_argument("--rate", type=float, default=24.0, help="samples a second")
    options = parser.parse_args(arguments)
    try:
        cameras, ports = _cameras(options)
        script: list[dict[str, Any]] = json.loads(Path(options.script).read_text()) if options.script else []
        server = cameras.serve(options.port)
    except (HextanError, OSError, ValueError) as error:
        print(f"hextan: {getattr(error, 'message', error)}", file=sys.stderr)
        return 2
    senders = [Sender(cameras.cameras[unit], port) for unit, port in ports.items()]
    for sender in senders:
        sender.start()
    print(
        f"Cameras {', '.join(cameras.cameras)}: http://{HOST}:{server.server_address[1]}/ (end with Ctrl-C)",
        flush=True,
    )
    try:
        cameras.follow(script)
        threading.Event().wait()
    except KeyboardInterrupt:
        pass
    except HextanError as error:
        print(f"hextan: {error.message}", file=sys.stderr)
        return 2
    return 0


def _cameras(options: argparse.Namespace) -> tuple[Cameras, dict[str, int]]:
    models: list[Model] = invented()
    if options.file:
        models = models_of(material_of(production_json.read(Path(options.file).read_bytes())).package)
    by_name = {model.name: model for model in models}
    sources = dict(each.split("=", 1) for each in options.source)
    cameras: dict[str, SimulatedCamera] = {}
    ports: dict[str, int] = {}
    for told in options.cameras:
        unit, _, rest = told.partition("=")
        name, _, port = rest.partition(":")
        if name not in by_name:
            raise ValueError(f"there is no body {name or told} to simulate: {', '.join(by_name)}")
        cameras[unit] = SimulatedCamera(unit, by_name[name], sources.get(unit, ""), options.rate)
        if port:
            ports[unit] = int(port)
    return Cameras(cameras, options.secret), ports


if __name__ == "__main__":
    sys.exit(main())
