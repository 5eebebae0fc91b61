"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.log import log, pours

router = APIRouter()
for part in (pours, log):
    router.routes.extend(part.router.routes)
