"""Kinds of changes, and in which days a plant answers each: section 7.2 and the kind's own lags."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

from fenwa.core.library.profile import Lag

ChangeKind = Literal[
    "flush",
    "strength",
    "rhythm",
    "water",
    "medium",
    "lamp",
    "place",
    "humidity",
    "warmth",
    "treatment",
    "decision",
]

# first and last day of an answer in growth; None: by the kind's own lags [d]
LAGS: Final[dict[str, tuple[int, int] | None]] = {
    "flush": None,
    "strength": None,
    "rhythm": None,
    "water": (14, 60),
    "medium": (14, 60),
    "lamp": (14, 40),
    "place": (14, 60),
    "humidity": (14, 40),
    "warmth": (10, 40),
    "treatment": (14, 40),
    "decision": (30, 90),
}
WHY: Final[dict[str, str]] = {
    "flush": "by the kind’s window for too much salt",
    "strength": "by its window for too little feed: only new tissue can show it",
    "rhythm": "by its window for too little feed: only new tissue can show it",
    "water": "tips answer another water in 14 to 60 days",
    "medium": "slow, then normal within 14 to 60 days",
    "lamp": "internodes answer light in 14 to 40 days",
    "place": "slow, then normal within 14 to 60 days",
    "humidity": "leaves that formed in it open after 14 to 40 days",
    "warmth": "roots answer cold and warmth in 10 to 40 days",
    "treatment": "a clean leaf opens after 14 to 40 days",
    "decision": "a month at least, or the day that was set for the next look",
}
# kinds of logged events as kinds of changes
EVENT_KINDS: Final[dict[str, ChangeKind]] = {
    "repotted": "medium",
    "put together": "medium",
    "moved": "place",
    "moved outdoors": "place",
    "moved indoors": "place",
    "heating on": "humidity",
    "heating off": "humidity",
    "humidifier on": "humidity",
    "humidifier off": "humidity",
    "shaded": "lamp",
    "lamps changed": "lamp",
    "treated": "treatment",
    "other": "place",
}


@dataclass(frozen=True)
class Window:
    """Days in which a change is answered in growth, and why those. [d]"""

    low: int
    high: int
    why: str


def window_of(kind: str, lags: Lag, review_days: int | None = None) -> Window:
    """The window of a change; a decision opens on the day that was set for looking again. [d]"""
    if kind == "decision" and review_days is not None and review_days > 0:
        return Window(review_days, review_days + 60, "the day that was set for the next look")
    days = LAGS.get(kind, (30, 90))
    if days is None:
        days = lags.overfeeding if kind == "flush" else lags.underfeeding
    return Window(days[0], days[1], WHY.get(kind, "judgement"))
