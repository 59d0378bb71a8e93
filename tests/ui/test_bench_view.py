"""The Bench as a cinematographer uses it: mouse, keyboard, awkward values."""

import re

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import box, choose, choose_lens, saving, settled
from tests.ui.looks import NO_COLOURS, complaints_of, contrast_of


def row(page, name):
    return page.locator("tr[data-format]").filter(
        has=page.get_by_role("button", name=f"How {name} is computed")
    )


def settle(page):
    """Until the last change is drawn and kept."""
    page.wait_for_load_state("networkidle")


def test_every_recording_format_stands_in_the_ladder(bench):
    expect(bench.locator("tr[data-format]")).to_have_count(46)
    expect(bench.get_by_role("status").filter(has_text="recording formats")).to_have_text(
        "46 of 46 recording formats"
    )
    chosen = bench.locator("tr.chosen")
    expect(chosen).to_contain_text("S35 → UHD")
    # 24.89 / 25.33 mm x 40 mm; 2 atan(25.33 / 80); by hand.
    expect(chosen).to_contain_text("39.3 mm")
    expect(chosen).to_contain_text("35.1° × 15.1°")
    expect(chosen).to_contain_text("covers, 2.4 mm spare")
    expect(bench.locator(".sum")).to_contain_text("39.3 mm")
    expect(row(bench, "Full → UHD").first).to_contain_text("11.5 mm short")
    expect(row(bench, "Binned → HD").first).to_contain_text("softened: binned")
    expect(row(bench, "2.6K raw").first).to_contain_text("does not mount")
    # From the start only those are shown on whose body the lens goes.
    bench.get_by_role("button", name="Mounts", exact=True).click()
    expect(bench.get_by_role("status").filter(has_text="recording formats")).to_have_text(
        "19 of 46 recording formats"
    )
    expect(row(bench, "2.6K raw")).to_have_count(0)


def test_a_lens_that_does_not_go_on_is_told_in_place_of_the_sum(bench):
    choose(bench, "Adapter", "none")
    told = bench.get_by_role("status").filter(has_text="does not mount on")
    expect(told).to_contain_text("Wren 40 does not mount on Ebb 64")
    expect(bench.locator(".map .below")).not_to_contain_text("✓")
    told.get_by_role("button", name="Nearest that mounts: Wren 40 through K50 to W54, plain").click()
    expect(bench.locator(".sum")).to_contain_text("39.3 mm")


def test_a_lens_in_feet_and_inches(bench):
    choose_lens(bench, "Wren 75")
    field = bench.get_by_label("Subject distance", exact=True)
    field.fill("9'6\"")
    field.press("Enter")
    expect(field).to_have_value("2.90 m")
    expect(bench.locator("tr.chosen")).to_contain_text("73.7 mm")
    bench.get_by_text("ft", exact=True).click()
    expect(field).to_have_value("9' 6\"")
    expect(bench.locator("tr.chosen")).to_contain_text(re.compile(r"9' \d+[¼½¾]?\"9' \d+[¼½¾]?\""))
    field.press("ArrowUp")
    expect(field).to_have_value("9' 7\"")


@pytest.mark.parametrize(
    ("typed", "metres"), [("2.9", "2.90 m"), ("2.9m", "2.90 m"), ("9ft 6in", "2.90 m"), ("115in", "2.92 m")]
)
def test_distances_as_typed(bench, typed, metres):
    field = bench.get_by_label("Subject distance", exact=True)
    field.fill(typed)
    field.press("Enter")
    expect(field).to_have_value(metres)


def test_text_that_is_no_distance_is_told_at_the_field(bench):
    field = bench.get_by_label("Subject distance", exact=True)
    field.fill("over there")
    field.press("Enter")
    expect(field).to_have_attribute("aria-invalid", "true")
    expect(bench.get_by_role("alert")).to_contain_text("write it like 2.9, 2.9m")
    expect(bench.locator("tr.chosen")).to_contain_text("39.3 mm")
    field.press("Escape")
    expect(field).to_have_value("3.20 m")


def test_too_near_to_focus_keeps_the_picture_and_can_be_undone(bench):
    field = bench.get_by_label("Subject distance", exact=True)
    field.fill("0.1")
    field.press("Enter")
    expect(bench.get_by_role("alert")).to_contain_text(
        "Cannot focus. subject.distance_m: a 40 mm lens forms no image"
    )
    expect(bench.locator("tr.chosen")).to_contain_text("39.3 mm")
    bench.get_by_role("button", name="Undo the last change").click()
    expect(bench.get_by_role("alert")).to_have_count(0)
    expect(field).to_have_value("3.20 m")


