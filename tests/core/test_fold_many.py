"""Many pots folded in step: each as if it were alone; and the salt that prills give on the way."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

import numpy as np
import pytest

from fenwa.core.care.prills import prill_salt_uS_L
from fenwa.core.library.loader import get_medium
from fenwa.core.pot.ahead import Rhythm, forecast
from fenwa.core.pot.balance import State
from fenwa.core.pot.fold import fold, fold_log, fold_logs, rested
from fenwa.core.pot.folded import Folded, salt
from fenwa.core.pot.happened import PotLog
from fenwa.core.pot.release import PrillSalt
from fenwa.core.pot.specification import MEMBERS, Medium, PotReading, PotSpec, WaterEvent, members_of

START = date(2026, 3, 1)
METHODS = ("runoff", "pour-through", "first drops", "last", "dunk", "squeezed")


def day(n: int) -> date:
    return START + timedelta(days=n)


def a_log(rng: np.random.Generator, pours: int = 14) -> PotLog:
    """Any pot with any log: drained, tray or reservoir; pours known and unknown; readings, crusts, some left out."""
    media = ("peat_perlite", "bark_medium", "sphagnum_loose", "clay_balls")
    pot = PotSpec(
        float(rng.uniform(0.3, 4)),
        get_medium(str(rng.choice(media))).medium(),
        float(rng.choice([0.0, 0.25, 0.6])),
        float(rng.uniform(0.02, 0.2)),
        str(rng.choice(["drains", "drains", "tray", "reservoir"])),  # type: ignore[arg-type]
        start_uS_cm=float(rng.uniform(100, 900)) if rng.random() < 0.5 else None,
        u_ballast=0.05 if rng.random() < 0.5 else None,
        prills=(PrillSalt(day(5), 900.0, 90.0, 22.0),) if rng.random() < 0.3 else (),
    )
    events = []
    for n in np.cumsum(rng.integers(0, 9, int(rng.integers(0, pours)))):
        volume = float(rng.uniform(0.1, 1.2)) if rng.random() < 0.8 else None
        read = rng.random() < 0.4
        events.append(
            WaterEvent(
                day(int(n)),
                volume,
                float(rng.uniform(20, 900)) if rng.random() < 0.8 else None,
                str(rng.choice(["top", "top", "soak", "tray"])),  # type: ignore[arg-type]
                0.1 * volume if volume and rng.random() < 0.3 else None,
                float(rng.uniform(150, 3000)) if read else None,
                str(rng.choice(METHODS)),  # type: ignore[arg-type]
                0.3 if rng.random() < 0.5 else None,
                left_out=bool(rng.random() < 0.2),
            )
        )
    readings = [
        PotReading(
            day(int(n)),
            float(rng.uniform(150, 3000)) if rng.random() < 0.7 else None,
            str(rng.choice(["pour-through", "squeezed", "reservoir"])),  # type: ignore[arg-type]
            "clear" if rng.random() < 0.3 else None,
            str(rng.choice(["wet", "moist", "barely damp", "dry"])) if rng.random() < 0.3 else None,  # type: ignore[arg-type]
            bool(rng.random() < 0.2),
        )
        for n in rng.integers(0, 4 * pours, int(rng.integers(0, pours // 3 + 1)))
    ]
    return PotLog(pot, events, readings)


def alike(one: Folded, other: Folded) -> None:
    for a, b in (
        (one.members.shifts, other.members.shifts),
        (one.state.W_m, other.state.W_m),
        (one.state.C_m, other.state.C_m),
        (one.state.C_i, other.state.C_i),
    ):
        np.testing.assert_allclose(np.broadcast_to(a, np.shape(b)), b, rtol=1e-9, atol=1e-9)
    assert [p.on for p in one.points] == [p.on for p in other.points]
    assert [p.high for p in one.points] == pytest.approx([p.high for p in other.points])
    assert [(o.on, o.taught, o.method) for o in one.observations] == [
        (o.on, o.taught, o.method) for o in other.observations
    ]
    assert [o.off_sd for o in one.observations] == pytest.approx([o.off_sd for o in other.observations])
    assert (one.as_of, one.used, one.cautions) == (other.as_of, other.used, other.cautions)


@pytest.mark.parametrize("seed", range(6))
def test_each_of_many_pots_folds_as_if_it_were_alone(seed: int) -> None:
    rng = np.random.default_rng(seed)
    logs = [a_log(rng) for _ in range(25)]
    today = day(70)
    together = fold_logs(logs, today)
    for x, found in zip(logs, together, strict=True):
        alike(fold_log(x.pot, list(x.events), today, x.readings), found)
    backwards = fold_logs(logs[::-1], today)
    for found, again in zip(together, backwards[::-1], strict=True):
        alike(found, again)


def test_a_neighbour_without_a_log_stays_as_its_medium_was_bought() -> None:
    busy = PotLog(PLAIN, [WaterEvent(day(1), 0.5, 400.0, runoff_ec_uS_cm=900.0)])
    idle = PotLog(PLAIN, [])
    alone, beside = fold_logs([idle], day(30))[0], fold_logs([busy, idle], day(30))[1]
    assert not beside.begun
    assert beside.used == 0
    np.testing.assert_allclose(beside.state.C_m, alone.state.C_m)
    assert fold_logs([], day(30)) == []


# a litre of water, nothing immobile, nothing taken up: what prills give can be read off
PLAIN = PotSpec(2.0, Medium(0.5, 0.0, 1.0, 1.0), u=0.0, loss_per_day=0.1, start_uS_cm=0.0)
HELD = prill_salt_uS_L(3.0, 14.0)  # 3 g of 14 %: 420 mg N, 2940 µS/cm in a litre
PRILLED = replace(PLAIN, prills=(PrillSalt(START, HELD, 180.0, 24.0),))


def mass(out: Folded) -> float:
    """Salt of the best guess, µS/cm times litres."""
    return float((salt(out.state.C_m) * out.state.W_m)[0, 0])


def test_prills_give_the_pot_what_thermal_time_says() -> None:
    # by hand, E3.11: 60 days at 24 °C have given 0.397 of 2940 µS/cm · L; topped up weekly, nothing drains
    assert pytest.approx(2940) == HELD
    events = [WaterEvent(START, 0.0, 0.0), *(WaterEvent(day(7 * k), 0.7, 0.0) for k in range(1, 9))]
    out = fold(PRILLED, events, day(60))
    assert mass(out) == pytest.approx(0.397 * 2940, rel=0.003)
    assert mass(fold(PLAIN, events, day(60))) == pytest.approx(0.0, abs=1e-6)


def test_what_prills_gave_before_the_first_pour_is_in_the_pot() -> None:
    out = fold_log(PRILLED, [WaterEvent(day(60), 0.0, 0.0)], day(60))
    assert mass(out) == pytest.approx(0.397 * 2940, rel=0.003)


def test_a_flush_washes_out_what_lies_free_and_the_rest_goes_on_giving() -> None:
    out = fold_log(PRILLED, [WaterEvent(day(60), 30.0, 0.0)], day(60))
    assert mass(out) < 1.0
    later = rested([PRILLED], out.members, out.state, [day(60)], day(67))
    # by hand: F(67) - F(60) = 0.0453, 133 µS/cm · L in the week after
    assert float((salt(later.C_m) * later.W_m)[0, 0]) == pytest.approx(0.0453 * 2940 + mass(out), rel=0.02)


@pytest.mark.parametrize("drainage", ["drains", "tray", "reservoir"])
def test_the_look_ahead_counts_what_prills_will_give(drainage: str) -> None:
    pot = replace(PRILLED, drainage=drainage)  # type: ignore[arg-type]
    none = replace(pot, prills=())
    members = members_of([pot])
    C = np.zeros((2, 1, MEMBERS))
    state = State(members.soil.W_m_cc * 1.0, C, C)
    rhythm = Rhythm(7.0, (0.75,), (0.0,))
    with_prills = forecast([pot], members, state, [rhythm], 180, START).readings[0, :, 0]
    without = forecast([none], members, state, [rhythm], 180, START).readings[0, :, 0]
    assert without.max() <= 1.0
    assert with_prills[8] > 100
    spent = forecast([pot], members, state, [rhythm], 180, day(2000)).readings[0, :, 0]
    assert spent.max() <= 1.01, "prills long spent give nothing more"
    # beside a pot without any, both as if alone
    pair = State(*(np.repeat(v, 2, -2) for v in (state.W_m, C, C)))
    pots = [none, pot]
    both = forecast(pots, members_of(pots), pair, [rhythm, rhythm], 180, START).readings
    np.testing.assert_allclose(both[1, :, 0], with_prills)
    np.testing.assert_allclose(both[0, :, 0], without)


def test_how_much_prills_give_is_part_of_the_range() -> None:
    from fenwa.core.pot.folded import reading_of
    from fenwa.core.pot.specification import band

    events = [WaterEvent(day(7 * k), 0.7, 0.0) for k in range(1, 9)]
    out = fold(PRILLED, events, day(60))
    middle, low, high = (float(v[0]) for v in band(reading_of(out.members, out.state)))
    assert low < 0.75 * middle
    assert high > 1.3 * middle
