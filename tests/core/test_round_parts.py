"""Rows, legs and words of a round; recipes, slopes and prills behind its cans: hand-worked."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta
from typing import Any

import pytest

from fenwa.core.care.felt import Felt, Probe, ReadyBy, ReadyRule, says
from fenwa.core.care.interval import ROOM_C, feel_again_on, left_share, warmth_since
from fenwa.core.care.prills import PRILL_DONE, prills_in
from fenwa.core.care.readiness import asks_plain, checked_rule, moist_of, wet_on
from fenwa.core.care.round_parts import Can, CanPot, can_pot, given, in_rows, legs_of, walk_of
from fenwa.core.care.vocabulary import is_skip
from fenwa.core.errors import DomainError
from fenwa.core.mix.recipe import DECIDES, own_name, same_recipe
from fenwa.core.mix.slope import MeasuredCan, slope_from_cans, teaching
from fenwa.core.pot.mixture import leading_part
from fenwa.core.pot.release import days_until_released, released_share
from fenwa.core.water.meters import MeterTraits, as_shown_by
from tests.core.test_round import POT

D = date(2026, 11, 23)
DAY = timedelta(days=1)


def share(pot_id: int, amount: float = 200, place: str = "sill", route: str = "top", isolated: bool = False) -> CanPot:
    pot = replace(POT, id=pot_id, code=f"P-{pot_id:02}", place=place, isolated=isolated)
    return can_pot(pot, "feed", amount, route, "due")


def can(letter: str, *pots: CanPot) -> Can:
    return Can(
        letter=letter,
        job="feed",
        title="Feed",
        water_id=1,
        water_name="Rain",
        volume_L=1.0,
        ec_uS_cm=400.0,
        ec_low_uS_cm=360.0,
        ec_high_uS_cm=440.0,
        nitrogen_mg_L=50.0,
        strength=None,
        strength_value=0.0,
        weighing="",
        why="",
        dose=None,
        working=None,
        pots=pots,
        water_measured=True,
        to_mix=True,
    )


@pytest.mark.parametrize(
    ("job", "route", "word"),
    [
        ("feed", "top", "feed"),
        ("plain", "top", "plain water"),
        ("plain", "tray", "into the tray"),
        ("feed", "tray", "into the tray"),
        ("flush", "tray", "flush"),
        ("flush", "top", "flush"),
        ("feed", "cup", "feed into the cup"),
    ],
)
def test_what_a_pot_gets_in_a_word(job: Any, route: str, word: str) -> None:
    assert given(job, route) == word


@pytest.mark.parametrize(("amount", "step"), [(10, 10), (149, 10), (150, 50), (900, 50)])
def test_one_tap_changes_little_where_little_is_poured(amount: float, step: float) -> None:
    assert share(1, amount).step_mL == step


@pytest.mark.parametrize(
    ("shares", "rows", "together"),
    [
        ([], [], []),
        ([share(1)], [0], [False]),
        ([share(1), share(2)], [0, 0], [False, False]),
        ([share(1), share(2), share(3)], [0, 0, 0], [True, True, True]),
        ([share(1), share(2, 250), share(3)], [0, 1, 2], [False] * 3),
        ([share(1), share(2, place="rack"), share(3, place="rack")], [0, 1, 1], [False] * 3),
        ([share(1), share(2, route="tray")], [0, 1], [False] * 2),
        ([share(1), share(2), share(3), share(4, isolated=True)], [0, 0, 0, 1], [True, True, True, False]),
        ([share(i, isolated=True) for i in (1, 2, 3)], [0, 1, 2], [False] * 3),
    ],
)
def test_a_row_is_neighbours_that_get_the_same(shares: list[CanPot], rows: list[int], together: list[bool]) -> None:
    found = in_rows(shares)
    assert [p.row for p in found] == rows
    assert [p.together for p in found] == together
    assert [p.pot_id for p in found] == [p.pot_id for p in shares], "no pot is lost or moved"


def test_the_suspect_come_last_whatever_their_can_and_shelf() -> None:
    cans = (can("A", share(1), share(2, isolated=True)), can("B", share(3, isolated=True)), can("C", share(4)))
    assert [(leg.letter, leg.pot_ids) for leg in legs_of(cans)] == [("A", (1,)), ("C", (4,)), ("A", (2,)), ("B", (3,))]
    pots = [
        replace(POT, id=1, code="A", shelf_order=0, isolated=True),
        replace(POT, id=2, code="C", shelf_order=2),
        replace(POT, id=3, code="B", shelf_order=2),
        replace(POT, id=4, code="D", shelf_order=1),
    ]
    assert [p.id for p in walk_of(pots)] == [4, 3, 2, 1]


RECIPE = {
    "product_id": 1,
    "label": "13-3-15",
    "strength": "N",
    "value": 50.0,
    "also": (),
    "element": "N",
    "route": "root",
    "school_id": None,
}


@pytest.mark.parametrize("key", DECIDES)
def test_each_thing_that_decides_opens_the_next_version(key: str) -> None:
    assert same_recipe(RECIPE, dict(RECIPE))
    assert not same_recipe(RECIPE, RECIPE | {key: "another"})


def test_what_does_not_decide_opens_none() -> None:
    assert same_recipe(RECIPE, RECIPE | {"volume_L": 9.0, "name": "another"})
    assert own_name("Powder", "50 mg/L N") == "Powder, 50 mg/L N"


def measured(dose: float, rise: float, model: float | None = 200.0, alone: bool = True) -> MeasuredCan:
    return MeasuredCan(
        dose_g_L=dose,
        model_added_uS_cm=model,
        predicted_uS_cm=230.0,
        water_uS_cm=30.0,
        measured_uS_cm=30.0 + rise,
        alone=alone,
    )


@pytest.mark.parametrize(
    ("one", "taught"),
    [
        (measured(0.3, 210), 200.0),
        (measured(0.3, 210, model=None), 200.0),
        (measured(0.3, 210, alone=False), None),
        (measured(0.3, 0), None),
        (measured(0.3, -5), None),
        (measured(0.3, 210, model=0.0), None),
    ],
)
def test_a_can_teaches_where_its_salt_was_seen_and_is_of_one_product(one: MeasuredCan, taught: float | None) -> None:
    assert [b.model_rise_uS_cm for b in teaching([one])] == ([] if taught is None else [taught])


@pytest.mark.parametrize(
    ("cans", "factor"),
    [
        ([measured(0.3, 220)] * 2, None),
        ([measured(0.3, 220)] * 3, 1.1),
        ([measured(0.3, 220)] * 2 + [measured(0.3, 220, alone=False)], None),
        ([measured(0.3, 1_300)] * 3, None),  # six and a half times the label: the label stands
        ([measured(0.3, 30)] * 3, None),
    ],
)
def test_a_slope_is_learnt_from_the_third_can_and_never_against_the_label(
    cans: list[MeasuredCan], factor: float | None
) -> None:
    learnt = slope_from_cans(cans)
    assert (None if learnt is None else learnt.result.factor) == (
        None if factor is None else pytest.approx(factor, rel=1e-3)
    )


@pytest.mark.parametrize("share_out", [0.1, 0.5, PRILL_DONE, 0.99])
@pytest.mark.parametrize("celsius", [5.0, 14.0, 21.0, 30.0])
def test_the_day_of_a_share_and_the_share_of_a_day_are_one_sum(share_out: float, celsius: float) -> None:
    days = days_until_released(share_out, 180, celsius)
    assert released_share(days, 180, celsius) == pytest.approx(share_out)
    assert days_until_released(share_out, 180, celsius + 10) == pytest.approx(days / 2), "half as long, 10 °C warmer"


@pytest.mark.parametrize(
    ("warmth", "mean"),
    [
        ([], ROOM_C),
        ([(D - 200 * DAY, 30.0)], ROOM_C),
        ([(D - DAY, 14.0), (D, 16.0)], 15.0),
        ([(D - 200 * DAY, 30.0), (D, 16.0)], 16.0),
    ],
)
def test_prills_go_by_the_warmth_since_they_were_given(warmth: list[tuple[date, float]], mean: float) -> None:
    since = D - 30 * DAY
    assert warmth_since(warmth, since) == mean
    found = prills_in(since, 180, 21, warmth, D)
    assert found.share_out == pytest.approx(released_share(30, 180, mean, 21))
    assert found.until == since + timedelta(days=round(days_until_released(PRILL_DONE, 180, mean, 21)))
    assert prills_in(since, 180, None, warmth, D) == prills_in(since, 180, ROOM_C, warmth, D)


def test_prills_given_today_have_given_nothing() -> None:
    assert prills_in(D, 90, 21, [], D).share_out == 0.0


@pytest.mark.parametrize(("interval", "days"), [(0.5, 1), (4, 1), (8, 2), (14, 4), (120, 30)])
def test_a_heavy_pot_is_felt_again_after_a_quarter_of_its_interval(interval: float, days: int) -> None:
    assert feel_again_on(D, interval) == D + timedelta(days=days)


@pytest.mark.parametrize(
    ("last", "weight", "left"),
    [
        (None, None, None),
        (None, 0.4, 0.4),
        (D, None, 1.0),
        (D - 4 * DAY, None, 0.5),
        (D - 8 * DAY, None, 0.0),
        (D - 80 * DAY, None, 0.0),
        (D, 0.2, 0.2),
        (D, -0.3, 0.0),
        (D, 1.7, 1.0),
    ],
)
def test_the_scale_stands_before_the_days(last: date | None, weight: float | None, left: float | None) -> None:
    assert left_share(last, 8, D, weight) == left


@pytest.mark.parametrize(
    ("rule", "felt", "last", "plain"),
    [
        (ReadyRule(), Felt(), None, False),
        (ReadyRule(), Felt(droops=True, droop_on=D), D - DAY, True),
        (ReadyRule(), Felt(droops=True, droop_on=D - DAY), D - DAY, False),
        (ReadyRule(), Felt(droops=False, droop_on=D), D - DAY, False),
        (ReadyRule(), Felt(moist="dry", moist_on=D), D - DAY, True),
        (ReadyRule(), Felt(moist="dry", moist_on=D - 2 * DAY), D - DAY, False),
        (ReadyRule(), Felt(moist="barely damp", moist_on=D), D - DAY, False),
        (ReadyRule("finger", 3), Felt(moist="dry", moist_on=D), D - DAY, False),
        (ReadyRule("finger", 2), Felt(moist="dry", moist_on=D), D - DAY, True),
        (ReadyRule("finger", 3), Felt(moist="dry", moist_on=D, droops=True, droop_on=D), D - DAY, True),
        (ReadyRule("weight"), Felt(moist="dry", moist_on=D), None, True),
    ],
)
def test_droop_and_dry_through_are_answered_with_plain_water(
    rule: ReadyRule, felt: Felt, last: date | None, plain: bool
) -> None:
    assert asks_plain(rule, felt, last) is plain


@pytest.mark.parametrize(
    ("rule", "moist"),
    [
        (ReadyRule(), "barely damp"),
        (ReadyRule("finger"), "barely damp"),
        (ReadyRule("finger", 1), "moist"),
        (ReadyRule("finger", 3), "dry"),
        (ReadyRule("weight", 0.1), "barely damp"),
    ],
)
def test_how_dry_a_rule_waits_for(rule: ReadyRule, moist: str) -> None:
    assert moist_of(rule) == moist


@pytest.mark.parametrize(("moist", "on"), [("wet", D), ("moist", None), (None, None)])
def test_only_wet_is_found_wet(moist: Any, on: date | None) -> None:
    assert wet_on(Felt(moist=moist, moist_on=D)) == on


@pytest.mark.parametrize(
    ("by", "at", "words"),
    [
        ("days", None, "by days; feel it first"),
        ("weight", None, "water at 10 % of its water left, by weight"),
        ("weight", 0.25, "water at 25 % of its water left, by weight"),
        ("finger", None, "water when barely damp to the finger"),
        ("finger", 1.0, "water when moist to the finger"),
        ("roots", None, "water when the roots are silver"),
        ("droop", None, "water at the first droop"),
    ],
)
def test_a_rule_in_words(by: ReadyBy, at: float | None, words: str) -> None:
    assert says(checked_rule(ReadyRule(by, at))) == words


@pytest.mark.parametrize(
    ("end", "words"), [("low", "water at 3 or less on short"), ("high", "water at 3 or more on short")]
)
def test_a_probe_is_told_from_its_dry_end(end: Any, words: str) -> None:
    assert says(ReadyRule("probe", 3, Probe("short", 1, 8, end))) == words


@pytest.mark.parametrize(
    ("rule", "pointer"),
    [
        (ReadyRule("probe"), "/probe"),
        (ReadyRule("probe", None, Probe("p")), "/at"),
        (ReadyRule("probe", 3, Probe("p", 8, 1)), "/probe/lowest"),
        (ReadyRule("probe", 3, Probe("p", 5, 5)), "/probe/lowest"),
        (ReadyRule("probe", 9, Probe("p", 1, 8)), "/at"),
        (ReadyRule("weight", 0.95), "/at"),
        (ReadyRule("weight", -0.01), "/at"),
        (ReadyRule("finger", 0), "/at"),
        (ReadyRule("finger", 4), "/at"),
    ],
)
def test_a_rule_that_cannot_be_names_its_field(rule: ReadyRule, pointer: str) -> None:
    with pytest.raises(DomainError) as refused:
        checked_rule(rule)
    assert refused.value.pointer == pointer


@pytest.mark.parametrize(
    ("unit", "scale", "own", "found"),
    [
        ("ppm", None, "500", "500"),
        ("ppm", "unknown", "700", "700"),
        ("ppm", "640", "700", "640"),
        ("ppm", None, None, None),
        ("ppm", "unknown", None, "unknown"),
        ("µS/cm", None, "500", None),
    ],
)
def test_a_meters_own_scale_stands_in_and_never_overrules(
    unit: str, scale: str | None, own: str | None, found: str | None
) -> None:
    assert as_shown_by(unit, scale, own, MeterTraits()) == (found, True)
    assert as_shown_by(unit, scale, own, MeterTraits(compensation="none")) == (found, False)


@pytest.mark.parametrize(
    ("parts", "leading"), [({}, ""), ({"peat": 1.0}, "peat"), ({"bark": 1, "peat": 2}, "peat"), ({"a": 1, "b": 1}, "a")]
)
def test_the_largest_part_leads_a_mixture(parts: dict[str, float], leading: str) -> None:
    assert leading_part(parts) == leading


@pytest.mark.parametrize(
    ("what", "skip"), [("skipped", True), ("Skipped", False), ("half the feed", False), ("", False)]
)
def test_only_a_skip_is_a_skip(what: str, skip: bool) -> None:
    assert is_skip(what) is skip
