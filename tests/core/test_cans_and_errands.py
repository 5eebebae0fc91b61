"""Cans as they are poured, and jobs besides water: hand-worked values at the edges."""

from __future__ import annotations

from datetime import date, timedelta

import pytest

from fenwa.core.care.errands import (
    Said,
    ends_quarantine,
    errands,
    meter_check,
    rinsed_on,
    still_asked,
    water_retest,
)
from fenwa.core.mix.can import ec_of_can, job_of_pour, left_of_can, left_of_pack, litres_for

D = date(2026, 11, 20)


@pytest.mark.parametrize(
    ("measured", "predicted", "reads"), [(None, 400.0, 400.0), (0.0, 400.0, 0.0), (380.0, 400.0, 380.0)]
)
def test_a_can_reads_what_was_measured_even_nothing(measured: float | None, predicted: float, reads: float) -> None:
    assert ec_of_can(measured, predicted) == reads


@pytest.mark.parametrize(
    ("dose", "flush", "job"),
    [
        (None, False, "plain"),
        (0.0, False, "plain"),
        (0.01, False, "feed"),
        (0.01, True, "flush"),
        (None, True, "flush"),
    ],
)
def test_what_a_pour_is_called(dose: float | None, flush: bool, job: str) -> None:
    assert job_of_pour(dose, flush) == job


@pytest.mark.parametrize(
    ("made", "seen", "poured", "left"),
    [(5.0, None, 2.0, 3.0), (5.0, 1.0, 0.5, 0.5), (5.0, 0.0, 0.0, 0.0), (5.0, None, 6.0, 0.0)],
)
def test_what_is_left_of_a_can(made: float, seen: float | None, poured: float, left: float) -> None:
    assert left_of_can(made, seen, poured) == left


@pytest.mark.parametrize(
    ("seen", "used", "density", "left"), [(100.0, 40.0, None, 60.0), (100.0, 60.0, 1.2, 50.0), (10.0, 40.0, None, 0.0)]
)
def test_what_is_left_of_a_pack_in_its_own_unit(seen: float, used: float, density: float | None, left: float) -> None:
    assert left_of_pack(seen, used, density) == pytest.approx(left)


@pytest.mark.parametrize(("pours", "litres"), [((), 0.0), ((1.0,), 1.1), ((0.5, 0.5, 1.0), 2.1), ((2.0,), 2.1)])
def test_a_can_holds_a_little_more_than_its_pots_take(pours: tuple[float, ...], litres: float) -> None:
    assert litres_for(pours) == litres


def test_an_errand_is_asked_until_done_and_again_when_put_off_has_passed() -> None:
    found = errands([], [meter_check(1, "Pen", D), water_retest(2, "Rain", None)], D)
    assert [e.id for e in found] == [f"meter-1-check-{D.isoformat()}"]
    assert not found[0].done_here, "a check is settled by logging it"
    later = Said(errand_id=found[0].id, kind="meter check", on=D, put_off_days=3)
    assert still_asked(found, [later], D + timedelta(days=2)) == []
    assert still_asked(found, [later], D + timedelta(days=3)) == found
    done = Said(errand_id=found[0].id, kind="meter check", on=D)
    assert still_asked(found, [done], D + timedelta(days=400)) == []


def test_a_tray_put_off_is_not_a_tray_rinsed() -> None:
    said = [
        Said(errand_id="a", kind="rinse tray pot", on=D, pot_id=1),
        Said(errand_id="b", kind="rinse tray pot", on=D - timedelta(days=9), pot_id=1),
        Said(errand_id="c", kind="rinse tray pot", on=D, pot_id=2, put_off_days=7),
        Said(errand_id="d", kind="look again", on=D, pot_id=3),
    ]
    assert rinsed_on(said) == {1: D}


@pytest.mark.parametrize(("kind", "ends"), [("end of quarantine", True), ("look again", False), (None, False)])
def test_only_its_own_errand_ends_a_quarantine(kind: str | None, ends: bool) -> None:
    assert ends_quarantine(kind) is ends
