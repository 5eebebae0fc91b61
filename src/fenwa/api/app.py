"""Assembly of the application; no rule of its own."""

from __future__ import annotations

import hashlib
import os
import re
from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING, Any

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.types import Scope

import fenwa
from fenwa.api import problems, safety
from fenwa.api.answers import routes as answers
from fenwa.api.calc import routes as calc
from fenwa.api.care import routes as care
from fenwa.api.collections import Demonstration
from fenwa.api.document import with_problems
from fenwa.api.door import Door
from fenwa.api.flush import routes as flush
from fenwa.api.house import routes as house
from fenwa.api.leaves import routes as leaves
from fenwa.api.log import routes as log
from fenwa.api.mix import routes as mix
from fenwa.api.pots import routes as pots
from fenwa.api.round import routes as rounds
from fenwa.api.start import routes as start
from fenwa.api.sums import routes as sums
from fenwa.api.water import routes as water
from fenwa.core.pace import between_steps
from fenwa.devices.pen_session import PenSession
from fenwa.store.backup import Backups
from fenwa.store.giving_way import give_way
from fenwa.store.session import Store

if TYPE_CHECKING:
    from _typeshed import StrPath

_TAKES_PACKED = re.compile(r"(^|,)\s*br\s*(?!;\s*q=0(\.0*)?\s*(,|$))(;|,|$)")


class Interface(StaticFiles):
    """The built interface; paths of the application itself all load its one page. What the build packed beside a
    script is sent to whoever can read it.
    """

    def file_response(
        self, full_path: StrPath, stat_result: os.stat_result, scope: Scope, status_code: int = 200
    ) -> Response:
        packed = f"{os.fspath(full_path)}.br"
        if not os.path.isfile(packed):
            return super().file_response(full_path, stat_result, scope, status_code)
        takes = bool(_TAKES_PACKED.search(Headers(scope=scope).get("accept-encoding", "")))
        sent, stat = (packed, os.stat(packed)) if takes else (full_path, stat_result)
        response = super().file_response(sent, stat, scope, status_code)
        response.headers["Vary"] = "Accept-Encoding"  # of both: what is kept between may be asked for by either
        if takes and isinstance(response, FileResponse):  # the browser may have it already
            response.headers["Content-Type"] = FileResponse(full_path).headers["Content-Type"]
            response.headers["Content-Encoding"] = "br"
        return response

    async def get_response(self, path: str, scope: Scope) -> Response:
        try:
            response = await super().get_response(path, scope)
        except HTTPException as error:
            inside = path.startswith(("api", "assets")) or "." in path.rsplit("/", 1)[-1]
            if error.status_code != 404 or inside:
                raise
            return FileResponse(Path(str(self.directory)) / "index.html", headers={"Cache-Control": "no-cache"})
        if path.startswith("assets/"):
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        else:  # the page, the worker that keeps it, the manifest: asked for anew each time
            response.headers["Cache-Control"] = "no-cache"
        return response


def create_app(
    store: Store,
    clock: Callable[[], date],
    web: Path | None = None,
    pen: str = "none",
    door: Door | None = None,
    backups: Backups | None = None,
    demonstration: Demonstration | None = None,
) -> FastAPI:
    """The application on a store, with a clock for the day; the built interface, a pen and a door to the network
    if there are; backups beside the database if no other folder is named; a demonstration to look around in.
    """
    app = FastAPI(
        title="Fenwa",
        version=fenwa.__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
    )
    app.openapi = lambda: document(app)  # type: ignore[method-assign]
    app.state.store, app.state.clock, app.state.pen = store, clock, PenSession(pen, clock)
    app.state.door, app.state.backups = door, backups or Backups(store.path)
    app.state.demonstration = demonstration
    app.state.interface = _stamp_of(web)
    between_steps(give_way)
    problems.install(app)
    safety.install(app)
    for room in (calc, water, mix, pots, log, care, rounds, flush, leaves, answers, sums, start, house):
        app.router.routes.extend(room.router.routes)  # as they are: included they would be built anew, for seconds
    if web is not None:
        app.mount("/", Interface(directory=web, html=True), name="web")
    return app


def _stamp_of(web: Path | None) -> str:
    """Which interface is shipped: a page that was opened with another one is told so."""
    page = web / "index.html" if web is not None else None
    return hashlib.sha256(page.read_bytes()).hexdigest()[:12] if page is not None and page.exists() else "none"


def document(app: FastAPI) -> dict[str, Any]:
    """The OpenAPI document of an application, made once: every way in, the calculations among them."""
    if not app.openapi_schema:
        routes = [*calc.OnDemand.all(), *app.routes]
        plain = get_openapi(title=app.title, version=app.version, routes=routes)
        app.openapi_schema = with_problems(plain)
    return app.openapi_schema


def openapi_document(path: Path) -> dict[str, Any]:
    """The OpenAPI document, made on an empty store at ``path``."""
    return document(create_app(Store(path), date.today))
