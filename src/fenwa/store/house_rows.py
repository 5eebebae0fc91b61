"""Rows of the house: places and what changed there, rules, people, saucers to empty, probes, settings."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.store.models import Event, Person, Place, Pot, Probe, Setting, StandingRule, Timer


def open_places(session: Session) -> Sequence[Place]:
    """Places in the order they were made."""
    return session.scalars(select(Place).where(Place.archived_at.is_(None)).order_by(Place.id)).all()


def place_named(session: Session, name: str) -> Place | None:
    """The place of that name."""
    return session.scalars(select(Place).where(Place.name == name)).first()


def places_without_latitude(session: Session, hemisphere: str) -> Sequence[Place]:
    """Places that go by a chosen hemisphere."""
    follow = select(Place).where(Place.latitude_deg.is_(None), Place.hemisphere == hemisphere)
    return session.scalars(follow).all()


def changes_of_place(session: Session, place_id: int, today: date) -> Sequence[Event]:
    """What changed at a place up to a day, the newest first."""
    rows = select(Event).where(Event.place_id == place_id, Event.archived_at.is_(None), Event.on <= today)
    return session.scalars(rows.order_by(Event.on.desc(), Event.id.desc())).all()


def standing_rules(session: Session, scope: str | None = None, key: str = "") -> Sequence[StandingRule]:
    """Rules in force; those of one kind, group or place if named."""
    rows = select(StandingRule).where(StandingRule.archived_at.is_(None)).order_by(StandingRule.id)
    if scope is not None:
        rows = rows.where(StandingRule.scope == scope, StandingRule.key == key)
    return session.scalars(rows).all()


def people(session: Session) -> Sequence[Person]:
    """Who pours, by name."""
    return session.scalars(select(Person).where(Person.archived_at.is_(None)).order_by(Person.name)).all()


def person_named(session: Session, name: str) -> Person | None:
    """The person of that name."""
    return session.scalars(select(Person).where(Person.name == name, Person.archived_at.is_(None))).first()


def running_timers(session: Session, since: datetime) -> list[tuple[Timer, str]]:
    """Saucers to empty, started since a moment, each with the code of its pot."""
    rows = session.execute(
        select(Timer, Pot.code)
        .join(Pot, Pot.id == Timer.pot_id)
        .where(Timer.archived_at.is_(None), Timer.done_at.is_(None), Timer.started_at >= since)
    )
    return [(t, code) for t, code in rows]


def open_probes(session: Session) -> Sequence[Probe]:
    """Probes kept, by name."""
    return session.scalars(select(Probe).where(Probe.archived_at.is_(None)).order_by(Probe.name)).all()


def probe_named(session: Session, name: str) -> Probe | None:
    """The probe of that name."""
    return session.scalars(select(Probe).where(Probe.name == name, Probe.archived_at.is_(None))).first()


def stored_settings(session: Session) -> Sequence[Setting]:
    """Choices as stored, by key."""
    return session.scalars(select(Setting).order_by(Setting.key)).all()
