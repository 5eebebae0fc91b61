"""Long lists in windows: what a page shows is what is sent, and the rest can be had."""

import shutil
import threading
from collections.abc import Iterator
from datetime import date, timedelta
from pathlib import Path

import pytest
from fastapi.routing import APIRoute

from fenwa.api.app import create_app
from fenwa.api.warm import PAGES, Warming, is_large
from fenwa.store.memory import Readable
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, pot, pour

MANY = 130


@pytest.fixture(scope="module")
def many(empty: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Client]:
    """Four kinds in two places, every second pot poured twice; read by all tests here, and looked at by one."""
    store = Store(Path(shutil.copy(empty, tmp_path_factory.mktemp("many") / "many.sqlite")))
    client = Client(store)
    client.made("/api/waters", {"name": "Rain", "kind": "rain"})
    kinds = ("paphiopedilum", "pleione", "masdevallia", "sarracenia")
    for n in range(MANY):
        place = "Bench" if n % 3 else "Shelf"
        client.made("/api/pots", pot(code=f"W-{n:03}", name=f"plant {n}", profile_id=kinds[n % 4], place=place))
    for on in ("2026-11-15", "2026-11-22"):
        client.made("/api/pours", pour(pot_ids=list(range(1, MANY + 1, 2)), on=on))
    yield client
    store.close()


def codes(rows: list[dict[str, object]]) -> list[object]:
    return [r["code"] for r in rows]


def test_pots_come_in_windows_and_are_found_by_every_word(many: Client) -> None:
    first = many.get("/api/pots")
    assert (first["total"], first["kept"], len(first["pots"])) == (MANY, MANY, 60)
    rest = [many.get(f"/api/pots?skip={skip}")["pots"] for skip in (60, 120, 180)]
    assert [len(r) for r in rest] == [60, 10, 0]
    assert len({r["id"] for page in (first["pots"], *rest) for r in page}) == MANY
    found = many.get("/api/pots?find=PLEIONE%20shelf")
    assert found["total"] == len(found["pots"]) == sum(n % 4 == 1 and n % 3 == 0 for n in range(MANY))
    assert {(r["profile_id"], r["place"]) for r in found["pots"]} == {("pleione", "Shelf")}
    assert many.get("/api/pots?find=nothing")["total"] == 0
    assert codes(many.get("/api/pots?ids=3,%201,999")["pots"]) == ["W-000", "W-002"]
    names = many.get("/api/pots/names")
    assert names[7] == {"id": 8, "code": "W-007", "name": "plant 7", "profile": "Sarracenia", "place": "Bench"}
    assert len(names) == MANY


def test_the_season_report_comes_in_windows(many: Client) -> None:
    whole = many.get("/api/season-report?count=500")
    assert (whole["total"], len(whole["plants"])) == (MANY, MANY)
    windows = [many.get(f"/api/season-report?skip={skip}") for skip in (0, 60, 120, 180)]
    assert [len(w["plants"]) for w in windows] == [60, 60, 10, 0]
    assert [p for w in windows for p in w["plants"]] == whole["plants"]
    assert {w["total"] for w in windows} == {MANY}


@pytest.mark.parametrize("rows", [1, 3, 40, 500])
def test_a_round_sends_its_beginning_and_says_how_much_is_left(many: Client, rows: int) -> None:
    whole, first = many.get("/api/round"), many.get(f"/api/round?rows={rows}")
    assert whole["left"] == {"cans": 0, "looks": 0, "jobs": 0, "pots": {}}
    plan, shown, left = whole["plan"], first["plan"], first["left"]
    assert sum(len(c["pots"]) for c in plan["cans"]) == plan["pots_due"] == shown["pots_due"] > 40
    for name, all_, some in (
        ("cans", plan["cans"], shown["cans"]),
        ("looks", plan["looks"], shown["looks"]),
        ("jobs", whole["jobs"], first["jobs"]),
    ):
        assert left[name] == max(0, len(all_) - rows) == len(all_) - len(some)
    for can, all_ in zip(shown["cans"], plan["cans"], strict=False):
        assert can == {**all_, "pots": all_["pots"][:rows]}
        assert left["pots"].get(can["letter"], 0) == len(all_["pots"]) - len(can["pots"])
    assert shown["looks"] == plan["looks"][:rows]
    assert first["jobs"] == whole["jobs"][:rows]
    complete = len(plan["cans"]) <= rows and all(len(c["pots"]) <= rows for c in plan["cans"])
    assert shown["legs"] == (plan["legs"] if complete else []), "a walk is sent with all of its pots"
    assert complete is (rows >= 40)


