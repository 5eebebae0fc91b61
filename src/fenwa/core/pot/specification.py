"""What the salt balance must know of a pot, and how its members spread for a band."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Literal

import numpy as np

from fenwa.core.constants import Z80
from fenwa.core.entry import require
from fenwa.core.pot.balance import Array, Soil, placed
from fenwa.core.pot.methods import Crust, Method, Moist
from fenwa.core.pot.release import RELEASE_SD, PrillSalt, check_prills

Route = Literal["top", "soak", "tray", "reservoir", "cup", "moss pole", "leaf spray"]
Drainage = Literal["drains", "plunged", "tray", "reservoir"]
PLUNGED_LOSS = 0.5  # of what it would lose in the open: its wall is wet and it drinks from its bed; judgement
WETTING_ROUTES = ("top", "soak", "tray", "reservoir")  # cup, pole and leaf never reach the medium

# prior spread of the uncalibrated parameters (SD), tables of priors; judgement, low confidence
SPREAD = {
    "ln_eta": 0.35,
    "logit_u": 0.65,
    "ln_E": 0.20,
    "ln_W": 0.15,
    "ln_k": 0.70,
    "ln_start": 0.50,
    "split": 1.0,
}
PARAMETERS = tuple(SPREAD)
LEARNT = ("ln_eta", "logit_u", "ln_E", "ln_W")  # what a pot's readings teach and pots of one mix share
# share of the EC that is ballast, and how far off it may be: told by the ions, or not told at all
SPLIT_KNOWN_SD, SPLIT_UNKNOWN, SPLIT_UNKNOWN_SD = 0.05, 0.5, 0.25
AXES = len(SPREAD) + 1  # the last one is the salt itself: what no parameter explains, see pot.learning
MEMBERS = 1 + 2 * AXES

# pour-through: water to pour by pot volume [L] -> mL collected; extension guideline, small pots judgement
POUR_THROUGH_mL = ((0.2, 20.0), (0.4, 35.0), (0.8, 50.0), (1.3, 60.0), (2.5, 75.0), (5.0, 120.0), (12.0, 300.0))


@dataclass(frozen=True)
class Medium:
    """Water-holding and leaching of a medium (a row of data/media.toml)."""

    theta_cc: float
    phi: float
    t_half_h: float
    eta: float
    R: float = 1.0
    name: str = "medium"


@dataclass(frozen=True)
class PotSpec:
    """A pot for the salt balance. Volume in L, losses per day as share of the water held.

    ``u`` is the uptake fraction of nutrients, ``u_ballast`` that of sodium, chloride, sulfate, bicarbonate and
    the calcium of hard water; None: taken up alike. 0: none is taken up; 1: as concentrated as the water.
    ``loss_per_day`` the share of W_cc lost daily;
    ``tray_L`` the water in the tray or reservoir of a pot without exit. ``prills``: what lies in it and gives salt.
    """

    volume_L: float
    medium: Medium
    u: float = 0.25
    loss_per_day: float = 0.05
    drainage: Drainage = "drains"
    tray_L: float | None = None
    start_uS_cm: float | None = None
    u_ballast: float | None = None
    prills: tuple[PrillSalt, ...] = ()

    @property
    def drains(self) -> bool:
        """Whether what is poured on top runs away below: a pot sunk in a moist bed drains too."""
        return self.drainage in ("drains", "plunged")


@dataclass(frozen=True)
class WaterEvent:
    """One pour as logged; None means not measured. ``method``: how its runoff was caught.

    ``ballast_share``: what of its EC is ballast, by its ions; None: not known. ``soak_h``: how long the water had
    stood in the pot before this pour, of a pass of a flush. ``left_out``: its reading is kept, and teaches nothing.
    """

    on: date
    volume_L: float | None
    ec_uS_cm: float | None
    route: Route = "top"
    runoff_L: float | None = None
    runoff_ec_uS_cm: float | None = None
    method: Method = "runoff"
    ballast_share: float | None = None
    soak_h: float = 0.0
    left_out: bool = False
    flush: bool = False


@dataclass(frozen=True)
class PotReading:
    """What came out, was seen or felt between pours: a reading by its method, a crust, how wet it is. [µS/cm]"""

    on: date
    ec_uS_cm: float | None = None
    method: Method = "pour-through"
    crust: Crust | None = None
    moist: Moist | None = None
    left_out: bool = False


def check_medium(m: Medium, pointer: str) -> None:
    """Refuse a medium that cannot be, naming the field."""
    require(m.theta_cc, "Water held", "L/L", low=0.02, high=0.98, pointer=f"{pointer}/theta_cc")
    require(m.phi, "Immobile share", "", low=0, high=0.95, pointer=f"{pointer}/phi")
    require(m.t_half_h, "Half time", "h", low=0.01, high=1000, pointer=f"{pointer}/t_half_h")
    require(m.eta, "Leaching efficiency", "", low=0.05, high=1.5, pointer=f"{pointer}/eta")
    require(m.R, "Retardation", "", low=1, high=5, pointer=f"{pointer}/R")


def check_pot(pot: PotSpec, pointer: str = "/pot") -> None:
    """Refuse a pot that cannot be, naming the field."""
    require(pot.volume_L, "Pot volume", "L", low=0, open_low=True, high=500, pointer=f"{pointer}/volume_L")
    check_medium(pot.medium, f"{pointer}/medium")
    require(pot.u, "Uptake fraction", "", low=0, high=1, pointer=f"{pointer}/u")
    if pot.u_ballast is not None:
        require(pot.u_ballast, "Uptake fraction of ballast", "", low=0, high=1, pointer=f"{pointer}/u_ballast")
    require(pot.loss_per_day, "Loss per day", "", low=0, high=1, pointer=f"{pointer}/loss_per_day")
    if pot.tray_L is not None:
        require(pot.tray_L, "Water in the tray", "L", low=0, high=1000, pointer=f"{pointer}/tray_L")
    check_prills(pot.prills, f"{pointer}/prills")
    if pot.start_uS_cm is not None:
        require(pot.start_uS_cm, "Salt at the start", "µS/cm", low=0, high=50_000, pointer=f"{pointer}/start_uS_cm")


def loss_in_place(loss_per_day: float, drainage: Drainage) -> float:
    """Loss of a pot by where it stands, from that of its kind in the open. [1/d]"""
    return loss_per_day * (PLUNGED_LOSS if drainage == "plunged" else 1.0)


def capacity_L(pot: PotSpec) -> float:
    """Water held at container capacity. [L]"""
    return pot.medium.theta_cc * pot.volume_L


def leachate_L(pot: PotSpec) -> float:
    """Volume a pour-through collects from a pot of this size. [L]"""
    volumes, amounts = zip(*POUR_THROUGH_mL, strict=True)
    return float(np.interp(pot.volume_L, volumes, amounts)) / 1000


def tray_L(pot: PotSpec) -> float:
    """Water in the tray or reservoir; half the pot's own water when nobody measured it. [L]"""
    if pot.drains:
        return 0.0
    return pot.tray_L if pot.tray_L is not None else 0.5 * capacity_L(pot)


