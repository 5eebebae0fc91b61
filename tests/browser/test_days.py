"""Days ahead in the browser: the helper's sheet on paper, the calendar taken along, a job done and taken back."""

from collections.abc import Callable
from datetime import date
from pathlib import Path

import pytest
from icalendar import Calendar
from playwright.sync_api import Page, expect

from tests.browser.server import running, settled

pytestmark = pytest.mark.browser


@pytest.fixture(scope="module")
def own_demo(tmp_path_factory: pytest.TempPathFactory):  # type: ignore[no-untyped-def]
    """A demonstration of its own: a job is done here."""
    with running("demo", tmp_path_factory.mktemp("days") / "demo.sqlite") as address:
        yield address


def test_the_helpers_sheet_says_what_to_give_when_and_what_to_leave(
    own_demo: str, open_page: Callable[..., Page]
) -> None:
    page = open_page(own_demo, "/")
    page.get_by_role("link", name="Coming weeks").click()
    page.get_by_role("link", name="Going away").click()
    page.get_by_label("Leaving").fill("2026-11-25")
    page.get_by_label("Back on").fill("2026-12-09")
    expect(page.get_by_role("heading", level=1)).to_have_text("Away from 25 Nov to 9 Dec")
    plan = page.evaluate("async () => (await fetch('/api/away?leaving=2026-11-25&back=2026-12-09')).json()")["plan"][
        "result"
    ]
    expect(page.get_by_text(plan["sentence"])).to_be_visible()
    rows = {r["pot_id"]: r for r in plan["rows"]}
    first = next(v for v in plan["visits"] if any(rows[i]["route"] == "tray" for i in v["pot_ids"]))
    on = date.fromisoformat(first["on"])
    visit = page.get_by_role("region", name=f"Visit of {on.day} {on:%b}")
    expect(visit.get_by_role("row")).to_have_count(len(first["pot_ids"]) + 1)
    tray = next(rows[i] for i in first["pot_ids"] if rows[i]["route"] == "tray")
    expect(visit.get_by_role("row", name=tray["code"])).to_contain_text("into the tray, Rain cistern")
    expect(page.get_by_text("Plain water only, no feed.")).to_be_visible()

    # on paper: nothing of the screen, everything of the sheet
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print the sheet")).to_be_hidden()
    expect(page.get_by_label("Leaving")).to_be_hidden()
    expect(visit).to_be_visible()
    page.emulate_media(media="screen")

    # a journey that cannot be is said in words
    page.get_by_label("Back on").fill("2026-11-20")
    expect(page.get_by_role("alert")).to_contain_text("Choose a return")


def test_the_calendar_file_is_read_back_by_the_library(
    own_demo: str, open_page: Callable[..., Page], tmp_path: Path
) -> None:
    page = open_page(own_demo, "/days")
    settled(page)
    with page.expect_download() as started:
        page.get_by_role("link", name="Calendar file").click()
    assert started.value.suggested_filename == "fenwa.ics"
    started.value.save_as(tmp_path / "fenwa.ics")
    calendar = Calendar.from_ical((tmp_path / "fenwa.ics").read_bytes())
    found = {str(e["uid"]): e for e in calendar.walk("VEVENT")}
    assert str(calendar["x-wr-calname"]) == "Ansa Orangery"
    today = found["round-2026-11-23@fenwa.invalid"]
    assert today["dtstart"].dt == date(2026, 11, 23)
    plan = page.evaluate("async () => (await fetch('/api/round')).json()")["plan"]
    assert str(today["summary"]) == f"Round: {plan['pots_due']} pots"


def test_a_job_is_done_taken_back_and_put_off(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/", 390, 844)
    job = page.get_by_role("button", name="Done: G-01 Pinguicula: rinse the tray pot")
    job.click()
    expect(job).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(job).to_be_visible()
    page.get_by_role("button", name="In a week: G-01 Pinguicula: rinse the tray pot").click()
    expect(job).to_have_count(0)


def test_a_round_goes_on_paper_for_today_and_a_day_ahead(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/round/sheet")
    plan = page.evaluate("async () => (await fetch('/api/round')).json()")["plan"]
    for can in plan["cans"]:
        expect(page.get_by_role("region", name=f"Can {can['letter']}", exact=True).get_by_role("row")).to_have_count(
            len(can["pots"]) + 1
        )
    page.goto(own_demo + "/round/sheet?on=2026-11-25")
    expect(page.get_by_role("heading", level=1)).to_have_text("Round of 25 Nov")
    expect(page.get_by_text("as if nothing were poured before")).to_be_visible()
