"""A write folds from the newest day that still holds: what it leaves is what a fold of the whole log leaves."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import event, func, insert, select, text

from fenwa.store.log_rows import load_logs
from fenwa.store.models import Feel, PotStanding, PotSummary, Pour, Runoff, Water
from fenwa.store.session import Store
from fenwa.store.standing_rows import TRIGGERS, set_triggers
from fenwa.store.summary import clear_summaries, refresh_many
from tests.conftest import TODAY, Client, pot, pour

LONG = 130


def ago(days: int) -> str:
    return (TODAY - timedelta(days=days)).isoformat()


@pytest.fixture(scope="module")
def long_log(tmp_path_factory: pytest.TempPathFactory, begun: Path) -> Path:
    """Two pots with a year and a half of pours, some read, one of them fed; made once."""
    path = tmp_path_factory.mktemp("long") / "long.sqlite"
    shutil.copy(begun, path)
    store = Store(path)
    Client(store).made("/api/pots", pot(code="P-02"))
    with store.writing() as session:
        for pot_id in (1, 2):
            rows = [
                {
                    "pot_id": pot_id,
                    "water_id": 1,
                    "on": TODAY - timedelta(days=4 * n),
                    "job": "plain" if n % 4 else "flush" if n % 40 == 0 else "feed",
                    "route": "top",
                    "volume_L": 0.25,
                    "ec_uS_cm": None if n % 17 == 5 else 30.0 if n % 4 else 380.0,
                }
                for n in range(LONG, 0, -1)
            ]
            session.execute(insert(Pour), rows)
        read = session.scalars(select(Pour.id).where(Pour.id % 9 == 0)).all()
        session.execute(
            insert(Runoff),
            [{"pour_id": i, "ec_uS_cm": 300.0 + 7 * (i % 50), "method": "pour-through"} for i in read],
        )
        refresh_many(session, [1, 2])
    store.close()
    return path


@pytest.fixture
def long(tmp_path: Path, long_log: Path) -> Iterator[Client]:
    shutil.copy(long_log, tmp_path / "fenwa.sqlite")
    store = Store(tmp_path / "fenwa.sqlite")
    yield Client(store)
    store.close()


class _TakenBackError(Exception):
    pass


def left(client: Client) -> dict[int, Any]:
    with client.store.reading() as session:
        return {r.pot_id: (r.data, r.history, r.mix, r.learnt) for r in session.scalars(select(PotSummary))}


def folded_whole(client: Client) -> dict[int, Any]:
    """What a fold of every whole log leaves; nothing of it is kept."""
    found: dict[int, Any] = {}
    try:
        with client.store.writing() as session:
            ids = list(session.scalars(select(PotSummary.pot_id)))
            clear_summaries(session)
            refresh_many(session, ids)
            session.flush()
            for r in session.scalars(select(PotSummary)):
                found[r.pot_id] = (r.data, r.history, r.mix, r.learnt)
            raise _TakenBackError
    except _TakenBackError:
        return found


def near(one: Any, other: Any) -> bool:
    """Alike, numbers to the ninth figure."""
    if isinstance(one, dict):
        return one.keys() == other.keys() and all(near(one[k], other[k]) for k in one)
    if isinstance(one, list | tuple):
        return len(one) == len(other) and all(near(a, b) for a, b in zip(one, other, strict=True))
    return bool(one == pytest.approx(other, rel=1e-9, abs=1e-9)) if isinstance(one, float) else bool(one == other)


def goes_on_from(client: Client, pot_id: int = 1) -> int:
    """How many days back pot's fold would go on from; -1: from the first."""
    with client.store.reading() as session:
        (x,) = load_logs(session, [pot_id])
        return (TODAY - x.since.on).days if x.since else -1


def newest_pour(client: Client, back: int = 0) -> int:
    pours = client.get("/api/pots/1")["pours"]
    return int(sorted(pours, key=lambda p: (p["on"], p["id"]))[-1 - back]["id"])


WRITES: dict[str, Callable[[Client], Any]] = {
    "a pour today": lambda c: c.made("/api/pours", pour(on=ago(0))),
    "a pour with its runoff": lambda c: c.made("/api/pours", pour(on=ago(0), runoff_ec=555, runoff_volume=40)),
    "two pots at once": lambda c: c.made("/api/pours", pour(on=ago(1), pot_ids=[1, 2])),
    "a pour of last month": lambda c: c.made("/api/pours", pour(on=ago(33))),
    "a pour of a year ago": lambda c: c.made("/api/pours", pour(on=ago(370))),
    "a pour before the first": lambda c: c.made("/api/pours", pour(on=ago(900))),
    "undo of the newest": lambda c: c.made(f"/api/log/pour/{newest_pour(c)}/archive"),
    "undo of an old one": lambda c: c.made(f"/api/log/pour/{newest_pour(c, 60)}/archive"),
    "a corrected EC": lambda c: c.made(f"/api/log/pour/{newest_pour(c, 30)}/correct", {"ec_uS_cm": 777}),
    "a reading between": lambda c: c.made("/api/pots/1/readings", {"on": ago(2), "ec": 640}),
    "an old reading": lambda c: c.made("/api/pots/1/readings", {"on": ago(202), "ec": 640}),
    "a crust": lambda c: c.made("/api/pots/1/looks", {"on": ago(90), "marks": ["crust"], "leaves_count": 4}),
    "a phase": lambda c: c.made("/api/pots/1/phase", {"phase": "rest", "since": ago(50)}),
    "a felt pot": lambda c: c.made("/api/pots/1/felt", {"on": ago(1), "moist": "dry"}),
}


