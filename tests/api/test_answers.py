"""Did it help, through the API: changes read off the log, trials that rule the round, seasons, schools."""

from datetime import date, timedelta
from random import Random
from typing import Any

import pytest

from fenwa.api.answers import desk
from tests.conftest import TODAY, Client, pot

DAY = timedelta(days=1)


def leafed(client: Client, pot_id: int, first: date, mm: list[float], gap: int = 30) -> None:
    """Leaves of a pot, one each ``gap`` days, measured at their finished size."""
    for i, x in enumerate(mm):
        on = first + gap * i * DAY
        look = {"on": on.isoformat(), "new_leaf": True, "newest_leaf": x, "leaf_growing": False}
        Client(client.store, on).made(f"/api/pots/{pot_id}/looks", look)


def pair_of_pots(kept: Client) -> tuple[int, int]:
    a = kept.made("/api/pots", pot(code="T-01", profile_id="ctenanthe"))["id"]
    b = kept.made("/api/pots", pot(code="T-02", profile_id="ctenanthe"))["id"]
    return a, b


BEFORE = [150.0, 152, 148, 151, 149, 150, 151, 149]


def flushed_pair(kept: Client) -> tuple[int, int, date]:
    """One of two alike flushed eight leaves in; three leaves formed after it on both."""
    a, b = pair_of_pots(kept)
    first = TODAY - 360 * DAY
    leafed(kept, a, first, [*BEFORE, 150, 170, 172, 175])
    leafed(kept, b, first + 2 * DAY, [*BEFORE, 150, 150, 151, 149])
    flushed = first + 235 * DAY
    for on in (flushed - 9 * DAY, flushed):
        body = {"pot_ids": [a], "on": on.isoformat(), "volume": 300, "water_id": 1, "flush": on == flushed}
        Client(kept.store, on).made("/api/pours", body)
    return a, b, flushed


def test_a_flush_is_held_against_its_twin(kept: Client) -> None:
    a, b, flushed = flushed_pair(kept)
    page = kept.get(f"/api/pots/{a}/answers")
    assert [c["kind"] for c in page["changes"]] == ["flush"]
    chosen = page["chosen"]
    assert chosen["twin"]["id"] == b
    r = chosen["answer"]["result"]
    assert (chosen["against"], r["state"], r["grade"]) == ("twin", "over", "weak")
    assert r["measured_shown"] > 10
    assert r["low_shown"] < r["middle_shown"] < r["high_shown"]
    assert "proven" not in str(page).lower()
    assert chosen["answer"]["working"]["steps"]
    early = Client(kept.store, flushed + 2 * DAY).get(f"/api/pots/{a}/answers?change=flush-{flushed}")
    assert early["chosen"]["answer"]["result"]["grade"] == "too early"


def test_what_else_changed_lowers_the_grade_and_is_told_whose_it_is(kept: Client) -> None:
    a, b, flushed = flushed_pair(kept)
    before = kept.get(f"/api/pots/{a}/answers")["chosen"]["answer"]["result"]
    on = flushed + 5 * DAY
    Client(kept.store, on).made("/api/places/1/changes", {"on": on.isoformat(), "kind": "heating on"})
    shared = kept.get(f"/api/pots/{a}/answers?change=flush-{flushed}")["chosen"]["answer"]["result"]
    assert shared["grade"] == before["grade"]
    assert [o["whose"] for o in shared["shared"]] == ["both"]
    Client(kept.store, on).made(f"/api/pots/{b}/repot", {"on": on.isoformat(), "medium_id": "peat_perlite"})
    alone = kept.get(f"/api/pots/{a}/answers?change=flush-{flushed}")["chosen"]["answer"]["result"]
    assert [o["whose"] for o in alone["one_sided"]] == ["twin"]
    assert alone["grade"] == "a hint"


def test_a_change_or_a_measure_that_is_not_there_is_refused(kept: Client) -> None:
    assert kept.http.get("/api/pots/1/answers?change=flush-2020-01-01").status_code == 404
    assert kept.http.get("/api/pots/1/answers?measure=smell").status_code == 404
    assert kept.http.get("/api/pots/99/answers").status_code == 404
    assert kept.http.get("/api/pots/1/pair?beside=1").status_code == 422
    assert kept.get("/api/pots/1/answers")["chosen"] is None
    assert kept.get("/api/changes")["answers"] == []


