"""The Package as a technician and a cinematographer use it: mouse, keyboard, files, awkward values."""

import json
import re
import urllib.parse
import urllib.request

import pytest
from playwright.sync_api import expect

from hextan.formats import formats_csv
from tests.core.bodies import a_body, a_format, a_mode
from tests.ui.conftest import choose, package_of, saving
from tests.ui.grids import cell, enter, pick, row_of


def ask(url, body=None, method="GET"):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"content-type": "application/json"}, method=method)
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.load(answer)


@pytest.fixture
def first(base_url):
    """The demo's bodies as they are at first."""
    at = f"{base_url}/api/v1/productions/{ask(f'{base_url}/api/v1/productions')['here'][0]['id']}"
    listed = ask(f"{at}/bodies")["here"]
    return at, [ask(f"{at}/bodies/{body['id']}") for body in listed]


@pytest.fixture
def home(page, base_url, complaints, first):
    """The address of the package."""
    with package_of(page, base_url, complaints, first[0]) as address:
        yield address


@pytest.fixture
def bodies(page, home):
    page.goto(f"{home}/bodies")
    expect(page.get_by_role("status")).to_have_text("saved")
    page.wait_for_selector("[data-testid=chosen-window]")
    return page


def field(page, label):
    return page.get_by_label(label, exact=True)


def kept(page):
    expect(page.get_by_role("status")).to_have_text("saved")


def test_the_sensor_and_its_windows_are_to_scale(bodies):
    sizes = bodies.evaluate(
        """() => Object.fromEntries(['sensor', 'chosen-window'].map((id) => {
             const shape = document.querySelector(`[data-testid=${id}]`)
             const box = shape.getBBox(), ctm = shape.getScreenCTM()
             return [id, [box.width * ctm.a, box.height * ctm.d]] }))"""
    )
    # 6432 x 3620 photosites of 5.82 um: the whole sensor is read.
    assert sizes["sensor"][0] / sizes["sensor"][1] == pytest.approx(6432 / 3620, rel=1e-3)
    cell(bodies, "Window width of S35 4.3K").click()
    chosen = bodies.evaluate(
        """() => { const s = document.querySelector('[data-testid=chosen-window]')
             return s.getBBox().width * s.getScreenCTM().a }"""
    )
    assert chosen / sizes["sensor"][0] == pytest.approx(4352 / 6432, rel=1e-3)


def test_a_figure_is_typed_and_all_that_follows_from_it_is_drawn(bodies):
    row = row_of(bodies, "S35 4.3K")
    expect(row).to_contain_text("25.33 × 14.25")
    enter(bodies, "Row time of S35 4.3K", "5,5")
    # 1e6 / (2448 x 5.5 + 420) = 72.0 by hand.
    expect(row).to_contain_text("72")
    expect(row).to_contain_text("13.5 ms")
    enter(bodies, "Window height of S35 4.3K", "2400")
    expect(row).to_contain_text("25.33 × 13.97")
    kept(bodies)
    bodies.reload()
    expect(cell(bodies, "Row time of S35 4.3K")).to_have_text("5.5")
    expect(cell(bodies, "Window height of S35 4.3K")).to_have_text("2400")


def test_bad_figures_are_told_at_the_field_and_nothing_is_lost(bodies):
    width = cell(bodies, "Window width of S35 4.3K")
    enter(bodies, "Window width of S35 4.3K", "7000")
    expect(width).to_have_attribute("aria-invalid", "true")
    expect(bodies.get_by_role("alert").first).to_contain_text(
        "reaches 284 photosites beyond the sensor across"
    )
    expect(bodies.get_by_role("status")).to_contain_text(
        "One figure to correct, not saved until then: S35 4.3K, window"
    )
    enter(bodies, "Row time of Full scope 6.4K", "fast")
    expect(bodies.get_by_role("status")).to_contain_text("2 figures to correct")
    # A reload keeps what is typed, though it is not kept on the server yet.
    bodies.reload()
    expect(width).to_have_text("7000")
    expect(cell(bodies, "Row time of Full scope 6.4K")).to_have_attribute("aria-invalid", "true")
    enter(bodies, "Window width of S35 4.3K", "4300")
    enter(bodies, "Row time of Full scope 6.4K", "6.2")
    kept(bodies)
    expect(row_of(bodies, "S35 4.3K")).to_contain_text("25.03")
    rates = cell(bodies, "Rates of S35 → UHD")
    cell(bodies, "Name of S35 4.3K").click()
    enter(bodies, "Rates of S35 → UHD", "23.976, soon")
    expect(rates).to_have_attribute("aria-invalid", "true")
    enter(bodies, "Rates of S35 → UHD", "23.976, 25, 30-60")
    kept(bodies)
    bodies.reload()
    cell(bodies, "Name of S35 4.3K").click()
    expect(rates).to_have_text("23.976, 25, 30–60")


