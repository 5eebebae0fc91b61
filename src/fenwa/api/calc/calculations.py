"""One registration becomes a request model, a JSON schema, a route and a command."""

from __future__ import annotations

import inspect
from functools import lru_cache
from typing import Any, get_type_hints

from pydantic import BaseModel, ConfigDict, TypeAdapter, create_model
from pydantic.fields import FieldInfo

from fenwa.core.calculations import get_calculation
from fenwa.core.entry import check_plain
from fenwa.core.registry import Calculation


def _camel(name: str) -> str:
    return "".join(part.capitalize() for part in name.split("-"))


@lru_cache(maxsize=128)
def request_model(name: str) -> type[BaseModel]:
    """Pydantic model of a calculation's inputs, with texts and units of its docstring."""
    entry = get_calculation(name)
    hints = get_type_hints(inspect.unwrap(entry.function))
    docs = entry.parameters
    fields: dict[str, Any] = {}
    for key, parameter in inspect.signature(entry.function).parameters.items():
        doc = docs[key]
        default = ... if parameter.default is inspect.Parameter.empty else parameter.default
        extra: Any = {"unit": doc.unit} if doc.unit else None
        fields[key] = (hints[key], FieldInfo(default=default, description=doc.text, json_schema_extra=extra))
    return create_model(f"{_camel(name)}Input", __config__=ConfigDict(extra="forbid"), **fields)


@lru_cache(maxsize=128)
def answer_adapter(name: str) -> TypeAdapter[Any]:
    """Serialiser of a calculation's answer: result and working."""
    return TypeAdapter(get_type_hints(inspect.unwrap(get_calculation(name).function))["return"])


def arguments(model: BaseModel) -> dict[str, Any]:
    """Validated inputs as keyword arguments, nested rows kept as core types."""
    return {key: getattr(model, key) for key in type(model).model_fields}


def run_calculation(name: str, inputs: dict[str, Any]) -> dict[str, Any]:
    """Validate, compute and return plain JSON values."""
    check_plain(inputs)
    model = request_model(name).model_validate(inputs)
    computed = get_calculation(name).function(**arguments(model))
    plain: dict[str, Any] = answer_adapter(name).dump_python(computed, mode="json")
    return plain


def describe(entry: Calculation) -> dict[str, Any]:
    """Name, text and JSON schema of a calculation."""
    return {
        "name": entry.name,
        "title": entry.title,
        "station": entry.station,
        "summary": entry.summary,
        "formula_id": entry.formula_id,
        "input_schema": request_model(entry.name).model_json_schema(),
    }
