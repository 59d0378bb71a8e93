"""What every view owes its users by its frame: headings, keys, focus, announcements, failures, nothing left behind."""

import re

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import PATIENCE_MS, box, choose
from tests.ui.grids import enter

VIEWS = ["bench", "compare", "package/bodies", "package/lenses", "package/mounts", "package/coverage", "package/kit",
         "package/ladder", "package/match", "package/value", "package/speed", "package/finder", "package/data"]  # fmt: skip


@pytest.fixture
def at(bench):
    """The address of the production."""
    return re.match(r".*/p/\d+", bench.url)[0]


@pytest.mark.parametrize("view", VIEWS)
def test_every_view_has_a_title_a_heading_and_a_way_past_the_header(bench, at, view):
    bench.goto(f"{at}/{view}")
    heading = bench.get_by_role("heading", level=1)
    expect(heading).to_have_text(re.compile(" of Low Water$"))
    name = heading.inner_text().removesuffix(" of Low Water")
    expect(bench).to_have_title(f"Low Water: {name.lower()} – Hextan")
    bench.keyboard.press("Tab")
    skip = bench.get_by_role("link", name="Skip to", exact=False)
    expect(skip).to_be_focused()
    bench.keyboard.press("Enter")
    expect(bench.locator("main")).to_be_focused()


def test_another_view_begins_at_its_heading(bench):
    bench.get_by_role("link", name="Package", exact=True).click()
    expect(bench.get_by_role("heading", name="Bodies of Low Water")).to_be_focused()
    bench.get_by_role("link", name="Speed", exact=True).click()
    expect(bench.get_by_role("heading", name="Speed of Low Water")).to_be_focused()
    bench.go_back()
    expect(bench.get_by_role("heading", name="Bodies of Low Water")).to_be_focused()


def test_an_unknown_address_says_so(bench, base_url):
    bench.goto(f"{base_url}/p/2/bensch")
    expect(bench.get_by_role("heading", name="There is no page at /p/2/bensch")).to_be_visible()
    bench.get_by_role("link", name="To the productions").click()
    bench.get_by_role("link", name="Low Water", exact=True).click()
    bench.wait_for_selector(".sum")


BOX = """() => {
  const at = document.activeElement
  if (!at || at === document.body) return null
  const hidden = at.matches('.sr-only, input[type=radio], input[type=file]') ? at.closest('label') ?? at : at
  hidden.scrollIntoView({ block: 'center', inline: 'center' })
  const b = hidden.getBoundingClientRect()
  return { name: at.getAttribute('aria-label') ?? at.textContent.trim().slice(0, 40), x: b.x, y: b.y, width: b.width, height: b.height }
}"""


@pytest.mark.parametrize("scheme", ["dark", "light"])
def test_the_focus_is_seen_at_every_stop_of_the_bench(bench, scheme):
    """Pixels around each stop with the keyboard on it and without: styles say that it is there, pixels that it is seen."""
    bench.emulate_media(color_scheme=scheme)
    bench.keyboard.press("Tab")
    unseen, stops = [], 0
    for _ in range(60):
        bench.keyboard.press("Tab")
        box = bench.evaluate(BOX)
        if box is None:
            break
        stops += 1
        left, top = max(box["x"] - 5, 0), max(box["y"] - 5, 0)
        clip = {"x": left, "y": top, "width": min(box["width"] + 10, 1280 - left), "height": min(box["height"] + 10, 800 - top)}  # fmt: skip
        with_it = bench.screenshot(clip=clip)
        bench.evaluate("() => { window.was = document.activeElement; window.was.blur() }")
        if bench.screenshot(clip=clip) == with_it:
            unseen.append(box["name"])
        bench.evaluate("() => window.was.focus({ focusVisible: true })")
    assert stops > 30
    assert unseen == []


def test_changes_are_announced_in_one_sentence(bench):
    said = bench.get_by_test_id("announced")
    expect(said).to_have_text("")
    bench.keyboard.press("b")
    expect(said).to_have_text(re.compile(r"^T2\.\d+, frames like 39\.3 mm, in focus [\d.]+ m to [\d.]+ m\.$"))
    choose(bench, "Scan mode", "Full 6.4K")
    expect(said).to_have_text(re.compile(r"^Full 6\.4K raw, frames like 26\.6 mm, .*"))