def names(page, what):
    grid = page.get_by_role("grid", name=re.compile("^Scan" if what == "mode" else "^Recording"))
    return grid.get_by_role("rowheader").all_inner_texts()


def test_rows_are_added_copied_moved_deleted_and_brought_back(bodies):
    tools = bodies.get_by_role("group", name="Rows: recording format")
    before = names(bodies, "format")
    tools.get_by_role("button", name="Duplicate").click()
    assert names(bodies, "format") == [before[0], f"{before[0]} (2)", *before[1:]]
    tools.get_by_role("button", name="Move the recording format down").click()
    assert names(bodies, "format")[2] == f"{before[0]} (2)"
    tools.get_by_role("button", name="Delete").click()
    tools.get_by_role("button", name="Add").click()
    assert "New format" in names(bodies, "format")
    for _ in range(4):
        bodies.get_by_role("button", name="Undo").click()
    assert names(bodies, "format") == before
    modes = bodies.get_by_role("group", name="Rows: scan mode")
    cell(bodies, "Name of S35 4.3K").click()
    modes.get_by_role("button", name="Delete").click()
    assert "S35 4.3K" not in names(bodies, "mode")
    kept(bodies)
    bodies.get_by_role("button", name="Undo").click()
    assert names(bodies, "mode")[1] == "S35 4.3K"
    kept(bodies)


def test_rows_by_keyboard(bodies):
    first = cell(bodies, "Raster width of Full 6.4K raw")
    first.click()
    bodies.keyboard.press("ArrowDown")
    expect(cell(bodies, "Raster width of Full → UHD")).to_be_focused()
    bodies.keyboard.press("Alt+ArrowUp")
    assert names(bodies, "format")[0] == "Full → UHD"
    bodies.keyboard.press("Alt+Enter")
    assert names(bodies, "format")[1] == "New format"
    bodies.keyboard.press("Control+z")
    bodies.keyboard.press("Control+z")
    assert names(bodies, "format")[0] == "Full 6.4K raw"
    bodies.keyboard.press("Control+Shift+z")
    assert names(bodies, "format")[0] == "Full → UHD"


def test_windows_in_millimetres_and_sampling(bodies):
    pick(bodies, "Unit of the window of S16 2.2K", "mm")
    width = cell(bodies, "Window width of S16 2.2K")
    expect(width).to_have_text("12.664")
    enter(bodies, "Window width of S16 2.2K", "12.5")
    row = row_of(bodies, "S16 2.2K")
    # 12.5 / 0.00582 = 2147.8, so 2148 photosites: 12.501 mm.
    expect(row).to_contain_text("12.50 × 7.12")
    pick(bodies, "Unit of the window of S16 2.2K", "sites")
    expect(width).to_have_text("2148")
    pick(bodies, "Sampling down of S16 2.2K", "1 in 3")
    # 1224 / 3 = 408 rows: 1e6 / (408 x 6.35 + 420) = 332.
    expect(row).to_contain_text("332")


def test_origin_of_a_figure(bodies):
    cell(bodies, "Row time of S35 4.3K").click()
    strip = bodies.get_by_role("group", name="Where a figure comes from")
    expect(strip).to_contain_text("as for the whole body")
    strip.get_by_label("Kind of origin").select_option("measured")
    strip.get_by_label("Source").fill("flicker chart")
    strip.get_by_label("Day").fill("2026-13-01")
    expect(bodies.get_by_role("status")).to_contain_text("to correct")
    strip.get_by_label("Day").fill("2026-11-20")
    kept(bodies)
    bodies.reload()
    cell(bodies, "Row time of S35 4.3K").click()
    expect(strip.get_by_label("Source")).to_have_value("flicker chart")
    strip.get_by_role("button", name="As for the whole body").click()
    expect(strip.get_by_label("Source")).to_have_value("maker's data sheet")


