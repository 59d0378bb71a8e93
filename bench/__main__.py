"""Run all measurements and print one line for each."""

from __future__ import annotations

import json
import sys

from bench import bulk, finder, history, kit, latency, live, packing, screen, sheets, shots, written

LINE = "{:78} {:>9}   aim {:>10}   {}"


def main() -> int:
    before, machine_ms = history.last(), history.yardstick_ms()
    results = [bulk.against_bare_numpy(), *finder.against_evaluation(), kit.against_bare_formulas()]
    results += written.understood()
    results += shots.judged()
    results += packing.proved()
    results += sheets.printed()
    with latency.server() as address:
        results += latency.against_empty(address)
        results += screen.measure(address)
        results += live.measured(address)
    for result in results:
        verdict = "met" if result.met else "MISSED"
        print(LINE.format(result.name, result.shown, result.aim, verdict))
    print(f"this machine's yardstick: {machine_ms:.1f} ms")
    for told in history.slower(results, machine_ms, before) if before else ():
        print(told)
    history.add(results, machine_ms)
    print(json.dumps({result.name: result.value for result in results}))
    return 0


if __name__ == "__main__":
    sys.exit(main())
