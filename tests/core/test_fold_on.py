"""A fold that goes on from where it stood leaves what a fold of the whole log leaves, wherever it is taken up."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from fenwa.core.care.log import LoggedPour, PoursSoFar, pours_so_far
from fenwa.core.pot.fold import fold_logs
from fenwa.core.pot.folded import CHUNK, Folded, Standing, worth_keeping
from fenwa.core.pot.happened import PotLog
from tests.core.test_fold_many import a_log, alike, day

TODAY = day(900)


def after(x: PotLog, since: Standing) -> PotLog:
    """What came after, to go on with."""
    return PotLog(x.pot, [e for e in x.events if e.on > since.on], [r for r in x.readings if r.on > since.on], since)


def tail(whole: Folded, since: Standing) -> Folded:
    """The part of a whole fold that one which goes on draws anew."""
    return replace(
        whole,
        points=[p for p in whole.points if p.on > since.on],
        observations=[o for o in whole.observations if o.on > since.on],
    )


@pytest.mark.parametrize("seed", range(4))
def test_it_goes_on_from_every_day_it_kept_as_if_it_had_never_stopped(seed: int) -> None:
    rng = np.random.default_rng(seed)
    logs = [a_log(rng, 110) for _ in range(12)]
    whole = fold_logs(logs, TODAY)
    taken_up = [(x, out, s) for x, out in zip(logs, whole, strict=True) for s in out.standings]
    assert len(taken_up) > 12
    # all at once, and those that begin among those that go on
    again = fold_logs([*(after(x, s) for x, _, s in taken_up), *logs], TODAY)
    for (_, out, s), found in zip(taken_up, again[: len(taken_up)], strict=True):
        alike(found, tail(out, s))
        for one, other in zip(found.standings, (t for t in out.standings if t.on > s.on), strict=True):
            assert (one.on, one.steps, one.used, one.last_ec, one.unsure, one.cautions, one.crust_on) == (
                other.on,
                other.steps,
                other.used,
                other.last_ec,
                other.unsure,
                other.cautions,
                other.crust_on,
            )
            np.testing.assert_allclose(one.rows, other.rows, rtol=1e-9, atol=1e-9)
    for out, found in zip(whole, again[len(taken_up) :], strict=True):
        alike(found, out)


def test_nothing_can_go_on_before_the_ec_of_a_pour_is_known() -> None:
    """Until then the first reading of a later day tells how the medium began."""
    rng = np.random.default_rng(3)
    x = a_log(rng, 110)
    unread = [replace(e, ec_uS_cm=None) for e in x.events]
    last = replace(unread[-1], ec_uS_cm=300.0)
    assert fold_logs([PotLog(x.pot, [*unread[:-1], last])], TODAY)[0].standings == []


@pytest.mark.parametrize("newest", [1, 7, 64, 1000, 4321])
def test_an_entry_costs_no_more_than_it_lies_back_and_few_days_are_kept(newest: int) -> None:
    kept = [m for m in range(1, newest + 1) if worth_keeping(m, newest)]
    assert len(kept) <= 3 * newest.bit_length()
    assert newest in kept
    for entry in range(1, newest + 1):
        nearest = max((m for m in kept if m <= entry), default=0)
        assert newest - nearest <= 3 * (newest - entry) + 2, "refolded at most three times what lies after it"


def test_a_mark_that_is_dropped_is_never_wanted_again() -> None:
    for mark in range(1, 200):
        wanted = [worth_keeping(mark, newest) for newest in range(mark, 1200)]
        assert wanted == sorted(wanted, reverse=True)
    assert CHUNK >= 2


def test_pours_said_one_by_one_say_the_same_as_all_at_once() -> None:
    rng = np.random.default_rng(8)
    pours = sorted(
        (
            LoggedPour(
                day(int(rng.integers(0, 60))),
                str(rng.choice(["feed", "plain", "flush"])),
                str(rng.choice(["top", "cup", "leaf spray", "tray"])),
                float(rng.uniform(0.1, 1)) if rng.random() < 0.8 else None,
                float(rng.uniform(20, 900)) if rng.random() < 0.8 else None,
                bool(rng.random() < 0.2),
            )
            for _ in range(80)
        ),
        key=lambda p: p.on,
    )
    whole = pours_so_far(pours)
    for cut in range(0, 81, 9):
        assert pours_so_far(pours[cut:], pours_so_far(pours[:cut])) == whole
    rooted = [p for p in pours if not p.piece and p.route in ("top", "tray")]
    assert whole.last_pour_on == rooted[-1].on
    assert whole.waterings == tuple(sorted({p.on for p in rooted})[-13:])
    assert whole.begun_on == next(p.on for p in pours if not p.piece)
    assert PoursSoFar().usual_volume_L is None
    assert isinstance(whole.last_spray_on, date)
