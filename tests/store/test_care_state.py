"""What rules pots beside their log: prills still running, a plant's own figures, skips, and memory kept in step."""

from datetime import date, timedelta

import pytest

from fenwa.core.care.vocabulary import SKIPPED, TREATED
from fenwa.core.library.loader import fertilizers
from fenwa.store import models
from fenwa.store.care_state import profile_in_force
from fenwa.store.collection import pots_today
from fenwa.store.pot_today import PotToday
from fenwa.store.summary import touch, touch_all
from tests.conftest import TODAY, Client, pot

DAY = timedelta(days=1)


def the_pot(client: Client, on: date = TODAY) -> PotToday:
    with client.store.reading() as session:
        return pots_today(session, on)[0]


@pytest.mark.parametrize(("days", "running"), [(0, True), (100, True), (215, False)])
def test_prills_hold_feed_while_they_run(kept: Client, days: int, running: bool) -> None:
    with kept.store.writing() as session:
        product = next(p for p in session.query(models.Product) if p.library_id == "prills_14_8_11_six_months")
        session.add(models.Feeding(pot_id=1, product_id=product.id, on=TODAY - days * DAY, amount=3, unit="g"))
        touch(session, 1)
    found = [h for h in the_pot(kept).holds if h.id == "prills running"]
    assert bool(found) is running
    assert fertilizers()["prills_14_8_11_six_months"].label.longevity_days == 180
    assert all("about" in h.release for h in found)


def test_a_plants_own_figures_stand_before_its_kinds(kept: Client) -> None:
    shipped = the_pot(kept).profile.source_water.ec_max_uS_cm
    for plant_id, most in ((None, 200), (1, 150)):
        with kept.store.writing() as session:
            session.add(
                models.ProfileCopy(
                    profile_id="paphiopedilum",
                    plant_id=plant_id,
                    word="",
                    figures={"source_water": {"ec_ideal_max_uS_cm": 100, "ec_max_uS_cm": most}},
                )
            )
            touch_all(session)
        now = the_pot(kept)
        assert (now.profile.source_water.ec_max_uS_cm, now.own_figures) == (most, True)
        assert now.profile.root_zone == the_pot(kept).profile.root_zone
    with kept.store.reading() as session:
        assert profile_in_force(session, "paphiopedilum").source_water.ec_max_uS_cm == 200 != shipped


def test_a_skipped_pot_waits_for_its_day_and_a_treated_one_for_its_label(kept: Client) -> None:
    with kept.store.writing() as session:
        session.add(models.Decision(pot_id=1, on=TODAY, what=SKIPPED, why="still heavy", look_again_on=TODAY + DAY))
        session.add(models.Event(pot_id=1, on=TODAY - DAY, kind=TREATED, days=7))
        touch(session, 1)
    assert the_pot(kept).skipped_until == TODAY + DAY
    assert [h.id for h in the_pot(kept).holds if "leaf spray" in h.blocks] == ["treated"]
    assert kept.get("/api/round")["plan"]["cans"] == []
    assert [h.id for h in the_pot(kept, TODAY + 7 * DAY).holds] == []


def test_a_medium_of_parts_holds_the_water_of_its_parts(kept: Client) -> None:
    with kept.store.writing() as session:
        row = session.get_one(models.Pot, 1)
        row.medium_parts = [{"medium_id": "bark_medium", "parts": 2}, {"medium_id": "sphagnum_loose", "parts": 1}]
        touch(session, 1)
    found = the_pot(kept).spec.medium
    assert found.theta_cc == pytest.approx((2 * 0.25 + 0.5) / 3)
    assert found.name.startswith("2:1 ")


def test_a_learnt_interval_moves_the_round_only_when_asked(kept: Client) -> None:
    for ago in (20, 17, 14, 11, 8, 5):
        kept.made("/api/pours", {"pot_ids": [1], "on": (TODAY - ago * DAY).isoformat(), "water_id": 1, "volume": 200})
    assert (the_pot(kept).interval.days, the_pot(kept).interval.learnt_from) == (6, 0)
    assert kept.get("/api/round")["plan"]["pots_due"] == 0
    kept.made("/api/pots/1/care", {"interval_by": "learnt"})
    assert (the_pot(kept).interval.days, the_pot(kept).interval.learnt_from) == (3, 5)
    assert kept.get("/api/round")["plan"]["pots_due"] == 1


def test_two_pots_keep_apart_what_was_written_of_one(kept: Client) -> None:
    kept.made("/api/pots", pot(code="P-02"))
    kept.made("/api/pots/2/phase", {"phase": "rest", "since": "2026-11-01"})
    kept.made("/api/pots/2/override", {"hold_id": "resting", "word": "warm"})
    with kept.store.reading() as session:
        one, two = pots_today(session, TODAY)
    assert (one.holds, [h.word for h in two.holds]) == ((), ["warm"])
