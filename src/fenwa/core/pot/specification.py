"""What the salt balance must know of a pot, and how its members spread for a band."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

import numpy as np

from fenwa.core.entry import require
from fenwa.core.pot.balance import Array, Soil

Route = Literal["top", "soak", "tray", "reservoir", "cup", "leaf spray"]
Drainage = Literal["drains", "tray", "reservoir"]
WETTING_ROUTES = ("top", "soak", "tray", "reservoir", "cup")  # leaf sprays never reach the balance

# prior spread of the uncalibrated parameters (SD), tables of priors; judgement, low confidence
SPREAD = {"ln_eta": 0.35, "logit_u": 0.65, "ln_E": 0.20, "ln_W": 0.15, "ln_k": 0.70, "ln_start": 0.50}
MEMBERS = 1 + 2 * len(SPREAD)
Z80 = 1.2816  # half-width of the central 80 % in SDs

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

    ``u`` is the uptake fraction; ``loss_per_day`` the share of W_cc lost daily;
    ``tray_L`` the water in the tray or reservoir of a pot without exit.
    """

    volume_L: float
    medium: Medium
    u: float = 0.25
    loss_per_day: float = 0.05
    drainage: Drainage = "drains"
    tray_L: float | None = None
    start_uS_cm: float | None = None


@dataclass(frozen=True)
class WaterEvent:
    """One pour as logged; None means not measured."""

    on: date
    volume_L: float | None
    ec_uS_cm: float | None
    route: Route = "top"
    runoff_L: float | None = None
    runoff_ec_uS_cm: float | None = None


def check_pot(pot: PotSpec, pointer: str = "/pot") -> None:
    """Refuse a pot that cannot be, naming the field."""
    m = pot.medium
    require(pot.volume_L, "Pot volume", "L", low=0, open_low=True, high=500, pointer=f"{pointer}/volume_L")
    require(m.theta_cc, "Water held", "L/L", low=0.02, high=0.98, pointer=f"{pointer}/medium/theta_cc")
    require(m.phi, "Immobile share", "", low=0, high=0.95, pointer=f"{pointer}/medium/phi")
    require(m.t_half_h, "Half time", "h", low=0.01, high=1000, pointer=f"{pointer}/medium/t_half_h")
    require(m.eta, "Leaching efficiency", "", low=0.05, high=1.5, pointer=f"{pointer}/medium/eta")
    require(pot.u, "Uptake fraction", "", low=0.001, high=0.999, pointer=f"{pointer}/u")
    require(pot.loss_per_day, "Loss per day", "", low=0, high=1, pointer=f"{pointer}/loss_per_day")


def capacity_L(pot: PotSpec) -> float:
    """Water held at container capacity. [L]"""
    return pot.medium.theta_cc * pot.volume_L


def leachate_L(pot: PotSpec) -> float:
    """Volume a pour-through collects from a pot of this size. [L]"""
    volumes, amounts = zip(*POUR_THROUGH_mL, strict=True)
    return float(np.interp(pot.volume_L, volumes, amounts)) / 1000


def tray_L(pot: PotSpec) -> float:
    """Water in the tray or reservoir; half the pot's own water when nobody measured it. [L]"""
    if pot.drainage == "drains":
        return 0.0
    return pot.tray_L if pot.tray_L is not None else 0.5 * capacity_L(pot)


@dataclass(frozen=True)
class Members:
    """Soils of all members of the band, shape (..., MEMBERS); member 0 is the best guess."""

    soil: Soil
    E_factor: Array
    start_factor: Array
    tray_L: Array
    leachate_L: Array
    loss_L_day: Array


def members_of(pots: list[PotSpec]) -> Members:
    """Parameters of every pot, best guess first, then each parameter one SD up and down."""
    names = list(SPREAD)
    z = np.zeros((MEMBERS, len(names)))
    for i, name in enumerate(names):
        z[1 + 2 * i, i], z[2 + 2 * i, i] = SPREAD[name], -SPREAD[name]

    def column(values: list[float]) -> Array:
        return np.array(values)[:, None]

    W = column([capacity_L(p) for p in pots]) * np.exp(z[:, names.index("ln_W")])
    phi = column([p.medium.phi for p in pots])
    u0 = column([p.u for p in pots])
    logit = np.log(u0 / (1 - u0)) + z[:, names.index("logit_u")]
    soil = Soil(
        (1 - phi) * W,
        phi * W,
        column([p.medium.eta for p in pots]) * np.exp(z[:, names.index("ln_eta")]),
        1 / (1 + np.exp(-logit)),
        np.log(2) / column([p.medium.t_half_h for p in pots]) * np.exp(z[:, names.index("ln_k")]),
        column([p.medium.R for p in pots]),
    )
    tray = column([tray_L(p) for p in pots]) * np.ones(MEMBERS)
    # one SD more water loss in a tray stands for all salt carried up into the pot (E3.12b): no tray to dilute it
    tray[:, 1 + 2 * names.index("ln_E")] = 0.0
    return Members(
        soil,
        np.exp(z[:, names.index("ln_E")]),
        np.exp(z[:, names.index("ln_start")]),
        tray,
        column([leachate_L(p) for p in pots]),
        column([p.loss_per_day * capacity_L(p) for p in pots]),
    )


def band(values: Array) -> tuple[Array, Array, Array]:
    """Best guess and the 80 % band from members on the last axis: squares of the one-SD shifts add up."""
    ln = np.log(np.maximum(values, 1e-6))
    shift = ln[..., 1:] - ln[..., :1]
    up, down = shift[..., 0::2], shift[..., 1::2]
    above = np.sqrt(np.sum(np.maximum(np.maximum(up, down), 0.0) ** 2, axis=-1))
    below = np.sqrt(np.sum(np.minimum(np.minimum(up, down), 0.0) ** 2, axis=-1))
    middle = values[..., 0]
    return middle, middle * np.exp(-Z80 * below), middle * np.exp(Z80 * above)
