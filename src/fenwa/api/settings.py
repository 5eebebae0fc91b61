"""Choices of the user: units, hemisphere, theme, scale and syringe. One table, with defaults and help."""

from __future__ import annotations

from typing import Any, Literal

from fastapi import APIRouter
from pydantic import BaseModel
from sqlalchemy.orm import Session

from fenwa.api.typed import Typed
from fenwa.api.writing import Reading, Writing
from fenwa.core.entry import require
from fenwa.core.units import DISPLAY, DisplayUnit
from fenwa.store.models import Setting

router = APIRouter(prefix="/api/settings", tags=["settings"])


class Settings(BaseModel):
    """The user's choices. Values are stored in canonical units whatever is chosen here."""

    ec_unit: Literal["µS/cm", "mS/cm", "ppm"] = "µS/cm"
    ppm_scale: Literal["0.5", "0.64", "0.7"] = "0.5"
    temperature_unit: Literal["°C", "°F"] = "°C"
    volume_unit: Literal["L", "US gal", "imp gal"] = "L"
    mass_unit: Literal["g", "oz"] = "g"
    hemisphere: Literal["north", "south", "no seasons"] = "north"
    theme: Literal["light", "dark", "system"] = "system"
    scale_step_g: Typed = 0.1
    syringe_step_mL: Typed = 0.5
    collection_name: str = ""


class SettingsOut(Settings):
    """Choices with the factors the interface needs to show them."""

    display: dict[str, DisplayUnit]


def read_settings(session: Session) -> Settings:
    """Stored choices over the defaults; a key no longer known is ignored."""
    stored = {row.key: row.value for row in session.query(Setting)}
    return Settings.model_validate({k: v for k, v in stored.items() if k in Settings.model_fields})


def _out(s: Settings) -> SettingsOut:
    ec = f"ppm ({s.ppm_scale})" if s.ec_unit == "ppm" else s.ec_unit
    chosen = {"ec": ec, "temperature": s.temperature_unit, "volume": s.volume_unit, "mass": s.mass_unit}
    return SettingsOut(**s.model_dump(), display={kind: DISPLAY[kind][unit] for kind, unit in chosen.items()})


@router.get("")
def get_settings(session: Reading) -> SettingsOut:
    """The choices in force."""
    return _out(read_settings(session))


@router.put("")
def put_settings(body: Settings, writer: Writing) -> SettingsOut:
    """Store the choices."""
    require(body.scale_step_g, "Scale step", "g", low=0, open_low=True, high=100, pointer="/scale_step_g")
    require(body.syringe_step_mL, "Syringe step", "mL", low=0, open_low=True, high=50, pointer="/syringe_step_mL")

    def write(session: Session) -> dict[str, Any]:
        for key, value in body.model_dump().items():
            session.merge(Setting(key=key, value=str(value)))
        return body.model_dump()

    return _out(Settings.model_validate(writer.once(body, write)))
