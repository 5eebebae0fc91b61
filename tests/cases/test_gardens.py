"""Cases 16 to 21: acid mixes, flushes, a collection, no winter, divisions on trial, two sisters."""

from typing import Any

import pytest

from tests.cases.grower import Grower, d
from tests.conftest import Client

NITRATE = "Nitrate feed 13-3-15 with Ca and Mg"


@pytest.fixture
def home(client: Client) -> Grower:
    return Grower(client)


def test_case_16_the_hungry_one(home: Grower) -> None:
    home.water("04-20", "Hose", "borehole", disinfectant="none", alkalinity_mg_L_CaCO3=190)
    home.on("04-20").made("/api/waters/1/readings", {"on": "2027-04-20", "value": 640, "unit": "µS/cm"})
    home.pot(
        "04-20",
        "H-01",
        "unknown",
        name="Heliconia",
        interval_days=2,
        volume=20,
        watered_on="2027-04-20",
        fed_on="2027-04-01",
        others=[{"profile_id": "unknown", "label": "Pilea"}],
    )
    own = {"water_max": 400, "alkalinity_max": 150, "nitrogen_low": 40, "nitrogen_high": 150, "feed_ceiling": 1500}
    (tub,) = home.on("04-20").get("/api/pots")["pots"]
    plants = home.on("04-20").get(f"/api/pots/{tub['id']}/plants")
    lead = plants[0]["id"]
    home.on("04-20").made("/api/kinds/unknown/own", {**own, "plant_id": lead, "word": "own limits"})
    home.shipped("04-20", NITRATE)
    home.plan("04-20", "plant", "H-01", rhythm="days", every_days=14, warm_C=16, warm_nights=6, feed=NITRATE)
    repotted = {
        "on": "2027-05-30",
        "volume": 24,
        "charged": True,
        "medium_parts": [
            {"medium_id": "peat", "parts": 4},
            {"medium_id": "perlite", "parts": 1},
            {"medium_id": "bark_fine", "parts": 1},
        ],
    }
    parts = home.on("05-30").made("/api/calc/medium-parts", {"volume_L": 24, "parts": [4, 1, 1]})["result"]
    assert parts["litres"] == [16.0, 4.0, 4.0]
    home.pour("05-29", "H-01", "Hose", volume=1500)
    home.on("05-30").made("/api/pots/1/repot", repotted)
    page = home.on("05-30").get("/api/pots/1")
    assert page["pot_volume_L"] == 24
    assert page["row"]["reading_uS_cm"] is None, "the reading starts anew"
    home.pour("05-31", "H-01", "Hose", volume=1500)
    home.look("06-02", "H-01", marks=["limp"])
    assert "expected" in home.holds("06-02", "H-01")["settling"]
    assert home.jobs("06-02").get("H-01") == "plain", "water by the soil, no feed"
    for day, night in ((12, 11), (13, 12), (14, 11), (15, 12), (16, 12), (17, 11)):
        home.climate(f"06-{day}", night=night)
    assert "Warmth: the last nights mean 11.5" in home.holds("06-18", "H-01")["feeding plan"]
    assert "feeding plan" in home.holds("07-10", "H-01"), "an old night reading opens nothing"
    for day in range(20, 26):
        home.climate(f"07-{day}", night=18)
    assert "feeding plan" not in home.holds("07-26", "H-01"), "it opens by the mean, not the month"
    assert home.given("07-15") == {"H-01": "Hose"}, "still watered though the water is hard"
    told = home.looks("07-15", "H-01")
    assert "over its limit" in told.lower()
    assert "Rain" in told
    home.on("10-04").made("/api/pots/1/ready", {"ready_by": "droop"})
    home.pour("10-04", "H-01", "Hose", volume=1500)
    home.felt("10-23", "H-01", droops=True)
    assert home.jobs("10-23").get("H-01") == "plain", "droop never meets feed"
    home.pour("10-23", "H-01", "Hose", volume=1500)
    home.felt("10-23", "H-01", droops=True)
    second = home.care("10-24", "H-01")["ready"]["result"]
    assert "It wilted once, on 23 Oct" in second["sentence"], "a second planned wilt warns"