def test_decisions_are_answered_on_the_day_that_was_set(kept: Client) -> None:
    on, again = TODAY - 3 * DAY, TODAY + 40 * DAY
    Client(kept.store, on).made(
        "/api/pots/1/decisions", {"on": on.isoformat(), "what": "leave it alone", "look_again_on": again.isoformat()}
    )
    r = kept.get("/api/pots/1/answers")["chosen"]["answer"]["result"]
    assert (r["state"], r["opens_on"]) == ("too early", again.isoformat())


def test_every_change_answers_and_single_pairs_are_put_together(demo: Client) -> None:
    page = demo.get("/api/changes")
    assert len(page["answers"]) >= 8
    assert {"flush", "strength", "water"} <= {a["kind"] for a in page["answers"]}
    assert all(a["grade"] in ("too early", "a hint", "weak", "fair", "firm") for a in page["answers"])
    flushes = next(q for q in page["questions"] if q["question"] == "flush")
    assert flushes["asked"] >= 3


def test_changes_come_in_windows_and_by_kind(demo: Client) -> None:
    every = demo.get("/api/changes?count=500")
    assert every["total"] == len(every["answers"]) > 6
    assert every["kinds"] == sorted({a["kind"] for a in every["answers"]})
    pieces = [demo.get(f"/api/changes?skip={skip}&count=3") for skip in range(0, every["total"] + 3, 3)]
    assert [a for piece in pieces for a in piece["answers"]] == every["answers"]
    assert {(p["total"], tuple(p["kinds"])) for p in pieces} == {(every["total"], tuple(every["kinds"]))}
    assert pieces[1]["questions"] == every["questions"], "questions put all changes together, not those of a window"
    for kind in every["kinds"]:
        one = demo.get(f"/api/changes?count=500&kind={kind}")
        assert one["answers"] == [a for a in every["answers"] if a["kind"] == kind]
        assert (one["total"], one["kinds"]) == (len(one["answers"]), every["kinds"])
    none = demo.get("/api/changes?kind=dance")
    assert (none["total"], none["answers"]) == (0, [])


def test_what_a_write_did_not_touch_is_answered_as_if_all_were_worked_out_anew(kept: Client) -> None:
    """The page of all changes goes on from what it knew; a fresh start knows nothing and says the same."""
    a, b, flushed = flushed_pair(kept)
    c = kept.made("/api/pots", pot(code="T-03", profile_id="ctenanthe"))["id"]
    leafed(kept, c, flushed - 240 * DAY, [*BEFORE, 150, 130, 131, 132])
    beside = {}

    def same_as_fresh(after: str) -> None:
        warm = kept.get("/api/changes")
        kept.store.changed.memory.clear()
        assert kept.get("/api/changes") == warm, after
        beside[after] = next(r["beside"] for r in warm["answers"] if r["kind"] == "flush" and r["pot_id"] == a)
        assert kept.get("/api/changes") == warm, after

    same_as_fresh("nothing")
    kept.made(f"/api/pots/{c}/decisions", {"on": TODAY.isoformat(), "what": "wait"})
    same_as_fresh("a note of a plant that is not beside it")
    Client(kept.store, TODAY).made(f"/api/pots/{b}/looks", {"on": TODAY.isoformat(), "newest_leaf": 170.0})
    same_as_fresh("a leaf of the plant beside it")
    earlier = kept.get("/api/changes")["answers"]
    kept.made(f"/api/pots/{b}/decisions", {"on": (flushed + 20 * DAY).isoformat(), "what": "feed less"})
    same_as_fresh("something else changed of the plant beside it")
    assert (
        next(r for r in earlier if r["pot_id"] == a and r["kind"] == "flush") not in kept.get("/api/changes")["answers"]
    )
    Client(kept.store, TODAY).made(f"/api/pots/{b}/looks", {"on": TODAY.isoformat(), "newest_leaf": 175.0})
    kept.get("/api/pots/1/answers")  # a page that lays all of it out and asks for none of these
    kept.made(f"/api/pots/{b}/decisions", {"on": TODAY.isoformat(), "what": "feed less"})
    same_as_fresh("a leaf of the plant beside it, and then a note")
    early = {"pot_ids": [b], "on": flushed.isoformat(), "volume": 300, "water_id": 1, "flush": True}
    too = kept.made("/api/pours", early)["pour_ids"][0]
    same_as_fresh("the plant beside it was flushed too")
    kept.made(f"/api/log/pour/{too}/archive")
    same_as_fresh("that flush was undone")
    kept.made("/api/pours", early)
    same_as_fresh("and noted again")
    kept.made("/api/pours", {**early, "on": TODAY.isoformat(), "flush": False})
    same_as_fresh("a pour of the plant beside it")
    kept.made(f"/api/log/pot/{c}/archive")
    same_as_fresh("the other went away")
    assert beside["nothing"].startswith("T-02")
    assert beside["the plant beside it was flushed too"].startswith("T-03")
    assert beside["that flush was undone"].startswith("T-02")
    assert beside["the other went away"] != beside["the plant beside it was flushed too"]


