"""Lenses, mounts, coverage, matrix, ladder, match and framing as they are used: mouse, keyboard, files, awkward values."""

import json
import re

import pytest
from playwright.sync_api import expect

from tests.core.kits import a_lens, a_set
from tests.ui.conftest import box, choose, choose_lens, package_of
from tests.ui.grids import cell, enter, pick, row_of
from tests.ui.test_package_view import ask, give


@pytest.fixture
def at_first(base_url):
    """Address of the demo's production over the API, and its lens sets and mounts as they are at first."""
    at = f"{base_url}/api/v1/productions/{ask(f'{base_url}/api/v1/productions')['here'][0]['id']}"
    listed = ask(f"{at}/lens-sets")["here"]
    return at, [ask(f"{at}/lens-sets/{row['id']}") for row in listed], ask(f"{at}/rig")


@pytest.fixture
def kit(page, base_url, complaints, at_first):
    """The address of the package."""
    with package_of(page, base_url, complaints, at_first[0]) as address:
        yield address


@pytest.fixture
def lenses(page, kit):
    page.goto(f"{kit}/lenses")
    expect(page.get_by_role("status")).to_have_text("saved")
    expect(page.locator("tr[data-key]")).to_have_count(12)
    return page


def test_the_sets_stand_in_a_list_and_the_first_is_open(lenses):
    shelf = lenses.get_by_role("complementary", name="Lens sets")
    expect(shelf.get_by_role("listitem").get_by_role("link")).to_have_count(6)
    expect(shelf).to_contain_text("2 changes in the catalogue")
    row = row_of(lenses, "Merrow 18")
    expect(row).to_contain_text("69.3°")
    expect(row).to_contain_text("wide")
    expect(row).to_contain_text("full frame")


def test_a_figure_is_checked_as_it_is_typed_and_kept(lenses):
    enter(lenses, "Close focus of Merrow 18", "-2")
    expect(lenses.get_by_role("alert").first).to_contain_text("must be greater than 0")
    expect(lenses.get_by_role("status")).to_contain_text(
        "One figure to correct, not saved until then: Merrow 18 close focus m"
    )
    enter(lenses, "Close focus of Merrow 18", "0,31")
    expect(lenses.get_by_role("status")).to_have_text("saved")
    lenses.reload()
    expect(cell(lenses, "Close focus of Merrow 18")).to_have_text("0.31")
    enter(lenses, "T-stop of Merrow 25", "1.2")
    expect(lenses.get_by_role("status")).to_contain_text("cannot be wider than f/1.7: glass only loses light")
    lenses.get_by_role("button", name="Undo").click()
    expect(lenses.get_by_role("status")).to_have_text("saved")


def test_lenses_are_added_copied_moved_deleted_and_brought_back(lenses):
    tools = lenses.get_by_role("group", name="Rows: lens")
    cell(lenses, "Name of Merrow 21").click()
    tools.get_by_role("button", name="Duplicate").click()
    expect(cell(lenses, "Name of Merrow 21 (2)")).to_be_visible()
    tools.get_by_role("button", name="Add").click()
    expect(cell(lenses, "Mount of New lens")).to_have_text("W54")
    tools.get_by_role("button", name="Delete").click()
    expect(lenses.locator("tr[data-key]")).to_have_count(13)
    cell(lenses, "Name of Merrow 35").click()
    lenses.keyboard.press("Alt+ArrowUp")
    assert lenses.get_by_role("rowheader").all_inner_texts()[:6] == [
        "Merrow 18", "Merrow 21", "Merrow 21 (2)", "Merrow 25", "Merrow 35", "Merrow 29"]  # fmt: skip
    for _ in range(4):
        lenses.get_by_role("button", name="Undo").click()
    expect(lenses.locator("tr[data-key]")).to_have_count(12)
    expect(lenses.get_by_role("status")).to_have_text("saved")


