"""What the cases ask of leaves, marks, bulbs and flowers: by what the growers' looks store."""

from typing import Any

import pytest

from tests.cases.grower import Grower
from tests.conftest import Client


@pytest.fixture
def home(client: Client) -> Grower:
    return Grower(client)


def of(home: Grower, day: str, code: str, what: str) -> Any:
    return home.on(day).get(f"/api/pots/{home.pots[code]}/{what}")


def newest_leaf(home: Grower, day: str, code: str) -> int:
    return int(of(home, day, code, "look-asked")["leaves"][0]["id"])


def test_case_2_marks_of_the_first_day_never_score(home: Grower) -> None:
    home.pot("03-06", "C-01", "cephalotus", arrived_on="2027-03-06")
    home.look("03-06", "C-01", marks=[{"kind": "tip", "mm": 6}, {"kind": "spot"}])
    home.look("03-12", "C-01", marks=[{"kind": "tip", "mm": 6}, "yellow oldest"])
    found = of(home, "04-20", "C-01", "baseline")
    assert {m["kind"] for m in found["there"]} == {"tip", "spot"}
    states = {m["kind"]: m["state"] for m in found["since"]["result"]["marks"]}
    assert states == {"tip": "baseline", "spot": "baseline", "yellow oldest": "travel"}
    assert found["since"]["result"]["counting"] == 0
    home.look("04-20", "C-01", new_leaf=True, marks=[{"kind": "tip", "on_new": True}])
    assert of(home, "04-20", "C-01", "baseline")["since"]["result"]["counting"] == 1, "a mark on a new leaf is new"


def test_case_5_texture_is_asked_only_of_a_brown_mark(home: Grower) -> None:
    readings = {}
    for code, texture in (("M", "crisp"), ("T-1", "soft")):
        home.pot("03-01", code, "dracaena_cordyline")
        home.look("07-06", code, marks=[{"kind": "tip", "texture": texture}])
        readings[code] = of(home, "07-06", code, "leaves")["readings"][0]
    assert "Too dry" in readings["M"]["first"]
    assert "Too wet" in readings["T-1"]["first"]
    assert readings["M"]["second"] == readings["T-1"]["second"] == "Fluoride or left-over salt."
    felt = {c["kind"]: c["felt"] for c in of(home, "07-06", "M", "look-asked")["mark_choices"]}
    assert {k for k, asked in felt.items() if asked} == {"tip", "rim", "crisp", "spot"}
    body = {"on": "2027-07-06", "marks": [{"kind": "yellow oldest", "texture": "soft"}]}
    assert "brown mark only" in home.on("07-06").refused(f"/api/pots/{home.pots['M']}/looks", body)["detail"]


def test_case_7_four_gained_nine_lost_is_flagged(home: Grower) -> None:
    home.pot("05-01", "N-01", "nephrolepis")
    home.look("06-01", "N-01", leaves_count=33)
    home.look("07-01", "N-01", gained=4, lost=9, marks=["crisp"])
    found = of(home, "07-01", "N-01", "leaf-balance")["result"]
    assert (found["net"], found["flagged"]) == (-5, True)


def test_case_9_the_offset_is_ready_at_two_fifths(home: Grower) -> None:
    home.pot("05-01", "AE-01", "bromeliad_tank")
    assert of(home, "06-01", "AE-01", "offsets") is None
    home.look("06-01", "AE-01", growth_length=40)
    home.look("06-01", "AE-01", growth="side", growth_length=15)
    assert not of(home, "06-02", "AE-01", "offsets")["result"]["ready"]
    home.look("08-01", "AE-01", growth="side", growth_length=17)
    found = of(home, "08-01", "AE-01", "offsets")["result"]
    assert (found["ready"], found["needs_cm"]) == (True, 16.0)


