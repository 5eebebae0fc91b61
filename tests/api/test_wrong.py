"""What is wrong, through the API: the log tells, checks move the order, cases close and teach; loggers fill days."""

import json
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from fenwa.devices.simulated_logger import DEVICE, SimulatedLogger, air_at, pack
from fenwa.store.answer_models import ClimateSample
from tests.conftest import TODAY, Client, pot

DAY = timedelta(days=1)


def look(client: Client, pot_id: int = 1, days: int = 0, **more: Any) -> None:
    on = TODAY - days * DAY
    Client(client.store, on).made(f"/api/pots/{pot_id}/looks", {"on": on.isoformat(), **more})


def wrong(client: Client, pot_id: int = 1) -> dict[str, Any]:
    return dict(client.get(f"/api/pots/{pot_id}/wrong"))


def said(page: dict[str, Any]) -> str:
    return " ".join(s["words"] for s in page["advice"]["sayings"])


def closed(page: dict[str, Any]) -> set[str]:
    return {c["act"] for c in page["advice"]["closed"]}


def test_nothing_seen_teaches_how_to_begin(kept: Client) -> None:
    page = wrong(kept)
    assert page["signs"] == []
    assert "Mark what you see at a look" in page["sentence"]
    assert page["stairs"]["result"]["steps"][0]["state"] == "done"


def test_brown_tips_have_two_readings_and_none_is_crowned(kept: Client) -> None:
    look(kept, marks=["tip"])
    page = wrong(kept)
    assert "brown tips" in page["signs"]
    two = page["readings"]
    assert (two["first"]["name"], two["second"]["name"]) == ("Water first", "Air first")
    assert two["separated_by"]
    assert all("%" not in c["word"] for c in page["shown"])
    assert "No cure before the check" in said(page)


def test_limp_on_a_moist_medium_waits_for_the_runoff(kept: Client) -> None:
    look(kept, marks=["limp"])
    page = wrong(kept)
    assert "limp leaves" in page["signs"]
    assert "feel the medium first" in said(page)
    assert {"water", "feed"} <= closed(page)
    kept.made("/api/pots/1/felt", {"on": TODAY.isoformat(), "moist": "moist"})
    page = wrong(kept)
    assert "limp on a moist medium" in page["signs"]
    assert "Read the runoff first" in said(page)
    assert {"water", "feed", "flush"} <= closed(page)
    kept.made("/api/checks", {"pot_id": 1, "check": "runoff", "on": TODAY.isoformat(), "finding": "runoff_over"})
    page = wrong(kept)
    assert page["shown"][0]["id"] == "salt"
    assert "salt, not thirst" in said(page)
    assert "water" in closed(page)
    steps = {s["id"]: s for s in page["stairs"]["result"]["steps"]}
    assert (steps["runoff"]["state"], steps["runoff"]["found"]) == ("done", "Runoff over the ceiling of its kind")


def test_a_check_opens_a_case_and_closing_it_teaches(kept: Client) -> None:
    look(kept, marks=["spot"])
    check = kept.made("/api/checks", {"pot_id": 1, "check": "lens", "on": TODAY.isoformat(), "finding": "pests_seen"})
    page = wrong(kept)
    assert page["shown"][0]["id"] == "pest"
    assert "put the pot apart" in said(page)
    assert "label and local rules" in said(page)
    case = page["case"]["id"]
    kept.made(f"/api/log/ill check/{check['id']}/archive")
    assert wrong(kept)["shown"][0]["weight"] < page["shown"][0]["weight"]
    kept.made("/api/cases", {"pot_id": 1, "reading": "brown", "school": "first"})
    kept.made(f"/api/cases/{case}/close", {"cause": "pest", "note": "mites"})
    assert kept.send(f"/api/cases/{case}/close", {"cause": "pest"}).status_code == 409
    causes = kept.get("/api/causes")
    pest = next(c for c in causes["causes"] if c["id"] == "pest")
    assert pest["closed"] == 1
    assert pest["own_prior_pct"] > pest["prior_pct"]
    assert wrong(kept)["own_closed"] == 1
    kept.made("/api/causes/reset")
    assert kept.get("/api/causes")["closed"] == 0
    assert wrong(kept)["closed"][0]["cause"] == "pest", "the case stays on record"


def test_a_reading_that_is_followed_orders_the_stairs(kept: Client) -> None:
    look(kept, marks=["tip"])
    kept.made("/api/cases", {"pot_id": 1, "reading": "brown", "school": "second"})
    page = wrong(kept)
    assert (page["case"]["reading"], page["case"]["school"]) == ("brown", "second")
    assert page["shown"][0]["id"] == page["readings"]["second"]["causes"][0]["id"]


