"""Did it help, what is wrong, seasons, trials, loggers: each in the real interface by pointer and by keyboard."""

import json
from collections.abc import Callable
from datetime import datetime, timedelta
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.hands import Keyboard, Pointer
from tests.browser.server import settled

pytestmark = pytest.mark.browser
SEATS = pytest.mark.parametrize(
    ("kind", "wide", "tall"),
    [
        pytest.param(Pointer, 390, 844, id="thumb on a phone"),
        pytest.param(Pointer, 1280, 800, id="pointer at the desk", marks=pytest.mark.walk),
        pytest.param(Keyboard, 1280, 800, id="keyboard at the desk"),
    ],
)


def asked(page: Page, address: str, path: str) -> Any:
    return page.request.get(address + path).json()


def said(page: Page, words: str) -> Locator:
    return page.get_by_role("status").get_by_text(words, exact=False)


@SEATS
def test_a_flush_is_asked_about_from_the_pot(
    demo_address: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(demo_address, "/pots/6", wide, tall)
    settled(page)
    hand = kind(page)
    hand.press("Did it help?", role="link")
    expect(page.get_by_role("heading", level=1)).to_have_text("Did it help P-06?")
    hand.choose("Change", "8 Sept: flushed")
    expect(page.get_by_text("Held against P-07", exact=False)).to_be_visible()
    expect(page.get_by_role("img", name="How sure: a hint", exact=False)).to_be_visible()
    expect(page.get_by_text("P-06 only: cannot be told from it.")).to_be_visible()
    expect(page.get_by_text("Six pairs", exact=True)).to_be_visible()
    hand.press("Measured difference", exact=False)
    expect(page.get_by_text("without what comes by itself").first).to_be_visible()
    assert "proven" not in page.locator("main").inner_text().lower()


@SEATS
def test_an_ill_plant_is_checked_and_its_case_closed_on_a_phone(
    own_demo: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(own_demo, "/wrong/13", wide, tall)
    settled(page)
    hand = kind(page)
    expect(page.get_by_text("Two causes, one after the other", exact=False)).to_be_visible()
    expect(page.get_by_text("Water first", exact=True)).to_be_visible()
    expect(page.get_by_text("Air first", exact=True)).to_be_visible()
    assert "%" not in page.locator("section[aria-label='Causes in order'] p").first.inner_text()
    hand.press("Follow Air first")
    expect(page.get_by_role("button", name="Follow Air first")).to_have_attribute("aria-pressed", "true")
    before = asked(page, own_demo, "/api/pots/13/wrong")
    step = next(s for s in before["stairs"]["result"]["steps"] if s["id"] == "lens")
    hand.press(step["name"], exact=False)
    hand.press("Pests seen with a 10× lens")
    expect(said(page, "Check saved.")).to_be_visible()
    now = asked(page, own_demo, "/api/pots/13/wrong")
    assert "pest" in [c["id"] for c in now["shown"]]
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_text("done: Pests seen", exact=False)).to_have_count(0)
    hand.press("Close the case")
    hand.choose("Cause", "Low humidity")
    page.locator("section", has_text="What was it?").get_by_role("button", name="Close the case").click()
    expect(said(page, "The case is closed.")).to_be_visible()
    causes = asked(page, own_demo, "/api/causes")
    assert {c["id"]: c["closed"] for c in causes["causes"]}["rh"] == 1


@SEATS
def test_a_limp_pot_is_told_apart_by_its_runoff(
    demo_address: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(demo_address, "/wrong/15", wide, tall)
    settled(page)
    expect(page.get_by_text("salt, not thirst", exact=False)).to_be_visible()
    expect(page.get_by_text("Watering waits", exact=False)).to_be_visible()
    expect(page.get_by_text("Supported by the log: flush", exact=False)).to_be_visible()
    kind(page).press("Open the flush", role="link")
    expect(page.get_by_role("heading", level=1)).to_be_visible()


@SEATS
def test_a_trial_is_planned_with_what_it_can_show_and_begun(
    own_demo: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(own_demo, "/trials", wide, tall)
    settled(page)
    hand = kind(page)
    expect(page.get_by_text("Told beforehand: no answer to be called sure.")).to_be_visible()
    hand.press("Add a trial")
    hand.fill("Question", "Tap instead of rain")
    hand.choose("Water of the changed ones", "Town water")
    hand.tick("A-05 Anthurium")
    hand.tick("A-06 Anthurium")
    expect(page.get_by_text("No answer to be called sure is possible", exact=False)).to_be_visible()
    hand.press("Save and begin")
    expect(page.get_by_role("heading", level=1)).to_have_text("Tap instead of rain")
    expect(said(page, "The trial runs from today.")).to_be_visible()
    trial = asked(page, own_demo, "/api/trials")[0]
    changed = next(m for m in asked(page, own_demo, f"/api/trials/{trial['id']}")["members"] if m["changed"])
    assert asked(page, own_demo, f"/api/pots/{changed['pot_id']}")["pour_water"] == "Town water"
    with page.expect_response(lambda answer: answer.request.method != "GET" and "trial" in answer.url):
        page.get_by_role("button", name="Undo").click()
    expect(said(page, "The trial runs")).to_have_count(0)
    assert "Tap instead of rain" not in [t["question"] for t in asked(page, own_demo, "/api/trials")]


@SEATS
def test_six_pairs_half_way_stand_on_one_axis(
    demo_address: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(demo_address, "/trials", wide, tall)
    settled(page)
    six = asked(page, demo_address, "/api/trials/1")["row"]["question"]
    kind(page).press(six, role="link", exact=False)
    expect(page.get_by_role("heading", level=1)).to_have_text(six)
    settled(page)
    assert page.get_by_role("img", name="Measured", exact=False).count() >= 3
    expect(page.get_by_text("Leaves gained:", exact=False)).to_be_visible()
    expect(page.get_by_text("Leave a pair out only if", exact=False)).to_be_visible()


@SEATS
def test_every_change_leads_to_its_answer(
    demo_address: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(demo_address, "/leaf", wide, tall)
    settled(page)
    hand = kind(page)
    hand.press("Every change", role="link")
    expect(page.get_by_role("heading", level=1)).to_have_text("Every change so far")
    hand.choose("Kind of change", "flush")
    expect(page.get_by_role("link", name="strength", exact=False)).to_have_count(0)
    hand.press("P-06: flushed", role="link")
    expect(page.get_by_role("heading", level=1)).to_have_text("Did it help P-06?")


@SEATS
def test_two_seasons_hang_on_one_line_and_a_note_is_kept(
    own_demo: str, open_page: Callable[..., Page], kind: type[Pointer], wide: int, tall: int
) -> None:
    page = open_page(own_demo, "/seasons/21", wide, tall)
    settled(page)
    hand = kind(page)
    expect(page.get_by_text("Equal nitrogen in another rhythm", exact=False)).to_be_visible()
    drawing = page.get_by_role("img", name="mg nitrogen", exact=False)
    assert "heights day" in (drawing.get_attribute("aria-label") or "")
    hand.press("Note for next season")
    hand.fill("What to do then", "begin feeding later")
    hand.press("Save")
    expect(said(page, "Note saved.")).to_be_visible()
    kept = asked(page, own_demo, "/api/pots/21/decisions")["decisions"][0]
    assert (kept["what"], kept["why"]) == ("Next season", "begin feeding later")


def test_a_logger_posts_is_bound_and_draws_the_days(own_demo: str, open_page: Callable[..., Page]) -> None:
    page = open_page(own_demo, "/house")
    settled(page)
    first = datetime(2026, 11, 20)
    rows = []
    for hour in range(60):
        at = (first + timedelta(hours=hour)).timestamp()
        rows += [
            {"bn": "urn:dev:x:hall:", "bt": at, "n": "temperature", "u": "Cel", "v": 17},
            {"n": "humidity", "u": "%RH", "v": 44},
        ]
    assert page.request.post(f"{own_demo}/api/inbox/senml", data=json.dumps(rows)).status == 201
    page.reload()
    settled(page)
    page.get_by_role("button", name="Bind urn:dev:x:hall").click()
    expect(said(page, "Logger bound.")).to_be_visible()
    expect(page.get_by_text("by logger", exact=False)).to_be_visible()
    air = asked(page, own_demo, "/api/places/1/air")
    assert next(d["humidity_pct"] for d in air["days"] if d["origin"] == "logger") == 44


def test_fit_before_buying_shows_what_a_month_costs(demo_address: str, open_page: Callable[..., Page]) -> None:
    page = open_page(demo_address, "/candidates?kind=medinilla")
    settled(page)
    hand = Pointer(page)
    hand.choose("Place", "Winter garden")
    hand.fill("Price of a kWh", "0.30")
    hand.press("Show what it costs")
    expect(page.get_by_text("kWh a month", exact=False).first).to_be_visible()
    expect(page.get_by_text("days measured", exact=False)).to_be_visible()
