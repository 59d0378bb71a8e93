"""Files for other programs over the API: set-ups out, cameras in."""

import json

import pytest

from hextan.store.models import Production


@pytest.fixture
def at(client, production_id):
    return f"/api/v1/productions/{production_id}/handover"


@pytest.mark.parametrize("kind", ["usd", "opentrackio", "fdl"])
@pytest.mark.parametrize("of", ["bench", "comparisons", "shots"])
def test_every_kind_of_every_source(client, at, kind, of):
    answer = client.get(f"{at}/{kind}?of={of}")
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-disposition"].startswith('attachment; filename="Low Water, ')
    assert answer.content.startswith(b"#usda" if kind == "usd" else (b"{", b"["))


def test_what_went_out_comes_back_as_a_bench(client, at, production_id):
    bench = client.get(f"/api/v1/productions/{production_id}/bench").json()["state"]
    for kind in ("usd", "opentrackio"):
        file = client.get(f"{at}/{kind}").content
        read = client.post(f"{at}/{kind}", content=file, headers={"content-type": "application/octet-stream"})
        (setup,) = read.json()["setups"]
        assert setup["notes"] == []
        for name in ("format_id", "lens_id", "adapter_id", "subject_m", "fps"):
            assert setup["state"][name] == pytest.approx(bench[name]), name
        assert (
            client.post(
                f"/api/v1/productions/{production_id}/bench/view", json={"state": setup["state"]}
            ).status_code
            == 200
        )


def test_what_cannot_be_read_or_written_says_why(client, session, at):
    def post(kind, data):
        return client.post(f"{at}/{kind}", content=data, headers={"content-type": "application/octet-stream"})

    assert post("usd", b"PXR-USDC").json()["error"]["faults"][0]["rule"].startswith("is a binary layer")
    assert post("opentrackio", b"{").status_code == 422
    assert post("fdl", b"{}").status_code == 422
    assert post("fbx", b"{}").status_code == 404
    assert client.get(f"{at}/fbx").status_code == 404
    assert client.get(f"{at}/usd?of=everything").status_code == 422
    row = Production(name="Bare")
    session.add(row)
    session.commit()
    bare = client.get(f"/api/v1/productions/{row.id}/handover/usd?of=shots")
    assert bare.status_code == 422
    assert "no set-up" in bare.text
    stranger = json.dumps({"protocol": {"name": "OpenTrackIO"}, "lens": {"pinholeFocalLength": 35}}).encode()
    assert client.post(f"/api/v1/productions/{row.id}/handover/opentrackio", content=stranger,
                       headers={"content-type": "application/octet-stream"}).json()["error"]["code"] == "nothing_yet"  # fmt: skip
