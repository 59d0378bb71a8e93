"""Pages: nothing is cut, nothing lies over anything else, every sign has a face, and the file says what the sheet says."""

import itertools
import json
import re

import cv2
import numpy as np
import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import LineString, Polygon, box

from hextan.cli import main
from hextan.core.base import InvalidInputError
from hextan.core.packing import Watch
from hextan.core.sheets import KINDS, SheetPlan, fingerprint
from hextan.paper.flow import Printed
from hextan.paper.fonts import MM_OF_PT, missing, runs, width_mm, wrapped
from hextan.paper.layout import filled, laid_out
from hextan.paper.papers import PANELS, PAPERS, paper_of
from hextan.paper.pdf import pdf_of
from hextan.paper.pictures import cut_area, cut_line
from hextan.paper.printing import PrintWork, Stamped
from tests.core.kits import format_named, lens_named
from tests.core.sheets.material import SHEETS, demo, made, tables

PRINTED = Printed(
    "Printed 27 Nov 2026", "e770 5303 d19a", "http://127.0.0.1:8000/p/2/sheets/k?state=e7705303d19a"
)
#: Few enough to be quick, and every kind of block.
FEW = {"lens_sets": ["Wren"], "bodies": ["Ebb 64"],
       "format_ids": [format_named(demo().package, name, "Ebb 64") for name in ("S35 → UHD", "Full → UHD")]}  # fmt: skip


def pages_of(kind, **plan):
    asked = SheetPlan(key="k", kind=kind, **plan)
    sheet = made(kind, **plan)
    return sheet, laid_out(sheet, asked, PRINTED)


def extent(mark):
    """From where to where a text reaches across, and its height."""
    (x, y), wide = mark["points"][0], width_mm(mark["text"], mark["size_pt"], mark["strong"])
    back = {"start": 0.0, "middle": wide / 2, "end": wide}[mark["anchor"]]
    left, right = (x - back, x - back + wide) if not mark["turned"] else (x + back - wide, x + back)
    high = mark["size_pt"] * MM_OF_PT
    return left, right, y - 0.95 * high, y + 0.28 * high


#: Every kind on every paper; with large type on the smallest.
CASES = [
    (kind, paper, paper in ("pocket", "telephone"))
    for kind in KINDS
    for paper in PAPERS
    if kind != "kit" or paper == "a6"
]


@pytest.mark.parametrize(("kind", "paper", "large"), CASES)
def test_nothing_reaches_over_the_edge_or_over_its_neighbour(kind, paper, large):
    plan = SheetPlan(key="k", kind=kind, paper=paper, large=large, wide=KINDS[kind].wide, **FEW)
    pages = filled(made(kind, paper=paper, large=large, wide=KINDS[kind].wide, **FEW), plan, PRINTED)
    assert pages
    margin = paper_of(SheetPlan(kind=kind, paper=paper)).margin_mm
    for number, page in enumerate(pages, 1):
        wide, high = page["width_mm"], page["height_mm"]
        texts = [(extent(m), m) for m in page["marks"] if m["kind"] == "text"]
        for (left, right, top, bottom), mark in texts:
            assert left >= -0.01 + (margin - 0.7), (number, mark["text"])
            assert right <= wide - margin + 0.7, (number, mark["text"])
            assert top >= margin - 1.5 and bottom <= high - margin + 1.5, (number, mark["text"])
        for mark in page["marks"]:
            if mark["kind"] in ("line", "area"):
                for x, y in mark["points"]:
                    assert -0.01 <= x <= wide + 0.01 and -0.01 <= y <= high + 0.01
        # Words on one line of type never lie over one another.
        by_line = {}
        for reach, mark in texts:
            by_line.setdefault((round(mark["points"][0][1], 1), mark["turned"]), []).append(
                (reach, mark["text"])
            )
        for line in by_line.values():
            for (a, one), (b, other) in itertools.pairwise(sorted(line)):
                assert a[1] <= b[0] + 0.05, (number, one, other)


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind != "kit"])
def test_the_file_says_all_that_the_sheet_says(kind):
    """Every cell of every table stands in the text of the PDF, as often as in the tables or more."""
    sheet, pages = pages_of(kind, **FEW)
    read = pypdfium2.PdfDocument(pdf_of([(sheet["title"], pages)], sheet["title"]))
    assert len(read) == len(pages)
    text = squeezed("".join(page.get_textpage().get_text_bounded() for page in read))
    assert "\ufffd" not in text
    for table in tables(sheet):
        for row in table["rows"]:
            for cell in row["cells"]:
                # Long words are broken into lines, between which the file may have others.
                for word in cell["text"].split():
                    assert squeezed(word) in text, (cell["text"], word)
        assert squeezed(table["heading"]) in text or len(wrapped(table["heading"], 10, 150)) > 1
    for fact in sheet["stamp"]:
        assert squeezed(fact["text"][:30]) in text
    assert PRINTED.code.replace(" ", "") in text


def squeezed(text):
    return re.sub(r"[\s\u00ad\ufffe]", "", text)


