"""Marks, balances and runs of leaves: what never counts, at the edges and under random logs."""

from datetime import date, timedelta
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.errors import InputError, OutOfRange
from fenwa.core.leaf.asked import (
    LookBefore,
    at_same_age,
    likely_finished,
    longest_unseen,
    offered,
    organs_asked,
    same_as_last,
)
from fenwa.core.leaf.balance import LeafCount, TrendLeaf, division_bulbs, leaf_balance, leaf_trend, offset_ready
from fenwa.core.leaf.laid import AgedLeaf, SharedLine, aged, leaves_at_age, season_starts
from fenwa.core.leaf.marks import BROWN, Mark, SeenMark, counted_kinds, first_reading, new_marks
from fenwa.core.leaf.organs import BudLoss, LookFigures, SeenOrgan, bloom, bloom_of, measures_now, organ_share
from fenwa.core.leaf.series import series_days
from fenwa.core.leaf.sizes import LeafLength, SeenLeaf
from fenwa.core.leaf.suppliers import Arrival, suppliers_of

DAY = date(2026, 5, 1)
LEAF_MARKS = ("tip", "rim", "crisp", "spot", "yellow oldest", "pale")


def day(n: int) -> date:
    return DAY + timedelta(days=n)


marks = st.lists(
    st.builds(
        SeenMark,
        kind=st.sampled_from(LEAF_MARKS),
        on=st.integers(0, 200).map(day),
        leaf=st.integers(1, 4),
        mm=st.none() | st.floats(0, 40),
        leaf_mm=st.just(100.0),
    ),
    max_size=12,
)


@given(seen=marks, old=marks, arrived=st.none() | st.integers(0, 200).map(day))
def test_an_old_mark_never_changes_what_counts(seen: list[SeenMark], old: list[SeenMark], arrived: date | None) -> None:
    """Scars on leaves of their own, whatever their number and size, leave count and burn as they were."""
    scars = [SeenMark(m.kind, m.on, (m.leaf or 0) + 10, m.place, "", None, 100.0, True) for m in old]
    alone, beside = (new_marks(marks=x, arrived_on=arrived).result for x in (seen, [*seen, *scars]))
    assert (beside.counting, beside.burn_points) == (alone.counting, alone.burn_points)


once = st.dictionaries(st.tuples(st.integers(1, 4), st.sampled_from(LEAF_MARKS)), st.none() | st.floats(0, 40))


@given(seen=once, k=st.floats(0.1, 10))
def test_new_burn_is_the_same_in_any_unit(seen: dict[tuple[int, Any], float | None], k: float) -> None:
    """Marks of one look, in millimetres and in any other unit of length."""

    def burn(unit: float) -> float | None:
        found = [
            SeenMark(kind, DAY, leaf, mm=None if mm is None else unit * mm, leaf_mm=unit * 100)
            for (leaf, kind), mm in seen.items()
        ]
        return new_marks(marks=found).result.burn_points

    one, other = burn(1.0), burn(k)
    assert (one is None) == (other is None)
    assert one is None or other == pytest.approx(one)


def test_a_mark_with_a_cause_of_its_own_is_not_the_feeds() -> None:
    rubbed = SeenMark("rim", DAY, 1, "rim", cause="rubbed")
    eaten = SeenMark("spot", DAY, 2, cause="pest")
    found = new_marks(marks=[rubbed, eaten]).result
    assert [m.state for m in found.marks] == ["own cause", "own cause"]
    assert found.counting == 0
    assert counted_kinds([rubbed, eaten]) == ("spot",), "a pest is there to be seen; what rubbed is nothing"


def test_travel_ends_after_a_fortnight_and_a_scar_counts_by_what_it_grew() -> None:
    for days, state in ((14, "travel"), (15, "new")):
        found = new_marks(marks=[SeenMark("tip", day(days), 1)], arrived_on=DAY).result
        assert found.marks[0].state == state
    scar = [SeenMark("tip", DAY, 1, mm=4.0, old=True), SeenMark("tip", day(90), 1, mm=4.5, old=True)]
    assert new_marks(marks=scar).result.counting == 0, "half a millimetre is the ruler's"


@pytest.mark.parametrize("kind", get_args(Mark))
def test_only_brown_is_felt(kind: Mark) -> None:
    mark = SeenMark(kind, DAY, texture="crisp")
    if kind in BROWN:
        assert new_marks(marks=[mark]).result.counting == 1
    else:
        with pytest.raises(InputError) as refused:
            new_marks(marks=[mark])
        assert refused.value.pointer == "/marks/0/texture"


def test_two_readings_of_a_texture_stand_side_by_side() -> None:
    crisp, soft = first_reading("crisp"), first_reading("soft")
    assert crisp is not None
    assert soft is not None
    assert crisp.first != soft.first
    assert crisp.second == soft.second
    assert first_reading("") is None


