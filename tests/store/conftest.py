"""What tests of the database begin with."""

import pytest

from hextan.store import models


@pytest.fixture
def production(session):
    row = models.Production(name="Second unit", synopsis="")
    session.add(row)
    session.commit()
    return row
