"""The OpenAPI document, whole as it is served, and the part of it the interface is typed from."""

from __future__ import annotations

import re
from typing import Any

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


def for_interface(document: dict[str, Any]) -> dict[str, Any]:
    """What the interface calls: without the calculations, without what is named in ``NOT_CALLED``, and without the
    schemas only those use.
    """
    paths = {
        path: item
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


def _named(part: Any) -> set[str]:
    return set(re.findall(r"#/components/schemas/([\w.-]+)'", str(part)))
