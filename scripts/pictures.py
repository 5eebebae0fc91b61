"""Takes the pictures of docs/screenshots from the demonstration: one for each main view."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page

from tests.browser.server import ROOT, chromium, context_of, running, settled, watched

SHOTS = ROOT / "docs" / "screenshots"


def with_pots(page: Page) -> None:
    """A can for three pots."""
    for code in ("M-04", "P-02", "B-11"):
        page.get_by_role("button", name=code, exact=True).click()
    page.wait_for_timeout(600)
    page.evaluate("window.scrollTo(0, 0)")


def with_working(page: Page) -> None:
    """The working of the predicted reading."""
    page.get_by_role("button", name="Predicted reading", exact=False).first.click()
    page.wait_for_timeout(600)


def with_a_look(page: Page) -> None:
    """As last time, one new leaf with a brown tip."""
    page.get_by_role("button", name="Same as last time").click()
    page.get_by_role("button", name="New leaf").click()
    page.get_by_label("Newest leaf, mm").fill("112")
    page.get_by_role("button", name="Mark: Tip").click()
    page.evaluate("window.scrollTo(0, 0)")


def in_a_flush(page: Page) -> None:
    """A flush of the saltiest pot after three passes."""
    page.get_by_role("button", name="Start the flush").click()
    for n, ec in enumerate(("1540", "1310", "1230"), 1):
        page.get_by_label("The last that runs out, µS/cm").fill(ec)
        page.get_by_role("button", name=re.compile("^Poured [0-9]")).click()
        page.get_by_role("listitem", name=f"Pass {n}: poured, runoff {ec}").wait_for(timeout=20_000)
    page.get_by_text("mL poured.").last.wait_for(state="hidden", timeout=30_000)
    page.evaluate("window.scrollTo(0, 0)")


VIEWS = (
    ("round", "/", 1280, 800, "light", None),
    ("water", "/water", 1280, 800, "light", None),
    ("mix", "/mix", 1280, 1000, "light", with_pots),
    ("plan", "/plans/edit?scope=kind&key=ctenanthe", 1280, 1000, "light", None),
    ("pots", "/pots", 1280, 800, "light", None),
    ("pot", "/pots/6", 1280, 800, "light", None),
    ("working", "/pots/6", 1280, 800, "light", with_working),
    ("flush", "/flush", 1280, 800, "light", None),
    ("leaf", "/leaf", 1280, 800, "light", None),
    ("phone-look", "/look/6", 390, 844, "light", with_a_look),
    ("compare", "/compare/6", 1280, 860, "light", None),
    ("answer", "/answer/6?change=flush-2026-09-08", 1280, 860, "light", None),
    ("wrong", "/wrong/13", 1280, 1100, "light", None),
    ("season", "/seasons/21", 1280, 800, "light", None),
    ("shelf", "/shelf", 1280, 800, "light", None),
    ("phone-pour", "/pour", 390, 844, "light", None),
    ("phone-flush", "/flush", 390, 844, "light", in_a_flush),
    ("kind", "/kinds/phragmipedium", 1280, 800, "dark", None),
    ("days", "/days", 1280, 800, "light", None),
)


def main() -> None:
    """Write every picture."""
    SHOTS.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        running("demo", Path(folder) / "demo.sqlite") as address,
        chromium() as browser,
    ):
        for name, path, width, height, scheme, act in VIEWS:
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
    main()
