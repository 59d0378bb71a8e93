"""The public evaluation format over HTTP, and the shapes that the OpenAPI document promises."""

import io
import json
import sys

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from jsonschema import Draft202012Validator
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from hextan.api.app import bare_app
from hextan.cli import main
from hextan.core import evaluate
from hextan.core.base import ErrorAnswer
from hextan.core.evaluation import EvaluationAnswer
from tests.budget import examples
from tests.core.evaluation.test_evaluate import REQUEST, asking
from tests.shapes import check_shape

CHECKS = (not_a_server_error, response_schema_conformance, status_code_conformance)


def test_three_doors_agree_to_the_last_digit(client, tmp_path, capsys):
    text = json.dumps(REQUEST)
    over_http = client.post("/api/v1/evaluate", content=text).json()
    (tmp_path / "request.json").write_text(text)
    assert main(["evaluate", str(tmp_path / "request.json")]) == 0
    assert over_http == json.loads(capsys.readouterr().out) == evaluate(REQUEST)


def test_command_reads_standard_input(monkeypatch, capsys):
    monkeypatch.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(json.dumps([REQUEST, {}]).encode())))
    assert main(["evaluate", "-"]) == 0
    good, bad = json.loads(capsys.readouterr().out)
    assert good == evaluate(REQUEST)
    assert bad["error"]["code"] == "invalid_input"


@pytest.mark.parametrize("text", ["{", '{"lens": {"focal_mm": -1}}'])
def test_command_refuses_bad_input_with_status_2(text, tmp_path, capsys):
    (tmp_path / "bad.json").write_text(text)
    assert main(["evaluate", str(tmp_path / "bad.json")]) == 2
    told = capsys.readouterr()
    assert told.out == ""
    assert told.err.startswith("hextan: ")


def test_command_names_a_missing_file(capsys):
    assert main(["evaluate", "/nowhere/request.json"]) == 2
    assert capsys.readouterr().err == "hextan: /nowhere/request.json: No such file or directory\n"


@pytest.mark.parametrize(
    "changes",
    [{}, {"subject": {}}, {"subject": {"distance_m": 500.0}}, {"lens__projection": "orthographic", "lens__focal_mm": 8},
     {"lens__image_circle_mm": None, "format__timing": {}, "background_m": []}],
)  # fmt: skip
def test_answers_have_the_promised_shape(changes):
    check_shape(EvaluationAnswer, evaluate(asking(**changes)))


def test_errors_have_the_promised_shape(client):
    answer = client.post("/api/v1/evaluate", content=b'{"lens": {}}')
    assert answer.status_code == 422
    check_shape(ErrorAnswer, answer.json())
    assert [f["field"] for f in answer.json()["error"]["faults"]] == ["lens.focal_mm", "formats"]
    cannot = client.post("/api/v1/evaluate", json=asking(subject={"distance_m": 0.1}))
    assert (cannot.status_code, cannot.json()["error"]["code"]) == (422, "cannot_focus")


def test_the_documented_request_schema_accepts_the_example():
    document = bare_app().openapi()
    schema = {"$ref": "#/components/schemas/EvaluationRequest", "components": document["components"]}
    assert list(Draft202012Validator(schema).iter_errors(REQUEST)) == []
    assert list(Draft202012Validator(schema).iter_errors(asking(lens__focal_mm=-1)))


def test_bodies_are_limited(client):
    answer = client.post("/api/v1/evaluate", content=b" " * (9 * 1024 * 1024))
    assert answer.status_code == 413
    assert answer.json()["error"]["code"] == "too_large"


def test_no_input_breaks_an_endpoint(client, application):
    """schemathesis: what the document says is what happens, and never a 5xx."""
    document = schemathesis.openapi.from_asgi("/api/v1/openapi.json", client.app)
    tried = []
    for found in document.get_all_operations():
        operation = found.ok()
        tried.append(operation.label)
        if operation.path.endswith("/events"):
            # A stream without an end: tests/ui/test_set_view.py listens to it.
            continue

        @given(case=operation.as_strategy())
        @settings(max_examples=examples(15), deadline=None, suppress_health_check=list(HealthCheck))
        def breaks_nothing(case):
            case.call_and_validate(checks=CHECKS)

        breaks_nothing()
    assert len(tried) == len([m for path in application.openapi()["paths"].values() for m in path])
