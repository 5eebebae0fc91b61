"""What the diagnosis reads of a pot's log: looks with marks and organs, leaves, runoffs, waters, air, what was felt."""

from __future__ import annotations

from datetime import date, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.vocabulary import MERGED, REPOTTED
from fenwa.core.diagnosis.log_facts import IllAir, IllFelt, IllLeaf, IllLog, IllLook, IllPour, IllWater
from fenwa.core.diagnosis.next_checks import DoneCheck
from fenwa.core.diagnosis.water_facts import water_facts
from fenwa.core.leaf.line import UNKNOWN_LEAF_DAYS
from fenwa.core.leaf.organs import SeenOrgan
from fenwa.core.leaf.sizes import finished_mm, usual_length
from fenwa.core.leaf.timing import begun_on, plastochron
from fenwa.store.answer_rows import checks_of
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.look_rows import looks_at, marks_at, organs_at
from fenwa.store.models import Climate, Event, Feel, Look, PotSummary, Pour, Water
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import waters_today

WINDOW_DAYS = 425
SOUR = "sour smell"
EQUIVALENT, TAUGHT = 2, 8  # columns of a stored observation


def ill_log(session: Session, p: PotToday, today: date) -> IllLog:
    """The log of a pot's first plant, as far as it speaks of what is wrong."""
    since = today - timedelta(days=WINDOW_DAYS)
    leaves = leaves_of(session, [p.plant.id], today).get(p.plant.id, [])
    found = plastochron([x.opened_on for x in leaves])
    gap = found[0] if found else UNKNOWN_LEAF_DAYS
    usual = usual_length(leaves, today)
    history = session.get_one(PotSummary, p.pot.id).history
    events = session.execute(
        select(Event.on, Event.kind)
        .where(Event.pot_id == p.pot.id, Event.archived_at.is_(None), Event.on <= today)
        .where(Event.kind.in_((REPOTTED, MERGED, "moved")))
        .order_by(Event.on)
    )
    return IllLog(
        today=today,
        profile=p.profile,
        phase=p.phase,
        looks=_looks(session, p, since, today),
        leaves=tuple(
            IllLeaf(
                x.number or i,
                begun_on(x.opened_on, gap),
                x.opened_on,
                mm / usual if usual and (mm := finished_mm(x)) else None,
            )
            for i, x in enumerate(leaves, 1)
        ),
        runoffs=tuple(
            (date.fromisoformat(o[0]), float(o[EQUIVALENT]))
            for o in history["observations"]
            if o[TAUGHT] and date.fromisoformat(o[0]) <= today
        ),
        waters=tuple(
            IllWater(w.water.name, *water_facts(w.known, w.ec25_uS_cm, p.profile)) for w in waters_today(session, today)
        ),
        pours=_pours(session, p, since, today),
        air=tuple(
            IllAir(on, night, humidity)
            for on, night, humidity in session.execute(
                select(Climate.on, Climate.night_C, Climate.humidity_pct)
                .where(Climate.place_id == p.pot.place_id, Climate.archived_at.is_(None))
                .where(Climate.on >= since, Climate.on <= today)
                .order_by(Climate.on, Climate.id)
            )
        ),
        felt=tuple(
            IllFelt(f.on, f.moist, None if f.heft is None else f.heft == "heavy", f.droops)
            for f in session.scalars(
                select(Feel)
                .where(Feel.pot_id == p.pot.id, Feel.archived_at.is_(None), Feel.on >= since, Feel.on <= today)
                .order_by(Feel.on, Feel.id)
            )
        ),
        moved=tuple((on, kind) for on, kind in events),
        checks=tuple(DoneCheck(c.check_id, c.on, c.finding) for c in checks_of(session, p.pot.id, since, today)),
        interval_days=p.pot.interval_days,
        repotted_on=p.pot.repotted_on,
        arrived_on=p.plant.arrived_on,
        feeds_at_root=p.feeds_at_root,
    )


def _looks(session: Session, p: PotToday, since: date, today: date) -> tuple[IllLook, ...]:
    rows = [x for x in looks_at(session, p.plant.id, today) if x.on >= since]
    marks, organs = marks_at(session, rows), organs_at(session, [x.id for x in rows])
    return tuple(_look(x, marks.get(x.id, []), organs.get(x.id, [])) for x in rows)


def _look(x: Look, marks: list, organs: list[SeenOrgan]) -> IllLook:  # type: ignore[type-arg]
    tips = next((o for o in organs if o.organ == "root tips" and o.count is not None and o.of), None)
    traps = next((o for o in organs if o.organ in ("dew", "pitchers")), None)
    dewed = None
    if traps is not None:
        amount = traps.percent if traps.organ == "dew" else traps.count
        dewed = False if traps.told == "none seen" else None if amount is None else amount > DEWED[traps.organ]
    return IllLook(
        on=x.on,
        marks=tuple(marks),
        looked_for=x.marks_looked_for,
        root_share=tips.count / tips.of if tips is not None and tips.count is not None and tips.of else None,
        roots_work=x.roots_working,
        dewed=dewed,
        pests=x.pests,
        sour=x.surface == SOUR,
    )


DEWED = {"dew": 20.0, "pitchers": 0.0}  # percent of leaves with droplets; pitchers open


def _pours(session: Session, p: PotToday, since: date, today: date) -> tuple[IllPour, ...]:
    rows = session.execute(
        select(Pour.on, Water.name, Pour.job)
        .outerjoin(Water, Water.id == Pour.water_id)
        .where(Pour.pot_id == p.pot.id, Pour.archived_at.is_(None), Pour.on >= since, Pour.on <= today)
        .order_by(Pour.on, Pour.id)
    )
    return tuple(IllPour(on, name or "", job == "feed", job == "flush") for on, name, job in rows)
