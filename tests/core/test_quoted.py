"""What a sentence quotes: a change has its sign where it is one, and words begin with a capital."""

import pytest

from fenwa.core.entry import capital, signed


@pytest.mark.parametrize(
    ("value", "digits", "said"),
    [
        (-14.2, 0, "−14"),
        (6, 0, "+6"),
        (0.0, 0, "0"),
        (-0.0, 1, "0.0"),
        (-0.4, 0, "0"),
        (0.04, 1, "0.0"),
        (-0.05, 2, "−0.05"),
        (-3.73, 1, "−3.7"),
        (1e6, 0, "+1000000"),
    ],
)
def test_a_change_has_its_sign_where_it_is_one(value: float, digits: int, said: str) -> None:
    assert signed(value, digits) == said


@pytest.mark.parametrize(("words", "said"), [("town water", "Town water"), ("EC of NPK", "EC of NPK"), ("", "")])
def test_a_sentence_begins_with_a_capital_and_lowers_no_name(words: str, said: str) -> None:
    assert capital(words) == said