def test_a_circle_becomes_a_table(lenses):
    more = lenses.get_by_role("region", name="More of Merrow 18")
    more.get_by_label("Circle of Merrow 18 along").select_option("stop")
    table = more.get_by_label("Table of circles of Merrow 18")
    expect(table).to_have_value("2.1: 46.3")
    table.fill("2.1: 42; 4: 46.3; 8 47")
    expect(more.get_by_role("alert")).to_be_visible()
    table.fill("2.1: 42,5; 4: 46.3")
    expect(lenses.get_by_role("status")).to_have_text("saved")
    expect(row_of(lenses, "Merrow 18")).to_contain_text("42.5–46.3")
    expect(row_of(lenses, "Merrow 18")).to_contain_text("Super 35")
    drawn = lenses.locator("figure circle.circle")
    sizes = [float(drawn.nth(i).get_attribute("r")) for i in range(2)]
    assert sizes == [21.25, 23.15]


def test_changes_of_the_catalogue_are_offered(lenses):
    lenses.get_by_role("link", name=re.compile("^Wren")).click()
    lenses.get_by_role("tab", name="Catalogue: 2 new").click()
    row = lenses.get_by_role("row", name=re.compile("Wren 18"))
    expect(row).to_contain_text("30")
    row.get_by_role("button", name="Take").click()
    expect(lenses.get_by_role("tab", name="Catalogue: 1 new")).to_be_visible()
    lenses.get_by_role("tab", name="Lenses").click()
    expect(cell(lenses, "Image circle of Wren 18")).to_have_text("30")


def test_lenses_go_out_and_come_back(lenses):
    lenses.get_by_role("tab", name="Files").click()
    with lenses.expect_download() as got:
        lenses.get_by_role("link", name="Its lenses").click()
    table = got.value.path().read_bytes()
    give(lenses, "Choose a CSV file", "bad.csv", table.replace(b"Merrow 40,40", b"Merrow 40,4 in"))
    expect(lenses.get_by_role("alert").last).to_contain_text(
        "row 7, column focal_mm is in millimetres: write the number alone"
    )
    give(lenses, "Choose a CSV file", "good.csv", table.replace(b"Merrow 40,40", b"Merrow 41,41"))
    expect(lenses.get_by_text("good.csv is in: the set has 13 lenses now.")).to_be_visible()
    lenses.get_by_role("button", name="Undo").click()
    lenses.get_by_role("tab", name="Lenses").click()
    expect(lenses.locator("tr[data-key]")).to_have_count(12)


def test_a_set_comes_from_a_file_and_from_the_catalogue(lenses):
    give(lenses, "From a file", "set.json", json.dumps(
        a_set([a_lens("Heron 33", 33.0)]) | {"schema": "hextan.lens_set", "schema_version": 1}).encode())  # fmt: skip
    expect(cell(lenses, "Name of Heron 33")).to_be_visible()
    give(lenses, "From a file", "bad.json", b'{"schema": "hextan.body", "schema_version": 1}')
    expect(lenses.get_by_role("alert").first).to_contain_text("schema must be hextan.lens_set")
    catalogue = lenses.get_by_label("Take a set from the catalogue")
    catalogue.select_option(catalogue.locator("option", has_text="Sluice 1.5x").get_attribute("value"))
    expect(cell(lenses, "Name of Sluice 1.5x 32")).to_be_visible()
    lenses.get_by_role("button", name="Remove").click()
    expect(lenses.get_by_role("button", name="Bring Sluice 1.5x back")).to_be_visible()


def test_a_long_set_draws_only_what_is_near(page, kit, at_first):
    at = at_first[0]
    many = a_set([a_lens(f"L {i}", 10.0 + i % 300, key=f"k{i}") for i in range(600)], name="Rental list")
    added = ask(f"{at}/lens-sets", {"document": many}, "POST")
    page.goto(f"{kit}/lenses/{added['id']}")
    expect(page.locator("table[aria-rowcount='601']")).to_be_visible()
    assert page.locator("tr[data-key]").count() < 100
    page.mouse.wheel(0, 6500)
    expect(cell(page, "Name of L 320")).to_be_visible()


