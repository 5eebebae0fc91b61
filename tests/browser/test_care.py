"""A hold set aside, an arrival released by its first leaf, a season turned round, a kind by one's own figures."""

from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import running, settled

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """A demonstration of this file's own: its tests write."""
    with running("demo", tmp_path_factory.mktemp("care") / "demo.sqlite") as address:
        yield address


def keep(page: Page, address: str, **pot: str) -> None:
    """A pot kept by the API, and the list opened again."""
    body = {"medium_id": "bark_mix", "volume": 0.9, "interval_days": 6, **pot}
    assert page.request.post(f"{address}/api/pots", data=body, headers={"Idempotency-Key": f"keep-{pot['code']}"}).ok
    page.goto(f"{address}/pots")


def test_hold_set_aside_with_a_word_and_undone(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots")
    page.get_by_role("link", name="D-09").click()
    page.get_by_role("button", name="Set aside the hold resting").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("A word is missing.", exact=False).first).to_be_visible()
    page.get_by_label("Why, in a word").fill("a bright warm week")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Your word: a bright warm week")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Set aside the hold resting")).to_be_visible()


def test_first_leaf_after_arrival_releases_the_hold(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots")
    keep(page, own_demo, code="NEW-1", profile_id="paphiopedilum", arrived_on="2026-11-03")
    page.get_by_role("link", name="NEW-1").click()
    hold = page.locator("main").get_by_text("Hold: Arrived 20 days ago.", exact=False)
    expect(hold).to_be_visible()
    page.get_by_role("link", name="Log a look").click()
    page.get_by_role("button", name="New leaf").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(hold).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(hold).to_be_visible()


def test_season_is_turned_round_in_the_south(own_demo: str, open_page: Callable[..., Page]) -> None:
    """A leaf-dropping dendrobium: dry in the north, and in the south as soon as its roots were seen."""
    page = open_page(own_demo, "/pots")
    keep(page, own_demo, code="NEW-2", profile_id="dendrobium_deciduous", arrived_on="2025-01-10")
    page.get_by_role("link", name="NEW-2").click()
    page.get_by_role("button", name="School and phase").click()
    page.get_by_label("Phase told").select_option(label="by the calendar")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Dormant", exact=True)).to_be_visible()
    page.get_by_role("button", name="Seasons", exact=True).click()
    page.get_by_label("Seasons", exact=True).select_option(label="southern")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Stay dry. Still missing", exact=False).first).to_be_visible()
    page.get_by_role("link", name="Log a look").click()
    page.get_by_role("button", name="Counts, roots, growths, note").click()
    page.get_by_role("button", name="New shoot or lead").click()
    page.get_by_label("Its roots, each, cm").fill("4")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Active", exact=True)).to_be_visible()


def test_own_figures_of_a_kind_and_back(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/kinds")
    page.get_by_label("Find a kind").fill("anth")
    page.get_by_role("link", name="Anthurium grown for leaves").click()
    expect(page.get_by_text("Confidence", exact=False).first).to_be_visible()
    page.get_by_role("button", name="Use my own figures").click()
    page.get_by_label("Ceiling, µS/cm").fill("20")
    page.get_by_role("button", name="Save the figures").click()
    expect(page.get_by_text("above the ceiling 20", exact=False).first).to_be_visible()
    page.get_by_label("Ceiling, µS/cm").fill("1300")
    page.get_by_label("Why, in a word").fill("mine burn early")
    page.get_by_role("button", name="Save the figures").click()
    expect(page.get_by_text("These are your figures.")).to_be_visible()
    settled(page)
    page.get_by_role("button", name="Back to the shipped figures").click()
    expect(page.get_by_text("These are your figures.")).to_have_count(0)


def test_a_probe_tells_that_a_pot_wants_water_before_its_day(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/pots", 390, 844)
    keep(page, own_demo, code="NEW-3", profile_id="paphiopedilum")
    page.get_by_role("link", name="NEW-3").click()
    page.get_by_role("button", name="When it wants water").click()
    page.get_by_label("Ready").select_option(label="by a probe")
    page.get_by_role("button", name="Another probe").click()
    page.get_by_label("Called").fill("Long probe")
    page.get_by_label("Scale from").fill("0")
    page.get_by_label("to", exact=True).fill("200")
    page.get_by_label("Dry is").select_option(label="its high end")
    page.get_by_role("button", name="Save the probe").click()
    expect(page.get_by_text("On its own scale, 200 is dry.")).to_be_visible()
    page.get_by_label("Water it at").fill("250")
    page.get_by_role("button", name="Save the rule").click()
    expect(
        page.get_by_text("Reading of Long probe 250 cannot be. Enter a value from 0 to 200.", exact=False).first
    ).to_be_visible()
    page.get_by_label("Water it at").fill("150")
    page.get_by_role("button", name="Save the rule").click()
    expect(page.get_by_text("Check: water at 150 or more on Long probe.")).to_be_visible()
    page.get_by_role("button", name="How dry is it?").click()
    page.get_by_label("The probe shows").fill("160")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Wants water now.")).to_be_visible()
    page.goto(f"{own_demo}/")
    expect(page.get_by_text("Long probe 160 of 200: dry by your rule. Water.")).to_be_visible()


def test_a_rule_of_a_kind_reaches_its_pots_and_a_change_of_the_place_their_chart(
    own_demo: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(own_demo, "/kinds/adiantum")
    page.get_by_role("button", name="Rule of this kind").click()
    page.get_by_label("Feeding school").select_option(label="Pulse")
    page.get_by_role("button", name="Save the rule").click()
    expect(page.get_by_role("button", name="Save the rule")).to_have_count(0)
    page.get_by_role("link", name="F-01").click()
    expect(page.get_by_text("By the rule of its kind.", exact=True)).to_be_visible()
    page.get_by_role("button", name="What changed").click()
    page.get_by_label("What", exact=True).select_option("humidifier off")
    page.get_by_label("On", exact=True).fill("2026-11-12")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_text("Winter garden: humidifier off is saved.")).to_be_visible()
    expect(page.locator("svg title", has_text="humidifier off")).to_have_count(1)
    cursor = page.get_by_role("slider", name="Time cursor")
    for _ in range(12):
        cursor.press("ArrowLeft")
        if "humidifier off" in (cursor.get_attribute("aria-valuetext") or ""):
            break
    assert "humidifier off" in (cursor.get_attribute("aria-valuetext") or "")
