"""Cases 2 and 8 to 15: arrivals, leaves that form, cups, clay balls, a cold house, a pole, bogs, dry rests."""

from typing import Any

import pytest

from tests.cases.grower import Grower
from tests.conftest import Client

NITRATE = "Nitrate feed 13-3-15 with Ca and Mg"
FOLIAGE = "Foliage feed 20-8.7-16.6, urea-rich"


@pytest.fixture
def home(client: Client) -> Grower:
    return Grower(client)


def ramp(home: Grower, day: str, code: str, **body: Any) -> None:
    made = {"unit": "quarters", "start": 1, "step": 1, "target": 4, "every_days": 2, **body}
    home.on(day).made(f"/api/pots/{home.pots[code]}/ramps", made)


def level(home: Grower, day: str, code: str, what: str) -> Any:
    return next(r["result"] for r in home.care(day, code)["ramps"] if what in r["result"]["sentence"])


def test_case_2_a_parcel_of_bog_plants(home: Grower) -> None:
    home.water("03-06", "Rain", "rain")
    home.on("03-06").made("/api/waters/1/readings", {"on": "2027-03-06", "value": 14, "unit": "µS/cm"})
    for code, kind in (("C-01", "cephalotus"), ("D-01", "drosera_temperate"), ("H-01", "heliamphora")):
        home.pot("03-06", code, kind, medium_id="carn_peat_perlite", arrived_on="2027-03-06", watered_on="2027-03-06")
        home.look("03-06", code, marks=["tip", "spot"], leaves_count=5)
    for code in ("C-01", "D-01"):
        ramp(home, "03-06", code, what="bag", start_on="2027-03-07")
    ramp(home, "03-06", "C-01", what="lamps", unit="h", start_on="2027-03-13", start=6, target=12)
    home.look("03-10", "D-01", marks=["limp"])
    assert level(home, "03-10", "D-01", "bag")["level"] == 1
    for day in ("03-12", "03-13"):
        home.look(day, "D-01", marks=[])
    assert level(home, "03-12", "C-01", "bag")["level"] == 3
    assert level(home, "03-13", "C-01", "bag")["level"] == 4, "fully open on 13 March"
    assert level(home, "03-14", "D-01", "bag")["level"] == 2
    assert level(home, "03-14", "D-01", "bag")["ends_on"] == "2027-03-18"
    assert level(home, "03-24", "C-01", "lamps")["level"] == 11
    assert level(home, "03-25", "C-01", "lamps")["level"] == 12
    assert "bag: next step" in " ".join(home.errands("03-11"))
    for code in home.pots:
        assert "is the journey" in home.holds("03-12", code)["just arrived"], "travel, not bad water"
        assert "is the journey" not in home.holds("03-20", code)["just arrived"], "for two weeks"
        assert "days alone release nothing" in home.holds("03-20", code)["just arrived"]
    home.look("04-02", "C-01", new_leaf=True)
    assert "just arrived" not in home.holds("04-03", "C-01")
    for day in ("04-03", "04-13", "06-01", "09-01"):
        assert "just arrived" in home.holds(day, "D-01"), day
        assert "just arrived" in home.holds(day, "H-01"), day
    review = [t for t in home.errands("04-13") if "look at the arrival" in t]
    assert len(review) == 2, "on day 38 the other two appear for review"
    assert not [t for t in home.errands("04-12") if "look at the arrival" in t]
    assert [t for t in home.errands("05-01") if "look at the arrival" in t], "it stays until answered"
    path = f"/api/pots/{home.pots['D-01']}/override"
    assert "word is missing" in home.on("03-23").refused(path, {"hold_id": "just arrived", "word": ""})["detail"]
    home.on("03-23").made(path, {"hold_id": "just arrived", "word": "it grows"})
    kept = home.care("03-24", "D-01")["holds"]
    assert [h["word"] for h in kept if h["id"] == "just arrived"] == ["it grows"]


