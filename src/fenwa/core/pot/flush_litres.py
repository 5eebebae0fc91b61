"""How many litres flush a pot, from its runoff alone: no record, so a range."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.errors import Infeasible
from fenwa.core.pot.flush import FlushPlan, flush_plan, root_zone_for
from fenwa.core.pot.specification import SPREAD, PotSpec, check_pot
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

NOT_NEEDED = "No flush is needed: it reads under the target already."


@dataclass(frozen=True)
class FlushLitres:
    """What runs off now, litres in four flushes of five, rounds of the middle one, where to stop. [L, µS/cm]"""

    runoff_uS_cm: float
    low_L: float
    middle_L: float
    high_L: float
    rounds: int
    round_L: float
    pause_min: float
    stop_runoff_uS_cm: float | None
    after: tuple[float, ...]
    sentence: str


@calculation("flush-litres", title="Litres to flush a pot", station="flush")
def flush_litres(
    *, pot: PotSpec, runoff_uS_cm: float, target_uS_cm: float, water_uS_cm: float
) -> Computed[FlushLitres]:
    """Litres and rounds that bring a pot's runoff down, for a pot nothing else is known of.

    Parameters
    ----------
    pot : PotSpec
        Volume and medium. [L]
    runoff_uS_cm : float
        What its runoff reads now, above 0 to 20 000. [µS/cm]
    target_uS_cm : float
        What it shall read afterwards, above 0 to 20 000. [µS/cm]
    water_uS_cm : float
        EC of the flush water, 0 to 20 000. [µS/cm]

    Returns
    -------
    Computed
        Litres with their range, rounds, pause, what runs off after each round. [L, min, µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.
    Infeasible
        If the water itself is over the target: no flush gets below its own water.

    Notes
    -----
    The range is what the medium's leaching may be in four pots of five; a pot with a log is known better.

    References
    ----------
    E2.5; E4.1; E4.2; E4.3
    """
    check_pot(pot)
    require(runoff_uS_cm, "Runoff", "µS/cm", low=0, open_low=True, high=20_000, pointer="/runoff_uS_cm")
    require(target_uS_cm, "Target", "µS/cm", low=0, open_low=True, high=20_000, pointer="/target_uS_cm")
    require(water_uS_cm, "EC of the flush water", "µS/cm", low=0, high=20_000, pointer="/water_uS_cm")
    ledger = Ledger("Litres to flush a pot", "The medium leaches as it usually does.", ("pour-through", "judgement"))
    ledger.take("reading", "runoff now", runoff_uS_cm, "µS/cm", "entered")
    ledger.take("target", "runoff wanted", target_uS_cm, "µS/cm", "entered")
    ledger.take("V", "volume of the pot", pot.volume_L, "L", "entered")
    ledger.take("eta", "leaching efficiency of the medium", pot.medium.eta, "", "table:media")
    plans = {name: _plan(pot, z, runoff_uS_cm, target_uS_cm, water_uS_cm) for name, z in _ENDS.items()}
    middle = plans["middle"]
    if middle.status == "not needed":
        ledger.step("over", "reading - target", "µS/cm", "over the target")
        return ledger.close(
            FlushLitres(
                runoff_uS_cm,
                0.0,
                0.0,
                0.0,
                0,
                0.0,
                0.0,
                None,
                (),
                "No flush is needed: it reads under the target already.",
            )
        )
    if middle.status not in ("same day", "separate days"):
        raise Infeasible(middle.sentence, pointer="/target_uS_cm")
    litres = sorted(p.total_L for p in plans.values() if p.total_L > 0)
    ledger.found("C", "root zone behind the reading", root_zone_for(pot, runoff_uS_cm), "µS/cm", "E2.5")
    ledger.found("L", "litres of the rounds", middle.total_L, "L", "E4.3, the fold of the rounds")
    ledger.step("each", f"L / {middle.rounds}", "L", "a round")
    said = (
        f"{middle.rounds} rounds of {middle.round_L:.2g} L, {middle.pause_min:.0f} minutes apart."
        if middle.rounds > 1
        else f"One round of {middle.round_L:.2g} L."
    )
    if middle.status == "separate days":
        said = f"{middle.rounds} rounds of {middle.round_L:.2g} L on days that follow each other."
    if middle.stop_runoff_uS_cm is not None:
        said += f" Stop when the runoff reads {middle.stop_runoff_uS_cm:.0f} µS/cm twice."
    after = tuple(r.runoff_uS_cm for r in middle.schedule[:8])
    return ledger.close(
        FlushLitres(
            runoff_uS_cm,
            litres[0],
            middle.total_L,
            litres[-1],
            middle.rounds,
            middle.round_L,
            middle.pause_min,
            middle.stop_runoff_uS_cm,
            after,
            said,
        )
    )


_ENDS = {"low": -Z80, "middle": 0.0, "high": Z80}


def _plan(pot: PotSpec, z: float, runoff: float, target: float, water: float) -> FlushPlan:
    eta = min(1.0, pot.medium.eta * math.exp(z * SPREAD["ln_eta"]))
    like = replace(pot, medium=replace(pot.medium, eta=eta))
    return flush_plan(
        pot=like, root_zone_uS_cm=root_zone_for(like, runoff), target_reading_uS_cm=target, water_uS_cm=water
    ).result