def test_claims_are_checked_as_they_are_typed(bodies):
    bodies.get_by_role("tab", name="Do the claims hold?").click()
    crops = bodies.get_by_role("region", name="Crop factors that are claimed")
    expect(crops).to_contain_text(
        "1.42 is S35 4.3K whole, by width against full frame: 1.421, as is claimed."
    )
    expect(crops).to_contain_text("It fits Corran Skiff 46")
    crops.get_by_label("Claimed factor").first.fill("1.49")
    expect(crops).to_contain_text(re.compile("gives 1.49|1.49 is"))
    tape = bodies.get_by_role("region", name="Measured with a tape")
    expect(tape).to_contain_text(
        "The tape says 25.35 ± 0.21 mm; what S35 → UHD records is 25.33 mm: they agree."
    )
    tape.get_by_label("Field width, m", exact=True).fill("1.6")
    expect(tape).to_contain_text("they disagree by")
    tape.get_by_label("Uncertainty of the field width, m").fill("0.5")
    expect(tape).to_contain_text("Measure the field width better")
    rates = bodies.get_by_role("region", name="Rates that are stated")
    expect(rates).to_contain_text("54 fps at 3048 rows is +6.8 % off the line")
    rates.get_by_label("Stated rate").nth(3).fill("50.6")
    expect(rates).to_contain_text("All limits lie on one line")
    pixels = bodies.get_by_role("region", name="Pixel counts")
    expect(pixels).to_contain_text("divides by the crop's factor once instead of its square")
    pixels.get_by_role("button", name="Delete this claim").last.click()
    expect(pixels).not_to_contain_text("instead of its square")


def test_changes_of_the_catalogue_are_taken_and_left(page, home, bodies):
    bodies.get_by_role("tab", name=re.compile("Catalogue")).click()
    rows = bodies.locator(".grid tbody tr")
    expect(rows).to_have_count(4)
    line = rows.filter(has_text="row time")
    expect(line).to_contain_text("6.35")
    expect(line).to_contain_text("6.1")
    line.get_by_role("button", name="Take").click()
    expect(rows).to_have_count(3)
    rows.filter(has_text="firmware").get_by_role("button", name="Leave").click()
    expect(rows).to_have_count(2)
    bodies.get_by_role("tab", name="Scan modes and formats").click()
    expect(cell(bodies, "Row time of S16 2.2K")).to_have_text("6.1")
    expect(field(bodies, "Firmware")).to_have_value("2.0")


def test_in_camera_crops_are_edited_and_reach_the_bench(page, home, bodies):
    bodies.get_by_role("tab", name="In-camera crops").click()
    strong = bodies.get_by_role("region", name="Stabiliser, strong")
    strong.get_by_label("Factor").nth(1).fill("1.3")
    strong.get_by_label("Factor").nth(0).fill("0.5")
    expect(bodies.get_by_role("status")).to_contain_text("must be at least 1")
    strong.get_by_label("Factor").nth(0).fill("1.22")
    kept(bodies)
    bodies.get_by_role("link", name="Bench").click()
    page.wait_for_selector(".sum")
    choose(page, "Scan mode", "S35 4.3K")
    page.get_by_label("Recording format", exact=True).select_option(label="S35 → UHD")
    page.get_by_text("set more of Recording").click()
    page.get_by_label("Stabiliser, strong").check()
    expect(page.locator(".cell").nth(4)).to_contain_text("×1.300")


def test_what_a_format_needs_is_carried_or_told(page, home, bodies):
    enter(bodies, "Needs of Full → UHD", "steady key, Weir 7 recorder")
    enter(bodies, "Firmware since of Full → UHD", "newest")
    expect(bodies.get_by_role("status")).to_contain_text("from firmware")
    enter(bodies, "Firmware since of Full → UHD", "1.9")
    bodies.get_by_role("tab", name="In its menus").click()
    bodies.get_by_label("Full 6.4K under", exact=True).fill("Record > Frame")
    kept(bodies)
    at = home.removesuffix("/package")
    page.goto(f"{at}/bench")
    row = page.locator("tr, [role=row]", has_text="Full → UHD").filter(has_not_text="long").first
    expect(row).to_contain_text("lacks what it needs")
    page.goto(f"{home}/settings")
    with page.expect_response(lambda r: r.request.method == "PUT" and r.url.endswith("/settings") and r.ok):
        page.get_by_role("group", name="Carried").get_by_text("steady key").click()
    page.goto(f"{at}/bench")
    expect(row).to_contain_text("Ebb 64")
    expect(row).not_to_contain_text("lacks what it needs")
    choose(page, "Scan mode", "Full 6.4K")
    page.get_by_text("set more of Readout").click()
    expect(page.get_by_text("“Open Gate” under Record > Frame")).to_be_visible()


