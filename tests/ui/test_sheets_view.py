"""Sheets as they are worked with: put together, looked at as they will be printed, printed, found out of date."""

import re

import pypdfium2
import pytest
from playwright.sync_api import expect

from tests.ui.test_package_view import ask


@pytest.fixture
def at(base_url):
    low_water = ask(f"{base_url}/api/v1/productions")["here"][0]["id"]
    return f"{base_url}/api/v1/productions/{low_water}"


@pytest.fixture
def opened(page, base_url, complaints, at):
    def go(key, query=""):
        page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/sheets/{key}{query}")
        expect(page.locator("svg.paper, article").first).to_be_visible()
        return page

    yield go
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def saved(page):
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()


def state(page, name):
    return page.get_by_role("link", name=re.compile(f"^{name}"))


def test_a_sheet_is_seen_as_it_is_printed_and_told_to_who_reads(opened):
    page = opened("cart-depth")
    first = page.get_by_role("img", name=re.compile("^Page 1 of 12: Depth, Merrow set"))
    expect(first).to_contain_text("Merrow 18")
    page.get_by_role("button", name="Further pages").click()
    expect(page.get_by_text("pages 5–8 of 12")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^Page 5 of 12"))).to_be_visible()
    page.get_by_text("To read", exact=True).click()
    table = page.get_by_role("group", name="Merrow 18", exact=True).get_by_role("table")
    expect(table.get_by_role("columnheader", name="T2.8")).to_be_visible()
    expect(table.get_by_role("row", name=re.compile(r"^3\.00"))).to_contain_text(re.compile(r"2\.0\d"))
    # On the format on which most shots are made.
    expect(page.get_by_text("On Scope → 4096 of Ebb 64").first).to_be_visible()


def test_distances_in_feet_and_inches_with_faults_at_the_field(opened, at):
    page = opened("cart-depth")
    field = page.get_by_role("textbox", name="Distances, one after the other")
    field.fill("3', nonsense")
    field.press("Enter")
    expect(field).to_have_attribute("aria-invalid", "true")
    field.fill("1.2 m, 9'6\", 4")
    field.press("Enter")
    expect(field).to_have_value("1.20 m, 2.90 m, 4.00 m")
    expect(page.get_by_role("img", name=re.compile("^Page 1 "))).to_contain_text("2.90")
    saved(page)
    kept = ask(f"{at}/sheets")["document"]["bundles"][0]["sheets"][1]
    assert kept["distances_m"] == pytest.approx([1.2, 2.8956, 4.0])
    page.get_by_role("button", name="Undo").click()
    expect(field).to_have_value("")
    saved(page)


def test_a_bundle_is_printed_and_is_current_until_the_plan_changes(opened, at):
    page = opened("pocket-depth")
    expect(state(page, "Depth of field")).to_contain_text("not printed")
    with page.expect_download() as begun:
        page.get_by_role("button", name="Bundle as PDF").click()
    assert begun.value.suggested_filename == "Low Water, For the pocket.pdf"
    read = pypdfium2.PdfDocument(begun.value.path())
    text = read[0].get_textpage().get_text_bounded()
    assert "Merrow 18" in text
    code = re.search(r"state ((?:[0-9a-f]{4} ){2}[0-9a-f]{4})", text)[1].replace(" ", "")
    expect(state(page, "Depth of field")).to_contain_text("✓ current")
    saved(page)
    page = opened("pocket-depth", f"?state={code}")
    expect(page.get_by_text("The paper you scanned is current.")).to_be_visible()
    settings = ask(f"{at}/settings")
    changed = settings["settings"] | {"coc": {"rule": "fixed", "mm": 0.02}}
    ask(f"{at}/settings", {"version": settings["version"], "settings": changed}, "PUT")
    page = opened("pocket-depth", f"?state={code}")
    expect(page.get_by_text("The paper you scanned is another state")).to_be_visible()
    expect(state(page, "Depth of field")).to_contain_text("≠ plan changed")
    expect(page.get_by_text("One is older than the plan.")).to_be_visible()
    with page.expect_download():
        page.get_by_role("button", name="Make it anew").click()
    expect(state(page, "Depth of field")).to_contain_text("✓ current")
    saved(page)


def test_a_bundle_is_begun_changed_and_put_in_order(page, base_url, complaints):
    made = ask(f"{base_url}/api/v1/productions", {"facts": {"name": "Slack water"}}, "POST")
    page.goto(f"{base_url}/p/{made['id']}/sheets")
    page.get_by_role("button", name="For the cart", exact=True).click()
    expect(state(page, "Lens by format")).to_contain_text("nothing to print")
    expect(page.get_by_text("It needs a body with a recording format")).to_be_visible()
    page.get_by_role("link", name=re.compile("^Exposure")).click()
    expect(page.get_by_role("img", name=re.compile("^Page 1 of"))).to_contain_text("Light for a stop")
    page.get_by_role("textbox", name="Title").fill("Light")
    expect(page.get_by_role("img", name=re.compile("^Page 1 of"))).to_contain_text("Light")
    page.get_by_role("button", name="Move the sheet up").click()
    names = page.locator("ol.sheets a > span:first-child")
    expect(names).to_have_text(["Lens by format", "Depth of field", "Formats of a body", "Light", "Cards and storage",
                                "Flicker-safe shutters", "Monitor marks"])  # fmt: skip
    page.get_by_role("group", name="What this sheet is").get_by_text("large", exact=True).click()
    page.get_by_role("button", name="Paper for all").click()
    page.keyboard.press(".")
    expect(page.locator("a[aria-current=true]")).to_contain_text("Cards and storage")
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(names).to_have_count(6)
    page.get_by_role("button", name="Undo").click()
    expect(names).to_have_count(7)
    saved(page)
    kept = ask(f"{base_url}/api/v1/productions/{made['id']}/sheets")["document"]["bundles"][0]
    assert all(sheet["large"] for sheet in kept["sheets"])
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def test_the_page_prints_what_is_read_with_its_tables_whole(opened):
    page = opened("cart-depth")
    expect(page.locator("article")).to_be_hidden()
    page.emulate_media(media="print")
    article = page.locator("article")
    expect(article).to_be_visible()
    expect(page.locator("svg.paper").first).to_be_hidden()
    expect(page.get_by_role("button", name="Bundle as PDF")).to_be_hidden()
    wide = page.evaluate("""() => [...document.querySelectorAll('article table')]
        .filter((t) => t.getBoundingClientRect().width > 1062).length""")
    assert wide == 0
    printed = pypdfium2.PdfDocument(page.pdf(prefer_css_page_size=True, tagged=True))
    text = "".join(each.get_textpage().get_text_bounded() for each in printed)
    for lens in ("Merrow 18", "Merrow 180"):
        assert lens in text
    assert "T22" in text


def printed(page):
    """As a browser prints it, and not as one looks at it in the medium of paper: pages are counted at once."""
    read = pypdfium2.PdfDocument(page.pdf(prefer_css_page_size=True))
    return [close(each.get_textpage().get_text_bounded()) for each in read]


def close(text):
    """Without blanks: where letters stand close or wide, the reader of the file puts some in or leaves some out."""
    return re.sub(r"\s", "", text)


def test_the_whole_kit_and_the_bench_print_all_their_rows_and_columns(page, base_url, at):
    production = at.rsplit("/", 1)[1]
    page.goto(f"{base_url}/p/{production}/package/kit")
    expect(page.get_by_role("table", name=re.compile("^Lenses by recording formats"))).to_be_visible()
    matrix = ask(f"{at}/kit/matrix", {}, "POST")
    text = "".join(printed(page))
    for column in matrix["columns"]:
        assert close(column["name"]) in text
    for row in matrix["rows"]:
        assert text.count(close(row["name"])) >= 2, row["name"]
    page.goto(f"{base_url}/p/{production}/bench")
    expect(page.get_by_role("table", name=re.compile("^Every recording format"))).to_be_visible()
    page.get_by_role("button", name="Mounts", exact=True).click()
    expect(page.get_by_text("46 of 46 recording formats")).to_be_visible()
    pages = printed(page)
    ladder = [each for each in pages if "datarate" in each or "readout" in each]
    assert len(ladder) > 1
    for each in ladder:
        assert all(title in each for title in ("Recordingformat", "Watchout"))
    assert "Asasheet" not in "".join(pages)


def test_what_a_view_shows_becomes_a_sheet(opened, page, base_url, at):
    production = at.rsplit("/", 1)[1]
    page.goto(f"{base_url}/p/{production}/shots")
    page.get_by_role("link", name="As a sheet, to print or to send").click()
    expect(page.get_by_role("img", name=re.compile("^Page 1 of"))).to_contain_text("Shot list")
    page.get_by_role("group", name="What this sheet is").get_by_text("large", exact=True).click()
    page.get_by_role("button", name="Put into For the cart").click()
    expect(page.locator("a[aria-current=true]")).to_contain_text("Shot list")
    saved(page)
    kept = ask(f"{at}/sheets")["document"]["bundles"][0]["sheets"][-1]
    assert (kept["kind"], kept["large"]) == ("shots", True)
    page.goto(f"{base_url}/p/{production}/kit/primes")
    page.get_by_role("link", name="As a sheet, to print or to send").click()
    expect(page.get_by_role("img", name=re.compile("^Page 1 of"))).to_contain_text("Ebb and primes: 7 lenses")


def test_on_a_telephone_the_sheet_is_read(browser, base_url, at):
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/sheets/director-look")
    expect(page.get_by_role("heading", name="What the lenses look like at 8 m").last).to_be_visible()
    expect(
        page.get_by_role("img", name=re.compile("Merrow 18 on Scope → 4096 of Ebb 64 at 8.00 m"))
    ).to_be_visible()
    page.get_by_text("For the director: 2 sheets").click()
    page.get_by_role("link", name=re.compile("^Shot list")).click()
    expect(page.get_by_role("rowheader", name="12A").first).to_be_visible()
    context.close()


def test_a_camera_goes_out_and_comes_back_on_the_bench(opened, page, base_url, at, tmp_path):
    production = at.rsplit("/", 1)[1]
    page.goto(f"{base_url}/p/{production}/sheets/cart-cards")
    page.get_by_role("link", name="Files for other programs").click()
    files = page.get_by_role("region", name="Files for other programs")
    row = files.get_by_role("row", name=re.compile("^USD cameras"))
    files.get_by_text("all shots", exact=True).click()
    with page.expect_download() as begun:
        row.get_by_role("link", name="Save").click()
    assert begun.value.suggested_filename == "Low Water, shots.usda"
    files.get_by_label("Open USD cameras").set_input_files(begun.value.path())
    expect(files.get_by_text(re.compile(r"^\d+ cameras in the file:"))).to_be_visible()
    files.get_by_role("link", name="Shot_12A: open on the Bench").click()
    expect(page).to_have_url(re.compile("/bench[?]"))
    expect(page.get_by_role("table", name=re.compile("^Every recording format"))).to_be_visible()
    page.go_back()
    broken = tmp_path / "a.usda"
    broken.write_text("nothing")
    files.get_by_label("Open USD cameras").set_input_files(broken)
    expect(files.get_by_text("does not begin with #usda")).to_be_visible()
