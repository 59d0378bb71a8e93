"""What every view owes its users: held for all of them, in both modes, at three sizes."""

import time

import pytest
from playwright.sync_api import expect

from tests.ui.conftest import PATIENCE_MS, settled
from tests.ui.looks import NO_COLOURS, complaints_of, contrast_of

SECTIONS = (
    "bodies",
    "lenses",
    "mounts",
    "settings",
    "coverage",
    "kit",
    "ladder",
    "match",
    "value",
    "speed",
    "finder",
    "data",
)
TABS = ("depth", "light", "flicker", "scene")
#: The page of productions lies above all of them.
PRODUCTIONS = "/../.."
#: Every view, and what is opened in it first.
VIEWS = [
    *((f"/package/{section}", None) for section in SECTIONS),
    *(("/package/bodies", tab) for tab in ("In-camera crops", "Do the claims hold?", "Catalogue", "Files")),
    ("/bench", None),
    *((f"/bench#{tab}", None) for tab in TABS),
    ("/compare", None),
    ("/shots", None),
    *(("/kit", tab) for tab in (None, "Side by side", "Things and prices")),
    ("/sheets/cart-depth", None),
    ("/sheets/director-shots", None),
    ("/sheets/files", None),
    *((f"/set{page}?day=1", None) for page in ("", "/takes", "/checks", "/clips", "/report", "/cameras")),
    ("/compare", "Match to A"),
    ("/package/bodies/new", None),
    ("/package/lenses/new", None),
    (PRODUCTIONS, None),
    ("/nowhere", None),
]
#: What is looked at outside, or in the dark of a set.
ON_LOCATION = {
    "/bench",
    "/shots",
    "/kit",
    "/package/kit",
    "/sheets/cart-depth",
    "/set?day=1",
    "/set/takes?day=1",
    "/set/report?day=1",
}
DESK, TABLET, TELEPHONE = (1280, 800), (820, 1180), (390, 844)
#: What a finger must be able to hit, in pixels: the size that the guidelines of touch platforms share (WCAG 2.5.5).
FINGER = 44

#: Controls that are lower than a finger. A link within a sentence is left alone, as WCAG 2.5.5 does; what is laid
#: over by a label counts by the label; a mark in a drawing has its list beside it.
TOO_LOW = """(least) => [...document.querySelectorAll(
    'button, a, select, input, textarea, summary, [role=tab], [role=option], label')]
  .filter((e) => e.checkVisibility({ visibilityProperty: true }) && !e.closest('svg, .sr-only, .skip'))
  .filter((e) => !(e.matches('a, button:not(.knob)') && e.closest('p')))
  .filter((e) => e.localName !== 'label' || e.querySelector('input'))
  .filter((e) => e.localName !== 'input' || !e.closest('label, [data-scope=radio-group]'))
  .map((e) => [e, e.getBoundingClientRect()])
  .filter(([, box]) => box.width > 1 && box.height > 1 && box.height < least - 0.5)
  .map(([e, box]) => `${e.localName}.${e.className} ${Math.round(box.height)}px: ` +
    (e.getAttribute('aria-label') ?? e.textContent).trim().slice(0, 40))"""

#: Text of drawings whose letters are not of the size of letters: drawn in millimetres instead of pixels, say.
WRONG_LETTERS = """() => [...document.querySelectorAll('svg text')]
  .filter((text) => text.checkVisibility() && text.textContent.trim())
  // A whole page of paper is shown in small; the same stands beside it to be read, and at its real size.
  .filter((text) => !text.closest('.paper'))
  .map((text) => {
    const { a, b } = text.getScreenCTM()
    return [parseFloat(getComputedStyle(text).fontSize) * Math.hypot(a, b), text.textContent.trim()]
  })
  .filter(([px]) => px < 9 || px > 24)
  .map(([px, words]) => `${words}: ${px.toFixed(1)} px`)"""

#: What is chosen and looks like what is not, where the system's colours are forced.
LOST_CHOICES = """() => {
  const CHOSEN = '[aria-selected=true], [aria-pressed=true], [aria-current], [data-state=checked], [data-state=on], tr.chosen'
  const look = (e) => {
    const style = getComputedStyle(e)
    return ['borderBottomWidth', 'borderBottomColor', 'outlineStyle', 'textDecorationLine', 'backgroundColor', 'color']
      .map((name) => style[name]).join()
  }
  return [...document.querySelectorAll(CHOSEN)]
    .filter((e) => e.checkVisibility() && !e.closest('svg') && e.localName !== 'input')
    .filter((e) => e.dataset.part !== 'item-text')
    .filter((e) => [...e.parentElement.parentElement.querySelectorAll(e.localName)]
      .some((other) => !other.matches(CHOSEN) && look(other) === look(e)))
    .map((e) => `${e.localName}.${e.className} ${e.textContent.trim().slice(0, 30)}`)
}"""

