"""Comparisons as a second unit uses them: cases, matching, keeping, printing."""

import re

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import PATIENCE_MS


@pytest.fixture
def compare(page, base_url, complaints):
    """The demo's comparison as it begins, whatever earlier tests kept."""
    page.set_default_timeout(PATIENCE_MS)
    page.goto(f"{base_url}/?spare=0")
    page.wait_for_selector(".sum")
    path = page.evaluate(
        """async () => {
             const { here: [{ id }] } = await (await fetch('/api/v1/productions')).json()
             const kit = await (await fetch(`/api/v1/productions/${id}/package`)).json()
             const at = `/api/v1/productions/${id}/comparisons`
             const find = (list, name) => list.find((x) => x.name === name).id
             const formats = (b) => kit.bodies.find((x) => x.name === b).modes.flatMap((m) => m.formats)
             const lenses = kit.lens_sets.flatMap((s) => s.lenses)
             const columns = [['a', 'Ebb 64', 'Full → UHD', 'Merrow 50', 4], ['b', 'Ebb 64', 'S35 → UHD', 'Merrow 29', 2.8]]
               .map(([key, body, format, lens, stop]) => ({ key, stop, subject_m: 3.2, ei: 800,
                 format_id: find(formats(body), format), lens_id: find(lenses, lens) }))
             const document = { schema: 'hextan.comparison', schema_version: 1, name: 'Deck, two cameras', columns,
               delivery: { aspect: 2.39 } }
             const kept = await (await fetch(at, { method: 'POST', body: JSON.stringify({ document }),
               headers: { 'content-type': 'application/json' } })).json()
             return `/p/${id}/compare/${kept.id}` }"""
    )
    page.goto(base_url + path)
    page.wait_for_selector("tr[data-row]")
    yield page
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def cells(page, key):
    return page.locator(f"tr[data-row={key}] td")


def wait_kept(page):
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()


def test_three_cases_kept_apart(compare):
    expect(cells(compare, "field_w").nth(1)).to_have_class(re.compile("differs"))
    compare.get_by_role("radiogroup", name="Case").get_by_text("same lens, same place", exact=True).click()
    expect(cells(compare, "distance").nth(1)).to_contain_text("as A 3.20 m")
    expect(cells(compare, "optical").nth(1)).to_contain_text("as A 50.0 mm")
    expect(cells(compare, "behind").nth(1)).to_contain_text("=")
    expect(cells(compare, "field_w").nth(1)).to_contain_text("≠")
    compare.get_by_role("radiogroup", name="Case").get_by_text("same framing, by moving", exact=True).click()
    expect(cells(compare, "field_w").nth(1)).to_contain_text("=")
    expect(cells(compare, "distance").nth(1)).to_contain_text("≠")
    expect(cells(compare, "behind").nth(1)).to_contain_text("≠")
    expect(compare.get_by_role("region", name=re.compile("^Why ")).first).to_contain_text(
        "Matches: field, blur"
    )
    compare.keyboard.press("4")
    expect(cells(compare, "distance").nth(1)).to_contain_text("as A 3.20 m")
    expect(cells(compare, "optical").nth(1)).to_contain_text("≠")
    # What it is set to is kept, and comes back.
    compare.get_by_role("radiogroup", name="Case").get_by_text("as set", exact=True).click()
    expect(compare.get_by_label("Lens of B")).to_have_value("Merrow 29")


def test_the_rule_changes_the_answer_about_bigger_sensors(compare):
    rules = compare.get_by_role("region", name="Does a bigger sensor give less depth?")
    row = rules.get_by_role("row", name=re.compile("^fixed 0.025 mm"))
    expect(row).to_contain_text("= the same")
    expect(row).to_contain_text("▾ less")
    expect(rules.get_by_role("row", name=re.compile("^picture diagonal"))).to_contain_text("▴ more")
    depth = cells(compare, "depth").nth(0).inner_text()
    compare.get_by_label("Rule for the circle of confusion").select_option(label="0.013 mm")
    expect(cells(compare, "coc").nth(0)).to_contain_text("13.0 µm")
    expect(cells(compare, "depth").nth(0)).not_to_have_text(depth)


def test_parts_multiply_to_the_whole(compare):
    why = compare.get_by_role("region", name=re.compile("^Why ")).first
    figures = [float(t.lstrip("×")) for t in why.locator("tbody").first.locator("td.n").all_inner_texts()]
    product = 1.0
    for factor in figures[1:]:
        product *= factor
    # Each is printed to a hundredth.
    assert product == pytest.approx(figures[0], rel=0.03)