def test_what_is_typed_last_reaches_the_bench_at_once(page, home, bodies):
    field(bodies, "Photosite pitch").fill("6")
    bodies.get_by_role("link", name="Bench").click()
    page.wait_for_selector(".sum")
    choose(page, "Scan mode", "S35 4.3K")
    expect(page.locator(".cell").nth(3)).to_contain_text("26.1 × 14.7 mm")


def test_equipment_that_is_gone_from_the_bench_is_told(page, home, bodies):
    field(bodies, "Firmware").press("Escape")
    shelf = bodies.get_by_role("complementary", name="Bodies")
    bodies.get_by_role("link", name="Bench").click()
    page.wait_for_selector(".sum")
    with saving(page):
        choose(page, "Scan mode", "Full 6.4K")
    page.goto(f"{home}/bodies")
    kept(page)
    shelf.get_by_role("button", name="Remove").click()
    expect(shelf.get_by_role("button", name="Bring Ebb 64 back")).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(
        page.get_by_text(
            "The recording format is not in the package any more: 17:9 4.6K raw is shown instead."
        )
    ).to_be_visible()
    # The adapter that is on leads to no mount of what is left: that is told, and the rows are there for whoever wants them.
    expect(page.get_by_text(re.compile("does not mount on"))).to_be_visible()
    page.get_by_role("button", name="Mounts", exact=True).click()
    expect(page.locator("tr[data-format]")).to_have_count(27)


def test_bodies_are_added_copied_taken_out_and_brought_back(page, home, bodies, context):
    shelf = bodies.get_by_role("complementary", name="Bodies")
    # Another window hears of all of it.
    other = context.new_page()
    other.goto(home + "/bodies")
    elsewhere = other.get_by_role("complementary", name="Bodies")
    catalogue = shelf.get_by_label("Take a body from the catalogue")
    catalogue.select_option(catalogue.locator("option", has_text="Punt 52").get_attribute("value"))
    expect(field(bodies, "Name of the body")).to_have_value("Punt 52")
    shelf.get_by_role("button", name="Copy").click()
    expect(field(bodies, "Name of the body")).to_have_value("Punt 52 (2)")
    expect(elsewhere.get_by_role("link", name=re.compile(r"^Punt 52 \(2\)"))).to_be_visible()
    shelf.get_by_role("button", name="Remove").click()
    expect(elsewhere.get_by_role("link", name=re.compile(r"^Punt 52 \(2\)"))).to_have_count(0)
    expect(shelf.get_by_role("button", name="Bring Punt 52 (2) back")).to_be_visible()
    shelf.get_by_role("button", name="Bring Punt 52 (2) back").click()
    expect(field(bodies, "Name of the body")).to_have_value("Punt 52 (2)")
    shelf.get_by_role("button", name="To the catalogue").click()
    expect(shelf).to_contain_text("Punt 52 (2) is in the catalogue now")
    shelf.get_by_role("link", name="New body").click()
    bodies.get_by_label("Camera", exact=True).fill("Weir")
    bodies.get_by_label("Pitch, µm").fill("6")
    bodies.get_by_label("Photosites", exact=True).fill("6000 x 4000")
    bodies.get_by_role("button", name="Keep this camera").click()
    expect(field(bodies, "Name of the body")).to_have_value("Weir")
    expect(elsewhere.get_by_role("link", name=re.compile("^Weir"))).to_be_visible()
    other.close()


