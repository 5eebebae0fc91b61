"""Days ahead: jobs besides water, the calendar parsed back by the library, going away, a round on another day."""

from datetime import date, timedelta
from typing import Any

import pytest
from icalendar import Calendar

from fenwa.store import models
from tests.conftest import TODAY, Client, pot, pour, reading, told

SAID = {"id": "x", "kind": "look again", "due_on": "2026-11-20"}


def events(client: Client) -> dict[str, Any]:
    """The calendar's entries by their lasting names."""
    answer = client.http.get("/api/calendar.ics")
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith("text/calendar")
    calendar = Calendar.from_ical(answer.content)
    assert str(calendar["version"]) == "2.0"
    found = {str(e["uid"]): e for e in calendar.walk("VEVENT")}
    assert len(found) == len(calendar.walk("VEVENT")), "no name stands twice"
    return found


def tray_pot(client: Client, **changes: Any) -> int:
    """A pitcher plant in a tray that arrived a year ago."""
    body = pot(
        code="S-01",
        profile_id="sarracenia",
        medium_id="peat_perlite",
        drainage="tray",
        route="tray",
        arrived_on="2025-10-01",
        **changes,
    )
    return int(client.made("/api/pots", body)["id"])


def jobs(client: Client) -> list[tuple[str, str]]:
    return [(j["kind"], j["title"]) for j in client.get("/api/round")["jobs"]]


def test_a_tray_pot_asks_for_its_rinse_until_it_is_told(kept: Client) -> None:
    tray = tray_pot(kept)
    (job,) = [j for j in kept.get("/api/round")["jobs"] if j["kind"] == "rinse tray pot"]
    assert job["late_days"] > 0
    assert job["done_here"]
    put_off = kept.made("/api/jobs/later", told(job) | {"pot_id": tray, "on": "2026-11-23", "days": 3})
    assert jobs(kept) == []
    assert jobs(Client(kept.store, TODAY + timedelta(days=3))) == [
        ("rinse tray pot", "S-01 Sarracenia: rinse the tray pot")
    ]
    kept.made(f"/api/log/event/{put_off['id']}/archive")
    kept.made("/api/jobs/done", told(job) | {"pot_id": tray, "on": "2026-11-23"})
    assert jobs(kept) == []
    cadence = kept.get("/api/days?days=120")["jobs"]
    later = Client(kept.store, TODAY + timedelta(days=400))
    assert "rinse tray pot" in [k for k, _ in jobs(later)], "and asks again when its time has come"
    assert cadence == [] or cadence[0]["due_on"] > "2026-11-23"


def test_a_quarantine_ends_by_a_word_and_meters_and_waters_ask_by_themselves(kept: Client) -> None:
    guest = tray_pot(kept, isolated=True)
    meter = kept.made("/api/meters", {"name": "Pen 1"})["id"]
    kept.made(f"/api/meters/{meter}/checks", {"on": "2026-08-01", "shown": 1413, "temperature": 25})
    later = Client(kept.store, TODAY + timedelta(days=90))
    found = {j["kind"]: j for j in later.get("/api/round")["jobs"]}
    assert {"end of quarantine", "meter check", "water re-test"} <= set(found)
    assert not found["meter check"]["done_here"], "checking it is what settles it"
    later.made("/api/jobs/done", told(found["end of quarantine"]) | {"pot_id": guest, "on": "2027-02-21"})
    row = next(p for p in later.get("/api/pots")["pots"] if p["id"] == guest)
    assert row["isolated"] is False
    water = later.made("/api/waters/1/readings", reading(on="2027-02-21", value=36))
    assert water["id"]
    assert "water re-test" not in {j["kind"] for j in later.get("/api/round")["jobs"]}


