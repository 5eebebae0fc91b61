"""A blend that is already decided, as a water to mix feed into."""

from __future__ import annotations

from fenwa.core.entry import require
from fenwa.core.errors import InputError
from fenwa.core.water.blend import MAX_WATERS, mix_ions
from fenwa.core.water.conductivity import ec_of
from fenwa.core.water.kinds import BaseWater, composition_of, is_thin


def blended(parts: list[tuple[BaseWater, float]]) -> BaseWater:
    """One water from several by their shares: ions mixed where all are known, else the straight line of EC.

    Shares are made to add up to 1. Nearly pure waters count with their kind's usual ions.

    Raises
    ------
    InputError
        If there are too few or too many waters, or their shares are nothing.
    OutOfRange
        If a share cannot be.
    """
    if not 2 <= len(parts) <= MAX_WATERS:
        raise InputError(f"A blend takes 2 to {MAX_WATERS} waters; {len(parts)} given.", pointer="/blend")
    for i, (water, share) in enumerate(parts):
        require(share, f"Share of {water.name}", "", low=0, high=1000, pointer=f"/blend/{i}/share")
    whole = sum(share for _, share in parts)
    if not whole > 0:
        raise InputError("The shares of the blend add up to nothing. Enter parts, such as 1 and 2.", pointer="/blend")
    shares = [share / whole for _, share in parts]
    name = " and ".join(f"{100 * f:.0f} % {w.name}" for (w, _), f in zip(parts, shares, strict=True) if f > 0)
    open_to = sum(w.half_width_uS_cm * f for (w, _), f in zip(parts, shares, strict=True))
    measured = all(w.measured for w, _ in parts)
    known = all(w.ions is not None or is_thin(w.kind) for w, _ in parts) and any(w.ions is not None for w, _ in parts)
    if known:
        ions = mix_ions([composition_of(w)[0] for w, _ in parts], shares)
        return BaseWater(ec_of(ions), "blended", ions, name, open_to, measured)
    # waters that are all nearly pure make one that is: it keeps such a kind, and with it the usual ions
    kind = parts[0][0].kind if all(is_thin(w.kind) for w, _ in parts) else "blended"
    ec = sum(w.ec25_uS_cm * f for (w, _), f in zip(parts, shares, strict=True))
    return BaseWater(ec, kind, None, name, open_to, measured)
