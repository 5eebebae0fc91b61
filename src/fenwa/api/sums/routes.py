"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.sums import sums

router = APIRouter()
router.include_router(sums.router)
