"""At the bench: what was felt, who poured, pots left for another day, saucers to empty."""

from datetime import datetime, timedelta
from itertools import count

import pytest

from fenwa.api.round import bench as at_the_bench
from fenwa.store import models
from tests.conftest import TODAY, Client, pot, pour


def test_a_skipped_pot_comes_back_after_a_quarter_of_its_interval(kept: Client) -> None:
    assert kept.get("/api/round")["plan"]["pots_due"] == 1
    done = kept.made("/api/skips", {"pot_ids": [1], "on": "2026-11-23"})
    assert done["feel_again_on"] == "2026-11-25"  # 6 days / 4, rounded
    assert kept.get("/api/round")["plan"]["pots_due"] == 0
    later = Client(kept.store, TODAY + timedelta(days=2))
    assert later.get("/api/round")["plan"]["pots_due"] == 1
    kept.made(f"/api/log/decision/{done['decision_ids'][0]}/archive")
    assert kept.get("/api/round")["plan"]["pots_due"] == 1, "Undo puts it back on the list"


def test_a_pour_keeps_what_was_felt_and_who_poured(kept: Client) -> None:
    kept.made("/api/pours", pour(felt="dry", by=" Ilsa "))
    kept.made("/api/pours", pour())
    told = [(p["felt"], p["by"]) for p in kept.get("/api/pots/1")["pours"]]
    assert told == [("dry", "Ilsa"), ("", "")]


def test_a_name_is_kept_once_and_can_be_taken_out(kept: Client) -> None:
    ilsa = kept.made("/api/people", {"name": "  Ilsa  Venn "})["id"]
    assert [p["name"] for p in kept.get("/api/people")] == ["Ilsa Venn"]
    assert kept.refused("/api/people", {"name": "Ilsa Venn"}, 409)["detail"] == "Ilsa Venn is in the list already."
    kept.made(f"/api/log/person/{ilsa}/archive")
    assert kept.get("/api/people") == []


def test_a_timer_runs_by_the_servers_clock_until_the_saucers_are_emptied(kept: Client) -> None:
    ids = [t["id"] for t in kept.made("/api/timers", {"pot_ids": [1, 1], "minutes": "15"})]
    (running,) = kept.get("/api/timers")
    assert running["code"] == "P-01"
    assert 14 * 60 < running["left_s"] <= 15 * 60
    with kept.store.writing() as session:
        session.get_one(models.Timer, ids[0]).started_at -= timedelta(minutes=20)
    assert kept.get("/api/timers")[0]["left_s"] == 0, "over, and still asked for"
    kept.made("/api/timers/done", {"ids": ids})
    assert kept.get("/api/timers") == []


def test_saucers_asked_for_together_end_together(kept: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    """However long the row of pots takes to store, the page shows one reminder and not two."""
    seconds = count()
    monkeypatch.setattr(at_the_bench, "now", lambda: datetime(2026, 11, 23, 8, 0, next(seconds)))
    second = kept.made("/api/pots", pot(code="P-02"))["id"]
    started = kept.made("/api/timers", {"pot_ids": [1, second], "minutes": "15"})
    assert len(started) == 2
    assert len({t["ends_at"] for t in kept.get("/api/timers")}) == 1


@pytest.mark.parametrize(
    ("path", "body", "sentence"),
    [
        ("/api/skips", {"pot_ids": [], "on": "2026-11-23"}, "No pot is chosen"),
        ("/api/skips", {"pot_ids": [1], "on": "2026-11-24"}, "in the future"),
        ("/api/people", {"name": "  "}, "Name is empty"),
        ("/api/timers", {"pot_ids": []}, "No pot is chosen"),
        ("/api/timers", {"pot_ids": [1], "minutes": 0}, "Minutes"),
    ],
)
def test_a_refused_entry_says_why_and_stores_nothing(
    still: Client, path: str, body: dict[str, object], sentence: str
) -> None:
    assert sentence in still.refused(path, body)["detail"]
    assert (still.get("/api/people"), still.get("/api/timers")) == ([], [])
    assert still.get("/api/round")["plan"]["pots_due"] == 1


def test_an_unknown_pot_is_neither_skipped_nor_timed(kept: Client) -> None:
    for path in ("/api/skips", "/api/timers"):
        answer = kept.send(path, {"pot_ids": [1, 99], "on": "2026-11-23"})
        assert answer.status_code == 404
    assert kept.get("/api/timers") == []
    assert kept.get("/api/round")["plan"]["pots_due"] == 1


def test_alike_neighbours_stand_in_one_row(kept: Client) -> None:
    for n in range(2, 7):
        kept.made("/api/pots", pot(code=f"P-{n:02d}", isolated=n == 6, volume="0,9" if n != 4 else "2"))
    (can,) = kept.get("/api/round")["plan"]["cans"]
    assert [(p["code"], p["row"]) for p in can["pots"]] == [
        ("P-01", 0),
        ("P-02", 0),
        ("P-03", 0),
        ("P-04", 1),
        ("P-05", 2),
        ("P-06", 3),
    ]