def test_one_old_yellow_leaf_is_watched_and_a_second_raises_it(kept: Client) -> None:
    look(kept, days=10, marks=["yellow oldest"])
    assert f"watch until {(TODAY + 4 * DAY):%d %b %Y}" in said(wrong(kept))
    look(kept, marks=["yellow oldest"])
    assert "Too wet? Look first" in said(wrong(kept))


def test_yellow_green_reads_by_the_kind(kept: Client) -> None:
    orchid = kept.made("/api/pots", pot(code="CY-1", profile_id="cymbidium"))["id"]
    foliage = kept.made("/api/pots", pot(code="CT-1", profile_id="ctenanthe"))["id"]
    for one in (orchid, foliage):
        look(kept, one, marks=["yellow-green"])
    assert "right light" in said(wrong(kept, orchid))
    assert "look for a cause" in said(wrong(kept, foliage))


@pytest.mark.parametrize(
    ("path", "body", "pointer"),
    [
        ("/api/checks", {"pot_id": 1, "check": "pray", "on": "2026-11-23"}, "/check"),
        ("/api/checks", {"pot_id": 1, "check": "lens", "on": "2026-11-23", "finding": "runoff_over"}, "/finding"),
        ("/api/checks", {"pot_id": 1, "check": "lens", "on": "2027-11-23"}, "/on"),
        ("/api/cases", {"pot_id": 1, "reading": "tea", "school": "first"}, "/reading"),
        ("/api/cases", {"pot_id": 1, "reading": "brown"}, "/school"),
        ("/api/loggers", {"device": " ", "place_id": 1}, "/device"),
        ("/api/places/1/light", {"lux": 100}, "/hours"),
        ("/api/places/1/light", {"hours": 12}, "/ppfd_umol"),
        ("/api/places/1/air.csv", {"text": "time,humidity (%)\n2026-11-20T06:00,140\n"}, ""),
    ],
)
def test_refused_by_field(still: Client, path: str, body: dict[str, Any], pointer: str) -> None:
    answer = still.send(path, body)
    assert answer.status_code == 422, answer.text
    if pointer:
        assert pointer in {e["pointer"] for e in answer.json()["errors"]}
    else:
        assert "Row 2" in answer.json()["detail"] or "Line 2" in answer.json()["detail"]


def test_the_demonstration_holds_two_causes_in_turn_and_a_limp_pot_told_apart(demo: Client) -> None:
    page = wrong(demo, 13)
    assert page["together"].startswith("Two causes, one after the other: ")
    assert page["together"].endswith("then Low humidity. Treat one at a time.")
    assert page["evidence"]["waters"][1]["water"] == "Town water"
    limp = wrong(demo, 15)
    assert limp["shown"][0]["id"] == "salt"
    assert "salt, not thirst" in said(limp)


# loggers


def post(client: Client, rows: list[dict[str, Any]]) -> dict[str, Any]:
    answer = client.http.post("/api/inbox/senml", content=json.dumps(rows))
    assert answer.status_code == 201, answer.text
    return dict(answer.json())


def readings(
    device: str, first: datetime, n: int, celsius: float = 18.0, humidity: float = 35.0
) -> list[dict[str, Any]]:
    out: list[dict[str, Any]] = []
    for i in range(n):
        at = (first + timedelta(hours=i)).timestamp()
        out.append({"bn": f"{device}:", "bt": at, "n": "temperature", "u": "Cel", "v": celsius + i % 3})
        out.append({"n": "humidity", "u": "%RH", "v": humidity})
    return out


def test_a_logger_is_bound_once_and_fills_the_days_of_its_place(kept: Client) -> None:
    first = datetime.now(UTC).replace(minute=0, second=0, microsecond=0) - timedelta(hours=60)
    today = Client(kept.store, datetime.now().date())
    pack_ = readings("urn:dev:x:hall", first, 48)
    assert post(today, pack_)["stored"] == 48
    assert today.get("/api/places/1/air")["unbound"] == ["urn:dev:x:hall"]
    logger = today.made("/api/loggers", {"device": "urn:dev:x:hall", "place_id": 1})["id"]
    page = today.get("/api/places/1/air")
    assert page["unbound"] == []
    assert [x["device"] for x in page["loggers"]] == ["urn:dev:x:hall"]
    whole = [d for d in page["days"] if d["hours"] and d["hours"] > 20]
    assert whole
    assert (whole[0]["night_C"], whole[0]["day_C"], whole[0]["humidity_pct"]) == (18, 20, 35)
    assert whole[0]["hours_dry"] == pytest.approx(whole[0]["hours"])
    assert page["deficit"]["result"]["deficit_kPa"] > 1
    assert post(today, pack_) == {"stored": 0, "already_there": 48}, "posted again, stored once"
    assert today.send("/api/loggers", {"device": "urn:dev:x:hall", "place_id": 1}).status_code == 409
    kept.made(f"/api/log/logger/{logger}/archive")
    assert today.get("/api/places/1/air")["loggers"] == []


