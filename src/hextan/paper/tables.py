"""Tables on paper: columns as wide as they need, broken across in groups, rows broken where sections end.

What does not fit beside one another is set below, with the columns at the left repeated; what does not fit on a page goes
on with the next one, under the same titles. No cell is ever cut.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from hextan.core.sheets import Cell, SheetRow, SheetTable
from hextan.paper.flow import Flow
from hextan.paper.fonts import line_mm, longest_word_mm, width_mm, wrapped
from hextan.paper.marks import box, line

#: Between columns, in sizes of type (1 pt = 0.353 mm).
_BETWEEN = 0.30
#: Type that is made smaller before a table is broken across.
_SIZES = (1.0, 0.93, 0.86)
#: A column of words is no wider than this share of the page, as long as there are others.
_MOST_WORDS = 0.45
_ROW_PAD_MM = 0.55
#: So many rows stay with the title of their section.
_TOGETHER = 2


@dataclass
class _Column:
    """A column of paper: one of the table's, or a group of them one below another."""

    parts: list[int]
    words: bool
    group: str
    more: str
    titles: list[str]
    least: float = 0.0
    liked: float = 0.0
    width: float = 0.0


@dataclass
class _Slice:
    """Columns that stand beside one another, with their places."""

    columns: list[_Column]
    size: float
    x: list[float] = field(default_factory=list)


def put_table(flow: Flow, table: SheetTable) -> None:
    """Put a table on the pages."""
    if table["own_page"] and not flow.fresh:
        flow.new_page()
    flow.gap()
    for number, part in enumerate(_slices(flow, table)):
        _Put(flow, table, part, number).run()


def _titled(title: str, unit: str) -> str:
    return f"{title}, {unit}" if title and unit else title or unit


def _columns(table: SheetTable, size: float, widest: float) -> list[_Column]:
    """The columns of paper, with the least and the liked width of each."""
    columns: list[_Column] = []
    # A unit that all groups share stands in the first title alone.
    units = {each["unit"] for each in table["columns"] if each["unit"]}
    for j, each in enumerate(table["columns"]):
        title = _titled(
            each["title"], "" if each["group"] and len(units) == 1 and each["title"] else each["unit"]
        )
        last = columns[-1] if columns else None
        if (
            table["stacked"]
            and each["group"]
            and last
            and (last.group, last.more) == (each["group"], each["group_more"])
        ):
            last.parts.append(j)
            last.titles.append(title)
        else:
            columns.append(_Column([j], each["words"], each["group"], each["group_more"], [title]))
    between = size * _BETWEEN
    for column in columns:
        texts = {row["cells"][j]["text"] for row in table["rows"] for j in column.parts}
        strong = any(
            row["cells"][j]["tone"] in ("focus", "short") for row in table["rows"] for j in column.parts
        )
        head = max((longest_word_mm(t, size * 0.86, True) for t in column.titles), default=0.0)
        if table["stacked"] and column.group:
            head = max(head, *(longest_word_mm(t, size * 0.86, True) for t in (column.group, column.more)))
        natural = max((width_mm(t, size, strong) for t in texts), default=0.0)
        if column.words:
            words = max((longest_word_mm(t, size, strong) for t in texts), default=0.0)
            column.least = max(words, head, min(natural, 9.0 * size * 0.35)) + between
            column.liked = min(max(natural, head), widest) + between
        else:
            column.least = column.liked = max(natural, head) + between
    if not table["stacked"]:
        # The same figure of every group is as wide as everywhere.
        for column in columns:
            if column.group and not column.words:
                alike = [c.least for c in columns if c.group and c.titles == column.titles and not c.words]
                column.liked = max(column.liked, *alike)
    return columns


