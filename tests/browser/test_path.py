"""Steps 1 to 7 on a fresh database, in a real browser, by pointer and by keyboard alone, at the desk and at the
bench.
"""

from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.hands import Keyboard, Pointer

pytestmark = pytest.mark.browser


@pytest.mark.parametrize(
    ("hand_kind", "width", "height"),
    [
        pytest.param(Keyboard, 1280, 800, id="keyboard at the desk"),
        pytest.param(Pointer, 390, 844, id="thumb on a phone"),
        pytest.param(Pointer, 1280, 800, id="pointer at the desk", marks=pytest.mark.walk),
        pytest.param(Keyboard, 390, 844, id="keyboard on a phone", marks=pytest.mark.walk),
    ],
)
def test_from_a_water_to_a_leaf_and_round_again(
    fresh_address: str, open_page: Callable[..., Page], hand_kind: type[Pointer], width: int, height: int
) -> None:
    page = open_page(fresh_address, "/", width, height)
    hand = hand_kind(page)
    expect(page.get_by_role("heading", name="Three questions, then you can pour")).to_be_visible()

    # 1 a water and its reading
    hand.station("Water")
    hand.press("Add the first source")
    hand.fill("Name", "Rain butt")
    hand.choose("Disinfectant", "none")
    hand.press("Save the source")
    hand.fill("The meter shows", "0,05")
    hand.choose("Unit", "mS/cm")
    hand.choose("Meter corrects to 25 °C", "no")
    hand.fill("Water temperature, °C", "18")
    hand.press("Save the reading")
    expect(page.get_by_role("status")).to_contain_text("58 µS/cm at 25 °C")
    expect(page.get_by_role("button", name="Rain butt 58")).to_be_visible()

    # a pot to pour on
    hand.station("Pots")
    hand.press("Add the first pot")
    hand.fill("Code", "P-01")
    hand.choose("Kind of plant", "Paphiopedilum")
    hand.unfold("Medium, place, days")
    hand.fill("Pot volume, L", "0.9")
    hand.choose("Phase", "active")
    hand.press("Save the pot")
    expect(page.get_by_role("link", name="P-01 Paphiopedilum")).to_be_visible()

    # 2 may this plant drink it
    hand.station("Water")
    expect(page.get_by_role("row", name="Paphiopedilum")).to_contain_text("within")
    expect(page.get_by_role("row", name="Paphiopedilum")).to_contain_text("known good")

    # 3 mix, four names of one strength, and the pen
    hand.station("Mix")
    hand.press("P-01")
    hand.fill("Volume", "2")
    hand.fill("EC in the can", "300")
    expect(page.get_by_label("Nitrogen", exact=True)).to_have_value("25")
    expect(page.get_by_label("EC added", exact=True)).to_have_value("242")
    expect(page.get_by_text("Room to the ceiling")).to_be_visible()
    expect(page.get_by_text("Go through a stock").or_(page.get_by_text("Your scale:")).first).to_be_visible()
    hand.date("Made on", "2026-11-08")
    hand.press("Made it, read the pen")
    hand.fill("Measured EC", "2600")
    hand.press("Judge it")
    expect(page.get_by_text("About ten times what it should be", exact=False)).to_be_visible()
    hand.fill("Measured EC", "310")
    hand.press("Judge again")
    expect(page.get_by_text("Reads as it should. Pour.")).to_be_visible()

    # 4 pour it, twice, the second with its runoff
    for day, volume, runoff in (("2026-11-08", "150", ""), ("2026-11-14", "160", "410")):
        if day == "2026-11-14":
            hand.press("Another can")
            page.locator("summary").press("Enter")
            hand.press("Pour from it")
        hand.fill("Volume, mL", volume)
        hand.fill("Runoff EC, µS/cm", runoff)
        hand.date("Date", day)
        hand.press("Poured")
        expect(page.get_by_role("status").filter(has_text=f"P-01: {volume} mL saved.")).to_be_visible()

    # 5 the root zone, its band, its working
    hand.station("Pots")
    hand.press("P-01 Paphiopedilum", role="link")
    card = page.locator("section").filter(has=page.get_by_role("heading", name="Root zone today"))
    expect(card).to_contain_text("A pour-through would read")
    expect(card).to_contain_text("14 Nov: read 410")
    hand.press("Predicted reading", exact=False)
    expect(page.get_by_role("dialog")).to_contain_text("C_DI + (C_cap - C_DI) * (1 - exp(-eta * x)) / x")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_role("heading", name="Flush P-01", exact=False)).to_be_visible()

    # 6 a look at the leaf
    hand.press("Log a look", role="link")
    hand.press("New leaf")
    hand.fill("Newest leaf, mm", "142")
    hand.press("Mark: Tip")
    hand.press("Counts, roots, growths, note")
    hand.fill("Leaves counted", "6")
    hand.press("Save")
    expect(page.get_by_role("region", name="Strata")).to_contain_text("142")

    # 7 the round, and the walk
    hand.station("Round")
    expect(page.get_by_role("heading", level=1)).to_have_text("Monday, 1 pot in 1 can")
    hand.press("Start pouring", role="link")
    hand.press("Mixed it")
    hand.press("No pen today")
    expect(page.get_by_role("heading", level=1)).to_contain_text("P-01")
    hand.press("Poured")
    expect(page.get_by_role("heading", level=1)).to_have_text("The round is done")
    hand.press("Back to the round", role="link")
    expect(page.get_by_role("heading", level=1)).to_have_text("Monday, nothing to pour")


def test_a_browser_that_believes_itself_offline_still_asks_its_own_machine(
    fresh_address: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(fresh_address, "/water")
    hand = Pointer(page)
    expect(page.get_by_role("button", name="Add the first source")).to_be_visible()
    page.evaluate("window.dispatchEvent(new Event('offline'))")
    hand.press("Add the first source")
    hand.fill("Name", "Rain butt")
    hand.press("Save the source")
    expect(page.get_by_label("The meter shows", exact=True)).to_be_visible()
