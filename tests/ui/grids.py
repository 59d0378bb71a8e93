"""Cells of the page's grids, as one works with them: choose a cell, type, Enter."""


def cell(page, label):
    """The cell of a row's figure, such as "Row time of Full"."""
    return page.locator(f'td[aria-label^="{label}: "]')


def enter(page, label, text):
    """Write over a cell and keep it."""
    cell(page, label).click()
    page.keyboard.press("F2")
    page.get_by_label(label, exact=True).fill(text)
    page.keyboard.press("Enter")


def pick(page, label, option):
    """Choose in a cell that offers a list."""
    cell(page, label).click()
    page.get_by_label(label, exact=True).select_option(label=option)


def row_of(page, name):
    """The row of a name."""
    return page.locator("tr", has=cell(page, f"Name of {name}"))