def _slices(flow: Flow, table: SheetTable) -> list[_Slice]:
    """Which columns stand beside one another, and in what size of type."""
    room = flow.width
    for factor in _SIZES:
        size = flow.size * factor
        columns = _columns(table, size, room * _MOST_WORDS)
        if sum(c.least for c in columns) <= room:
            return [_placed(columns, size, room, flow.left)]
    size = flow.size
    columns = _columns(table, size, room * _MOST_WORDS)
    fixed = _fixed(table, columns)
    head, rest = columns[:fixed], columns[fixed:]
    # What is repeated takes no more than half of the page.
    spare = sum(c.least for c in head) - room / 2
    for column in sorted((c for c in head if c.words), key=lambda c: -c.least):
        if spare > 0:
            cut = min(spare, column.least - 4 * size * 0.35)
            column.least -= cut
            column.liked = column.least
            spare -= cut
    free = room - sum(c.least for c in head)
    groups = _groups(rest, free)
    wanted = sum(sum(c.least for c in group) for group in groups)
    count = max(1, -(-int(wanted * 1000) // int(free * 1000)))
    slices: list[_Slice] = []
    while groups:
        here: list[_Column] = []
        # Evenly: the last slice is not left with one column.
        fair = max(sum(c.least for g in groups for c in g) / max(count - len(slices), 1), 1.0)
        while groups:
            wide = sum(c.least for c in here)
            next_wide = sum(c.least for c in groups[0])
            if here and (wide + next_wide > free + 1e-6 or wide + next_wide / 2 > fair + 1e-6):
                break
            here += groups.pop(0)
        slices.append(_placed([*(_copy(c) for c in head), *here], size, room, flow.left))
    return slices


def _copy(column: _Column) -> _Column:
    return _Column(
        column.parts, column.words, column.group, column.more, column.titles, column.least, column.liked
    )


def _fixed(table: SheetTable, columns: list[_Column]) -> int:
    count = 0
    for column in columns:
        if column.parts[-1] >= table["fixed"]:
            break
        count += 1
    return count


def _groups(columns: list[_Column], free: float) -> list[list[_Column]]:
    """Columns that stay together: those of one group, unless they are wider than the page."""
    groups: list[list[_Column]] = []
    for column in columns:
        last = groups[-1] if groups else None
        together = (
            last is not None and column.group and (last[0].group, last[0].more) == (column.group, column.more)
        )
        if together and last is not None and sum(c.least for c in last) + column.least <= free:
            last.append(column)
        else:
            groups.append([column])
    return groups


def _placed(columns: list[_Column], size: float, room: float, left: float) -> _Slice:
    """Share out what is left: first to words that would like more, then a little to all."""
    for column in columns:
        column.width = min(column.least, room)
    spare = room - sum(c.width for c in columns)
    wishes = sum(c.liked - c.least for c in columns)
    if spare > 0 and wishes > 0:
        share = min(1.0, spare / wishes)
        for column in columns:
            column.width += (column.liked - column.least) * share
        spare = room - sum(c.width for c in columns)
    if spare > 0:
        # A narrow table is not drawn over the whole page.
        each = min(spare / max(len(columns), 1), size * 0.8)
        for column in columns:
            column.width += each
    x, places = left, []
    for column in columns:
        places.append(x)
        x += column.width
    return _Slice(columns, size, places)


class _Put:
    """One slice of a table being put."""

    def __init__(self, flow: Flow, table: SheetTable, part: _Slice, number: int) -> None:
        self.flow, self.table, self.part, self.number = flow, table, part, number
        self.size, self.head_size = part.size, part.size * 0.86
        self.line = line_mm(part.size)
        self.right = part.x[-1] + part.columns[-1].width
        self.between = part.size * _BETWEEN

    def run(self) -> None:
        """Put it, from its heading to its last row."""
        flow, rows = self.flow, self.table["rows"]
        if self.number:
            flow.gap(1.2)
        first = sum(self._height(row) for row in rows[:_TOGETHER])
        flow.need(
            min(
                self._heading_height() + self._head_height() + self._section_height(rows) + first,
                flow.page_room,
            )
        )
        self._heading()
        self._head()
        section = ""
        striped = False
        for i, row in enumerate(rows):
            begins = row["section"] != section
            height = self._height(row)
            together = height
            if begins:
                same = [r for r in rows[i : i + _TOGETHER] if r["section"] == row["section"]]
                together = self._section_line(row) + sum(self._height(r) for r in same)
            if together > flow.room + 1e-6 and not flow.fresh:
                flow.new_page()
                self._continued()
                self._head()
                begins = bool(row["section"])
            if begins:
                section = row["section"]
                striped = False
                if section:
                    self._section(section)
            self._row(row, height, striped)
            striped = not striped
        flow.marks.append(line([[flow.left, flow.y], [self.right, flow.y]], "hairline"))

    def _continued(self) -> None:
        if self.table["heading"]:
            self.flow.paragraph(f"{self.table['heading']}, continued", strong=True)
            self.flow.y += 0.4

    def _heading_height(self) -> float:
        told = wrapped(self.table["told"], self.flow.small, self.flow.width) if self.table["told"] else ()
        return (
            (self.flow.line(self.flow.size * 1.15) if self.table["heading"] else 0)
            + line_mm(self.flow.small) * len(told)
            + 1.0
        )

    def _heading(self) -> None:
        flow = self.flow
        if self.number:
            if self.table["heading"]:
                flow.paragraph(f"{self.table['heading']}, further columns", strong=True)
                flow.y += 0.4
            return
        if self.table["heading"]:
            flow.paragraph(self.table["heading"], flow.size * 1.15, strong=True)
        if self.table["told"]:
            flow.paragraph(self.table["told"], flow.small, style="quiet")
        flow.y += 0.6

    def _stacked_titles(self) -> list[str]:
        """Where the parts of groups stand one below another, what each line is: told once, at the left."""
        for column in self.part.columns:
            if column.group and self.table["stacked"]:
                return [t for t in column.titles if t]
        return []

    def _head_lines(self, column: _Column) -> list[tuple[str, bool]]:
        wide = column.width - self.between + 0.01
        if self.table["stacked"] and column.group:
            lines = [(t, True) for t in wrapped(column.group, self.head_size, wide, True)]
            return lines + [(t, False) for t in wrapped(column.more, self.head_size, wide) if t]
        return [(t, True) for t in wrapped(column.titles[0], self.head_size, wide, True) if t]

    def _head_height(self) -> float:
        most = max((len(self._head_lines(c)) for c in self.part.columns), default=0)
        group = self._group_lines()
        return line_mm(self.head_size) * (most + group + (1 if self._stacked_titles() else 0)) + 1.2

    def _group_lines(self) -> int:
        """Lines of the titles of groups that stand over their columns."""
        if self.table["stacked"]:
            return 0
        return max((len(each) for each, _, _ in self._spans()), default=0)

    def _spans(self) -> list[tuple[list[str], float, float]]:
        """Titles of groups over their columns: lines, from where, to where."""
        spans: list[tuple[str, str, float, float]] = []
        for column, x in zip(self.part.columns, self.part.x, strict=True):
            if not column.group:
                continue
            if spans and spans[-1][:2] == (column.group, column.more) and abs(spans[-1][3] - x) < 0.01:
                spans[-1] = (*spans[-1][:3], x + column.width)
            else:
                spans.append((column.group, column.more, x, x + column.width))
        return [
            ([*wrapped(group, self.head_size, end - start - self.between + 0.01, True),
              *(t for t in wrapped(more, self.head_size, end - start - self.between + 0.01) if t)], start, end)
            for group, more, start, end in spans
        ]  # fmt: skip

    def _head(self) -> None:
        flow, step = self.flow, line_mm(self.head_size)
        groups = self._group_lines()
        if groups:
            for lines, start, end in self._spans():
                for k, each in enumerate(lines):
                    flow.text(
                        each,
                        end - self.between,
                        self.head_size,
                        y=flow.y + step * (groups - len(lines) + k),
                        strong=k == 0,
                        anchor="end",
                    )
                y = flow.y + step * groups + 0.2
                flow.marks.append(line([[start + self.between, y], [end - self.between, y]], "hairline"))
            flow.y += step * groups + 0.4
        heads = [self._head_lines(c) for c in self.part.columns]
        most = max((len(lines) for lines in heads), default=0)
        for column, x, head in zip(self.part.columns, self.part.x, heads, strict=True):
            for k, (each, strong) in enumerate(head):
                y = flow.y + step * (most - len(head) + k)
                if column.words:
                    flow.text(each, x, self.head_size, y=y, strong=strong)
                else:
                    flow.text(
                        each,
                        x + column.width - self.between,
                        self.head_size,
                        y=y,
                        strong=strong,
                        anchor="end",
                    )
        flow.y += step * most
        stacked = self._stacked_titles()
        if stacked:
            told = "Below one another: " + "; ".join(stacked) + "."
            for each in wrapped(told, self.head_size, flow.width):
                flow.text(each, flow.left, self.head_size, style="quiet")
                flow.y += step
        flow.y += 0.5
        flow.marks.append(line([[flow.left, flow.y], [self.right, flow.y]], "rule"))
        flow.y += 0.5

    def _section_height(self, rows: list[SheetRow]) -> float:
        return self._section_line(rows[0]) if rows and rows[0]["section"] else 0.0

    def _section_line(self, row: SheetRow) -> float:
        lines = wrapped(row["section"], self.size, self.flow.width, True)
        return self.line * len(lines) + 1.3 if row["section"] else 0.0

    def _section(self, section: str) -> None:
        flow = self.flow
        flow.y += 0.8
        for each in wrapped(section, self.size, flow.width, True):
            flow.text(each, flow.left, self.size, strong=True)
            flow.y += self.line
        flow.y += 0.2
        flow.marks.append(line([[flow.left, flow.y], [self.right, flow.y]], "hairline"))
        flow.y += 0.3

    def _lines(self, column: _Column, row: SheetRow) -> list[tuple[Cell, str]]:
        """The lines of a cell: of words broken, of parts one below another."""
        wide = column.width - self.between + 0.01
        found: list[tuple[Cell, str]] = []
        for j in column.parts:
            cell = row["cells"][j]
            strong = cell["tone"] in ("focus", "short")
            if width_mm(cell["text"], self.size, strong) <= wide:
                found.append((cell, cell["text"]))
            else:
                found += [(cell, each) for each in wrapped(cell["text"], self.size, wide, strong)]
        if column.group and self.table["stacked"]:
            while found and not found[-1][1]:
                found.pop()
        return found

    def _height(self, row: SheetRow) -> float:
        most = max((len(self._lines(column, row)) for column in self.part.columns), default=1)
        return self.line * max(most, 1) + _ROW_PAD_MM

    def _row(self, row: SheetRow, height: float, striped: bool) -> None:
        flow = self.flow
        if striped:
            flow.marks.append(box(flow.left - 0.6, flow.y, self.right - flow.left + 0.6, height, "shade"))
        for column, x in zip(self.part.columns, self.part.x, strict=True):
            for k, (cell, each) in enumerate(self._lines(column, row)):
                if not each:
                    continue
                strong = cell["tone"] in ("focus", "short")
                y = flow.y + _ROW_PAD_MM / 2 + self.line * k
                if column.words:
                    flow.text(each, x, self.size, y=y, strong=strong, style=cell["tone"])
                else:
                    flow.text(
                        each,
                        x + column.width - self.between,
                        self.size,
                        y=y,
                        strong=strong,
                        style=cell["tone"],
                        anchor="end",
                    )
        flow.y += height
