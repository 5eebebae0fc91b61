"""Feeding plans as they are kept: whose rule rules, what it feeds with, and what the round makes of it."""

from datetime import date, timedelta
from typing import Any

import pytest

from tests.conftest import NITRATE, Client, buy, pot

FOLIAGE = "Foliage feed 20-8.7-16.6, urea-rich"
MAY, DECEMBER = date(2027, 5, 10), date(2027, 12, 10)


def on(client: Client, day: date) -> Client:
    return Client(client.store, day)


def plan(**changes: Any) -> dict[str, Any]:
    return {"scope": "all", "rhythm": "waterings", "cycle": 1, "feeds": 1, **changes}


@pytest.fixture
def home(client: Client) -> Client:
    """Rain nobody read, two feeds on the shelf, a maranta and two phalaenopsis watered for weeks."""
    here = on(client, date(2027, 4, 1))
    here.made("/api/waters", {"name": "Rain", "kind": "rain"})
    for code, kind in (("M-01", "maranta"), ("P-01", "phalaenopsis"), ("P-02", "phalaenopsis")):
        told = {"watered_on": "2027-03-28", "fed_on": "2027-03-20"}
        here.made("/api/pots", pot(code=code, profile_id=kind, plain_every=4, medium_charged=False, **told))
    buy(here)
    buy(here, FOLIAGE)
    return client


def given(client: Client, day: date) -> dict[str, str]:
    """What each pot of a day's round gets: its product, or the job."""
    cans = on(client, day).get("/api/round")["plan"]["cans"]
    return {p["code"]: c["product"] or c["job"] for c in cans for p in c["pots"]}


def whys(client: Client, day: date) -> dict[str, str]:
    cans = on(client, day).get("/api/round")["plan"]["cans"]
    return {p["code"]: p["why"] for c in cans for p in c["pots"]}


def product(client: Client, name: str) -> int:
    return next(p["id"] for p in client.get("/api/mix")["products"] if p["name"] == name)


def test_with_two_feeds_and_no_plan_nobody_chooses_and_it_is_asked(home: Client) -> None:
    assert set(given(home, MAY).values()) == {"plain"}
    looks = on(home, MAY).get("/api/round")["plan"]["looks"]
    assert {x["release"] for x in looks} == {
        "Several feeds are on your shelf. Say in a feeding plan which one it gets."
    }


def test_the_nearest_plan_rules_and_the_round_makes_a_can_for_each_product(home: Client) -> None:
    nitrate, foliage = product(home, NITRATE), product(home, FOLIAGE)
    here = on(home, MAY)
    here.made("/api/plans", plan(products=[{"product_id": nitrate}]))
    assert set(given(home, MAY).values()) == {NITRATE}
    here.made("/api/plans", plan(scope="kind", key="phalaenopsis", products=[{"product_id": foliage}]))
    assert given(home, MAY) == {"M-01": NITRATE, "P-01": FOLIAGE, "P-02": FOLIAGE}
    own = here.made("/api/plans", plan(scope="plant", key="3", rhythm="never"))
    assert given(home, MAY) == {"M-01": NITRATE, "P-01": FOLIAGE, "P-02": "plain"}
    kept = here.get("/api/plans")
    assert [(p["scope"], p["codes"]) for p in kept] == [("plant", ["P-02"]), ("kind", ["P-01"]), ("all", ["M-01"])]
    here.made(f"/api/log/plan/{own['id']}/archive")
    assert given(home, MAY)["P-02"] == FOLIAGE
    here.made(f"/api/log/plan/{own['id']}/restore")
    assert given(home, MAY)["P-02"] == "plain"


def test_a_plan_without_a_product_takes_it_from_the_next_wider_one(home: Client) -> None:
    here = on(home, MAY)
    here.made("/api/plans", plan(rhythm="never", products=[{"product_id": product(home, FOLIAGE)}]))
    assert set(given(home, MAY).values()) == {"plain"}
    here.made("/api/plans", plan(scope="kind", key="maranta"))
    assert given(home, MAY) == {"M-01": FOLIAGE, "P-01": "plain", "P-02": "plain"}


