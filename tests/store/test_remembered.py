"""What readers keep between writes is never older than the last write."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from pathlib import Path

from sqlalchemy.orm import Session

from fenwa.store.collection import kept_of_pots, pots_today
from fenwa.store.models import Reading, Water
from fenwa.store.pot_today import PotToday
from fenwa.store.session import Store
from fenwa.store.summary import open_pours
from fenwa.store.water_state import waters_today
from tests.conftest import TODAY, Client, pour

DAY = date(2026, 11, 23)


def _ec(store: Store) -> float | None:
    with store.reading() as session:
        return waters_today(session, DAY)[0].ec25_uS_cm


def _log(store: Store, ec: float, on: date = DAY) -> None:
    with store.writing() as session:
        session.add(Reading(water_id=1, on=on, value=ec, unit="µS/cm", compensated=True, ec25_uS_cm=ec))
        session.flush()
        assert waters_today(session, DAY)[0].ec25_uS_cm == ec, "a writing session sees its own rows"


def test_a_kept_water_is_read_again_after_a_write_and_on_another_day(tmp_path: Path) -> None:
    store = Store(tmp_path / "kept.sqlite")
    with store.writing() as session:
        session.add(Water(id=1, name="Rain", kind="rain"))
    assert _ec(store) is None
    _log(store, 30.0)
    assert _ec(store) == 30.0
    _log(store, 41.0)
    assert [_ec(store) for _ in range(3)] == [41.0] * 3
    with store.reading() as session:
        kept = waters_today(session, DAY)
        assert waters_today(session, DAY)[0] is kept[0], "kept, not loaded a second time"
        assert waters_today(session, date(2026, 11, 1))[0].ec25_uS_cm is None


def test_a_session_opened_before_a_write_cannot_hide_it_from_the_next(tmp_path: Path) -> None:
    store = Store(tmp_path / "kept.sqlite")
    with store.writing() as session:
        session.add(Water(id=1, name="Rain", kind="rain"))
    with store.reading() as early:
        _log(store, 52.0)
        waters_today(early, DAY)
    assert _ec(store) == 52.0


def test_a_write_that_fails_leaves_what_was_kept(tmp_path: Path) -> None:
    store = Store(tmp_path / "kept.sqlite")
    with store.writing() as session:
        session.add(Water(id=1, name="Rain", kind="rain"))
    _log(store, 33.0)
    try:
        with store.writing() as session:
            session.add(Reading(water_id=1, on=DAY, value=99.0, unit="µS/cm", compensated=True, ec25_uS_cm=99.0))
            session.flush()
            raise RuntimeError("power cut")
    except RuntimeError:
        pass
    assert _ec(store) == 33.0


def test_what_is_worked_out_of_a_pot_is_not_kept_from_a_snapshot_before_its_last_write(kept: Client) -> None:
    """A session that read before a pour, and a pot that was loaded after it: the next reader works it out anew."""

    def pours(session: Session, pots: Sequence[PotToday]) -> dict[int, int]:
        def counted(new: Sequence[PotToday]) -> dict[int, int]:
            return {p.pot.id: len(open_pours(session, p.pot.id)) for p in new}

        return kept_of_pots(session, "pours", pots, counted)

    with kept.store.reading() as early:
        assert open_pours(early, 1) == []  # its snapshot begins here
        kept.made("/api/pours", pour())
        assert pours(early, pots_today(early, TODAY)) == {1: 0}
    with kept.store.reading() as later:
        known = pots_today(later, TODAY)
        assert pours(later, known) == {1: 1}
        assert kept_of_pots(later, "pours", known, lambda new: {p.pot.id: 9 for p in new}) == {1: 1}, "kept from now on"
