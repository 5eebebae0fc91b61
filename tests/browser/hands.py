"""Two hands on the same interface: one with a pointer, one with the keyboard alone."""

import re

from playwright.sync_api import Locator, Page, expect


class Pointer:
    """Clicks and taps."""

    def __init__(self, page: Page) -> None:
        self.page = page

    def press(self, name: str, role: str = "button", exact: bool = True) -> None:
        self.page.get_by_role(role, name=name, exact=exact).first.click()  # type: ignore[arg-type]

    def fill(self, label: str, text: str) -> None:
        self.page.get_by_label(label, exact=True).first.fill(text)

    def date(self, label: str, iso: str) -> None:
        self.fill(label, iso)

    def choose(self, label: str, option: str) -> None:
        self.page.get_by_label(label, exact=True).first.select_option(label=option)

    def unfold(self, words: str) -> None:
        self.page.locator("main summary", has_text=words).click()

    def tick(self, label: str) -> None:
        self.page.get_by_label(label, exact=True).first.check()

    def station(self, name: str) -> None:
        found = (
            self.page.get_by_role("navigation").get_by_role("link", name=re.compile(f"^{name}")).locator("visible=true")
        )
        if found.count() == 0:
            self.page.get_by_role("button", name="More").locator("visible=true").click()
        found.first.click()
        expect(self.page.get_by_role("heading", level=1)).to_be_visible()


class Keyboard(Pointer):
    """Tab, Enter, Space, arrows and typing; never a click."""

    def reach(self, target: Locator) -> None:
        expect(target).to_be_visible()
        for _ in range(160):
            if target.evaluate("e => e === document.activeElement"):
                return
            self.page.keyboard.press("Tab")
        raise AssertionError(f"not reached by Tab: {target}")

    def press(self, name: str, role: str = "button", exact: bool = True) -> None:
        self.reach(self.page.get_by_role(role, name=name, exact=exact).first)  # type: ignore[arg-type]
        self.page.keyboard.press("Enter")

    def fill(self, label: str, text: str) -> None:
        self.reach(self.page.get_by_label(label, exact=True).first)
        self.page.keyboard.press("Control+A")
        self.page.keyboard.type(text)

    def unfold(self, words: str) -> None:
        self.reach(self.page.locator("main summary", has_text=words))
        self.page.keyboard.press("Enter")

    def date(self, label: str, iso: str) -> None:
        year, month, day = iso.split("-")
        self.reach(self.page.get_by_label(label, exact=True).first)
        self.page.keyboard.type(month + day + year)  # Debian's Chromium shows its own English order

    def choose(self, label: str, option: str) -> None:
        target = self.page.get_by_label(label, exact=True).first
        self.reach(target)
        self.page.keyboard.type(option)
        expect(target.locator("option:checked")).to_have_text(option)

    def tick(self, label: str) -> None:
        self.reach(self.page.get_by_label(label, exact=True).first)
        self.page.keyboard.press("Space")

    def station(self, name: str) -> None:
        number = ["Round", "Water", "Mix", "Pots", "Flush", "Leaf", "Shelf"].index(name) + 1
        self.page.evaluate("document.activeElement instanceof HTMLElement && document.activeElement.blur()")
        self.page.keyboard.press(str(number))
        expect(self.page.get_by_role("heading", level=1)).to_be_visible()
