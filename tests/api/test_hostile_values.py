"""A seeded mutator over every operation of the served document: whatever is sent, no answer is a 5xx."""

import contextlib
import json
import random

import pytest

from hextan.core.base import InvalidInputError
from hextan.core.base.errors import plain, shown
from hextan.formats.text import decode_json, refuse_what_is_no_text
from tests.api.seeds import Seed, fresh, plain_body, seeds_of
from tests.budget import examples
from tests.core.evaluation.test_evaluate import REQUEST

BYTES = {"content-type": "application/octet-stream"}
#: Requests of each operation.
SEED, ROUNDS = 8, examples(48)
#: Raw JSON, because some of it is nothing that a program would write.
NASTY = [
    r'"\ud800"', r'"\udfff x"', r'"\u0000"', '""', '"' + "x" * 5000 + '"', r'"\u202e\n"', "1e400", "-1e400", "1e-320", "1e-30",
    "0", "-0.0", "-1", "1" * 20, "9" * 400, "1" * 4301, "9223372036854775808", "1.5", "NaN", "null", "true", "[]", "{}",
    "[" * 200 + "]" * 200, r'{"\ud800": 1}', '{"__proto__": null}', "[null, null]", '"NaN"', '"1/0"', '"0/1"', '"1e999"', '"m"',
]  # fmt: skip

#: Those of them that stand in a query.
FLAT = [
    text
    for text in NASTY
    if text[0] not in "[{" and text not in ("NaN", "null") and len(text) < 400 and "ud" not in text
]


