"""The first minute on an empty collection, at a person's speed: a verdict, grams for a can, a pot on the round."""

from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.measured import findings
from tests.browser.server import context_of, running, settled, watched

CLICK_ms, CHARACTERS_s = 250, 5


class Person:
    """Clicks and types at reading speed; ``spent`` adds up what the hand took, the machine's own time besides."""

    def __init__(self, page: Page) -> None:
        self.page, self.began = page, page.evaluate("performance.timeOrigin + performance.now()")

    def click(self, name: str, role: str = "button") -> None:
        self.page.wait_for_timeout(CLICK_ms)
        self.page.get_by_role(role, name=name, exact=True).first.click()  # type: ignore[arg-type]

    def types(self, label: str, text: str) -> None:
        self.page.wait_for_timeout(CLICK_ms)
        self.page.get_by_label(label).first.press_sequentially(text, delay=1000 / CHARACTERS_s)

    def picks(self, label: str, value: str) -> None:
        self.page.wait_for_timeout(2 * CLICK_ms)
        self.page.get_by_label(label, exact=True).first.select_option(value)

    def spent_s(self) -> float:
        now: float = self.page.evaluate("performance.timeOrigin + performance.now()")
        return (now - self.began) / 1000


@pytest.fixture
def empty(browser: Browser, tmp_path: Path) -> Page:  # type: ignore[misc]
    with running("serve", tmp_path / "mine.sqlite") as address:
        page, wrong = watched(context_of(browser, 390, 844), address)
        page.goto(address)
        settled(page)
        yield page  # type: ignore[misc]
        assert wrong == []


def test_first_verdict_on_a_water_in_half_a_minute(empty: Page) -> None:
    me = Person(empty)
    me.click("Only a quick sum", "link")
    me.types("The pen shows", "250")
    me.picks("Unit", "ppm")
    me.picks("Plant", "masdevallia")
    expect(empty.get_by_text("Not as it is: 1 part in 8 stays under it.")).to_be_visible()
    assert me.spent_s() < 30


def test_first_verdict_without_a_meter(empty: Page) -> None:
    me = Person(empty)
    me.click("Only a quick sum", "link")
    me.picks("Plant", "phalaenopsis")
    expect(empty.get_by_text("read the water, or 1 part in")).to_be_visible()
    assert me.spent_s() < 30
    assert findings(empty) == []


def test_first_grams_for_a_can_in_three_quarters_of_a_minute(empty: Page) -> None:
    me = Person(empty)
    me.click("Only a quick sum", "link")
    empty.get_by_label("Can, L").first.fill("")
    me.types("Can, L", "5")
    empty.get_by_label("Label").first.fill("")
    me.types("Label", "20-20-20")
    # 40 mg/L of nitrogen in 5 L of a feed of 20 %: 0.040 * 5 / 0.20 = 1 g
    expect(empty.get_by_role("button", name="How much feed for this can? 1 g. Show working")).to_be_visible()
    assert me.spent_s() < 45


def test_first_pots_in_one_line_in_a_minute(empty: Page) -> None:
    me = Person(empty)
    me.click("Pots", "link")
    me.types("In one line, as you would say it", "6 phalaenopsis in bark, 12 cm")
    expect(empty.get_by_text("6 pots of Phalaenopsis, 0.87 L")).to_be_visible()
    assert findings(empty) == []
    me.click("Add 6 pots")
    expect(empty.get_by_text("6 pots are saved, from P-01 on.")).to_be_visible()
    expect(empty.get_by_role("heading", name="6 pots", exact=True)).to_be_visible()
    assert me.spent_s() < 60
    pots = empty.evaluate("fetch('/api/pots').then(r => r.json())")
    assert [p["code"] for p in pots["pots"]] == [f"P-0{i}" for i in range(1, 7)]


def test_three_questions_put_the_first_pots_on_the_round_in_a_minute_without_a_meter(empty: Page) -> None:
    me = Person(empty)
    me.types("One line, as you would say it", "6 masdevallia")
    me.click("Add 6 pots")
    me.click("Rain")
    me.click("Mains")
    expect(empty.get_by_text("Rain alone serves all 6 pots.")).to_be_visible()
    assert findings(empty) == []
    assert empty.evaluate("document.documentElement.scrollWidth") <= 390
    me.click("Save")
    expect(empty.get_by_text("Saved: 6 pots, 2 waters, 0 meters.")).to_be_visible()
    expect(empty.get_by_role("heading", level=1)).to_contain_text("day")
    assert me.spent_s() < 60
    pots = empty.evaluate("fetch('/api/pots').then(r => r.json())")["pots"]
    assert [p["code"] for p in pots] == [f"M-0{i}" for i in range(1, 7)]


def test_a_reading_typed_at_the_start_narrows_the_verdict(empty: Page) -> None:
    me = Person(empty)
    me.types("One line, as you would say it", "masdevallia")
    me.click("Add the pot")
    me.click("Mains")
    expect(empty.get_by_role("cell", name="read it first")).to_be_visible()
    me.click("ppm pen")
    me.types("Mains: the pen shows", "40")
    expect(empty.get_by_role("cell", name="yes")).to_be_visible()  # 57 to 80 µS/cm whatever the scale
    me.types("Mains: the pen shows", "00")
    expect(empty.get_by_role("cell", name="no", exact=True)).to_be_visible()


def test_a_look_around_in_the_demonstration_and_back(empty: Page) -> None:
    empty.get_by_role("button", name="Look around in the demonstration").click()
    expect(empty.get_by_text("This is the demonstration, an invented collection.")).to_be_visible(timeout=60_000)
    settled(empty)
    assert len(empty.evaluate("fetch('/api/pots').then(r => r.json())")["pots"]) == 24
    assert findings(empty) == []
    empty.get_by_role("button", name="Back to my collection").click()
    expect(empty.get_by_role("heading", name="Three questions, then you can pour")).to_be_visible()
    assert empty.evaluate("fetch('/api/pots').then(r => r.json())")["pots"] == []
