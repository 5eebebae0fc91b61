"""Which plants stand under which heading of the Leaf station, and in what order."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Literal, get_args

from fenwa.core.leaf.line import Group

GroupBy = Literal["question", "kind", "place", "school"]
Shown = Literal["all", "marked", "being judged", "look today"]
QUESTIONS: tuple[str, ...] = get_args(Group)  # what asks most stands first
NOTHING_ASKED: tuple[Group, ...] = ("as usual", "at rest")


@dataclass(frozen=True)
class Looked:
    """A plant as its line leaves it. ``last_on`` None: never looked at."""

    id: int
    question: Group
    marked: bool
    last_on: date | None
    kind: str
    place: str
    school: str


def under_headings(plants: Iterable[Looked], by: GroupBy, show: Shown = "all") -> dict[str, list[int]]:
    """Plants a filter lets through under their headings.

    Parameters
    ----------
    plants : Iterable[Looked]
        Every plant kept.
    by : GroupBy
        What the headings are: the question a line asks, kind, place or school of feeding.
    show : Shown
        Which plants: all, those with a mark, those whose change is being judged, those to look at today.

    Returns
    -------
    dict
        Ids under each heading, the longest unseen first, one never looked at before all others; questions in their
        own order, other headings by the alphabet. An empty heading is left out.

    References
    ----------
    judgement
    """
    groups: dict[str, list[int]] = {}
    for plant in sorted(plants, key=lambda p: p.last_on or date.min):
        if show == "marked" and not plant.marked:
            continue
        if show in ("being judged", "look today") and plant.question != show:
            continue
        heading = {"question": plant.question, "kind": plant.kind, "place": plant.place, "school": plant.school}[by]
        groups.setdefault(heading, []).append(plant.id)
    order = (lambda key: (QUESTIONS.index(key), "")) if by == "question" else (lambda key: (0, key.casefold()))
    return {key: groups[key] for key in sorted(groups, key=order)}


def is_folded(heading: str, by: GroupBy) -> bool:
    """Whether a heading opens folded: its plants ask nothing. A place that is called so is a place."""
    return by == "question" and heading in NOTHING_ASKED
