"""A pot's own readings teach it, bands stay honest, and a reading always pulls its own way."""

import os
from dataclasses import replace
from datetime import date, timedelta
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.errors import InputError
from fenwa.core.pot.balance import State
from fenwa.core.pot.calibration import OtherPot, calibrate_pot
from fenwa.core.pot.calibration_cycle import calibrate_cycle
from fenwa.core.pot.fold import fold, fold_log, rows_of, state_of
from fenwa.core.pot.learning import knowledge, pooled, with_pooled
from fenwa.core.pot.root_zone import root_zone
from fenwa.core.pot.specification import LEARNT, SPREAD, PotReading, PotSpec, WaterEvent
from tests.core.hidden_pots import MEDIA, hidden_pot

TODAY = date(2026, 11, 23)
POT = PotSpec(1.0, MEDIA[2], 0.25, 0.05, u_ballast=0.05)
COVERED = int(os.environ.get("FENWA_COVER", "120"))  # 500 as the bench runs it


def log(n: int, **last: object) -> list[WaterEvent]:
    pours = [WaterEvent(TODAY - timedelta(days=6 * (n - 1 - k)), 0.2, 420.0) for k in range(n)]
    return [*pours[:-1], replace(pours[-1], **last)]  # type: ignore[arg-type]


def test_the_bands_hold_the_truth_and_the_next_prediction_gets_better() -> None:
    rng = np.random.default_rng(14)
    before, after, errors = [], [], np.zeros((COVERED, 12))
    for i in range(COVERED):
        h = hidden_pot(rng, MEDIA[i % 5])
        today = h.events[-1].on
        learnt, plain = fold_log(h.pot, h.events, today), fold_log(h.pot, h.events, today, learn=False)
        before.append(plain.points[-1].low <= h.true_today <= plain.points[-1].high)
        after.append(learnt.points[-1].low <= h.true_today <= learnt.points[-1].high)
        told = zip(learnt.observations, h.true_readings, strict=True)
        errors[i] = [abs(np.log(truth / o.expected_runoff_ec)) for o, truth in told]
    slack = 1.28 * np.sqrt(0.8 * 0.2 / COVERED) if COVERED < 500 else 0.0
    assert 0.75 - slack <= np.mean(before) <= 0.85 + slack
    assert 0.75 - slack <= np.mean(after) <= 0.85 + slack
    assert np.median(errors[:, 9]) <= 0.5 * np.median(errors[:, 0])


def test_six_irrigations_teach_uptake_and_hardly_efficiency() -> None:  # WE3.10, to the printed digits
    r = calibrate_cycle(
        feed_uS_cm=450,
        start_uS_cm=500,
        lost_share=0.3,
        drained_share=0.3,
        runoffs_uS_cm=[560, None, 529, None, 629, 591],
    ).result
    assert (round(r.eta, 2), round(r.u, 2), round(r.eta_sd_ln, 2)) == (0.65, 0.30, 0.31)
    assert "not told the efficiency" in r.sentence


@given(
    a=st.floats(20, 4000),
    b=st.floats(20, 4000),
    method=st.sampled_from(["pour-through", "squeezed", "reservoir"]),
    n=st.integers(1, 10),
    drainage=st.sampled_from(["drains", "tray", "reservoir"]),
)
@settings(max_examples=50, deadline=None)
def test_a_reading_between_pours_pulls_its_own_way(a: float, b: float, method: str, n: int, drainage: str) -> None:
    pot = replace(POT, drainage=drainage)  # type: ignore[arg-type]

    def today(ec: float | None) -> float:
        readings = [] if ec is None else [PotReading(TODAY, ec, method)]  # type: ignore[arg-type]
        return root_zone(pot=pot, events=log(n), today=TODAY, readings=readings).result.reading_uS_cm

    low, high, without = today(min(a, b)), today(max(a, b)), today(None)
    assert low <= high * (1 + 1e-6)
    expected = fold(pot, log(n), TODAY, [PotReading(TODAY, a, method)]).observations[0].expected_runoff_ec  # type: ignore[arg-type]
    assert (today(a) - without) * (a - expected) >= -1e-5 * without


@pytest.mark.parametrize("first", [(170.0,), (300.0,), (900.0, 700.0)])
def test_a_falling_series_never_raises_todays_figure_and_ends_at_its_floor(first: tuple[float, ...]) -> None:
    base = log(30)
    readings, figures = [], []
    floor = 0.6 * first[-1]
    for ec in (*first, *(floor + (first[-1] - floor) * 0.6**k for k in range(1, 7))):
        readings.append(WaterEvent(TODAY, 0.15, 40.0, "top", None, ec, "last", soak_h=1.0, flush=True))
        figures.append(fold(POT, [*base, *readings], TODAY).points[-1].reading)
    assert all(b < a * 1.01 for a, b in pairwise(figures[2:])), "once readings agree, it only falls"
    f = fold(POT, [*base, *readings], TODAY)
    assert f.observations[-1].expected_runoff_ec == pytest.approx(floor, rel=0.3)


