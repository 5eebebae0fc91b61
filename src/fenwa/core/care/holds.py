"""When the answer is "do not": each hold with its reason and what ends it."""

from __future__ import annotations

from dataclasses import replace
from datetime import date, timedelta

from fenwa.core.care.climate_holds import of_climate
from fenwa.core.care.condition import Blocked, Condition, Hold, Override
from fenwa.core.care.prills import PRILL_DONE
from fenwa.core.entry import capital, require
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

# table of holds: guidelines and judgement [d, °C, shares]
ARRIVAL_DAYS, SETTLED_DAYS = 14, 45
REPOTTED_DAYS, REPOTTED_MOST_DAYS = 14, 28
CHARGED_TIMES = 1.2  # of the comfortable top: a charged mix is spent when its runoff is below
UNKNOWN_CHARGE_DAYS = 42
CRUST_DAYS = 60
RUNOFF_DAYS = 28  # an older runoff says little of today: the prediction stands instead
BONE_DRY = 0.6  # share of all the medium can hold that is gone: feed would burn
WET_DAYS = 7  # a medium found wet is so for about a week where nobody poured since; judgement
ILL_DAYS = 30  # a mark of illness stands until it is looked at again or this long
OVERRIDE_DAYS = 60


def holds(c: Condition, today: date, of_plan: Hold | None = None) -> tuple[Hold, ...]:
    """Every open hold, the strictest first; ``of_plan``: the one its feeding plan sets.

    Source: table of holds, judgement and guidelines.
    """
    found = [
        *([of_plan] if of_plan else []),
        *_of_phase(c),
        *_of_waking(c),
        *_of_arrival(c, today),
        *_of_medium(c, today),
        *_of_health(c, today),
        *of_climate(c, today),
        *_of_kind(c),
    ]
    if not found:
        return ()
    words = {o.hold_id: o.word for o in c.overrides if holds_back(o, today)}
    told = [replace(h, word=words[h.id]) if h.id in words else h for h in found]
    return tuple(sorted(told, key=lambda h: (bool(h.word), h.standing, h.quiet, -len(h.blocks))))


def holds_back(o: Override, today: date) -> bool:
    """Whether a word still sets its hold aside."""
    return 0 <= (today - o.on).days < OVERRIDE_DAYS


def blocked(open_holds: tuple[Hold, ...], act: Blocked) -> bool:
    """Does any open hold forbid this act? One set aside with a word does not."""
    return any(act in h.blocks and not h.word for h in open_holds)


def _days(on: date | None, today: date) -> int | None:
    return None if on is None else (today - on).days


def _of_phase(c: Condition) -> list[Hold]:
    if c.phase not in ("dormant", "rest", "stressed"):
        return []
    since = f" since {c.phase_since.day} {c.phase_since:%b}" if c.phase_since else ""
    until = c.gate_needs or f"{capital(c.restart)}."
    if c.phase == "dormant":
        return [
            Hold(
                "dormant",
                ("water", "feed", "flush", "leaf spray"),
                f"Dormant{since}: kept dry, no water and no feed.",
                until,
            )
        ]
    if c.phase == "rest" and not c.rest_feeds:
        return [
            Hold("resting", ("feed", "flush", "leaf spray"), f"Resting{since}: plain water, sparingly, no feed.", until)
        ]
    if c.phase == "stressed":
        return [
            Hold(
                "stressed",
                ("feed", "leaf spray"),
                f"Stressed{since}: feed would burn what is left of the roots.",
                "New growth in sight.",
            )
        ]
    return []


def _of_waking(c: Condition) -> list[Hold]:
    """The first cans after a dry rest are plain: feed waits for plain water and for the first leaf."""
    dry, over = c.rest_kind in ("dry", "summer"), c.leaf_since_waking and c.watered_since_waking
    if not dry or c.woken_since is None or over or c.phase in ("dormant", "rest"):
        return []
    return [
        Hold(
            "just woken",
            ("feed", "leaf spray"),
            "Woken from its rest: plain water only, the first cans after a rest carry no feed.",
            "A first watering with plain water." if c.leaf_since_waking else "Its first leaf open, noted in a look.",
        )
    ]


def _is_arrival(c: Condition, arrived_days: int) -> bool:
    """Entered about when it came; a plant entered long after it came has settled, and one of old times after weeks."""
    if c.arrived_on is None or c.entered_on is None:
        return arrived_days < SETTLED_DAYS
    return (c.entered_on - c.arrived_on).days <= SETTLED_DAYS


