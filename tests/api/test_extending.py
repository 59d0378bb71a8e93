"""docs/extending.md, done: a file format that nobody has, as a row of the table of kinds."""

import pytest

from hextan.api import file_routes
from hextan.core.documents import LensSetDocument, parse_lens_set
from hextan.formats import kinds
from hextan.formats.kinds import FileKind, Found
from tests.core.kits import a_lens, a_set

BYTES = {"content-type": "application/octet-stream"}


def names_of(lens_set, _):
    return "\n".join(lens.name for lens in lens_set.lenses).encode()


def set_of(data):
    lenses = [a_lens(name, 20.0 + i) for i, name in enumerate(data.decode().splitlines())]
    return Found([parse_lens_set(a_set(lenses, name="Named"))], notes=["Focal lengths are made up."])


@pytest.fixture
def toy(monkeypatch):
    kind = FileKind[LensSetDocument](
        name="names.txt", of="lens_set", title="Names", told="one in each line", suffix="txt", media_type="text/plain",
        write=names_of, read=set_of)  # fmt: skip
    for module in (kinds, file_routes):
        monkeypatch.setattr(module, "KINDS", (*kinds.KINDS, kind))
    return kind


def test_a_file_format_is_a_row(client, production_id, toy):
    listed = {k["kind"]: k for k in client.get("/api/v1/files").json()["here"]}
    assert (listed["names.txt"]["title"], listed["names.txt"]["adds"], listed["names.txt"]["merges"]) == (
        "Names",
        True,
        False,
    )
    at = f"/api/v1/productions/{production_id}"
    made = client.post(f"{at}/files/names.txt", content=b"Heron 20\nHeron 21", headers=BYTES)
    assert made.status_code == 201
    assert made.json()["notes"] == ["Focal lengths are made up."]
    number = made.json()["lens_sets"][0]["id"]
    file = client.get(f"{at}/files/names.txt", params={"document_id": number})
    assert (file.content, file.headers["content-disposition"]) == (
        b"Heron 20\nHeron 21", "attachment; filename*=UTF-8''Named.txt")  # fmt: skip
