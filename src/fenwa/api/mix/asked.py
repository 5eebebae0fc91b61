"""What every part of the Mix station asks for: a can as named by the grower, worked out by the core."""

from __future__ import annotations

from datetime import date
from typing import Literal

from sqlalchemy.orm import Session

from fenwa.api.house.choices import read_settings
from fenwa.api.model import Model
from fenwa.api.transactions import get_row
from fenwa.api.typed import Said, Typed
from fenwa.core.entry import require
from fenwa.core.errors import Underspecified
from fenwa.core.mix.asked_dose import Dose
from fenwa.core.mix.dose import dose
from fenwa.core.mix.feed import Feed, ProductSlope
from fenwa.core.mix.headroom import PotCeiling, strictest
from fenwa.core.mix.school import FeedRoute
from fenwa.core.mix.strength import StrengthMode, read_strength
from fenwa.core.units import to_canonical
from fenwa.core.water.blended import blended
from fenwa.core.water.kinds import BaseWater
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.collection import pots_today
from fenwa.store.mix_state import label_of, slope_of
from fenwa.store.pot_today import PotToday
from fenwa.store.water_state import WaterToday, waters_today

VolumeUnit = Literal["L", "US gal", "imp gal"]


class AlsoIn(Model):
    """Another product of the can at a fixed dose. [g/L of product]"""

    product_id: int
    dose: Typed


class ShareIn(Model):
    """A water of a blend and its part."""

    water_id: int
    share: Typed


class DoseIn(Model):
    """A can to be worked out. ``product_id`` null: plain water. ``blend``: shares instead of one source."""

    product_id: int | None = None
    water_id: int
    blend: list[ShareIn] = []
    pot_ids: list[int] = []
    volume: Typed
    volume_unit: VolumeUnit = "L"
    strength: StrengthMode = "nitrogen"
    element: str = "N"
    value: Said = 0.0
    also: list[AlsoIn] = []
    route: FeedRoute = "root"
    school_id: str | None = None


def litres(volume: float, unit: VolumeUnit) -> float:
    """A volume in litres, whatever gallon it was named in."""
    found = to_canonical(volume, "volume", unit, pointer="/volume_unit")
    return require(found, "Volume", "L", low=0, open_low=True, high=10_000, pointer="/volume")


def water_base(session: Session, water_id: int, today: date) -> BaseWater:
    """A source to mix with; one nobody measured stands at its usual reading."""
    return _base(session, waters_today(session, today, {water_id}), water_id)


def _base(session: Session, waters: list[WaterToday], water_id: int) -> BaseWater:
    found = next((w for w in waters if w.water.id == water_id), None)
    if found is None:
        get_row(session, models.Water, water_id, "Water", "/water_id")
        raise Underspecified("This water is not there. Choose another.", pointer="/water_id")
    return found.base()


def base_of(session: Session, body: DoseIn, today: date) -> BaseWater:
    """The source, or the blend, a can is filled with."""
    if not body.blend:
        return water_base(session, body.water_id, today)
    waters = waters_today(session, today, {part.water_id for part in body.blend})
    return blended([(_base(session, waters, part.water_id), part.share) for part in body.blend])


def ceilings_of(pots: list[PotToday]) -> list[PotCeiling]:
    """The pots that limit a feed, as sentences name them."""
    return [
        PotCeiling(f"{p.pot.code} {p.name}", p.feed_ceiling_uS_cm) for p in pots if p.feed_ceiling_uS_cm is not None
    ]


def feeds_of(session: Session, also: list[AlsoIn]) -> list[Feed]:
    """The other products with their labels."""
    out = []
    for i, part in enumerate(also):
        row = get_row(session, models.Product, part.product_id, "Feed", f"/also/{i}/product_id")
        out.append(Feed(label_of(row), part.dose))
    return out


class Asked:
    """A can with everything the core needs to work it out, loaded once."""

    def __init__(self, session: Session, body: DoseIn, today: date) -> None:
        if body.product_id is None:
            raise Underspecified("Feed is not chosen. Choose a feed by its label.", pointer="/product_id")
        self.product = get_row(session, models.Product, body.product_id, "Feed", "/product_id")
        self.label = label_of(self.product)
        self.base = base_of(session, body, today)
        self.also = feeds_of(session, body.also)
        found = slope_of(session, self.product)
        self.slope: Computed[ProductSlope] | None = found
        self.pots = pots_today(session, today, set(body.pot_ids)) if body.pot_ids else []
        self.settings = read_settings(session)
        self.volume_L = litres(body.volume, body.volume_unit)
        self.body = body

    def work_out(self) -> tuple[Computed[Dose], str, float]:
        """The dose, the echo of how its strength was named, and that strength as a number."""
        value, echo = read_strength(self.body.strength, self.body.value)
        pot = strictest(ceilings_of(self.pots))
        computed = dose(
            label=self.label,
            base=self.base,
            volume_L=self.volume_L,
            strength=self.body.strength,
            value=value,
            element=self.body.element,
            also=self.also,
            slope=self.slope.result if self.slope else None,
            ceiling_uS_cm=pot.ceiling_uS_cm if pot else None,
            ceiling_of=pot.name if pot else "",
            scale_step_g=self.settings.scale_step_g,
            syringe_step_mL=self.settings.syringe_step_mL,
        )
        return computed, echo, value
