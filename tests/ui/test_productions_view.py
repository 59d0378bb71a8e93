"""From an empty machine to one's own camera and lenses on the Bench; and productions made, copied, put away."""

import re
import time

import pytest
from playwright.sync_api import expect
from sqlalchemy import create_engine, text

from tests.ui.conftest import PATIENCE_MS


@pytest.fixture
def page(page):
    page.set_default_timeout(PATIENCE_MS)
    return page


@pytest.fixture
def empty(database, page, base_url, complaints):
    """The page of productions on a machine that has none."""
    engine = create_engine(database.url.replace("postgresql:", "postgresql+psycopg:"))
    with engine.begin() as connection:
        connection.execute(text("delete from production"))
    engine.dispose()
    page.goto(base_url)
    yield page
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def test_from_an_empty_machine_to_the_bench(empty, capsys):
    """The aim: under 90 seconds and at most 12 entries, where each field that is typed and each press is one."""
    page, entries, begun = empty, 0, time.monotonic()

    def typed(field, text):
        nonlocal entries
        entries += 1
        field.fill(text)

    def pressed(name):
        nonlocal entries
        entries += 1
        page.get_by_role("button", name=name).click()

    expect(page.get_by_text("No production yet.", exact=False)).to_be_visible()
    typed(page.get_by_label("New production"), "Tide mill")
    pressed("Begin with your own camera")
    typed(page.get_by_label("Camera", exact=True), "Weir 6K")
    typed(page.get_by_label("Active area, mm"), "38.1 x 20.1")
    typed(page.get_by_label("Photosites", exact=True), "5952 x 3140")
    expect(page.locator("#told-pitch_um")).to_contain_text("6.401 µm ± 0.0084 µm")
    typed(page.locator("textarea"), "Full up to 60\nS35 crop 1.5x up to 120")
    expect(page.locator(".made li").filter(has_text="S35 crop 1.5x")).to_contain_text("25.4 × 13.4 mm")
    expect(page.get_by_test_id("sensor")).to_be_visible()
    pressed("Keep this camera")
    typed(page.get_by_label("Lenses in one line", exact=False), "18 25 35 50 85 T1.5 full frame")
    expect(page.get_by_text("5 lenses: 18, 25, 35, 50, 85 mm", exact=False)).to_be_visible()
    pressed("Keep these lenses")
    expect(page.locator(".sum")).to_be_visible()
    expect(page.locator("tr[data-format]")).to_have_count(5)
    expect(page.get_by_role("combobox", name="Production", exact=True)).to_contain_text("Tide mill")
    seconds = time.monotonic() - begun
    with capsys.disabled():
        print(f"\nfrom an empty machine to the Bench: {entries} entries, {seconds:.1f} s")
    assert entries <= 12
    assert seconds < 90
    # The first body is full frame, and so is the reference: an 18 mm on 38.1 mm of width is like an 18 * 36 / 38.1.
    expect(page.locator(".sum")).to_contain_text("on full frame")
    expect(page.locator(".sum")).to_contain_text(f"{18 * 36 / 38.1:.1f} mm")


def test_what_is_missing_is_said_with_its_cure(empty, base_url):
    page = empty
    page.get_by_label("New production").fill("Bare")
    page.keyboard.press("Enter")
    page.get_by_label("Camera", exact=True).wait_for()
    at = page.url.split("/package")[0]
    page.goto(f"{at}/bench")
    expect(page.get_by_text("The Bench needs a camera", exact=False)).to_be_visible()
    page.get_by_role("link", name="Enter lenses in one line").click()
    expect(page.get_by_label("Lenses in one line", exact=False)).to_be_visible()
    page.goto(base_url)
    row = page.locator("li[data-production]")
    expect(row).to_contain_text("It lacks a body and a lens.")
    row.get_by_role("link", name="Enter it").click()
    expect(page.get_by_label("Active area, mm")).to_be_visible()


def test_what_was_typed_survives_a_reload_and_faults_stand_beside_their_fields(empty):
    page = empty
    page.get_by_label("New production").fill("Bare")
    page.keyboard.press("Enter")
    page.get_by_label("Active area, mm").fill("1,234 x 20")
    expect(page.locator("#told-size_mm")).to_contain_text("may mean 1234 or 1.234")
    page.get_by_label("Active area, mm").fill("36 x 24")
    page.get_by_label("Photosites", exact=True).fill("6000 x 4000")
    page.get_by_label("Pitch, µm").fill("5.2")
    expect(page.get_by_text("36 mm over 6000 photosites are 6 µm each, not 5.2.")).to_be_visible()
    page.locator("textarea").fill("full\n8K 8192x4320")
    expect(page.get_by_role("button", name="Keep this camera")).to_be_disabled()
    page.reload()
    expect(page.get_by_label("Photosites", exact=True)).to_have_value("6000 x 4000")
    expect(page.get_by_text("is 8192 photosites wide, and the sensor has 6000").first).to_be_visible()
    page.locator("textarea").fill(
        "Mode\tPixels\tMax fps\tWeight\nFull\t6000 x 4000\t60\t3\nHD\t1920 x 1080\t240\t3"
    )
    expect(page.get_by_text("Not understood, and left out: Weight.")).to_be_visible()
    expect(page.get_by_role("button", name="Keep this camera")).to_be_enabled()


