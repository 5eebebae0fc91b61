"""What a feeding plan says of a day: its rhythm, whether its season is open, which product it names."""

from __future__ import annotations

from calendar import monthrange
from datetime import date, timedelta

from fenwa.core.care.pattern import Pattern, pattern_of
from fenwa.core.care.plan import FeedingPlan, PlanDay, PlanFacts, ProductWhen, day_of
from fenwa.core.care.plan_words import says_how_often, spoken
from fenwa.core.care.season import Hemisphere, clock_of
from fenwa.core.mix.school import School

LEAF_SEEN_DAYS, SPIKE_SEEN_DAYS = 45, 90  # how long a leaf or a spike seen speaks; judgement
NIGHTS_READ = 0.5  # of the nights counted, at least this share was read; judgement
OPEN = PlanDay(1.0)


def spray_time(plan: FeedingPlan, lamps_off: str) -> str:
    """When to spray, in words: by the clock where it is told when the lamps go out.

    >>> spray_time(FeedingPlan(spray_before_dark_min=25), "20:40")
    'at 20:15, 25 minutes before lamps out'
    """
    least = plan.spray_before_dark_min
    if least <= 0:
        return plan.spray_when
    said = f"{least:g} minutes before lamps out"
    if not lamps_off:
        return said
    hour, minute = clock_of(lamps_off)
    at = round(60 * hour + minute - least) % (24 * 60)
    return f"at {at // 60:02}:{at % 60:02}, {said}"


def pattern_on(plan: FeedingPlan, school: School | None, half: Hemisphere, today: date, lamps_off: str = "") -> Pattern:
    """The rhythm a plan asks for on a day; a school's own where it is one."""
    if school is not None:
        return pattern_of(school)
    name, spray, when = plan.name or says_how_often(plan), plan.spray_days, spray_time(plan, lamps_off)
    if plan.route == "leaf spray":
        if plan.rhythm == "never":
            return Pattern("none", name=name)
        return Pattern("leaf spray", every_days=plan.every_days, name=name, when=when)
    if plan.rhythm == "never" or plan.feeds == 0:
        return Pattern("none", name=name, spray_days=spray, when=when)
    if plan.rhythm == "months":
        return Pattern("months", every_months=plan.every_months, name=name, spray_days=spray, when=when)
    if plan.rhythm == "days":
        fast = plan.faster is not None and _within(_turned(plan, plan.faster, half), today)
        days = plan.faster_days if fast else plan.every_days
        return Pattern("days", every_days=days, name=name, spray_days=spray, when=when)
    return Pattern("count", plan.cycle, plan.feeds, name=name, spray_days=spray, when=when)


def _turned(plan: FeedingPlan, span: tuple[str, str], half: Hemisphere) -> tuple[str, str] | None:
    """A span of days at a place: six months on where it was told for the other half, none where seasons are none."""
    if plan.months_of == "here" or half == "north":
        return span
    if half == "none":
        return None
    return _half_a_year_on(span[0]), _half_a_year_on(span[1])


def _half_a_year_on(day: str) -> str:
    """The day half a year on; the last of a month becomes the last of the other.

    >>> [_half_a_year_on(d) for d in ("04-01", "08-15", "08-31", "03-30")]
    ['10-01', '02-15', '02-29', '09-30']
    """
    month, in_month = day_of(day)
    other = (month + 5) % 12 + 1
    longest = monthrange(2028, other)[1]
    return f"{other:02}-{longest if in_month == monthrange(2028, month)[1] else min(in_month, longest):02}"


def _within(span: tuple[str, str] | None, on: date) -> bool:
    """Whether a day lies in a span that may run past the turn of the year; no span: always."""
    if span is None:
        return True
    day, (first, last) = f"{on:%m-%d}", span
    return first <= day <= last if first <= last else day >= first or day <= last


def next_day(text: str, today: date) -> date:
    """The next time a day of the year comes, today included."""
    month, day = day_of(text)
    for year in (today.year, today.year + 1):
        on = date(year, month, min(day, 28 if (month, day) == (2, 29) else day))
        if on >= today:
            return on
    raise AssertionError("every day comes within two years")


def season_today(plan: FeedingPlan, facts: PlanFacts, today: date) -> PlanDay:
    """What a plan says of a day: all its conditions must hold."""
    if plan.rhythm == "never" and not plan.spray_days:
        return PlanDay(0.0, reason="This plan feeds nothing.")
    closed = next((c for c in _conditions(plan, facts, today) if c is not None), None)
    if closed is None:
        return OPEN
    share = plan.outside_share if plan.outside == "step down" and closed.by in ("calendar", "growth", "lamps") else 0.0
    return PlanDay(share, closed.by, closed.reason, closed.release, closed.opens_on, plan.outside == "none")


