"""What a flush begins with: the scale, lime in the mix, a pot sunk in a bed; and what a finger tells the balance."""

from __future__ import annotations

import math
from typing import Any

import pytest

from fenwa.core.library.loader import get_medium
from fenwa.core.pot.weights import missing_L
from fenwa.store.models import Weight
from tests.api.test_flush import at, begun, passed, salted
from tests.conftest import Client, pot, pour

__all__ = ["salted"]


def weigh(c: Client, kind: str, grams: float) -> None:
    c.made("/api/pots/1/weights", {"on": "2026-11-21", "grams": grams, "kind": kind})


def weights(c: Client) -> list[tuple[str, float]]:
    with c.store.reading() as session:
        return [(w.kind, w.grams) for w in session.query(Weight)]


def test_the_scale_tells_what_the_first_pass_fills_up(salted: Client) -> None:
    assert missing_L(900, 780) == pytest.approx(0.12)
    assert missing_L(900, 950) == 0
    weigh(salted, "drained", 900)
    heavy = begun(salted, weight_g=895)
    assert passed(salted, heavy, 1, None, 200)["passes"][0]["drained_after_L"] == pytest.approx(0.195, abs=0.001)
    salted.made(f"/api/flushes/{heavy['id']}/end", {"broken_off": True})
    light = begun(salted, weight_g="780", at=at(60))
    assert passed(salted, light, 61, None, 200)["passes"][0]["drained_after_L"] == pytest.approx(0.08, abs=0.001)


def test_a_weight_at_the_end_is_the_drained_one(salted: Client) -> None:
    f = begun(salted)
    passed(salted, f, 1, 500)
    salted.made(f"/api/flushes/{f['id']}/end", {"broken_off": True, "weight_g": 912})
    assert ("drained", 912) in weights(salted)


@pytest.mark.parametrize("grams", [0, -5, 300_000, "heavy"])
def test_a_weight_that_cannot_be_begins_nothing(salted: Client, grams: Any) -> None:
    refused = salted.refused("/api/pots/1/flushes", {"water_id": 1, "at": at(0), "weight_g": grams})
    assert refused["errors"][0]["pointer"] == "/weight_g"
    assert salted.get("/api/pots/1/flushes")["running_id"] is None
    f = begun(salted)
    end = salted.refused(f"/api/flushes/{f['id']}/end", {"broken_off": True, "weight_g": grams})
    assert end["errors"][0]["pointer"] == "/weight_g"
    assert salted.get("/api/pots/1/flushes")["running_id"] == f["id"]


def ways(c: Client, pot_id: int = 1) -> dict[str, Any]:
    return dict(c.get(f"/api/pots/{pot_id}/flush-ways")["result"])


def test_lime_in_the_mix_sets_a_floor_until_it_is_repotted_without(salted: Client) -> None:
    floor = "Lime, gypsum or tufa"
    assert not any(floor in x for x in ways(salted)["cautions"])
    salted.made("/api/pots/change", {"pot_ids": [1], "medium_limed": True})
    assert any(floor in x for x in ways(salted)["cautions"])
    assert "yes" in salted.http.get("/api/pots.csv").text.splitlines()[1].split(",")[7]
    salted.made("/api/pots/1/repot", {"on": "2026-11-20", "limed": False})
    salted.made("/api/pours", pour(on="2026-11-21", volume=200))
    assert not any(floor in x for x in ways(salted)["cautions"])


def test_a_pot_sunk_in_a_bed_drains_and_drinks_half_from_it(kept: Client) -> None:
    ids = [
        kept.made("/api/pots", pot(code=code, drainage=drainage))["id"]
        for code, drainage in (("O-1", "drains"), ("S-1", "plunged"))
    ]
    for on in ("2026-10-20", "2026-11-01", "2026-11-20"):
        kept.made("/api/pours", pour(pot_ids=ids, on=on, volume=300))
    open_pot, sunk = (kept.get(f"/api/pots/{i}") for i in ids)
    assert sunk["row"]["drains"]
    assert sunk["root_zone"]["deficit_L"] == pytest.approx(open_pot["root_zone"]["deficit_L"] / 2, rel=0.01)
    assert any("Rinse the bed" in x for x in sunk["working"]["cautions"])
    assert "Lift it out of its bed" in ways(kept, ids[1])["cautions"][0]
    assert ways(kept, ids[1])["ways"][0]["possible"]