@given(gained=st.integers(0, 50), lost=st.integers(0, 50), had=st.none() | st.integers(0, 400), rest=st.booleans())
def test_a_plant_that_gains_is_never_flagged_and_one_at_rest_neither(
    gained: int, lost: int, had: int | None, rest: bool
) -> None:
    found = leaf_balance(counts=[LeafCount(DAY, gained, lost)], had=had, at_rest=rest).result
    assert found.net == gained - lost
    assert not found.flagged or (gained < lost and not rest)
    assert leaf_balance(counts=[LeafCount(DAY, gained, lost, "cut")], had=had).result.net == gained


@pytest.mark.parametrize(
    ("sizes", "run", "count"),
    [
        ([137.0, 131.0, 126.0, 119.0], "shorter", 3),
        ([137.0, 131.0, 126.0], "neither", 2),
        ([100.0, 130.0, 120.0, 110.0], "neither", 2),
        ([100.0, 101.0, 100.0, 101.0], "neither", 0),
        ([80.0, 90.0, 100.0, 112.0, 125.0], "longer", 4),
        ([120.0], "neither", 0),
    ],
)
def test_three_in_a_row_are_a_trend_and_two_are_not(sizes: list[float], run: str, count: int) -> None:
    leaves = [TrendLeaf(day(30 * i), mm) for i, mm in enumerate(sizes)]
    found = leaf_trend(leaves=leaves, since=DAY, until=day(400)).result
    assert (found.run, found.in_a_row) == (run, count)
    millimetres = [TrendLeaf(x.opened_on, 10 * (x.mm or 0)) for x in leaves]
    assert leaf_trend(leaves=millimetres, since=DAY, until=day(400)).result.run == run, "in any unit"


def test_shrinking_leaves_never_ask_for_feed_before_crust_and_roots() -> None:
    leaves = [TrendLeaf(day(30 * i), mm) for i, mm in enumerate((137.0, 131.0, 126.0, 119.0))]
    for crust, roots in ((False, False), (True, False), (False, True), (True, True)):
        found = leaf_trend(leaves=leaves, since=DAY, until=day(200), crust_answered=crust, roots_answered=roots).result
        assert found.feed_waits == (not (crust and roots))


def organ(name: str, **more: Any) -> SeenOrgan:
    return SeenOrgan(name, **more)  # type: ignore[arg-type]


def test_unknown_is_left_out_and_none_seen_is_zero() -> None:
    looks = [
        LookFigures(day(0), (organ("root tips", count=4.0, of=5.0),), turgor=1.0),
        LookFigures(day(20), (organ("root tips", told="cannot tell"),)),
        LookFigures(day(40), (organ("root tips", told="none seen"),)),
    ]
    found = {m.measure: (m.value, m.baseline) for m in measures_now(looks)}
    assert found == {"live root tips": (0.0, 0.8)}, "posture was seen once: it has no baseline"
    assert organ_share(organ("dew", told="cannot tell")) is None
    assert organ_share(organ("dew")) is None
    assert organ_share(organ("dew", percent=60.0)) == pytest.approx(0.6)


def test_losses_of_a_bloom_add_up_and_the_newest_count_stands() -> None:
    first = [organ("flowers", count=10.0, of=29.0, lost=1.0, words={"lost to": "slugs"})]
    second = [organ("flowers", count=27.0, of=29.0, lost=1.0)]
    counted = bloom_of([first, second])
    assert counted is not None
    buds, opened, lost = counted
    assert (buds, opened, {x.why: x.count for x in lost}) == (29, 27, {"slugs": 1, "unknown": 1})
    assert bloom(buds=buds, opened=opened, lost=lost).result.unknown == 1
    assert bloom_of([[organ("flowers", told="none seen")]]) is None
    assert bloom(buds=0, opened=0).result.percent is None, "no bud is no share of nothing"


def test_same_as_last_takes_what_was_not_touched_and_no_length() -> None:
    before = LookBefore(
        DAY,
        6,
        (SeenMark("tip", DAY, 1),),
        (organ("dew", percent=80.0), organ("bulbs", count=3.0, mm=40.0), organ("nub")),
    )
    taken = same_as_last(before, day(9), new_leaf=True, lost=2, marks_told=False, organs_told=["dew"])
    assert taken.leaves_count == 5
    assert [m.on for m in taken.marks] == [day(9)]
    assert [(o.organ, o.count, o.mm) for o in taken.organs] == [("bulbs", 3.0, None)]
    assert same_as_last(before, day(9), new_leaf=False, lost=None, marks_told=True, organs_told=[]).marks == ()
    with pytest.raises(InputError):
        same_as_last(before, day(-1), new_leaf=False, lost=None, marks_told=False, organs_told=[])


