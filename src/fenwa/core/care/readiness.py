"""Is the pot ready for water? Each grower's own rule: weight, probe, finger, root colour, first droop, several signs
together, or days alone.
"""

from __future__ import annotations

from datetime import date, timedelta

from fenwa.core.care.felt import MOIST, USUAL_AT, USUAL_MOIST, Felt, Ready, ReadyRule, Sign, says, since_pour
from fenwa.core.care.signs import by_signs, signs_found
from fenwa.core.entry import capital, require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.pot.methods import Moist
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


def checked_rule(rule: ReadyRule) -> ReadyRule:
    """A rule that can be used, its usual threshold filled in.

    Raises
    ------
    Underspecified, InputError, OutOfRange
        If it lacks its probe or threshold, or these cannot be.
    """
    at = USUAL_AT.get(rule.by) if rule.at is None else rule.at
    if rule.by == "weight":
        require(at or 0.0, "Share of water left", "", low=0, high=0.9, pointer="/at")
    elif rule.by == "signs":
        if len(set(rule.signs)) < len(rule.signs) or not 1 <= rule.least <= max(len(rule.signs), 1):
            raise InputError(
                f"{rule.least} signs out of {len(set(rule.signs))} cannot agree. Choose more signs, or ask for fewer.",
                pointer="/least",
                value=rule.least,
            )
        if not rule.signs:
            raise Underspecified("No sign is chosen. Choose what you look at.", pointer="/signs")
    elif rule.by == "finger":
        require(at if at is not None else 2.0, "Dryness", "", low=1, high=3, pointer="/at")
    elif rule.by == "probe":
        if rule.probe is None:
            raise Underspecified("A probe is missing. Choose the probe this pot is read with.", pointer="/probe")
        if at is None:
            raise Underspecified(
                "A threshold is missing. Say at which reading of the probe it is watered.", pointer="/at"
            )
        if not rule.probe.lowest < rule.probe.highest:
            raise InputError(
                f"A scale from {rule.probe.lowest:g} to {rule.probe.highest:g} cannot be. Put the lower end first.",
                pointer="/probe/lowest",
            )
        require(at, f"Reading of {rule.probe.name}", "", low=rule.probe.lowest, high=rule.probe.highest, pointer="/at")
    return ReadyRule(rule.by, at, rule.probe, rule.signs, rule.least)


def _finding(rule: ReadyRule, felt: Felt) -> tuple[bool | None, date | None, str]:
    """Dry by the rule or not, the day it was found, and what was found."""
    if rule.by == "weight" and felt.left_share is not None:
        return felt.left_share <= (rule.at or 0.0), felt.weighed_on, f"{100 * felt.left_share:.0f} % of its water left"
    if rule.by == "probe" and rule.probe is not None and felt.probe_value is not None and rule.at is not None:
        dry = rule.probe.moisture(felt.probe_value) <= rule.probe.moisture(rule.at) + 1e-9
        return dry, felt.probed_on, f"{rule.probe.name} {felt.probe_value:g} of {rule.probe.highest:g}"
    if rule.by == "finger" and felt.moist is not None:
        return MOIST.index(felt.moist) >= (rule.at or 0.0), felt.moist_on, f"{felt.moist} to the finger"
    if rule.by == "roots" and felt.roots is not None:
        return felt.roots == "silver", felt.roots_on, f"roots {felt.roots}"
    if rule.by == "droop" and felt.droops is not None:
        return felt.droops, felt.droop_on, "droops" if felt.droops else "stands firm"
    return None, None, ""


NOTHING_FELT = Felt()
SOAKED_SHARE = 0.7  # of its water left by the scale: just watered, whatever the plan says; judgement