@pytest.fixture
def mounts(page, kit):
    page.goto(f"{kit}/mounts")
    expect(page.get_by_role("status")).to_have_text("saved")
    page.wait_for_selector("text=What goes on what")
    return page


def test_combinations_follow_the_flange_distance(mounts):
    row = mounts.get_by_role("row", name=re.compile("^Wren 40 K50"))
    expect(row).to_contain_text("! K50 to W54, plain")
    enter(mounts, "Flange distance of K50", "38.2")
    expect(row).to_contain_text("1.4x extender")
    row.get_by_role("button").first.click()
    expect(mounts.get_by_text("infinity is out of reach").first).to_be_visible()
    expect(mounts.get_by_role("status")).to_have_text("saved")
    mounts.get_by_role("button", name="Undo").click()
    expect(row).to_contain_text("! K50 to W54, plain")


def test_mounts_go_out_as_a_file_and_come_back(mounts):
    with mounts.expect_download() as got:
        mounts.get_by_role("link", name="Mounts and adapters as a file").click()
    file = got.value.path().read_bytes()
    give(mounts, "From a file", "bad.json", file.replace(b"50.4", b"-1"))
    expect(mounts.get_by_role("alert").first).to_contain_text("mounts[1].flange_mm must be greater than 0")
    give(mounts, "From a file", "good.json", file.replace(b"50.4", b"51.5"))
    expect(cell(mounts, "Flange distance of K50")).to_have_text("51.5")
    mounts.get_by_role("button", name="Undo").click()
    expect(cell(mounts, "Flange distance of K50")).to_have_text("50.4")
    expect(mounts.get_by_role("status")).to_have_text("saved")


def test_an_adapter_that_cannot_be_is_refused_in_its_row(mounts):
    enter(mounts, "Magnification of K50 to W54, plain", "0.7")
    expect(mounts.get_by_text("a magnification other than 1 needs glass").first).to_be_visible()
    mounts.get_by_role("checkbox", name="Glass of K50 to W54, plain").check()
    expect(mounts.get_by_role("status")).to_have_text("saved")
    tools = mounts.get_by_role("group", name="Rows: adapter")
    tools.get_by_role("button", name="Add").click()
    expect(cell(mounts, "Name of New adapter")).to_be_visible()
    pick(mounts, "Lens side of New adapter", "N30")
    pick(mounts, "Body side of New adapter", "W54")
    expect(row_of(mounts, "New adapter")).to_contain_text("Impossible without glass")


def test_a_note_on_a_lens_and_a_body_is_told_where_they_meet(mounts):
    tools = mounts.get_by_role("group", name="Rows: note")
    tools.get_by_role("button", name="Add").click()
    pick(mounts, "Lens of Merrow", "Merrow 40")
    enter(mounts, "Note of Merrow 40", "corners soft before T2.8")
    expect(mounts.get_by_role("status")).to_have_text("saved")
    mounts.get_by_role("button", name=re.compile("Merrow 40.*W54")).or_(
        mounts.get_by_text("Merrow 40 W54")
    ).last.click()
    expect(mounts.get_by_text("corners soft before T2.8").last).to_be_visible()


@pytest.fixture
def coverage(page, kit):
    page.goto(f"{kit}/coverage")
    page.wait_for_selector("[data-testid=recorded]")
    return page


def test_coverage_says_what_to_do_and_tries_it(coverage):
    choose(coverage, "Recording format", "S35 → UHD")
    choose(coverage, "Lens", "Wren 16")
    head = coverage.get_by_role("region", name="What to do").locator(".head")
    expect(head).to_contain_text("✗ Wren 16 in S35 → UHD: dark corners")
    expect(head).to_contain_text("Ø 27.9 of 29.1 mm")
    first = coverage.get_by_role("listitem").filter(has_text="Leave it")
    expect(first).to_contain_text("only what lies outside it is dark")
    stop = coverage.get_by_role("listitem").filter(has_text="Stop down to T4.5")
    stop.get_by_role("button", name="Try").click()
    expect(head).to_contain_text("Wren 16 in S35 → UHD: just covers")
    expect(
        coverage.get_by_text("Makers measure circles differently: test it before the shoot.").first
    ).to_be_visible()
    coverage.reload()
    expect(head).to_contain_text("just covers")


