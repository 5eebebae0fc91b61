"""What a look asks of a plant: its kind's organs, the marks there are, and what stays as at the look before."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal, get_args

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.leaf.marks import BROWN, OF_PLANT, OF_POT, Mark, MarkPlace, SeenMark
from fenwa.core.leaf.organs import ORGANS, UNSURE, Organ, SeenOrgan, check_organ
from fenwa.core.leaf.sizes import DONE_GROWING, LeafLength, SeenLeaf, finished_mm
from fenwa.core.library.profile import KindOrgan

Precision = Literal["day", "week", "month"]
Surface = Literal["", "dry", "moist", "wet", "mossy", "sour smell"]
SURFACES: tuple[Surface, ...] = get_args(Surface)
MARK_WORDS: dict[Mark, str] = {
    "tip": "brown tip",
    "rim": "brown rim",
    "crisp": "crisp all over",
    "spot": "spots",
    "yellow oldest": "oldest leaf yellow",
    "yellow": "several leaves yellow",
    "yellow-green": "yellow-green all over",
    "pale": "pale all over",
    "curl": "leaves curl",
    "rubbed": "rubbed by another leaf",
    "crust": "white salt crust",
    "algae": "green algae on the medium",
    "mould": "fluffy mould",
    "limp": "limp leaves",
    "rot": "rot",
}
NUB_AGAIN_DAYS = 8  # a nub shows within a week whether it is root or spike
NUB_WORDS = "A nub: root or spike?"
TEN_TIMES = 10.0  # a length so far from the usual is a slip of the unit
OFFERED = 4  # leaves a look offers: the newest, two before it, and the oldest


@dataclass(frozen=True)
class MarkChoice:
    """A kind of mark: its words, whether it is felt for texture, and what it sits on."""

    kind: Mark
    label: str
    felt: bool
    on: Literal["leaf", "plant", "pot"]


def mark_choices() -> list[MarkChoice]:
    """Every kind of mark in the order of the vocabulary."""
    return [
        MarkChoice(k, MARK_WORDS[k], k in BROWN, "pot" if k in OF_POT else "plant" if k in OF_PLANT else "leaf")
        for k in get_args(Mark)
    ]


@dataclass(frozen=True)
class Zone:
    """A part of a leaf, and the mark that most often sits there."""

    place: MarkPlace
    label: str
    kind: Mark


def zones() -> list[Zone]:
    """Parts of a leaf from its tip down."""
    return [
        Zone("tip", "Tip", "tip"),
        Zone("rim", "Rim", "rim"),
        Zone("blade", "Blade", "spot"),
        Zone("base", "Base", "spot"),
        Zone("sheath", "Sheath", "spot"),
    ]


def shows_spike(organs: Sequence[SeenOrgan]) -> bool:
    """Whether a look saw a spike, buds or flowers."""
    return any(
        o.organ in ("spikes", "buds", "flowers") and o.told == "seen" and (o.count is None or o.count > 0)
        for o in organs
    )


def organs_asked(shows: Sequence[KindOrgan]) -> list[Organ]:
    """Organs a look asks of a kind, leaves apart; a new nub can show on any."""
    return [*(o for o in shows if o not in ("leaves", UNSURE)), UNSURE]


def offered(numbers: Sequence[int]) -> list[int]:
    """Which of a growth's leaves a look offers, newest first: the newest, two before it, and the oldest."""
    newest = sorted(numbers, reverse=True)
    return newest if len(newest) <= OFFERED else [*newest[: OFFERED - 1], newest[-1]]


def longest_unseen(plants: Sequence[tuple[bool, date | None, int]]) -> list[int]:
    """Order to look in: those due first, never looked at before all others, then the longest unseen, then by shelf.

    ``plants``: whether a look is due, the last one, the place on the shelf; answered with indices.
    """
    return sorted(range(len(plants)), key=lambda i: (not plants[i][0], plants[i][1] or date.min, plants[i][2]))


