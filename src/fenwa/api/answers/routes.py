"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.answers import answers, seasons, trials, wrong

router = APIRouter()
for part in (answers, trials, seasons, wrong):
    router.include_router(part.router)