def test_the_circle_along_a_zoom_is_set_by_a_click(coverage):
    choose(coverage, "Recording format", "S35 → UHD")
    choose(coverage, "Lens", "Reach 19–92")
    plot = coverage.get_by_role("img", name="Image circle along the focal length, mm")
    box = plot.bounding_box()
    plot.click(position={"x": box["width"] - 18, "y": 40})
    expect(coverage.locator(".as-set")).to_contain_text("92.0 mm")
    expect(coverage.locator(".head")).to_contain_text("covers")
    coverage.get_by_role("slider", name="Focal length").fill("19")
    expect(coverage.locator(".head")).to_contain_text("dark corners")


def test_the_drawn_circle_and_window_stand_to_scale(coverage):
    """Sizes on the screen over sizes in millimetres are the same for circle, window and picture."""
    choose(coverage, "Recording format", "S35 → UHD")
    sizes = coverage.evaluate(
        """() => { const width = (e) => e.getBoundingClientRect().width
           const figure = document.querySelector('figure')
           return { circle: Math.max(...[...figure.querySelectorAll('circle')].map(width)),
                    recorded: width(figure.querySelector('[data-testid=recorded]')) } }"""
    )
    text = coverage.locator(".head").inner_text()
    circle = float(re.search(r"Ø ([\d.]+) of", text)[1])
    recorded = float(re.search(r"recorded ([\d.]+) ×", coverage.locator("figure").first.inner_text())[1])
    assert sizes["circle"] / sizes["recorded"] == pytest.approx(circle / recorded, rel=0.02)


def test_a_link_to_a_lens_that_is_gone_can_be_mended(page, kit):
    page.goto(f"{kit}/coverage?ask=%7B%22lens_id%22%3A999999%7D")
    expect(page.get_by_role("alert").first).to_contain_text("is no longer in this production")
    choose(page, "Lens", "Wren 40")
    page.wait_for_selector("[data-testid=recorded]")
    page.goto(f"{kit}/coverage?ask=nonsense")
    page.wait_for_selector("[data-testid=recorded]")


@pytest.fixture
def matrix(page, kit):
    page.goto(f"{kit}/kit")
    page.wait_for_selector("td[data-r='0'][data-c='0']")
    return page


def test_the_matrix_tells_a_cell_under_the_pointer_and_by_keyboard(matrix):
    told = matrix.locator(".told")
    matrix.locator("td[data-r='12'][data-c='3']").hover()
    expect(told).to_contain_text("Wren 16 in S35 4.3K raw of Ebb 64")
    expect(told).to_contain_text("15.7 mm by width")
    expect(told).to_contain_text("✗ dark corners")
    expect(told).to_contain_text("circle 27.9 of 29.1 mm, 0.5 % dark (all corners)")
    matrix.locator("td[data-r='0'][data-c='0']").focus()
    matrix.keyboard.press("ArrowDown")
    matrix.keyboard.press("ArrowRight")
    expect(told).to_contain_text("Merrow 21 in Full → UHD")
    told.get_by_role("link", name="To the Bench").click()
    expect(box(matrix, "Lens")).to_have_value(re.compile("^Merrow 21 "))
    expect(matrix.get_by_label("Adapter", exact=True)).to_have_value("")


