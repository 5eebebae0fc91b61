"""The first day of a pot, and what is found of one: neither a default nor a plan goes before what was seen."""

from datetime import timedelta
from typing import Any

import pytest

from tests.conftest import TODAY, Client, buy, pot


def jobs(client: Client) -> dict[str, str]:
    return {p["code"]: c["job"] for c in client.get("/api/round")["plan"]["cans"] for p in c["pots"]}


def whys(client: Client) -> dict[str, str]:
    return {p["code"]: p["why"] for c in client.get("/api/round")["plan"]["cans"] for p in c["pots"]}


def looks(client: Client) -> dict[str, str]:
    return {x["code"]: f"{x['reason']} {x['release']}" for x in client.get("/api/round")["plan"]["looks"]}


def add(client: Client, code: str, **told: Any) -> int:
    return int(client.made("/api/pots", pot(code=code, plain_every=4, **told))["id"])


@pytest.fixture
def later(client: Client) -> Client:
    """Rain, and a clock ten days on."""
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    buy(client)
    return Client(client.store, TODAY + timedelta(days=10))


def test_no_feed_is_due_on_a_pots_first_day_whatever_was_told(client: Client, later: Client) -> None:
    add(client, "P-01", watered_on="2026-11-01", fed_on="2026-10-01")
    assert jobs(client) == {"P-01": "plain"}
    assert jobs(later) == {"P-01": "feed"}, "told when it was fed: its rhythm goes on from there"


def test_what_nobody_knows_is_looked_at_first_and_never_fed(client: Client, later: Client) -> None:
    add(client, "P-01")
    assert jobs(later) == {"P-01": "plain"}
    assert whys(later)["P-01"].startswith("Look first: nobody told when it was watered last.")
    later.made("/api/pours", {"pot_ids": [1], "on": "2026-11-24", "water_id": 1, "volume": 150})
    assert jobs(later) == {"P-01": "feed"}, "watered once since: now it is known how it stands"


def test_watered_a_few_days_ago_is_not_due(client: Client, later: Client) -> None:
    add(client, "P-01", watered_on="2026-11-21")
    assert jobs(client) == {}
    assert jobs(later) == {"P-01": "plain"}, "fed is not known: plain at the next"
    assert "in the future" in client.refused("/api/pots", pot(code="X", watered_on="2026-11-24"))["detail"]


def test_a_phase_nobody_told_follows_the_season_and_says_so(client: Client, later: Client) -> None:
    rest = {"profile_id": "catasetum_group", "phase": "", "fed_on": "2026-11-01", "watered_on": "2026-11-01"}
    add(client, "C-01", **rest)
    add(client, "C-02", **{**rest, "phase": "active"})
    told = later.get("/api/pots/1/care")
    assert told["phase"] == "dormant"
    assert told["phase_sentence"].startswith("Not told, so by the season.")
    assert later.get("/api/pots/2/care")["phase"] == "active", "the grower's word rules"
    assert "C-01" not in jobs(later)
    assert "C-01" in looks(later)


@pytest.mark.parametrize(
    "found",
    [{"moist": "wet"}, {"roots": "green"}],
)
def test_felt_wet_is_not_watered_today_whatever_the_plan(client: Client, later: Client, found: dict[str, Any]) -> None:
    add(client, "P-01", watered_on="2026-11-01")
    assert jobs(later) == {"P-01": "plain"}
    later.made("/api/pots/1/felt", {"on": "2026-12-03", **found})
    assert jobs(later) == {}
    assert jobs(Client(client.store, TODAY + timedelta(days=11))) == {"P-01": "plain"}, "asked again the next day"


@pytest.mark.parametrize("found", [{"droops": True}, {"moist": "dry"}])
def test_droop_and_dry_are_answered_with_plain_water_and_never_with_feed(
    client: Client, later: Client, found: dict[str, Any]
) -> None:
    add(client, "P-01", watered_on="2026-11-20", fed_on="2026-10-01")
    client.made("/api/pours", {"pot_ids": [1], "on": "2026-11-22", "water_id": 1, "volume": 150})
    assert jobs(later) == {"P-01": "feed"}
    later.made("/api/pots/1/felt", {"on": "2026-12-03", **found})
    assert jobs(later) == {"P-01": "plain"}


def test_limp_in_a_wet_medium_and_rot_get_no_water_before_the_roots_were_looked_at(
    client: Client, later: Client
) -> None:
    for code in ("L-01", "R-01", "N-01"):
        add(client, code, watered_on="2026-11-01")
    assert set(jobs(later)) == {"L-01", "R-01", "N-01"}
    later.made("/api/pots/1/felt", {"on": "2026-12-02", "moist": "wet"})
    later.made("/api/pots/1/looks", {"on": "2026-12-03", "marks": ["limp"]})
    later.made("/api/pots/2/looks", {"on": "2026-12-03", "marks": ["rot"]})
    later.made("/api/pots/3/looks", {"on": "2026-12-03", "roots_working": False})
    assert jobs(later) == {}
    said = looks(later)
    assert "Limp in a wet medium: no water" in said["L-01"]
    assert "no water before the roots were looked at" in said["R-01"]
    assert "No living roots" in said["N-01"]
    later.made("/api/pots/2/looks", {"on": "2026-12-03", "marks": ["rot"], "roots_working": True})
    assert jobs(later) == {"R-01": "plain"}, "looked at: they live; water, and still no feed"


def test_a_history_entered_on_the_first_day_is_a_history(client: Client, later: Client) -> None:
    add(client, "P-01")
    client.made("/api/pours", {"pot_ids": [1], "on": "2026-11-10", "water_id": 1, "volume": 150})
    assert jobs(client) == {"P-01": "feed"}, "its waterings are known, though it was entered today"
