"""A feeding plan in words."""

from __future__ import annotations

from datetime import date

from fenwa.core.care.pattern import ordinal
from fenwa.core.care.plan import FeedingPlan, day_of
from fenwa.core.mix.strength import in_words

SEASON_MONTHS = 3


def spoken(day: str) -> str:
    """``04-01`` as 1 April."""
    month, in_month = day_of(day)
    return f"{in_month} {date(2028, month, 1):%B}"


def says_how_often(plan: FeedingPlan) -> str:
    """How often, in words."""
    if plan.rhythm == "never" or plan.feeds == 0:
        return "never fed at the root"
    if plan.rhythm == "months":
        return (
            "once a month"
            if plan.every_months == 1
            else "once a season"
            if plan.every_months == SEASON_MONTHS
            else f"every {plan.every_months} months"
        )
    if plan.rhythm == "days":
        said = "twice a day" if plan.every_days == 0.5 else f"every {days_word(plan.every_days)}"
        if plan.faster is not None:
            span = f"{spoken(plan.faster[0])} to {spoken(plan.faster[1])}"
            said += f", every {days_word(plan.faster_days)} from {span}"
        return said
    if plan.feeds == 1:
        return "at every watering" if plan.cycle == 1 else f"at every {ordinal(plan.cycle)} watering"
    if plan.feeds == plan.cycle:
        return "at every watering"
    return ", ".join(["feed"] * plan.feeds + ["plain"] * (plan.cycle - plan.feeds))


def days_word(days: float) -> str:
    """``day``, ``2 days``, ``1.5 days``."""
    return "day" if days == 1 else f"{days:g} days"


def value_said(plan: FeedingPlan) -> str:
    """The strength as its grower would type it again; empty where none is named."""
    if not plan.strength or plan.value <= 0:
        return ""
    if plan.strength != "fraction":
        return f"{plan.value:g}"
    return in_words(plan.value).removeprefix("one ").replace("the whole", "full")


_STRENGTHS = {
    "nitrogen": "{:g} mg/L N",
    "ec_added": "{:g} µS/cm added",
    "ec_total": "up to {:g} µS/cm in all",
    "dose": "{:g} g a litre",
    "count": "{:g} g a litre, counted",
}
_GROWTH = {
    "leaf forming": "while a leaf is forming",
    "until made": "until the growth is made",
    "until spike": "until a spike shows",
    "from spike": "from the spike on",
}
_ROUTES = {
    "top": "from the top",
    "soak": "by soaking",
    "tray": "into the tray",
    "reservoir": "into the reservoir",
    "cup": "into the cup",
    "moss pole": "onto the moss pole",
    "leaf spray": "on the leaves",
}


def sentence(plan: FeedingPlan, whose: str, products: dict[int, str] | None = None) -> str:
    """The whole plan as one sentence."""
    names = products or {}
    when = [
        f"from {spoken(plan.season[0])} to {spoken(plan.season[1])}" if plan.season else "",
        f"while the last {plan.warm_nights} nights mean {plan.warm_C:g} °C or more" if plan.warm_C is not None else "",
        _GROWTH.get(plan.growth, ""),
        {"until bloom": "until it blooms", "not in bloom": "but not in bloom", "after bloom": "after its bloom"}.get(
            plan.bloom, ""
        ),
        "in reserve, not on show" if plan.reserve_only else "",
        f"while lamps burn {plan.lamps_h:g} h" if plan.lamps_h is not None else "",
    ]
    strong = (
        f"{in_words(plan.value)} of the label"
        if plan.strength == "fraction"
        else plan.counted
        if plan.strength == "count" and plan.counted
        else _STRENGTHS[plan.strength].format(plan.value)
        if plan.strength
        else "as strong as its kind likes"
    )
    with_ = "; ".join(
        f"{names.get(p.product_id, 'a feed') if p.product_id is not None else 'nothing'}"
        f"{' in ' + p.when if p.when else ''}"
        for p in plan.products
    )
    if plan.rhythm == "never" and not plan.spray_days:
        return f"{whose}: plain water, no feed."
    parts = [f"Feed {whose}", *when, says_how_often(plan), strong, with_, _ROUTES.get(plan.route, "")]
    said = ", ".join(p for p in parts if p)
    if plan.spray_days:
        at = f" {plan.spray_when}" if plan.spray_when else ""
        said += f", and a leaf spray of {plan.spray_n_mg_L:g} mg/L N every {days_word(plan.spray_days)}{at}"
    tail = {"none": "none outside", "plain": "plain outside", "step down": f"{in_words(plan.outside_share)} outside"}
    return said + (f"; {tail[plan.outside]}." if any(when) else ".")
