"""Depth, light and the finder picture on the Bench, as a cinematographer uses them; and what is drawn, to the pixel."""

import json
import re
from urllib.parse import urlencode

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import choose_lens, settled

CAMERA_M = 1.5
SCENE = f"{CAMERA_M}~standing~1.7~0.45~0~"
#: A bright lamp on the axis' height, well out of focus, beside the subject.
LAMP = "big~lamp~big lamp~8~0.9~1.5~0.3~0"
LIGHT = "800~0~angle~180~0.02~lux~70~10~2.8~800~0.02~0~nd.ei.light~50~tungsten~1200~0.5~"


@pytest.fixture
def look(bench):
    """Open the Bench with a scene and a light of its own, at one of the tabs below the drawings."""

    def open_at(tab="", objects=(LAMP,), scene=SCENE, light=LIGHT, **changes):
        plain = bench.evaluate("Object.fromEntries(new URLSearchParams(location.search))")
        plain |= {"scene": "!".join((scene, *objects)), "light": light, "unit": "m", **changes}
        bench.goto(f"{bench.url.split('?')[0]}?{urlencode(plain)}{'#' + tab if tab else ''}")
        bench.wait_for_selector("[data-testid=finder-picture]")
        bench.wait_for_load_state("networkidle")
        return bench

    return open_at


def placed(page, selector):
    found = page.locator(selector).first
    return {name: float(found.get_attribute(name)) for name in ("x", "y", "width", "height")}


def answered(page):
    """Ask the server what the Bench shows now: the numbers that the drawing has to stand on."""
    return page.evaluate(
        """async () => {
             const id = location.pathname.split('/')[2] ?? (await (await fetch('/api/v1/productions')).json()).here[0].id
             const { state } = await (await fetch(`/api/v1/productions/${id}/bench`)).json()
             const answer = await fetch(`/api/v1/productions/${id}/bench/view`, { method: 'POST',
               headers: { 'content-type': 'application/json' }, body: JSON.stringify({ state }) })
             return answer.json() }"""
    )


def kept(page):
    """Touch the Bench so that it is kept as it is shown, and wait for that."""
    with page.expect_response(lambda r: r.url.endswith("/bench") and r.request.method == "PUT"):
        page.get_by_label("Subject distance", exact=True).press("ArrowUp")
    with page.expect_response(lambda r: r.url.endswith("/bench") and r.request.method == "PUT"):
        page.get_by_label("Subject distance", exact=True).press("ArrowDown")


def pixel(page, x, y):
    """Colour of the finder's canvas at a place in CSS pixels."""
    return page.evaluate(
        """([x, y]) => {
             const canvas = document.querySelector('section.finder canvas')
             const k = canvas.width / canvas.clientWidth
             const copy = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })
             copy.drawImage(canvas, Math.round(x * k), Math.round(y * k), 1, 1, 0, 0, 1, 1)
             return [...copy.getImageData(0, 0, 1, 1).data] }""",
        [x, y],
    )


def warm(colour):
    red, _, blue, _ = colour
    return red > blue + 40


def test_frames_and_discs_stand_where_the_numbers_say(look):
    page = look()
    kept(page)
    view = answered(page)["viewfinder"]
    recorded, picture = (
        placed(page, "section.finder rect.recorded"),
        placed(page, "[data-testid=finder-picture]"),
    )
    scale = recorded["width"] / view["recorded"]["width"]
    assert recorded["height"] == pytest.approx(view["recorded"]["height"] * scale, abs=0.1)
    left = recorded["x"] - view["recorded"]["x"] * scale
    top = recorded["y"] - view["recorded"]["y"] * scale
    for drawn, told in (
        (picture, view["picture"]),
        (placed(page, "section.finder rect.framed"), view["framed"]),
    ):
        assert drawn["x"] == pytest.approx(left + told["x"] * scale, abs=0.1)
        assert drawn["y"] == pytest.approx(top + told["y"] * scale, abs=0.1)
        assert drawn["width"] == pytest.approx(told["width"] * scale, abs=0.1)
    lamp = next(o for o in view["objects"] if o["key"] == "big")
    xs = [p[0] for p in lamp["parts"][0]["points"]]
    radius = ((max(xs) - min(xs)) / 2 + lamp["blur"]["width"] / 2) * scale
    assert radius > 4
    x, y = left + lamp["at"][0] * scale, top + lamp["at"][1] * scale
    # The disc's edge lies within two pixels of where it is computed, on all four sides.
    for dx, dy in ((1, 0), (-1, 0), (0, 1), (0, -1)):
        assert warm(pixel(page, x + dx * (radius - 2), y + dy * (radius - 2)))
        assert not warm(pixel(page, x + dx * (radius + 2.5), y + dy * (radius + 2.5)))


