"""Pots with a hidden truth: what Fenwa may know of them, and what they really do."""

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from fenwa.core.library.loader import get_medium
from fenwa.core.pot.balance import (
    Soil,
    State,
    at_capacity,
    dry,
    exchange,
    first_drops,
    pour_through_reading,
    root_zone_ec,
    water,
)
from fenwa.core.pot.learning import reading_sd
from fenwa.core.pot.methods import SPREAD_LN
from fenwa.core.pot.specification import SPLIT_KNOWN_SD, SPREAD, Medium, PotSpec, WaterEvent, capacity_L, leachate_L

MEDIA = [get_medium(m).medium() for m in ("peat_perlite", "sphagnum_loose", "bark_medium", "coir_perlite", "pumice")]
BEGIN = date(2026, 1, 1)
READINGS, POURS = 12, 36
WEATHER_SD, JUG_SD = 0.2, 0.07  # of a week's loss and of a pour: what no log knows


@dataclass(frozen=True)
class HiddenPot:
    """A pot's log as its grower wrote it, and the truth behind: of each reading, and of a pour-through today."""

    pot: PotSpec
    events: list[WaterEvent]
    true_readings: list[float]
    true_today: float


def hidden_pot(rng: np.random.Generator, medium: Medium) -> HiddenPot:
    """Thirty-six weeks of pours, twelve of them read by the pour-through."""
    pot = PotSpec(float(np.exp(rng.uniform(np.log(0.4), np.log(3)))), medium, 0.25, 0.05, u_ballast=0.05)
    W = capacity_L(pot) * np.exp(rng.normal(0, SPREAD["ln_W"]))
    logit = rng.normal(0, SPREAD["logit_u"])
    u = np.array([[1 / (1 + (1 - s) / s * np.exp(-logit))] for s in (0.25, 0.05)])
    soil = Soil(
        (1 - medium.phi) * W,
        medium.phi * W,
        medium.eta * np.exp(rng.normal(0, SPREAD["ln_eta"])),
        u,
        np.log(2) / medium.t_half_h * np.exp(rng.normal(0, SPREAD["ln_k"])),
        medium.R,
    )
    loss = 7 * pot.loss_per_day * capacity_L(pot) * np.exp(rng.normal(0, SPREAD["ln_E"]))
    share, off = 0.4, rng.normal()
    ballast = np.clip(share + SPLIT_KNOWN_SD * off, 0, 1)
    parts = np.array([[1 - ballast], [ballast]])
    start = 450 * parts * np.exp(rng.normal(0, SPREAD["ln_start"]))
    state = State(np.array([soil.W_m_cc]), start, start)
    x = leachate_L(pot) / soil.W_m_cc
    read = set(rng.choice(np.arange(2, POURS), READINGS, replace=False).tolist())
    rinsed = rng.random(POURS) < 0.25
    events, truths, today = [], [], 0.0
    for k in range(POURS):
        if k:
            state = dry(soil, state, loss * np.exp(rng.normal(0, WEATHER_SD)), 168.0)
        ec = 60.0 if rinsed[k] else 450.0
        volume = 0.6 * capacity_L(pot)
        state, _ = water(soil, state, volume * np.exp(rng.normal(0, JUG_SD)), ec * parts)
        measured = None
        if k in read:
            evened = exchange(soil, state, 1.0)
            truth = float(pour_through_reading(root_zone_ec(soil, evened).sum(), soil.eta, x))
            truths.append(truth)
            measured = truth * float(np.exp(rng.normal(0, reading_sd(SPREAD_LN["pour-through"], truth))))
        on = BEGIN + timedelta(days=7 * k)
        events.append(WaterEvent(on, volume, ec, "top", None, measured, "pour-through", share))
        today = float(pour_through_reading(at_capacity(soil, state).sum(), soil.eta, x))
    return HiddenPot(pot, events, truths, today)


@dataclass(frozen=True)
class HiddenFlush:
    """A salted pot as it really drains; ``believed``: what its grower's records say of it."""

    pot: PotSpec
    soil: Soil
    start: float
    believed: float
    water: float
    stop: float
    pause_h: float

    def runoffs(self, volumes: list[float]) -> tuple[list[float], State]:
        """True last runoff of each pass, with soaks between."""
        state, out = State(self.soil.W_m_cc, self.start, self.start), []
        for i, v in enumerate(volumes):
            if i:
                state = exchange(self.soil, state, self.pause_h)
            state, _ = water(self.soil, state, v, self.water)
            out.append(float(first_drops(state.C_m, self.water, self.soil.eta)))
        return out, state

    def reached(self, volumes: list[float]) -> bool:
        """Whether two soaked readings after these passes agree at or under the stop."""
        out, state = self.runoffs(volumes)
        before = out[-1]
        for _ in range(8):
            state = exchange(self.soil, state, self.pause_h)
            state, _ = water(self.soil, state, max(0.01, 0.02 * sum(volumes)), self.water)
            now = float(first_drops(state.C_m, self.water, self.soil.eta))
            if now > self.stop:
                return False
            if before <= self.stop and abs(now / before - 1) <= 0.05:
                return True
            before = now
        return True

    def least_L(self, round_L: float) -> float:
        """Fewest litres, in rounds with soaks and the last one shortened, that reach it; with the second reading."""
        n = next(n for n in range(1, 200) if self.reached([round_L] * n))
        low, high = 0.0, round_L
        for _ in range(20):
            middle = (low + high) / 2
            done = self.reached([round_L] * (n - 1) + [max(middle, 1e-4)])
            low, high = (low, middle) if done else (middle, high)
        return 1.02 * (round_L * (n - 1) + high) + 0.01


def hidden_flush(rng: np.random.Generator, medium: Medium) -> HiddenFlush:
    """A pot at two to three times its target, known as well as a log knows it."""
    pot = PotSpec(float(np.exp(rng.uniform(np.log(0.5), np.log(3)))), medium, 0.25, 0.05)
    W = capacity_L(pot) * np.exp(rng.normal(0, SPREAD["ln_W"]))
    soil = Soil(
        (1 - medium.phi) * W,
        medium.phi * W,
        medium.eta * np.exp(rng.normal(0, SPREAD["ln_eta"])),
        0.25,
        np.log(2) / medium.t_half_h * np.exp(rng.normal(0, 0.5)),
        medium.R,
    )
    start, plain = rng.uniform(1000, 2500), 40.0
    target = rng.uniform(0.3, 0.5) * start
    return HiddenFlush(
        pot,
        soil,
        start,
        start * float(np.exp(rng.normal(0, 0.2))),
        plain,
        plain + medium.eta * (target - plain),
        min(max(1.5 * medium.t_half_h, 1 / 6), 3.0),
    )
