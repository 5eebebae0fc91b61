"""Entries as typed: numbers as text with comma or point, named in sentences by their field."""

from __future__ import annotations

import re
from datetime import datetime
from typing import Annotated, Any

from pydantic import BeforeValidator, ValidationInfo, WithJsonSchema
from pydantic_core import PydanticCustomError

from fenwa.core.entry import capital, read_number
from fenwa.core.errors import InputError
from fenwa.core.units import in_own_unit

# ISO 8601 without a zone, as it is stored: by the document's own word a date-time would name one
Moment = Annotated[datetime, WithJsonSchema({"type": "string", "description": "ISO 8601, without a zone"})]

LABELS = {
    "value": "Value",
    "on": "Date",
    "made_on": "Date",
    "temperature": "Water temperature",
    "ec": "EC",
    "runoff_volume": "Runoff volume",
    "runoff_ec": "Runoff EC",
    "volume": "Volume",
    "volume_L": "Volume",
    "leaves_count": "Leaves counted",
    "newest_leaf": "Newest leaf",
    "measured": "Measured EC",
    "label_rate": "Label rate",
    "density_g_mL": "Density",
    "n_total_pct": "Total nitrogen",
    "n_nitrate_pct": "Nitrate nitrogen",
    "n_ammonium_pct": "Ammoniacal nitrogen",
    "n_urea_pct": "Urea nitrogen",
    "p_pct": "Phosphorus",
    "k_pct": "Potassium",
    "ca_pct": "Calcium",
    "mg_pct": "Magnesium",
    "s_pct": "Sulfur",
    "interval_days": "Days between waterings",
    "pot_ids": "Pots",
    "price_per_L": "Price per litre",
    "sodium_mg_L": "Sodium",
    "fluoride_mg_L": "Fluoride",
    "hardness_mg_L_CaCO3": "Hardness",
    "alkalinity_mg_L_CaCO3": "Alkalinity",
    "profile_id": "Kind of plant",
    "medium_id": "Medium",
    "below_L": "Tray or reservoir",
    "top_cm": "Top diameter",
    "height_cm": "Height",
    "water_id": "Water",
    "product_id": "Feed",
    "scale_step_g": "Scale step",
    "syringe_step_mL": "Syringe step",
    "target_reading": "Target reading",
}
# "4.7 in as cm": typed in the unit the reader sees beside the field, for a field that is kept in another
_IN_ANOTHER_UNIT = re.compile(r"(?P<typed>.*?) (?P<unit>[^\d\s].*) as (?P<own>\S+)")
_UNIT_SUFFIX = re.compile(r"_(g_L|mL_L|mL|uS_cm|mg_L|L|g|cm|mm|C|pct|id|days)$")


# how a name ends, and the unit that says; a longer ending before the one it ends in
_ENDS_IN = {
    "_pct_per_C": "% per °C",
    "_pct_fs": "% of the range",
    "_per_L": "a litre",
    "_mg_L_CaCO3": "mg/L",
    "_mg_L": "mg/L",
    "_g_L": "g/L",
    "_mL_L": "mL/L",
    "_uS_cm": "µS/cm",
    "_pct": "%",
    "_days": "d",
    "_cm": "cm",
    "_mm": "mm",
    "_mL": "mL",
    "_L": "L",
    "_g": "g",
    "_C": "°C",
}


def unit_of(name: str) -> str:
    """The unit a field's name ends in; empty: it names none."""
    return next((unit for end, unit in _ENDS_IN.items() if name.endswith(end)), "")


def label_of(name: str) -> str:
    """The words a form shows for a field."""
    if name in LABELS:
        return LABELS[name]
    words = _UNIT_SUFFIX.sub("", name).replace("_", " ").strip()
    return capital(words) if words else "The request"


def _read(raw: Any, info: ValidationInfo) -> Any:
    label = label_of(info.field_name or "")
    another = _IN_ANOTHER_UNIT.fullmatch(raw) if isinstance(raw, str) else None
    try:
        if another:
            return in_own_unit(read_number(another["typed"], label), another["unit"], another["own"])
        return read_number(raw, label)
    except InputError as error:
        raise PydanticCustomError("fenwa_entry", "{sentence}", {"sentence": error.detail}) from error


def _said(raw: Any, info: ValidationInfo) -> Any:
    return _read(raw, info) if isinstance(raw, str) and _IN_ANOTHER_UNIT.fullmatch(raw) else raw


def _read_or_none(raw: Any, info: ValidationInfo) -> Any:
    if raw is None or (isinstance(raw, str) and not raw.strip()):
        return None
    return _read(raw, info)


_SCHEMA = WithJsonSchema({"anyOf": [{"type": "number"}, {"type": "string"}]})
Typed = Annotated[float, BeforeValidator(_read), _SCHEMA]
TypedOrNone = Annotated[
    float | None,
    BeforeValidator(_read_or_none),
    WithJsonSchema({"anyOf": [{"type": "number"}, {"type": "string"}, {"type": "null"}]}),
]
Said = Annotated[float | str, BeforeValidator(_said)]  # a strength: a number, 1/4, “half”, or a number in another unit
