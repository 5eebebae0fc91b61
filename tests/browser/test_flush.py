"""The Flush station and a flush on the phone, driven in the real interface."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.hands import Pointer
from tests.browser.measured import findings
from tests.browser.server import context_of, running, watched

POURED = re.compile(r"^Poured [0-9]")


@pytest.fixture
def demo_here(tmp_path: Path) -> Path:
    return tmp_path / "demo.sqlite"


def pass_of(page: Page, ec: str) -> None:
    """Pour what is proposed and type what it reads."""
    page.get_by_label("The last that runs out, µS/cm").fill(ec)
    before = page.get_by_role("list", name="Passes").get_by_role("listitem").filter(visible=True).count()
    assert before > 0
    page.get_by_role("button", name=POURED).click()
    expect(page.get_by_label("The last that runs out, µS/cm").or_(page.get_by_text("Done", exact=True))).to_be_visible()


def sender(page: Page) -> Callable[[str, dict[str, object]], dict[str, int]]:
    """What a page would send, each with a key of its own."""
    made = """async ([path, body]) => (await fetch(path, {method: 'POST', body: JSON.stringify(body),
        headers: {'content-type': 'application/json', 'idempotency-key': crypto.randomUUID()}})).json()"""
    return lambda path, body: dict(page.evaluate(made, [path, body]))


def test_a_whole_session_on_the_phone_with_the_pen(browser: Browser, demo_here: Path) -> None:
    with running("demo", demo_here) as address:
        context = context_of(browser, 390, 844)
        page, wrong = watched(context, address)
        hand = Pointer(page)
        page.goto(address + "/flush")
        expect(page.get_by_role("heading", name=re.compile("Flush A-05 down to"))).to_be_visible()
        hand.press("Start the flush")
        expect(page.get_by_role("heading", name="A-05 Anthurium")).to_be_visible()
        expect(page.get_by_role("img", name=re.compile("none read yet; stop under"))).to_be_visible()
        hand.press("Read the pen")
        reading = page.get_by_label("The last that runs out, µS/cm")
        expect(reading).not_to_have_value("", timeout=30_000)
        page.get_by_role("button", name=POURED).click()
        expect(page.get_by_role("listitem", name=re.compile("Pass 1: poured, runoff"))).to_be_visible()
        expect(page.get_by_role("timer")).to_contain_text("soak left of 45 min")
        assert findings(page) == []
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
        for ec in ("1300", "1150", "1130"):
            reading.fill(ec)
            page.get_by_role("button", name=POURED).click()
            if ec != "1130":
                expect(page.get_by_role("listitem", name=re.compile(f"runoff {ec[0]}\\s{ec[1:]}"))).to_be_visible()
        expect(page.get_by_text("Target reached: the last two, 1150 and 1130 µS/cm, agree.")).to_be_visible()
        hand.choose("Saucer or tray tipped out", "yes")
        hand.press("Save")
        expect(page.get_by_text("the first at half strength").first).to_be_visible()
        page.goto(address + "/pots/15")
        hand.press("What its readings taught")
        expect(page.get_by_text("target reached")).to_be_visible()
        assert wrong == []
        context.close()


def test_a_session_goes_on_after_a_reload_with_the_server_gone_for_a_pass(browser: Browser, demo_here: Path) -> None:
    with running("demo", demo_here) as address:
        context = context_of(browser, 390, 844)
        page = context.new_page()
        page.goto(address + "/flush")
        Pointer(page).press("Start the flush")
        expect(page.get_by_role("button", name=POURED)).to_be_visible()
        pass_of(page, "1500")
        expect(page.get_by_role("listitem", name=re.compile(r"Pass 1: poured, runoff 1\s500"))).to_be_visible()
        where = page.url
        context.route("**/api/**", lambda route: route.abort())
        page.get_by_label("The last that runs out, µS/cm").fill("1350")
        page.get_by_role("button", name=POURED).click()
        expect(page.get_by_text("1 pass waits in this phone until Fenwa answers")).to_be_visible(timeout=30_000)
        page.reload()
        expect(page.get_by_role("heading", name="A-05 Anthurium")).to_be_visible()
        expect(page.get_by_text("1 pass waits in this phone")).to_be_visible()
        expect(page.get_by_role("timer")).to_contain_text("soak left")
        context.unroute("**/api/**")
        page.reload()
        expect(page.get_by_role("listitem", name=re.compile(r"Pass 2: poured, runoff 1\s350"))).to_be_visible(
            timeout=40_000
        )
        expect(page.get_by_text("waits in this phone")).to_have_count(0)
        assert page.url == where
        context.close()


def test_a_session_begins_with_fenwa_out_of_reach_and_arrives_whole(browser: Browser, demo_here: Path) -> None:
    with running("demo", demo_here) as address:
        context = context_of(browser, 390, 844)
        page = context.new_page()
        page.goto(address + "/flush")
        expect(page.get_by_role("button", name="Start the flush")).to_be_enabled()
        context.route("**/api/**", lambda route: route.abort())
        Pointer(page).press("Start the flush")
        expect(page.get_by_text("Fenwa is out of reach. The flush")).to_be_visible(timeout=30_000)
        told = page.get_by_text(re.compile(r"As last planned: \d × \d+ mL of Rain cistern, 45 min apart."))
        expect(told).to_be_visible()
        mL = told.inner_text().split(" × ")[1].split(" mL")[0]
        for n, ec in enumerate(("1500", "1350"), 1):
            page.get_by_label("The last that runs out, µS/cm").fill(ec)
            page.get_by_role("button", name=POURED).click()
            waits = page.get_by_role("list", name="Passes").get_by_role("listitem")
            expect(waits).to_have_count(n, timeout=30_000)
        page.reload()
        expect(page.get_by_text(f"{mL} mL, runoff 1350 µS/cm")).to_be_visible()
        expect(page.get_by_role("timer")).to_contain_text("soak left")
        assert findings(page) == []
        context.unroute("**/api/**")
        page.reload()
        expect(page.get_by_role("listitem", name=re.compile(r"Pass 2: poured, runoff 1\s350"))).to_be_visible(
            timeout=40_000
        )
        assert re.search(r"/flush/\d+$", page.url)
        expect(page.get_by_role("heading", name="A-05 Anthurium")).to_be_visible()
        context.close()


def test_a_reservoir_through_three_top_ups_and_a_change(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/pots")
    send = sender(page)
    send("/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"})
    send("/api/waters/1/readings", {"on": "2026-11-01", "value": 20, "unit": "µS/cm"})
    balls = {"medium_id": "clay_balls", "drainage": "reservoir", "route": "reservoir", "volume": 1.5, "below_L": 1.2}
    pot = {"code": "R-01", "profile_id": "cattleya_alliance", "interval_days": 7, "phase": "active", **balls}
    send("/api/pots", pot)
    full = {"pot_ids": [1], "on": "2026-11-02", "water_id": 1, "volume": 480, "route": "reservoir"}
    send("/api/pours", full)
    page.goto(fresh_address + "/pots/1")
    hand = Pointer(page)
    for day, level in (("2026-11-08", "300"), ("2026-11-14", "310"), ("2026-11-20", "290")):
        hand.press("Add a level")
        hand.fill("Level, mL", level)
        hand.date("Date", day)
        hand.press("Save")
        expect(page.get_by_text("The level is saved.")).to_be_visible()
        send("/api/pours", {**full, "on": day, "volume": 480 - int(level)})
    page.reload()
    drawn = page.get_by_role("img", name="reservoir: 0.48 of 1.2 L")
    expect(drawn).to_be_visible()
    expect(page.get_by_text(", reckoned")).to_be_visible()
    hand.press("Change the water")
    hand.fill("How much, mL", "480")
    hand.press("Save")
    expect(page.get_by_text("The change is saved.")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Salt below: 20 "))).to_be_visible()


def test_a_tray_kind_that_must_not_be_wetted_from_above_is_left_out_with_its_reason(
    fresh_address: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(fresh_address, "/pots")
    send = sender(page)
    send("/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"})
    send("/api/waters/1/readings", {"on": "2026-11-01", "value": 14, "unit": "µS/cm"})
    bog = {"medium_id": "carn_peat_sand", "drainage": "tray", "route": "tray", "volume": 0.5, "below_L": 0.4}
    send("/api/pots", {"code": "D-01", "profile_id": "drosophyllum", "interval_days": 4, "phase": "active", **bog})
    send("/api/pours", {"pot_ids": [1], "on": "2026-11-10", "water_id": 1, "volume": 200})
    page.goto(fresh_address + "/flush")
    expect(page.get_by_text("Never rinse this kind from above").first).to_be_visible()
    page.get_by_text("By calendar: the next flushes of each pot").click()
    expect(page.get_by_text("left out. Its top must stay dry")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^tray: "))).to_be_visible()


def test_the_station_tells_what_each_school_would_have_done(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/flush")
    hand = Pointer(page)
    hand.press("Schools", role="tab")
    table = page.get_by_role("region", name="Schools")
    expect(table.get_by_role("row")).to_have_count(5)
    for words in ("As it was done", "By calendar", "By a measured reading", "By the forecast"):
        expect(table.get_by_text(words)).to_be_visible()
    assert findings(page) == []
    hand.press("Year ahead", role="tab")
    expect(page.get_by_role("heading", name="The year ahead, and what would hold it")).to_be_visible()
    hand.press("Learnt", role="tab")
    expect(page.get_by_text(re.compile("readings taught most of its"))).to_be_visible()
    assert findings(page) == []
    hand.press("Plan the round")
    expect(page.get_by_text(re.compile(r"^\d+ pots?, "))).to_be_visible()


def test_a_water_that_cannot_get_there_says_so(demo_here: Path, browser: Browser) -> None:
    with running("demo", demo_here) as address:
        context = context_of(browser, 1280, 800)
        page = context.new_page()
        page.goto(address + "/flush")
        page.get_by_role("button", name="P-06", exact=True).click()
        expect(page.get_by_role("heading", name=re.compile("Flush P-06 down to"))).to_be_visible()
        page.get_by_role("group", name="Water").get_by_role("button", name="Borehole").click()
        expect(page.get_by_text(re.compile("flush water itself|Use a purer water")).first).to_be_visible()
        page.get_by_role("button", name="Start the flush").click()
        expect(page.get_by_role("alert").first).to_contain_text("This water cannot get there")
        assert page.url.endswith("/flush")
        context.close()
