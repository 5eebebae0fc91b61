"""A real server on a free port, and a real Chromium that may talk to nobody else."""

import atexit
import os
import re
import shutil
import socket
import ssl
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from datetime import date
from functools import cache
from pathlib import Path
from urllib.error import HTTPError
from weakref import WeakKeyDictionary

from playwright.sync_api import Browser, BrowserContext, Error, Page, Request, sync_playwright

from scripts.forked import FORKS, command_line

ROOT = Path(__file__).parents[2]
TODAY = "2026-11-23"
OWN_CERTIFICATE = ssl._create_unverified_context()
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--process-per-site",  # with one page left open, the next finds the interface's scripts compiled
    "--host-resolver-rules=MAP *.local 127.0.0.1",
]


# one after the other, servers answer at the same address, so that a browser keeps the interface's files and scripts
FIRST_PORT = 18_000 + os.getpid() % 500 * 4  # other tests run beside these
PORTS, TAKEN = range(FIRST_PORT, FIRST_PORT + 4), set[int]()
IN_FLIGHT: WeakKeyDictionary[Page, set[Request]] = WeakKeyDictionary()
# a round of the page's own: it cannot pass while the page computes what it will ask for next
ROUND = "() => new Promise(done => requestAnimationFrame(() => setTimeout(done, 40)))"
QUIET_ROUNDS = 3
MOST_ROUNDS = 1_000
EXPECTED = ("422", "409", "Service Worker registration blocked by Playwright")  # refusals, and our own context_of


def _seed(database: Path, demo: bool) -> None:
    from fenwa.demo.database import fill_if_stale
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    store = Store(database)
    if demo:
        fill_if_stale(store, date.fromisoformat(TODAY))
    prepare_store(store)
    store.close()


@cache
def seeded(command: str) -> Path:
    """What a command makes on its first start, made once for all tests that write on one of their own."""
    database = Path(tempfile.mkdtemp(prefix="fenwa-tests-")) / f"{command}.sqlite"
    process = FORKS.Process(target=_seed, args=(database, command == "demo"))
    process.start()
    process.join()
    atexit.register(shutil.rmtree, database.parent, ignore_errors=True)
    return database


def _first_start(command: str, database: Path) -> None:
    """The database of a command as its first start leaves it, photos and all."""
    made = seeded(command)
    shutil.copy(made, database)
    database.chmod(0o600)
    photos = made.with_suffix(".photos")
    if photos.exists():
        shutil.copytree(photos, database.with_suffix(".photos"))


def _free_port() -> int:
    """The first of our own that nobody listens on; 0, any, if all are taken."""
    for port in PORTS:
        with socket.socket() as held:
            held.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            with suppress(OSError):
                if port not in TAKEN:
                    held.bind(("127.0.0.1", port))
                    return port
    return 0


@contextmanager
def running(command: str, database: Path, port: int = 0, *more: str) -> Iterator[str]:
    """``./fenwa serve`` or ``demo`` on a free port; ended by its own process id."""
    if not database.exists():
        _first_start(command, database)
    port = port or _free_port()
    TAKEN.add(port)
    heard, said = FORKS.Pipe(duplex=False)
    arguments = [command, "--port", str(port), *more, "--today", TODAY, "--database", str(database)]
    process = FORKS.Process(target=command_line, args=(arguments, said), daemon=True)
    process.start()
    said.close()
    try:
        with os.fdopen(os.dup(heard.fileno())) as lines:
            address = re.search(r"https?://\S+:\d+", lines.readline())
        assert address, "the server did not say where it answers"
        for _ in range(100):
            try:
                with urllib.request.urlopen(f"{address.group()}/api/health", context=OWN_CERTIFICATE) as answer:
                    assert answer.status == 200
                break
            except HTTPError as error:  # it answers, and asks for the passphrase
                if error.code == 401:
                    break
                raise
            except OSError:
                time.sleep(0.1)
        yield address.group()
    finally:
        process.terminate()
        process.join(timeout=10)
        heard.close()
        TAKEN.discard(port)


@contextmanager
def chromium() -> Iterator[Browser]:
    """Debian's Chromium through Playwright."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        try:
            yield browser
        finally:
            browser.close()


def context_of(
    browser: Browser, width: int, height: int, scheme: str = "light", zoom: float = 1, keeps: bool = False
) -> BrowserContext:
    """A window of a size; at a zoom of 2 it has half the CSS pixels. ``keeps``: the interface, by a service worker."""
    return browser.new_context(
        service_workers="allow" if keeps else "block",
        viewport={"width": int(width / zoom), "height": int(height / zoom)},
        device_scale_factor=zoom,
        reduced_motion="reduce",
        locale="en-GB",
        timezone_id="UTC",
        color_scheme="dark" if scheme == "dark" else "light",
    )


def watched(context: BrowserContext, address: str) -> tuple[Page, list[str]]:
    """A page and the list of everything that went wrong on it."""
    page = context.new_page()
    page.set_default_timeout(25_000)
    wrong: list[str] = []
    page.on(
        "console",
        lambda m: (
            wrong.append(f"console: {m.text}")
            if m.type in ("error", "warning") and not any(known in m.text for known in EXPECTED)
            else None
        ),
    )
    page.on("pageerror", lambda e: wrong.append(f"page error: {e}"))
    waiting = IN_FLIGHT[page] = set()
    page.on("request", lambda r: None if r.resource_type == "eventsource" else waiting.add(r))
    page.on("requestfinished", lambda r: waiting.discard(r))
    page.on("requestfailed", lambda r: waiting.discard(r))
    page.on(
        "request", lambda r: None if r.url.startswith((address, "data:")) else wrong.append(f"third party: {r.url}")
    )
    page.on(
        "requestfailed", lambda r: wrong.append(f"failed: {r.url}") if "ERR_ABORTED" not in (r.failure or "") else None
    )
    return page, wrong


def settled(page: Page) -> None:
    """Fonts in, what was asked for answered, and nothing more asked for since."""
    page.wait_for_load_state("load")
    waiting = IN_FLIGHT.get(page)
    if waiting is None:  # nobody counts this page's requests
        page.wait_for_load_state("networkidle")
    quiet, rounds = 0, 0
    while quiet < QUIET_ROUNDS:
        try:
            page.evaluate(ROUND)
        except Error:  # another page is on its way
            page.wait_for_load_state("load")
            quiet = 0
        quiet = 0 if waiting else quiet + 1
        rounds += 1
        assert rounds < MOST_ROUNDS, f"never answered: {[r.url for r in waiting or ()]}"
    page.evaluate("document.fonts.ready")
