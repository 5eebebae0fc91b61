"""Leaves gained and lost, how their sizes run, pieces and offsets: what counting alone would miss."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from fenwa.core.entry import require, signed
from fenwa.core.errors import InputError
from fenwa.core.leaf.sizes import LONGEST_mm
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

LossWhy = Literal["", "age", "rot", "pest", "cut", "accident"]
FLAG_LEAST = 2  # leaves fewer than before, at least, until a loss is flagged; judgement
FLAG_SHARE = 0.05  # of the leaves it had; judgement
IN_A_ROW = 3  # leaves each shorter than the one before are a trend
PALE_IN_A_ROW = 2
STEP_LEAST = 0.02  # a difference of less is the ruler's; judgement
MONTH_DAYS = 365.25 / 12
SMALL_PIECE = 3  # bulbs: fewer are small for a division, growers differ
OFFSET_SHARE = 0.4  # of its parent's height: an offset can live alone; judgement of growers
MOST = 1000


@dataclass(frozen=True)
class LeafCount:
    """Leaves gained and lost between two looks, with why they were lost."""

    on: date
    gained: int
    lost: int
    why: LossWhy = ""


@dataclass(frozen=True)
class LeafBalance:
    """Gained less lost; ``flagged``: more were lost than age explains."""

    gained: int
    lost: int
    net: int
    flagged: bool
    sentence: str


@calculation("leaf-balance", title="Leaves gained and lost", station="leaf")
def leaf_balance(*, counts: list[LeafCount], had: float | None = None, at_rest: bool = False) -> Computed[LeafBalance]:
    """Leaves gained less leaves lost over some looks, and whether that asks for a cause.

    Parameters
    ----------
    counts : list[LeafCount]
        Gained and lost by look, each 0 to 10 000, at most 1 000 looks. A leaf cut on purpose is no loss.
    had : float
        Leaves before the first of them, 0 to 10 000; empty: not counted.
    at_rest : bool
        Whether the plant rests: leaves that fall then are not flagged.

    Returns
    -------
    Computed
        The sum, and whether it is flagged.

    Raises
    ------
    OutOfRange, InputError
        If a count cannot be.

    References
    ----------
    E7.4c
    """
    if len(counts) > MOST:
        raise InputError(f"{len(counts)} looks. Give at most {MOST}.", pointer="/counts")
    for i, c in enumerate(counts):
        require(c.gained, "Leaves gained", "", low=0, high=10_000, pointer=f"/counts/{i}/gained")
        require(c.lost, "Leaves lost", "", low=0, high=10_000, pointer=f"/counts/{i}/lost")
    if had is not None:
        require(had, "Leaves before", "", low=0, high=10_000, pointer="/had")
    gained, lost = sum(c.gained for c in counts), sum(c.lost for c in counts if c.why != "cut")
    ledger = Ledger("Leaves gained and lost", "What was cut is no loss.", ("growth-analysis", "judgement"))
    ledger.take("g", "gained", gained, "", "log")
    ledger.take("l", "lost", lost, "", "log")
    ledger.take("h", "leaves before", had or 0.0, "", "log" if had is not None else "not counted")
    net = int(ledger.step("net", "g - l", "", "gained less lost"))
    limit = ledger.step("f", f"max({FLAG_LEAST}, {FLAG_SHARE} * h)", "", "flagged from so many fewer")
    flagged = not at_rest and -net >= limit
    said = f"{gained} gained, {lost} lost: net {signed(net)}."
    if flagged:
        said += " More lost than gained: look for the cause before the next feed."
    elif net < 0 and at_rest:
        said += " At rest leaves fall."
    return ledger.close(LeafBalance(gained, lost, net, flagged, said))


@dataclass(frozen=True)
class TrendLeaf:
    """A finished leaf; ``pale``: all of it is pale. None: not measured. [mm]"""

    opened_on: date
    mm: float | None = None
    pale: bool = False


Run = Literal["shorter", "longer", "neither"]


@dataclass(frozen=True)
class LeafTrend:
    """How the newest leaves run, how many a month, and what to look at before anything is changed."""

    run: Run
    in_a_row: int
    pale_in_a_row: int
    per_month: float | None
    checks: tuple[str, ...]
    feed_waits: bool
    sentence: str


@calculation("leaf-trend", title="How leaf sizes run", station="leaf")
def leaf_trend(
    *,
    leaves: list[TrendLeaf],
    since: date,
    until: date,
    crust_answered: bool = False,
    roots_answered: bool = False,
) -> Computed[LeafTrend]:
    """Whether finished leaves grow shorter or longer one after the other, and how many open in a month.

    Parameters
    ----------
    leaves : list[TrendLeaf]
        Finished leaves in any order, lengths above 0 to 10 000, at most 1 000. [mm]
    since : date
        The first day leaves were watched: the arrival, or the first look.
    until : date
        The day asked about.
    crust_answered : bool
        Whether somebody has looked for a crust since the newest leaf.
    roots_answered : bool
        Whether somebody has looked at the roots since then.

    Returns
    -------
    Computed
        The run, leaves a month, and what to look at first.

    Raises
    ------
    OutOfRange, InputError
        If a length cannot be, or the days are the wrong way round.

    Notes
    -----
    Three shorter leaves in a row are a trend. More feed is never its answer before crust and roots were looked at.

    References
    ----------
    E7.2
    """
    if len(leaves) > MOST:
        raise InputError(f"{len(leaves)} leaves. Give at most {MOST}.", pointer="/leaves")
    if until < since:
        raise InputError(
            f"{until.isoformat()} is before {since.isoformat()}. Give the later day last.", pointer="/until"
        )
    for i, x in enumerate(leaves):
        if x.mm is not None:
            require(x.mm, "Leaf", "mm", low=0, open_low=True, high=LONGEST_mm, pointer=f"/leaves/{i}/mm")
    ordered = sorted(leaves, key=lambda x: x.opened_on)
    sizes = [x.mm for x in ordered if x.mm is not None]
    run, length = _run(sizes)
    pale = 0
    for x in reversed(ordered):
        if not x.pale:
            break
        pale += 1
    ledger = Ledger("How leaf sizes run", "Finished leaves only.", ("growth-analysis", "judgement"))
    ledger.take("n", "leaves", len([x for x in ordered if since <= x.opened_on <= until]), "", "log")
    ledger.take("d", "days watched", float((until - since).days), "d", "log")
    ledger.take("m", "days in a month", MONTH_DAYS, "d", "definition")
    months = ledger.step("w", "d / m", "months", "watched")
    per_month = ledger.step("r", "n / w", "1/month", "leaves a month") if months else None
    trend = length >= IN_A_ROW
    if len(sizes) > 1:
        ledger.found("q", "newest against the one before (ln)", math.log(sizes[-1] / sizes[-2]), "", "E7.2")
    checks: list[str] = []
    waits = trend and run == "shorter" and not (crust_answered and roots_answered)
    if trend and run == "shorter":
        if not crust_answered:
            checks.append("Is there a crust at the rim or the holes?")
        if not roots_answered:
            checks.append("Do roots circle, or are they soft?")
        checks.append("Has the light fallen since?")
    if pale >= PALE_IN_A_ROW:
        checks.append("Two pale leaves in a row: less light.")
    said = (
        f"{length} leaves in a row {run} than the one before."
        if trend
        else "Sizes run neither way yet."
        if len(sizes) > 1
        else "Two finished leaves are needed."
    )
    if waits:
        said += " No more feed until crust and roots are looked at."
    if pale == 1:
        said += " One pale leaf: noted."
    return ledger.close(LeafTrend(run if trend else "neither", length, pale, per_month, tuple(checks), waits, said))


def _run(sizes: Sequence[float]) -> tuple[Run, int]:
    """Which way the newest leaves run, and how many of them do."""
    run: Run = "neither"
    count = 0
    for i in range(len(sizes) - 1, 0, -1):
        step = math.log(sizes[i] / sizes[i - 1])
        way: Run = "shorter" if step <= -STEP_LEAST else "longer" if step >= STEP_LEAST else "neither"
        if way == "neither" or (run != "neither" and way != run):
            break
        run, count = way, count + 1
    return run, count


@dataclass(frozen=True)
class Pieces:
    """Bulbs of a division and what is said of small pieces; a small piece is allowed."""

    total: int
    cautions: tuple[str, ...]
    sentence: str


@calculation("division-bulbs", title="Bulbs of a division", station="leaf")
def division_bulbs(*, pieces: list[float], had: float | None = None) -> Computed[Pieces]:
    """Bulbs of the pieces a plant was cut into, held against what it had.

    Parameters
    ----------
    pieces : list[float]
        Bulbs of each piece, 0 to 500, one to 50 pieces.
    had : float
        Bulbs before the cut, 0 to 25 000; empty: not counted.

    Returns
    -------
    Computed
        Their sum, with what growers say of small pieces.

    Raises
    ------
    OutOfRange, InputError
        If a count cannot be or is not whole, or there is no piece.

    Notes
    -----
    Schools: at least three bulbs a piece, or cut small and wait. Both are allowed.

    References
    ----------
    growers' practice
    """
    if not 1 <= len(pieces) <= 50:
        raise InputError(f"{len(pieces)} pieces. Give 1 to 50.", pointer="/pieces")
    for i, n in enumerate(pieces):
        require(n, "Bulbs of a piece", "", low=0, high=500, pointer=f"/pieces/{i}")
        if n != int(n):
            raise InputError(f"{n:g} bulbs is not a whole number. Count whole bulbs.", pointer=f"/pieces/{i}")
    if had is not None:
        require(had, "Bulbs before", "", low=0, high=25_000, pointer="/had")
    ledger = Ledger("Bulbs of a division", "Counted, nothing assumed.", ("judgement",))
    for i, n in enumerate(pieces):
        ledger.take(f"b{i}", f"piece {i + 1}", n, "", "counted")
    total = int(ledger.step("B", " + ".join(f"b{i}" for i in range(len(pieces))), "", "bulbs in all"))
    words = [
        f"A piece of {n:g} {'bulb' if n == 1 else 'bulbs'} may take years to flower. Some growers keep three or more."
        for n in pieces
        if 0 < n < SMALL_PIECE
    ]
    said = f"{' + '.join(f'{n:g}' for n in pieces)} = {total} bulbs."
    if had is not None and total != had:
        words.append(f"Before the cut it had {had:g}: {abs(total - had):g} {'fewer' if total < had else 'more'} now.")
    for w in words:
        ledger.caution(w)
    return ledger.close(Pieces(total, tuple(words), said))


@dataclass(frozen=True)
class Offset:
    """Whether an offset can be taken, and the height it needs. [cm]"""

    ready: bool
    needs_cm: float
    sentence: str


@calculation("offset-ready", title="An offset against its parent", station="leaf")
def offset_ready(*, offset_cm: float, parent_cm: float, share: float = OFFSET_SHARE) -> Computed[Offset]:
    """Whether an offset is tall enough to be cut from its parent.

    Parameters
    ----------
    offset_cm : float
        Height of the offset, 0 to 1 000. [cm]
    parent_cm : float
        Height of the parent, above 0 to 1 000. [cm]
    share : float
        Share of its parent it must have, 0.1 to 1; two fifths by default.

    Returns
    -------
    Computed
        Whether it is ready, and the height it needs. [cm]

    Raises
    ------
    OutOfRange
        If a height cannot be.

    References
    ----------
    growers' practice
    """
    require(offset_cm, "Offset", "cm", low=0, high=1000, pointer="/offset_cm")
    require(parent_cm, "Parent", "cm", low=0, open_low=True, high=1000, pointer="/parent_cm")
    require(share, "Share of the parent", "", low=0.1, high=1, pointer="/share")
    ledger = Ledger("An offset against its parent", "Two fifths of its parent, as growers do.", ("judgement",))
    ledger.take("o", "offset", offset_cm, "cm")
    ledger.take("P", "parent", parent_cm, "cm")
    ledger.take("s", "share it must have", share, "", "judgement")
    needs = ledger.step("n", "s * P", "cm", "height it needs")
    ready = offset_cm >= needs
    said = f"{offset_cm:g} cm of {needs:.0f} cm: " + ("ready to be taken." if ready else "not yet.")
    return ledger.close(Offset(ready, needs, said))
