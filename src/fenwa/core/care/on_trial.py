"""A pot under trial: its water and feed are fixed, everything else waits."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal

from fenwa.core.care.plan import FeedingPlan

TrialFeed = Literal["as planned", "none", "share"]


@dataclass(frozen=True)
class OnTrial:
    """What a running trial gives a pot. ``water_id`` None: as before; ``share``: of the label where ``feed`` says so.

    ``flush_now``: a phase has just begun, and begins with a flush; ``looks``: days to look and measure.
    """

    words: str
    water_id: int | None = None
    feed: TrialFeed = "as planned"
    share: float = 1.0
    looks: tuple[date, ...] = ()
    flush_now: bool = False


def plan_on_trial(plan: FeedingPlan, trial: OnTrial) -> FeedingPlan:
    """The plan a pot is fed by while it is under trial: its own, at the share of the label that is tried."""
    if trial.feed != "share":
        return plan
    return replace(plan, strength="fraction", value=trial.share, counted="", beyond=plan.beyond)


def trial_look_due(looks: Sequence[date], last_look: date | None) -> date | None:
    """The first day of a trial's looks that nobody has looked on or after; None: all are done."""
    return next((on for on in sorted(looks) if last_look is None or last_look < on), None)
