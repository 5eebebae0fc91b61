"""A plant's line of leaves: each against its own usual, what the newest change may be judged by, and what is due."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from statistics import mean
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.leaf.sizes import WITHIN_PLANT_SD, LONGEST_mm, SeenLeaf, finished, finished_mm, usual_of
from fenwa.core.leaf.timing import (
    Formed,
    LeafRhythm,
    begun_on,
    formed_against,
    leaf_rhythm,
    plastochron,
    verdict_window,
)
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

Group = Literal["look today", "being judged", "as usual", "at rest"]
RESTING = ("rest", "dormant")
SLOW = ("slowing", "stressed", "establishing")
JUST_BEFORE = 2  # finished leaves before a change that those after it are held against; judgement
UNKNOWN_LEAF_DAYS = 30.0  # between leaves, where two were never dated: most kinds of the house; judgement


@dataclass(frozen=True)
class Change:
    """A dated change, in words, with the first and last day its kind answers it in growth. [d]"""

    on: date
    words: str
    lag_low_days: float
    lag_high_days: float


def flush_changes(flushed: Sequence[date], overfeeding_days: tuple[int, int]) -> list[Change]:
    """What leaves may answer: every flush, judged by the kind's window for too much salt, E7.3. [d]"""
    return [Change(on, "flush", float(overfeeding_days[0]), float(overfeeding_days[1])) for on in flushed]


@dataclass(frozen=True)
class LeafOnLine:
    """A leaf where it opened: finished length, or the newest length of a growing one; share of the plant's usual.

    ``formed`` against the newest change; None: there is none. None lengths: not measured. [mm]
    """

    opened_on: date
    mm: float | None
    growing: bool
    share: float | None
    formed: Formed | None
    weight: float


@dataclass(frozen=True)
class LeafLine:
    """A plant's line: its leaves, what is usual, the next leaf, and the word that says what it means. [mm]"""

    leaves: tuple[LeafOnLine, ...]
    usual_mm: float | None
    next_leaf: LeafRhythm
    group: Group
    change: str
    change_on: date | None
    opens_on: date | None
    closes_on: date | None
    after_percent: float | None
    word: str


