"""The lines of the cases that are of what comes out and of the flush, each played through the API on its days."""

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from tests.cases.grower import Grower
from tests.conftest import NITRATE, Client

BEGAN = datetime.now(UTC) - timedelta(hours=6)


@pytest.fixture
def home(client: Client) -> Grower:
    return Grower(client)


def test_case_10_a_cutting_in_a_glass_then_in_clay_balls(home: Grower) -> None:
    home.water("05-03", "Tap", "soft", disinfectant="none")
    glass: dict[str, Any] = {"medium_id": "perlite", "drainage": "reservoir", "route": "reservoir", "volume": 0.3}
    cutting = home.pot("05-03", "G-01", "ctenanthe", phase="establishing", below_L=0.3, **glass)
    for day in ("05-03", "05-10", "05-17", "05-24"):
        change = {"on": f"2027-{day}", "water_id": home.waters["Tap"], "volume": 200}
        home.on(day).made(f"/api/pots/{cutting}/water-changes", change)
    done = home.on("05-28").get(f"/api/pots/{cutting}/water-changes")
    assert done["changed_on"] == ["2027-05-03", "2027-05-10", "2027-05-17", "2027-05-24"]
    assert done["next_on"] == "2027-05-31"
    balls: dict[str, Any] = {"medium_id": "clay_balls", "drainage": "reservoir", "route": "reservoir", "volume": 1}
    piece = home.pot("05-28", "C-02", "ctenanthe", below_L=0.5, **balls)
    page = home.on("05-28").get(f"/api/pots/{piece}/reservoir")
    assert page["now"]["result"]["keep_L"] == pytest.approx(0.2)
    assert page["kind"] == "reservoir"
    assert "tray" not in str(page["now"]).lower(), "no sentence calls it a tray"


def test_case_11_prills_by_the_label_and_in_a_cold_house(home: Grower) -> None:
    ask = {"given_on": "2027-04-08", "today": "2027-04-08", "label_days": 140, "celsius": 14}
    told = home.on("04-08").made("/api/calc/prill-release", ask)["result"]
    assert told["by_label"] == "2027-08-26"
    assert told["days_to_share"] == pytest.approx(227, abs=0.6)
    assert told["until"] == "2027-11-21"
    assert told["until_early"] < told["until"] < told["until_late"], "shown as a range"
    assert told["nitrogen_mg_week"] is None, "no N invented"


def test_case_13_rinses_every_seventy_days(home: Grower) -> None:
    home.water("01-01", "Osmosis", "permeate")
    bog: dict[str, Any] = {"medium_id": "carn_peat_sand", "drainage": "tray", "route": "tray"}
    home.pot("01-01", "S-01", "drosera_tropical", **bog)
    home.pot("01-01", "B-01", "utricularia_terrestrial", **bog)
    home.pot("01-01", "P-01", "pinguicula_mexican", crown="dry", **bog)
    home.on("01-05").made("/api/kinds/drosera_tropical/own", {"flush_each_days": 70})
    calendar = home.on("01-10").get("/api/flush/calendar?since=2027-01-10&days=150")["pots"]
    rows = {r["code"]: r for r in calendar}
    assert rows["S-01"]["dates"] == ["2027-01-10", "2027-03-21", "2027-05-30"]
    assert "crown must stay dry" in rows["P-01"]["left_out"]
    assert "never rinsed from above" in rows["B-01"]["left_out"]
    assert rows["P-01"]["dates"] == rows["B-01"]["dates"] == []


def salted(home: Grower) -> int:
    """A: moist, crusted, its runoff at 2,640 where 780 is usual."""
    home.water("05-01", "Tap", "mains", disinfectant="none")
    home.on("05-01").made("/api/waters/1/readings", {"on": "2027-05-01", "value": 190, "unit": "µS/cm"})
    pot = home.pot("05-01", "A-01", "maranta", watered_on="2027-04-28", fed_on="2027-04-01", volume=1.17)
    for day, ec in (("05-05", 790), ("05-12", 770), ("05-19", 780), ("05-26", 2640)):
        home.pour(day, "A-01", "Tap", volume=250, runoff_ec=ec, runoff_volume=60)
    home.look("05-27", "A-01", marks=["crust"])
    return pot


def flushed(home: Grower, pot: int, readings: tuple[int, ...]) -> dict[str, Any]:
    """Passes over three hours."""
    client = home.on("05-27")
    body = {"water_id": 1, "target_runoff": 800, "at": BEGAN.isoformat()}
    flush = client.made(f"/api/pots/{pot}/flushes", body)
    for i, ec in enumerate(readings):
        assert not flush["live"]["result"]["stop"], f"it ended before pass {i + 1}"
        at = (BEGAN + timedelta(minutes=10 + 34 * i)).isoformat()
        one = {"volume": 200, "runoff_ec": ec, "at": at}
        flush = client.made(f"/api/flushes/{flush['id']}/passes", one)
    return dict(flush)