def likely_finished(leaf: SeenLeaf, usual_mm: float | None) -> bool | None:
    """Whether a leaf has probably its finished size; None: nothing tells."""
    if not leaf.lengths:
        return None
    if finished_mm(leaf) is not None:
        return True
    last = max(leaf.lengths, key=lambda x: x.on)
    return None if usual_mm is None else last.mm >= usual_mm * (1 - DONE_GROWING)


def at_same_age(before: SeenLeaf, age_days: int) -> LeafLength | None:
    """The length an earlier leaf had when it was as old: the one measured nearest to that age; None: none was."""
    by_age = [(abs((x.on - before.opened_on).days - age_days), x) for x in before.lengths]
    return min(by_age, key=lambda pair: pair[0])[1] if by_age else None


def check_length(mm: float, usual_mm: float | None, pointer: str) -> None:
    """Refuse a leaf's length that is ten times off what is usual: most likely the other unit.

    Raises
    ------
    InputError
        If it is.
    """
    if usual_mm is None:
        return
    if mm >= TEN_TIMES * usual_mm or mm * TEN_TIMES <= usual_mm:
        raise InputError(
            f"{mm:g} mm is ten times off this plant’s usual {usual_mm:.0f} mm. Check the unit: cm or mm.",
            pointer=pointer,
        )


@dataclass(frozen=True)
class LookBefore:
    """What the look before saw, as far as a new one may take it over. None: not counted."""

    on: date
    leaves_count: int | None = None
    marks: tuple[SeenMark, ...] = ()
    organs: tuple[SeenOrgan, ...] = ()


@dataclass(frozen=True)
class TakenOver:
    """What "same as last time" fills in: only what was not touched. None: it was not known then."""

    leaves_count: int | None
    marks: tuple[SeenMark, ...]
    organs: tuple[SeenOrgan, ...]


def same_as_last(
    before: LookBefore,
    on: date,
    *,
    new_leaf: bool,
    lost: int | None,
    marks_told: bool,
    organs_told: Sequence[Organ],
) -> TakenOver:
    """Counts, marks and organs as at the look before: one leaf more where one is new, fewer where some were lost.

    A mark or organ told now is not taken over; lengths never are: they are measured or they are not.
    """
    if before.on > on:
        raise InputError(
            f"The look before is of {before.on.isoformat()}, after {on.isoformat()}. Enter what you saw.", pointer="/on"
        )
    count = before.leaves_count
    if count is not None:
        count = max(0, count + int(new_leaf) - (lost or 0))
    marks = () if marks_told else tuple(replace(m, on=on) for m in before.marks)
    organs = tuple(replace(o, mm=None) for o in before.organs if o.organ not in organs_told and o.organ != UNSURE)
    return TakenOver(count, marks, organs)


def check_look(
    *,
    posture: int | None,
    hour: int | None,
    pests: int | None,
    gained: int | None,
    lost: int | None,
    organs: Sequence[SeenOrgan],
) -> None:
    """Refuse what a look cannot see.

    Raises
    ------
    OutOfRange, InputError
        If a figure cannot be, or an organ is told twice.
    """
    for value, label, most, pointer in (
        (posture, "Posture", 3, "/posture"),
        (hour, "Hour", 23, "/hour"),
        (pests, "Pests on the card", 10_000, "/pests"),
        (gained, "Leaves gained", 1000, "/gained"),
        (lost, "Leaves lost", 1000, "/lost"),
    ):
        if value is not None:
            require(value, label, "", low=0, high=most, pointer=pointer)
    seen: set[str] = set()
    for i, o in enumerate(organs):
        if o.organ in seen:
            raise InputError(
                f"{ORGANS[o.organ].label} are told twice. Tell them once a look.", pointer=f"/organs/{i}/organ"
            )
        seen.add(o.organ)
        if o.organ == "leaves":
            raise InputError("Leaves are counted in their own field. Leave this out.", pointer=f"/organs/{i}/organ")
        check_organ(o, f"/organs/{i}")
