"""Quick sums from an empty collection: any unit, any scale, any strength, and nothing stored."""

import sqlite3
from contextlib import closing
from typing import Any

import pytest

from fenwa.core.library.loader import media, profiles
from tests.conftest import Client


def asked(client: Client, sum_: str, **body: Any) -> Any:
    answer = client.http.post(f"/api/sums/{sum_}", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def refused(client: Client, sum_: str, **body: Any) -> Any:
    answer = client.http.post(f"/api/sums/{sum_}", json=body)
    assert answer.status_code == 422, answer.text
    return answer.json()


@pytest.mark.parametrize(
    ("value", "unit", "scale", "low", "high"),
    [
        ("455", "µS/cm", None, 455, 455),
        ("0,455", "mS/cm", None, 455, 455),
        ("0.455", "dS/m", None, 455, 455),
        ("250", "ppm", "0.5", 500, 500),
        ("250", "ppm", "0.7", 357.1, 357.1),
        ("250", "ppm", None, 357.1, 500),
        ("250", "ppm", "unknown", 357.1, 500),
        (None, "µS/cm", None, 100, 900),
    ],
)
def test_a_water_in_any_unit_and_any_scale(
    client: Client, value: str | None, unit: str, scale: str | None, low: float, high: float
) -> None:
    w = asked(client, "water", water={"value": value, "unit": unit, "scale": scale})["water"]
    assert w["low_uS_cm"] == pytest.approx(low, abs=0.1)
    assert w["high_uS_cm"] == pytest.approx(high, abs=0.1)
    assert w["measured"] is (low == high)
    assert w["working"]["steps"]


def test_a_reading_at_another_temperature_is_carried_to_25(client: Client) -> None:
    cold = asked(client, "water", water={"value": 300, "temperature": 10})["water"]
    # 300 / (1 + 0.0191 * (10 - 25)) = 420.5
    assert cold["middle_uS_cm"] == pytest.approx(420.5, abs=0.1)


def test_who_may_drink_it_counts_every_kind_and_names_the_one_asked(client: Client) -> None:
    all_kinds = asked(client, "water", water={"value": 20})["who"]["result"]
    assert all_kinds["yes"] == len(all_kinds["kinds"]) == len(profiles())
    limits = [k["limit_uS_cm"] for k in all_kinds["kinds"]]
    assert limits == sorted(limits)
    one = asked(client, "water", water={"value": 250, "unit": "ppm"}, plant="masdevallia")["who"]["result"]
    assert one["asked"]["one_in"] == 8  # (500 - 60) / (120 - 60) = 7.3
    assert one["sentence"].startswith("The mark of Masdevallia is 120")


def test_thinned_with_a_water_over_its_mark_is_no_way_out(client: Client) -> None:
    body = {"water": {"value": 500}, "plant": "masdevallia", "thinner": {"kind": "mains"}}
    who = asked(client, "water", **body)["who"]["result"]
    assert (who["asked"]["answer"], who["asked"]["one_in"]) == ("no", None)
    assert "is over it too" in who["sentence"]


def test_grams_for_a_can_by_each_name_of_its_strength(client: Client) -> None:
    # 40 mg/L N of 13 % N in 2 L: 0.040 * 2 / 0.13 = 0.615 g
    by_n = asked(client, "feed", grade="13-3-15", volume="2", value="40")
    assert by_n["dose"]["result"]["amount_g"] == pytest.approx(0.615, abs=0.001)
    assert by_n["check"] is None
    quarter = asked(client, "feed", grade="13 3 15", volume=2, strength="fraction", value="1/4", label_rate="1")
    assert quarter["dose"]["result"]["amount_g"] == pytest.approx(0.5)
    assert "one quarter" in quarter["echo"]
    added = by_n["dose"]["result"]["ec_added_uS_cm"]
    by_ec = asked(client, "feed", grade="13-3-15", volume=2, strength="ec_added", value=added)
    assert by_ec["dose"]["result"]["amount_g"] == pytest.approx(0.615, abs=0.001)


def test_too_little_for_the_scale_goes_through_a_stock(client: Client) -> None:
    d = asked(client, "feed", grade="13-3-15", volume=2, value=40, scale_step_g=1)["dose"]["result"]
    assert not d["weighable"]
    stock = d["stock"]
    assert stock["mass_g"] / stock["bottle_mL"] * stock["draw_mL"] == pytest.approx(d["amount_g"])


def test_a_liquid_is_told_in_millilitres(client: Client) -> None:
    # 7 % w/v is 70 mg/mL: 40 mg/L in 5 L are 200 mg, 2.857 mL
    d = asked(client, "feed", grade="7-9-5", form="liquid", volume=5, value=40)["dose"]["result"]
    assert d["amount_mL"] == pytest.approx(2.857, abs=0.001)


def test_an_unread_water_widens_what_the_can_should_read(client: Client) -> None:
    read = asked(client, "feed", grade="13-3-15", volume=2, value=40, water={"value": 450})["dose"]["result"]
    open_ = asked(client, "feed", grade="13-3-15", volume=2, value=40, water={"kind": "mains"})["dose"]["result"]
    assert open_["ec_high_uS_cm"] - open_["ec_low_uS_cm"] > 3 * (read["ec_high_uS_cm"] - read["ec_low_uS_cm"])


@pytest.mark.parametrize(("read", "right"), [(355, True), (900, False), (60, False)])
def test_is_this_can_right(client: Client, read: float, right: bool) -> None:
    found = asked(client, "feed", grade="13-3-15", volume=2, value=40, water={"kind": "rain"}, read={"value": read})
    expected = found["dose"]["result"]
    inside = expected["ec_low_uS_cm"] <= read <= expected["ec_high_uS_cm"]
    assert inside is right
    assert (found["check"]["result"]["rescue_water_L"] is not None) is (read == 900)


def test_a_blend_stays_under_its_mark_at_the_saltiest_both_may_be(client: Client) -> None:
    # (120 - 60) / (900 - 60) = 1 part in 14 of mains nobody read
    parts = asked(client, "blend", first={"kind": "mains"}, target=120)["result"]["parts"]
    assert parts[0]["litres"] == pytest.approx(10 * 60 / 840, abs=0.01)
    who = asked(client, "water", water={"kind": "mains"}, plant="masdevallia")["who"]["result"]
    assert who["asked"]["one_in"] == 14


@pytest.mark.parametrize("medium", sorted(media()))
def test_litres_to_flush_a_pot_in_every_medium(client: Client, medium: str) -> None:
    r = asked(client, "flush", volume=1.2, medium_id=medium, runoff={"value": 1240}, target=600)["result"]
    assert 0 < r["low_L"] <= r["middle_L"] <= r["high_L"]
    assert r["rounds"] * r["round_L"] == pytest.approx(r["middle_L"])
    assert list(r["after"]) == sorted(r["after"], reverse=True)


@pytest.mark.parametrize(("unit", "scale", "ec"), [("µS/cm", None, 1240), ("ppm", "0.5", 2480), ("mS/cm", None, 1240)])
def test_a_runoff_is_told_in_one_unit_whatever_it_was_read_in(
    client: Client, unit: str, scale: str | None, ec: float
) -> None:
    value = 1.24 if unit == "mS/cm" else 1240
    runoff = {"value": value, "unit": unit, "scale": scale}
    r = asked(client, "flush", volume=1.2, runoff=runoff, target=600)["result"]
    assert r["runoff_uS_cm"] == pytest.approx(ec)


def test_a_pot_under_its_target_needs_no_flush(client: Client) -> None:
    r = asked(client, "flush", volume=1.2, runoff={"value": 300}, target=600)["result"]
    assert (r["high_L"], r["rounds"]) == (0, 0)
    assert "No flush is needed" in r["sentence"]


@pytest.mark.parametrize(
    ("sum_", "body", "words"),
    [
        ("water", {"water": {"value": "a lot"}}, "Value “a lot”"),
        ("water", {"water": {"value": -1}}, "-1"),
        ("water", {"water": {}, "plant": "rose"}, "“rose” is not known"),
        ("water", {"water": {"value": 1, "unit": "grains"}}, "is not a choice"),
        ("feed", {"grade": "abc", "volume": 2}, "Grade “abc” is not understood"),
        ("feed", {"grade": "", "volume": 2}, "Grade is empty"),
        ("feed", {"grade": "13-3-15", "volume": 0}, "Volume 0"),
        ("feed", {"grade": "0-10-10", "volume": 2}, "nitrogen"),
        ("feed", {"grade": "13-3-15", "volume": 2, "strength": "fraction", "value": "1/4"}, "abel"),
        ("blend", {"first": {"value": 500}, "target": 5}, "cannot"),
        ("flush", {"volume": 1.2, "runoff": {"value": 1240}, "target": 10}, "Use a purer water"),
        ("flush", {"volume": -1, "runoff": {"value": 1240}, "target": 400}, "-1"),
    ],
)
def test_what_cannot_be_is_refused_in_one_sentence(client: Client, sum_: str, body: dict[str, Any], words: str) -> None:
    assert words.lower() in refused(client, sum_, **body)["detail"].lower()


def test_an_unknown_medium_is_not_there(client: Client) -> None:
    body = {"volume": 1, "medium_id": "gravel of mars", "runoff": {"value": 900}, "target": 400}
    assert client.http.post("/api/sums/flush", json=body).status_code == 404


def test_no_sum_stores_anything(client: Client) -> None:
    def dump() -> list[str]:
        with closing(sqlite3.connect(client.store.path)) as c:
            return list(c.iterdump())

    before = dump()
    asked(client, "water", water={"value": 20})
    asked(client, "feed", grade="13-3-15", volume=2, value=40)
    asked(client, "blend", first={"value": 500}, target=120)
    asked(client, "flush", volume=1.2, runoff={"value": 1240}, target=600)
    assert dump() == before


FEED = {"grade": "13-3-15", "volume": "2 US gal as L", "strength": "nitrogen", "value": "40"}


def test_a_sum_of_a_feed_becomes_a_can_and_its_feed_stands_on_the_shelf_once(client: Client) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    body = {"feed": FEED, "water_id": water["id"]}
    first = client.send("/api/sums/feed/can", body, key="save-once").json()
    again = client.send("/api/sums/feed/can", body, key="save-once").json()
    second = client.send("/api/sums/feed/can", body).json()
    assert (first["feed"], first["feed_added"], second["feed_added"]) == ("Feed 13-3-15", True, False)
    assert again == first
    cans = client.get("/api/batches")
    assert sorted(c["id"] for c in cans) == [first["id"], second["id"]]
    assert [c["volume_L"] for c in cans] == pytest.approx([2 * 3.785411784] * 2)
    sum_ = asked(client, "feed", **FEED)["dose"]["result"]
    assert cans[0]["nitrogen_mg_L"] == pytest.approx(sum_["nitrogen_mg_L"])
    assert len([p for p in client.get("/api/mix")["products"] if p["name"] == "Feed 13-3-15"]) == 1


def test_a_feed_by_its_share_and_a_liquid_are_other_feeds(client: Client) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})["id"]
    half = FEED | {"strength": "fraction", "value": "half", "label_rate": "1"}
    liquid = FEED | {"form": "liquid"}
    saved = [
        client.send("/api/sums/feed/can", {"feed": f, "water_id": water}).json() for f in (FEED, half, liquid, half)
    ]
    assert [s["feed_added"] for s in saved] == [True, True, True, False]


