"""Keys of what was sent, with the answer each got: sent twice it is stored once."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import bindparam, insert, select
from sqlalchemy.orm import Session

from fenwa.store.models import Submission
from fenwa.store.questions import columns

_SEEN = select(Submission.request_hash, Submission.answer).where(Submission.key == bindparam("key"))
_KEEP = insert(Submission.__table__)  # type: ignore[arg-type]  # a table, said as what it is made from


def seen(session: Session, key: str) -> tuple[str, dict[str, Any]] | None:
    """What was sent under a key, as its hash, and the answer it got; None: nothing was."""
    found = columns(session, _SEEN, key=key)
    return (found[0].request_hash, dict(found[0].answer)) if found else None


def keep(session: Session, key: str, route: str, request_hash: str, answer: dict[str, Any]) -> None:
    """Keep the answer of a key with what was written for it."""
    session.flush()
    at = datetime.now(UTC).replace(tzinfo=None)
    session.connection().execute(
        _KEEP, {"key": key, "route": route, "request_hash": request_hash, "at": at, "answer": answer}
    )
