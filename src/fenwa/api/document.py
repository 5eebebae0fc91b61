"""The OpenAPI document, whole as it is served, and the part of it the interface is typed from."""

from __future__ import annotations

import re
from typing import Any

from fenwa.api import problems

CALCULATIONS = "/api/calc"  # every registered calculation: for scripts and other programs; stations have routes of own
NOT_CALLED = {
    "/api/health": "for whoever watches the server",
    "/api/inbox/senml": "loggers post here",
    "/api/mix/dose": "one can for a script; the desk asks for its whole screen",
    "/api/pots/{pot_id}/flush-plan": "one plan with one water, for a script; the station asks for every way",
    "/api/pots/{pot_id}/qr.svg": "a picture, named by its address",
    "/api/readings/{reading_id}/trace": "for whoever looks into a pen's trace; the page draws it while it settles",
    "/api/reports/preview": "for a script that checks a report before it is kept",
    "/api/waters/{water_id}/watch": "the working of a re-test day, for a script",
    "/api/batches/{batch_id}/left": "what is left of a can as seen, for a script; the page counts pours",
    "/api/batches/{batch_id}/working": "the working of a stored prediction, for a script",
}


PROBLEM = {"$ref": "#/components/schemas/Problem"}
AS_PROBLEM = {"application/problem+json": {"schema": PROBLEM}}
_ALWAYS = {
    401: "Sign in first: the passphrase of this house is asked for",
    403: "Refused: another host or another site's page asks",
    404: "Not found",
    409: "Contradicts what is stored",
    422: "The entry cannot be used",
    500: "Something broke; nothing was stored",
    503: "The disk, or another program, stands in the way; nothing was stored",
}
_WITH_A_BODY = {
    400: "The body is not JSON",
    408: "The rest of the request did not come",
    411: "The length of the body is not said",
    413: "Larger than what is taken at once",
}


def with_problems(document: dict[str, Any]) -> dict[str, Any]:
    """The document with every problem an endpoint can answer, as RFC 9457 documents."""
    shape = problems.Problem.model_json_schema(ref_template="#/components/schemas/{model}")
    parts: dict[str, Any] = shape.pop("$defs", {})
    schemas = {**document["components"]["schemas"], **parts, "Problem": shape}
    document["components"]["schemas"] = dict(sorted(schemas.items()))
    for path, verbs in document["paths"].items():
        if not path.startswith("/api"):
            continue
        for verb, operation in verbs.items():
            can = _ALWAYS if verb in ("get", "head") else {**_ALWAYS, **_WITH_A_BODY}
            answers = operation["responses"]
            for status in [s for s in answers if s.startswith(("4", "5"))]:
                del answers[status]
            answers |= {str(s): {"description": words, "content": AS_PROBLEM} for s, words in sorted(can.items())}
    document["components"]["schemas"].pop("HTTPValidationError", None)
    document["components"]["schemas"].pop("ValidationError", None)
    return document


def for_interface(document: dict[str, Any]) -> dict[str, Any]:
    """What the interface calls: without the calculations, without what is named in ``NOT_CALLED``, and without the
    schemas only those use; one problem stands for all, for they are all of one shape.
    """
    paths = {
        path: {verb: _one_problem(operation) for verb, operation in item.items()}
        for path, item in document["paths"].items()
        if not path.startswith(CALCULATIONS) and path not in NOT_CALLED
    }
    schemas = document["components"]["schemas"]
    used: set[str] = set()
    waiting = _named(paths)
    while waiting:
        name = waiting.pop()
        if name not in used:
            used.add(name)
            waiting |= _named(schemas[name])
    kept = {name: schema for name, schema in schemas.items() if name in used}
    return {**document, "paths": paths, "components": {**document["components"], "schemas": kept}}


def _one_problem(operation: dict[str, Any]) -> dict[str, Any]:
    kept = {s: r for s, r in operation["responses"].items() if s.startswith(("2", "3")) or s == "422"}
    return {**operation, "responses": kept}


def _named(part: Any) -> set[str]:
    return set(re.findall(r"#/components/schemas/([\w.-]+)'", str(part)))
