"""The ways in are built when they are first asked for: built together they took a third of the start."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, get_type_hints

from fastapi import APIRouter
from fastapi.routing import APIRoute
from starlette.routing import Match, compile_path
from starlette.types import Scope

from fenwa.api.model import Model


class OnDemand(APIRoute):
    """A way in that knows its path and methods; what reads the request and writes the answer is built when the first
    request comes, or when the document of the ways is asked for.
    """

    def __init__(self, path: str, endpoint: Callable[..., Any], **said: Any) -> None:
        self.path, self.endpoint = path, endpoint
        self.methods = {method.upper() for method in said.get("methods") or ("GET",)}
        self._begins = path.partition("{")[0]
        self._said: dict[str, Any] | None = said

    def __getattr__(self, name: str) -> Any:
        """What is not there yet: how paths are read, or all the rest, once."""
        said = self.__dict__.get("_said")
        if said is None:
            raise AttributeError(name)
        if name in ("path_regex", "param_convertors"):
            self.path_regex, self.path_format, self.param_convertors = compile_path(self.path)
        else:
            self._said = None
            for kind in get_type_hints(self.endpoint).values():
                if isinstance(kind, type) and issubclass(kind, Model):
                    kind.model_rebuild()
            super().__init__(self.path, self.endpoint, **said)
        return getattr(self, name)

    def matches(self, scope: Scope) -> tuple[Match, Scope]:
        """Whether this is the way to a path; most are told by how they begin."""
        if scope["type"] != "http" or not scope["path"].startswith(self._begins):
            return Match.NONE, {}
        return super().matches(scope)


class Ways(APIRouter):
    """The ways into a part of the application, under a common beginning of their paths."""

    def __init__(self, prefix: str = "", tags: list[str] | None = None) -> None:
        super().__init__(prefix=prefix, tags=[*(tags or [])], route_class=OnDemand)
