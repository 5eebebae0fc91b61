"""Backups and whole collections by hand: back up, spoil, restore; export here, import there."""

from pathlib import Path

from playwright.sync_api import Browser, expect

from tests.browser.measured import findings
from tests.browser.server import context_of, running, watched


def test_back_up_then_restore_by_thumb(browser: Browser, tmp_path: Path) -> None:
    with running("demo", tmp_path / "demo.sqlite") as address:
        page, wrong = watched(context_of(browser, 390, 844), address)
        page.goto(f"{address}/house")
        page.get_by_role("button", name="Back up now").click()
        expect(page.get_by_text("read back and whole.").first).to_be_visible()
        page.goto(f"{address}/pots/1")
        title = page.get_by_role("heading", level=1).inner_text()
        page.request.post(f"{address}/api/log/pot/1/archive", headers={"Idempotency-Key": "spoilt-by-hand"})
        page.goto(f"{address}/house")
        page.get_by_role("button", name="Restore one of").click()
        page.get_by_role("button", name="by hand").first.click()
        assert findings(page) == []
        page.get_by_role("button", name="Restore", exact=True).click()
        expect(page.get_by_text("The collection is as it was then.")).to_be_visible()
        page.goto(f"{address}/pots/1")
        expect(page.get_by_role("heading", level=1)).to_have_text(title)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390
        assert wrong == []


def test_export_here_and_import_into_an_empty_collection(browser: Browser, tmp_path: Path) -> None:
    with running("demo", tmp_path / "demo.sqlite") as here, running("serve", tmp_path / "new.sqlite") as there:
        page, wrong = watched(context_of(browser, 1280, 800), here)
        page.goto(f"{here}/house")
        with page.expect_download() as taken:
            page.get_by_role("link", name="Export everything").click()
        taken.value.save_as(tmp_path / "all.zip")
        ours = page.request.get(f"{here}/api/pots").json()
        new, wrong_there = watched(context_of(browser, 1280, 800), there)
        new.goto(f"{there}/house")
        new.locator('input[accept=".zip,.json"]').set_input_files(tmp_path / "all.zip")
        expect(new.get_by_text("This collection is empty: the file becomes it")).to_be_visible()
        assert findings(new) == []
        new.get_by_role("button", name="Import", exact=True).click()
        expect(new.get_by_text("rows imported")).to_be_visible()
        assert new.request.get(f"{there}/api/pots").json() == ours
        assert (wrong, wrong_there) == ([], [])