def drawn(page):
    """Where the plan view has drawn things, and what the figures say, in pixels and metres."""
    return page.evaluate(
        """() => {
             const ticks = [...document.querySelectorAll('.plan .tick')].map((t) => [parseFloat(t.textContent), +t.getAttribute('x')])
             const [[m0, x0], [m1, x1]] = [ticks[0], ticks.at(-1)]
             const band = document.querySelector('[data-testid=depth-band]')
             const texts = [...document.querySelectorAll('.plan .limit')].map((t) => t.textContent)
             return { origin: x0, scale: (x1 - x0) / (m1 - m0), near: +band.getAttribute('x'),
               far: +band.getAttribute('x') + +band.getAttribute('width'), texts }
           }"""
    )


def test_near_and_far_are_drawn_where_the_figures_say(bench):
    plan = drawn(bench)
    near, far = (float(re.search(rf"{w} ([\d.]+)", " ".join(plan["texts"]))[1]) for w in ("near", "far"))
    # Near is rounded up and far down, by a centimetre at most.
    assert plan["near"] == pytest.approx(plan["origin"] + near * plan["scale"], abs=0.011 * plan["scale"])
    assert plan["far"] == pytest.approx(plan["origin"] + far * plan["scale"], abs=0.011 * plan["scale"])
    cells = row(bench, "S35 → UHD").first.inner_text()
    assert f"{near:.2f}" in cells
    assert f"{far:.2f}" in cells


def test_subject_and_focus_are_dragged(bench):
    person = bench.get_by_role("slider", name="Subject")
    box, plan = settled(bench, person.bounding_box), drawn(bench)
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    asked = []
    bench.on("response", lambda response: asked.append(response) if "/bench/" in response.url else None)
    bench.mouse.move(x, y)
    bench.mouse.down()
    bench.mouse.move(x + plan["scale"], y, steps=12)
    # The handle stands where the hand is, whatever the server does; its answers are of what is in sight.
    grip = bench.locator(".handle .grip").first
    at = grip.evaluate(
        "(circle) => circle.getBoundingClientRect().x + circle.getBoundingClientRect().width / 2"
    )
    assert at == pytest.approx(x + plan["scale"], abs=0.01 * plan["scale"] + 1)
    # A hand that rests for more than a moment makes no second step of undo.
    bench.wait_for_timeout(1000)
    bench.mouse.move(x + 0.5 * plan["scale"], y)
    bench.mouse.move(x + plan["scale"], y)
    settle(bench)
    with bench.expect_response(re.compile("/bench/view")):
        bench.mouse.up()
    expect(bench.get_by_label("Subject distance", exact=True)).to_have_value("4.20 m")
    settle(bench)
    kinds = [
        "move" if "/bench/move" in each.url else "view" for each in asked if each.request.method == "POST"
    ]
    assert "move" in kinds and kinds[-1] == "view"
    sizes = {
        kind: max(len(each.body()) for each in asked if f"/bench/{kind}" in each.url)
        for kind in ("move", "view")
    }
    assert sizes["move"] < sizes["view"] / 2
    expect(person).to_have_attribute("aria-valuenow", "4.2")
    settle(bench)
    # Rows out of sight are held during a drag and must have caught up: compare with a fresh page.
    table = bench.locator("table").first
    after_drag = settled(bench, table.inner_text)
    bench.reload()
    bench.wait_for_selector("tr[data-format]")
    assert settled(bench, table.inner_text) == after_drag
    focus = bench.get_by_role("slider", name="Focus")
    expect(focus).to_have_attribute("aria-valuenow", "4.2")
    focus.focus()
    bench.keyboard.press("PageUp")
    expect(focus).to_have_attribute("aria-valuenow", "4.7")
    expect(bench.get_by_text("behind the subject: the subject is soft")).to_be_visible()
    bench.get_by_text("set more of Subject").click()
    bench.get_by_role("button", name="Focus on the subject").click()
    expect(focus).to_have_attribute("aria-valuenow", "4.2")
    # A drag is one step of undo.
    for _ in range(3):
        bench.keyboard.press("Control+z")
    expect(bench.get_by_label("Subject distance", exact=True)).to_have_value("3.20 m")