def test_a_frost_and_a_pen_are_told_apart(kept: Client) -> None:
    now = datetime.now(UTC).replace(microsecond=0)
    cold = [
        {"bn": "urn:dev:x:cold:", "bt": now.timestamp() - 60, "n": "t", "u": "Cel", "v": -3.5},
        {"n": "h", "u": "%RH", "v": 80},
    ]
    assert post(kept, cold)["stored"] == 1
    bad = kept.http.post("/api/inbox/senml", content=json.dumps([{"n": "a:b", "u": "%RH", "v": 101}]))
    assert bad.status_code == 422


def test_minutes_for_a_week_hours_for_a_year_days_for_good(kept: Client) -> None:
    rows = ["time,temperature (°C),humidity (%)"]
    start = datetime(2026, 11, 1)
    rows += [f"{(start + timedelta(minutes=20 * i)).isoformat()},15,60" for i in range(20 * 72)]
    made = kept.made("/api/places/1/air.csv", {"text": "\n".join(rows)})
    assert made == {"stored": 1440, "already_there": 0}
    with kept.store.reading() as session:
        left = session.query(ClimateSample).count()
    assert 7 * 72 <= left < 8 * 72 + 14 * 24 + 24
    days = kept.get("/api/places/1/air")["days"]
    assert len([d for d in days if d["origin"] == "logger"]) == 20
    assert kept.made("/api/places/1/air.csv", {"text": "\n".join(rows)})["stored"] < 1440


def test_a_logger_s_cold_nights_hold_the_feed(kept: Client) -> None:
    rows = ["time,temperature (°C)"]
    rows += [f"{TODAY - (6 - d) * DAY}T{h:02}:00,{4 if h < 6 else 15}" for d in range(6) for h in range(24)]
    kept.made("/api/places/1/air.csv", {"text": "\n".join(rows)})
    assert "cold" in {h["id"] for h in kept.get("/api/pots/1")["row"]["holds"]}


def test_the_light_of_a_place_follows_from_one_reading(kept: Client) -> None:
    made = kept.made("/api/places/1/light", {"hours": 12, "lux": 6500})
    assert made["result"]["mol"] == pytest.approx(4.32)
    assert kept.get("/api/places/1/air")["lamp_dli"] == 4.32


def test_the_simulated_logger_speaks_as_a_real_one(kept: Client) -> None:
    now = datetime(2026, 11, 23, 3, 0)
    rows = json.loads(pack(now))
    assert [r["u"] for r in rows] == ["Cel", "%RH"]
    assert rows[0]["bn"] == f"{DEVICE}:"
    assert air_at(now) == air_at(now)
    assert air_at(datetime(2026, 11, 23, 13, 0))[0] > air_at(now)[0]
    assert SimulatedLogger("http://127.0.0.1:9/none", lambda: now).post() is False, (
        "a server that is gone is tried again"
    )
    assert post(kept, rows)["stored"] == 1


def test_fit_before_buying_is_held_against_the_measured_place(kept: Client) -> None:
    rows = ["time,temperature (°C),humidity (%)"]
    rows += [f"{TODAY - (20 - d) * DAY}T{h:02}:00,16,35" for d in range(20) for h in range(24)]
    kept.made("/api/places/1/air.csv", {"text": "\n".join(rows)})
    fit = kept.made("/api/candidates/fit", {"profile_id": "medinilla", "place_id": 1, "price_kWh": "0.3"})
    assert fit["measured_days"] == 20
    assert fit["humidity"] == [35, 35]
    r = fit["fit"]["result"]
    assert {c["aspect"] for c in r["changes"]} >= {"air"}
    assert r["cost_month"] > 1
    assert "a month" in r["sentence"]
    assert kept.get("/api/pots")["pots"][0]["code"] == "P-01", "a candidate makes no pot"
