"""A plant's line: what its newest change may be judged by, and the word that says so."""

from __future__ import annotations

from datetime import date, timedelta

import pytest

from fenwa.core.errors import DomainError
from fenwa.core.leaf.line import Change, LeafLine, leaf_line
from fenwa.core.leaf.sizes import LeafLength, SeenLeaf

TODAY = date(2026, 11, 23)


def ago(n: int) -> date:
    return TODAY - timedelta(days=n)


def leaf(days: int, mm: float | None, growing: bool | None = None) -> SeenLeaf:
    """Opened so many days ago, measured the same day."""
    return SeenLeaf(ago(days), () if mm is None else (LeafLength(ago(days), mm, growing),))


def flushed(days: int) -> list[Change]:
    return [Change(ago(days), "flush", 10, 28)]


def line(leaves: list[SeenLeaf], changes: list[Change] | None = None, phase: str = "active") -> LeafLine:
    return leaf_line(leaves=leaves, changes=changes or [], today=TODAY, phase=phase).result


MONTHLY = [leaf(30 * k, 150 + k) for k in range(1, 8)]


def test_without_a_change_the_newest_is_held_against_usual() -> None:
    assert line(MONTHLY).word == "as usual"
    assert line(MONTHLY).group == "as usual"
    short = line([leaf(5, 100), *MONTHLY[1:]])
    assert short.word == "newest 35 % shorter than usual"
    assert short.usual_mm == pytest.approx(154)
    growing = line([leaf(5, 60, True), *MONTHLY[1:]])
    assert growing.word == "as usual", "a first size never stands for the finished one"
    assert growing.leaves[-1].growing
    assert line([]).word == "no finished leaf measured yet"


def test_before_its_window_it_is_too_early_whatever_the_leaves_do() -> None:
    found = line(MONTHLY, flushed(4))
    assert (found.group, found.word) == ("being judged", f"flush: too early until {ago(-6).isoformat()}")
    slow = line(MONTHLY, flushed(12), phase="slowing")
    assert slow.word == f"flush: too early until {ago(-8).isoformat()}", "twice as long where growth is slow"


def test_a_leaf_begun_before_the_change_answers_nothing() -> None:
    # flushed 20 days ago; the leaf of today was begun 30 days ago
    found = line([leaf(0, 300), *MONTHLY], flushed(20))
    assert found.leaves[-1].formed == "begun before"
    assert found.leaves[-1].weight == pytest.approx(20 / 30)
    assert found.word == "flush: no finished leaf formed after it yet"


@pytest.mark.parametrize(
    ("after", "word"),
    [
        ([150.0], "as before the flush: a hint"),
        ([190.0], "24 % longer since the flush: a hint"),
        ([110.0], "28 % shorter since the flush: a hint"),
    ],
)
def test_the_first_leaf_formed_after_is_a_hint(after: list[float], word: str) -> None:
    leaves = [leaf(40 + 30 * k, 153.5) for k in range(1, 6)] + [leaf(2, mm) for mm in after]
    assert line(leaves, flushed(33)).word == word


def test_it_is_held_against_the_leaves_just_before_not_against_better_days() -> None:
    declining = [leaf(60 + 30 * k, mm) for k, mm in enumerate((130, 140, 220, 230, 240))]
    found = line([*declining, leaf(5, 160)], flushed(50))
    assert found.after_percent == pytest.approx(100 * (160 / (130 * 140) ** 0.5 - 1))
    assert found.word.startswith("19 % longer")


def test_two_finished_leaves_after_close_the_question() -> None:
    leaves = [leaf(100 + 30 * k, 150) for k in range(4)]
    one = line([*leaves, leaf(25, 150)], flushed(80))
    assert one.group == "being judged", "its window is over, its leaves have not answered twice"
    two = line([*leaves, leaf(25, 150), leaf(5, 155)], flushed(80))
    assert (two.group, two.change) == ("as usual", "")


def test_unseen_plants_come_first_and_resting_ones_last() -> None:
    due = leaf_line(leaves=MONTHLY, changes=[], today=TODAY, look_due=True).result
    assert due.group == "look today"
    late = [leaf(30 * k, 150) for k in range(3, 8)]
    assert line(late).group == "look today", "a leaf was due"
    assert line(late, phase="rest").group == "at rest"
    assert line(late, phase="rest").next_leaf.next_on is None


def test_a_later_change_replaces_the_one_before_and_a_coming_one_counts_for_nothing() -> None:
    both = [*flushed(90), *flushed(4), Change(ago(-5), "move", 1, 5)]
    assert line(MONTHLY, both).change_on == ago(4)


@pytest.mark.parametrize(
    ("leaves", "pointer"),
    [
        ([leaf(1, 0.0)], "/leaves/0/lengths/0/mm"),
        ([leaf(1, 20_000.0)], "/leaves/0/lengths/0/mm"),
        ([leaf(-3, 20.0)], "/opened/0"),
        ([leaf(1, 20.0)] * 1001, "/leaves"),
    ],
)
def test_what_cannot_be_is_refused(leaves: list[SeenLeaf], pointer: str) -> None:
    with pytest.raises(DomainError) as refused:
        line(leaves)
    assert refused.value.pointer == pointer