def test_productions_are_renamed_copied_put_away_and_switched_between(page, base_url, complaints, tmp_path):
    page.goto(base_url)
    row = page.locator("li[data-production]")
    expect(row).to_have_count(1)
    expect(row).to_contain_text("46 recording formats")
    page.get_by_role("button", name="Copy Low Water").click()
    expect(row).to_have_count(2)
    expect(row.first).to_contain_text("Low Water, copy")
    page.get_by_role("button", name="Name and days of Low Water, copy").click()
    page.get_by_label("Name", exact=True).fill("High water")
    page.get_by_label("from", exact=True).fill("2026-09-01")
    page.get_by_label("to", exact=True).fill("2026-09-19")
    page.get_by_role("button", name="Keep").click()
    expect(row.first).to_contain_text("1 Sep 2026 to 19 Sep 2026")
    page.get_by_role("link", name="High water", exact=True).click()
    page.locator(".sum").wait_for()
    page.goto(base_url)
    page.get_by_role("link", name="Low Water", exact=True).click()
    page.locator(".sum").wait_for()
    switch = page.get_by_role("combobox", name="Production", exact=True)
    expect(switch.locator("option")).to_have_text(["Low Water", "High water", "All productions…"])
    switch.select_option(label="High water")
    expect(switch.locator("option:checked")).to_have_text("High water")
    switch.select_option(label="All productions…")
    page.get_by_role("button", name="Put High water away").click()
    expect(row).to_have_count(1)
    page.get_by_role("button", name="Bring High water back").click()
    expect(row).to_have_count(2)
    with page.expect_download() as download:
        page.get_by_role("link", name="High water as a file").click()
    file = tmp_path / download.value.suggested_filename
    download.value.save_as(file)
    assert file.name == "High water.hextan.json"
    page.locator("input[type=file]").set_input_files(file)
    page.wait_for_url("**/package")
    page.goto(base_url)
    expect(row).to_have_count(3)
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def test_a_faulty_file_is_refused_with_the_places_of_its_faults(page, base_url, tmp_path):
    page.goto(base_url)
    file = tmp_path / "bad.hextan.json"
    file.write_text(
        '{"schema": "hextan.production", "schema_version": 1, "name": "x", "bodies": [{"document": 3}]}'
    )
    page.locator("input[type=file]").set_input_files(file)
    expect(page.get_by_role("alert")).to_contain_text("bodies[0].document.schema")
    expect(page.locator("li[data-production]")).to_have_count(1)


def test_the_demo_is_added_to_an_empty_machine_and_begun_anew(empty):
    page = empty
    page.get_by_role("button", name="Add the demo").click()
    row = page.locator("li[data-production]")
    expect(row).to_contain_text("Low Water")
    page.get_by_role("button", name="Begin the demo anew").click()
    expect(page.get_by_role("button", name="Bring Low Water (before its reset) back")).to_be_visible()
    expect(row).to_have_count(1)


def test_a_question_is_answered_before_any_production_is_made(empty):
    page = empty
    page.get_by_label("Ask in one line").fill("50 s35")
    expect(page.get_by_text("50 mm on Super 35 is like 72.3 mm on full frame.")).to_be_visible()
    page.get_by_label("Ask in one line").fill("50 s35 banana")
    expect(page.get_by_role("button", name="banana skipped")).to_be_visible()
    page.get_by_label("Ask in one line").fill("50 s35 b4nana")
    expect(page.get_by_role("button", name="b4nana not understood")).to_be_visible()


def test_a_question_with_the_names_of_the_production_is_set_on_its_bench(bench):
    # Also where the Bench is open already, and only its query becomes another.
    bench.get_by_role("link", name="Package", exact=True).click()
    bench.get_by_role("link", name="Bench", exact=True).click()
    bench.locator("tr[data-format]").first.wait_for()
    bench.keyboard.press("/")
    field = bench.get_by_label("Ask in one line")
    expect(field).to_be_focused()
    bench.keyboard.type("wren 24 T4 2.5m s35 4.3k")
    expect(bench.get_by_text("24 mm at 2.50 m sees", exact=False)).to_be_visible()
    bench.keyboard.press("Enter")
    expect(bench.locator(".sum")).to_contain_text("23.6 mm")
    expect(bench.get_by_label("Ask in one line")).to_have_count(0)
    assert "subject=2.5" in bench.url