def test_case_8_a_leaf_is_coming_and_drinking_doubles(home: Grower) -> None:
    home.water("01-03", "Tap", "soft", disinfectant="none")
    feed = home.shipped("01-03", NITRATE)
    assert feed
    home.pot(
        "01-03",
        "X-01",
        "alocasia",
        interval_days=8,
        interval_by="learnt",
        medium_charged=None,
        watered_on="2027-01-03",
        fed_on="2026-10-20",
        volume=2,
    )
    home.on("01-03").made("/api/pots/change", {"pot_ids": [1], "medium_since": "2027-01-03"})
    home.plan("01-03", "plant", "X-01", rhythm="months", season_from="03-01", season_to="10-31", feed=NITRATE)
    for day in ("01-03", "01-11", "01-19", "01-27", "02-01", "02-06"):
        home.pour(day, "X-01", "Tap")
    assert "medium not known" in home.holds("02-06", "X-01"), "the unknown medium is shown as assumed charged"
    home.look("02-07", "X-01", new_growth=True)
    page = home.care("02-07", "X-01")["next_on"]
    coming = home.on("02-07").get("/api/days?days=21")["coming"]["result"]["rounds"]
    sheet = home.helper("02-07", "02-20")["X-01"]["days"]
    round_days = [x for x in ("2027-02-08", "2027-02-09", "2027-02-10", "2027-02-11") if "X-01" in home.jobs(x)][:1]
    assert page == coming[0]["on"] == sheet[0] == round_days[0], "one day on every page"
    assert page == "2027-02-10"
    assert home.jobs("02-10") == {"X-01": "plain"}
    beside = home.on("02-10").get("/api/pots/1/plan")["beside"]
    assert {b["name"] for b in beside} >= {"Growth-led"}, "what the growth school would give stands beside it"
    home.look("03-02", "X-01", new_leaf=True, growth_stopped=True)
    home.pour("03-02", "X-01", "Tap")
    assert home.care("03-03", "X-01")["next_on"] >= "2027-03-08", "back to its usual gap when the leaf is open"


def test_case_9_water_in_the_cup(home: Grower) -> None:
    home.water("05-20", "Tap", "soft", disinfectant="none")
    label = {"form": "liquid", "basis": "w/v", "density_g_mL": 1.1, "label_rate": 3, "label_rate_unit": "mL/L"}
    home.feed("05-20", "Treat 5-3-6", n_total_pct=5, p_pct=3, k_pct=6, **label)
    home.pot("05-20", "A-01", "bromeliad_tank", interval_days=5, fed_on="2027-05-01", watered_on="2027-05-18")
    home.pot("05-20", "P-01", "phalaenopsis", medium_id="bark_medium", watered_on="2027-05-18")
    summer = {"season_from": "06-01", "season_to": "08-31", "rhythm": "days", "every_days": 35}
    home.plan(
        "05-20", "plant", "A-01", strength="fraction", value="half", feed="Treat 5-3-6", beyond="a treat", **summer
    )
    home.give_feed("06-05", "A-01", "Treat 5-3-6", "Tap")
    fed = []
    for day in ("07-08", "07-13", "08-17", "09-21"):
        if home.jobs(day).get("A-01") == "feed":
            fed.append(day)
            home.give_feed(day, "A-01", "Treat 5-3-6", "Tap")
        else:
            home.pour(day, "A-01", "Tap")
    assert fed == ["07-13", "08-17"]
    body = {"product_id": home.feeds["Treat 5-3-6"], "water_id": 1, "strength": "fraction", "value": 0.5}
    small = home.on("07-13").made("/api/mix/dose", {**body, "volume": 0.3})["result"]
    assert small["amount_mL"] == pytest.approx(0.45, rel=0.01)
    assert abs(small["rounding_error_pct"]) > 5 or not small["weighable"], "the step error is shown"
    assert home.on("07-13").made("/api/mix/dose", {**body, "volume": 0.6})["result"]["amount_mL"] == pytest.approx(0.9)
    assert "Keep the cup filled." in home.then("09-28", "A-01")
    assert "Dry the crown." in home.then("09-28", "P-01")
    sheet = home.helper("09-28", "10-12")
    assert "cup" in sheet["A-01"]["then"]
    assert "Never let the cup run dry." in sheet["A-01"]["not_do"]
    assert "No water in the crown." in sheet["P-01"]["not_do"]
    can = home.can("09-28", "Treat 5-3-6", "Tap")
    cup = {"pot_ids": [home.pots["P-01"]], "on": "2027-09-28", "batch_id": can, "volume": 40, "route": "cup"}
    assert "rots it" in home.on("09-28").refused("/api/pours", cup, 409)["detail"]
    before = home.on("09-28").get("/api/pots/1")["row"]["last_pour_on"]
    home.pour("09-28", "A-01", "Tap", volume=40, route="cup")
    assert home.on("09-28").get("/api/pots/1")["row"]["last_pour_on"] == before, "cup millilitres are not the soil's"


