"""What a look asks: of one plant, and of the plants to look at first."""

from __future__ import annotations

from datetime import date

from sqlalchemy.orm import Session

from fenwa.api.leaves.look_shapes import MarkSeen, OrganSeen
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import ReadSession, Today
from fenwa.api.ways import Ways
from fenwa.core.entry import require
from fenwa.core.leaf.asked import (
    SURFACES,
    MarkChoice,
    Zone,
    at_same_age,
    likely_finished,
    longest_unseen,
    mark_choices,
    offered,
    organs_asked,
    zones,
)
from fenwa.core.leaf.organs import ORGANS, Figure, Organ
from fenwa.core.leaf.sizes import usual_length
from fenwa.core.library.loader import get_profile
from fenwa.store.collection import pots_today
from fenwa.store.leaf_rows import leaves_of
from fenwa.store.look_rows import as_before, last_look, leaf_rows
from fenwa.store.memory import remembered
from fenwa.store.photo_rows import newest_photo
from fenwa.store.pot_rows import plants_with
from fenwa.store.pot_today import PotToday

router = Ways(prefix="/api", tags=["leaves"])

MOST_AT_ONCE = 60  # looks a page or a phone takes along


class FigureAsked(Model):
    """A figure of an organ, as a form asks it."""

    figure: Figure
    label: str
    unit: str


class OrganAsked(Model):
    """An organ the kind shows, with what was told of it last. None: not looked for then."""

    organ: Organ
    label: str
    figures: list[FigureAsked]
    words: dict[str, list[str]]
    last: OrganSeen | None


class LeafOffered(Model):
    """A leaf a look may measure or mark. None: not measured. [mm]"""

    id: int
    number: int
    opened_on: date
    mm: float | None
    growing: bool
    lost: bool


class PlantChoice(Model):
    """A plant of the pot, as a look names it."""

    id: int
    label: str


class LookAsked(Model):
    """All a look needs: the plant, the look before, its leaves, what its kind shows. [mm]

    ``ghost_mm``: how long the leaf before was at the newest one's age, ``new_ghost_mm``: how long the newest was when
    it opened; ``photo_id``: the last photo.
    """

    pot_id: int
    plant_id: int
    plants: list[PlantChoice]
    code: str
    name: str
    kind: str
    today: date
    last_on: date | None
    leaves_count: int | None
    marks: list[MarkSeen]
    leaves: list[LeafOffered]
    newest_is_finished: bool | None
    usual_mm: float | None
    ghost_number: int | None
    ghost_mm: float | None
    new_ghost_mm: float | None
    organs: list[OrganAsked]
    mark_choices: list[MarkChoice]
    zones: list[Zone]
    surfaces: list[str]
    photo_id: int | None


@router.get("/pots/{pot_id}/look-asked")
def look_asked(pot_id: int, session: ReadSession, today: Today, plant_id: int | None = None) -> LookAsked:
    """What a look at this plant asks, with what was seen last beside it."""
    p = one_pot(session, pot_id, today)
    seen = p.plant.id if plant_id is None else plant_id
    plants_with(session, pot_id, seen)
    return asked_of(session, p, seen, today)


def asked_of(session: Session, p: PotToday, plant_id: int, today: date) -> LookAsked:
    """What a look at one plant asks."""
    rows = {x.id: x for x in leaf_rows(session, plant_id)}
    found_leaves = leaves_of(session, [plant_id], today).get(plant_id, [])
    lengths = {x.id: x for x in found_leaves}
    last = last_look(session, plant_id, today)
    before = as_before(session, last) if last else None
    usual = usual_length(found_leaves, today)
    numbers = {x.number or i: x.id for i, x in enumerate(rows.values(), 1)}
    leaves = []
    for number in offered([n for n, i in numbers.items() if rows[i].lost_on is None]):
        row, found = rows[numbers[number]], lengths.get(numbers[number])
        newest = max(found.lengths, key=lambda x: x.on, default=None) if found else None
        done = likely_finished(found, usual) if found else None
        leaves.append(
            LeafOffered(
                id=row.id,
                number=number,
                opened_on=row.opened_on,
                mm=newest.mm if newest else None,
                growing=done is False,
                lost=row.lost_on is not None,
            )
        )
    first = leaves[0] if leaves else None
    ghost = None
    if len(leaves) > 1 and first is not None and leaves[1].id in lengths:
        ghost = at_same_age(lengths[leaves[1].id], (today - first.opened_on).days)
    opened = at_same_age(lengths[first.id], 0) if first is not None and first.id in lengths else None
    photo = newest_photo(session, plant_id, today)
    by_organ = {o.organ: o for o in before.organs} if before else {}
    return LookAsked(
        pot_id=p.pot.id,
        plant_id=plant_id,
        plants=[PlantChoice(id=x.id, label=x.label or get_profile(x.profile_id).short) for x in p.plants],
        code=p.pot.code,
        name=p.name,
        kind=p.profile.short,
        today=today,
        last_on=last.on if last else None,
        leaves_count=last.leaves_count if last else None,
        marks=[
            MarkSeen(
                kind=m.kind,
                leaf_id=numbers.get(m.leaf) if m.leaf else None,
                place=m.place,
                texture=m.texture,
                mm=m.mm,
                old=m.old,
                cause=m.cause,
            )
            for m in (before.marks if before else ())
        ],
        leaves=leaves,
        newest_is_finished=likely_finished(lengths[first.id], usual) if first and first.id in lengths else None,
        usual_mm=usual,
        ghost_number=leaves[1].number if ghost else None,
        ghost_mm=ghost.mm if ghost else None,
        new_ghost_mm=opened.mm if opened else None,
        organs=[
            OrganAsked(
                organ=o,
                label=ORGANS[o].label,
                figures=[FigureAsked(figure=f.figure, label=f.label, unit=f.unit) for f in ORGANS[o].figures],
                words={k: list(v) for k, v in ORGANS[o].words.items()},
                last=OrganSeen(**vars(by_organ[o])) if o in by_organ else None,
            )
            for o in organs_asked(p.profile.shows)
        ],
        mark_choices=mark_choices(),
        zones=zones(),
        surfaces=list(SURFACES),
        photo_id=photo.id if photo else None,
    )


class LooksAsked(Model):
    """Plants to look at, the longest unseen first; ``due``: how many of all are due."""

    today: date
    due: int
    looks: list[LookAsked]


@router.get("/looks-asked")
def looks_asked(session: ReadSession, today: Today, count: int = 20) -> LooksAsked:
    """What looks at the plants ask that went unseen longest: a walk on the phone, a table at the desk."""
    require(count, "Count", "", low=1, high=MOST_AT_ONCE, pointer="/count")
    pots = pots_today(session, today)
    order = longest_unseen([(p.look_is_due, p.log.last_look_on, p.day.kept.shelf_order) for p in pots])
    chosen = [pots[i] for i in order[:count]]

    def asked(place: int, p: PotToday) -> LookAsked:
        """Kept by its place in the list, so that no more is kept than is shown."""
        return remembered(session, f"look {place}", (today, p), lambda s: asked_of(s, p, p.plant_id, today))

    return LooksAsked(
        today=today,
        due=sum(p.look_is_due for p in pots),
        looks=[asked(i, p) for i, p in enumerate(chosen)],
    )