def test_window_map_is_to_scale(bench):
    sizes = bench.evaluate(
        """() => Object.fromEntries(['image-circle', 'recorded', 'picture'].map((id) => {
             const box = document.querySelector(`[data-testid=${id}]`).getBBox()
             const ctm = document.querySelector(`[data-testid=${id}]`).getScreenCTM()
             return [id, [box.width * ctm.a, box.height * ctm.d, ctm.a]] }))"""
    )
    scale = sizes["recorded"][2]
    assert sizes["image-circle"][0] / scale == pytest.approx(31.5, abs=0.01)
    assert sizes["recorded"][0] / scale == pytest.approx(4352 * 0.00582, abs=0.01)
    assert sizes["recorded"][1] / scale == pytest.approx(2448 * 0.00582, abs=0.01)
    assert sizes["picture"][1] / scale == pytest.approx(4352 * 0.00582 / 2.39, abs=0.01)


def test_uncovered_corners_are_hatched_and_named(bench):
    row(bench, "Full → UHD").first.click()
    expect(bench.locator(".map .below")).to_contain_text("11.5 mm short here: all four corners dark.")
    expect(bench.locator(".map .below")).to_contain_text("Largest whole window covered: S35 6:5 for 2x.")
    assert bench.locator(".map rect[mask]").count() == 1


def test_rows_are_filtered_sorted_and_pinned(bench):
    bench.get_by_role("button", name="Super 16", exact=True).click()
    bench.get_by_label("At least this many frames a second").select_option("120")
    expect(bench.get_by_role("status").filter(has_text="recording formats")).not_to_have_text(
        "46 of 46 recording formats"
    )
    for text in bench.locator("tr[data-format]").all_inner_texts():
        assert "Super 16" in text
    bench.get_by_role("button", name="Super 16", exact=True).click()
    bench.get_by_label("At least this many frames a second").select_option("")
    expect(bench.get_by_role("status").filter(has_text="recording formats")).to_have_text(
        "46 of 46 recording formats"
    )
    bench.get_by_role("button", name="Highest rate").click()
    bench.get_by_role("button", name=re.compile("Highest rate")).click()
    expect(bench.locator("tr[data-format]").first).to_contain_text("Fastest")
    pins = bench.get_by_role("button", name=re.compile("^Pin "))
    for i in range(5):
        pins.nth(i).click()
    expect(bench.locator("button.pinned")).to_have_count(4)
    expect(bench.locator(".plan polygon.pinned")).to_have_count(4)


def test_no_row_left_says_what_to_do(bench):
    bench.get_by_role("button", name="full frame", exact=True).click()
    bench.get_by_label("At least this many frames a second").select_option("400")
    expect(bench.get_by_text("No recording format passes these filters. Loosen one of them.")).to_be_visible()


def test_columns_are_chosen(bench):
    bench.get_by_role("button", name="Columns").click()
    bench.get_by_role("checkbox", name="Hyperfocal").check()
    bench.get_by_role("checkbox", name="Class").uncheck()
    expect(bench.get_by_role("columnheader", name="Hyperfocal")).to_be_visible()
    expect(bench.get_by_role("columnheader", name="Class")).to_have_count(0)
    bench.reload()
    expect(bench.get_by_role("columnheader", name="Hyperfocal")).to_be_visible()


def test_a_row_shows_how_it_is_computed(bench):
    bench.get_by_role("button", name="How S35 → UHD is computed").click()
    steps = bench.locator(".derivation")
    expect(steps).to_contain_text("24.89 / 25.329")
    expect(steps).to_contain_text("39.31 mm")
    expect(steps).to_contain_text("2·atan(25.329 / (2 × 40.00))")


def test_ladder_by_keyboard(bench):
    bench.locator("tr.chosen").focus()
    bench.keyboard.press("ArrowDown")
    expect(bench.locator("tr.chosen")).to_contain_text("S35 → 4096 17:9")
    bench.keyboard.press("Enter")
    expect(bench.locator(".derivation")).to_be_visible()
    bench.keyboard.press("p")
    expect(bench.locator("tr.chosen button.pinned")).to_have_count(1)
    bench.keyboard.press("Home")
    expect(bench.locator("tr.chosen")).to_contain_text("Full 6.4K raw")