def test_case_10_half_label_by_the_calendar(home: Grower) -> None:
    home.water("04-01", "Tap", "soft", disinfectant="none")
    home.feed("04-01", "Green 20-10-20", n_total_pct=20, p_pct=10, k_pct=20, label_rate=1.5, label_rate_unit="g/L")
    home.pot("04-01", "C-01", "ctenanthe", interval_days=8, watered_on="2027-04-01", fed_on="2027-03-20", volume=2)
    months = {"season_from": "04-01", "season_to": "08-31", "rhythm": "days", "every_days": 16}
    home.plan(
        "04-01",
        "kind",
        "ctenanthe",
        strength="fraction",
        value="half",
        feed="Green 20-10-20",
        beyond="by the label",
        **months,
    )
    client = home.on("04-01")
    body = {"product_id": home.feeds["Green 20-10-20"], "water_id": 1, "volume": 1.8, "strength": "fraction"}
    dose = client.made("/api/mix/dose", {**body, "value": 0.5})["result"]
    assert dose["amount_g"] == pytest.approx(1.35, rel=0.01)
    stock = {"grams": 15, "mL": 300}
    assert 1.35 / stock["grams"] * stock["mL"] == pytest.approx(27)
    home.give_feed("08-20", "C-01", "Green 20-10-20", "Tap")
    home.pour("08-28", "C-01", "Tap")
    assert home.jobs("09-05") == {"C-01": "plain"}
    assert "Opens on 1 April" in home.why("09-05", "C-01")
    home.pour("09-05", "C-01", "Tap")
    assert home.days_with("2027-12-01", "2027-12-10", "C-01", "feed") == []
    assert home.jobs("2028-04-02") == {"C-01": "feed"}, "one dose: nothing is owed"


def test_case_11_product_by_phase_prills_and_cool_nights(home: Grower) -> None:
    home.water("04-01", "Rain", "rain")
    home.on("04-01").made("/api/waters/1/readings", {"on": "2027-04-01", "value": 20, "unit": "µS/cm"})
    home.feed("04-01", "Nitrogen 20-5-10", n_total_pct=20, p_pct=5, k_pct=10, label_rate=1)
    home.feed("04-01", "Potash 8-5-24", n_total_pct=8, p_pct=5, k_pct=24, label_rate=1)
    prills = home.feed(
        "04-01", "Prills 140", kind="prill", n_total_pct=14, p_pct=8, k_pct=11, longevity_days=140, longevity_at_C=21
    )
    for code in ("Y-01", "Y-02", "Y-03"):
        home.pot(
            "04-01",
            code,
            "cymbidium",
            medium_id="bark_coarse",
            interval_days=7,
            watered_on="2027-04-01",
            fed_on="2027-03-01",
            volume=4,
        )
    products = [
        {"when": "growth", "product_id": home.feeds["Nitrogen 20-5-10"]},
        {"when": "spike", "product_id": home.feeds["Potash 8-5-24"]},
    ]
    home.plan("04-01", "kind", "cymbidium", cycle=2, feeds=1, products=products)
    home.on("04-08").made("/api/pots/fast-add", {"phrase": "two divisions of Y-03", "on": "2027-04-08"})
    body = {"pot_ids": [home.pots["Y-03"]], "product_id": prills, "on": "2027-04-08", "amount": 12, "unit": "g"}
    home.on("04-08").made("/api/feedings", body)
    held = home.holds("06-01", "Y-03")
    assert "prills running" in held
    assert "Prills have given" in held["prills running"]
    assert home.jobs("06-01").get("Y-03") != "feed"
    for code in ("Y-01", "Y-02"):
        home.pour("09-26", code, "Rain")
        home.give_feed("09-20", code, "Nitrogen 20-5-10", "Rain")
    for day in range(1, 30):
        if day != 15:
            home.climate(f"09-{day:02}", night=13 if day % 2 else 14)
    home.look("10-03", "Y-01", spike=True)
    fed = home.fed_with("10-03")
    assert fed.get("Y-01") == "Potash 8-5-24"
    assert fed.get("Y-02") == "Nitrogen 20-5-10", "two cans; only the spiking pot gets the second product"