def test_a_reference_of_ones_own_is_what_crops_are_told_against(bench):
    at = bench.url.split("/bench")[0]
    bench.goto(f"{at}/package/settings")
    bench.get_by_label("Add a window of reference").select_option(label="half frame, 24 × 18 mm")
    expect(bench.get_by_label("Width of half frame")).to_have_value("24")
    with bench.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/settings") and r.ok):
        bench.get_by_label("Width of half frame").fill("23.5")
    bench.goto(f"{at}/bench")
    bench.get_by_label("Reference for crop factors").select_option(label="half frame")
    expect(bench.locator(".sum")).to_contain_text("Frames like, on half frame")
    # The picture of S35 4.3K is 4352 photosites of 5.82 um wide.
    expect(bench.locator(".sum")).to_contain_text(f"{40 * 23.5 / (4352 * 5.82e-3):.1f} mm")
    assert "reference=own%3A23.5x18%3Ahalf+frame" in bench.url
    bench.reload()
    expect(bench.locator(".sum")).to_contain_text("Frames like, on half frame")
    # Another than the production's is looked at here alone, and that is said.
    expect(bench.get_by_text("the production counts against Super 35", exact=False)).to_be_visible()
    bench.get_by_role("button", name="Count as the production does").click()
    expect(bench.locator(".sum")).to_contain_text("Frames like, on Super 35")
    # The production's own is chosen in Settings, and holds on every page.
    bench.goto(f"{at}/package/settings")
    with bench.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/settings") and r.ok):
        bench.get_by_label("Reference of the production").select_option(label="full frame")
    bench.goto(f"{at}/shots")
    expect(bench.get_by_text(re.compile(r"on\s+full frame")).first).to_be_visible()
    bench.goto(f"{at}/bench")
    expect(bench.locator(".sum")).to_contain_text("Frames like, on full frame")


def test_a_production_speaks_in_the_words_of_stills(bench):
    at = bench.url.split("/bench")[0]
    bench.goto(f"{at}/package/settings")
    with bench.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/settings") and r.ok):
        bench.get_by_role("radiogroup", name="Words of the trade").get_by_text("stills", exact=True).click()
    bench.goto(f"{at}/bench#light")
    bench.get_by_label("Reference for crop factors").select_option(label="full frame")
    expect(bench.locator("div.sum")).to_contain_text("35 mm equivalent")
    expect(bench.get_by_label("ISO", exact=True)).to_be_visible()
    expect(bench.get_by_text(re.compile(r"(by|and|is) ISO \d+"))).to_be_visible()
    bench.goto(f"{at}/shots")
    expect(
        bench.get_by_role("region", name=re.compile("^Shot ")).get_by_text(re.compile(r"ISO \d+"))
    ).to_be_visible()


def test_lenses_come_from_a_pasted_table_or_a_file(bench):
    at = bench.url.split("/bench")[0]
    bench.goto(f"{at}/package/lenses/new")
    field = bench.get_by_label(re.compile("^Lenses in one line"))
    field.fill("Lens\tT\tColour\n25\t1.5\tblack\n35\tfast\tblack")
    expect(bench.get_by_text("Not understood, and left out: Colour.")).to_be_visible()
    expect(bench.get_by_text("row 2, T: fast has no stop")).to_be_visible()
    file = {
        "name": "lenses.csv",
        "mimeType": "text/csv",
        "buffer": b"Lens,T,Close focus\n25,1.5,0.3 m\n40,1.6,0.4 m\n",
    }
    bench.get_by_label("or the table from a file").set_input_files(file)
    expect(bench.get_by_text("2 lenses: 25, 40 mm")).to_be_visible()
    picture = {"name": "lenses.xlsx", "mimeType": "application/zip", "buffer": b"PK\x03\x04\x00\x00"}
    bench.get_by_label("or the table from a file").set_input_files(picture)
    expect(bench.get_by_role("alert")).to_contain_text("lenses.xlsx is no text")
    bench.get_by_role("button", name="Keep these lenses").click()
    expect(bench).to_have_url(re.compile("/bench"))


def test_a_format_is_left_out_of_one_mode(bench):
    at = bench.url.split("/bench")[0]
    bench.goto(f"{at}/package/bodies/new")
    bench.get_by_label("Active area, mm").fill("36 x 20.3")
    bench.get_by_role("textbox", name=re.compile("^Scan modes")).fill("Full 6000x3376\nSmall 4000x2250")
    box = bench.get_by_role("checkbox", name="UHD in Small")
    expect(box).to_be_checked()
    box.uncheck()
    expect(box).not_to_be_checked()
    expect(bench.get_by_role("checkbox", name="UHD in Full")).to_be_checked()


@pytest.mark.parametrize(
    "view",
    ["bench", "compare", "package/coverage", "package/kit", "package/ladder", "package/match", "package/value", "package/speed",
     "package/finder", "package/data"],
)  # fmt: skip
def test_every_empty_view_leads_to_its_cure(bench, view):
    at = bench.url.split("/p/")[0]
    made = bench.request.post(f"{at}/api/v1/productions", data={"facts": {"name": f"Empty {view}"}}).json()
    bench.goto(f"{at}/p/{made['id']}/{view}")
    bench.get_by_role("link", name="Enter a camera from few facts").click()
    expect(bench).to_have_url(re.compile("/package/bodies/new$"))
