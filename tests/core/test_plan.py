"""Feeding plans as growers have them: each rule with the dates it gives, worked by hand."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from fenwa.core.care.pattern import FedSoFar, feed_is_next, months_on
from fenwa.core.care.plan import FeedingPlan, PlanFacts, PlanProduct, checked_plan, plan_of_pot, plan_of_school
from fenwa.core.care.plan_ahead import NOTHING_KNOWN, feeding_plan
from fenwa.core.care.plan_day import next_day, pattern_on, product_today, season_today
from fenwa.core.care.plan_words import sentence, value_said
from fenwa.core.errors import InputError, OutOfRange, Underspecified
from fenwa.core.library.loader import schools
from fenwa.core.mix.strength import read_share


def d(text: str, year: int = 2027) -> date:
    return date.fromisoformat(f"{year}-{text}" if len(text) == 5 else text)


def fed_days(plan: FeedingPlan, last_fed: str, waterings: list[str], facts: PlanFacts = NOTHING_KNOWN) -> list[str]:
    """The waterings that carry feed, each poured as the plan says."""
    fed, out = FedSoFar(last_feed_on=d(last_fed)), []
    for text in waterings:
        on = d(text)
        pattern = pattern_on(plan, None, facts.half, on)
        if season_today(plan, facts, on).feeds and feed_is_next(pattern, fed, on):
            out.append(text)
            fed = FedSoFar(feeds_since_plain=fed.feeds_since_plain + 1, last_feed_on=on)
        else:
            fed = replace(fed, feeds_since_plain=0, plains_since_feed=fed.plains_since_feed + 1)
    return out


def days(n: float, **more: object) -> FeedingPlan:
    return FeedingPlan(rhythm="days", every_days=n, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("plan", "last", "waterings", "fed"),
    [
        (days(35, season=("06-01", "08-31")), "06-05", ["07-08", "07-13", "08-17", "09-21"], ["07-13", "08-17"]),
        (
            days(12, faster=("06-01", "07-31"), faster_days=6),
            "05-28",
            ["06-02", "06-05", "06-08", "06-11"],
            ["06-05", "06-11"],
        ),
        (
            FeedingPlan(rhythm="months", every_months=2),
            "09-06",
            ["11-01", "11-10", "11-11"],
            ["11-10"],
        ),
        (days(16, season=("04-01", "08-31")), "08-20", ["09-05", "10-01", "2028-03-31", "2028-04-01"], ["2028-04-01"]),
        (days(24, season=("04-01", "08-15")), "07-06", ["07-30", "08-23"], ["07-30"]),
        (
            FeedingPlan(rhythm="months", season=("02-01", "10-31")),
            "10-12",
            ["11-14", "2028-01-31", "2028-02-03"],
            ["2028-02-03"],
        ),
        (FeedingPlan(cycle=3, feeds=1), "11-29", ["12-01", "12-04", "12-06", "12-08", "12-10"], ["12-06"]),
        (FeedingPlan(cycle=3, feeds=2), "05-01", ["05-04", "05-08", "05-12", "05-16"], ["05-08", "05-12"]),
    ],
)
def test_each_rhythm_gives_the_growers_dates(
    plan: FeedingPlan, last: str, waterings: list[str], fed: list[str]
) -> None:
    assert fed_days(checked_plan(plan), last, waterings) == fed


def test_however_long_nothing_was_fed_one_dose_is_due() -> None:
    assert fed_days(days(12), "01-01", ["06-01", "06-02", "06-03", "06-13"]) == ["06-01", "06-13"]


def test_months_are_turned_for_a_school_and_kept_for_a_grower() -> None:
    school = FeedingPlan(season=("04-01", "08-31"), months_of="north")
    south, none = PlanFacts(half="south"), PlanFacts(half="none")
    assert not season_today(school, PlanFacts(), d("11-15")).feeds
    assert season_today(school, south, d("11-15")).feeds
    assert season_today(school, south, d("06-15")).release == "Opens on 1 October."
    assert all(season_today(school, none, d("01-01") + timedelta(days=n)).feeds for n in range(365))
    own = replace(school, months_of="here")
    assert not season_today(own, south, d("11-15")).feeds, "the grower's own months are as written"


def test_a_season_over_the_turn_of_the_year_and_the_day_it_opens() -> None:
    plan = FeedingPlan(season=("10-01", "02-29"))
    assert [season_today(plan, PlanFacts(), d(x)).feeds for x in ("09-30", "10-01", "01-15", "02-28", "03-01")] == [
        False,
        True,
        True,
        True,
        False,
    ]
    assert next_day("02-29", d("02-01")) == d("02-28")
    assert next_day("04-01", d("04-02")) == d("2028-04-01")
    assert months_on(d("10-31"), 4) == d("2028-02-29")


def nights(first: str, *celsius: float) -> tuple[tuple[date, float], ...]:
    return tuple((d(first) + timedelta(days=n), c) for n, c in enumerate(celsius))


def test_warmth_opens_by_the_mean_of_the_last_nights_and_by_nothing_old() -> None:
    plan = FeedingPlan(warm_C=16.0, warm_nights=6)
    cold = nights("06-12", 11, 12, 11, 12, 11, 12)
    assert season_today(plan, PlanFacts(nights=cold), d("06-18")).reason == "Warmth: the last nights mean 11.5 °C."
    warm = (*cold, *nights("06-18", 19, 20, 20, 20, 20, 20))
    assert season_today(plan, PlanFacts(nights=warm), d("06-24")).feeds
    assert not season_today(plan, PlanFacts(nights=nights("05-01", 20, 20, 20, 20, 20, 20)), d("06-18")).feeds
    few = season_today(plan, PlanFacts(nights=nights("06-16", 20, 20)), d("06-18"))
    assert few.reason == "Warmth: 2 of 6 nights read of late."
    assert season_today(plan, PlanFacts(), d("06-18")).reason == "Warmth: no night read of late."


def test_growth_bloom_place_and_lamps_each_close_with_what_opens_them() -> None:
    on = d("06-01")

    def of(plan: FeedingPlan, **facts: object) -> tuple[bool, str]:
        found = season_today(plan, PlanFacts(**facts), on)  # type: ignore[arg-type]
        assert found.feeds or (found.reason and found.release)
        return found.feeds, found.by

    forming = FeedingPlan(growth="leaf forming")
    assert of(forming) == (False, "growth")
    assert of(forming, growth_on=d("05-20")) == (True, "")
    assert of(forming, growth_on=d("04-01")) == (False, "growth"), "an old leaf says nothing"
    made = FeedingPlan(growth="until made")
    assert of(made) == (True, ""), "nothing noted: no thinner, a look is asked for"
    assert of(made, growth_on=d("04-01"), stopped_on=d("05-01")) == (False, "growth")
    assert of(made, growth_on=d("05-10"), stopped_on=d("05-01")) == (True, "")
    assert of(FeedingPlan(growth="until spike"), spike_on=d("05-01")) == (False, "growth")
    assert of(FeedingPlan(growth="from spike"), spike_on=d("05-01")) == (True, "")
    assert of(FeedingPlan(growth="from spike"), spike_on=d("05-01"), bloom_over_on=d("05-30"))[0] is False
    assert of(FeedingPlan(bloom="not in bloom"), in_bloom=True) == (False, "bloom")
    assert of(FeedingPlan(bloom="after bloom")) == (False, "bloom")
    assert of(FeedingPlan(bloom="after bloom"), bloom_over_on=d("05-24")) == (True, "")
    assert of(FeedingPlan(reserve_only=True), on_display=True) == (False, "place")
    assert of(FeedingPlan(reserve_only=True)) == (True, "")
    assert of(FeedingPlan(lamps_h=12)) == (False, "lamps")
    assert of(FeedingPlan(lamps_h=12), lamps_h=12.0) == (True, "")


def test_outside_its_season_a_plan_is_held_plain_or_thinned() -> None:
    plan = FeedingPlan(season=("04-01", "08-31"))
    winter = d("12-01")
    assert season_today(plan, PlanFacts(), winter).held
    assert not season_today(replace(plan, outside="plain"), PlanFacts(), winter).held
    thin = season_today(replace(plan, outside="step down", outside_share=0.25), PlanFacts(), winter)
    assert (thin.share, thin.held) == (0.25, False)
    bloom = replace(plan, outside="step down", season=None, bloom="not in bloom")
    assert season_today(bloom, PlanFacts(in_bloom=True), winter).share == 0, "in bloom nothing is thinned into it"


def test_the_product_follows_growth_spike_and_bloom() -> None:
    two = FeedingPlan(products=(PlanProduct("growth", 1), PlanProduct("spike", 2)))
    on = d("10-03")
    assert product_today(two, PlanFacts(), on) == 1
    assert product_today(two, PlanFacts(spike_on=on), on) == 2
    assert product_today(two, PlanFacts(spike_on=d("09-01"), in_bloom=True), on) == 2
    assert product_today(FeedingPlan(products=(PlanProduct("", 7),)), PlanFacts(spike_on=on), on) == 7
    assert product_today(FeedingPlan(), PlanFacts(), on) is None, "the last can's product is nobody's default"
    nothing = FeedingPlan(products=(PlanProduct("", 1), PlanProduct("bloom", None)))
    assert season_today(nothing, PlanFacts(in_bloom=True), on).reason == "Nothing is fed in bloom."


def test_what_a_schools_season_says_is_obeyed() -> None:
    strong = plan_of_school(schools()["weekly_in_season"])
    assert not season_today(strong, PlanFacts(), d("12-10")).feeds
    assert season_today(strong, PlanFacts(half="south"), d("12-10")).feeds
    led = plan_of_school(schools()["growth_led"])
    stopped = PlanFacts(growth_on=d("05-01"), stopped_on=d("06-01"))
    assert season_today(led, stopped, d("06-10")).share == 0.5, "thinned when growth is made"
    assert season_today(led, PlanFacts(), d("01-10")).feeds, "growth-led feeds in any month"
    assert plan_of_pot(2).name == "feed, every 2nd plain"
    assert not season_today(plan_of_pot(0), PlanFacts(), d("06-01")).feeds


def test_a_plan_reads_as_one_sentence() -> None:
    plan = FeedingPlan(
        season=("04-01", "08-15"),
        rhythm="days",
        every_days=24,
        strength="fraction",
        value=1 / 3,
        products=(PlanProduct("", 4),),
        route="top",
    )
    assert sentence(plan, "every Goeppertia", {4: "Foliage feed"}) == (
        "Feed every Goeppertia, from 1 April to 15 August, every 24 days, one third of the label, Foliage feed, "
        "from the top; none outside."
    )
    both = FeedingPlan(cycle=6, spray_days=10, spray_n_mg_L=25, spray_when="before lamps out")
    assert sentence(both, "N-01").endswith(
        "at every 6th watering, as strong as its kind likes, and a leaf spray of 25 mg/L N every 10 days"
        " before lamps out."
    )
    assert sentence(FeedingPlan(rhythm="never"), "all") == "all: plain water, no feed."


def test_the_coming_twelve_weeks_are_told_watering_by_watering() -> None:
    plan = FeedingPlan(season=("04-01", "08-15"), rhythm="days", every_days=24)
    found = feeding_plan(
        plan=plan,
        fed=FedSoFar(last_feed_on=d("02-01")),
        water_on=d("03-09"),
        interval_days=4,
        today=d("03-09"),
    ).result
    assert found.today.opens_on == d("04-01")
    fed = [x.on for x in found.days if x.job == "feed"]
    assert fed == [d("04-02"), d("04-26"), d("05-20")], "moved to the watering, 24 days apart at 4-day watering"
    assert found.next_feed_on == d("04-02")
    assert {x.job for x in found.days if x.on < d("04-01")} == {"held"}
    assert all(x.why for x in found.days if x.job == "held")


def test_a_spray_beside_the_root_feed_keeps_its_own_days() -> None:
    plan = FeedingPlan(cycle=4, spray_days=10, spray_n_mg_L=25)
    found = feeding_plan(plan=plan, water_on=d("01-03"), interval_days=3, today=d("01-01"), days=30).result
    sprays = [x.on.day for x in found.days if x.job == "leaf spray"]
    assert sprays == [1, 11, 21, 31]
    assert [x.on.day for x in found.days if x.job == "feed"] == [3, 15, 27]
    leaf = feeding_plan(
        plan=FeedingPlan(rhythm="days", every_days=10, route="leaf spray"),
        water_on=d("01-03"),
        interval_days=3,
        today=d("01-01"),
        days=20,
    ).result
    assert [x.job for x in leaf.days] == ["leaf spray"] * 3


@pytest.mark.parametrize(
    ("changes", "kind", "word"),
    [
        ({"every_days": 0.4}, OutOfRange, "Days between feeds"),
        ({"every_days": 61}, OutOfRange, "Days between feeds"),
        ({"every_months": 13}, OutOfRange, "Months between feeds"),
        ({"cycle": 3, "feeds": 4}, InputError, "out of 3 cannot be"),
        ({"season": ("04-31", "08-01")}, InputError, "04-31"),
        ({"season": ("April", "08-01")}, InputError, "April"),
        ({"faster": ("01-01", "13-01")}, InputError, "13-01"),
        ({"warm_C": 50.0}, OutOfRange, "Mean of the nights"),
        ({"warm_C": 16.0, "warm_nights": 0}, OutOfRange, "Nights counted"),
        ({"lamps_h": 25.0}, OutOfRange, "Hours of lamps"),
        ({"strength": "fraction", "value": 6.0}, OutOfRange, "Strength"),
        ({"strength": "nitrogen", "value": 0.0}, OutOfRange, "Strength"),
        ({"strength": "count", "value": 2.0}, Underspecified, "of one product"),
        ({"spray_days": 10.0}, Underspecified, "How strong the spray is"),
        ({"products": (PlanProduct("", 1), PlanProduct("", 2))}, InputError, "same time"),
    ],
)
def test_a_plan_that_cannot_be_is_refused(changes: dict[str, object], kind: type[Exception], word: str) -> None:
    with pytest.raises(kind, match=word):
        checked_plan(replace(FeedingPlan(), **changes))  # type: ignore[arg-type]


@pytest.mark.parametrize("share", [1 / 3, 2 / 3, 0.5, 0.25, 0.75, 1.0, 0.2, 0.4, 0.6, 0.8, 0.125, 0.1, 0.15, 5 / 7])
def test_a_share_is_said_as_it_can_be_typed_again(share: float) -> None:
    said = value_said(FeedingPlan(strength="fraction", value=share))
    assert read_share(said).share == pytest.approx(share)