def _conditions(plan: FeedingPlan, f: PlanFacts, today: date) -> tuple[PlanDay | None, ...]:
    return (
        _of_calendar(plan, f, today),
        _of_warmth(plan, f, today),
        _of_growth(plan, f, today),
        _of_bloom(plan, f, today),
        PlanDay(0.0, "place", "On show: fed in reserve only.", "When it is back in reserve.")
        if plan.reserve_only and f.on_display
        else None,
        _of_lamps(plan, f),
    )


def _of_calendar(plan: FeedingPlan, f: PlanFacts, today: date) -> PlanDay | None:
    here = _turned(plan, plan.season, f.half) if plan.season else None
    if here is None or _within(here, today):
        return None
    opens = next_day(here[0], today)
    span = f"{spoken(here[0])} to {spoken(here[1])}"
    return PlanDay(0.0, "calendar", f"Calendar: fed from {span}.", f"Opens on {opens.day} {opens:%B}.", opens)


def _of_warmth(plan: FeedingPlan, f: PlanFacts, today: date) -> PlanDay | None:
    if plan.warm_C is None:
        return None
    n = plan.warm_nights
    late = [c for on, c in f.nights if today - timedelta(days=n) <= on <= today][-n:]
    until = f"When the mean of the last {n} nights is {plan.warm_C:g} °C or more."
    if len(late) < NIGHTS_READ * n:
        read = "no night" if not late else f"{len(late)} of {n} nights"
        return PlanDay(0.0, "warmth", f"Warmth: {read} read of late.", f"Read the nights. {until}")
    mean = sum(late) / len(late)
    if mean >= plan.warm_C:
        return None
    return PlanDay(0.0, "warmth", f"Warmth: the last nights mean {mean:.1f} °C.", until)


def _of_growth(plan: FeedingPlan, f: PlanFacts, today: date) -> PlanDay | None:
    made = f.stopped_on is not None and (f.growth_on is None or f.stopped_on >= f.growth_on)
    spike = spike_seen(f, today)
    if plan.growth == "leaf forming":
        seen = f.growth_on is not None and (today - f.growth_on).days <= LEAF_SEEN_DAYS
        if made or not seen:
            return PlanDay(0.0, "growth", "Growth: no leaf seen forming of late.", "A leaf seen forming: look.")
    if plan.growth == "until made" and made and f.stopped_on is not None:
        on = f.stopped_on
        return PlanDay(0.0, "growth", f"Growth was made on {on.day} {on:%B}.", "New growth seen.")
    if plan.growth == "until spike" and spike:
        return PlanDay(0.0, "growth", "A spike is seen.", "When the spike is over.")
    if plan.growth == "from spike" and not spike:
        return PlanDay(0.0, "growth", "No spike seen yet.", "A spike seen.")
    return None


def spike_seen(f: PlanFacts, today: date) -> bool:
    """Whether a spike stands: seen of late, and no bloom over since."""
    seen = f.spike_on is not None and (today - f.spike_on).days <= SPIKE_SEEN_DAYS
    over = f.bloom_over_on is not None and f.spike_on is not None and f.bloom_over_on >= f.spike_on
    return seen and not over


def _of_bloom(plan: FeedingPlan, f: PlanFacts, today: date) -> PlanDay | None:
    if plan.bloom in ("not in bloom", "until bloom") and f.in_bloom:
        return PlanDay(0.0, "bloom", "In bloom: not fed.", "When the bloom is over.")
    if plan.bloom == "after bloom" and (f.in_bloom or f.bloom_over_on is None):
        return PlanDay(0.0, "bloom", "Fed after its bloom only.", "When the bloom is over, noted.")
    at = when_of(f, today)
    here = {p.when: p.product_id for p in plan.products}
    if at in here and here[at] is None:
        return PlanDay(0.0, "bloom" if at == "bloom" else "growth", f"Nothing is fed in {at}.", f"After {at}.")
    return None


def _of_lamps(plan: FeedingPlan, f: PlanFacts) -> PlanDay | None:
    if plan.lamps_h is None or (f.lamps_h is not None and f.lamps_h >= plan.lamps_h):
        return None
    burn = "nobody told how long they burn" if f.lamps_h is None else f"they burn {f.lamps_h:g} h"
    return PlanDay(0.0, "lamps", f"Lamps: {burn}.", f"When they burn {plan.lamps_h:g} h a day.")


def when_of(f: PlanFacts, today: date) -> ProductWhen:
    """Which of a plan's products is the one of the day."""
    return "bloom" if f.in_bloom else "spike" if spike_seen(f, today) else "growth"


def product_today(plan: FeedingPlan, f: PlanFacts, today: date) -> int | None:
    """The product a plan names for the day; None: it names none."""
    here, at = {p.when: p.product_id for p in plan.products}, when_of(f, today)
    if at == "bloom" and at not in here and "spike" in here:
        at = "spike"  # who feeds for the spike goes on with it while it opens
    return here.get(at) if at in here else here.get("")
