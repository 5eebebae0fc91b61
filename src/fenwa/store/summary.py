"""A pot's log folded into one row at each write, so that pages over many pots stay fast."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import astuple
from datetime import date
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from fenwa.core.care.log import PoursSoFar, facts_of_log
from fenwa.core.pot.fold import fold_logs
from fenwa.core.pot.folded import (
    Folded,
    Observation,
    Standing,
    as_line,
    day_of,
    drawn_since,
    from_line,
    rows_of,
    state_of,
    thinned,
)
from fenwa.core.pot.happened import PotLog
from fenwa.core.pot.learning import Pooled, knowledge, with_pooled
from fenwa.core.pot.specification import LEARNT, PotSpec
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.log_rows import LogRows, load_logs
from fenwa.store.mixes import mix_of, pots_of_mix
from fenwa.store.models import Growth, PhaseSpan, Plant, PotSummary, Pour
from fenwa.store.pot_today import facts_as_plain
from fenwa.store.questions import among, listed
from fenwa.store.standing_rows import clear_standings, keep_standings

AT_ONCE = 500  # pots folded in step
_SUMMARIES = select(PotSummary).where(PotSummary.pot_id.in_(among()))
EQUIVALENT, TAUGHT = 2, 8  # columns of a stored observation


def open_pours(session: Session, pot_id: int) -> list[Pour]:
    """Pours of a pot that are not archived, oldest first."""
    return list(
        session.scalars(
            select(Pour).where(Pour.pot_id == pot_id, Pour.archived_at.is_(None)).order_by(Pour.on, Pour.id)
        )
    )


def current_plants(session: Session, pot_id: int) -> list[Plant]:
    """The plants that live in a pot; the first leads."""
    mine = select(Plant).where(Plant.pot_id == pot_id, Plant.archived_at.is_(None)).order_by(Plant.id)
    return list(session.scalars(mine))


def phases(session: Session, plant_id: int) -> list[PhaseSpan]:
    """Phases of the leading growth, oldest first."""
    return list(
        session.scalars(
            select(PhaseSpan)
            .join(Growth, Growth.id == PhaseSpan.growth_id)
            .where(Growth.plant_id == plant_id, Growth.leads.is_(True), PhaseSpan.archived_at.is_(None))
            .order_by(PhaseSpan.since, PhaseSpan.id)
        )
    )


def touch(session: Session, pot_id: int) -> None:
    """Say that a pot's page data changed in this write."""
    session.info.setdefault("touched_pots", set()).add(pot_id)


def touch_all(session: Session) -> None:
    """Say that something changed that rules many pots: a place, a kind, a school."""
    session.info["touched_all"] = True


def clear_summaries(session: Session) -> None:
    """Forget where every log was left: rows came in that nobody folded."""
    session.execute(delete(PotSummary))
    clear_standings(session)


def refresh(session: Session, pot_id: int) -> None:
    """Fold the pot's log and store where it leaves it."""
    refresh_many(session, [pot_id])


def refresh_many(session: Session, pot_ids: Sequence[int]) -> None:
    """Fold the logs of these pots, each from the newest day it can go on from, and store where they leave them."""
    session.flush()
    for i in range(0, len(pot_ids), AT_ONCE):
        _refresh(session, list(dict.fromkeys(pot_ids[i : i + AT_ONCE])))


def _refresh(session: Session, pot_ids: list[int]) -> None:
    for pot_id in pot_ids:
        touch(session, pot_id)
    logs = load_logs(session, pot_ids)
    before = {r.pot_id: r for r in session.scalars(_SUMMARIES, {"ids": listed(pot_ids)})}
    whole = [x for x in logs if x.since and not _drawn_alike(before.get(x.pot.id), x)]
    if whole:
        again = {x.pot.id: x for x in load_logs(session, [x.pot.id for x in whole], whole=True)}
        logs = [again.get(x.pot.id, x) for x in logs]
    folds = fold_logs([PotLog(x.spec, x.events, x.readings, x.since) for x in logs], date.max)
    kept = list[tuple[int, str, Standing, PoursSoFar]]()
    for x, folded in zip(logs, folds, strict=True):
        *on_the_way, said = x.pours_at([*(s.on for s in folded.standings), date.max])
        kept += [(x.pot.id, x.figures, s, at) for s, at in zip(folded.standings, on_the_way, strict=True)]
        _store(session, x, folded, said, before.get(x.pot.id))
    keep_standings(session, kept, {x.pot.id: f.steps for x, f in zip(logs, folds, strict=True)})