def test_case_12_full_label_on_the_pole(home: Grower) -> None:
    home.water("06-01", "Tap", "soft", disinfectant="none")
    home.feed("06-01", "Even 12-12-12", n_total_pct=12, p_pct=12, k_pct=12, label_rate=9.2 / 6, label_rate_unit="g/L")
    home.pot("06-01", "M-01", "monstera", watered_on="2027-06-01", fed_on="2027-05-10", volume=4)
    body = {"product_id": home.feeds["Even 12-12-12"], "water_id": 1, "volume": 6, "strength": "fraction"}
    full = home.on("06-01").made("/api/mix/dose", {**body, "value": 1})["result"]
    half = home.on("06-01").made("/api/mix/dose", {**body, "value": 0.5})["result"]
    assert full["amount_g"] == pytest.approx(9.2, rel=0.001)
    assert full["nitrogen_mg_L"] == pytest.approx(184, rel=0.005)
    assert half["nitrogen_mg_L"] == pytest.approx(92, rel=0.005)
    can = home.on("06-01").made("/api/batches", {**body, "value": 1, "route": "moss pole", "made_on": "2027-06-01"})[
        "id"
    ]
    soil = {"pot_ids": [1], "on": "2027-06-01", "batch_id": can, "volume": 300}
    assert "mixed for the moss pole" in home.on("06-01").refused("/api/pours", soil, 409)["detail"]
    home.on("06-01").made("/api/pours", {**soil, "route": "moss pole", "note": "full label by choice"})


def test_case_13_bog_plants_in_trays(home: Grower) -> None:
    home.water("01-01", "Tap", "mains", disinfectant="none")
    home.water("01-01", "Osmosis", "permeate")
    for water, shown in ((1, 88), (2, 9)):
        body = {"on": "2027-01-01", "value": shown, "unit": "ppm", "scale": "unknown"}
        home.on("01-01").made(f"/api/waters/{water}/readings", body)
    kept = {"medium_id": "carn_peat_sand", "drainage": "tray", "route": "tray", "watered_on": "2026-12-31"}
    home.pot("01-01", "S-01", "drosera_tropical", interval_days=3, **kept)
    home.pot("01-01", "N-01", "nepenthes_lowland", interval_days=5, medium_id="sphagnum_loose", watered_on="2026-12-28")
    assert home.given("01-05")["S-01"] == "Osmosis", "tap is over on every scale, osmosis within on every scale"
    waters = {w["name"]: w for w in home.on("01-05").get("/api/water")["waters"]}
    assert waters["Tap"]["ec25_uS_cm"] is None, "no scale is guessed"
    assert waters["Tap"]["low_uS_cm"] == pytest.approx(126, abs=1)
    assert waters["Tap"]["high_uS_cm"] == pytest.approx(176, abs=1)
    feed = home.feed("01-01", "Powder 20-20-20", n_total_pct=20, p_pct=20, k_pct=20, label_rate=1)
    spray = {
        "rhythm": "days",
        "every_days": 10,
        "route": "leaf spray",
        "strength": "nitrogen",
        "value": 15,
        "spray_before_dark_min": 25,
    }
    seasons = {"hemisphere": "north", "lamp_hours": 14}
    home.on("01-01").made("/api/places/1", {**seasons, "lamps_off": "20:40"})
    home.plan("01-01", "kind", "drosera_tropical", feed="Powder 20-20-20", **spray)
    home.on("01-05").made("/api/pots/1/phase", {"phase": "active", "since": "2027-01-05"})
    sprays = [c for c in home.cans("01-05") if c["job"] == "leaf spray"]
    assert [p["code"] for c in sprays for p in c["pots"]] == ["S-01"]
    assert "at 20:15" in home.why("01-05", "S-01")
    home.on("01-05").made("/api/places/1", {**seasons, "lamps_off": "22:00"})
    assert "at 21:35" in home.why("01-05", "S-01"), "lamps out at 22:00 moves it"
    assert "no time of day" in home.on("01-05").refused("/api/places/1", {**seasons, "lamps_off": "25:00"})["detail"]
    assert "N-01" not in home.fed_with("01-05"), "no root feed unasked"
    dose = home.on("01-05").made(
        "/api/mix/dose", {"product_id": feed, "water_id": 2, "volume": 0.24, "strength": "nitrogen", "value": 25}
    )["result"]
    assert dose["amount_g"] * 1000 == pytest.approx(30, rel=0.02)
    assert dose["stock"] is not None, "30 mg needs a stock"
    home.plan(
        "01-06", "plant", "N-01", cycle=8, feeds=1, strength="nitrogen", value=10, route="top", feed="Powder 20-20-20"
    )
    home.on("01-06").made(f"/api/pots/{home.pots['N-01']}/phase", {"phase": "active", "since": "2027-01-06"})
    ahead = home.on("01-06").get(f"/api/pots/{home.pots['N-01']}/plan")["ahead"]
    assert ahead["feeds"] > 0, "root feed opens for one pot by choice"
    assert home.on("01-06").get("/api/pots/1/plan")["ahead"]["feeds"] > 0, "the other's spray stays"
    bottle = home.can("01-06", "Powder 20-20-20", "Osmosis", 0.24, route="leaf")
    left = home.on("01-06").refused(f"/api/batches/{bottle}/left", {"left": 0.25, "on": "2027-01-06"})
    assert "Is the decimal point missing: 0.025?" in left["detail"]
    dry_air = home.water("02-02", "Dehumidifier", "condensate", collected_on="2027-02-02")
    for day, old in (("02-05", False), ("02-23", True)):
        told = next(w for w in home.on(day).get("/api/water")["waters"] if w["id"] == dry_air)["watch"]
        assert ("pour it out" in str(told)) is old, day
    assert [c for c in home.cans("03-08") if c["job"] == "leaf spray"]
    home.look("03-09", "S-01", marks=["algae"])
    assert not [c for c in home.cans("03-09") if c["job"] == "leaf spray"], "algae skips that pot's next spray"
    assert "its next spray is left out" in home.holds("03-09", "S-01")["algae"]
    home.look("03-11", "S-01", marks=[])
    assert "algae" not in home.holds("03-11", "S-01")
    home.on("03-09").made("/api/pots/1/treated", {"on": "2027-03-09", "days": 10})
    assert not [c for c in home.cans("03-12") if c["job"] == "leaf spray"], "a treated leaf is not sprayed"