@pytest.mark.parametrize("name", WRITES)
def test_what_a_write_leaves_is_what_the_whole_log_leaves(long: Client, name: str) -> None:
    assert goes_on_from(long) >= 0
    for again in ("a pour today", name, "a pour today"):
        WRITES[again](long)
        assert near(left(long), folded_whole(long)), again


def test_a_write_folds_no_more_than_a_few_steps(long: Client) -> None:
    WRITES["a pour today"](long)
    with long.store.reading() as session:
        (x,) = load_logs(session, [1])
        assert len(x.events) <= 24
        days = session.scalar(select(func.count()).select_from(PotStanding).where(PotStanding.pot_id == 1))
    assert 3 <= (days or 0) <= 12
    WRITES["a pour of last month"](long)
    assert goes_on_from(long) > 33 - 28


def test_any_writer_takes_away_the_days_it_made_untrue(long: Client) -> None:
    """Rows written past every form of ours, as an import or another program does it."""
    before = goes_on_from(long)
    assert 0 < before < 120
    changes: list[Any] = [
        insert(Pour).values(pot_id=1, water_id=1, on=TODAY - timedelta(days=200), job="plain", route="top"),
        text("UPDATE pour SET volume_L = 0.3 WHERE pot_id = 1 AND \"on\" < '2026-02-01'"),
        text(
            "UPDATE runoff SET ec_uS_cm = 1 WHERE pour_id = (SELECT max(id) FROM pour WHERE pot_id = 1 AND id % 9 = 0)"
        ),
        insert(Feel).values(pot_id=1, on=TODAY - timedelta(days=300), moist="wet"),
        text("UPDATE water SET kind = 'mains'"),
    ]
    for change in changes:
        with long.store.writing() as session:
            session.execute(change)
        now = goes_on_from(long)
        assert now == -1 or now > before
        with long.store.writing() as session:
            refresh_many(session, [1, 2])
        assert near(left(long), folded_whole(long))
    before = goes_on_from(long)
    assert before > 0
    with long.store.writing() as session:
        session.execute(text("UPDATE water SET on_hand_L = 3"))
    assert goes_on_from(long) == before, "what the fold does not rest on takes nothing away"


def test_other_figures_fold_the_whole_log_again(long: Client) -> None:
    long.made("/api/pots/1/repot", {"on": ago(100), "medium_id": "bark_mix", "volume": 1.5})
    assert near(left(long), folded_whole(long))
    WRITES["a pour today"](long)
    assert near(left(long), folded_whole(long))
    assert 0 < goes_on_from(long) < 100


def test_triggers_of_another_version_are_replaced_and_nothing_is_trusted_they_watched(long: Client) -> None:
    store = long.store
    with store.engine.begin() as c:
        c.exec_driver_sql("DROP TRIGGER standing_pour_insert")
        c.exec_driver_sql("CREATE TRIGGER standing_old AFTER INSERT ON pot BEGIN SELECT 1; END")
    set_triggers(store.engine)
    with store.engine.begin() as c:
        rows = c.exec_driver_sql("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'")
        assert {row.name: row.sql for row in rows} == TRIGGERS
    assert goes_on_from(long) == -1


def test_a_pour_asks_the_database_no_more_of_a_long_log_than_of_a_short_one(long: Client) -> None:
    """Rows that a pour's own write reads, counted at the driver."""
    long.made("/api/pots", pot(code="P-03"))
    read = 0

    @event.listens_for(long.store.engine, "after_cursor_execute")
    def _count(_c: Any, _cursor: Any, statement: str, *_: Any) -> None:
        nonlocal read
        read += "FROM pour" in statement or "JOIN pour" in statement

    counts = []
    for pot_id in (1, 3):
        read = 0
        long.made("/api/pours", pour(on=ago(0), pot_ids=[pot_id]))
        counts.append(read)
    assert counts[0] == counts[1]
    with long.store.reading() as session:
        assert session.scalar(select(func.count()).select_from(Water)) == 1


def test_a_pot_that_dries_out_between_its_pours_says_so_once_however_often_it_is_poured(kept: Client) -> None:
    def droughts() -> list[str]:
        cautions = kept.get("/api/pots/1")["working"]["cautions"]
        return [x for x in cautions if "bone dry" in x]

    for n, said in ((8, "3 times, last by"), (4, "6 times, last by")):
        for k in range(3):
            kept.made("/api/pours", pour(on=ago(60 * (n - k))))
        assert len(droughts()) == 1, "today counts as well"
        assert said in droughts()[0]
    assert "dry" in left(kept)[1][1]
