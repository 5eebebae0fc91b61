"""Rules that hold for every write of the Water station: once, whole, kept; and what its doors refuse."""

from datetime import date
from typing import Any

import pytest
from sqlalchemy import select

from fenwa.cli import app as command_line
from fenwa.store.models import Finding, InboxEntry, Meter, MeterCheck, Reading, Report, Water
from fenwa.store.water_state import calibration_of, waters_today
from tests.conftest import TODAY, Client, reading

LINES = [{"quantity": "Ca", "typed": "100"}, {"quantity": "alkalinity", "typed": "5", "unit": "meq/L"}]
# path, body, how many rows of which table one sending makes
WRITES: list[tuple[str, dict[str, Any], type[Any], int]] = [
    ("/api/waters", {"name": "Tap", "kind": "mains"}, Water, 1),
    ("/api/waters/1/readings", reading(amounts=[{"quantity": "pH", "typed": "6"}]), Reading, 1),
    ("/api/waters/1/reports", {"on": "2026-11-01", "lines": LINES}, Report, 1),
    ("/api/waters/1/reports", {"on": "2026-11-01", "lines": LINES}, Finding, 2),
    ("/api/meters", {"name": "Pen"}, Meter, 1),
    ("/api/readings/import", {"text": "water,date,value\nRain,2026-11-01,30\nRain,2026-11-02,31\n"}, Reading, 2),
]


def count(client: Client, table: type[Any]) -> int:
    with client.store.reading() as session:
        return len(session.scalars(select(table)).all())


@pytest.mark.parametrize(("path", "body", "table", "rows"), WRITES, ids=[f"{w[0]} {w[2].__name__}" for w in WRITES])
def test_sent_twice_stored_once(kept: Client, path: str, body: dict[str, Any], table: type[Any], rows: int) -> None:
    before = count(kept, table)
    first = kept.made(path, body, key="same-key-1")
    assert kept.made(path, body, key="same-key-1") == first
    assert count(kept, table) == before + rows
    assert kept.send(
        path, {**body, "note": "another", "name": "another", "text": "another"}, key="same-key-1"
    ).status_code in (409, 422)
    assert count(kept, table) == before + rows


@pytest.mark.parametrize(
    ("path", "method"),
    [
        ("/api/waters/99/readings", "POST"),
        ("/api/waters/99/reports", "POST"),
        ("/api/waters/99/treatments", "POST"),
        ("/api/meters/99/checks", "POST"),
        ("/api/water/membrane/99/pairs", "POST"),
        ("/api/waters/99", "PUT"),
        ("/api/meters/99", "PUT"),
        ("/api/water/membrane/99/floor", "PUT"),
        ("/api/inbox/99/keep", "POST"),
    ],
)
def test_what_is_not_there_is_said(still: Client, path: str, method: str) -> None:
    body = {
        "on": "2026-11-01",
        "value": 5,
        "lines": LINES,
        "kind": "stood",
        "shown": 1400,
        "feed": 400,
        "permeate": 20,
        "name": "x",
        "floor_pct": 90,
        "water_id": 1,
    }
    if method == "PUT" and "waters" in path:
        body["kind"] = "rain"
    answer = still.send(path, body, method=method)
    assert answer.status_code == 404, answer.text
    assert "is not there" in answer.json()["detail"]


