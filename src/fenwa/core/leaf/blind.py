"""Rating photos blind: by number, in an order nobody chose."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass

from fenwa.core.entry import require


@dataclass(frozen=True)
class BlindPhoto:
    """A photo under a number that tells nothing; ``rated``: how often already."""

    number: int
    photo_id: int
    rated: int


def blind_order(rated: Mapping[int, int], seed: int) -> list[BlindPhoto]:
    """Photos in an order drawn by a seed, those rated least first; the same seed draws the same order.

    Raises
    ------
    OutOfRange
        If the seed is below 0 or beyond 1 000 000.
    """
    require(seed, "Seed", "", low=0, high=1_000_000, pointer="/seed")
    ids = sorted(rated, key=lambda i: hashlib.sha256(f"{seed}/{i}".encode()).digest())
    return [BlindPhoto(n, i, rated[i]) for n, i in enumerate(sorted(ids, key=lambda i: rated[i]), 1)]