@pytest.mark.parametrize(
    ("change", "pointer"),
    [({"grade": "many"}, "rade"), ({"value": "twice"}, "value"), ({"volume": "0"}, "volume")],
)
def test_a_sum_that_cannot_be_is_not_saved(client: Client, change: dict[str, str], pointer: str) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})["id"]
    before = client.state
    answer = client.send("/api/sums/feed/can", {"feed": FEED | change, "water_id": water})
    assert answer.status_code == 422
    assert pointer in answer.text
    assert client.state == before
    gone = client.send("/api/sums/feed/can", {"feed": FEED, "water_id": 999})
    assert gone.status_code in (404, 422)
    assert client.state == before


def test_a_feed_whose_strength_was_left_as_it_stood_is_saved(client: Client) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})["id"]
    saved = client.send("/api/sums/feed/can", {"feed": {"grade": "13-3-15", "volume": 2}, "water_id": water})
    assert saved.status_code == 201, saved.text


@pytest.mark.parametrize(
    ("change", "pointer"),
    [({"label_rate": 0}, "label_rate"), ({"label_rate": 1, "label_rate_unit": "pinch"}, "label_rate_unit")],
)
def test_a_label_rate_that_cannot_be_never_stands_on_the_shelf(
    client: Client, change: dict[str, Any], pointer: str
) -> None:
    water = client.made("/api/waters", {"name": "Rain", "kind": "rain"})["id"]
    before = client.state
    answer = client.send("/api/sums/feed/can", {"feed": FEED | change, "water_id": water})
    assert (answer.status_code, answer.json()["errors"][0]["pointer"].endswith(pointer)) == (422, True)
    assert client.state == before
