"""Which water a plant is given: clean before uncertain, the grower's order, and the least bad where none is fit."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.errors import OutOfRange, Underspecified
from fenwa.core.water.choice import (
    OVER_SHORT_TERM_DAYS,
    SHORT_TERM_DAYS,
    Offered,
    choose_waters,
    fit_waters,
    least_bad_water,
)
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.usual import usual_water
from fenwa.core.water.verdict import unmeasured_verdict, water_verdict

TODAY = date(2026, 11, 23)
BOG = PlantNeeds(ec_max_uS_cm=100, ec_short_term_max_uS_cm=180, name="a sundew")
LAX = PlantNeeds(ec_max_uS_cm=800, ec_short_term_max_uS_cm=1200, name="an aroid")


def read(row: int, ec: float, needs: PlantNeeds = BOG, kind: str = "rain", **more: object) -> Offered:
    known = KnownOfWater(kind=kind, disinfectant="none")  # type: ignore[arg-type]
    verdict = water_verdict(ec25_uS_cm=ec, water=known, plant=needs).result
    return Offered(
        id=row, name=f"W{row}", low_uS_cm=ec, usual_uS_cm=ec, high_uS_cm=ec, measured=True, verdict=verdict, **more
    )  # type: ignore[arg-type]


def unread(row: int, kind: str, needs: PlantNeeds = BOG, **more: object) -> Offered:
    usual = usual_water(kind=kind).result  # type: ignore[arg-type]
    verdict = unmeasured_verdict(usual, KnownOfWater(kind=kind, disinfectant="none"), needs).result  # type: ignore[arg-type]
    low, mid, high = usual.low_uS_cm, usual.usual_uS_cm, usual.high_uS_cm
    return Offered(
        id=row, name=kind, low_uS_cm=low, usual_uS_cm=mid, high_uS_cm=high, measured=False, verdict=verdict, **more
    )  # type: ignore[arg-type]


def ids(offered: list[Offered], needs: PlantNeeds = BOG, order: str = "own") -> tuple[int, ...]:
    return tuple(w.id for w in fit_waters(offered, needs, order))  # type: ignore[arg-type]


def test_a_borderline_water_never_goes_before_a_clean_one_for_a_strict_plant() -> None:
    near, clean = read(1, 98, preference=1), read(2, 20, preference=2)
    assert ids([near, clean]) == (2,)
    assert ids([near]) == (1,), "alone it is given, and said"
    lax = [read(1, 780, LAX, preference=1), read(2, 20, LAX, preference=2)]
    assert ids(lax, LAX) == (1, 2), "a plant that bears it keeps the grower's order"


def test_the_growers_order_rules_and_without_one_what_costs_less() -> None:
    bought, fell = read(1, 20, price_per_L=1.6), read(2, 30, fell=True)
    assert ids([bought, fell]) == (2, 1), "no order was given"
    assert ids([read(1, 20, price_per_L=1.6, preference=1), fell]) == (1, 2)
    assert ids([read(1, 30), read(2, 20)], order="purest") == (2, 1)
    assert ids([read(1, 30, price_per_L=2), read(2, 40, price_per_L=1)], order="cheapest") == (2, 1)


def test_what_nobody_measured_is_taken_where_nothing_clean_is_at_hand() -> None:
    assert ids([unread(1, "jug-filtered"), unread(2, "distilled")]) == (2,)
    assert ids([unread(1, "jug-filtered")]) == (1,)
    assert ids([unread(1, "borehole")]) == (), "the whole of its usual range is over: the least bad, and said"


@pytest.mark.parametrize(("ec", "days"), [(150, SHORT_TERM_DAYS), (640, OVER_SHORT_TERM_DAYS)])
def test_the_least_bad_has_its_days_and_they_run_from_the_first_pour(ec: float, days: int) -> None:
    found = choose_waters([read(1, 900), read(2, ec)], BOG, TODAY)
    assert found.ids == (2,)
    assert found.least_bad is not None
    assert found.least_bad.change_by == TODAY + timedelta(days=days)
    began = choose_waters([read(2, ec)], BOG, TODAY, since=TODAY - timedelta(days=30)).least_bad
    assert began is not None
    assert "its time ended" in began.sentence
    computed = least_bad_water(offered=[read(1, 900), read(2, ec)], plant=BOG, today=TODAY)
    assert computed.working.steps[0].value == pytest.approx(ec - 100)


def test_what_is_known_to_harm_is_never_the_least_bad() -> None:
    soft = read(1, 150, kind="softened")
    found = choose_waters([soft], BOG, TODAY)
    assert (found.ids, found.least_bad) == ((), None)
    assert "softened water carries sodium" in found.note
    with pytest.raises(Underspecified, match="known to harm"):
        least_bad_water(offered=[soft], plant=BOG, today=TODAY)
    with pytest.raises(OutOfRange, match="Limit"):
        least_bad_water(offered=[soft], plant=PlantNeeds(ec_max_uS_cm=0), today=TODAY)


@given(
    waters=st.lists(st.tuples(st.floats(1, 2000), st.booleans(), st.integers(1, 3)), min_size=1, max_size=6),
    limit=st.sampled_from([80.0, 150.0, 400.0, 900.0]),
)
def test_never_a_dirtier_kind_of_answer_than_the_waters_at_hand_allow(
    waters: list[tuple[float, bool, int]], limit: float
) -> None:
    needs = PlantNeeds(ec_max_uS_cm=limit, ec_short_term_max_uS_cm=1.5 * limit)
    offered = [read(i, ec, needs, "softened" if bad else "rain", preference=p) for i, (ec, bad, p) in enumerate(waters)]
    found = choose_waters(offered, needs, TODAY)
    good = [w for w in offered if not w.refused]
    assert bool(found.ids) is bool(good), "no plant is left dry while a water at hand does not harm it"
    chosen = [w for w in offered if w.id in found.ids]
    assert all(not w.refused for w in chosen)
    if any(w.verdict.amount == "within" for w in good):
        assert all(w.verdict.amount != "over" for w in chosen)
        assert found.least_bad is None
