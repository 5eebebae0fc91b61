"""Long answers written some rows at a time: one that is written in one go holds up every entry meanwhile."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import cache
from typing import Any

from fastapi import Response
from pydantic import BaseModel, TypeAdapter

from fenwa.core.pace import AT_A_TIME, step_done

Long = tuple[type, Sequence[Any]]  # what the rows are, and the rows


def as_json_in_steps(page: BaseModel, long: Mapping[str, Long]) -> Response:
    """A page with its long lists; ``long``: each by the name of its field, which is empty in ``page``.

    The page reads as if it had been written in one go.
    """
    body = page.model_dump_json().encode()
    for name, rows in long.items():
        head = f'"{name}":['.encode()
        before, after = body.split(head + b"]")  # one field of that name; a quote within a text is written otherwise
        body = b"".join((before, head, b",".join(_written(*rows)), b"]", after))
    return Response(body, media_type="application/json")


@cache
def _list_of(kind: type) -> TypeAdapter[list[Any]]:
    return TypeAdapter(list[kind])  # type: ignore[valid-type]


def _written(kind: type, rows: Sequence[Any]) -> Iterator[bytes]:
    for i in range(0, len(rows), AT_A_TIME):
        step_done()
        yield _list_of(kind).dump_json(list(rows[i : i + AT_A_TIME]))[1:-1]