def test_case_17_salt_is_not_answered_with_feed(home: Grower) -> None:
    home.water("05-01", "Tap", "mains", disinfectant="none")
    home.on("05-01").made("/api/waters/1/readings", {"on": "2027-05-01", "value": 190, "unit": "µS/cm"})
    home.pot("05-01", "A-01", "maranta", watered_on="2027-04-28", fed_on="2027-04-01", volume=1.5)
    home.pot("05-01", "D-01", "maranta", watered_on="2027-04-28", fed_on="2027-04-01", volume=1.5)
    home.shipped("05-01", NITRATE)
    home.plan("05-01", cycle=1, feeds=1, feed=NITRATE)
    home.pour("05-05", "A-01", "Tap")
    home.look("05-10", "A-01", marks=["crust"])
    assert "crust" in home.holds("05-12", "A-01")
    assert home.jobs("05-12").get("A-01") != "feed", "“feed more” is closed while crust is clear"
    home.on("05-14").made("/api/pots/1/repot", {"on": "2027-05-14", "charged": False})
    assert "crust" not in home.holds("05-20", "A-01"), "repotted instead, the finding of the old mix is over"
    home.felt("05-10", "D-01", moist="wet", heft="heavy")
    home.look("05-10", "D-01", marks=["rot"])
    assert "D-01" not in home.jobs("05-10"), "heavy and sour: no water, roots next"
    assert "roots" in home.looks("05-10", "D-01")
    home.look("06-01", "D-01", roots_working=True, root=3, marks=[], new_leaf=True)
    assert home.jobs("06-02").get("D-01") is not None, "a normal leaf ends it"


def test_case_18_a_collection_and_the_water_changed_last(home: Grower) -> None:
    home.water("04-01", "Tap", "soft", disinfectant="none", preference=1)
    rain = home.water("04-01", "Rain", "rain", preference=2)
    home.feed("04-01", "Green 20-10-20", n_total_pct=20, p_pct=10, k_pct=20, label_rate=1, label_rate_unit="g/L")
    for code in ("A", "B", "C"):
        home.pot("04-01", code, "goeppertia", interval_days=6, watered_on="2027-03-30", fed_on="2027-03-01", volume=1.5)
    third = {"season_from": "04-01", "season_to": "08-15", "rhythm": "days", "every_days": 24, "value": "third"}
    home.plan("04-01", "kind", "goeppertia", strength="fraction", feed="Green 20-10-20", **third)
    body = {"product_id": home.feeds["Green 20-10-20"], "water_id": 1, "volume": 3, "strength": "fraction"}
    dose = home.on("04-01").made("/api/mix/dose", {**body, "value": "third"} | {"value": 1 / 3})["result"]
    assert dose["amount_g"] == pytest.approx(1.0, rel=0.01), "3 L takes 1.0 g"
    for code in ("A", "B", "C"):
        home.give_feed("07-06", code, "Green 20-10-20", "Tap")
        for day in ("07-12", "07-18", "07-24"):
            home.pour(day, code, "Tap")
    assert set(home.fed_with("07-30")) == {"A", "B", "C"}
    for code in ("A", "B", "C"):
        home.give_feed("07-30", code, "Green 20-10-20", "Tap")
        for day in ("08-05", "08-11", "08-17"):
            home.pour(day, code, "Tap")
    assert home.fed_with("08-23") == {}, "then 23 August is held"
    assert "Calendar" in home.why("08-23", "A")
    usual = home.on("11-01").get(f"/api/pots/{home.pots['C']}")["row"]["volume_L"]
    home.pot("11-01", "E", "goeppertia", volume=6, filled="scarcely", watered_on="2027-10-30")
    home.pot("11-01", "F", "goeppertia", volume=6, watered_on="2027-10-30")
    small, large = (home.on("11-01").get(f"/api/pots/{home.pots[c]}")["row"]["volume_L"] for c in "EF")
    assert usual
    assert small == pytest.approx(0.35 * large), "pours follow the plant, not the pot"
    decision = {"on": "2027-11-01", "what": "watch it", "why": "small in a heavy pot", "look_again_on": "2027-12-01"}
    home.on("11-01").made(f"/api/pots/{home.pots['C']}/decisions", decision)
    assert [t for t in home.errands("12-01") if "C" in t and "look again" in t], "C returns after 30 days"
    home.change("2028-01-20", "A", water_id=rain)
    given = home.given("2028-01-25")
    assert given["A"] == "Rain"
    assert given["B"] == "Tap", "the others keep the grower's own order"
    died = {"on": "2028-01-14", "cause": "rot"}
    home.on("2028-01-14").made(f"/api/pots/{home.pots['C']}/died", died)
    assert "C" not in home.jobs("2028-01-25")
    home.on("2028-01-25").made(f"/api/log/pot/{home.pots['C']}/restore")
    assert home.on("2028-01-25").get(f"/api/pots/{home.pots['C']}")["pours"], "it stays with its past"


