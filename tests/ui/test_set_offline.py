"""The Set without a line: it opens and works, entries wait and arrive exactly once, in their order, and no side of a conflict is lost."""

import re
import time

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import box, choose


def opened(context, own_server):
    """The page of the set, under the service worker's control, with everything of the day asked for."""
    page = context.pages[0] if context.pages else context.new_page()
    page.goto(own_server.page())
    until = time.monotonic() + 30
    while not page.evaluate(
        "navigator.serviceWorker.ready.then(() => navigator.serviceWorker.controller !== null)"
    ):
        assert time.monotonic() < until, "no service worker takes over"
        page.reload()
    expect(page.get_by_role("button", name="Log take 4")).to_be_visible()
    expect(page.get_by_text("This day can be worked without a line")).to_be_visible()
    return page


def test_a_day_without_a_line_and_a_browser_that_is_closed_in_between(own_server, device):
    context = device("one")
    page = opened(context, own_server)
    here = page.url
    context.set_offline(True)
    page.reload()
    expect(page.get_by_text("No line.")).to_be_visible()
    expect(page.get_by_text("Ines at the bollard, waist")).to_be_visible()
    # Near and far are read from the curves that came before.
    near = page.get_by_label("Focus, near and far").get_by_role("status").first
    expect(near).not_to_have_text("–")
    before = near.inner_text()
    page.get_by_label("Focus wheel").focus()
    page.keyboard.press("PageUp")
    expect(near).not_to_have_text(before)
    # Those of a lens, too, that nobody has looked at before.
    before = near.inner_text()
    page.get_by_role("button", name="Lens: Merrow 65").click()
    page.get_by_role("button", name="Merrow 35", exact=True).click()
    expect(near).not_to_have_text(re.compile(f"–|{before}"))
    # What differs is not said without the server: then the plan stands beside what is on, and nothing is called as planned.
    page.get_by_role("button", name="Stop: T2;").click()
    page.get_by_role("button", name="T4", exact=True).click()
    expect(page.get_by_role("button", name="Stop: T4; planned T2")).to_be_visible()
    page.get_by_role("button", name="Log take 4").click()
    page.get_by_role("button", name="Log take 5").click()
    page.get_by_role("button", name="Circle 12B take 5").click()
    expect(page.get_by_text("3 entries wait for the line")).to_be_visible()
    assert len(own_server.takes()) == 3
    # A browser that closes lets go of a line that is only said to be cut: here nothing answers at its end either.
    own_server.kill()
    context.close()

    context = device("one")
    page = context.new_page()
    page.goto(here)
    expect(page.get_by_text("3 entries wait for the line")).to_be_visible()
    expect(page.get_by_role("button", name="Log take 6")).to_be_visible()
    own_server.start()
    expect(page.get_by_text("wait for the line")).to_have_count(0)
    takes = own_server.takes()
    assert [(t["entry"]["take"], t["revision"], t["entry"]["circled"]) for t in takes[3:]] == [
        (4, 1, False),
        (5, 2, True),
    ]


def test_a_server_that_is_killed_while_it_is_sent_to_has_each_entry_once(own_server, device):
    context = device("one")
    page = opened(context, own_server)
    killed = []

    def answer_is_lost(route):
        if killed:
            route.continue_()
            return
        assert route.fetch().status == 200
        own_server.kill()
        killed.append(route.request.url)
        route.abort()

    page.route("**/log/*", answer_is_lost)
    # An entry waits already while it is sent: what tells that the server is gone is the answer that does not come.
    with page.expect_event("requestfailed", lambda request: "/log/" in request.url):
        page.get_by_role("button", name="Log take 4").click()
    assert killed
    expect(page.get_by_text("1 entry waits for the line")).to_be_visible()
    page.get_by_role("button", name="Log take 5").click()
    expect(page.get_by_text("2 entries wait for the line")).to_be_visible()
    own_server.start()
    expect(page.get_by_text("for the line")).to_have_count(0)
    takes = own_server.takes()
    # The first had arrived; its answer had not. It was sent again, and is there once.
    assert [(t["entry"]["take"], t["revision"]) for t in takes[3:]] == [(4, 1), (5, 1)]
    assert takes[3]["entry"]["key"] in killed[0]


def test_two_devices_that_log_the_same_take_are_both_kept_and_told(own_server, device):
    first, second = device("one"), device("two")
    one, two = opened(first, own_server), opened(second, own_server)
    first.set_offline(True)
    one.get_by_placeholder("your name").fill("Nell")
    one.get_by_role("button", name="Log take 4").click()
    expect(one.get_by_text("1 entry waits")).to_be_visible()
    two.get_by_placeholder("your name").fill("Owen")
    two.get_by_role("button", name="Log take 4").click()
    expect(two.get_by_role("button", name="Log take 5")).to_be_visible()
    first.set_offline(False)
    expect(one.get_by_text("1 entry waits")).to_have_count(0)
    doubles = [t for t in own_server.takes() if t["entry"]["take"] == 4]
    assert sorted(t["entry"]["by"] for t in doubles) == ["Nell", "Owen"]
    expect(one.get_by_text("is also logged by Owen")).to_be_visible()


