"""Trials as rows: those kept, those that run, and what each pot of them is given."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.on_trial import OnTrial
from fenwa.store.answer_models import Trial


def trials_kept(session: Session) -> Sequence[Trial]:
    """Trials that are not archived, the newest first."""
    return session.scalars(select(Trial).where(Trial.archived_at.is_(None)).order_by(Trial.id.desc())).all()


def runs_on(trial: Trial, today: date) -> bool:
    """Whether a trial runs on a day."""
    return trial.started_on <= today and (trial.ended_on is None or today < trial.ended_on)


def trials_now(session: Session, today: date) -> dict[int, OnTrial]:
    """What the running trial of each pot gives it; who was left out takes no part."""
    out: dict[int, OnTrial] = {}
    for t in trials_kept(session):
        if not runs_on(t, today):
            continue
        looks = tuple(date.fromisoformat(on) for on in t.plan["looks"])
        for m in t.members:
            if not m.get("left_out"):
                now = in_phase(t, m, today)
                on = OnTrial(t.question, now["water_id"], now["feed"], now["share"], looks, phase_begins(t, today))
                out.setdefault(m["pot_id"], on)
    return out


FLUSH_WITHIN_DAYS = 4  # of a phase's first day


def phase_begins(trial: Trial, today: date) -> bool:
    """Whether a phase of one plant's trial has just begun: it begins with a flush."""
    starts = [date.fromisoformat(p["since"]) for p in trial.plan.get("phases") or []]
    return any(0 <= (today - on).days < FLUSH_WITHIN_DAYS for on in starts)


AS_BEFORE: dict[str, Any] = {"water_id": None, "feed": "as planned", "share": 1.0}


def in_phase(trial: Trial, member: dict[str, Any], today: date) -> dict[str, Any]:
    """What a member is given today: of one plant in phases, what is tried in the changed ones only."""
    phases = trial.plan.get("phases") or []
    if not phases:
        return member
    now = next((p for p in phases if p["since"] <= today.isoformat() <= p["until"]), None)
    return member if now is not None and now["changed"] else {**member, **AS_BEFORE}