@calculation("leaf-line", title="A line of leaves", station="leaf")
def leaf_line(
    *,
    leaves: list[SeenLeaf],
    changes: list[Change],
    today: date,
    phase: str = "active",
    look_due: bool = False,
) -> Computed[LeafLine]:
    """A plant's leaves against its own usual, and what they say of its newest change.

    Parameters
    ----------
    leaves : list[SeenLeaf]
        Its leaves with their lengths, above 0 to 10 000, at most 1 000. [mm]
    changes : list[Change]
        Dated changes with the lags of the kind: the newest is judged. [d]
    today : date
        The day asked on.
    phase : str
        Its phase: one that rests expects no leaf, one that hardly grows answers half as fast.
    look_due : bool
        Whether it has gone unseen too long.

    Returns
    -------
    Computed
        Each leaf as a share of usual, the next leaf, the group it belongs to, and a word. [mm]

    Raises
    ------
    OutOfRange, InputError
        If a length cannot be, a leaf opened after today, or there are too many.

    Notes
    -----
    Finished leaves formed after the change are held against the last two before it. One plant without a twin is weak
    evidence: season and light may have done it, and a plant chosen on a bad day improves by itself.

    References
    ----------
    E7.2; E7.3; section 7.2
    """
    if len(leaves) > 1000:
        raise InputError(f"{len(leaves)} leaves. Give at most 1000.", pointer="/leaves")
    for i, leaf in enumerate(leaves):
        for k, x in enumerate(leaf.lengths):
            require(x.mm, "Length", "mm", low=0, open_low=True, high=LONGEST_mm, pointer=f"/leaves/{i}/lengths/{k}/mm")
    ordered = sorted(leaves, key=lambda x: x.opened_on)
    resting = phase in RESTING
    rhythm = leaf_rhythm(opened=[x.opened_on for x in ordered], today=today, resting=resting).result
    newest = max((c for c in changes if c.on <= today), key=lambda c: c.on, default=None)
    days = plastochron([x.opened_on for x in ordered])
    gap = days[0] if days is not None else UNKNOWN_LEAF_DAYS
    rows: list[tuple[SeenLeaf, Formed | None, float]] = []
    for leaf in ordered:
        formed: Formed | None = None
        weight = 0.0
        if newest is not None:
            formed, weight = formed_against(leaf.opened_on, begun_on(leaf.opened_on, gap), newest.on)
        rows.append((leaf, formed, weight))
    whole = finished(ordered)
    before = [x for x in whole if newest is not None and x.opened_on < newest.on][-JUST_BEFORE:]
    found = usual_of(whole, today)
    usual = math.exp(found[0]) if found is not None else None
    drawn = tuple(_drawn(leaf, formed, weight, usual) for leaf, formed, weight in rows)
    ledger = Ledger("A line of leaves", "Against the plant's own usual.", ("growth-analysis", "judgement"))
    ledger.take("n", "leaves", len(ordered), "", "log")
    ledger.take("d", "days between leaves", gap, "d", "log" if days else "judgement")
    ledger.step("y", "365 / d", "1/year", "leaves in a year of growth")
    if found is not None:
        ledger.found("mu", "ln of the usual length", found[0], "", f"median of {found[2]} finished leaves")
        ledger.step("U", "exp(mu)", "mm", "usual length")
    after = [x for x in drawn if x.formed == "formed after" and x.mm is not None and not x.growing]
    percent = None
    if after and before:
        was = math.exp(mean(math.log(x.mm) for x in before))
        now = math.exp(mean(math.log(x.mm) for x in after if x.mm is not None))
        ledger.found("B", f"the last {len(before)} before the change", was, "mm", "geometric mean, finished")
        ledger.found("A", f"the {len(after)} formed after it", now, "mm", "geometric mean, finished")
        percent = ledger.step("p", "100 * (A / B - 1)", "%", "longer after")
    window = None
    if newest is not None:
        window = verdict_window(
            change_on=newest.on,
            lag_low_days=newest.lag_low_days,
            lag_high_days=newest.lag_high_days,
            today=today,
            slow=phase in SLOW,
        ).result
    judged = window is not None and newest is not None and (window.state != "over" or _answer_is_open(after, percent))
    group: Group = "as usual"
    if look_due or (rhythm.late and not resting):
        group = "look today"
    elif judged:
        group = "being judged"
    elif resting:
        group = "at rest"
    words = newest.words if newest is not None and judged else ""
    if newest is not None and window is not None and judged:
        word = _of_change(words, window.state == "too early", window.opens_on, len(after), percent)
    else:
        word = _of_newest(drawn, resting)
    return ledger.close(
        LeafLine(
            leaves=drawn,
            usual_mm=usual,
            next_leaf=rhythm,
            group=group,
            change=words,
            change_on=newest.on if newest and judged else None,
            opens_on=window.opens_on if window and judged else None,
            closes_on=window.closes_on if window and judged else None,
            after_percent=percent,
            word=word,
        )
    )


def _answer_is_open(after: Sequence[LeafOnLine], percent: float | None) -> bool:
    """Leaves answer later than roots: until the second finished leaf formed after a change it stays open."""
    return percent is not None and len(after) < 2


def _drawn(leaf: SeenLeaf, formed: Formed | None, weight: float, usual: float | None) -> LeafOnLine:
    done = finished_mm(leaf)
    last = max(leaf.lengths, key=lambda x: x.on, default=None)
    mm = done if done is not None else last.mm if last is not None else None
    share = mm / usual if mm is not None and usual else None
    return LeafOnLine(leaf.opened_on, mm, mm is not None and done is None, share, formed, weight)


def _of_change(words: str, early: bool, opens_on: date, after: int, percent: float | None) -> str:
    if percent is None:
        if early:
            return f"{words}: too early until {opens_on.isoformat()}"
        return f"{words}: no finished leaf formed after it yet"
    hint = "a hint" if after == 1 else "one plant, weak"
    if abs(math.log(1 + percent / 100)) <= WITHIN_PLANT_SD / math.sqrt(after):
        return f"as before the {words}: {hint}"
    return f"{abs(percent):.0f} % {'longer' if percent > 0 else 'shorter'} since the {words}: {hint}"


def _of_newest(drawn: Sequence[LeafOnLine], resting: bool) -> str:
    if resting:
        return "at rest"
    last = next((x for x in reversed(drawn) if x.share is not None and not x.growing), None)
    if last is None or last.share is None:
        return "no finished leaf measured yet"
    if abs(math.log(last.share)) <= WITHIN_PLANT_SD:
        return "as usual"
    percent = 100 * (last.share - 1)
    return f"newest {abs(percent):.0f} % {'longer' if percent > 0 else 'shorter'} than usual"
