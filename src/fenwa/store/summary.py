"""A pot's log folded into one row at each write, so that pages over many pots stay fast."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

import fenwa
from fenwa.core.care.log import CRUST, LoggedLook, LoggedPhase, LoggedPour, facts_of_log
from fenwa.core.care.usual import start_of_medium_uS_cm
from fenwa.core.library.loader import get_medium, get_profile, habits
from fenwa.core.library.profile import Profile
from fenwa.core.mix.ballast import can_ballast_share
from fenwa.core.mix.label import label_from
from fenwa.core.pot.fold import fold_log, rows_of, state_of
from fenwa.core.pot.folded import Folded, Observation, Point
from fenwa.core.pot.learning import Pooled, knowledge, with_pooled
from fenwa.core.pot.mixture import Part, mixed
from fenwa.core.pot.release import PrillSalt
from fenwa.core.pot.salts import water_ballast_share
from fenwa.core.pot.specification import LEARNT, Medium, PotReading, PotSpec, WaterEvent, loss_in_place
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import SHAPES
from fenwa.store.flush_state import as_reading, felt_between, mix_of, partial_flushes, pots_of_mix, readings_between
from fenwa.store.models import Batch, Growth, Look, PhaseSpan, Plant, Pot, PotSummary, Pour, RecipeVersion, Water
from fenwa.store.pot_today import facts_as_plain
from fenwa.store.prill_rows import prills_given

CORE_VERSION = f"{fenwa.__version__}/10"  # raise the last figure when a default of the balance changes


def pot_spec(pot: Pot, profile: Profile, phase: str = "active", prills: tuple[PrillSalt, ...] = ()) -> PotSpec:
    """The pot as the salt balance needs it: medium row, habit of the group, prills in it."""
    habit = habits()["rest_or_dim" if phase in ("rest", "dormant") else profile.habit]
    return PotSpec(
        pot.volume_L,
        medium_of(pot),
        habit.u,
        loss_in_place(habit.loss_per_day, pot.drainage),  # type: ignore[arg-type]  # checked when the pot is stored
        pot.drainage,  # type: ignore[arg-type]
        pot.tray_L,
        start_of_medium_uS_cm(pot.medium_charged),
        habit.u_ballast,
        prills,
    )


def medium_of(pot: Pot) -> Medium:
    """The pot's medium: one of the table, or a mixture of its parts."""
    if pot.medium_parts:
        return mixed([Part(get_medium(row["medium_id"]).medium(), row["parts"]) for row in pot.medium_parts])
    return get_medium(pot.medium_id).medium()


def open_pours(session: Session, pot_id: int) -> list[Pour]:
    """Pours of a pot that are not archived, oldest first."""
    return list(
        session.scalars(
            select(Pour).where(Pour.pot_id == pot_id, Pour.archived_at.is_(None)).order_by(Pour.on, Pour.id)
        )
    )


def as_event(p: Pour, shares: BallastShares) -> WaterEvent:
    """One stored pour as the core reads it."""
    r = p.runoff if p.runoff is not None and p.runoff.archived_at is None else None
    return WaterEvent(
        p.on,
        p.volume_L,
        p.ec_uS_cm,
        p.route,  # type: ignore[arg-type]  # checked when it was stored
        r.volume_L if r else None,
        r.ec_uS_cm if r else None,
        r.method if r else "runoff",  # type: ignore[arg-type]
        shares.of(p),
        (p.soaked_min or 0.0) / 60,
        bool(r and r.left_out),
        p.job == "flush",
    )


class BallastShares:
    """What of a pour's salt is ballast, by the ions of its water and its feed; None where nobody can know."""

    def __init__(self, session: Session, pours: Sequence[Pour]) -> None:
        """Read the waters and cans of these pours."""
        self._waters = {w.id: w for w in session.scalars(select(Water))}
        cans = {p.batch_id for p in pours if p.batch_id is not None}
        found = select(Batch, RecipeVersion.label).outerjoin(RecipeVersion, RecipeVersion.id == Batch.recipe_version_id)
        self._cans = {b.id: self._can(b, label) for b, label in session.execute(found.where(Batch.id.in_(cans)))}

    def of(self, p: Pour) -> float | None:
        """The share of one pour."""
        if p.batch_id is not None:
            return self._cans.get(p.batch_id)
        return self._water(p.water_id)

    def _water(self, water_id: int | None) -> float | None:
        row = self._waters.get(water_id or 0)
        if row is None:
            return None
        return water_ballast_share(WaterIons(**row.ions) if row.ions else SHAPES[row.kind])

    def _can(self, b: Batch, label: dict[str, Any] | None) -> float | None:
        parts = [(label_from(row["label"]), row["dose_g_L"]) for row in b.also]
        if label is not None and b.dose_g_L > 0:
            parts.append((label_from(label), b.dose_g_L))
        return can_ballast_share(self._water(b.water_id), b.water_ec_uS_cm, parts, b.predicted_uS_cm)


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


