"""What the pots of a mix say of one another is kept between writes, and is what a fresh reader finds."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from sqlalchemy import event, select

from fenwa.store.mixes import told_by_others
from fenwa.store.models import Pot, PotSummary
from fenwa.store.session import Store
from tests.conftest import Client, pot, pour


def told(store: Store) -> dict[int, Any]:
    with store.reading() as session:
        mine = select(PotSummary.pot_id, PotSummary.mix).join(Pot, Pot.id == PotSummary.pot_id)
        mixes = {r.pot_id: r.mix for r in session.execute(mine.where(Pot.archived_at.is_(None)))}
        return told_by_others(session, mixes)


def told_afresh(store: Store) -> dict[int, Any]:
    """As a reader finds it who knows nothing yet."""
    known = store.changed.memory.pop("mixes", None)
    found = told(store)
    store.changed.memory["mixes"] = known
    return found


@pytest.fixture
def alike(kept: Client) -> Client:
    """Three pots of one mix and one of another, each read once."""
    for code in ("P-02", "P-03"):
        kept.made("/api/pots", pot(code=code))
    kept.made("/api/pots", pot(code="P-04", profile_id="phragmipedium"))
    for i in (1, 2, 3, 4):
        kept.made("/api/pours", pour(pot_ids=[i], runoff_volume=40, runoff_ec=300 + 40 * i))
    return kept


def _moved(client: Client) -> None:
    """A pot of the mix gets another medium."""
    client.made("/api/pots/3/repot", {"on": "2026-11-22", "medium_id": "sphagnum_loose", "volume": "0,9"})


def _archived(client: Client) -> None:
    client.made("/api/log/pot/2/archive", {})


AFTER: dict[str, Callable[[Client], Any]] = {
    "nothing": lambda _: None,
    "a plain pour": lambda c: c.made("/api/pours", pour(pot_ids=[2])),
    "a reading": lambda c: c.made("/api/pours", pour(pot_ids=[2], runoff_volume=50, runoff_ec=900)),
    "readings of two mixes": lambda c: c.made("/api/pours", pour(pot_ids=[1, 4], runoff_volume=50, runoff_ec=700)),
    "a reading taken back": lambda c: c.made("/api/log/pour/2/archive", {}),
    "another medium": _moved,
    "a pot put away": _archived,
    "one more of the mix": lambda c: c.made("/api/pots", pot(code="P-05")),
}


@pytest.mark.parametrize("what", AFTER)
def test_what_others_tell_is_what_a_fresh_reader_finds(alike: Client, what: str) -> None:
    store = alike.store
    before = told(store)
    assert before.keys() == {1, 2, 3}, "the fourth is alone in its mix"
    AFTER[what](alike)
    found = told(store)
    assert found == told_afresh(store)
    assert (found == before) == (what in ("nothing", "a plain pour"))
    assert told(store) == found


def test_a_plain_pour_leaves_the_mixes_summed_up_and_a_reading_only_its_own(alike: Client) -> None:
    store = alike.store
    told(store)
    known = store.changed.memory["mixes"].summed
    alike.made("/api/pours", pour(pot_ids=[2]))
    told(store)
    assert store.changed.memory["mixes"].summed == known
    alike.made("/api/pours", pour(pot_ids=[4], runoff_volume=50, runoff_ec=900))
    told(store)
    now = store.changed.memory["mixes"].summed
    assert [mix for mix in known if known[mix] is not now[mix]] == ["bark_mix|phragmipedium"]


def test_only_pots_written_since_are_read_again(alike: Client) -> None:
    store, sent = alike.store, list[Any]()
    told(store)
    alike.made("/api/pours", pour(pot_ids=[2]))

    with store.reading() as session:
        event.listen(session.get_bind(), "before_cursor_execute", lambda *a: sent.append(a[2:4]))
        told_by_others(session, {1: "bark_mix|paphiopedilum"})
        told_by_others(session, {1: "bark_mix|paphiopedilum"})
    ((_, values),) = [x for x in sent if "learnt" in x[0]]
    assert values[1:] == ("[2]",), "beside the figures it was folded by"


def test_a_session_begun_before_a_write_leaves_nothing_older_behind(alike: Client) -> None:
    store, mix = alike.store, "bark_mix|paphiopedilum"
    with store.reading() as early:
        early.scalar(select(PotSummary.pot_id))  # its snapshot begins here
        alike.made("/api/pours", pour(pot_ids=[2], runoff_volume=50, runoff_ec=900))
        new = told(store)
        assert told_by_others(early, {1: mix})[1] == new[1], "newer than its snapshot, never older than another's"
    assert told(store) == new == told_afresh(store)
