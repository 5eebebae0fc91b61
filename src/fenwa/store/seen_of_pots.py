"""What was noted of pots beside their log: holds set aside, weights, treatments, looks put off, how dry they were.

Asked at every pour and of every page after it, so as columns and not as objects that could be written on.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from sqlalchemy import Executable, bindparam, select
from sqlalchemy.orm import InstrumentedAttribute, Session

from fenwa.core.care.condition import Override
from fenwa.core.care.vocabulary import TREATED, is_skip
from fenwa.store.models import Decision, Event, Feel, HoldOverride, Weight
from fenwa.store.questions import among, columns, listed

FOUND = ("probe_value", "moist", "roots", "droops", "wall", "heft")


@dataclass(frozen=True)
class OnScale:
    """A pot on the scale. [g]"""

    on: date
    grams: float
    kind: str


@dataclass(frozen=True)
class Treated:
    """The newest treatment of a pot, and for how many days it holds."""

    on: date
    days: int | None


@dataclass(frozen=True)
class LookAgain:
    """A decision that is to be looked at again."""

    on: date
    what: str
    why: str


Question = tuple[Executable, Executable]  # of all pots, and of those that are named


def _up_to(kept: Any, table: type, pot_id: InstrumentedAttribute[Any]) -> Question:
    """Rows up to a day that are not archived, the newest last."""
    rows = kept.where(table.archived_at.is_(None), table.on <= bindparam("until"))  # type: ignore[attr-defined]
    ordered = rows.order_by(table.on, table.id)  # type: ignore[attr-defined]
    return ordered, ordered.where(pot_id.in_(among()))


_OVERRIDES = _up_to(
    select(HoldOverride.pot_id, HoldOverride.hold_id, HoldOverride.on, HoldOverride.word),
    HoldOverride,
    HoldOverride.pot_id,
)
_WEIGHTS = _up_to(select(Weight.pot_id, Weight.on, Weight.grams, Weight.kind), Weight, Weight.pot_id)
_TREATED = _up_to(
    select(Event.pot_id, Event.on, Event.days).where(Event.kind == TREATED, Event.pot_id.is_not(None)),
    Event,
    Event.pot_id,
)
_LATER = _up_to(
    select(Decision.pot_id, Decision.look_again_on, Decision.what, Decision.why).where(
        Decision.look_again_on.is_not(None), Decision.pot_id.is_not(None)
    ),
    Decision,
    Decision.pot_id,
)
_FELT = _up_to(select(Feel.pot_id, Feel.on, Feel.probe_id, *(getattr(Feel, name) for name in FOUND)), Feel, Feel.pot_id)


def _rows(session: Session, question: Question, until: date, only: set[int] | None) -> Any:
    every, some = question
    if only is None:
        return columns(session, every, until=until)
    return columns(session, some, until=until, ids=listed(only))


def overrides_of(session: Session, today: date, only: set[int] | None) -> dict[int, tuple[Override, ...]]:
    """Holds that were set aside, by pot, oldest first."""
    out: dict[int, list[Override]] = {}
    for pot_id, hold_id, on, word in _rows(session, _OVERRIDES, today, only):
        out.setdefault(pot_id, []).append(Override(hold_id, on, word))
    return {k: tuple(v) for k, v in out.items()}


def weights_of(session: Session, today: date, only: set[int] | None) -> dict[int, list[OnScale]]:
    """Weights by pot, oldest first."""
    out: dict[int, list[OnScale]] = {}
    for pot_id, on, grams, kind in _rows(session, _WEIGHTS, today, only):
        out.setdefault(pot_id, []).append(OnScale(on, grams, kind))
    return out


def treated_of(session: Session, today: date, only: set[int] | None) -> dict[int, Treated]:
    """The newest treatment of each pot that had one."""
    return {pot_id: Treated(on, days) for pot_id, on, days in _rows(session, _TREATED, today, only)}


def put_off(session: Session, today: date, only: set[int] | None) -> tuple[dict[int, date], dict[int, LookAgain]]:
    """Of each pot the day until which it is skipped, and the newest decision to be looked at again."""
    skipped: dict[int, date] = {}
    again: dict[int, LookAgain] = {}
    for pot_id, on, what, why in _rows(session, _LATER, today, only):
        if is_skip(what):
            skipped[pot_id] = on
        else:
            again[pot_id] = LookAgain(on, what, why)
    return skipped, again


def felt_of_pots(session: Session, today: date, only: set[int] | None) -> dict[int, dict[str, Any]]:
    """The newest finding of each kind for each pot."""
    out: dict[int, dict[str, Any]] = {}
    for row in _rows(session, _FELT, today, only):
        mine = out.setdefault(row.pot_id, {})
        for name in FOUND:
            if getattr(row, name) is not None:
                mine[name] = row
    return out
