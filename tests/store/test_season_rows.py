"""A plant's life between two days: both are in, what is archived or of another is not, and each growth has its own.

Every row stands once before, on and after either end of the span.
"""

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from sqlalchemy.orm import Session

from fenwa.core.evidence.seasons import SeasonPoint, SeasonPour
from fenwa.store.leaf_models import Leaf, Look, OrganRow
from fenwa.store.models import Climate, Growth, PhaseSpan, Pour
from fenwa.store.season_rows import (
    first_roots,
    flowers_between,
    growths_seen,
    heights_between,
    leaves_between,
    nights_between,
    phases_noted,
    season_logs,
    season_pours,
)
from tests.conftest import TODAY, Client
from tests.store.rows import DAY, GONE, SIDE, asked, put, two_pots

SINCE, UNTIL = TODAY - 20 * DAY, TODAY - 10 * DAY
DAYS = (-1, 0, 5, 10, 11)  # since the first; the span is ten days long


def on(days: int) -> date:
    return SINCE + days * DAY


def height(days: int, cm: float, **more: Any) -> Look:
    return Look(**({"pot_id": 1, "plant_id": 1, "on": on(days), "growth_cm": cm} | more))


def flowering(client: Client, days: int, count: float | None, plant: int = 1, **more: Any) -> None:
    (look,) = put(client, Look(pot_id=plant, plant_id=plant, on=on(days), **more))
    put(client, OrganRow(look_id=look, organ="flowers", count=count))


@pytest.fixture
def two(kept: Client) -> Client:
    return two_pots(kept)


KINDS: dict[str, tuple[Callable[[int, int], Any], Callable[[Session], dict[int, list[Any]]]]] = {
    "pours": (
        lambda n, of: Pour(pot_id=of, on=on(n), job="plain", route="overhead", volume_L=0.2, water_id=1),
        lambda s: season_pours(s, [1], SINCE, UNTIL),
    ),
    "heights": (
        lambda n, of: height(n, 4.0 + n, pot_id=of, plant_id=of),
        lambda s: heights_between(s, [1], SINCE, UNTIL),
    ),
    "leaves": (
        lambda n, of: Leaf(growth_id=of, opened_on=on(n), organ="leaf"),
        lambda s: leaves_between(s, [1], SINCE, UNTIL),
    ),
    "nights": (
        lambda n, of: Climate(place_id=of, on=on(n), night_C=12.0 + n),
        lambda s: nights_between(s, [1], SINCE, UNTIL),
    ),
}


def day_of(point: Any) -> int:
    return point if isinstance(point, int) else point.day


@pytest.mark.parametrize("kind", KINDS)
def test_both_ends_are_in_and_neither_day_beside_them(two: Client, kind: str) -> None:
    made, ask = KINDS[kind]
    put(two, *[made(n, 1) for n in reversed(DAYS)])
    found = asked(two, ask)
    assert [day_of(x) for x in found[1]] == [0, 5, 10], "oldest first, counted from the first day"
    assert set(found) == {1}


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_archived_or_of_another_is_left_out(two: Client, kind: str) -> None:
    made, ask = KINDS[kind]
    archived = made(5, 1)
    archived.archived_at = GONE
    put(two, archived)
    if kind != "nights":  # a house of one place
        put(two, made(5, 2))
    assert asked(two, ask) == {}


@pytest.mark.parametrize(
    ("job", "ec", "nitrogen"),
    [("plain", 34.0, 0.0), ("flush", None, 0.0), ("feed", 600.0, None)],
)
def test_water_brings_no_nitrogen_and_a_feed_of_unknown_strength_an_unknown_one(
    two: Client, job: str, ec: float | None, nitrogen: float | None
) -> None:
    put(two, Pour(pot_id=1, on=on(3), job=job, route="overhead", volume_L=0.25, ec_uS_cm=ec, water_id=1))
    assert asked(two, lambda s: season_pours(s, [1], SINCE, UNTIL)) == {1: [SeasonPour(3, 0.25, nitrogen, ec)]}


def test_a_side_growth_has_its_heights_to_itself(two: Client) -> None:
    """A look names its growth where that does not lead; what names none is of the leading one."""
    put(two, height(1, 10.0), height(2, 3.0, growth_id=SIDE), height(3, 11.0), height(4, 3.5, growth_id=SIDE))

    def heights(growth_id: int | None) -> list[SeasonPoint]:
        found: dict[int, list[SeasonPoint]] = asked(two, lambda s: heights_between(s, [1], SINCE, UNTIL, growth_id))
        return found.get(1, [])

    leading = [SeasonPoint(1, 10.0), SeasonPoint(3, 11.0)]
    assert heights(None) == leading
    assert heights(1) == leading
    assert heights(SIDE) == [SeasonPoint(2, 3.0), SeasonPoint(4, 3.5)]