def test_shortcuts(bench):
    bench.locator("body").press("c")
    expect(box(bench, "Lens")).to_have_value(re.compile("^Wren 50 "))
    bench.keyboard.press("b")
    expect(bench.get_by_label("Stop").locator("option:checked")).to_have_text("T2.5")
    bench.keyboard.press("g")
    expect(bench.locator(".sum")).to_contain_text("on full frame")
    bench.keyboard.press("u")
    expect(bench.get_by_label("Subject distance", exact=True)).to_have_value("10' 6\"")
    bench.keyboard.press("?")
    expect(bench.get_by_role("dialog")).to_contain_text("Stop down by a mark")
    bench.keyboard.press("Escape")
    expect(bench.get_by_role("dialog")).to_have_count(0)


def test_a_link_opens_the_same_picture(bench, browser, browser_context_args):
    choose_lens(bench, "Longshore 2x 50")
    choose(bench, "Scan mode", "S35 6:5 for 2x")
    bench.get_by_label("Dimension that sets the crop").select_option("diagonal")
    bench.get_by_label("Rule for the circle of confusion").select_option("the eye, 3 picture heights")
    expect(bench.locator("tr.chosen")).to_contain_text("6:5 3.7K raw")
    expect(bench.locator("tr.chosen")).to_contain_text("covers, 2.8 mm spare")
    settle(bench)
    other = browser.new_context(**browser_context_args)
    page = other.new_page()
    page.goto(bench.url)
    page.wait_for_selector("tr[data-format]")
    assert page.locator("table").first.inner_text() == bench.locator("table").first.inner_text()
    assert page.locator(".sum").inner_text() == bench.locator(".sum").inner_text()
    other.close()


def test_reload_and_a_plain_address_lose_nothing(bench, base_url):
    choose_lens(bench, "Wren 24")
    expect(bench.locator(".sum")).to_contain_text("23.6 mm")
    bench.reload()
    expect(bench.locator(".sum")).to_contain_text("23.6 mm")
    bench.goto(bench.url.split("?")[0])
    expect(bench.locator(".sum")).to_contain_text("23.6 mm")
    bench.keyboard.press("Control+z")
    expect(bench.locator(".sum")).to_contain_text("39.3 mm")
    bench.keyboard.press("Control+Shift+z")
    expect(bench.locator(".sum")).to_contain_text("23.6 mm")


def test_two_windows_on_one_bench_lose_nothing(bench, context):
    other = context.new_page()
    other.goto(bench.url)
    other.wait_for_selector("tr[data-format]")
    with saving(bench):
        choose_lens(bench, "Wren 28")
    choose_lens(other, "Wren 100")
    expect(other.get_by_role("alert")).to_contain_text("changed in another window")
    expect(other.get_by_role("alert").get_by_role("row", name="lens Wren 100 Wren 28")).to_be_visible()
    expect(other.locator(".sum")).to_contain_text("98.3 mm")
    other.get_by_role("button", name="As in the other window").click()
    expect(other.locator(".sum")).to_contain_text("27.5 mm")
    other.keyboard.press("Control+z")
    expect(other.locator(".sum")).to_contain_text("98.3 mm")


def test_a_server_that_is_away_is_told(bench, complaints):
    # All of it: a server that answers some questions is not away.
    bench.route("**/api/v1/**", lambda route: route.abort())
    bench.keyboard.press("c")
    expect(bench.get_by_role("alert")).to_contain_text("One moment: the server does not answer")
    bench.unroute("**/api/v1/**")
    bench.keyboard.press("x")
    expect(bench.get_by_role("alert")).to_have_count(0)
    complaints.clear()


def test_scope_lens_counts_its_squeeze_once(bench):
    choose_lens(bench, "Longshore 2x 50")
    expect(bench.locator(".cell").nth(1)).to_contain_text("×0.500")
    factors = [
        float(f) for f in re.findall(r"×(\d+\.\d+)", " ".join(bench.locator(".cell .head").all_inner_texts()))
    ]
    product = 1.0
    for f in factors:
        product *= f
    told = float(re.search(r"×(\d+\.\d+)", bench.locator(".sum").inner_text())[1])
    assert product == pytest.approx(told, abs=2e-3)


