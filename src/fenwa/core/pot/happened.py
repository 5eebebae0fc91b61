"""What happened to a pot, step by step, and the days on the way from which a fold can go on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from fenwa.core.pot.folded import CHUNK, Standing, wetting, worth_keeping
from fenwa.core.pot.specification import PotReading, PotSpec, WaterEvent

START_GUESSED = "What the medium held at the start is not known: the first water is taken, ±50 %."
LEFT_OUT = "Pours whose EC is not known were left out."
LAST_EC_STANDS = "A pour's EC was not measured: the last known one stands for it."
SPLIT_UNSURE = "What of the salt is nutrient and what ballast is not known for every pour: the range is wider."
START_MIN_uS_cm = 50.0


@dataclass(frozen=True)
class PotLog:
    """A pot with its pours, and what was read of it between them.

    ``since``: where its fold stood at the end of a day; events and readings are then those of later days.
    """

    pot: PotSpec
    events: Sequence[WaterEvent]
    readings: Sequence[PotReading] = ()
    since: Standing | None = None


@dataclass
class Happened:
    """Pours with the EC that stands for each, and readings, in order; of one day the pours go first.

    ``first``: the day it begins with, or goes on from. ``known_ec``: the EC known last, after each step. ``unsure``:
    whether what of the salt is ballast is not known, before the first step, after each, and at the end.
    """

    steps: list[tuple[WaterEvent, float] | PotReading]
    first: date
    cautions: list[str]
    known_ec: list[float | None]
    unsure: list[bool]
    since: Standing | None

    @property
    def before(self) -> int:
        """Steps before these."""
        return self.since.steps if self.since else 0

    def mark_after(self, k: int) -> int:
        """The chunk of steps that ends with the k-th, where a standing is worth keeping there; else 0.

        A standing is kept at the end of a day, the first one once a chunk is full, and only once the EC of a pour is
        known: until then an entry of a later day can change how the log began.
        """
        n = len(self.steps)
        if k + 1 >= n or self.known_ec[k] is None or self._on(k) == self._on(k + 1):
            return 0
        yesterday = k
        while yesterday >= 0 and self._on(yesterday) == self._on(k):
            yesterday -= 1
        mark = (self.before + k + 1) // CHUNK
        full = mark > (self.before + yesterday + 1) // CHUNK
        return mark if full and worth_keeping(mark, (self.before + n) // CHUNK) else 0

    def _on(self, k: int) -> date:
        what = self.steps[k]
        return what.on if isinstance(what, PotReading) else what[0].on


def happened(x: PotLog, today: date) -> Happened:
    """The steps of a log up to a day."""
    pours, between = wetting(x.events, today), sorted((r for r in x.readings if r.on <= today), key=lambda r: r.on)
    since = x.since
    known = since.last_ec if since else None
    last_ec = known if since else next((e.ec_uS_cm for e in pours if e.ec_uS_cm is not None), None)
    cautions = list(since.cautions) if since else [START_GUESSED] if x.pot.start_uS_cm is None else []
    splits = x.pot.u_ballast not in (None, x.pot.u)
    unsure = bool(since and since.unsure)
    first = since.on if since else min([e.on for e in pours[:1]] + [r.on for r in between[:1]], default=today)
    out = Happened([], first, cautions, [], [unsure], since)  # ``unsure`` begins with what was before the first step
    events: list[WaterEvent | PotReading] = [*pours, *between]
    for e in sorted(events, key=lambda e: e.on):
        if isinstance(e, PotReading):
            out.steps.append(e)
        else:
            unsure = unsure or (splits and e.ballast_share is None)
            known = e.ec_uS_cm if e.ec_uS_cm is not None else known
            last_ec = e.ec_uS_cm if e.ec_uS_cm is not None else last_ec
            if last_ec is None:
                cautions.append(LEFT_OUT)
                continue
            out.steps.append((e, last_ec))
        out.known_ec.append(known)
        out.unsure.append(unsure)
    out.unsure.append(unsure)
    return out


def start_of(x: PotLog, today: date) -> tuple[float, float | None]:
    """What the medium holds at the start, and its share of ballast: those of its first water. [µS/cm]"""
    pours = wetting(x.events, today)
    known = next((e.ec_uS_cm for e in pours if e.ec_uS_cm is not None), 0.0)
    start = x.pot.start_uS_cm if x.pot.start_uS_cm is not None else max(START_MIN_uS_cm, known)
    return start, pours[0].ballast_share if pours else None


def in_order(cautions: Sequence[str], unsure: bool = False) -> list[str]:
    """Each said once: what holds for the whole log first, then the rest as it came up."""
    whole = [START_GUESSED, LEFT_OUT, LAST_EC_STANDS]
    said = dict.fromkeys(cautions)
    return [c for c in whole if c in said] + [c for c in said if c not in whole] + ([SPLIT_UNSURE] if unsure else [])
