"""One Chromium and one demo server for the session; a fresh server where a test writes."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from tests.browser.server import chromium, context_of, running, watched

STORED = "cookies,local_storage,indexeddb,service_workers,cache_storage"

expect.set_options(
    timeout=20_000
)  # other tests run beside these on two processors; what holds is seen at once all the same


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with chromium() as found:
        yield found


@pytest.fixture(scope="session")
def demo_address(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with running("demo", tmp_path_factory.mktemp("demo") / "demo.sqlite") as address:
        yield address


@pytest.fixture
def own_demo(tmp_path: Path) -> Iterator[str]:
    """A demonstration of its own, for a test that writes."""
    with running("demo", tmp_path / "demo.sqlite") as address:
        yield address


@pytest.fixture
def fresh_address(tmp_path: Path) -> Iterator[str]:
    with running("serve", tmp_path / "own.sqlite") as address:
        yield address


@pytest.fixture(scope="session")
def windows(browser: Browser) -> Iterator[Callable[..., BrowserContext]]:
    """A window for each colour scheme and zoom, kept for all tests: what it stored is cleared after each, what it knows
    of the interface's files stays.
    """
    kept: dict[tuple[str, float], BrowserContext] = {}

    def window(scheme: str, zoom: float, address: str) -> BrowserContext:
        if (scheme, zoom) not in kept:
            kept[scheme, zoom] = context_of(browser, 1280, 800, scheme, zoom)
            kept[scheme, zoom].new_page().goto(f"{address}/icon.svg")
        return kept[scheme, zoom]

    yield window
    for context in kept.values():
        context.close()


def forget(page: Page, address: str) -> None:
    """Everything a page's origin stored in the browser."""
    page.goto("about:blank")
    line = page.context.new_cdp_session(page)
    line.send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": STORED})
    line.detach()
    page.close()


@pytest.fixture
def open_page(windows: Callable[..., BrowserContext]) -> Iterator[Callable[..., Page]]:
    """Opens pages and fails the test if any of them complained."""
    opened: list[tuple[Page, str, list[str]]] = []

    def open_at(
        address: str, path: str = "/", width: int = 1280, height: int = 800, scheme: str = "light", zoom: float = 1
    ) -> Page:
        page, wrong = watched(windows(scheme, zoom, address), address)
        page.set_viewport_size({"width": int(width / zoom), "height": int(height / zoom)})
        opened.append((page, address, wrong))
        page.goto(address + path)
        return page

    yield open_at
    for page, address, _ in opened:
        if not page.is_closed():
            forget(page, address)
        page.context.clear_cookies()
    assert [c for _, _, wrong in opened for c in wrong] == []
