"""One plan through all pages, with an own list on own cameras: a kit becomes the plan, Shots, the Set and the sheets follow it, and what is
pinned otherwise is told on both pages."""

import re

import pytest
from playwright.sync_api import expect

from tests.core.bodies import a_body, a_format, a_mode
from tests.ui.test_package_view import ask

FULL = a_mode(
    "Full 6K",
    window=[6000, 3376],
    formats=[a_format("6K → UHD", key="six", raster=[3840, 2160], rates=["1-60"])],
)
SMALL = a_mode(
    "S35 4K",
    window=[4200, 2362],
    formats=[a_format("4K → UHD", key="four", raster=[3840, 2160], rates=["1-120"])],
)
#: A day as a list comes: shorthand, feet, a rate that one mode alone reaches, a shot that nobody can make.
LIST = [
    {"framing": "wide 6 m", "distance": "5-9 m"}, {"framing": "full figure", "distance": "3-6 m"},
    {"framing": "waist", "distance": "2-4 m"}, {"framing": "chest", "distance": "6'-9'"}, {"framing": "face", "distance": "1.5-2.5 m"},
    {"framing": "1.2 m wide", "distance": "2 m"}, {"framing": "waist", "distance": "2-4 m", "speed": "100"},
    {"framing": "chest", "distance": "1.5-3 m", "speed": "48"}, {"framing": "like 35"}, {"framing": "like 50", "distance": "2-3 m"},
    {"framing": "0.4 m wide", "distance": "1-2 m"}, {"framing": "0.05 m wide", "distance": "30 m"},
]  # fmt: skip


@pytest.fixture
def own(own_server):
    """The address of a production's API, with two scan modes, five lenses and twelve shots."""
    base_url = own_server.url
    facts = {"facts": {"name": "Slack water"}}
    at = f"{base_url}/api/v1/productions/{ask(f'{base_url}/api/v1/productions', facts, 'POST')['id']}"
    ask(f"{at}/bodies", {"document": a_body([FULL, SMALL], name="Otter 60", key="otter")}, "POST")
    line = ask(f"{base_url}/api/v1/entry/lens-set", {"line": "18 25 35 50 85 T1.5 full frame W54"}, "POST")
    ask(f"{at}/lens-sets", {"document": line["document"]}, "POST")
    shots = [
        {"key": f"s{n}", "name": f"{n}", "day": "1", "unit": "A", **each} for n, each in enumerate(LIST, 1)
    ]
    document = {"schema": "hextan.shots", "schema_version": 1, "shots": shots}
    ask(f"{at}/shots", {"version": 0, "document": document}, "PUT")
    return at


def test_one_plan_holds_on_every_page(page, own, complaints):
    home = f"{own.split('/api/')[0]}/p/{own.rsplit('/', 1)[1]}"
    page.goto(f"{home}/kit")
    expect(page.get_by_text("proved smallest")).to_be_visible()
    made = page.get_by_role("button", name="Make this the plan")
    expect(made).to_be_enabled()
    made.click()
    told = page.get_by_role("region", name="The plan")
    expect(told).to_contain_text("The plan is Smallest kit")
    expect(told).to_contain_text("Nothing changed since.")
    # What was taken away, or made over, comes back as it was.
    told.get_by_role("button", name="No plan").click()
    expect(told).to_contain_text("No kit is the plan yet")
    told.get_by_role("button", name=re.compile("^Back to the plan before: Smallest kit")).click()
    expect(told).to_contain_text("Nothing changed since.")

    # The same body, format and lens on every page, or why not.
    kit = ask(f"{own}/plan")["plan"]
    shots = ask(f"{own}/shots")
    view = ask(f"{own}/shots/view", {"document": shots["document"]}, "POST")
    planned = {each["shot"]: each["on"] for each in ask(f"{own}/set?day=1")["day"]["shots"]}
    names = ("body", "mode", "format", "lens", "lens_set")
    for answer in view["answers"]:
        best = answer["best"]
        assert [best[n] for n in names] == [planned[answer["key"]][n] for n in names]
        assert answer["plan"]["state"] == "as_planned" or "nothing for it" in answer["plan"]["told"]
        assert answer["plan"]["not_carried"] == []
    lost = [row["name"] for row in kit["without"]]
    # What it has nothing for is what nothing here does, and stands so in the list.
    assert "12" in lost and kit["shots"] == 12 - len(lost)
    assert lost == [
        shot["name"]
        for shot, a in zip(shots["document"]["shots"], view["answers"], strict=True)
        if a["verdict"] == "cannot"
    ]
    followed = f"{kit['shots']} of 12 shots are made as it has them"

    page.get_by_role("link", name="Shots", exact=True).click()
    expect(page.get_by_text(followed)).to_be_visible()

    # A pin that the plan does not have is told here and there, and goes with one press.
    other = next(each for each in view["answers"] if each["runner_up"] and each["key"] == "s3")["runner_up"]
    pin = {n: other[n] for n in (*names, "adapters")}
    document = shots["document"]
    document["shots"][2]["pin"] = pin
    ask(f"{own}/shots", {"version": shots["version"], "document": document}, "PUT")
    page.goto(f"{home}/shots?shot=s3")
    expect(page.get_by_text(re.compile("^The plan has "))).to_be_visible()
    page.goto(f"{home}/kit")
    told.get_by_text("Pinned otherwise: 1").click()
    expect(told).to_contain_text(f"Pinned to {other['lens_told']} on Otter 60")
    page.goto(f"{home}/shots?shot=s3")
    page.get_by_role("button", name="Let the choice go").click()
    expect(page.get_by_text(followed)).to_be_visible()

    # What goes on the cart is of what the plan uses, and no more.
    page.goto(f"{home}/sheets")
    page.get_by_role("button", name="For the cart").click()
    expect(page.get_by_text("what the plan uses: Smallest kit").first).to_be_attached()
    expect(page.get_by_role("status").filter(has_text=re.compile("^saved$"))).to_be_visible()
    used = {planned[a["key"]]["lens"] for a in view["answers"] if a["verdict"] != "cannot"}
    plan = next(s for s in ask(f"{own}/sheets")["document"]["bundles"][0]["sheets"] if s["kind"] == "depth")
    sheet = ask(f"{own}/sheets/view", {"plan": plan}, "POST")["sheet"]
    assert {block["heading"].split(", ")[0] for block in sheet["blocks"]} == used
    assert [c for c in complaints if "status of 4" not in c] == []
