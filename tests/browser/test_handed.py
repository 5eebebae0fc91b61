"""A feed by its label from a pot's page, a plant that changes hands, help at hand, and a reader of other units."""

from collections.abc import Callable
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import settled

pytestmark = pytest.mark.browser


def api(page: Page, path: str) -> dict:  # type: ignore[type-arg]
    answer: dict = page.evaluate("path => fetch(path).then(r => r.json())", path)  # type: ignore[type-arg]
    return answer


def test_half_strength_of_a_feed_is_poured_at_the_pot_in_one_form(
    own_demo: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(own_demo, "/pots/6", 390, 844)
    page.get_by_role("button", name="Log a pour").click()
    page.get_by_role("combobox", name="Pour", exact=True).select_option(
        label="Nitrate feed 13-3-15 with Ca and Mg, by its label"
    )
    page.get_by_role("textbox", name="Strength").fill("1/8")
    page.get_by_label("Volume, mL", exact=True).fill("300")
    page.get_by_role("button", name="Poured", exact=True).click()
    expect(page.get_by_role("status").filter(has_text="300 mL saved.")).to_be_visible()
    settled(page)
    newest = api(page, "/api/batches")[0]  # type: ignore[index]
    assert newest["name"].startswith("one eighth strength of Nitrate feed")
    assert newest["left_L"] == 0


def test_a_plant_goes_out_on_its_passport_and_comes_in_at_the_house(
    own_demo: str, fresh_address: str, open_page: Callable[..., Page], tmp_path: Path
) -> None:
    page = open_page(own_demo, "/pots/6")
    page.get_by_role("link", name="Passport").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Passport of P-06")
    with page.expect_download() as download:
        page.get_by_role("link", name="Export for another Fenwa").click()
    file = tmp_path / download.value.suggested_filename
    download.value.save_as(file)
    other = open_page(fresh_address, "/house")
    with other.expect_file_chooser() as chooser:
        other.get_by_text("Import plants", exact=True).click()
    chooser.value.set_files(file)
    other.get_by_role("button", name="Import the plants").click()
    expect(other.get_by_role("status").filter(has_text="1 pot came in: P-06")).to_be_visible()
    settled(other)
    pots = api(other, "/api/pots")["pots"]
    assert [(p["code"], p["place"]) for p in pots] == [("P-06", "New arrivals")]


def test_help_of_the_station_is_a_key_away(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/flush")
    settled(page)
    page.keyboard.press("?")
    page.get_by_role("link", name="How this station works").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Help: Flush")
    page.get_by_role("navigation", name="Help of the stations").get_by_role("link", name="Mix").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Help: Mix")


def test_another_readers_units_stand_on_the_round_and_in_its_sentences(
    own_demo: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(own_demo, "/shelf")
    page.get_by_role("button", name="Settings").click()
    for label, choice in (
        ("Conductivity in", "mS/cm"),
        ("Temperature in", "°F"),
        ("Volume in", "US gal"),
        ("Length in", "in"),
        ("Dates", "Nov 23, 2026"),
    ):
        page.get_by_label(label).select_option(label=choice)
    page.get_by_role("button", name="Save the settings").click()
    expect(page.get_by_role("status").filter(has_text="Settings saved.")).to_be_visible()
    page.goto(f"{own_demo}/")
    settled(page)
    round_ = page.locator("main").inner_text()
    assert "US gal" in round_
    assert "mS/cm" in round_
    for old in (" µS/cm", " L ", " °C"):
        assert old not in round_, old
    page.goto(f"{own_demo}/pots/6/passport")
    settled(page)
    sheet = page.locator("main").inner_text()
    assert "Sep 8" in sheet
    assert "8 Sep" not in sheet
