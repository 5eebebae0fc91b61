"""POST /api/calc/{name} for every registered calculation."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from fastapi.routing import APIRoute
from pydantic import BaseModel
from starlette.routing import BaseRoute, Match
from starlette.types import Receive, Scope, Send

from fenwa.api.calc.calculations import answer_adapter, arguments, describe, request_model
from fenwa.api.ways import Ways
from fenwa.core.calculations import list_calculations
from fenwa.core.registry import Calculation, registered

PREFIX = "/api/calc"

router = Ways(prefix=PREFIX, tags=["calc"])


@router.get("")
def list_all() -> list[dict[str, Any]]:
    """Every calculation with its JSON schema."""
    return [describe(entry) for entry in list_calculations()]


@lru_cache(maxsize=512)
def route_of(name: str) -> APIRoute:
    """The way to one calculation, with the model of its inputs and of its answer."""
    entry: Calculation = registered()[name]
    model = request_model(name)

    def run(body: BaseModel) -> Any:
        return entry.function(**arguments(body))

    run.__annotations__ = {"body": model, "return": answer_adapter(name)._type}
    run.__name__ = f"calc_{name.replace('-', '_')}"
    one = Ways(prefix=PREFIX, tags=["calc"])
    one.post(f"/{name}", summary=entry.title, description=entry.summary)(run)
    (route,) = one.routes
    assert isinstance(route, APIRoute)
    return route


class OnDemand(BaseRoute):
    """The ways to all calculations: each is built when it is first asked for. Built together they took as long as
    the rest of the start.
    """

    def matches(self, scope: Scope) -> tuple[Match, Scope]:
        """Whether the path names a calculation, and the way there."""
        name = str(scope.get("path", "")).removeprefix(f"{PREFIX}/")
        if scope["type"] != "http" or name not in registered():
            return Match.NONE, {}
        match, child = route_of(name).matches(scope)
        return match, {**child, "calculation": name}

    async def handle(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Hand the request to the way it named."""
        await route_of(scope["calculation"]).handle(scope, receive, send)

    @staticmethod
    def all() -> list[APIRoute]:
        """Every way there is, for the document that tells them."""
        return [route_of(entry.name) for entry in list_calculations()]


router.routes.append(OnDemand())
