"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.pots import candidates, collection, files, pots, repotting, said

router = APIRouter()
for part in (candidates, collection, repotting, files, said, pots):
    router.routes.extend(part.router.routes)
