"""This week's litres: the strictest plants first, then what is left; who goes short, what to buy."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.data.water_tables import water_kinds
from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import WaterKind
from fenwa.core.working import Computed, Ledger

WEEKS_A_MONTH = DAYS_A_MONTH / 7
_LEAST_L = 0.005  # less than this is no portion


@dataclass(frozen=True)
class Supply:
    """A water this week. ``litres`` None: runs as needed. Price None: not known; 0: free, and not to be bought.

    ``amounts``: what is known of it in mg/L, by field of ``KnownOfWater``.
    """

    name: str
    ec25_uS_cm: float
    litres: float | None = None
    price_per_L: float | None = None
    amounts: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Demand:
    """A group of plants: litres this week, the most it may drink, and which waters' kinds suit it.

    ``suits``: False for a water with something against it that no blend mends. ``limits``: the most of
    what mixes, in mg/L; what is not known of a water does not count.
    """

    name: str
    litres: float
    ec_max_uS_cm: float
    suits: tuple[bool, ...]
    limits: dict[str, float] = field(default_factory=dict)

    def may_have(self, water: int, s: Supply) -> bool:
        """Whether this water may be given as it is."""
        mixed = all(s.amounts.get(name, 0.0) <= limit for name, limit in self.limits.items())
        return self.suits[water] and s.ec25_uS_cm <= self.ec_max_uS_cm and mixed


@dataclass(frozen=True)
class Portion:
    """Litres of one water for one group; together they may be a blend."""

    water: str
    litres: float


@dataclass(frozen=True)
class GroupShare:
    """What a group gets, strictest first. [L]"""

    name: str
    wanted_L: float
    portions: tuple[Portion, ...]
    short_L: float
    ec25_uS_cm: float | None
    buy: str | None


@dataclass(frozen=True)
class Purchase:
    """A water to get more of. [L]"""

    water: str
    litres: float
    cost: float


@dataclass(frozen=True)
class ShareOut:
    """Who gets what, what is left, what to buy this week and what it comes to in a month."""

    groups: tuple[GroupShare, ...]
    left_L: dict[str, float]
    short_L: float
    purchases: tuple[Purchase, ...]
    cost_per_week: float
    cost_per_month: float


def litres_to_share(kind: WaterKind, on_hand_L: float | None) -> float | None:
    """Litres a source can give this week: what is on hand; None when it runs from a pipe; none when nobody entered
    it.
    """
    if on_hand_L is not None:
        return on_hand_L
    return None if water_kinds()[kind].runs else 0.0


def weekly_L(pour_L: float, interval_days: float) -> float:
    """Water a pot takes in a week at its usual pour and interval. [L]"""
    return 7 * pour_L / interval_days


@calculation("share-out", title="Who gets which water this week", station="water")
def share_out(*, supplies: list[Supply], demands: list[Demand], may_blend: bool = True) -> Computed[ShareOut]:
    """Litres on hand shared among the groups: the strictest first, at least cost.

    Parameters
    ----------
    supplies : list
        Waters with litres on hand; None runs as needed. [L]
    demands : list
        Groups with their litres this week and their ceiling. [L, µS/cm]
    may_blend : bool
        Whether a group may get waters mixed so that together they stay below its ceiling.

    Returns
    -------
    Computed
        Portions, shortfalls, what to buy and the cost of a week and a month. [L]

    Raises
    ------
    OutOfRange
        If an amount is negative or absurd.

    Notes
    -----
    One linear programme a group in order of ceiling: as much as possible for it without taking from
    any before it; then, all amounts fixed, with the least mixing, by the laxer groups, and the least cost.
    A blend's EC is reckoned by the straight line
    with a tenth kept in hand, because it reads 1 to 9 % low.

    References
    ----------
    linear-programme; mass-balance
    """
    for i, s in enumerate(supplies):
        require(s.ec25_uS_cm, f"EC of {s.name}", "µS/cm", low=0, high=50_000, pointer=f"/supplies/{i}/ec25_uS_cm")
        if s.litres is not None:
            require(s.litres, f"Litres of {s.name}", "L", low=0, high=1_000_000, pointer=f"/supplies/{i}/litres")
        if s.price_per_L is not None:
            require(
                s.price_per_L, f"Price of {s.name}", "per litre", low=0, high=1e6, pointer=f"/supplies/{i}/price_per_L"
            )
    for i, d in enumerate(demands):
        require(d.litres, f"Litres for {d.name}", "L", low=0, high=1_000_000, pointer=f"/demands/{i}/litres")
        require(
            d.ec_max_uS_cm, f"Ceiling of {d.name}", "µS/cm", low=0, high=50_000, pointer=f"/demands/{i}/ec_max_uS_cm"
        )
        if len(d.suits) != len(supplies):
            raise InputError(
                f"{d.name} says of {len(d.suits)} waters whether they suit, but {len(supplies)} are given. "
                "Say it of each.",
                pointer=f"/demands/{i}/suits",
            )
    order = sorted(range(len(demands)), key=lambda i: (demands[i].ec_max_uS_cm, demands[i].name))
    groups = [demands[i] for i in order]
    ledger = Ledger(
        "Who gets which water this week",
        "As good as the litres entered and the usual pours.",
        ("linear-programme", "mass-balance"),
    )
    given = _allot(supplies, groups, may_blend)
    for w, s in enumerate(supplies):
        ledger.take(f"C{w + 1}", s.name, s.ec25_uS_cm, "µS/cm", "measured")
    shares, purchases = [], dict.fromkeys(range(len(supplies)), 0.0)
    for g, d in enumerate(groups):
        portions = tuple(
            Portion(supplies[w].name, float(given[w, g])) for w in range(len(supplies)) if given[w, g] > _LEAST_L
        )
        got = sum(p.litres for p in portions)
        short = d.litres - got if d.litres - got > _LEAST_L else 0.0
        ec = sum(supplies[w].ec25_uS_cm * given[w, g] for w in range(len(supplies))) / got if got > _LEAST_L else None
        bought = _to_buy(supplies, d) if short else None
        if bought is not None:
            purchases[bought] += short
        shares.append(
            GroupShare(
                d.name,
                d.litres,
                portions,
                short,
                float(ec) if ec is not None else None,
                supplies[bought].name if bought is not None else None,
            )
        )
        ledger.take(f"want{g + 1}", f"{d.name}: wanted", d.litres, "L", "usual pours")
        parts = [(w, float(given[w, g])) for w in range(len(supplies)) if given[w, g] > _LEAST_L]
        for w, litres in parts:
            ledger.found(f"x{g + 1}_{w + 1}", f"{d.name}: of {supplies[w].name}", litres, "L", "linear programme")
        ledger.step(f"got{g + 1}", " + ".join(f"x{g + 1}_{w + 1}" for w, _ in parts) or "0", "L", f"{d.name}: gets")
        if parts:
            salt = " + ".join(f"x{g + 1}_{w + 1} * C{w + 1}" for w, _ in parts)
            ledger.step(f"ec{g + 1}", f"({salt}) / got{g + 1}", "µS/cm", f"{d.name}: by the straight line")
    used = given.sum(axis=1) if len(groups) else np.zeros(len(supplies))
    left = {
        s.name: round(max(0.0, float(s.litres - used[w])), 6) for w, s in enumerate(supplies) if s.litres is not None
    }
    buys = tuple(
        Purchase(supplies[w].name, litres, litres * (supplies[w].price_per_L or 0.0))
        for w, litres in purchases.items()
        if litres > 0
    )
    missing = " + ".join(f"(want{i} - got{i})" for i, s in enumerate(shares, 1) if s.short_L)
    short = ledger.step("short", missing or "0", "L", "short in all")
    for i, b in enumerate(buys, 1):
        ledger.take(f"L{i}", f"{b.water} to buy", b.litres, "L", "above")
        ledger.take(f"p{i}", f"price of {b.water}", b.cost / b.litres if b.litres else 0.0, "per litre")
    running = sum(float(used[w]) * (s.price_per_L or 0.0) for w, s in enumerate(supplies) if s.litres is None)
    ledger.take("run", "waters that run as needed, at their price", running, "", "portions x price")
    week = ledger.step(
        "week", " + ".join(["run", *(f"L{i} * p{i}" for i in range(1, len(buys) + 1))]), "", "cost of a week"
    )
    month = ledger.step("month", f"week * {WEEKS_A_MONTH:.4f}", "", "cost of a month at this rate")
    ledger.assume("Water already on hand is counted as paid for.")
    return ledger.close(ShareOut(tuple(shares), left, short, buys, week, month))


def _to_buy(supplies: list[Supply], d: Demand) -> int | None:
    """The cheapest water for sale that this group may drink as it is; None if there is none."""
    fit = [w for w, s in enumerate(supplies) if s.price_per_L and d.may_have(w, s)]
    return min(fit, key=lambda w: supplies[w].price_per_L or 0.0) if fit else None


def _allot(supplies: list[Supply], groups: list[Demand], may_blend: bool) -> np.ndarray:
    """Litres [water, group]: each group in turn gets the most it can, then the plainest and cheapest way for all."""
    from scipy.optimize import linprog

    n, m = len(supplies), len(groups)
    if n == 0 or m == 0:
        return np.zeros((n, m))
    # units of the largest demand: the solver's tolerance is absolute
    unit = max([g.litres for g in groups] + [1e-9])
    ec = np.array([s.ec25_uS_cm for s in supplies])

    def allowed(w: int, g: int) -> bool:
        return groups[g].suits[w] and (may_blend or groups[g].may_have(w, supplies[w]))

    bounds = [(0.0, None if allowed(w, g) else 0.0) for w in range(n) for g in range(m)]

    def total_of(g: int) -> np.ndarray:
        row = np.zeros((n, m))
        row[:, g] = 1.0
        return row.ravel()

    below, limit = [total_of(g) for g in range(m)], [g.litres / unit for g in groups]
    for w, s in enumerate(supplies):
        if s.litres is not None:
            row = np.zeros((n, m))
            row[w] = 1.0
            below.append(row.ravel())
            limit.append(s.litres / unit)
    for g, d in enumerate(groups):
        reckoned = np.where(ec <= d.ec_max_uS_cm, ec, 1.1 * ec)  # what is over the ceiling counts a tenth more
        mixes = [(reckoned - d.ec_max_uS_cm) / max(d.ec_max_uS_cm, 1.0)]
        for name, most in d.limits.items():
            # not known counts as just within: it neither helps nor hinders a blend
            mixes.append(np.array([(s.amounts.get(name, most) - most) / max(most, 1e-6) for s in supplies]))
        for mix in mixes:
            row = np.zeros((n, m))
            row[:, g] = mix
            below.append(row.ravel())
            limit.append(0.0)
    fixed: list[np.ndarray] = []
    amounts: list[float] = []
    for g in range(m):
        best = linprog(
            -total_of(g),
            A_ub=np.array(below),
            b_ub=np.array(limit),
            bounds=bounds,
            method="highs",
            A_eq=np.array(fixed) if fixed else None,
            b_eq=np.array(amounts) if fixed else None,
        )
        if best.status != 0:  # a hair lost to rounding in an earlier group: nothing more can be given
            break
        fixed.append(total_of(g))
        amounts.append(max(0.0, -float(best.fun or 0.0) * (1 - 1e-9)))
    price = np.repeat([s.price_per_L or 0.0 for s in supplies], m)
    paid = np.where(np.repeat([s.litres is None for s in supplies], m), price, 0.0)
    # what is over a group's ceiling has to be mixed in: as little as may be, and for those who bear most of it
    over = np.maximum(0.0, ec[:, None] / np.array([max(g.ec_max_uS_cm, 1.0) for g in groups]) - 1).ravel()
    # among equals use the saltiest that is allowed, and keep the pure water
    keep = np.repeat(1.0 / (1.0 + ec), m) * 1e-3
    last = linprog(
        10.0 * over + paid + keep,
        A_ub=np.array(below),
        b_ub=np.array(limit),
        bounds=bounds,
        method="highs",
        A_eq=np.array(fixed),
        b_eq=np.array(amounts),
    )
    out = np.asarray(last.x) if last.status == 0 else np.zeros(n * m)
    litres = np.clip(out, 0.0, None).reshape(n, m) * unit
    return np.asarray(np.where(litres < _LEAST_L, 0.0, litres))
