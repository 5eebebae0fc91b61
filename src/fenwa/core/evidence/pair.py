"""Two plants side by side: only what differs, and whether care can be the reason."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Side = Literal["care", "plant", "place"]


@dataclass(frozen=True)
class PairFact:
    """A fact of a plant in words; ``of``: what it belongs to. Empty words: not known."""

    name: str
    of: Side
    words: str


@dataclass(frozen=True)
class PairLine:
    """A line in which the two differ."""

    name: str
    of: Side
    first: str
    second: str


@dataclass(frozen=True)
class SourceSeen:
    """What became of plants from one source."""

    name: str
    plants: int
    failed: int


@dataclass(frozen=True)
class PairSeen:
    """What differs between two plants, and what that says."""

    lines: tuple[PairLine, ...]
    alike: int
    sentence: str


def what_differs(first: Sequence[PairFact], second: Sequence[PairFact], sources: Sequence[SourceSeen] = ()) -> PairSeen:
    """Only what differs; where nothing of the care does, care alone is an unlikely reason. One pair: weak."""
    theirs = {f.name: f for f in second}
    lines, alike = [], 0
    for f in first:
        other = theirs.get(f.name)
        if other is None:
            continue
        if f.words == other.words:
            alike += bool(f.words)
            continue
        lines.append(PairLine(f.name, f.of, f.words or "not known", other.words or "not known"))
    care = [x for x in lines if x.of in ("care", "place")]
    if not lines:
        said = "Nothing that was logged differs. One pair, weak."
    elif care:
        said = f"{', '.join(x.name for x in care)} of the care differ: it may be care. One pair, weak."
    else:
        said = f"Only {', '.join(x.name for x in lines)} differ. One pair, weak; care unlikely alone."
    for s in sources:
        if s.failed:
            said += f" {s.failed} of {s.plants} from {s.name} failed."
    return PairSeen(tuple(lines), alike, said)