def test_every_sign_that_is_printed_has_a_face():
    for kind in KINDS:
        for block in made(kind)["blocks"]:
            assert missing(json.dumps(block, ensure_ascii=False)) == set(), kind
    assert missing("∞ ≤ ≥ → √ − × ° ½ ⅓ ✓ ✕ ≈ µ Ångström Żółć Дон □") == set()
    assert missing("渡し") == {"渡", "し"}
    assert "".join(run.text for run in runs("渡 1")) == "□ 1"
    assert [run.face for run in runs("S35 → UHD")] == ["words", "signs", "words"]


def test_the_file_has_a_title_a_language_its_fonts_and_the_same_bytes_each_time():
    sheet, pages = pages_of("exposure")
    data = pdf_of([(sheet["title"], pages)], "Low Water: Exposure")
    assert data == pdf_of([(sheet["title"], pages)], "Low Water: Exposure")
    assert b"/Lang (en)" in data
    read = pypdfium2.PdfDocument(data)
    assert read.get_metadata_dict()["Title"] == "Low Water: Exposure"
    assert data.count(b"/FontFile2") >= 2
    assert b"/Helvetica" not in data or b"BaseFont /Helvetica" in data
    assert [entry.get_title() for entry in read.get_toc()] == ["Exposure"]


def picture_of(page, data, index=0, dpi=300):
    return np.asarray(pypdfium2.PdfDocument(data)[index].render(scale=dpi / 72).to_pil().convert("L"))