def test_a_growth_keeps_what_its_leaf_was_measured_with_when_another_leads(two: Client) -> None:
    """The side growth is let lead: what named none and measured a leaf of the old one stays with that."""
    put(two, Leaf(id=40, growth_id=1, opened_on=on(0)), Leaf(id=41, growth_id=SIDE, opened_on=on(6)))
    put(two, height(1, 10.0, leaf_id=40), height(3, 3.0, growth_id=SIDE))
    two.made(f"/api/growths/{SIDE}/lead")
    put(two, height(8, 6.0, leaf_id=41), height(9, 6.5))

    def heights(growth_id: int | None) -> list[float]:
        found = asked(two, lambda s: heights_between(s, [1], SINCE, UNTIL, growth_id))
        return [x.value for x in found.get(1, [])]

    assert heights(1) == [10.0]
    assert heights(SIDE) == [3.0, 6.0, 6.5]
    assert heights(None) == [10.0, 3.0, 6.0, 6.5], "whatever led then, and what leads now"


def test_leaves_of_one_growth_are_told_from_all_of_the_plant(two: Client) -> None:
    put(two, *[Leaf(growth_id=g, opened_on=on(n)) for g, n in ((1, 2), (SIDE, 4), (1, 6))])
    put(two, Leaf(growth_id=1, opened_on=on(7), organ="spike"))
    assert asked(two, lambda s: leaves_between(s, [1], SINCE, UNTIL)) == {1: [2, 4, 6]}
    assert asked(two, lambda s: leaves_between(s, [1], SINCE, UNTIL, SIDE)) == {1: [4]}


def test_the_most_flowers_that_a_look_counted(two: Client) -> None:
    """None counted is no nought; a nought that was counted is one; the days beside the span count for nothing."""
    for n, count in ((-1, 30.0), (0, 3.0), (5, 7.0), (6, None), (10, 2.0), (11, 40.0)):
        flowering(two, n, count)
    flowering(two, 5, 99.0, archived_at=GONE)
    flowering(two, 5, None, plant=2)
    assert asked(two, lambda s: flowers_between(s, [1, 2], SINCE, UNTIL)) == {1: 7.0}
    flowering(two, 6, 0.0, plant=2)
    assert asked(two, lambda s: flowers_between(s, [1, 2], SINCE, UNTIL)) == {1: 7.0, 2: 0.0}


def test_growths_come_newest_first_by_their_first_leaf_and_none_without_one(two: Client) -> None:
    put(
        two,
        Growth(id=10, plant_id=1, name="bare", leads=False),
        Growth(id=11, plant_id=1, leads=False, archived_at=GONE),
    )
    gone = Leaf(growth_id=SIDE, opened_on=on(-9), archived_at=GONE)
    put(two, gone, *[Leaf(growth_id=g, opened_on=on(n)) for g, n in ((1, 4), (1, 1), (SIDE, 3), (11, 5))])
    found = asked(two, lambda s: [(g.id, day) for g, day in growths_seen(s, 1)])
    assert found == [(SIDE, on(3)), (1, on(1))]


def test_phases_are_those_of_the_leading_growth(two: Client) -> None:
    put(
        two,
        PhaseSpan(growth_id=1, phase="rest", since=on(2)),
        PhaseSpan(growth_id=1, phase="dormant", since=on(3), archived_at=GONE),
        PhaseSpan(growth_id=SIDE, phase="rest", since=on(4)),
    )
    noted = asked(two, lambda s: phases_noted(s, 1))
    assert [x for x in noted if x[0] < TODAY] == [(on(2), "rest")]


@pytest.mark.parametrize(
    ("told", "count", "words"),
    [("seen", 3.0, "3"), ("seen", 0.0, "none"), ("none seen", None, "none"), ("seen", None, ""), ("seen", 2.5, "2.5")],
)
def test_the_first_look_that_counted_roots_is_told(two: Client, told: str, count: float | None, words: str) -> None:
    assert asked(two, lambda s: first_roots(s, 1)) == ""
    later, first = put(two, Look(pot_id=1, plant_id=1, on=on(6)), Look(pot_id=1, plant_id=1, on=on(2)))
    put(two, OrganRow(look_id=later, organ="root tips", count=9.0))
    put(two, OrganRow(look_id=first, organ="root tips", told=told, count=count))
    assert asked(two, lambda s: first_roots(s, 1)) == words


def test_a_log_puts_all_of_it_together_for_the_pot_and_its_place(two: Client) -> None:
    from fenwa.store.collection import pots_today

    for made, _ in KINDS.values():
        put(two, made(5, 1))
    flowering(two, 5, 4.0)
    logs = asked(two, lambda s: season_logs(s, pots_today(s, TODAY), SINCE, UNTIL))
    first, second = logs[1], logs[2]
    assert (first.woke_on, first.days, first.flowers) == (SINCE, 10, 4.0)
    assert [len(x) for x in (first.pours, first.heights, first.leaves, first.nights)] == [1, 1, 1, 1]
    assert [len(x) for x in (second.pours, second.heights, second.leaves, second.nights)] == [0, 0, 0, 1]
    assert second.flowers is None, "not counted is not none"
