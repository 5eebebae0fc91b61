"""A look through the API: what is asked by kind, what stays as last time, what never counts, what is refused."""

from __future__ import annotations

from typing import Any

import pytest

from tests.cases.grower import Grower
from tests.conftest import Client


def look(c: Client, on: str, **more: Any) -> dict[str, Any]:
    return dict(c.made("/api/pots/1/looks", {"on": on, **more}))


def asked(c: Client) -> dict[str, Any]:
    return dict(c.get("/api/pots/1/look-asked"))


@pytest.mark.parametrize(
    ("kind", "first"),
    [
        ("drosera_tropical", "dew"),
        ("phalaenopsis", "root tips"),
        ("monstera", "internodes"),
        ("sarracenia", "pitchers"),
    ],
)
def test_a_kind_is_asked_for_what_it_shows(client: Client, kind: str, first: str) -> None:
    g = Grower(client)
    g.pot("11-01", "A", kind)
    organs = g.on("11-20").get(f"/api/pots/{g.pots['A']}/look-asked")["organs"]
    assert organs[0]["organ"] == first
    assert organs[-1]["organ"] == "nub"
    assert "leaves" not in {o["organ"] for o in organs}


def test_same_as_last_time_copies_counts_and_asks_only_what_is_new(kept: Client) -> None:
    look(kept, "2026-11-01", leaves_count=6, newest_leaf=150, marks=[{"kind": "spot", "place": "blade", "mm": 3}])
    organ = {"organ": "root tips", "count": 3, "of": 5, "mm": 40}
    look(kept, "2026-11-08", leaves_count=6, marks=["spot"], organs=[organ])
    done = look(kept, "2026-11-20", as_last=True, new_leaf=True, marks_looked_for=False)
    assert done["leaves_count"] == 7
    assert done["marks"] == ["spot"]
    now = asked(kept)
    assert now["last_on"] == "2026-11-20"
    tips = next(o for o in now["organs"] if o["organ"] == "root tips")["last"]
    assert (tips["count"], tips["of"], tips["mm"]) == (3, 5, None), "a length is measured or it is not"
    assert done["newest_leaf_mm"] is None
    told = look(kept, "2026-11-21", as_last=True, leaves_count=5, marks=["tip"], marks_looked_for=True)
    assert (told["leaves_count"], told["marks"]) == (5, ["tip"]), "what is told now is not overwritten"


def test_as_last_time_without_a_look_before_is_refused(kept: Client) -> None:
    assert "no look before" in kept.refused("/api/pots/1/looks", {"on": "2026-11-20", "as_last": True})["detail"]


def test_the_ghost_is_the_leaf_before_at_the_same_age(kept: Client) -> None:
    look(kept, "2026-09-01", new_leaf=True, newest_leaf=40, leaf_growing=True)
    look(kept, "2026-09-21", newest_leaf=150, leaf_growing=False)
    look(kept, "2026-11-02", new_leaf=True)
    now = asked(kept)
    assert [x["number"] for x in now["leaves"]] == [2, 1]
    assert (now["ghost_number"], now["ghost_mm"]) == (1, 150.0)
    assert now["newest_is_finished"] is None, "not measured: nothing tells"


def test_three_answers_to_a_mark_are_three_things(kept: Client) -> None:
    look(kept, "2026-11-01", marks=[], marks_looked_for=True)
    look(kept, "2026-11-02", marks=[], marks_looked_for=False)
    look(kept, "2026-11-03", marks=[], marks_looked_for=False, unknown=["marks"])
    looks = kept.get("/api/pots/1")["looks"]
    assert sorted(tuple(x["unknown"]) for x in looks) == [(), (), ("marks",)]


def test_what_came_with_the_plant_never_counts(kept: Client) -> None:
    """Old scars, rubbed leaves and travel change neither the score nor the marks of the pot."""
    look(kept, "2026-10-01", new_leaf=True, newest_leaf=100)
    leaf_id = asked(kept)["leaves"][0]["id"]
    old = {"kind": "tip", "leaf_id": leaf_id, "mm": 8, "old": True}
    before = look(kept, "2026-10-02", marks=[old, {"kind": "rubbed", "leaf_id": leaf_id, "place": "rim"}])
    assert before["marks"] == []
    found = kept.get("/api/pots/1/baseline")
    assert [m["kind"] for m in found["there"]] == ["tip"]
    assert found["since"]["result"]["counting"] == 0
    after = look(kept, "2026-11-20", marks=[{"kind": "tip", "leaf_id": leaf_id, "mm": 13}])
    assert after["marks"] == ["tip"]
    grown = kept.get("/api/pots/1/baseline")["since"]["result"]
    assert (grown["counting"], grown["burn_points"]) == (1, pytest.approx(5.0))