def test_case_14_fed_hard_then_bone_dry(home: Grower) -> None:
    home.water("2026-11-01", "Rain", "rain")
    home.pot(
        "2026-11-01",
        "C3",
        "catasetum_group",
        medium_id="sphagnum_loose",
        interval_days=4,
        phase="dormant",
        watered_on="2026-10-20",
        fed_on="2026-09-20",
    )
    home.shipped("2026-11-01", NITRATE)
    home.plan("2026-11-01", cycle=1, feeds=1, feed=NITRATE)
    figures = {"gate_root_cm": 9, "gate_roots": 4, "gate_growth_cm": 15, "word": "my own numbers"}
    home.on("2026-11-01").made("/api/kinds/catasetum_group/own", figures)
    for day in ("2026-11-02", "2026-12-10", "2027-01-20", "2027-03-01"):
        assert "C3" not in home.jobs(day), "no pour in the dry rest"
    home.look("2027-02-10", "C3", roots_working=None, marks=[], note="roots soft")
    home.look("2027-01-12", "C3", growth="side", growth_length=16, new_growth=True, roots=[12, 11, 10, 10])
    assert "C3" not in home.jobs("2027-01-20"), "the side shoot changes nothing"
    home.look("2027-03-28", "C3", new_growth=True, growth_length=16, roots=[10.2, 9.4, 6.0])
    home.on("2027-03-01").made("/api/pots/1/care", {"phase_school": "growth"})
    held = " ".join(home.holds("2027-03-28", "C3").values()) + home.care("2027-03-28", "C3")["phase_sentence"]
    assert "two roots short of 9 cm" in held, held
    assert "C3" not in home.jobs("2027-03-29")
    home.look("2027-04-16", "C3", new_growth=True, growth_length=21, roots=[12.0, 11.1, 10.0, 9.3])
    assert home.jobs("2027-04-16").get("C3") == "plain", "plain water only"
    assert "first cans after a rest carry no feed" in " ".join(home.holds("2027-04-16", "C3").values())
    home.pour("2027-04-16", "C3", "Rain")
    home.pour("2027-04-30", "C3", "Rain")
    assert home.jobs("2027-05-04").get("C3") == "plain"
    home.look("2027-05-04", "C3", new_leaf=True)
    assert home.jobs("2027-05-04").get("C3") == "feed", "feed from the first leaf on"
    thin = home.cans("2027-05-04")[0]["nitrogen_mg_L"]
    home.give_feed("2027-05-04", "C3", NITRATE, "Rain")
    assert thin <= 0.6 * home.cans("2027-05-08")[0]["nitrogen_mg_L"], "the first one is thin"
    home.pot("2026-12-05", "C8", "catasetum_group", phase="", arrived_on="2026-12-05")
    assert "C8" not in home.jobs("2026-12-20"), "nothing chosen: neither watered nor fed in its season of rest"
    asked = "is it growing or at rest?"
    assert [t for t in home.errands("2026-12-20") if t.startswith("C8") and asked in t], "it is asked its phase"
    home.on("2026-12-21").made(f"/api/pots/{home.pots['C8']}/phase", {"phase": "dormant", "since": "2026-12-21"})
    assert not [t for t in home.errands("2026-12-22") if asked in t]
    assert not [t for t in home.errands("2027-06-02") if t.startswith("C3") and "look at it" in t]
    (before,) = [c["nitrogen_mg_L"] for c in home.cans("2027-06-05") if "C3" in [p["code"] for p in c["pots"]]]
    assert [t for t in home.errands("2027-06-04") if t.startswith("C3") and "look at it" in t], "no leaf noted: look"
    (after,) = [c["nitrogen_mg_L"] for c in home.cans("2027-06-30") if "C3" in [p["code"] for p in c["pots"]]]
    assert after == before > 0, "and it does not thin the feed"


