"""How much medium a pot holds and how much water that medium keeps."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.registry import calculation
from fenwa.core.working import Computed, Ledger

FILL = 0.9  # share of a pot that is filled, judgement


@dataclass(frozen=True)
class PotVolume:
    """Volume of medium in a pot. [L]"""

    volume_L: float


@calculation("pot-volume", title="Volume of a pot", station="pots")
def pot_volume(
    *, top_cm: float, bottom_cm: float | None = None, height_cm: float, fill: float = FILL
) -> Computed[PotVolume]:
    """Volume of medium in a round pot from its diameters and height.

    Parameters
    ----------
    top_cm : float
        Inner diameter at the top, 1 to 200. [cm]
    bottom_cm : float
        Inner diameter at the bottom; 0.77 of the top when empty. [cm]
    height_cm : float
        Inner height, 1 to 200. [cm]
    fill : float
        Share of the pot that is filled, above 0 to 1.

    Returns
    -------
    Computed
        Volume of medium. [L]

    Raises
    ------
    OutOfRange
        If a length cannot be.
    InputError
        If the pot is wider below than above by more than a half.

    References
    ----------
    E3.1
    """
    require(top_cm, "Top diameter", "cm", low=1, high=200, pointer="/top_cm")
    require(height_cm, "Height", "cm", low=1, high=200, pointer="/height_cm")
    require(fill, "Fill", "", low=0, open_low=True, high=1, pointer="/fill")
    ledger = Ledger("Volume of a pot", "Round pots; square ones hold about a quarter more.", ("geometry",))
    bottom = bottom_cm if bottom_cm is not None else 0.77 * top_cm
    require(bottom, "Bottom diameter", "cm", low=0.5, high=200, pointer="/bottom_cm")
    if bottom > 1.5 * top_cm:
        raise InputError(
            f"Bottom {bottom:g} cm is much wider than the top {top_cm:g} cm. Swap them?", pointer="/bottom_cm"
        )
    ledger.take("D", "top diameter", top_cm, "cm")
    ledger.take("d", "bottom diameter", bottom, "cm", "entered" if bottom_cm else "default:0.77 of the top")
    ledger.take("h", "height", height_cm, "cm")
    ledger.take("fill", "share filled", fill, "", "default:usual filling")
    ledger.take("pi", "π", 3.141592653589793, "", "definition")
    V = ledger.step("V", "pi * h * (D**2 + D * d + d**2) / 12 / 1000 * fill", "L", "volume of medium")
    return ledger.close(PotVolume(V))
