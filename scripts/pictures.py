"""Takes the pictures of docs/screenshots from the demonstration: one for each main view."""

import re
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page

from tests.browser.server import ROOT, chromium, context_of, running, settled, watched

View = tuple[str, str, int, int, str, Callable[[Page], None] | None]
SHOTS = ROOT / "docs" / "screenshots"


def with_pots(page: Page) -> None:
    """A can for three pots."""
    for code in ("M-04", "P-02", "B-11"):
        page.get_by_role("button", name=code, exact=True).click()
    page.wait_for_timeout(600)
    page.evaluate("window.scrollTo(0, 0)")


def with_answers(page: Page) -> None:
    """Three answers: four lines of plants, two waters, nothing to measure with."""
    for line in ("6 masdevallia", "2 nepenthes", "phrag", "2 paphs"):
        page.get_by_label("One line, as you would say it").fill(line)
        page.get_by_role("button", name=re.compile("^Add (the pot|[0-9]+ pots)$")).click()
    for water in ("Mains", "Rain"):
        page.get_by_role("button", name=water, exact=True).click()
    page.get_by_text("Rain alone serves all 11 pots.").wait_for()
    page.wait_for_timeout(600)
    page.evaluate("window.scrollTo(0, 0)")


def with_a_look(page: Page) -> None:
    """As last time, one new leaf with a brown tip."""
    page.get_by_role("button", name="Same as last time").click()
    page.get_by_role("button", name="New leaf").click()
    page.get_by_label("Newest leaf, mm").fill("112")
    page.get_by_role("button", name="Mark: Tip").click()
    page.evaluate("window.scrollTo(0, 0)")


def with_a_ppm(page: Page) -> None:
    """A tap on a pen whose scale nobody knows, for the strictest of the orchids."""
    page.get_by_label("The pen shows").fill("250")
    page.get_by_label("Unit", exact=True).select_option("ppm")
    page.get_by_label("Plant").select_option("masdevallia")
    page.get_by_text("1 part in 8", exact=False).first.wait_for()
    page.wait_for_timeout(600)
    page.evaluate("window.scrollTo(0, 0)")


def in_a_flush(page: Page) -> None:
    """A flush of the saltiest pot after three passes."""
    page.get_by_role("button", name="Start the flush").click()
    for n, ec in enumerate(("1540", "1310", "1230"), 1):
        page.get_by_label("The last that runs out, µS/cm").fill(ec)
        page.get_by_role("button", name=re.compile("^Poured [0-9]")).click()
        page.get_by_role("listitem", name=re.compile(f"Pass {n}: poured, runoff ")).wait_for(timeout=20_000)
    page.get_by_text("mL poured.").last.wait_for(state="hidden", timeout=30_000)
    page.evaluate("window.scrollTo(0, 0)")


FIRST: tuple[View, ...] = (("start", "/start", 1280, 1080, "light", with_answers),)  # of an empty collection
VIEWS: tuple[View, ...] = (
    ("round", "/", 1280, 800, "light", None),
    ("water", "/water", 1280, 800, "light", None),
    ("mix", "/mix", 1280, 1000, "light", with_pots),
    ("plan", "/plans/edit?scope=kind&key=ctenanthe", 1280, 1000, "light", None),
    ("pots", "/pots", 1280, 800, "light", None),
    ("pot", "/pots/6", 1280, 800, "light", None),
    ("flush", "/flush", 1280, 800, "light", None),
    ("leaf", "/leaf", 1280, 800, "light", None),
    ("phone-look", "/look/6", 390, 844, "light", with_a_look),
    ("sums", "/sums", 1280, 1080, "light", with_a_ppm),
    ("answer", "/answer/6?change=flush-2026-09-08", 1280, 860, "light", None),
    ("wrong", "/wrong/13", 1280, 1100, "light", None),
    ("season", "/seasons/21", 1280, 800, "light", None),
    ("shelf", "/shelf", 1280, 800, "light", None),
    ("phone-pour", "/pour", 390, 844, "light", None),
    ("phone-flush", "/flush", 390, 844, "light", in_a_flush),
    ("kind", "/kinds/phragmipedium", 1280, 800, "dark", None),
    ("days", "/days", 1280, 800, "light", None),
)


def main(*names: str) -> None:
    """Write every picture, or those that are named."""
    SHOTS.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, chromium() as browser:
        for command, views in (("demo", VIEWS), ("serve", FIRST)):
            with running(command, Path(folder) / f"{command}.sqlite") as address:
                for view in views:
                    if not names or view[0] in names:
                        _take(browser, address, view)


def _take(browser: Browser, address: str, view: View) -> None:
    name, path, width, height, scheme, act = view
    context = context_of(browser, width, height, scheme)
    page, wrong = watched(context, address)
    page.goto(address + path)
    settled(page)
    page.wait_for_timeout(300)
    if act:
        act(page)
    page.screenshot(path=SHOTS / f"{name}.png")
    assert not wrong, wrong
    context.close()


if __name__ == "__main__":
    main(*sys.argv[1:])
