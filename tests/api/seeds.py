"""Good requests: for every operation of the API one that is answered, so that a spoiled one reaches the code behind it."""

import json
import time
from dataclasses import dataclass, field

from tests.core.evaluation.test_evaluate import REQUEST
from tests.media.clips import still_bytes

BYTES = "application/octet-stream"


@dataclass
class Seed:
    """One request: names in its path, its query, its body; what is bytes goes as it is."""

    path: dict = field(default_factory=dict)
    query: dict = field(default_factory=dict)
    body: object = None


def written(client, url, *names):
    """What is kept at an address, as it is written back."""
    kept = client.get(url).json()
    return {name: kept[name] for name in names}


def seeds_of(client, url):
    """Seeds by the names of their operations; all of them are of one production, whose address is given."""
    bench = client.get(f"{url}/bench").json()["state"]
    body = client.get(f"{url}/bodies").json()["here"][0]["id"]
    lens_set = client.get(f"{url}/lens-sets").json()["here"][0]["id"]
    body_kept, set_kept = (
        client.get(f"{url}/bodies/{body}").json(),
        client.get(f"{url}/lens-sets/{lens_set}").json(),
    )
    comparison = client.get(f"{url}/comparisons").json()["here"][0]["id"]
    compared = client.get(f"{url}/comparisons/{comparison}").json()
    shots = client.get(f"{url}/shots").json()["document"]
    packing = client.get(f"{url}/packing").json()["document"]
    sheets = client.get(f"{url}/sheets").json()["document"]
    plan = sheets["bundles"][0]["sheets"][0]
    format_id, lens_id = bench["format_id"], bench["lens_id"]
    at_bench, lens = {"state": bench}, {"lens_id": lens_id}
    first = {**shots, "shots": shots["shots"][:2]}
    take = {"kind": "take", "key": "k" * 32, "at": "2026-05-04T18:00:00Z", "by": "Ines", "written_at": "2026-05-04T18:00:00Z",
            "unit": "A", "day": "1", "shot": shots["shots"][0]["key"], "shot_name": "12A", "take": 1, "on": {}}  # fmt: skip
    clip = {"name": "a.jpg", "raster": [3840, 2160]}
    table, still = b"Number,Framing\n1,waist\n", still_bytes()
    facts = {"facts": {"name": "Slack water"}}
    small = {"version": 0, "removed": False}
    file = client.get(f"{url}/file").content
    of_body, of_set = {"body_id": body}, {"set_id": lens_set}
    client.put(f"{url}/log/{take['key']}", json={"entry": take, "based_on": 0})
    printed = client.post(f"{url}/sheets/prints", json={"title": "Two", "plans": [plan]}).json()["name"]
    until = time.monotonic() + 60
    while client.get(f"{url}/sheets/prints/{printed}").json()["state"] != "done" and time.monotonic() < until:
        time.sleep(0.1)
    return {
        "ask": Seed(query={"q": "50 s35"}), "distance_read": Seed(query={"text": "9'6\""}),
        "evaluate": Seed(body=REQUEST), "production_add": Seed(body=facts),
        "production_file_read": Seed(body=file),
        "production_write": Seed(body=written(client, url, "version", "facts")),
        "bench_write": Seed(body=written(client, f"{url}/bench", "version", "state")),
        **{name: Seed(body=at_bench) for name in ("bench_view", "bench_depth", "bench_depth_csv", "bench_exposure", "bench_flicker")},
        "bench_mend": Seed(body=bench),
        "shot_from_bench": Seed(body=at_bench | {"number": "99"}),
        "body_add": Seed(body={"document": body_kept["document"]}), "body_sheet": Seed(body=body_kept["document"]),
        "body_read": Seed(of_body), "body_changes": Seed(of_body),
        "body_write": Seed(of_body, body={k: body_kept[k] for k in ("version", "document")}),
        "body_settle": Seed(of_body, body={"version": body_kept["version"]}),
        "body_remove": Seed(of_body, body=small | {"version": body_kept["version"]}),
        "lens_set_add": Seed(body={"document": set_kept["document"]}), "lens_set_sheet": Seed(body=set_kept["document"]),
        "lens_set_read": Seed(of_set), "lens_set_changes": Seed(of_set),
        "lens_set_write": Seed(of_set, body={k: set_kept[k] for k in ("version", "document")}),
        "lens_set_settle": Seed(of_set, body={"version": set_kept["version"]}),
        "lens_set_remove": Seed(of_set, body=small | {"version": set_kept["version"]}),
        "rig_write": Seed(body=written(client, f"{url}/rig", "version", "document")), "rig_sheet": Seed(body=client.get(f"{url}/rig").json()["document"]),
        "settings_write": Seed(body=written(client, f"{url}/settings", "version", "settings")),
        "compare_view": Seed(body={"document": compared["document"]}),
        "compare_match": Seed(body={"document": compared["document"], "index": 1}),
        "comparison_add": Seed(body={"document": compared["document"]}),
        "comparison_read": Seed({"comparison_id": comparison}),
        "comparison_write": Seed({"comparison_id": comparison}, body={k: compared[k] for k in ("version", "document")}),
        "comparison_remove": Seed({"comparison_id": comparison}, body=small | {"version": compared["version"]}),
        "data_table": Seed(body={"fps": "25"}), "formats_find": Seed(body={"rate": {"fps": "24"}}),
        "body_quick": Seed(body={"sensor": {"size_mm": "36 x 24", "photosites": "6000 x 4000"}, "name": "A"}),
        "anything_read": Seed(body={"text": "Skerry\nSensor 36 x 24 mm, 24 MP\nFull up to 60\n25 35 T1.5 E18"}),
        "equipment_add": Seed(body={"filters": [{"key": "nd", "name": "ND 2.7", "stops": 9.0}]}),
        "equipment_undo": Seed(body={"bodies": [], "lens_sets": [], "mounts": [], "rig_before": None, "rig_version": None}),
        "lens_set_line": Seed(body={"line": "25 35 50 T2", "mount": "W54"}),
        **{f"sheets_print_{what}": Seed({"name": printed}) for what in ("seen", "file", "stop")},
        "kit_coverage": Seed(body=lens | {"format_id": format_id}), "kit_field": Seed(body=lens | {"format_id": format_id, "distance_m": 3, "width_m": 2}),
        "kit_ladder": Seed(body={"base_format_id": format_id}), "kit_match": Seed(body={"focal_mm": 50, "subject_m": 3}),
        "kit_matrix": Seed(body={"format_ids": [format_id]}), "kit_matrix_csv": Seed(body={"format_ids": [format_id]}),
        "bench_move": Seed(body={"state": client.get(f"{url}/bench").json()["state"], "format_ids": [format_id]}),
        "kit_worth": Seed(body={"shot": {"name": "1", "framing": "chest", "stop": "T2.8"}}),
        "kit_slow_motion": Seed(body={"base_format_id": format_id, "fps": 50}),
        "shots_write": Seed(body=written(client, f"{url}/shots", "version", "document")),
        "shots_view": Seed(body={"document": first}), "shots_pictures": Seed(body={"shots": first["shots"]}),
        "shots_listed": Seed(body={"document": first, "known": {first["shots"][0]["key"]: "00"}}),
        "shot_answer": Seed(body={"shot": first["shots"][0]}),
        "shot_bench": Seed(body={"shot": first["shots"][0]}),
        "shot_rented": Seed(body={"shot": first["shots"][0]}),
        "shots_file": Seed({"kind": "csv"}), "shots_file_read": Seed({"kind": "csv"}, body=table),
        "packing_write": Seed(body=written(client, f"{url}/packing", "version", "document")), "packing_view": Seed(body={"document": packing}),
        "kit_search": Seed(body={"document": packing, "kits": [packing["kits"][0]["key"]]}),
        "plan_read": Seed(), "plan_write": Seed(body={"version": 0, "document": packing, "kit": None}),
        "kit_search_seen": Seed({"name": packing["kits"][0]["key"]}), "kit_search_stop": Seed({"name": packing["kits"][0]["key"]}),
        "sheets_write": Seed(body=written(client, f"{url}/sheets", "version", "document")),
        "sheet_view": Seed(body={"plan": plan}), "sheet_seen": Seed({"key": plan["key"]}), "sheet_file": Seed({"key": plan["key"], "kind": "csv"}),
        "sheets_print": Seed(body={"title": "Two", "plans": [plan]}),
        "set_depth": Seed(query={"format_id": format_id, "lens_id": lens_id}), "set_depths": Seed(query={"format_id": format_id}),
        "set_held": Seed(body={"shot": shots["shots"][0]["key"], "on": {}}),
        "set_settings_write": Seed(body=written(client, f"{url}/set/settings", "version", "document")),
        "log_write": Seed({"key": "k" * 32}, body={"entry": take, "based_on": 0}), "log_read": Seed({"key": "k" * 32}),
        "clips_list": Seed(body={"facts": [clip]}), "live_read": Seed({"unit": "A"}),
        "clip_read": Seed(query={"name": "a.jpg", "size": len(still), "head": len(still)}, body=still),
        "file_write": Seed({"kind": "formats.csv"}, {"document_id": body}),
        "file_read": Seed({"kind": "formats.csv"}, {"document_id": body}, client.get(f"{url}/files/formats.csv?document_id={body}").content),
        "history_list": Seed({"kind": "shots"}), "history_read": Seed({"kind": "body", "version": 1}, {"id": body}),
        "handover_write": Seed({"kind": "usd"}), "handover_read": Seed({"kind": "usd"}, body=client.get(f"{url}/handover/usd").content),
    }  # fmt: skip


def fresh(client, where, seed):
    """The body of a seed, based on the version that is kept now."""
    if isinstance(seed.body, dict) and "version" in seed.body:
        for address in (where, where.rsplit("/", 1)[0]):
            kept = client.get(address)
            if kept.status_code == 200 and "version" in kept.json():
                return seed.body | {"version": kept.json()["version"]}
    return seed.body


def plain_body(seed):
    """The body of a seed as bytes."""
    return (
        b""
        if seed.body is None
        else seed.body
        if isinstance(seed.body, bytes)
        else json.dumps(seed.body).encode()
    )
