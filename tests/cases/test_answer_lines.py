"""What the cases ask of evidence and diagnosis: each line by what the grower logged until that day."""

from datetime import timedelta
from typing import Any

import pytest

from tests.cases.grower import Grower, d
from tests.conftest import Client


@pytest.fixture
def home(client: Client) -> Grower:
    return Grower(client)


def of(home: Grower, day: str, code: str, what: str) -> Any:
    return home.on(day).get(f"/api/pots/{home.pots[code]}/{what}")


def said(page: dict[str, Any], kind: str = "") -> str:
    return " ".join(s["words"] for s in page["advice"]["sayings"] if not kind or s["kind"] == kind)


def newest(home: Grower, day: str, code: str) -> int:
    return int(of(home, day, code, "look-asked")["leaves"][0]["id"])


def test_case_3_the_july_tip_proves_nothing_and_the_clean_leaf_is_weak(home: Grower) -> None:
    home.water("06-01", "Tap", "mains", disinfectant="none")
    home.water("06-01", "Distilled", "distilled", disinfectant="none")
    home.pot("06-01", "AN-1", "anthurium_flowering", medium_charged=False)
    for day in ("04-10", "07-10"):
        home.look(day, "AN-1", new_leaf=True, marks=[])
    july = newest(home, "07-10", "AN-1")
    for i in range(16):
        on = d("07-04") + timedelta(days=9 * i)
        home.pour(on.isoformat(), "AN-1", "Tap" if on < d("09-01") else "Distilled")
    home.look("10-20", "AN-1", new_leaf=True, marks=[])
    home.look("11-14", "AN-1", marks=[{"kind": "tip", "leaf_id": july, "texture": "crisp"}])
    chosen = of(home, "11-19", "AN-1", "answers?measure=new%20burn")["chosen"]
    assert chosen["change"]["words"] == "Tap to Distilled"
    values = {v["on"]: (v["value"], v["formed"]) for v in chosen["answer"]["result"]["treated"]}
    assert values["2027-07-10"] == (1.0, "formed before"), "the July tip is older than the change"
    value, formed = values["2027-10-20"]
    assert (value, formed) == (0.0, "begun before")
    assert chosen["answer"]["result"]["grade"] in ("too early", "a hint"), "nothing is proven by it"


def test_case_3_water_before_repotting_and_dolomite_the_other_way(home: Grower) -> None:
    home.pot("06-01", "AN-1", "anthurium_flowering")
    decided = {"on": "2027-11-15", "what": "Repot", "why": "dolomite to make it acid", "look_again_on": "2027-11-20"}
    home.on("11-15").made(f"/api/pots/{home.pots['AN-1']}/decisions", decided)
    jobs = {j["title"]: j["sentence"] for j in home.on("11-19").get("/api/round")["jobs"]}
    (before,) = [s for title, s in jobs.items() if "water it before repotting" in title]
    assert "repotted on 20 Nov" in before
    (kept,) = of(home, "11-15", "AN-1", "decisions")["decisions"]
    assert kept["caution"].startswith("Dolomite is lime: it makes a mix less acid")


def test_case_4_no_cure_before_the_check(home: Grower) -> None:
    home.pot("02-01", "ST-1", "stromanthe")
    home.look("02-18", "ST-1", marks=["curl"])
    page = of(home, "02-18", "ST-1", "wrong")
    assert "leaves curl" in page["signs"]
    assert "No cure before the check" in said(page)
    assert not said(page, "correction")
    assert {"dry", "rh"} & {c["id"] for c in page["shown"]}
    assert page["stairs"]["result"]["next"] is not None


def test_case_8_a_second_yellow_leaf_raises_too_wet(home: Grower) -> None:
    home.pot("01-20", "XA-1", "alocasia")
    home.look("02-14", "XA-1", marks=["yellow oldest"])
    assert "One old yellow leaf: watch until 28 Feb 2027" in said(of(home, "02-14", "XA-1", "wrong"))
    home.look("02-26", "XA-1", marks=["yellow oldest"])
    assert "Too wet? Look first" in said(of(home, "02-26", "XA-1", "wrong"))


