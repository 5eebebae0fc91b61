"""Looks with marks and organs, the leaves of a plant as rows, and what goes and comes with a look."""

from datetime import date
from typing import Any

import pytest

from fenwa.core.errors import NotFound
from fenwa.core.leaf.asked import NUB_WORDS
from fenwa.core.leaf.marks import SeenMark
from fenwa.core.leaf.organs import SeenOrgan
from fenwa.store.leaf_models import Leaf, LeafLengthRow, Look, MarkRow, OrganRow, Photo
from fenwa.store.look_rows import (
    as_before,
    last_look,
    leaf_of,
    leaf_rows,
    lengths_beside,
    looks_at,
    marks_at,
    next_number,
    organs_at,
    recount_marks,
    with_look,
)
from fenwa.store.models import Decision, Growth
from tests.conftest import TODAY, Client
from tests.store.rows import GONE, SIDE, ago, asked, put, two_pots

FIRST, SECOND = 41, 42


def look(days: int, **more: Any) -> Look:
    return Look(**({"pot_id": 1, "plant_id": 1, "on": ago(days)} | more))


@pytest.fixture
def two(kept: Client) -> Client:
    two_pots(kept)
    put(
        kept,
        Leaf(id=SECOND, growth_id=1, opened_on=ago(20), number=2),
        Leaf(id=FIRST, growth_id=1, opened_on=ago(60), number=1, lost_on=ago(5)),
    )
    return kept


def test_the_last_look_is_the_newest_of_the_plant_and_of_a_day_the_one_noted_last(two: Client) -> None:
    a, b, c, *_ = put(
        two,
        look(3),
        look(9),
        look(3),
        look(1, archived_at=GONE),
        look(-1),
        look(0, pot_id=2, plant_id=2),
    )

    def last(until: date) -> int | None:
        return asked(two, lambda s: x.id if (x := last_look(s, 1, until)) else None)

    assert (last(TODAY), last(ago(3)), last(ago(4)), last(ago(10))) == (c, c, b, None)
    assert [x.id for x in asked(two, lambda s: looks_at(s, 1, TODAY))] == [b, a, c]
    assert [x.id for x in asked(two, lambda s: looks_at(s, 1, ago(9)))] == [b]


def test_marks_have_the_number_of_their_leaf_and_the_day_they_were_first_seen(two: Client) -> None:
    mine, other, gone = put(two, look(3), look(9), look(2))
    put(
        two,
        MarkRow(look_id=mine, leaf_id=SECOND, kind="tip", place="tip", texture="crisp", mm=0.0),
        MarkRow(look_id=mine, kind="spot", since=ago(30), old=True, cause="sun"),
        MarkRow(look_id=mine, leaf_id=SECOND, kind="spot", archived_at=GONE),
        MarkRow(look_id=other, leaf_id=FIRST, kind="edge", mm=12.0),
        MarkRow(look_id=gone, kind="edge"),
    )

    def marks(*looks: int) -> dict[int, list[SeenMark]]:
        return asked(two, lambda s: marks_at(s, [s.get_one(Look, x) for x in looks]))

    assert marks(mine, other) == {
        mine: [
            SeenMark("tip", ago(3), 2, "tip", "crisp", 0.0),
            SeenMark("spot", ago(30), old=True, cause="sun"),  # of no leaf told
        ],
        other: [SeenMark("edge", ago(9), 1, mm=12.0)],
    }
    assert marks() == {}


def test_organs_tell_nought_from_not_counted(two: Client) -> None:
    mine, other = put(two, look(3), look(9))
    put(
        two,
        OrganRow(look_id=mine, organ="pitchers", count=0.0, of=6.0),
        OrganRow(look_id=mine, organ="dew", told="none seen"),
        OrganRow(look_id=mine, organ="flowers", count=3.0, archived_at=GONE),
        OrganRow(look_id=other, organ="root tips", count=2.0, of=4.0, words={"colour": "green"}, lost=1.0, mm=5.0),
    )
    assert asked(two, lambda s: organs_at(s, [mine, other])) == {
        mine: [SeenOrgan("pitchers", count=0.0, of=6.0), SeenOrgan("dew", "none seen")],
        other: [SeenOrgan("root tips", "seen", 2.0, 4.0, 5.0, None, {"colour": "green"}, 1.0)],
    }
    assert asked(two, lambda s: organs_at(s, [])) == {}