def test_case_11_bulbs_five_and_four_and_a_piece_of_one(home: Grower) -> None:
    home.pot("03-01", "CY-01", "cymbidium")
    home.look("04-01", "CY-01", organs=[{"organ": "bulbs", "count": 9}])
    made = home.on("04-08").made("/api/pots/fast-add", {"on": "2027-04-08", "phrase": "one division of CY-01"})
    home.pots["CY-02"] = made["ids"][0]
    home.look("04-08", "CY-01", organs=[{"organ": "bulbs", "count": 5}])
    home.look("04-08", "CY-02", organs=[{"organ": "bulbs", "count": 4}])
    found = of(home, "04-09", "CY-01", "bulbs")["result"]
    assert (found["total"], found["cautions"]) == (9, [])
    home.look("04-10", "CY-02", organs=[{"organ": "bulbs", "count": 1}])
    warned = of(home, "04-10", "CY-01", "bulbs")["result"]
    assert "A piece of 1 bulb" in warned["cautions"][0], "warned, and stored all the same"


def test_case_12_three_shorter_leaves_are_a_trend_and_no_reason_to_feed(home: Grower) -> None:
    home.pot("03-01", "MO-01", "monstera")
    for on, mm in (("04-01", 137), ("05-01", 131), ("06-01", 126), ("07-01", 119)):
        home.look(on, "MO-01", new_leaf=True, newest_leaf=mm, leaf_growing=False, marks_looked_for=False)
    found = of(home, "07-01", "MO-01", "leaves")["trend"]["result"]
    assert (found["run"], found["in_a_row"], found["feed_waits"]) == ("shorter", 3, True)
    assert found["checks"][0] == "Is there a crust at the rim or the holes?"
    home.look("07-05", "MO-01", marks=[], marks_looked_for=True, roots_working=True)
    answered = of(home, "07-05", "MO-01", "leaves")["trend"]["result"]
    assert (answered["feed_waits"], answered["checks"]) == (False, ["Has the light fallen since?"])
    home.look("07-20", "MO-01", new_leaf=True, marks=[{"kind": "pale", "on_new": True}])
    one = of(home, "07-20", "MO-01", "leaves")["trend"]["result"]
    assert (one["pale_in_a_row"], "One pale leaf: noted." in one["sentence"]) == (1, True)
    home.look("08-05", "MO-01", new_leaf=True, marks=[{"kind": "pale", "on_new": True}])
    assert "Two pale leaves in a row: less light." in of(home, "08-05", "MO-01", "leaves")["trend"]["result"]["checks"]


def test_case_14_bloom_of_27_of_29(home: Grower) -> None:
    home.pot("05-01", "C-02", "catasetum_group")
    assert of(home, "05-02", "C-02", "flowers") is None, "nobody counted: no share of nothing"
    flowers = {"organ": "flowers", "count": 27, "of": 29, "lost": 1, "words": {"lost to": "slugs"}}
    home.look("11-10", "C-02", organs=[flowers])
    found = of(home, "11-10", "C-02", "flowers")["result"]
    assert found["sentence"] == "27 of 29 opened, 93 %: 1 lost to slugs, 1 unknown."


def test_case_20_scars_do_not_score_and_a_nub_is_looked_at_again(home: Grower) -> None:
    home.pot("2026-06-08", "V-01", "vanda_alliance", arrived_on="2026-06-08")
    home.look("2026-06-08", "V-01", marks=[{"kind": "spot", "place": "sheath", "old": True}])
    for on, mm in (("2026-08-20", 88), ("2026-11-01", 104), ("2027-02-01", 121), ("2027-04-20", 140)):
        home.look(on, "V-01", new_leaf=True, newest_leaf=mm, leaf_growing=False)
    found = of(home, "2027-05-08", "V-01", "leaves")
    assert found["trend"]["result"]["per_month"] == pytest.approx(0.36, abs=0.005)
    assert (found["trend"]["result"]["run"], found["trend"]["result"]["in_a_row"]) == ("longer", 3)
    assert found["marks"]["result"]["counting"] == 0
    home.look("05-08", "V-01", organs=[{"organ": "nub", "words": {"is": "unsure"}}])
    assert not any("look again" in e for e in home.errands("05-15"))
    assert any("look again" in e for e in home.errands("05-16")), "in 8 days"