@pytest.mark.parametrize("stands", ["here", "there"])
def test_both_sides_of_a_conflict_are_shown_and_neither_is_lost(own_server, device, stands):
    first, second = device("one"), device("two")
    one, two = opened(first, own_server), opened(second, own_server)
    for page in (one, two):
        page.goto(own_server.page().replace("/set?", "/set/takes?"))
        page.get_by_role("button", name="12B take 3").click()
    first.set_offline(True)
    one.get_by_role("textbox", name="Note").fill("soft, on the letter")
    one.get_by_role("textbox", name="Note").blur()
    expect(one.get_by_text("1 entry waits")).to_be_visible()
    two.get_by_role("button", name="Circle it").click()
    expect(two.get_by_role("button", name="Not circled")).to_be_visible()
    first.set_offline(False)
    expect(one.get_by_text("Two versions of one entry.")).to_be_visible()
    expect(one.get_by_text("soft, on the letter").first).to_be_visible()
    one.get_by_role("button", name=f"The one {stands} stands").click()
    expect(one.get_by_text("Two versions of one entry.")).to_have_count(0)
    expect(one.get_by_text("for the line")).to_have_count(0)
    (take,) = [t for t in own_server.takes() if t["entry"]["take"] == 3]
    versions = [*take["before"], take["entry"]]
    assert any(v["note"] == "soft, on the letter" for v in versions)
    assert any(v["circled"] for v in versions)
    assert take["entry"]["circled"] == (stands == "there")
    assert (take["entry"]["note"] == "soft, on the letter") == (stands == "here")


def test_a_sheet_that_was_looked_at_opens_without_a_line(own_server, device):
    context = device("one")
    page = opened(context, own_server)
    home = own_server.page().split("/set")[0]
    with page.expect_response(lambda answer: "/sheets/cart-depth/view" in answer.url) as kept:
        page.goto(f"{home}/sheets/cart-depth")
    assert kept.value.finished() is None
    expect(page.get_by_text("hyperfocal").first).to_be_visible()
    context.set_offline(True)
    page.reload()
    expect(page.get_by_text("hyperfocal").first).to_be_visible()


def test_the_days_around_are_there_without_a_line_and_another_says_that_it_is_not(own_server, device):
    context = device("one")
    page = opened(context, own_server)
    home = own_server.page().split("/set")[0].replace("/p/", "/api/v1/productions/")
    page.wait_for_function(
        "async (address) => !!(await caches.match(address))", arg=f"{home}/set/report?day=3"
    )
    context.set_offline(True)
    choose(page, "Day", "Day 2")
    expect(page.get_by_text("14A").first).to_be_visible()
    near = page.get_by_label("Focus, near and far").get_by_role("status").first
    expect(near).not_to_have_text("–")
    missing = page.get_by_text("Day 5 was not read while there was a line")
    box(page, "Day").select_option(label="Day 5")
    expect(missing).to_be_visible()
    # What is shown is still the day before it, says so, and works.
    expect(box(page, "Day")).to_have_value("2")
    expect(page.get_by_text("14A").first).to_be_visible()
    page.reload()
    expect(page.get_by_text("14A").first).to_be_visible()
    # An address of a day that is not there leads to one that is.
    page.goto(own_server.page().replace("day=1", "day=5"))
    expect(missing).to_be_visible()
    expect(page.get_by_text("14A").first).to_be_visible()
    context.set_offline(False)
    expect(page.get_by_text("31A").first).to_be_visible()
    expect(missing).to_have_count(0)


KEPT = """async (id) => (await (await caches.open('hextan-day-1')).keys())
    .map((each) => new URL(each.url).pathname).filter((path) => path.split('/')[4] === id)"""


def test_a_production_that_was_removed_is_forgotten_and_camera_keys_were_never_kept(own_server, device):
    page = opened(device("one"), own_server)
    number = own_server.page().split("/p/")[1].split("/")[0]
    kept = page.evaluate(KEPT, number)
    assert len(kept) > 5
    assert not [path for path in kept if path.endswith("/set/settings")]
    # Somebody else puts it away: this browser hears of it with its next question.
    at = f"{own_server.url}/api/v1/productions/{number}"
    version = page.request.get(at).json()["version"]
    assert page.request.post(f"{at}/removal", data={"version": version, "removed": True}).ok
    page.reload()
    expect(page.get_by_text("This production was removed").first).to_be_visible()
    page.wait_for_function(f"async (id) => (await ({KEPT})(id)).length <= 1", arg=number)
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_text("Ines at the bollard, waist")).to_have_count(0)