def test_case_19_no_winter(home: Grower) -> None:
    home.water("05-01", "Pump", "other", disinfectant="unknown")
    told = {"interval_days": 1, "watered_on": "2027-05-01", "fed_on": "2027-04-01", "volume": 3}
    for code in ("M", "T", "R1"):
        home.pot("05-04", code, "ctenanthe", medium_id="aroid_chunky", **told)
    home.on("05-04").made("/api/places/1", {"hemisphere": "none", "latitude_deg": 3})
    home.shipped("05-04", NITRATE)
    school = {"season_from": "04-01", "season_to": "09-30"}
    assert school
    home.on("05-04").made("/api/rules", {"scope": "place", "key": "1", "school_id": "weekly_in_season"})
    for month in range(1, 13):
        held = home.holds(f"2028-{month:02}-15", "T")
        assert "feeding plan" not in held, "no hold by month, ever"
        assert home.care(f"2028-{month:02}-15", "T")["phase"] != "slowing", "no dark weeks either"
    for n in (3, 0, 0):
        stored = home.on("06-01").made("/api/places/1/hosed", {"on": "2027-06-01"})["pour_ids"]
        assert len(stored) == n, "a day's hosing is one tap, and no clutter"
    (hosing,) = home.on("06-01").get(f"/api/pots/{home.pots['T']}")["pours"]
    assert hosing["volume_L"] is None, "litres unknown"
    assert set(home.jobs("06-02")) == {"M", "T", "R1"}, "nothing vanishes for unknown water"
    home.look("06-20", "R1", roots_working=False)
    assert "no working roots" in home.holds("07-24", "R1"), "a rootless bit is not fed and not watered by days"
    assert "R1" not in home.fed_with("07-24")
    decision = {"on": "2027-07-24", "what": "leave alone", "look_again_on": "2027-09-03"}
    for code in ("M", "T", "R1"):
        home.on("07-24").made(f"/api/pots/{home.pots[code]}/decisions", decision)
    assert len([t for t in home.errands("09-03") if "look again" in t]) == 3
    merged = {
        "code": "ALL",
        "profile_id": "ctenanthe",
        "medium_id": "aroid_chunky",
        "volume": 8,
        "interval_days": 1,
        "on": "2027-09-20",
        "pot_ids": list(home.pots.values()),
    }
    new = home.on("09-20").made("/api/pots/merge", merged)["id"]
    plants = home.on("09-21").get(f"/api/pots/{new}/plants")
    assert len(plants) == 3, "after the merge all keep their past"
    assert {p["code"] for p in home.on("09-21").get("/api/pots")["pots"]} == {"ALL"}


