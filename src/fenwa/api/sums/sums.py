"""Quick sums: a water, a feed for a can, whether the can is right, a blend, a flush. Nothing is stored."""

from __future__ import annotations

from fenwa.api.mix.asked import VolumeUnit, litres
from fenwa.api.model import Model
from fenwa.api.sums.told import FeedSumIn, ToldIn
from fenwa.api.typed import Typed
from fenwa.api.ways import Ways
from fenwa.core.care.drinkers import WhoDrinks, who_may_drink
from fenwa.core.entry import require
from fenwa.core.errors import NotFound
from fenwa.core.library.loader import media
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.batch import BatchCheck, batch_check
from fenwa.core.mix.dose import dose
from fenwa.core.mix.grade import label_of_grade
from fenwa.core.mix.strength import read_strength
from fenwa.core.pot.flush_litres import FlushLitres, flush_litres
from fenwa.core.pot.specification import PotSpec
from fenwa.core.water.blend import Blend, BlendTarget, BlendWater, blend
from fenwa.core.water.told import ToldWater, told_water
from fenwa.core.working import Computed, Working

router = Ways(prefix="/api/sums", tags=["sums"])


class ToldOut(Model):
    """What a water reads; a range where nobody read it, or its scale is not known."""

    low_uS_cm: float
    middle_uS_cm: float
    high_uS_cm: float
    measured: bool
    sentence: str
    working: Working


def _told(body: ToldIn) -> ToldWater:
    return told_water(body.kind, body.value, body.unit, body.scale, body.temperature)


def _out(w: ToldWater) -> ToldOut:
    return ToldOut(
        low_uS_cm=w.low_uS_cm,
        middle_uS_cm=w.middle_uS_cm,
        high_uS_cm=w.high_uS_cm,
        measured=w.measured,
        sentence=w.sentence,
        working=w.working,
    )


class WaterSumIn(Model):
    """What is my water, who may drink it, and thinned with what."""

    water: ToldIn
    plant: str = ""
    thinner: ToldIn = ToldIn(kind="rain")


class WaterSum(Model):
    """The water in µS/cm, who may drink it, and what it would be thinned with."""

    water: ToldOut
    thinner: ToldOut
    who: Computed[WhoDrinks]


@router.post("/water")
def sum_water(body: WaterSumIn) -> WaterSum:
    """A display in any unit as conductivity, and who may drink that water."""
    water, thinner = _told(body.water), _told(body.thinner)
    who = who_may_drink(
        low_uS_cm=water.low_uS_cm,
        high_uS_cm=water.high_uS_cm,
        kind=body.plant,
        thinner_uS_cm=thinner.high_uS_cm,
    )
    return WaterSum(water=_out(water), thinner=_out(thinner), who=who)


class FeedSum(Model):
    """Grams or millilitres for the can, what it reads then, and whether it does. ``check`` None: it was not read."""

    grade_sentence: str
    echo: str
    dose: Computed[Dose]
    check: Computed[BatchCheck] | None


@router.post("/feed")
def sum_feed(body: FeedSumIn) -> FeedSum:
    """How much of this feed for this can, and whether the can is right."""
    label, grade = label_of_grade(body.grade, body.form == "liquid", body.label_rate, body.label_rate_unit)
    volume_L, water = litres(body.volume, body.volume_unit), _told(body.water)
    value, echo = read_strength(body.strength, body.value)
    found = dose(
        label=label,
        base=water.base("the water"),
        volume_L=volume_L,
        strength=body.strength,
        value=value,
        scale_step_g=body.scale_step_g,
    )
    check = None
    if body.read is not None and body.read.value is not None:
        d, read = found.result, _told(body.read)
        check = batch_check(
            predicted_uS_cm=d.ec_total_uS_cm,
            predicted_low_uS_cm=d.ec_low_uS_cm,
            predicted_high_uS_cm=d.ec_high_uS_cm,
            measured_uS_cm=read.middle_uS_cm,
            water_uS_cm=water.middle_uS_cm,
            volume_L=volume_L,
            meter_half_width_uS_cm=read.half_width_uS_cm,
        )
    return FeedSum(grade_sentence=grade.sentence, echo=echo, dose=found, check=check)


class BlendSumIn(Model):
    """Two waters and what the blend shall read at most."""

    first: ToldIn
    second: ToldIn = ToldIn(kind="rain")
    target: Typed
    volume: Typed = 10.0
    volume_unit: VolumeUnit = "L"


@router.post("/blend")
def sum_blend(body: BlendSumIn) -> Computed[Blend]:
    """How much of each of two waters makes one of a wanted conductivity; each stands at the saltiest it may be."""
    waters = [BlendWater(_told(body.first).at_most("the first")), BlendWater(_told(body.second).at_most("the second"))]
    target = require(body.target, "Target", "µS/cm", low=0, high=20_000, pointer="/target")
    return blend(
        waters=waters,
        targets=[BlendTarget("ec", target, "about")],
        volume_L=litres(body.volume, body.volume_unit),
    )


class FlushSumIn(Model):
    """A pot, what its runoff reads and shall read, and the water at hand."""

    volume: Typed
    volume_unit: VolumeUnit = "L"
    medium_id: str = "bark_mix"
    runoff: ToldIn
    target: Typed
    water: ToldIn = ToldIn(kind="rain")


@router.post("/flush")
def sum_flush(body: FlushSumIn) -> Computed[FlushLitres]:
    """How many litres flush this pot."""
    if body.medium_id not in media():
        raise NotFound(f"Medium “{body.medium_id}” is not known. Choose one of the list.", pointer="/medium_id")
    pot = PotSpec(litres(body.volume, body.volume_unit), media()[body.medium_id].medium())
    return flush_litres(
        pot=pot,
        runoff_uS_cm=_told(body.runoff).middle_uS_cm,
        target_uS_cm=body.target,
        water_uS_cm=_told(body.water).middle_uS_cm,
    )
