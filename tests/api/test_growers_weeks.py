"""Growers' weeks played through what a click runs, the clock moved day by day, without a meter.

One date for one check on every page; a leaf that forms; a charged mix; a holiday; a rest that is kept.
"""

from datetime import date, timedelta
from typing import Any

import pytest
from icalendar import Calendar

from tests.conftest import Client, buy, pot

START = date(2027, 2, 7)


def on(client: Client, day: date) -> Client:
    """The same collection on another day."""
    return Client(client.store, day)


def jobs(client: Client) -> dict[str, str]:
    return {p["code"]: c["job"] for c in client.get("/api/round")["plan"]["cans"] for p in c["pots"]}


def next_by_page(client: Client, code: str) -> dict[str, date]:
    """The next day a pot is on a round, as each page tells it; from today on."""
    coming = client.get("/api/days?days=15")["coming"]["result"]["rounds"]
    by_days = min(date.fromisoformat(r["on"]) for r in coming)
    answer = client.http.get("/api/calendar.ics")
    events = Calendar.from_ical(answer.content).walk("VEVENT")
    by_calendar = min(e["dtstart"].dt for e in events if str(e["uid"]).startswith("round-"))
    due = [d for d in (by_days - timedelta(days=1), by_days) if code in round_of(client, d)]
    return {"round": min(due), "days": by_days, "calendar": by_calendar}


def round_of(client: Client, day: date) -> set[str]:
    """Pots in the cans of a day's round, told today."""
    cans = client.get(f"/api/round?on={day}")["plan"]["cans"]
    return {p["code"] for c in cans for p in c["pots"]}


def helpers_first(client: Client, leaving: date) -> date:
    """The helper's first day; all pots are watered on the day of leaving."""
    page = client.get(f"/api/away?leaving={leaving}&back={leaving + timedelta(days=14)}")
    (row,) = page["plan"]["result"]["rows"]
    return date.fromisoformat(row["days"][0])


@pytest.fixture
def flat(client: Client) -> Client:
    """A flat with rain that nobody read and one pot, watered every eighth day."""
    here = on(client, date(2027, 1, 1))
    here.made("/api/waters", {"name": "Barrel", "kind": "rain"})
    here.made("/api/pots", pot(code="X-01", profile_id="maranta", interval_days=8, interval_by="learnt", plain_every=0))
    for day in (3, 11, 19, 27):
        poured_on(on(client, date(2027, 1, day)), date(2027, 1, day))
    poured_on(on(client, date(2027, 2, 4)), date(2027, 2, 4))
    return client


def poured_on(client: Client, day: date, **changes: Any) -> dict[str, Any]:
    body = {"pot_ids": [1], "on": str(day), "water_id": 1, "volume": 150, **changes}
    return dict(client.made("/api/pours", body))


def test_every_page_tells_one_day_for_one_check(flat: Client) -> None:
    found = next_by_page(on(flat, START), "X-01")
    assert set(found.values()) == {date(2027, 2, 12)}, found
    assert helpers_first(on(flat, START), START) == date(2027, 2, 12), "the helper comes on the round's own day"


def test_a_forming_leaf_halves_the_gap_on_every_page_and_its_opening_gives_it_back(flat: Client) -> None:
    here = on(flat, START)
    here.made("/api/pots/1/looks", {"on": str(START), "new_growth": True})
    found = next_by_page(here, "X-01")
    assert set(found.values()) == {date(2027, 2, 8)}, found
    assert helpers_first(here, START) == date(2027, 2, 8)
    (row,) = here.get("/api/pots")["pots"]
    assert row["interval_days"] == pytest.approx(4, abs=0.3)
    here.made("/api/pots/1/looks", {"on": str(START), "growth_stopped": True})
    (row,) = here.get("/api/pots")["pots"]
    assert row["interval_days"] == pytest.approx(8, abs=0.5)


