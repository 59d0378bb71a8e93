"""The kit as it is worked with: proved, put in another order, limited, kept, priced, held beside another."""

import re

import pytest
from playwright.sync_api import expect

from tests.ui.grids import cell, enter
from tests.ui.test_package_view import ask


@pytest.fixture
def at(base_url):
    low_water = ask(f"{base_url}/api/v1/productions")["here"][0]["id"]
    return f"{base_url}/api/v1/productions/{low_water}"


@pytest.fixture
def kit(page, base_url, complaints, at):
    page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/kit/primes")
    expect(head(page)).to_contain_text("proved smallest")
    yield page
    assert [c for c in complaints if "the server responded with a status of 4" not in c] == []


def head(page):
    return page.get_by_role("region", name="The kit", exact=True)


def saved(page):
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()


def document(at):
    return ask(f"{at}/packing")["document"]


def take(page, name):
    """One more thing that the kit is made out of: the list is searched, and is empty again afterwards."""
    field = page.get_by_role("combobox", name="Choose only out of …")
    field.click()
    field.fill(name)
    page.get_by_role("listbox").get_by_role("option", name=name, exact=True).click()
    expect(page.get_by_role("button", name=f"only out of {name}: let it go")).to_be_visible()


def words(page):
    return [text.strip() for text in page.locator("ol[aria-label^='By what'] button").all_inner_texts()]


def test_the_kit_is_proved_with_its_reasons(kit):
    expect(head(kit)).to_contain_text("7 lenses do 28 of 40 shots.")
    reasons = kit.get_by_role("region", name="What each is there for")
    expect(reasons).to_contain_text("Merrow 180")
    shots = kit.get_by_role("region", name="Shots and what they are made with")
    shots.get_by_role("button", name="15D").click()
    expect(reasons).to_contain_text("Shot 15D")
    expect(reasons).to_contain_text("200 fps progressive")
    shots.get_by_role("button", name="Merrow 180", exact=True).click()
    expect(reasons).to_contain_text("Without Merrow 180")
    reasons.get_by_role("link", name="its needs").click()
    expect(kit.get_by_role("region", name="Shot 15D")).to_be_visible()


def test_words_are_put_in_another_order_by_keys_and_by_dragging(kit, at):
    assert words(kit)[:2] == ["fewest lenses", "fewest changes"]
    kit.get_by_role("button", name="fewest changes").press("ArrowLeft")
    assert words(kit)[:2] == ["fewest changes", "fewest lenses"]
    saved(kit)
    place = kit.get_by_role("button", name="fewest changes").bounding_box()
    kit.get_by_role("button", name="nearest to the wishes").hover()
    kit.mouse.down()
    kit.mouse.move(place["x"] + 10, place["y"] + 10, steps=8)
    kit.mouse.up()
    assert words(kit)[0] == "nearest to the wishes"
    saved(kit)
    primes = next(each for each in document(at)["kits"] if each["key"] == "primes")
    assert [aim["by"] for aim in primes["order"]] == ["wishes", "changes", "lenses", "weight", "cost"]
    kit.keyboard.press("Control+z")
    assert words(kit)[0] == "fewest changes"


def test_what_may_be_given_up_is_typed(kit, at):
    kit.get_by_role("button", name="fewest lenses").click()
    field = kit.get_by_label("May be given up of fewest lenses")
    field.fill("1")
    field.press("Enter")
    saved(kit)
    primes = next(each for each in document(at)["kits"] if each["key"] == "primes")
    assert primes["order"][0] == {"by": "lenses", "slack": 1.0}
    expect(kit.get_by_role("button", name="fewest lenses")).to_contain_text("+1")


