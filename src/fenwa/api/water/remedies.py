"""What to do about a water: remedies for a plant, and what a source will ask for."""

from __future__ import annotations

from fenwa.api.model import Model
from fenwa.api.transactions import ReadSession, Today, get_row
from fenwa.api.ways import Ways
from fenwa.core.care.day import needs_of
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.errors import Underspecified
from fenwa.core.library.profile import Profile
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.remedy import Remedy, cheapest_remedy
from fenwa.core.water.watch import WaterWatch, water_watch
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.care_state import profile_in_force
from fenwa.store.collection import pots_today
from fenwa.store.water_rows import past_readings
from fenwa.store.water_state import WaterToday, waters_today

router = Ways(prefix="/api", tags=["water"])


class RemedyOut(Model):
    """What to do about a water for one group."""

    profile_id: str
    remedy: Remedy


@router.get("/waters/{water_id}/watch")
def watch_working(water_id: int, session: ReadSession, today: Today) -> Computed[WaterWatch]:
    """Re-test day and rise of a source, with the working."""
    w = get_row(session, models.Water, water_id, "Water")
    past = past_readings(session, water_id, today)
    return water_watch(kind=w.kind, readings=past, today=today, collected_on=w.collected_on)  # type: ignore[arg-type]


def _remedy(waters: list[WaterToday], water_id: int, profile: Profile) -> Computed[Remedy] | None:
    own = next((c for w in waters if w.water.id == water_id and (c := w.candidate()) is not None), None)
    others = [c for w in waters if w.water.id != water_id and (c := w.candidate()) is not None]
    return None if own is None else cheapest_remedy(source=own, plant=needs_of(profile), others=others)


@router.get("/waters/{water_id}/remedies")
def remedies(water_id: int, session: ReadSession, today: Today) -> list[RemedyOut]:
    """For each group present: the cheapest way to make this water fit, or another that is."""
    waters = waters_today(session, today)
    groups = sorted({p.profile.id for p in pots_today(session, today)})
    found = [(g, _remedy(waters, water_id, profile_in_force(session, g))) for g in groups]
    return [RemedyOut(profile_id=g, remedy=r.result) for g, r in found if r is not None]


@router.get("/waters/{water_id}/remedies/{profile_id}")
def remedy_working(water_id: int, profile_id: str, session: ReadSession, today: Today) -> Computed[Remedy]:
    """One remedy with its working."""
    found = _remedy(waters_today(session, today), water_id, profile_in_force(session, profile_id))
    if found is None:
        raise Underspecified("This water has no usable reading yet. Enter one first.")
    return found


class KindOut(Model):
    """A kind of source as the forms offer it."""

    value: WaterKind
    label: str
    note: str
    runs: bool


@router.get("/water-kinds")
def kinds() -> list[KindOut]:
    """Kinds of source water, with what they ask."""
    return [KindOut(value=k.id, label=k.label, note=k.note, runs=k.runs) for k in water_kinds().values()]
