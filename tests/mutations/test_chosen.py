"""The changes that a program chooses: each makes other, whole code; types and what is told are left alone."""

import ast
from pathlib import Path

from tests.mutations.chosen import changes_of, chosen

SOURCES = Path(__file__).resolve().parents[2] / "src" / "hextan"
SAMPLE = '''
def f(a: int = 3, b="x" * 2) -> bool:
    """Told 5 times."""
    log.warning("a")
    for i in range(2):
        a += -i
    return not (a < b and a - 1 == 0) or min(a, "ü" != b)
'''


def test_every_kind_is_found_at_its_place():
    found = list(changes_of("core/base/x.py", SAMPLE))
    told = {(c.kind, c.old, c.new) for c in found}
    assert told == {
        ("missing call", 'log.warning("a")', "None"), ("constant", "2", "3"), ("sign", "-i", "i"), ("constant", "1", "2"),
        ("comparison", "a < b", "a <= b"), ("operator", "a - 1", "a + 1"), ("comparison", "a - 1 == 0", "a - 1 != 0"),
        ("and or", "a < b and a - 1 == 0", "a < b or a - 1 == 0"), ("sign", "not (a < b and a - 1 == 0)", "a < b and a - 1 == 0"),
        ("call", 'min(a, "ü" != b)', "max(a, 'ü' != b)"), ("comparison", '"ü" != b', "'ü' == b"),
        ("and or", 'not (a < b and a - 1 == 0) or min(a, "ü" != b)', "not (a < b and a - 1 == 0) and min(a, 'ü' != b)"),
    }  # fmt: skip


def test_what_is_chosen_is_whole_and_the_same_for_a_seed():
    some = chosen(SOURCES, 150, 7, [])
    assert some == chosen(SOURCES, 150, 7, [])
    assert len({c.room for c in some}) > 10
    for change in some:
        text = (SOURCES / change.file).read_text(encoding="utf-8")
        assert ast.dump(ast.parse(change.applied(text))) != ast.dump(ast.parse(text))
    assert {c.file for c in chosen(SOURCES, 20, 1, ["store/"])} <= {
        f"store/{f.name}" for f in (SOURCES / "store").glob("*.py")
    }
