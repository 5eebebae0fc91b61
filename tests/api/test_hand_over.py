"""Plants that change hands: out with their history, in beside what is there, and on paper."""

import io
import json
import zipfile
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from frictionless import Package

from fenwa.archive.hand_over import CARRIED
from fenwa.archive.tables import read_out
from tests.conftest import Client

OCTETS = {"content-type": "application/octet-stream"}


def handed(demo: Client, *codes: str) -> bytes:
    ids = {p["code"]: p["id"] for p in demo.get("/api/pots")["pots"]}
    answer = demo.http.get("/api/archive/pots.zip", params={"pot_ids": ",".join(str(ids[c]) for c in codes)})
    assert answer.status_code == 200, answer.text
    return answer.content


def came(client: Client, data: bytes, key: str | None = None) -> Any:
    headers = OCTETS | {"Idempotency-Key": key or uuid4().hex}
    return client.http.post("/api/archive/pots", content=data, headers=headers)


def rows_of(path: Path, table: str) -> list[dict[str, Any]]:
    sheet = next(s for s in read_out(path)[1] if s.name == table)
    names = [c.name for c in sheet.columns]
    return [dict(zip(names, r, strict=True)) for r in sheet.rows]


@pytest.fixture(scope="module")
def file(demo: Client) -> bytes:
    return handed(demo, "P-06", "D-09")


def test_the_file_is_a_data_package_of_these_plants_only(file: bytes, tmp_path: Path) -> None:
    (tmp_path / "out.zip").write_bytes(file)
    assert Package(str(tmp_path / "out.zip")).name
    with zipfile.ZipFile(io.BytesIO(file)) as pack:
        told = json.loads(pack.read("datapackage.json"))
        names = pack.namelist()
    assert "P-06" in zipfile.ZipFile(io.BytesIO(file)).read("data/pot.csv").decode()
    assert "M-01" not in zipfile.ZipFile(io.BytesIO(file)).read("data/pot.csv").decode()
    assert not [n for n in names if "setting" in n and zipfile.ZipFile(io.BytesIO(file)).read(n).count(b"\n") > 1]
    assert told["resources"]


def test_history_comes_in_whole_under_new_keys_and_stands_isolated(kept: Client, demo: Client, file: bytes) -> None:
    before = kept.get("/api/pots")["pots"]
    answer = came(kept, file)
    assert answer.status_code == 200, answer.text
    assert answer.json()["codes"] == ["P-06", "D-09"]
    pots = {p["code"]: p for p in kept.get("/api/pots")["pots"]}
    assert next(p for p in kept.get("/api/pots")["pots"] if p["code"] == "P-01")["id"] == before[0]["id"]
    theirs = {p["code"]: p for p in demo.get("/api/pots")["pots"]}
    for code in ("P-06", "D-09"):
        here, there = kept.get(f"/api/pots/{pots[code]['id']}"), demo.get(f"/api/pots/{theirs[code]['id']}")
        for key in ("pours", "looks", "phases"):
            mine = [{k: v for k, v in x.items() if not k.endswith("id")} for x in here[key]]
            assert mine == [{k: v for k, v in x.items() if not k.endswith("id")} for x in there[key]], key
        assert here["row"]["isolated"] is True
        assert here["row"]["place"] == "New arrivals"


def test_every_carried_table_arrives_row_by_row(kept: Client, demo: Client, file: bytes) -> None:
    was = {t: len(rows_of(kept.store.path, t)) for t in CARRIED}
    came(kept, file)
    with zipfile.ZipFile(io.BytesIO(file)) as pack:
        sent = {t: pack.read(f"data/{t}.csv").decode().strip().count("\n") for t in ("pour", "leaf", "look", "growth")}
    for table, count in sent.items():
        assert count > 0
        assert len(rows_of(kept.store.path, table)) == was[table] + count, table


