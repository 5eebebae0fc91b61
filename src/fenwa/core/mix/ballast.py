"""What of a can's salt is ballast, from its water and its products."""

from __future__ import annotations

from fenwa.core.errors import InputError
from fenwa.core.mix.elements import ions_per_gram
from fenwa.core.mix.feed import elements_of, sum_ions
from fenwa.core.mix.label import Label
from fenwa.core.pot.salts import feed_ballast_share


def can_ballast_share(
    water_share: float | None, water_uS_cm: float, parts: list[tuple[Label, float]], total_uS_cm: float
) -> float | None:
    """Share of ballast in a can; ``parts``: labels and doses [g/L]. None where the water or a label does not tell."""
    if water_share is None:
        return None
    if not parts or total_uS_cm <= 0:
        return water_share
    try:
        fed = feed_ballast_share(sum_ions([(ions_per_gram(elements_of(label)), dose) for label, dose in parts]))
    except InputError:  # a label that was taken once and is refused today tells nothing
        return None
    if fed is None:
        return water_share
    from_water = min(water_uS_cm, total_uS_cm)
    return (from_water * water_share + (total_uS_cm - from_water) * fed) / total_uS_cm
