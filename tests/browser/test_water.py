"""The Water station in a real browser: readings, scale guess, reports, blend, membrane, the pen, acids, the sheet."""

import re
import time
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import running

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def orangery(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """A demonstration of its own: these tests write."""
    with running("demo", tmp_path_factory.mktemp("orangery") / "demo.sqlite") as address:
        yield address


def tool(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Water tools").get_by_role("button", name=name, exact=True).click()
    expect(page.get_by_role("region", name=f"Tool: {name}")).to_be_visible()


def choose(page: Page, water: str) -> None:
    page.get_by_role("button", name=re.compile(f"^{water}.*per litre")).click()
    expect(page.get_by_role("heading", name=water, exact=True)).to_be_visible()


def test_a_reading_at_the_bench_takes_less_than_ten_seconds(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water", 390, 844)
    expect(page.get_by_role("button", name="Enter a reading")).to_be_visible()
    began = time.monotonic()
    page.get_by_role("button", name="Enter a reading").tap() if page.context.browser is None else page.get_by_role(
        "button", name="Enter a reading"
    ).click()
    value = page.get_by_label("The meter shows", exact=True)
    expect(page.get_by_label("Meter", exact=True).locator("option:checked")).to_have_text("Pen 1")
    value.press_sequentially("33", delay=150)
    value.press("Enter")
    expect(page.get_by_role("status")).to_contain_text("Saved: 33 µS/cm at 25 °C.")  # corrected by the pen's checks
    assert time.monotonic() - began < 10
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("status").filter(has_text="Saved")).to_have_count(0)


def test_a_strip_without_a_pen(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water", 390, 844)
    page.get_by_role("button", name="Enter a reading").click()
    page.locator("summary", has_text="Tested as well").click()
    page.get_by_label("Hardness", exact=True).fill("3-6")
    page.get_by_label("Unit of hardness").select_option("°dH")
    page.get_by_role("button", name="Save the reading").click()
    expect(page.get_by_role("status").filter(has_text="Saved.")).to_be_visible()
    expect(page.get_by_text(re.compile("hardness 53.6 to 107 mg/L CaCO3"))).to_be_visible()


def test_which_scale_is_my_pen(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water?tool=meters")
    expect(page.get_by_text("Its ppm scale is not known: find it first.")).to_be_visible()
    page.get_by_role("button", name="Which scale is it? The gift, ppm").click()
    guess = page.get_by_role("region", name="Which scale is The gift, ppm?")
    guess.get_by_label("The gift, ppm shows").fill("946")
    expect(guess.get_by_text(re.compile("It could be 0.(64 or 0.7|7 or 0.64)"))).to_be_visible()
    expect(guess.get_by_role("button", name=re.compile("Set it"))).to_have_count(0)
    guess.get_by_label("The gift, ppm shows").fill("985")
    expect(guess.get_by_text("The 0.7 scale: sure", exact=False)).to_be_visible()
    guess.get_by_role("button", name="Set it to the 0.7 scale").click()
    expect(page.get_by_text("ppm (0.7 scale)", exact=False)).to_be_visible()
    expect(page.get_by_text("find it first")).to_have_count(0)
    # and now it can be checked
    page.get_by_role("button", name="Check in a standard: The gift, ppm").click()
    page.get_by_label("The meter shows, ppm").fill("985")
    page.get_by_role("button", name="Save the check").click()
    expect(page.get_by_role("status").filter(has_text="True within 3 %.")).to_be_visible()


GOOD = (
    "water,date,laboratory,Ca (mg/L),Na (mg/L),alkalinity (mmol/L)\n"
    "Borehole,2026-11-01,Ansa,110,25,5.2\nTown water,2026-11-02,Ansa,60,{bad},2.5\n"
)


def test_a_report_with_one_bad_cell_stores_nothing(
    orangery: str, open_page: Callable[..., Page], tmp_path: Path
) -> None:
    page = open_page(orangery, "/water?tool=reports")
    reports = page.get_by_role("button", name=re.compile("Delete the report"))
    expect(reports).to_have_count(2)
    page.get_by_role("button", name="Read reports from a file").click()
    bad = tmp_path / "reports.csv"
    bad.write_text(GOOD.format(bad="ca. 17"), "utf-8")
    page.get_by_label("CSV file of reports").set_input_files(bad)
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_role("alert")).to_contain_text("Row 3, column “Na (mg/L)”: Sodium “ca. 17” is not a number.")
    expect(page.get_by_role("alert")).to_contain_text("Nothing was stored.")
    expect(reports).to_have_count(2)
    page.get_by_label("Or paste it here").fill(GOOD.format(bad="<20"))
    page.get_by_role("button", name="Take it in").click()
    expect(page.get_by_role("status").filter(has_text="2 reports saved.")).to_be_visible()
    expect(reports).to_have_count(4)
    expect(page.get_by_text("Not in it").first).to_be_visible()
    expect(page.get_by_text(re.compile("Mg, Cl, SO4, NO3")).first).to_be_visible()


def test_a_blend_follows_what_is_typed(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water")
    tool(page, "Blend")
    panel = page.get_by_role("region", name="Tool: Blend")
    panel.get_by_label("Volume, L").fill("2")
    expect(panel.get_by_text("a straight line would say", exact=False)).to_be_visible()
    panel.get_by_label("Target").fill("5000")
    expect(panel.get_by_role("alert")).to_contain_text("cannot be blended: these waters reach")
    panel.get_by_label("Target").fill("60")
    expect(panel.get_by_role("alert")).to_have_count(0)
    panel.get_by_role("button", name=re.compile("EC of the blend: 60")).click()
    expect(page.get_by_role("dialog")).to_contain_text("Ions and alkalinity mix exactly")
    page.get_by_role("button", name="Close").click()
    panel.get_by_label("Volume, L").fill("50")
    expect(panel.get_by_role("alert")).to_contain_text("with the litres on hand")
    panel.get_by_label("Keep to the litres on hand").uncheck()
    expect(panel.get_by_role("alert")).to_have_count(0)


def test_the_membrane_raises_its_alarm(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water")
    tool(page, "Membrane")
    panel = page.get_by_role("region", name="Tool: Membrane")
    expect(panel.get_by_text("expected below 92 % about", exact=False)).to_be_visible()
    expect(panel.get_by_role("alert")).to_have_count(0)
    panel.get_by_role("button", name="Enter a pair").click()
    panel.get_by_label("Feed, µS/cm").fill("404")
    panel.get_by_label("Permeate, µS/cm").fill("61")
    panel.get_by_role("button", name="Save the pair").click()
    expect(panel.get_by_role("alert")).to_contain_text("below your floor of 92 %: replace or inspect the membrane.")


def test_the_pen_unplugged_while_it_settles(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water")
    choose(page, "Borehole")
    page.get_by_role("button", name="Enter a reading").click()
    pen = page.get_by_role("group", name="Pen")
    expect(pen.get_by_role("button", name="Read the pen")).to_be_visible()
    if pen.get_by_role("button", name="Plug it in").is_visible():  # left so by a run of this test that ended halfway
        pen.get_by_role("button", name="Plug it in").click()
    pen.get_by_role("button", name="Read the pen").click()
    expect(pen.get_by_text(re.compile("^Now "))).to_be_visible()
    pen.get_by_role("button", name="Unplug the simulated pen").click()
    expect(pen.get_by_role("alert")).to_contain_text("The pen was unplugged. Nothing was kept.")
    expect(page.get_by_label("The meter shows", exact=True)).to_have_value("")
    pen.get_by_role("button", name="Plug it in").click()
    pen.get_by_role("button", name="Read the pen").click()
    expect(page.get_by_label("The meter shows", exact=True)).not_to_have_value("", timeout=20_000)
    expect(page.get_by_label("Meter", exact=True).locator("option:checked")).to_have_text("Simulated pen")
    shown = float(page.get_by_label("The meter shows", exact=True).input_value())
    page.get_by_role("button", name="Save the reading").click()
    kept = page.get_by_role("status").filter(has_text="Saved:")
    expect(kept).to_be_visible()
    corrected = float(re.sub(r"\D", "", (kept.text_content() or "").split("µS")[0]))
    assert corrected > shown * 1.02  # its own error is taken out, what it showed is kept
    expect(page.get_by_text(re.compile("pen: "))).to_be_visible()


def test_acids_open_after_their_lines_were_read(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water")
    choose(page, "Borehole")
    tool(page, "Alkalinity")
    expect(page.get_by_text("Blend first.")).to_be_visible()
    expect(page.get_by_label("Acid", exact=True)).to_have_count(0)
    page.get_by_role("button", name="I have read this").click()
    expect(page.get_by_text("first, stir, measure the alkalinity", exact=False)).to_be_visible()
    expect(page.get_by_text("Add acid to water, never water to acid.")).to_be_visible()
    page.get_by_label("Acid", exact=True).select_option("nitric")
    expect(page.get_by_text("Strength of the nitric acid is missing.", exact=False)).to_be_visible()
    page.get_by_label("Strength on the bottle, % by weight").fill("38")
    expect(page.get_by_text("It brings N")).to_be_visible()


def test_the_inbox_the_share_and_the_sheet(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water?tool=inbox")
    keep = page.get_by_role("button", name="Save as a reading")
    expect(keep).to_have_count(2)
    keep.first.click()
    expect(page.get_by_role("status").filter(has_text="Saved: 35 µS/cm")).to_be_visible()
    expect(keep).to_have_count(1)
    tool(page, "Share out")
    expect(page.get_by_role("region", name="Who gets which water")).to_contain_text("Heliamphora")
    page.get_by_role("link", name="Print my waters").click()
    expect(page.get_by_role("heading", name="My waters", level=1)).to_be_visible()
    expect(page.get_by_role("cell", name=re.compile("Rain cistern")).first).to_be_visible()
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    expect(page.get_by_role("navigation", name="Stations").first).to_be_hidden()
    assert len(re.findall(rb"/Type\s*/Page\b", page.pdf(format="A4"))) == 1


def test_a_source_is_changed_and_treated(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/water")
    choose(page, "House tap")
    page.get_by_role("button", name="Change this source").click()
    page.get_by_label("Kind", exact=True).select_option("naturally soft")
    expect(page.get_by_text("“Soft” is two things", exact=False)).to_be_visible()
    page.get_by_label("Kind", exact=True).select_option("softened by salt")
    page.get_by_label("Capacity, L").fill("10")
    page.get_by_label("Litres on hand").fill("20")
    page.get_by_role("button", name="Save the source").click()
    expect(page.get_by_text("That is more than its capacity.", exact=False)).to_be_visible()
    page.get_by_label("Litres on hand").fill("8")
    page.get_by_role("button", name="Save the source").click()
    expect(page.get_by_text("8 L on hand of 10", exact=False)).to_be_visible()
    page.get_by_role("button", name="Something done to it").click()
    page.get_by_label("Step", exact=True).select_option("carbon")
    page.get_by_label("EC before, µS/cm").fill("601")
    page.get_by_label("EC after, µS/cm").fill("590")
    page.get_by_role("button", name="Save the step").click()
    expect(page.get_by_text("no more than the meter can err", exact=False)).to_be_visible()
