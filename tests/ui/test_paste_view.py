"""Whatever is pasted: each word is shown with what it was taken for, what is open is asked, all of it is added and undone in one step."""

import pytest
from playwright.sync_api import expect

from tests.ui.test_package_view import ask

TEXT = """Skerry 60
Sensor: 36.0 x 24.0 mm, 24.2 MP
Full frame 3:2 raw 12 bit up to 30, 10 bit up to 60 with recorder
1920 x 1080
Merrow 25/35/50 T1.5 FF Q7
reducer 0.71 Q7 to E18"""


@pytest.fixture
def at(base_url):
    low_water = ask(f"{base_url}/api/v1/productions")["here"][0]["id"]
    return f"{base_url}/api/v1/productions/{low_water}"


def names(at, what):
    return [row["name"] for row in ask(f"{at}/{what}")["here"]]


def test_a_message_is_read_word_by_word_added_and_undone(page, base_url, at, complaints):
    page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/package/paste")
    before, sets = ask(f"{at}/rig")["document"], names(at, "lens-sets")
    field = page.get_by_label("Paste anything", exact=False)
    field.fill(TEXT)
    word = page.get_by_role("button", name="1920 x 1080: is this what is recorded")
    expect(word).to_be_visible()
    expect(page.get_by_role("button", name="Add ", exact=False)).to_be_disabled()
    # One word of all is reached with the keyboard, the others with the arrows; each says what it was taken for.
    word.focus()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_text("needs a recorder", exact=True)).to_be_visible()
    page.keyboard.press("ArrowRight")
    page.get_by_role("button", name="recorded", exact=True).click()
    expect(field).to_have_value(TEXT.replace("\n1920", "\nrecords 1920"))
    add = page.get_by_role("button", name="Add 1 body, 1 scan mode, 3 formats, 3 lenses, 1 adapter")
    expect(page.get_by_text("raw 10 bit, 1 to 60 fps, needs a recorder")).to_be_visible()
    add.click()
    undo = page.get_by_role("button", name="Undo what was added")
    expect(undo).to_be_visible()
    assert "Skerry 60" in names(at, "bodies") and len(names(at, "lens-sets")) == len(sets) + 1
    assert "Q7" in [mount["name"] for mount in ask(f"{at}/rig")["document"]["mounts"]]
    undo.click()
    expect(page.get_by_text("Undone.")).to_be_visible()
    assert "Skerry 60" not in names(at, "bodies") and ask(f"{at}/rig")["document"] == before
    assert complaints == []