def test_the_end_of_a_long_matrix_is_drawn_when_it_is_reached(matrix):
    assert matrix.locator("td[data-r='38']").count() == 0
    matrix.locator("td[data-r='0'][data-c='0']").focus()
    for _ in range(38):
        matrix.keyboard.press("ArrowDown")
    expect(matrix.locator(".told")).to_contain_text("Bowl 8 fisheye in Full 6.4K raw")
    assert matrix.locator("td[data-c='21']").count() == 0
    for _ in range(21):
        matrix.keyboard.press("ArrowRight")
    expect(matrix.locator(".told")).to_contain_text("Bowl 8 fisheye in Fastest 1.4K raw")
    matrix.locator(".matrix").evaluate("(box) => box.scrollTo(0, 0)")
    expect(matrix.locator("td[data-r='0'][data-c='0']")).to_be_visible()


def test_the_matrix_is_cut_down_and_its_columns_change(matrix):
    rows, columns = matrix.locator("tbody tr th[scope=row]"), matrix.locator("thead tr").nth(1).locator("th")
    expect(rows).to_have_count(39)
    before = columns.count()
    matrix.get_by_label("Columns of the matrix").select_option("formats")
    expect(columns).to_have_count(47)
    assert before < 47
    matrix.get_by_label("Columns of the matrix").select_option("classes")
    expect(columns).to_have_count(9)
    matrix.get_by_role("group", name="Lens sets").get_by_role("button", name="Merrow").click()
    expect(rows).to_have_count(27)
    matrix.reload()
    expect(rows).to_have_count(27)
    matrix.get_by_label("How lenses are mounted").select_option("every")
    expect(matrix.locator("tbody th", has_text="×1.40").first).to_be_attached()


def test_the_matrix_is_copied_as_a_table(matrix, context):
    context.grant_permissions(["clipboard-read", "clipboard-write"])
    matrix.get_by_role("button", name="Copy as CSV").click()
    expect(matrix.get_by_role("status")).to_have_text("Copied.")
    copied = matrix.evaluate("navigator.clipboard.readText()")
    assert copied.startswith("lens_set,lens,mounted,body,scan_mode,format,focal_mm")
    context.clear_permissions()


def test_the_ladder_names_gaps_in_one_picture(page, kit):
    page.goto(f"{kit}/ladder")
    page.wait_for_selector("rect.prime")
    sets = page.get_by_role("group", name="Lens sets")
    for name in ("Merrow", "Longshore 2x", "Reach zooms"):
        sets.get_by_role("button", name=name).click()
    page.get_by_role("button", name=re.compile("^S35 4.3K raw")).click()
    expect(page.locator(".words")).to_contain_text("Nothing between 49 and 74 mm: a step of 1.50.")
    gaps = page.get_by_role("region", name="Gaps")
    expect(gaps).to_contain_text("49.1 – 73.7 mm a step of 1.50")
    expect(gaps).to_contain_text("Or record 6:5 3.7K raw of Ebb 64")
    expect(page.locator("rect.gap")).to_have_count(1)
    page.locator("rect.prime").first.hover()
    expect(page.locator("figure .told")).to_contain_text(
        "Wren 18 with K50 to W54, plain: 17.7 mm, 70.3°, very wide"
    )
    page.get_by_label("Ratio of a gap").fill("0.5")
    expect(page.get_by_role("alert").first).to_contain_text("must be at least 1.05")
    page.get_by_label("Ratio of a gap").fill("1.6")
    expect(page.locator("rect.gap")).to_have_count(0)
    page.get_by_role("button", name="All recording formats again").click()
    expect(page.locator("text.row").nth(5)).to_be_visible()


def test_marks_of_the_ladder_stand_on_a_logarithmic_scale(page, kit):
    page.goto(f"{kit}/ladder")
    page.wait_for_selector("rect.prime")
    at = page.evaluate(
        """() => Object.fromEntries([...document.querySelectorAll('svg text.figure')].map(
             (t) => [t.textContent, Number(t.getAttribute('x'))]))"""
    )
    assert at["50"] - at["25"] == pytest.approx(at["100"] - at["50"], abs=0.01)


