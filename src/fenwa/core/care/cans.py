"""Which pots may share a can: the fewest mixes of one water and one strength that serve every pot."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

SLOPE_uS_PER_mg_N = 7.0  # complete feeds without urea: 6 to 9
SAFE = 0.95  # of the ceiling: the can is predicted, not measured
LEAST_SHARE = 1 / 3  # of a pot's top: a can may be thinner than wished, not nothing
MAX_NODES = 20_000  # of the search; beyond it the best found stands, never worse than the greedy one


@dataclass(frozen=True)
class MixNeed:
    """What one pot, or many alike, may be given. [mg/L N, µS/cm]"""

    id: int
    n_low_mg_L: float
    n_high_mg_L: float
    ceiling_uS_cm: float | None
    water_ids: tuple[int, ...]


@dataclass(frozen=True)
class CanWater:
    """A water in the grower's order of preference. [µS/cm]"""

    id: int
    ec_uS_cm: float


@dataclass(frozen=True)
class SharedCan:
    """One mix and who may have it. [mg/L N]"""

    water_id: int
    n_low_mg_L: float
    n_high_mg_L: float
    ids: tuple[int, ...]


@dataclass(frozen=True)
class CanGroups:
    """The cans, how many a simple greedy or one a pot would take, and who fits no water."""

    cans: tuple[SharedCan, ...]
    greedy: int
    alone: int
    left_out: tuple[int, ...]
    optimal: bool


def allowed_range(need: MixNeed, water: CanWater, slope: float = SLOPE_uS_PER_mg_N) -> tuple[float, float] | None:
    """Nitrogen a pot may have in that water without passing its ceiling; None where not even a thin feed fits.

    [mg/L]
    """
    if water.id not in need.water_ids:
        return None
    high = need.n_high_mg_L
    if need.ceiling_uS_cm is not None:
        high = min(high, (SAFE * need.ceiling_uS_cm - water.ec_uS_cm) / slope)
    if high <= 0:
        return None
    low = max(need.n_low_mg_L, LEAST_SHARE * need.n_high_mg_L)
    return min(low, high), high


def group(needs: list[MixNeed], waters: list[CanWater], slope: float = SLOPE_uS_PER_mg_N) -> CanGroups:
    """Fewest cans that serve every pot: a set cover over (water, strength), exact for the sizes of a collection.

    A strength that serves a set of ranges can be moved to the lowest upper end among them, so only
    those need to be tried (interval stabbing, textbook). Pots alike are searched once.
    """
    ranges = {n.id: {w.id: r for w in waters if (r := allowed_range(n, w, slope))} for n in needs}
    left_out = tuple(n.id for n in needs if not ranges[n.id])
    kinds: dict[tuple[tuple[int, tuple[float, float]], ...], list[int]] = {}
    for n in needs:
        if ranges[n.id]:
            kinds.setdefault(tuple(sorted(ranges[n.id].items())), []).append(n.id)
    options = [dict(k) for k in kinds]
    served = _candidates(options, waters)
    greedy = _greedy(served, len(options))
    best, optimal = _fewest(served, len(options), greedy)
    members = list(kinds.values())
    return CanGroups(
        _filled(best, options, members, waters), len(greedy), len(needs) - len(left_out), left_out, optimal
    )


Served = dict[tuple[int, float], frozenset[int]]


def _candidates(options: list[dict[int, tuple[float, float]]], waters: list[CanWater]) -> Served:
    served: Served = {}
    for w in waters:
        for strength in sorted({o[w.id][1] for o in options if w.id in o}):
            served[w.id, strength] = frozenset(
                i for i, o in enumerate(options) if w.id in o and o[w.id][0] <= strength <= o[w.id][1]
            )
    kept: Served = {}
    for key, who in served.items():  # what serves a part of another serves nothing more; the first water keeps a tie
        if not any(who <= other for other in kept.values()):
            kept = {k: v for k, v in kept.items() if not v < who}
            kept[key] = who
    return kept


def _greedy(served: Served, n: int) -> list[tuple[int, float]]:
    left, chosen = set(range(n)), []
    while left:
        key = max(served, key=lambda k: len(served[k] & left))
        chosen.append(key)
        left -= served[key]
    return chosen


