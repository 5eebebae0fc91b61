"""Leaves with their lengths, what happened to a pot, which leaves opened and which plants there ever were."""

from datetime import date
from typing import Any

import pytest

from fenwa.core.leaf.changes import Happened
from fenwa.core.leaf.sizes import LeafLength
from fenwa.store.leaf_models import Leaf, LeafLengthRow, Look, Series
from fenwa.store.leaf_rows import changes_between, leaves_of, opened_days, plants_ever, poured_days, series_kept
from fenwa.store.models import Decision, Event, Growth, Plant, Pour
from tests.conftest import TODAY, Client
from tests.store.rows import GONE, SIDE, ago, asked, put, two_pots

FIRST, SECOND, OTHERS = 41, 42, 43  # leaves: two of the first plant, one of the second


@pytest.fixture
def two(kept: Client) -> Client:
    two_pots(kept)
    with kept.store.reading() as session:
        other = session.query(Growth).filter(Growth.plant_id == 2).one().id
    put(
        kept,
        Leaf(id=SECOND, growth_id=1, opened_on=ago(20), number=2),
        Leaf(id=FIRST, growth_id=1, opened_on=ago(60), number=1, lost_on=ago(5)),
        Leaf(id=OTHERS, growth_id=other, opened_on=ago(30), number=1),
    )
    return kept


def length(leaf: int, days: int, mm: float, **more: Any) -> LeafLengthRow:
    return LeafLengthRow(leaf_id=leaf, on=ago(days), mm=mm, **more)


def look(days: int, **more: Any) -> Look:
    return Look(**({"pot_id": 1, "plant_id": 1, "on": ago(days)} | more))


def test_leaves_come_oldest_first_with_both_kinds_of_lengths(two: Client) -> None:
    put(
        two,
        look(10, leaf_id=SECOND, newest_leaf_mm=80.0, leaf_growing=True),
        look(2, leaf_id=SECOND, newest_leaf_mm=0.0, leaf_growing=False),
        look(1, leaf_id=SECOND),  # nobody measured
        look(3, newest_leaf_mm=75.0),  # of no leaf told
        length(FIRST, 10, 140.0, growing=False),
        length(FIRST, 12, 138.0),
        length(OTHERS, 4, 55.0, growing=True),
    )
    found = asked(two, lambda s: leaves_of(s, (1, 2), TODAY))
    assert [(x.id, x.opened_on, x.number, x.lost_on) for x in found[1]] == [
        (FIRST, ago(60), 1, ago(5)),
        (SECOND, ago(20), 2, None),
    ]
    assert found[1][0].lengths == (LeafLength(ago(10), 140.0, False), LeafLength(ago(12), 138.0, None))
    assert found[1][1].lengths == (LeafLength(ago(10), 80.0, True), LeafLength(ago(2), 0.0, False))
    assert [x.lengths for x in found[2]] == [(LeafLength(ago(4), 55.0, True),)]
    assert asked(two, lambda s: leaves_of(s, (2,), TODAY)).keys() == {2}
    assert asked(two, lambda s: leaves_of(s, (), TODAY)) == {}


def test_leaves_and_lengths_archived_of_later_days_and_of_other_organs_are_left_out(two: Client) -> None:
    put(
        two,
        Leaf(growth_id=1, opened_on=ago(9), number=3, archived_at=GONE),
        Leaf(growth_id=1, opened_on=ago(-1), number=4),
        Leaf(growth_id=1, opened_on=ago(9), number=1, organ="root"),
        look(10, leaf_id=SECOND, newest_leaf_mm=80.0, archived_at=GONE),
        look(-1, leaf_id=SECOND, newest_leaf_mm=90.0),
        length(SECOND, 10, 70.0, archived_at=GONE),
        length(SECOND, -1, 95.0),
        length(SECOND, 0, 81.0),
    )
    found = asked(two, lambda s: leaves_of(s, (1,), TODAY))[1]
    assert [x.id for x in found] == [FIRST, SECOND]
    assert found[1].lengths == (LeafLength(TODAY, 81.0, None),)
    before = asked(two, lambda s: leaves_of(s, (1,), ago(20)))[1]
    assert [x.id for x in before] == [FIRST, SECOND], "a leaf that opens on the day is there"
    assert [x.id for x in asked(two, lambda s: leaves_of(s, (1,), ago(21)))[1]] == [FIRST]


