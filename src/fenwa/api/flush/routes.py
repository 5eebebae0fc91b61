"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.flush import readings, reservoirs, sessions, station, together, ways

router = APIRouter()
for part in (station, together, readings, ways, sessions, reservoirs):
    router.routes.extend(part.router.routes)
