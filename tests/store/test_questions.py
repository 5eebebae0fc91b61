"""Questions asked at every write say what the objects would say, of any number of rows."""

from __future__ import annotations

from datetime import date

import pytest
from sqlalchemy import insert, select

from fenwa.store import submissions
from fenwa.store.models import Setting, Submission, Water
from fenwa.store.questions import among, columns, listed
from fenwa.store.session import Store

_NAMES = select(Water.id, Water.name, Water.on_hand_on).where(Water.id.in_(among())).order_by(Water.id)


@pytest.fixture
def waters(store: Store) -> Store:
    """A thousand waters."""
    rows = [{"name": f"W {n}", "kind": "rain", "on_hand_on": date(2026, 1, 1)} for n in range(1000)]
    with store.writing() as session:
        session.execute(insert(Water), rows)
    return store


@pytest.mark.parametrize("ids", [[], [1], [7, 7, 900], list(range(1, 1001)), [5000]])
def test_one_text_serves_any_number(waters: Store, ids: list[int]) -> None:
    with waters.reading() as session:
        found = columns(session, _NAMES, ids=listed(ids))
        there = session.scalars(select(Water).where(Water.id.in_(ids)).order_by(Water.id)).all()
    assert [tuple(x) for x in found] == [(w.id, w.name, w.on_hand_on) for w in there]


def test_what_was_given_to_be_written_is_found(store: Store) -> None:
    with store.writing() as session:
        session.add(Water(id=9, name="Rain", kind="rain"))
        assert [x.name for x in columns(session, _NAMES, ids=listed([9]))] == ["Rain"]
        session.get_one(Water, 9).name = "Tap"
        assert [x.name for x in columns(session, _NAMES, ids=listed([9]))] == ["Tap"]


def test_a_key_is_kept_with_what_was_written_for_it_or_not_at_all(store: Store) -> None:
    answer = {"pour_ids": [1, 2], "ec_uS_cm": None, "said": "µ"}
    with store.writing() as session:
        assert submissions.seen(session, "abcdefgh") is None
        session.add(Setting(key="x", value=1))
        submissions.keep(session, "abcdefgh", "/api/pours", "hash", answer)
    with store.writing() as session:
        assert submissions.seen(session, "abcdefgh") == ("hash", answer)
        row = session.get_one(Submission, "abcdefgh")
        assert (row.route, row.at.tzinfo) == ("/api/pours", None)


def test_a_write_that_fails_keeps_no_key(store: Store) -> None:
    def broken() -> None:
        with store.writing() as session:
            submissions.keep(session, "ijklmnop", "/api/pours", "hash", {})
            raise RuntimeError("power cut")

    with pytest.raises(RuntimeError):
        broken()
    with store.reading() as session:
        assert session.get(Submission, "ijklmnop") is None
