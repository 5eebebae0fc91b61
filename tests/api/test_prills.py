"""Prills given to a pot, by what the grower's click runs: their salt in what is predicted, and gone with the mix."""

from __future__ import annotations

from typing import Any

import pytest

from tests.conftest import Client, pour


@pytest.fixture
def prills(kept: Client) -> int:
    body = {"name": "Prills 14", "kind": "prill", "n_total_pct": 14, "longevity_days": 180, "longevity_at_C": 21}
    for k in range(8):
        kept.made("/api/pours", pour(on=f"2026-{9 + k // 4:02}-{2 + 7 * (k % 4):02}", volume=120))
    return int(kept.made("/api/products", {**body, "stated_as": "oxide"})["id"])


def given(c: Client, product: int, **more: Any) -> int:
    body = {"pot_ids": [1], "product_id": product, "on": "2026-09-02", "amount": 2, "unit": "g", **more}
    return int(c.made("/api/feedings", body)["id"])


def predicted(c: Client) -> float:
    return float(c.get("/api/pots/1")["row"]["reading_uS_cm"])


def test_prills_raise_what_is_predicted_and_their_undo_takes_it_back(kept: Client, prills: int) -> None:
    plain = predicted(kept)
    one = given(kept, prills)
    fed = predicted(kept)
    assert fed > plain + 100
    page = kept.get("/api/pots/1")
    assert "Prills have given" in page["prills_sentence"]
    assert "not known" not in page["prills_sentence"]
    assert page["prills"]["given_on"] == "2026-09-02"
    assert page["prills"]["until"] > "2026-11-23"
    ahead = [p["reading"] for p in page["root_zone"]["ahead"]]
    kept.made(f"/api/log/feeding/{one}/archive", {})
    assert predicted(kept) == pytest.approx(plain)
    assert "Prills give" in " ".join(page["working"]["assumptions"])
    without = [p["reading"] for p in kept.get("/api/pots/1")["root_zone"]["ahead"]]
    assert ahead[4] > without[4] + 100


@pytest.mark.parametrize("change", [{"amount": None}, {"amount": 12, "unit": "items"}, {"amount": 2, "unit": "spoons"}])
def test_prills_nobody_weighed_add_no_salt_and_the_page_says_so(
    kept: Client, prills: int, change: dict[str, Any]
) -> None:
    plain = predicted(kept)
    given(kept, prills, **change)
    assert predicted(kept) == pytest.approx(plain)
    assert "their salt is in no figure here" in kept.get("/api/pots/1")["prills_sentence"]


def test_prills_go_with_the_mix_they_lay_in(kept: Client, prills: int) -> None:
    given(kept, prills)
    kept.made("/api/pots/1/repot", {"on": "2026-11-20", "charged": False})
    assert kept.get("/api/pots/1")["prills_sentence"] == ""
    assert "prills running" not in [h["id"] for h in kept.get("/api/pots/1/care")["holds"]]


def test_a_kept_fold_and_a_new_one_agree_on_prills(kept: Client, prills: int) -> None:
    given(kept, prills)
    row = kept.get("/api/pots/1")
    told = row["root_zone"]["reading_uS_cm"]
    assert told == pytest.approx(row["row"]["reading_uS_cm"], rel=1e-6)