@dataclass(frozen=True)
class Members:
    """Soils of all members of the band, shape (..., MEMBERS); member 0 is the best guess."""

    soil: Soil
    E_factor: Array
    start_factor: Array
    split: Array
    tray_L: Array
    leachate_L: Array
    loss_L_day: Array
    shifts: Array  # of every parameter from its default, shape (..., MEMBERS, parameters)

    @property
    def release_factor(self) -> Array:
        """How much more or less prills give: what a medium holds at the start and what it gives are one unknown."""
        return np.asarray(self.start_factor ** (RELEASE_SD / SPREAD["ln_start"]))

    def at(self, which: list[int]) -> Members:
        """Some of many pots."""
        soil = Soil(*(v[..., which, :] for v in _of_soil(self.soil)))
        return _members(soil, [v[which] for v in _of_members(self)], self.shifts[which])

    def put(self, which: list[int], of: Members) -> Members:
        """Many pots, with what is known of some of them replaced."""
        soil = Soil(*(placed(a, which, b) for a, b in zip(_of_soil(self.soil), _of_soil(of.soil), strict=True)))
        shifts = self.shifts.copy()
        shifts[which] = of.shifts
        rows = zip(_of_members(self), _of_members(of), strict=True)
        return _members(soil, [placed(a, which, b) for a, b in rows], shifts)


def _of_soil(s: Soil) -> tuple[Array, ...]:
    return s.W_m_cc, s.W_i, s.eta, s.u, s.k_h, s.R


def _of_members(m: Members) -> tuple[Array, ...]:
    return m.E_factor, m.start_factor, m.split, m.tray_L, m.leachate_L, m.loss_L_day


def _members(soil: Soil, rows: list[Array], shifts: Array) -> Members:
    E_factor, start_factor, split, tray_L, leachate_L, loss_L_day = rows
    return Members(soil, E_factor, start_factor, split, tray_L, leachate_L, loss_L_day, shifts)


def prior_shifts() -> Array:
    """Nothing learnt: no shift for the best guess, then each parameter one SD up and down."""
    z = np.zeros((MEMBERS, len(PARAMETERS)))
    for i, name in enumerate(PARAMETERS):
        z[1 + 2 * i, i], z[2 + 2 * i, i] = SPREAD[name], -SPREAD[name]
    return z


