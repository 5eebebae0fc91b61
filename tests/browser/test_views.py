"""Every view: accessible in light and dark, no sideways scrolling, keys, undo, refusals beside their fields."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, expect

from tests.browser.measured import (
    cut_off,
    findings,
    findings_in_forms,
    fits,
    in_the_dark,
    small_targets,
    with_spaced_text,
    with_text_as_it_was,
)
from tests.browser.server import ROOT, settled

pytestmark = pytest.mark.browser

VIEWS = [
    "/",
    "/water",
    "/water/sheet",
    "/mix",
    "/pots",
    "/pots?view=table",
    "/pots?view=shelves",
    "/pots/labels",
    "/pots/6",
    "/days",
    "/away",
    "/house",
    "/kinds",
    "/kinds/sarracenia",
    "/flush",
    "/leaf",
    "/look/6",
    "/look/desk",
    "/photos/8?pot=6",
    "/compare/6",
    "/rate",
    "/answer/6",
    "/changes",
    "/trials",
    "/trials/1",
    "/seasons/21",
    "/wrong/13",
    "/candidates",
    "/sums",
    "/shelf",
    "/help/water",
    "/pots/6/passport",
    "/season-report",
    "/pour",
]
# what opens a form on some view
FORMS = (
    "Enter a reading",
    "Log a look",
    "Add a pot",
    "Add a feed by its label",
    "Add a can or bottle",
    "Save as a recipe",
    "Blend it",
    "Add a product",
    "School and phase",
    "Weigh it",
    "When it wants water",
    "How dry is it?",
    "Seasons",
    "Warmth",
    "What changed",
    "Rule of the place",
    "Edit",
    "Log a pour",
    "Decide",
    "Phase",
    "Repot",
    "Archive",
    "Another plant in this pot",
    "Divide or cut",
    "File",
    "Rule of this kind",
    "Use my own figures",
)
FORMS_EACH_TIME = ("/water", "/pots/6")  # the others when every view is walked: ./fenwa walk
COLOURS = ("color-contrast", "link-in-text-block")  # what the dark may change
THUMB_px = 40


def nothing_scrolls_sideways(page: Page, view: str) -> None:
    """A phone, the desk at 200 %, which has half its pixels, and a wide screen; then the phone with spaced text."""
    for width, height in ((1920, 1080), (640, 400), (360, 740)):
        page.set_viewport_size({"width": width, "height": height})
        settled(page)
        assert fits(page), f"{view} at {width}"
        assert cut_off(page) == [], f"{view} at {width}"
    assert small_targets(page, THUMB_px) == [], view
    with_spaced_text(page)
    assert fits(page), f"{view} with spaced text"
    assert cut_off(page) == [], f"{view} with spaced text"
    with_text_as_it_was(page)


@pytest.mark.parametrize("view", VIEWS)
def test_every_view_fits_and_is_accessible(demo_address: str, open_page: Callable[..., Page], view: str) -> None:
    """As it opens on phones and at the desk, with its working open, in light and dark."""
    page = open_page(demo_address, view, 360, 740)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    nothing_scrolls_sideways(page, view)
    page.set_viewport_size({"width": 1280, "height": 800})
    settled(page)
    assert not page.evaluate("document.documentElement.classList.contains('dark')")
    assert findings(page) == []
    in_the_dark(page)
    assert findings(page, only=COLOURS) == []
    working = page.locator("main [data-working]").first
    if working.count() and view in ("/", "/water"):
        working.click()
        expect(page.get_by_role("dialog")).to_contain_text("Step by step")
        settled(page)
        assert findings(page) == []


@pytest.mark.parametrize(
    "view", [v if v in FORMS_EACH_TIME else pytest.param(v, marks=pytest.mark.walk) for v in VIEWS]
)
def test_the_forms_of_every_view_are_accessible(demo_address: str, open_page: Callable[..., Page], view: str) -> None:
    """Opened one after the other, in light; then all of them as they stand, in the dark."""
    page = open_page(demo_address, view)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    settled(page)
    opened = 0
    for opener in FORMS:
        button = page.get_by_role("button", name=opener, exact=True)
        if button.count():
            button.first.click()
            form = page.locator("main section:has(form), main section:has(input[type=file])").last
            expect(form).to_be_visible()
            assert findings_in_forms(page) == [], opener
            opened += 1
    if opened:
        in_the_dark(page)
        assert findings(page) == []
        page.set_viewport_size({"width": 390, "height": 844})
        settled(page)
        assert fits(page)
        assert small_targets(page, THUMB_px) == []


WATER_TOOLS = ["blend", "share", "membrane", "chlorine", "alkalinity", "boil", "meters", "reports", "inbox"]
TOOL = "section[aria-label^='Tool: ']"  # the rest of the view is walked with the views
MIX_TOOLS = ["fit", "compare", "stock", "mist", "names", "spoons", "schools"]
OPENERS = (
    "Enter a pair",
    "Check in a standard: Pen 1",
    "Which scale is it? Pen 1",
    "Add a meter",
    "Type a report",
    "Read reports from a file",
    "Read readings from a file",
    "Change this source",
    "Something done to it",
)


def walk_tools(page: Page, station: str, tools: list[str], openers: tuple[str, ...]) -> None:
    """Each tool with its forms open, in light and dark, narrow and wide."""
    for i, tool in enumerate(tools):
        page.emulate_media(color_scheme="light")
        page.goto(f"{station}?tool={tool}")
        expect(page.get_by_role("region", name=re.compile("^Tool: "))).to_be_visible()
        for name in openers:
            opener = page.get_by_role("button", name=name, exact=True)
            if opener.count() and (name in openers[:7] or tool == tools[0]):
                opener.click()
        settled(page)
        assert findings(page, TOOL) == [], tool
        if i % 2 == 0:  # colours come from shared parts: every second tool is walked in the dark as well
            in_the_dark(page)
            assert findings(page, TOOL, COLOURS) == [], tool
        for width in (360, 640) if i % 2 else (390, 768):
            page.set_viewport_size({"width": width, "height": 800})
            settled(page)
            assert fits(page), f"{tool} at {width}"
        page.set_viewport_size({"width": 1280, "height": 800})


def test_water_tools_are_accessible_and_fit(demo_address: str, open_page: Callable[..., Page]) -> None:
    walk_tools(open_page(demo_address, "/water"), f"{demo_address}/water", WATER_TOOLS, OPENERS)


def test_mix_tools_are_accessible_and_fit(demo_address: str, open_page: Callable[..., Page]) -> None:
    openers = ("Bottle labels", "Edit Thin and constant")
    walk_tools(open_page(demo_address, "/mix"), f"{demo_address}/mix", MIX_TOOLS, openers)


def test_bench_has_large_targets_and_figures(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/pour", 390, 844)
    poured = page.get_by_role("button", name="Poured")
    box = poured.bounding_box()
    assert box is not None
    assert box["height"] >= 56
    assert box["y"] > 844 / 2
    assert page.locator("output").first.evaluate("e => parseFloat(getComputedStyle(e).fontSize)") >= 44


def test_keys_of_the_desk(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    for key, path in (
        ("2", "/water"),
        ("3", "/mix"),
        ("4", "/pots"),
        ("5", "/flush"),
        ("6", "/leaf"),
        ("7", "/shelf"),
        ("1", "/"),
    ):
        page.keyboard.press(key)
        expect(page).to_have_url(re.compile(f"{path}$"))
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Help and keys")).to_contain_text("find a pot")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name="Help and keys")).to_have_count(0)
    page.keyboard.press("/")
    expect(page.get_by_role("searchbox", name="Find a pot")).to_be_focused()
    page.keyboard.type("big clump")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", level=1)).to_contain_text("P-06")
    page.keyboard.press("n")
    expect(page.get_by_role("form", name="Look at P-06")).to_be_visible()
    page.get_by_role("link", name="Close").focus()
    page.keyboard.press("Escape")
    expect(page.get_by_role("form", name="Look at P-06")).to_have_count(0)
    expect(page).to_have_url(re.compile("/pots/6$"))
    page.keyboard.press("w")
    expect(page.get_by_role("dialog")).to_contain_text("Goes in")


def test_one_cursor_runs_through_all_strata(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/pots/6")
    cursor = page.get_by_role("slider")
    cursor.focus()
    today = cursor.get_attribute("aria-valuetext") or ""
    assert today.startswith("23 Nov: active")
    page.keyboard.press("ArrowLeft")
    earlier = cursor.get_attribute("aria-valuetext") or ""
    assert earlier != today
    assert "reading about" in earlier
    page.keyboard.press("Home")
    first = int(cursor.get_attribute("aria-valuenow") or "-1")
    assert first == 0
    page.keyboard.press("End")
    expect(cursor).to_have_attribute("aria-valuetext", today)
    page.get_by_role("button", name="14 months").click()
    expect(page.get_by_role("region", name="Strata")).to_contain_text("flushed")


def test_working_can_be_opened_from_a_list(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/pots")
    page.get_by_role("button", name="Predicted reading of M-04").click()
    panel = page.get_by_role("dialog")
    expect(panel).to_contain_text("predicted reading")
    expect(panel).to_contain_text("Computed in pot.root_zone.root_zone")
    expect(panel).to_contain_text("Pour-through procedure")


def test_refusal_stands_beside_its_field_and_keeps_what_was_typed(
    fresh_address: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(fresh_address, "/water")
    page.get_by_role("button", name="Add the first source").click()
    page.get_by_role("button", name="Save the source").click()
    expect(page.get_by_text("Name is empty.")).to_be_visible()
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    page.get_by_label("Name", exact=True).fill("Tap")
    page.get_by_role("button", name="Save the source").click()
    value = page.get_by_label("The meter shows", exact=True)
    for typed, says in (
        ("-5", "cannot be"),
        ("many", "“many” is not a number"),
        ("1,413", "Write 1413 or 1.413"),
        ("", "Nothing is entered"),
    ):
        value.fill(typed)
        page.get_by_role("button", name="Save the reading").click()
        expect(page.get_by_text(says)).to_be_visible()
        expect(value).to_have_attribute("aria-invalid", "true")
        expect(value).to_have_value(typed)
    value.fill("60")
    page.get_by_label("Unit", exact=True).select_option("ppm")
    page.get_by_role("button", name="Save the reading").click()
    note = page.get_by_role("note")
    expect(note).to_contain_text("60 ppm, scale not known.")
    for possible in ("120 µS/cm on the 0.5 scale", "94 µS/cm on the 0.64 scale", "86 µS/cm on the 0.7 scale"):
        expect(note).to_contain_text(possible)


def test_a_pour_can_be_taken_back_and_corrected(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/")
    page.evaluate(
        """async () => {
          const key = () => crypto.randomUUID();
            const send = (path, body) => fetch(path, {method: "POST",
                headers: {"content-type": "application/json", "idempotency-key": key()}, body: JSON.stringify(body)})
          await send("/api/waters", {name: "Rain", kind: "rain"})
          await send("/api/waters/1/readings", {on: "2026-11-20", value: 34})
          await send("/api/pots", {code: "P-01", profile_id: "paphiopedilum",
                medium_id: "bark_mix", volume: 1, interval_days: 6})
        }"""
    )
    page.goto(fresh_address + "/pots/1")
    page.get_by_role("button", name="Log a pour").click()
    page.get_by_label("Volume, mL", exact=True).fill("250")
    page.get_by_role("button", name="Poured").click()
    log = page.locator("section").filter(has=page.get_by_role("heading", name="Last pours"))
    expect(log).to_contain_text("250 mL at 34 µS/cm")
    page.get_by_role("button", name="Undo").click()
    expect(log).to_contain_text("Nothing poured yet.")
    page.get_by_label("Volume, mL", exact=True).fill("260")
    page.get_by_role("button", name="Poured").click()
    expect(log).to_contain_text("260 mL")
    page.get_by_role("button", name=re.compile("^Correct the pour")).click()
    page.get_by_label("EC, µS/cm", exact=True).fill("90")
    page.get_by_role("button", name="Save the correction").click()
    expect(log).to_contain_text("260 mL at 90 µS/cm · corrected")


def test_units_follow_the_settings(fresh_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(fresh_address, "/shelf")
    page.get_by_label("Conductivity in").select_option("mS/cm")
    page.get_by_label("Theme").select_option("dark")
    page.get_by_role("button", name="Save the settings").click()
    expect(page.get_by_role("status").filter(has_text="Settings saved.")).to_be_visible()
    expect(page.locator("html")).to_have_class(re.compile("dark"))
    page.evaluate(
        """async () => {
          const key = () => crypto.randomUUID();
            const send = (path, body) => fetch(path, {method: "POST",
                headers: {"content-type": "application/json", "idempotency-key": key()}, body: JSON.stringify(body)})
          await send("/api/waters", {name: "Rain", kind: "rain"})
          await send("/api/waters/1/readings", {on: "2026-11-20", value: 434})
        }"""
    )
    page.goto(fresh_address + "/water")
    expect(page.get_by_role("button", name="EC of Rain: 0.434 mS/cm")).to_be_visible()


def test_fonts_and_scripts_ship_with_the_application(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address)
    settled(page)
    assert page.evaluate("document.fonts.check('16px \\'Hanken Grotesk Variable\\'')")
    html = (ROOT / "web" / "dist" / "index.html").read_text()
    assert "http" not in html.replace("http-equiv", "")