def test_the_code_on_the_page_leads_to_the_sheet():
    for paper in ("a4", "letter", "a6", "pocket"):
        sheet, pages = pages_of("exposure", paper=paper)
        shown = picture_of(pages[0], pdf_of([(sheet["title"], pages)], "x"))
        if paper == "pocket":
            # The first page lies at the lower right.
            shown = shown[shown.shape[0] // 2 :, shown.shape[1] * 3 // 4 :]
        found, _, _ = cv2.QRCodeDetector().detectAndDecode(shown)
        assert found == PRINTED.address, paper


def test_what_is_drawn_is_dark_on_white_and_on_a_telephone_light_on_dark():
    for paper, dark in (("a4", False), ("telephone", True)):
        sheet, pages = pages_of("look", paper=paper, **FEW)
        assert {page["dark"] for page in pages} == {dark}
        shown = picture_of(pages[0], pdf_of([(sheet["title"], pages)], "x"), dpi=60)
        assert bool(np.median(shown) < 60) is dark


def test_a_pocket_card_is_folded_into_its_order():
    """Folded lengthwise, page 1 lies at the lower right and page 8 at its left; the upper row is upside down."""
    _, pages = pages_of("depth", paper="pocket", lens_sets=["Merrow"], stops=[2.8, 4.0])
    first = pages[0]
    w, h = first["width_mm"] / 4, first["height_mm"] / 2
    where = {}
    for mark in first["marks"]:
        if mark["kind"] == "text" and (found := re.fullmatch(r"(\d+) / \d+", mark["text"])):
            x, y = mark["points"][0]
            where[int(found[1])] = (int((x - 1e-6) // w), int((y - 1e-6) // h), mark["turned"])
    assert where == {1: (3, 1, False), 2: (3, 0, True), 3: (2, 0, True), 4: (1, 0, True), 5: (0, 0, True), 6: (0, 1, False),
                     7: (1, 1, False), 8: (2, 1, False)}  # fmt: skip
    assert len(where) == PANELS


def test_a_table_that_is_broken_repeats_its_titles():
    _, pages = pages_of("lens_by_format")
    heads = [sum(m["kind"] == "text" and m["text"] == "Lens" for m in page["marks"]) for page in pages]
    assert all(heads)
    glass = lens_named(demo().package, "Merrow 40")
    _, one = pages_of("depth", lens_ids=[glass])
    assert len(one) == 1


def test_large_type_is_larger_and_takes_more_pages():
    small, large = (pages_of("lens_by_format", large=each, lens_sets=["Merrow"])[1] for each in (False, True))
    assert len(large) > len(small)


boxes = st.tuples(*[st.floats(1, 50)] * 2)
#: Hundredths of a millimetre: finer than that, libraries of geometry differ in what is a line at all.
points = st.lists(
    st.tuples(*[st.integers(-8000, 8000).map(lambda n: n / 100)] * 2).map(list), min_size=2, max_size=12
)


@given(st.tuples(*[st.floats(-30, 80)] * 3), boxes)
def test_cutting_an_area_is_as_the_geometry_library_says(circle, size):
    """Against Shapely, outside the project: the area of a cut disc."""
    x, y, r = circle
    around = [[x + abs(r) * np.cos(a), y + abs(r) * np.sin(a)] for a in np.linspace(0, 2 * np.pi, 25)[:-1]]
    cut = cut_area(around, *size)
    assert all(-1e-9 <= px <= size[0] + 1e-9 and -1e-9 <= py <= size[1] + 1e-9 for px, py in cut)
    wanted = Polygon(around).buffer(0).intersection(box(0, 0, *size)).area
    assert (Polygon(cut).area if len(cut) > 2 else 0.0) == pytest.approx(
        wanted, abs=1e-6 * (1 + size[0] * size[1])
    )


@given(points, boxes)
def test_cutting_a_line_is_as_the_geometry_library_says(line, size):
    parts = cut_line(line, *size)
    for part in parts:
        assert all(-1e-6 <= px <= size[0] + 1e-6 and -1e-6 <= py <= size[1] + 1e-6 for px, py in part)
    got = sum(LineString(part).length for part in parts)
    wanted = sum(LineString(pair).intersection(box(0, 0, *size)).length for pair in itertools.pairwise(line))
    assert got == pytest.approx(wanted, abs=1e-4)


@given(st.text(max_size=60), st.floats(4, 14), st.floats(8, 80))
def test_wrapped_lines_are_no_wider_than_they_may_be_and_lose_nothing(words, size, most):
    lines = wrapped(words, size, most)
    assert "".join(lines).replace(" ", "") == "".join(words.split())
    for line in lines:
        assert width_mm(line, size) <= most or len(line) == 1


def test_printing_tells_how_far_it_is_and_can_be_stopped():
    plans = tuple(plan for bundle in SHEETS.bundles[:2] for plan in bundle.sheets)
    work = PrintWork(demo(), plans, Stamped("today", "http://127.0.0.1/p/1/sheets"), "Low Water")
    told = []
    answer = work.done(Watch(tell=told.append), lambda known: None)
    assert set(answer["fingerprints"]) == {plan.key for plan in plans}
    assert answer["empty"] == {}
    assert told[-1] == f"page {answer['pages']} of {answer['pages']}"
    assert answer["fingerprints"]["cart-depth"] == fingerprint(
        made("depth", name="Depth, Merrow set", lens_sets=["Merrow"])
    )
    with pytest.raises(InvalidInputError, match="Stopped"):
        work.done(Watch(stopped=lambda: True), lambda known: None)
    assert work.asked == PrintWork(demo(), plans, work.stamped, "Low Water").asked
    assert work.asked != PrintWork(demo(), plans[:1], work.stamped, "Low Water").asked


def test_sheets_are_printed_from_the_file_of_a_production(tmp_path, capsys):
    file, out = tmp_path / "a.json", tmp_path / "a.pdf"
    plain = {"schema": "hextan.production", "schema_version": 1, "name": "Empty", "synopsis": "",
             "sheets": {"schema": "hextan.sheets", "schema_version": 1, "bundles": [{"name": "One", "sheets": [
                 {"kind": "exposure"}, {"kind": "depth"}]}]}}  # fmt: skip
    file.write_text(json.dumps(plain))
    assert main(["sheets", str(file), str(out)]) == 0
    assert len(pypdfium2.PdfDocument(out.read_bytes())) >= 1
    told = capsys.readouterr()
    assert "pages" in told.out
    assert "Depth of field: It needs a body" in told.err
    assert main(["sheets", str(file), str(out), "--bundle", "Two"]) == 2
    assert "One" in capsys.readouterr().err


def test_a_few_lines_do_not_stand_alone_on_a_last_page():
    """Whatever the number of lines: a second page is begun for a good part of one, never for a line or two."""
    sheet = made("chain")
    asked = SheetPlan(key="k", kind="chain")
    paper = paper_of(asked)
    counts = []
    for lines in range(50, 110):
        block = {
            "kind": "words",
            "heading": "",
            "lines": [f"Line {n}." for n in range(lines)],
            "caution": False,
        }
        pages = filled({**sheet, "lead": "", "notes": [], "blocks": [block]}, asked, PRINTED)
        counts.append(len(pages))
        if len(pages) > 1:
            told = [m for m in pages[-1]["marks"] if m["kind"] == "text" and m["text"].startswith("Line ")]
            assert len(told) > 3, lines
        # And type is never made small for it.
        sizes = {m["size_pt"] for m in pages[0]["marks"] if m["kind"] == "text" and m["text"] == "Line 3."}
        assert min(sizes) >= 0.9 * paper.size_pt
    assert counts == sorted(counts) and set(counts) == {1, 2}


def test_a_look_sheet_of_one_format_fills_its_page():
    """Its lenses stand beside one another: pictures reach into the right third of the page, on as few pages as they need."""
    one = format_named(demo().package, "Full → UHD", "Ebb 64")
    sheet, pages = pages_of(
        "look", lens_sets=["Merrow"], bodies=["Ebb 64"], format_ids=[one], distances_m=[3.0]
    )
    (block,) = (b for b in sheet["blocks"] if b["kind"] == "pictures")
    assert len(block["rows"]) == 1 and len(block["columns"]) >= 4
    paper = paper_of(SheetPlan(key="k", kind="look"))
    across = max(
        x for mark in pages[0]["marks"] if mark["kind"] in ("area", "line") for x, _ in mark["points"]
    )
    assert across > paper.width_mm * 0.75