def instance(schema, whole, rng, depth=0):
    """Something that fits a schema, now and then; what does not is as good."""
    if "$ref" in schema:
        return instance(whole["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]], whole, rng, depth)
    for several in ("anyOf", "oneOf", "allOf"):
        if several in schema:
            return instance(rng.choice(schema[several]), whole, rng, depth)
    if "const" in schema or "enum" in schema:
        return schema.get("const", rng.choice(schema.get("enum", [None])))
    if "default" in schema and rng.random() < 0.3:
        return schema["default"]
    kind = schema.get("type")
    if kind == "object":
        keys = schema.get("properties", {})
        needed = set(schema.get("required", ()))
        return {
            k: instance(s, whole, rng, depth + 1)
            for k, s in keys.items()
            if k in needed or rng.random() < 0.6 - depth / 10
        }
    if kind == "array":
        count = rng.randint(
            schema.get("minItems", 0), max(schema.get("minItems", 0), min(3, schema.get("maxItems", 3)))
        )
        return [instance(schema.get("items", {}), whole, rng, depth + 1) for _ in range(count)]
    low = schema.get("minimum", schema.get("exclusiveMinimum", 0))
    if kind == "integer":
        return rng.randint(int(low), int(min(low + 40, schema.get("maximum", low + 40))))
    if kind == "number":
        return round(low + rng.random() * (min(schema.get("maximum", 50), 50) - low), 3) or 1.0
    return {"boolean": rng.random() < 0.5, "string": rng.choice(["x", "25", "a name"])}.get(kind)


def places(value, path=()):
    """Every place in plain data."""
    yield path
    items = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    for key, item in items:
        yield from places(item, (*path, key))


def spoiled(value, rng):
    """The same as JSON with something else in one or two places; or another key."""
    text = json.dumps(value)
    marks = {}
    for n in range(rng.randint(1, 2)):
        found = list(places(value))
        at = rng.choice(found)
        mark = f"\x01{n}"
        marks[json.dumps(mark)] = rng.choice(NASTY)
        if not at:
            return rng.choice(NASTY)
        copy = json.loads(text)
        target = copy
        for step in at[:-1]:
            target = target[step]
        target[at[-1]] = mark
        value, text = copy, json.dumps(copy)
    for mark, nasty in marks.items():
        text = text.replace(mark, nasty)
    return text


def filled(path, here, rng):
    """An address with numbers of what is there, or of what cannot be."""
    for name in [p.split("}")[0] for p in path.split("{")[1:]]:
        known = here.get(name, ["1"])
        odd = ["0", "-1", str(2**63), str(2**53), "9" * 40, "x", "%00", "%ff", "1.5"]
        path = path.replace(f"{{{name}}}", str(rng.choice(known if rng.random() < 0.8 else odd)))
    return path


#: What ends the production that everything else is asked of: they come last, in this order.
LAST = ("production_remove", "demo_reset")


def operations_of(document):
    """Every operation: its name, method, path and the kind of its body."""
    found = [
        (operation["operationId"], method, path, next(iter(operation.get("requestBody", {}).get("content", {})), None), operation)
        for path, operations in document["paths"].items()
        for method, operation in operations.items()
        # A stream without an end.
        if not path.endswith("/events")
    ]  # fmt: skip
    return sorted(found, key=lambda each: each[0] in LAST and 1 + LAST.index(each[0]))


def test_nothing_that_can_be_sent_is_answered_with_a_5xx(client, session, production_id):
    """Each operation has a good request, which is answered; spoiled in one or two places, it is answered or refused."""
    document = client.get("/api/v1/openapi.json").json()
    seeds = seeds_of(client, f"/api/v1/productions/{production_id}")
    rng = random.Random(SEED)
    tried, never = 0, []
    for name, method, path, kind, operation in operations_of(document):
        seed = seeds.get(name, Seed())
        here = {"production_id": production_id} | seed.path
        headers = {"content-type": kind} if kind else {}

        def ask(where, body, query, headers=headers, method=method):
            answer = client.request(method.upper(), where, content=body, params=query, headers=headers)
            assert answer.status_code < 500, (method, where, query, body[:600], answer.text)
            answer.json() if answer.headers["content-type"] == "application/json" else answer.content
            return answer

        # What one operation kept is gone when the next is tried.
        with afterwards_as_before(session):
            good = path
            for step, value in here.items():
                good = good.replace(f"{{{step}}}", str(value))
            whole = fresh(client, good, seed)
            if ask(good, plain_body(Seed(body=whole)), seed.query).status_code >= 300 and name not in LAST:
                never.append(name)
            content = operation.get("requestBody", {}).get("content", {}).get(kind, {})
            # What begins a process of its own is asked less often.
            for n in range(
                8 if name in ("kit_search", "sheets_print", "clip_read") else ROUNDS if kind else 6
            ):
                body = b""
                if isinstance(whole, bytes):
                    body = bytes(spoiled_bytes(whole, rng))
                elif kind:
                    # Of a good request, or of one that is made from the schema alone.
                    value = (
                        whole
                        if whole is not None and n % 4
                        else instance(content.get("schema", {}), document, rng)
                    )
                    body = spoiled(value, rng).encode("utf-8", "surrogatepass")
                query = {
                    key: rng.choice([value, json.loads(rng.choice(FLAT))])
                    for key, value in seed.query.items()
                }
                ask(filled(path, {step: [value] for step, value in here.items()}, rng), body, query)
                tried += 1
    assert never == []
    assert tried > 75 * ROUNDS


@contextlib.contextmanager
def afterwards_as_before(session):
    """Whatever is kept within this is taken back."""
    session.close()
    savepoint = session.get_bind().begin_nested()
    yield
    session.close()
    savepoint.rollback()


def spoiled_bytes(data, rng):
    """The same with some bytes changed, cut off or repeated."""
    copy = bytearray(data[: rng.choice([len(data), rng.randint(0, len(data))])])
    for _ in range(rng.randint(0, 8)):
        if copy:
            at = rng.randrange(len(copy))
            copy[at : at + rng.randint(0, 9)] = rng.choice(
                [b"", b"\0", b"\xff", b'"', b"9" * 30, b"[[[[", b"\n,", copy[:50]]
            )
    return copy


FDL = {
    "uuid": "3f0d7c1e-9d0f-4b1c-8a2e-5f6a7b8c9d0e", "version": {"major": 2, "minor": 0}, "fdl_creator": "x", "framing_intents": [],
    "contexts": [{"label": "A", "context_creator": "x", "canvases": [{
        "label": "C", "id": "C1", "source_canvas_id": "C1", "dimensions": {"width": 4096, "height": 2160},
        "photosite_dimensions": {"width": 4096, "height": 2160}, "physical_dimensions": {"width": 24.0, "height": 12.7},
        "framing_decisions": [], "anamorphic_squeeze": 1.0}]}], "canvas_templates": [],
}  # fmt: skip


@pytest.mark.parametrize("value", [[], {}, [1], True, -1, 0, 1e400, "", 10**30, None, "x"])
@pytest.mark.parametrize(
    "key",
    ["_hextan_mode_name", "_hextan_format_name", "_hextan_format_rates", "_hextan_mode_window_w", "_hextan_mode_offset_h",
     "_hextan_mode_sampling_v", "_hextan_body_pitch_um", "_hextan_body_photosites_w", "_hextan_body_name", "_hextan_body_eis"],
)  # fmt: skip
def test_own_keys_of_an_fdl_may_hold_anything(client, production_id, key, value):
    spoilt = json.loads(json.dumps(FDL))
    context = spoilt["contexts"][0]
    (context if key.startswith("_hextan_body") else context["canvases"][0])[key] = value
    answer = client.post(
        f"/api/v1/productions/{production_id}/files/fdl", content=json.dumps(spoilt), headers=BYTES
    )
    assert answer.status_code in (201, 422), answer.text
    if answer.status_code == 422:
        assert answer.json()["error"]["message"]


@pytest.mark.parametrize(
    "cell", ["inf", "-inf", "nan", "1e400", "9" * 400, "1_000", "0x10", "١٢", "1e5", "1.5", "--1", "1e-400"]
)
def test_cells_that_are_no_number(client, production_id, cell):
    body = client.get(f"/api/v1/productions/{production_id}/bodies").json()["here"][0]["id"]
    table = f"mode,window_w,window_h,format,raster_w,raster_h,rates\nM,{cell},2000,F,3840,2160,24\n"
    answer = client.post(
        f"/api/v1/productions/{production_id}/files/formats.csv",
        params={"document_id": body},
        content=table.encode(),
        headers=BYTES,
    )
    assert answer.status_code == 422
    assert "row 2, column window_w" in answer.json()["error"]["message"]


def test_a_list_keeps_its_places_whatever_one_of_them_holds(client):
    answer = client.post(
        "/api/v1/evaluate", content=json.dumps([REQUEST, {"lens": {"focal_mm": 10**20}}, 10**20, REQUEST])
    )
    assert answer.status_code == 200
    good, wrong, number, again = answer.json()
    assert good == again
    assert wrong["error"]["code"] == number["error"]["code"] == "invalid_input"


@pytest.mark.parametrize(
    "text", [r'{"\ud800":1}', r'{"lens": "\udc00"}', "[" + "1" * 4301 + "]", '{"lens": ' + "9" * 5000 + "}"]
)
def test_what_no_answer_could_repeat(client, text):
    answer = client.post("/api/v1/evaluate", content=text)
    assert answer.status_code in (200, 422)
    assert "error" in answer.text


def test_numbers_too_long_to_write_are_told_by_their_length():
    assert plain(10**5000) == "a whole number of about 5001 digits"
    assert plain(2**62) == 2**62
    assert shown(10**5000).startswith("'a whole number of about")


def test_halves_of_characters_are_refused_and_pairs_are_not():
    refuse_what_is_no_text(rb'{"a": "\ud83d\ude00", "b": "\\ud800"}')
    for bad in (rb'"\ud83d"', rb'"\ude00\ud83d"', rb'{"\ud83dx": 1}'):
        with pytest.raises(InvalidInputError):
            refuse_what_is_no_text(bad)
    with pytest.raises(InvalidInputError, match="more digits than can be read"):
        decode_json(b"[" + b"1" * 4301 + b"]")


@pytest.mark.parametrize("length", [255, 256, 300, 5000])
def test_addresses_longer_than_any_name_of_a_file(tmp_path, length):
    from starlette.testclient import TestClient

    from hextan.api.app import bare_app
    from hextan.api.front_end import serve_front_end

    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<title>Hextan</title>")
    (tmp_path / ".sources").write_text("secret")
    app = bare_app(("testserver",))
    serve_front_end(app, tmp_path)
    with TestClient(app, raise_server_exceptions=False) as site:
        assert "<title>" in site.get("/" + "a" * length).text
        assert "secret" not in site.get("/.sources").text