def test_case_10_leaves_gained_are_compared_one_pair(home: Grower) -> None:
    for code in ("SOIL", "CLAY"):
        home.pot("05-01", code, "ctenanthe")
    body = {
        "question": "Clay balls: more leaves?",
        "kind": "medium",
        "measure": "leaves gained",
        "pot_ids": list(home.pots.values()),
    }
    trial = home.on("05-28").made("/api/trials", body)["id"]
    for code, days in (("SOIL", ("06-20", "08-02")), ("CLAY", ("06-18", "07-15", "08-20"))):
        for day in days:
            home.look(day, code, new_leaf=True)
    page = home.on("08-28").get(f"/api/trials/{trial}")
    gained = {m["code"]: m["gained"] for m in page["members"]}
    assert gained == {"SOIL": 2, "CLAY": 3}
    assert "one pair" in page["gained"]
    assert page["row"]["can_answer"] is False
    holds = home.on("06-01").get(f"/api/pots/{home.pots['CLAY']}")["row"]["holds"]
    assert any(h["id"] == "trial" for h in holds)


def test_case_11_yellow_green_is_right_light_here_and_a_question_on_foliage(home: Grower) -> None:
    home.pot("04-01", "CY-1", "cymbidium")
    home.pot("04-01", "GO-1", "goeppertia")
    for code in ("CY-1", "GO-1"):
        home.look("10-03", code, marks=["yellow-green"])
    assert "right light" in said(of(home, "10-03", "CY-1", "wrong"), "right")
    assert "look for a cause" in said(of(home, "10-03", "GO-1", "wrong"), "check first")


def test_case_15_seasons_lie_over_each_other_from_restart(home: Grower) -> None:
    """Two seasons from waking: six feeds at N 50, then five at 60; the same nitrogen, 27 cm shorter, cooler nights."""
    home.water("2025-09-01", "Rain", "rain", disinfectant="none")
    home.feed("2025-09-01", "Feed", n_total_pct=15, k_pct=15)
    home.pot("2025-09-01", "GL-1", "dendrobium_deciduous")

    def phase(day: str, name: str) -> None:
        body = {"phase": name, "since": d(day).isoformat()}
        home.on(day).made(f"/api/pots/{home.pots['GL-1']}/phase", body)

    for year, woke, feeds, nitrogen, tall, night in (
        (2025, "2025-10-24", 6, 50, 131, 17.3),
        (2026, "2026-11-02", 5, 60, 104, 14.1),
    ):
        phase(f"{year}-09-15", "dormant")
        phase(woke, "active")
        for i in range(feeds):
            on = (d(woke) + timedelta(days=24 + 5 * i)).isoformat()
            can = home.can(on, "Feed", "Rain", 1.0, strength="nitrogen", value=nitrogen)
            home.pour(on, "GL-1", batch_id=can, volume=600, note="as planned")
        for i in (10, 30, 50):
            home.climate((d(woke) + timedelta(days=i)).isoformat(), night=night)
        home.look((d(woke) + timedelta(days=54)).isoformat(), "GL-1", growth_length=tall)
    page = of(home, "2026-12-26", "GL-1", "seasons")
    told = page["overlay"]["result"]
    assert told["age_days"] == 54
    assert [round(s["nitrogen_mg"]) for s in told["seasons"]] == [180, 180]
    assert "27 cm shorter" in page["sentence"]
    assert "Nights cooler: 14.1 against 17.3" in page["sentence"]
    assert "No sign of hunger" in page["sentence"]
    assert "A trial needs a second pot" in page["sentence"]