def test_a_scope_lens_draws_ovals(look):
    page = look()
    choose_lens(page, "Longshore 2x 50")
    page.wait_for_load_state("networkidle")
    kept(page)
    view = answered(page)["viewfinder"]
    assert view["squeeze"] == 2
    lamp = next(o for o in view["objects"] if o["key"] == "big")
    assert lamp["blur"]["height"] == pytest.approx(2 * lamp["blur"]["width"])
    wide = placed(page, "section.finder rect.recorded")
    page.get_by_role("button", name="Squeezed").click()
    expect(page.get_by_role("img", name="Finder picture, squeezed")).to_be_visible()
    narrow = placed(page, "section.finder rect.recorded")
    assert narrow["width"] / narrow["height"] == pytest.approx(wide["width"] / wide["height"] / 2, rel=0.01)


def test_near_and_far_marks_stand_on_the_plan(look):
    page = look(moves="0.6")
    kept(page)
    plan = answered(page)["plan"]
    band = placed(page, "[data-testid=depth-band]")
    ticks = page.locator("section.plan text.tick").all()
    first, last = ticks[0], ticks[-1]
    x0, x1 = (float(t.get_attribute("x")) for t in (first, last))
    px = (x1 - x0) / (plan["ticks"][-1]["at_m"] - plan["ticks"][0]["at_m"])
    assert band["x"] == pytest.approx(x0 + plan["near_m"] * px, abs=0.5)
    assert band["x"] + band["width"] == pytest.approx(x0 + plan["far_m"] * px, abs=0.5)
    expect(page.get_by_test_id("movement")).to_contain_text("goes soft")
    expect(page.get_by_role("paragraph").filter(has_text="Moving from 2.90 m")).to_be_visible()


def test_things_are_dragged_about_the_plan_and_the_finder_follows(look):
    page = look(objects=("a~lamp~first lamp~4~0.5~1.5~0.2~0", "b~post~post~5~-0.6~2~~0"))
    thing = page.get_by_role("slider", name="first lamp")
    expect(thing).to_have_attribute("aria-valuenow", "4")
    before = page.locator("[data-object=a]").first.get_attribute("cx")
    grip = thing.locator(".grip").bounding_box()
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 60, y - 60, steps=5)
    page.mouse.up()
    # 60 px are three quarters of a metre here; what is drawn on the way there is not the end of it.
    expect(thing).to_have_attribute("aria-valuenow", re.compile(r"^4\.[678]"))
    expect(page.locator("[data-object=a]").first).not_to_have_attribute("cx", before)
    moved = float(settled(page, lambda: thing.get_attribute("aria-valuenow")))
    thing.focus()
    page.keyboard.press("ArrowRight")
    expect(thing).to_have_attribute("aria-valuenow", str(round(moved + 0.05, 2)))
    page.keyboard.press("Control+z")
    expect(thing).to_have_attribute("aria-valuenow", str(moved))


def test_the_scene_is_set_in_numbers(look):
    page = look("scene")
    page.get_by_role("button", name="person, seated").click()
    expect(page.locator("tr[data-object]")).to_have_count(2)
    distance = page.get_by_label("Distance of person, seated", exact=True)
    distance.fill("20ft")
    distance.press("Enter")
    expect(distance).to_have_value("6.10 m")
    aside = page.get_by_label("person, seated, to the right of the axis")
    aside.fill("-1m")
    aside.press("Enter")
    expect(aside).to_have_value("−1.00 m")
    distance.fill("far away")
    distance.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("write it like 2.9, 2.9m, 9'6\"")
    distance.press("Escape")
    page.get_by_role("button", name="4:3").click()
    page.get_by_role("button", name="title safe").click()
    expect(page.locator("section.finder rect.other")).to_have_count(1)
    expect(page.locator("section.finder rect.safe")).to_have_count(1)
    # The address holds the scene.
    page.reload()
    expect(page.locator("tr[data-object]")).to_have_count(2)
    expect(aside).to_have_value("−1.00 m")
    page.get_by_role("button", name="Take person, seated out").click()
    expect(page.locator("tr[data-object]")).to_have_count(1)


def test_tabs_have_keys_and_stand_in_the_address(look):
    page = look()
    page.keyboard.press("4")
    expect(page.get_by_role("tab", name="Flicker")).to_have_attribute("aria-selected", "true")
    assert page.url.endswith("#flicker")
    page.reload()
    expect(page.get_by_role("region", name="Flicker")).to_be_visible()
    page.keyboard.press("1")
    expect(page.locator("tr[data-format]").first).to_be_visible()
    assert "#" not in page.url


def test_a_face_too_close_is_told(look):
    page = look(scene=f"{CAMERA_M}~standing~1.7~3.5~0~")
    expect(page.get_by_text("faces look stretched nearer than 3.50 m")).to_be_visible()


