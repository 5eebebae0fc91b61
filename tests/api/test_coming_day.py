"""The round of a coming day is kept beside today's: never older than the last write, never the one for the other."""

from datetime import datetime, timedelta
from typing import Any

import pytest

from fenwa.store.backup import Backups
from fenwa.store.session import Store
from tests.conftest import TODAY, Client, pot, pour

DAY, NOW = timedelta(days=1), datetime(2026, 11, 23, 7, 0)
COMING = f"/api/round?on={TODAY + 3 * DAY}"
ROUNDS = (f"/api/round?on={TODAY + 9 * DAY}", "/api/round", COMING)  # the last is kept when the next write comes


def asked(client: Client) -> list[Any]:
    """The coming day first that was asked for last: it goes on from what is kept of it."""
    return [client.get(path) for path in reversed(ROUNDS)]


def afresh(client: Client) -> list[Any]:
    """The same, by servers that keep nothing from before."""
    out = []
    for path in reversed(ROUNDS):
        store = Store(client.store.path)
        out.append(Client(store).get(path))
        store.close()
    return out


WRITES: dict[str, tuple[str, dict[str, Any]]] = {
    "a pour": ("/api/pours", pour(on=TODAY.isoformat())),
    "a pour of last week": ("/api/pours", pour(on=(TODAY - 7 * DAY).isoformat())),
    "a pour of another": ("/api/pours", pour(pot_ids=[2], on=TODAY.isoformat())),
    "felt dry": ("/api/pots/1/felt", {"on": TODAY.isoformat(), "moist": "dry"}),
    "a look": ("/api/pots/2/looks", {"on": TODAY.isoformat(), "marks": [{"kind": "limp"}]}),
    "a rest": ("/api/pots/1/phase", {"phase": "rest", "since": "2026-11-01"}),
    "put off": ("/api/skips", {"pot_ids": [1], "on": TODAY.isoformat()}),
    "a cold night": ("/api/places/1/climate", {"on": TODAY.isoformat(), "night": 3, "day": 9}),
    "a reading of the water": ("/api/waters/1/readings", {"on": TODAY.isoformat(), "value": 240}),
    "a kind's own ceiling": ("/api/kinds/paphiopedilum/own", {"water_max": 20, "word": "mine burn early"}),
    "another pot": ("/api/pots", pot(code="P-03", interval_days=2)),
    "a pot archived": ("/api/log/pot/1/archive", {}),
    "a repotting": ("/api/pots/1/repot", {"on": TODAY.isoformat(), "medium_id": "peat_perlite", "volume": "2"}),
}


@pytest.fixture
def two(kept: Client) -> Client:
    """Two pots, one of them poured last week."""
    kept.made("/api/pots", pot(code="S-01", profile_id="sarracenia", medium_id="peat", drainage="tray", route="tray"))
    kept.made("/api/pours", pour(on=(TODAY - 8 * DAY).isoformat()))
    return kept


@pytest.mark.parametrize("what", WRITES)
def test_after_a_write_it_is_as_by_a_server_that_keeps_nothing(two: Client, what: str) -> None:
    before = [two.get(path) for path in ROUNDS][::-1]
    path, body = WRITES[what]
    two.made(path, body)
    now = asked(two)
    assert now == afresh(two)
    assert now != before, "the write bears on a round: it would not be seen if nothing were asked anew"


def test_writes_one_after_the_other_are_all_seen(two: Client) -> None:
    for path, body in [WRITES[what] for what in WRITES if what not in ("a pot archived", "a rest")]:
        two.made(path, body)
        two.get(COMING)
    assert asked(two) == afresh(two)


def test_of_a_coming_day_only_what_was_written_is_read_again(two: Client) -> None:
    """Today's pots and those of the coming day are other objects; a pour leaves the other pot's as it is."""
    from fenwa.store.collection import pots_today

    def pots(coming: bool) -> dict[int, Any]:
        day = TODAY + 3 * DAY if coming else TODAY
        seen = two.store.as_of(day) if coming else two.store
        with seen.reading() as session:
            return {p.id: p for p in pots_today(session, day)}

    before, today = pots(True), pots(False)
    assert {p.today for p in before.values()} == {TODAY + 3 * DAY}
    assert {p.today for p in today.values()} == {TODAY}
    two.made("/api/pours", pour(on=TODAY.isoformat()))
    after = pots(True)
    assert after[2] is before[2]
    assert after[1] is not before[1]
    assert pots(False)[2] is today[2]


def test_one_coming_day_is_kept_at_a_time(two: Client) -> None:
    first = two.store.as_of(TODAY + DAY)
    assert two.store.as_of(TODAY + DAY) is first
    assert two.store.as_of(TODAY + 2 * DAY) is not first
    assert two.store.as_of(TODAY + DAY) is not first


def test_a_backup_brought_back_is_what_is_told(two: Client) -> None:
    backups = Backups(two.store.path)
    before = asked(two)
    made = backups.make("manual", NOW)
    two.made("/api/pours", pour(on=TODAY.isoformat()))
    assert asked(two) != before
    backups.restore(two.store, backups.place(made.name), NOW)
    assert asked(two) == before