def _of_arrival(c: Condition, today: date) -> list[Hold]:
    out: list[Hold] = []
    arrived, repotted = _days(c.arrived_on, today), _days(c.repotted_on, today)
    if arrived is not None and arrived >= 0 and _is_arrival(c, arrived):
        word = "day" if arrived == 1 else "days"
        journey = (
            " What browns, dries or stops in the first two weeks is the journey." if arrived < ARRIVAL_DAYS else ""
        )
        if not c.new_leaf_since_arrival:
            out.append(
                Hold(
                    "just arrived",
                    ("feed", "leaf spray"),
                    f"Arrived {arrived} {word} ago. No feed before a new leaf.{journey}",
                    f"A new leaf after the arrival, {ARRIVAL_DAYS} days at least; days alone release nothing.",
                )
            )
        elif arrived < ARRIVAL_DAYS:
            out.append(
                Hold(
                    "just arrived",
                    ("feed", "leaf spray"),
                    f"Arrived {arrived} {word} ago.",
                    f"{ARRIVAL_DAYS} days after arrival.",
                )
            )
    if repotted is not None and 0 <= repotted < REPOTTED_MOST_DAYS:
        moving = c.roots_moving_on is not None and c.repotted_on is not None and c.roots_moving_on > c.repotted_on
        if repotted < REPOTTED_DAYS or (not moving and c.roots_working is False):
            out.append(
                Hold(
                    "just repotted",
                    ("feed", "flush"),
                    "Cut roots and a fresh mix: no feed yet, and no flush on fresh cuts.",
                    f"{REPOTTED_DAYS} days after repotting, roots moving.",
                )
            )
    if c.roots_working is False:
        out.append(
            Hold(
                "no working roots",
                ("water", "feed", "flush"),
                "No living roots: water at them only rots what is left. Keep it humid.",
                "Two living root tips of 2 to 3 cm, or a new leaf opening.",
            )
        )
    return out


_RINSED = (
    "After a flush, when the reading is back in the comfortable range: measured, or predicted where nobody measures."
)
_CRUST_GONE = "Scraped off and flushed, the reading in its range; or two looks that see none."


def _is_salty(c: Condition, today: date) -> bool:
    """A reading of the last weeks over the ceiling, or one that puts the pot's salt over it, not flushed since."""
    read = _days(c.last_reading_on, today)
    if read is None or not 0 <= read <= RUNOFF_DAYS or c.last_reading_on is None or c.ceiling_uS_cm is None:
        return False
    measured = c.last_reading_uS_cm is not None and c.last_reading_uS_cm > c.ceiling_uS_cm
    stands_at = c.predicted_uS_cm is not None and c.predicted_uS_cm > c.ceiling_uS_cm
    return (measured or stands_at) and not _rinsed_since(c, c.last_reading_on)


def _rinsed_since(c: Condition, on: date) -> bool:
    """Flushed since a day and found in range: by a runoff read after the flush, else by the prediction."""
    if c.flushed_on is None or c.flushed_on < on or c.ideal_high_uS_cm is None:
        return False
    measured = c.last_reading_on is not None and c.last_reading_on > c.flushed_on
    now = c.last_reading_uS_cm if measured else c.predicted_uS_cm
    return now is not None and now <= c.ideal_high_uS_cm


