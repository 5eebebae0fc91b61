"""Questions asked at every write. Each is built once, and one text serves any number of rows: to build a question takes
longer than SQLite takes to answer it, and to take rows for objects longer than both.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from typing import Any

from sqlalchemy import Executable, Select, Text, bindparam, func, select
from sqlalchemy.orm import Session


def among(name: str = "ids") -> Select[Any]:
    """What a column is held against with ``in_``: a list that is named when the question is asked."""
    return select(func.json_each(bindparam(name, type_=Text)).table_valued("value").c.value)


def listed(values: Iterable[Any]) -> str:
    """A list as ``among`` takes it."""
    return json.dumps(list(values))


def columns(session: Session, question: Executable, **asked: Any) -> Sequence[Any]:
    """Columns of the rows found, no objects; what this session was given to write is written before."""
    session.flush()
    return session.connection().execute(question, asked).all()
