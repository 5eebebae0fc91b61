"""Rows noted past the entry, at any day and archived at will, and what a reading session finds of them."""

from collections.abc import Callable
from datetime import date, datetime, timedelta
from typing import Any, TypeVar

from sqlalchemy.orm import Session

from fenwa.store.models import Growth
from tests.conftest import TODAY, Client, pot

T = TypeVar("T")
DAY = timedelta(days=1)
GONE = datetime(2026, 11, 22, 9, 0)
SIDE = 9  # a growth of the first plant that does not lead


def ago(days: int) -> date:
    return TODAY - days * DAY


def put(client: Client, *rows: Any) -> list[int]:
    """Note rows in this order; their numbers."""
    with client.store.writing() as session:
        for row in rows:
            session.add(row)
            session.flush()
        return [row.id for row in rows]


def asked(client: Client, ask: Callable[[Session], T]) -> T:
    with client.store.reading() as session:
        return ask(session)


def two_pots(kept: Client) -> Client:
    """Two pots with a plant each, and a side growth of the first that does not lead."""
    kept.made("/api/pots", pot(code="P-02"))
    put(kept, Growth(id=SIDE, plant_id=1, name="side", leads=False))
    return kept