def test_case_20_tap_on_one_division(home: Grower) -> None:
    tap = home.water("02-01", "Tap", "mains", disinfectant="none")
    osmosis = home.water("02-01", "Osmosis", "permeate", membrane_floor_pct=92)
    meter = home.on("02-01").made("/api/meters", {"name": "Pen", "unit": "µS/cm"})["id"]
    check = {"on": "2027-02-01", "standard": "84", "shown": 78, "temperature_C": 25}
    answer = home.on("02-01").send(f"/api/meters/{meter}/checks", check)
    assert answer.status_code == 201, answer.text
    for water, raw in ((tap, 288), (osmosis, 15)):
        body = {"on": "2027-02-02", "value": raw, "unit": "µS/cm", "meter_id": meter, "temperature_C": 25}
        home.on("02-02").made(f"/api/waters/{water}/readings", body)
    page = {w["name"]: w for w in home.on("02-03").get("/api/water")["waters"]}
    assert page["Tap"]["ec25_uS_cm"] == pytest.approx(310, abs=1)
    assert page["Osmosis"]["ec25_uS_cm"] == pytest.approx(16, abs=0.5)
    for code, water in (("X", tap), ("Y", osmosis)):
        home.pot("02-02", code, "coelogyne", medium_id="bark_medium", watered_on="2027-02-02", water_id=water)
    assert home.given("03-01") == {"X": "Tap", "Y": "Osmosis"}, "the round itself pours tap on X, osmosis on Y"
    pairs = [("2027-02-02", 310, 16), ("2027-05-01", 290, 37)]
    for on, feed, permeate in pairs:
        pair = {"on": on, "feed": feed, "permeate": permeate}
        answer = home.on(on).send(f"/api/water/membrane/{osmosis}/pairs", pair)
        assert answer.status_code == 201, answer.text
    home.water("05-01", "Rain", "rain")
    home.pot("05-01", "M-01", "masdevallia", watered_on="2027-04-20")
    assert home.given("05-02")["M-01"] == "Rain", "under the grower's 92: the round stops using it as pure"
    home.pot("05-01", "V-01", "vanda_alliance", watered_on="2027-04-30")
    assert home.then("05-10", "V-01").endswith("Dry the crown.")


def test_case_21_two_sisters(home: Grower) -> None:
    home.water("03-01", "Permeate", "permeate")
    home.on("03-01").made("/api/waters/1/readings", {"on": "2027-03-01", "value": 12, "unit": "µS/cm"})
    home.shipped("03-01", NITRATE)
    balls: dict[str, Any] = {"medium_id": "clay_balls", "drainage": "reservoir", "route": "reservoir", "volume": 1.5}
    for code in ("N", "S"):
        home.pot(
            "03-01", code, "cattleya_alliance", interval_days=7, watered_on="2027-02-27", fed_on="2027-02-01", **balls
        )
    home.plan("03-01", "kind", "cattleya_alliance", cycle=1, feeds=1, growth="until made", feed=NITRATE)
    ppm = {"product_id": home.feeds[NITRATE], "water_id": 1, "volume": 1, "strength": "ec_total", "value": "280 ppm"}
    refused = home.on("03-10").send("/api/mix/dose", ppm)
    assert refused.status_code == 422, "a ppm without its kind enters no sum"
    assert all(word in refused.text for word in ("400 µS/cm", "438 µS/cm", "560 µS/cm", "280 mg/L N"))
    home.look("03-10", "N", new_growth=True)
    assert "N" in home.fed_with("03-10"), "feed at every fill in growth"
    home.change("03-05", "S", isolated=True)
    walk = [i for leg in home.plan_of("03-10")["legs"] for i in leg["pot_ids"]]
    assert walk[-1] == home.pots["S"], "S is last"
    assert "wash hands" in home.plan_of("03-10")["clean_hands"]
    home.look("09-18", "N", growth_stopped=True)
    for day in ("09-20", "10-20", "12-01"):
        assert home.jobs(day).get("N") == "plain", "from 18 September fills are plain until growth"
        assert "Growth was made on 18 September" in home.holds(day, "N")["feeding plan"]
    home.on("09-25").made("/api/rules", {"scope": "kind", "key": "cattleya_alliance", "school_id": "label_strength"})
    assert home.jobs("10-20").get("N") == "plain", "no school lifts that"
    decision = {"on": "2027-10-01", "what": "wait", "look_again_on": "2028-03-01"}
    home.on("10-01").made(f"/api/pots/{home.pots['S']}/decisions", decision)
    assert not [t for t in home.errands("2028-02-28") if t.startswith("S ") and "look again" in t]
    assert [t for t in home.errands("2028-03-01") if t.startswith("S ") and "look again" in t]
    assert d("03-01")