def refresh(session: Session, pot_id: int) -> None:
    """Fold the pot's log and store where it leaves it."""
    session.flush()
    touch(session, pot_id)
    pot = session.get_one(Pot, pot_id)
    plant = current_plants(session, pot_id)[0]
    pours = open_pours(session, pot_id)
    looks = list(
        session.scalars(
            select(Look).where(Look.pot_id == pot_id, Look.archived_at.is_(None)).order_by(Look.on, Look.id)
        )
    )
    side = set(session.scalars(select(Growth.id).join(Plant).where(Plant.pot_id == pot_id, Growth.leads.is_(False))))
    spans = phases(session, plant.id)
    profile = get_profile(plant.profile_id)
    prills = tuple(x.salt for x in prills_given(session, None, {pot_id}).get(pot_id, []) if x.salt is not None)
    spec = pot_spec(pot, profile, spans[-1].phase if spans else "active", prills)
    shares = BallastShares(session, pours)
    mix_since = pot.repotted_on or date.min  # what the old mix held went with it
    between = [r for r in readings_of(session, pot_id, looks) if r.on >= mix_since]
    folded = fold_log(spec, [as_event(p, shares) for p in pours if p.on >= mix_since], date.max, between)
    last = next((o for o in reversed(folded.observations) if o.taught), None)
    partial = partial_flushes(session, pot_id)
    facts = facts_of_log(
        [
            LoggedPour(
                p.on,
                "plain" if p.flush_id in partial else p.job,
                p.route,
                p.volume_L if p.flush_id is None else None,
                p.ec_uS_cm,
                p.plant_id is not None,
            )
            for p in pours
        ],
        [as_logged(x, x.growth_id not in side and x.plant_id == plant.id) for x in looks],
        [LoggedPhase(s.phase, s.since) for s in spans],  # type: ignore[arg-type]  # checked when it was stored
        (last.on, last.equivalent_reading) if last else None,
    )
    data: dict[str, Any] = {
        "as_of": folded.as_of.isoformat() if folded.begun else None,
        "state": rows_of(folded.members, folded.state),
        "facts": facts_as_plain(facts),
        "mix": mix_of(pot, plant.profile_id),
        "learnt": _learnt(folded),
    }
    history = {
        "points": [[p.on.isoformat(), p.reading, p.low, p.high] for p in folded.points],
        "observations": [
            [
                o.on.isoformat(),
                o.runoff_ec,
                o.equivalent_reading,
                o.expected_runoff_ec,
                o.method,
                o.expected_low,
                o.expected_high,
                o.off_sd,
                o.taught,
            ]
            for o in folded.observations
        ],
        "cautions": folded.cautions,
        "used": folded.used,
    }
    row = session.get(PotSummary, pot_id)
    before = None if row is None else (row.data.get("mix"), row.data.get("learnt"))
    if row is None:
        session.add(PotSummary(pot_id=pot_id, core_version=CORE_VERSION, data=data, history=history))
    else:
        row.core_version, row.data, row.history = CORE_VERSION, data, history
    if before != (data["mix"], data["learnt"]):  # what it tells the others of its mix changed with it
        for mix in {m for m in (data["mix"], before[0] if before else None) if m}:
            for other in pots_of_mix(session, mix):
                touch(session, other)


def _learnt(folded: Folded) -> dict[str, list[float]] | None:
    """What its readings left known of the parameters that pots of a mix share; None: nothing was read."""
    if not any(o.taught for o in folded.observations):
        return None
    known = knowledge(folded.members.shifts[0])
    return {name: [known[name].shift, known[name].sd] for name in LEARNT}


def readings_of(session: Session, pot_id: int, looks: Sequence[Look]) -> list[PotReading]:
    """Readings between pours, the crusts that looks saw, and how wet a finger felt it."""
    seen = [PotReading(x.on, crust="clear") for x in looks if CRUST in x.marks]
    felt = [PotReading(on, moist=moist) for on, moist in felt_between(session, pot_id)]  # type: ignore[arg-type]
    return sorted([*map(as_reading, readings_between(session, pot_id)), *seen, *felt], key=lambda r: r.on)


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
    return Folded(
        members,
        state,
        date.fromisoformat(as_of) if as_of else today,
        points=[Point(date.fromisoformat(d), *rest) for d, *rest in row.history["points"]],
        observations=[Observation(date.fromisoformat(d), *rest) for d, *rest in row.history["observations"]],
        cautions=list(row.history["cautions"]),
        used=row.history["used"],
    )


def as_logged(x: Look, leads: bool = True) -> LoggedLook:
    """One stored look as the core reads it; ``leads``: it saw the leading growth."""
    return LoggedLook(
        on=x.on,
        marks=tuple(x.marks),
        marks_looked_for=x.marks_looked_for,
        new_leaf=x.new_leaf,
        new_growth=x.new_growth,
        growth_stopped=x.growth_stopped,
        spike=x.spike,
        root_cm=x.root_cm,
        roots_working=x.roots_working,
        leaves_count=x.leaves_count,
        newest_leaf_mm=x.newest_leaf_mm,
        leads=leads,
        growth_cm=x.growth_cm,
        roots_cm=tuple(x.roots_cm or ()),
    )