@pytest.mark.parametrize(
    ("path", "body", "sentence"),
    [
        ("/api/jobs/done", SAID | {"on": "2026-11-24"}, "in the future"),
        ("/api/jobs/later", SAID | {"on": "2026-11-23", "days": 0}, "Days"),
        ("/api/jobs/later", SAID | {"on": "2026-11-23", "days": "soon"}, "Days"),
    ],
)
def test_a_refused_word_changes_nothing(still: Client, path: str, body: dict[str, Any], sentence: str) -> None:
    assert sentence in still.refused(path, body)["detail"]
    with still.store.reading() as session:
        assert session.query(models.Event).count() == 0


def test_the_calendar_is_read_back_by_the_library_and_its_names_last(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-22"))
    tray_pot(kept)
    first = events(kept)
    rounds = sorted(e["dtstart"].dt for uid, e in first.items() if uid.startswith("round-"))
    assert rounds[0] == TODAY, "the tray pot was never watered"
    assert date(2026, 11, 28) in rounds, "six days after the pour of the 22nd"
    assert all(e["dtend"].dt - e["dtstart"].dt == timedelta(days=1) for e in first.values())
    job = next(e for uid, e in first.items() if "rinse" in uid)
    assert str(job["summary"]) == "S-01 Sarracenia: rinse the tray pot"
    assert "Due since" in str(job["description"])
    assert job["categories"].to_ical() == b"job"
    assert set(events(kept)) == set(first), "asked again, nothing is named anew"
    tomorrow = set(events(Client(kept.store, TODAY + timedelta(days=1))))
    assert {u for u in first if "rinse" in u} <= tomorrow


def test_the_calendar_of_an_odd_name_keeps_it_whole(kept: Client) -> None:
    kept.made("/api/pots", pot(code='Ä;1, \\n"x"', name="Überlänge " * 12))
    text = " ".join(str(e.get("description", "")) for e in events(kept).values())
    assert 'Ä;1, \\n"x"' in text


def test_a_round_is_told_for_a_day_ahead_and_today_is_not_moved_by_it(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-22"))
    assert kept.get("/api/round")["plan"]["pots_due"] == 0
    ahead = kept.get("/api/round?on=2026-11-28")
    assert (ahead["today"], ahead["plan"]["pots_due"]) == ("2026-11-28", 1)
    assert kept.get("/api/round")["plan"]["pots_due"] == 0
    assert kept.get("/api/days?days=7")["coming"]["result"]["rounds"][0]["on"] == "2026-11-28"
    for on in ("2026-11-22", "2027-03-01"):
        assert kept.http.get(f"/api/round?on={on}").status_code == 422


def test_going_away_names_the_helpers_days_and_leaves_sleepers_alone(kept: Client) -> None:
    kept.made("/api/pots", pot(code="D-01", profile_id="dendrobium_deciduous", phase="dormant"))
    page = kept.get("/api/away?leaving=2026-12-20&back=2027-01-10")
    rows = {r["code"]: r for r in page["plan"]["result"]["rows"]}
    assert rows["P-01"]["risk"] == "high"
    assert rows["P-01"]["water"] == "Rain"
    assert rows["P-01"]["days"] == ["2026-12-26", "2027-01-01", "2027-01-07"]
    assert rows["D-01"]["risk"] == "leave alone"
    assert "Do not water." in rows["D-01"]["sentence"]
    assert len(page["plan"]["result"]["visits"]) == 3
    for query in ("leaving=2026-11-01&back=2026-12-01", "leaving=2026-12-20&back=2026-12-19"):
        assert kept.http.get(f"/api/away?{query}").status_code == 422


def test_a_new_phase_does_not_put_off_the_rinse_of_a_tray_pot(client: Client) -> None:
    client.made("/api/pots", pot(code="S-01", profile_id="sarracenia", route="tray", drainage="tray"))
    client.made("/api/pots/1/phase", {"phase": "active", "since": "2025-06-01"})
    client.made("/api/pots/1/phase", {"phase": "slowing", "since": "2026-11-01"})
    job = next(j for j in client.get("/api/round")["jobs"] if j["kind"] == "rinse tray pot")
    assert job["due_on"] == "2026-06-01", "a year after it was first known"