def test_a_wanted_equivalent_is_matched(page, kit):
    page.goto(f"{kit}/match")
    match = page.get_by_role("region", name="Nearest match")
    match.get_by_role("row", name=re.compile("S35 4.3K raw")).wait_for()
    page.get_by_role("group", name="Lens sets").get_by_role("button", name="Reach zooms").click()
    row = match.get_by_role("row", name=re.compile("^S35 4.3K raw"))
    expect(row).to_contain_text("35.2 mm")
    expect(row).to_contain_text("Merrow 35")
    row.get_by_role("button").click()
    expect(match.locator(".more")).to_contain_text("Next wider")
    page.get_by_label("Wanted focal length").fill("eleven")
    expect(page.get_by_role("alert").first).to_contain_text("must be a number")
    page.get_by_label("Wanted focal length").fill("85")
    expect(match).to_contain_text("23.9° across")
    field = page.get_by_label("Distance of the subject for the match")
    field.fill("12ft")
    field.press("Enter")
    expect(field).to_have_value("3.66 m")


def test_a_framing_finds_its_distance_and_the_room_binds(page, kit):
    page.goto(f"{kit}/match")
    field = page.get_by_role("region", name="Field and distance")
    choose(page, "Format of the field", "S35 → UHD")
    choose(page, "Lens of the field", "Wren 40")
    expect(field.locator(".head")).to_contain_text("2.03 m")
    page.get_by_label("Wanted framing").select_option("full figure")
    expect(field.locator(".head")).to_contain_text(re.compile(r"7\.\d\d m"))
    page.get_by_label("in a room").check()
    expect(field).to_contain_text("The room binds")
    expect(field.locator("rect.camera.beyond")).to_be_visible()
    field.get_by_role("radiogroup", name="What is asked").get_by_text("which lens").click()
    expect(field.locator(".head")).to_contain_text("wanted height")
    field.get_by_role("radiogroup", name="What is asked").get_by_text("which format").click()
    expect(field.locator(".head")).to_contain_text("of ")
    page.get_by_label("Length of the room").fill("0.5m")
    page.get_by_label("Length of the room").press("Enter")
    expect(field.get_by_role("alert")).to_contain_text("leaves nothing between the subject and the camera")


def test_slow_motion_says_what_is_missing(page, kit):
    page.goto(f"{kit}/match")
    slow = page.get_by_role("region", name="Slow motion")
    choose(page, "Base format", "S35 → UHD")
    expect(slow).to_contain_text("At 100 fps")
    expect(slow).to_contain_text("would need")
    slow.get_by_role("row", name=re.compile("Fastest 720")).get_by_role("button").click()
    expect(slow.locator(".more")).to_contain_text("mm needed")
    page.get_by_label("Rate of the slow motion").fill("5000")
    expect(slow).to_contain_text("No format of this package reaches 5000 fps.")


def test_a_zoom_on_the_bench_has_a_range_with_marks(bench):
    choose_lens(bench, "Reach 19–92")
    bench.get_by_role("button", name="set more of Lens").click()
    tray = bench.get_by_role("region", name="Lens: more settings")
    expect(tray).to_contain_text("covers from 23.0 mm on")
    slider = tray.get_by_role("slider", name="Focal length of the zoom")
    slider.focus()
    bench.keyboard.press("ArrowRight")
    expect(tray.get_by_label("Focal length in mm")).to_have_value("21")
    bench.keyboard.press("ArrowRight")
    expect(tray.get_by_label("Focal length in mm")).to_have_value("25")
    expect(bench.locator(".sum")).to_contain_text("24.6 mm")
    bench.keyboard.press("ArrowLeft")
    expect(tray.get_by_label("Focal length in mm")).to_have_value("21")


def test_a_lens_of_another_mount_comes_with_its_adapter(bench):
    choose_lens(bench, "Merrow 50")
    expect(bench.get_by_label("Adapter", exact=True)).to_have_value("")
    expect(bench.locator(".sum")).to_contain_text("49.1 mm")
    choose_lens(bench, "Wren 50")
    expect(bench.get_by_label("Adapter", exact=True).locator("option:checked")).to_have_text(
        "K50 to W54, plain"
    )


