"""The user's choices as every station reads them."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import ValidationError
from sqlalchemy.orm import Session

from fenwa.api.model import Model
from fenwa.api.typed import Typed, label_of
from fenwa.core.care.season import Hemisphere
from fenwa.core.entry import require, shown
from fenwa.core.errors import OutOfRange
from fenwa.core.water.choice import Order
from fenwa.core.writing import DateOrder, Reader
from fenwa.store.house_rows import stored_settings


class Settings(Model):
    """The user's choices. Values are stored in canonical units whatever is chosen here."""

    ec_unit: Literal["µS/cm", "mS/cm", "ppm"] = "µS/cm"
    ppm_scale: Literal["0.5", "0.64", "0.7"] = "0.5"
    temperature_unit: Literal["°C", "°F"] = "°C"
    volume_unit: Literal["L", "US gal", "imp gal"] = "L"
    mass_unit: Literal["g", "oz"] = "g"
    length_unit: Literal["cm", "in"] = "cm"
    date_order: DateOrder = "day first"
    hemisphere: Literal["north", "south", "no seasons"] = "north"
    theme: Literal["light", "dark", "system"] = "system"
    scale_step_g: Typed = 0.1
    syringe_step_mL: Typed = 0.5
    water_order: Order = "own"
    collection_name: str = ""


def read_settings(session: Session) -> Settings:
    """Stored choices over the defaults; a key no longer known is ignored, a value that cannot be read too."""
    return read_with_fallbacks(session)[0]


def read_with_fallbacks(session: Session) -> tuple[Settings, list[str]]:
    """The choices in force, and a sentence for each stored one that is not."""
    good: dict[str, Any] = {}
    fallen_back = []
    for row in stored_settings(session):
        if row.key not in Settings.model_fields:
            continue
        try:
            checked = Settings.model_validate({row.key: row.value})
            check_steps(checked)
        except (ValidationError, OutOfRange):
            default = Settings.model_fields[row.key].default
            shown_default = shown(default) if isinstance(default, float) else default
            fallen_back.append(
                f"{label_of(row.key)} “{row.value}” cannot be used: {shown_default} stands. Save the settings once."
            )
        else:
            good[row.key] = getattr(checked, row.key)
    return Settings(**good), fallen_back


def reader_of(s: Settings) -> Reader:
    """The units and the order of dates somebody chose."""
    ec = f"ppm ({s.ppm_scale})" if s.ec_unit == "ppm" else s.ec_unit
    return Reader(ec, s.temperature_unit, s.volume_unit, s.mass_unit, s.length_unit, s.date_order)


def seasons_word(chosen: str) -> Hemisphere:
    """The choice as the core names it."""
    return "south" if chosen == "south" else "none" if chosen == "no seasons" else "north"


def check_steps(s: Settings) -> None:
    """Refuse steps no scale or syringe has."""
    require(s.scale_step_g, "Scale step", "g", low=0.00001, high=100, pointer="/scale_step_g")
    require(s.syringe_step_mL, "Syringe step", "mL", low=0.0001, high=50, pointer="/syringe_step_mL")