@pytest.mark.parametrize("seed", range(4))
def test_after_writes_of_any_kind_all_changes_are_answered_as_by_a_fresh_start(kept: Client, seed: int) -> None:
    """One page goes on from what it knew through many writes; beside it each time a start that knows nothing."""
    a, b, flushed = flushed_pair(kept)
    more = [
        kept.made("/api/pots", pot(code=f"T-1{n}", profile_id="ctenanthe", volume=f"{1 + n}"))["id"] for n in range(3)
    ]
    for n, other in enumerate(more):
        leafed(kept, other, flushed - (220 - 7 * n) * DAY, [*BEFORE, 150, 140 + 5 * n, 141])
    dice, pots, memory = Random(seed), [a, b, *more], kept.store.changed.memory
    poured: list[int] = []

    def write() -> None:
        which, on = dice.choice(pots), TODAY - dice.randrange(300) * DAY
        then = Client(kept.store, on)
        match dice.choice(("pour", "pour", "flush", "flush", "look", "decision", "phase", "undo", "repot", "away")):
            case "look":
                then.made(f"/api/pots/{which}/looks", {"on": on.isoformat(), "newest_leaf": dice.randrange(120, 180)})
            case "decision":
                then.made(f"/api/pots/{which}/decisions", {"on": on.isoformat(), "what": "feed less"})
            case "repot":
                medium, litres = dice.choice((("bark_fine", 1), ("bark_mix", 2), ("", "0.9")))
                then.made(f"/api/pots/{which}/repot", {"on": on.isoformat(), "medium_id": medium, "volume": litres})
            case "phase":
                then.made(
                    f"/api/pots/{which}/phase", {"since": on.isoformat(), "phase": dice.choice(("rest", "active"))}
                )
            case "away":
                kept.made(f"/api/log/pot/{which}/archive")
                if len(pots) < 4 or dice.random() < 0.7:
                    kept.made(f"/api/log/pot/{which}/restore")
                else:
                    pots.remove(which)
            case "undo" if poured:
                kept.made(f"/api/log/pour/{poured.pop(dice.randrange(len(poured)))}/archive")
            case job:
                body = {"pot_ids": [which], "on": on.isoformat(), "volume": 300, "water_id": 1, "flush": job == "flush"}
                poured.extend(then.made("/api/pours", body)["pour_ids"])

    beside: dict[tuple[int, str], set[str]] = {}
    for _ in range(16):
        for _ in range(dice.randrange(1, 5)):
            write()
            if dice.random() < 0.5:  # a page that asks for some of it
                kept.get(f"/api/pots/{dice.choice(pots)}/answers")
        warm, known = kept.get("/api/changes"), dict(memory)
        memory.clear()
        assert kept.get("/api/changes") == warm
        memory.clear()
        memory.update(known)
        for r in warm["answers"]:
            beside.setdefault((r["pot_id"], r["key"]), set()).add(r["beside"])
    assert any(len(names) > 1 for names in beside.values()), "who stands beside whom changes on the way"


@pytest.mark.parametrize(
    ("first", "then", "both"),
    [
        ({1: None}, {1: frozenset({"rhythm"})}, {1: None}),
        ({1: frozenset({"rhythm"})}, {1: None}, {1: None}),
        ({1: frozenset({"rhythm"})}, {1: frozenset({"flush"})}, {1: frozenset({"rhythm", "flush"})}),
        ({1: None}, {2: frozenset({"flush"})}, {1: None, 2: frozenset({"flush"})}),
        ({}, {1: None}, {1: None}),
    ],
)
def test_what_differs_after_two_writes_is_what_either_changed(first: Any, then: Any, both: Any) -> None:
    assert desk._put_together(first, then) == both


