"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.sums import saved, sums

router = APIRouter()
router.include_router(sums.router)
router.include_router(saved.router)