@pytest.mark.parametrize("rows", ["0", "-1", "501", "many"])
def test_rows_of_a_round_that_cannot_be_are_refused(many: Client, rows: str) -> None:
    assert many.http.get(f"/api/round?rows={rows}").status_code == 422


@pytest.mark.parametrize("query", ["ids=1;2", "ids=-1", "ids=" + "9" * 19, "count=0", "count=501", "skip=-1"])
def test_a_window_that_cannot_be_is_refused(many: Client, query: str) -> None:
    answer = many.http.get(f"/api/pots?{query}")
    assert answer.status_code == 422, answer.text
    assert answer.json()["errors"]


def test_the_flush_station_sends_the_saltiest_and_the_rest_when_asked(many: Client) -> None:
    every = many.get("/api/flush?count=500")
    assert every["total"] == len(every["pots"]) == MANY // 2
    shares = [p["share"] for p in every["pots"]]
    assert shares == sorted(shares, reverse=True)
    pieces = [many.get(f"/api/flush?skip={skip}&count=14")["pots"] for skip in range(0, 70, 14)]
    assert [p for piece in pieces for p in piece] == every["pots"]
    kinds = {k["id"] for k in every["kinds"]}
    assert kinds == {"paphiopedilum", "masdevallia"}
    one = many.get("/api/flush?kind=masdevallia&count=500")
    assert {p["row"]["profile_id"] for p in one["pots"]} == {"masdevallia"}
    assert {k["id"] for k in one["kinds"]} == kinds  # the choice stays whole


def test_years_are_sent_of_the_pots_on_the_screen_alone(many: Client) -> None:
    whole = many.get("/api/flush/changes")
    some = many.get("/api/flush/changes?ids=1,3")
    assert [y["pot_id"] for y in some["years"]] == [1, 3]
    assert some["together"] == whole["together"]
    assert len(whole["years"]) == MANY // 2


def test_leaf_groups_hold_their_totals_and_go_on(many: Client) -> None:
    page = many.get("/api/leaves")
    assert page["total"] == MANY
    assert sum(g["total"] for g in page["groups"]) == MANY
    assert all(len(g["plants"]) <= 60 for g in page["groups"])
    group = max(page["groups"], key=lambda g: g["total"])
    seen = list(group["plants"])
    while len(seen) < group["total"]:
        more = many.get(f"/api/leaves/more?group={group['key']}&skip={len(seen)}")
        assert more["total"] == group["total"]
        seen += more["plants"]
    assert len({p["pot_id"] for p in seen}) == group["total"]
    assert many.get("/api/leaves/more?group=nobody") == {"total": 0, "plants": []}


def test_leaf_groups_by_kind_place_and_school_in_the_order_of_their_names(many: Client) -> None:
    for by, key in (("kind", "profile"), ("place", "place"), ("school", "school")):
        groups = many.get(f"/api/leaves?by={by}")["groups"]
        assert [g["key"] for g in groups] == sorted((g["key"] for g in groups), key=str.casefold)
        assert all(p[key] == g["key"] for g in groups for p in g["plants"])
        assert not any(g["folds"] for g in groups)


def test_the_longest_unseen_stands_first_and_a_filter_lets_through_what_it_names(many: Client) -> None:
    look = {"on": "2026-11-20", "leaves_count": 4, "marks": [{"kind": "tip"}]}
    many.made("/api/pots/1/looks", look)
    marked = many.get("/api/leaves?show=marked&by=place")
    assert [p["code"] for g in marked["groups"] for p in g["plants"]] == ["W-000"]
    assert marked["first"]["code"] != "W-000"  # the first to look at is of all, whatever the filter shows
    page = many.get("/api/leaves")
    for g in page["groups"]:
        days = [p["last_look_on"] or str(date.min) for p in g["plants"]]
        assert days == sorted(days)
    assert many.get("/api/leaves?show=look%20today")["total"] == sum(
        g["total"] for g in page["groups"] if g["key"] == "look today"
    )


def test_pages_are_sent_again_until_something_is_written(kept: Client) -> None:
    """The same bytes twice, and never a page from before a write."""
    one = kept.http.get("/api/pots").content
    assert kept.http.get("/api/pots").content == one
    before = kept.get("/api/leaves"), kept.get("/api/flush")
    kept.made("/api/pours", pour())
    after = kept.get("/api/pots")
    assert after["pots"][0]["last_pour_on"] == "2026-11-22"
    assert (kept.get("/api/leaves"), kept.get("/api/flush")) != before


