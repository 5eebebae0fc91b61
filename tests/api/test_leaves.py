"""The Leaf station, by what the grower's click runs: looks make leaves, flushes make changes."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest

from fenwa.store.models import Pour
from tests.conftest import Client, pour


def look(c: Client, on: str, mm: float | None = None, **more: Any) -> dict[str, Any]:
    body = {"on": on, "newest_leaf": mm, "new_leaf": True, **more}
    return dict(c.made("/api/pots/1/looks", body))


def plants_of(page: dict[str, Any]) -> list[dict[str, Any]]:
    """Plants of every group of the station."""
    return [p for g in page["groups"] for p in g["plants"]]


def line(c: Client) -> dict[str, Any]:
    return dict(plants_of(c.get("/api/leaves"))[0]["line"])


def test_looks_grow_a_line_and_a_first_size_waits_for_the_finished_one(kept: Client) -> None:
    assert line(kept)["word"] == "no finished leaf measured yet"
    for on, mm in (("2026-08-01", 150), ("2026-09-01", 160), ("2026-10-01", 155)):
        look(kept, on, mm)
    look(kept, "2026-11-01", 60, leaf_growing=True)
    now = line(kept)
    assert [(x["mm"], x["growing"]) for x in now["leaves"]] == [(150, False), (160, False), (155, False), (60, True)]
    assert now["usual_mm"] == pytest.approx(155)
    look(kept, "2026-11-20", 158, new_leaf=False, leaf_growing=False)
    grown = line(kept)["leaves"][-1]
    assert (grown["opened_on"], grown["mm"], grown["growing"]) == ("2026-11-01", 158, False)
    assert kept.get("/api/pots/1/leaf-line")["result"] == line(kept), "one truth: station and pot"


def test_a_flush_is_judged_by_the_leaves_formed_after_it(kept: Client) -> None:
    for on, mm in (("2026-06-01", 150), ("2026-07-01", 152), ("2026-08-01", 148)):
        look(kept, on, mm)
    kept.made("/api/pours", pour(on="2026-11-20", volume=2000))
    with kept.store.writing() as session:
        session.query(Pour).update({"job": "flush"})
    early = line(kept)
    assert (early["change"], early["change_on"]) == ("flush", "2026-11-20")
    assert early["word"].startswith("flush: too early until ")
    row = plants_of(kept.get("/api/leaves"))[0]
    assert row["flushed"] == ["2026-11-20"]


def test_the_table_behind_it_is_csv_with_three_kinds_of_nothing(kept: Client) -> None:
    look(kept, "2026-08-01", 150)
    look(kept, "2026-09-01")
    rows = list(csv.DictReader(io.StringIO(kept.http.get("/api/leaves.csv").text)))
    assert [(r["pot"], r["opened"], r["length (mm)"], r["of usual (%)"]) for r in rows] == [
        ("P-01", "2026-08-01", "150.0", "100"),
        ("P-01", "2026-09-01", "", ""),
    ]


def test_archived_looks_are_on_no_line(kept: Client) -> None:
    one = look(kept, "2026-08-01", 150)
    kept.made(f"/api/log/look/{one['id']}/archive", {})
    assert all(x["mm"] is None for x in line(kept)["leaves"])


def test_every_plant_of_the_demonstration_has_a_line_and_a_word(demo: Client) -> None:
    plants = plants_of(demo.get("/api/leaves"))
    assert len(plants) == 24
    assert all(p["line"]["word"] for p in plants)
    groups = {p["line"]["group"] for p in plants}
    assert {"look today", "being judged", "as usual", "at rest"} <= groups
    judged = [p for p in plants if p["line"]["group"] == "being judged"]
    assert all(p["flushed"] for p in judged)