def test_matching_takes_a_real_lens_and_says_what_is_left(compare):
    compare.get_by_role("button", name="Match to A").click()
    panel = compare.get_by_role("region", name=re.compile("^Match "))
    expect(panel).to_contain_text("Exact: ")
    expect(panel.get_by_role("row")).not_to_have_count(1)
    first = panel.locator("tbody tr").first
    lens = first.locator("td.lens").inner_text()
    expect(panel).to_be_in_viewport(ratio=0.9)
    first.get_by_role("button", name="Use this").click()
    chosen = compare.get_by_label("Lens of B").input_value()
    assert chosen in lens
    field = cells(compare, "field_w")
    expect(field.nth(1)).to_be_visible()
    compare.keyboard.press("Control+z")
    expect(compare.get_by_label("Lens of B")).to_have_value("Merrow 29")
    compare.get_by_role("button", name="Match all to A").click()
    expect(compare.get_by_text(re.compile("^B: "))).to_be_visible()


def test_any_set_up_is_the_master_and_nothing_far_off_is_offered(compare):
    compare.get_by_role("button", name="Make set-up B the master").click()
    expect(cells(compare, "field_w").nth(0)).to_have_class(re.compile("differs"))
    expect(compare.get_by_role("region", name=re.compile("^Why A.* differs"))).to_be_visible()
    compare.get_by_role("button", name="Match to B").click()
    panel = compare.get_by_role("region", name=re.compile("^Match A.* to B$"))
    within = panel.get_by_label("How far off in width a match may be, per cent")
    widths = panel.locator("tbody tr td:nth-child(4)")
    expect(widths.first).to_be_visible()
    within.fill("0,2")
    within.press("Enter")
    # Primes are off by more: what is left are zooms, which are set to it.
    expect(widths.filter(has_not_text=re.compile(r"^\s*[+−]?0\.[0-2]"))).to_have_count(0)
    expect(widths.first).to_be_visible()
    wait_kept(compare)
    compare.reload()
    expect(compare.get_by_text("Master: the others are held to it")).to_have_count(1)
    expect(compare.get_by_role("button", name="Match to B")).to_have_count(1)
    # A master that is taken out leaves the first to be it.
    compare.get_by_role("button", name="Add a set-up").click()
    compare.get_by_role("button", name="Take set-up B out").click()
    expect(compare.get_by_role("button", name="Match to A")).to_have_count(1)


def test_a_comparison_is_named_kept_copied_and_taken_out(compare):
    name = compare.get_by_label("Name of the comparison")
    name.fill("Wheelhouse")
    compare.get_by_label("Note on the trim of B").fill("matches the skin at the lamp")
    compare.get_by_label("Trim by eye, stops, of B").fill("0,33")
    compare.get_by_label("Trim by eye, stops, of B").press("Enter")
    wait_kept(compare)
    compare.reload()
    expect(name).to_have_value("Wheelhouse")
    expect(compare.get_by_label("Note on the trim of B")).to_have_value("matches the skin at the lamp")
    expect(compare.get_by_label("Trim by eye, stops, of B")).to_have_value("0.33")
    address = compare.url
    compare.get_by_role("button", name="Copy", exact=True).click()
    expect(name).to_have_value("Wheelhouse (2)")
    assert compare.url != address
    compare.get_by_role("button", name="Remove").click()
    compare.get_by_role("button", name="Bring Wheelhouse (2) back").click()
    expect(name).to_have_value("Wheelhouse (2)")
    name.fill("")
    expect(compare.get_by_role("status").filter(has_text="One figure to correct")).to_be_visible()
    name.fill("Wheelhouse, again")
    wait_kept(compare)


def test_up_to_four_columns(compare):
    add = compare.get_by_role("button", name="Add a set-up")
    add.click()
    expect(compare.get_by_label("Format of C")).to_be_visible()
    add.click()
    expect(compare.get_by_label("Format of D")).to_be_visible()
    expect(add).to_be_disabled()
    frames = compare.locator("td.finder rect.recorded")
    sizes = [float(frames.nth(i).get_attribute("width")) for i in range(4)]
    assert sizes == pytest.approx([sizes[0]] * 4)
    compare.get_by_label("Stop of D").select_option(index=3)
    compare.get_by_role("button", name="Take set-up B out").click()
    expect(compare.get_by_label("Format of D")).to_have_count(0)


def test_it_prints_on_two_pages_that_can_be_read(compare):
    compare.emulate_media(media="print", color_scheme="light")
    pdf = compare.pdf(prefer_css_page_size=True)
    assert len(re.findall(rb"/Type\s*/Page[^s]", pdf)) <= 2
    # A point is 4/3 of a pixel: no type of less than seven points.
    smallest = compare.evaluate(
        """() => Math.min(...[...document.querySelectorAll('main td, main th, main p')]
             .filter((e) => e.checkVisibility() && e.innerText.trim())
             .map((e) => parseFloat(getComputedStyle(e).fontSize) * e.currentCSSZoom))"""
    )
    assert smallest * 3 / 4 >= 7


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_nothing_sticks_out_of_the_page(compare, width, height):
    compare.set_viewport_size({"width": width, "height": height})
    compare.wait_for_load_state("networkidle")
    assert compare.evaluate("document.documentElement.scrollWidth") <= width
