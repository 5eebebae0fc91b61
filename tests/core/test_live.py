"""A flush as it runs: it stops near the least litres, never before its own reading, and refuses what cannot be."""

import math
from typing import Any

import numpy as np
import pytest

from fenwa.core.errors import DomainError
from fenwa.core.pot.live import LiveFlush, flush_session
from fenwa.core.pot.live_passes import FlushPass
from tests.core.hidden_pots import MEDIA, HiddenFlush, hidden_flush

POTS, PEN_SD = 60, 0.01


def walk(h: HiddenFlush, rng: np.random.Generator, round_L: float) -> tuple[LiveFlush, list[FlushPass]]:
    """Pour what is proposed, read what runs out, until told to stop."""
    passes: list[FlushPass] = []
    eta, phi = h.pot.medium.eta, h.pot.medium.phi
    slope = eta / ((1 - phi) * h.pot.medium.theta_cc * h.pot.volume_L)
    for _ in range(40):
        r = flush_session(
            passes=passes,
            water_uS_cm=h.water,
            stop_runoff_uS_cm=h.stop,
            slope_per_L=slope,
            round_L=round_L,
            pause_min=60 * h.pause_h,
            pot=h.pot,
            root_zone_uS_cm=h.believed,
        ).result
        if r.stop:
            return r, passes
        true, _ = h.runoffs([*(p.volume_L for p in passes), r.next_pass_L])
        read = true[-1] * float(np.exp(rng.normal(0, PEN_SD)))
        passes.append(FlushPass(r.next_pass_L, read, soaked_min=60 * h.pause_h if passes else 0.0, read_twice=True))
    raise AssertionError("it never stopped")


def test_it_stops_near_the_least_litres_and_never_before_its_own_reading() -> None:
    rng = np.random.default_rng(2)
    near = 0
    for i in range(POTS):
        h = hidden_flush(rng, MEDIA[i % 5])
        round_L = max(0.05, math.ceil(h.pot.medium.theta_cc * h.pot.volume_L * 2 / 3 / 0.05) * 0.05)
        end, passes = walk(h, rng, round_L)
        assert end.status == "target reached"
        assert all((p.runoff_uS_cm or 0) <= h.stop for p in passes[-2:])
        near += sum(p.volume_L for p in passes) <= 1.10 * h.least_L(round_L)
    assert near >= 0.9 * POTS


def test_the_range_of_what_is_left_narrows_with_each_reading() -> None:
    h = hidden_flush(np.random.default_rng(3), MEDIA[0])
    true, _ = h.runoffs([0.1] * 4)
    widths = []
    for n in range(1, 4):
        r = flush_session(
            passes=[FlushPass(0.1, x, soaked_min=10.0) for x in true[:n]],
            water_uS_cm=h.water,
            stop_runoff_uS_cm=h.stop,
            slope_per_L=3.0,
            round_L=0.3,
            pause_min=10,
            pot=h.pot,
            root_zone_uS_cm=h.believed,
        ).result
        assert r.left_low_L is not None
        assert r.left_high_L is not None
        assert r.next_runoff is not None
        assert r.next_runoff.low_uS_cm < r.next_runoff.runoff_uS_cm < r.next_runoff.high_uS_cm
        widths.append(r.left_high_L - r.left_low_L)
    assert max(widths[1:]) < widths[0] / 2


SOUND: dict[str, Any] = {
    "water_uS_cm": 60.0,
    "stop_runoff_uS_cm": 330.0,
    "slope_per_L": 1.1,
    "round_L": 0.3,
    "pause_min": 20.0,
    "expected_first_uS_cm": 1200.0,
}
WRONG: list[tuple[str, dict[str, Any], str, str]] = [
    ("more ran out than was poured", {"passes": [FlushPass(0.3, 900, 0.4)]}, "more than the 0.3 L poured", "drained_L"),
    ("a target under the water", {"passes": [], "stop_runoff_uS_cm": 50.0}, "no higher than the water", "/stop_runoff"),
    ("ten times the prediction", {"passes": [FlushPass(0.3, 15_000)]}, "more than ten times", "runoff_uS_cm"),
    ("a pass before the flush", {"passes": [FlushPass(0.3, 900, minute=-5)]}, "dated before the flush", "minute"),
    (
        "a pass before the one before",
        {"passes": [FlushPass(0.3, 900, minute=30), FlushPass(0.3, 800, minute=10)]},
        "dated before the one before it",
        "/passes/1/minute",
    ),
    ("nothing poured", {"passes": [FlushPass(0.0, 900)]}, "Poured 0 L", "volume_L"),
    ("too many passes", {"passes": [FlushPass(0.1)] * 61}, "too many", "/passes"),
]


@pytest.mark.parametrize(("name", "change", "sentence", "pointer"), WRONG, ids=[w[0] for w in WRONG])
def test_wrong_input_gets_a_sentence(name: str, change: dict[str, Any], sentence: str, pointer: str) -> None:
    with pytest.raises(DomainError) as refused:
        flush_session(**{**SOUND, **change})
    assert sentence in str(refused.value)
    assert pointer in (refused.value.pointer or "")


def test_ten_times_is_taken_once_it_was_read_twice() -> None:
    r = flush_session(**SOUND, passes=[FlushPass(0.3, 15_000, read_twice=True)]).result
    assert r.status == "falling"