def _wet_sign(felt: Felt, today: date) -> str:
    """What was found today that says not today, whatever the rule and the plan."""
    if felt.moist == "wet" and felt.moist_on == today:
        return "Wet to the finger"
    if felt.roots == "green" and felt.roots_on == today:
        return "Roots still green"
    if felt.wall == "misted" and felt.wall_on == today:
        return "Mist on the wall"
    if felt.heft == "heavy" and felt.heft_on == today:
        return "Heavy in the hand"
    if felt.left_share is not None and felt.weighed_on == today and felt.left_share >= SOAKED_SHARE:
        return f"{100 * felt.left_share:.0f} % of its water left by weight"
    return ""


def wet_on(felt: Felt) -> date | None:
    """The day it was last found wet; None: not found so."""
    return felt.moist_on if felt.moist == "wet" else None


def asks_plain(rule: ReadyRule, felt: Felt, last_pour_on: date | None) -> bool:
    """Droop, or dry through where the rule did not wait for that: answered with plain water, never with feed."""
    droops = felt.droops is True and since_pour(felt.droop_on, last_pour_on)
    waits_for_dry = rule.by == "finger" and moist_of(rule) == "dry"
    dry = felt.moist == "dry" and since_pour(felt.moist_on, last_pour_on) and not waits_for_dry
    return droops or dry


def is_ready(rule: ReadyRule, felt: Felt, last_pour_on: date | None, today: date) -> Ready:
    """Dry stays dry until it is watered; not dry is true of the day it was found alone."""
    wet, tomorrow = _wet_sign(felt, today), today + timedelta(days=1)
    if wet and felt.droops and felt.droop_on == today and not (rule.by == "signs" and felt.moist != "wet"):
        return Ready("wait", f"{wet}, and it droops: no water, look at the roots.", tomorrow)
    if rule.by == "signs" and not (felt.moist == "wet" and felt.moist_on == today):
        return by_signs(rule, felt, last_pour_on, today)
    if wet:
        return Ready("wait", f"{wet}: not today.", tomorrow)
    if last_pour_on is None and rule.by == "days" and felt.moist is None:
        return Ready("check", "Look first: nobody told when it was watered last. Water only if it is dry.")
    if rule.by == "days" and asks_plain(rule, felt, last_pour_on):
        return Ready("water", "Found dry: plain water first, feed at the next.")
    if rule.by == "droop" and felt.droops and felt.droop_on is not None and not since_pour(felt.droop_on, last_pour_on):
        once = f"{felt.droop_on.day} {felt.droop_on:%b}"
        return Ready(
            "check",
            f"It wilted once, on {once}: its gap is told. Water before it does again; a second wilt costs leaves.",
        )
    dry, on, found = _finding(rule, felt)
    current = dry is not None and on is not None and on <= today and (last_pour_on is None or on > last_pour_on)
    if rule.by == "days" or not current or on is None:
        return Ready("check", f"Check: {says(rule)}.")
    when = "" if on == today else f" on {on.day} {on:%b}"
    said = f"{capital(found)}{when}"
    if dry:
        return Ready("water", f"{said}: dry by your rule. Water.")
    if on == today:
        return Ready("wait", f"{said}: not yet by your rule.", tomorrow)
    return Ready("check", f"{said}. Check again: {says(rule)}.")


