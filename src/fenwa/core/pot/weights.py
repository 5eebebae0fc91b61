"""Water left in a pot by its weight: after draining, at dry, and now."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

READY_SHARE = 0.0  # "dry" is the weight at which you water: nothing is left to wait for
SCALE_SD_g = 3.0  # a kitchen scale and wet hands; judgement


@dataclass(frozen=True)
class Weighed:
    """A weight on a day. [g]"""

    on: date
    grams: float


@dataclass(frozen=True)
class PotWater:
    """Water between drained and dry, what is left of it, and the days it lasts. None: not to be told yet. [mL, d]"""

    available_mL: float
    left_mL: float
    left_share: float
    loss_mL_day: float | None
    days_left: float | None
    days_sd: float | None
    ready: bool
    sentence: str


def depleted_share(water: PotWater, capacity_L: float) -> float:
    """Share of all the medium can hold that is gone, by the scale. At the weight of watering it is far below 1."""
    return (water.available_mL - water.left_mL) / 1000 / capacity_L


def checked_grams(grams: float, pointer: str) -> float:
    """A weight of a pot as it may be, above 0 to 200 000. [g]"""
    return require(grams, "Weight", "g", low=0, open_low=True, high=200_000, pointer=pointer)


def missing_L(drained_g: float, now_g: float) -> float:
    """Water a pot lacks to capacity by the scale: a gram is a millilitre; none where it is heavier than drained. [L]"""
    return max(0.0, drained_g - now_g) / 1000


def loss_of(weights: list[Weighed]) -> tuple[float, float] | None:
    """Loss of the last falling run of weights and its SD; None before two. [g/d]"""
    run: list[Weighed] = []
    for w in weights:
        if run and w.grams > run[-1].grams:  # watered in between
            run = []
        if not run or w.on > run[-1].on:
            run.append(w)
    run = run[-4:]
    if len(run) < 2:
        return None
    x = np.array([(w.on - run[0].on).days for w in run], dtype=float)
    y = np.array([w.grams for w in run])
    slope, height = np.polyfit(x, y, 1)
    spread = float(np.sum((x - x.mean()) ** 2))
    around = float(np.sqrt(np.sum((y - slope * x - height) ** 2) / (len(run) - 2))) if len(run) > 2 else 0.0
    return max(-float(slope), 0.0), max(around, SCALE_SD_g) / spread**0.5


@calculation("pot-water-from-weights", title="Water left by weight", station="pots")
def pot_water_from_weights(
    *, drained_g: float, dry_g: float, now_g: float, weights: list[Weighed] | None = None
) -> Computed[PotWater]:
    """Water still available in a pot and the days it lasts, from its weights.

    Parameters
    ----------
    drained_g : float
        Weight an hour after watering, when it no longer drips. [g]
    dry_g : float
        Weight at which you water. [g]
    now_g : float
        Weight now. [g]
    weights : list[Weighed]
        Earlier weights, oldest first; the last falling run gives the loss. [g]

    Returns
    -------
    Computed
        Water left, its share, the daily loss and days left with their SD. [mL, d]

    Raises
    ------
    OutOfRange
        If a weight cannot be.
    InputError
        If the pot weighs more dry than drained.

    References
    ----------
    gravimetric; linear-regression over the last falling weights
    """
    for value, name, pointer in (
        (drained_g, "Weight after draining", "/drained_g"),
        (dry_g, "Weight at dry", "/dry_g"),
        (now_g, "Weight now", "/now_g"),
    ):
        require(value, name, "g", low=0, open_low=True, high=200_000, pointer=pointer)
    for i, w in enumerate(weights or []):
        require(w.grams, "Weight", "g", low=0, open_low=True, high=200_000, pointer=f"/weights/{i}/grams")
    if dry_g >= drained_g:
        raise InputError(
            f"Weight at dry {dry_g:g} g is not below the {drained_g:g} g after draining. Swap them, or weigh again.",
            pointer="/dry_g",
            value=dry_g,
        )
    ledger = Ledger("Water left by weight", "A gram is a millilitre; leaves that grow add weight.", ("gravimetric",))
    ledger.take("drained", "weight after draining", drained_g, "g", "measured")
    ledger.take("dry", "weight at dry", dry_g, "g", "measured")
    ledger.take("now", "weight now", now_g, "g", "measured")
    available = ledger.step("available", "drained - dry", "mL", "water between drained and dry")
    left = ledger.step("left", "min(max(now - dry, 0), available)", "mL", "water left")
    share = ledger.step("share", "left / available", "", "share left")
    found = loss_of(weights or [])
    days = sd = rate = None
    if found is not None and found[0] > 0:
        rate = ledger.take("loss", "loss of the last falling weights", found[0], "mL/d", "regression")
        error = ledger.take("loss_sd", "its uncertainty", found[1], "mL/d", "regression")
        days = ledger.step("days", "left / loss", "d", "days left")
        sd = days * error / rate
    else:
        ledger.caution("Two weights on different days since the last watering tell how fast it dries.")
    if now_g > drained_g * 1.03:
        ledger.caution(
            "It weighs more than after draining: still dripping, or the plant has grown. Weigh it drained again."
        )
    ready = left <= READY_SHARE
    if ready:
        said = "At its dry weight: water it."
    elif days is None or sd is None:
        said = f"Of {available:.0f} mL between drained and dry."
    else:
        said = f"Of {available:.0f} mL between drained and dry: about {days:.1f} days, give or take {max(sd, 0.1):.1f}."
    return ledger.close(PotWater(available, left, share, rate, days, sd, ready, said))
