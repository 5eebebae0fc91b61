"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.start import look, start

router = APIRouter()
router.include_router(start.router)
router.include_router(look.router)
