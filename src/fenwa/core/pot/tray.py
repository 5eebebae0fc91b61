"""A tray: nothing leaves it but vapour, so salt only gathers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from fenwa.core.entry import require
from fenwa.core.pot.dunk import baths_needed
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class TrayNow:
    """A tray with its pot: EC with its upper bound, litres and days until a limit. None: never, or no limit given.

    [µS/cm, L, d]
    """

    ec_uS_cm: float
    upper_uS_cm: float
    litres_to_limit: float | None
    days_to_limit: float | None
    changes: int | None
    sentence: str


def refilled_since(poured: Sequence[tuple[date, float, float]], since: date | None) -> tuple[float, float | None]:
    """Litres refilled since a change and their mean EC, from (day, litres, EC); None: nothing was. [L, µS/cm]"""
    mine = [(litres, ec) for on, litres, ec in poured if since is None or on >= since]
    used = sum(litres for litres, _ in mine)
    return used, sum(litres * ec for litres, ec in mine) / used if used > 0 else None


@calculation("tray", title="A tray that nothing leaves", station="flush")
def tray(
    *,
    store_L: float,
    start_uS_cm: float,
    water_uS_cm: float,
    used_L: float,
    pot_L: float | None = None,
    limit_uS_cm: float | None = None,
    loss_L_day: float | None = None,
    change_L: float | None = None,
    change_water_uS_cm: float | None = None,
    target_uS_cm: float | None = None,
) -> Computed[TrayNow]:
    """EC of a tray whose losses are refilled, its upper bound in the pot, and when a limit is reached.

    Parameters
    ----------
    store_L : float
        Water of tray and pot together, above 0 to 1 000. [L]
    start_uS_cm : float
        Its EC after the last change, 0 to 50 000. [µS/cm]
    water_uS_cm : float
        EC of what is refilled, 0 to 20 000. [µS/cm]
    used_L : float
        Litres lost and refilled since, 0 to 100 000. [L]
    pot_L : float
        Water in the pot alone, above 0 to 1 000; empty: no upper bound apart. [L]
    limit_uS_cm : float
        Ceiling, above 0 to 50 000; empty: none. [µS/cm]
    loss_L_day : float
        Water lost a day, above 0 to 100; empty: no date. [L/d]
    change_L : float
        Fresh water of one soak-and-drain, above 0 to 1 000; empty: no count of changes. [L]
    change_water_uS_cm : float
        EC of that water, 0 to 20 000; empty: that of the refill. [µS/cm]
    target_uS_cm : float
        Wanted after the changes, above 0 to 50 000. [µS/cm]

    Returns
    -------
    Computed
        EC mixed and at worst, litres and days until the limit, count of soak-and-drain changes. [µS/cm, L, d]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    The upper bound has all salt carried up into the pot: a clean tray says little of the surface.

    References
    ----------
    E3.12; E3.12b; E4.6
    """
    require(store_L, "Water of tray and pot", "L", low=0, open_low=True, high=1000, pointer="/store_L")
    require(start_uS_cm, "EC at the start", "µS/cm", low=0, high=50_000, pointer="/start_uS_cm")
    require(water_uS_cm, "EC of the refill", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    require(used_L, "Litres used", "L", low=0, high=100_000, pointer="/used_L")
    above = {"low": 0.0, "open_low": True}
    for value, name, unit, high, pointer in (
        (pot_L, "Water in the pot", "L", 1000.0, "/pot_L"),
        (limit_uS_cm, "Limit", "µS/cm", 50_000.0, "/limit_uS_cm"),
        (loss_L_day, "Loss a day", "L/d", 100.0, "/loss_L_day"),
        (change_L, "Water of a change", "L", 1000.0, "/change_L"),
        (target_uS_cm, "Target", "µS/cm", 50_000.0, "/target_uS_cm"),
    ):
        if value is not None:
            require(value, name, unit, high=high, pointer=pointer, **above)  # type: ignore[arg-type]
    if change_water_uS_cm is not None:
        require(change_water_uS_cm, "EC of the change", "µS/cm", low=0, high=20_000, pointer="/change_water_uS_cm")
    ledger = Ledger("A tray that nothing leaves", "One mixed store; the plant takes nothing.", ("mass-balance",))
    ledger.take("V", "water of tray and pot", store_L, "L")
    ledger.take("C_0", "EC at the start", start_uS_cm, "µS/cm")
    ledger.take("C_in", "what is refilled", water_uS_cm, "µS/cm", "measured")
    ledger.take("E", "lost and refilled", used_L, "L")
    now = ledger.step("C", "C_0 + C_in * E / V", "µS/cm", "mixed")
    upper = now
    if pot_L is not None:
        ledger.take("W", "water in the pot", pot_L, "L")
        upper = ledger.step("C_up", "C_0 + C_in * E / W", "µS/cm", "all carried up into the pot")
    litres = days = None
    if limit_uS_cm is not None:
        ledger.take("L", "limit", limit_uS_cm, "µS/cm", "profile")
        if start_uS_cm >= limit_uS_cm:
            litres = 0.0
        elif water_uS_cm > 0:
            litres = ledger.step("E_L", "(L - C_0) * V / C_in", "L", "used when the limit is reached")
        if litres is not None and loss_L_day is not None:
            ledger.take("l", "lost a day", loss_L_day, "L/d")
            ledger.found("E_x", "litres until the limit", litres, "L", "as above")
            days = max(0.0, ledger.step("t", "(E_x - E) / l", "d", "days until then"))
    changes = None
    if change_L is not None and target_uS_cm is not None:
        fresh = water_uS_cm if change_water_uS_cm is None else change_water_uS_cm
        changes = baths_needed(upper, target_uS_cm, fresh, pot_L if pot_L is not None else store_L, change_L)
    ledger.caution("The tray can look clean while the surface is not: two to four times saltier on top.")
    return ledger.close(TrayNow(now, upper, litres, days, changes, _of_tray(now, upper, days, changes, target_uS_cm)))


def _of_tray(now: float, upper: float, days: float | None, changes: int | None, target: float | None) -> str:
    said = f"Pot and tray about {now:.0f} µS/cm"
    said += f", at worst {upper:.0f} µS/cm in the pot." if upper > now * 1.02 else "."
    if days is not None:
        said += f" Over its limit in about {days:.0f} days." if days >= 1 else " At its limit now."
    if target is not None and changes is not None and changes > 0:
        said += f" {changes} change{'s' if changes > 1 else ''}: soak from below, drain, fresh water each time."
    elif target is not None and changes is None:
        said += f" No count of changes with this water reaches {target:.0f} µS/cm."
    return said