def test_two_windows_on_one_body_lose_nothing(bodies, context):
    """What one keeps the other hears; one that heard nothing puts both together, and asks where both changed one place."""
    hears, deaf = context.new_page(), context.new_page()
    deaf.add_init_script("delete window.BroadcastChannel")
    for page in (hears, deaf):
        page.goto(bodies.url)
        expect(field(page, "Firmware")).to_have_value("2.0")
    field(hears, "Name of the body").fill("Ebb 65")
    kept(hears)
    expect(field(bodies, "Name of the body")).to_have_value("Ebb 65")
    field(bodies, "Firmware").fill("2.5")
    kept(bodies)
    expect(field(hears, "Firmware")).to_have_value("2.5")
    # Undoing what was typed there leaves what came from here.
    hears.get_by_role("button", name="Undo").click()
    kept(hears)
    expect(field(hears, "Firmware")).to_have_value("2.5")
    expect(field(bodies, "Name of the body")).not_to_have_value("Ebb 65")
    field(deaf, "Firmware").fill("3.0")
    field(deaf, "Weight of the body").fill("4,4")
    asked = deaf.get_by_role("alert").first
    expect(asked).to_contain_text("This body was changed here and in another window at the same place")
    expect(asked.get_by_role("row", name=re.compile("^firmware 3.0 2.5"))).to_be_visible()
    expect(field(deaf, "Firmware")).to_have_value("3.0")
    deaf.get_by_role("button", name="As it is here").click()
    kept(deaf)
    bodies.reload()
    expect(field(bodies, "Firmware")).to_have_value("3.0")
    expect(field(bodies, "Weight of the body")).to_have_value("4.4")
    deaf.get_by_role("button", name="Undo").click()
    expect(field(deaf, "Firmware")).to_have_value("2.5")
    expect(field(deaf, "Weight of the body")).to_have_value("4.4")
    kept(deaf)
    hears.close()
    deaf.close()


def test_settings_and_mounts_can_be_undone(page, base_url, home):
    page.goto(f"{home}/settings")
    rate = page.get_by_label("Base rate")
    before = rate.input_value()
    rate.fill("50")
    rate.press("Tab")
    undo = page.get_by_role("button", name="Undo")
    expect(undo).to_be_enabled()
    undo.click()
    expect(rate).to_have_value(before)
    page.get_by_role("button", name="Redo").click()
    expect(rate).to_have_value("50")
    page.keyboard.press("Control+z")
    expect(rate).to_have_value(before)
    # The page speaks as Settings say, also when they are undone.
    words = page.get_by_role("radiogroup", name="Words of the trade")
    words.get_by_text("stills", exact=True).click()
    undo.click()
    expect(words.get_by_role("radio", name="cine")).to_be_checked()
    page.get_by_role("link", name="Compare", exact=True).click()
    expect(page.get_by_label("EI of A")).to_be_visible()
    expect(page.get_by_label("ISO of A")).to_have_count(0)
    page.goto(f"{home}/mounts")
    notes = page.locator('td[aria-label^="Flange distance of "]').first
    told = notes.inner_text()
    notes.click()
    page.keyboard.press("Delete")
    expect(undo).to_be_enabled()
    undo.click()
    expect(notes).to_have_text(told)


def give(page, label, name, data):
    page.get_by_label(label).set_input_files(
        {"name": name, "mimeType": "application/octet-stream", "buffer": data}
    )


def test_formats_come_from_a_table_and_are_undone(bodies):
    bodies.get_by_role("tab", name="Files").click()
    table = formats_csv.write_template().replace(b"4560,2406", b"4000,2250")
    give(bodies, "Choose a CSV file", "bad.csv", table.replace(b"4000", b"9999"))
    expect(bodies.get_by_role("alert").last).to_contain_text("row 2, column window_w reaches 1784 photosites")
    give(bodies, "Choose a CSV file", "good.csv", table)
    expect(bodies.get_by_text("good.csv is in: the body has 20 recording formats now.")).to_be_visible()
    bodies.get_by_role("tab", name="Scan modes and formats").click()
    assert names(bodies, "mode")[-1] == "Full 17:9"
    bodies.get_by_role("button", name="Undo").click()
    assert names(bodies, "mode")[-1] == "S16 2.2K"


def test_files_go_out_and_come_back_as_bodies(bodies):
    bodies.get_by_role("tab", name="Files").click()
    with bodies.expect_download() as got:
        bodies.get_by_role("link", name="Canvases and framing").click()
    fdl = json.loads(got.value.path().read_bytes())
    assert [i["label"] for i in fdl["framing_intents"]] == ["239:100", "16:9", "9:16"]
    assert got.value.suggested_filename == "Ebb 64.fdl"
    give(bodies, "From a file", "back.fdl", json.dumps(fdl).encode())
    expect(field(bodies, "Photosite pitch")).to_have_value("5.82")
    expect(bodies.get_by_role("complementary", name="Bodies").get_by_role("link")).to_have_count(4)
    expect(
        bodies.get_by_text("The file frames for 239:100, 5 % protected; 16:9, 5 % protected; 9:16")
    ).to_be_visible()
    give(bodies, "From a file", "bad.json", b'{"schema": "hextan.body", "schema_version": 1}')
    expect(bodies.get_by_role("alert").first).to_contain_text("name is required")


