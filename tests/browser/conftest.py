"""One Chromium and one demo server for the session; a fresh server where a test writes."""

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.server import chromium, context_of, running, watched

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


@pytest.fixture
def open_page(browser: Browser) -> Iterator[Callable[..., Page]]:
    """Opens pages and fails the test if any of them complained."""
    contexts, complaints = [], []

    def open_at(
        address: str, path: str = "/", width: int = 1280, height: int = 800, scheme: str = "light", zoom: float = 1
    ) -> Page:
        context = context_of(browser, width, height, scheme, zoom)
        page, wrong = watched(context, address)
        contexts.append(context)
        complaints.append(wrong)
        page.goto(address + path)
        return page

    yield open_at
    for context in contexts:
        context.close()
    assert [c for wrong in complaints for c in wrong] == []
