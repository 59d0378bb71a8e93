"""What is written is a valid ASC FDL by the standard's own library (asc-fdl: its schema and its rules)."""

import pytest

from hextan.core.documents import parse_body
from hextan.formats import fdl
from tests.core.bodies import a_body, catalogue


@pytest.fixture(scope="module")
def standard():
    """The library; it wants all of its functions looked up once before it is used."""
    import fdl as library
    import fdl_ffi

    native = fdl_ffi.get_lib()
    for name in dir(native):
        getattr(native, name, None)
    return library


@pytest.mark.parametrize("squeeze", [1.0, 1.5, 2.0])
@pytest.mark.parametrize("index", range(4))
def test_written_files_are_valid(standard, index, squeeze):
    deliveries = [
        fdl.Delivery("scope", (239, 100), 0.1),
        fdl.Delivery("4:3", (4, 3)),
        fdl.Delivery("up", (9, 16), 0.3),
    ]
    document = catalogue()[index]
    data, _ = fdl.write_fdl(document, deliveries, squeeze)
    with standard.FDL.parse(data) as read:
        read.validate()
        canvases = [canvas for context in read.contexts for canvas in context.canvases]
        assert len(canvases) == sum(len(mode.formats) for mode in document.modes)
        assert all(len(list(canvas.framing_decisions)) == len(deliveries) for canvas in canvases)


def test_an_empty_body_is_valid(standard):
    data, _ = fdl.write_fdl(parse_body(a_body()), [])
    with standard.FDL.parse(data) as read:
        read.validate()


def test_the_library_does_refuse(standard):
    """That the check above can fail."""
    data, _ = fdl.write_fdl(catalogue()[0], [fdl.Delivery("x", (4, 3))])
    wrong = data.replace(b'"source_canvas_id": "C1"', b'"source_canvas_id": "C999"')
    with standard.FDL.parse(wrong) as read, pytest.raises(standard.FDLValidationError):
        read.validate()