@pytest.mark.parametrize(("moist", "wetter"), [("wet", True), ("dry", False)])
def test_what_a_finger_felt_moves_the_water_and_no_farther_than_it_may(
    salted: Client, moist: str, wetter: bool
) -> None:
    salted.made("/api/pours", pour(on="2026-11-12", volume=300))

    def lacks() -> float:
        return float(salted.get("/api/pots/1")["root_zone"]["deficit_L"])

    before = lacks()
    stored = salted.made("/api/pots/1/readings", {"on": "2026-11-23", "moist": moist})
    assert stored["id"] is None
    felt = lacks()
    assert (felt < before) if wetter else (felt > before)
    assert any("finger" in x for x in salted.get("/api/pots/1")["working"]["cautions"])
    salted.made(f"/api/log/felt/{stored['felt_id']}/archive", {})
    assert lacks() == pytest.approx(before)


def test_what_was_felt_on_the_day_of_a_pour_says_nothing_of_the_water_left(salted: Client) -> None:
    before = salted.get("/api/pots/1")["root_zone"]["deficit_L"]
    salted.made("/api/pots/1/felt", {"on": "2026-11-20", "moist": "dry"})
    assert salted.get("/api/pots/1")["root_zone"]["deficit_L"] == pytest.approx(before)


def test_a_flush_has_the_efficiency_of_what_lay_between_its_readings(salted: Client) -> None:
    f = begun(salted)
    passed(salted, f, 0, None, 400)  # not read: its water counts for nothing
    for k, ec in enumerate((800, 400)):
        f = passed(salted, f, 10 * (k + 1), ec, 300)
    passed(salted, f, 40, None, 500)
    salted.made(f"/api/flushes/{f['id']}/end", {"broken_off": True})
    water = f["water_uS_cm"]
    m = get_medium("bark_mix").medium()
    mobile = (1 - m.phi) * m.theta_cc * 0.9
    by_hand = math.log((800 - water) / (400 - water)) * mobile / 0.3
    assert salted.get("/api/pots/1/flushes")["flushes"][0]["efficiency"] == pytest.approx(by_hand)


def test_one_change_for_all_or_a_kind_and_the_schools_over_them(demo: Client) -> None:
    station = demo.get("/api/flush")["pots"]
    page = demo.get("/api/flush/changes")
    now = page["together"]["result"]["changes"][0]
    assert now["crossing"] == sum(1 for p in station if p["ahead"] and p["ahead"]["crosses_on"])
    assert {y["pot_id"]: y["ahead"] for y in page["years"]} == {
        p["row"]["id"]: p["ahead"] for p in station if p["ahead"]
    }, "one truth: the station and its first change"
    purest = demo.get("/api/flush/changes?change=the purest water")
    crossing = sum(1 for y in purest["years"] if y["ahead"]["crosses_on"])
    assert crossing == next(
        c["crossing"] for c in purest["together"]["result"]["changes"] if c["change"] == "the purest water"
    )
    kind = station[0]["row"]["profile_id"]
    mine = [p["row"]["id"] for p in station if p["row"]["profile_id"] == kind]
    one = demo.get(f"/api/flush/schools?kind={kind}")["result"]["schools"]
    alone = [demo.get(f"/api/pots/{i}/flush-schools")["result"]["schools"] for i in mine]
    assert [s["days_over"] for s in one] == [sum(a[k]["days_over"] for a in alone) for k in range(4)]
    for path in ("changes", "schools"):
        answer = demo.http.get(f"/api/flush/{path}?kind=nothing")
        assert answer.status_code == 404
        assert "Choose one of the list" in answer.json()["detail"]
