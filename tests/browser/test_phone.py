"""The phone on the home network: asked for the passphrase, served under the machine's own name, told of the open
link.
"""

import socket
import subprocess
import sys
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.server import ROOT, context_of, running, settled
from tests.browser.test_outbox import a_row

pytestmark = pytest.mark.browser
WORDS = "moss under the bench"
CERTIFICATE = Path(__file__).parent / "certificate"  # made for this test, worth nothing elsewhere


def choose(database: Path) -> None:
    """The passphrase, by the command a grower uses."""
    done = subprocess.run(
        [sys.executable, "-m", "fenwa.cli", "passphrase", "--database", str(database)],
        cwd=ROOT,
        text=True,
        input=f"{WORDS}\n{WORDS}\n",
        capture_output=True,
        env={"PYTHONPATH": str(ROOT / "src"), "PATH": "/usr/bin:/bin"},
    )
    assert done.returncode == 0, done.stderr


def by_name(address: str) -> str:
    """The server under its name on the home network; the browser resolves it to this machine."""
    name = socket.gethostname().lower().removesuffix(".local")
    return address.replace("127.0.0.1", f"{name}.local")


def sign_in(page: Page, words: str) -> None:
    page.get_by_label("Passphrase of this house").fill(words)
    page.get_by_role("button", name="Come in").click()


def test_the_phone_signs_in_pours_and_is_signed_out_with_all_others(browser: Browser, tmp_path: Path) -> None:
    database = tmp_path / "own.sqlite"
    choose(database)
    with running("serve", database) as address:
        a_row(address, 2)
    with running("serve", database, 0, "--lan") as address:
        phone = context_of(browser, 390, 844).new_page()
        phone.set_default_timeout(40_000)
        home = by_name(address)
        phone.goto(home + "/pots/1")
        expect(phone.get_by_text("The link is not encrypted")).to_be_visible()
        sign_in(phone, "moss over the bench")
        expect(phone.get_by_role("alert")).to_contain_text("That is not the passphrase")
        sign_in(phone, WORDS)
        expect(phone.get_by_role("heading", level=1)).to_contain_text("2 pots in 1 can")
        assert not phone.evaluate("window.isSecureContext"), "plain http under a name: no randomUUID, no locks"

        # who pours, from the short list, on the walk
        phone.goto(home + "/house")
        phone.get_by_label("Name", exact=True).fill("Ilsa")
        phone.get_by_role("button", name="Add the name").click()
        expect(phone.get_by_text("It is changed on the machine Fenwa runs on.")).to_be_visible()
        phone.goto(home + "/pour")
        phone.get_by_label("Who pours").select_option("Ilsa")
        phone.get_by_role("button", name="Poured").click()
        expect(phone.get_by_role("heading", level=1)).to_contain_text("P-02")
        poured = "n => fetch('/api/pots/' + n).then(a => a.json()).then(p => p.pours.length)"
        assert [phone.evaluate(poured, n) for n in (1, 2)] == [1, 0]
        phone.goto(home + "/pots/1")
        expect(phone.get_by_text("· Ilsa")).to_be_visible()

        # the desk signs in as well, sees the address and shuts the door
        desk = context_of(browser, 1280, 800).new_page()
        desk.goto(address + "/sign-in")
        sign_in(desk, WORDS)
        expect(desk.get_by_role("heading", level=1)).to_be_visible()
        settled(desk)
        desk.goto(address + "/house")
        expect(desk.get_by_label("New passphrase")).to_be_visible()
        expect(desk.get_by_text("The link is not encrypted")).to_be_visible()
        desk.get_by_role("button", name="Sign out everywhere").click()
        expect(desk.get_by_label("Passphrase of this house")).to_be_visible()

        # the phone is asked again
        phone.goto(home + "/pots/2")
        expect(phone.get_by_label("Passphrase of this house")).to_be_visible()
        sign_in(phone, WORDS)
        expect(phone.get_by_role("heading", level=1)).to_be_visible()
        phone.context.close()
        desk.context.close()


def test_a_certificate_encrypts_the_link(browser: Browser, tmp_path: Path) -> None:
    database = tmp_path / "own.sqlite"
    choose(database)
    files = ["--tls-cert", str(CERTIFICATE / "cert.pem"), "--tls-key", str(CERTIFICATE / "key.pem")]
    with running("serve", database, 0, "--lan", *files) as address:
        assert address.startswith("https://")
        context = browser.new_context(ignore_https_errors=True)
        page = context.new_page()
        page.goto(by_name(address) + "/")
        expect(page.get_by_text("The link is encrypted.")).to_be_visible()
        sign_in(page, WORDS)
        expect(page.get_by_role("heading", name="Three questions, then you can pour")).to_be_visible()
        assert [c["secure"] for c in context.cookies()] == [True]
        context.close()