def test_undo_takes_the_whole_look_and_gives_it_back(kept: Client) -> None:
    done = look(
        kept,
        "2026-11-20",
        new_leaf=True,
        newest_leaf=90,
        marks=["rot"],
        organs=[{"organ": "nub", "words": {"is": "unsure"}}],
    )
    again = kept.get("/api/days")["jobs"]
    assert any(j["kind"] == "look again" and j["due_on"] == "2026-11-28" for j in again)
    kept.made(f"/api/log/look/{done['id']}/archive")
    assert asked(kept)["leaves"] == []
    assert not any(j["kind"] == "look again" for j in kept.get("/api/days")["jobs"])
    kept.made(f"/api/log/look/{done['id']}/restore")
    assert [x["mm"] for x in asked(kept)["leaves"]] == [90.0]
    assert kept.get("/api/pots/1/leaves")["marks"]["result"]["counting"] == 1


def test_a_look_after_an_undone_or_lost_leaf_measures_the_one_before(kept: Client) -> None:
    look(kept, "2026-09-01", new_leaf=True, newest_leaf=100, leaf_growing=True)
    undone = look(kept, "2026-10-01", new_leaf=True, newest_leaf=60, leaf_growing=True)
    kept.made(f"/api/log/look/{undone['id']}/archive")
    look(kept, "2026-10-05", newest_leaf=120)
    assert [[x["mm"] for x in r["lengths"]] for r in kept.get("/api/pots/1/leaves")["leaves"]] == [[100.0, 120.0]]
    look(kept, "2026-11-01", new_leaf=True, newest_leaf=70)
    second = kept.get("/api/pots/1/leaves")["leaves"][-1]
    assert second["number"] == 2, "an undone leaf leaves no gap in the numbers"
    kept.made(f"/api/leaves/{second['id']}/change", {"lost_on": "2026-11-10", "lost_why": "accident"})
    look(kept, "2026-11-20", newest_leaf=121)
    assert len(kept.get("/api/pots/1/leaves")["leaves"][0]["lengths"]) == 3


@pytest.mark.parametrize(
    ("body", "field", "words"),
    [
        ({"marks": [{"kind": "yellow oldest", "texture": "soft"}]}, "/marks/0/texture", "brown mark only"),
        ({"marks": [{"kind": "crust", "place": "tip"}]}, "/marks/0/place", "on the medium"),
        ({"marks": [{"kind": "limp", "old": True}]}, "/marks/0/old", "state of today"),
        ({"marks": [{"kind": "tip", "mm": -1}]}, "/marks/0/mm", "Size of the mark"),
        ({"marks": [{"kind": "tip", "share_pct": 101}]}, "/marks/0/share_pct", "Share of the leaf"),
        ({"marks": [{"kind": "tip", "since": "2026-11-22"}]}, "/marks/0/since", "22 Nov 2026"),
        ({"organs": [{"organ": "dew", "count": 3}]}, "/organs/0/count", "no “count”"),
        ({"organs": [{"organ": "dew", "percent": 120}]}, "/organs/0/percent", "Dew"),
        ({"organs": [{"organ": "dew"}, {"organ": "dew"}]}, "/organs/1/organ", "told twice"),
        ({"organs": [{"organ": "root tips", "count": 6, "of": 5}]}, "/organs/0/count", "more than tips seen"),
        ({"organs": [{"organ": "dew", "told": "none seen", "percent": 5}]}, "/organs/0/percent", "yet a figure"),
        ({"organs": [{"organ": "spikes", "words": {"stage": "blue"}}]}, "/organs/0/words", "not known"),
        ({"organs": [{"organ": "leaves"}]}, "/organs/0/organ", "own field"),
        ({"posture": 4}, "/posture", "Posture"),
        ({"posture": 1.5}, "/posture", "whole number"),
        ({"hour": 24}, "/hour", "Hour"),
        ({"gained": -1}, "/gained", "Leaves gained"),
        ({"newest_leaf": 9, "on": "2026-11-21"}, "/newest_leaf", "ten times off"),
        ({"opened_on": "2026-11-22"}, "/opened_on", "22 Nov 2026"),
    ],
)
def test_what_a_look_cannot_see_is_refused_and_changes_nothing(
    kept: Client, body: dict[str, Any], field: str, words: str
) -> None:
    look(kept, "2026-10-01", new_leaf=True, newest_leaf=150)
    before = kept.get("/api/pots/1/leaves"), kept.get("/api/pots/1")["looks"]
    answer = kept.refused("/api/pots/1/looks", {"on": "2026-11-20", **body})
    assert words in answer["detail"]
    assert field in {e["pointer"] for e in answer["errors"]}
    assert (kept.get("/api/pots/1/leaves"), kept.get("/api/pots/1")["looks"]) == before


def test_a_leaf_of_another_plant_is_not_marked(kept: Client) -> None:
    marks = [{"kind": "tip", "leaf_id": 99}]
    refused = kept.refused("/api/pots/1/looks", {"on": "2026-11-20", "marks": marks}, 404)
    assert "none of this plant" in refused["detail"]