def test_case_17_a_flush_that_ends(home: Grower) -> None:
    pot = salted(home)
    learnt = home.on("05-27").get(f"/api/pots/{pot}/calibration")["result"]
    assert learnt["newest_times_usual"] == pytest.approx(3.4, abs=0.05)
    assert "salt, not thirst" in learnt["sentence"]
    assert "crust" in home.holds("05-27", "A-01")
    ways = home.on("05-27").get(f"/api/pots/{pot}/flush-ways")["result"]
    assert "Scrape" in " ".join(ways["cautions"])
    assert ways["ways"][0]["possible"], "the card never calls needless what the hold asks for"
    flush = flushed(home, pot, (1900, 1350, 1010, 840, 770, 750))
    live = flush["live"]["result"]
    assert live["stop"] is True, "after the sixth pass"
    assert live["alike"] == pytest.approx(0.026, abs=0.0005)
    end = home.on("05-27").made(f"/api/flushes/{flush['id']}/end", {"tray_emptied": True})
    assert end["ended_as"] == "reached"
    assert end["tray_emptied"] is True
    assert end["feed_on"] > "2027-05-27"


def test_case_17_broken_off_after_pass_three_it_is_partial_and_due(home: Grower) -> None:
    pot = salted(home)
    flush = flushed(home, pot, (1900, 1350, 1010))
    assert 0.05 < flush["live"]["result"]["left_L"] < 1.0
    end = home.on("05-27").made(f"/api/flushes/{flush['id']}/end", {"broken_off": True})
    assert end["ended_as"] == "interrupted"
    assert "crust" in home.holds("05-28", "A-01"), "partial: it is still due"
    assert home.on("05-28").get(f"/api/pots/{pot}/flushes")["running_id"] is None


def test_case_17_about_a_litre_to_drain(home: Grower) -> None:
    pot = salted(home)
    begun = {"water_id": 1, "target_runoff": 800, "at": BEGAN.isoformat()}
    flush = home.on("05-27").made(f"/api/pots/{pot}/flushes", begun)
    assert flush["live"]["result"]["left_L"] == pytest.approx(1.0, abs=0.45)
    assert flush["live"]["result"]["left_low_L"] < flush["live"]["result"]["left_high_L"]


def test_case_17_repotted_instead_the_reading_starts_anew(home: Grower) -> None:
    pot = salted(home)
    before = home.on("05-27").get(f"/api/pots/{pot}")["row"]["reading_uS_cm"]
    home.on("05-28").made(f"/api/pots/{pot}/repot", {"on": "2027-05-28", "charged": False})
    home.pour("05-29", "A-01", "Tap", volume=250)
    after = home.on("05-30").get(f"/api/pots/{pot}")["row"]["reading_uS_cm"]
    assert after < 0.5 * before


def test_case_17_with_no_pen_crust_and_litres_carry_it(home: Grower) -> None:
    pot = salted(home)
    client = home.on("05-27")
    flush = client.made(f"/api/pots/{pot}/flushes", {"water_id": 1, "at": BEGAN.isoformat()})
    for i in range(3):
        at = (BEGAN + timedelta(minutes=30 * i)).isoformat()
        one = {"volume": 400, "colour": "tinted", "at": at}
        flush = client.made(f"/api/flushes/{flush['id']}/passes", one)
    assert flush["live"]["result"]["poured_L"] == pytest.approx(1.2)
    assert flush["live"]["result"]["left_L"] is not None, "the plan stands"
    end = client.made(f"/api/flushes/{flush['id']}/end", {"tray_emptied": True})
    assert end["ended_as"] == "ended"


def test_case_21_the_reservoir_of_n(home: Grower) -> None:
    home.water("09-01", "Permeate", "permeate")
    home.on("09-01").made("/api/waters/1/readings", {"on": "2027-09-01", "value": 12, "unit": "µS/cm"})
    home.shipped("09-01", NITRATE)
    balls: dict[str, Any] = {"medium_id": "clay_balls", "drainage": "reservoir", "route": "reservoir", "volume": 1.5}
    pot = home.pot("09-01", "N", "cattleya_alliance", below_L=1.2, **balls)
    can = {"product_id": home.feeds[NITRATE], "water_id": 1, "volume": 1, "made_on": "2027-09-01"}
    made = home.on("09-01").made("/api/batches", {**can, "strength": "ec_total", "value": 520, "measured": 520})
    home.pour("09-01", "N", volume=480, batch_id=made["id"], route="reservoir", note="filled")
    home.on("09-12").made(f"/api/pots/{pot}/levels", {"on": "2027-09-12", "level": 300})

    def now(day: str) -> dict[str, Any]:
        return dict(home.on(day).get(f"/api/pots/{pot}/reservoir")["now"]["result"])

    assert now("09-12")["high_uS_cm"] == pytest.approx(832, abs=1), "upper estimate 832"
    assert now("09-12")["refill_L"] == pytest.approx(0.18)
    plain = home.pour("09-13", "N", "Permeate", volume=180, route="reservoir")
    assert now("09-13")["high_uS_cm"] == pytest.approx(525, abs=1), "refilled plain"
    home.on("09-13").made(f"/api/log/pour/{plain['pour_ids'][0]}/archive")
    home.pour("09-13", "N", volume=180, batch_id=made["id"], route="reservoir", note="refilled")
    assert now("09-13")["high_uS_cm"] == pytest.approx(715, abs=1), "with feed"
    read = {"on": "2027-09-14", "method": "reservoir", "ec": 610}
    home.on("09-14").made(f"/api/pots/{pot}/readings", read)
    assert now("09-14")["ec_uS_cm"] == 610, "a measured 610 replaces it"
