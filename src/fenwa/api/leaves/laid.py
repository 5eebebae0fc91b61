"""Lines of leaves over each other by a shared start."""

from __future__ import annotations

from datetime import date, timedelta

from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.core.care.season import days_from_shortest
from fenwa.core.leaf.laid import LaidBy, LeavesAtAge, SharedLine, aged, leaves_at_age, season_starts
from fenwa.core.leaf.sizes import SeenLeaf, finished_mm, usual_length
from fenwa.core.working import Computed
from fenwa.store.collection import pots_today
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.pot_today import PotToday

router = Ways(prefix="/api", tags=["leaves"])


class LaidGroup(Model):
    """Lines that share a start, with what they had at one age. None: fewer than two can be held together."""

    title: str
    lines: list[SharedLine]
    at_age: Computed[LeavesAtAge] | None


class LaidPage(Model):
    """Groups of lines laid over each other."""

    by: LaidBy
    groups: list[LaidGroup]


def _opened(leaves: list[SeenLeaf], today: date) -> list[tuple[date, float | None]]:
    usual = usual_length(leaves, today)
    out = []
    for x in leaves:
        mm = finished_mm(x)
        out.append((x.opened_on, mm / usual if mm is not None and usual else None))
    return out


def _groups(
    pots: list[PotToday], leaves: dict[int, list[SeenLeaf]], by: LaidBy, today: date
) -> dict[str, list[SharedLine]]:
    out: dict[str, list[SharedLine]] = {}
    for p in pots:
        mine = _opened(leaves.get(p.plant.id, []), today)
        if by == "season":
            start, earlier = season_starts(today, days_from_shortest(today, p.day.place.hemisphere))
            if any(earlier <= on < start for on, _ in mine):
                out[f"{p.pot.code} {p.name}"] = [
                    aged(mine, start, today, "this season"),
                    aged(mine, earlier, start - timedelta(days=1), "last season"),
                ]
        elif by == "arrival" and p.plant.arrived_on is not None:
            line = aged(mine, p.plant.arrived_on, today, f"{p.pot.code} {p.name}")
            out.setdefault("Arrivals", []).append(line)
        elif by == "twins" and mine:
            key = f"family of {p.plant.parent_plant_id}" if p.plant.parent_plant_id else p.profile.short
            out.setdefault(key, []).append(aged(mine, mine[0][0], today, f"{p.pot.code} {p.name}"))
    return out


@router.get("/leaves/laid")
def laid(session: ReadSession, today: Today, by: LaidBy = "twins") -> LaidPage:
    """Arrivals from the day they came, twins and divisions from their first leaf, two seasons of a plant."""
    return _laid(session, today, by)


def _laid(session: Session, today: date, by: LaidBy) -> LaidPage:
    pots = pots_today(session, today)
    leaves = leaves_of(session, [p.plant.id for p in pots], today)
    return LaidPage(
        by=by,
        groups=[
            LaidGroup(title=title, lines=lines[:60], at_age=leaves_at_age(lines=lines[:60]) if len(lines) > 1 else None)
            for title, lines in _groups(pots, leaves, by, today).items()
            if len(lines) > 1
        ],
    )
