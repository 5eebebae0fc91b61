"""The Mix station in a real browser: a mist bottle, four names of a strength, a fit, a clot, a slipped decimal, a
spoon, the bench.
"""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Page, expect

from tests.browser.server import running

pytestmark = pytest.mark.browser
NITRATE, CANIT, KNO3 = "Nitrate feed 13-3-15 with Ca and Mg", "Calcium nitrate, tetrahydrate", "Potassium nitrate"


@pytest.fixture(scope="module")
def orangery(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """A demonstration of its own: these tests write."""
    with running("demo", tmp_path_factory.mktemp("orangery") / "demo.sqlite") as address:
        yield address


def tool(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Mix tools").get_by_role("button", name=name, exact=True).click()
    expect(page.get_by_role("region", name=f"Tool: {name}")).to_be_visible()


def scale(page: Page, address: str, step: str) -> None:
    """The scale of the settings, set as a grower would."""
    page.goto(address + "/shelf")
    page.get_by_label("Scale step, g", exact=True).fill(step)
    page.get_by_role("button", name="Save the settings").click()
    expect(page.get_by_role("status").filter(has_text="Settings saved.")).to_be_visible()


def test_a_mist_bottle_goes_through_a_stock_at_a_tenth_of_a_gram(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/shelf")
    scale(page, orangery, "0.1")
    page.goto(orangery + "/mix")
    page.get_by_role("button", name="Mist bottle", exact=True).first.click()
    expect(page.get_by_label("Volume", exact=True)).to_have_value("0.5")
    page.get_by_label("Nitrogen", exact=True).fill("15")
    expect(page.get_by_text("Too little for it to be sure of", exact=False)).to_be_visible()
    expect(page.get_by_text("Go through a stock", exact=True)).to_be_visible()
    expect(page.get_by_text(re.compile(r"Weigh [\d.]+ g into \d+ mL of Rain cistern"))).to_be_visible()
    steps = page.get_by_role("list", name="Steps")
    expect(steps.get_by_role("listitem").nth(1)).to_contain_text(re.compile(r"Draw [\d.]+ mL stock of Nitrate feed"))
    tool(page, "Mist bottle")
    page.get_by_label("Stock, g/L").fill("20")
    page.get_by_label("Wanted in the bottle, mg/L product").fill("115")
    answer = page.get_by_role("region", name="Tool: Mist bottle")
    expect(answer.get_by_role("listitem")).to_have_count(2)
    expect(answer.get_by_role("button", name=re.compile("Strength in the bottle: 115"))).to_be_visible()
    scale(page, orangery, "1")


def test_one_strength_under_four_names(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix")
    expect(page.get_by_label("EC added", exact=True)).to_have_value(re.compile(r"\d"))
    page.get_by_label("Of the label", exact=True).fill("reduce by three quarters")
    expect(
        page.get_by_text(
            "“Reduce by three quarters” keeps one quarter. Keeping three quarters would be 3 times as strong."
        )
    ).to_be_visible()
    expect(page.get_by_label("Nitrogen", exact=True)).to_have_value("33")
    added = int(page.get_by_label("EC added", exact=True).input_value())
    assert int(page.get_by_label("EC in the can", exact=True).input_value()) == pytest.approx(34 + added, abs=1)
    page.get_by_label("Of the label", exact=True).fill("a pinch")
    expect(page.get_by_role("alert").filter(has_text="is not understood")).to_be_visible()
    page.get_by_label("EC in the can", exact=True).fill("300")
    expect(page.get_by_label("Nitrogen", exact=True)).not_to_have_value("33")
    page.get_by_label("Drag the nitrogen").fill("20")
    expect(page.get_by_label("Nitrogen", exact=True)).to_have_value("20")
    tool(page, "Names of a strength")
    page.get_by_label("What was said", exact=True).fill("1/4")
    region = page.get_by_role("region", name="Tool: Names of a strength")
    expect(region).to_contain_text("Keeps one quarter of the label rate; the same as “reduce by three quarters”.")
    expect(region).to_contain_text("for an imperial one: say which.")


def test_dragging_keeps_the_page_alive(orangery: str, open_page: Callable[..., Page]) -> None:
    """While the slider moves, the browser never stands still for long and the last value wins."""
    page = open_page(orangery, "/mix")
    slider = page.get_by_label("Drag the nitrogen")
    expect(slider).to_be_visible()
    page.evaluate(
        """() => { window.gaps = []; let last = performance.now()
          const tick = () => { const now = performance.now(); window.gaps.push(now - last); last = now;
            requestAnimationFrame(tick) }
          requestAnimationFrame(tick) }"""
    )
    asked = []
    page.on("request", lambda r: asked.append(r.url) if r.url.endswith("/api/mix/preview") else None)
    box = slider.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 30, box["y"] + box["height"] / 2)
    page.mouse.down()
    for i in range(80):
        page.mouse.move(box["x"] + 30 + 2 * i, box["y"] + box["height"] / 2)
        page.wait_for_timeout(8)
    page.mouse.up()
    wanted = slider.input_value()
    expect(page.get_by_label("Nitrogen", exact=True)).to_have_value(wanted)
    expect(page.get_by_text(re.compile(r"^Room to the ceiling|Nitrate N")).first).to_be_visible()
    assert len(asked) < 40  # throttled: not one question for each pixel
    assert sorted(page.evaluate("window.gaps"))[-2] < 400


def test_two_products_are_fitted_and_taken_to_the_can(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix?tool=fit")
    region = page.get_by_role("region", name="Tool: Recipe fit")
    expect(region.get_by_label(CANIT, exact=True)).to_be_checked()
    expect(region.get_by_label(KNO3, exact=True)).to_be_checked()
    region.get_by_label("Volume, L", exact=True).fill("100")
    expect(region).to_contain_text("All targets are met.")
    expect(region.get_by_role("row", name=re.compile("^Ca 40"))).to_contain_text(re.compile("0 %|−?[01][.\\d]* %"))
    region.get_by_label("K wanted, mg/L", exact=True).fill("200")
    expect(region).to_contain_text("gives")
    region.get_by_label("K wanted, mg/L", exact=True).fill("")
    expect(region).to_contain_text("All targets are met.")
    region.get_by_role("button", name="Take it to the can").click()
    expect(page.get_by_label("Feed", exact=True).locator("option:checked")).to_have_text(CANIT)
    expect(page.get_by_label("And 1", exact=True).locator("option:checked")).to_have_text(KNO3)
    steps = page.get_by_role("list", name="Steps").get_by_role("listitem")
    expect(steps.nth(1)).to_contain_text(KNO3)
    expect(steps.nth(2)).to_contain_text("Calcium last")


def test_a_mix_that_would_clot_is_refused_with_the_way_out(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix?tool=stock")
    region = page.get_by_role("region", name="Tool: Stock and injector")
    expect(region.get_by_role("status")).to_contain_text(
        re.compile(r"Two bottles: A with Calcium nitrate.*clot above 8\.3 times")
    )
    region.get_by_role("button", name="Made: save the labels").click()
    label = page.get_by_role("article", name=re.compile("bottle A"))
    expect(label).to_contain_text("Keep from children, pets and food")
    expect(label).to_contain_text("use by")
    region.get_by_label("Product 1", exact=True).select_option(label=NITRATE)
    for other in ("Product 2", "Product 3"):
        region.get_by_label(other, exact=True).select_option(label="nothing")
    region.get_by_label("Draw, mL in a litre", exact=True).fill("5")
    expect(region.get_by_role("alert")).to_contain_text("at 160 g/L would not all dissolve at 10 °C: at most 142 g/L")
    region.get_by_label("In the can, g/L", exact=True).first.fill("0.5")
    expect(region.get_by_role("alert")).to_contain_text(
        "would clot at 200 times the can, even in two bottles. Make a weaker stock"
    )
    region.get_by_label("Draw, mL in a litre", exact=True).fill("20")
    expect(region.get_by_role("alert")).to_contain_text("would clot at 50 times the can")
    region.get_by_label("Draw, mL in a litre", exact=True).fill("50")
    expect(region.get_by_role("status")).to_have_text("Stays clear in one bottle and in the can.")
    expect(region.get_by_role("alert")).to_have_count(0)
    region.get_by_label("Drawn by", exact=True).select_option("ratio")
    region.get_by_label("Ratio, n", exact=True).fill("20")
    region.get_by_label("It means", exact=True).select_option("1 plus n")
    expect(region).to_contain_text("1 in 21 ")


def test_a_can_ten_times_too_strong_is_named_and_rescued(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix")
    page.get_by_role("button", name="M-04", exact=True).click()
    page.get_by_label("Volume", exact=True).fill("2")
    page.get_by_label("Nitrogen", exact=True).fill("30")
    page.get_by_role("button", name="Made it, read the pen").click()
    page.get_by_label("Measured EC", exact=True).fill("2700")
    page.get_by_role("button", name="Judge it").click()
    expect(
        page.get_by_role("status").filter(has_text="About ten times what it should be: a slipped decimal? Do not pour.")
    ).to_be_visible()
    expect(page.get_by_text(re.compile(r"^Add [\d.]+ L of the same water\. It then holds"))).to_be_visible()
    page.get_by_label("The can holds, L", exact=True).fill("5")
    expect(page.get_by_text(re.compile(r"^Too strong for the vessel: pour away"))).to_be_visible()
    page.get_by_label("Measured EC", exact=True).fill("310")
    page.get_by_role("button", name="Judge again").click()
    expect(page.get_by_text("Reads as it should. Pour.")).to_be_visible()
    page.get_by_role("button", name="Another can").click()
    page.locator("summary", has_text="The last cans").click()
    row = page.get_by_role("row").filter(has_text="today").first
    expect(row).to_contain_text("fine")
    expect(row).to_contain_text("of 2 L")


def test_a_spoon_is_weighed_and_used(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix?tool=spoons")
    region = page.get_by_role("region", name="Tool: Spoons and drops")
    region.get_by_label("Name of the measure", exact=True).fill("tin scoop")
    region.get_by_label("Level ones in each weighing", exact=True).fill("10")
    for i, grams in enumerate(("23", "24", "23")):
        region.get_by_label(f"Weighing {i + 1}, g", exact=True).fill(grams)
    expect(region.get_by_text(re.compile("A level spoon is 2.33"))).to_be_visible()
    region.get_by_role("button", name="Save the measure").click()
    expect(page.get_by_role("status").filter(has_text="tin scoop is saved.")).to_be_visible()
    page.get_by_label("Volume", exact=True).fill("15")
    expect(page.get_by_text(re.compile(r"or 2 × tin scoop, level \(4\.67 g"))).to_be_visible()


def test_the_weighing_list_on_the_phone(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/mix", 390, 844)
    page.get_by_role("button", name="To the bench: the weighing list").click()
    listed = page.get_by_role("list", name="Weighing list")
    ticks = listed.get_by_role("checkbox")
    expect(ticks).to_have_count(4)
    for i in range(4):
        row = listed.get_by_role("listitem").nth(i).locator("label")
        box = row.bounding_box()
        assert box is not None
        assert box["height"] >= 56
        row.click()
        expect(ticks.nth(i)).to_be_checked()
    assert listed.locator("b").first.evaluate("e => parseFloat(getComputedStyle(e).fontSize)") >= 44
    expect(page.get_by_text("4 of 4 done", exact=False)).to_be_visible()
    made = page.get_by_role("button", name="Made it, read the pen")
    button = made.bounding_box()
    assert button is not None
    assert button["height"] >= 56
    made.click()
    expect(page.get_by_role("heading", name="Read the pen")).to_be_visible()


def test_a_label_a_recipe_and_a_school(orangery: str, open_page: Callable[..., Page]) -> None:
    page = open_page(orangery, "/shelf")
    page.get_by_role("button", name="Add a feed by its label").click()
    page.get_by_label("Name", exact=True).fill("Old tin")
    page.get_by_label("Grade, if there is one", exact=True).fill("161616")
    page.get_by_role("button", name="Read the grade").click()
    page.get_by_role("button", name="Yes, that is it").click()
    page.get_by_role("button", name="Save the feed").click()
    expect(page.get_by_text("P2O5 and K2O, or P and K: more than twofold apart", exact=False).first).to_be_visible()
    page.get_by_label("P and K are given as", exact=True).select_option(label="P2O5 and K2O")
    expect(page.get_by_text(re.compile("A gram holds N 160, P 69.8, K 133 mg"))).to_be_visible()
    page.get_by_label("Potassium, %", exact=True).fill("80")
    page.get_by_role("button", name="Save the feed").click()
    expect(page.get_by_text(re.compile("parts add up to 112 %, more than 100"))).to_be_visible()
    page.get_by_label("Potassium, %", exact=True).fill("16")
    page.get_by_role("button", name="Save the feed").click()
    expect(page.get_by_role("status").filter(has_text="Old tin stands on the shelf.")).to_be_visible()

    page.goto(orangery + "/mix")
    page.get_by_label("Recipe", exact=True).select_option(label="Mist for butterworts, version 2")
    expect(page.get_by_label("Route", exact=True)).to_have_value("leaf")
    expect(page.get_by_text("About 3 mL a plant, before lights-out.", exact=False)).to_be_visible()
    page.get_by_label("Nitrogen", exact=True).fill("10")
    page.get_by_role("button", name="Save as a recipe").click()
    page.get_by_label("Name of the recipe", exact=True).fill("Mist for butterworts")
    page.get_by_role("button", name="Save the recipe").click()
    expect(page.get_by_role("status").filter(has_text="Old cans keep the version they used.")).to_be_visible()
    expect(page.get_by_label("Recipe", exact=True).locator("option:checked")).to_have_text(
        "Mist for butterworts, version 3"
    )
    page.get_by_label("School", exact=True).select_option(label="Thin and constant")
    expect(page.get_by_label("Nitrogen", exact=True)).to_have_value("50")
    expect(page.get_by_label("Route", exact=True)).to_have_value("root")
