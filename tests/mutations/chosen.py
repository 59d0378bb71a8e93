"""Changes of the sources that a program chooses: an operator, a border, a sign, a constant, a call that is left out."""

import ast
import random
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

#: What stands for what: comparisons at their borders, arithmetic by its opposite.
_COMPARED = {ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
             ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In}  # fmt: skip
_COMPUTED = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}
_CALLED = {"min": "max", "max": "min", "any": "all", "all": "any", "ceil": "floor", "floor": "ceil"}
#: Where types, and what is told of a field, is written: nothing is computed there.
_NOT_IN = (ast.AnnAssign, ast.arguments)


@dataclass(frozen=True)
class Change:
    """A piece of a file below `src/hextan`, and what is put in its place."""

    file: str
    start: int
    end: int
    old: str
    new: str
    kind: str

    @property
    def room(self) -> str:
        """Where its tests are: a room of the core, or one beside it."""
        first, second, *_ = self.file.split("/")
        return f"core/{second}" if first == "core" else first

    def applied(self, text: str) -> str:
        """The file with the change in it."""
        assert text[self.start : self.end] == self.old
        return text[: self.start] + self.new + text[self.end :]


def changes_of(file: str, text: str) -> Iterator[Change]:
    """Every change that can be made to one file."""
    starts = [0]
    for line in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(line))
    lines = text.splitlines(keepends=True)

    def at(line: int, column: int) -> int:
        # Columns count bytes.
        return starts[line - 1] + len(lines[line - 1].encode()[:column].decode())

    for node in _computing(ast.parse(text)):
        for kind, other in _others(node):
            start, end = at(node.lineno, node.col_offset), at(node.end_lineno, node.end_col_offset)
            old, new = text[start:end], ast.unparse(other)
            if ast.unparse(node) != new:
                yield Change(file, start, end, old, new, kind)


def _computing(tree: ast.AST) -> Iterator[ast.AST]:
    """The nodes of a tree but for those of types, defaults and descriptions."""
    for child in ast.iter_child_nodes(tree):
        if isinstance(child, _NOT_IN) or (
            isinstance(child, ast.Expr) and isinstance(child.value, ast.Constant)
        ):
            continue
        yield child
        yield from _computing(child)


def _others(node: ast.AST) -> Iterator[tuple[str, ast.AST]]:
    match node:
        case ast.Compare(ops=[op]) if type(op) in _COMPARED:
            yield "comparison", ast.Compare(node.left, [_COMPARED[type(op)]()], node.comparators)
        case ast.BinOp(op=op) if type(op) in _COMPUTED and not isinstance(
            node.left, ast.Constant | ast.JoinedStr
        ):
            yield "operator", ast.BinOp(node.left, _COMPUTED[type(op)](), node.right)
        case ast.BoolOp(op=op):
            yield "and or", ast.BoolOp(ast.Or() if isinstance(op, ast.And) else ast.And(), node.values)
        case ast.UnaryOp(op=ast.Not()) | ast.UnaryOp(op=ast.USub()):
            yield "sign", node.operand
        case ast.Constant(value=bool() as value):
            yield "constant", ast.Constant(not value)
        case ast.Constant(value=int() | float() as value) if value:
            yield "constant", ast.Constant(value + 1 if isinstance(value, int) else value * 1.25)
        case ast.Call(func=ast.Name(id=name)) if name in _CALLED:
            yield "call", ast.Call(ast.Name(_CALLED[name]), node.args, node.keywords)
        case ast.Expr(value=ast.Call()):
            yield "missing call", ast.Constant(None)


def chosen(sources: Path, count: int, seed: int, wanted: list[str]) -> list[Change]:
    """So many changes by a seed, spread over the rooms by the size of their code.

    Parameters
    ----------
    wanted : parts of the names of files; all without
    """
    found = [
        change
        for file in sorted(sources.rglob("*.py"))
        if (name := str(file.relative_to(sources))).split("/")[0]
        in ("core", "store", "api", "formats", "live", "media", "paper")
        and "/migrations/" not in name
        and not name.endswith("__init__.py")
        and (not wanted or any(part in name for part in wanted))
        for change in changes_of(name, file.read_text(encoding="utf-8"))
    ]
    return random.Random(seed).sample(found, min(count, len(found)))
