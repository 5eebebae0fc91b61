"""What was decided at a pot and when to look again; leaves treated, which wait for a spray."""

from __future__ import annotations

from datetime import date
from typing import Any

from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, keep_row
from fenwa.api.typed import Typed
from fenwa.api.ways import Ways
from fenwa.core.care.decided import caution_of
from fenwa.core.care.usual import look_again_on
from fenwa.core.care.vocabulary import SKIPPED, TREATED
from fenwa.core.entry import require, require_not_future
from fenwa.core.errors import InputError, Underspecified
from fenwa.store import models
from fenwa.store.pot_rows import decisions_of

router = Ways(prefix="/api", tags=["care"])
KEPT = ("id", "on", "what", "why", "look_again_on")


class DecisionIn(Model):
    """What was decided, doing nothing included; empty day: no job to look again."""

    on: date
    what: str = Field(max_length=120)
    why: str = Field(default="", max_length=300)
    look_again_on: date | None = None


class DecisionOut(DecisionIn):
    """A decision kept. ``caution``: what is mistaken in its words, empty: nothing that is known."""

    id: int
    caution: str = ""


class DecisionsPage(Model):
    """Decisions at a pot, the newest first; the day by which its kind has answered a change, and how soon it may.

    [d]
    """

    decisions: list[DecisionOut]
    look_again_on: date
    salt_days: tuple[int, int]
    hunger_days: tuple[int, int]
    first_sign: str


@router.get("/pots/{pot_id}/decisions")
def decisions(pot_id: int, session: ReadSession, today: Today) -> DecisionsPage:
    """What was decided here, and when a change made today can be judged."""
    lag = one_pot(session, pot_id, today).profile.lag_days
    return DecisionsPage(
        decisions=[
            DecisionOut(caution=caution_of(d.what, d.why), **{k: getattr(d, k) for k in KEPT})
            for d in reversed(decisions_of(session, pot_id))
        ],
        look_again_on=look_again_on(today, lag.overfeeding),
        salt_days=lag.overfeeding,
        hunger_days=lag.underfeeding,
        first_sign=lag.first_sign,
    )


@router.post("/pots/{pot_id}/decisions", status_code=201)
def decide(pot_id: int, body: DecisionIn, writer: OneWrite, today: Today) -> Stored:
    """Keep a decision; the day to look again becomes a job of the round."""
    require_not_future(body.on, today, "Date", pointer="/on")
    what = body.what.strip()
    if not what:
        raise Underspecified(
            "What was decided is empty. Say it in a few words; doing nothing is a decision too.", pointer="/what"
        )
    if what == SKIPPED:
        raise InputError("A skipped watering is kept by the walk. Say what else was decided.", pointer="/what")
    if body.look_again_on is not None and body.look_again_on <= body.on:
        raise InputError(
            f"Looking again on {body.look_again_on} is not after the decision. Choose a later day.",
            pointer="/look_again_on",
        )

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        return keep_row(
            session,
            models.Decision(
                pot_id=pot_id, on=body.on, what=what, why=body.why.strip(), look_again_on=body.look_again_on
            ),
        )

    return Stored(**writer.once(body, write))


class TreatedIn(Model):
    """Leaves treated with something; ``days`` its label asks to wait before anything else is sprayed. [d]"""

    on: date
    days: Typed = 2
    note: str = Field(default="", max_length=200)


@router.post("/pots/{pot_id}/treated", status_code=201)
def treated(pot_id: int, body: TreatedIn, writer: OneWrite, today: Today) -> Stored:
    """Log a leaf treatment: no leaf spray until the days of its label are over."""
    require_not_future(body.on, today, "Date", pointer="/on")
    days = round(require(body.days, "Days to wait", "d", low=0, high=120, pointer="/days"))

    def write(session: Session) -> dict[str, Any]:
        one_pot(session, pot_id, today)
        return keep_row(
            session, models.Event(pot_id=pot_id, on=body.on, kind=TREATED, days=days, note=body.note.strip())
        )

    return Stored(**writer.once(body, write))