def test_what_a_look_offers_and_in_which_order() -> None:
    assert offered([1, 2, 3, 4, 5, 6]) == [6, 5, 4, 1]
    assert offered([2, 1]) == [2, 1]
    assert longest_unseen([(False, day(9), 0), (True, day(3), 1), (True, None, 2), (False, day(1), 3)]) == [2, 1, 3, 0]
    assert organs_asked(("leaves", "dew")) == ["dew", "nub"]


def test_a_leaf_is_finished_by_its_lengths_or_by_what_is_usual() -> None:
    growing = SeenLeaf(DAY, (LeafLength(DAY, 60.0, True),))
    assert likely_finished(SeenLeaf(DAY), 150.0) is None
    assert likely_finished(growing, 150.0) is False
    assert likely_finished(growing, None) is None
    assert likely_finished(SeenLeaf(DAY, (LeafLength(DAY, 149.0, True),)), 150.0) is True
    two = SeenLeaf(DAY, (LeafLength(day(2), 40.0), LeafLength(day(30), 150.0)))
    nearest = at_same_age(two, 4)
    assert nearest is not None
    assert nearest.mm == 40.0
    assert at_same_age(SeenLeaf(DAY), 4) is None


def test_lines_are_cut_at_the_age_of_the_youngest() -> None:
    opened = [(day(-3), 1.0), (day(10), 1.0), (day(80), None)]
    line = aged(opened, DAY, day(60), "A")
    assert (line.days, [x.day for x in line.leaves]) == (60, [10])
    young = SharedLine("B", 5, (AgedLeaf(2),))
    found = leaves_at_age(lines=[line, young]).result
    assert (found.age_days, "too early" in found.sentence) == (5, True)
    assert [x.leaves for x in found.lines] == [0, 1]


@pytest.mark.parametrize(
    ("today", "past", "starts"),
    [
        ("2026-11-23", -28, ("2025-12-21", "2024-12-21")),
        ("2027-01-10", 20, ("2026-12-21", "2025-12-21")),
        ("2026-12-21", 0, ("2026-12-21", "2025-12-21")),
        ("2026-11-23", None, ("2025-11-23", "2024-11-23")),
    ],
)
def test_a_season_begins_on_the_shortest_day(today: str, past: int | None, starts: tuple[str, str]) -> None:
    assert tuple(x.isoformat() for x in season_starts(date.fromisoformat(today), past)) == starts


def test_suppliers_count_early_losses_only() -> None:
    found = suppliers_of(
        [
            Arrival("Stall", DAY, day(60), "rot", day(20)),
            Arrival("Stall", DAY, day(200), "cold", None),
            Arrival("Stall", DAY, None, "", day(40)),
            Arrival(" ", DAY, None, "", None),
        ],
        day(300),
    )
    assert [(s.name, s.plants, s.alive, s.lost_early, s.first_leaf_days, s.causes) for s in found] == [
        ("Stall", 3, 1, 1, 30.0, ("cold", "rot"))
    ]


@pytest.mark.parametrize(
    ("call", "error", "pointer"),
    [
        (lambda: leaf_balance(counts=[LeafCount(DAY, -1, 0)]), OutOfRange, "/counts/0/gained"),
        (lambda: leaf_trend(leaves=[], since=day(1), until=DAY), InputError, "/until"),
        (lambda: leaf_trend(leaves=[TrendLeaf(DAY, 0.0)], since=DAY, until=DAY), OutOfRange, "/leaves/0/mm"),
        (lambda: division_bulbs(pieces=[]), InputError, "/pieces"),
        (lambda: division_bulbs(pieces=[1.5]), InputError, "/pieces/0"),
        (lambda: offset_ready(offset_cm=4, parent_cm=0), OutOfRange, "/parent_cm"),
        (lambda: bloom(buds=3, opened=4), InputError, "/opened"),
        (lambda: bloom(buds=3, opened=2, lost=[BudLoss(2, "slugs")]), InputError, "/lost"),
        (lambda: leaves_at_age(lines=[SharedLine("A", 3)]), InputError, "/lines"),
        (lambda: leaves_at_age(lines=[SharedLine("A", -1), SharedLine("B", 2)]), OutOfRange, "/lines/0/days"),
        (lambda: new_marks(marks=[SeenMark("tip", DAY, 1, mm=9.0, leaf_mm=4.0)]), InputError, "/marks/0/mm"),
        (lambda: series_days(DAY, [3, 3]), InputError, "/days/1"),
    ],
)
def test_what_cannot_be_is_refused_by_its_field(call, error, pointer) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(error) as refused:
        call()
    assert refused.value.pointer == pointer
