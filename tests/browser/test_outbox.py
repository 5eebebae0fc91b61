"""The morning round on the phone while the server comes and goes, and a long row of alike pots."""

import json
import sqlite3
import time
import urllib.request
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.server import context_of, running, settled
from tests.conftest import pot

pytestmark = pytest.mark.browser


def call(address: str, path: str, body: dict[str, Any] | None = None) -> Any:
    """The server's answer, asked beside the browser."""
    request = urllib.request.Request(
        address + path,
        data=None if body is None else json.dumps(body).encode(),
        headers={"content-type": "application/json", "idempotency-key": uuid4().hex},
    )
    with urllib.request.urlopen(request) as answer:
        return json.load(answer)


def a_row(address: str, count: int) -> None:
    """A water and alike pots, each fed before, so that today they want plain water."""
    water = call(address, "/api/waters", {"name": "Rain", "kind": "rain", "disinfectant": "none"})["id"]
    call(address, f"/api/waters/{water}/readings", {"on": "2026-11-20", "value": 34, "unit": "µS/cm"})
    for n in range(1, count + 1):
        call(address, "/api/pots", pot(code=f"P-{n:02d}", profile_id="nepenthes_highland"))


def pours(address: str) -> list[tuple[str, int]]:
    """Each pot's code with how often it was poured."""
    rows = call(address, "/api/pots")["pots"]
    return [(r["code"], len(call(address, f"/api/pots/{r['id']}")["pours"])) for r in rows]


def poured(address: str, wanted: dict[str, int]) -> None:
    """What waits is sent one by one: give it a moment."""
    for _ in range(50):
        if dict(pours(address)) == wanted:
            return
        time.sleep(0.2)
    assert dict(pours(address)) == wanted


def a_phone(browser: Browser) -> Page:
    page = context_of(browser, 390, 844).new_page()
    page.set_default_timeout(10_000)
    return page


def walking(browser: Browser, address: str, count: int) -> Page:
    """A phone at the first of a row of alike pots."""
    a_row(address, count)
    page = a_phone(browser)
    page.goto(address + "/")
    page.get_by_role("link", name="Start pouring").click()
    page.get_by_role("button", name="One by one").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("P-01")
    return page


def test_a_round_walked_while_the_server_is_gone_arrives_once_each_in_order(browser: Browser, tmp_path: Path) -> None:
    database = tmp_path / "own.sqlite"
    with running("serve", database) as address:
        page = walking(browser, address, 6)
        heading = page.get_by_role("heading", level=1)
        page.get_by_role("button", name="Poured").click()
        expect(heading).to_contain_text("P-02")
    port = int(address.rpartition(":")[2])

    # the server is gone for three pots, one of them left for another day
    page.get_by_role("button", name="10 mL more").or_(page.get_by_role("button", name="50 mL more")).click()
    page.get_by_role("button", name="Poured").click()
    expect(heading).to_contain_text("P-03")
    expect(page.get_by_text("1 entry waits in this browser")).to_be_visible()
    page.get_by_role("button", name="Still heavy: skip").click()
    expect(heading).to_contain_text("P-04")
    page.get_by_role("button", name="Poured").click()
    expect(heading).to_contain_text("P-05")
    expect(page.get_by_text("3 entries wait in this browser")).to_be_visible()

    with running("serve", database, port) as address:
        # what waits survives a reload, and so does the place in the walk
        page.reload()
        expect(page.get_by_role("heading", name="A round is half walked")).to_be_visible()
        expect(page.get_by_text("waits in this browser").or_(page.get_by_text("wait in this browser"))).to_have_count(0)
        assert pours(address) == [("P-01", 1), ("P-02", 1), ("P-03", 0), ("P-04", 1), ("P-05", 0), ("P-06", 0)]
        page.get_by_role("button", name="Go on where it was").click()
        expect(heading).to_contain_text("P-05")
        for code in ("P-06", "The round is done"):
            page.get_by_role("button", name="Poured").click()
            expect(heading).to_contain_text(code)
        expect(page.get_by_text("5 of 6 pots poured")).to_be_visible()
        assert pours(address) == [("P-01", 1), ("P-02", 1), ("P-03", 0), ("P-04", 1), ("P-05", 1), ("P-06", 1)]
        day = call(address, "/api/pots")["pots"]
        ids = [call(address, f"/api/pots/{r['id']}")["pours"][-1]["id"] for r in day if r["code"] != "P-03"]
        assert ids == sorted(ids), "in the order they were poured"
        assert call(address, "/api/round")["plan"]["pots_due"] == 0, "the skipped pot is not asked for again today"

        # the saucers, by the server's clock
        page.get_by_role("button", name="Remind me of the saucers").click()
        expect(page.get_by_text("goes on saying so")).to_be_visible()
        page.get_by_role("link", name="Back to the round").click()
        expect(page.get_by_text("Empty the saucers in 20 min")).to_be_visible()
        page.reload()
        expect(page.get_by_text("Empty the saucers in 20 min")).to_be_visible()
        page.get_by_role("button", name="Emptied").click()
        expect(page.get_by_text("Empty the saucers")).to_have_count(0)
    page.context.close()