def test_outside_its_months_a_plan_holds_the_feed_says_why_and_what_opens_it(home: Client) -> None:
    here = on(home, MAY)
    months = {"season_from": "04-01", "season_to": "08-31"}
    here.made("/api/plans", plan(products=[{"product_id": product(home, NITRATE)}], **months))
    assert set(given(home, MAY).values()) == {NITRATE}
    assert set(given(home, DECEMBER).values()) == {"plain"}
    for why in whys(home, DECEMBER).values():
        assert "Feed held: Calendar: fed from 1 April to 31 August. Opens on 1 April." in why
    assert on(home, DECEMBER).get("/api/round")["plan"]["looks"] == [], "the grower's own rule asks nobody"
    held = on(home, DECEMBER).get("/api/pots/1/care")["holds"]
    assert [h["id"] for h in held] == ["feeding plan"]
    can = {"product_id": product(home, NITRATE), "water_id": 1, "volume": 1, "value": 30, "made_on": str(DECEMBER)}
    made = on(home, DECEMBER).made("/api/batches", can)["id"]
    pour = {"pot_ids": [1], "on": str(DECEMBER), "batch_id": made, "volume": 100}
    assert "Opens" not in on(home, DECEMBER).refused("/api/pours", pour, 409)["detail"]
    on(home, DECEMBER).made("/api/pours", {**pour, "note": "it grows under lamps"})


def test_the_word_to_set_the_plan_aside_lets_the_round_feed(home: Client) -> None:
    here = on(home, DECEMBER)
    here.made(
        "/api/plans", plan(season_from="04-01", season_to="08-31", products=[{"product_id": product(home, NITRATE)}])
    )
    here.made("/api/pots/1/override", {"hold_id": "feeding plan", "word": "new lamps"})
    care = here.get("/api/pots/1/care")
    assert [(h["id"], h["word"]) for h in care["holds"]] == [("feeding plan", "new lamps")]
    assert given(home, DECEMBER) == {"M-01": NITRATE, "P-01": "plain", "P-02": "plain"}


def test_plants_on_show_wait_until_they_are_back_in_reserve(home: Client) -> None:
    here = on(home, MAY)
    here.made("/api/plans", plan(reserve_only=True, products=[{"product_id": product(home, NITRATE)}]))
    assert set(given(home, MAY).values()) == {NITRATE}
    here.made("/api/places/1", {"hemisphere": "north", "on_display": True})
    assert set(given(home, MAY).values()) == {"plain"}
    assert all("On show: fed in reserve only." in w for w in whys(home, MAY).values())
    here.made("/api/places/1", {"hemisphere": "north"})
    assert set(given(home, MAY).values()) == {"plain"}, "what is left out stays as it was"
    here.made("/api/places/1", {"hemisphere": "north", "on_display": False})
    assert set(given(home, MAY).values()) == {NITRATE}


def test_the_round_weighs_only_what_is_owned(home: Client) -> None:
    here = on(home, MAY)
    here.made("/api/plans", plan(products=[{"product_id": product(home, NITRATE)}]))
    here.made(f"/api/products/{product(home, NITRATE)}/owned", {"owned": False})
    assert set(given(home, MAY).values()) == {"plain"}
    looks = here.get("/api/round")["plan"]["looks"]
    assert all("not on your shelf" in x["release"] for x in looks)


def test_half_a_label_is_mixed_as_the_label_says(home: Client) -> None:
    here = on(home, MAY)
    mine = product(home, NITRATE)
    echo = here.made(
        "/api/plans/preview", plan(strength="fraction", value="cut it by 80", products=[{"product_id": mine}])
    )
    assert echo["echo"].startswith("“Reduce by four fifths” keeps one fifth.")
    half = plan(strength="fraction", value="half", products=[{"product_id": mine}])
    here.made("/api/plans", {**half, "rhythm": "days", "every_days": 20})
    cans = here.get("/api/round")["plan"]["cans"]
    assert {(c["strength"], c["strength_value"]) for c in cans} == {("fraction", 0.5)}
    label = next(p["label"] for p in here.get("/api/mix")["products"] if p["id"] == mine)
    assert cans[0]["dose"]["dose_g_L"] == pytest.approx(label["label_rate"] / 2)


