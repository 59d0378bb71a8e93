"""What every view owes its users: held for all of them, in both modes, at three sizes."""

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import expect

from tests.ui.conftest import PATIENCE_MS, settled

SECTIONS = (
    "bodies",
    "lenses",
    "mounts",
    "settings",
    "coverage",
    "kit",
    "ladder",
    "match",
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


def quiet(page):
    """Wait until nothing is asked any more: a kit is proved in a process of its own, which takes its time on a busy machine."""
    page.wait_for_load_state("networkidle", timeout=4 * PATIENCE_MS)


def open_view(browser, base_url, view, opened, size, scheme):
    context = browser.new_context(
        viewport={"width": size[0], "height": size[1]},
        has_touch=size != DESK, color_scheme=scheme, reduced_motion="reduce",
    )  # fmt: skip
    context.add_init_script(f"localStorage.setItem('hextan.mode', '{scheme}')")
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    production = page.request.get(f"{base_url}/api/productions").json()["here"][0]["id"]
    page.goto(f"{base_url}/p/{production}{view}")
    quiet(page)
    if opened:
        page.locator("button, [role=tab]").filter(has_text=opened).or_(
            page.get_by_label(opened)
        ).first.click()
        quiet(page)
    # A part that is loaded when it is first shown may still be on its way.
    settled(page, lambda: page.locator("*").count())
    return page


def complaints_of(page, **options):
    return [
        (v["id"], [n["target"] for n in v["nodes"]][:4])
        for v in Axe().run(page, options={"resultTypes": ["violations"], **options}).response["violations"]
    ]


@pytest.mark.parametrize(("view", "opened"), VIEWS)
def test_every_view_at_three_sizes(browser, base_url, view, opened):
    desk = open_view(browser, base_url, view, opened, DESK, "dark")
    assert complaints_of(desk) == []
    assert desk.evaluate(WRONG_LETTERS) == []
    # By day only the colours are others.
    desk.evaluate("document.documentElement.dataset.mode = 'light'")
    assert complaints_of(desk, runOnly=["color-contrast"]) == []
    desk.emulate_media(forced_colors="active")
    assert desk.evaluate(LOST_CHOICES) == []
    desk.emulate_media(forced_colors="none", media="print")
    assert desk.evaluate(PRINTED_CONTROLS) == []
    # Nothing scrolls on paper: every row of a matrix has its figures.
    assert desk.locator(".matrix td[style*=height]:visible").count() == 0
    if view not in ("/nowhere", PRODUCTIONS):
        expect(desk.get_by_text("Low Water: ", exact=False).first).to_be_visible()
    desk.context.close()
    touched = open_view(browser, base_url, view, opened, TABLET, "light")
    for width, height in (TABLET, TELEPHONE):
        touched.set_viewport_size({"width": width, "height": height})
        # Drawings take their new width from what they measure, a frame or two after the page has it.
        assert settled(touched, lambda: touched.evaluate("document.documentElement.scrollWidth")) <= width
        assert touched.evaluate(WRONG_LETTERS) == []
        assert touched.evaluate(TOO_LOW, FINGER) == []
    # What a tablet shows is that of a desk, with larger controls; grids become lists on a telephone. Colours are the same.
    assert complaints_of(touched, rules={"color-contrast": {"enabled": False}}) == []
    touched.context.close()
