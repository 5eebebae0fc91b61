"""A medium mixed of parts: what it holds and how it leaches, from its parts."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.pot.specification import Medium, check_medium
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

MAX_PARTS = 8


@dataclass(frozen=True)
class Part:
    """A medium and how many parts of it by volume."""

    medium: Medium
    parts: float


@dataclass(frozen=True)
class MixedMedium:
    """A mixture as the salt balance needs it, and the water a litre of it holds. [mL/L]"""

    medium: Medium
    holds_mL_L: float
    name: str


def mixed(parts: list[Part]) -> Medium:
    """Volume-weighted water; what happens in the water is weighted by the water each part holds."""
    whole = sum(p.parts for p in parts)
    theta = sum(p.parts * p.medium.theta_cc for p in parts) / whole
    by_water = [p.parts * p.medium.theta_cc / (whole * theta) for p in parts]

    def weighted(name: str) -> float:
        return float(sum(w * getattr(p.medium, name) for w, p in zip(by_water, parts, strict=True)))

    return Medium(theta, weighted("phi"), weighted("t_half_h"), weighted("eta"), weighted("R"), name_of(parts))


def name_of(parts: list[Part]) -> str:
    """2:1 bark : perlite, as growers write it."""
    return f"{':'.join(f'{p.parts:g}' for p in parts)} {', '.join(p.medium.name for p in parts)}"


@dataclass(frozen=True)
class PartLitres:
    """Litres of each part, in the order given. [L]"""

    litres: tuple[float, ...]


@calculation("medium-parts", title="Litres of each part", station="pots")
def medium_parts(*, volume_L: float, parts: list[float]) -> Computed[PartLitres]:
    """Litres of each part that fill a pot.

    Parameters
    ----------
    volume_L : float
        What is to be filled, above 0 to 500. [L]
    parts : list[float]
        One to eight parts by volume, each above 0 to 1 000.

    Returns
    -------
    Computed
        Litres of each part; mixed they fill a little less, as the fine goes between the coarse. [L]

    Raises
    ------
    OutOfRange, InputError
        If a volume or a part cannot be, or there are none or too many.

    References
    ----------
    mass-balance
    """
    require(volume_L, "Volume", "L", low=0, open_low=True, high=500, pointer="/volume_L")
    if not 1 <= len(parts) <= MAX_PARTS:
        raise InputError(f"{len(parts)} parts cannot be mixed. Name one to {MAX_PARTS}.", pointer="/parts")
    for i, p in enumerate(parts):
        require(p, "Part", "", low=0, open_low=True, high=1000, pointer=f"/parts/{i}")
    ledger = Ledger("Litres of each part", "By volume, before mixing.", ("mass-balance",))
    ledger.take("V", "to fill", volume_L, "L")
    ledger.take("all", "parts in all", sum(parts), "")
    litres = []
    for i, p in enumerate(parts):
        ledger.take(f"p{i}", f"part {i + 1}", p, "")
        litres.append(ledger.step(f"V{i}", f"V * p{i} / all", "L", f"litres of part {i + 1}"))
    ledger.assume("Fine parts settle between coarse ones: keep a tenth more at hand.")
    return ledger.close(PartLitres(tuple(litres)))


@calculation("medium-properties", title="A medium of parts", station="pots")
def medium_properties(*, parts: list[Part], charged: bool | None = None) -> Computed[MixedMedium]:
    """Water holding and leaching of a mixed medium.

    Parameters
    ----------
    parts : list[Part]
        One to eight media with their parts by volume. [L/L, h]
    charged : bool
        Whether it came with feed; empty: not known.

    Returns
    -------
    Computed
        Water held, immobile share, exchange half time and leaching efficiency. [L/L, h, mL/L]

    Raises
    ------
    InputError
        If there are no parts or too many.
    OutOfRange
        If a part cannot be.

    Notes
    -----
    Fine parts fill the gaps of coarse ones, so a mixture shrinks and holds a little more than this.

    References
    ----------
    textbook-media; volume weighting, judgement
    """
    if not 1 <= len(parts) <= MAX_PARTS:
        raise InputError(
            f"A mixture has 1 to {MAX_PARTS} parts, not {len(parts)}. Leave the smallest out.", pointer="/parts"
        )
    for i, p in enumerate(parts):
        require(p.parts, "Parts", "", low=0, open_low=True, high=100, pointer=f"/parts/{i}/parts")
        check_medium(p.medium, f"/parts/{i}/medium")
    ledger = Ledger("A medium of parts", "By volume, in a pot 10 to 12 cm high.", ("textbook-media", "judgement"))
    for i, p in enumerate(parts):
        ledger.take(f"n{i}", f"parts of {p.medium.name}", p.parts, "")
        ledger.take(f"theta{i}", f"water held by {p.medium.name}", p.medium.theta_cc, "L/L", "table of media")
    top = " + ".join(f"n{i} * theta{i}" for i in range(len(parts)))
    ledger.step(
        "theta", f"({top}) / ({' + '.join(f'n{i}' for i in range(len(parts)))})", "L/L", "water held by the mixture"
    )
    held = ledger.step("held", "1000 * theta", "mL/L", "water a litre holds")
    ledger.assume("Leaching and exchange are weighted by the water each part holds.")
    ledger.caution("Fine parts fill the gaps of coarse ones: the mixture shrinks and holds a little more.")
    if charged is None:
        ledger.caution("Whether it came with feed is not known: read a first runoff before feeding.")
    elif charged:
        ledger.caution("It came with feed: no feed until a runoff shows it used.")
    made = mixed(parts)
    return ledger.close(MixedMedium(made, held, made.name))


def leading_part(shares: Mapping[str, float]) -> str:
    """The medium of a mixture with the largest part, the first of equals; empty for no parts."""
    return max(shares, key=lambda name: shares[name], default="")
