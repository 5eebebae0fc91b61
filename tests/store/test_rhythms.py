"""A pot's rhythm is read from its newest pours alone, and is the rhythm of its whole log."""

from __future__ import annotations

from datetime import timedelta
from random import Random

import pytest
from sqlalchemy import insert

from fenwa.core.pot.ahead import RHYTHM_DAYS, RHYTHM_POURS, present_rhythm
from fenwa.store.collection import pots_today
from fenwa.store.log_rows import as_event, last_pours
from fenwa.store.models import Pour
from fenwa.store.pot_rhythms import with_rhythm
from fenwa.store.salt_of_pots import BallastShares
from fenwa.store.summary import open_pours, refresh_many
from tests.conftest import TODAY, Client, pot

ROUTES = ("top", "soak", "tray", "reservoir", "cup", "moss pole", "leaf spray")


@pytest.mark.parametrize("seed", range(12))
def test_the_newest_pours_have_the_rhythm_of_the_whole_log(kept: Client, seed: int) -> None:
    dice = Random(seed)
    kept.made("/api/pots", pot(code="P-02"))
    rows = [
        {
            "pot_id": pot_id,
            "water_id": 1,
            "on": TODAY - timedelta(days=dice.randint(0, RHYTHM_DAYS + 20)),
            "job": "plain",
            "route": dice.choice(ROUTES),
            "volume_L": dice.choice((None, 0.1, 0.25)),
            "ec_uS_cm": dice.choice((None, 20.0, 35.5, 400.0)),
            "archived_at": None,
        }
        for pot_id in (1, 2)
        for _ in range(dice.choice((0, 1, 3, 30, 90)))
    ]
    with kept.store.writing() as session:
        if rows:
            session.execute(insert(Pour), rows)
        refresh_many(session, [1, 2])
    with kept.store.reading() as session:
        pots = pots_today(session, TODAY)
        shares = BallastShares(session, [])
        whole = {
            p.id: present_rhythm([as_event(x, shares) for x in open_pours(session, p.id)], TODAY, p.spec) for p in pots
        }
        found = {p.id: rhythm for p, rhythm in with_rhythm(session, pots, TODAY)}
        assert found == {p.id: whole[p.id] for p in pots if whole[p.id] is not None and p.reading is not None}
        read = last_pours(session, [1, 2], TODAY - timedelta(days=RHYTHM_DAYS), TODAY, RHYTHM_POURS)
        assert all(len(mine) <= RHYTHM_POURS for mine in read.values())
