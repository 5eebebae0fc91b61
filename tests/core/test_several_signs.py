"""Several signs together: enough that say dry are water, one that says wet is a wait, the others are looked at."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from fenwa.core.care.felt import SIGNS_AGAIN_DAYS, Felt, ReadyRule
from fenwa.core.care.signs import by_signs, signs_found

TODAY = date(2026, 11, 23)
POURED = TODAY - timedelta(days=5)
RULE = ReadyRule(by="signs", signs=("roots", "wall", "finger", "leaves", "heft"), least=2)
NOTHING = Felt()


def seen(days_ago: int = 0, **what: object) -> Felt:
    """Signs found so many days ago."""
    days = {
        "roots": "roots_on",
        "wall": "wall_on",
        "moist": "moist_on",
        "droops": "droop_on",
        "heft": "heft_on",
    }
    on = TODAY - timedelta(days=days_ago)
    return replace(NOTHING, **what, **{days[name]: on for name in what})  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("found", "dry", "wet"),
    [
        ({"roots": "silver"}, ("roots silver",), ()),
        ({"roots": "green"}, (), ("roots green",)),
        ({"wall": "clear"}, ("wall clear",), ()),
        ({"moist": "dry"}, ("medium dry",), ()),
        ({"moist": "barely damp"}, ("medium barely damp",), ()),
        ({"moist": "moist"}, (), ("medium moist",)),
        ({"moist": "wet"}, (), ("medium wet",)),
        ({"droops": True}, ("leaves slack",), ()),
        ({"droops": False}, (), ("leaves firm",)),
        ({"heft": "light"}, ("light in the hand",), ()),
        ({"heft": "heavy"}, (), ("heavy in the hand",)),
    ],
)
def test_each_sign_says_what_it_says(found: dict[str, object], dry: tuple[str, ...], wet: tuple[str, ...]) -> None:
    said = signs_found(RULE, seen(**found), POURED, TODAY)
    assert (said.dry, said.wet) == (dry, wet)
    assert len(said.open) == 4, "the others were not looked at"
    assert said.wet_on == (TODAY if wet else None)


def test_the_fingers_threshold_is_the_rules_own() -> None:
    damp = seen(moist="moist")
    assert signs_found(replace(RULE, at=1.0), damp, POURED, TODAY).dry == ("medium moist",)
    assert signs_found(replace(RULE, at=3.0), seen(moist="barely damp"), POURED, TODAY).wet == ("medium barely damp",)


def test_what_was_seen_before_the_last_pour_is_open_again() -> None:
    old = seen(5, roots="silver", heft="light")
    assert by_signs(RULE, old, POURED, TODAY).state == "check"
    assert by_signs(RULE, old, None, TODAY).state == "water"


def test_what_is_dated_after_today_says_nothing_yet() -> None:
    assert signs_found(RULE, seen(-1, roots="silver"), POURED, TODAY).open == RULE.signs


def test_a_dry_sign_counts_until_the_pour_and_a_wet_one_for_two_days() -> None:
    assert by_signs(RULE, seen(4, roots="silver", heft="light"), POURED, TODAY).state == "water"
    for days_ago in range(SIGNS_AGAIN_DAYS):
        assert by_signs(RULE, seen(days_ago, roots="green"), POURED, TODAY).state == "wait"
    assert by_signs(RULE, seen(SIGNS_AGAIN_DAYS, roots="green"), POURED, TODAY).state == "check"


@pytest.mark.parametrize(
    ("found", "least", "state", "words"),
    [
        ({}, 2, "check", "Check: "),
        ({"roots": "silver"}, 2, "check", "Roots silver: one sign of 2. Check: "),
        ({"roots": "silver"}, 1, "water", "Roots silver: one sign is enough. Water."),
        ({"roots": "silver", "heft": "light"}, 2, "water", "Roots silver and light in the hand: 2 signs agree. Water."),
        ({"roots": "silver", "heft": "heavy"}, 2, "wait", "Heavy in the hand, though roots silver: not yet."),
        ({"roots": "silver", "heft": "light", "droops": False}, 2, "water", "2 signs agree"),
        ({"roots": "silver", "heft": "light", "droops": False}, 3, "wait", "Leaves firm, though roots silver and"),
    ],
)
def test_enough_dry_signs_are_water_and_one_wet_sign_is_a_wait(
    found: dict[str, object], least: int, state: str, words: str
) -> None:
    ready = by_signs(replace(RULE, least=least), seen(**found), POURED, TODAY)
    assert ready.state == state
    assert words in ready.sentence
    assert ready.again_on == (TODAY + timedelta(days=SIGNS_AGAIN_DAYS) if state == "wait" else None)
