"""The list of shots as it is worked with: type, filter, wish, pin, the Bench and back, what changed."""

import json
import re
import urllib.request

import pytest
from playwright.sync_api import expect

from hextan.formats import spreadsheets
from tests.ui.conftest import choose_lens
from tests.ui.grids import cell, enter
from tests.ui.test_package_view import ask


@pytest.fixture
def at(base_url):
    low_water = ask(f"{base_url}/api/v1/productions")["here"][0]["id"]
    return f"{base_url}/api/v1/productions/{low_water}"


@pytest.fixture
def shots(page, base_url, complaints, at):
    page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/shots")
    expect(page.locator("[data-shot]")).to_have_count(40)
    expect(page.get_by_role("button", name="37 does it")).to_be_visible()
    yield page
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def saved(page):
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()


def detail(page, name):
    return page.get_by_role("region", name=f"Shot {name}")


def kept(at):
    return ask(f"{at}/shots")["document"]["shots"]


def test_the_strip_and_the_list_choose_the_same_shot(shots):
    shots.get_by_role("button", name="Shot 15C, does it").click()
    expect(detail(shots, "15C")).to_contain_text("Merrow 29 on Ebb 64, S16 → HD")
    expect(detail(shots, "15C")).to_contain_text("set by safety supervisor")
    expect(detail(shots, "15C").locator("canvas")).to_be_visible()
    cell(shots, "Number of 21A").click()
    expect(detail(shots, "21A")).to_contain_text("the wall leaves 0.56 m")
    shots.keyboard.press("Escape")
    shots.locator("h2").first.click()
    shots.keyboard.press(".")
    expect(detail(shots, "21B")).to_be_visible()


def test_a_cell_is_typed_and_answered_and_undone(shots, at):
    enter(shots, "Framing of 12A", "waist, nearly")
    expect(shots.get_by_text("may be full figure, knees").first).to_be_visible()
    expect(shots.get_by_text("not judged: framing").first).to_be_attached()
    enter(shots, "Framing of 12A", "like 300")
    # Enter leads on to the next row.
    cell(shots, "Number of 12A").click()
    expect(detail(shots, "12A")).to_contain_text("like 300")
    saved(shots)
    assert kept(at)[0]["framing"] == "like 300"
    # What is typed into one cell in quick succession is one step; slower, it is two.
    undo = shots.get_by_role("button", name="Undo")
    while undo.is_enabled():
        undo.click()
    expect(cell(shots, "Framing of 12A")).to_have_text("full figure")
    saved(shots)
    assert kept(at)[0]["framing"] == "full figure"


def test_filters_keep_what_they_hide(shots, at):
    before = [shot["name"] for shot in kept(at)]
    shots.get_by_role("radiogroup", name="Day").get_by_text("3", exact=True).click()
    shots.get_by_role("radiogroup", name="Camera").get_by_text("B", exact=True).click()
    expect(shots.locator("[data-shot]")).to_have_count(3)
    cell(shots, "Number of 23A").click()
    shots.get_by_role("group", name="Rows: shot").get_by_role("button", name="Delete").click()
    expect(shots.locator("[data-shot]")).to_have_count(2)
    saved(shots)
    assert [shot["name"] for shot in kept(at)] == [name for name in before if name != "23A"]
    shots.get_by_role("radiogroup", name="Day").get_by_text("All days").click()
    shots.get_by_role("radiogroup", name="Camera").get_by_text("all", exact=True).click()
    shots.get_by_role("button", name="3 not with this").click()
    expect(shots.locator("[data-shot]")).to_have_count(3)


def test_a_must_becomes_a_wish_and_a_choice_is_kept(shots, at):
    shots.get_by_role("button", name="Shot 31C, not with this").click()
    here = detail(shots, "31C")
    expect(here).to_contain_text("without “raw”")
    here.get_by_role("checkbox", name="Picture").uncheck()
    expect(here).to_contain_text("does it")
    here.get_by_role("button", name="Keep this choice").click()
    expect(here).to_contain_text("Pinned, and the best.")
    saved(shots)
    pinned = next(shot for shot in kept(at) if shot["name"] == "31C")
    assert (pinned["wishes"], pinned["pin"]["body"]) == ({"picture": 1}, "Ebb 64")