def test_case_18_heating_and_air_are_named_and_the_water_left_alone(home: Grower) -> None:
    home.water("07-01", "Tap", "soft", disinfectant="unknown")
    for code, spot in (("A", "by the radiator"), ("B", "far wall")):
        home.pot("02-06", code, "goeppertia", spot=spot)
        for day in ("08-01", "09-12", "10-10"):
            home.look(day, code, new_leaf=True, newest_leaf=180, leaf_growing=False, marks=[])
    for i in range(30):
        on = (d("07-01") + timedelta(days=4 * i)).isoformat()
        if on > "2027-10-14":
            break
        for code in ("A", "B"):
            home.pour(on, code, "Tap")
    for day, pct in (("08-01", 54), ("09-01", 53), ("09-27", 52), ("10-01", 40), ("10-05", 35), ("10-09", 33)):
        home.climate(day, humidity=pct)
    home.on("09-28").made("/api/places/1/changes", {"on": "2027-09-28", "kind": "heating on"})
    home.look("10-14", "A", marks=[{"kind": "rim", "leaf_id": newest(home, "10-14", "A")}])
    page = of(home, "10-14", "A", "wrong")
    assert page["shown"][0]["id"] == "rh"
    air = " ".join(p["words"] for p in page["shown"][0]["speaks_for"])
    assert "humidity" in air
    assert any(p["on"] for p in page["shown"][0]["speaks_for"])
    changes = {c["words"]: c["on"] for c in of(home, "10-14", "A", "answers")["changes"]}
    assert changes["heating on"] == "2027-09-28"
    differs = of(home, "10-14", "A", f"pair?beside={home.pots['B']}")["seen"]["lines"]
    assert {x["name"]: (x["first"], x["second"]) for x in differs} == {"spot": ("by the radiator", "far wall")}
    steps = page["stairs"]["result"]["steps"]
    assert page["stairs"]["result"]["next"] not in ("swap_one", "unpot", "tip_out"), "the water is left alone so far"
    assert (steps[-1]["id"], steps[-1]["state"]) == ("unpot", "not now")
    assert not any(c["id"] in ("fcl", "hard", "na") and c["word"] == "likely" for c in page["shown"])


def test_case_19_too_early_for_bits(home: Grower) -> None:
    home.pot("05-04", "R", "goeppertia")
    decided = {"on": "2027-07-24", "what": "leave alone", "why": "bits", "look_again_on": "2027-09-03"}
    home.on("07-24").made(f"/api/pots/{home.pots['R']}/decisions", decided)
    r = of(home, "07-24", "R", "answers")["chosen"]["answer"]["result"]
    assert (r["grade"], r["headline"]) == ("too early", "Too early until 3 Sep 2027")
    assert any("look again" in j["title"] for j in home.on("09-03").get("/api/round")["jobs"])


def test_case_20_too_early_after_a_day_and_confounded_by_gravel(home: Grower) -> None:
    home.water("02-20", "Tap", "mains", disinfectant="none")
    home.water("02-20", "Osmosis", "permeate", disinfectant="none")
    for code in ("X", "Y"):
        home.pot("02-02", code, "bulbophyllum")
    pots = list(home.pots.values())
    body = {"question": "Tap on one division", "kind": "water", "pot_ids": pots, "water_id": home.waters["Tap"]}
    trial = home.on("03-01").made("/api/trials", body)["id"]
    page = home.on("03-02").get(f"/api/trials/{trial}")
    assert page["row"]["grade"] == "too early"
    assert page["answer"]["sentence"] == "Too early until 15 Mar 2027."
    changed = next(m for m in page["members"] if m["changed"])
    home.on("03-20").made(
        f"/api/pots/{changed['pot_id']}/decisions", {"on": "2027-03-20", "what": "new gravel under it"}
    )
    page = home.on("03-20").get(f"/api/trials/{trial}")
    (noticed,) = page["noticed"]
    assert (noticed["words"], noticed["codes"], noticed["one_sided"]) == (
        "new gravel under it",
        [changed["code"]],
        True,
    )


def test_case_21_the_pair_lists_only_what_differs(home: Grower) -> None:
    home.pot("03-01", "N", "cattleya_alliance", source="Ansa nursery")
    for i in range(5):
        home.pot("03-01", f"S{i}", "cattleya_alliance", source="Harbour fair")
    tips = {"organ": "root tips", "of": 5}
    home.look("03-02", "N", organs=[{**tips, "count": 5}])
    home.look("03-02", "S0", organs=[{**tips, "count": 0}])
    for i in range(1, 5):
        died = {"on": "2027-04-20", "cause": "rot"}
        lost = home.pots[f"S{i}"]
        home.on("04-20").made(f"/api/pots/{lost}/died", died)
    seen = of(home, "05-01", "N", f"pair?beside={home.pots['S0']}")["seen"]
    assert {x["name"] for x in seen["lines"]} == {"source", "roots at the start"}
    assert "One pair, weak; care unlikely alone." in seen["sentence"]
    assert "4 of 5 from Harbour fair failed." in seen["sentence"]