def pour(days: int, job: str, pot_id: int = 1, **more: Any) -> Pour:
    return Pour(pot_id=pot_id, on=ago(days), job=job, route="root", **more)


def test_days_of_feeds_and_flushes_are_told_once_each(two: Client) -> None:
    put(
        two,
        pour(3, "feed"),
        pour(3, "feed"),
        pour(3, "flush"),
        pour(9, "feed"),
        pour(5, "plain"),
        pour(4, "feed", archived_at=GONE),
        pour(10, "feed"),
        pour(-1, "feed"),
        pour(6, "flush", pot_id=2),
    )
    found = asked(two, lambda s: poured_days(s, [1, 2], ago(9), TODAY))
    assert found == {1: {"feed": [ago(9), ago(3)], "flush": [ago(3)]}, 2: {"feed": [], "flush": [ago(6)]}}
    assert asked(two, lambda s: poured_days(s, [], ago(9), TODAY)) == {}


def test_what_happened_from_one_day_to_another_counts_both(two: Client) -> None:
    """A plant is photographed, then repotted: what was done on the day of the first photo lies between the two."""
    put(
        two,
        Event(pot_id=1, on=ago(20), kind="repotted"),
        Event(pot_id=1, on=ago(12), kind="moved", note="to the north window"),
        Event(pot_id=1, on=ago(5), kind="moved"),
        Event(pot_id=1, on=ago(21), kind="too early"),
        Event(pot_id=1, on=ago(4), kind="too late"),
        Event(pot_id=1, on=ago(10), kind="archived", archived_at=GONE),
        Event(pot_id=2, on=ago(10), kind="another pot's"),
        Decision(pot_id=1, on=ago(20), what="wait for a leaf"),
        Decision(pot_id=1, on=ago(8), what="archived", archived_at=GONE),
        pour(20, "flush"),
        pour(15, "feed"),
        pour(9, "feed"),
    )
    found = asked(two, lambda s: changes_between(s, 1, ago(20), ago(5)))
    assert found == [
        Happened(ago(20), "flush", True),
        Happened(ago(20), "repotted"),
        Happened(ago(20), "wait for a leaf"),
        Happened(ago(15), "2 feeds from here"),
        Happened(ago(12), "to the north window"),
        Happened(ago(5), "moved"),
    ]
    assert asked(two, lambda s: changes_between(s, 1, ago(10), ago(9))) == [Happened(ago(9), "1 feed from here")]
    assert asked(two, lambda s: changes_between(s, 2, ago(9), TODAY)) == []


def test_days_leaves_opened_are_of_leaves_up_to_the_day(two: Client) -> None:
    put(
        two,
        Leaf(growth_id=SIDE, opened_on=ago(3), number=1),
        Leaf(growth_id=1, opened_on=ago(2), organ="spike"),
        Leaf(growth_id=1, opened_on=ago(1), archived_at=GONE),
    )

    def days(until: date, *plants: int) -> dict[int, set[date]]:
        found = asked(two, lambda s: opened_days(s, until, plants or None))
        return {plant: set(on) for plant, on in found.items()}

    assert days(TODAY) == {1: {ago(60), ago(20), ago(3)}, 2: {ago(30)}}
    assert days(ago(20), 1) == {1: {ago(60), ago(20)}}
    assert days(ago(61)) == {}
    assert asked(two, lambda s: opened_days(s, TODAY, [])) == {}, "of none, not of all"


def test_series_and_plants_that_count(two: Client) -> None:
    put(
        two,
        Series(what="later", on=ago(1), days=[0]),
        Series(what="archived", on=ago(9), days=[0], archived_at=GONE),
        Series(what="earlier", on=ago(5), days=[0, 7]),
        Plant(id=11, pot_id=1, profile_id="nepenthes", archived_at=GONE),
        Plant(id=12, pot_id=1, profile_id="nepenthes", archived_at=GONE, died_on=ago(3)),
    )
    assert [x.what for x in asked(two, series_kept)] == ["earlier", "later"]
    assert [x.id for x in asked(two, plants_ever)] == [1, 2, 12], "the dead were there; a mistake was not"
