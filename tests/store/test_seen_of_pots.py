"""What is noted of pots beside their log: up to a day, none that is archived, the newest last, asked of all or of some.

Rows are noted out of their order, and newer, older, archived and coming ones of the same pot beside each other.
"""

from collections.abc import Callable
from typing import Any

import pytest

from fenwa.core.care.condition import Override
from fenwa.core.care.vocabulary import SKIPPED, TREATED
from fenwa.store import models
from fenwa.store.care_models import Feel, HoldOverride, Weight
from fenwa.store.seen_of_pots import (
    LookAgain,
    OnScale,
    Treated,
    felt_of_pots,
    overrides_of,
    put_off,
    treated_of,
    weights_of,
)
from tests.conftest import TODAY, Client, pot
from tests.store.rows import DAY, GONE, ago, put


@pytest.fixture
def three(client: Client) -> Client:
    """Three pots, so that an id among some is not the only one."""
    for n in range(3):
        client.made("/api/pots", pot(code=f"P-0{n + 1}"))
    return client


def row(table: type, back: int, pot_id: int = 1, **more: Any) -> Any:
    return table(pot_id=pot_id, on=ago(back), **more)


KINDS: list[tuple[Callable[..., Any], Callable[[int, int], Any]]] = [
    (overrides_of, lambda days, n: row(HoldOverride, days, n, hold_id="salty", word="known")),
    (weights_of, lambda days, n: row(Weight, days, n, grams=500.0, kind="now")),
    (treated_of, lambda days, n: row(models.Event, days, n, kind=TREATED, days=3)),
    (felt_of_pots, lambda days, n: row(Feel, days, n, moist="damp")),
    (lambda *a: put_off(*a)[1], lambda days, n: row(models.Decision, days, n, what="left", look_again_on=TODAY)),
]


@pytest.mark.parametrize(("asked", "made"), KINDS, ids=["overrides", "weights", "treated", "felt", "put off"])
def test_each_is_of_its_pot_up_to_the_day_and_not_archived(
    three: Client, asked: Callable[..., dict[int, Any]], made: Callable[[int, int], Any]
) -> None:
    archived = made(1, 3)
    archived.archived_at = GONE
    put(three, made(0, 1), made(-1, 2), archived)
    with three.store.reading() as session:
        assert set(asked(session, TODAY, None)) == {1}, "a coming one and an archived one are not there yet or any more"
        assert set(asked(session, TODAY + DAY, None)) == {1, 2}
        assert set(asked(session, TODAY - DAY, None)) == set()
        assert set(asked(session, TODAY + DAY, {2, 3})) == {2}
        assert asked(session, TODAY + DAY, set()) == {}, "of no pot nothing, and not of all"


def test_holds_set_aside_and_weights_come_oldest_first_and_all_of_them(three: Client) -> None:
    put(
        three,
        row(HoldOverride, 1, hold_id="crust", word="late"),
        row(HoldOverride, 5, hold_id="salty", word="early"),
        row(HoldOverride, 1, hold_id="salty", word="same day"),
        row(Weight, 2, grams=410.0, kind="now"),
        row(Weight, 9, grams=620.0, kind="drained"),
    )
    with three.store.reading() as session:
        assert overrides_of(session, TODAY, {1}) == {
            1: (
                Override("salty", ago(5), "early"),
                Override("crust", ago(1), "late"),
                Override("salty", ago(1), "same day"),
            )
        }
        assert weights_of(session, TODAY, None) == {
            1: [OnScale(ago(9), 620.0, "drained"), OnScale(ago(2), 410.0, "now")]
        }


@pytest.mark.parametrize("days", [None, 0, 14])
def test_the_newest_treatment_holds_with_its_own_days(three: Client, days: int | None) -> None:
    """Without days nobody read the label: that is not nought days."""
    put(
        three,
        row(models.Event, 2, kind=TREATED, days=days),
        row(models.Event, 8, kind=TREATED, days=21),
        row(models.Event, 1, kind="moved", days=4),
        models.Event(pot_id=None, on=ago(1), kind=TREATED, days=30),
    )
    with three.store.reading() as session:
        assert treated_of(session, TODAY, None) == {1: Treated(ago(2), days)}


def test_a_skip_and_a_look_put_off_do_not_stand_for_each_other(three: Client) -> None:
    put(
        three,
        row(models.Decision, 3, what="wait", why="a spike", look_again_on=ago(-9)),
        row(models.Decision, 2, what=SKIPPED, why="heavy", look_again_on=ago(-1)),
        row(models.Decision, 1, what=SKIPPED, why="heavy still", look_again_on=ago(-2)),
        row(models.Decision, 0, what="nothing"),  # no day to look again: nothing is put off
        row(models.Decision, 0, 2, what=SKIPPED, look_again_on=ago(-4)),
        row(models.Decision, 0, 3, what="wait", look_again_on=ago(-5)),
    )
    with three.store.reading() as session:
        skipped, again = put_off(session, TODAY, None)
    assert skipped == {1: ago(-2), 2: ago(-4)}, "the newest skip of each"
    assert again == {1: LookAgain(ago(-9), "wait", "a spike"), 3: LookAgain(ago(-5), "wait", "")}


def test_of_how_dry_a_pot_is_the_newest_finding_of_each_kind_stands(three: Client) -> None:
    """A probe read on Monday is not taken back by a finger on Tuesday; a pot that does not droop was looked at."""
    put(
        three,
        row(Feel, 1, moist="damp", droops=False),
        row(Feel, 4, moist="dry", heft="light", probe_value=0.0),
        row(Feel, 6, probe_value=3.0, wall="cold"),
    )
    with three.store.reading() as session:
        found = felt_of_pots(session, TODAY, {1, 2})[1]
    assert {name: (getattr(seen, name), seen.on) for name, seen in found.items()} == {
        "moist": ("damp", ago(1)),
        "droops": (False, ago(1)),
        "heft": ("light", ago(4)),
        "probe_value": (0.0, ago(4)),
        "wall": ("cold", ago(6)),
    }


def test_on_one_day_the_later_entry_is_the_newer(three: Client) -> None:
    put(three, row(Feel, 0, moist="dry"), row(Feel, 0, moist="wet"))
    with three.store.reading() as session:
        assert felt_of_pots(session, TODAY, None)[1]["moist"].moist == "wet"
