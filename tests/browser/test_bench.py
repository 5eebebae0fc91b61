"""The walk at the bench: amounts by thumb, plain instead of feed, skip, runoff, undo, and a frozen list."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import running

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory):  # type: ignore[no-untyped-def]
    """A demonstration of its own: these tests write."""
    with running("demo", tmp_path_factory.mktemp("bench") / "demo.sqlite") as address:
        yield address


def api(page: Page, path: str):  # type: ignore[no-untyped-def]
    return page.evaluate("async (path) => (await fetch(path)).json()", path)


def test_the_walk_from_the_first_can_to_the_last_pot(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/", 390, 844)
    expect(page.get_by_role("heading", level=1)).to_contain_text("pots in")
    plan = api(page, "/api/round")["plan"]
    pots = {p["code"]: p["id"] for p in api(page, "/api/pots")["pots"]}
    page.get_by_role("link", name="Start pouring").click()

    first = plan["cans"][0]["pots"][0]
    heading = page.get_by_role("heading", level=1)
    expect(heading).to_contain_text(first["code"])
    step = 50 if first["amount_mL"] >= 150 else 10
    page.get_by_role("button", name=f"{step} mL more").click()
    page.get_by_role("button", name="Runoff").click()
    page.get_by_label("Ran out, mL").fill("30")
    page.get_by_label("It reads, µS/cm").fill("88")
    page.get_by_role("button", name="Poured").click()
    second = plan["cans"][0]["pots"][1]
    expect(heading).to_contain_text(second["code"])
    stored = api(page, f"/api/pots/{pots[first['code']]}")["pours"][-1]
    assert stored["volume_L"] == pytest.approx((first["amount_mL"] + step) / 1000)
    assert (stored["runoff_L"], stored["runoff_ec_uS_cm"]) == (0.03, 88)

    before = len(api(page, f"/api/pots/{pots[second['code']]}")["pours"])
    page.get_by_role("button", name="Still heavy: skip").click()
    expect(heading).not_to_contain_text(second["code"])
    assert len(api(page, f"/api/pots/{pots[second['code']]}")["pours"]) == before

    # on to the feed: mix it, read the pen ten times too high, then true
    feed = next(c for c in plan["cans"] if c["job"] == "feed")
    while not re.match(r"Can \w$", heading.inner_text()):
        shown = heading.inner_text()
        page.get_by_role("button", name="Poured").click()
        expect(heading).not_to_have_text(shown, use_inner_text=True)
    expect(heading).to_have_text(f"Can {feed['letter']}")
    expect(page.get_by_text(re.compile("of stock|thinned in steps")).first).to_be_visible()
    page.get_by_role("button", name="Mixed it").click()
    page.get_by_label("The pen reads, µS/cm").fill(str(round(feed["ec_uS_cm"])))
    page.get_by_role("button", name="Check it").click()
    expect(page.get_by_text("Reads as it should. Pour.")).to_be_visible()
    page.get_by_role("button", name="Pour", exact=True).click()

    fed = feed["pots"][0]
    expect(heading).to_contain_text(fed["code"])
    page.get_by_role("button", name="Poured").click()
    expect(heading).to_contain_text(feed["pots"][1]["code"])
    page_of = api(page, f"/api/pots/{pots[fed['code']]}")
    assert page_of["pours"][-1]["job"] == "feed"
    assert page_of["pours"][-1]["ec_uS_cm"] == round(feed["ec_uS_cm"])

    # dry: plain water today
    page.get_by_role("button", name="Dry: plain water").click()
    page.get_by_role("button", name="Poured").click()
    expect(heading).not_to_contain_text(feed["pots"][1]["code"])
    assert api(page, f"/api/pots/{pots[feed['pots'][1]['code']]}")["pours"][-1]["job"] == "plain"

    # what was just kept can be taken back while walking on
    count = len(api(page, f"/api/pots/{pots[feed['pots'][1]['code']]}")["pours"])
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Undo")).to_have_count(0)
    page.wait_for_function(
        "async ([url, n]) => (await (await fetch(url)).json()).pours.length === n - 1",
        arg=[f"/api/pots/{pots[feed['pots'][1]['code']]}", count],
    )

    total = sum(len(c["pots"]) for c in plan["cans"])
    for _ in range(total + 3):
        if heading.inner_text() == "The round is done":
            break
        shown = heading.inner_text()
        mixing = page.get_by_role("button", name="Mixed it")
        if mixing.count():
            mixing.click()
            page.get_by_role("button", name="No pen today").click()
        else:
            page.get_by_role("button", name="Poured").click()
        expect(heading).not_to_have_text(shown, use_inner_text=True)
    expect(heading).to_have_text("The round is done")
    expect(page.get_by_text(f"of {total} pots poured")).to_be_visible()


def test_two_quick_taps_store_one_pour(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots/1")
    page.get_by_role("button", name="Log a pour").click()
    before = len(api(page, "/api/pots/1")["pours"])
    page.get_by_label("Note", exact=True).fill("a thumb that bounced")
    page.get_by_role("button", name="Poured").dblclick()
    expect(page.get_by_text("All 1 poured.")).to_be_visible()
    assert len(api(page, "/api/pots/1")["pours"]) == before + 1


def test_a_pot_can_be_archived_and_brought_back(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots/2")
    page.get_by_role("button", name="Archive").click()
    page.get_by_label("Why").select_option(label="died: dried out")
    page.get_by_role("button", name="Archive it").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("23 pots")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("24 pots")


def test_a_hold_is_told_before_the_pour_and_a_word_overrides_it(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots")
    rows = {p["code"]: p["id"] for p in api(page, "/api/pots")["pots"]}
    page.goto(f"{own_demo}/pots/{rows['D-09']}")
    page.get_by_role("button", name="Phase", exact=True).click()
    page.get_by_label("Phase", exact=True).select_option("dormant")
    page.get_by_role("button", name="Save the phase").click()
    expect(page.get_by_text("Hold: Dormant since 23 Nov")).to_be_visible()
    page.get_by_role("button", name="Log a pour").click()
    page.get_by_role("button", name="Poured").click()
    expect(page.get_by_role("region", name="Pour").get_by_text("kept dry, no water and no feed")).to_be_visible()
    page.get_by_label("Note", exact=True).fill("shrivelled")
    page.get_by_role("button", name="Poured").click()
    expect(page.get_by_text("All 1 poured.")).to_be_visible()
