"""What saves a can: water for one too strong, feed for one too weak, and what a leftover still is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fenwa.core.entry import require
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import FeedModel, ProductSlope, elements_of
from fenwa.core.mix.label import Label
from fenwa.core.mix.weighing import to_grid
from fenwa.core.registry import calculation
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed, Ledger

Act = Literal["nothing", "add water", "add feed", "add both", "pour some away", "throw away"]
OLD_DAYS, OLD_DAYS_UREA = 14, 7  # of a mixed can: guideline; with urea or organics it changes sooner
TROUBLE_SHARE = 0.25  # the reading moved by more than this while it stood


@dataclass(frozen=True, kw_only=True)
class Rescue:
    """What to do with the can now. [L, g or mL, g/L, µS/cm]"""

    act: Act
    now_g_L: float
    water_L: float
    feed_amount: float
    feed_rounded: float
    feed_unit: str
    discard_L: float
    final_L: float
    final_g_L: float
    final_uS_cm: float
    sentence: str


@calculation("batch-rescue", title="Saving a can", station="mix")
def batch_rescue(
    *,
    label: Label,
    base: BaseWater,
    volume_L: float,
    measured_uS_cm: float,
    target_g_L: float,
    wanted_L: float | None = None,
    vessel_L: float | None = None,
    made_g_L: float | None = None,
    read_when_made_uS_cm: float | None = None,
    age_days: int = 0,
    slope: ProductSlope | None = None,
    scale_step_g: float = 0.1,
    syringe_step_mL: float = 0.5,
) -> Computed[Rescue]:
    """Water or feed that brings a can, or a leftover, to its strength; by mass of feed, not by EC.

    Parameters
    ----------
    label : Label
        The product in the can. [%]
    base : BaseWater
        The water it was made with, also used to fill up. [µS/cm]
    volume_L : float
        What is in the can now, above 0 to 10 000. [L]
    measured_uS_cm : float
        Its reading now. [µS/cm]
    target_g_L : float
        Dose wanted, 0 to 20. [g/L]
    wanted_L : float
        Volume wanted; empty: only as much as the rescue needs. [L]
    vessel_L : float
        What the vessel holds, if known. [L]
    made_g_L : float
        Dose it was made with, if it was right when made. [g/L]
    read_when_made_uS_cm : float
        Its reading when made. [µS/cm]
    age_days : int
        Days since it was made, 0 to 365. [d]
    slope : ProductSlope
        The product's own measured slope. [µS/cm per g/L]
    scale_step_g : float
        Smallest step of the scale. [g]
    syringe_step_mL : float
        Smallest division of the syringe. [mL]

    Returns
    -------
    Computed
        What to add or pour away, and what the can then holds and reads. [L, g, µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    A can that stood (sealed, without urea) concentrates by evaporation only: its dose follows its two readings.
    Otherwise the
    dose now is read from the ion model. Feed with urea or organics changes on standing and is not topped up when old.

    References
    ----------
    E1.15; E1.16; mass-balance
    """
    e = elements_of(label)
    require(volume_L, "In the can", "L", low=0, open_low=True, high=10_000, pointer="/volume_L")
    require(measured_uS_cm, "Reading", "µS/cm", low=0, open_low=True, high=200_000, pointer="/measured_uS_cm")
    require(target_g_L, "Dose wanted", "g/L", low=0, high=20, pointer="/target_g_L")
    if made_g_L is not None:
        require(made_g_L, "Dose when it was made", "g/L", low=0, high=200, pointer="/made_g_L")
    if read_when_made_uS_cm is not None:
        require(
            read_when_made_uS_cm,
            "Reading when it was made",
            "µS/cm",
            low=0,
            high=200_000,
            pointer="/read_when_made_uS_cm",
        )
    require(age_days, "Age", "d", low=0, high=365, pointer="/age_days")
    for value, words, at in ((wanted_L, "Volume wanted", "/wanted_L"), (vessel_L, "Vessel", "/vessel_L")):
        if value is not None:
            require(value, words, "L", low=0, open_low=True, high=10_000, pointer=at)
    can = FeedModel(base, ions_per_gram(e), factor=slope.factor if slope else 1.0)
    ledger = Ledger(
        "Saving a can", "Any feed in one water; readings of a stirred can.", ("mass-balance", "robinson-stokes")
    )
    now = _dose_now(ledger, label, can, base, measured_uS_cm, made_g_L, read_when_made_uS_cm, e.N_urea_mg_g > 0)
    ledger.take("V", "in the can", volume_L, "L")
    ledger.take("c_t", "dose wanted", target_g_L, "g/L")
    too_old = age_days > (OLD_DAYS_UREA if e.N_urea_mg_g > 0 or e.N_other_mg_g > 0 else OLD_DAYS)
    if age_days > 0:
        ledger.caution(
            f"Mixed {age_days} {'day' if age_days == 1 else 'days'} ago: stir it and read it again before pouring."
        )
    if e.N_urea_mg_g > 0 and age_days > 0:
        ledger.caution("With urea: it turns to ammonium on standing, EC and pH rise.")
    if too_old:
        limit = OLD_DAYS_UREA if e.N_urea_mg_g > 0 or e.N_other_mg_g > 0 else OLD_DAYS
        return ledger.close(
            Rescue(
                act="throw away",
                now_g_L=now,
                water_L=0.0,
                feed_amount=0.0,
                feed_rounded=0.0,
                feed_unit="g",
                discard_L=volume_L,
                final_L=0.0,
                final_g_L=0.0,
                final_uS_cm=0.0,
                sentence=f"{age_days} days old, over the {limit} a mixed can keeps: do not top it up. "
                "Water a bed outdoors with it or throw it away, and mix anew.",
            )
        )
    return _worked_out(
        ledger=ledger,
        can=can,
        base=base,
        density=e.density_g_mL,
        now=now,
        volume=volume_L,
        target=target_g_L,
        wanted=wanted_L,
        vessel=vessel_L,
        scale_step_g=scale_step_g,
        syringe_step_mL=syringe_step_mL,
    )


def _dose_now(
    ledger: Ledger,
    label: Label,
    can: FeedModel,
    base: BaseWater,
    measured: float,
    made: float | None,
    when_made: float | None,
    urea: bool,
) -> float:
    ledger.take("M", "reading now", measured, "µS/cm", "measured")
    if made is not None and when_made is not None and when_made > 0 and not urea:
        ledger.take("c_0", "dose when made", made, "g/L", "log")
        ledger.take("M_0", "reading when made", when_made, "µS/cm", "measured")
        ledger.assume("Nothing but water left it: dose and reading rise together.")
        now = ledger.step("c", "c_0 * M / M_0", "g/L", "dose now")
        if measured < when_made * (1 - TROUBLE_SHARE):
            ledger.caution("It reads far less than when made: was water added, or did algae or lime take salt out?")
        return now
    found = can.dose_for_rise(measured - base.ec25_uS_cm)
    ledger.take("C_w", base.name, base.ec25_uS_cm, "µS/cm", "measured")
    if found is None:
        ledger.caution("So strong that the ion model is a guess: dilute tenfold, read again.")
        return ledger.found("c", "dose now, at least", 20.0, "g/L", "beyond the model")
    return ledger.found("c", "dose now", found, "g/L", "ion model")


def _worked_out(
    *,
    ledger: Ledger,
    can: FeedModel,
    base: BaseWater,
    density: float | None,
    now: float,
    volume: float,
    target: float,
    wanted: float | None,
    vessel: float | None,
    scale_step_g: float,
    syringe_step_mL: float,
) -> Computed[Rescue]:
    reach = ledger.step("V_r", "c * V / c_t", "L", "volume at which it is right") if target > 0 else float("inf")
    want = wanted if wanted is not None else max(volume, min(reach, 1e4))
    discard = 0.0
    room = min(want, vessel) if vessel is not None else want
    if target <= 0 or (reach > room * (1 + 1e-9) and vessel is not None):
        # keep only as much as the vessel can dilute to the target
        keep = room * target / now if now > 0 else room
        discard = max(0.0, volume - keep)
    ledger.take(
        "V_t",
        "volume to make",
        room if discard else max(want, volume),
        "L",
        "entered" if wanted else "default:what it needs",
    )
    if discard:
        ledger.found("V_k", "kept of the old", volume - discard, "L", "what the vessel can dilute")
    else:
        ledger.step("V_k", "V", "L", "kept of the old: all of it")
    mass = ledger.step("m", "c_t * V_t - c * V_k", "g", "feed to add")
    final = room if discard else max(want, volume)
    added_mass = max(0.0, mass)
    if mass < -1e-6 * max(1.0, now * volume) and not discard:
        final = max(reach, volume)  # too strong for the volume wanted: right only at a larger one
    water = max(0.0, final - (volume - discard))
    unit, step = ("mL", syringe_step_mL) if density else ("g", scale_step_g)
    amount = added_mass / density if density else added_mass
    if amount < 0.5 * step:
        amount = 0.0
    strength = (now * (volume - discard) + (amount * (density or 1.0))) / final
    reads = base.ec25_uS_cm + can.rise(strength)
    rounded = to_grid(amount, step)
    act, sentence = _said(
        water=water,
        amount=amount,
        rounded=rounded,
        unit=unit,
        discard=discard,
        final=final,
        reads=reads,
        wanted=wanted,
        mass=mass,
        volume=volume,
    )
    return ledger.close(
        Rescue(
            act=act,
            now_g_L=now,
            water_L=water,
            feed_amount=amount,
            feed_rounded=rounded,
            feed_unit=unit,
            discard_L=discard,
            final_L=final,
            final_g_L=strength,
            final_uS_cm=reads,
            sentence=sentence,
        )
    )


def _said(
    *,
    water: float,
    amount: float,
    rounded: float,
    unit: str,
    discard: float,
    final: float,
    reads: float,
    wanted: float | None,
    mass: float,
    volume: float,
) -> tuple[Act, str]:
    tail = f" It then holds {final:.3g} L and should read {reads:.0f} µS/cm."
    if discard > 1e-9:
        return (
            "pour some away",
            f"Too strong for the vessel: pour away {discard:.3g} L, then fill up with "
            f"{water:.3g} L of the same water.{tail}",
        )
    if amount > 0 and water > 1e-9:
        return "add both", f"Fill up with {water:.3g} L of the same water and add {rounded:.3g} {unit}.{tail}"
    if amount > 0:
        return "add feed", f"Add {rounded:.3g} {unit} and stir.{tail}"
    if water > 1e-9:
        more = (
            f" That is more than the {wanted:.3g} L wanted: nothing is to be added."
            if wanted is not None and final > wanted * 1.001
            else ""
        )
        return "add water", f"Add {water:.3g} L of the same water.{tail}{more}"
    return "nothing", f"It is right as it is.{tail}"