def test_case_15_a_southern_tuber_climber(home: Grower) -> None:
    home.water("2026-10-01", "Rain", "rain")
    home.feed("2026-10-01", "Climber 15-5-15", n_total_pct=15, p_pct=5, k_pct=15, label_rate=1)
    home.pot(
        "2026-10-01",
        "G-01",
        "dioscorea_discolor",
        interval_days=2,
        phase="dormant",
        watered_on="2026-04-20",
        fed_on="2026-03-01",
        volume=6,
    )
    home.on("2026-10-01").made("/api/places/1", {"hemisphere": "south", "latitude_deg": -35})
    home.plan(
        "2026-10-01",
        "plant",
        "G-01",
        cycle=3,
        feeds=1,
        strength="nitrogen",
        value=60,
        feed="Climber 15-5-15",
        beyond="as every year",
    )
    assert "G-01" not in home.jobs("2026-10-20"), "dry since autumn: right"
    home.felt("2026-10-21", "G-01", moist="dry")
    assert "kept dry" in home.holds("2026-10-21", "G-01")["dormant"], "and a dry finger changes nothing"
    counted = "count what rests"
    assert [t for t in home.errands("2026-11-01") if counted in t], "die-back brings a stock-take"
    job = next(j for j in home.on("2026-11-01").get("/api/round")["jobs"] if counted in j["title"])
    done = {k: job[k] for k in ("id", "kind", "due_on", "pot_id")} | {"on": "2026-11-01", "note": "not counted"}
    home.on("2026-11-01").made("/api/jobs/done", done)
    assert not [t for t in home.errands("2026-11-01") if counted in t], "a count that is not known is an answer"
    home.on("2026-11-02").made("/api/pots/1/phase", {"phase": "active", "since": "2026-11-02"})
    assert home.jobs("2026-11-02").get("G-01") == "plain", "the first can is plain"
    for day in ("2026-11-02", "2026-11-10", "2026-11-18"):
        home.pour(day, "G-01", "Rain")
    home.felt("2026-11-24", "G-01", moist="dry")
    assert "Urgent: dry in growth" in home.why("2026-11-25", "G-01"), "after the shoots a dry pot is urgent"
    home.pour("2026-11-26", "G-01", "Rain")
    assert home.jobs("2026-11-26").get("G-01") != "feed", "no feed before the first leaf"
    home.look("2026-11-27", "G-01", new_leaf=True)
    assert home.jobs("2026-11-29").get("G-01") == "feed"
    home.give_feed("2026-11-29", "G-01", "Climber 15-5-15", "Rain")
    home.pour("2026-12-01", "G-01", "Rain")
    assert home.jobs("2026-12-03").get("G-01") == "plain"
    home.pour("2026-12-04", "G-01", "Rain")
    assert home.jobs("2026-12-06").get("G-01") == "feed", "the watering after 4 December: counted in waterings"