def test_depth_is_asked_backwards_and_set(look):
    page = look("depth", sharp="fixed_at_0.025")
    expect(
        page.get_by_text("Sharp is what stays under 0.0250 mm on the sensor: 0.025 mm on any sensor")
    ).to_be_visible()
    near = page.get_by_label("Hold from", exact=True)
    near.fill("2.6")
    near.press("Enter")
    far = page.get_by_label("Hold to", exact=True)
    far.fill("4.2")
    far.press("Enter")
    hold = page.get_by_role("region", name="Hold from here to there")
    expect(hold).to_contain_text("holds from 2.60 m to 4.20 m")
    hold.get_by_role("button", name=re.compile("^Set T")).click()
    expect(page.locator(".sum")).not_to_contain_text("T2.1")
    band = page.get_by_test_id("depth-band")
    expect(band).to_be_visible()
    page.get_by_role("region", name="Hold a movement").get_by_role("button", name="0.40 m").click()
    expect(page.get_by_role("region", name="Hold a movement")).to_contain_text(
        "holds the movement from 3.00 m"
    )
    soft = page.get_by_label("Softness, per cent of the width")
    soft.fill("0")
    soft.press("Enter")
    expect(page.get_by_role("alert")).to_be_visible()
    expect(soft).to_have_attribute("aria-invalid", "true")
    soft.fill("0,4")
    soft.press("Enter")
    expect(page.get_by_role("region", name="A background this soft")).to_contain_text("% of the width soft")
    expect(page.locator("section[aria-label=Depth] table tbody tr")).not_to_have_count(0)
    page.get_by_role("region", name="Hold from here to there").get_by_role("button", name="infinity").click()
    expect(page.get_by_role("region", name="Hold from here to there")).to_contain_text("to infinity")


def test_the_ledger_is_balanced_by_what_may_move(look):
    page = look("light")
    lux = page.get_by_label("Light, lux")
    lux.fill("5000")
    lux.press("Enter")
    left = page.locator("tr.sum")
    expect(left).to_contain_text("stops too bright")
    told = page.get_by_test_id("balance")
    expect(told).to_contain_text("Balanced by built-in ND 6 (6 stops).")
    told.get_by_role("button", name="Set it so").click()
    expect(left).to_contain_text("balanced")
    expect(page.get_by_label("ND", exact=True)).to_have_value("6")
    # Nothing may move: what is off stays, and that is said.
    for name in ("ND", "Sensitivity", "Light"):
        page.get_by_role("button", name=f"{name} may move").click()
    page.get_by_label("Stop of the ledger").select_option(label="T4")
    expect(told).to_contain_text("Nothing may move: say above what may.")
    page.get_by_role("button", name="Sensitivity may move").click()
    expect(told).to_contain_text("Balanced by EI 2500")
    angle = page.get_by_label("Shutter angle, degrees")
    angle.fill("400")
    angle.press("Enter")
    expect(page.get_by_role("alert").filter(has_text=re.compile("^must be at most 360$"))).to_be_visible()
    angle.fill("172.8")
    angle.press("Enter")
    expect(page.locator("tr[data-row=shutter]")).to_contain_text("1/52.1 s")


def test_a_safe_shutter_is_found_and_set(look):
    page = look("flicker")
    page.get_by_text("60 Hz", exact=True).click()
    page.get_by_label("Kind of lamp").select_option("magnetic")
    row = page.locator("tr[data-lamp=magnetic]")
    expect(row).to_contain_text("✗ shows")
    expect(page.get_by_text("Nearest to 180.0° is")).to_contain_text("150.0°")
    openings = page.get_by_test_id("opening").count()
    assert openings >= 4
    page.get_by_role("button", name="150° 1/60 s").click()
    expect(row).to_contain_text("✓ nothing to see")
    expect(page.get_by_text("Strobing light can harm photosensitive people")).to_be_visible()
    # Nothing on the screen ever flashes: there is no animation at all.
    moving = "document.getAnimations().filter((a) => a.effect?.getTiming().iterations > 1).length"
    assert page.evaluate(moving) == 0


def test_at_high_speed_there_is_no_safe_shutter(look):
    page = look("flicker", rate="200")
    expect(page.get_by_test_id("no-safe")).to_contain_text("No safe shutter at this rate")


def test_the_bench_goes_into_a_comparison(look):
    page = look()
    page.get_by_role("button", name="Compare with the pins").click()
    expect(page.get_by_label("Name of the comparison")).to_have_value("Ebb 64, S35 → UHD")
    expect(page.get_by_label("Format of A")).to_be_visible()
    expect(page.get_by_label("Format of B")).to_be_visible()
    document = page.evaluate("(async () => (await fetch(location.pathname.replace('/p/', '/api/v1/productions/')"
                             ".replace('/compare/', '/comparisons/'))).text())()")  # fmt: skip
    assert [o["key"] for o in json.loads(document)["document"]["scene"]["objects"]] == ["big"]
