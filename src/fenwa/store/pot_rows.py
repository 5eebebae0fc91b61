"""Rows of the collection: pots, plants with their families and growths, looks, and what happened to a pot."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from fenwa.core.care.vocabulary import DONE, LATER, SKIPPED
from fenwa.core.errors import NotFound
from fenwa.store.models import (
    Candidate,
    Correction,
    Decision,
    Event,
    Growth,
    Leaf,
    Look,
    PhaseSpan,
    Plant,
    Pot,
    ProfileCopy,
    Weight,
)


def pot_coded(session: Session, code: str, but: int | None = None) -> Pot | None:
    """The pot kept under a code, other than the one named."""
    mine = select(Pot).where(Pot.code == code, Pot.archived_at.is_(None), Pot.id != (but or 0))
    return session.scalars(mine).first()


def kept_pots(session: Session) -> Sequence[Pot]:
    """Pots kept, in walking order."""
    return session.scalars(select(Pot).where(Pot.archived_at.is_(None)).order_by(Pot.shelf_order, Pot.code)).all()


def pots_ever(session: Session) -> int:
    """How many pots there are, archived ones too."""
    return session.scalar(select(func.count(Pot.id))) or 0


def all_plants(session: Session, pot_id: int) -> Sequence[Plant]:
    """Plants of a pot, archived ones too."""
    return session.scalars(select(Plant).where(Plant.pot_id == pot_id).order_by(Plant.id)).all()


def open_candidates(session: Session) -> Sequence[Candidate]:
    """Plants judged and kept, the newest first."""
    mine = select(Candidate).where(Candidate.archived_at.is_(None)).order_by(Candidate.on.desc(), Candidate.id.desc())
    return session.scalars(mine).all()


def candidate_of(session: Session, pot_id: int) -> Candidate | None:
    """The judgement a pot was bought on."""
    mine = select(Candidate).where(Candidate.archived_at.is_(None), Candidate.pot_id == pot_id)
    return session.scalars(mine).first()


def plants_with(session: Session, pot_id: int, plant_id: int) -> Sequence[Plant]:
    """The plants that live in a pot, the one named among them; refused where it is not."""
    mine = select(Plant).where(Plant.pot_id == pot_id, Plant.archived_at.is_(None)).order_by(Plant.id)
    found = session.scalars(mine).all()
    if plant_id not in {p.id for p in found}:
        raise NotFound(f"Plant {plant_id} does not stand in this pot. Choose one of its plants.", pointer="/plant_id")
    return found


def children_of(session: Session, plant_id: int) -> Sequence[Plant]:
    """Plants that came from a plant."""
    return session.scalars(select(Plant).where(Plant.parent_plant_id == plant_id).order_by(Plant.id)).all()


def first_plant_coded(session: Session, code: str) -> Plant | None:
    """The first plant of the newest pot of a code, archived ones too."""
    return session.scalars(
        select(Plant).join(Pot, Pot.id == Plant.pot_id).where(Pot.code == code).order_by(Pot.id.desc(), Plant.id)
    ).first()


def growths_of(session: Session, plant_id: int) -> Sequence[Growth]:
    """Growths of a plant."""
    mine = select(Growth).where(Growth.plant_id == plant_id, Growth.archived_at.is_(None))
    return session.scalars(mine.order_by(Growth.id)).all()


def leading_growth(session: Session, plant_id: int) -> Growth:
    """The growth that rules a plant."""
    return session.scalars(select(Growth).where(Growth.plant_id == plant_id, Growth.leads.is_(True))).one()


def side_growth(session: Session, plant_id: int) -> Growth:
    """The growth beside the leading one that was noted last, made if there is none."""
    mine = select(Growth).where(Growth.plant_id == plant_id, Growth.leads.is_(False), Growth.archived_at.is_(None))
    found = session.scalars(mine.order_by(Growth.id.desc())).first()
    if found is None:
        found = Growth(plant_id=plant_id, name="side growth", leads=False)
        session.add(found)
        session.flush()
    return found


def let_lead(session: Session, growth: Growth) -> None:
    """From now on this growth rules its plant, and no other."""
    for other in session.scalars(select(Growth).where(Growth.plant_id == growth.plant_id)):
        other.leads = other.id == growth.id


def newest_phase(session: Session, growth_id: int) -> str | None:
    """The phase noted last for a growth."""
    return session.scalars(
        select(PhaseSpan.phase)
        .where(PhaseSpan.growth_id == growth_id, PhaseSpan.archived_at.is_(None))
        .order_by(PhaseSpan.since.desc(), PhaseSpan.id.desc())
        .limit(1)
    ).first()


def newest_leaf(session: Session, growth_id: int) -> Leaf | None:
    """The leaf noted last of a growth; one that was undone or lost is not measured again."""
    mine = select(Leaf).where(Leaf.growth_id == growth_id, Leaf.archived_at.is_(None), Leaf.lost_on.is_(None))
    return session.scalars(mine.order_by(Leaf.id.desc())).first()


def pots_kept(session: Session) -> int:
    """How many pots are kept."""
    return session.scalar(select(func.count()).select_from(Pot).where(Pot.archived_at.is_(None))) or 0


def looks_until(session: Session, pot_id: int, today: date) -> Sequence[Look]:
    """Looks at a pot up to a day, oldest first."""
    mine = select(Look).where(Look.pot_id == pot_id, Look.archived_at.is_(None), Look.on <= today)
    return session.scalars(mine.order_by(Look.on, Look.id)).all()


def weights_until(session: Session, pot_id: int, today: date) -> list[Weight]:
    """Weights of a pot up to a day, oldest first."""
    mine = select(Weight).where(Weight.pot_id == pot_id, Weight.archived_at.is_(None), Weight.on <= today)
    return list(session.scalars(mine.order_by(Weight.on, Weight.id)))


def newest_weight(session: Session, pot_id: int, kind: str) -> float | None:
    """What a pot weighed last in a state: drained, dry. [g]"""
    mine = select(Weight.grams).where(Weight.pot_id == pot_id, Weight.kind == kind, Weight.archived_at.is_(None))
    return session.scalars(mine.order_by(Weight.on.desc(), Weight.id.desc()).limit(1)).first()


def corrected_pours(session: Session, pour_ids: Sequence[int]) -> set[int]:
    """Which of these pours were corrected."""
    found = select(Correction.row_id).where(Correction.table_name == "pour", Correction.row_id.in_(pour_ids))
    return set(session.scalars(found))


def happened(session: Session, pot: Pot, today: date) -> Sequence[Event]:
    """What happened to a pot and at its place up to a day, oldest first; jobs done or put off are none."""
    rows = select(Event).where(
        (Event.pot_id == pot.id) | (Event.place_id == pot.place_id),
        Event.archived_at.is_(None),
        Event.on <= today,
        Event.kind.not_in((DONE, LATER)),
    )
    return session.scalars(rows.order_by(Event.on, Event.id)).all()


def decisions_of(session: Session, pot_id: int) -> Sequence[Decision]:
    """What was decided at a pot, oldest first; waterings skipped are none."""
    mine = select(Decision).where(Decision.pot_id == pot_id, Decision.archived_at.is_(None), Decision.what != SKIPPED)
    return session.scalars(mine.order_by(Decision.on, Decision.id)).all()


def kinds_with_own_figures(session: Session) -> set[str]:
    """Kinds a grower wrote own figures for."""
    return set(session.scalars(select(ProfileCopy.profile_id).where(ProfileCopy.archived_at.is_(None))))
