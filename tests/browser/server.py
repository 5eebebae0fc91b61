"""A real server on a free port, and a real Chromium that may talk to nobody else."""

import os
import re
import ssl
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, sync_playwright

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
    "--host-resolver-rules=MAP *.local 127.0.0.1",
]


@contextmanager
def running(command: str, database: Path, port: int = 0, *more: str) -> Iterator[str]:
    """``./fenwa serve`` or ``demo`` on a free port; ended by its own process id."""
    process = subprocess.Popen(
        [
            sys.executable,
            "-m",
            "fenwa.cli",
            command,
            "--port",
            str(port),
            *more,
            "--today",
            TODAY,
            "--database",
            str(database),
        ],
        stdout=subprocess.PIPE,
        text=True,
        cwd=ROOT,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src")},
    )
    assert process.stdout is not None
    try:
        address = re.search(r"https?://\S+:\d+", process.stdout.readline())
        assert address, "the server did not say where it answers"
        for _ in range(100):
            try:
                with urllib.request.urlopen(f"{address.group()}/api/health", context=OWN_CERTIFICATE) as answer:
                    assert answer.status == 200
                break
            except OSError:
                time.sleep(0.1)
        yield address.group()
    finally:
        process.terminate()
        process.wait(timeout=10)
        process.stdout.close()


@contextmanager
def chromium() -> Iterator[Browser]:
    """Debian's Chromium through Playwright."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        try:
            yield browser
        finally:
            browser.close()


def context_of(browser: Browser, width: int, height: int, scheme: str = "light", zoom: float = 1) -> BrowserContext:
    """A window of a size; at a zoom of 2 it has half the CSS pixels."""
    return browser.new_context(
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
            if m.type in ("error", "warning") and "422" not in m.text and "409" not in m.text
            else None
        ),
    )
    page.on("pageerror", lambda e: wrong.append(f"page error: {e}"))
    page.on(
        "request", lambda r: None if r.url.startswith((address, "data:")) else wrong.append(f"third party: {r.url}")
    )
    page.on(
        "requestfailed", lambda r: wrong.append(f"failed: {r.url}") if "ERR_ABORTED" not in (r.failure or "") else None
    )
    return page, wrong


def settled(page: Page) -> None:
    """Fonts in, requests done."""
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