def _drawn_alike(row: PotSummary | None, x: LogRows) -> bool:
    """Whether what was drawn up to the day it goes on from is drawn still as it was then."""
    if row is None or row.core_version != CORE_VERSION or row.data["as_of"] is None or x.since is None:
        return False
    was = drawn_since(date.fromisoformat(row.data["as_of"]))
    now = drawn_since(max([e.on for e in x.events] + [r.on for r in x.readings], default=x.since.on))
    return x.since.on >= was and now >= was


def _store(session: Session, x: LogRows, folded: Folded, said: PoursSoFar, row: PotSummary | None) -> None:
    """Where the log leaves a pot; what was drawn before the day it went on from stays as it was drawn."""
    points = [as_line(p) for p in folded.points]
    observations = [list(astuple(o)) for o in folded.observations]
    if x.since is not None and row is not None:
        until = x.since.on.isoformat()
        drawn = row.history["points"].splitlines()
        points = drawn[: bisect_right(drawn, until, key=day_of)] + points
        observations = [o for o in row.history["observations"] if o[0] <= until] + observations
    for o in observations:
        o[0] = str(o[0])
    taught = [o for o in observations if o[TAUGHT]]
    last = (date.fromisoformat(taught[-1][0]), taught[-1][EQUIVALENT]) if taught else None
    facts = facts_of_log(said, x.looks, x.spans, last)
    data: dict[str, Any] = {
        "as_of": folded.as_of.isoformat() if folded.begun else None,
        "state": rows_of(folded.members, folded.state),
        "facts": facts_as_plain(facts),
    }
    history = {
        "points": "\n".join(thinned(points, folded.as_of)),
        "observations": observations,
        "cautions": folded.cautions,
        "used": folded.used,
        "dry": [folded.dry_times, folded.dry_on.isoformat() if folded.dry_on else None],
    }
    mix, learnt = mix_of(x.pot, x.plant.profile_id), _learnt(folded) if taught else None
    told = None if row is None else (row.mix, row.learnt)
    if row is None:
        session.add(
            PotSummary(pot_id=x.pot.id, core_version=CORE_VERSION, data=data, history=history, mix=mix, learnt=learnt)
        )
    else:
        row.core_version, row.data, row.history, row.mix, row.learnt = CORE_VERSION, data, history, mix, learnt
    if told != (mix, learnt):  # what it tells the others of its mix changed with it
        session.flush()
        for m in {m for m in (mix, told[0] if told else "") if m}:
            for other in pots_of_mix(session, m):
                touch(session, other)


def _learnt(folded: Folded) -> dict[str, list[float]]:
    """What its readings left known of the parameters that pots of a mix share."""
    known = knowledge(folded.members.shifts[0])
    return {name: [known[name].shift, known[name].sd] for name in LEARNT}


def stored_fold(row: PotSummary, spec: PotSpec, today: date, told: tuple[Pooled, ...] = ()) -> Folded | None:
    """The fold as it was stored, so that a page need not run it again; None if the log goes beyond today.

    ``told``: what other pots of its mix tell of it.
    """
    as_of = row.data["as_of"]
    if as_of is not None and date.fromisoformat(as_of) > today:
        return None
    members, state = state_of([spec], [row.data["state"]])
    if told:
        members, state = with_pooled([spec], members, state, [told])
    dry_times, dry_on = row.history["dry"]
    return Folded(
        members,
        state,
        date.fromisoformat(as_of) if as_of else today,
        points=[from_line(line) for line in row.history["points"].splitlines()],
        observations=[Observation(date.fromisoformat(d), *rest) for d, *rest in row.history["observations"]],
        cautions=list(row.history["cautions"]),
        used=row.history["used"],
        dry_times=dry_times,
        dry_on=date.fromisoformat(dry_on) if dry_on else None,
    )
