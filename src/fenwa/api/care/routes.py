"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.care import care, decisions, ready

router = APIRouter()
for part in (care, ready, decisions):
    router.include_router(part.router)