def test_waters_of_the_giver_are_history_and_pour_nothing(kept: Client, file: bytes) -> None:
    before = [w["name"] for w in kept.get("/api/water")["waters"]]
    came(kept, file)
    assert [w["name"] for w in kept.get("/api/water")["waters"]] == before
    assert all(b["left_L"] == 0 for b in kept.get("/api/mix")["batches"])
    owned = [p["name"] for p in kept.get("/api/mix")["products"] if p["owned"]]
    assert len(owned) == 1, "a feed of the giver is not on this shelf"


def test_a_taken_code_counts_on_and_a_second_time_comes_beside_the_first(kept: Client, demo: Client) -> None:
    data = handed(demo, "P-01")
    assert came(kept, data).json()["codes"] == ["P-02"]
    assert came(kept, data).json()["codes"] == ["P-03"]
    again = [came(kept, data, "the-same-press").json() for _ in range(2)]
    assert again[0] == again[1], "an answer that was lost and asked again adds nothing"
    assert len(kept.get("/api/pots")["pots"]) == 4


def test_what_stood_before_is_backed_up_and_a_cut_file_changes_nothing(kept: Client, file: bytes) -> None:
    for cut in (0, 100, len(file) // 2, len(file) - 5):
        assert came(kept, file[:cut]).status_code in (409, 422)
    assert len(kept.get("/api/pots")["pots"]) == 1
    done = came(kept, file).json()
    assert done["before"] in [b["name"] for b in kept.get("/api/backups")["backups"]]


@pytest.mark.parametrize(("ids", "status"), [("", 422), ("x", 422), ("999", 422), ("1,99999999999999999999", 422)])
def test_pots_that_are_not_there_are_refused(kept: Client, ids: str, status: int) -> None:
    assert kept.http.get("/api/archive/pots.zip", params={"pot_ids": ids}).status_code == status


def test_a_file_without_pots_is_refused(kept: Client, client: Client) -> None:
    data = kept.http.get("/api/archive.zip").content
    kept.made("/api/log/pot/1/archive")
    assert came(kept, data).status_code == 200, "a whole collection may come in beside another"


def test_the_passport_tells_a_year_of_the_plant(demo: Client) -> None:
    pot = next(p for p in demo.get("/api/pots")["pots"] if p["code"] == "P-06")
    sheet = demo.get(f"/api/pots/{pot['id']}/passport")
    page = demo.get(f"/api/pots/{pot['id']}")
    year = [x for x in page["pours"] if "2025-11-23" <= x["on"]]
    assert sheet["year"]["sum"]["waterings"] == len({x["on"] for x in year})
    assert sheet["year"]["sum"]["feeds"] == sum(x["job"] == "feed" for x in year)
    assert sheet["year"]["flushes"] == len({x["on"] for x in year if x["job"] == "flush"}) > 0
    told = sheet["year"]["told"]
    assert any(t["sentence"] for t in told), "the flush beside its twin taught something"
    assert [t["on"] for t in told] == sorted(t["on"] for t in told)
    assert len({(t["on"], t["words"]) for t in told}) == len(told), "each change stands once, with its answer"
    assert sheet["phases"]
    assert sheet["hazard"]


def test_the_season_report_has_a_row_for_each_plant_and_each_loss(demo: Client) -> None:
    report = demo.get("/api/season-report")
    assert [r["code"] for r in report["plants"]] == [p["code"] for p in demo.get("/api/pots")["pots"]]
    short = demo.get("/api/season-report?since=2026-11-01")
    assert sum(r["sum"]["waterings"] for r in short["plants"]) < sum(r["sum"]["waterings"] for r in report["plants"])
    assert demo.http.get("/api/season-report?since=2026-12-01").status_code == 422
    assert demo.http.get("/api/season-report?since=1990-01-01").status_code == 422


def test_a_plant_that_died_stands_among_the_losses(kept: Client) -> None:
    kept.made("/api/pots/1/died", {"on": "2026-11-20", "cause": "dried out"})
    (loss,) = kept.get("/api/season-report")["losses"]
    assert (loss["on"], loss["code"], loss["cause"]) == ("2026-11-20", "P-01", "dried out")