def _of_medium(c: Condition, today: date) -> list[Hold]:
    out: list[Hold] = []
    since = _days(c.medium_since, today)
    read_since_potting = c.last_reading_on is not None and (
        c.medium_since is None or c.last_reading_on >= c.medium_since
    )
    top = c.ideal_high_uS_cm
    if c.medium_charged and since is not None and since < 2 * UNKNOWN_CHARGE_DAYS and top is not None:
        spent = read_since_potting and c.last_reading_uS_cm is not None and c.last_reading_uS_cm < CHARGED_TIMES * top
        if not spent:
            out.append(
                Hold(
                    "feed in the medium",
                    ("feed",),
                    "The mix came with feed: it feeds already.",
                    f"A runoff below {CHARGED_TIMES * top:.0f} µS/cm, or {2 * UNKNOWN_CHARGE_DAYS} days.",
                )
            )
    if c.medium_charged is None and since is not None and 0 <= since < UNKNOWN_CHARGE_DAYS and not read_since_potting:
        out.append(
            Hold(
                "medium not known",
                ("feed",),
                "Whether the fresh mix holds feed is not known.",
                f"A runoff reading, or {UNKNOWN_CHARGE_DAYS} days after potting.",
            )
        )
    if c.crust_on is not None and 0 <= (today - c.crust_on).days <= CRUST_DAYS and not _rinsed_since(c, c.crust_on):
        out.append(Hold("crust", ("feed",), "Salt crust seen: no feed on top of it.", _CRUST_GONE))
    if _is_salty(c, today):
        figure = c.predicted_uS_cm if c.predicted_uS_cm is not None else c.last_reading_uS_cm
        read_on = c.last_reading_on
        said = f"Salt about {figure:.0f} µS/cm as a reading"
        if figure is not None and c.ceiling_uS_cm is not None and figure <= c.ceiling_uS_cm:
            said += f"; what was read stands for {c.last_reading_uS_cm:.0f} µS/cm"
        when = f", read on {read_on.day} {read_on:%b}" if read_on is not None else ""
        out.append(Hold("salty", ("feed",), f"{said}, over {c.ceiling_uS_cm:.0f} µS/cm{when}.", _RINSED))
    if c.prill_share_out is not None and c.prill_share_out < PRILL_DONE:
        until = f" about {c.prill_until.day} {c.prill_until:%b}" if c.prill_until else ""
        out.append(
            Hold(
                "prills running",
                ("feed",),
                f"Prills have given {100 * c.prill_share_out:.0f} % of what they hold.",
                f"When {100 * PRILL_DONE:.0f} % is out,{until or ' by warmth and days'}.",
            )
        )
    if _is_dry(c):
        out.append(
            Hold(
                "bone dry",
                ("feed", "flush"),
                "Dry through: feed would burn, and a flush would run past.",
                "Wet it with plain water first; feed at the next watering or an hour later.",
            )
        )
    return out


def _is_dry(c: Condition) -> bool:
    return c.dry_share is not None and c.dry_share > BONE_DRY


def _of_health(c: Condition, today: date) -> list[Hold]:
    out: list[Hold] = []
    rot, limp, treated = _days(c.rot_on, today), _days(c.limp_on, today), _days(c.treated_on, today)
    looked = c.rot_on is not None and c.roots_seen_on is not None and c.roots_seen_on >= c.rot_on
    healed = c.rot_on is not None and c.roots_moving_on is not None and c.roots_moving_on > c.rot_on
    if rot is not None and (rot <= ILL_DAYS or not looked) and not healed:
        out.append(
            Hold(
                "rot",
                ("feed", "flush") if looked else ("water", "feed", "flush"),
                "Rot seen: wet roots are dying." if looked else "Rot seen: no water before the roots were looked at.",
                f"Rot cut, dried, and a new root measured; {ILL_DAYS} days at most."
                if looked
                else "A look at the roots, noted: whether they live.",
            )
        )
    wet_since = _days(c.felt_wet_on, today)
    wet = wet_since is not None and wet_since <= WET_DAYS
    repotted = _days(c.repotted_on, today)
    settling = repotted is not None and 0 <= repotted <= REPOTTED_DAYS
    if limp is not None and limp <= ILL_DAYS and settling and not wet:
        out.append(
            Hold(
                "settling",
                ("feed", "flush"),
                "Leaves hang after repotting: expected, its roots are few. Water by the soil, not by the leaf.",
                "A look without limp leaves.",
            )
        )
    elif limp is not None and limp <= ILL_DAYS and _is_salty(c, today) and not wet and not _is_dry(c):
        out.append(
            Hold(
                "wilting",
                ("feed",),
                "Limp in a damp medium, and what was read says salt: flush it, that is what it needs.",
                "Flushed, and a look without limp leaves.",
            )
        )
    elif limp is not None and limp <= ILL_DAYS:
        out.append(
            Hold(
                "wilting",
                ("water", "feed", "flush") if wet else ("feed", "flush"),
                "Limp in a wet medium: no water, see what is wrong. The first check is its roots."
                if wet
                else "Limp: find out whether it is dry or rotting before anything else.",
                "A look without limp leaves.",
            )
        )
    if treated is not None and 0 <= treated < max(c.treated_days, 2):
        out.append(
            Hold(
                "treated",
                ("leaf spray",),
                f"Leaves were treated {treated} days ago.",
                "When the interval of the product's label has passed, two days at least.",
            )
        )
    algae = _days(c.algae_on, today)
    if algae is not None and c.algae_on is not None and c.spray_days and 0 <= algae <= c.spray_days:
        until = c.algae_on + timedelta(days=int(c.spray_days) + 1)
        out.append(
            Hold(
                "algae",
                ("leaf spray",),
                "Algae on the medium: its next spray is left out, feed would nourish them.",
                f"A look without algae, or {until.day} {until:%b}.",
            )
        )
    if c.trial:
        blocks: list[Blocked] = ["leaf spray"]
        blocks += [] if c.trial_flush else ["flush"]
        blocks += [] if c.trial_feeds else ["feed"]
        said = " A phase begins: flush it first." if c.trial_flush else ""
        out.append(
            Hold(
                "trial",
                tuple(blocks),
                f"Under trial: {c.trial.rstrip(' .?!')}. Everything else stays as it is.{said}",
                "With the trial: on its last day, or when it is stopped.",
            )
        )
    return out