def test_a_reading_that_does_not_fit_is_named_counts_for_less_and_can_be_left_out() -> None:
    pours = [WaterEvent(TODAY - timedelta(days=6 * k), 0.2, 420.0, runoff_ec_uS_cm=600.0) for k in range(10, 1, -1)]
    grain = WaterEvent(TODAY - timedelta(days=6), 0.2, 420.0, runoff_ec_uS_cm=9000.0)
    r = calibrate_pot(pot=POT, events=[*pours, grain], today=TODAY).result
    assert not r.readings[-1].fits
    assert "fertilizer grain" in r.readings[-1].sentence
    out = calibrate_pot(pot=POT, events=[*pours, replace(grain, left_out=True)], today=TODAY).result
    none = calibrate_pot(pot=POT, events=[*pours, replace(grain, runoff_ec_uS_cm=None)], today=TODAY).result
    assert out.reading_uS_cm == pytest.approx(none.reading_uS_cm)
    assert r.reading_uS_cm > none.reading_uS_cm
    assert len(out.readings) == len(r.readings)
    assert out.readings_used == len(r.readings) - 1


def test_what_was_not_told_says_so() -> None:
    r = calibrate_pot(pot=POT, events=log(12, runoff_ec_uS_cm=500.0), today=TODAY).result
    by = {v.id: v for v in r.values}
    assert set(by) == set(LEARNT)
    assert by["ln_W"].sentence == "Its readings have not told this yet."
    by_pour_through = [replace(e, runoff_ec_uS_cm=300.0, method="pour-through") for e in log(12)]
    told = calibrate_pot(pot=POT, events=by_pour_through, today=TODAY).result
    assert told.default_high_uS_cm / told.default_low_uS_cm > 1.5 * told.high_uS_cm / told.low_uS_cm
    assert told.values[0].narrowed > 0.2


def test_a_crust_is_weak_evidence_and_says_so() -> None:
    without = root_zone(pot=POT, events=log(12), today=TODAY).result
    crust = root_zone(pot=POT, events=log(12), today=TODAY, readings=[PotReading(TODAY, crust="clear")])
    read = root_zone(pot=POT, events=log(12), today=TODAY, readings=[PotReading(TODAY, 1600.0)]).result
    assert without.reading_uS_cm < crust.result.reading_uS_cm < read.reading_uS_cm
    assert any("weak evidence" in c for c in crust.working.cautions)
    none = root_zone(pot=POT, events=log(12), today=TODAY, readings=[PotReading(TODAY, crust="none")]).result
    assert none.reading_uS_cm == pytest.approx(without.reading_uS_cm)


def test_the_third_pot_of_a_mix_starts_better_than_the_first() -> None:
    rng = np.random.default_rng(5)
    alone, helped = [], []
    for _ in range(8):
        mix = replace(MEDIA[2], eta=MEDIA[2].eta * float(np.exp(rng.normal(0, 0.25))))  # the mix itself is off
        shelf = [hidden_pot(rng, mix) for _ in range(3)]
        folded = [fold_log(replace(h.pot, medium=MEDIA[2]), h.events, h.events[-1].on) for h in shelf[:2]]
        others = pooled([knowledge(f.members.shifts[0]) for f in folded], LEARNT)
        third = replace(shelf[2].pot, medium=MEDIA[2])
        f = fold_log(third, shelf[2].events[:12], shelf[2].events[11].on, learn=False)
        m, s = with_pooled([third], f.members, f.state, [others])
        alone.append(abs(np.log(f.members.soil.eta[0, 0] / mix.eta)))
        helped.append(abs(np.log(m.soil.eta[0, 0] / mix.eta)))
        assert isinstance(s, State)
        assert knowledge(m.shifts[0])["ln_eta"].sd < SPREAD["ln_eta"]
    assert np.mean(helped) < np.mean(alone)


def test_others_are_told_through_the_calculation_and_refused_out_of_range() -> None:
    r = calibrate_pot(pot=POT, events=log(6), today=TODAY, others=[OtherPot("ln_eta", 0.3, 0.2, 2)])
    assert r.result.pooled_pots == 2
    assert r.result.values[0].learnt > r.result.values[0].default
    for bad in (OtherPot("ln_eta", 9, 0.2), OtherPot("ln_eta", 0, 0), OtherPot("colour", 0, 0.1)):
        with pytest.raises(InputError):
            calibrate_pot(pot=POT, events=log(6), today=TODAY, others=[bad])
    with pytest.raises(InputError, match="with its pour"):
        calibrate_pot(pot=POT, events=log(6), today=TODAY, readings=[PotReading(TODAY, 300.0, "last")])


def test_what_was_learnt_survives_being_stored() -> None:
    f = fold_log(POT, log(12, runoff_ec_uS_cm=700.0), TODAY)
    members, state = state_of([POT], [rows_of(f.members, f.state)])
    assert np.allclose(members.soil.eta, f.members.soil.eta)
    assert np.allclose(np.asarray(state.C_m), np.asarray(f.state.C_m))
    plain = fold_log(POT, log(12), TODAY)
    assert len(rows_of(plain.members, plain.state)) == 5, "nothing learnt is not stored"


def test_a_crust_confirms_a_reading_far_above_what_was_expected() -> None:
    pours = [WaterEvent(TODAY - timedelta(days=6 * k), 0.25, 200.0, runoff_ec_uS_cm=260.0) for k in range(9, 1, -1)]
    salted = WaterEvent(TODAY - timedelta(days=3), 0.25, 200.0, runoff_ec_uS_cm=2600.0)
    crust = [PotReading(TODAY - timedelta(days=2), crust="clear")]
    read = root_zone(pot=POT, events=[*pours, salted], today=TODAY).result.reading_uS_cm
    seen = root_zone(pot=POT, events=pours, today=TODAY, readings=crust).result.reading_uS_cm
    both = root_zone(pot=POT, events=[*pours, salted], today=TODAY, readings=crust).result.reading_uS_cm
    assert both > 1.3 * max(read, seen)
