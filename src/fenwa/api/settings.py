"""Choices of the user: units, hemisphere, theme, scale and syringe. One table, with defaults and help."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np
from fastapi import APIRouter
from pydantic import BaseModel, ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.api.typed import Typed, label_of
from fenwa.api.writing import Reading, Writing
from fenwa.core.care.season import Hemisphere
from fenwa.core.entry import require, shown
from fenwa.core.errors import OutOfRange
from fenwa.core.units import DISPLAY, DisplayUnit
from fenwa.store.models import Place, Setting
from fenwa.store.summary import touch_all

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
    """Choices with the factors the interface needs to show them; what was stored and could not be read is told."""

    display: dict[str, DisplayUnit]
    fallen_back: list[str] = []


def read_settings(session: Session) -> Settings:
    """Stored choices over the defaults; a key no longer known is ignored, a value that cannot be read too."""
    return _read(session)[0]


def _read(session: Session) -> tuple[Settings, list[str]]:
    """The choices in force, and a sentence for each stored one that is not."""
    good: dict[str, Any] = {}
    fallen_back = []
    for row in session.query(Setting).order_by(Setting.key):
        if row.key not in Settings.model_fields:
            continue
        try:
            checked = Settings.model_validate({row.key: row.value})
            _check_steps(checked)
        except (ValidationError, OutOfRange):
            default = Settings.model_fields[row.key].default
            shown_default = shown(default) if isinstance(default, float) else default
            fallen_back.append(
                f"{label_of(row.key)} “{row.value}” cannot be used: {shown_default} stands. Save the settings once."
            )
        else:
            good[row.key] = getattr(checked, row.key)
    return Settings(**good), fallen_back


def seasons_word(chosen: str) -> Hemisphere:
    """The choice as the core names it."""
    return "south" if chosen == "south" else "none" if chosen == "no seasons" else "north"


def _check_steps(s: Settings) -> None:
    require(s.scale_step_g, "Scale step", "g", low=0.00001, high=100, pointer="/scale_step_g")
    require(s.syringe_step_mL, "Syringe step", "mL", low=0.0001, high=50, pointer="/syringe_step_mL")


def _stored(value: object) -> str:
    """A choice as text that reads back as the same choice."""
    return np.format_float_positional(value, trim="-") if isinstance(value, float) else str(value)


def _out(s: Settings, fallen_back: list[str] | None = None) -> SettingsOut:
    ec = f"ppm ({s.ppm_scale})" if s.ec_unit == "ppm" else s.ec_unit
    chosen = {"ec": ec, "temperature": s.temperature_unit, "volume": s.volume_unit, "mass": s.mass_unit}
    display = {kind: DISPLAY[kind][unit] for kind, unit in chosen.items()}
    return SettingsOut(**s.model_dump(), display=display, fallen_back=fallen_back or [])


@router.get("")
def get_settings(session: Reading) -> SettingsOut:
    """The choices in force."""
    return _out(*_read(session))


@router.put("")
def put_settings(body: Settings, writer: Writing) -> SettingsOut:
    """Store the choices."""
    _check_steps(body)

    def write(session: Session) -> dict[str, Any]:
        before = read_settings(session).hemisphere
        if body.hemisphere != before:
            # a place that was never told its latitude goes by what was chosen here
            follow = select(Place).where(Place.latitude_deg.is_(None), Place.hemisphere == seasons_word(before))
            for place in session.scalars(follow):
                place.hemisphere = seasons_word(body.hemisphere)
            touch_all(session)
        for key, value in body.model_dump().items():
            session.merge(Setting(key=key, value=_stored(value)))
        return body.model_dump()

    return _out(Settings.model_validate(writer.once(body, write)))
