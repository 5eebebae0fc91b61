"""A flush as it is shown: where it stands, what it achieved."""

from __future__ import annotations

from datetime import date, timedelta

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.typed import Moment
from fenwa.core.pot.flush_start import achieved_efficiency, after_flush
from fenwa.core.pot.live import LiveFlush, flush_session
from fenwa.core.pot.live_passes import FlushPass
from fenwa.core.pot.runoff_line import CurvePoint
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.flush_state import as_pass, passes_of
from fenwa.store.pot_balance import balance_of
from fenwa.store.pot_today import PotToday


class PassOut(Model):
    """A pass of a flush. [L, µS/cm, min]"""

    id: int
    volume_L: float
    drained_L: float | None
    runoff_uS_cm: float | None
    minute: float
    soaked_min: float
    drained_after_L: float


class FlushOut(Model):
    """A flush with its passes and where it stands. [µS/cm, L, min]"""

    id: int
    pot_id: int
    code: str
    name: str
    on: date
    started_at: Moment
    water: str
    water_uS_cm: float
    target_uS_cm: float
    stop_runoff_uS_cm: float
    round_L: float
    pause_min: float
    before_uS_cm: float | None
    after_uS_cm: float | None
    ended_as: str
    tray_emptied: bool | None
    runoff_went: str
    feed_on: date | None
    feed_sentence: str
    look_on: date | None
    passes: list[PassOut]
    last_poured_at: Moment | None
    live: Computed[LiveFlush]
    planned: list[CurvePoint]


class PastFlush(Model):
    """A flush that ended: what it achieved. None: cannot be told. [µS/cm, L]"""

    id: int
    on: date
    ended_as: str
    water: str
    passes: int
    litres: float
    before_uS_cm: float | None
    after_uS_cm: float | None
    last_runoff_uS_cm: float | None
    efficiency: float | None


class FlushesOf(Model):
    """Flushes of a pot, the newest first, and the one that runs."""

    running_id: int | None
    flushes: list[PastFlush]


def live_of(session: Session, f: models.Flush, p: PotToday, passes: list[FlushPass]) -> Computed[LiveFlush]:
    """Where a flush stands after some passes."""
    return flush_session(
        passes=passes,
        water_uS_cm=f.water_uS_cm,
        stop_runoff_uS_cm=f.stop_runoff_uS_cm,
        slope_per_L=f.slope_per_L,
        round_L=f.round_L,
        pause_min=f.pause_min,
        expected_first_uS_cm=f.first_runoff_uS_cm,
        refill_L=f.refill_L,
        pot=balance_of(session, p, f.on).learnt if p.spec.drains else None,
        root_zone_uS_cm=f.root_zone_uS_cm,
    )


def flush_out(session: Session, f: models.Flush, p: PotToday) -> FlushOut:
    """A flush with its passes, its curve and what is left."""
    rows = passes_of(session, f.id)
    passes = [as_pass(x) for x in rows]
    live = live_of(session, f, p, passes)
    planned = live_of(session, f, p, [])
    last = rows[-1] if rows else None
    after = after_flush(f.on, p.interval.days, f.ended_as not in ("", "interrupted"))
    return FlushOut(
        id=f.id,
        pot_id=f.pot_id,
        code=p.pot.code,
        name=p.name,
        on=f.on,
        started_at=f.started_at,
        water=session.get_one(models.Water, f.water_id).name,
        water_uS_cm=f.water_uS_cm,
        target_uS_cm=f.target_uS_cm,
        stop_runoff_uS_cm=f.stop_runoff_uS_cm,
        round_L=f.round_L,
        pause_min=f.pause_min,
        before_uS_cm=f.before_uS_cm,
        after_uS_cm=f.after_uS_cm,
        ended_as=f.ended_as,
        tray_emptied=f.tray_emptied,
        runoff_went=f.runoff_went,
        feed_on=f.feed_on,
        feed_sentence=after.sentence if after else "Broken off: it is still due.",
        look_on=f.look_on,
        passes=[
            PassOut(
                id=x.id,
                volume_L=x.volume_L or 0.0,
                drained_L=q.drained_L,
                runoff_uS_cm=q.runoff_uS_cm,
                minute=q.minute,
                soaked_min=q.soaked_min,
                drained_after_L=litres,
            )
            for x, q, litres in zip(rows, passes, live.result.drained_after, strict=True)
        ],
        last_poured_at=None if last is None else f.started_at + timedelta(minutes=last.minute or 0.0),
        live=live,
        planned=list(planned.result.curve),
    )


def past_flush(session: Session, f: models.Flush, p: PotToday) -> PastFlush:
    """What an ended flush achieved."""
    rows = passes_of(session, f.id)
    passes = [as_pass(x) for x in rows]
    read = [x.runoff_uS_cm for x in passes if x.runoff_uS_cm is not None]
    return PastFlush(
        id=f.id,
        on=f.on,
        ended_as=f.ended_as,
        water=session.get_one(models.Water, f.water_id).name,
        passes=len(rows),
        litres=sum(x.volume_L for x in passes),
        before_uS_cm=f.before_uS_cm,
        after_uS_cm=f.after_uS_cm,
        last_runoff_uS_cm=read[-1] if read else None,
        efficiency=achieved_efficiency(p.spec, passes, f.water_uS_cm),
    )
