"""What a plant asks of its water is looked at by every calculation that takes it."""

from datetime import date

import pytest

from fenwa.core.errors import OutOfRange
from fenwa.core.water.choice import Offered, least_bad_water
from fenwa.core.water.kind_checks import KnownOfWater, PlantNeeds
from fenwa.core.water.remedy import Candidate, cheapest_remedy
from fenwa.core.water.verdict import water_verdict

RAIN = KnownOfWater("rain")
FIT = water_verdict(ec25_uS_cm=34, water=RAIN, plant=PlantNeeds(80)).result
OFFERED = Offered(id=1, name="Rain", low_uS_cm=30, usual_uS_cm=34, high_uS_cm=40, measured=True, verdict=FIT)


def asked(calculation: str, plant: PlantNeeds) -> object:
    if calculation == "water-verdict":
        return water_verdict(ec25_uS_cm=34, water=RAIN, plant=plant)
    if calculation == "cheapest-remedy":
        return cheapest_remedy(source=Candidate("Rain", 34, RAIN), plant=plant, others=[])
    return least_bad_water(offered=[OFFERED], plant=plant, today=date(2026, 11, 23))


@pytest.mark.parametrize("ion", ["fluoride", "chlorine", "sodium", "boron"])
@pytest.mark.parametrize("level", [-4, -1, 4, 2**40])
@pytest.mark.parametrize("calculation", ["water-verdict", "cheapest-remedy", "least-bad-water"])
def test_a_sensitivity_that_cannot_be_is_refused_beside_its_field(calculation: str, level: int, ion: str) -> None:
    with pytest.raises(OutOfRange, match=f"Sensitivity to {ion}") as refused:
        asked(calculation, PlantNeeds(80, **{f"{ion}_sensitivity": level}))
    assert refused.value.pointer == f"/plant/{ion}_sensitivity"


@pytest.mark.parametrize("level", range(4))
@pytest.mark.parametrize("calculation", ["water-verdict", "cheapest-remedy", "least-bad-water"])
def test_each_sensitivity_there_is_is_answered(calculation: str, level: int) -> None:
    assert asked(calculation, PlantNeeds(80, None, None, level, level, level, level))
