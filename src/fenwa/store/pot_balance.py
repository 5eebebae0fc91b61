"""A pot's salt balance over its log: its events, what its readings and those of its mix taught, where it stands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from sqlalchemy.orm import Session

from fenwa.core.pot.balance import root_zone_ec
from fenwa.core.pot.fold import fold_log, rest_until
from fenwa.core.pot.folded import Folded, salt
from fenwa.core.pot.learning import Pooled, learnt_spec, with_pooled
from fenwa.core.pot.specification import PotReading, PotSpec, WaterEvent, capacity_L
from fenwa.store.log_rows import as_event, readings_of
from fenwa.store.mixes import told_by_others
from fenwa.store.models import PotSummary, Pour
from fenwa.store.pot_rows import looks_until
from fenwa.store.pot_today import PotToday
from fenwa.store.salt_of_pots import BallastShares
from fenwa.store.summary import open_pours, stored_fold


@dataclass(frozen=True)
class PotBalance:
    """Events and readings up to today, the fold that rests until today, and the pot as learnt."""

    spec: PotSpec
    learnt: PotSpec
    events: list[WaterEvent]
    readings: list[PotReading]
    told: tuple[Pooled, ...]
    folded: Folded
    now: Folded

    @property
    def root_zone_uS_cm(self) -> float:
        """Mean of all water in the pot as it stands. [µS/cm]"""
        return float(salt(root_zone_ec(self.now.members.soil, self.now.state))[0, 0])

    @property
    def deficit_L(self) -> float:
        """What the pot takes up before it drains, no more than its mobile water. [L]"""
        soil, mobile = self.now.members.soil, (1 - self.learnt.medium.phi) * capacity_L(self.learnt)
        return min(mobile, max(0.0, float((soil.W_m_cc - self.now.state.W_m)[0, 0])))


def balance_of(session: Session, p: PotToday, today: date, pours: Sequence[Pour] | None = None) -> PotBalance:
    """The balance of a pot, from the stored fold where it serves."""
    pours = open_pours(session, p.pot.id) if pours is None else pours
    since = p.pot.repotted_on or date.min  # what the old mix held went with it
    shares = BallastShares(session, pours)
    events = [as_event(x, shares) for x in pours if since <= x.on <= today]
    between = readings_of(session, p.pot.id, looks_until(session, p.pot.id, today))
    readings = [r for r in between if since <= r.on <= today]
    summary = session.get_one(PotSummary, p.pot.id)
    told = told_by_others(session, {p.pot.id: summary.mix}).get(p.pot.id, ())
    folded = stored_fold(summary, p.spec, today, told)
    if folded is None:
        folded = fold_log(p.spec, events, today, readings)
        if told:
            folded.members, folded.state = with_pooled([p.spec], folded.members, folded.state, [told])
    now = rest_until(p.spec, replace(folded, points=list(folded.points), cautions=list(folded.cautions)), today)
    return PotBalance(p.spec, learnt_spec(p.spec, folded.members), events, readings, told, folded, now)
