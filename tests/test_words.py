"""One thing, one word: what the screens show and the core says is held against the glossary in docs/conventions.md."""

import ast
import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]


def banned():
    """The words of the glossary's last column."""
    text = (ROOT / "docs" / "conventions.md").read_text(encoding="utf-8")
    table = text.split("| Say | For | Not |")[1].split("\n\n")[0]
    rows = [
        line.strip("|").split("|")
        for line in table.splitlines()
        if line.startswith("|") and "---" not in line
    ]
    return {word.strip().lower() for row in rows for word in row[2].split(",")}


def shown_by(component):
    """The text of a component: what stands between tags, in attributes that are read, and in strings of its script."""
    text = re.sub(
        r"<style.*?</style>|<!--.*?-->|/\*.*?\*/|^\s*//.*?$", "", component, flags=re.DOTALL | re.MULTILINE
    )
    script = "".join(re.findall(r"<script.*?</script>", text, re.DOTALL))
    markup = re.sub(r"<script.*?</script>", "", text, flags=re.DOTALL)
    read = re.findall(r"(?:title|label|aria-label|placeholder|name|what)=\"([^\"]*)\"", markup)
    between = re.findall(r">([^<>{}]+)[<{]", markup)
    strings = re.findall(r"'([^'\n]*)'|`([^`]*)`", script + markup)
    return [*read, *between, *(a or b for a, b in strings)]


def said_by(module):
    """The strings of a module that are no docstrings."""
    tree = ast.parse(module)
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    return [
        n.value
        for n in ast.walk(tree)
        if isinstance(n, ast.Constant) and isinstance(n.value, str) and id(n) not in docs
    ]


COMPONENTS = sorted(p for kind in ("svelte", "ts") for p in (ROOT / "web" / "src").rglob(f"*.{kind}")
                    if ".test." not in p.name and "generated" not in p.parts)  # fmt: skip
MODULES = sorted(p for p in (ROOT / "src" / "hextan").rglob("*.py") if "versions" not in p.parts)


def test_the_glossary_names_words_that_are_not_said():
    assert {"put on", "least trouble", "max fps"} <= banned()


@pytest.mark.parametrize("kind", ["screens", "sentences"])
def test_no_other_words_are_used(kind):
    files, read = (COMPONENTS, shown_by) if kind == "screens" else (MODULES, said_by)
    found = [
        f"{path.relative_to(ROOT)}: {word!r} in {text.strip()[:80]!r}"
        for path in files
        for text in read(path.read_text(encoding="utf-8"))
        # Keys and identifiers are no words.
        if " " in text.strip() or path.suffix == ".svelte"
        for word in banned()
        if re.search(rf"(?<![\w-]){re.escape(word)}(?![\w-])", text.lower())
    ]
    assert found == []


OF_DOCUMENTS = [
    "int",
    "float",
    "bool",
    "string",
    "list",
    "dict",
    "model",
    "literal",
    "union",
    "missing",
    "extra",
    "too",
    "greater",
    "less",
    "finite",
    "value",
    "json",
]


def test_no_words_of_the_validation_library_reach_anybody():
    """Every kind of error that the library can tell of a document has a rule of ours."""
    from typing import get_args

    from pydantic_core.core_schema import ErrorType

    from hextan.core.base.checked import _RULES

    of_documents = {kind for kind in get_args(ErrorType) if kind.split("_")[0] in OF_DOCUMENTS}
    # What our models cannot raise: they have no calls with arguments, and no fields for ASCII alone.
    calls = {kind for kind in of_documents if kind.startswith("missing_")} | {"string_not_ascii"}
    assert of_documents - calls <= set(_RULES)
