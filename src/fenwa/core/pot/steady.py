"""Where a repeated watering ends, in two salts, and the share that must drain to hold a limit."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import Infeasible
from fenwa.core.pot.balance import leaching_fraction_for, steady_state
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger


@dataclass(frozen=True)
class Steady:
    """Root zone straight after a watering, once nothing changes any more; None: it rises without end. [µS/cm]"""

    root_zone_uS_cm: float | None
    nutrient_uS_cm: float | None
    ballast_uS_cm: float | None
    sentence: str


@dataclass(frozen=True)
class LeachingFraction:
    """Share of each watering that must drain. [1]"""

    leaching_fraction: float
    sentence: str


def _check(e: float, eta: float, u: float) -> None:
    require(e, "Share lost between waterings", "", low=0, high=0.99, pointer="/e")
    require(eta, "Leaching efficiency", "", low=0.05, high=1.5, pointer="/eta")
    require(u, "Uptake fraction", "", low=0, high=1, pointer="/u")


@calculation("steady-state", title="Where this rhythm ends", station="pots")
def steady_root_zone(
    *,
    nutrient_uS_cm: float,
    ballast_uS_cm: float = 0.0,
    e: float,
    x: float,
    eta: float,
    u: float,
    u_ballast: float = 0.05,
    phi: float = 0.0,
) -> Computed[Steady]:
    """Root zone a repeated watering tends to, nutrients and ballast run side by side.

    Parameters
    ----------
    nutrient_uS_cm : float
        Nutrient conductivity of what is poured, 0 to 20 000. [µS/cm]
    ballast_uS_cm : float
        Ballast conductivity of it, 0 to 20 000. [µS/cm]
    e : float
        Share of the water held that is lost between waterings, 0 to 0.99. [1]
    x : float
        Drained volume over the water held, 0 to 20. [1]
    eta : float
        Leaching efficiency, 0.05 to 1.5. [1]
    u : float
        Uptake fraction of nutrients, 0 to 1. [1]
    u_ballast : float
        Uptake fraction of ballast, 0 to 1. [1]
    phi : float
        Immobile share of the water, 0 to 0.95. [1]

    Returns
    -------
    Computed
        The root zone after a watering, or that there is no steady state. [µS/cm]

    Raises
    ------
    OutOfRange
        If a number cannot be.

    Notes
    -----
    Immobile water evens out between waterings. Without drainage and without uptake nothing holds the salt.

    References
    ----------
    E3.6; E3.7; E3.8; E3.8b
    """
    for value, words, key in (
        (nutrient_uS_cm, "Nutrients", "nutrient_uS_cm"),
        (ballast_uS_cm, "Ballast", "ballast_uS_cm"),
    ):
        require(value, words, "µS/cm", low=0, high=20_000, pointer=f"/{key}")
    _check(e, eta, u)
    require(u_ballast, "Uptake fraction of ballast", "", low=0, high=1, pointer="/u_ballast")
    require(x, "Drained over water held", "", low=0, high=20, pointer="/x")
    require(phi, "Immobile share", "", low=0, high=0.95, pointer="/phi")
    ledger = Ledger(
        "Where this rhythm ends", "Water lost and drained alike each time.", ("van-genuchten-wierenga-1976",)
    )
    for symbol, words, value, unit in (
        ("C_n", "nutrients poured", nutrient_uS_cm, "µS/cm"),
        ("C_b", "ballast poured", ballast_uS_cm, "µS/cm"),
        ("e", "lost", e, ""),
        ("x", "drained over held", x, ""),
        ("eta", "leaching efficiency", eta, ""),
        ("phi", "immobile share", phi, ""),
        ("u", "uptake of nutrients", u, ""),
        ("u_b", "uptake of ballast", u_ballast, ""),
    ):
        ledger.take(symbol, words, value, unit)
    q = ledger.step("q", "phi + (1 - phi) * exp(-eta * x / (1 - phi))", "", "excess a watering leaves")
    found = []
    for tag, words, C, uptake in (("n", "nutrients", nutrient_uS_cm, u), ("b", "ballast", ballast_uS_cm, u_ballast)):
        if C > 0 and not math.isfinite(steady_state(C, e, uptake, q)):
            text = f"No steady state: nothing drains and no {words} are taken up, so that they gather without end."
            ledger.caution("Let some of each watering drain, or change the medium from time to time.")
            return ledger.close(Steady(None, None, None, text))
        u_tag = "u" if tag == "n" else "u_b"
        found.append(
            ledger.step(f"y_{tag}", f"C_{tag} * (1 - q + e * q) / (1 - q * (1 - e) ** {u_tag})", "µS/cm", words)
            if C > 0
            else ledger.take(f"y_{tag}", words, 0.0, "µS/cm", "none poured")
        )
    whole = ledger.step("y", "y_n + y_b", "µS/cm", "root zone after a watering")
    sentence = f"Tends to {whole:.0f} µS/cm after each watering"
    sentence += f", {found[1]:.0f} of it ballast." if ballast_uS_cm > 0 else "."
    return ledger.close(Steady(whole, found[0], found[1], sentence))


@calculation("leaching-fraction", title="Share that must drain", station="flush")
def leaching_fraction(
    *, feed_uS_cm: float, limit_uS_cm: float, e: float, eta: float, u: float
) -> Computed[LeachingFraction]:
    """Share of each watering that must drain to hold a limit of the root zone.

    Parameters
    ----------
    feed_uS_cm : float
        EC of what is poured, 0 to 20 000. [µS/cm]
    limit_uS_cm : float
        Most the root zone may reach, above 0 to 20 000. [µS/cm]
    e : float
        Share of the water held that is lost between waterings, 0.01 to 0.99. [1]
    eta : float
        Leaching efficiency, 0.05 to 1.5. [1]
    u : float
        Uptake fraction, 0 to 1. [1]

    Returns
    -------
    Computed
        Leaching fraction: drained over poured. [1]

    Raises
    ------
    OutOfRange
        If a number cannot be.
    Infeasible
        If the limit is no higher than the feed itself.

    Notes
    -----
    Without immobile water. The field formula for saturated extracts is for soils and is not used.

    References
    ----------
    E3.8c
    """
    require(feed_uS_cm, "EC of the feed", "µS/cm", low=0, high=20_000, pointer="/feed_uS_cm")
    require(limit_uS_cm, "Limit", "µS/cm", low=0, open_low=True, high=20_000, pointer="/limit_uS_cm")
    _check(e, eta, u)
    require(e, "Share lost between waterings", "", low=0.01, high=0.99, pointer="/e")
    found = leaching_fraction_for(feed_uS_cm, limit_uS_cm, e, eta, u)
    if found is None:
        raise Infeasible(
            f"Limit {limit_uS_cm:.0f} µS/cm is not above what is poured, {feed_uS_cm:.0f} µS/cm: no drainage holds it. "
            "Pour something thinner.",
            pointer="/limit_uS_cm",
        )
    ledger = Ledger("Share that must drain", "One well mixed water in the pot.", ("van-genuchten-wierenga-1976",))
    for symbol, words, value, unit in (
        ("C_in", "what is poured", feed_uS_cm, "µS/cm"),
        ("y_max", "limit of the root zone", limit_uS_cm, "µS/cm"),
        ("e", "lost", e, ""),
        ("eta", "leaching efficiency", eta, ""),
        ("u", "uptake", u, ""),
    ):
        ledger.take(symbol, words, value, unit)
    if found == 0.0:
        ledger.step("D", "y_max * (1 - e) ** u - C_in * (1 - e)", "µS/cm", "what uptake alone leaves room for")
        return ledger.close(LeachingFraction(0.0, "Nothing need drain: uptake alone holds the limit."))
    ledger.step("q", "(y_max - C_in) / (y_max * (1 - e) ** u - C_in * (1 - e))", "", "excess a watering may leave")
    ledger.step("x", "-ln(q) / eta", "", "drained over the water held")
    share = ledger.step("LF", "x / (x + e)", "", "share that drains")
    return ledger.close(LeachingFraction(share, f"{100 * share:.0f} % of each watering must drain."))
