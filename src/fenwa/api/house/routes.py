"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.house import lan, options, places, settings

router = APIRouter()
for part in (options, places, lan, settings):
    router.include_router(part.router)