def test_in_camera_crops_are_switched_in_the_recording_link(bench):
    bench.get_by_text("set more of Recording").click()
    bench.get_by_label("Stabiliser, strong").check()
    expect(bench.locator(".cell").nth(4)).to_contain_text("×1.250")
    expect(bench.locator("tr.chosen")).to_contain_text("49.1 mm")
    expect(bench.locator("tr.chosen")).to_contain_text("softened: upscaled")
    bench.get_by_label("Recording format", exact=True).select_option(label="S35 4.3K raw")
    expect(bench.get_by_text("Not here: raw recordings are unaltered sensor data.")).to_be_visible()


def test_axe_finds_nothing_in_what_is_opened(bench):
    bench.get_by_role("button", name="How S35 → UHD is computed").click()
    bench.get_by_text("set more of Recording").click()
    bench.get_by_role("button", name="Columns").click()
    expect(bench.locator(".derivation")).to_be_visible()

    def found():
        colours = []
        for mode in ("dark", "light"):
            bench.evaluate("mode => { document.documentElement.dataset.mode = mode }", mode)
            colours += contrast_of(bench)
        return [*colours, *complaints_of(bench, **NO_COLOURS)]

    assert found() == []
    bench.keyboard.press("?")
    expect(bench.get_by_role("dialog")).to_be_visible()
    assert found() == []


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (820, 1180), (390, 844)])
def test_nothing_sticks_out_of_the_page(bench, width, height):
    bench.set_viewport_size({"width": width, "height": height})
    if width == 390:
        # Every link in turn: each has its own fields.
        for link in (
            bench.get_by_role("list", name="The six links of the light’s path").get_by_role("button").all()
        ):
            link.click()
            expect(bench.locator("#link-tray")).to_be_visible()
            assert bench.evaluate("document.documentElement.scrollWidth") <= width, link.inner_text()
    else:
        bench.get_by_text("set more of Recording").click()
    page_width = bench.evaluate("document.documentElement.scrollWidth")
    assert page_width <= width
    if width == 1280:
        assert bench.locator("tr[data-format]").nth(5).bounding_box()["y"] < 800


def test_on_a_telephone_what_is_set_and_what_it_gives_stay_in_sight(bench):
    """The band is six words that open one by one, the answer stands under it, a format is two lines, and nothing is cut."""
    bench.set_viewport_size({"width": 390, "height": 844})
    band = bench.get_by_role("list", name="The six links of the light’s path")
    expect(band.get_by_role("button")).to_have_count(6)
    expect(bench.locator(".boxes")).to_contain_text("39.3 mm")
    first = bench.locator("tr[data-format]").first
    assert first.bounding_box()["y"] < 844
    distance = band.get_by_role("button", name="Subject: 3.20 m")
    assert distance.bounding_box()["height"] >= 44
    distance.click()
    bench.get_by_label("Subject distance", exact=True).fill("5")
    bench.keyboard.press("Enter")
    expect(band.get_by_role("button", name="Subject: 5.00 m")).to_be_visible()
    near = bench.locator(".boxes dd").nth(1)
    expect(near).not_to_have_text("3.01")
    expect(bench.locator("tr.chosen")).to_contain_text(f"{near.inner_text()} – ")
    # One at a time: another link takes the place of the first, one drawing that of another.
    band.get_by_role("button", name=re.compile("^Lens: ")).click()
    expect(bench.get_by_label("Subject distance", exact=True)).to_have_count(0)
    expect(box(bench, "Lens")).to_be_visible()
    band.get_by_role("button", name=re.compile("^Lens: ")).click()
    bench.get_by_role("radiogroup", name="Drawing").get_by_text("Finder", exact=True).click()
    expect(bench.get_by_role("region", name="Plan view")).to_have_count(0)
    expect(bench.get_by_test_id("finder-picture")).to_be_visible()
    bench.mouse.move(200, 600)
    bench.mouse.wheel(0, 900)
    expect(bench.locator(".boxes")).to_be_in_viewport()
    row = bench.locator("tr[data-format]", has_text="Full → UHD").first
    row.get_by_role("button", name=re.compile("^How ")).click()
    expect(bench.locator("tr.derived")).to_be_visible()
    bench.get_by_role("button", name="Filters").click()
    bench.get_by_role("button", name="Super 16", exact=True).click()
    expect(bench.get_by_role("status").filter(has_text=re.compile(r"^\d+ of 46$"))).not_to_have_text(
        "46 of 46"
    )
    bench.get_by_label("Sorted by").select_option(label="Near")
    assert bench.evaluate("document.documentElement.scrollWidth") <= 390
