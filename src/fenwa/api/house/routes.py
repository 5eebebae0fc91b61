"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.house import air, lan, options, places, settings

router = APIRouter()
for part in (options, places, air, lan, settings):
    router.include_router(part.router)