def test_the_kind_bounds_a_plan_and_a_word_lifts_the_bound(home: Client) -> None:
    here = on(home, MAY)
    strong = plan(strength="nitrogen", value=600, products=[{"product_id": product(home, NITRATE)}])
    here.made("/api/plans", strong)
    most = max(c["nitrogen_mg_L"] for c in here.get("/api/round")["plan"]["cans"])
    assert most <= 200
    here.made("/api/plans", {**strong, "value": 210, "beyond": "they stand in full sun"})
    assert {round(c["nitrogen_mg_L"]) for c in here.get("/api/round")["plan"]["cans"]} <= {210, *range(210)}


def test_a_preview_shows_whom_it_rules_and_who_has_a_nearer_plan(home: Client) -> None:
    here = on(home, MAY)
    here.made("/api/plans", plan(scope="plant", key="2", rhythm="never"))
    seen = here.made("/api/plans/preview", plan(scope="kind", key="phalaenopsis", cycle=4, value=0))
    assert seen["sentence"] == "Feed every Phalaenopsis, at every 4th watering, as strong as its kind likes."
    assert seen["waiting"] == ["P-01"]
    assert [(p["code"], p["rules"]) for p in seen["pots"]] == [("P-02", True), ("P-01", False)]
    assert seen["feeds_then"] < seen["feeds_now"]
    assert len(seen["beside"]) == 3
    assert all(b["days"] for b in seen["beside"])
    assert here.get("/api/plans")[0]["scope"] == "plant", "nothing was stored"
    of = here.get("/api/pots/2/plan")
    assert of["sentence"] == "P-01: plain water, no feed."
    assert of["by"] == "its own choice"


def test_months_under_the_equator_are_the_growers_own(home: Client) -> None:
    here = on(home, MAY)
    here.made("/api/places/1", {"hemisphere": "south", "latitude_deg": -35})
    here.made(
        "/api/plans", plan(season_from="10-01", season_to="03-31", products=[{"product_id": product(home, NITRATE)}])
    )
    assert set(given(home, MAY).values()) == {"plain"}
    assert NITRATE in set(given(home, DECEMBER).values())


def test_starts_are_the_shipped_schools_as_plans(home: Client) -> None:
    starts = here = on(home, MAY).get("/api/plans/starts")
    assert {"Growth-led", "Label strength"} <= {s["name"] for s in starts}
    assert all(s["sentence"].endswith(".") for s in here)
    assert not any("Prey" in s["name"] for s in starts), "prey is no can"


@pytest.mark.parametrize(
    ("changes", "pointer"),
    [
        ({"scope": "kind", "key": "unicorn"}, ""),
        ({"scope": "plant", "key": "99"}, "/key"),
        ({"scope": "place", "key": "x"}, "/key"),
        ({"scope": "group", "key": "cacti"}, "/key"),
        ({"season_from": "04-01"}, "/season_to"),
        ({"season_from": "04-31", "season_to": "05-01"}, "/season/0"),
        ({"rhythm": "days", "every_days": "90"}, "/every_days"),
        ({"strength": "count"}, "/count"),
        ({"strength": "fraction", "value": "a pinch"}, "/value"),
        ({"products": [{"product_id": 999}]}, "/products/0/product_id"),
    ],
)
def test_a_plan_that_cannot_be_is_refused_and_nothing_is_stored(
    home: Client, changes: dict[str, Any], pointer: str
) -> None:
    answer = on(home, MAY).send("/api/plans", plan(**changes))
    assert answer.status_code in (404, 422)
    assert answer.json()["errors"][0]["pointer"] == pointer if pointer else True
    assert on(home, MAY).get("/api/plans") == []


