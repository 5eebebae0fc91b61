"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.water import devices, meters, readings, remedies, reports, sources, tools

router = APIRouter()
for part in (sources, remedies, readings, meters, reports, tools, devices):
    router.routes.extend(part.router.routes)
