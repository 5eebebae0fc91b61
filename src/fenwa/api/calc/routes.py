"""POST /api/calc/{name} for every registered calculation."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel

from fenwa.api.calc.calculations import answer_adapter, arguments, describe, request_model
from fenwa.core.calculations import list_calculations
from fenwa.core.registry import Calculation

router = APIRouter(prefix="/api/calc", tags=["calc"])


@router.get("")
def list_all() -> list[dict[str, Any]]:
    """Every calculation with its JSON schema."""
    return [describe(entry) for entry in list_calculations()]


def _add(entry: Calculation) -> None:
    model = request_model(entry.name)

    def run(body: BaseModel) -> Any:
        return entry.function(**arguments(body))

    run.__annotations__ = {"body": model, "return": answer_adapter(entry.name)._type}
    run.__name__ = f"calc_{entry.name.replace('-', '_')}"
    router.post(f"/{entry.name}", summary=entry.title, description=entry.summary)(run)


for _entry in list_calculations():
    _add(_entry)
