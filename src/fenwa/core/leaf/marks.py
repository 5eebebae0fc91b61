"""Marks on leaves: which are new, which grew, and which were there when the plant came and never count."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import mean
from typing import Final, Literal, get_args

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Mark = Literal[
    "tip",
    "rim",
    "crisp",
    "spot",
    "yellow oldest",
    "yellow",
    "yellow-green",
    "pale",
    "curl",
    "rubbed",
    "crust",
    "algae",
    "mould",
    "limp",
    "rot",
]
MarkPlace = Literal["tip", "rim", "blade", "base", "sheath", "unknown"]
Texture = Literal["", "crisp", "soft", "dry scar", "water-soaked"]
MarkCause = Literal["", "rubbed", "pest", "sun", "cold", "spray", "accident"]
MarkState = Literal["baseline", "travel", "own cause", "as before", "grown", "new"]

BROWN: Final[frozenset[str]] = frozenset({"tip", "rim", "crisp", "spot"})  # how such a mark feels tells its cause
OF_POT: Final[frozenset[str]] = frozenset({"crust", "algae", "mould"})  # on the medium or the pot, not on a leaf
OF_PLANT: Final[frozenset[str]] = frozenset({"limp", "rot"})  # a condition of today: it is no scar
PLACE_TOLD: dict[str, MarkPlace] = {"tip": "tip", "rim": "rim"}  # the word of the mark says where it is
TRAVEL_DAYS = 14  # what shows so soon after arrival was made on the way; judgement
SAME_mm = 1.0  # a ruler over a mark is no finer
MOST_MARKS = 2000


@dataclass(frozen=True)
class SeenMark:
    """A mark as a look saw it. ``leaf``: its number, empty: of no leaf told; ``old``: a scar from before. [mm]"""

    kind: Mark
    on: date
    leaf: int | None = None
    place: MarkPlace = "unknown"
    texture: Texture = ""
    mm: float | None = None
    leaf_mm: float | None = None
    old: bool = False
    cause: MarkCause = ""


@dataclass(frozen=True)
class JudgedMark:
    """A mark at its last look: what it is against the first, and what is new of it. None: not measured. [mm]"""

    kind: Mark
    leaf: int | None
    place: MarkPlace
    state: MarkState
    since: date
    new_mm: float | None


@dataclass(frozen=True)
class NewMarks:
    """What counts as new damage. ``burn_points``: new brown of the marked leaves; None: no length known. [%]"""

    marks: tuple[JudgedMark, ...]
    counting: int
    burn_points: float | None
    sentence: str


def place_of(kind: str, place: MarkPlace) -> MarkPlace:
    """Where a mark is: as told, else as its word tells, else unknown."""
    return place if place != "unknown" else PLACE_TOLD.get(kind, "unknown")


def check_mark(mark: SeenMark, pointer: str) -> None:
    """Refuse what a mark cannot be.

    Raises
    ------
    OutOfRange, InputError
        If a size cannot be, or a texture, place or age is told that such a mark does not have.
    """
    if mark.mm is not None:
        require(mark.mm, "Size of the mark", "mm", low=0, high=5000, pointer=f"{pointer}/mm")
    if mark.leaf_mm is not None:
        require(
            mark.leaf_mm, "Length of its leaf", "mm", low=0, open_low=True, high=10_000, pointer=f"{pointer}/leaf_mm"
        )
    if mark.leaf is not None:
        require(mark.leaf, "Leaf", "", low=1, high=100_000, pointer=f"{pointer}/leaf")
    if mark.texture and mark.kind not in BROWN:
        raise InputError(
            f"Texture is told of a brown mark only, not of “{mark.kind}”. Leave it out.", pointer=f"{pointer}/texture"
        )
    if mark.kind in OF_POT and (mark.leaf is not None or mark.place != "unknown"):
        raise InputError(
            f"“{mark.kind}” is on the medium or the pot. Leave leaf and place out.", pointer=f"{pointer}/place"
        )
    if mark.old and mark.kind in OF_PLANT | OF_POT:
        raise InputError(
            f"“{mark.kind}” is a state of today, not an old scar. Leave “old” out.", pointer=f"{pointer}/old"
        )
    if mark.mm is not None and mark.leaf_mm is not None and mark.mm > mark.leaf_mm:
        raise InputError(
            f"A mark of {mark.mm:g} mm is longer than its leaf of {mark.leaf_mm:g} mm. Measure again.",
            pointer=f"{pointer}/mm",
        )


def counted_kinds(marks: Sequence[SeenMark]) -> tuple[Mark, ...]:
    """Kinds a look counts, in the order of the vocabulary: old scars and what rubbed are none of them."""
    seen = {m.kind for m in marks if not m.old and m.cause != "rubbed"}
    return tuple(k for k in get_args(Mark) if k in seen)


@calculation("new-marks", title="New marks", station="leaf")
def new_marks(*, marks: list[SeenMark], arrived_on: date | None = None) -> Computed[NewMarks]:
    """Which marks are new damage, and how much of the marked leaves they newly take.

    Parameters
    ----------
    marks : list[SeenMark]
        Every mark of every look, at most 2 000; sizes 0 to 5 000, leaf lengths above 0 to 10 000. [mm]
    arrived_on : date
        The day the plant came; empty: not known, or raised here.

    Returns
    -------
    Computed
        Each mark with its state, how many count, and the new brown share of the marked leaves. [%]

    Raises
    ------
    OutOfRange, InputError
        If a size cannot be, or a mark says what such a mark cannot have.

    Notes
    -----
    One leaf, kind and place are one mark. What was seen by the day of arrival, or is said to be old, is baseline;
    what shows within 14 days of arrival is travel; what has a cause of its own (rubbed, pest) is none of the feed's.

    References
    ----------
    E7.8
    """
    if len(marks) > MOST_MARKS:
        raise InputError(f"{len(marks)} marks. Give at most {MOST_MARKS}.", pointer="/marks")
    for i, m in enumerate(marks):
        check_mark(m, f"/marks/{i}")
    by_mark: dict[tuple[int | None, str, str], list[SeenMark]] = {}
    for m in sorted(marks, key=lambda m: m.on):
        by_mark.setdefault((m.leaf, m.kind, place_of(m.kind, m.place)), []).append(m)
    judged = tuple(_judged(seen, arrived_on) for seen in by_mark.values())
    counting = sum(j.state in ("new", "grown") for j in judged)
    shares = _new_shares(by_mark.values(), judged)
    ledger = Ledger("New marks", "Old marks never count.", ("growth-analysis", "judgement"))
    ledger.take("n", "marks", len(judged), "", "log")
    ledger.take("old", "of these old, from the way, or with a cause of their own", len(judged) - counting, "", "log")
    ledger.step("c", "n - old", "", "new, or grown")
    points = None
    if shares:
        ledger.found(
            "b", "new brown of the marked leaves, mean", mean(shares) / 100, "", f"{len(shares)} leaves measured"
        )
        points = ledger.step("p", "100 * b", "%", "new burn")
    said = (
        "No new mark." if counting == 0 else f"{counting} {'mark is' if counting == 1 else 'marks are'} new or grown."
    )
    if len(judged) > counting:
        said += f" {len(judged) - counting} old: not counted."
    return ledger.close(NewMarks(judged, counting, points, said))


def _judged(seen: Sequence[SeenMark], arrived_on: date | None) -> JudgedMark:
    first, last = seen[0], seen[-1]
    grew = last.mm - first.mm if first.mm is not None and last.mm is not None and last is not first else None
    grown = grew is not None and grew >= SAME_mm
    base = any(m.old for m in seen) or (arrived_on is not None and first.on <= arrived_on)
    travel = arrived_on is not None and not base and first.on <= arrived_on + timedelta(days=TRAVEL_DAYS)
    state: MarkState
    if any(m.cause for m in seen):
        state = "own cause"
    elif base or travel:
        state = "grown" if grown else "baseline" if base else "travel"
    else:
        state = "new"
    whole = state == "new"
    new = (last.mm if whole else grew if state == "grown" else 0.0) if last.mm is not None else None
    return JudgedMark(last.kind, last.leaf, place_of(last.kind, last.place), state, first.on, new)


def _new_shares(seen: Iterable[Sequence[SeenMark]], judged: Sequence[JudgedMark]) -> list[float]:
    """New brown of each marked leaf whose length and mark are known. [%]"""
    leaves: dict[int, float] = {}
    for found, j in zip(seen, judged, strict=True):
        length = next((m.leaf_mm for m in reversed(found) if m.leaf_mm is not None), None)
        if j.leaf is not None and j.kind in BROWN and length is not None and j.new_mm is not None:
            leaves[j.leaf] = leaves.get(j.leaf, 0.0) + 100 * j.new_mm / length
    return [min(100.0, x) for x in leaves.values()]


@dataclass(frozen=True)
class FirstReading:
    """What a brown mark's texture says first, and what both textures leave open."""

    first: str
    second: str


def first_reading(texture: Texture) -> FirstReading | None:
    """The two readings of a brown mark, gentlest check first; None: nobody felt it.

    Growers differ whether texture decides or the water does: both stand side by side.
    """
    both = "Fluoride or left-over salt."
    if texture == "crisp":
        return FirstReading("Too dry: look at the longest gap between waterings.", both)
    if texture in ("soft", "water-soaked"):
        return FirstReading("Too wet: feel the medium before the next watering.", both)
    return None
