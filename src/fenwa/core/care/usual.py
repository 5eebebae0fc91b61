"""What is usual for a pot: how much it gets, when it is looked at, what its medium held at the start."""

from __future__ import annotations

from datetime import date, timedelta

from fenwa.core.care.first_pour import first_pour_L
from fenwa.core.pot.methods import Moist

LOOK_DAYS = 14  # judgement: a leaf shows a change of care within weeks, not days
CHARGED_START_uS_cm = 1500.0  # judgement: a charged mix before its first flush
POUR_MIN_L = 0.02
SCARCELY = "scarcely"  # how a small plant fills a large pot
ROOTED_SHARE = 0.35  # of such a pot its roots reach; judgement
PIECE_CHECK_DAYS = 3.0  # a fresh piece is looked at so often until its own gaps are learnt; judgement


def usual_pour_L(
    set_L: float | None,
    logged_L: float | None,
    loss_per_day: float,
    interval_days: float,
    water_L: float,
    LF: float,
    moist: Moist | None = None,
    scarcely_filled: bool = False,
) -> float:
    """Usual pour: what the grower set, else what the log shows, else the refill over the share that stays. [L]

    Never over what the medium can hold. ``moist``: how dry it was told; it stands before the guess by days.
    ``scarcely_filled``: a small plant in a large pot gets what its roots reach.
    """
    if scarcely_filled:
        water_L *= ROOTED_SHARE
    if set_L is not None:
        return set_L
    if logged_L is not None:
        return logged_L
    if moist is not None:
        return first_pour_L(water_L, moist, LF)
    return max(POUR_MIN_L, min(loss_per_day * interval_days * water_L / (1 - LF), water_L))


def look_again_on(on: date, answers_days: tuple[int, int]) -> date:
    """The day by which a kind has answered a change of salt or water: an earlier look is early, a later one settled.

    [d]
    """
    return on + timedelta(days=answers_days[1])


ROOT_TIP_CM = 2.0  # table of holds: living tips of 2 to 3 cm


def roots_work(
    said: bool | None, said_on: date | None, new_leaf_on: date | None, root_cm: float | None, root_on: date | None
) -> bool | None:
    """Whether roots drink: what was said of them last, until a new leaf or a root tip of 2 cm shows that they do.

    None: not known.
    """
    if said is not False or said_on is None:
        return said
    leaf = new_leaf_on is not None and new_leaf_on > said_on
    tip = root_cm is not None and root_cm >= ROOT_TIP_CM and root_on is not None and root_on > said_on
    return leaf or tip


def look_is_due(last_on: date | None, today: date) -> bool:
    """Nobody has looked for a fortnight, or ever."""
    return last_on is None or (today - last_on).days >= LOOK_DAYS


def start_of_medium_uS_cm(charged: bool | None) -> float | None:
    """Root zone a fresh medium starts with; None where it is not known to have come with feed. [µS/cm]"""
    return CHARGED_START_uS_cm if charged else None


TRAY_RINSE_DAYS = 120  # where the kind names no cadence
WATER_CHANGE_DAYS = 7  # a cutting that roots in water: weekly, by common advice


def water_change_days(phase: str, cadence_days: tuple[int, int] | None) -> int:
    """Days between changes of the water below a pot: weekly for what roots in it, else as its kind asks. [d]"""
    return WATER_CHANGE_DAYS if phase == "establishing" else tray_change_days(cadence_days)


def tray_change_days(cadence_days: tuple[int, int] | None) -> int:
    """Days between changes of a tray or reservoir by a kind's cadence. [d]"""
    return cadence_days[1] if cadence_days else TRAY_RINSE_DAYS
