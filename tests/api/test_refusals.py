"""Wrong input over HTTP: field, value, way out, and nothing half-saved."""

from typing import Any

import pytest
from sqlalchemy import func, select

from fenwa.store.models import Base
from tests.conftest import Client, pot, pour, reading

CAN = {"product_id": 1, "water_id": 1, "volume": 2, "strength": "nitrogen", "value": 40, "made_on": "2026-11-22"}
LOOK = {"on": "2026-11-22"}
FEED = {"name": "New", "n_nitrate_pct": 10}

WRONG: list[tuple[str, dict[str, Any], str, str]] = [
    ("/api/waters/1/readings", reading(value=-4), "/value", "Reading -4 µS/cm cannot be"),
    ("/api/waters/1/readings", reading(value=0), "/value", "Reading 0"),
    ("/api/waters/1/readings", reading(value=9000, unit="mS/cm"), "/value", "Check the unit"),
    ("/api/waters/1/readings", reading(value="abc"), "/value", "Value “abc” is not a number"),
    ("/api/waters/1/readings", reading(value=""), "/value", "Nothing is entered"),
    ("/api/waters/1/readings", reading(value="1,413"), "/value", "Write 1413 or 1.413"),
    ("/api/waters/1/readings", reading(temperature=-40, compensated=False), "/temperature_C", "temperature -40"),
    ("/api/waters/1/readings", reading(compensated=False), "/temperature_C", "temperature is missing"),
    ("/api/waters/1/readings", reading(on="2027-01-01"), "/on", "lies in the future"),
    ("/api/waters/1/readings", reading(on="soon"), "/on", "Date “soon” is not a date"),
    ("/api/waters/1/readings", reading(unit="grains"), "/unit", "is not a choice"),
    ("/api/waters", {"name": "", "kind": "rain"}, "/name", "Name is empty"),
    ("/api/waters", {"name": "x", "kind": "rain", "sodium_mg_L": -1}, "/sodium_mg_L", "Sodium -1"),
    ("/api/products", {**FEED, "k_pct": 95, "pk_as": "oxide"}, "/n_total_pct", "add up to 105 %"),
    ("/api/products", {**FEED, "n_nitrate_pct": -3}, "/n_nitrate_pct", "Nitrate nitrogen -3"),
    ("/api/products", {**FEED, "label_rate": 2, "label_rate_unit": "mL/L"}, "/label_rate_unit", "product is a powder"),
    ("/api/mix/dose", {**CAN, "strength": "ec_total", "value": 10}, "/value", "below Rain itself"),
    ("/api/mix/dose", {**CAN, "product_id": 11}, "/strength", "holds no nitrogen"),
    ("/api/mix/dose", {**CAN, "volume": 0}, "/volume", "Volume 0 L"),
    ("/api/batches", {**CAN, "made_on": "2027-02-01"}, "/made_on", "lies in the future"),
    ("/api/pours", pour(volume=-5), "/volume", "Volume -0.005 L"),
    ("/api/pours", pour(pot_ids=[]), "/pot_ids", "No pot is chosen"),
    ("/api/pours", pour(water_id=None), "/batch_id", "Choose what is poured"),
    ("/api/pours", pour(runoff_volume=900), "/runoff_volume", "more than the 250 mL poured"),
    ("/api/pours", pour(runoff_ec=9000, runoff_unit="mS/cm"), "/runoff_ec", "Check the unit"),
    ("/api/pours", pour(on="2026-12-24"), "/on", "lies in the future"),
    ("/api/pots/1/looks", {**LOOK, "leaves_count": 2.5}, "/leaves_count", "whole number"),
    ("/api/pots/1/looks", {**LOOK, "newest_leaf": 0}, "/newest_leaf", "Newest leaf 0 mm"),
    ("/api/pots/1/looks", {**LOOK, "marks": ["holes"]}, "/marks/0/kind", "is not a choice"),
    ("/api/pots", pot(code=""), "/code", "Code is empty"),
    ("/api/pots", pot(code="Z", volume=0), "/volume", "Volume 0 L"),
    ("/api/pots", pot(code="Z", volume=None), "/volume", "Enter litres, or the top diameter"),
    ("/api/pots", pot(code="Z", interval_days=0), "/interval_days", "Days between waterings 0"),
    ("/api/pots", pot(code="Z", interval_days=None), "/interval_days", "is empty"),
]


def rows(client: Client) -> dict[str, int]:
    with client.store.reading() as session:
        return {t.name: session.scalar(select(func.count()).select_from(t)) or 0 for t in Base.metadata.sorted_tables}


@pytest.mark.parametrize(("path", "body", "pointer", "says"), WRONG, ids=[f"{w[0]} {w[3][:28]}" for w in WRONG])
def test_refused_with_a_sentence_and_nothing_stored(
    still: Client, path: str, body: dict[str, Any], pointer: str, says: str
) -> None:
    before = rows(still)
    problem = still.refused(path, body)
    assert says in problem["detail"]
    assert problem["errors"][0]["pointer"] == pointer
    assert says in problem["errors"][0]["detail"]
    assert (problem["status"], problem["instance"]) == (422, path)
    assert problem["type"] == f"/problems/{problem['code']}"
    assert rows(still) == before


def test_what_is_missing_is_404_and_what_is_taken_409(kept: Client) -> None:
    assert "Pot 99 is not there" in kept.refused("/api/pours", pour(pot_ids=[1, 99]), 404)["detail"]
    assert kept.get("/api/pots/1")["pours"] == []
    assert "Code P-01 is taken" in kept.refused("/api/pots", pot(), 409)["detail"]
    assert kept.refused("/api/waters/77/readings", reading(), 404)["code"] == "not-found"
    assert kept.http.get("/api/nothing").json()["code"] == "http-404"


def test_sending_twice_stores_once(kept: Client) -> None:
    first = kept.made("/api/pours", pour(), key="same-key-1")
    again = kept.made("/api/pours", pour(), key="same-key-1")
    assert first == again
    assert len(kept.get("/api/pots/1")["pours"]) == 1
    other = kept.send("/api/pours", pour(volume=100), key="same-key-1")
    assert other.status_code == 409
    assert "used for another entry" in other.json()["detail"]


def test_a_refused_entry_may_be_corrected_under_its_key(kept: Client) -> None:
    assert kept.send("/api/pours", pour(volume=-1), key="retry-key").status_code == 422
    assert kept.send("/api/pours", pour(), key="retry-key").status_code == 201


def test_writes_need_a_key_and_valid_json(kept: Client) -> None:
    missing = kept.http.post("/api/pours", json=pour())
    assert missing.status_code == 422
    assert "idempotency" in missing.json()["detail"].lower()
    broken = kept.http.post("/api/calc/tds-to-ec", content="{", headers={"content-type": "application/json"})
    assert (broken.status_code, broken.json()["detail"]) == (400, "The request is not valid JSON. Send a JSON object.")


def test_a_broken_server_says_nothing_of_its_inside(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    def fails(*_: object) -> None:
        raise RuntimeError("secret inside")

    monkeypatch.setattr("fenwa.api.mix.station.open_products", fails)
    answer = kept.http.get("/api/mix")
    assert answer.status_code == 500
    assert "secret" not in answer.text
    assert "Nothing was stored" in answer.json()["detail"]