@calculation("readiness", title="Is it ready for water?", station="pots")
def readiness(
    *, rule: ReadyRule, felt: Felt = NOTHING_FELT, last_pour_on: date | None = None, today: date
) -> Computed[Ready]:
    """Whether a pot is to be watered, left or checked, by the grower's own rule.

    Parameters
    ----------
    rule : ReadyRule
        By weight (share of water left, 0 to 0.9), probe (on its own scale), finger, root colour, droop, several
        signs together, or days.
    felt : Felt
        What was found, with its day.
    last_pour_on : date
        Last watering, if there was one; what was found before it or on its day no longer counts.
    today : date
        The day asked about.

    Returns
    -------
    Computed
        Water, wait or check, with why.

    Raises
    ------
    Underspecified
        If a rule by probe lacks its probe or its threshold.
    InputError
        If a probe's scale is turned round.
    OutOfRange
        If a threshold or a finding lies outside its scale.

    Notes
    -----
    A probe ranks wet and dry in one medium; its figure is no water content and is not carried to
    another probe. Growers differ in the rule; none is the winner.

    References
    ----------
    judgement; schools of readiness
    """
    rule = checked_rule(rule)
    if felt.left_share is not None:
        require(felt.left_share, "Share of water left", "", low=-1, high=3, pointer="/felt/left_share")
    if felt.probe_value is not None and rule.probe is not None:
        require(
            felt.probe_value,
            f"Reading of {rule.probe.name}",
            "",
            low=rule.probe.lowest,
            high=rule.probe.highest,
            pointer="/felt/probe_value",
        )
    ledger = Ledger("Is it ready for water?", "The grower's own rule.", ("judgement",))
    if rule.by == "weight" and felt.left_share is not None:
        ledger.take("left", "share of its water left", felt.left_share, "", "measured")
        ledger.take("at", "watered at", rule.at or 0.0, "", "entered")
        ledger.step("over", "left - at", "", "above the threshold; 0 or less: dry")
    if rule.by == "probe" and rule.probe is not None and felt.probe_value is not None and rule.at is not None:
        ledger.take("read", f"reading of {rule.probe.name}", felt.probe_value, "", "measured")
        ledger.take("at", "watered at", rule.at, "", "entered")
        ledger.take(
            "sign", "1 where the low end is dry, -1 where the high end is", 1 if rule.probe.dry_end == "low" else -1, ""
        )
        ledger.step("over", "sign * (read - at)", "", "above the threshold; 0 or less: dry")
    if last_pour_on is not None:
        ledger.take("gone", "days since the last watering", (today - last_pour_on).days, "d", "log")
    ledger.assume("Dry stays dry until watered; what was not dry yesterday has to be checked again.")
    return ledger.close(is_ready(rule, felt, last_pour_on, today))


@calculation("signs-agree", title="Do the signs agree?", station="pots")
def signs_agree(
    *,
    signs: tuple[Sign, ...],
    least: int = 2,
    felt: Felt = NOTHING_FELT,
    last_pour_on: date | None = None,
    today: date,
) -> Computed[Ready]:
    """Whether so many of the signs a grower looks at say dry.

    Parameters
    ----------
    signs : tuple[str]
        What is looked at: roots (silver or green), wall (clear or misted), finger, leaves (slack or firm), heft.
    least : int
        How many must say dry, 1 to as many as are looked at.
    felt : Felt
        What was found, each with its day.
    last_pour_on : date
        Last watering; what was found before it or on its day no longer counts.
    today : date
        The day asked about.

    Returns
    -------
    Computed
        Water, wait with the contrary sign named, or check what was not looked at.

    Raises
    ------
    InputError
        If more are asked for than are looked at, or one is named twice.
    Underspecified
        If no sign is chosen.

    Notes
    -----
    A wet medium stops water whatever the other signs say. A contrary sign is looked at again after two days.

    References
    ----------
    judgement; schools of readiness
    """
    rule = checked_rule(ReadyRule("signs", None, None, signs, least))
    found = signs_found(rule, felt, last_pour_on, today)
    ledger = Ledger("Do the signs agree?", "The grower's own rule.", ("judgement",))
    ledger.take("n", "signs looked for", len(signs), "")
    ledger.take("dry", "say dry", len(found.dry), "", "measured")
    ledger.take("wet", "say wet", len(found.wet), "", "measured")
    ledger.step("open", "n - dry - wet", "", "not looked at of late")
    ledger.take("least", "must say dry", least, "", "entered")
    ledger.step("short", "max(0, least - dry)", "", "still wanting")
    return ledger.close(is_ready(rule, felt, last_pour_on, today))


def moist_of(rule: ReadyRule) -> Moist:
    """How dry to the finger a rule waits for; the usual one where it goes by something else."""
    return MOIST[int(rule.at)] if rule.by == "finger" and rule.at is not None else USUAL_MOIST
