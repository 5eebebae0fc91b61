"""Several signs together: how many say dry, and which speaks against."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.care.felt import MOIST, SIGNS_AGAIN_DAYS, USUAL_AT, Felt, Ready, ReadyRule, Sign, says, since_pour
from fenwa.core.entry import capital


@dataclass(frozen=True)
class SignsFound:
    """Signs found since the last watering: those that say dry, those that say wet, the day of the newest wet one."""

    dry: tuple[str, ...]
    wet: tuple[str, ...]
    open: tuple[Sign, ...]
    wet_on: date | None


def signs_found(rule: ReadyRule, felt: Felt, last_pour_on: date | None, today: date) -> SignsFound:
    """What each sign of a rule says. Dry counts until it is watered; wet for two days."""
    told: dict[Sign, tuple[bool | None, date | None, str]] = {
        "roots": (None if felt.roots is None else felt.roots == "silver", felt.roots_on, f"roots {felt.roots}"),
        "wall": (None if felt.wall is None else felt.wall == "clear", felt.wall_on, f"wall {felt.wall}"),
        "finger": (_dry_to_finger(rule, felt), felt.moist_on, f"medium {felt.moist}"),
        "leaves": (felt.droops, felt.droop_on, "leaves slack" if felt.droops else "leaves firm"),
        "heft": (None if felt.heft is None else felt.heft == "light", felt.heft_on, f"{felt.heft} in the hand"),
    }
    dry, wet, unseen, newest = [], [], [], None
    for sign in rule.signs:
        says_dry, on, words = told[sign]
        if says_dry is None or on is None or on > today or not since_pour(on, last_pour_on):
            unseen.append(sign)
        elif says_dry:
            dry.append(words)
        elif (today - on).days < SIGNS_AGAIN_DAYS:
            wet.append(words)
            newest = on if newest is None else max(newest, on)
        else:
            unseen.append(sign)
    return SignsFound(tuple(dry), tuple(wet), tuple(unseen), newest)


def _dry_to_finger(rule: ReadyRule, felt: Felt) -> bool | None:
    if felt.moist is None:
        return None
    return MOIST.index(felt.moist) >= (rule.at if rule.at is not None else USUAL_AT["finger"])


def by_signs(rule: ReadyRule, felt: Felt, last_pour_on: date | None, today: date) -> Ready:
    """Water where enough signs say dry, wait where one says wet, else check."""
    found = signs_found(rule, felt, last_pour_on, today)
    if len(found.dry) >= rule.least:
        enough = f"{len(found.dry)} signs agree" if len(found.dry) > 1 else "one sign is enough"
        return Ready("water", f"{_joined(found.dry)}: {enough}. Water.")
    if found.wet and found.wet_on is not None:
        again = found.wet_on + timedelta(days=SIGNS_AGAIN_DAYS)
        against = f"{_joined(found.wet)}" + (f", though {' and '.join(found.dry)}" if found.dry else "")
        return Ready("wait", f"{against}: not yet. Look again on {again.day} {again:%b}.", again)
    seen = f"{_joined(found.dry)}: one sign of {rule.least}. " if found.dry else ""
    return Ready("check", f"{seen}Check: {says(rule)}.")


def _joined(words: tuple[str, ...]) -> str:
    said = " and ".join(words)
    return capital(said)
