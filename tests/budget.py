"""How much of a test is left to chance: a fixed budget for every run, much more on demand (`./hextan test --long`).

What chance chooses is seeded from the commit by the launcher: the same commit is tested the same way everywhere, the next one another way.
What a long run finds is kept in `tests/counter_examples`, and tried again by every run.
"""

import os
from pathlib import Path

from hypothesis.database import DirectoryBasedExampleDatabase, ReadOnlyDatabase

LONG = os.environ.get("HEXTAN_LONG") == "1"
FOUND = DirectoryBasedExampleDatabase(Path(__file__).parent / "counter_examples")
DATABASE = FOUND if LONG else ReadOnlyDatabase(FOUND)


def examples(most: int) -> int:
    """So many of the examples that a property deserves: a quarter in every run, ten times as many in a long one."""
    return most * 10 if LONG else max(5, most // 4)