#: Controls that would be printed; what is chosen with a tab stays, as the title of what is shown.
PRINTED_CONTROLS = """() => [...document.querySelectorAll('header, .knob, [role=tab]:not([aria-selected=true])')]
  .filter((e) => e.checkVisibility())
  .map((e) => `${e.localName} ${(e.getAttribute('aria-label') ?? e.textContent).trim().slice(0, 30)}`)"""


class Walk:
    """One page that goes from view to view as the links do, on a desk and under a finger."""

    def __init__(self, browser, base_url):
        self.context = browser.new_context(
            viewport={"width": DESK[0], "height": DESK[1]}, color_scheme="dark", reduced_motion="reduce", service_workers="block"
        )  # fmt: skip
        self.page = self.context.new_page()
        self.page.set_default_timeout(PATIENCE_MS)
        self.asked = set()
        self.page.on("request", self._asks)
        self.page.on("requestfinished", self._is_answered)
        self.page.on("requestfailed", self._is_answered)
        production = self.page.request.get(f"{base_url}/api/v1/productions").json()["here"][0]["id"]
        self.base_url, self.at = base_url, f"{base_url}/p/{production}"
        self.page.goto(self.at)
        self.touch = self.context.new_cdp_session(self.page)

    def _asks(self, request):
        self.asked.add(request)

    def _is_answered(self, request):
        self.asked.discard(request)

    def quiet(self):
        """Wait until nothing is asked any more: a kit is proved in a process of its own, which takes its time on a busy machine."""

        def under_way():
            return sum(request.resource_type != "eventsource" for request in set(self.asked))

        until = time.monotonic() + 4 * PATIENCE_MS / 1000
        while time.monotonic() < until:
            # A part that is loaded when it is first shown may still be on its way; drawings take their width a frame or two later.
            settled(self.page, lambda: (under_way(), self.page.locator("*").count()))
            if under_way() == 0 and self.page.locator("[aria-busy=true]").count() == 0:
                return
        raise AssertionError(f"still asked for: {[request.url for request in self.asked]}")

    def to(self, view, opened):
        """Go to a view on a desk, in the dark, and open something in it."""
        self.page.set_viewport_size({"width": DESK[0], "height": DESK[1]})
        self.touch.send("Emulation.setTouchEmulationEnabled", {"enabled": False})
        self.mode("dark")
        address = self.base_url if view == PRODUCTIONS else f"{self.at}{view}"
        self.page.evaluate(
            "to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')) }", address
        )
        self.quiet()
        if opened:
            self.page.locator("button, [role=tab]").filter(has_text=opened).or_(
                self.page.get_by_label(opened)
            ).first.click()
            self.quiet()

    def mode(self, mode):
        self.page.evaluate("mode => { document.documentElement.dataset.mode = mode }", mode)

    def with_a_finger(self):
        self.touch.send("Emulation.setTouchEmulationEnabled", {"enabled": True, "maxTouchPoints": 5})

    def resized(self, width, height):
        self.page.set_viewport_size({"width": width, "height": height})
        self.quiet()


@pytest.fixture(scope="module")
def walks(browser, base_url):
    """Holds the walk that is under way; one that failed is begun anew."""
    under_way = []
    yield under_way
    for walk in under_way:
        walk.context.close()


@pytest.fixture
def walk(request, walks, browser, base_url, own_production):
    if not walks:
        walks.append(Walk(browser, base_url))
    failed = request.session.testsfailed
    yield walks[0]
    if request.session.testsfailed > failed:
        walks.pop().context.close()


@pytest.mark.parametrize(("view", "opened"), VIEWS)
def test_every_view_at_three_sizes(walk, view, opened):
    walk.to(view, opened)
    page = walk.page
    assert complaints_of(page, **NO_COLOURS) == []
    assert contrast_of(page) == []
    assert page.evaluate(WRONG_LETTERS) == []
    # By day only the colours are others; in the sun and for eyes that are used to the dark the letters stay legible, too.
    for mode in ("light", "outdoor", "red") if view in ON_LOCATION else ("light",):
        walk.mode(mode)
        assert contrast_of(page) == [], mode
    walk.mode("light")
    page.emulate_media(forced_colors="active")
    assert page.evaluate(LOST_CHOICES) == []
    page.emulate_media(forced_colors="none", media="print")
    assert page.evaluate(PRINTED_CONTROLS) == []
    # Nothing scrolls on paper: every row of a matrix has its figures.
    assert page.locator(".matrix td[style*=height]:visible").count() == 0
    if view not in ("/nowhere", PRODUCTIONS):
        expect(page.get_by_text("Low Water: ", exact=False).first).to_be_visible()
    page.emulate_media(media="screen")
    walk.with_a_finger()
    for width, height in (TABLET, TELEPHONE):
        walk.resized(width, height)
        assert page.evaluate("document.documentElement.scrollWidth") <= width
        assert page.evaluate(WRONG_LETTERS) == []
        assert page.evaluate(TOO_LOW, FINGER) == []
    # What a tablet shows is that of a desk, with larger controls; grids become lists on a telephone. Colours are the same.
    assert complaints_of(page, **NO_COLOURS) == []
