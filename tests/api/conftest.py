"""What tests of the web API begin with."""

import pytest


@pytest.fixture
def url(production_id):
    """The address of the demo's production."""
    return f"/api/v1/productions/{production_id}"
