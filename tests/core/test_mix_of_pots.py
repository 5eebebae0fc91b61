"""What pots of a mix tell one of them: the sum without its own part is what the others alone tell."""

import numpy as np
import pytest

from fenwa.core.pot.learning import Knowledge, Mix, Pooled, pooled
from fenwa.core.pot.specification import LEARNT, SPREAD


def a_pot(rng: np.random.Generator) -> dict[str, Knowledge]:
    """Some parameters narrowed by readings, some as they were before."""
    read = {n: float(rng.choice([1.0, rng.uniform(0.2, 0.99)])) for n in LEARNT}
    return {n: Knowledge(n, float(rng.normal(0, SPREAD[n])), SPREAD[n] * read[n], SPREAD[n]) for n in LEARNT}


def near(one: tuple[Pooled, ...], other: tuple[Pooled, ...]) -> bool:
    return [(p.name, p.pots) for p in one] == [(p.name, p.pots) for p in other] and all(
        (a.shift, a.sd) == pytest.approx((b.shift, b.sd), rel=1e-9, abs=1e-12) for a, b in zip(one, other, strict=True)
    )


@pytest.mark.parametrize("seed", range(5))
def test_each_pot_is_told_by_the_others_only(seed: int) -> None:
    rng = np.random.default_rng(seed)
    pots = [a_pot(rng) for _ in range(12)]
    mix = Mix(pots, LEARNT)
    for i, own in enumerate(pots):
        assert near(mix.told(own), pooled(pots[:i] + pots[i + 1 :], LEARNT))
    assert near(mix.told(), pooled(pots, LEARNT)), "one that nobody read is told by all"


def test_alone_nobody_tells_it_anything() -> None:
    own = a_pot(np.random.default_rng(1))
    assert Mix([own], LEARNT).told(own) == ()
    assert Mix([], LEARNT).told() == ()


def test_a_pot_whose_readings_told_nothing_changes_nothing() -> None:
    rng = np.random.default_rng(2)
    pots = [a_pot(rng) for _ in range(4)]
    silent = {n: Knowledge(n, 0.0, SPREAD[n], SPREAD[n]) for n in LEARNT}
    assert near(Mix([*pots, silent], LEARNT).told(), Mix(pots, LEARNT).told())
    assert near(Mix([*pots, silent], LEARNT).told(silent), Mix(pots, LEARNT).told())
