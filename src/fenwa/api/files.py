"""Files in and out: a text taken, rows stored, a CSV to keep."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import Depends, Request, Response

from fenwa.api.model import Model


class TextIn(Model):
    """A file's text."""

    text: str


class Imported(Model):
    """How many rows were stored, and how many stood there already."""

    stored: int
    already_there: int


def csv_answer(text: str, name: str) -> Response:
    """A CSV file to keep."""
    return Response(
        text, media_type="text/csv; charset=utf-8", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )


async def get_body(request: Request) -> bytes:
    """A file as it was sent: the body itself, under whatever name."""
    return await request.body()


Sent = Annotated[bytes, Depends(get_body)]
AS_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
