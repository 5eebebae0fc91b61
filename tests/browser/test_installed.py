"""On the home screen: the bench opens with the server gone, shows the last round, and keeps what is entered."""

import ssl
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import Browser, expect

from fenwa.api.certificate import make_certificate
from tests.browser.server import context_of, running, settled
from tests.browser.test_outbox import a_row, poured
from tests.browser.test_phone import choose

pytestmark = pytest.mark.browser


def test_the_bench_opens_with_the_server_stopped_and_sends_later(browser: Browser, tmp_path: Path) -> None:
    database = tmp_path / "own.sqlite"
    context = context_of(browser, 390, 844, keeps=True)
    page = context.new_page()
    with running("serve", database) as address:
        a_row(address, 3)
        page.goto(address)
        settled(page)
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.reload()
        settled(page)
        assert page.evaluate("navigator.serviceWorker.controller !== null")
        title = page.get_by_role("heading", level=1).inner_text()
    page.reload()  # nobody answers any more
    expect(page.get_by_role("heading", level=1)).to_have_text(title)
    expect(page.get_by_text("Fenwa is out of reach.")).to_be_visible()
    page.get_by_role("link", name="Start pouring").click()
    page.get_by_role("button", name="One by one").click()
    page.get_by_role("button", name="Poured").click()
    expect(page.get_by_text("1 entry waits in this browser")).to_be_visible()
    page.goto(address + "/")
    expect(page.get_by_text("1 entry waits in this browser")).to_be_visible()
    with running("serve", database, int(address.rpartition(":")[2])) as address:
        expect(page.get_by_text("1 entry waits in this browser")).to_have_count(0, timeout=30_000)
        poured(address, {"P-01": 1, "P-02": 0, "P-03": 0})
        page.reload()
        settled(page)
        expect(page.get_by_text("Fenwa is out of reach.")).to_have_count(0)
    context.close()


def test_it_can_be_installed(browser: Browser, tmp_path: Path) -> None:
    with running("serve", tmp_path / "own.sqlite") as address:
        context = context_of(browser, 390, 844, keeps=True)
        page = context.new_page()
        page.goto(address)
        manifest = page.evaluate("fetch('/manifest.webmanifest').then(r => r.json())")
        assert (manifest["display"], manifest["start_url"]) == ("standalone", "/")
        for icon in manifest["icons"]:
            answer = page.request.get(f"{address}/{icon['src']}")
            assert answer.ok
            if icon["type"] == "image/png":
                wide = int.from_bytes(answer.body()[16:20])
                assert icon["sizes"] == f"{wide}x{wide}"
        for path in ("/sw.js", "/manifest.webmanifest", "/"):
            assert page.request.get(address + path).headers["cache-control"] == "no-cache"
        context.close()


def test_a_link_with_the_certificate_is_trusted_by_who_trusts_its_authority(tmp_path: Path) -> None:
    database = tmp_path / "own.sqlite"
    choose(database)
    made = make_certificate(tmp_path / "c", ["greenhouse.local", "localhost", "127.0.0.1"])
    files = ["--tls-cert", str(made.certificate), "--tls-key", str(made.key)]
    with running("serve", database, 0, "--lan", *files) as address:
        trusting = ssl.create_default_context(cafile=made.authority)
        with urllib.request.urlopen(f"{address}/sign-in", context=trusting) as answer:
            assert b"The link is encrypted." in answer.read()
        with pytest.raises(OSError, match="CERTIFICATE_VERIFY_FAILED"):
            urllib.request.urlopen(f"{address}/sign-in", context=ssl.create_default_context())
