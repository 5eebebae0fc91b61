"""The round on a slow phone: its first picture and how soon it answers a thumb, in a browser that is held back."""

from __future__ import annotations

import re
import tempfile
from functools import partial
from pathlib import Path
from statistics import median
from typing import TYPE_CHECKING, Any

from fenwa.bench_machine import each_in_quiet, in_quiet
from fenwa.bench_rows import TODAY
from fenwa.bench_served import Line, Served

if TYPE_CHECKING:
    from playwright.sync_api import Browser, Page

SLOWER, BYTES_A_SECOND, LATENCY_ms = 4, 1_500_000 / 8, 40  # a processor four times slower, 1.5 Mbit/s
PICTURES, PRESSES = 3, 12
STEPS = (re.compile(r"more$"), re.compile(r"less$"))  # of the volume, by the pot's own step
# the longest from a press to the next picture, as the browser counts it; what is quicker than 16 ms it leaves out
SLOWEST = """() => {
  window.slowest = 0
  new PerformanceObserver(list => {
    for (const e of list.getEntries()) if (e.interactionId) window.slowest = Math.max(window.slowest, e.duration)
  }).observe({type: "event", durationThreshold: 16, buffered: true})
}"""


# when the first can stood there and was painted; whoever looked again and again would hold the phone up
FIRST_CAN = """() => new MutationObserver((_, seen) => {
  if (!document.querySelector('section[aria-label="Can A"]')) return
  seen.disconnect()
  requestAnimationFrame(() => setTimeout(() => { window.firstCan = performance.now() }))
}).observe(document, {childList: true, subtree: true})"""


def _demonstration(path: Path) -> None:
    from fenwa.demo.database import fill_if_stale
    from fenwa.store.prepare import prepare_store
    from fenwa.store.session import Store

    store = Store(path)
    fill_if_stale(store, TODAY)
    prepare_store(store)
    store.close()


def _held_back(browser: Browser, slower: int) -> Page:
    """A phone's window with nothing kept from before."""
    page = browser.new_context(viewport={"width": 390, "height": 844}, service_workers="block").new_page()
    line = page.context.new_cdp_session(page)
    line.send("Network.enable")
    kept: dict[str, Any] = {"offline": False, "latency": LATENCY_ms, "uploadThroughput": BYTES_A_SECOND}
    line.send("Network.emulateNetworkConditions", {**kept, "downloadThroughput": BYTES_A_SECOND})
    line.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    return page


def first_picture_s(browser: Browser, address: str, slower: int) -> float:
    """From the address to the first can of the round, with nothing kept from before. [s]"""
    page = _held_back(browser, slower)
    page.add_init_script(f"({FIRST_CAN})()")
    page.goto(address, wait_until="commit")
    took = 0.0
    while not took:
        page.wait_for_timeout(500)
        took = float(page.evaluate("window.firstCan || 0")) / 1000
    page.context.close()
    return took


def slowest_press_ms(browser: Browser, address: str, slower: int) -> float:
    """The longest that the walk through the round took to answer a press, the pour itself among them. [ms]"""
    page = _held_back(browser, slower)
    page.goto(f"{address}/pour")
    page.get_by_role("button", name="Poured", exact=True).wait_for(timeout=120_000)
    page.wait_for_load_state("networkidle")
    page.evaluate(SLOWEST)
    for n in range(PRESSES):
        page.get_by_role("button", name=STEPS[n % 2]).first.click()
        page.wait_for_timeout(150)
    page.get_by_role("button", name="Poured", exact=True).click()
    page.wait_for_timeout(1500)
    took = float(page.evaluate("window.slowest"))
    page.context.close()
    return took


def measured() -> list[Line]:
    """First picture and slowest press, held back as a slow phone is and not at all; empty without Playwright."""
    try:
        from playwright.sync_api import sync_playwright
    except ImportError:
        return []
    out = []
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.sqlite"
        _demonstration(database)
        server = Served(database)
        address = f"http://{server.where.netloc}"
        try:
            with sync_playwright() as play:
                browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=["--no-sandbox"])
                first_picture_s(browser, address, 1)  # the server's own first time is no matter of the phone
                for slower in (SLOWER, 1):
                    held = f"{slower} times slower, 1.5 Mbit/s" if slower > 1 else "this processor, 1.5 Mbit/s"
                    asked = ("2.5 s", "200 ms") if slower > 1 else ("", "")
                    pictures, at = each_in_quiet([partial(first_picture_s, browser, address, slower)] * PICTURES)
                    what = f"first picture of the round, {held}, median of {PICTURES}"
                    out.append(Line(what, f"{median(pictures):.1f} s", asked[0], machine=str(at)))
                    press, at = in_quiet(partial(slowest_press_ms, browser, address, slower))
                    found = f"{press:.0f} ms"
                    out.append(Line(f"slowest press at the bench, {held}", found, asked[1], machine=str(at)))
                browser.close()
        finally:
            server.end()
    return out
