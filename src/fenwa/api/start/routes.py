"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.start import look, start

router = APIRouter()
router.routes.extend(start.router.routes)
router.routes.extend(look.router.routes)