def _of_kind(c: Condition) -> list[Hold]:
    out: list[Hold] = []
    if c.carnivore and not c.root_opt_in:
        out.append(
            Hold(
                "carnivore roots",
                ("feed",),
                "A carnivore: nothing but pure water at its roots.",
                "Only if you choose a school that feeds a little at the root.",
                standing=True,
            )
        )
    if c.wet_leaves_harm:
        out.append(
            Hold(
                "leaves dry at night",
                ("leaf spray",),
                "Its leaves must not stay wet at night.",
                "Spray in the morning, dry by dusk.",
                standing=True,
            )
        )
    return out


@calculation("holds", title="When the answer is do not", station="pots")
def open_holds(*, condition: Condition, today: date) -> Computed[tuple[Hold, ...]]:
    """Every hold open on a pot, with reason and release.

    Parameters
    ----------
    condition : Condition
        What is known of the plant, its pot and its place. [µS/cm, °C, d]
    today : date
        The day asked about.

    Returns
    -------
    Computed
        Holds, the strictest first; one set aside with a word blocks nothing and is still shown.

    Raises
    ------
    InputError
        If a value is of another kind.

    Notes
    -----
    All open holds must end before what they name is done. What is not known opens no hold, except a
    fresh mix that may hold feed.

    References
    ----------
    table of holds, guidelines and judgement
    """
    for value, words, key in (
        (condition.last_reading_uS_cm, "Newest runoff", "last_reading_uS_cm"),
        (condition.ceiling_uS_cm, "Ceiling", "ceiling_uS_cm"),
        (condition.ideal_high_uS_cm, "Upper end of what it likes", "ideal_high_uS_cm"),
        (condition.predicted_uS_cm, "Predicted reading", "predicted_uS_cm"),
    ):
        if value is not None:
            require(value, words, "µS/cm", low=0, high=50_000, pointer=f"/condition/{key}")
    ledger = Ledger(
        "When the answer is do not", "Table of holds; the strictest wins.", ("judgement", "care-guideline", "magnus")
    )
    dated = (
        ("phase", condition.phase_since),
        ("arrival", condition.arrived_on),
        ("repotting", condition.repotted_on),
        ("crust", condition.crust_on),
        ("runoff", condition.last_reading_on),
        ("rot", condition.rot_on),
    )
    for i, (name, on) in enumerate(dated):
        if on is not None:
            ledger.take(f"t{i}", f"days since {name}", (today - on).days, "d", "log")
    if condition.last_reading_uS_cm is not None and condition.ceiling_uS_cm is not None:
        ledger.take("r", "newest runoff as a reading", condition.last_reading_uS_cm, "µS/cm", "measured")
        ledger.take("c", "ceiling", condition.ceiling_uS_cm, "µS/cm", "profile")
        ledger.step("over", "max(0, r - c)", "µS/cm", "over the ceiling")
    if condition.day_C is not None and condition.humidity_pct is not None:
        ledger.take("T", "warmest of the day", condition.day_C, "°C", "measured")
        ledger.take("RH", "humidity then", condition.humidity_pct, "%", "measured")
        ledger.step("VPD", "0.6112 * exp(17.62 * T / (243.12 + T)) * (1 - RH / 100)", "kPa", "vapour pressure deficit")
    return ledger.close(holds(condition, today))