def test_a_pour_as_usual_of_a_plant_asks_nothing_anew_of_those_held_against_it(
    kept: Client, monkeypatch: pytest.MonkeyPatch
) -> None:
    a, b, _ = flushed_pair(kept)
    asked: list[int] = []
    answer = desk.answer

    def counted(laid_out: Any, session: Any, p: Any, change: Any, **more: Any) -> Any:
        asked.append(p.id)
        return answer(laid_out, session, p, change, **more)

    monkeypatch.setattr(desk, "answer", counted)
    kept.get("/api/changes")
    assert a in asked
    asked.clear()
    kept.made("/api/pours", {"pot_ids": [b], "on": TODAY.isoformat(), "volume": 300, "water_id": 1})
    kept.get("/api/changes")
    assert a not in asked
    kept.made(f"/api/pots/{b}/looks", {"on": TODAY.isoformat(), "newest_leaf": 170.0})
    kept.get("/api/changes")
    assert a in asked


# trials


def trial(kept: Client, pots: list[int], **more: Any) -> dict[str, Any]:
    return {"question": "Tap instead of rain", "kind": "water", "pot_ids": pots, "seed": 2, **more}


def test_a_trial_is_told_before_it_begins_and_rules_the_round(kept: Client) -> None:
    a, b = pair_of_pots(kept)
    tap = kept.made("/api/waters", {"name": "Tap", "kind": "mains", "disinfectant": "none"})["id"]
    body = trial(kept, [a, b], water_id=tap, feed="none")
    plan = kept.made("/api/trials/preview", body)["plan"]["result"]
    assert (plan["can_answer"], plan["least_p"]) == (False, 1.0)
    assert "No answer to be called sure is possible" in plan["sentence"]
    assert kept.get("/api/trials") == []
    trial_id = kept.made("/api/trials", body)["id"]
    changed = plan["pairs"][0]["changed"]
    other = b if changed == a else a
    held = {h["id"]: h for h in kept.get(f"/api/pots/{changed}")["row"]["holds"]}
    assert "Under trial: Tap instead of rain" in held["trial"]["reason"]
    assert {"flush", "feed", "leaf spray"} == set(held["trial"]["blocks"])
    assert kept.get(f"/api/pots/{changed}")["pour_water"] == "Tap"
    assert kept.get(f"/api/pots/{other}")["pour_water"] == "Rain"
    assert "feed" not in {h["id"]: h for h in kept.get(f"/api/pots/{other}")["row"]["holds"]}["trial"]["blocks"]
    page = kept.get(f"/api/trials/{trial_id}")
    assert {m["code"]: m["gives"] for m in page["members"] if m["changed"]}.popitem()[1] == "Tap, no feed"
    assert page["row"]["grade"] == "too early"


def test_a_pot_under_trial_takes_part_in_no_second_one(kept: Client) -> None:
    a, b = pair_of_pots(kept)
    kept.made("/api/trials", trial(kept, [a, b]))
    refused = kept.refused("/api/trials", trial(kept, [a, b]))
    assert "No two plants" in refused["detail"]


def test_a_trial_ends_with_a_reason_and_can_be_undone(kept: Client) -> None:
    a, b = pair_of_pots(kept)
    trial_id = kept.made("/api/trials", trial(kept, [a, b]))["id"]
    assert kept.refused(f"/api/trials/{trial_id}/end", {})["errors"][0]["pointer"] == "/why"
    kept.made(f"/api/trials/{trial_id}/leave-out", {"pot_id": a, "why": "slugs"})
    page = kept.get(f"/api/trials/{trial_id}")
    assert page["answer"]["pairs"][0]["left_out"] == "slugs"
    assert "trial" not in {h["id"] for h in kept.get(f"/api/pots/{a}")["row"]["holds"]}
    kept.made(f"/api/trials/{trial_id}/end", {"why": "a cold night"})
    assert "trial" not in {h["id"] for h in kept.get(f"/api/pots/{b}")["row"]["holds"]}
    assert kept.send(f"/api/trials/{trial_id}/end", {"why": "again"}).status_code == 409
    kept.made(f"/api/log/trial/{trial_id}/archive")
    assert kept.get("/api/trials") == []


