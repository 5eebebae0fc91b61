"""What is known of an ill plant: signs seen and looked for, findings of the log, and when leaves formed."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.data.diagnosis_tables import Cause, causes, findings, signs
from fenwa.core.entry import require
from fenwa.core.errors import InputError

MOST = 500


@dataclass(frozen=True)
class SeenSign:
    """A sign that was seen (first on a day), or looked for and not seen. What nobody looked for is left out."""

    id: str
    seen: bool
    on: date | None = None


@dataclass(frozen=True)
class Finding:
    """A finding of the log or of a check. ``since``: from when on it held, None: of its day alone."""

    id: str
    on: date
    words: str = ""
    since: date | None = None
    of_check: str = ""


@dataclass(frozen=True)
class Span:
    """Days from one to another, both inside."""

    since: date
    until: date


@dataclass(frozen=True)
class Exposure:
    """When a plant was exposed to a cause, as far as the log knows, from ``known_since`` on; no span: never since."""

    cause: str
    known_since: date
    spans: tuple[Span, ...] = ()
    words: str = ""


@dataclass(frozen=True)
class FormedLeaf:
    """A leaf by the days it formed in; ``seen_on``: when its mark was first seen, or when it was last seen clean."""

    begun_on: date
    seen_on: date
    marked: bool
    number: int | None = None
    opened_on: date | None = None


@dataclass(frozen=True)
class OwnCases:
    """The grower's own closed cases: how many were of a cause, and in how many of them a sign was seen."""

    cause: str
    closed: int
    signs: tuple[tuple[str, int], ...] = ()


def covered(spans: Iterable[Span], since: date, until: date) -> int:
    """Days from ``since`` to ``until`` that lie in any of the spans. [d]"""
    days: set[int] = set()
    for s in spans:
        first, last = max(s.since, since), min(s.until, until)
        days |= set(range(first.toordinal(), last.toordinal() + 1))
    return len(days)


def exposed_share(exposure: Exposure, cause: Cause, leaf: FormedLeaf) -> float | None:
    """Share of the days a leaf formed, until its mark could show, in which it was exposed; None: the log cannot tell.

    What began later than the cause's shortest lag before the mark was seen cannot have made it.
    """
    until = leaf.seen_on - timedelta(days=cause.lag_days[0])
    since = min(leaf.begun_on, until)
    whole = (until - since).days + 1
    known = (until - max(since, exposure.known_since)).days + 1
    if known * 2 < whole:
        return None
    return covered(exposure.spans, since, until) / whole


def check_evidence(
    seen: Sequence[SeenSign],
    found: Sequence[Finding],
    leaves: Sequence[FormedLeaf],
    exposures: Sequence[Exposure],
    own: Sequence[OwnCases],
) -> None:
    """Refuse what no log can hold.

    Raises
    ------
    InputError, OutOfRange
        If a sign, finding or cause is not known, told twice, or a span or a leaf ends before it begins.
    """
    for rows, name in ((seen, "seen"), (found, "found"), (leaves, "leaves"), (exposures, "exposures")):
        if len(rows) > MOST:
            raise InputError(f"{len(rows)} {name}. Give at most {MOST}.", pointer=f"/{name}")
    told: set[str] = set()
    for i, s in enumerate(seen):
        _known(s.id, signs(), "Sign", f"/seen/{i}/id")
        if s.id in told:
            raise InputError(f"Sign “{s.id}” is told twice. Tell it once.", pointer=f"/seen/{i}/id")
        told.add(s.id)
    for i, f in enumerate(found):
        _known(f.id, findings(), "Finding", f"/found/{i}/id")
    for i, leaf in enumerate(leaves):
        if leaf.seen_on < leaf.begun_on:
            raise InputError(
                f"A leaf seen {leaf.seen_on.isoformat()} was begun after that, {leaf.begun_on.isoformat()}.",
                pointer=f"/leaves/{i}/seen_on",
            )
    for i, e in enumerate(exposures):
        _known(e.cause, causes(), "Cause", f"/exposures/{i}/cause")
        for k, span in enumerate(e.spans):
            if span.until < span.since:
                raise InputError("A span ends before it begins. Exchange them.", pointer=f"/exposures/{i}/spans/{k}")
    for i, c in enumerate(own):
        _known(c.cause, causes(), "Cause", f"/own/{i}/cause")
        require(c.closed, "Closed cases", "", low=0, high=100_000, pointer=f"/own/{i}/closed")
        for k, (sign, n) in enumerate(c.signs):
            _known(sign, signs(), "Sign", f"/own/{i}/signs/{k}")
            require(n, "Cases with it", "", low=0, high=c.closed, pointer=f"/own/{i}/signs/{k}")


def _known(word: str, words: Iterable[str], what: str, pointer: str) -> None:
    known = list(words)
    if word not in known:
        raise InputError(f"{what} “{word}” is not known. Choose one of {', '.join(known)}.", pointer=pointer)