def test_speed_answers_for_every_scan_mode(page, home):
    page.goto(f"{home}/speed")
    rows = page.locator("tbody tr")
    expect(rows).to_have_count(16)
    full = rows.filter(has=page.get_by_role("rowheader", name="Full 6.4K Ebb 64"))
    for text in ("42.7", "readout", "23.0 ms", "1.20×", "1/60 s", "not reached"):
        expect(full).to_contain_text(text)
    page.get_by_label("Wanted rate").fill("400")
    tern = rows.filter(has=page.get_by_role("rowheader", name="Fast window Tern G"))
    expect(tern).to_contain_text("set 1032 rows: 5.4 mm high")
    page.get_by_label("Wanted rate").fill("soon")
    expect(page.get_by_label("Wanted rate")).to_have_attribute("aria-invalid", "true")
    page.get_by_label("Wanted rate").fill("100")
    page.get_by_label("Movement").select_option("a whip pan")
    expect(full).to_contain_text("7.7 %")
    page.get_by_label("Movement").select_option("an oar's stroke")
    expect(full).to_contain_text("2.9 %")


def test_points_of_the_plot_stand_where_the_figures_say(page, home):
    page.goto(f"{home}/speed")
    page.wait_for_selector("path[data-mode]")
    drawn = page.evaluate(
        """() => {
             const at = (t) => [+t.getAttribute('x'), +t.getAttribute('y')]
             const ticks = [...document.querySelectorAll('text.tick.figure')].map((t) => [t.textContent, ...at(t), t.getAttribute('text-anchor')])
             const spot = (id) => /translate\\(([-.\\d]+) ([-.\\d]+)\\)/.exec(document.querySelector(`path[data-mode="${id}"]`).getAttribute('transform')).slice(1).map(Number)
             const points = [...document.querySelectorAll('path[data-mode]')].map((p) => [p.querySelector('title').textContent, ...spot(p.dataset.mode)])
             return { ticks, points } }"""
    )
    heights = {float(t): x for t, x, _, anchor in drawn["ticks"] if anchor == "middle"}
    rates = {float(t): y - 4 for t, _, y, anchor in drawn["ticks"] if anchor == "end"}
    per_mm = (heights[20] - heights[0]) / 20
    import math

    per_octave = (rates[60] - rates[120]) / math.log(2)
    for title, x, y in drawn["points"]:
        fps, high = (
            float(
                (re.search(r"\([a-z ]*([\d.]+)\) fps", title) or re.search(r": ([\d.]+)[^:]* fps", title))[1]
            ),
            float(re.search(r"× ([\d.]+) mm", title)[1]),
        )
        assert x == pytest.approx(heights[0] + high * per_mm, abs=0.06 * per_mm)
        assert y == pytest.approx(rates[60] - per_octave * math.log(fps / 60), abs=1.5)


