"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.pots import collection, files, pots

router = APIRouter()
for part in (collection, files, pots):
    router.include_router(part.router)
