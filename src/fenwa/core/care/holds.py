"""When the answer is "do not": each hold with its reason and what ends it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

Phase = Literal["active", "flowering", "slowing", "rest", "dormant", "establishing", "stressed"]
Blocked = Literal["water", "feed", "flush"]

ARRIVAL_DAYS = 14  # table of holds: at least 14 days and new growth seen
REPOTTED_DAYS = 14
CRUST_DAYS = 60
RUNOFF_DAYS = 28  # an older runoff says little of today: the prediction stands instead


@dataclass(frozen=True)
class Hold:
    """One reason not to act."""

    id: str
    blocks: tuple[Blocked, ...]
    reason: str
    release: str


@dataclass(frozen=True)
class Condition:
    """What is known of a pot's plant on the day. Dates None: never, or not known."""

    phase: Phase
    phase_since: date | None
    rest_kind: str
    restart: str
    arrived_on: date | None = None
    repotted_on: date | None = None
    new_leaf_since_arrival: bool = False
    crust_on: date | None = None
    flushed_on: date | None = None
    last_reading_uS_cm: float | None = None
    last_reading_on: date | None = None
    ceiling_uS_cm: float | None = None


def holds(c: Condition, today: date) -> tuple[Hold, ...]:
    """Every open hold, the strictest first. Source: table of holds, judgement and guidelines."""
    out: list[Hold] = []
    since = f" since {c.phase_since.day} {c.phase_since:%b}" if c.phase_since else ""
    if c.phase == "dormant":
        out.append(Hold("dormant", ("water", "feed", "flush"), f"Dormant{since}: kept dry, no water and no feed.",
                        f"Until {c.restart}."))  # fmt: skip
    elif c.phase == "rest":
        out.append(Hold("resting", ("feed", "flush"), f"Resting{since}: plain water, sparingly, no feed.",
                        f"Until {c.restart}."))  # fmt: skip
    if c.phase == "stressed":
        out.append(Hold("stressed", ("feed",), f"Stressed{since}: feed would burn what is left of the roots.",
                        "Until new growth shows."))  # fmt: skip
    if c.arrived_on is not None and not c.new_leaf_since_arrival:
        days = (today - c.arrived_on).days
        if days < 45:
            word = "day" if days == 1 else "days"
            out.append(Hold("just arrived", ("feed",), f"Arrived {days} {word} ago. No feed before a new leaf.",
                            f"{ARRIVAL_DAYS} days and a new leaf, or 45 days."))  # fmt: skip
        # a new leaf before day 14 does not end it either; handled below
    elif c.arrived_on is not None and (today - c.arrived_on).days < ARRIVAL_DAYS:
        out.append(Hold("just arrived", ("feed",), f"Arrived {(today - c.arrived_on).days} days ago.",
                        f"{ARRIVAL_DAYS} days after arrival."))  # fmt: skip
    if c.repotted_on is not None and (today - c.repotted_on).days < REPOTTED_DAYS:
        out.append(Hold("just repotted", ("feed",), "Cut roots and a fresh mix: no feed yet.",
                        f"{REPOTTED_DAYS} days after repotting, roots moving."))  # fmt: skip
    if c.crust_on is not None and (today - c.crust_on).days <= CRUST_DAYS:
        if c.flushed_on is None or c.flushed_on < c.crust_on:
            out.append(Hold("crust", ("feed",), "Salt crust seen: no feed on top of it.",
                            "After a flush and a runoff inside the comfortable range."))  # fmt: skip
    fresh = c.last_reading_on is not None and (today - c.last_reading_on).days <= RUNOFF_DAYS
    over = c.last_reading_uS_cm is not None and c.ceiling_uS_cm is not None and c.last_reading_uS_cm > c.ceiling_uS_cm
    if fresh and over:
        out.append(Hold("salty", ("feed",), f"Reading about {c.last_reading_uS_cm:.0f}, over {c.ceiling_uS_cm:.0f}.",
                        "After a flush, when the reading is back in range."))  # fmt: skip
    return tuple(sorted(out, key=lambda h: -len(h.blocks)))


def blocked(open_holds: tuple[Hold, ...], act: Blocked) -> bool:
    """Does any open hold forbid this act?"""
    return any(act in h.blocks for h in open_holds)
