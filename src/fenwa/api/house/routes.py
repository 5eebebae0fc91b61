"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.house import air, archive, backups, lan, options, places, settings

router = APIRouter()
for part in (options, places, air, archive, backups, lan, settings):
    router.routes.extend(part.router.routes)
