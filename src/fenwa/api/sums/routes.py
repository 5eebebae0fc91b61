"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.sums import saved, sums

router = APIRouter()
router.routes.extend(sums.router.routes)
router.routes.extend(saved.router.routes)
