"""The start page: three answers drawn, then stored together; a look around that leaves the own data alone."""

from collections.abc import Iterator
from typing import Any

import pytest

from fenwa.demo.beside import Beside
from tests.conftest import TODAY, Client

ANSWERS: dict[str, Any] = {
    "lines": [{"line": "6 masdevallia"}, {"line": "1 medinilla"}, {"line": "2 masdevallia in moss, 9 cm"}],
    "waters": [{"kind": "rain"}, {"kind": "mains", "value": "0,42", "unit": "mS/cm"}],
    "measures": ["EC pen", "kitchen scale"],
    "place": "Bathroom sill",
    "hemisphere": "south",
}


def test_an_empty_collection_says_so_and_a_begun_one_does_not(client: Client) -> None:
    assert client.get("/api/start")["empty"] is True
    client.made("/api/start", ANSWERS)
    assert client.get("/api/start")["empty"] is False


def test_answers_are_drawn_without_storing_anything(client: Client) -> None:
    answer = client.http.post("/api/start/drawn", json=ANSWERS)
    assert answer.status_code == 200, answer.text
    drawn = answer.json()
    assert [x["codes"] for x in drawn["lines"]] == ["M-01 to M-06", "M-07", "M-08 to M-09"]
    assert [(w["name"], w["measured"]) for w in drawn["waters"]] == [("Rain", False), ("Mains", True)]
    assert drawn["plan"]["result"]["serves_all"] == [0]
    assert client.get("/api/pots")["pots"] == []
    assert client.get("/api/start")["empty"] is True


def test_everything_is_set_up_together_under_the_codes_that_were_drawn(client: Client) -> None:
    assert client.made("/api/start", ANSWERS) == {"pots": 9, "waters": 2, "meters": 1}
    assert [p["code"] for p in client.get("/api/pots")["pots"]] == [f"M-0{i}" for i in range(1, 10)]
    water = client.get("/api/water")["waters"]
    assert [(w["name"], w["ec25_uS_cm"]) for w in water] == [("Rain", None), ("Mains", 420.0)]
    assert [m["name"] for m in client.get("/api/meters")["meters"]] == ["EC pen"]
    assert [(p["name"], p["hemisphere"]) for p in client.get("/api/places")] == [("Bathroom sill", "south")]
    assert client.get("/api/settings")["scale_step_g"] == 1.0


def test_nothing_is_an_answer(client: Client) -> None:
    assert client.made("/api/start", {}) == {"pots": 0, "waters": 0, "meters": 0}


def test_a_ppm_pen_is_kept_with_its_scale_not_known(client: Client) -> None:
    client.made("/api/start", {"measures": ["ppm pen"]})
    (meter,) = client.get("/api/meters")["meters"]
    assert meter["problem"].startswith("Its ppm scale is not known")


def test_a_reading_of_unknown_scale_is_kept_as_it_was_read(client: Client) -> None:
    client.made("/api/start", {"waters": [{"kind": "rain", "value": 22, "unit": "ppm"}]})
    (water,) = client.get("/api/water")["waters"]
    assert (water["ec25_uS_cm"], water["newest"]["value"], water["newest"]["unit"]) == (None, 22, "ppm")


@pytest.mark.parametrize(
    "wrong",
    [
        {"lines": [{"line": "6 masdevallia"}, {"line": "4 roses"}]},
        {"waters": [{"kind": "rain"}, {"kind": "mains", "value": -4}]},
        {"waters": [{"kind": "mains", "hardness_mg_L_CaCO3": 2001}]},
        {"lines": [{"line": "masdevallia", "kind": "disa"}]},
        {"waters": [{"kind": "brine"}]},
        {"lines": [{"line": "phal"}] * 51},
    ],
)
def test_one_wrong_answer_stores_none_of_them(client: Client, wrong: dict[str, Any]) -> None:
    client.refused("/api/start", ANSWERS | wrong)
    assert client.get("/api/pots")["pots"] == []
    assert client.get("/api/water")["waters"] == []


def test_a_collection_that_holds_something_is_not_begun_again(kept: Client) -> None:
    assert "already" in kept.refused("/api/start", ANSWERS, 409)["detail"]


@pytest.fixture
def beside(client: Client) -> Iterator[Client]:
    shown = Beside(lambda: TODAY)
    client.state["demonstration"] = shown
    yield client
    shown.close()


def test_a_look_around_leaves_the_own_collection_alone_and_goes_back(beside: Client) -> None:
    beside.made("/api/start", ANSWERS)
    assert beside.get("/api/demonstration") == {"demonstration": False, "can_look": True}
    beside.made("/api/demonstration")
    assert beside.get("/api/demonstration")["demonstration"] is True
    assert len(beside.get("/api/pots")["pots"]) == 24
    beside.made("/api/waters", {"name": "Looked at", "kind": "rain"})
    assert "Looked at" in [w["name"] for w in beside.get("/api/water")["waters"]]
    assert beside.send("/api/demonstration", method="DELETE").status_code == 200
    assert len(beside.get("/api/pots")["pots"]) == 9
    assert "Looked at" not in [w["name"] for w in beside.get("/api/water")["waters"]]


def test_a_backup_taken_while_looking_around_is_not_of_the_own_collection(beside: Client) -> None:
    own = beside.state["backups"]
    beside.made("/api/demonstration")
    beside.made("/api/backups")
    assert own.listed() == []


def test_the_demonstration_itself_has_none_beside_it(client: Client) -> None:
    assert client.get("/api/demonstration") == {"demonstration": False, "can_look": False}
    assert "demonstration" in client.refused("/api/demonstration", {}, 409)["detail"]
