"""What the quick sums are told: a water, and a feed for a can."""

from __future__ import annotations

from typing import Literal

from fenwa.api.mix.asked import VolumeUnit
from fenwa.api.model import Model
from fenwa.api.typed import Said, Typed, TypedOrNone
from fenwa.core.mix.strength import StrengthMode
from fenwa.core.water.kinds import WaterKind
from fenwa.core.water.tds import TdsScale
from fenwa.core.water.temperature import EcUnit

Form = Literal["powder", "liquid"]


class ToldIn(Model):
    """A water as told: its kind, and what a display shows if somebody read it."""

    kind: WaterKind = "mains"
    value: TypedOrNone = None
    unit: EcUnit = "µS/cm"
    scale: TdsScale | None = None
    temperature: TypedOrNone = None


class FeedSumIn(Model):
    """A feed for a can: the label's three numbers, the can, a strength in any of its names; a reading of the can."""

    grade: str
    form: Form = "powder"
    label_rate: TypedOrNone = None
    label_rate_unit: str = "g/L"
    volume: Typed
    volume_unit: VolumeUnit = "L"
    strength: StrengthMode = "nitrogen"
    value: Said = 40.0
    water: ToldIn = ToldIn(kind="rain")
    scale_step_g: Typed = 1.0
    read: ToldIn | None = None
