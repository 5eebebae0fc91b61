"""Two edits of one thing: worked by hand, and whatever is typed."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fenwa.core.edits import merged, same

SEEN = {"name": "Rain", "price": 1.0, "kind": "rain"}
VALUES = st.one_of(st.none(), st.booleans(), st.integers(-9, 9), st.floats(-1e6, 1e6), st.sampled_from(["", "a", "b"]))
ROWS = st.fixed_dictionaries({"a": VALUES, "b": VALUES, "c": VALUES})


@pytest.mark.parametrize(
    ("now", "sent", "kept", "both"),
    [
        (SEEN, {**SEEN, "name": "Tub"}, {**SEEN, "name": "Tub"}, ()),
        ({**SEEN, "price": 2.0}, {**SEEN, "name": "Tub"}, {"name": "Tub", "price": 2.0, "kind": "rain"}, ()),
        ({**SEEN, "name": "Butt"}, {**SEEN, "name": "Tub"}, {**SEEN, "name": "Tub"}, ("name",)),
        ({**SEEN, "name": "Tub"}, {**SEEN, "name": "Tub"}, {**SEEN, "name": "Tub"}, ()),
        ({**SEEN, "price": 2.0}, {**SEEN, "price": 1.00001}, {**SEEN, "price": 2.0}, ()),
        ({**SEEN, "name": ""}, {**SEEN, "extra": 3}, {**SEEN, "name": "", "extra": 3}, ()),
    ],
    ids=["one", "two fields", "one field, two values", "one field, one value", "rounded in the form", "not seen"],
)
def test_what_each_changed_is_kept(
    now: dict[str, object], sent: dict[str, object], kept: dict[str, object], both: tuple[str, ...]
) -> None:
    assert merged(seen=SEEN, now=now, sent=sent) == (kept, both)


@given(ROWS, ROWS, ROWS)
def test_nothing_anybody_changed_is_lost_unsaid(
    seen: dict[str, object], now: dict[str, object], sent: dict[str, object]
) -> None:
    kept, both = merged(seen=seen, now=now, sent=sent)
    assert set(kept) == set(sent)
    for name in sent:
        theirs, mine = not same(now[name], seen[name]), not same(sent[name], seen[name])
        if theirs and mine and not same(now[name], sent[name]):
            assert name in both
        else:
            assert name not in both
            assert same(kept[name], sent[name] if mine else now[name])


@given(VALUES, VALUES)
def test_alike_is_alike_both_ways(a: object, b: object) -> None:
    assert same(a, a)
    assert same(a, b) == same(b, a)
    assert not same(0, None)
    assert not same(0, False)
    assert same("", None)