def test_a_pour_put_in_late_moves_the_next_check_and_archiving_it_moves_it_back(flat: Client) -> None:
    here = on(flat, START)
    before = next_by_page(here, "X-01")
    late = poured_on(here, date(2027, 2, 6))
    after = next_by_page(here, "X-01")
    assert len(set(after.values())) == 1
    assert after["round"] > before["round"]
    here.made(f"/api/log/pour/{late['pour_ids'][0]}/archive")
    assert next_by_page(here, "X-01") == before


def test_a_missed_feed_is_given_once_and_never_made_up_for(client: Client) -> None:
    here = on(client, date(2027, 5, 1))
    here.made("/api/waters", {"name": "Barrel", "kind": "rain"})
    product = buy(here)
    here.made("/api/pots", pot(code="F-01", profile_id="maranta", plain_every=2, fed_on="2027-04-20"))
    poured_on(here, date(2027, 5, 1))
    away = on(client, date(2027, 6, 20))
    assert jobs(away) == {"F-01": "feed"}
    cans = away.get("/api/round")["plan"]["cans"]
    assert [len(c["pots"]) for c in cans] == [1], "one can, one pour"
    recipe = {
        "product_id": product,
        "water_id": 1,
        "volume": 1,
        "strength": "nitrogen",
        "value": 40,
        "made_on": "2027-06-20",
    }
    can = away.made("/api/batches", recipe)["id"]
    poured_on(away, date(2027, 6, 20), batch_id=can, water_id=None)
    assert jobs(on(client, date(2027, 6, 26))) == {"F-01": "plain"}, "after a feed comes plain, whatever was missed"


@pytest.mark.parametrize("day", [date(2027, 12, 1), date(2027, 12, 20), date(2028, 1, 10), date(2028, 1, 31)])
def test_a_catasetum_in_its_dry_rest_gets_neither_water_nor_feed(client: Client, day: date) -> None:
    here = on(client, date(2027, 11, 2))
    here.made("/api/waters", {"name": "Barrel", "kind": "rain"})
    here.made(
        "/api/pots",
        pot(code="C-01", profile_id="catasetum_group", phase="dormant", watered_on="2027-10-20", fed_on="2027-10-01"),
    )
    later = on(client, day)
    assert jobs(later) == {}
    (look,) = [x for x in later.get("/api/round")["plan"]["looks"] if x["code"] == "C-01"]
    assert look["reason"]
    assert look["release"], "held, with what ends it"


def test_softened_water_is_refused_for_all_and_distilled_needs_no_reading(client: Client) -> None:
    here = on(client, date(2027, 9, 1))
    here.made("/api/waters", {"name": "Kitchen", "kind": "softened", "disinfectant": "none"})
    kept = ("anthurium_flowering", "paphiopedilum", "phragmipedium", "nephrolepis")
    for n, kind in enumerate(kept):
        here.made("/api/pots", pot(code=f"H-{n:02}", profile_id=kind, plain_every=0))
    assert jobs(here) == {}
    plan = here.get("/api/round")["plan"]
    assert {x["code"] for x in plan["looks"]} >= {f"H-{n:02}" for n in range(len(kept))}, "shown, never dropped"
    here.made("/api/waters", {"name": "Jugs", "kind": "distilled"})
    assert set(jobs(here).values()) == {"plain"}
    assert {c["water_name"] for c in here.get("/api/round")["plan"]["cans"]} == {"Jugs"}


def test_drops_clear_the_chlorine_and_nothing_else(client: Client) -> None:
    here = on(client, date(2027, 2, 1))
    tap = here.made("/api/waters", {"name": "Tap", "kind": "mains", "disinfectant": "free chlorine"})["id"]
    before = here.get("/api/water")["waters"][0]
    here.made(f"/api/waters/{tap}/treatments", {"on": "2027-02-01", "kind": "conditioner"})
    after = here.get("/api/water")["waters"][0]
    assert after["ec25_uS_cm"] is None
    assert after["usual"] == before["usual"], "no salt left it"
