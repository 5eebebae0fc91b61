"""The words of the log: each list stands here once, and reaches stored rows, API types and forms from here."""

from __future__ import annotations

from typing import Final, Literal

Felt = Literal["", "as planned", "dry", "heavy"]
WeightKind = Literal["now", "drained", "dry"]
PlaceChangeKind = Literal[
    "heating on",
    "heating off",
    "humidifier on",
    "humidifier off",
    "lamps changed",
    "moved outdoors",
    "moved indoors",
    "shaded",
    "other",
]
ErrandKind = Literal[
    "rinse tray pot",
    "change reservoir",
    "look again",
    "end of quarantine",
    "prills spent",
    "repot",
    "look",
    "phase not told",
    "stock-take",
    "meter check",
    "water re-test",
    "membrane",
    "ramp step",
    "arrival review",
    "treatment",
    "water first",
]
EventKind = Literal[PlaceChangeKind, "errand done", "errand later", "leaves treated", "repotted", "put together"]

DONE: Final = "errand done"
LATER: Final = "errand later"
TREATED: Final = "leaves treated"
REPOTTED: Final = "repotted"
MERGED: Final = "put together"
SKIPPED: Final = "skipped"  # a decision not to pour today


REPOT_WORD: Final = "repot"  # a decision that begins with it is kept for its day


def is_skip(what: str) -> bool:
    """Whether a decision left a watering for another day; every other one asks for a look."""
    return what == SKIPPED


RINSES: tuple[ErrandKind, ...] = ("rinse tray pot", "change reservoir")  # done, they start the salt of a tray anew
