"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.round import bench, days, round

router = APIRouter()
for part in (round, days, bench):
    router.routes.extend(part.router.routes)
