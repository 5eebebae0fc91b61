"""Choices of the user: units, hemisphere, theme, scale and syringe. One table, with defaults and help."""

from __future__ import annotations

from typing import Any

import numpy as np
from pydantic import Field
from sqlalchemy.orm import Session

from fenwa.api.edits import kept_of_both
from fenwa.api.house.choices import Settings, check_steps, read_settings, read_with_fallbacks, reader_of, seasons_word
from fenwa.api.transactions import OneWrite, ReadSession
from fenwa.api.ways import Ways
from fenwa.core.units import DISPLAY, DisplayUnit
from fenwa.store.house_rows import places_without_latitude
from fenwa.store.models import Setting
from fenwa.store.summary import touch_all

router = Ways(prefix="/api/settings", tags=["settings"])


class SettingsChange(Settings):
    """Choices as they are to be; ``seen``: as they were when the form was opened."""

    seen: Settings | None = None


class SettingsOut(Settings):
    """Choices with the factors the interface needs to show them; what was stored and could not be read is told."""

    display: dict[str, DisplayUnit]
    fallen_back: list[str] = Field(default_factory=list)


def _stored(value: object) -> str:
    """A choice as text that reads back as the same choice."""
    return np.format_float_positional(value, trim="-") if isinstance(value, float) else str(value)


def _out(s: Settings, fallen_back: list[str] | None = None) -> SettingsOut:
    reader = reader_of(s)
    display = {kind: reader.unit(kind) for kind in DISPLAY}
    return SettingsOut(**s.model_dump(), display=display, fallen_back=fallen_back or [])


@router.get("")
def get_settings(session: ReadSession) -> SettingsOut:
    """The choices in force."""
    return _out(*read_with_fallbacks(session))


@router.put("")
def put_settings(body: SettingsChange, writer: OneWrite) -> SettingsOut:
    """Store the choices."""
    check_steps(body)

    def write(session: Session) -> dict[str, Any]:
        stored = read_settings(session)
        new = kept_of_both(body.seen, stored, body)
        before = stored.hemisphere
        if new.water_order != stored.water_order:
            touch_all(session)
        if new.hemisphere != before:
            # a place that was never told its latitude goes by what was chosen here
            for place in places_without_latitude(session, seasons_word(before)):
                place.hemisphere = seasons_word(new.hemisphere)
            touch_all(session)
        for key, value in new.model_dump().items():
            session.merge(Setting(key=key, value=_stored(value)))
        return new.model_dump()

    return _out(Settings.model_validate(writer.once(body, write)))