def test_the_finder_answers_with_reasons(page, home):
    ask = {
        "rate": {"fps": "100"},
        "delivery": {"raster": [3840, 2160], "must": False, "weight": 2},
        "full_read": {"must": False},
    }
    page.goto(f"{home}/finder?{urllib.parse.urlencode({'ask': json.dumps(ask)})}")
    expect(page.get_by_role("status")).to_have_text("16 of 46 recording formats can do it")
    first = page.locator(".ranked li").first
    expect(first).to_contain_text("2.6K raw")
    expect(first).to_contain_text("2592 × 1458 pixels in that aspect, wanted 3840 × 2160 delivered: 68 %")
    page.get_by_role("checkbox", name="Raw").check()
    expect(page.get_by_role("status")).not_to_have_text("16 of 46 recording formats can do it")
    delivery = page.locator(".ask", has=page.get_by_text("Delivered raster"))
    delivery.get_by_text("must", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("No format meets every must. Make one of them a wish:")
    expect(page.locator(".rejected li").first).to_contain_text("It would do with 30 fps instead of 100")
    page.get_by_label("Frame rate", exact=True).last.fill("soon")
    expect(page.get_by_label("Frame rate", exact=True).last).to_have_attribute("aria-invalid", "true")
    page.get_by_label("Frame rate", exact=True).last.fill("50")
    expect(page.get_by_role("alert")).to_have_count(0)
    answer = page.locator(".ranked").inner_text()
    page.reload()
    expect(page.get_by_role("status")).to_contain_text("recording formats can do it")
    assert page.locator(".ranked").inner_text() == answer
    page.locator(".ranked a").first.click()
    page.wait_for_selector(".sum")
    expect(page.locator("tr.chosen")).to_contain_text(answer.split("\n")[1].split("  ")[0])


def test_coverage_and_angle_bring_the_lens_along(page, home):
    page.goto(f"{home}/finder?ask=%7B%7D")
    page.get_by_role("checkbox", name="The lens covers").check()
    expect(page.get_by_label("Lens at hand")).not_to_have_value("")
    choose(page, "Lens at hand", "Wren 40")
    choose(page, "Adapter", "K50 to W54, plain")
    expect(page.locator(".rejected")).to_contain_text("the lens covers: 11.5 mm short of 43.0 mm")
    choose(page, "Lens at hand", "none")
    expect(page.get_by_text("needs a lens: choose one")).to_be_visible()


def test_pixels_and_data(page, home):
    page.goto(f"{home}/data")
    row = page.locator("tbody tr").filter(has=page.get_by_role("rowheader", name=re.compile("S35 → UHD Ebb")))
    for text in ("4352 × 2448", "3840 × 2160", "1.13×", "93.8", "506 GB 471 GiB"):
        expect(row).to_contain_text(text)
    row.get_by_role("button").click()
    expect(page.locator(".crops")).to_contain_text("S16 → HD, S16 2.2K ×2.000: in camera 1920 × 1080 pixels")
    expect(page.locator(".crops")).to_contain_text(
        "afterwards 3072 × 1728 pixels (5.3 MP) are left, fewer than the delivery needs"
    )
    page.get_by_label("Usual deliveries").select_option("1920 × 1080")
    expect(page.locator(".crops")).to_contain_text("enough for the delivery")
    expect(row).to_contain_text("+100 %")
    cards = page.get_by_role("group", name="Cards of this production")
    cards.get_by_role("button", name="Add a card").click()
    expect(page.get_by_role("columnheader", name="Card 4, min")).to_be_visible()
    cards.get_by_label("Capacity of Card 4").fill("-5")
    expect(cards.get_by_label("Capacity of Card 4")).to_have_attribute("aria-invalid", "true")
    cards.get_by_role("button", name="Delete the card Card 4").click()
    expect(page.get_by_role("columnheader", name="Card 4, min")).to_have_count(0)
    page.get_by_label("Rate at which the data are counted").fill("240")
    expect(page.locator("tbody")).to_contain_text("not at this rate")
    expect(page.locator("tbody")).to_contain_text("18.7 s")


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_nothing_sticks_out_of_the_page(page, home, width, height):
    page.set_viewport_size({"width": width, "height": height})
    for section in ("bodies", "speed", "finder", "data"):
        page.goto(f"{home}/{section}")
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, section
    page.goto(f"{home}/bodies")
    kept(page)
    for tab in ("In-camera crops", "Do the claims hold?", "Catalogue", "Files"):
        page.get_by_role("tab", name=re.compile(re.escape(tab))).click()
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, tab


def test_a_body_of_400_formats_can_be_edited(page, home, first):
    """The size that is measured in `./hextan bench`: all rows are there, and one is changed."""
    formats = [a_format(f"Format {i}", raster=[1920 + 2 * i, 1080], key=f"f{i}") for i in range(400)]
    document = a_body([a_mode(formats=formats)], name="Many")
    made = ask(f"{first[0]}/bodies", {"document": document}, "POST")["id"]
    page.goto(f"{home}/bodies/{made}")
    kept(page)
    expect(page.get_by_role("heading", name="Recording formats of Full 400")).to_be_visible()
    # Rows far from the view are only height; they are drawn when they come near.
    expect(cell(page, "Raster width of Format 399")).to_have_count(0)
    page.wait_for_selector("[data-testid=chosen-window]")
    page.evaluate("window.scrollTo(0, document.documentElement.scrollHeight)")
    enter(page, "Raster width of Format 399", "3000")
    expect(row_of(page, "Format 399")).to_contain_text("2.00×")
    kept(page)