def test_single_keys_can_be_changed_and_switched_off(bench):
    first = box(bench, "Lens").input_value()
    bench.keyboard.press("?")
    dialog = bench.get_by_role("dialog")
    dialog.get_by_role("button", name=re.compile("^c: Next lens")).click()
    bench.keyboard.press("b")
    expect(dialog.get_by_role("alert")).to_have_text("b is taken: Stop down by a mark")
    dialog.get_by_role("button", name=re.compile("^c: Next lens")).click()
    bench.keyboard.press("l")
    expect(dialog.get_by_role("button", name=re.compile("^l: Next lens"))).to_be_visible()
    bench.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    bench.keyboard.press("c")
    expect(box(bench, "Lens")).to_have_value(first)
    bench.keyboard.press("l")
    expect(box(bench, "Lens")).not_to_have_value(first)
    bench.reload()
    bench.wait_for_selector(".sum")
    bench.keyboard.press("?")
    dialog.get_by_role("button", name="c again").click()
    dialog.get_by_role("checkbox").uncheck()
    dialog.get_by_role("button", name="Close").click()
    second = box(bench, "Lens").input_value()
    bench.keyboard.press("c")
    bench.keyboard.press("?")
    expect(dialog).to_be_visible()
    dialog.get_by_role("checkbox").check()
    bench.keyboard.press("Escape")
    expect(box(bench, "Lens")).to_have_value(second)


def test_what_was_not_saved_is_saved_when_the_server_is_back(bench, at, complaints):
    away = re.compile(r"/api/v1/")
    bench.route(away, lambda route: route.abort())
    bench.get_by_label("Stop", exact=True).select_option("4")
    expect(bench.get_by_role("alert")).to_contain_text("One moment: the server does not answer")
    expect(bench.get_by_text("not saved: waits for the server")).to_be_visible()
    expect(bench.get_by_role("button", name="Try again")).to_be_visible()
    bench.unroute(away)
    expect(bench.get_by_role("alert")).to_have_count(0, timeout=PATIENCE_MS)
    expect(bench.get_by_text("saved", exact=True)).to_be_visible()
    complaints.clear()


def _base_rate(page):
    page.get_by_label("Base rate").fill("29.97")
    page.keyboard.press("Tab")


def _shot(page):
    enter(page, "What of 12A", "a wherry adrift")


def _body(page):
    page.get_by_label("Name of the body", exact=True).fill("Ebb 65")


def _sheets(page):
    page.get_by_label("Title", exact=True).fill("Night paper")


#: Where something is typed, what is typed there, and what of the API has it afterwards.
TYPED = {
    "package/settings": (_base_rate, "settings", "30000/1001"),
    "shots": (_shot, "shots", "a wherry adrift"),
    "package/bodies": (_body, "bodies", "Ebb 65"),
    "sheets/cart-depth": (_sheets, "sheets", "Night paper"),
}


@pytest.mark.parametrize("left", [False, True], ids=["stays", "is left"])
@pytest.mark.parametrize("view", TYPED)
def test_every_view_says_what_waits_and_sends_it_when_the_server_is_back(
    bench, base_url, at, complaints, view, left
):
    """Also what was left behind: the view that it was typed into may be gone when the server comes back."""
    act, kept, value = TYPED[view]
    own = f"{base_url}/api/v1/productions/{at.rsplit('/', 1)[-1]}/{kept}"
    state = bench.get_by_role("banner").get_by_role("status")
    bench.goto(f"{at}/{view}")
    expect(state).to_have_text("saved")
    bench.wait_for_load_state("networkidle")
    away = re.compile(r"/api/v1/")
    bench.route(away, lambda route: route.abort())
    act(bench)
    expect(state).to_have_text("not saved: waits for the server")
    expect(bench.get_by_role("alert").first).to_contain_text("the server does not answer")
    if left:
        bench.get_by_role("link", name="Compare", exact=True).click()
        expect(state).to_have_text("not saved: waits for the server")
    bench.unroute(away)
    expect(state).to_have_text("saved", timeout=PATIENCE_MS)
    expect(bench.get_by_text("the server does not answer")).to_have_count(0)
    assert value in bench.request.get(own).text()
    complaints.clear()


def test_what_is_only_looked_at_follows_when_the_server_is_back(bench, base_url, at, complaints):
    """Coverage is asked about, productions are listed, pages of sheets are shown: nobody has to load them again."""
    away = re.compile(r"/api/v1/")
    bench.goto(f"{at}/package/coverage")
    told = bench.get_by_role("region", name="Coverage").or_(bench.locator("main")).first
    expect(told).to_contain_text("Wren 40")
    bench.wait_for_load_state("networkidle")
    bench.route(away, lambda route: route.abort())
    choose(bench, "Lens", "Merrow 100")
    expect(bench.get_by_role("alert")).to_contain_text("the server does not answer")
    bench.unroute(away)
    expect(bench.get_by_role("alert")).to_have_count(0, timeout=PATIENCE_MS)
    expect(told).to_contain_text("Merrow 100")
    for address, shown in (
        (base_url, bench.get_by_role("link", name="Low Water", exact=True)),
        (f"{at}/package/coverage", bench.get_by_text("Wren 40").first),
        (f"{at}/package/settings", bench.get_by_label("Base rate")),
        (f"{at}/sheets/cart-depth", bench.locator("svg.paper").first),
    ):
        bench.route(away, lambda route: route.abort())
        bench.goto(address)
        expect(bench.get_by_text("the server does not answer").first).to_be_visible()
        bench.unroute(away)
        expect(shown).to_be_visible(timeout=PATIENCE_MS)
    complaints.clear()