def _fewest(served: Served, n: int, greedy: list[tuple[int, float]]) -> tuple[list[tuple[int, float]], bool]:
    """Branch on the kind with the fewest choices; stop where the bound cannot beat the best found."""
    choices = [[k for k in served if i in served[k]] for i in range(n)]
    best, nodes = list(greedy), 0

    def search(left: frozenset[int], chosen: list[tuple[int, float]]) -> None:
        nonlocal best, nodes
        nodes += 1
        if not left:
            if len(chosen) < len(best):
                best = list(chosen)
            return
        if nodes > MAX_NODES:
            return
        most = max(len(who & left) for who in served.values())
        if len(chosen) + math.ceil(len(left) / most) >= len(best):
            return
        i = min(left, key=lambda k: len(choices[k]))
        for key in sorted(choices[i], key=lambda k: -len(served[k] & left)):
            search(left - served[key], [*chosen, key])

    search(frozenset(range(n)), [])
    return best, nodes <= MAX_NODES


def _filled(
    chosen: list[tuple[int, float]],
    options: list[dict[int, tuple[float, float]]],
    members: list[list[int]],
    waters: list[CanWater],
) -> tuple[SharedCan, ...]:
    """Each pot goes to the can nearest the middle of its range; a can's strength is then free within its pots'
    ranges.
    """
    order = {w.id: i for i, w in enumerate(waters)}
    taken: dict[tuple[int, float], list[int]] = {}
    for i, o in enumerate(options):
        fits = [k for k in chosen if k[0] in o and o[k[0]][0] <= k[1] <= o[k[0]][1]]
        taken.setdefault(min(fits, key=lambda k: (abs(k[1] - sum(o[k[0]]) / 2), order[k[0]])), []).append(i)
    cans = []
    for (water, _), kinds in sorted(taken.items(), key=lambda t: t[0][1]):
        low = max(options[i][water][0] for i in kinds)
        high = min(options[i][water][1] for i in kinds)
        cans.append(SharedCan(water, low, high, tuple(pot for i in kinds for pot in members[i])))
    return tuple(cans)


@calculation("cans", title="Fewest cans", station="round")
def cans(
    *, needs: list[MixNeed], waters: list[CanWater], slope_uS_per_mg_N: float = SLOPE_uS_PER_mg_N
) -> Computed[CanGroups]:
    """Which pots may share a mix, in as few cans as their ranges and ceilings allow.

    Parameters
    ----------
    needs : list[MixNeed]
        Pots due for feed with their nitrogen range, ceiling and waters. [mg/L, µS/cm]
    waters : list[CanWater]
        Waters in the grower's order. [µS/cm]
    slope_uS_per_mg_N : float
        EC the feed adds for a mg/L of nitrogen, 1 to 60. [µS/cm]

    Returns
    -------
    Computed
        Cans with water, range of strength and pots; what a simple greedy or one can a pot would take.

    Raises
    ------
    InputError
        If a pot is named twice, or a range is turned round.
    OutOfRange
        If the slope cannot be.

    References
    ----------
    interval-stabbing
    """
    require(slope_uS_per_mg_N, "EC for a mg/L of nitrogen", "µS/cm", low=1, high=60, pointer="/slope_uS_per_mg_N")
    if len({n.id for n in needs}) < len(needs):
        raise InputError("A pot is named twice. Name each pot once.", pointer="/needs")
    for i, n in enumerate(needs):
        if not 0 <= n.n_low_mg_L <= n.n_high_mg_L:
            raise InputError(
                f"Nitrogen from {n.n_low_mg_L:g} to {n.n_high_mg_L:g} mg/L cannot be. Put the lower first.",
                pointer=f"/needs/{i}/n_low_mg_L",
                value=n.n_low_mg_L,
            )
        require(n.n_high_mg_L, "Most nitrogen", "mg/L", low=0, high=5_000, pointer=f"/needs/{i}/n_high_mg_L")
        if n.ceiling_uS_cm is not None:
            require(n.ceiling_uS_cm, "Ceiling", "µS/cm", low=0, high=20_000, pointer=f"/needs/{i}/ceiling_uS_cm")
    for i, w in enumerate(waters):
        require(w.ec_uS_cm, "EC of the water", "µS/cm", low=0, high=20_000, pointer=f"/waters/{i}/ec_uS_cm")
    found = group(needs, waters, slope_uS_per_mg_N)
    ledger = Ledger(
        "Fewest cans", "One water and one strength a can; carnivores apart.", ("interval-stabbing", "profile")
    )
    ledger.take("alone", "cans if each pot had its own", found.alone, "")
    ledger.take("shared", "cans shared", len(found.cans), "")
    ledger.step("saved", "alone - shared", "", "cans saved")
    ledger.take("slope", "EC for a mg/L of nitrogen", slope_uS_per_mg_N, "µS/cm")
    ledger.assume(
        "A can may be as thin as a third of what a pot would like, and stays under "
        f"{100 * SAFE:.0f} % of every ceiling."
    )
    if not found.optimal:
        ledger.caution("Too many kinds to try every grouping: a smaller number of cans may exist.")
    return ledger.close(found)