def test_spoons_are_counted_as_their_grower_counts_them(home: Client) -> None:
    here = on(home, MAY)
    mine = product(home, NITRATE)
    spoon = {"name": "blue spoon", "kind": "spoon", "product_id": mine, "on": "2027-05-01", "levels_each": 10}
    spoon |= {"weighings": [46, 46, 46, 46, 46]}
    made = here.send("/api/measures", spoon)
    assert made.status_code == 201, made.text
    counted = {"strength": "count", "count": 2, "measure_id": made.json()["id"], "count_L": 6}
    seen = here.made("/api/plans/preview", plan(products=[{"product_id": mine}], **counted))
    assert seen["plan"]["value"] == pytest.approx(2 * 4.6 / 6)
    assert "2 × blue spoon in 6 L" in seen["sentence"]
    for wrong, pointer in ((counted | {"count_L": 0}, "/count_L"), (counted | {"count": 0}, "/count")):
        refused = here.send("/api/plans/preview", plan(products=[{"product_id": mine}], **wrong))
        assert refused.status_code == 422, "a count of nothing, or in no water, is no strength"
        assert refused.json()["errors"][0]["pointer"] == pointer


def test_a_missed_month_is_fed_once(home: Client) -> None:
    here = on(home, MAY)
    monthly = plan(scope="plant", key="1", rhythm="months", products=[{"product_id": product(home, NITRATE)}])
    here.made("/api/plans", monthly)
    assert given(home, date(2027, 9, 1))["M-01"] == NITRATE
    can = {"product_id": product(home, NITRATE), "water_id": 1, "volume": 1, "value": 30, "made_on": "2027-09-01"}
    made = on(home, date(2027, 9, 1)).made("/api/batches", can)["id"]
    body = {"pot_ids": [1], "on": "2027-09-01", "batch_id": made, "volume": 100}
    on(home, date(2027, 9, 1)).made("/api/pours", body)
    day = date(2027, 9, 1) + timedelta(days=29)
    assert given(home, day)["M-01"] == "plain"
    assert given(home, date(2027, 10, 1))["M-01"] == NITRATE


def shares(client: Client, day: date) -> dict[str, tuple[str, str, str]]:
    """The way each pot of a day's round gets its water or feed, in what words, and what its can is mixed for."""
    cans = on(client, day).get("/api/round")["plan"]["cans"]
    return {p["code"]: (p["route"], p["given"], c["made_for"]) for c in cans for p in c["pots"]}


def test_a_plan_that_feeds_on_the_moss_pole_is_poured_there_and_nowhere_else(home: Client) -> None:
    here, mine = on(home, MAY), product(home, NITRATE)
    pole = plan(
        scope="plant", key="1", rhythm="days", every_days=14, route="moss pole", products=[{"product_id": mine}]
    )
    here.made("/api/plans", pole)
    here.made("/api/plans", plan(scope="kind", key="phalaenopsis", products=[{"product_id": mine}]))
    found = shares(home, MAY)
    assert found["M-01"] == ("moss pole", "feed on the moss pole", "moss pole")
    assert found["P-01"] == ("top", "feed", "root"), "never out of one can with a pole"
    can = {"product_id": mine, "water_id": 1, "volume": 1, "value": 30, "made_on": "2027-05-10", "route": "moss pole"}
    batch = {"on": "2027-05-10", "batch_id": here.made("/api/batches", can)["id"], "volume": 100}
    assert "mixed for the moss pole" in here.refused("/api/pours", batch | {"pot_ids": [2]}, 409)["detail"]
    here.made("/api/pours", batch | {"pot_ids": [1], "route": "moss pole"})
    assert shares(home, MAY)["M-01"] == ("top", "plain water", "root"), "its medium is as dry as before"


def test_a_plan_for_cups_feeds_no_plant_without_one_into_its_crown(home: Client) -> None:
    on(home, MAY).made("/api/plans", plan(route="cup", products=[{"product_id": product(home, NITRATE)}]))
    assert {way[0] for way in shares(home, MAY).values()} == {"top"}


def test_a_plan_that_soaks_says_so(home: Client) -> None:
    fed = plan(scope="plant", key="2", route="soak", products=[{"product_id": product(home, NITRATE)}])
    on(home, MAY).made("/api/plans", fed)
    cans = on(home, MAY).get("/api/round")["plan"]["cans"]
    share = next(p for c in cans for p in c["pots"] if p["code"] == "P-01")
    assert share["route"] == "soak"
    assert share["then"].startswith("Stand it in the water, tip out after")
    assert shares(home, MAY)["P-02"][:2] == ("top", "plain water"), "the plan of another plant"