def test_the_next_look_may_take_over_what_the_last_one_saw(two: Client) -> None:
    (mine,) = put(two, look(3, leaves_count=0))
    put(two, MarkRow(look_id=mine, kind="tip"), OrganRow(look_id=mine, organ="dew", percent=40.0))
    before = asked(two, lambda s: as_before(s, s.get_one(Look, mine)))
    assert (before.on, before.leaves_count) == (ago(3), 0)
    assert before.marks == (SeenMark("tip", ago(3)),)
    assert before.organs == (SeenOrgan("dew", percent=40.0),)
    (bare,) = put(two, look(2))
    empty = asked(two, lambda s: as_before(s, s.get_one(Look, bare)))
    assert (empty.leaves_count, empty.marks, empty.organs) == (None, (), ())


def test_leaves_of_a_plant_are_of_all_its_growths_the_lost_among_them(two: Client) -> None:
    (gone,) = put(two, Growth(plant_id=1, name="a mistake", leads=False, archived_at=GONE))
    put(
        two,
        Leaf(id=43, growth_id=SIDE, opened_on=ago(40), number=1),
        Leaf(id=44, growth_id=gone, opened_on=ago(4), number=1),
        Leaf(id=45, growth_id=1, opened_on=ago(4), number=3, archived_at=GONE),
        Leaf(id=46, growth_id=1, opened_on=ago(4), number=1, organ="root"),
    )
    assert [x.id for x in asked(two, lambda s: leaf_rows(s, 1))] == [FIRST, 43, SECOND]
    assert asked(two, lambda s: leaf_rows(s, 2)) == []
    assert asked(two, lambda s: leaf_of(s, 1, 43, "/leaf_id").number) == 1
    for plant, leaf in ((2, FIRST), (1, 45), (1, 46), (1, 999)):
        with pytest.raises(NotFound, match=f"Leaf {leaf} is none of this plant’s") as refused:
            asked(two, lambda s, p=plant, x=leaf: leaf_of(s, p, x, "/leaf_id"))  # type: ignore[misc]
        assert refused.value.pointer == "/leaf_id"


def test_the_next_leaf_has_the_number_after_the_greatest_of_its_growth(two: Client) -> None:
    assert asked(two, lambda s: next_number(s, 1)) == 3
    assert asked(two, lambda s: next_number(s, SIDE)) == 1
    put(
        two,
        Leaf(growth_id=1, opened_on=ago(4), number=7),
        Leaf(growth_id=1, opened_on=ago(3), number=9, archived_at=GONE),
        Leaf(growth_id=1, opened_on=ago(2), number=None),
    )
    assert asked(two, lambda s: next_number(s, 1)) == 8


def test_lengths_beside_the_newest_leaf_come_by_day(two: Client) -> None:
    def length(leaf: int, days: int, mm: float, **more: Any) -> LeafLengthRow:
        return LeafLengthRow(leaf_id=leaf, on=ago(days), mm=mm, **more)

    put(
        two,
        length(FIRST, 2, 100.0),
        length(FIRST, 9, 90.0),
        length(SECOND, 4, 50.0),
        length(SECOND, 3, 51.0, archived_at=GONE),
        length(SECOND, -1, 52.0),
    )
    assert [x.mm for x in asked(two, lambda s: lengths_beside(s, [FIRST, SECOND], TODAY))] == [90.0, 50.0, 100.0]
    assert [x.mm for x in asked(two, lambda s: lengths_beside(s, [FIRST], ago(9)))] == [90.0]
    assert asked(two, lambda s: lengths_beside(s, [], TODAY)) == []