def test_twenty_alike_pots_take_a_few_taps_and_the_heavy_ones_stay(browser: Browser, tmp_path: Path) -> None:
    with running("serve", tmp_path / "own.sqlite") as address:
        a_row(address, 20)
        page = a_phone(browser)
        page.goto(address + "/")
        taps = 0

        def tap(role: Any, name: str) -> None:
            nonlocal taps
            page.get_by_role(role, name=name).click()
            taps += 1

        tap("link", "Start pouring")
        expect(page.get_by_role("heading", level=1)).to_have_text("20 alike")
        tap("button", "P-07 Nepenthes: still heavy")
        tap("button", "19 as planned, 1 left")
        expect(page.get_by_role("heading", level=1)).to_have_text("The round is done")
        assert taps <= 22
        assert pours(address) == [(f"P-{n:02d}", 0 if n == 7 else 1) for n in range(1, 21)]

        # the same walk by the desk's keys, with Undo before it
        page.get_by_role("button", name="Undo").click()
        page.wait_for_function("async () => (await (await fetch('/api/round')).json()).plan.pots_due === 19")
        page.set_viewport_size({"width": 1280, "height": 800})
        page.goto(address + "/pour")
        expect(page.get_by_role("heading", level=1)).to_have_text("19 alike")
        settled(page)  # the keys are heard once the page has all it asked for
        page.keyboard.press("o")
        expect(page.get_by_role("heading", level=1)).to_contain_text("P-01")
        amount = page.locator("output")
        before = amount.inner_text()
        page.keyboard.press("+")
        expect(amount).not_to_have_text(before)
        page.keyboard.press("-")
        expect(amount).to_have_text(before)
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", level=1)).to_contain_text("P-02")
        page.keyboard.press("s")
        expect(page.get_by_role("heading", level=1)).to_contain_text("P-03")
        page.keyboard.press("n")
        expect(page.get_by_role("heading", level=1)).to_contain_text("P-04")
        page.keyboard.press("b")
        expect(page.get_by_role("heading", level=1)).to_contain_text("P-03")
        assert pours(address)[:3] == [("P-01", 1), ("P-02", 0), ("P-03", 0)]
        page.context.close()


def test_a_refused_entry_is_set_apart_edited_and_later_ones_go_on(browser: Browser, tmp_path: Path) -> None:
    """A pot archived at the desk while the phone was away: its pour is refused, the next one arrives all the same."""
    database = tmp_path / "own.sqlite"
    with running("serve", database) as address:
        page = walking(browser, address, 3)
        heading = page.get_by_role("heading", level=1)
    port = int(address.rpartition(":")[2])
    for code in ("P-02", "P-03"):
        page.get_by_role("button", name="Poured").click()
        expect(heading).to_contain_text(code)
    expect(page.get_by_text("2 entries wait in this browser")).to_be_visible()
    with sqlite3.connect(database) as desk:
        desk.execute("UPDATE pot SET archived_at = '2026-11-23 08:00:00.000000' WHERE id = 1")
    desk.close()
    with running("serve", database, port) as address:
        refused = page.get_by_text("was not taken. Pot 1 is not there. It may have been archived.")
        expect(refused).to_be_visible(timeout=20_000)
        poured(address, {"P-02": 1, "P-03": 0})
        page.get_by_role("button", name="Edit").click()
        expect(page.get_by_label("Amount")).to_be_visible()
        page.get_by_role("button", name="Cancel", exact=True).click()
        page.get_by_role("button", name="Delete", exact=True).click()
        expect(page.get_by_text("was not taken")).to_have_count(0)
        page.get_by_role("button", name="Poured").click()
        expect(heading).to_contain_text("The round is done")
        poured(address, {"P-02": 1, "P-03": 1})
    page.context.close()
