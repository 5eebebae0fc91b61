"""One question, one answer: every station asks the same day of a pot."""

import pytest

from fenwa.core.care.pattern import Pattern, every_nth, feeds_a_month
from fenwa.core.constants import DAYS_A_MONTH
from tests.conftest import Client, pot, pour


def learning(client: Client, **changes: object) -> None:
    """A pot set to twelve days that is watered every third."""
    client.made("/api/pots", pot(code="L-1", interval_days=12, interval_by="learnt", plain_every=2, **changes))
    for day in range(1, 22, 3):
        client.made("/api/pours", pour(pot_ids=[2], on=f"2026-11-{day:02}", volume=200))


def test_the_share_out_reckons_with_the_interval_in_force(kept: Client) -> None:
    """It took the interval once set: 0.117 L a week where the pot takes 0.467."""
    learning(kept, profile_id="maranta")
    row = next(p for p in kept.get("/api/pots")["pots"] if p["code"] == "L-1")
    assert row["interval_days"] == pytest.approx(3, abs=0.3)
    groups = {g["name"]: g for g in kept.get("/api/water/share-out")["answer"]["result"]["groups"]}
    (maranta,) = [g for name, g in groups.items() if "Maranta" in name]
    assert maranta["wanted_L"] == pytest.approx(7 * 0.2 / row["interval_days"])


def test_the_cost_of_a_month_reckons_with_interval_and_school(kept: Client) -> None:
    learning(kept)
    asked = {"product_id": 1, "water_id": 1, "volume": 2, "strength": "nitrogen", "value": 50, "pot_ids": [2]}
    terms = {t["symbol"]: t["value"] for t in kept.made("/api/mix/preview", asked)["cost"]["working"]["inputs"]}
    days = {p["code"]: (p["interval_days"], p["volume_L"]) for p in kept.get("/api/pots")["pots"]}
    wanted = sum(v * DAYS_A_MONTH / d * share for (d, v), share in ((days["P-01"], 0.75), (days["L-1"], 0.5)))
    assert any(value == pytest.approx(wanted, rel=1e-6) for value in terms.values()), terms


@pytest.mark.parametrize(
    ("pattern", "interval", "expected"),
    [
        (every_nth(4), 6, DAYS_A_MONTH / 6 * 3 / 4),
        (every_nth(0), 6, 0),
        (Pattern("days", every_days=14), 3, DAYS_A_MONTH / 14),
        (Pattern("days", every_days=7), 10, DAYS_A_MONTH / 10),
        (Pattern("leaf spray", every_days=14), 3, 0),
        (Pattern("prills"), 3, 0),
        (Pattern("count", cycle=1, feeds=1), 5, DAYS_A_MONTH / 5),
    ],
)
def test_feeds_of_a_month(pattern: Pattern, interval: float, expected: float) -> None:
    assert feeds_a_month(pattern, interval) == pytest.approx(expected)


def test_schools_are_compared_in_the_pots_own_mixed_medium_and_interval(kept: Client) -> None:
    parts = [{"medium_id": "bark_mix", "parts": 1}, {"medium_id": "peat", "parts": 1}]
    learning(kept, medium_parts=parts)
    kept.made("/api/pots", pot(code="B-1", medium_id="bark_mix", interval_days=12))
    body = {"pot_id": 2, "water_id": 1, "school_ids": ["thin_and_constant"]}
    mixed = kept.made("/api/mix/schools/load", body)
    plain = kept.made("/api/mix/schools/load", {**body, "pot_id": 3})
    assert mixed != plain


def test_a_can_for_chosen_pots_is_as_large_as_the_rounds_own(kept: Client) -> None:
    """The desk summed the pours alone, the round adds a twentieth: two answers to one question."""
    kept.made("/api/pots", pot(code="P-02"))
    (can,) = kept.get("/api/round")["plan"]["cans"]
    asked = kept.send("/api/mix/pots", {"pot_ids": [p["pot_id"] for p in can["pots"]]}).json()
    assert len(can["pots"]) == 2
    assert asked["volume_L"] == can["volume_L"]
    poured = sum(p["amount_mL"] for p in can["pots"]) / 1000
    assert asked["volume_L"] > poured
    assert kept.send("/api/mix/pots", {"pot_ids": []}).json() == {
        "volume_L": 0.0,
        "strictest": "",
        "ceiling_uS_cm": None,
    }
