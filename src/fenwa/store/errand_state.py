"""Jobs besides water, from the log: what pots, meters, waters and membranes will ask for."""

from __future__ import annotations

from datetime import date, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.errands import Errand, PotFacts, SetAside, ThingFacts, errands, standing
from fenwa.core.data.loader import media
from fenwa.core.water.membrane import DEFAULT_FLOOR_PCT, MembranePair, membrane_trend
from fenwa.core.water.watch import PastReading, water_watch
from fenwa.store import models
from fenwa.store.care_state import CareRows, load_care
from fenwa.store.pot_today import PotToday
from fenwa.store.session import remembered
from fenwa.store.water_state import WaterToday, calibration_of

DONE, LATER = "errand done", "errand later"
NEWEST_READINGS = 60
RINSES = ("rinse tray pot", "change reservoir")


def errands_due(
    session: Session, pots: list[PotToday], waters: list[WaterToday], today: date, until: date
) -> list[Errand]:
    """Jobs due up to a day that nobody has done or put off, the oldest first."""
    return remembered(session, "errands", (today, until), lambda: _errands_due(session, pots, waters, today, until))


def _errands_due(
    session: Session, pots: list[PotToday], waters: list[WaterToday], today: date, until: date
) -> list[Errand]:
    care = load_care(session, today)
    events = list(
        session.scalars(
            select(models.Event).where(
                models.Event.archived_at.is_(None), models.Event.kind.in_((DONE, LATER)), models.Event.on <= today
            )
        )
    )
    rinsed: dict[int, date] = {}
    for e in events:
        if e.kind == DONE and e.pot_id is not None and any(kind.replace(" ", "-") in e.note for kind in RINSES):
            rinsed[e.pot_id] = max(e.on, rinsed.get(e.pot_id, e.on))
    aside = [SetAside(e.note, None if e.kind == DONE else e.on + timedelta(days=e.days or 1)) for e in events]
    found = errands([facts_of(p, care, rinsed.get(p.pot.id)) for p in pots], _things(session, waters, today), until)
    return standing(found, aside, today)


def facts_of(p: PotToday, care: CareRows, rinsed_on: date | None) -> PotFacts:
    """A pot's dates."""
    again, prills = care.look_again.get(p.pot.id), care.prills.get(p.pot.id)
    return PotFacts(
        p.pot.id,
        p.pot.code,
        p.name,
        p.pot.drainage == "drains",
        p.pot.route,
        p.profile.flush.from_above,
        p.profile.flush.cadence_days,
        p.plant.arrived_on or p.log.kept_since,
        p.log.last_flush_on,
        p.pot.isolated,
        p.pot.isolated_since or p.plant.arrived_on,
        again.look_again_on if again else None,
        again.why if again else "",
        prills.until if prills else None,
        p.pot.medium_since,
        media()[p.pot.medium_id].life_months if p.pot.medium_id in media() else None,
        p.phase == "dormant",
        rinsed_on,
    )


def _things(session: Session, waters: list[WaterToday], today: date) -> list[ThingFacts]:
    """Meters to check, waters to read again, membranes to change."""
    out = []
    for meter in session.scalars(select(models.Meter).where(models.Meter.archived_at.is_(None))):
        checked = calibration_of(session, meter, today)
        if checked is not None:  # one never checked says so at the Water station
            on = checked.result.next_check_on
            out.append(
                ThingFacts(
                    f"meter-{meter.id}-check",
                    "meter check",
                    f"{meter.name}: check in a standard",
                    on,
                    "A pen drifts: every figure rests on it.",
                )
            )
    for w in waters:
        rows = session.execute(
            select(models.Reading.on, models.Reading.ec25_uS_cm)
            .where(
                models.Reading.water_id == w.water.id,
                models.Reading.archived_at.is_(None),
                models.Reading.on <= today,
                models.Reading.ec25_uS_cm.is_not(None),
            )
            .order_by(models.Reading.on.desc(), models.Reading.id.desc())
            .limit(NEWEST_READINGS)
        )
        past = [PastReading(on, ec) for on, ec in rows if ec is not None]
        watch = water_watch(kind=w.known.kind, readings=past, today=today, collected_on=w.water.collected_on).result
        out.append(
            ThingFacts(
                f"water-{w.water.id}-read",
                "water re-test",
                f"{w.water.name}: read it again",
                watch.retest_on,
                "Its reading has grown old for a water of its kind.",
            )
        )
        out.append(
            ThingFacts(
                f"water-{w.water.id}-membrane",
                "membrane",
                f"{w.water.name}: the membrane",
                _membrane_on(session, w.water, today),
                "It lets more through than you set as its floor: change it.",
            )
        )
    return out


def _membrane_on(session: Session, water: models.Water, today: date) -> date | None:
    rows = session.scalars(
        select(models.MembranePair)
        .where(
            models.MembranePair.water_id == water.id,
            models.MembranePair.archived_at.is_(None),
            models.MembranePair.on <= today,
        )
        .order_by(models.MembranePair.on, models.MembranePair.id)
    ).all()
    if not rows:
        return None
    floor = water.membrane_floor_pct if water.membrane_floor_pct is not None else DEFAULT_FLOOR_PCT
    pairs = [MembranePair(r.on, r.feed_uS_cm, r.permeate_uS_cm) for r in rows]
    return membrane_trend(pairs=pairs, today=today, floor_pct=floor).result.below_floor_on
