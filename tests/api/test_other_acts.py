"""What a grower does beside the plan: another feed, one plant alone, a hosed place, another order of waters."""

from datetime import date

import pytest

from tests.conftest import Client, pot

DAY = "2026-11-23"


@pytest.fixture
def home(client: Client) -> Client:
    """Rain, and a pot with two plants that was watered a week ago."""
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    told = {"watered_on": "2026-11-16", "fed_on": "2026-10-20", "plain_every": 4, "medium_charged": False}
    client.made("/api/pots", pot(code="T-01", others=[{"profile_id": "paphiopedilum", "label": "R2"}], **told))
    return client


def pour(**more: object) -> dict[str, object]:
    return {"pot_ids": [1], "on": DAY, "volume": 100, **more}


def test_something_else_is_a_feed_of_unknown_strength(home: Client) -> None:
    home.made("/api/pours", pour(gave="half a cap of the neighbour's feed", note="by hand"))
    (kept,) = home.get("/api/pots/1")["pours"]
    assert (kept["job"], kept["ec_uS_cm"], kept["ec_estimated"]) == ("feed", None, True)
    assert kept["gave"] == "half a cap of the neighbour's feed"
    home.made("/api/plans", {"scope": "all", "rhythm": "days", "every_days": 14})
    assert home.get("/api/pots/1/care")["next_feed"]["result"]["feed_from"] == "2026-12-07", "it counts as a feed"
    refused = home.refused("/api/pours", pour(gave="leftover", flush=True))
    assert "neither a can of the log nor a flush" in refused["detail"]
    assert len(home.get("/api/pots/1")["pours"]) == 1, "nothing changed"


def test_one_plant_of_a_pot_is_watered_and_looked_at_alone(home: Client) -> None:
    lead, piece = (p["id"] for p in home.get("/api/pots/1/plants"))
    before = home.get("/api/pots/1/care")
    home.made("/api/pours", pour(water_id=1, volume=20, plant_id=piece, note="R2 only"))
    assert home.get("/api/pots/1/care")["next_on"] == before["next_on"], "the pot's own rhythm goes on"
    home.made("/api/pots/1/looks", {"on": DAY, "new_leaf": True, "plant_id": piece})
    assert home.get("/api/pots/1")["looks"][-1]["new_leaf"] is True
    after = home.get("/api/pots/1/care")
    assert [h["id"] for h in after["holds"]] == [h["id"] for h in before["holds"]], "a leaf on R2 is booked on R2"
    home.made("/api/pours", pour(water_id=1, plant_id=lead))
    wrong = home.refused("/api/pours", pour(water_id=1, plant_id=99), 404)
    assert "does not stand in this pot" in wrong["detail"]
    home.made("/api/pots", pot(code="T-02"))
    both = home.refused("/api/pours", pour(water_id=1, plant_id=piece) | {"pot_ids": [1, 2]})
    assert both["errors"][0]["pointer"] == "/pot_ids"


@pytest.mark.parametrize(("order", "first"), [("own", "Pump"), ("purest", "Permeate"), ("cheapest", "Rain")])
def test_fit_waters_are_ranked_as_chosen(home: Client, order: str, first: str) -> None:
    for name, kind, told in (("Pump", "rain", {"preference": 1, "price_per_L": 0.2}), ("Permeate", "permeate", {})):
        home.made("/api/waters", {"name": name, "kind": kind, "price_per_L": 0.4, **told})
    for water, ec in ((1, 40), (2, 30), (3, 8)):
        home.made(f"/api/waters/{water}/readings", {"on": DAY, "value": ec, "unit": "µS/cm"})
    settings = home.get("/api/settings") | {"water_order": order}
    assert home.send("/api/settings", settings, method="PUT").status_code == 200
    assert home.get("/api/pots/1")["pour_water"] == first
    assert {c["water_name"] for c in home.get("/api/round")["plan"]["cans"]} <= {first}


def test_a_place_is_hosed_once_a_day_whatever_is_tapped(home: Client) -> None:
    home.made("/api/pots", pot(code="T-02", place="Elsewhere"))
    assert len(home.made("/api/places/1/hosed", {"on": DAY})["pour_ids"]) == 1, "the pots of the place alone"
    assert home.made("/api/places/1/hosed", {"on": DAY})["pour_ids"] == []
    tomorrow = Client(home.store, date(2026, 11, 24))
    assert len(tomorrow.made("/api/places/1/hosed", {"on": "2026-11-24"})["pour_ids"]) == 1
    assert "future" in home.refused("/api/places/1/hosed", {"on": "2026-11-25"})["detail"]
    assert home.refused("/api/places/9/hosed", {"on": DAY}, 404)["errors"][0]["pointer"] == "/place_id"
