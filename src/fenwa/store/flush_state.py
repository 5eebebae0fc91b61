"""Rows of what comes out: readings between pours, flushes with passes, levels."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.pot.live_passes import FlushPass
from fenwa.core.pot.reservoir import ReservoirEvent
from fenwa.core.pot.specification import PotReading
from fenwa.store.models import Flush, Level, Pour, Runoff, Water


def readings_between(session: Session, pot_id: int) -> Sequence[Runoff]:
    """Readings of a pot that hang on no pour, oldest first."""
    mine = select(Runoff).where(Runoff.pot_id == pot_id, Runoff.archived_at.is_(None))
    return session.scalars(mine.order_by(Runoff.on, Runoff.id)).all()


def as_reading(r: Runoff) -> PotReading:
    """A stored reading as the core reads it."""
    assert r.on is not None  # of one that hangs on no pour
    return PotReading(
        r.on,
        r.ec_uS_cm,
        r.method,  # type: ignore[arg-type]  # checked when it was stored
        r.crust or None,  # type: ignore[arg-type]
        left_out=r.left_out,
    )


def runoffs_of(session: Session, pot_id: int) -> Sequence[Runoff]:
    """Every reading of a pot, of its pours and between them."""
    mine = (
        select(Runoff)
        .outerjoin(Pour, Pour.id == Runoff.pour_id)
        .where(
            (Runoff.pot_id == pot_id) | ((Pour.pot_id == pot_id) & Pour.archived_at.is_(None)),
            Runoff.archived_at.is_(None),
        )
    )
    return session.scalars(mine.order_by(Runoff.id)).unique().all()


def flushes_of(session: Session, pot_id: int | None = None) -> Sequence[Flush]:
    """Flushes, of one pot or of all, the newest first."""
    mine = select(Flush).where(Flush.archived_at.is_(None))
    if pot_id is not None:
        mine = mine.where(Flush.pot_id == pot_id)
    return session.scalars(mine.order_by(Flush.on.desc(), Flush.id.desc())).all()


def running_flush(session: Session, pot_id: int) -> Flush | None:
    """The flush of a pot that was begun and not ended."""
    mine = select(Flush).where(Flush.pot_id == pot_id, Flush.archived_at.is_(None), Flush.ended_as == "")
    return session.scalars(mine.order_by(Flush.id.desc())).first()


def passes_of(session: Session, flush_id: int) -> Sequence[Pour]:
    """The passes of a flush in their order."""
    mine = select(Pour).where(Pour.flush_id == flush_id, Pour.archived_at.is_(None))
    return session.scalars(mine.order_by(Pour.minute, Pour.id)).unique().all()


def passes_ever(session: Session, flush_id: int) -> Sequence[Pour]:
    """The passes of a flush, archived ones too."""
    return session.scalars(select(Pour).where(Pour.flush_id == flush_id)).unique().all()


def as_pass(p: Pour) -> FlushPass:
    """A stored pass as the core reads it."""
    r = p.runoff if p.runoff is not None and p.runoff.archived_at is None else None
    return FlushPass(
        p.volume_L or 0.0,
        r.ec_uS_cm if r and not r.left_out else None,
        r.volume_L if r else None,
        p.minute or 0.0,
        p.soaked_min or 0.0,
        bool(r and r.read_twice),
    )


def levels_of(session: Session, pot_id: int) -> Sequence[Level]:
    """Levels of a tray or reservoir, oldest first."""
    mine = select(Level).where(Level.pot_id == pot_id, Level.archived_at.is_(None))
    return session.scalars(mine.order_by(Level.on, Level.id)).all()


def reservoir_events(session: Session, pot_id: int) -> list[ReservoirEvent]:
    """What was done at a reservoir: its pours from below, levels, changes and readings, in order."""
    pours = session.scalars(
        select(Pour)
        .where(Pour.pot_id == pot_id, Pour.archived_at.is_(None), Pour.route.in_(("reservoir", "tray")))
        .order_by(Pour.on, Pour.id)
    ).unique()
    out: list[tuple[date, int, ReservoirEvent]] = []
    emptied = [x.on for x in levels_of(session, pot_id) if x.did == "emptied"]
    filled: set[date] = set()
    first = True
    for p in pours:
        new = first or (p.on in emptied and p.on not in filled)
        filled.add(p.on)
        first = False
        did = "filled" if new else "topped up"
        out.append((p.on, 2, ReservoirEvent(p.on, did, None, p.volume_L, p.ec_uS_cm)))  # type: ignore[arg-type]
        r = p.runoff
        if r is not None and r.archived_at is None and r.method == "reservoir" and not r.left_out and r.ec_uS_cm:
            out.append((p.on, 3, ReservoirEvent(p.on, "read", reading_uS_cm=r.ec_uS_cm)))
    for x in levels_of(session, pot_id):
        did = "emptied" if x.did == "emptied" else "read"
        level = x.litres if x.did != "emptied" else None
        out.append((x.on, 0 if did == "read" else 1, ReservoirEvent(x.on, did, level)))  # type: ignore[arg-type]
    for r in readings_between(session, pot_id):
        if r.method == "reservoir" and r.ec_uS_cm and not r.left_out and r.on is not None:
            out.append((r.on, 3, ReservoirEvent(r.on, "read", reading_uS_cm=r.ec_uS_cm)))
    return [e for _, _, e in sorted(out, key=lambda row: row[:2])]


def flush_waters(session: Session) -> Sequence[Water]:
    """Waters kept."""
    return session.scalars(select(Water).where(Water.archived_at.is_(None)).order_by(Water.id)).all()


def running_flushes(session: Session) -> dict[int, int]:
    """Flushes that run, by pot."""
    mine = select(Flush.pot_id, Flush.id).where(Flush.archived_at.is_(None), Flush.ended_as == "")
    return {r.pot_id: r.id for r in session.execute(mine)}


def flush_totals(session: Session, pours: Sequence[Pour]) -> dict[int, tuple[int, float, bool]]:
    """Of every flush among these pours: its first pass, its litres, and whether it was broken off."""
    partial = {r.id for r in session.execute(select(Flush.id).where(Flush.ended_as.in_(("", "interrupted"))))}
    out: dict[int, tuple[int, float, bool]] = {}
    for p in pours:
        if p.flush_id is not None:
            first, litres, _ = out.get(p.flush_id, (p.id, 0.0, False))
            out[p.flush_id] = (first, litres + (p.volume_L or 0.0), p.flush_id in partial)
    return out
