"""A feed poured from a pot's page by its label and strength, without a can of the log."""

from typing import Any

import pytest

from tests.conftest import NITRATE, Client


def feed_of(client: Client) -> tuple[int, int]:
    mix = client.get("/api/mix")
    return next(p["id"] for p in mix["products"] if p["name"] == NITRATE), mix["waters"][0]["id"]


def poured(client: Client, **more: Any) -> dict[str, Any]:
    product, water = feed_of(client)
    fed = {"product_id": product, "water_id": water, "share": more.pop("share", "half")}
    return {"pot_ids": [1], "on": "2026-11-23", "volume": "200", "fed": fed, **more}


def test_half_strength_of_a_feed_is_a_can_of_as_much_as_was_poured(kept: Client) -> None:
    before = len(kept.get("/api/batches"))
    kept.made("/api/pours", poured(kept, share="1/4", note="on purpose"))
    pour = kept.get("/api/pots/1")["pours"][-1]
    (can,) = kept.get("/api/batches")[: len(kept.get("/api/batches")) - before]
    assert can["name"] == f"one quarter strength of {NITRATE}"
    assert (can["volume_L"], can["left_L"]) == (0.2, 0.0)
    assert (pour["job"], pour["ec_uS_cm"], pour["volume_L"]) == ("feed", can["predicted_uS_cm"], 0.2)
    whole = kept.http.post(
        "/api/mix/dose",
        json={
            "product_id": feed_of(kept)[0],
            "water_id": feed_of(kept)[1],
            "volume": 1,
            "strength": "fraction",
            "value": 0.25,
        },
    ).json()
    assert can["nitrogen_mg_L"] == pytest.approx(whole["result"]["nitrogen_mg_L"])


def test_an_empty_can_is_not_offered_again_and_undo_brings_none_back(kept: Client) -> None:
    ids = kept.made("/api/pours", poured(kept, share="1/8"))["pour_ids"]
    assert [b["left_L"] for b in kept.get("/api/mix")["batches"]] == [0.0]
    kept.made(f"/api/log/pour/{ids[0]}/archive")
    assert [b["left_L"] for b in kept.get("/api/mix")["batches"]] == [0.0]


def test_a_ceiling_holds_for_it_as_for_a_can(kept: Client) -> None:
    refused = kept.refused("/api/pours", poured(kept, share="full"), 409)
    assert "P-01" in refused["detail"]
    assert kept.get("/api/batches") == []
    assert kept.get("/api/pots/1")["pours"] == []


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"volume": None}, "needs the volume poured"),
        ({"flush": True}, "nor a flush"),
        ({"gave": "tea"}, "needs the volume poured"),
        ({"share": "some"}, "some"),
        ({"share": -0.5}, "0.5"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_stored(kept: Client, more: dict[str, Any], said: str) -> None:
    answer = kept.send("/api/pours", poured(kept, **more))
    assert answer.status_code == 422, answer.text
    assert said in answer.json()["detail"]
    assert kept.get("/api/batches") == []
