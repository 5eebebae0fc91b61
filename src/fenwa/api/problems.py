"""RFC 9457 problem documents: one table from core errors to status and title."""

from __future__ import annotations

import logging
import uuid
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from fenwa.api.model import Model
from fenwa.api.typed import label_of
from fenwa.core.errors import ChangedElsewhere, Conflict, DomainError, Infeasible, InputError, NotFound
from fenwa.store.trouble import trouble_of

log = logging.getLogger("fenwa")

STATUS: dict[type[DomainError], tuple[int, str]] = {
    InputError: (422, "The entry cannot be used"),
    Infeasible: (422, "No answer exists for this"),
    NotFound: (404, "Not found"),
    Conflict: (409, "Contradicts what is stored"),
    DomainError: (422, "Refused"),
}


class FieldError(Model):
    """One field's sentence."""

    pointer: str
    detail: str


class Problem(Model):
    """RFC 9457 problem document with field errors."""

    type: str
    title: str
    status: int
    detail: str
    code: str
    instance: str = ""
    errors: list[FieldError] = []
    facts: dict[str, Any] = {}


def problem(status: int, title: str, detail: str, code: str, **more: Any) -> JSONResponse:
    """A problem response."""
    body = Problem(type=f"/problems/{code}", title=title, status=status, detail=detail, code=code, **more)
    return JSONResponse(body.model_dump(), status, media_type="application/problem+json")


def _domain(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, DomainError)
    status, title = next(STATUS[kind] for kind in type(error).__mro__ if kind in STATUS)
    told = error.fields if isinstance(error, ChangedElsewhere) else {error.pointer: error.detail}
    errors = [FieldError(pointer=pointer, detail=detail) for pointer, detail in told.items() if pointer]
    return problem(status, title, error.detail, error.code, instance=request.url.path, errors=errors, facts=error.facts)


_PLAIN = {
    "missing": "is missing. Fill it in.",
    "extra_forbidden": "is not a field here. Remove it.",
    "date_from_datetime_parsing": "is not a date. Write it as 2026-11-23.",
    "date_parsing": "is not a date. Write it as 2026-11-23.",
    "bool_parsing": "must be yes or no.",
}


def sentence(item: dict[str, Any]) -> FieldError:
    """A validation error as a plain sentence naming field, value and way out."""
    path = [str(p) for p in item["loc"] if p not in ("body", "query", "path")]
    label = label_of(path[-1]) if path else "The request"
    pointer = "/" + "/".join(path)
    kind, given = item["type"], item.get("input")
    if kind == "fenwa_entry":
        return FieldError(pointer=pointer, detail=item["msg"])
    if kind in _PLAIN:
        quoted = f" “{given}”" if isinstance(given, str) and kind != "missing" else ""
        return FieldError(pointer=pointer, detail=f"{label}{quoted} {_PLAIN[kind]}")
    if kind == "literal_error":
        return FieldError(
            pointer=pointer, detail=f"{label} “{given}” is not a choice. Choose {item['ctx']['expected']}."
        )
    if kind == "json_invalid":
        return FieldError(pointer="", detail="The request is not valid JSON. Send a JSON object.")
    quoted = f" “{given}”" if isinstance(given, str | int | float) else ""
    return FieldError(pointer=pointer, detail=f"{label}{quoted}: {item['msg'].lower()}.")


def _validation(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    errors = [sentence(dict(item)) for item in error.errors()]
    detail = " ".join(dict.fromkeys(e.detail for e in errors))
    malformed = any(item["type"] == "json_invalid" for item in error.errors())
    return problem(
        400 if malformed else 422,
        "The entry cannot be used",
        detail,
        "input-error",
        instance=request.url.path,
        errors=errors,
    )


def _http(request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    return problem(
        error.status_code, "Request refused", str(error.detail), f"http-{error.status_code}", instance=request.url.path
    )


def unexpected(request: Request, error: Exception) -> JSONResponse:
    """What is answered when something stands in the way that no form can mend, or when we made a mistake."""
    found = trouble_of(error)
    if found is not None:
        log.warning("%s at %s: %s", found.code, request.url.path, error)
        return problem(
            503 if found.passes else 500, "Not stored", found.sentence, found.code, instance=request.url.path
        )
    reference = uuid.uuid4().hex[:12]
    log.error("unexpected error %s at %s", reference, request.url.path, exc_info=error)
    where = log_file()
    return problem(
        500,
        "Something broke",
        f"Nothing was stored. The log {f'({where}) ' if where else ''}has it under {reference}.",
        "internal",
        instance=request.url.path,
    )


def log_file() -> str:
    """The name of the file the log is written to, empty if it is written to none."""
    return next((Path(h.baseFilename).name for h in log.handlers if isinstance(h, logging.FileHandler)), "")


def install(app: FastAPI) -> None:
    """Put the handlers on the application; ``safety`` meets what none of them knows."""
    app.add_exception_handler(DomainError, _domain)
    app.add_exception_handler(RequestValidationError, _validation)
    app.add_exception_handler(HTTPException, _http)