def test_views_that_are_left_leave_nothing_behind(bench):
    """Nodes that are still held after going to and fro: as many after ten rounds as after two."""
    session = bench.context.new_cdp_session(bench)
    session.send("Performance.enable")

    def nodes():
        session.send("HeapProfiler.collectGarbage")
        return {m["name"]: m["value"] for m in session.send("Performance.getMetrics")["metrics"]}["Nodes"]

    def rounds(count):
        for _ in range(count):
            bench.get_by_role("link", name="Package", exact=True).click()
            # Locators: a handle, as wait_for_selector gives it, would itself hold what it found.
            bench.locator("[data-testid=chosen-window]").wait_for()
            bench.get_by_role("link", name="Bench", exact=True).click()
            bench.locator("tr[data-format]").first.wait_for()
            bench.wait_for_load_state("networkidle")
        return nodes()

    after_two = rounds(2)
    assert rounds(8) - after_two < 300


def test_print_shows_figures_without_controls(bench):
    bench.emulate_media(media="print")
    expect(bench.get_by_role("banner")).to_be_hidden()
    expect(bench.get_by_text("Low Water: Bench", exact=False).first).to_be_visible()
    expect(bench.locator(".sum")).to_be_visible()


@pytest.mark.parametrize(("one", "other"), [("bench", "package/bodies"), ("package/speed", "shots")])
def test_nothing_of_a_view_that_was_left_stays(bench, at, one, other):
    """Nodes, listeners and memory are level from trip to trip: an opened Bench alone takes 0.2 MB."""
    measuring = bench.context.new_cdp_session(bench)
    for domain in ("Performance", "HeapProfiler"):
        measuring.send(f"{domain}.enable")

    def trips(count):
        for _ in range(count):
            for view in (other, one):
                bench.evaluate(
                    "to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')) }",
                    f"{at}/{view}",
                )
                expect(bench.get_by_role("heading", level=1)).to_have_text(re.compile(" of Low Water$"))
                expect(bench.locator("main[aria-busy=false]")).to_be_visible()
                bench.wait_for_load_state("networkidle")

    def least(enough=lambda seen: False):
        """Nodes, listeners and megabytes once things stand still: what is left is let go of a moment later, on a full machine
        of many moments."""
        seen = []
        while len(seen) < 6 or (
            len(seen) < 40 and not enough([min(figures) for figures in zip(*seen, strict=True)])
        ):
            bench.wait_for_timeout(300)
            measuring.send("HeapProfiler.collectGarbage")
            told = {e["name"]: e["value"] for e in measuring.send("Performance.getMetrics")["metrics"]}
            seen.append((told["Nodes"], told["JSEventListeners"], told["JSHeapUsedSize"] / 1e6))
        return [min(figures) for figures in zip(*seen, strict=True)]

    # What is compiled is compiled by then.
    trips(6)
    nodes, listeners, megabytes = least(lambda seen: True)
    trips(6)

    def level(seen):
        return seen[0] <= nodes * 1.05 and seen[1] <= listeners + 3 and seen[2] < megabytes + 0.8

    after = least(level)
    assert level(after), (nodes, listeners, megabytes, after)


def test_on_a_slow_line_answers_come_and_old_figures_say_so(bench, at):
    """1.5 Mbit/s and 400 ms: six seconds of moving bring answers, and what is shown is marked until it is of what is set."""
    bench.goto(f"{at}/bench")
    slider = bench.get_by_role("slider").first
    expect(slider).to_be_visible()
    line = bench.context.new_cdp_session(bench)
    line.send("Network.enable")
    slow = {"offline": False, "latency": 400, "downloadThroughput": 1.5e6 / 8, "uploadThroughput": 1.5e6 / 8}
    line.send("Network.emulateNetworkConditions", slow)
    answers = []
    bench.on(
        "response", lambda response: answers.append(response.url) if "bench/view" in response.url else None
    )
    slider.focus()
    look = """() => [document.querySelector('main').ariaBusy, document.body.innerText.includes('Figures of a moment ago'),
                     getComputedStyle(document.querySelector('tr.chosen td.figure')).color]"""
    seen = []
    for _ in range(60):
        bench.keyboard.press("ArrowRight")
        bench.wait_for_timeout(50)
        seen.append(tuple(bench.evaluate(look)))
    assert len(answers) >= 2
    expect(bench.locator("main[aria-busy=false]")).to_be_visible()
    expect(bench.get_by_text("Figures of a moment ago")).to_have_count(0)
    rest = bench.evaluate(look)[2]
    marked = [each for each in seen if each[0] == "true"]
    assert len(marked) > 20
    assert all(words and color != rest for _, words, color in marked)
