"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.leaves import station

router = APIRouter()
router.include_router(station.router)
