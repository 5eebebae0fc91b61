"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.care import care, decisions, plans, ready

router = APIRouter()
for part in (care, ready, decisions, plans):
    router.routes.extend(part.router.routes)