def test_a_shot_goes_to_the_bench_and_comes_back_changed(shots, at):
    shots.get_by_role("button", name="Shot 12B, does it").click()
    detail(shots, "12B").get_by_role("button", name="Open on the Bench").click()
    shots.wait_for_selector(".sum")
    expect(shots.locator(".sum")).to_contain_text("43.2 mm")
    choose_lens(shots, "Merrow 50")
    expect(shots.locator(".sum")).to_contain_text("33.2 mm")
    shots.get_by_role("button", name="Take back into shot 12B").click()
    shots.get_by_role("link", name="Taken back into shot 12B.").click()
    expect(detail(shots, "12B")).to_contain_text("Merrow 50")
    back = next(shot for shot in kept(at) if shot["name"] == "12B")
    assert (back["pin"]["lens"], back["distance"], back["day"]) == ("Merrow 50", "3.31 m", "1")


def test_the_bench_is_kept_as_a_shot_with_one_key(shots, at, base_url):
    shots.goto(base_url + shots.evaluate("location.pathname").replace("shots", "bench"))
    shots.wait_for_selector(".sum")
    shots.keyboard.press("k")
    shots.get_by_role("link", name="Kept as shot Bench.").click()
    expect(detail(shots, "Bench")).to_contain_text("Wren 40")
    assert kept(at)[-1]["pin"]["format"] == "S35 → UHD"


def test_a_comparison_begins_with_a_shot(shots):
    shots.get_by_role("button", name="Shot 12B, does it").click()
    detail(shots, "12B").get_by_role("button", name="Compare with the runner-up").click()
    shots.wait_for_selector("tr[data-row]")
    expect(shots.get_by_label("Name of the comparison")).to_have_value("Shot 12B")


def test_what_changed_its_answer_is_told(shots, at):
    shots.get_by_role("button", name="Note these answers").click()
    saved(shots)
    (merrow,) = [row for row in ask(f"{at}/lens-sets")["here"] if row["name"] == "Merrow"]
    whole = ask(f"{at}/lens-sets/{merrow['id']}")
    whole["document"]["lenses"] = [
        lens for lens in whole["document"]["lenses"] if lens["name"] != "Merrow 29"
    ]
    body = json.dumps({"version": whole["version"], "document": whole["document"]}).encode()
    request = urllib.request.Request(
        f"{at}/lens-sets/{merrow['id']}", body, {"content-type": "application/json"}, method="PUT"
    )
    urllib.request.urlopen(request).close()
    shots.reload()
    told = shots.get_by_role("status").filter(has_text="since they were noted")
    expect(told).to_contain_text("Merrow 29 on Ebb 64, S16 → HD →")


def test_the_catalogue_is_asked(shots):
    shots.get_by_role("button", name="Shot 34A, not with this").click()
    detail(shots, "34A").get_by_role("button", name="What would have to be rented?").click()
    expect(detail(shots, "34A")).to_contain_text("catalogue")


def test_a_table_is_looked_at_first_and_taken_in_one_step(shots, at):
    with shots.expect_download() as download:
        shots.get_by_role("link", name="XLSX").click()
    rows = spreadsheets.read("xlsx", download.value.path().read_bytes())
    assert (rows[0][:2], len(rows)) == (["Shot", "Scene"], 41)
    rows[1][rows[0].index("Framing")] = "knees"
    table = [[*rows[0], "Crane"], [*rows[1], "no"], ["99", *[""] * (len(rows[0]) - 1), "yes"]]
    shots.get_by_label("From a file").set_input_files(
        {
            "name": "later.ods",
            "mimeType": spreadsheets.MEDIA["ods"],
            "buffer": spreadsheets.write("ods", table),
        }
    )
    told = shots.get_by_role("region", name="What later.ods would change")
    expect(told).to_contain_text("1 new (99), 1 changed (12A), 39 not in it")
    expect(told).to_contain_text("Kept as they are: Crane.")
    assert len(kept(at)) == 40
    told.get_by_role("button", name="Take it").click()
    expect(shots.locator("[data-shot]")).to_have_count(41)
    saved(shots)
    assert {shot["name"]: shot["extra"] for shot in kept(at) if shot["extra"]} == {
        "12A": {"Crane": "no"},
        "99": {"Crane": "yes"},
    }
    shots.get_by_role("button", name="Undo").click()
    expect(shots.locator("[data-shot]")).to_have_count(40)
    shots.get_by_label("From a file").set_input_files(
        {"name": "x.xlsx", "mimeType": spreadsheets.MEDIA["xlsx"], "buffer": b"PK"}
    )
    expect(shots.get_by_role("alert")).to_contain_text("is not a spreadsheet: it cannot be unpacked")
