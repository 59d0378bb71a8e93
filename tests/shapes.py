"""Holds plain data against the shapes that the core declares: all keys, and no others."""

from functools import cache

from pydantic import TypeAdapter

_adapter = cache(TypeAdapter)


def check_shape(shape, data):
    """Fail where data are not of a shape, at any depth."""
    adapter = _adapter(shape)
    # What a shape does not know is left out of what is read.
    read = adapter.dump_python(adapter.validate_python(data), mode="json")
    assert read == adapter.dump_python(data, mode="json", warnings=False)
