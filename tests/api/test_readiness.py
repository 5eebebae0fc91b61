"""Over HTTP: what tells that a pot is ready, rules that stand for a kind or a place, what a place measured and
changed.
"""

from typing import Any

import pytest

from tests.conftest import Client, pot, pour, told


def care(client: Client, pot_id: int = 1) -> Any:
    return client.get(f"/api/pots/{pot_id}/care")


def due(client: Client) -> dict[str, str]:
    return {p["code"]: p["why"] for c in client.get("/api/round")["plan"]["cans"] for p in c["pots"]}


def test_a_probe_has_its_own_scale_and_tells_when_to_water(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-22"))
    assert due(kept) == {}
    short = kept.made("/api/probes", {"name": "short probe"})["id"]
    long = kept.made("/api/probes", {"name": "long probe", "lowest": 0, "highest": 200, "dry_end": "high"})["id"]
    kept.made("/api/pots/1/ready", {"ready_by": "probe", "at": 3, "probe_id": short})
    assert (care(kept)["ready"]["result"]["state"], care(kept)["ready_at"]) == ("check", 3)
    kept.made("/api/pots/1/felt", {"on": "2026-11-23", "probe_id": long, "probe_value": 180})
    assert due(kept) == {}, "another probe's figure means nothing here"
    row = kept.made("/api/pots/1/felt", {"on": "2026-11-23", "probe_id": short, "probe_value": "2,5"})
    assert due(kept) == {"P-01": "Short probe 2.5 of 10: dry by your rule. Water."}
    assert (care(kept)["interval"]["result"]["word"], kept.get("/api/days")["coming"]["result"]["rounds"][0]["on"]) == (
        "water",
        "2026-11-23",
    )
    kept.made(f"/api/log/felt/{row['id']}/archive")
    assert due(kept) == {}
    assert [p["name"] for p in kept.get("/api/probes")] == ["long probe", "short probe"]


def test_a_pot_not_dry_by_its_rule_is_left_today(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-10"))
    kept.made("/api/pots/1/ready", {"ready_by": "finger", "moist": "barely damp"})
    assert due(kept)["P-01"] == "Check: water when barely damp to the finger."
    assert care(kept)["interval"]["result"]["word"] == "check"
    kept.made("/api/pots/1/felt", {"on": "2026-11-23", "moist": "moist"})
    assert due(kept) == {}
    kept.made("/api/pots/1/felt", {"on": "2026-11-23", "moist": "dry"})
    assert "dry by your rule" in due(kept)["P-01"]
    kept.made("/api/pots/1/ready", {"ready_by": "days"})
    assert due(kept) == {"P-01": "Found dry: plain water first, feed at the next."}


def test_the_scale_tells_when_to_water(kept: Client) -> None:
    kept.made("/api/pours", pour(on="2026-11-19"))
    kept.made("/api/pots/1/ready", {"ready_by": "weight", "at": 20})
    for on, grams, kind in (("2026-11-15", 600, "dry"), ("2026-11-19", 850, "drained"), ("2026-11-23", 640, "now")):
        kept.made("/api/pots/1/weights", {"on": on, "grams": grams, "kind": kind})
    assert due(kept)["P-01"].startswith("16 % of its water left: dry by your rule")


@pytest.mark.parametrize(
    ("path", "body", "pointer"),
    [
        ("/api/probes", {"name": "  "}, "/name"),
        ("/api/probes", {"name": "p", "lowest": 9, "highest": 1}, "/lowest"),
        ("/api/probes", {"name": "p", "lowest": -9999}, "/lowest"),
        ("/api/pots/1/ready", {"ready_by": "probe", "at": 3}, "/probe_id"),
        ("/api/pots/1/ready", {"ready_by": "weight", "at": 120}, "/at"),
        ("/api/pots/1/ready", {"ready_by": "finger", "moist": "wet"}, "/at"),
        ("/api/pots/1/felt", {"on": "2026-11-23"}, "/moist"),
        ("/api/pots/1/felt", {"on": "2026-11-30", "moist": "dry"}, "/on"),
        ("/api/pots/1/felt", {"on": "2026-11-23", "probe_value": 3}, "/probe_id"),
        ("/api/places/1/changes", {"on": "2026-11-20", "kind": "other"}, "/note"),
        ("/api/places/1/changes", {"on": "2026-12-20", "kind": "heating on"}, "/on"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_kept(
    still: Client, path: str, body: dict[str, Any], pointer: str
) -> None:
    assert still.refused(path, body)["errors"][0]["pointer"] == pointer
    assert still.get("/api/probes") == []


def test_a_probe_twice_and_things_that_are_not_there(kept: Client) -> None:
    kept.made("/api/probes", {"name": "short probe"})
    assert "called short probe already" in kept.refused("/api/probes", {"name": " short  probe "}, 409)["detail"]
    for path, body in (
        ("/api/pots/1/ready", {"ready_by": "probe", "at": 3, "probe_id": 9}),
        ("/api/pots/9/ready", {"ready_by": "days"}),
        ("/api/pots/9/felt", {"on": "2026-11-23", "moist": "dry"}),
        ("/api/places/9/changes", {"on": "2026-11-20", "kind": "heating on"}),
        ("/api/rules", {"scope": "kind", "key": "rose", "school_id": "pulse"}),
        ("/api/rules", {"scope": "group", "key": "roses"}),
        ("/api/rules", {"scope": "place", "key": "x"}),
        ("/api/rules", {"scope": "place", "key": "1", "school_id": "moon"}),
    ):
        kept.refused(path, body, 404)


def test_a_rule_stands_for_a_kind_a_group_or_a_place_until_a_pot_chooses(kept: Client) -> None:
    kept.made("/api/pots", pot(code="D-01", profile_id="disa", place="Cellar"))
    place = next(p["id"] for p in kept.get("/api/places") if p["name"] == "Home")
    group = kept.get("/api/kinds/paphiopedilum")["profile"]["group"]

    def school(pot_id: int = 1) -> tuple[str, str]:
        found = care(kept, pot_id)
        return found["school"], found["school_by"]

    assert school()[1] == "no rule"
    kept.made("/api/rules", {"scope": "place", "key": str(place), "school_id": "pulse", "phase_school": "calendar"})
    assert ("Pulse" in school()[0], school()[1]) == (True, "the rule of its place")
    assert (care(kept)["phase_school"], care(kept)["phase_school_by"]) == ("", "the rule of its place")
    assert school(2)[1] == "no rule", "another place"
    kept.made("/api/rules", {"scope": "group", "key": group, "school_id": "weekly_in_season"})
    assert (school()[1], school(2)[1]) == ("the rule of its group of kinds",) * 2
    kept.made("/api/rules", {"scope": "kind", "key": "paphiopedilum", "school_id": "label_strength"})
    assert school()[1] == "the rule of its kind"
    assert care(kept)["phase_school_by"] == "the rule of its place", "each choice has its own nearest rule"
    kept.made("/api/pots/1/care", {"school_id": "own", "phase_school": "noted"})
    assert school() == ("feed, every 4th plain", "its own choice")
    kept.made("/api/pots/change", {"pot_ids": [1], "school_id": "", "phase_school": ""})
    assert school()[1] == "the rule of its kind"
    kept.made("/api/rules", {"scope": "kind", "key": "paphiopedilum"})
    assert school()[1] == "the rule of its group of kinds"
    assert sorted(r["scope"] for r in kept.get("/api/rules")) == ["group", "place"], (
        "one rule a scope, none where it was emptied"
    )


def test_a_warm_place_shortens_a_learnt_interval_and_a_cool_one_stretches_it(kept: Client) -> None:
    for day in (1, 7, 13, 19):
        kept.made("/api/pours", pour(on=f"2026-11-{day:02}"))
    kept.made("/api/pots/1/care", {"interval_by": "learnt"})
    place = kept.get("/api/places")[0]["id"]

    def days() -> float:
        shown = care(kept)["interval"]["result"]["days"]
        assert kept.get("/api/pots")["pots"][0]["interval_days"] == pytest.approx(shown)
        return float(shown)

    assert days() == pytest.approx(6)
    kept.made(f"/api/places/{place}/climate", {"on": "2026-10-30", "night": 15, "day": 21})
    assert days() == pytest.approx(6), "as warm then as now"
    warm = kept.made(f"/api/places/{place}/climate", {"on": "2026-11-22", "night": 22, "day": 30})
    assert days() < 4.8
    kept.made(f"/api/log/climate/{warm['id']}/archive")
    kept.made(f"/api/places/{place}/climate", {"on": "2026-11-22", "night": 8, "day": 14})
    assert days() > 7


def test_what_changed_at_a_place_is_kept_with_its_day(kept: Client) -> None:
    place = kept.get("/api/places")[0]["id"]
    kept.made(f"/api/places/{place}/changes", {"on": "2026-10-12", "kind": "heating on"})
    row = kept.made(f"/api/places/{place}/changes", {"on": "2026-11-01", "kind": "other", "note": "new glazing"})
    assert [(c["on"], c["kind"], c["note"]) for c in kept.get(f"/api/places/{place}/changes")] == [
        ("2026-11-01", "other", "new glazing"),
        ("2026-10-12", "heating on", ""),
    ]
    assert [e["what"] for e in kept.get("/api/pots/1")["events"]] == ["heating on", "new glazing"]
    kept.made(f"/api/log/event/{row['id']}/archive")
    assert [e["what"] for e in kept.get("/api/pots/1")["events"]] == ["heating on"]


def test_a_quarantine_ended_by_mistake_is_taken_up_again(kept: Client) -> None:
    kept.made("/api/pots", pot(code="Q-01", isolated=True, arrived_on="2026-10-05"))
    job = next(j for j in kept.get("/api/round")["jobs"] if j["kind"] == "end of quarantine")
    done = kept.made("/api/jobs/done", told(job) | {"pot_id": job["pot_id"], "on": "2026-11-23"})
    assert [p["isolated"] for p in kept.get("/api/pots")["pots"]] == [False, False]
    kept.made(f"/api/log/event/{done['id']}/archive")
    assert [j["id"] for j in kept.get("/api/round")["jobs"] if j["kind"] == "end of quarantine"] == [job["id"]]


def test_a_decision_is_kept_with_its_day_and_asks_for_a_look(kept: Client) -> None:
    page = kept.get("/api/pots/1/decisions")
    assert (page["decisions"], page["look_again_on"]) == ([], "2026-12-21"), (
        "28 days: the kind has answered salt by then"
    )
    row = kept.made(
        "/api/pots/1/decisions",
        {"on": "2026-11-02", "what": "half the feed", "why": "brown tips", "look_again_on": "2026-11-22"},
    )
    job = next(j for j in kept.get("/api/round")["jobs"] if j["kind"] == "look again")
    assert (job["late_days"], job["sentence"]) == (1, "You wanted to look again: brown tips")
    assert [e["what"] for e in kept.get("/api/pots/1")["events"]] == ["half the feed"]
    kept.made("/api/pots/1/decisions", {"on": "2026-11-23", "what": "nothing yet"})
    assert [d["what"] for d in kept.get("/api/pots/1/decisions")["decisions"]] == ["nothing yet", "half the feed"]
    kept.made("/api/skips", {"pot_ids": [1], "on": "2026-11-23"})
    assert len(kept.get("/api/pots/1/decisions")["decisions"]) == 2, "a skipped watering is no change of care"
    kept.made(f"/api/log/decision/{row['id']}/archive")
    assert not any(j["kind"] == "look again" for j in kept.get("/api/round")["jobs"])


@pytest.mark.parametrize(
    ("path", "body", "pointer"),
    [
        ("decisions", {"on": "2026-11-23", "what": "  "}, "/what"),
        ("decisions", {"on": "2026-11-23", "what": "skipped"}, "/what"),
        ("decisions", {"on": "2026-11-25", "what": "x"}, "/on"),
        ("decisions", {"on": "2026-11-23", "what": "x", "look_again_on": "2026-11-23"}, "/look_again_on"),
        ("treated", {"on": "2026-11-23", "days": 500}, "/days"),
        ("treated", {"on": "2026-11-25"}, "/on"),
    ],
)
def test_decisions_and_treatments_that_cannot_be(still: Client, path: str, body: dict[str, Any], pointer: str) -> None:
    assert still.refused(f"/api/pots/1/{path}", body)["errors"][0]["pointer"] == pointer


def test_treated_leaves_are_not_sprayed_until_the_label_allows_it(kept: Client) -> None:
    row = kept.made("/api/pots/1/treated", {"on": "2026-11-20", "days": 7, "note": "soap"})
    hold = next(h for h in care(kept)["holds"] if h["id"] == "treated")
    assert hold["blocks"] == ["leaf spray"]
    kept.made(f"/api/log/event/{row['id']}/archive")
    assert care(kept)["holds"] == []


def test_roots_that_do_not_work_hold_feed_until_a_tip_or_a_leaf_shows(kept: Client) -> None:
    kept.made("/api/pots/1/looks", {"on": "2026-11-01", "roots_working": False})
    assert [h["id"] for h in care(kept)["holds"]] == ["no working roots"]
    kept.made("/api/pots/1/looks", {"on": "2026-11-15", "root": 1})
    assert [h["id"] for h in care(kept)["holds"]] == ["no working roots"]
    row = kept.made("/api/pots/1/looks", {"on": "2026-11-20", "root": 2.5})
    assert care(kept)["holds"] == []
    kept.made(f"/api/log/look/{row['id']}/archive")
    kept.made("/api/pots/1/looks", {"on": "2026-11-21", "new_leaf": True})
    assert care(kept)["holds"] == []
