"""Headings of the Leaf station: what asks stands first, the longest unseen before the others."""

from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.leaf.headings import NOTHING_ASKED, QUESTIONS, Looked, is_folded, under_headings

TODAY = date(2026, 11, 23)


def plant(number: int, question: str = "as usual", seen_days_ago: int | None = 3, **more: object) -> Looked:
    last = None if seen_days_ago is None else TODAY - timedelta(days=seen_days_ago)
    known = {"kind": "Disa", "place": "Bench", "school": "its own rhythm", "marked": False, **more}
    return Looked(id=number, question=question, last_on=last, **known)  # type: ignore[arg-type]


def test_questions_stand_in_their_own_order_and_the_longest_unseen_first() -> None:
    plants = [plant(1, "at rest"), plant(2, "look today", 3), plant(3, "look today", 9), plant(4, "look today", None)]
    assert under_headings(plants, "question") == {"look today": [4, 3, 2], "at rest": [1]}


def test_other_headings_go_by_the_alphabet_whatever_their_letters() -> None:
    plants = [plant(1, place="orangery"), plant(2, place="Bench"), plant(3, place="Étagère"), plant(4, place="bath")]
    assert list(under_headings(plants, "place")) == ["bath", "Bench", "orangery", "Étagère"]


@pytest.mark.parametrize("name", NOTHING_ASKED)
def test_a_place_of_that_name_is_a_place_and_stays_open(name: str) -> None:
    assert is_folded(name, "question")
    assert not is_folded(name, "place")
    assert not is_folded("look today", "question")


@given(
    st.lists(
        st.builds(
            plant,
            st.integers(1, 99),
            st.sampled_from(QUESTIONS),
            st.none() | st.integers(0, 400),
            marked=st.booleans(),
            kind=st.sampled_from(["Disa", "Nepenthes"]),
            school=st.sampled_from(["pulse", "every third"]),
        ),
        unique_by=lambda p: p.id,
    ),
    st.sampled_from(["question", "kind", "place", "school"]),
)
def test_each_plant_stands_once_and_a_filter_only_takes_away(plants: list[Looked], by: str) -> None:
    whole = under_headings(plants, by)  # type: ignore[arg-type]
    assert sorted(i for ids in whole.values() for i in ids) == sorted(p.id for p in plants)
    assert all(whole.values())
    marked = under_headings(plants, by, "marked")  # type: ignore[arg-type]
    for heading, ids in marked.items():
        assert ids == [i for i in whole[heading] if i in ids], "in the same order"
    assert {i for ids in marked.values() for i in ids} == {p.id for p in plants if p.marked}
