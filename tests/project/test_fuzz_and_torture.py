"""The short, seeded form of what ``./fenwa fuzz`` and ``./fenwa torture`` do at length; and that they would notice."""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI, Response

from fenwa.store.migrate import KNOWN
from scripts import fuzz, torture

REQUESTS, KILLS = 900, 12


@pytest.fixture(scope="module")
def furnished(tmp_path_factory: pytest.TempPathFactory) -> Any:
    return fuzz.furnished(tmp_path_factory.mktemp("fuzz"))


def test_no_request_breaks_the_server_or_is_answered_out_of_its_document(furnished: Any) -> None:
    found = fuzz.run(furnished, REQUESTS, start=18)
    assert found.wrong == {}
    assert found.requests >= REQUESTS
    assert all(status < 500 for status in found.statuses)
    assert found.statuses[200] > 50, "requests that only get refused try little"


def test_it_would_notice() -> None:
    app = FastAPI(openapi_url="/api/openapi.json")

    @app.get("/api/breaks")
    def breaks(n: int) -> Response:
        return Response(str(n), 500)

    @app.get("/api/undocumented")
    def undocumented() -> Response:
        return Response("?", 418)

    def page() -> int:
        return 1

    for path in fuzz.PAGES:
        app.get(path)(page)
    found = fuzz.run(app, 40, start=1)
    assert {w.split(":")[0] for w in found.wrong} == {"GET /api/breaks", "GET /api/undocumented"}
    assert any("ServerError" in w for w in found.wrong)


def test_pulled_plugs_lose_and_double_nothing() -> None:
    toll = torture.run(KILLS, start=18)
    assert toll.wrong == []
    assert toll.kills == {"writes": 6, "start": 2, "migration": 2, "backup": 2} or toll.kills.total() >= KILLS
    assert toll.acknowledged > 5
    assert set(toll.kills) == set(torture.SHARE)


def test_a_lost_and_a_doubled_row_would_be_noticed(tmp_path: Path) -> None:
    toll = torture.Toll()
    house = torture.House.__new__(torture.House)
    house.database, house.toll, house.pending = tmp_path / "house.sqlite", toll, None
    with closing(sqlite3.connect(house.database)) as c:
        for table in ("pour", "reading", "look", "weight", "runoff", "feel", "person"):
            c.execute(f"CREATE TABLE {table} (id INTEGER PRIMARY KEY)")
        c.execute("INSERT INTO pour DEFAULT VALUES")
        c.commit()
    house.stored = torture.counts(house.database)
    house._look("writes")
    assert toll.wrong == []
    house.stored["pour"] += 1
    house._look("writes")
    assert "lost {'pour': 1}" in toll.wrong[-1]
    house.stored["pour"] = 0
    house._look("writes")
    assert "more than acknowledged {'pour': 1}" in toll.wrong[-1]
    assert KNOWN[0] == "0001", "migrations are killed from the first schema on"
