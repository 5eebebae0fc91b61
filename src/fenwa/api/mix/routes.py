"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.mix import cans, measures, shelf, station, tools

router = APIRouter()
for part in (station, tools, cans, shelf, measures):
    router.routes.extend(part.router.routes)
