"""Children that read and write files: turns, a bounded queue with its place, bounded answers; limits while reading."""

import io
import resource
import threading
import time
import zipfile

import pytest

from hextan.core.base import BusyError, InvalidInputError
from hextan.formats import children, spreadsheets
from hextan.formats.children import Crew, TooMuchError, TooSlowError, run
from hextan.formats.csv_rows import MOST_CELLS, MOST_IN_ALL, MOST_LETTERS, MOST_ROWS


def told(kind, data):
    with pytest.raises(InvalidInputError) as error:
        spreadsheets.read(kind, data)
    return error.value.faults[0].rule


def test_so_many_have_a_turn_others_wait_and_more_are_told_their_place():
    crew, inside, most, over = Crew(2, 3), 0, 0, threading.Event()
    lock = threading.Lock()

    def work():
        nonlocal inside, most
        with crew.turn():
            with lock:
                inside += 1
                most = max(most, inside)
            over.wait(10)
            with lock:
                inside -= 1

    threads = [threading.Thread(target=work) for _ in range(5)]
    for thread in threads:
        thread.start()
    until = time.monotonic() + 5
    while crew.waiting < 3 and time.monotonic() < until:
        time.sleep(0.01)
    with pytest.raises(BusyError) as busy, crew.turn():
        raise AssertionError("there was no turn left")
    over.set()
    for thread in threads:
        thread.join()
    assert most == 2
    assert "3 files wait" in busy.value.message
    assert busy.value.again_after_s >= 3
    with crew.turn():
        assert crew.waiting == 0


def test_a_turn_that_does_not_come_is_given_up(monkeypatch):
    monkeypatch.setattr(children, "PATIENCE_S", 0.1)
    crew = Crew(1, 3)
    with crew.turn(), pytest.raises(BusyError), crew.turn():
        raise AssertionError("two at once")
    assert crew.waiting == 0


def test_a_child_is_ended_when_it_takes_too_long_or_says_too_much(tmp_path, monkeypatch):
    (tmp_path / "endless.py").write_text(
        "import sys, time\nif 'sleep' in sys.argv: time.sleep(60)\nwhile True: print('x' * 65536)\n"
    )
    monkeypatch.setenv("PYTHONPATH", f"src:{tmp_path}")
    began = time.monotonic()
    with pytest.raises(TooMuchError):
        run("endless", [], b"", 30, most=1_000_000)
    with pytest.raises(TooSlowError):
        run("endless", ["sleep"], b"", 1)
    assert time.monotonic() - began < 15


@pytest.mark.parametrize(
    ("data", "rule"),
    [
        (b"a,b\n" * (MOST_ROWS + 5), f"may hold {MOST_ROWS} rows at most"),
        # 3.9 million lines took 1.4 GB and nine seconds before they were refused.
        (b"1\n" * 3_900_000, f"may hold {MOST_ROWS} rows at most"),
        (b"a\n" + b"x," * (MOST_CELLS + 5) + b"x", f"row 2 has more than {MOST_CELLS} cells"),
        (b"a," * 4_000_000, "may hold"),
        (b"a\n" + b"x" * (MOST_LETTERS + 1), f"row 2 has a cell of more than {MOST_LETTERS} letters"),
        (b'a\n"open' + b"x" * 300_000, "is not a CSV file"),
    ],
    ids=["rows", "millions", "cells", "one row", "letters", "open"],
)
def test_csv_is_counted_as_it_comes(data, rule):
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    if data.startswith(b"a,a,"):
        # A title over every cell, and none of them has one: empty cells at the end of a row count for nothing.
        assert len(spreadsheets.read("csv", b"," * 4_000_000 + b"\n")[0]) == 0
        rule = f"row 1 has more than {MOST_CELLS} cells"
    assert rule in told("csv", data)
    # Kilobytes, in the process that serves: not more than the text itself a few times.
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 150_000


def test_what_a_small_archive_unpacks_to_is_bounded():
    """A row of a long text that is repeated: 1.7 kB became 510 MB in the process that asked."""
    row = ('<table:table-row table:number-rows-repeated="4900"><table:table-cell office:value-type="string" '
           f'table:number-columns-repeated="190"><text:p>{"x" * 7000}</text:p></table:table-cell></table:table-row>')  # fmt: skip
    names = {"office": "office", "table": "table", "text": "text"}
    spaces = " ".join(f'xmlns:{k}="urn:oasis:names:tc:opendocument:xmlns:{v}:1.0"' for k, v in names.items())
    content = (f'<?xml version="1.0"?><office:document-content {spaces} office:version="1.2"><office:body><office:spreadsheet>'
               f'<table:table table:name="a">{row}</table:table></office:spreadsheet></office:body></office:document-content>')  # fmt: skip
    manifest = ('<?xml version="1.0"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0">'
                '<manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.spreadsheet"/>'
                '<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>')  # fmt: skip
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet", zipfile.ZIP_STORED)
        archive.writestr("META-INF/manifest.xml", manifest)
        archive.writestr("content.xml", content)
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    assert f"more than {MOST_IN_ALL / 1e6:.0f} million letters" in told("ods", packed.getvalue())
    assert len(packed.getvalue()) < 5_000
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before < 20_000


@pytest.mark.parametrize("kind", ["xlsx", "ods"])
def test_a_large_spreadsheet_is_written_by_a_child_and_comes_back(kind, monkeypatch):
    rows = [["Shot", "Focal"], *([f"s{i}", i + 0.5] for i in range(400))]
    monkeypatch.setitem(spreadsheets._WRITERS, kind, None)
    assert spreadsheets.read(kind, spreadsheets.write(kind, rows)) == [[str(c) for c in row] for row in rows]
