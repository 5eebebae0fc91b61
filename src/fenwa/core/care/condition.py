"""What is known of a pot's plant on a day, and what a hold is."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

Phase = Literal["active", "flowering", "slowing", "rest", "dormant", "establishing", "stressed"]
Blocked = Literal["water", "feed", "flush", "leaf spray"]

CLIMATE_DAYS = 10  # an older reading of the place says nothing of its nights now


@dataclass(frozen=True)
class Hold:
    """One reason not to act.

    ``standing``: a rule of the kind, not an event; ``word``: why it was overridden; ``quiet``: the grower's own rule,
    told at the pot and asked of nobody.
    """

    id: str
    blocks: tuple[Blocked, ...]
    reason: str
    release: str
    standing: bool = False
    word: str = ""
    quiet: bool = False


@dataclass(frozen=True)
class Override:
    """A hold a grower set aside, with the word that was asked for."""

    hold_id: str
    on: date
    word: str


@dataclass(frozen=True)
class Condition:
    """What is known of a pot's plant on the day. Dates None: never, or not known. [µS/cm, °C, cm, shares]"""

    phase: Phase
    phase_since: date | None
    rest_kind: str
    restart: str
    arrived_on: date | None = None
    repotted_on: date | None = None
    new_leaf_since_arrival: bool = False
    crust_on: date | None = None
    algae_on: date | None = None
    spray_days: float = 0.0
    flushed_on: date | None = None
    last_reading_uS_cm: float | None = None
    last_reading_on: date | None = None
    ceiling_uS_cm: float | None = None
    ideal_high_uS_cm: float | None = None
    predicted_uS_cm: float | None = None
    rest_feeds: bool = False
    gate_needs: str = ""
    roots_working: bool | None = None
    roots_moving_on: date | None = None
    limp_on: date | None = None
    felt_wet_on: date | None = None
    roots_seen_on: date | None = None
    rot_on: date | None = None
    dry_share: float | None = None
    medium_charged: bool | None = None
    medium_since: date | None = None
    prill_share_out: float | None = None
    prill_until: date | None = None
    night_C: float | None = None
    day_C: float | None = None
    medium_C: float | None = None
    humidity_pct: float | None = None
    climate_on: date | None = None
    nights: tuple[tuple[date, float], ...] = ()  # of the last days, oldest first; empty: only night_C is known
    days: tuple[tuple[date, float], ...] = ()
    minimum_C: float | None = None
    day_most_C: float | None = None
    carnivore: bool = False
    root_opt_in: bool = False
    wet_leaves_harm: bool = False
    treated_on: date | None = None
    treated_days: int = 0
    trial: str = ""
    trial_feeds: bool = True
    trial_flush: bool = False
    overrides: tuple[Override, ...] = ()
    woken_since: date | None = None
    leaf_since_waking: bool = False
    watered_since_waking: bool = False
    entered_on: date | None = None