@pytest.mark.parametrize(
    ("path", "body", "says"),
    [
        ("/api/waters", {"name": "x", "kind": "rain", "on_hand_L": -1}, "Litres on hand -1 L"),
        ("/api/waters", {"name": "x", "kind": "soft water"}, "is not a choice"),
        ("/api/waters/1/treatments", {"on": "2026-11-01", "kind": "blessed"}, "is not a choice"),
        ("/api/waters/1/treatments", {"on": "2027-11-01", "kind": "stood"}, "lies in the future"),
        (
            "/api/waters/1/treatments",
            {"on": "2026-11-01", "kind": "carbon", "before": 0, "after": 5},
            "Reading before 0",
        ),
        ("/api/meters", {"name": " "}, "Name is empty"),
        ("/api/meters", {"name": "x", "resolution": 0}, "Display step 0"),
        ("/api/meters", {"name": "x", "alpha_pct_per_C": 20}, "Compensation 20"),
        ("/api/meters", {"name": "x", "accuracy_pct_fs": 80}, "Accuracy 80"),
        ("/api/meters", {"name": "x", "range_uS_cm": 0}, "Range 0"),
        ("/api/waters/1/reports", {"on": "2027-11-01", "lines": LINES}, "lies in the future"),
        ("/api/waters/1/reports", {"on": "2026-11-01", "reported_uS_cm": -1, "lines": LINES}, "Reported EC -1"),
        ("/api/waters/1/readings", reading(meter_id=9), "Meter 9 is not there"),
        ("/api/water/blend", {"water_ids": [1], "targets": [{"quantity": "ec", "value": 50}]}, "takes 2 to 6 waters"),
        ("/api/water/blend", {"water_ids": [1, 1], "targets": [{"quantity": "ec", "value": 50}]}, "chosen twice"),
        ("/api/water/blend", {"water_ids": [1, 9], "targets": []}, "Water 9 is not there"),
        ("/api/water/dechlorinate", {"volume": 0}, "Volume 0 L"),
        ("/api/water/boil", {"water_id": 1, "volume": 5, "boiled_off_pct": 90}, "Calcium or alkalinity"),
    ],
)
def test_wrong_entries_get_a_sentence(still: Client, path: str, body: dict[str, Any], says: str) -> None:
    answer = still.send(path, body)
    assert answer.status_code in (404, 422)
    assert says in answer.json()["detail"]
    assert answer.json()["detail"].rstrip().endswith(".")


def test_the_inbox_has_the_same_doors_as_everything_else(kept: Client) -> None:
    pack = '[{"n":"urn:dev:x:ec","u":"S/m","v":0.003,"t":1763000000}]'
    for headers in ({"origin": "http://evil.example"}, {"host": "evil.example"}, {"sec-fetch-site": "cross-site"}):
        assert kept.http.post("/api/inbox/senml", content=pack, headers=headers).status_code == 403
    assert kept.http.post("/api/inbox/senml", content=b"x" * 1_000_001).status_code == 413
    assert count(kept, InboxEntry) == 0
    for kind in ("application/senml+json", "application/json", "text/plain"):
        kept.http.post("/api/inbox/senml", content=pack, headers={"content-type": kind})
    assert count(kept, InboxEntry) == 1


def test_a_years_checks_of_the_demonstration_follow_its_pen(demo: Client) -> None:
    with demo.store.reading() as session:
        pens = {m.name: m for m in session.scalars(select(Meter))}
        checks = session.scalars(select(MeterCheck).where(MeterCheck.meter_id == pens["Pen 1"].id)).all()
        assert len({c.on for c in checks}) == 4
        now, then = (calibration_of(session, pens["Pen 1"], d) for d in (TODAY, date(2026, 6, 1)))
        assert now is not None
        assert then is not None
        assert now.result.slope < then.result.slope
        assert now.result.drift_pct_month is not None
        assert now.result.drift_pct_month < 0
        assert calibration_of(session, pens["Pen 1"], date(2025, 1, 1)) is None
        gift = calibration_of(session, pens["The gift, ppm"], TODAY)
        assert gift is None
        names = [w.water.name for w in waters_today(session, TODAY)]
        assert names == ["Rain cistern", "RO unit", "Borehole", "Town water", "House tap", "Dehumidifier"]
        by = {w.water.name: w for w in waters_today(session, TODAY)}
        assert by["Borehole"].ions is not None
        assert by["House tap"].ions is None
        assert by["Rain cistern"].candidate() is not None
    assert len(demo.get("/api/inbox")) == 2
    assert [r["water"] for r in demo.get("/api/reports")] == ["Borehole", "Town water"]


@pytest.mark.parametrize("where", ["", "host", "host:port", "simulated:"])
def test_a_pen_that_cannot_be_is_refused_at_the_start(where: str) -> None:
    from typer.testing import CliRunner

    answer = CliRunner().invoke(command_line, ["serve", "--pen", where, "--port", "0"])
    assert answer.exit_code == 2
    assert "is not known. Say none, simulated, or HOST:PORT." in answer.output