def test_a_leaf_is_lost_put_right_and_given_back(kept: Client) -> None:
    look(kept, "2026-09-01", new_leaf=True, newest_leaf=100)
    look(kept, "2026-10-15", new_leaf=True, newest_leaf=104)
    first = kept.get("/api/pots/1/leaves")["leaves"][0]
    body = {"lost_on": "2026-11-01", "lost_precision": "month", "lost_why": "age"}
    kept.made(f"/api/leaves/{first['id']}/change", body)
    assert kept.get("/api/pots/1/leaf-balance")["result"]["net"] == 1
    assert [x["number"] for x in asked(kept)["leaves"]] == [2], "a lost leaf is not measured again"
    assert kept.refused(f"/api/leaves/{first['id']}/change", {"lost_on": "2026-08-01"}, 409)["detail"].startswith(
        "It was"
    )
    kept.made(f"/api/leaves/{first['id']}/change", {"lost": False})
    assert kept.get("/api/pots/1/leaves")["leaves"][0]["lost_on"] is None
    kept.made(f"/api/leaves/{first['id']}/lengths", {"on": "2026-11-01", "mm": 101})
    shown = kept.get("/api/pots/1/leaves")["leaves"][0]
    assert (shown["finished_mm"], len(shown["lengths"])) == (101.0, 2)
    assert "ten times" in kept.refused(f"/api/leaves/{first['id']}/lengths", {"on": "2026-11-01", "mm": 9})["detail"]
    kept.refused(f"/api/leaves/{first['id']}/lengths", {"on": "2026-08-01", "mm": 90}, 409)


def test_everything_measured_makes_one_score_against_its_own_usual(kept: Client) -> None:
    """Live tips 4 of 5 before and 2 of 5 now, dew unknown: (0.4 - 0.8) / 0.20 = -2 for the tips; posture 1 to 1: 0."""
    tips = {"organ": "root tips", "of": 5}
    look(kept, "2026-10-01", posture=1, organs=[{**tips, "count": 4}])
    look(kept, "2026-11-01", posture=1, organs=[{**tips, "count": 2}, {"organ": "dew", "told": "cannot tell"}])
    found = kept.get("/api/pots/1/response")
    assert found["result"]["score"] == pytest.approx((1.5 * -2 + 0) / 2.5)
    assert found["result"]["measures"] == 2
    assert not found["result"]["comparable"]


def test_a_treatment_in_series_is_a_job_on_each_of_its_days(kept: Client) -> None:
    made = kept.made(
        "/api/series", {"on": "2026-11-16", "what": "spray against mites", "days": [1, 8, 15], "pot_id": 1}
    )
    jobs = [j for j in kept.get("/api/days")["jobs"] if j["kind"] == "treatment"]
    assert [(j["due_on"], j["title"].split(": ")[1]) for j in jobs] == [
        ("2026-11-16", "spray against mites, 1 of 3"),
        ("2026-11-23", "spray against mites, 2 of 3"),
        ("2026-11-30", "spray against mites, 3 of 3"),
    ]
    done = {"id": jobs[0]["id"], "kind": "treatment", "due_on": jobs[0]["due_on"], "pot_id": 1, "on": "2026-11-16"}
    kept.made("/api/jobs/done", done)
    assert len([j for j in kept.get("/api/days")["jobs"] if j["kind"] == "treatment"]) == 2
    kept.made(f"/api/log/series/{made['id']}/archive")
    assert [j for j in kept.get("/api/days")["jobs"] if j["kind"] == "treatment"] == []
    for days, field in (([], "/days"), ([8, 1], "/days/1"), ([1.5], "/days/0"), ([0], "/days/0")):
        refused = kept.refused("/api/series", {"on": "2026-11-16", "what": "spray", "days": days, "pot_id": 1})
        assert refused["errors"][0]["pointer"] == field
    kept.refused("/api/series", {"on": "2026-11-16", "what": "spray", "days": [1]})
    kept.refused("/api/series", {"on": "2026-11-16", "what": " ", "days": [1], "pot_id": 1})


def test_a_leaf_that_did_not_come_is_asked_for_by_the_round(kept: Client) -> None:
    """Leaves 20 days apart; by its rhythm the next is open by 20 exp(1.28 0.15) = 24 days after the last."""
    for on in ("2026-09-01", "2026-09-21", "2026-10-11", "2026-10-31"):
        look(kept, on, new_leaf=True)
    asked_for = [j for j in kept.get("/api/days")["jobs"] if j["kind"] == "look"]
    assert [(j["due_on"], "leaf should be open" in j["sentence"]) for j in asked_for] == [("2026-11-24", True)]


def test_where_plants_came_from_and_what_became_of_them(client: Client) -> None:
    g = Grower(client)
    for code in ("A", "B"):
        g.pot("2027-03-01", code, "phalaenopsis", source="Market stall", arrived_on="2027-03-01")
    g.on("03-20").made(f"/api/pots/{g.pots['A']}/looks", {"on": "2027-03-20", "new_leaf": True})
    found = g.on("04-01").get("/api/suppliers")
    assert [(s["name"], s["plants"], s["alive"], s["first_leaf_days"]) for s in found] == [("Market stall", 2, 2, 19.0)]
