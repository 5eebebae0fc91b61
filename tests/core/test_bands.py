"""The 80 % band against a Monte Carlo of the same spreads, and what widens or narrows it."""

from datetime import date, timedelta

import numpy as np
import pytest

from fenwa.core.pot.balance import Soil, State, at_capacity, dry, pour_through_reading, water
from fenwa.core.pot.root_zone import root_zone
from fenwa.core.pot.specification import (
    MEMBERS,
    SPREAD,
    Medium,
    PotSpec,
    WaterEvent,
    band,
    capacity_L,
    leachate_L,
    members_of,
    tray_L,
)

TODAY = date(2026, 11, 23)
MIX = Medium(0.33, 0.45, 0.7, 0.55, 1.1, "bark mix")
POT = PotSpec(1.0, MIX, 0.25, 0.05)
PULSES = (450.0, 450.0, 450.0, 40.0)


def events(n: int, volume: float = 0.16) -> list[WaterEvent]:
    return [WaterEvent(TODAY - timedelta(days=6 * (n - k)), volume, PULSES[k % 4]) for k in range(n)]


def monte_carlo(n_events: int, volume: float, draws: int = 4000) -> np.ndarray:
    """Readings of many random pots with the band's own spreads, folded by hand."""
    rng = np.random.default_rng(7)
    z = {name: rng.normal(0, sd, draws) for name, sd in SPREAD.items()}
    W = capacity_L(POT) * np.exp(z["ln_W"])
    logit = np.log(POT.u / (1 - POT.u)) + z["logit_u"]
    soil = Soil(
        (1 - MIX.phi) * W,
        MIX.phi * W,
        MIX.eta * np.exp(z["ln_eta"]),
        1 / (1 + np.exp(-logit)),
        np.log(2) / MIX.t_half_h * np.exp(z["ln_k"]),
        MIX.R,
    )
    start = 450.0 * np.exp(z["ln_start"])
    state = State(soil.W_m_cc * 1.0, start, start)
    loss = POT.loss_per_day * capacity_L(POT) * 6 * np.exp(z["ln_E"])
    for k in range(n_events):
        if k:
            state = dry(soil, state, loss, 144.0)
        state, _ = water(soil, state, volume, PULSES[k % 4])
    state = dry(soil, state, loss, 144.0)
    return np.asarray(pour_through_reading(at_capacity(soil, state), soil.eta, leachate_L(POT) / soil.W_m_cc))


@pytest.mark.parametrize(("n", "volume"), [(8, 0.16), (24, 0.16), (24, 0.25)])
def test_band_lies_near_the_monte_carlo(n: int, volume: float) -> None:
    r = root_zone(pot=POT, events=events(n, volume), today=TODAY).result
    low, middle, high = np.quantile(monte_carlo(n, volume), (0.1, 0.5, 0.9))
    assert r.reading_uS_cm == pytest.approx(middle, rel=0.08)
    assert r.reading_low_uS_cm == pytest.approx(low, rel=0.12)
    assert r.reading_high_uS_cm == pytest.approx(high, rel=0.15)


def test_uncalibrated_band_is_as_wide_as_stated() -> None:
    r = root_zone(pot=POT, events=events(30), today=TODAY).result
    assert 0.5 < r.reading_low_uS_cm / r.reading_uS_cm < 0.85
    assert 1.2 < r.reading_high_uS_cm / r.reading_uS_cm < 2.0


def test_the_unknown_start_fades_with_pours() -> None:
    widths = []
    for n in (2, 10, 40):
        r = root_zone(pot=POT, events=events(n), today=TODAY).result
        charged = root_zone(pot=PotSpec(1.0, MIX, 0.25, 0.05, start_uS_cm=1500.0), events=events(n), today=TODAY).result
        widths.append(charged.reading_uS_cm / r.reading_uS_cm)
    assert widths[0] > widths[1] > widths[2]
    assert widths[2] == pytest.approx(1.0, abs=0.02)


def test_members_are_the_best_guess_and_each_parameter_one_sd_away() -> None:
    m = members_of([POT, PotSpec(2.0, MIX, 0.4, 0.06, "tray", 0.7)])
    assert m.soil.W_m_cc.shape == (2, MEMBERS)
    assert m.soil.eta[0, 0] == MIX.eta
    assert m.soil.eta[0, 1] == pytest.approx(MIX.eta * np.exp(SPREAD["ln_eta"]))
    assert m.soil.u[0, 1, 0] == m.soil.u[1, 1, 0] == pytest.approx(0.4)
    assert (m.tray_L[0] == 0).all()
    assert m.tray_L[1, 0] == 0.7
    assert m.tray_L[1].min() == 0  # the member that carries all salt up into the pot


def test_a_tray_nobody_measured_holds_half_the_pots_water() -> None:
    pot = PotSpec(1.0, MIX, 0.05, 0.02, "tray")
    assert tray_L(pot) == pytest.approx(0.5 * capacity_L(pot))
    assert tray_L(POT) == 0


def test_pour_through_collects_more_from_larger_pots() -> None:
    volumes = [leachate_L(PotSpec(v, MIX)) for v in (0.1, 0.3, 0.8, 2.0, 4.0, 20.0)]
    assert volumes == sorted(volumes)
    assert (volumes[0], volumes[-1]) == (0.02, 0.3)


@pytest.mark.parametrize("share", [0.0, 0.3])
def test_band_never_turns_round(share: float) -> None:
    rng = np.random.default_rng(3)
    values = 400 * np.exp(rng.normal(share, 0.4, (50, MEMBERS)))
    middle, low, high = band(values)
    assert (low <= middle).all()
    assert (middle <= high).all()