def test_the_round_asks_for_the_looks_of_a_trial(kept: Client) -> None:
    a, b = pair_of_pots(kept)
    kept.made("/api/trials", trial(kept, [a, b]))
    asked = [e for e in kept.get("/api/round")["jobs"] if "trial" in e["sentence"]]
    assert {e["pot_id"] for e in asked} == {a, b}
    kept.made(f"/api/pots/{a}/looks", {"on": TODAY.isoformat()})
    asked = [e for e in kept.get("/api/round")["jobs"] if "trial" in e["sentence"]]
    assert {e["pot_id"] for e in asked} == {b}


def test_one_plant_in_turns_is_flushed_at_each_turn(kept: Client) -> None:
    a, _ = pair_of_pots(kept)
    body = trial(kept, [a], design="one plant", feed="share", share=0.25)
    trial_id = kept.made("/api/trials", body)["id"]
    hold = {h["id"]: h for h in kept.get(f"/api/pots/{a}")["row"]["holds"]}["trial"]
    assert "flush" not in hold["blocks"]
    assert "flush it first" in hold["reason"]
    later = Client(kept.store, TODAY + 10 * DAY)
    assert "flush" in {h["id"]: h for h in later.get(f"/api/pots/{a}")["row"]["holds"]}["trial"]["blocks"]
    assert len(kept.get(f"/api/trials/{trial_id}")["plan"]["phases"]) == 8


def test_a_trial_is_refused_by_field(kept: Client) -> None:
    a, b = pair_of_pots(kept)
    for more, pointer in (
        ({"question": " "}, "/question"),
        ({"pot_ids": []}, "/pot_ids"),
        ({"pot_ids": [99]}, "/pot_ids"),
        ({"seed": "x"}, "/seed"),
        ({"water_id": 99}, "/water_id"),
        ({"feed": "share"}, "/share"),
        ({"feed": "share", "share": 2}, "/share"),
    ):
        answer = kept.send("/api/trials", trial(kept, [a, b], **more))
        assert answer.status_code in (404, 422), more
        assert pointer in {e["pointer"] for e in answer.json()["errors"]}, answer.json()
    assert kept.get("/api/trials") == []


def test_the_demonstration_holds_a_trial_half_way_and_one_that_cannot_answer(demo: Client) -> None:
    running, ended = sorted(demo.get("/api/trials"), key=lambda t: t["id"])
    assert (running["pots"], running["running"], running["can_answer"]) == (12, True, True)
    assert (ended["running"], ended["can_answer"]) == (False, False)
    page = demo.get(f"/api/trials/{running['id']}")
    assert sum(p["counts"] for p in page["answer"]["pairs"]) >= 3
    assert len(page["noticed"]) <= 4
    assert page["gained"].startswith("Leaves gained: ")


# seasons, pairs, schools


def test_two_seasons_of_a_resting_orchid_lie_over_each_other(demo: Client) -> None:
    page = demo.get("/api/pots/21/seasons")
    assert page["overlay"]["result"]["equal_nitrogen"] is True
    assert page["overlay"]["result"]["other_rhythm"] is True
    assert "taller" in page["sentence"]
    assert page["stairs"][0][-1]["value"] == sum(p["value"] for p in page["stairs"][0][-1:])
    assert page["totals"][0]["nitrogen_mg"] > 100
    growths = demo.get("/api/pots/21/seasons?by=growths")
    assert growths["sentence"] == "One growth so far."


def test_a_pair_lists_only_what_differs(demo: Client) -> None:
    seen = demo.get("/api/pots/6/pair?beside=7")["seen"]
    names = {x["name"] for x in seen["lines"]}
    assert "feed" in names
    assert not names & {"kind", "place"}
    assert "One pair, weak." in seen["sentence"]


def test_ways_of_feeding_are_compared_and_called_weak(demo: Client) -> None:
    page = demo.get("/api/schools-compared")
    assert sum(s["plants"] for s in page["schools"]) == 24
    assert page["sentence"].endswith("weak.")