def members_of(pots: list[PotSpec], shifts: Array | None = None) -> Members:
    """Parameters of every pot: best guess, then one SD up and down along each axis of what is known of them.

    ``shifts``: what its readings taught of each pot, shape (pots, MEMBERS, parameters); None: the defaults.
    """
    z_of = np.empty((len(pots), MEMBERS, len(PARAMETERS)))
    z_of[:] = prior_shifts() if shifts is None else shifts
    told = _defaults(tuple(pots)) if len(pots) == 1 else _columns(pots)
    W_0, phi, eta, u0, k_h, R, tray, leachate, loss = told

    by_name = z_of.transpose(2, 0, 1)
    z, times = dict(zip(PARAMETERS, by_name, strict=True)), dict(zip(PARAMETERS, np.exp(by_name), strict=True))
    W = W_0 * times["ln_W"]
    immobile = phi * W
    soil = Soil(W - immobile, immobile, eta * times["ln_eta"], _shifted(u0, z["logit_u"]), k_h * times["ln_k"], R)
    # one SD more water loss in a tray stands for all salt carried up into the pot (E3.12b): no tray to dilute it
    carried_up = (z["ln_E"] / SPREAD["ln_E"]).clip(0.0, 1.0) if tray.any() else 0.0
    return Members(
        soil,
        times["ln_E"],
        times["ln_start"],
        z["split"],
        tray * (1 - carried_up),
        leachate,
        loss,
        z_of,
    )


def _columns(pots: Sequence[PotSpec]) -> tuple[Array, ...]:
    """Defaults of every pot, as columns; uptake of nutrients and of ballast on a leading axis."""

    def column(values: list[float]) -> Array:
        return np.array(values)[:, None]

    return (
        column([capacity_L(p) for p in pots]),
        column([p.medium.phi for p in pots]),
        column([p.medium.eta for p in pots]),
        np.stack([column([p.u for p in pots]), column([p.u if p.u_ballast is None else p.u_ballast for p in pots])]),
        np.log(2) / column([p.medium.t_half_h for p in pots]),
        column([p.medium.R for p in pots]),
        column([tray_L(p) for p in pots]),
        column([leachate_L(p) for p in pots]),
        column([p.loss_per_day * capacity_L(p) for p in pots]),
    )


@lru_cache(maxsize=1024)
def _defaults(pots: tuple[PotSpec, ...]) -> tuple[Array, ...]:
    """The same, remembered: a pot is asked for at each of its readings."""
    return _columns(pots)


def _shifted(share: Array, z: Array) -> Array:
    """A share moved on the logit scale; 0 and 1 mean what they say and stay."""
    inner = (share > 0) & (share < 1)
    safe = np.where(inner, share, 0.5)
    return np.where(inner, 1 / (1 + (1 - safe) / safe * np.exp(-z)), share)


def two_salts(members: Members, ec_uS_cm: float, ballast_share: float | None) -> Array:
    """Nutrients and ballast of a water for every member, on a leading axis. [µS/cm]"""
    return two_salts_of(members, np.array([[ec_uS_cm]]), [ballast_share])


def two_salts_of(members: Members, ec_uS_cm: Array, ballast_shares: list[float | None]) -> Array:
    """Nutrients and ballast of the water of every pot, told apart by its share of ballast. [µS/cm]"""
    share = np.array([SPLIT_UNKNOWN if s is None else s for s in ballast_shares])[:, None]
    sd = np.array([SPLIT_UNKNOWN_SD if s is None else SPLIT_KNOWN_SD for s in ballast_shares])[:, None]
    out = np.empty((2, *members.split.shape))
    np.multiply((share + sd * members.split).clip(0.0, 1.0), ec_uS_cm, out=out[1])
    np.subtract(ec_uS_cm, out[1], out=out[0])
    return out


def band(values: Array) -> tuple[Array, Array, Array]:
    """Best guess and the 80 % band from members on the last axis: squares of the one-SD shifts add up."""
    ln = np.log(np.maximum(values, 1e-6))
    shift = ln[..., 1:] - ln[..., :1]
    up, down = shift[..., 0::2], shift[..., 1::2]
    more, less = np.maximum(np.maximum(up, down), 0.0), np.minimum(np.minimum(up, down), 0.0)
    above, below = (np.sqrt(np.einsum("...a,...a->...", v, v)) for v in (more, less))
    middle = values[..., 0]
    return middle, middle * np.exp(-Z80 * below), middle * np.exp(Z80 * above)
