"""Prills in a pot: how much they have given by thermal time, and the day they are spent."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fenwa.core.care.interval import ROOM_C, warmth_since
from fenwa.core.mix.school import days_until_released, released_share

PRILL_DONE = 0.85  # the rest comes too slowly to count; judgement


@dataclass(frozen=True)
class Prills:
    """Prills in a pot: the share they have given and the day they are spent."""

    share_out: float
    until: date


def prills_in(
    given_on: date,
    label_days: float,
    label_C: float | None,
    warmth: Sequence[tuple[date, float]],
    today: date,
) -> Prills:
    """Prills given on a day, E3.11: at the warmth of their place, or of a room where nobody measured.

    Parameters
    ----------
    label_days
        Longevity the label states. [d]
    label_C
        Temperature it is stated at; None: at that of a room. [°C]
    warmth
        Means of the place by day, oldest first. [°C]
    """
    warm, at = warmth_since(tuple(warmth), given_on), ROOM_C if label_C is None else label_C
    days = days_until_released(PRILL_DONE, label_days, warm, at)
    return Prills(released_share((today - given_on).days, label_days, warm, at), given_on + timedelta(days=round(days)))