def gone_with(client: Client, look_id: int) -> list[tuple[str, int]]:
    return asked(client, lambda s: sorted((type(x).__name__, x.id) for x in with_look(s, s.get_one(Look, look_id))))


def test_with_a_look_goes_what_it_brought_and_nothing_else(two: Client) -> None:
    mine, other = put(two, look(3, leaf_id=SECOND, new_leaf=True), look(3, pot_id=2, plant_id=2))
    photo = {"media": "image/webp", "width_px": 1, "height_px": 1, "bytes": 1, "sha256": "a", "on": ago(3)}
    brought = put(
        two,
        MarkRow(look_id=mine, kind="tip"),
        MarkRow(look_id=mine, kind="spot", archived_at=GONE),  # it comes again with its look
        OrganRow(look_id=mine, organ="nub", words={"is": "unsure"}),
        Photo(look_id=mine, pot_id=1, plant_id=1, **photo),
        Decision(pot_id=1, on=ago(3), what=NUB_WORDS),
    )
    put(
        two,
        MarkRow(look_id=other, kind="tip"),
        Photo(pot_id=1, plant_id=1, **photo),
        Decision(pot_id=1, on=ago(3), what="wait"),
        Decision(pot_id=1, on=ago(2), what=NUB_WORDS),
        Decision(pot_id=2, on=ago(3), what=NUB_WORDS),
    )
    kinds = ("MarkRow", "MarkRow", "OrganRow", "Photo", "Decision")
    assert gone_with(two, mine) == sorted([*zip(kinds, brought, strict=True), ("Leaf", SECOND)])


def test_of_two_looks_of_a_day_each_takes_the_question_it_asked(two: Client) -> None:
    first, sure, second, seen = put(two, *(look(3) for _ in range(4)))
    unsure = {"organ": "nub", "words": {"is": "unsure"}}
    put(
        two,
        OrganRow(look_id=first, archived_at=GONE, **unsure),  # it went with its look, and comes with it
        OrganRow(look_id=sure, organ="nub", words={"is": "root"}),
        OrganRow(look_id=second, **unsure),
        OrganRow(look_id=second, **unsure),  # two nubs, one question
        OrganRow(look_id=seen, organ="nub"),
    )
    asked_first, asked_second = put(
        two,
        Decision(pot_id=1, on=ago(3), what=NUB_WORDS, archived_at=GONE),
        Decision(pot_id=1, on=ago(3), what=NUB_WORDS),
    )
    questions = [[i for kind, i in gone_with(two, x) if kind == "Decision"] for x in (first, sure, second, seen)]
    assert questions == [[asked_first], [], [asked_second], []]


def test_a_leaf_that_another_look_saw_stays(two: Client) -> None:
    opened, seen = put(two, look(9, leaf_id=SECOND, new_leaf=True), look(3, leaf_id=SECOND))
    assert gone_with(two, opened) == []
    assert gone_with(two, seen) == [], "it did not open it"
    with two.store.writing() as session:
        session.get_one(Look, seen).archived_at = GONE
    assert gone_with(two, opened) == [("Leaf", SECOND)]


def test_kinds_of_marks_are_told_anew_from_those_that_are_left(two: Client) -> None:
    (mine,) = put(two, look(3, marks=["edge"]))
    put(
        two,
        MarkRow(look_id=mine, kind="tip"),
        MarkRow(look_id=mine, kind="tip", mm=4.0),
        MarkRow(look_id=mine, kind="spot", old=True),
        MarkRow(look_id=mine, kind="spot", cause="rubbed"),
        MarkRow(look_id=mine, kind="edge", archived_at=GONE),
    )
    with two.store.writing() as session:
        recount_marks(session, mine)
    assert asked(two, lambda s: s.get_one(Look, mine).marks) == ["tip"]
