"""For those who listen, who choose the colours of everything themselves, and for a printer without colours."""

import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from fenwa.bench_phone import first_picture_s, slowest_press_ms
from tests.browser.measured import findings
from tests.browser.server import settled, watched

pytestmark = pytest.mark.browser

# roles that tell nothing without a name
NAMELESS = re.compile(
    r"- '?(button|link|textbox|combobox|checkbox|radio|slider|searchbox|spinbutton|img|form|tab)(?! \")(?=[:\s]|$)"
)
SHEETS = ("/water/sheet", "/round/sheet", "/pots/labels", "/pots/6/passport", "/season-report", "/away", "/flush", "/")


def heard(page: Page) -> str:
    """What a screen reader finds on the page, in its order."""
    settled(page)
    return page.locator("body").aria_snapshot()


def nameless(tree: str) -> list[str]:
    """Lines of the tree that name a role and nothing else, each with the line before it."""
    lines = tree.splitlines()
    return [f"{lines[i - 1].strip()} / {line.strip()}" for i, line in enumerate(lines) if NAMELESS.match(line.strip())]


@pytest.mark.parametrize(
    ("view", "said"),
    [
        (
            "/",
            [
                r'heading "Monday, \d+ pots in \d+ cans" \[level=1\]',
                r'region "Can A"',
                r"Can A · 0\.6 L Rain cistern, nothing added",
                r'link "N-04 Nepenthes"',
                r"paragraph: 150 mL",
                r'button "EC of can C: 139 µS/cm\. Show working"',
            ],
        ),
        (
            "/look/6",
            [
                r'heading "P-06 Phragmipedium, the big clump" \[level=1\]',
                r'form "Look at P-06"',
                r'button "Same as last time"',
                r'slider "Length of the newest leaf"',
                r'textbox "Newest leaf, mm"',
                r'group "Where is a mark\?"',
                r'button "Mark: Tip"',
            ],
        ),
        (
            "/flush",
            [
                r'heading "Salt, nearest to its ceiling first" \[level=1\]',
                r'img "A-05: predicted reading [^"]*, comfortable 500 to 1.?100, ceiling 1.?500 µS/cm"',
                r'button "Predicted reading of A-05: [^"]* µS/cm\. Show working"',
                r"Over its ceiling of 1.?500, flushed 11 Aug",
            ],
        ),
        (
            "/water",
            [
                r'heading "Rain cistern" \[level=2\]',
                r'button "EC of Rain cistern: 34 µS/cm\. Show working"',
                r'button "Rain cistern 34 · within for all 14',
                r'button "Borehole 754 · over for all 14',
            ],
        ),
    ],
)
def test_round_look_flush_and_verdict_can_be_heard(
    demo_address: str, open_page: Callable[..., Page], view: str, said: list[str]
) -> None:
    """Every control says what it is, and the figures are said in the order in which they are read."""
    page = open_page(demo_address, view, 390, 844)
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    tree = heard(page)
    at = 0
    for words in said:
        found = re.compile(words).search(tree, at)
        assert found, f"{words} is not said after {tree[max(0, at - 200) : at]}"
        at = found.start()
    assert nameless(tree) == []
    assert tree.count("[level=1]") == 1


def test_what_was_done_is_said(own_demo: str, open_page: Callable[..., Page]) -> None:
    """A pour at the bench is told by a live region, and the next pot by its heading."""
    page = open_page(own_demo, "/pour", 390, 844)
    first = page.get_by_role("heading", level=1).inner_text()
    assert nameless(heard(page)) == []
    page.get_by_role("button", name="Poured", exact=True).click()
    expect(page.get_by_role("heading", level=1)).not_to_have_text(first)
    code = first.split()[0]
    expect(page.get_by_role("status").filter(has_text=code)).to_have_count(1)


@pytest.fixture(params=["light", "dark"])
def in_own_colours(browser: Browser, demo_address: str, request: pytest.FixtureRequest) -> Iterator[Page]:
    """A page whose colours the reader's system chooses."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800},
        forced_colors="active",
        color_scheme=request.param,
        reduced_motion="reduce",
        service_workers="block",
    )
    page, wrong = watched(context, demo_address)
    yield page
    context.close()
    assert wrong == []


COLOUR = "e => [getComputedStyle(e).backgroundColor, getComputedStyle(e).color].join()"


def test_what_is_chosen_and_drawn_is_seen_in_forced_colours(in_own_colours: Page, demo_address: str) -> None:
    page = in_own_colours
    page.goto(f"{demo_address}/pots/6")
    settled(page)
    chosen = page.get_by_role("button", name="6 months")
    other = page.get_by_role("button", name="3 months")
    expect(chosen).to_have_attribute("aria-pressed", "true")
    assert chosen.evaluate(COLOUR) != other.evaluate(COLOUR)
    written = page.locator("main svg text").first
    ground, words = (
        page.evaluate("getComputedStyle(document.body).backgroundColor"),
        written.evaluate("e => getComputedStyle(e).fill"),
    )
    assert words != ground
    assert words == page.evaluate("getComputedStyle(document.body).color"), "drawings take the reader's own colour"


def test_sheets_are_read_without_colours(demo_address: str, open_page: Callable[..., Page]) -> None:
    """In print every word stands out by its lightness: contrast is a matter of lightness alone."""
    page = open_page(demo_address, SHEETS[0])
    for sheet in SHEETS:
        page.goto(demo_address + sheet)
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.emulate_media(media="print", color_scheme="light")
        settled(page)
        assert page.evaluate("getComputedStyle(document.body).backgroundColor") == "rgb(255, 255, 255)", sheet
        assert findings(page, "main", ("color-contrast", "link-in-text-block")) == [], sheet
        page.emulate_media(media="screen", color_scheme="light")


def test_the_bench_holds_a_phone_back_as_it_says(browser: Browser, demo_address: str) -> None:
    """A slower processor takes longer over the same page, and a press is timed by the browser itself."""
    quick, slow = (first_picture_s(browser, demo_address, slower) for slower in (1, 6))
    assert 0.2 < quick < slow
    assert slowest_press_ms(browser, demo_address, 6) >= 16