def test_a_pots_page_sends_the_months_its_chart_shows_and_the_rest_page_by_page(kept: Client) -> None:
    days = [date(2023, 1, 5) + timedelta(days=20 * n) for n in range(70)]
    for on in days:
        kept.made("/api/pours", pour(on=str(on)))
        if on.month == 3:
            kept.made("/api/pots/1/looks", {"on": str(on), "leaves_count": 4})
    page = kept.get("/api/pots/1")
    shown = [p["on"] for p in page["pours"]]
    assert page["pours_total"] == len(days)
    assert shown == [str(d) for d in days if d >= TODAY - timedelta(days=430)]
    assert all(x["on"] >= str(TODAY - timedelta(days=430)) for x in page["looks"])
    assert len(page["looks"]) < 6
    newest = kept.get("/api/pots/1/pours?count=50")
    older = kept.get("/api/pots/1/pours?skip=50&count=50")
    assert newest["total"] == older["total"] == len(days)
    assert [p["on"] for p in newest["pours"] + older["pours"]] == [str(d) for d in reversed(days)]
    assert newest["pours"][: len(shown)] == page["pours"][::-1]
    later = Client(kept.store, date(2029, 1, 1))
    assert [p["on"] for p in later.get("/api/pots/1")["pours"]] == [str(d) for d in days[-6:]]


@pytest.fixture
def large(many: Client, monkeypatch: pytest.MonkeyPatch) -> Store:
    """The house as one worth laying out, of which nothing is."""
    monkeypatch.setattr("fenwa.api.warm.AFTER_s", 0.0)
    assert not is_large(many.store)
    monkeypatch.setattr("fenwa.api.warm.LARGE", MANY - 1)
    assert is_large(many.store)
    many.store.forget()
    return many.store


def day_of_pots(store: Readable) -> date | None:
    known = store.changed.memory.get("pots")
    return None if known is None else known.day


def test_a_large_house_is_laid_out_beforehand(large: Store) -> None:
    app = create_app(large, lambda: TODAY)
    warming = Warming(app)
    warming.start()
    warming.wait()
    warming.stop()
    assert {"pots", "leaf lines", "desk"} <= set(large.changed.memory)
    assert set(PAGES) <= {r.path for r in app.router.routes if isinstance(r, APIRoute)}


def test_a_large_house_is_laid_out_again_when_a_day_begins_with_the_round_of_the_next(large: Store) -> None:
    """Once a day, and nothing is kept of the day gone by."""
    days = [TODAY]
    warming = Warming(create_app(large, lambda: days[-1]))
    for day in (TODAY, TODAY + timedelta(days=1)):
        days.append(day)
        warming.look()
        assert day_of_pots(large) == day
        tomorrow = large.as_of(day + timedelta(days=1))
        assert day_of_pots(tomorrow) == day + timedelta(days=1)
        laid_out = large.changed.memory["pots"]
        warming.look()
        assert large.changed.memory["pots"] is laid_out
        assert large.as_of(day + timedelta(days=1)) is tomorrow
    page = Client(large, days[-1]).get(f"/api/round?on={days[-1] + timedelta(days=1)}")
    assert page["today"] == str(days[-1] + timedelta(days=1))


def test_a_small_house_is_left_to_its_first_page(many: Client) -> None:
    many.store.forget()
    Warming(create_app(many.store, lambda: TODAY)).look()
    assert many.store.changed.memory == {}


def test_a_page_that_fails_keeps_no_other_from_being_laid_out(
    large: Store, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    def fails(*_: object) -> None:
        raise RuntimeError("no leaves today")

    monkeypatch.setattr("fenwa.api.leaves.station.leaves_of", fails)
    Warming(create_app(large, lambda: TODAY)).look()
    assert "/api/leaves could not be laid out beforehand" in caplog.text
    assert day_of_pots(large) == TODAY
    assert day_of_pots(large.as_of(TODAY + timedelta(days=1))) is not None


def test_a_database_that_cannot_be_read_is_told_in_the_log_once(
    many: Client, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked = threading.Semaphore(0)

    def fails(_: object) -> bool:
        asked.release()
        raise OSError("gone")

    monkeypatch.setattr("fenwa.api.warm.is_large", fails)
    monkeypatch.setattr("fenwa.api.warm.LOOK_EVERY_s", 0.001)
    warming = Warming(create_app(many.store, lambda: TODAY))
    warming.start()
    assert all(asked.acquire(timeout=10) for _ in range(3)), "it goes on looking"
    warming.stop()
    assert caplog.text.count("The house could not be laid out beforehand") == 1