def test_scope_lenses_are_offered_their_formats_and_show_both_frames(bench):
    choose_lens(bench, "Longshore 2x 50")
    bench.get_by_role("button", name="set more of Lens").click()
    tray = bench.get_by_role("region", name="Lens: more settings")
    tray.get_by_role("button", name=re.compile("^6:5 3.7K raw Ebb 64, 100 % used")).click()
    expect(box(bench, "Scan mode")).to_have_value("S35 6:5 for 2x")
    frames = bench.get_by_role("img", name="The picture squeezed on the sensor, and de-squeezed")
    expect(frames).to_contain_text("squeezed 1.20:1")
    expect(frames).to_contain_text("de-squeezed 2.39:1")


def test_the_ladders_of_the_lens_and_of_the_format_set_the_bench(bench):
    bench.get_by_role("button", name="set more of Lens").click()
    marks = bench.locator("[data-lens-mark]")
    assert marks.count() > 20
    other = bench.locator("rect.mark.short[data-lens-mark]").first
    lens_id = other.get_attribute("data-lens-mark")
    other.dispatch_event("click")
    expect(bench.locator(f"[data-lens-mark='{lens_id}']")).to_have_class(re.compile("chosen"))
    form = bench.locator("rect.mark.covers[data-format-mark]").last
    format_id = form.get_attribute("data-format-mark")
    form.dispatch_event("click")
    expect(bench.locator("tr.chosen")).to_have_attribute("data-format", format_id)


def test_the_best_for_the_money_is_climbed_step_by_step(page, kit):
    page.goto(f"{kit}/value")
    steps = page.get_by_role("list", name="Steps upwards from what costs least").locator("> li")
    expect(steps.first).to_contain_text("Skiff 46: owned")
    table = page.get_by_role("group", name="Every choice")
    expect(table.locator("tr.chosen", has_text="step 1")).to_have_count(1)
    for name, text in (("Framing", "waist"), ("Distance", "2.5-4 m"), ("Stop", "T2.8")):
        page.get_by_role("textbox", name=name, exact=True).fill(text)
    expect(steps.nth(1)).to_contain_text("each per cent")
    expect(steps.nth(1).get_by_role("list", name="Why the blur differs")).to_contain_text("mm for")
    expect(steps.nth(1).get_by_role("img", name="The disc of the light against")).to_be_visible()
    page.get_by_text("buy", exact=True).click()
    expect(page.get_by_text("No price is stated of")).to_be_visible()
    expect(page.get_by_role("group", name="Which choices")).to_contain_text("no price")
    # All of it stands in the address.
    address = page.url
    page.goto(f"{kit}/speed")
    page.goto(address)
    expect(page.get_by_role("textbox", name="Framing", exact=True)).to_have_value("waist")
    page.get_by_role("textbox", name="Framing", exact=True).fill("wast")
    expect(page.get_by_text("Not judged: framing")).to_be_visible()
    # A shot of the list, with all that it needs; its first choice opens on the Bench as it is set.
    shot = box(page, "Shot")
    shot.click()
    shot.fill("12B")
    page.get_by_role("listbox").get_by_role("option", name=re.compile("^12B")).first.click()
    expect(page.get_by_text("And all else that the shot needs")).to_be_visible()
    expect(page.get_by_role("textbox", name="Framing", exact=True)).to_have_value("waist")
    first = table.locator("tbody tr").first
    lens, stop = first.get_by_role("link").inner_text(), first.locator("td").nth(4).inner_text()
    first.get_by_role("link").click()
    expect(page).to_have_url(re.compile("/bench"))
    expect(box(page, "Lens")).to_have_attribute("placeholder", re.compile(re.escape(lens.split(" at ")[0])))
    expect(box(page, "Stop").locator("option:checked")).to_have_text(stop)
    page.go_back()
    page.get_by_role("link", name="As a sheet, to print or to send").click()
    expect(page.get_by_role("img", name=re.compile("^Page 1 of"))).to_contain_text("Step by step")