def test_limits_change_the_kit_and_undo_brings_it_back(kit):
    kit.get_by_label("Weight limit").fill("8")
    kit.get_by_label("Weight limit").press("Enter")
    expect(head(kit)).not_to_contain_text("7 lenses")
    expect(head(kit)).to_contain_text("proved smallest")
    expect(kit.get_by_role("region", name="Shots and what they are made with")).to_contain_text("✗")
    kit.get_by_label("Framing may be off by").fill("40")
    kit.get_by_label("Framing may be off by").press("Enter")
    expect(kit.get_by_label("Framing may be off by")).to_have_attribute("aria-invalid", "true")
    kit.locator("body").click(position={"x": 4, "y": 4})
    kit.keyboard.press("Control+z")
    kit.keyboard.press("Control+z")
    expect(head(kit)).to_contain_text("7 lenses")


def test_a_kit_is_made_out_of_some_things_and_kept(kit, at):
    kit.get_by_role("button", name="New kit").click()
    expect(kit.get_by_label("Name of the kit")).to_have_value(re.compile("^Kit"))
    kit.get_by_label("Name of the kit").fill("Two primes")
    take(kit, "Ebb 64")
    take(kit, "Merrow 29")
    expect(head(kit)).to_contain_text("1 lens does")
    kit.get_by_role("button", name="Keep this kit").click()
    expect(head(kit)).to_contain_text("kept by hand")
    saved(kit)
    made = next(each for each in document(at)["kits"] if each["name"] == "Two primes")
    assert {thing["name"] for thing in made["kept"]} == {"Ebb 64", "Merrow 29"}
    kit.reload()
    expect(head(kit)).to_contain_text("kept by hand")


def test_prices_are_of_ones_own_and_a_set_speaks_for_its_lenses(kit, at):
    kit.get_by_role("tab", name="Things and prices").click()
    expect(cell(kit, "For 5 days of Merrow 29")).to_have_text("255")
    enter(kit, "Price a week of Merrow 29", "90")
    expect(cell(kit, "For 5 days of Merrow 29")).to_have_text("90")
    expect(cell(kit, "For 5 days of Merrow 35")).to_have_text("255")
    enter(kit, "Price a week of All of Merrow", "200")
    expect(cell(kit, "For 5 days of Merrow 35")).to_have_text("200")
    expect(cell(kit, "For 5 days of Merrow 29")).to_have_text("90")
    saved(kit)
    own = [row for row in document(at)["stock"] if row["thing"]["of"] == "Merrow"]
    assert {row["thing"]["name"]: row["per_week"] for row in own} == {"": 200.0, "Merrow 29": 90.0}


def test_two_kits_side_by_side(kit):
    kit.get_by_role("tab", name="Side by side").click()
    kit.get_by_label("Other kit").select_option(label="Skiff and zooms")
    table = kit.get_by_role("row", name=re.compile("^Shots done"))
    expect(table).to_contain_text("of 40")
    expect(kit.get_by_text("the body: no lens on Ebb 64 does it").first).to_be_visible()
    rows = kit.locator("table.shots tbody tr")
    expect(rows).to_have_count(40)
    kit.get_by_label("only shots that one alone does").check()
    expect(rows).not_to_have_count(40)


def test_the_shots_of_a_day_are_put_in_the_order_with_fewer_changes(page, base_url, at):
    page.goto(f"{base_url}/p/{at.rsplit('/', 1)[1]}/kit/primes")
    days = page.get_by_role("region", name="The days")
    first = days.get_by_role("button", name="Put the shots in this order").first
    expect(first).to_be_visible()
    before = [shot["name"] for shot in ask(f"{at}/shots")["document"]["shots"]]
    offered = days.get_by_role("button", name="Put the shots in this order").count()
    first.click()
    expect(days.get_by_role("button", name="Put the shots in this order")).to_have_count(offered - 1)
    after = [shot["name"] for shot in ask(f"{at}/shots")["document"]["shots"]]
    assert after != before
    assert sorted(after) == sorted(before)


def test_a_production_without_shots_says_where_to_begin(page, base_url):
    made = ask(f"{base_url}/api/v1/productions", {"facts": {"name": "Slack water"}}, "POST")
    page.goto(f"{base_url}/p/{made['id']}/kit")
    expect(page.get_by_text("there are none yet")).to_be_visible()
    expect(page.get_by_role("link", name="write them down")).to_be_visible()
