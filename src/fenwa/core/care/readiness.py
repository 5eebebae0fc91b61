"""Is the pot ready for water? Each grower's own rule: weight, probe, finger, root colour, first droop, or days
alone.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.errors import InputError, Underspecified
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

ReadyBy = Literal["days", "weight", "probe", "finger", "roots", "droop"]
Moist = Literal["wet", "moist", "barely damp", "dry"]
Roots = Literal["green", "silver"]
DryEnd = Literal["low", "high"]
State = Literal["water", "wait", "check"]

MOIST: tuple[Moist, ...] = ("wet", "moist", "barely damp", "dry")  # from wet to dry
USUAL_MOIST: Moist = "barely damp"  # most kinds are watered then; judgement
USUAL_AT = {"weight": 0.1, "finger": 2.0}  # share of the water left; "barely damp": judgement


@dataclass(frozen=True)
class Probe:
    """A soil probe with the scale printed on it, and which end of it is dry."""

    name: str
    lowest: float = 1.0
    highest: float = 10.0
    dry_end: DryEnd = "low"

    def moisture(self, value: float) -> float:
        """Share of the scale from its dry end, 0 to 1. It ranks; it is no water content."""
        share = (value - self.lowest) / (self.highest - self.lowest)
        return share if self.dry_end == "low" else 1.0 - share


@dataclass(frozen=True)
class ReadyRule:
    """A rule and its threshold: share of water left, value on the probe's own scale, or place in ``MOIST``."""

    by: ReadyBy = "days"
    at: float | None = None
    probe: Probe | None = None


@dataclass(frozen=True, kw_only=True)
class Felt:
    """What was felt, seen or read of a pot, each with its day. None: not done. [share, probe's scale]"""

    left_share: float | None = None
    weighed_on: date | None = None
    probe_value: float | None = None
    probed_on: date | None = None
    moist: Moist | None = None
    moist_on: date | None = None
    roots: Roots | None = None
    roots_on: date | None = None
    droops: bool | None = None
    droop_on: date | None = None


@dataclass(frozen=True)
class Ready:
    """Water it, wait, or check: nobody has looked since the last watering, or not today."""

    state: State
    sentence: str


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
    return ReadyRule(rule.by, at, rule.probe)


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


def says(rule: ReadyRule) -> str:
    """The rule in a few words, as the round tells it."""
    if rule.by == "weight":
        return f"water at {100 * (rule.at or 0):.0f} % of its water left, by weight"
    if rule.by == "probe" and rule.probe is not None:
        side = "or less" if rule.probe.dry_end == "low" else "or more"
        return f"water at {rule.at:g} {side} on {rule.probe.name}"
    if rule.by == "finger":
        return f"water when {MOIST[int(rule.at or 2)]} to the finger"
    if rule.by == "roots":
        return "water when the roots are silver"
    if rule.by == "droop":
        return "water at the first droop"
    return "by days; feel it first"


SOAKED_SHARE = 0.7  # of its water left by the scale: just watered, whatever the plan says; judgement


def _wet_sign(felt: Felt, today: date) -> str:
    """What was found today that says not today, whatever the rule and the plan."""
    if felt.moist == "wet" and felt.moist_on == today:
        return "Wet to the finger"
    if felt.roots == "green" and felt.roots_on == today:
        return "Roots still green"
    if felt.left_share is not None and felt.weighed_on == today and felt.left_share >= SOAKED_SHARE:
        return f"{100 * felt.left_share:.0f} % of its water left by weight"
    return ""


def wet_on(felt: Felt) -> date | None:
    """The day it was last found wet; None: not found so."""
    return felt.moist_on if felt.moist == "wet" else None


def _since(on: date | None, last_pour_on: date | None) -> bool:
    return on is not None and (last_pour_on is None or on > last_pour_on)


def asks_plain(rule: ReadyRule, felt: Felt, last_pour_on: date | None) -> bool:
    """Droop, or dry through where the rule did not wait for that: answered with plain water, never with feed."""
    droops = felt.droops is True and _since(felt.droop_on, last_pour_on)
    waits_for_dry = rule.by == "finger" and moist_of(rule) == "dry"
    dry = felt.moist == "dry" and _since(felt.moist_on, last_pour_on) and not waits_for_dry
    return droops or dry


def is_ready(rule: ReadyRule, felt: Felt, last_pour_on: date | None, today: date) -> Ready:
    """Dry stays dry until it is watered; not dry is true of the day it was found alone."""
    wet = _wet_sign(felt, today)
    if wet and not (felt.droops and felt.droop_on == today):
        return Ready("wait", f"{wet}: not today.")
    if wet:
        return Ready("wait", f"{wet}, and it droops: no water, look at the roots.")
    if last_pour_on is None and rule.by == "days" and felt.moist is None:
        return Ready("check", "Look first: nobody told when it was watered last. Water only if it is dry.")
    if rule.by == "days" and asks_plain(rule, felt, last_pour_on):
        return Ready("water", "Found dry: plain water first, feed at the next.")
    dry, on, found = _finding(rule, felt)
    current = dry is not None and on is not None and on <= today and (last_pour_on is None or on > last_pour_on)
    if rule.by == "days" or not current or on is None:
        return Ready("check", f"Check: {says(rule)}.")
    when = "" if on == today else f" on {on.day} {on:%b}"
    said = f"{found[0].upper()}{found[1:]}{when}"
    if dry:
        return Ready("water", f"{said}: dry by your rule. Water.")
    if on == today:
        return Ready("wait", f"{said}: not yet by your rule.")
    return Ready("check", f"{said}. Check again: {says(rule)}.")


@calculation("readiness", title="Is it ready for water?", station="pots")
def readiness(
    *, rule: ReadyRule, felt: Felt = Felt(), last_pour_on: date | None = None, today: date
) -> Computed[Ready]:
    """Whether a pot is to be watered, left or checked, by the grower's own rule.

    Parameters
    ----------
    rule : ReadyRule
        By weight (share of water left, 0 to 0.9), probe (on its own scale), finger, root colour, droop, or days.
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


def moist_of(rule: ReadyRule) -> Moist:
    """How dry to the finger a rule waits for; the usual one where it goes by something else."""
    return MOIST[int(rule.at)] if rule.by == "finger" and rule.at is not None else USUAL_MOIST
