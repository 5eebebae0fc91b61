"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.answers import answers, report, seasons, trials, wrong

router = APIRouter()
for part in (answers, trials, seasons, report, wrong):
    router.routes.extend(part.router.routes)
