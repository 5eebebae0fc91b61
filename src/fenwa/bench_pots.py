"""Speed of what pots learn: one log, five hundred, and the general optimiser on the same."""

from __future__ import annotations

from datetime import date, timedelta

import numpy as np

from fenwa.bench_pages import timed

POTS, POURS, READINGS = 500, 24, 12
SAMPLE = 4


def calibration() -> None:
    """Fit 500 pots of twelve readings each, and a few of them by the general optimiser."""
    from scipy.optimize import least_squares

    from fenwa.core.library.loader import get_medium
    from fenwa.core.pot.fold import fold_log, fold_logs
    from fenwa.core.pot.happened import PotLog
    from fenwa.core.pot.learning import reading_sd
    from fenwa.core.pot.methods import SPREAD_LN
    from fenwa.core.pot.specification import LEARNT, MEMBERS, PARAMETERS, SPREAD, PotSpec, WaterEvent, members_of

    rng = np.random.default_rng(14)
    media = [
        get_medium(m).medium() for m in ("peat_perlite", "sphagnum_loose", "bark_medium", "coir_perlite", "pumice")
    ]
    start = date(2026, 1, 1)
    pots = []
    for i in range(POTS):
        pot = PotSpec(float(rng.uniform(0.5, 3)), media[i % 5], 0.25, 0.05, u_ballast=0.05)
        read = set(rng.choice(POURS, READINGS, replace=False).tolist())
        events = [
            WaterEvent(
                start + timedelta(days=7 * k),
                0.6 * pot.medium.theta_cc * pot.volume_L,
                60.0 if k % 4 == 3 else 450.0,
                runoff_ec_uS_cm=float(rng.uniform(250, 700)) if k in read else None,
                method="pour-through",
                ballast_share=0.4,
            )
            for k in range(POURS)
        ]
        pots.append((pot, events))
    last = start + timedelta(days=7 * POURS)

    logs = [PotLog(p, e) for p, e in pots]

    def every() -> None:
        fold_logs(logs, last)

    all_of_them = timed(every)
    one = sorted(timed(lambda p=p, e=e: fold_log(p, e, last)) for p, e in pots[:50])[25]  # type: ignore[misc]

    def general(pot: PotSpec, events: list[WaterEvent]) -> None:
        sds = np.array([SPREAD[n] for n in LEARNT])

        def off(x: np.ndarray) -> np.ndarray:
            shifts = np.zeros((1, MEMBERS, len(PARAMETERS)))
            for name, value in zip(LEARNT, x, strict=True):
                shifts[..., PARAMETERS.index(name)] = value
            seen = fold_log(pot, events, last, learn=False, members=members_of([pot], shifts)).observations
            told = [np.log(o.runoff_ec / o.expected_runoff_ec) / reading_sd(SPREAD_LN[o.method], 400.0) for o in seen]
            return np.array([*told, *(x / sds)])

        least_squares(off, np.zeros(len(LEARNT)), bounds=(-3 * sds, 3 * sds))

    def sample() -> None:
        for p, e in pots[:SAMPLE]:
            general(p, e)

    slow = timed(sample) / SAMPLE
    print(f"what one pot of {READINGS} readings learns: {1000 * one:.0f} ms (target 50 ms)")
    print(f"  {POTS} pots: {all_of_them:.1f} s (target 5 s); by the general optimiser one by one, from {SAMPLE} pots:")
    print(f"  {slow * POTS:.0f} s, ratio {slow * POTS / all_of_them:.0f}")
