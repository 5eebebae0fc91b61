"""Files in and out: a text taken, rows stored, a CSV to keep."""

from __future__ import annotations

from fastapi import Response
from pydantic import BaseModel


class TextIn(BaseModel):
    """A file's text."""

    text: str


class Imported(BaseModel):
    """How many rows were stored, and how many stood there already."""

    stored: int
    already_there: int


def csv_answer(text: str, name: str) -> Response:
    """A CSV file to keep."""
    return Response(
        text, media_type="text/csv; charset=utf-8", headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
