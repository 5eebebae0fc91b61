"""Going away: who dries out while nobody is home, and the fewest visits that serve them."""

from datetime import date, timedelta
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fenwa.core.care.away import AwayPlan, AwayPot, away_risk
from fenwa.core.errors import InputError, OutOfRange

LEAVING = date(2026, 12, 1)


def pot(i: int = 1, **more: object) -> AwayPot:
    """A pot watered every six days, four at the earliest and eight at the latest."""
    given_: dict[str, object] = {
        "id": i,
        "code": f"P-{i:02d}",
        "name": "fern",
        "place": "sill",
        "shelf_order": i,
        "interval_days": 6.0,
        "low_days": 4.0,
        "high_days": 8.0,
        "amount_mL": 100.0,
        "water": "Rain",
        "route": "top",
    }
    return AwayPot(**{**given_, **more})  # type: ignore[arg-type]


def plan(*pots: AwayPot, days: int = 14) -> AwayPlan:
    return away_risk(pots=list(pots), leaving=LEAVING, back=LEAVING + timedelta(days=days)).result


def december(*days: int) -> tuple[date, ...]:
    return tuple(date(2026, 12, d) for d in days)


@pytest.mark.parametrize(
    ("more", "days", "risk", "waters"),
    [
        ({}, 14, "high", december(7, 13)),  # watered on the 1st, dry by the 9th at the latest
        ({}, 3, "none", ()),  # back on the 4th, before the 5th
        ({}, 5, "none", ()),  # could be dry on the 5th, but nothing is due before the 7th
        ({}, 7, "low", december(7)),  # dry between the 5th and the 9th, back on the 8th
        ({"never_dry": True}, 7, "low", december(5)),  # by its shortest interval
        ({"keep_dry": True, "hold": "Dormant."}, 60, "leave alone", ()),
        ({"first_on": date(2026, 12, 4)}, 14, "high", december(4, 10)),  # as the round has it
        ({"first_on": date(2026, 11, 29)}, 14, "high", december(7, 13)),  # due before: watered on leaving
        ({"interval_days": 30.0, "low_days": 25.0, "high_days": 40.0}, 14, "none", ()),
        ({"interval_days": 0.5, "low_days": 0.4, "high_days": 0.6}, 2, "high", december(2)),  # each day, no oftener
    ],
)
def test_a_pot_is_told_by_the_days_it_lasts(
    more: dict[str, object], days: int, risk: str, waters: tuple[date, ...]
) -> None:
    row = plan(pot(**more), days=days).rows[0]
    assert (row.risk, row.days) == (risk, waters)


@pytest.mark.parametrize(
    ("more", "plain_only", "says"),
    [
        ({}, False, "needs a helper."),
        ({"hold": "Dormant."}, True, "Dormant. Plain water only."),
        ({"hold": "Dormant.", "keep_dry": True}, False, "Dormant. Do not water."),
    ],
)
def test_a_hold_keeps_feed_off_and_says_so(more: dict[str, object], plain_only: bool, says: str) -> None:
    row = plan(pot(**more)).rows[0]
    assert row.plain_only is plain_only
    assert row.sentence.endswith(says)


def test_pots_at_risk_stand_first_then_by_the_shelf() -> None:
    found = plan(
        pot(1, interval_days=30.0, low_days=25.0, high_days=40.0), pot(3), pot(2), pot(4, keep_dry=True, hold="Dry.")
    )
    assert [r.pot_id for r in found.rows] == [2, 3, 1, 4]
    assert found.at_risk == 2


@pytest.mark.parametrize(
    ("leaving", "back", "pots", "refused"),
    [
        (LEAVING, LEAVING, [pot()], InputError),
        (LEAVING, LEAVING - timedelta(days=1), [pot()], InputError),
        (LEAVING, LEAVING + timedelta(days=121), [pot()], InputError),
        (LEAVING, LEAVING + timedelta(days=5), [pot(interval_days=0.1)], OutOfRange),
        (LEAVING, LEAVING + timedelta(days=5), [pot(low_days=0.0)], OutOfRange),
        (LEAVING, LEAVING + timedelta(days=5), [pot(high_days=float("nan"))], OutOfRange),
    ],
)
def test_a_journey_or_a_pot_that_cannot_be_is_refused(
    leaving: date, back: date, pots: list[AwayPot], refused: type[Exception]
) -> None:
    with pytest.raises(refused):
        away_risk(pots=pots, leaving=leaving, back=back)


def some_pot(i: int) -> st.SearchStrategy[AwayPot]:
    return st.builds(
        lambda every, first, dry, never: pot(
            i,
            interval_days=float(every),
            low_days=max(0.5, every - 2.0),
            high_days=every + 2.0,
            first_on=None if first is None else LEAVING + timedelta(days=first),
            keep_dry=dry,
            never_dry=never,
            hold="Dry." if dry else "",
        ),
        st.integers(1, 12),
        st.none() | st.integers(-3, 12),
        st.booleans(),
        st.booleans(),
    )


POTS = st.integers(1, 4).flatmap(lambda n: st.tuples(*(some_pot(i) for i in range(1, n + 1))))


@settings(max_examples=120, deadline=None)
@given(pots=POTS, days=st.integers(1, 16))
def test_each_watering_is_served_on_its_day_or_the_day_before_by_the_fewest_visits(
    pots: tuple[AwayPot, ...], days: int
) -> None:
    found = plan(*pots, days=days)
    wanted = {(r.pot_id, on) for r in found.rows if r.risk in ("high", "low") for on in r.days}
    visited = {(i, v.on) for v in found.visits for i in v.pot_ids}
    for i, on in wanted:
        assert {(i, on), (i, on - timedelta(days=1))} & visited
    dry = {p.id for p in pots if p.keep_dry}
    assert not dry & {i for i, _ in visited}
    moments = sorted({on for _, on in wanted})
    for fewer in range(len(found.visits)):
        for chosen in combinations(moments, fewer):
            assert not all(any(on - timedelta(days=1) <= c <= on for c in chosen) for _, on in wanted)


@settings(max_examples=80, deadline=None)
@given(pots=POTS, days=st.integers(1, 30), longer=st.integers(0, 60))
def test_a_longer_journey_never_lowers_a_risk_and_no_pot_changes_another(
    pots: tuple[AwayPot, ...], days: int, longer: int
) -> None:
    rank = {"leave alone": 0, "none": 1, "low": 2, "high": 3}
    short = {r.pot_id: r for r in plan(*pots, days=days).rows}
    long = {r.pot_id: r for r in plan(*pots, days=days + longer).rows}
    for p in pots:
        assert rank[long[p.id].risk] >= rank[short[p.id].risk]
        assert plan(p, days=days).rows[0] == short[p.id]
