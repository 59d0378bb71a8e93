"""What axe finds in a page; colours are looked at on one element of each look, which is told apart from its ground as all like it are."""

from axe_playwright_python.sync_playwright import Axe

NO_COLOURS = {"rules": {"color-contrast": {"enabled": False}}}

#: One element of each look: text of the same colours, size and weight on the same grounds is told apart from its ground alike.
ONE_OF_EACH_LOOK = """() => {
  document.querySelectorAll('[data-look]').forEach((e) => e.removeAttribute('data-look'))
  const looks = new Map()
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let node = walk.nextNode(); node; node = walk.nextNode()) {
    const e = node.parentElement
    if (!node.data.trim() || !e.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue
    const style = getComputedStyle(e)
    const look = [style.color, style.fontSize, style.fontWeight, e.closest('[disabled], [aria-disabled=true]') !== null]
    for (let under = e; under; under = under.parentElement) {
      const { backgroundColor, backgroundImage, opacity } = getComputedStyle(under)
      look.push(backgroundColor, backgroundImage, opacity)
    }
    const key = look.filter((each) => each !== 'rgba(0, 0, 0, 0)' && each !== 'none' && each !== '1').join('|')
    // Two of each, the first and the last: what lies over a part of the page lies over one of them.
    if (!looks.has(key)) looks.set(key, [e])
    else looks.get(key)[1] = e
  }
  for (const both of looks.values()) for (const e of both) e.setAttribute('data-look', '')
  return looks.size
}"""


def complaints_of(page, within=None, **options):
    """What axe finds: its rule, and where."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(Axe().axe_script)
    return page.evaluate(
        """([within, options]) => axe.run(within ?? document, options).then(({ violations }) =>
          violations.map((v) => [v.id, v.nodes.slice(0, 4).map((n) => n.target.join(' '))]))""",
        [within, {"resultTypes": ["violations"], **options}],
    )


def contrast_of(page):
    """What cannot be told from its ground."""
    assert page.evaluate(ONE_OF_EACH_LOOK) > 1
    return complaints_of(page, {"include": [["[data-look]"]]}, runOnly=["color-contrast"])
