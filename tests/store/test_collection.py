"""What pages read: newest usable reading, order of waters, usual volumes, what a look leaves."""

from datetime import date, timedelta
from threading import Thread
from typing import Any

import pytest

from fenwa.core.care.day import needs_of
from fenwa.store.collection import pots_today
from fenwa.store.models import Pour, Water
from fenwa.store.water_state import waters_today
from tests.conftest import TODAY, Client, pot, pour, reading


def water(client: Client, **changes: Any) -> int:
    return int(client.made("/api/waters", {"name": "Tap", "kind": "mains", **changes})["id"])


def test_waters_stand_in_the_growers_order(client: Client) -> None:
    for name, rank in (("Third", 30), ("First", 1), ("Second", 2)):
        water(client, name=name, preference=rank)
    assert [w["name"] for w in client.get("/api/water")["waters"]] == ["First", "Second", "Third"]


@pytest.mark.parametrize(
    ("entries", "usable", "newest"),
    [
        ([("2026-11-01", 40, None)], 40, 40),
        ([("2026-11-01", 40, None), ("2026-11-20", 50, None)], 50, 50),
        ([("2026-11-20", 50, None), ("2026-11-01", 40, None)], 50, 50),
        ([("2026-11-20", 50, None), ("2026-11-20", 52, None)], 52, 52),
        ([("2026-11-01", 40, None), ("2026-11-20", 60, "unknown")], 40, None),
        ([("2026-11-20", 60, "unknown")], None, None),
        ([("2026-11-20", 60, "unknown"), ("2026-11-21", 60, "0.5")], 120, 120),
    ],
)
def test_newest_usable_reading(
    client: Client, entries: list[tuple[str, float, str | None]], usable: float | None, newest: float | None
) -> None:
    water_id = water(client)
    for on, value, scale in entries:
        unit = {"unit": "ppm", "scale": scale} if scale else {}
        client.made(f"/api/waters/{water_id}/readings", reading(on=on, value=value, **unit))
    with client.store.reading() as session:
        found = waters_today(session, TODAY)[0]
        assert found.ec25_uS_cm == usable
        assert found.newest is not None
        assert found.newest.ec25_uS_cm == newest
        assert found.base().measured is (usable is not None)


def test_an_archived_reading_gives_way_to_the_one_before(client: Client) -> None:
    water_id = water(client)
    client.made(f"/api/waters/{water_id}/readings", reading(on="2026-11-01", value=40))
    last = client.made(f"/api/waters/{water_id}/readings", reading(on="2026-11-20", value=400))["id"]
    client.made(f"/api/log/reading/{last}/archive")
    assert client.get("/api/water")["waters"][0]["ec25_uS_cm"] == 40


def test_an_archived_water_leaves_the_rail_and_comes_back(client: Client) -> None:
    water_id = water(client)
    client.made(f"/api/log/water/{water_id}/archive")
    assert client.get("/api/water")["waters"] == []
    client.made(f"/api/log/water/{water_id}/restore")
    assert len(client.get("/api/water")["waters"]) == 1


def test_the_day_of_the_clock_bounds_what_is_seen(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-22"))
    earlier = Client(kept.store, TODAY - timedelta(days=10))
    assert earlier.get("/api/pots/1")["pours"] == []
    assert earlier.get("/api/water")["waters"][0]["ec25_uS_cm"] is None


def test_usual_volume_is_set_seen_or_derived(kept: Client) -> None:
    derived = kept.get("/api/pots")["pots"][0]["volume_L"]
    assert 0.02 <= derived < 0.3
    for n, volume in enumerate((200, 220, 240)):
        kept.made("/api/pours", pour(on=f"2026-11-{10 + n}", volume=volume))
    kept.made("/api/pours", pour(on="2026-11-14", volume=2000, flush=True))
    assert kept.get("/api/pots")["pots"][0]["volume_L"] == pytest.approx(0.22)


def test_feeds_since_plain_count_back_from_today(kept: Client) -> None:
    can = kept.made(
        "/api/batches",
        {"product_id": 1, "water_id": 1, "volume": 2, "strength": "nitrogen", "value": 40, "made_on": "2026-11-01"},
    )
    for day, plain in ((2, True), (6, False), (10, False)):
        source = {"water_id": 1} if plain else {"water_id": None, "batch_id": can["id"]}
        kept.made("/api/pours", pour(on=f"2026-11-{day:02}", **source))
    with kept.store.reading() as session:
        log = pots_today(session, TODAY)[0].log
        assert log.feeds_since_plain == 2
        assert log.last_feed_on == date(2026, 11, 10)
        assert [p.job for p in session.query(Pour).order_by(Pour.on)] == ["plain", "feed", "feed"]


def test_a_crust_holds_feed_until_it_is_flushed(kept: Client) -> None:
    kept.made("/api/pots/1/looks", {"on": "2026-11-20", "marks": ["crust"]})
    assert [h["id"] for h in kept.get("/api/pots/1")["row"]["holds"]] == ["crust"]
    kept.made("/api/pours", pour(volume=2000, flush=True))
    assert kept.get("/api/pots/1")["row"]["holds"] == []


def test_a_new_leaf_ends_the_hold_on_an_arrival(client: Client) -> None:
    client.made("/api/pots", pot(arrived_on="2026-11-01"))
    assert client.get("/api/pots/1")["row"]["holds"][0]["id"] == "just arrived"
    client.made("/api/pots/1/looks", {"on": "2026-11-20", "new_leaf": True, "newest_leaf": 20})
    assert client.get("/api/pots/1")["row"]["holds"] == []


def test_several_submissions_at_once_are_each_stored_once(kept: Client) -> None:
    answers: list[int] = []

    def send(key: str) -> None:
        answers.append(kept.send("/api/pours", pour(note=key), key=key).status_code)

    threads = [Thread(target=send, args=(f"parallel-{n % 5}",)) for n in range(15)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    assert answers == [201] * 15
    assert len(kept.get("/api/pots/1")["pours"]) == 5


def test_needs_follow_the_profile(kept: Client) -> None:
    with kept.store.reading() as session:
        p = pots_today(session, TODAY)[0]
        needs = needs_of(p.profile)
        assert needs.ec_max_uS_cm == p.profile.source_water.ec_max_uS_cm
        assert needs.name == "Paphiopedilum"
        assert session.query(Water).count() == 1


@pytest.mark.parametrize(
    ("body", "litres"),
    [({"volume": 0.9}, 0.9), ({"volume": "1,25"}, 1.25), ({"volume": None, "top_cm": 13, "height_cm": 11}, 1.034)],
)
def test_pot_volume_as_entered_or_from_its_measures(client: Client, body: dict[str, Any], litres: float) -> None:
    client.made("/api/pots", pot(**body))
    assert client.get("/api/pots/1")["pot_volume_L"] == pytest.approx(litres, rel=0.01)


def test_a_charged_medium_starts_high(client: Client) -> None:
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    client.made("/api/waters/1/readings", reading(value=34))
    for code, charged in (("P-01", None), ("P-02", True)):
        client.made("/api/pots", pot(code=code, medium_charged=charged))
    client.made("/api/pours", pour(pot_ids=[1, 2]))
    rows = {p["code"]: p["reading_uS_cm"] for p in client.get("/api/pots")["pots"]}
    assert rows["P-02"] > 5 * rows["P-01"]
