"""What comes out and the flush, by what the grower's click runs: sessions, readings, reservoirs, calendar."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from fenwa.store.models import Pour
from tests.conftest import Client, pot, pour

BEGAN = datetime.now(UTC) - timedelta(hours=5)


def at(minute: float) -> str:
    return (BEGAN + timedelta(minutes=minute)).isoformat()


@pytest.fixture
def salted(kept: Client) -> Client:
    """P-01 fed without a rinse for months."""
    for k in range(12):
        kept.made("/api/pours", pour(on=f"2026-{9 + k // 5:02}-{1 + 5 * (k % 5):02}", volume=200))
    with kept.store.writing() as session:
        session.query(Pour).update({"ec_uS_cm": 900.0})
    kept.made("/api/pours", pour(on="2026-11-20", volume=200))
    return kept


def begun(c: Client, **more: Any) -> dict[str, Any]:
    return dict(c.made("/api/pots/1/flushes", {"water_id": 1, "at": at(0), **more}))


def passed(c: Client, flush: dict[str, Any], minute: float, ec: float | None, mL: float = 200, **more: Any) -> Any:
    body = {"volume": mL, "runoff_ec": ec, "at": at(minute), **more}
    return c.made(f"/api/flushes/{flush['id']}/passes", body)


def test_a_session_ends_when_two_readings_agree_and_says_what_follows(salted: Client) -> None:
    before = salted.get("/api/pots/1")["row"]["reading_uS_cm"]
    f = begun(salted, target_runoff=300)
    live = f["live"]["result"]
    assert live["status"] == "no reading"
    assert live["left_low_L"] < live["left_L"] < live["left_high_L"]
    assert live["next_pass_L"] <= f["round_L"] + 0.2
    for i, ec in enumerate((820, 560, 400, 290, 284)):
        f = passed(salted, f, 40 * i, ec)
    live = f["live"]["result"]
    assert (live["status"], live["stop"]) == ("target reached", True)
    assert [p["soaked_min"] for p in f["passes"]] == pytest.approx([0, 40, 40, 40, 40], abs=0.01)
    assert live["poured_L"] == pytest.approx(1.0)
    end = salted.made(f"/api/flushes/{f['id']}/end", {"tray_emptied": True, "runoff_went": "lawn or bed"})
    assert end["ended_as"] == "reached"
    assert end["feed_on"] > "2026-11-23"
    assert "half strength" in end["feed_sentence"]
    assert end["look_on"] > "2026-11-23"
    assert end["after_uS_cm"] < 0.7 * before
    past = salted.get("/api/pots/1/flushes")
    assert past["running_id"] is None
    one = past["flushes"][0]
    assert (one["passes"], one["litres"], one["last_runoff_uS_cm"]) == (5, pytest.approx(1.0), 284)
    assert 0 < one["efficiency"] < 2
    assert salted.get("/api/flush")["pots"][0]["last_flush_on"] == "2026-11-23"


def test_a_broken_off_flush_is_partial_and_still_due(salted: Client) -> None:
    f = begun(salted)
    f = passed(salted, f, 0, 700)
    end = salted.made(f"/api/flushes/{f['id']}/end", {"broken_off": True})
    assert end["ended_as"] == "interrupted"
    assert "still due" in end["feed_sentence"]
    row = salted.get("/api/flush")["pots"][0]
    assert row["last_flush_on"] is None
    assert salted.get("/api/pots/1")["pours"][-1]["job"] == "flush", "what was poured is kept"
    again = begun(salted)
    assert again["id"] != f["id"]


def test_the_same_pass_sent_twice_is_one_pass(salted: Client) -> None:
    f = begun(salted)
    body = {"volume": 200, "runoff_ec": 700, "at": at(1)}
    for _ in range(2):
        answer = salted.send(f"/api/flushes/{f['id']}/passes", body, key="a-phone-in-the-shed")
        assert answer.status_code == 201
    assert len(salted.get(f"/api/flushes/{f['id']}")["passes"]) == 1


WRONG: list[tuple[dict[str, Any], str]] = [
    ({"drained": 300}, "more than the 0.2 L poured"),
    ({"runoff_ec": 30_000}, "more than ten times"),
    ({"at": at(-30)}, "dated before the flush"),
    ({"runoff_ec": 0}, "Reading 0 µS/cm"),
    ({"volume": 0}, "Poured 0 L"),
    ({"pH": 15}, "pH 15"),
]


@pytest.mark.parametrize(("change", "sentence"), WRONG, ids=[w[1] for w in WRONG])
def test_a_wrong_pass_changes_nothing(salted: Client, change: dict[str, Any], sentence: str) -> None:
    f = begun(salted)
    before = salted.get(f"/api/flushes/{f['id']}")
    body = {"volume": 200, "runoff_ec": 700, "at": at(5), **change}
    refused = salted.refused(f"/api/flushes/{f['id']}/passes", body)
    assert sentence in refused["detail"]
    assert salted.get(f"/api/flushes/{f['id']}")["passes"] == before["passes"]


def test_a_target_the_water_cannot_reach_is_refused_before_a_drop_is_poured(salted: Client) -> None:
    said = salted.refused("/api/pots/1/flushes", {"water_id": 1, "target_runoff": 30})
    assert "This water cannot get there: it reads 34" in said["detail"]
    low = salted.refused("/api/pots/1/flushes", {"water_id": 1, "target_reading": 10})
    assert "This water cannot get there" in low["detail"]
    assert salted.get("/api/pots/1/flushes") == {"running_id": None, "flushes": []}


def test_one_flush_at_a_time_and_none_after_its_end(salted: Client) -> None:
    f = begun(salted)
    salted.refused("/api/pots/1/flushes", {"water_id": 1}, 409)
    passed(salted, f, 0, 700)
    salted.made(f"/api/flushes/{f['id']}/end", {})
    salted.refused(f"/api/flushes/{f['id']}/passes", {"volume": 200}, 409)
    salted.refused(f"/api/flushes/{f['id']}/end", {}, 409)


def test_a_flush_is_undone_with_its_passes(salted: Client) -> None:
    before = salted.get("/api/pots/1")
    f = begun(salted)
    passed(salted, f, 0, 700)
    salted.made(f"/api/log/flush/{f['id']}/archive")
    after = salted.get("/api/pots/1")
    assert len(after["pours"]) == len(before["pours"])
    assert after["row"]["reading_uS_cm"] == pytest.approx(before["row"]["reading_uS_cm"])
    salted.made(f"/api/log/flush/{f['id']}/restore")
    assert len(salted.get("/api/pots/1")["pours"]) == len(before["pours"]) + 1


def test_a_pass_is_read_afterwards_and_again(salted: Client) -> None:
    f = begun(salted)
    salted.refused(f"/api/flushes/{f['id']}/read", {"runoff_ec": 700}, 409)
    passed(salted, f, 0, None)
    assert salted.made(f"/api/flushes/{f['id']}/read", {"runoff_ec": 700})["passes"][0]["runoff_uS_cm"] == 700
    assert salted.made(f"/api/flushes/{f['id']}/read", {"runoff_ec": "0,71", "runoff_unit": "mS/cm"})["passes"][0][
        "runoff_uS_cm"
    ] == pytest.approx(710)


def test_a_hold_forbids_a_flush_and_says_what_ends_it(salted: Client) -> None:
    salted.made("/api/pots/1/looks", {"on": "2026-11-23", "marks": ["rot"]})
    said = salted.refused("/api/pots/1/flushes", {"water_id": 1}, 409)
    assert "Rot seen" in said["detail"]
    row = salted.get("/api/flush")["pots"][0]
    assert "Rot seen" in row["held"]
    assert row["held_ends"]
    left = salted.made("/api/flush/round", {"pot_ids": [1]})["result"]["left_out"]
    assert left[0]["reason"] == row["held"]


def test_a_reading_between_pours_teaches_and_can_be_left_out(salted: Client) -> None:
    before = salted.get("/api/pots/1")["row"]["reading_uS_cm"]
    read = salted.made("/api/pots/1/readings", {"on": "2026-11-22", "method": "pour-through", "ec": 320, "pH": 5.8})
    after = salted.get("/api/pots/1")["row"]
    assert after["reading_uS_cm"] < before
    assert after["measured_on"] == "2026-11-22"
    c = salted.get("/api/pots/1/calibration")["result"]
    assert c["readings_used"] == 1
    assert c["high_uS_cm"] / c["low_uS_cm"] < c["default_high_uS_cm"] / c["default_low_uS_cm"]
    salted.made(f"/api/pots/1/readings/{read['id']}/left-out", {"left_out": True})
    assert salted.get("/api/pots/1")["row"]["reading_uS_cm"] == pytest.approx(before, rel=0.01)
    assert salted.get("/api/pots/1/readings")["readings"][0]["left_out"] is True
    salted.refused("/api/pots/1/readings", {"on": "2026-11-22", "method": "last", "ec": 300})
    salted.refused("/api/pots/1/readings", {"on": "2026-11-22"})
    salted.made(f"/api/log/runoff/{read['id']}/archive")
    assert salted.get("/api/pots/1/readings")["readings"] == []


def test_what_one_pot_learns_its_sister_of_the_same_mix_starts_from(salted: Client) -> None:
    salted.made("/api/pots", pot(code="P-02"))
    salted.made("/api/pours", pour(pot_ids=[2], on="2026-11-10"))
    wide = salted.get("/api/pots")["pots"]
    before = next(p for p in wide if p["code"] == "P-02")
    for day in ("2026-11-05", "2026-11-12", "2026-11-21"):
        salted.made("/api/pots/1/readings", {"on": day, "method": "pour-through", "ec": 200})
    after = next(p for p in salted.get("/api/pots")["pots"] if p["code"] == "P-02")
    assert (
        after["reading_high_uS_cm"] / after["reading_low_uS_cm"]
        < before["reading_high_uS_cm"] / before["reading_low_uS_cm"]
    )
    page = salted.get("/api/pots/2")
    assert page["root_zone"]["reading_uS_cm"] == pytest.approx(after["reading_uS_cm"]), "one figure on every page"
    assert salted.get("/api/pots/2/calibration")["result"]["pooled_pots"] == 1


def test_a_reservoir_through_three_top_ups_and_a_change(kept: Client) -> None:
    kept.made(
        "/api/pots", pot(code="R-01", drainage="reservoir", below_L=1.2, route="reservoir", medium_id="clay_balls")
    )

    def filled(on: str, mL: float) -> None:
        kept.made("/api/pours", pour(pot_ids=[2], on=on, volume=mL, route="reservoir"))

    filled("2026-09-01", 480)
    for on, level in (("2026-09-15", 300), ("2026-10-01", 310), ("2026-10-15", 290)):
        kept.made("/api/pots/2/levels", {"on": on, "level": level})
        filled(on, 480 - level)
    now = kept.get("/api/pots/2/reservoir")["now"]["result"]
    assert now["keep_L"] == pytest.approx(0.48)
    assert now["level_L"] == pytest.approx(0.48)
    assert now["low_uS_cm"] < now["ec_uS_cm"] < now["high_uS_cm"]
    kept.made("/api/pots/2/readings", {"on": "2026-10-20", "method": "reservoir", "ec": 90})
    read = kept.get("/api/pots/2/reservoir")["now"]["result"]
    assert (read["ec_uS_cm"], read["measured_on"]) == (90, "2026-10-20")
    kept.made("/api/pots/2/water-changes", {"on": "2026-11-01", "water_id": 1, "volume": 480})
    fresh = kept.get("/api/pots/2/reservoir")["now"]["result"]
    assert fresh["ec_uS_cm"] == pytest.approx(34)
    assert fresh["measured_on"] is None
    assert kept.get("/api/pots/2/water-changes")["changed_on"] == ["2026-11-01"]
    kept.refused("/api/pots/2/levels", {"on": "2026-11-02", "level": 5000})
    kept.refused("/api/pots/1/levels", {"on": "2026-11-02", "level": 50})


def test_a_kind_never_wetted_from_above_is_left_out_with_its_reason(kept: Client) -> None:
    kept.made(
        "/api/pots", pot(code="B-01", profile_id="byblis", medium_id="carn_peat_sand", drainage="tray", below_L=0.5)
    )
    rows = {r["code"]: r for r in kept.get("/api/flush/calendar")["pots"]}
    above = kept.get("/api/kinds/byblis")["profile"]["flush"]["from_above"]
    if above in ("never", "tray_change", "water_change"):
        assert rows["B-01"]["left_out"]
        assert rows["B-01"]["dates"] == []
    assert rows["P-01"]["dates"]


def test_the_schools_run_over_the_demonstrations_year(demo: Client) -> None:
    pot_id = demo.get("/api/flush")["pots"][0]["row"]["id"]
    years = {s["school"]: s for s in demo.get(f"/api/pots/{pot_id}/flush-schools")["result"]["schools"]}
    assert set(years) == {"as logged", "by calendar", "by reading", "by forecast"}
    assert years["by calendar"]["flushes"] != years["by forecast"]["flushes"]
    assert all(y["days_over"] <= years["as logged"]["days_over"] for y in years.values())
    assert years["by forecast"]["litres"] > 0


def test_the_station_orders_by_salt_and_looks_a_year_ahead(demo: Client) -> None:
    rows = demo.get("/api/flush")["pots"]
    assert [r["share"] for r in rows] == sorted((r["share"] for r in rows), reverse=True)
    one = next(r for r in rows if r["ahead"])
    assert len(one["ahead"]["days"]) == len(one["ahead"]["shares"]) > 5
    assert (
        rows[0]["row"]["reading_uS_cm"]
        == demo.get("/api/pots")["pots"][[p["id"] for p in demo.get("/api/pots")["pots"]].index(rows[0]["row"]["id"])][
            "reading_uS_cm"
        ]
    )


def test_what_would_hold_the_ceiling_is_drawn_for_each_change(demo: Client) -> None:
    pot_id = demo.get("/api/flush")["pots"][0]["row"]["id"]
    r = demo.get(f"/api/pots/{pot_id}/rhythm-change")["result"]
    assert r["options"][0]["change"] == "as it is"
    assert r["cheapest"] in {o["change"] for o in r["options"][1:]}
    assert all(o["ahead"] for o in r["options"])


def test_a_change_of_water_is_undone_whole_and_the_runoff_of_a_pour_has_a_ph(kept: Client) -> None:
    kept.made(
        "/api/pots", pot(code="R-02", drainage="reservoir", below_L=1.0, route="reservoir", medium_id="clay_balls")
    )
    kept.made("/api/pours", pour(pot_ids=[2], on="2026-11-01", volume=400, route="reservoir"))
    before = kept.get("/api/pots/2/reservoir")["now"]["result"]
    changed = kept.made("/api/pots/2/water-changes", {"on": "2026-11-10", "water_id": 1, "volume": 300})
    kept.made(f"/api/log/pour/{changed['id']}/archive")
    kept.made(f"/api/log/level/{changed['level_id']}/archive")
    assert kept.get("/api/pots/2/reservoir")["now"]["result"]["level_L"] == before["level_L"]
    kept.made("/api/pours", pour(runoff_ec=300, runoff_pH="5,9"))
    assert kept.get("/api/pots/1/readings")["readings"][0]["pH"] == 5.9
    kept.refused("/api/pours", pour(runoff_pH=15))
